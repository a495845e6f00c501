package psychrometrics

import (
	"math"
	"testing"

	"allcoats/core/base/fielderr"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Saturation pressures over water of the Smithsonian Meteorological Tables
// (Goff-Gratch), hPa; the formula keeps within 0.4 %.
func TestSaturationPressure(t *testing.T) {
	for tempC, want := range map[float64]float64{-20: 1.2540, -10: 2.8627, 0: 6.1078, 5: 8.7192, 10: 12.272, 15: 17.044,
		20: 23.373, 25: 31.671, 30: 42.430, 40: 73.777, 50: 123.40} {
		assert.InEpsilon(t, want, SaturationPressure(tempC), 0.004, "%g °C", tempC)
	}
}

// Dew points as printed in dew-point tables for coating work, to 0.1 °C.
func TestDewPoint(t *testing.T) {
	for _, c := range []struct{ temp, rh, want float64 }{
		{30, 50, 18.4}, {25, 60, 16.7}, {20, 50, 9.3}, {20, 80, 16.4}, {15, 70, 9.6}, {10, 90, 8.4}, {5, 60, -2.1},
	} {
		assert.InDelta(t, c.want, DewPoint(c.temp, c.rh), 0.1, "%g °C, %g %%", c.temp, c.rh)
	}
	assert.True(t, math.IsInf(DewPoint(10, 0), -1))
}

func TestWhatMustHold(t *testing.T) {
	for temp := -20.0; temp <= 40; temp += 2.5 {
		last := math.Inf(-1)
		for rh := 5.0; rh <= 100; rh += 5 {
			dew := DewPoint(temp, rh)
			assert.Greater(t, dew, last, "damper air has the higher dew point")
			assert.LessOrEqual(t, dew, temp+1e-9)
			last = dew
			// At its dew point air is saturated; warmed it is drier.
			e := VapourPressure(temp, rh)
			assert.InDelta(t, 100, HumidityAt(e, dew), 1e-9)
			assert.Less(t, HumidityAt(e, temp+5), rh)
		}
		assert.InDelta(t, temp, DewPoint(temp, 100), 1e-9)
	}
}

func TestBadAir(t *testing.T) {
	hot := 120.0
	for path, r := range map[string]Request{
		"tempC":        {TempC: 80, RHPct: 50},
		"rhPct":        {TempC: 10, RHPct: 101},
		"pressureHPa":  {TempC: 10, RHPct: 50, PressureHPa: 20},
		"surfaceTempC": {TempC: 10, RHPct: 50, SurfaceTempC: &hot},
		"heatedToC":    {TempC: 10, RHPct: 50, HeatedToC: &hot},
	} {
		_, err := Compute(r)
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
}

func TestACoolSurfaceGetsWet(t *testing.T) {
	cool, warm := 8.0, 14.0
	r, err := Compute(Request{TempC: 15, RHPct: 80, SurfaceTempC: &cool})
	require.NoError(t, err)
	assert.True(t, *r.Condenses)
	assert.Negative(t, *r.DewPointSpreadK)
	r, err = Compute(Request{TempC: 15, RHPct: 80, SurfaceTempC: &warm})
	require.NoError(t, err)
	assert.False(t, *r.Condenses)
	assert.InDelta(t, 14-11.6, *r.DewPointSpreadK, 0.1)
}
