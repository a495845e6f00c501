package app

import (
	"context"
	"encoding/json"
	"errors"
	"math"
	"slices"
	"strings"

	"allcoats/core/base/fielderr"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/exposure/surface"
	"allcoats/store"
)

// Finish is what every workbench answers with beside its own. Version is 0 until
// something is kept; Trouble says what of the work kept does not go any more.
type Finish struct {
	Version int              `json:"version"`
	BoatID  string           `json:"boatId"`
	Surface *Surface         `json:"surface,omitempty"`
	Place   Place            `json:"place"`
	Trouble []fielderr.Field `json:"trouble"`
	Product string           `json:"product"`
	// Handovers are what it puts into the build-ups, none if it plans no work.
	Handovers []Handover `json:"handovers"`
}

// Craft is the workbench of a finish: W is what its user sets, R what comes of it. The
// bench of the boat as a whole has no surface.
type Craft[W, R any] struct {
	Key  string
	Boat bool
	// usual is what to begin with, answer works w out; a fault names the field of w.
	usual  func(o boatState, f Surface) W
	answer func(o boatState, head Finish, w W) (R, error)
}

// open loads the boat and surface that id names.
func (c Craft[W, R]) open(ctx context.Context, a *App, id string) (o boatState, head Finish, err error) {
	head.Trouble, head.Handovers, head.BoatID = []fielderr.Field{}, []Handover{}, id
	if !c.Boat {
		row, err := a.store.Read(ctx).Surface(ctx, id)
		if err != nil {
			return o, head, err
		}
		head.BoatID = row.BoatID
	}
	if o, err = a.look(ctx, head.BoatID); err != nil {
		return o, head, err
	}
	head.Place = o.survey.Place
	if !c.Boat {
		f := o.surface(id)
		head.Surface = &f
	}
	return o, head, nil
}

func (h Finish) surfaceID() string {
	if h.Surface == nil {
		return ""
	}
	return h.Surface.ID
}

// kept reads the work that was stored, or what is usual.
func (c Craft[W, R]) kept(o boatState, head *Finish) (w W, err error) {
	row, ok := o.finishes[[2]string{head.surfaceID(), c.Key}]
	if !ok {
		f := Surface{}
		if head.Surface != nil {
			f = *head.Surface
		}
		return c.usual(o, f), nil
	}
	head.Version = row.Version
	return w, json.Unmarshal(row.Work.V, &w)
}

// Get answers with the work kept for a surface, or for a boat's bench for the boat.
func (c Craft[W, R]) Get(ctx context.Context, a *App, id string) (R, error) {
	var none R
	o, head, err := c.open(ctx, a, id)
	if err != nil {
		return none, err
	}
	w, err := c.kept(o, &head)
	if err != nil {
		return none, err
	}
	out, err := c.answer(o, head, w)
	var bad fielderr.Errors
	if errors.As(err, &bad) {
		head.Trouble = bad
		out, _ = c.answer(o, head, w) // as far as it goes, with what is wrong
		return out, nil
	}
	return out, err
}

// Preview works w out without keeping it.
func (c Craft[W, R]) Preview(ctx context.Context, a *App, id string, w W) (R, error) {
	o, head, err := c.open(ctx, a, id)
	if err != nil {
		var none R
		return none, err
	}
	head.Version = o.finishes[[2]string{head.surfaceID(), c.Key}].Version
	return c.answer(o, head, w)
}

// Set keeps w if version is that of what is kept, 0 for nothing.
func (c Craft[W, R]) Set(ctx context.Context, a *App, id string, version int, w W) (R, error) {
	return change(ctx, a, func(ctx context.Context) (R, error) {
		var none R
		o, head, err := c.open(ctx, a, id)
		if err != nil {
			return none, err
		}
		if _, err := c.answer(o, head, w); err != nil {
			return none, err
		}
		raw, err := json.Marshal(w)
		if err != nil {
			return none, err
		}
		row := store.Finish{ID: o.finishes[[2]string{head.surfaceID(), c.Key}].ID, Version: version,
			BoatID: head.BoatID, SurfaceID: store.Ref(head.surfaceID()), Craft: c.Key,
			Work: store.JSON[json.RawMessage]{V: raw}}
		if version == 0 {
			row.ID = newID()
		}
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error { return q.SetFinish(ctx, row) })
		if err != nil {
			return none, stale(err, func() (R, error) { return c.Get(ctx, a, id) })
		}
		return c.Get(ctx, a, id)
	})
}

// sheetFor is the product of a bench: the one chosen if it is of those kinds, else the first of them in
// the build-up of the surface, else the first by name of the first kind that the library has.
func (o boatState) sheetFor(surfaceID, chosen string, kinds ...product.Kind) (string, product.Sheet, error) {
	if s, ok := o.products[chosen]; ok && slices.Contains(kinds, s.Kind) {
		return chosen, s, nil
	}
	for _, st := range o.steps[surfaceID] {
		if s := o.products[st.ProductID]; slices.Contains(kinds, s.Kind) {
			return st.ProductID, s, nil
		}
	}
	best := ""
	for _, kind := range kinds {
		for id, s := range o.products {
			if s.Kind == kind && (best == "" || o.products[best].Kind == kind && s.Name < o.products[best].Name) {
				best = id
			}
		}
	}
	if best == "" {
		names := make([]string, len(kinds))
		for i, k := range kinds {
			names[i] = k.Name()
		}
		return "", product.Sheet{}, fielderr.At("productId", "the library has no %s: add its sheet first",
			strings.Join(names, " or "))
	}
	return best, o.products[best], nil
}

// meanC is the mean temperature of a surface over the next days, 15 °C where no weather
// is known.
func (o boatState) meanC(surfaceID string, days int) float64 {
	w := o.climate.Surface[surfaceID]
	if surfaceID == "" {
		w = o.air()
	}
	sum, n := 0.0, 0
	for i, h := range w.Air {
		if !h.At.Before(o.now) && h.At.Before(o.now.AddDate(0, 0, days)) {
			sum, n = sum+w.SurfaceC[i], n+1
		}
	}
	if n == 0 {
		return 15
	}
	return math.Round(10*sum/float64(n)) / 10
}

// learned is what coats take on a surface against the reckoning, from so many logged on this boat.
func (o boatState) learned(surfaceID string) (factor float64, coats int) {
	return o.job.Usage.On(surfaceID).Median, o.job.Usage.Coats()
}

// washDryH is how long a wash now takes to dry on a surface, h, 0 not within the weather
// known.
func (o boatState) washDryH(f Surface) float64 {
	w := o.climate.Surface[f.ID]
	_, soak := o.wetted(f.ID)
	i := w.Air.Find(o.now)
	if i < 0 {
		return 0
	}
	left := w.DryMM(f.Shelter != survey.Open)
	for k := i; k < len(left); k++ {
		if left[k]-left[i] >= surface.HoldsMM(f.Tilt(f.Part))+soak {
			return w.Air[k].At.Sub(w.Air[i].At).Hours()
		}
	}
	return 0
}
