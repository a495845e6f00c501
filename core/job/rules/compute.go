package rules

import (
	"fmt"

	"allcoats/core/base/fielderr"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
)

// Request is a surface with its steps, each with the data sheet of its product if it lays one.
// TiltDeg left out is that of the part; HottestC 0 is not known.
type Request struct {
	Part          area.Part         `json:"part"`
	Substrate     survey.Substrate  `json:"substrate"`
	SubstrateNote string            `json:"substrateNote,omitempty"`
	Tone          survey.Tone       `json:"tone,omitempty"`
	TiltDeg       *float64          `json:"tiltDeg,omitempty"`
	Sheltered     bool              `json:"sheltered,omitempty"`
	HottestC      float64           `json:"hottestC,omitempty"`
	Layers        []survey.Layer    `json:"layers,omitempty"`
	Stop          int               `json:"stop,omitempty"`
	Moisture      []survey.Moisture `json:"moisture,omitempty"`
	OpenDefects   int               `json:"openDefects,omitempty"`
	Steps         []StepRequest     `json:"steps"`
}

// StepRequest is a step with its sheet.
type StepRequest struct {
	step.Step
	Sheet *product.Sheet `json:"sheet,omitempty"`
}

// Result is what the rules have to say, in the order of the steps.
type Result struct {
	Findings []Finding `json:"findings"`
}

// mostSteps is the most steps that a request may have.
const mostSteps = 100

// Compute answers r, or names the impossible fields.
func Compute(r Request) (Result, error) {
	var bad fielderr.Errors
	parts := make([]area.Part, len(area.Parts))
	for i, p := range area.Parts {
		parts[i] = p.Part
	}
	fielderr.OneOf(&bad, "part", r.Part, parts)
	known := make([]survey.Substrate, len(survey.Substrates))
	for i, s := range survey.Substrates {
		known[i] = s.Key
	}
	fielderr.OneOf(&bad, "substrate", r.Substrate, known)
	if r.Tone != "" {
		fielderr.OneOf(&bad, "tone", r.Tone, survey.Tones)
	}
	if r.TiltDeg != nil {
		bad.Range("tiltDeg", *r.TiltDeg, 0, 180, "°")
	}
	bad.Range("hottestC", r.HottestC, 0, 120, "°C")
	bad.Range("openDefects", float64(r.OpenDefects), 0, 10_000, "defects")
	findings := survey.Findings{Layers: r.Layers, Stop: r.Stop, Moisture: r.Moisture}
	bad.Under("", findings.Validate())
	if len(r.Steps) > mostSteps {
		bad.Add("steps", "at most %d steps are judged at once", mostSteps)
	}
	c := Case{Part: r.Part, Substrate: r.Substrate, SubstrateNote: r.SubstrateNote, Tone: r.Tone,
		Sheltered: r.Sheltered, HottestC: r.HottestC, Findings: findings, OpenDefects: r.OpenDefects,
		TiltDeg: survey.Description{TiltDeg: r.TiltDeg}.Tilt(r.Part)}
	for i, s := range r.Steps {
		at := fmt.Sprintf("steps[%d]", i)
		one := s.Step
		switch films := one.Films(); {
		case films && s.Sheet == nil:
			bad.Add(at+".sheet", "give the data sheet of what is laid")
		case films:
			bad.Under(at+".sheet", s.Sheet.Validate())
			graded, ok := s.Sheet.With(one.Grade)
			if !ok {
				bad.Add(at+".grade", "the sheet has no such hardener")
			}
			one.Sheet = graded
		case s.Sheet != nil:
			bad.Add(at+".sheet", "nothing is laid in this step")
		}
		bad.Under(at, one.Validate())
		c.Steps = append(c.Steps, Step{Step: one})
	}
	if err := bad.Err(); err != nil {
		return Result{}, err
	}
	return Result{Check(c)}, nil
}
