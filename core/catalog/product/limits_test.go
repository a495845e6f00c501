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

// The figures that a data sheet may have, each on its bounds and just past them.
func TestBoundsOfLimits(t *testing.T) {
	for path, one := range map[string]struct {
		of     func(l *Limits, v float64)
		lo, hi float64
	}{
		"airMinC":     {func(l *Limits, v float64) { l.AirMinC = &v }, -30, 60},
		"airMaxC":     {func(l *Limits, v float64) { l.AirMaxC = &v }, -30, 60},
		"surfaceMinC": {func(l *Limits, v float64) { l.SurfaceMinC = &v }, -30, 90},
		"surfaceMaxC": {func(l *Limits, v float64) { l.SurfaceMaxC = &v }, -30, 90},
		"rhMaxPct":    {func(l *Limits, v float64) { l.RHMaxPct = &v }, 1, 100},
		"spreadMinK":  {func(l *Limits, v float64) { l.SpreadMinK = &v }, 0, 20},
		"windMaxMS":   {func(l *Limits, v float64) { l.WindMaxMS = &v }, 0, 40},
		"holdH":       {func(l *Limits, v float64) { l.HoldH = v }, 0, 720},
		"rainFreeH":   {func(l *Limits, v float64) { l.RainFreeH = v }, 0, 720},
		"polygon[1].tempC": {func(l *Limits, v float64) { l.Polygon = []Corner{{0, 10}, {v, 20}, {7, 90}} }, -30,
			60},
		"polygon[1].rhPct": {func(l *Limits, v float64) { l.Polygon = []Corner{{0, 10}, {30, v}, {7, 55}} }, 0, 100},
	} {
		at := func(v float64) error {
			var l Limits
			one.of(&l, v)
			return l.Validate()
		}
		assert.NoError(t, at(one.lo), path)
		assert.NoError(t, at(one.hi), path)
		assert.ErrorContains(t, at(one.lo-0.01), path)
		assert.ErrorContains(t, at(one.hi+0.01), path)
	}
	line := Limits{Polygon: []Corner{{0, 10}, {10, 20}, {20, 30}}}
	assert.ErrorContains(t, line.Validate(), "on one line")
	line.Polygon[2].RHPct = 31
	assert.NoError(t, line.Validate())
	ten, more := 10.0, 10.1
	assert.NoError(t, Limits{AirMinC: &ten, AirMaxC: &more}.Validate())
	assert.ErrorContains(t, Limits{AirMinC: &ten, AirMaxC: &ten}.Validate(), "airMaxC")
	assert.ErrorContains(t, Limits{SurfaceMinC: &ten, SurfaceMaxC: &ten}.Validate(), "surfaceMaxC")
}

// By the rule of even and odd a printed field holds its lower side and not its upper one.
func TestInsideAPrintedField(t *testing.T) {
	p := []Corner{{10, 20}, {30, 20}, {30, 80}, {10, 80}}
	assert.True(t, Inside(p, 20, 20))
	assert.False(t, Inside(p, 20, 80))
	for _, out := range [][2]float64{{20, 19.9}, {20, 80.1}, {9.9, 50}, {30.1, 50}} {
		assert.False(t, Inside(p, out[0], out[1]), out)
	}
	assert.True(t, Inside(p, 20, 79.9))
}
