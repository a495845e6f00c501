// Package craft has what the workbenches of the finishes share: steps in their order,
// what they take, and what is to be known before one begins.
package craft

import (
	"allcoats/core/base/say"
	"allcoats/core/base/working"
)

// Step is a piece of work and the wait after it.
type Step struct {
	Name   string       `json:"name"`
	How    say.Sentence `json:"how"`
	Amount float64      `json:"amount"` // 0: none
	Unit   string       `json:"unit"`
	WorkH  float64      `json:"workH"`
	WaitH  float64      `json:"waitH"`
}

// Amount is something that it takes.
type Amount struct {
	Name  string  `json:"name"`
	Value float64 `json:"value"`
	Unit  string  `json:"unit"`
	Note  string  `json:"note"`
}

// Plan is what a workbench answers with.
type Plan struct {
	Steps    []Step          `json:"steps"`
	Takes    []Amount        `json:"takes"`
	Findings []say.Finding   `json:"findings"`
	Cautions []say.Sentence  `json:"cautions"`
	Working  working.Working `json:"working"`
}

// New returns a plan whose lists encode as [].
func New(cautions ...string) Plan {
	p := Plan{Steps: []Step{}, Takes: []Amount{}, Findings: []say.Finding{}, Cautions: []say.Sentence{}, Working: working.New()}
	for _, c := range cautions {
		p.Cautions = append(p.Cautions, say.Of("%s", c))
	}
	return p
}

// Find adds a finding, as say.Of makes it.
func (p *Plan) Find(stop bool, template string, args ...any) {
	p.Findings = append(p.Findings, say.Finding{Stop: stop, Text: say.Of(template, args...)})
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

// Stopped returns the first finding that stops it, none if none does.
func (p Plan) Stopped() say.Sentence {
	for _, f := range p.Findings {
		if f.Stop {
			return f.Text
		}
	}
	return nil
}
