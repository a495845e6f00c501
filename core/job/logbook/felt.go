package logbook

import (
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/physics/cure"
)

// Felt is what a coat was like when it was felt. Progress is how much of the sheet's time for it had
// passed by then at the temperature of the surface, 1 just that time; ProductID is what was felt.
// Both are worked out when it is logged.
type Felt struct {
	State     FeltState `json:"state" enum:"sticky,touch-dry,sandable"`
	ProductID string    `json:"productId,omitempty"`
	Progress  float64   `json:"progress,omitempty"`
}

// FeltState is a state that a finger, or paper, tells.
type FeltState string

// States felt: still sticky, or just turned dry to touch or sandable.
const (
	Sticky   FeltState = "sticky"
	TouchDry FeltState = "touch-dry"
	Sandable FeltState = "sandable"
)

// FeltStates lists them.
var FeltStates = []FeltState{Sticky, TouchDry, Sandable}

// Of is the table of a sheet that a state is held against.
func (s FeltState) Of(touchDry, sandable cure.Table) cure.Table {
	if s == Sandable {
		return sandable
	}
	return touchDry
}

func (f *Felt) validate(wanted bool, bad *fielderr.Errors) {
	switch {
	case f == nil && wanted:
		bad.Add("felt.state", "say what it was like")
	case f != nil:
		fielderr.OneOf(bad, "felt.state", f.State, FeltStates)
	}
}

// Drying is what coats of a product take against the times of its sheet.
type Drying struct {
	Felt   int     // times that it was felt
	Factor float64 // median
	SDLog  float64 // of one coat from the next, of the logarithm
}

// The times of a sheet weigh as two coats that took just as long; coats differ among themselves by
// usualDryingSD, of the logarithm, until enough were felt. A coat felt at less than leastFelt of its
// time, or more than mostFelt, is taken for one at that. Rules of thumb.
const (
	priorFelt            = 2
	usualDryingSD        = 0.15
	leastFelt, mostFelt  = 0.3, 4.0
	stickyBeforeItsTimes = 1.0 // a coat that is sticky sooner than its sheet has it dry tells nothing
)

// Dryings learns from the log, by product.
func Dryings(log []Logged) map[string]Drying {
	logs := map[string][]float64{}
	for _, e := range log {
		f := e.Felt
		if f == nil || f.Progress <= 0 || f.ProductID == "" || f.State == Sticky && f.Progress <= stickyBeforeItsTimes {
			continue
		}
		logs[f.ProductID] = append(logs[f.ProductID], math.Log(min(max(f.Progress, leastFelt), mostFelt)))
	}
	out := map[string]Drying{}
	for id, all := range logs {
		n, sum := float64(len(all)), 0.0
		for _, l := range all {
			sum += l
		}
		mean := sum / (n + priorFelt)
		square := priorFelt * usualDryingSD * usualDryingSD
		for _, l := range all {
			square += (l - mean) * (l - mean)
		}
		out[id] = Drying{len(all), math.Exp(mean), math.Sqrt(square / (n + priorFelt))}
	}
	return out
}
