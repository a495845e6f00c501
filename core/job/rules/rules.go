// Package rules holds what the trade knows of coats that do not go together, or
// not so: a table of what holds on what, and a catalogue of rules, each with its
// reason, source and cure, checked against the steps planned on a surface and all
// that lies below them.
package rules

import (
	"allcoats/core/base/message"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
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
	Part          area.Part
	Substrate     survey.Substrate
	SubstrateNote string
	Tone          survey.Tone
	TiltDeg       float64
	Sheltered     bool
	Findings      survey.Findings
	Steps         []Step
	OpenDefects   int
	// HottestC is the temperature that it comes to on a clear day of the warmest month, °C; 0
	// is not known.
	HottestC float64
	// Beside are the other surfaces of the boat.
	Beside []Beside
}

// Beside is another surface of the boat.
type Beside struct {
	Name      string
	Part      area.Part
	Substrate survey.Substrate
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

// first is the first step that leaves a film, −1 without one.
func (c Case) first() int {
	for i, s := range c.Steps {
		if s.Films() {
			return i
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
// is the surface as a whole. Care says that it asks for care whatever is done, as of one's
// health, and cannot be mended.
type Rule struct {
	ID       string   `json:"id"`
	What     string   `json:"what"`
	Why      string   `json:"why"`
	Severity Severity `json:"severity"`
	Source   string   `json:"source"`
	Fix      string   `json:"fix"`
	Care     bool     `json:"care"`
	check    func(c Case) []hit
}

// hit is a finding of a rule. level, if not empty, is its severity.
type hit struct {
	step  int
	text  message.Sentence
	mend  *Mend
	level Severity
}

// Finding is a rule that a step breaks. Text is Says in metric units.
type Finding struct {
	Rule     string           `json:"rule"`
	Step     int              `json:"step" doc:"index of the step, −1 for the surface as a whole"`
	Severity Severity         `json:"severity"`
	Text     string           `json:"text"`
	Says     message.Sentence `json:"says"`
	Why      string           `json:"why"`
	Fix      string           `json:"fix"`
	Source   string           `json:"source"`
	Care     bool             `json:"care"`
	// Mend is a change of the steps that mends it, nil if there is none to be had by a press.
	Mend *Mend `json:"mend,omitempty"`
}

// Mend replaces Take steps from At on by Steps.
type Mend struct {
	Says  message.Sentence `json:"says"`
	At    int              `json:"at"`
	Take  int              `json:"take"`
	Steps []Want           `json:"steps"`
}

// Want is a step that a mend puts in. Without a Kind it lays the product of the step at From,
// or none; with one, what suits the surface of that kind and binder.
type Want struct {
	step.Step
	Kind   product.Kind   `json:"kind,omitempty"`
	Binder product.Binder `json:"binder,omitempty"`
	From   int            `json:"from"`
}

// Check finds what is wrong with a case, in the order of its steps.
func Check(c Case) []Finding {
	out := []Finding{}
	found := make([][]hit, len(Catalogue))
	for k, r := range Catalogue {
		found[k] = r.check(c)
	}
	for at := -1; at < len(c.Steps); at++ {
		for k, r := range Catalogue {
			for _, h := range found[k] {
				if h.step != at {
					continue
				}
				f := Finding{r.ID, at, r.Severity, h.text.String(), h.text, r.Why, r.Fix, r.Source, r.Care, h.mend}
				if h.level != "" {
					f.Severity = h.level
				}
				out = append(out, f)
			}
		}
	}
	return out
}

// Catalogue lists the rules: what holds on what, then those of films, faces, places and care.
var Catalogue = concat(contactRules, faceRules, filmRules, placeRules, careRules)

func concat(lists ...[]Rule) (out []Rule) {
	for _, l := range lists {
		out = append(out, l...)
	}
	return out
}

const (
	trade = "practice of the trade; the data sheet comes first"
	sheet = "the product's data sheet"
)

// each checks every step, coats every one that leaves a film.
func each(c Case, check func(i int, s Step) message.Sentence) []hit {
	var out []hit
	for i, s := range c.Steps {
		if text := check(i, s); text != nil {
			out = append(out, hit{step: i, text: text})
		}
	}
	return out
}

func coats(c Case, check func(i int, s Step) message.Sentence) []hit {
	return each(c, func(i int, s Step) message.Sentence {
		if !s.Films() {
			return nil
		}
		return check(i, s)
	})
}

// mended gives every hit what mends it.
func mended(hits []hit, mend func(at int) *Mend) []hit {
	for k := range hits {
		hits[k].mend = mend(hits[k].step)
	}
	return hits
}

// before puts steps in before a step.
func before(at int, says string, steps ...Want) *Mend {
	return &Mend{Says: message.Lit(says), At: at, Steps: steps}
}

// instead changes a step.
func (c Case) instead(at int, says message.Sentence, change func(s *step.Step)) *Mend {
	w := Want{Step: c.Steps[at].Step, From: at}
	change(&w.Step)
	return &Mend{Says: says, At: at, Take: 1, Steps: []Want{w}}
}

func work(w step.Work, agent string) Want {
	return Want{Step: step.Step{Work: w, Agent: agent}, From: -1}
}

func washing() Want { return work(step.Wash, "detergent") }

func sanding(grit int, um float64, wet bool) Want {
	s := step.Step{Work: step.Sand, Grit: grit, RemovedUm: um}
	s.Wet = wet
	return Want{Step: s, From: -1}
}

func laying(k product.Kind, b product.Binder, n int) Want {
	return Want{Step: step.Step{Work: step.Coat, Coats: n}, Kind: k, Binder: b, From: -1}
}
