// Package craft has what the workbenches of the finishes share: steps in their order,
// what they take, and what is to be known before one begins.
package craft

import (
	"math"

	"allcoats/core/base/message"
	"allcoats/core/base/working"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
)

// Step is a piece of work as it goes into the build-up, Key naming it there. Role is
// which of the bench's products it lays. Amount is what it takes, WorkH the hours of one
// person for all its coats. Shown says that it stays at the bench.
type Step struct {
	Key string `json:"key"`
	step.Step
	Role   string  `json:"role,omitempty"`
	Amount float64 `json:"amount"` // 0: none
	Unit   string  `json:"unit"`
	WorkH  float64 `json:"workH"`
	Shown  bool    `json:"shown"`
	// Early comes before the first film that is to come.
	Early bool `json:"early"`
}

// Work is a step without a film, by its name; hours for one person, wait after it.
func Work(key, name string, how message.Sentence, hours, waitH float64) Step {
	return Step{Key: key, Step: step.Step{Work: step.Other, Detail: step.Detail{Name: name, How: how, Hours: hours,
		WaitH: waitH}}}
}

// As makes it a kind of work that rules and clocks know.
func (s Step) As(w step.Work) Step {
	s.Work = w
	s.Agent = w.Kind().Usual.Agent
	return s
}

// With is a grit, and what sanding with it takes off, µm.
func (s Step) With(grit int, removedUm float64) Step {
	s = s.As(step.Sand)
	s.Grit, s.RemovedUm = grit, removedUm
	return s
}

// Of is what it takes.
func (s Step) Of(amount float64, unit string) Step {
	s.Amount, s.Unit = amount, unit
	return s
}

// At is the part of the surface that it works.
func (s Step) At(w *step.Where) Step {
	s.Where = w
	return s
}

// wholePct is how near to the surface's area what is worked counts as all of it.
const wholePct = 1

// Part is a part of a surface by its name and area, nil where it is all of the surface's wholeM2.
func Part(name string, areaM2, wholeM2 float64) *step.Where {
	if math.Abs(areaM2/wholeM2-1) <= wholePct/100.0 {
		return nil
	}
	return &step.Where{Name: name, Patches: []step.Patch{{Name: name, AreaM2: areaM2}}}
}

// First puts it before the first film that is to come.
func (s Step) First() Step {
	s.Early = true
	return s
}

// Stays keeps it at the bench: it is no work of the surface's.
func (s Step) Stays() Step {
	s.Shown = true
	return s
}

// Coats are coats of the product of a role, hours of one person each.
func Coats(key, role string, n int, dftUm float64, m film.Method, hours float64, how message.Sentence) Step {
	return Step{Key: key, Role: role, Step: step.Step{Work: step.Coat, Coats: n, DFTUm: dftUm, Method: m.Key,
		LossPct: m.LossPct, Detail: step.Detail{Hours: hours, How: how}}}
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
	Steps    []Step             `json:"steps"`
	Takes    []Amount           `json:"takes"`
	Findings []message.Finding  `json:"findings"`
	Cautions []message.Sentence `json:"cautions"`
	Working  working.Working    `json:"working"`
}

// New returns a plan whose lists encode as [].
func New(cautions ...string) Plan {
	p := Plan{Steps: []Step{}, Takes: []Amount{}, Findings: []message.Finding{}, Cautions: []message.Sentence{},
		Working: working.New()}
	for _, c := range cautions {
		p.Cautions = append(p.Cautions, message.Of("%s", c))
	}
	return p
}

// Find adds a finding, as message.Of makes it.
func (p *Plan) Find(stop bool, template string, args ...any) {
	p.Findings = append(p.Findings, message.Finding{Stop: stop, Text: message.Of(template, args...)})
}

// Do adds a step.
func (p *Plan) Do(s Step) {
	s.WorkH += s.Hours * float64(max(1, s.Coats))
	p.Steps = append(p.Steps, s)
}

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
func (p Plan) Stopped() message.Sentence {
	for _, f := range p.Findings {
		if f.Stop {
			return f.Text
		}
	}
	return nil
}
