package field

import (
	"testing"
	"time"

	"allcoats/core/catalog/product"
	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// warmDays is air of 18 °C and 60 % for two days around midsummer noon, without rain.
func warmDays(edit func(i int, h *weather.Hour)) weather.Series {
	var out weather.Series
	for i := range 48 {
		rain := 0.0
		h := weather.Hour{At: time.Date(2026, 6, 20, i, 0, 0, 0, time.UTC), TempC: 18, RHPct: 60, RainMM: &rain}
		if edit != nil {
			edit(i, &h)
		}
		out = append(out, h)
	}
	return out
}

func TestComputeWindows(t *testing.T) {
	ten := 10.0
	r := Request{Limits: product.Limits{AirMinC: &ten, HoldH: 3}, ApplyH: 2, Lights: true, LatitudeDeg: 52,
		Air: warmDays(func(i int, h *weather.Hour) {
			if i >= 20 && i < 30 {
				h.TempC = 6
			}
		})}
	got, err := Compute(r)
	require.NoError(t, err)
	assert.Len(t, got.Hours, 48)
	require.NotEmpty(t, got.Windows)
	// 18 to 6 °C between 19:00 and 20:00 crosses 10 °C two thirds on; five hours before
	// that is the last start.
	last := time.Date(2026, 6, 20, 14, 40, 0, 0, time.UTC)
	assert.WithinDuration(t, last, got.Windows[0].To, time.Minute)
	for _, w := range got.Windows[1:] {
		assert.False(t, w.From.Before(time.Date(2026, 6, 21, 5, 0, 0, 0, time.UTC)), "not in the cold")
	}
	assert.Contains(t, got.Working.Warnings[0].String(), "3 K is used (ISO 8502-4)")

	// A surface colder than the air is nearer to the dew point: 18 °C and 60 % have it at 10.1.
	r.SurfaceTempsC = make([]float64, 48)
	for i := range r.SurfaceTempsC {
		r.SurfaceTempsC[i] = 12
	}
	wet, err := Compute(r)
	require.NoError(t, err)
	assert.Empty(t, wet.Windows)
	assert.Equal(t, Spread, wet.Hours[12].Binding.Limit)
	assert.InDelta(t, 12-10.12, wet.Hours[12].Binding.Value, 0.05)
}

func TestComputeWithoutRainOrWithGaps(t *testing.T) {
	air := warmDays(func(_ int, h *weather.Hour) { h.RainMM = nil })
	got, err := Compute(Request{Lights: true, LatitudeDeg: 52, Air: append(air[:10:10], air[20:]...)})
	require.NoError(t, err)
	all := ""
	for _, w := range got.Working.Warnings {
		all += w.String() + "\n"
	}
	assert.Contains(t, all, "rain is not judged")
	assert.Contains(t, all, "No weather is known from Sat 20 Jun, 09:00 to Sat 20 Jun, 20:00")
}

func TestComputeNamesWhatCannotBe(t *testing.T) {
	good := Request{Lights: true, LatitudeDeg: 52, Air: warmDays(nil)}
	for path, edit := range map[string]func(*Request){
		"applyH":           func(r *Request) { r.ApplyH = 100 },
		"latitudeDeg":      func(r *Request) { r.LatitudeDeg = 95 },
		"longitudeDeg":     func(r *Request) { r.LongitudeDeg = 200 },
		"limits.holdH":     func(r *Request) { r.Limits.HoldH = -1 },
		"air":              func(r *Request) { r.Air = r.Air[:1] },
		"surfaceTempsC":    func(r *Request) { r.SurfaceTempsC = []float64{1, 2} },
		"surfaceTempsC[3]": func(r *Request) { r.SurfaceTempsC = make([]float64, 48); r.SurfaceTempsC[3] = 400 },
	} {
		r := good
		edit(&r)
		_, err := Compute(r)
		assert.ErrorContains(t, err, path)
	}
}

func TestWordsForEveryLimit(t *testing.T) {
	for limit, want := range map[Limit]string{
		AirMin: "the air is below 8 °C", AirMax: "the air is above 8 °C", SurfaceMin: "the surface is below 8 °C",
		SurfaceMax: "the surface is above 8 °C",
		Humidity:   "humidity is above 8 °C", Spread: "the surface is less than 8 °C above the dew point",
		Polygon: "temperature and humidity are outside the product's field",
		Rain:    "it rains", Wind: "the wind is above 8 °C", Light: "it is dark", Hours: "nobody works",
		Wetness: "the surface is wet", NoData: "the weather is not known",
	} {
		assert.Equal(t, want, Words(Check{Limit: limit, Need: 8, Unit: "°C"}).In(time.UTC), limit)
	}
}

// The nearest limit of a start is that with the least room on the way to the end of
// its hold.
func TestAtNamesTheNearestLimit(t *testing.T) {
	ten, wet := 10.0, 85.0
	air := warmDays(func(i int, h *weather.Hour) {
		h.TempC = 18 - 0.5*float64(i%24)
		h.RHPct = 60
	})
	w := Weather{Air: air}
	for _, h := range air {
		w.SurfaceC = append(w.SurfaceC, h.TempC+4)
	}
	j := Job{Limits: product.Limits{AirMinC: &ten, RHMaxPct: &wet, HoldH: 4}, Apply: time.Hour, Hold: 4 * time.Hour,
		Lights: true}
	c, ok := j.At(w, air[8].At)
	require.True(t, ok)
	assert.Equal(t, AirMin, c.Limit)
	assert.InDelta(t, 18-0.5*13-10, c.Margin, 1e-6, "at the end of the hold, 13:00")
	_, ok = j.At(w, air[0].At.AddDate(0, 0, 9))
	assert.False(t, ok, "beyond the record")
}

// Rain between four and five holds a coat that must stay dry for two hours off from one o'clock, an hour of laying
// included, to five; the hours told are those of the stretch asked for.
func TestComputeKeepsRainAway(t *testing.T) {
	one := 1.0
	air := warmDays(func(i int, h *weather.Hour) {
		h.RainMM = new(float64)
		if i == 16 {
			h.RainMM = &one
		}
	})
	got, err := Compute(Request{Limits: product.Limits{RainFreeH: 2}, ApplyH: 1, Lights: true, LatitudeDeg: 52, Air: air})
	require.NoError(t, err)
	require.Len(t, got.Windows, 2)
	assert.Equal(t, air[13].At, got.Windows[0].To)
	assert.Equal(t, air[17].At, got.Windows[1].From)
	j := Job{Lights: true}
	w := Weather{Air: air, SurfaceC: make([]float64, len(air))}
	assert.Len(t, j.Judge(w, air[10].At, air[20].At).Hours, 11)
	assert.Len(t, j.Judge(w, air[10].At.Add(time.Minute), air[20].At).Hours, 11, "with the record before")
}
