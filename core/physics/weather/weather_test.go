package weather

import (
	"testing"
	"time"

	"allcoats/core/base/fielderr"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var start = time.Date(2026, 6, 1, 0, 0, 0, 0, time.UTC)

func hour(h float64, tempC float64, measured bool) Hour {
	return Hour{At: start.Add(time.Duration(h * float64(time.Hour))), TempC: tempC, RHPct: 50, Measured: measured}
}

func TestMergeLaysMeasuredOverForecast(t *testing.T) {
	got := Merge(Series{hour(0, 1, true), hour(1, 2, true)}, Series{hour(1, 20, false), hour(2, 30, false)})
	require.Len(t, got, 3)
	assert.Equal(t, []float64{1, 2, 30}, []float64{got[0].TempC, got[1].TempC, got[2].TempC})
	assert.NoError(t, got.Validate())
}

func TestAt(t *testing.T) {
	s := Series{hour(0, 10, true), hour(1, 14, true), hour(9, 20, true)}
	h, ok := s.At(start.Add(15 * time.Minute))
	assert.True(t, ok)
	assert.InDelta(t, 11, h.TempC, 1e-9)
	h, ok = s.At(start.Add(9 * time.Hour))
	assert.True(t, ok)
	assert.Equal(t, 20.0, h.TempC)
	for _, outside := range []float64{-1, 5, 10} {
		_, ok = s.At(start.Add(time.Duration(outside * float64(time.Hour))))
		assert.False(t, ok, "hour %g", outside)
	}
	require.Len(t, s.Gaps(), 1)
	assert.Equal(t, start.Add(time.Hour), s.Gaps()[0].From)
	assert.Len(t, s.Between(start, start.Add(time.Hour)), 2)
	assert.Empty(t, s.Between(start.Add(20*time.Hour), start.Add(30*time.Hour)))
}

func TestValidate(t *testing.T) {
	for path, s := range map[string]Series{
		"[0].rhPct": {{At: start, TempC: 10, RHPct: 140}},
		"[0].tempC": {{At: start, TempC: 99, RHPct: 50}},
		"[1].at":    {hour(1, 10, true), hour(0, 10, true)},
	} {
		var bad fielderr.Errors
		require.ErrorAs(t, s.Validate(), &bad)
		assert.Equal(t, path, bad[0].Path)
	}
}

// Two hours are alike where all of both is, and what neither knows.
func TestHoursAreAlike(t *testing.T) {
	num := func(v float64) *float64 { return &v }
	full := func() Hour {
		return Hour{At: time.Unix(0, 0), TempC: 10, RHPct: 70, WindMS: num(3), RainMM: num(0), CloudPct: num(50),
			ShortwaveWM2: num(100)}
	}
	assert.True(t, full().Equal(full()))
	assert.True(t, Hour{}.Equal(Hour{}))
	for name, edit := range map[string]func(*Hour){
		"time": func(h *Hour) { h.At = h.At.Add(1) }, "temperature": func(h *Hour) { h.TempC++ },
		"humidity": func(h *Hour) { h.RHPct++ }, "wind": func(h *Hour) { h.WindMS = num(4) },
		"rain": func(h *Hour) { h.RainMM = num(1) }, "cloud": func(h *Hour) { h.CloudPct = num(51) },
		"light": func(h *Hour) { h.ShortwaveWM2 = num(99) }, "measured": func(h *Hour) { h.Measured = true },
		"no wind known": func(h *Hour) { h.WindMS = nil }, "no light known": func(h *Hour) { h.ShortwaveWM2 = nil },
	} {
		other := full()
		edit(&other)
		assert.False(t, full().Equal(other), name)
		assert.False(t, other.Equal(full()), name)
	}
}
