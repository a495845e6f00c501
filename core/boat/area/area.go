// Package area finds the surface of a boat's parts. Lengths are in m, areas in
// m²; an uncertainty is half of the range that holds the truth in 80 % of cases, in
// per cent.
package area

import "allcoats/core/base/fielderr"

// Dimensions are a boat's principal dimensions, m. HousesM2 is the plan area
// of houses and openings that is not deck. BodyDraughtM is the draught of the
// hull without fin, skeg and rudder, HullBeamM the waterline beam of one hull of
// several; 0 where not known.
type Dimensions struct {
	HullForm     HullForm `json:"hullForm"`
	LOAM         float64  `json:"loaM"`
	LWLM         float64  `json:"lwlM" required:"false"`
	BeamM        float64  `json:"beamM"`
	DraughtM     float64  `json:"draughtM" required:"false"`
	FreeboardM   float64  `json:"freeboardM" required:"false"`
	HousesM2     float64  `json:"housesM2" required:"false"`
	BodyDraughtM float64  `json:"bodyDraughtM,omitempty"`
	HullBeamM    float64  `json:"hullBeamM,omitempty"`
	// Guessed names the dimensions that were guessed from length and beam (Filled).
	Guessed []string `json:"guessed,omitempty" enum:"lwlM,draughtM,freeboardM,housesM2"`
}

// Validate reports dimensions that no boat has.
func (d Dimensions) Validate() error {
	var bad fielderr.Errors
	fielderr.OneOf(&bad, "hullForm", d.HullForm, HullForms)
	bad.Range("loaM", d.LOAM, 1, 150, "m")
	bad.Range("lwlM", d.LWLM, 0.5, 150, "m")
	bad.Range("beamM", d.BeamM, 0.2, 60, "m")
	bad.Range("draughtM", d.DraughtM, 0.03, 15, "m")
	bad.Range("freeboardM", d.FreeboardM, 0.05, 15, "m")
	bad.Range("housesM2", d.HousesM2, 0, 5000, "m²")
	bad.Range("bodyDraughtM", d.BodyDraughtM, 0, 15, "m")
	bad.Range("hullBeamM", d.HullBeamM, 0, 20, "m")
	if bad == nil {
		if d.LWLM > d.LOAM {
			bad.Add("lwlM", "the waterline cannot be longer than the boat (%.4g m)", d.LOAM)
		}
		if d.BeamM > d.LOAM {
			bad.Add("beamM", "the beam cannot be more than the length (%.4g m)", d.LOAM)
		}
		if d.HousesM2 >= d.deckPlan() {
			bad.Add("housesM2", "houses leave no deck: LOA and beam allow about %.3g m² in all", d.deckPlan())
		}
		if d.BodyDraughtM > d.DraughtM {
			bad.Add("bodyDraughtM", "the hull cannot draw more than the boat (%.4g m)", d.DraughtM)
		}
		if d.HullBeamM > d.BeamM/2 {
			bad.Add("hullBeamM", "one hull of several cannot be broader than half the boat (%.4g m)", d.BeamM/2)
		}
	}
	return bad.Err()
}

// deckPlan is the plan area inside the sheer, houses and all.
func (d Dimensions) deckPlan() float64 { return 0.75 * d.LOAM * d.BeamM }

// houses is the plan area of houses and openings; a quarter of LOA · beam where
// it is not known.
func (d Dimensions) houses() float64 {
	if d.HousesM2 > 0 {
		return d.HousesM2
	}
	return 0.25 * d.LOAM * d.BeamM
}

// body is the draught of the hull without fin, skeg and rudder.
func (d Dimensions) body() float64 {
	if d.BodyDraughtM > 0 {
		return d.BodyDraughtM
	}
	return d.HullForm.Info().body * d.DraughtM
}

// hullBeam is the waterline beam of one hull.
func (d Dimensions) hullBeam() float64 {
	switch {
	case d.HullForm.Info().Hulls == 1:
		return d.BeamM
	case d.HullBeamM > 0:
		return d.HullBeamM
	}
	return min(d.LWLM/10, d.BeamM/2)
}
