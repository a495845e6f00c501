// Package area finds the surface of a boat's parts. Lengths are in m, areas in
// m²; an uncertainty is the standard one, in per cent.
package area

import (
	"allcoats/core/fault"
	"allcoats/core/working"
)

// HullForm is how full the underwater body is.
type HullForm string

// Hull forms with their factor k for the bottom rule.
const (
	FullMotor HullForm = "full-motor" // k = 1.0
	Medium    HullForm = "medium"     // k = 0.75
	FinKeel   HullForm = "fin-keel"   // k = 0.5
)

// HullForms lists the hull forms.
var HullForms = []HullForm{FullMotor, Medium, FinKeel}

func (f HullForm) factor() float64 {
	switch f {
	case FullMotor:
		return 1
	case FinKeel:
		return 0.5
	}
	return 0.75
}

// Dimensions are a boat's principal dimensions, m. HousesM2 is the plan area
// of houses and openings that is not deck.
type Dimensions struct {
	HullForm   HullForm `json:"hullForm"`
	LOAM       float64  `json:"loaM"`
	LWLM       float64  `json:"lwlM"`
	BeamM      float64  `json:"beamM"`
	DraughtM   float64  `json:"draughtM"`
	FreeboardM float64  `json:"freeboardM"`
	HousesM2   float64  `json:"housesM2"`
}

// Validate reports dimensions that no boat has.
func (d Dimensions) Validate() error {
	var bad fault.Errors
	fault.OneOf(&bad, "hullForm", d.HullForm, HullForms)
	bad.Range("loaM", d.LOAM, 1, 150, "m")
	bad.Range("lwlM", d.LWLM, 0.5, 150, "m")
	bad.Range("beamM", d.BeamM, 0.2, 60, "m")
	bad.Range("draughtM", d.DraughtM, 0.03, 15, "m")
	bad.Range("freeboardM", d.FreeboardM, 0.05, 15, "m")
	bad.Range("housesM2", d.HousesM2, 0, 5000, "m²")
	if bad == nil {
		if d.LWLM > d.LOAM {
			bad.Add("lwlM", "the waterline cannot be longer than the boat (%.4g m)", d.LOAM)
		}
		if d.BeamM > d.LOAM {
			bad.Add("beamM", "the beam cannot be more than the length (%.4g m)", d.LOAM)
		}
		if deck := 0.75 * d.LOAM * d.BeamM; d.HousesM2 >= deck {
			bad.Add("housesM2", "houses leave no deck: LOA and beam allow about %.3g m² in all", deck)
		}
	}
	return bad.Err()
}

// PrincipalPct is the standard uncertainty of every principal-dimension rule.
const PrincipalPct = 15

const ruleOfThumb = "rule of thumb of the trade, ±15 %"

// Figure is an area with its standard uncertainty and how it was found.
type Figure struct {
	AreaM2         float64         `json:"areaM2"`
	UncertaintyPct float64         `json:"uncertaintyPct"`
	Working        working.Working `json:"working"`
}

// Principal holds the areas that principal dimensions give.
type Principal struct {
	Bottom        Figure `json:"bottom"`
	TopsidesSides Figure `json:"topsidesBothSides"`
	TopsidesSide  Figure `json:"topsidesOneSide"`
	Deck          Figure `json:"deck"`
}

// FromPrincipal estimates bottom ≈ k · LWL · (B + T), topsides ≈ 2 · (LOA + B)
// · freeboard and deck ≈ 0.75 · LOA · B − houses, each ±15 %.
func FromPrincipal(d Dimensions) (Principal, error) {
	if err := d.Validate(); err != nil {
		return Principal{}, err
	}
	k := d.HullForm.factor()
	figure := func(build func(w *working.Working) float64) Figure {
		w := working.New()
		a := build(&w)
		w.Warn("A rule of thumb: girths, shapes or an outline give a better figure.")
		return Figure{a, PrincipalPct, w}
	}
	topsides := func(w *working.Working) float64 {
		w.In("LOA", d.LOAM, "m")
		w.In("Beam", d.BeamM, "m")
		w.In("Mean freeboard", d.FreeboardM, "m")
		return w.Step("Topsides, both sides", "2 · (LOA + beam) · freeboard", 2*(d.LOAM+d.BeamM)*d.FreeboardM, "m²", ruleOfThumb)
	}
	return Principal{
		Bottom: figure(func(w *working.Working) float64 {
			w.In("LWL", d.LWLM, "m")
			w.In("Beam", d.BeamM, "m")
			w.In("Draught", d.DraughtM, "m")
			w.In("Hull form factor k", k, "")
			return w.Step("Bottom", "k · LWL · (beam + draught)", k*d.LWLM*(d.BeamM+d.DraughtM), "m²", ruleOfThumb)
		}),
		TopsidesSides: figure(topsides),
		TopsidesSide: figure(func(w *working.Working) float64 {
			return w.Step("One side", "half of both", topsides(w)/2, "m²", "symmetry")
		}),
		Deck: figure(func(w *working.Working) float64 {
			w.In("LOA", d.LOAM, "m")
			w.In("Beam", d.BeamM, "m")
			w.In("Houses and openings", d.HousesM2, "m²")
			return w.Step("Deck", "0.75 · LOA · beam − houses", 0.75*d.LOAM*d.BeamM-d.HousesM2, "m²", ruleOfThumb)
		}),
	}, nil
}
