package app

import (
	"context"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/conditions/clock"
	"allcoats/store"
)

// Pot is one that was mixed, with its timers.
type Pot struct {
	ID        string        `json:"id"`
	SurfaceID string        `json:"surfaceId"`
	Surface   string        `json:"surface"`
	ProductID string        `json:"productId"`
	Product   string        `json:"product"`
	Litres    float64       `json:"litres"`
	MixedAt   time.Time     `json:"mixedAt"`
	LaidAt    *time.Time    `json:"laidAt,omitempty"`
	Timers    []clock.Timer `json:"timers"`
}

// CoatTimers are those of the last coat of a surface that are still to come.
type CoatTimers struct {
	SurfaceID string        `json:"surfaceId"`
	Surface   string        `json:"surface"`
	Product   string        `json:"product"`
	Timers    []clock.Timer `json:"timers"`
}

// pots are those of a boat that are not emptied, with their timers.
func (a *App) pots(ctx context.Context, o boatState) ([]Pot, error) {
	rows, err := a.store.Read(ctx).FullPots(ctx, o.survey.Boat.ID)
	out := make([]Pot, len(rows))
	for i, r := range rows {
		sheet, _ := o.products[r.ProductID].With(r.Grade)
		p := Pot{ID: r.ID, SurfaceID: string(r.SurfaceID), Surface: o.surface(string(r.SurfaceID)).Name,
			ProductID: r.ProductID, Product: sheet.Name, Litres: r.Litres, MixedAt: time.Unix(r.MixedAt, 0).UTC()}
		p.Timers = clock.PotTimers(sheet, r.Litres, p.MixedAt, o.air(), o.now)
		if r.LaidAt != nil {
			at := time.Unix(*r.LaidAt, 0).UTC()
			p.LaidAt = &at
			if w, ok := o.climate.Surface[p.SurfaceID]; ok {
				p.Timers = append(p.Timers, clock.FreshTimers(sheet, at, w, o.now)...)
			}
		}
		out[i] = p
	}
	return out, err
}

// coatTimers are the events of the running clocks that are still to come.
func (o boatState) coatTimers() []CoatTimers {
	out := []CoatTimers{}
	for _, f := range o.s.Surfaces {
		if f.Last == nil {
			continue
		}
		over := f.Last.Sheet.Kind
		if f.Next != nil {
			over = f.Next.Sheet.Kind
		}
		c := CoatTimers{SurfaceID: f.ID, Surface: f.Name, Product: f.Last.Sheet.Name, Timers: []clock.Timer{}}
		for _, t := range append(clock.FreshTimers(f.Last.Sheet, f.Last.Started, f.Weather, o.now),
			clock.Run(*f.Last, over, f.Weather, o.now).Timers(f.Weather, f.Last.Started)...) {
			if t.At != nil && t.At.After(o.now.Add(-time.Hour)) {
				c.Timers = append(c.Timers, t)
			}
		}
		if len(c.Timers) > 0 {
			out = append(out, c)
		}
	}
	return out
}

// PotEdit is a pot that was mixed. ID is made by who sends it, so that it can be
// sent again; the pot stays until EmptiedAt.
type PotEdit struct {
	ID        string     `json:"id" format:"uuid"`
	SurfaceID string     `json:"surfaceId,omitempty"`
	ProductID string     `json:"productId"`
	Grade     string     `json:"grade,omitempty"`
	Litres    float64    `json:"litres"`
	MixedAt   time.Time  `json:"mixedAt"`
	LaidAt    *time.Time `json:"laidAt,omitempty"`
	EmptiedAt *time.Time `json:"emptiedAt,omitempty"`
}

// PutPot stores a pot of a boat, or when it was laid and emptied.
func (a *App) PutPot(ctx context.Context, boatID string, e PotEdit) ([]Pot, error) {
	return change(ctx, a, func(ctx context.Context) ([]Pot, error) {
		o, err := a.look(ctx, boatID)
		if err != nil {
			return nil, err
		}
		var bad fielderr.Errors
		if e.SurfaceID != "" && o.surface(e.SurfaceID).ID == "" {
			bad.Add("surfaceId", "is no surface of this boat")
		}
		if sheet, ok := o.products[e.ProductID]; !ok {
			bad.Add("productId", "choose the product that was mixed")
		} else if _, ok := sheet.With(e.Grade); !ok {
			bad.Add("grade", "is no hardener of this product")
		}
		bad.Above("litres", e.Litres, 0, 200, "L")
		if e.MixedAt.After(o.now.Add(time.Minute)) {
			bad.Add("mixedAt", "lies in the future")
		}
		if err := bad.Err(); err != nil {
			return nil, err
		}
		at := func(t *time.Time) *int64 {
			if t == nil {
				return nil
			}
			s := t.Unix()
			return &s
		}
		row := store.Pot{ID: e.ID, BoatID: boatID, SurfaceID: store.Ref(e.SurfaceID), ProductID: e.ProductID,
			Grade: e.Grade, Litres: e.Litres, MixedAt: e.MixedAt.Unix(), LaidAt: at(e.LaidAt),
			EmptiedAt: at(e.EmptiedAt)}
		if err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			return q.PutPot(ctx, row)
		}); err != nil {
			return nil, err
		}
		return a.pots(ctx, o)
	})
}
