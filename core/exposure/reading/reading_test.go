package reading

import (
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var begin = time.Date(2026, 5, 1, 0, 0, 0, 0, time.UTC)

func at(h float64) time.Time { return begin.Add(time.Duration(h * float64(time.Hour))) }

// day is air that swings by 8 K a day round 12 °C.
func day(h float64) float64 { return 12 + 4*math.Cos(2*math.Pi*(h-15)/24) }

func record(hours int) weather.Series {
	var s weather.Series
	for i := range hours {
		s = append(s, weather.Hour{At: at(float64(i)), TempC: day(float64(i)), RHPct: 70})
	}
	return s
}

// logged shows the air every ten minutes as value says.
func logged(hours float64, value func(h float64) float64) []Reading {
	var out []Reading
	for h := 0.0; h < hours; h += 1.0 / 6 {
		out = append(out, Reading{at(h), value(h), 70 + math.Mod(7*h, 5)})
	}
	return out
}

func TestThinLosesNoExtreme(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	var rs []Reading
	lo, hi, sum := math.Inf(1), math.Inf(-1), 0.0
	for i := range 10_000 {
		v := 10 * r.NormFloat64()
		if i/1000 == 4 {
			continue // a gap
		}
		lo, hi, sum = min(lo, v), max(hi, v), sum+v
		rs = append(rs, Reading{begin.Add(time.Duration(i) * time.Minute), v, math.NaN()})
	}
	thin := Thin(rs, begin, rs[len(rs)-1].At, 100)
	assert.LessOrEqual(t, len(thin), 92, "none for the gap")
	gotLo, gotHi, gotSum, n := math.Inf(1), math.Inf(-1), 0.0, 0
	for _, e := range thin {
		gotLo, gotHi, gotSum, n = min(gotLo, e.MinC), max(gotHi, e.MaxC), gotSum+e.MeanC*float64(e.N), n+e.N
		assert.True(t, math.IsNaN(e.MinRH))
	}
	assert.Equal(t, []float64{lo, hi, 9000}, []float64{gotLo, gotHi, float64(n)})
	assert.InDelta(t, sum, gotSum, 1e-6)
	assert.Nil(t, Thin(rs, begin, begin, 10))
}

// A logger that shows 2 K less than the forecast on every one of 7 days: each
// hour of the day has 7 departures, drawn to zero as by 3, and what was last seen
// fades with 6 h.
func TestLearnAgainstHand(t *testing.T) {
	var rs []Residual
	for h := 0.0; h < 168; h++ {
		rs = append(rs, Residual{at(h), -2})
	}
	now := at(167)
	d := Learn(rs, now, time.UTC)
	assert.Equal(t, 168, d.N)
	assert.InDelta(t, -2, d.At(now), 1e-9, "at once as last seen")
	mean := -2.0 * 7 / 10
	assert.InDelta(t, mean+(-2-mean)*math.Exp(-1), d.At(now.Add(6*time.Hour)), 1e-9)
	assert.InDelta(t, mean, d.At(now.Add(4*24*time.Hour)), 1e-3)
	assert.Zero(t, Learn(nil, now, time.UTC).At(now))
	assert.Zero(t, Learn(rs, now.AddDate(0, 1, 0), time.UTC).N, "too old")
}

func TestAirGoesThroughReadings(t *testing.T) {
	s := record(96)
	now := at(48)
	got, d := Air(s, logged(48.2, func(h float64) float64 { return day(h) - 1.5 }), now, time.UTC)
	assert.InDelta(t, s[30].TempC-1.5, got[30].TempC, 0.1)
	assert.True(t, got[30].Measured)
	assert.Positive(t, d.N)
	for i := 49; i < 96; i++ {
		assert.Less(t, got[i].TempC, s[i].TempC-0.3, "the hours ahead are corrected")
		assert.Greater(t, got[i].TempC, s[i].TempC-1.6, "and not by more than was seen")
		assert.False(t, got[i].Measured)
	}
	none, _ := Air(s, nil, now, time.UTC)
	assert.InDelta(t, s[60].TempC, none[60].TempC, 1e-9)
	assert.InDelta(t, s[60].RHPct, none[60].RHPct, 1e-6)
}

func TestAdjustKeepsTheModelInGaps(t *testing.T) {
	at4 := []time.Time{at(0), at(1), at(10), at(11), at(12)}
	rs := []Reading{{at(0), 5, math.NaN()}, {at(10), 7, math.NaN()}}
	got, covered, _ := Adjust(at4, []float64{1, 1, 1, 1, 1}, rs, func(r Reading) float64 {
		return r.TempC
	}, at(10), time.UTC)
	assert.Equal(t, 5.0, got[0])
	assert.Equal(t, 1.0, got[1], "more than three hours from one reading to the next")
	assert.Equal(t, 7.0, got[2])
	assert.Equal(t, []bool{true, false, true, false, false}, covered)
	assert.Greater(t, got[3], 3.0)
	assert.Less(t, got[4], got[3], "it fades")
}

func TestDoubts(t *testing.T) {
	ref := record(240)
	good := logged(200, day)
	assert.Empty(t, Doubts(good, ref))
	find := func(rs []Reading) map[string]Doubt {
		out := map[string]Doubt{}
		for _, d := range Doubts(rs, ref) {
			out[d.What] = d
		}
		return out
	}
	edit := func(from, to float64, change func(*Reading)) []Reading {
		out := append([]Reading(nil), good...)
		for i := range out {
			if h := out[i].At.Sub(begin).Hours(); h >= from && h <= to {
				change(&out[i])
			}
		}
		return out
	}
	stuck := find(edit(30, 54, func(r *Reading) { r.TempC = 11.5 }))
	require.Contains(t, stuck, "stuck")
	assert.WithinDuration(t, at(30), stuck["stuck"].From, 15*time.Minute)
	assert.NotContains(t, find(edit(30, 33, func(r *Reading) { r.TempC = 11.5 })), "stuck",
		"three hours alike may be weather")
	wet := find(edit(20, 70, func(r *Reading) { r.RHPct = 100 }))
	require.Contains(t, wet, "saturated")
	assert.NotContains(t, find(edit(20, 40, func(r *Reading) { r.RHPct = 100 })), "saturated", "a foggy day")
	gap := append(append([]Reading(nil), good[:300]...), good[330:]...)
	require.Contains(t, find(gap), "drop-out")
	assert.Contains(t, find(gap)["drop-out"].Text.String(), "5.2 h")
	ahead := logged(200, func(h float64) float64 {
		return day(h - 2)
	}) // shows at h what was at h − 2: its clock is 2 h ahead
	require.Contains(t, find(ahead), "clock")
	assert.Contains(t, find(ahead)["clock"].Text.String(), "2.0 h ahead")
	assert.Contains(t, find(logged(200, func(h float64) float64 {
		return day(h + 1)
	}))["clock"].Text.String(), "1.0 h behind")
}

func TestValidate(t *testing.T) {
	assert.NoError(t, Reading{begin, 12, math.NaN()}.Validate())
	assert.ErrorContains(t, Reading{begin, 130, 50}.Validate(), "tempC")
	assert.ErrorContains(t, Reading{begin, 12, 120}.Validate(), "rhPct")
	assert.ErrorContains(t, Reading{begin, math.NaN(), math.NaN()}.Validate(), "neither")
}

func BenchmarkThinYearOfMinutes(b *testing.B) {
	rs := make([]Reading, 525_600)
	for i := range rs {
		rs[i] = Reading{begin.Add(time.Duration(i) * time.Minute), day(float64(i) / 60), 70}
	}
	for b.Loop() {
		Thin(rs, begin, rs[len(rs)-1].At, 900)
	}
}
