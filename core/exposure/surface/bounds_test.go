package surface

import (
	"testing"

	"allcoats/core/base/fielderr/bounds"
)

func TestBounds(t *testing.T) {
	start := 12.0
	r := Request{HeatJM2K: 8000, InnerJM2K: 8000, CoreWM2K: 2, InnerStartC: &start, HoldsMM: 0.2,
		AirTempsC: []float64{12, 13}, LightWM2: []float64{0, 100}, SkyTempsC: []float64{0, 0}, WindMS: []float64{2, 2},
		DewPointsC: []float64{5, 5}, RainMMH: []float64{0, 0}}
	bounds.Try(t, r, Request.check, map[string]bounds.Bound{
		"heatJM2K": bounds.From(500, 1000000), "absorptance": bounds.From(0, 1), "emissivity": bounds.From(0, 1),
		"skyView": bounds.From(0, 1), "insideWM2K": bounds.From(0, 50), "insideTempC": bounds.From(-40, 60),
		"startC": bounds.From(-40, 100), "soakMM": bounds.From(0, 20),
		"startMM": bounds.From(0, 50), "coreWM2K": bounds.From(0, 1000), "innerJM2K": bounds.From(500, 1000000),
		"innerStartC": bounds.From(-40, 100), "airTempsC[1]": bounds.From(-60, 60), "lightWM2[1]": bounds.From(0, 1500),
		"skyTempsC[1]": bounds.From(-90, 60), "windMS[1]": bounds.From(0, 60), "dewPointsC[1]": bounds.From(-80, 60),
		"rainMMH[1]": bounds.From(0, 300)})
	r.RainMMH = nil
	bounds.Try(t, r, Request.check, map[string]bounds.Bound{"holdsMM": bounds.From(0, 5)})
}
