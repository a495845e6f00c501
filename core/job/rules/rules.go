// Package rules holds what the trade knows of coats that do not go together, or
// not so: a catalogue of rules, each with its reason, source and cure, checked
// against the steps planned on a surface.
package rules

import (
	"allcoats/core/base/say"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/film/step"
)

// Severity of a finding.
type Severity string

// Severities.
const (
	Note    Severity = "note"
	Warning Severity = "warning"
	Stop    Severity = "stop" // it fails, or it hurts
)

// Step is a step planned on a surface. ExpiredOn is the day on which the last of its
// product on the shelf went past its shelf life, empty while some is good or nothing is
// noted.
type Step struct {
	step.Step
	ExpiredOn string
}

// Case is a surface with its steps.
type Case struct {
	Part        area.Part
	Substrate   survey.Substrate
	TiltDeg     float64
	Sheltered   bool
	Findings    survey.Findings
	Steps       []Step
	OpenDefects int
}

// underwater reports whether the surface stands in the water for good.
func (c Case) underwater() bool { return c.Part.Underwater() }

// inTheSun reports whether the sun gets at it.
func (c Case) inTheSun() bool {
	return !c.Part.Info().Inside && (!c.underwater() || c.Part == area.BootTop)
}

// below is the last film under step i, −1 if that is the old layers or the
// substrate.
func (c Case) below(i int) int {
	for k := i - 1; k >= 0; k-- {
		if c.Steps[k].Films() {
			return k
		}
	}
	return -1
}

// between reports whether work of a kind stands between two steps.
func (c Case) between(from, to int, w step.Work) (int, bool) {
	for k := from + 1; k < to; k++ {
		if c.Steps[k].Work == w {
			return k, true
		}
	}
	return -1, false
}

// Rule is an entry of the catalogue. check returns what it finds, by step; −1
// is the surface as a whole.
type Rule struct {
	ID       string   `json:"id"`
	What     string   `json:"what"`
	Why      string   `json:"why"`
	Severity Severity `json:"severity"`
	Source   string   `json:"source"`
	Fix      string   `json:"fix"`
	check    func(c Case) []hit
}

type hit struct {
	step int
	text say.Sentence
}

// Finding is a rule that a step breaks.
type Finding struct {
	Rule     string       `json:"rule"`
	Step     int          `json:"step" doc:"index of the step, −1 for the surface as a whole"`
	Severity Severity     `json:"severity"`
	Text     say.Sentence `json:"text"`
	Why      string       `json:"why"`
	Fix      string       `json:"fix"`
	Source   string       `json:"source"`
}

// Check finds what is wrong with a case, in the order of its steps.
func Check(c Case) []Finding {
	out := []Finding{}
	for at := -1; at < len(c.Steps); at++ {
		for _, r := range Catalogue {
			for _, h := range r.check(c) {
				if h.step == at {
					out = append(out, Finding{r.ID, at, r.Severity, h.text, r.Why, r.Fix, r.Source})
				}
			}
		}
	}
	return out
}
