package area

import (
	"testing"

	"allcoats/core/base/fielderr/bounds"
	"allcoats/core/geometry/polygon"
)

func TestBoundsOfABoat(t *testing.T) {
	// A barge of 150 × 60 m has a deck of 6750 m² and draws 15 m.
	large := Dimensions{LOAM: 150, LWLM: 0.5, BeamM: 60, DraughtM: 15, FreeboardM: 0.6, HullForm: HullForms[0]}
	bounds.Try(t, large, Dimensions.Validate, map[string]bounds.Bound{"lwlM": bounds.From(0.5, 150),
		"freeboardM": bounds.From(0.05, 15), "draughtM": bounds.From(0.03, 15), "beamM": bounds.From(0.2, 60),
		"bodyDraughtM": bounds.From(0, 15), "hullBeamM": bounds.From(0, 20), "housesM2": bounds.From(0, 5000)})
	small := Dimensions{LOAM: 1, LWLM: 0.5, BeamM: 0.4, DraughtM: 0.1, FreeboardM: 0.1, HullForm: HullForms[0]}
	bounds.Try(t, small, Dimensions.Validate, map[string]bounds.Bound{"loaM": bounds.From(1, 150)})
	// What hangs on another dimension: no longer than the boat, no broader, no houses as large as the deck of 0.3 m².
	bounds.Try(t, small, Dimensions.Validate, map[string]bounds.Bound{"lwlM": bounds.From(0.5, 1),
		"beamM": bounds.From(0.2, 1), "bodyDraughtM": bounds.From(0, 0.1), "hullBeamM": bounds.From(0, 0.2),
		"housesM2": bounds.From(0, 0.29995)})
}

func TestBoundsOfWhatWasUsed(t *testing.T) {
	bounds.Try(t, Consumption{Litres: 2, LossPct: 10, VolumeSolidsPct: 50, DFTUm: 50, Readings: 5},
		func(c Consumption) error { _, err := c.figure(); return err }, map[string]bounds.Bound{
			"litres": bounds.Above(0, 1000), "lossPct": bounds.From(0, 90), "volumeSolidsPct": bounds.Above(1, 100),
			"dftUm": bounds.Above(0, 50000), "sdUm": bounds.From(0, 50000), "readings": bounds.From(0, 10000)})
}

func TestBoundsOfAnOutline(t *testing.T) {
	var r OutlineRequest
	r.Polygon = polygon.Polygon{Outer: polygon.Ring{{X: 0, Y: 0}, {X: 4, Y: 0}, {X: 4, Y: 3}}}
	bounds.Try(t, r, func(r OutlineRequest) error { _, err := ByOutlines(r); return err }, map[string]bounds.Bound{
		"marginM": bounds.From(0, 10), "radiusM": bounds.From(0, 10), "count": bounds.From(0, 1000)})
}
