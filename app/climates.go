package app

import (
	"context"
	"slices"
	"sort"
	"time"

	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/climate"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/field"
	"allcoats/core/conditions/readiness"
	"allcoats/core/exposure/reading"
	"allcoats/core/exposure/surface"
	"allcoats/core/film/step"
	"allcoats/core/physics/weather"
	"allcoats/store"
)

// Ribbon is the stretch of time that a screen draws: the weather at one surface
// and daylight around now.
type Ribbon struct {
	Now   time.Time  `json:"now"`
	From  time.Time  `json:"from"`
	To    time.Time  `json:"to"`
	Hours []AirHour  `json:"hours"`
	Light []Daylight `json:"light"`
	// Faces are the other surfaces, each with a value for every one of Hours.
	Faces []Face `json:"faces"`
}

// AirHour is an hour of weather with its dew point. DewRisk says that the
// surface is nearer to it than coatings are allowed without a limit of their own.
type AirHour struct {
	weather.Hour
	DewPointC float64 `json:"dewPointC"`
	SurfaceC  float64 `json:"surfaceC"`
	DewRisk   bool    `json:"dewRisk"`
}

// Face is a surface over the hours of a ribbon: its temperature, its spread over
// the dew point of the air at it, and when it is wet.
type Face struct {
	SurfaceID string        `json:"surfaceId"`
	Surface   string        `json:"surface"`
	SurfaceC  []float64     `json:"surfaceC"`
	SpreadK   []float64     `json:"spreadK"`
	Wet       []surface.Wet `json:"wet"`
	// Probed says that readings on it correct the model.
	Probed bool `json:"probed"`
}

// Daylight is a stretch with the sun up.
type Daylight struct {
	From time.Time `json:"from"`
	To   time.Time `json:"to"`
}

// back and ahead bound what a ribbon carries; spinUp is how long a surface is
// followed before what matters.
const (
	back   = 3 * 24 * time.Hour
	ahead  = 8 * 24 * time.Hour
	spinUp = 48 * time.Hour
)

// sameBegin is to what the beginnings of records are rounded down, so that the boats of a
// place share most of theirs.
const sameBegin = 28 * 24 * time.Hour

// longestCure is how far back a film's clock is followed; a table's weeks take that
// long in a cold winter.
const longestCure = 200 * 24 * time.Hour

// boatState is a boat with the weather at every one of her surfaces.
type boatState struct {
	work
	now     time.Time
	boat    climate.Boat
	climate climate.Climate
	s       readiness.Situation
	bared   map[string]time.Time // when a bench has a surface bared, beside the log
}

// look gathers a boat's weather and the state of her coats at the program's
// time, from before the oldest coat whose clock still counts.
func (a *App) look(ctx context.Context, boatID string) (o boatState, err error) {
	err = a.View(ctx, func(ctx context.Context) error {
		o, err = a.gather(ctx, boatID)
		return err
	})
	return o, err
}

func (a *App) gather(ctx context.Context, boatID string) (boatState, error) {
	q := a.store.Read(ctx)
	w, err := a.loadBoatWork(ctx, q, boatID)
	if err != nil {
		return boatState{}, err
	}
	now, err := a.Now(ctx)
	if err != nil {
		return boatState{}, err
	}
	o := boatState{work: w, now: now}
	p, b := w.survey.Place, w.survey.Boat
	loc := p.location()
	o.s = readiness.Situation{Now: now, Loc: loc, Lights: b.Lights, Crew: b.Crew, DewFreeH: b.DewFreeH}
	from := now.Add(-back)
	for _, f := range w.survey.Surfaces {
		t := w.coats(f)
		for _, l := range t.Films {
			if l.Started.Before(from) && now.Sub(l.Started) < longestCure {
				from = l.Started
			}
		}
		o.s.Surfaces = append(o.s.Surfaces, t)
	}
	if o.boat, err = loadClimate(ctx, q, w, from.Add(-spinUp).Truncate(sameBegin), now); err != nil {
		return o, err
	}
	o.boat.Memory = &a.skies
	o.climate = climate.Of(o.boat)
	o.s.Air = o.climate.Open
	for i, f := range o.s.Surfaces {
		o.s.Surfaces[i].Weather = o.climate.Surface[f.ID]
	}
	o.s.Daylight = a.days.Daylight(p.LatitudeDeg, p.LongitudeDeg, now.Add(-back), now.Add(2*ahead))
	o.s.Work = b.Week.Between(now.Add(-back), now.Add(2*ahead), loc)
	return o, nil
}

// coats is a surface with its last coat and its next.
func (w work) coats(f Surface) readiness.Surface {
	t := readiness.Surface{ID: f.ID, Name: f.Name, AreaM2: f.Area.AreaM2, Sheltered: f.Shelter != survey.Open,
		Immersed: f.Part.Underwater()}
	chain := w.job.Chain(f.ID)
	t.Planned = len(chain.Tasks) > 0
	first, next := chain.First()
	if next != nil {
		t.Next = &readiness.Coat{Step: next.Step, TaskID: next.ID, N: next.N, Of: next.Of, LayH: next.LayH,
			Litres: next.LeftL, AreaM2: next.AreaM2, ProductID: next.ProductID, Where: next.Where}
		t.NextStepID = next.StepID
	}
	for _, k := range chain.Tasks {
		for _, b := range k.Binds {
			if b.By != nil {
				t.Limits = append(t.Limits, readiness.Limit{Name: b.Name, Until: chain.Named(b.Until), By: *b.By,
					Breaks: b.Breaks})
			}
		}
	}
	for _, p := range first {
		t.First = append(t.First, readiness.Prep{Name: p.Named(), LeftH: p.LeftH})
	}
	for _, e := range w.log[f.ID] {
		at := e.StartedAt
		switch kind := e.Kind.Kind(); {
		case kind.Lays && e.ProductID != "":
			t.Films = append(t.Films, clock.Laid{Sheet: w.sheet(e), Started: at})
			last := t.Films[len(t.Films)-1]
			t.Last = &last
		case e.Kind == step.Strip:
			t.Last, t.Films = nil, nil
		case kind.Abrades && t.Last != nil:
			t.Last.Abraded = &at
		case e.Kind == step.Inspect && t.Last != nil:
			t.Last.Inspected = &at
		case e.Kind == step.Wash && t.Last != nil:
			t.Last.Washed = &at
		}
	}
	return t
}

// wetted is when a surface was washed, in the order of time, and what water its outermost
// film takes up, mm: the pores of an open filler.
func (w work) wetted(surfaceID string) (washed []time.Time, soakMM float64) {
	for _, e := range w.log[surfaceID] {
		switch {
		case e.Kind == step.Wash:
			end := e.StartedAt.Add(time.Duration(e.Hours * float64(time.Hour)))
			washed = append(washed, end)
		case e.Kind == step.Coat:
			um, _ := w.laid(e).FilmUm()
			soakMM = w.sheet(e).SoakMM(um)
		case e.Kind == step.Strip:
			soakMM = 0
		}
	}
	slices.SortFunc(washed, time.Time.Compare)
	return washed, soakMM
}

// loadClimate gathers what bears on the weather at a boat's surfaces from an
// instant on.
func loadClimate(ctx context.Context, q store.Queries, w work, from, now time.Time) (climate.Boat, error) {
	p, b := w.survey.Place, w.survey.Boat
	out := climate.Boat{Site: climate.Site{LatitudeDeg: p.LatitudeDeg, LongitudeDeg: p.LongitudeDeg, Loc: p.location(),
		Now: now}}
	for _, f := range w.survey.Surfaces {
		face := surface.Of(f.Description, f.Part, f.Side, b.HeadingDeg)
		face.Washed, face.SoakMM = w.wetted(f.ID)
		out.Surfaces = append(out.Surfaces, climate.Surface{ID: f.ID, Face: face, AreaM2: f.Area.AreaM2,
			Shelter: f.Shelter})
	}
	row, err := q.Boat(ctx, b.ID)
	if err != nil {
		return out, err
	}
	out.Tent = row.Tent.V
	if out.Air, err = record(ctx, q, p.ID, from, now.Add(2*ahead)); err != nil {
		return out, err
	}
	instruments, err := q.Instruments(ctx, p.ID)
	if err != nil {
		return out, err
	}
	readings, err := q.PlaceReadings(ctx, p.ID, from, now)
	if err != nil {
		return out, err
	}
	for _, i := range instruments {
		if i.BoatID != nil && *i.BoatID != b.ID {
			continue
		}
		one := climate.Instrument{Kind: reading.Kind(i.Kind), Readings: readings[i.ID]}
		if i.SurfaceID != nil {
			one.SurfaceID = *i.SurfaceID
		}
		out.Instruments = append(out.Instruments, one)
	}
	return out, nil
}

// ribbon draws the hours around now with the weather at a surface, to the hundredth; an empty id
// is the first one's, or the open air if there is none.
func (o boatState) ribbon(surfaceID string) Ribbon {
	r := Ribbon{Now: o.now, From: o.now.Add(-back).Truncate(time.Hour), To: o.now.Add(ahead).Truncate(time.Hour),
		Hours: []AirHour{}, Light: []Daylight{}, Faces: []Face{}}
	if _, end, ok := o.s.Air.Span(); ok && end.After(o.now) && end.Before(r.To) {
		r.To = end
	}
	lead, ok := o.climate.Surface[surfaceID]
	if !ok {
		lead = field.Weather{Air: o.s.Air}
		for _, h := range o.s.Air {
			lead.SurfaceC = append(lead.SurfaceC, h.TempC)
		}
		if len(o.s.Surfaces) > 0 {
			lead = o.s.Surfaces[0].Weather
		}
	}
	lo := sort.Search(len(lead.Air), func(i int) bool { return !lead.Air[i].At.Before(r.From) })
	hi := sort.Search(len(lead.Air), func(i int) bool { return lead.Air[i].At.After(r.To) })
	for i := lo; i < hi; i++ {
		h, dew := lead.Air[i], lead.Air[i].DewPointC()
		// Rain is drawn as it falls, under a roof too.
		h.RainMM, h.WindMS = o.s.Air[i].RainMM, o.s.Air[i].WindMS
		risk := lead.SurfaceC[i]-dew < product.Limits{}.SpreadK()
		h.TempC, h.RHPct = round(h.TempC), round(h.RHPct)
		r.Hours = append(r.Hours, AirHour{h, round(dew), round(lead.SurfaceC[i]), risk})
	}
	for _, f := range o.s.Surfaces {
		face := Face{SurfaceID: f.ID, Surface: f.Name, SurfaceC: make([]float64, 0, hi-lo),
			SpreadK: make([]float64, 0, hi-lo), Wet: []surface.Wet{}, Probed: o.climate.Bias[f.ID].N > 0}
		for i := lo; i < hi; i++ {
			face.SurfaceC = append(face.SurfaceC, round(f.Weather.SurfaceC[i]))
			face.SpreadK = append(face.SpreadK, round(f.Weather.SurfaceC[i]-f.Weather.Air[i].DewPointC()))
		}
		for _, w := range f.Weather.Wet {
			if w.To.After(r.From) && w.From.Before(r.To) {
				face.Wet = append(face.Wet, w)
			}
		}
		r.Faces = append(r.Faces, face)
	}
	for _, l := range o.s.Daylight {
		r.Light = append(r.Light, Daylight{l.Rise, l.Set})
	}
	return r
}
