// Package area finds the surface of a boat's parts. Lengths are in m, areas in
// m²; an uncertainty is the standard one, in per cent.
package area

import "allcoats/core/base/fault"

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
	case Medium:
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
