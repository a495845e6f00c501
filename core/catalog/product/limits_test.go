package product

import (
	"testing"

	"allcoats/core/physics/psychrometrics"

	"github.com/stretchr/testify/assert"
)

// Each limit holds on it and just inside, and not just outside. At 20 °C and 60 % the dew point is 12.0 °C: 3 K above
// it is 15.0 °C.
func TestEachLimitIsKept(t *testing.T) {
	at := func(v float64) *float64 { return &v }
	keeps := func(l Limits, airC, rhPct, surfaceC float64) bool {
		return l.Keep(airC, rhPct, psychrometrics.DewPoint(airC, rhPct), surfaceC)
	}
	l := Limits{AirMinC: at(10), AirMaxC: at(30), SurfaceMinC: at(12), SurfaceMaxC: at(35), RHMaxPct: at(85),
		SpreadMinK: at(3)}
	for _, one := range []struct {
		name                  string
		airC, rhPct, surfaceC float64
		keeps                 bool
	}{
		{"in the middle", 20, 60, 20, true},
		{"air on its least", 10, 60, 20, true},
		{"air too cold", 9.9, 60, 20, false},
		{"air on its greatest", 30, 40, 30, true},
		{"air too warm", 30.1, 40, 30, false},
		{"surface on its least", 15, 60, 12, true},
		{"surface too cold", 12, 60, 11.9, false},
		{"surface on its greatest", 20, 60, 35, true},
		{"surface too hot", 20, 60, 35.1, false},
		{"humidity on its greatest", 20, 85, 25, true},
		{"too humid", 20, 85.1, 25, false},
		{"3.1 K above the dew point", 20, 60, 15.1, true},
		{"2.9 K above the dew point", 20, 60, 14.9, false},
	} {
		assert.Equal(t, one.keeps, keeps(l, one.airC, one.rhPct, one.surfaceC), one.name)
	}
	usual := Limits{}
	assert.True(t, keeps(usual, 20, 60, 15.1), "3 K is the usual spread")
	assert.False(t, keeps(usual, 20, 60, 14.9))
	field := Limits{Polygon: []Corner{{10, 0}, {30, 0}, {30, 80}, {10, 50}}} // up to 65 % at 20 °C
	assert.True(t, keeps(field, 20, 64, 25))
	assert.False(t, keeps(field, 20, 66, 25))
}
