package step

import (
	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/film/film"
)

// Step is a number of equal coats of one product, or work without a film. LossPct and
// ThinnerPct are the user's own figures, Grade the hardener, Agent what it is washed or
// degreased with, RemovedUm what a sanding takes off.
type Step struct {
	Work       Work    `json:"work"`
	Coats      int     `json:"coats"`
	DFTUm      float64 `json:"dftUm"`
	Method     string  `json:"method"`
	LossPct    float64 `json:"lossPct"`
	ThinnerPct float64 `json:"thinnerPct"`
	Grade      string  `json:"grade,omitempty"`
	Colour     string  `json:"colour,omitempty"`
	Grit       int     `json:"grit,omitempty"`
	RemovedUm  float64 `json:"removedUm,omitempty"`
	Agent      string  `json:"agent,omitempty"`
	Note       string  `json:"note,omitempty"`
	Detail
	// Sheet is that of the product with the hardener's tables, where the step is reckoned
	// with.
	Sheet product.Sheet `json:"-"`
}

// Films reports whether the step leaves a film.
func (s Step) Films() bool { return s.Work.Kind().Films }

// WetUm is the wet film of a coat, µm.
func (s Step) WetUm() float64 { return film.Wet(s.DFTUm, s.Sheet.VolumeSolidsPct, s.ThinnerPct) }

// Words name a step without a film, such as "sand with 80".
func (s Step) Words() message.Sentence {
	if s.Name != "" {
		return message.Of("%s", s.Name)
	}
	if s.Work.Kind().Gritted && s.Grit > 0 {
		return message.Of("%s with %d", s.Work, s.Grit)
	}
	return s.Work.Say()
}

// Ordinal is a coat among those of its step in words.
func Ordinal(n, of int) message.Sentence {
	if of == 1 {
		return message.Of("one coat")
	}
	return message.Of("coat %d of %d", n, of)
}

// Validate reports impossible figures.
func (s Step) Validate() error {
	var bad fielderr.Errors
	kind := s.Work.Kind()
	if !kind.Planned {
		bad.Add("work", "choose what is done")
	}
	bad.Under("", s.Detail.validate(kind))
	if !kind.Films {
		if kind.Gritted {
			bad.Range("grit", float64(s.Grit), 16, 5000, "grit")
		}
		bad.Range("removedUm", s.RemovedUm, 0, 20e3, "µm")
		if s.Coats != 0 {
			bad.Add("coats", "work without a film has no coats")
		}
		return bad.Err()
	}
	bad.Range("coats", float64(s.Coats), 1, 50, "coats")
	bad.Above("dftUm", s.DFTUm, 0, 50e3, "µm")
	bad.Range("lossPct", s.LossPct, 0, 90, "%")
	bad.Range("thinnerPct", s.ThinnerPct, 0, 50, "%")
	if _, ok := film.MethodByKey(s.Method); !ok {
		bad.Add("method", "choose how it is laid")
	}
	if !s.Sheet.IsCoat() {
		bad.Add("productId", "%s leaves no film; it cannot be a coat", s.Sheet.Name)
	}
	if _, ok := s.Sheet.With(s.Grade); !ok {
		bad.Add("grade", "the sheet of %s has no hardener %q", s.Sheet.Name, s.Grade)
	}
	return bad.Err()
}
