package app

import (
	"context"
	"fmt"

	"allcoats/core/base/fielderr"
	"allcoats/core/catalog/product"
	"allcoats/core/job/buildup"
	"allcoats/core/job/logbook"
	"allcoats/core/job/quote"
	"allcoats/core/job/task"
	"allcoats/store"
)

// work is a boat with everything planned and logged on her, by surface.
type work struct {
	survey   Survey
	products map[string]product.Sheet
	// versions are those of the products, editions sheets as they stood that something was
	// laid by.
	versions map[string]int
	editions map[edition]product.Sheet
	choices  PlanSettings
	job      task.Job
	steps    map[string][]Step
	log      map[string][]logbook.Logged // without deleted ones, by time
	overrule map[[3]string]store.Overrule
	shelf    []StockItem
	photos   []store.Photo
	// unlearned are the keys of lessons that do not count; dryings what was learned of clocks.
	unlearned map[string]bool
	quotes    store.JSON[[]quote.Quote]
	dryings   map[string]logbook.Drying
	// finishes by surface, empty for the boat, and craft
	finishes map[[2]string]store.Finish
}

// loadWork loads the boat that a surface belongs to.
func (a *App) loadWork(ctx context.Context, q store.Queries, surfaceID string) (work, error) {
	s, err := q.Surface(ctx, surfaceID)
	if err != nil {
		return work{}, err
	}
	return a.loadBoatWork(ctx, q, s.BoatID)
}

func (a *App) loadBoatWork(ctx context.Context, q store.Queries, boatID string) (work, error) {
	w := work{products: map[string]product.Sheet{}, versions: map[string]int{}, editions: map[edition]product.Sheet{},
		steps: map[string][]Step{}, log: map[string][]logbook.Logged{}, overrule: map[[3]string]store.Overrule{},
		finishes: map[[2]string]store.Finish{}}
	var err error
	if w.survey, err = loadSurvey(ctx, q, boatID); err != nil {
		return w, err
	}
	all, err := products(ctx, q)
	if err != nil {
		return w, err
	}
	for _, p := range all {
		w.products[p.ID], w.versions[p.ID] = p.Sheet, p.Version
	}
	editions, err := q.BoatEditions(ctx, boatID)
	if err != nil {
		return w, err
	}
	for _, e := range editions {
		w.editions[edition{e.ProductID, e.Version}] = e.Sheet.V
	}
	if err := w.loadChoices(ctx, q); err != nil {
		return w, err
	}
	steps, err := q.BoatSteps(ctx, boatID)
	if err != nil {
		return w, err
	}
	for _, s := range steps {
		w.steps[s.SurfaceID] = append(w.steps[s.SurfaceID], stepOf(s))
	}
	overrules, err := q.BoatOverrules(ctx, boatID)
	if err != nil {
		return w, err
	}
	for _, o := range overrules {
		w.overrule[[3]string{o.SurfaceID, o.StepID, o.Rule}] = o
	}
	log, err := q.BoatLog(ctx, boatID)
	if err != nil {
		return w, err
	}
	for _, e := range log {
		if e.DeletedAt == nil {
			w.log[string(e.SurfaceID)] = append(w.log[string(e.SurfaceID)], loggedOf(e))
		}
	}
	if err := w.learn(ctx, q); err != nil {
		return w, err
	}
	finishes, err := q.BoatFinishes(ctx, boatID)
	if err != nil {
		return w, err
	}
	for _, f := range finishes {
		w.finishes[[2]string{string(f.SurfaceID), f.Craft}] = f
	}
	if w.photos, err = q.BoatPhotos(ctx, boatID); err != nil {
		return w, err
	}
	w.job = w.jobOf()
	w.shelf, err = a.shelf(ctx, q, w.products)
	return w, err
}

func (w work) surface(id string) Surface {
	for _, s := range w.survey.Surfaces {
		if s.ID == id {
			return s
		}
	}
	return Surface{}
}

// done counts the logged coats of every step.
func (w work) done(steps []Step) []int {
	out := make([]int, len(steps))
	for i, s := range steps {
		out[i] = w.job.Coats(s.ID)
	}
	return out
}

// check reports what a change to steps on a surface may not hold. A step may have
// fewer coats than went on if it has had so before: one more was logged then.
func (w work) check(surfaceID string, steps []Step) error {
	var bad fielderr.Errors
	coats := map[string]int{} // as stored, by step
	for _, s := range w.steps[surfaceID] {
		coats[s.ID] = s.Coats
	}
	ids := map[string]bool{}
	done := w.done(steps)
	for i, s := range steps {
		if sheet, ok := w.products[s.ProductID]; !ok && s.with(sheet).Films() {
			bad.Add(fmt.Sprintf("steps[%d].productId", i), "choose a product of the library")
		}
		if _, known := coats[s.ID]; s.ID != "" && (!known || ids[s.ID]) {
			bad.Add(fmt.Sprintf("steps[%d].id", i), "is no step of this surface, or is there twice")
		}
		ids[s.ID] = true
		if s.Coats < min(done[i], coats[s.ID]) {
			bad.Add(fmt.Sprintf("steps[%d].coats", i), "%d coats of this step have already gone on", done[i])
		}
	}
	return bad.Err()
}

// own is what the log has taught of the litres on a surface.
func (w work) own(surfaceID string) buildup.Own {
	return buildup.Own{Usage: w.job.Usage, Surface: surfaceID}
}
