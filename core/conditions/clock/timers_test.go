package clock

import (
	"testing"
	"time"

	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/physics/cure"
	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func still(tempC float64, hours int) field.Weather {
	var w field.Weather
	for i := range hours {
		w.Air = append(w.Air, weather.Hour{At: noon().Add(time.Duration(i) * time.Hour), TempC: tempC, RHPct: 50})
		w.SurfaceC = append(w.SurfaceC, tempC)
	}
	return w
}

func noon() time.Time { return time.Date(2026, 6, 1, 12, 0, 0, 0, time.UTC) }

// At 20 °C all as on the sheet; touch-dry after 5 h keeps a wet edge for half an hour
// and lets tape go after two.
func TestTimers(t *testing.T) {
	s := product.Sheet{InductionMin: 15, BaseKgL: 1, PotLife: cure.Table{{TempC: 10, Hours: 4}, {TempC: 20, Hours: 2}},
		TouchDry: cure.Table{{TempC: 10, Hours: 10}, {TempC: 20, Hours: 5}}}
	pot := PotTimers(s, 0.1, noon(), still(20, 48), noon())
	require.Len(t, pot, 2)
	assert.Equal(t, noon().Add(15*time.Minute), *pot[0].At)
	assert.WithinDuration(t, noon().Add(2*time.Hour), *pot[1].At, time.Second)
	assert.InDelta(t, 20, pot[1].TempC, 1e-9)
	assert.True(t, pot[1].Forecast)
	cold := PotTimers(s, 0.1, noon(), still(10, 48), noon())
	assert.WithinDuration(t, noon().Add(4*time.Hour), *cold[1].At, time.Second)

	fresh := FreshTimers(s, noon(), still(20, 48), noon())
	require.Len(t, fresh, 2)
	assert.WithinDuration(t, noon().Add(30*time.Minute), *fresh[0].At, time.Second)
	assert.WithinDuration(t, noon().Add(2*time.Hour), *fresh[1].At, time.Second)
	assert.Empty(t, FreshTimers(product.Sheet{}, noon(), still(20, 48), noon()))

	c := Run(Laid{Sheet: s, Started: noon()}, product.AnyKind, still(20, 48), noon().Add(time.Hour))
	left := c.Timers(still(20, 48), noon())
	require.Len(t, left, 1)
	assert.Equal(t, TouchDry, left[0].Key)
	assert.WithinDuration(t, noon().Add(5*time.Hour), *left[0].At, time.Second)
}
