// Package ledger adds up the hours and the money of a boat: what is done, as the log tells it, and what
// is to come, as the job and its plan have it.
package ledger

import (
	"cmp"
	"math"
	"slices"

	"allcoats/core/job/task"
)

// Line is what went, or will go, for one kind of work or expense on a surface, by one person, in a
// month such as 2026-05. Whatever is not known of it is empty.
type Line struct {
	What    string `json:"what"`
	Surface string `json:"surface"`
	Who     string `json:"who"`
	Month   string `json:"month"`
	Sum
}

// Sum is what lines come to. Done are hours told, PlannedH those reckoned for the same work; ToComeH are
// still to be worked. Money is in cents: Material is coatings by their litres, MaterialToCome the tins to
// buy, Other expenses.
type Sum struct {
	Entries         int     `json:"entries"`
	DoneH           float64 `json:"doneH"`
	PlannedH        float64 `json:"plannedH"`
	ToComeH         float64 `json:"toComeH"`
	Material        float64 `json:"materialCents"`
	MaterialToCome  float64 `json:"materialToComeCents"`
	Other           float64 `json:"otherCents"`
	UnpricedEntries int     `json:"unpricedEntries"`
}

// Add adds another sum.
func (s *Sum) Add(o Sum) {
	s.Entries, s.UnpricedEntries = s.Entries+o.Entries, s.UnpricedEntries+o.UnpricedEntries
	s.DoneH, s.PlannedH, s.ToComeH = s.DoneH+o.DoneH, s.PlannedH+o.PlannedH, s.ToComeH+o.ToComeH
	s.Material, s.MaterialToCome, s.Other = s.Material+o.Material, s.MaterialToCome+o.MaterialToCome, s.Other+o.Other
}

// Lines are a ledger.
type Lines []Line

// Merged is one line for each kind, surface, person and month, in their order.
func (all Lines) Merged() Lines {
	type key struct{ what, surface, who, month string }
	at, out := map[key]int{}, Lines{}
	for _, l := range all {
		k := key{l.What, l.Surface, l.Who, l.Month}
		i, known := at[k]
		if !known {
			i = len(out)
			at[k], out = i, append(out, Line{What: l.What, Surface: l.Surface, Who: l.Who, Month: l.Month})
		}
		out[i].Add(l.Sum)
	}
	slices.SortStableFunc(out, func(a, b Line) int {
		return cmp.Or(cmp.Compare(a.Month, b.Month), cmp.Compare(a.Surface, b.Surface), cmp.Compare(a.What, b.What),
			cmp.Compare(a.Who, b.Who))
	})
	return out
}

// Sum is what all lines come to.
func (all Lines) Sum() (s Sum) {
	for _, l := range all {
		s.Add(l.Sum)
	}
	return s
}

// Unsure is a figure to come with its standard deviation.
type Unsure struct {
	Mean, SD float64
}

// Hours are hours to come of tasks, each with the spread of its logarithm: what is a task's own evens
// out, what all share does not.
func Hours(tasks []Unsure) Unsure {
	sum, square := 0.0, 0.0
	for _, t := range tasks {
		sum += t.Mean
		square += t.Mean * t.Mean * t.SD * t.SD
	}
	return Unsure{sum, math.Sqrt(square + sum*sum*task.SharedSD*task.SharedSD)}
}

// tenth is where a normal figure is below one time in ten, in standard deviations.
const tenth = 1.2816

// Between is a figure whose range, eight times in ten, is known.
func Between(mean, low, high float64) Unsure { return Unsure{mean, (high - low) / (2 * tenth)} }

// Range is between what it is eight times in ten, never below nothing.
func (u Unsure) Range() (low, high float64) {
	return max(0, u.Mean-tenth*u.SD), u.Mean + tenth*u.SD
}

// Plus is the sum of two figures that do not hang on one another.
func (u Unsure) Plus(o Unsure) Unsure { return Unsure{u.Mean + o.Mean, math.Hypot(u.SD, o.SD)} }

// Times is so many times a figure.
func (u Unsure) Times(k float64) Unsure { return Unsure{k * u.Mean, k * u.SD} }
