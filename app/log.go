package app

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"time"

	"allcoats/core/buildup"
	"allcoats/core/fault"
	"allcoats/core/working"
	"allcoats/store"
)

// Kinds of log entries.
const (
	KindCoat = "coat"
	KindSand = "sand"
)

// Entry is something done to a surface. FilmUm is the dry film a coat left,
// FilmSDUm its scatter by the comb, FilmKnown how it is known.
type Entry struct {
	ID      string `json:"id"`
	Version int    `json:"version"`
	EntryEdit
	Surface   string          `json:"surface"`
	Product   string          `json:"product"`
	FilmUm    float64         `json:"filmUm"`
	FilmSDUm  float64         `json:"filmSdUm"`
	FilmKnown string          `json:"filmKnown"`
	Working   working.Working `json:"working"`
	Deleted   bool            `json:"deleted"`
	// Flag says what is wrong with it, such as a sanding that went through.
	Flag string `json:"flag"`
}

// EntryEdit is what a user can set of a log entry. A coat has a product and
// may belong to a planned step; a sanding has a grit.
type EntryEdit struct {
	SurfaceID  string    `json:"surfaceId"`
	Kind       string    `json:"kind" enum:"coat,sand"`
	StartedAt  time.Time `json:"startedAt"`
	ProductID  string    `json:"productId,omitempty"`
	StepID     string    `json:"stepId,omitempty"`
	Litres     float64   `json:"litres"`
	WetUm      []float64 `json:"wetUm"`
	ThinnerPct float64   `json:"thinnerPct"`
	Grit       int       `json:"grit"`
	// RemovedUm is the film that a sanding took off, 0 if it is not known.
	RemovedUm float64 `json:"removedUm"`
	// Hours are the person-hours that it took, 0 if not told: plans learn from them.
	Hours float64 `json:"hours,omitempty"`
	Who   string  `json:"who"`
	Note  string  `json:"note"`
}

func (e EntryEdit) validate(w work, now time.Time) error {
	var bad fault.Errors
	if w.surface(e.SurfaceID).ID == "" {
		bad.Add("surfaceId", "choose a surface of this boat")
	}
	switch {
	case e.StartedAt.After(now.Add(time.Minute)):
		bad.Add("startedAt", "lies in the future; a log is of what was done")
	case e.StartedAt.Year() < 2000:
		bad.Add("startedAt", "give the day and time")
	}
	bad.Range("hours", e.Hours, 0, 500, "h")
	switch e.Kind {
	case KindCoat:
		if _, ok := w.products[e.ProductID]; !ok {
			bad.Add("productId", "choose the product that went on")
		}
		bad.Range("litres", e.Litres, 0, 1000, "L")
		bad.Range("thinnerPct", e.ThinnerPct, 0, 50, "%")
		for i, um := range e.WetUm {
			bad.Above(fmt.Sprintf("wetUm[%d]", i), um, 0, 20e3, "µm")
		}
		planned := e.StepID == ""
		for _, s := range w.steps[e.SurfaceID] {
			planned = planned || s.ID == e.StepID
		}
		if !planned {
			bad.Add("stepId", "is no step planned on this surface")
		}
	case KindSand:
		bad.Range("grit", float64(e.Grit), 16, 5000, "grit")
		bad.Range("removedUm", e.RemovedUm, 0, 20e3, "µm")
	default:
		bad.Add("kind", "must be coat or sand")
	}
	return bad.Err()
}

func (e EntryEdit) row(id string, version int) store.Entry {
	optional := func(s string) *string {
		if s == "" {
			return nil
		}
		return &s
	}
	wet := e.WetUm
	if wet == nil {
		wet = []float64{}
	}
	return store.Entry{
		ID: id, Version: version, SurfaceID: e.SurfaceID, Kind: e.Kind, StartedAt: e.StartedAt.Unix(), ProductID: optional(e.ProductID),
		StepID: optional(e.StepID), Litres: e.Litres, WetUm: store.JSON[[]float64]{V: wet}, ThinnerPct: e.ThinnerPct, Grit: e.Grit, RemovedUm: e.RemovedUm, Hours: e.Hours, Who: e.Who, Note: e.Note,
	}
}

func (w work) entry(r store.Entry) Entry {
	text := func(s *string) string {
		if s == nil {
			return ""
		}
		return *s
	}
	s := w.surface(r.SurfaceID)
	e := Entry{
		ID: r.ID, Version: r.Version, Surface: s.Name, Working: working.New(), Deleted: r.DeletedAt != nil,
		EntryEdit: EntryEdit{
			SurfaceID: r.SurfaceID, Kind: r.Kind, StartedAt: time.Unix(r.StartedAt, 0).UTC(), ProductID: text(r.ProductID), StepID: text(r.StepID),
			Litres: r.Litres, WetUm: r.WetUm.V, ThinnerPct: r.ThinnerPct, Grit: r.Grit, RemovedUm: r.RemovedUm, Hours: r.Hours, Who: r.Who, Note: r.Note,
		},
	}
	if r.Kind == KindCoat {
		l := w.laid(r)
		e.Product = l.Sheet.Name
		e.FilmUm, e.FilmKnown, e.Working = l.Film(s.Area.AreaM2)
		e.FilmSDUm = l.SDUm()
	} else if r.RemovedUm > 0 && r.DeletedAt == nil {
		// Checked against what lay above the layer that must stay by then.
		before := slices.IndexFunc(w.log[r.SurfaceID], func(o store.Entry) bool { return o.ID == r.ID })
		done := w.filmDone(r.SurfaceID)[:before+1]
		if _, m := buildup.Section(s.Area.AreaM2, s.Findings, done, nil, nil); m.ThroughUm > 0 && len(s.Findings.Layers) > 0 {
			e.Flag = m.Text()
		}
	}
	return e
}

// Log lists a boat's entries, the newest first, deleted ones too so that they
// can be restored.
func (a *App) Log(ctx context.Context, boatID string) ([]Entry, error) {
	q := a.store.Read()
	w, err := a.loadBoatWork(ctx, q, boatID)
	if err != nil {
		return nil, err
	}
	rows, err := q.BoatLog(ctx, boatID)
	out := make([]Entry, len(rows))
	for i, r := range rows {
		out[len(rows)-1-i] = w.entry(r)
	}
	return out, err
}

// Entry returns one log entry.
func (a *App) Entry(ctx context.Context, id string) (Entry, error) {
	q := a.store.Read()
	r, err := q.Entry(ctx, id)
	if err != nil {
		return Entry{}, err
	}
	w, err := a.loadWork(ctx, q, r.SurfaceID)
	return w.entry(r), err
}

// checked validates e against the boat of its surface.
func (a *App) checked(ctx context.Context, e EntryEdit) error {
	w, err := a.loadWork(ctx, a.store.Read(), e.SurfaceID)
	if errors.Is(err, ErrNotFound) {
		return fault.Errors{{Path: "surfaceId", Message: "choose a surface"}}
	} else if err != nil {
		return err
	}
	now, err := a.Now(ctx)
	if err != nil {
		return err
	}
	return e.validate(w, now)
}

// AddEntry logs something done.
func (a *App) AddEntry(ctx context.Context, e EntryEdit) (Entry, error) {
	if err := a.checked(ctx, e); err != nil {
		return Entry{}, err
	}
	id := newID()
	if err := a.store.Write(ctx, func(q store.Queries) error { return q.AddEntry(ctx, e.row(id, 1)) }); err != nil {
		return Entry{}, err
	}
	return a.Entry(ctx, id)
}

// EditEntry corrects a log entry.
func (a *App) EditEntry(ctx context.Context, id string, version int, e EntryEdit) (Entry, error) {
	if err := a.checked(ctx, e); err != nil {
		return Entry{}, err
	}
	err := a.store.Write(ctx, func(q store.Queries) error { return q.EditEntry(ctx, e.row(id, version)) })
	if err != nil {
		return Entry{}, stale(err, func() (Entry, error) { return a.Entry(ctx, id) })
	}
	return a.Entry(ctx, id)
}

// MarkEntry deletes a log entry, or restores a deleted one.
func (a *App) MarkEntry(ctx context.Context, id string, deleted bool) (Entry, error) {
	now, err := a.Now(ctx)
	if err != nil {
		return Entry{}, err
	}
	err = a.store.Write(ctx, func(q store.Queries) error {
		e, err := q.Entry(ctx, id)
		if err != nil {
			return err
		}
		e.DeletedAt = nil
		if at := now.Unix(); deleted {
			e.DeletedAt = &at
		}
		return q.EditEntry(ctx, e)
	})
	if err != nil {
		return Entry{}, err
	}
	return a.Entry(ctx, id)
}
