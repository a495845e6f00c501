// Package craft has what the workbenches of the finishes share: steps in their order,
// what they take, and what is to be known before one begins.
package craft

import (
	"fmt"

	"allcoats/core/base/working"
)

// Step is a piece of work and the wait after it.
type Step struct {
	Name   string  `json:"name"`
	How    string  `json:"how"`
	Amount float64 `json:"amount"` // 0: none
	Unit   string  `json:"unit"`
	WorkH  float64 `json:"workH"`
	WaitH  float64 `json:"waitH"`
}

// Amount is something that it takes.
type Amount struct {
	Name  string  `json:"name"`
	Value float64 `json:"value"`
	Unit  string  `json:"unit"`
	Note  string  `json:"note"`
}

// Finding is something to know. Stop says that it does not work so.
type Finding struct {
	Stop bool   `json:"stop"`
	Text string `json:"text"`
}

// Plan is what a workbench answers with.
type Plan struct {
	Steps    []Step          `json:"steps"`
	Takes    []Amount        `json:"takes"`
	Findings []Finding       `json:"findings"`
	Cautions []string        `json:"cautions"`
	Working  working.Working `json:"working"`
}

// New returns a plan whose lists encode as [].
func New(cautions ...string) Plan {
	return Plan{Steps: []Step{}, Takes: []Amount{}, Findings: []Finding{}, Cautions: append([]string{}, cautions...), Working: working.New()}
}

// Find adds a finding.
func (p *Plan) Find(stop bool, format string, args ...any) {
	p.Findings = append(p.Findings, Finding{stop, fmt.Sprintf(format, args...)})
}

// Do adds a step.
func (p *Plan) Do(s Step) { p.Steps = append(p.Steps, s) }

// Take adds what it takes, and its line of the working.
func (p *Plan) Take(name, formula string, value float64, unit, source string) float64 {
	p.Takes = append(p.Takes, Amount{name, value, unit, ""})
	return p.Working.Step(name, formula, value, unit, source)
}

// WorkH is the work of all steps, h.
func (p Plan) WorkH() float64 {
	sum := 0.0
	for _, s := range p.Steps {
		sum += s.WorkH
	}
	return sum
}

// Stopped returns the first finding that stops it, "" if none does.
func (p Plan) Stopped() string {
	for _, f := range p.Findings {
		if f.Stop {
			return f.Text
		}
	}
	return ""
}
