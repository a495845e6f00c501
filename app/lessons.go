package app

import (
	"context"
	"maps"
	"slices"
	"strings"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/job/logbook"
	"allcoats/core/job/task"
	"allcoats/core/physics/cure"
	"allcoats/store"
)

// dryingKey is the key of the lesson on the clocks of a product.
func dryingKey(productID string) string { return "drying:" + productID }

// learn takes what coats were felt to take, and makes the clocks of their sheets as slow.
func (w *work) learn(ctx context.Context, q store.Queries) error {
	boat, err := q.Boat(ctx, w.survey.Boat.ID)
	if err != nil {
		return err
	}
	w.quotes, w.unlearned = boat.Quotes, map[string]bool{}
	for _, key := range boat.Unlearned.V {
		w.unlearned[key] = true
	}
	var log []logbook.Logged // in one order, so that the same entries give the same figure to the last digit
	for _, f := range w.survey.Surfaces {
		log = append(log, w.log[f.ID]...)
	}
	w.dryings = logbook.Dryings(log)
	for id, d := range w.dryings {
		if _, known := w.products[id]; !known || w.unlearned[dryingKey(id)] {
			continue
		}
		w.products[id] = w.products[id].Slower(d.Factor)
		for e, s := range w.editions {
			if e.productID == id {
				w.editions[e] = s.Slower(d.Factor)
			}
		}
	}
	return nil
}

// feel works out what a coat that was felt had passed of its time: that which was laid last before.
func (o boatState) feel(e *logbook.Entry) error {
	var coat *logbook.Logged
	for i, l := range o.log[e.SurfaceID] {
		if l.Kind.Kind().Lays && l.ProductID != "" && l.StartedAt.Before(e.StartedAt) {
			coat = &o.log[e.SurfaceID][i]
		}
	}
	if coat == nil {
		return fielderr.At("felt.state", "no coat was on this surface by then: log the coat first")
	}
	sheet := o.sheet(*coat)
	table := e.Felt.State.Of(sheet.TouchDry, sheet.Sandable)
	if len(table) == 0 {
		return fielderr.At("felt.state", "the sheet of %s has no time to hold this against", sheet.Name)
	}
	clock := cure.Clock{Table: table, Side: cure.Minimum, FloorC: sheet.MinCureC}
	passed := clock.By(o.climate.Surface[e.SurfaceID].Path(sheet.Humidity), coat.StartedAt, e.StartedAt)
	e.Felt.ProductID, e.Felt.Progress = coat.ProductID, passed*max(1, sheet.SlowerBy)
	return nil
}

// Lessons are what the log of a boat taught, each with how many entries it is from, and whether it
// counts.
func (a *App) Lessons(ctx context.Context, boatID string) ([]task.Lesson, error) {
	w, err := a.loadBoatWork(ctx, a.store.Read(ctx), boatID)
	if err != nil {
		return nil, err
	}
	out := w.job.Lessons()
	for _, id := range slices.Sorted(maps.Keys(w.dryings)) {
		d := w.dryings[id]
		off := w.unlearned[dryingKey(id)]
		out = append(out, task.Lesson{Key: dryingKey(id), Says: message.Of("Drying: %s", w.products[id].Name),
			Entries: d.Felt, Factor: d.Factor, Spread: task.Tenth(d.SDLog), Off: off, Counts: !off && d.Factor > 1})
	}
	return out, nil
}

// SetLesson switches a lesson of a boat's log off, or on again.
func (a *App) SetLesson(ctx context.Context, boatID, key string, off bool) ([]task.Lesson, error) {
	return change(ctx, a, func(ctx context.Context) ([]task.Lesson, error) {
		if kind, _, _ := strings.Cut(key, ":"); !slices.Contains([]string{"pace", task.LitresKey, "drying"}, kind) {
			return nil, fielderr.At("key", "is no lesson")
		}
		err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			boat, err := q.Boat(ctx, boatID)
			if err != nil {
				return err
			}
			keys := slices.DeleteFunc(boat.Unlearned.V, func(k string) bool { return k == key })
			if off {
				keys = append(keys, key)
			}
			return q.SetUnlearned(ctx, boatID, append([]string{}, keys...))
		})
		if err != nil {
			return nil, err
		}
		return a.Lessons(ctx, boatID)
	})
}
