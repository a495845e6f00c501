package logbook

import (
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/film/step"
)

// Entry is something done to a boat, as it is told. A coat has a product and may belong
// to a planned step; a sanding has a grit. What belongs to no surface names the boat.
// RemovedUm is the film that was taken off, 0 if it is not known; Hours are the
// person-hours that it took, 0 if not told.
type Entry struct {
	BoatID     string    `json:"boatId,omitempty"`
	SurfaceID  string    `json:"surfaceId,omitempty"`
	Kind       step.Work `json:"kind"`
	StartedAt  time.Time `json:"startedAt"`
	ProductID  string    `json:"productId,omitempty"`
	StepID     string    `json:"stepId,omitempty"`
	Litres     float64   `json:"litres"`
	WetUm      []float64 `json:"wetUm"`
	ThinnerPct float64   `json:"thinnerPct"`
	Grit       int       `json:"grit"`
	RemovedUm  float64   `json:"removedUm"`
	Hours      float64   `json:"hours,omitempty"`
	Who        string    `json:"who"`
	Note       string    `json:"note"`
	Detail
}

// Logged is an entry as it is kept.
type Logged struct {
	ID        string     `json:"id"`
	Version   int        `json:"version"`
	DeletedAt *time.Time `json:"-"`
	Entry
}

// Of reports whether the entry is a coat of a planned step.
func (e Entry) Of(stepID string) bool {
	return e.Kind.Kind().Lays && stepID != "" && e.StepID == stepID
}

// Validate reports what cannot be, whatever boat it is told of.
func (e Entry) Validate(now time.Time) error {
	var bad fielderr.Errors
	kind := e.Kind.Kind()
	switch {
	case !kind.Logged:
		bad.Add("kind", "say what was done")
	case e.SurfaceID == "" && kind.OfSurface:
		bad.Add("surfaceId", "choose a surface of this boat")
	}
	switch {
	case e.StartedAt.After(now.Add(time.Minute)):
		bad.Add("startedAt", "lies in the future; a log is of what was done")
	case e.StartedAt.Year() < 2000:
		bad.Add("startedAt", "give the day and time")
	}
	bad.Range("hours", e.Hours, 0, 500, "h")
	bad.Range("litres", e.Litres, 0, 1000, "L")
	bad.Range("removedUm", e.RemovedUm, 0, 20e3, "µm")
	if kind.Lays {
		bad.Range("thinnerPct", e.ThinnerPct, 0, 50, "%")
	} else if kind.Removes && kind.Gritted || e.Grit != 0 {
		bad.Range("grit", float64(e.Grit), 16, 5000, "grit")
	}
	if kind.Judged && e.Outcome == "" {
		bad.Add("outcome", "say whether it passed")
	}
	e.Felt.validate(kind.Felt, &bad)
	e.Held.validate(kind.Graded, &bad)
	e.Spent.validate(kind.Spent, &bad)
	bad.Under("", e.Detail.Validate())
	return bad.Err()
}
