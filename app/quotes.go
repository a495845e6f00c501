package app

import (
	"context"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/film/step"
	"allcoats/core/job/quote"
	"allcoats/core/job/task"
	"allcoats/core/planning/plan"
	"allcoats/store"
)

// Quotes are what shops ask for parts of the work on a boat, each against doing it oneself.
type Quotes struct {
	Version int     `json:"version"`
	Quotes  []Offer `json:"quotes"`
	// HourCents is what an hour of one's own costs, 0 if that is not said.
	HourCents float64 `json:"hourCents"`
	WorkDayH  float64 `json:"workDayH"`
}

// Offer is a quote with what the same work takes oneself. Money is in cents.
type Offer struct {
	quote.Quote
	Own quote.Own `json:"own"`
	// Tasks are how many it takes off one's hands; Dearer is by how much it costs more than oneself,
	// with one's hours at their price; SavedHour what an hour that it saves costs, nil where it saves none.
	Tasks     int      `json:"tasks"`
	Dearer    float64  `json:"dearerCents"`
	SavedHour *float64 `json:"savedHourCents,omitempty"`
	// OwnReady is when the plan has the last of the same work done, nil where it has none.
	OwnReady *time.Time `json:"ownReady,omitempty"`
	// OwnLasts is for how many years the own work goes, the least of its surfaces, 0 where nothing tells.
	OwnLasts float64 `json:"ownLasts"`
}

// Quotes compares what shops ask with doing it oneself.
func (a *App) Quotes(ctx context.Context, boatID string) (Quotes, error) {
	o, err := a.look(ctx, boatID)
	if err != nil {
		return Quotes{}, err
	}
	row, err := a.store.Read(ctx).Boat(ctx, boatID)
	if err != nil {
		return Quotes{}, err
	}
	yard, _, err := a.showYard(ctx, o.survey.Place.ID)
	if err != nil {
		return Quotes{}, err
	}
	ends := map[string]time.Time{}
	for _, p := range ofBoat(yard.view.Plan, boatID) {
		ends[p.Whole] = latest(ends[p.Whole], p.End)
	}
	out := Quotes{Version: row.QuotesVersion, Quotes: []Offer{}, HourCents: o.choices.HourCents, WorkDayH: o.workDayH()}
	for _, q := range o.quotes.V {
		out.Quotes = append(out.Quotes, o.offer(q, ends))
	}
	return out, nil
}

// material is what one takes for the coats of a task, cents.
func (w work) material(t task.Task) float64 { return t.LeftL * litreCents(w.products[t.ProductID]) }

// offer compares a quote; ends are those of the tasks as planned.
func (o boatState) offer(q quote.Quote, ends map[string]time.Time) Offer {
	out := Offer{Quote: q}
	var all []task.Task
	for _, c := range o.job.Surfaces {
		takes := q.Takes(c)
		all = append(all, takes...)
		if len(takes) == 0 {
			continue
		}
		f := o.surface(c.SurfaceID)
		core := make([]step.Step, len(o.steps[f.ID]))
		for i, st := range o.steps[f.ID] {
			core[i] = o.planned(st).Step
		}
		if years := o.lasts(f, core); years > 0 && (out.OwnLasts == 0 || years < out.OwnLasts) {
			out.OwnLasts = years
		}
	}
	for _, t := range all {
		if end, ok := ends[t.ID]; ok && (out.OwnReady == nil || end.After(*out.OwnReady)) {
			out.OwnReady = &end
		}
	}
	out.Tasks, out.Own = len(all), quote.OwnOf(all, o.material, o.choices.HourCents)
	out.Dearer = q.Cents - out.Own.Cents()
	if cents, ok := q.SavedHour(out.Own); ok {
		out.SavedHour = &cents
	}
	return out
}

// SetQuotes replaces the quotes of a boat.
func (a *App) SetQuotes(ctx context.Context, boatID string, version int, all []quote.Quote) (Quotes, error) {
	return change(ctx, a, func(ctx context.Context) (Quotes, error) {
		if err := quote.ValidateAll(all); err != nil {
			return Quotes{}, err
		}
		for i := range all {
			if all[i].ID == "" {
				all[i].ID = newID()
			}
		}
		err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			return q.SetQuotes(ctx, boatID, version, all)
		})
		if err != nil {
			return Quotes{}, stale(err, func() (Quotes, error) { return a.Quotes(ctx, boatID) })
		}
		return a.Quotes(ctx, boatID)
	})
}

// shop is the remedy of letting a shop do what it quoted for on boat k.
func shop(k int, q quote.Quote) remedy {
	taken := func(s *yardState) map[string]task.Task {
		out := map[string]task.Task{}
		for _, c := range s.looks[k].job.Surfaces {
			for _, t := range q.Takes(c) {
				out[t.ID] = t
			}
		}
		return out
	}
	return remedy{name: message.Of("%v", q.Who), apply: func(s *yardState) (any bool) {
		takes := taken(s)
		b := &s.yard.Boats[k]
		until, err := time.ParseInLocation(time.DateOnly, q.ReadyOn, s.yard.Loc)
		b.Shop = map[string]time.Time{}
		return s.each(func(tasks []task.Task) (out []task.Task, changed bool) {
			for _, t := range tasks {
				if _, ok := takes[t.ID]; ok {
					changed = true
					continue
				}
				out = append(out, t)
			}
			if changed && err == nil {
				for _, c := range s.looks[k].job.Surfaces {
					if len(q.Takes(c)) > 0 {
						b.Shop[c.SurfaceID] = until.AddDate(0, 0, 1)
					}
				}
			}
			return out, changed
		})
	}, cents: func(s *yardState, _ plan.Plan, _ time.Time) float64 {
		sum := q.Cents
		for _, t := range taken(s) {
			sum -= s.looks[k].material(t)
		}
		return sum
	}}
}
