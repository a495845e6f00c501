// Package working holds the record of how a figure was computed. Every result
// that a user sees carries one, so that it can answer "why this number".
package working

import "allcoats/core/base/message"

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
	Label   string           `json:"label"`
	Formula message.Sentence `json:"formula"`
	Value   float64          `json:"value"`
	Unit    string           `json:"unit"`
	Source  message.Sentence `json:"source"`
}

// Working is the whole computation in the order it was done. The zero value
// is empty and ready to use; its lists are never null in JSON.
type Working struct {
	Inputs   []Quantity         `json:"inputs"`
	Steps    []Step             `json:"steps"`
	Warnings []message.Sentence `json:"warnings"`
}

// New returns an empty working whose lists encode as [] rather than null.
func New() Working {
	return Working{Inputs: []Quantity{}, Steps: []Step{}, Warnings: []message.Sentence{}}
}

// In adds an input.
func (w *Working) In(label string, value float64, unit string) {
	w.Inputs = append(w.Inputs, Quantity{label, value, unit})
}

// Step adds a line and returns its value, so that it can be used in the next.
// Formula and source are read by message.Lit.
func (w *Working) Step(label, formula string, value float64, unit, source string) float64 {
	return w.StepOf(label, message.Lit(formula), value, unit, message.Lit(source))
}

// StepOf is Step with figures in its formula or source.
func (w *Working) StepOf(label string, formula message.Sentence, value float64, unit string,
	source message.Sentence) float64 {
	w.Steps = append(w.Steps, Step{label, formula, value, unit, source})
	return value
}

// Share warns of a percentage so small that a share may be meant.
func (w *Working) Share(label string, pct float64) {
	if pct > 0 && pct < 1 {
		w.Warn("%s: %g in per cent is next to nothing. Is %g meant?", label, pct, 100*pct)
	}
}

// Warn adds a warning, as message.Of makes it: a rule of thumb, a value outside its valid
// range.
func (w *Working) Warn(template string, args ...any) {
	w.Warnings = append(w.Warnings, message.Of(template, args...))
}
