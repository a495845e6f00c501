package app

import (
	"context"
	"math"

	"allcoats/core/boat/survey"
	"allcoats/core/conditions/clock"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/job/logbook"
)

// Suspect is a blemish seen on a coat with its likely causes.
type Suspect struct {
	logbook.Blemish
	Causes []logbook.Cause `json:"causes"`
}

// Suspects tells what may have caused the blemishes of a coat, from its own record.
func (a *App) Suspects(ctx context.Context, id string, keys []string) ([]Suspect, error) {
	r, err := a.store.Read(ctx).Entry(ctx, id)
	if err != nil {
		return nil, err
	}
	o, err := a.look(ctx, r.BoatID)
	if err != nil {
		return nil, err
	}
	if len(keys) == 0 {
		keys = r.Detail.V.Blemishes
	}
	rec := o.recordOf(loggedOf(r))
	out := []Suspect{}
	for _, k := range keys {
		if b, ok := logbook.BlemishByKey(k); ok {
			out = append(out, Suspect{b, b.Causes(rec)})
		}
	}
	return out, nil
}

// repeats are the causes that came again and again on coats of a product on this boat.
func (o boatState) repeats(productID string) []logbook.Repeat {
	var coats []logbook.Blemished
	for _, f := range o.survey.Surfaces {
		for _, e := range o.log[f.ID] {
			if e.ProductID == productID && len(e.Blemishes) > 0 {
				coats = append(coats, logbook.Blemished{Record: o.recordOf(e), Blemishes: e.Blemishes})
			}
		}
	}
	return logbook.Repeats(coats)
}

// recordOf gathers what is known of a logged coat.
func (o boatState) recordOf(r logbook.Logged) logbook.Record {
	e := o.entry(r)
	f := o.surface(e.SurfaceID)
	rec := logbook.Record{Sheet: o.sheet(r), DryUm: e.FilmUm, ThinnerPct: e.ThinnerPct, Conditions: e.Conditions,
		Upright: math.Abs(f.Tilt(f.Part)-90) < 30, Early: e.Early != ""}
	for _, um := range e.WetUm {
		rec.WetUm += um / float64(len(e.WetUm))
	}
	for _, s := range o.steps[e.SurfaceID] {
		if s.ID == e.StepID {
			m, _ := film.MethodByKey(s.Method)
			rec.Spray, rec.PlannedUm = m.Spray, film.Wet(s.DFTUm, rec.Sheet.VolumeSolidsPct, e.ThinnerPct)
		}
	}
	if e.Mixed != nil {
		rec.RatioOffPct = e.Mixed.OffPct
	}
	w := o.climate.Surface[e.SurfaceID]
	if i := o.climate.Open.Find(e.StartedAt); i >= 0 && o.climate.Open[i].WindMS != nil && f.Shelter == survey.Open {
		rec.WindMS = *o.climate.Open[i].WindMS
	}
	rec.Damage = clock.Run(clock.Laid{Sheet: rec.Sheet, Started: e.StartedAt}, rec.Sheet.Kind, w, o.now).Damage
	var last *clock.Laid
	for _, p := range o.log[e.SurfaceID] {
		at := p.StartedAt
		if p.ID == r.ID || at.After(e.StartedAt) {
			break
		}
		switch kind := p.Kind.Kind(); {
		case kind.Lays:
			last, rec.Cleaned = &clock.Laid{Sheet: o.sheet(p), Started: at}, false
		case kind.Abrades && last != nil:
			last.Abraded = &at
		case p.Kind == step.Wash || p.Kind == step.Degrease:
			rec.Cleaned = true
		}
	}
	rec.Keyed = true
	if last != nil && last.Abraded == nil {
		closes := clock.Run(*last, rec.Sheet.Kind, w, o.now).Event(clock.RecoatCloses)
		rec.Keyed = closes.At == nil || e.StartedAt.Before(*closes.At)
	}
	return rec
}
