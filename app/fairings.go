package app

import (
	"context"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/finish/fair"
	"allcoats/store"
)

// Readings are gaps under a straightedge, mm, row by row, null where none was read:
// SpacingM between the readings of a row, RowsM between the rows. BattenM is the
// straightedge that they were read with.
type Readings struct {
	Round     int          `json:"round"`
	BattenM   float64      `json:"battenM"`
	SpacingM  float64      `json:"spacingM"`
	RowsM     float64      `json:"rowsM"`
	Gaps      [][]*float64 `json:"gaps"`
	Breaks    []int        `json:"breaks,omitempty"`    // columns of a knuckle
	RowBreaks []int        `json:"rowBreaks,omitempty"` // rows of a chine
	// Lines are where the edge was laid, placement by placement; they stand in the place of Gaps.
	Lines []fair.Line `json:"lines,omitempty"`
	// Lows are circled on the map instead of read. On is where the first row of Gaps lies.
	Lows []fair.Low  `json:"lows,omitempty"`
	On   *fair.Track `json:"on,omitempty"`
	// ErrorMM is what a reading may be out: less is not filled.
	ErrorMM float64 `json:"errorMM,omitempty"`
	fair.Limits
	Class     string `json:"class"`
	ProductID string `json:"productId,omitempty"` // the filler
}

func (r Readings) grid() (fair.Grid, error) {
	g := fair.Grid{NY: len(r.Gaps), DX: r.SpacingM, DY: r.RowsM, Breaks: r.Breaks, RowBreaks: r.RowBreaks}
	var bad fielderr.Errors
	for y, row := range r.Gaps {
		if y == 0 {
			g.NX = len(row)
		}
		if len(row) != g.NX {
			bad.Add(fmt.Sprintf("gaps[%d]", y), "has %d readings and the first row %d", len(row), g.NX)
		}
		for _, v := range row {
			if v == nil {
				g.Gaps = append(g.Gaps, math.NaN())
			} else {
				g.Gaps = append(g.Gaps, *v)
			}
		}
	}
	if _, ok := fair.ClassByKey(r.Class); !ok {
		bad.Add("class", "choose how fair it is to be")
	}
	bad.Range("round", float64(r.Round), 1, 100, "rounds")
	bad.Range("battenM", r.BattenM, 0.1, 20, "m")
	if bad == nil {
		bad.Under("", g.Validate())
		bad.Under("", r.Limits.Validate())
	}
	return g, bad.Err()
}

// FairingView is all that is known of the fairing of a surface.
type FairingView struct {
	Surface Surface      `json:"surface"`
	Classes []fair.Class `json:"classes"`
	Sets    []FairingSet `json:"sets"`
	Now     *Fairing     `json:"now,omitempty"`
	Rounds  []fair.Round `json:"rounds"`
	Outlook fair.Outlook `json:"outlook"`
	// RoundsSay is whether to go on: how many rounds, for what, and what other finishes want.
	RoundsSay message.Sentence `json:"roundsSay"`
	// Spots are the rounds over the primer, nil while none is on.
	Spots *Spots   `json:"spots,omitempty"`
	Lows  []Defect `json:"lows"` // pinned on the map instead of measured
}

// FairingSet is a set of readings in the list.
type FairingSet struct {
	ID     string    `json:"id"`
	Round  int       `json:"round"`
	ReadAt time.Time `json:"readAt"`
}

// Fairing returns what is known of the fairing of a surface, with the set of readings
// of that id, or the last.
func (a *App) Fairing(ctx context.Context, surfaceID, setID string) (FairingView, error) {
	q := a.store.Read(ctx)
	f, err := q.Surface(ctx, surfaceID)
	if err != nil {
		return FairingView{}, err
	}
	o, err := a.look(ctx, f.BoatID)
	if err != nil {
		return FairingView{}, err
	}
	out := FairingView{Surface: o.surface(surfaceID), Classes: fair.Classes, Sets: []FairingSet{}, Lows: []Defect{}}
	all, primed := o.rounds(surfaceID)
	out.Rounds = slices.DeleteFunc(slices.Clone(all), func(r fair.Round) bool { return r.Primed })
	rows, err := q.Fairings(ctx, surfaceID)
	if err != nil {
		return out, err
	}
	class := fair.Classes[1]
	for i, r := range rows {
		var e Readings
		if err := json.Unmarshal(r.Readings.V, &e); err != nil {
			return out, err
		}
		out.Sets = append(out.Sets, FairingSet{r.ID, e.Round, time.Unix(r.ReadAt, 0).UTC()})
		if r.ID != setID && (setID != "" || i < len(rows)-1) {
			continue
		}
		got, err := o.fairing(surfaceID, e)
		if err != nil {
			return out, err
		}
		got.ID, got.Version, got.ReadAt = r.ID, r.Version, time.Unix(r.ReadAt, 0).UTC()
		out.Now = &got
		class, _ = fair.ClassByKey(e.Class)
	}
	out.Outlook = fair.Ahead(out.Rounds, out.Surface.Area.AreaM2, class)
	out.RoundsSay = out.roundsSay(class)
	if primed {
		out.Spots = o.spots(surfaceID, slices.DeleteFunc(all, func(r fair.Round) bool { return !r.Primed }), class)
	}
	pinned, err := defects(ctx, q, f.BoatID)
	for _, d := range pinned {
		if taken := out.Now != nil && slices.ContainsFunc(out.Now.Lows, func(l fair.Low) bool {
			return l.DefectID == d.ID
		}); d.SurfaceID == surfaceID && d.Kind == "low" && d.Repair.Open && d.State != "filled" && !taken {
			out.Lows = append(out.Lows, d)
		}
	}
	return out, err
}

// PreviewFairing works readings out without storing them.
func (a *App) PreviewFairing(ctx context.Context, surfaceID string, r Readings) (Fairing, error) {
	f, err := a.store.Read(ctx).Surface(ctx, surfaceID)
	if err != nil {
		return Fairing{}, err
	}
	o, err := a.look(ctx, f.BoatID)
	if err != nil {
		return Fairing{}, err
	}
	return o.fairing(surfaceID, r)
}

// SetFairing stores readings: a new set with an empty id, else in the place of that one.
func (a *App) SetFairing(ctx context.Context, surfaceID, id string, version int, r Readings) (FairingView, error) {
	return change(ctx, a, func(ctx context.Context) (FairingView, error) {
		if _, err := a.PreviewFairing(ctx, surfaceID, r); err != nil {
			return FairingView{}, err
		}
		raw, err := json.Marshal(r)
		if err != nil {
			return FairingView{}, err
		}
		now, err := a.Now(ctx)
		if err != nil {
			return FairingView{}, err
		}
		row := store.Fairing{ID: id, Version: version, SurfaceID: surfaceID, ReadAt: now.Unix(),
			Readings: store.JSON[json.RawMessage]{V: raw}}
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			if id == "" {
				row.ID = newID()
				return q.AddFairing(ctx, row)
			}
			return q.EditFairing(ctx, row)
		})
		if err != nil {
			return FairingView{}, stale(err, func() (FairingView, error) { return a.Fairing(ctx, surfaceID, id) })
		}
		return a.Fairing(ctx, surfaceID, row.ID)
	})
}

// RemoveFairing deletes a set of readings.
func (a *App) RemoveFairing(ctx context.Context, id string) error {
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error { return q.RemoveFairing(ctx, id) })
}

// PlanFairing puts the filling of a set of readings by a school into the build-up of
// its surface, in the place of what was planned of it and not begun: Stores and Plan follow
// from there.
func (a *App) PlanFairing(ctx context.Context, id, school string) (BuildUp, error) {
	return change(ctx, a, func(ctx context.Context) (BuildUp, error) {
		row, err := a.store.Read(ctx).Fairing(ctx, id)
		if err != nil {
			return BuildUp{}, err
		}
		view, err := a.Fairing(ctx, row.SurfaceID, id)
		if err != nil {
			return BuildUp{}, err
		}
		for _, j := range view.Now.Jobs {
			if j.School.Key == school && j.Handover != nil {
				return a.SetBuildUp(ctx, row.SurfaceID, view.Surface.Version, j.Handover.Steps)
			}
		}
		return BuildUp{}, fielderr.At("school", "there is nothing to fill, or no such school")
	})
}
