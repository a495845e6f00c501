package app

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/job/buildup"
	"allcoats/core/job/logbook"
	"allcoats/core/job/task"
	"allcoats/store"
)

// edition names a data sheet as it stood.
type edition struct {
	productID string
	version   int
}

// loadChoices loads what the user chose for the place of a boat, and the starts of the
// plan that stands there.
func (w *work) loadChoices(ctx context.Context, q store.Queries) error {
	row, err := q.Plan(ctx, w.survey.Place.ID)
	if errors.Is(err, store.ErrNotFound) {
		return nil
	} else if err != nil {
		return err
	}
	if err := json.Unmarshal([]byte(row.Settings), &w.choices); err != nil {
		return fmt.Errorf("plan of %s: %w", w.survey.Place.Name, err)
	}
	return nil
}

// jobOf makes the job of the boat.
func (w work) jobOf() task.Job {
	b := task.Boat{Own: w.choices.Own[w.survey.Boat.ID], Log: w.log[""], Skipped: map[string]bool{},
		Unlearned: w.unlearned}
	for id, m := range w.choices.Marks {
		b.Skipped[id] = m.State != ""
	}
	for _, f := range w.survey.Surfaces {
		b.Surfaces = append(b.Surfaces, w.ofJob(f, w.steps[f.ID]))
	}
	return task.Of(b)
}

// ofJob is a surface with steps as a job wants it.
func (w work) ofJob(f Surface, steps []Step) task.Surface {
	s := task.Surface{ID: f.ID, Name: f.Name, Part: f.Part, Substrate: f.Substrate, Area: f.Area.Figure,
		Access: f.accessFactor(), Log: w.log[f.ID]}
	for _, st := range steps {
		s.Steps = append(s.Steps, w.planned(st))
	}
	return s
}

// planned is a step with the sheet of its product and hardener, as a job wants it.
func (w work) planned(st Step) task.Step {
	sheet, _ := w.products[st.ProductID].With(st.Grade)
	return task.Step{ID: st.ID, ProductID: st.ProductID, Step: st.with(sheet)}
}

// sheet is the data sheet that an entry was laid by, with its hardener.
func (w work) sheet(e logbook.Logged) product.Sheet {
	if e.ProductID == "" {
		return product.Sheet{}
	}
	s := w.sheetOf(e.ProductID, e.Edition)
	if e.Planned != nil {
		s, _ = s.With(e.Planned.Grade)
	}
	return s
}

// laid returns a logged coat as the core wants it.
func (w work) laid(e logbook.Logged) buildup.Laid {
	l := buildup.Laid{WetUm: e.WetUm, Litres: e.Litres, ThinnerPct: e.ThinnerPct, At: e.StartedAt, Batch: e.Batch,
		Sheet: w.sheet(e), AreaM2: w.job.Told(e.ID).AreaM2}
	if e.Planned != nil {
		l.LossPct, l.StepUm = e.Planned.LossPct, e.Planned.DFTUm
	}
	return l
}

// filmDone lists the coats and sandings of a surface in their order.
func (w work) filmDone(surfaceID string) []buildup.Done {
	var out []buildup.Done
	for _, e := range w.log[surfaceID] {
		d := buildup.Done{RemovedUm: e.RemovedUm}
		if st := w.job.Told(e.ID).Step; st != nil && st.Where != nil {
			d.Where = st.Where.Name
		}
		if e.Planned != nil && e.Planned.Where != nil {
			d.Where = e.Planned.Where.Name
		}
		if kind := e.Kind.Kind(); kind.Films && e.ProductID != "" {
			l := w.laid(e)
			d.Coat = &l
		}
		out = append(out, d)
	}
	return out
}

// freeze says in an entry by which edition of its sheet it was laid, and as what.
func (w work) freeze(e *logbook.Entry) {
	if e.ProductID == "" {
		return
	}
	e.Edition = w.versions[e.ProductID]
	e.Planned = nil
	for _, st := range w.steps[e.SurfaceID] {
		if e.StepID != "" && st.ID == e.StepID && st.ProductID == e.ProductID {
			e.Planned = &logbook.Planned{DFTUm: st.DFTUm, LossPct: st.LossPct, Grade: st.Grade, Where: st.Where}
		}
	}
}

// below is the last coat of the same product on the surface before an entry, nil for none.
func (w work) below(r logbook.Logged) *logbook.Logged {
	var out *logbook.Logged
	for i, e := range w.log[r.SurfaceID] {
		if e.ID == r.ID || e.StartedAt.After(r.StartedAt) {
			break
		}
		if r.ProductID != "" && e.ProductID == r.ProductID {
			out = &w.log[r.SurfaceID][i]
		}
	}
	return out
}

// changed says what is new in a sheet or a tin since a coat, nil if nothing is. Without a
// batch told only the sheet counts.
func (w work) changed(last logbook.Logged, edition int, batch string) message.Sentence {
	var out []message.Sentence
	if last.Edition != edition {
		was, is := w.sheet(last), w.sheetOf(last.ProductID, edition)
		text := message.Of("the sheet was edited (edition %d, before %d)", edition, last.Edition)
		for _, f := range []struct {
			name    string
			was, is float64
			unit    string
		}{{"volume solids", was.VolumeSolidsPct, is.VolumeSolidsPct, "%"},
			{"film", was.Film.TypicalUm, is.Film.TypicalUm, "µm"}, {"share of base", 100 * was.BaseShare(),
				100 * is.BaseShare(), "%"}} {
			if math.Abs(f.was-f.is) > 0.05 {
				text = message.Of("%v, %s %v, before %v", text, f.name, message.Val(f.is, f.unit),
					message.Val(f.was, f.unit))
			}
		}
		out = append(out, text)
	}
	if batch != "" && last.Batch != "" && batch != last.Batch {
		out = append(out, message.Of("another batch, %s, before %s: try its colour and gloss beside the last", batch,
			last.Batch))
	}
	if len(out) == 0 {
		return nil
	}
	return message.Of("Since the coat below: %v.", message.Join(out, "; "))
}

// sheetOf is a product's sheet as it stood in an edition.
func (w work) sheetOf(productID string, n int) product.Sheet {
	if s, ok := w.editions[edition{productID, n}]; ok {
		return s
	}
	return w.products[productID]
}

// workDayH is how long a working day of those who work on the boat is, h, on the mean.
func (w work) workDayH() float64 {
	weeks := []calendar.Week{w.survey.Boat.Week}
	if len(w.choices.People) > 0 {
		weeks = nil
		for _, p := range w.choices.People {
			weeks = append(weeks, p.Week)
		}
	}
	sum, days := 0.0, 0
	for _, week := range weeks {
		for _, d := range week {
			if h := d.ToH - d.FromH; h > 0 {
				sum, days = sum+h, days+1
			}
		}
	}
	if days == 0 {
		return usualDayH
	}
	return sum / float64(days)
}

// usualDayH is a working day where no hours are said.
const usualDayH = 8

// BoatJob is the work of a boat: every task with what it takes and what is done of it.
type BoatJob struct {
	Boat  Boat      `json:"boat"`
	Place Place     `json:"place"`
	Now   time.Time `json:"now"`
	task.Job
	// WorkDayH is how long a working day of its people is.
	WorkDayH float64 `json:"workDayH"`
}

// Job returns the work of a boat.
func (a *App) Job(ctx context.Context, boatID string) (BoatJob, error) {
	w, err := a.loadBoatWork(ctx, a.store.Read(ctx), boatID)
	if err != nil {
		return BoatJob{}, err
	}
	now, err := a.Now(ctx)
	return BoatJob{w.survey.Boat, w.survey.Place, now, w.job, w.workDayH()}, err
}
