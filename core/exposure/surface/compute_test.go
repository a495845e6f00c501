package surface

import (
	"math"
	"testing"

	"allcoats/core/base/fielderr"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func steady(n int, v float64) []float64 {
	out := make([]float64, n)
	for i := range out {
		out[i] = v
	}
	return out
}

// request is a face without sky or sun in still air of 10 °C for n hours.
func request(n int) Request {
	return Request{HeatJM2K: 20_000, StartC: 30, AirTempsC: steady(n, 10), LightWM2: steady(n, 0),
		SkyTempsC: steady(n, 10), WindMS: steady(n, 0)}
}

// In still air h is 2.8 W/m²K: a face of 20 kJ/m²K comes to the air with a time
// constant of 7,143 s, with the wind of 5 m/s (17.8 W/m²K) of 1,124 s.
func TestComputeFollowsTheExponential(t *testing.T) {
	for wind, h := range map[float64]float64{0: 2.8, 5: 17.8} {
		r := request(6)
		r.WindMS = steady(6, wind)
		got, err := Compute(r)
		require.NoError(t, err)
		for i, v := range got.SurfaceTempsC {
			assert.InDelta(t, 10+20*math.Exp(-float64(i)*3600*h/20_000), v, 0.02, "hour %d", i)
		}
		assert.Equal(t, got.SurfaceTempsC[5], got.Working.Steps[0].Value)
	}
}

// At rest the sun taken up equals what goes to the air and through the shell:
// α·G = h(T − Ta) + U(T − Ti).
func TestComputeComesToRestInTheSun(t *testing.T) {
	r := request(100)
	r.Absorptance, r.LightWM2, r.InsideWM2K, r.InsideTempC = 0.5, steady(100, 600), 4.3, 20
	got, err := Compute(r)
	require.NoError(t, err)
	assert.InDelta(t, (300+2.8*10+4.3*20)/(2.8+4.3), got.SurfaceTempsC[99], 0.01)
}

// Under a clear sky 20 K colder a level face goes below the air, and its dew hours
// are those at or below the dew point.
func TestComputeNamesTheDewHours(t *testing.T) {
	r := request(24)
	r.StartC, r.Emissivity, r.SkyView, r.SkyTempsC = 10, 0.9, 1, steady(24, -10)
	r.DewPointsC = steady(24, 8)
	got, err := Compute(r)
	require.NoError(t, err)
	const sigma = 5.670374e-8
	last := got.SurfaceTempsC[23]
	assert.InDelta(t, 2.8*(10-last), 0.9*sigma*(math.Pow(last+273.15, 4)-math.Pow(263.15, 4)), 0.5,
		"what the air gives the sky takes")
	require.NotEmpty(t, got.DewHours)
	for i, v := range got.SurfaceTempsC {
		if v <= 8 {
			assert.Contains(t, got.DewHours, i)
		} else {
			assert.NotContains(t, got.DewHours, i)
		}
	}
	assert.NotContains(t, got.DewHours, 0)
}

func TestComputeBadFields(t *testing.T) {
	for path, change := range map[string]func(*Request){
		"heatJM2K":      func(r *Request) { r.HeatJM2K = 0 },
		"absorptance":   func(r *Request) { r.Absorptance = 1.1 },
		"emissivity":    func(r *Request) { r.Emissivity = -0.1 },
		"skyView":       func(r *Request) { r.SkyView = 2 },
		"insideWM2K":    func(r *Request) { r.InsideWM2K = math.NaN() },
		"insideTempC":   func(r *Request) { r.InsideTempC = 61 },
		"startC":        func(r *Request) { r.StartC = 101 },
		"lightWM2":      func(r *Request) { r.LightWM2 = r.LightWM2[1:] },
		"skyTempsC[2]":  func(r *Request) { r.SkyTempsC[2] = -100 },
		"windMS[0]":     func(r *Request) { r.WindMS[0] = -1 },
		"dewPointsC":    func(r *Request) { r.DewPointsC = []float64{1} },
		"airTempsC[5]":  func(r *Request) { r.AirTempsC[5] = 99 },
		"dewPointsC[5]": func(r *Request) { r.DewPointsC = append(steady(5, 0), 99) },
	} {
		r := request(6)
		change(&r)
		_, err := Compute(r)
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		require.Len(t, bad, 1, path)
		assert.Equal(t, path, bad[0].Path)
	}
	_, err := Compute(request(1))
	assert.ErrorContains(t, err, "not 1")
	for name, change := range map[string]func(*Request){ // water is followed only where it is said how much stays
		"rain": func(r *Request) { r.RainMMH = steady(6, 1) }, "a start in the wet": func(r *Request) { r.StartMM = 0.1 },
		"pores": func(r *Request) { r.SoakMM = 0.2 },
	} {
		r := request(6)
		change(&r)
		_, err := Compute(r)
		assert.ErrorContains(t, err, "holdsMM", name)
	}
	r := request(6)
	r.HoldsMM = 0.5
	_, err = Compute(r)
	assert.ErrorContains(t, err, "dewPointsC")
}
