package solar

import (
	"testing"
	"time"

	"allcoats/core/base/fielderr/bounds"
)

func TestBounds(t *testing.T) {
	albedo := 0.2
	r := Request{At: time.Date(2026, 5, 9, 12, 0, 0, 0, time.UTC), Sun: &GivenSun{}, Light: &GivenLight{},
		Plane: &PlaneRequest{Albedo: &albedo}}
	bounds.Try(t, r, Request.check, map[string]bounds.Bound{
		"latitudeDeg": bounds.From(-90, 90), "longitudeDeg": bounds.From(-180, 180), "cloudPct": bounds.From(0, 100),
		"plane.tiltDeg": bounds.From(0, 180), "plane.azimuthDeg": bounds.From(-360, 360), "plane.albedo": bounds.From(0, 1),
		"sun.elevationDeg": bounds.From(-90, 90), "sun.azimuthDeg": bounds.From(-360, 360),
		"light.globalWM2": bounds.From(0, 1500), "light.beamWM2": bounds.From(0, 1500), "light.diffuseWM2": bounds.From(0, 1500)})
}
