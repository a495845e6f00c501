package psychrometrics

import (
	"testing"

	"allcoats/core/base/fielderr/bounds"
)

func TestBounds(t *testing.T) {
	at := 12.0
	bounds.Try(t, Request{TempC: 12, RHPct: 70, PressureHPa: 1000, SurfaceTempC: &at, HeatedToC: &at},
		func(r Request) error { _, err := Compute(r); return err }, map[string]bounds.Bound{
			"tempC": bounds.From(-40, 50), "rhPct": bounds.Above(1, 100), "pressureHPa": bounds.From(500, 1100),
			"surfaceTempC": bounds.From(-40, 90), "heatedToC": bounds.From(-40, 90)})
}
