// Package working holds the record of how a figure was computed. Every result
// that a user sees carries one, so that it can answer "why this number".
package working

import "fmt"

// Quantity is a named input. Unit is a metric symbol of package units, or
// empty for a pure number.
type Quantity struct {
	Label string  `json:"label"`
	Value float64 `json:"value"`
	Unit  string  `json:"unit"`
}

// Step is one line of a computation: the formula in words or symbols, what it
// gave, and where it comes from.
type Step struct {
	Label   string  `json:"label"`
	Formula string  `json:"formula"`
	Value   float64 `json:"value"`
	Unit    string  `json:"unit"`
	Source  string  `json:"source"`
}

// Working is the whole computation in the order it was done. The zero value
// is empty and ready to use; its lists are never null in JSON.
type Working struct {
	Inputs   []Quantity `json:"inputs"`
	Steps    []Step     `json:"steps"`
	Warnings []string   `json:"warnings"`
}

// New returns an empty working whose lists encode as [] rather than null.
func New() Working {
	return Working{Inputs: []Quantity{}, Steps: []Step{}, Warnings: []string{}}
}

// In adds an input.
func (w *Working) In(label string, value float64, unit string) {
	w.Inputs = append(w.Inputs, Quantity{label, value, unit})
}

// Step adds a line and returns its value, so that it can be used in the next.
func (w *Working) Step(label, formula string, value float64, unit, source string) float64 {
	w.Steps = append(w.Steps, Step{label, formula, value, unit, source})
	return value
}

// Warn adds a warning: a rule of thumb, a value outside its valid range. A
// quantity in it is written as number, space, metric symbol ("12 °C"): the
// client shows it in the user's units. So it is in formulas, findings and faults.
func (w *Working) Warn(format string, args ...any) {
	w.Warnings = append(w.Warnings, fmt.Sprintf(format, args...))
}
