package weather

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"
)

func forecast(hours int) Series {
	var s Series
	for i := -30; i < hours; i++ {
		none, wind := 0.0, 3.0
		s = append(s, Hour{At: start.Add(time.Duration(i) * time.Hour), TempC: 15, RHPct: 60, RainMM: &none,
			WindMS: &wind, Measured: i <= 0})
	}
	return s
}

func TestFuturesSpreadWithTheirLead(t *testing.T) {
	f := NewFutures(forecast(120), start, 10*24*time.Hour, Habits{Normals: UsualNormals(53), Loc: time.UTC})
	require.Len(t, f.Frame(), 24+240+1)
	assert.Equal(t, start.Add(119*time.Hour), f.Known())
	const n = 1500
	spread := func(i int) (mean, sigma, wet float64) {
		var sum, squares float64
		for k := range uint64(n) {
			h := f.Make(7, k, nil)[i]
			sum, squares = sum+h.TempC, squares+h.TempC*h.TempC
			if *h.RainMM > 0 {
				wet++
			}
		}
		mean = sum / n
		return mean, math.Sqrt(squares/n - mean*mean), wet / n
	}
	// Days of the place spread by 2.8 K, the forecast errs by 1 °C + 0.2 °C a day: of its departure from the
	// usual 2.8²/(2.8² + e²) holds, and that share of the error's square is left.
	toward := func(lead float64) (meanC, share float64) {
		at := start.Add(time.Duration(24*lead) * time.Hour)
		e := (1 + 0.2*lead) * math.Sqrt(1-math.Exp(-2*24*lead/18))
		share = 2.8 * 2.8 / (2.8*2.8 + e*e)
		usual := UsualNormals(53).At(at, time.UTC).TempC
		return usual + share*(15-usual), share
	}
	mean, sigma, _ := spread(24 + 24)
	want, share := toward(1)
	assert.InDelta(t, want, mean, 0.1)
	assert.Less(t, want, 14.6, "the usual is cooler")
	assert.InEpsilon(t, 1.2*math.Sqrt(share), sigma, 0.06)
	mean, sigma, dry := spread(24 + 96)
	want, share = toward(4)
	assert.InDelta(t, want, mean, 0.2)
	assert.InEpsilon(t, 1.8*math.Sqrt(share), sigma, 0.06)
	assert.Less(t, dry, 0.1)
	mean, _, wet := spread(24 + 200)
	usual := UsualNormals(53).On(start.Add(200 * time.Hour))
	off := 15 - mean24(f.Frame()[24+119-23:24+120], UsualNormals(53))
	assert.InDelta(t, 0, off, 3)
	assert.InDelta(t, UsualNormals(53).At(start.Add(200*time.Hour), time.UTC).TempC+off*math.Exp(-81.0/36), mean, 0.35,
		"beyond the forecast the usual weather, and a little of what the forecast was off it")
	assert.InDelta(t, usual.wetShare(), wet, 0.03)
	for i := range 24 {
		assert.Equal(t, 15.0, f.Make(7, 3, nil)[i].TempC, "what was measured is not in doubt")
	}
}

// mean24 is what the usual temperature of hours is on the mean.
func mean24(s Series, n Normals) (mean float64) {
	for _, h := range s {
		mean += n.At(h.At, time.UTC).TempC / float64(len(s))
	}
	return mean
}

func TestSameSeedSameFuture(t *testing.T) {
	f := NewFutures(forecast(48), start, 5*24*time.Hour, Habits{Normals: UsualNormals(53), Loc: time.UTC})
	a, b := f.Make(1, 2, nil), f.Make(1, 2, make(Series, 500))
	assert.Equal(t, a, b)
	assert.NotEqual(t, a, f.Make(1, 3, nil))
	require.NoError(t, a.Validate())
	empty := NewFutures(nil, start, 24*time.Hour, Habits{Normals: UsualNormals(-40), Loc: time.UTC})
	require.NoError(t, empty.Make(1, 1, nil).Validate(), "without any weather the climate alone")
	assert.Equal(t, start, empty.Known())
}

func TestUsualNormals(t *testing.T) {
	require.NoError(t, UsualNormals(53).Validate())
	assert.Greater(t, UsualNormals(53)[6].MeanC, UsualNormals(53)[0].MeanC+8, "summer in July in the north")
	assert.Less(t, UsualNormals(-40)[6].MeanC, UsualNormals(-40)[0].MeanC-6, "and in January in the south")
	bad := UsualNormals(53)
	bad[3].RHPct = 130
	assert.ErrorContains(t, bad.Validate(), "[3].rhPct")
}

func TestSimpleDay(t *testing.T) {
	london, err := time.LoadLocation("Europe/London")
	require.NoError(t, err)
	d := SimpleDay{Date: "2026-05-10", MinC: 8, MaxC: 16, Sky: "cloudy", Rain: "afternoon", Wind: "light", Air: "usual"}
	s, err := d.Hours(london)
	require.NoError(t, err)
	require.Len(t, s, 24)
	require.NoError(t, s.Validate())
	assert.Equal(t, time.Date(2026, 5, 9, 23, 0, 0, 0, time.UTC), s[0].At)
	assert.InDelta(t, 8, s[5].TempC, 1e-9)
	assert.InDelta(t, 16, s[15].TempC, 1e-9)
	// From three in the afternoon to five in the morning is half a wave of 14 hours.
	assert.InDelta(t, 12, s[22].TempC, 1e-9, "half way down")
	assert.InDelta(t, 8+4*(1+math.Cos(9*math.Pi/14)), s[0].TempC, 1e-9, "nine hours after the warmest")
	assert.InDelta(t, 6, s[15].DewPointC(), 0.01, "2 K below the coldest")
	assert.Equal(t, []float64{0, 1}, []float64{*s[9].RainMM, *s[14].RainMM})
	assert.Equal(t, 75.0, *s[0].CloudPct)
	spring := SimpleDay{Date: "2026-03-29", MinC: 2, MaxC: 9, Sky: "clear", Rain: "dry", Wind: "calm", Air: "dry"}
	s, err = spring.Hours(london)
	require.NoError(t, err)
	assert.Len(t, s, 23, "the clocks go forward")
	_, err = SimpleDay{Date: "tomorrow", MinC: 18, MaxC: 8, Sky: "blue"}.Hours(london)
	for _, path := range []string{"date", "maxC", "sky", "rain", "wind", "air"} {
		assert.ErrorContains(t, err, path)
	}
}

// What is drawn hangs on the day of the calendar: a course that is drawn tomorrow has the same
// rain and warmth beyond the forecast as that of today.
func TestFuturesHangOnTheCalendar(t *testing.T) {
	n := UsualNormals(53)
	today := NewFutures(forecast(48), start, 30*24*time.Hour, Habits{Normals: n, Loc: time.UTC})
	tomorrow := NewFutures(forecast(48), start.Add(24*time.Hour), 29*24*time.Hour, Habits{Normals: n, Loc: time.UTC})
	for k := range uint64(5) {
		a, b := today.Make(7, k, nil), tomorrow.Make(7, k, nil)
		rain, other := 0, 0
		for _, h := range b[24+12*24:] { // beyond the lead to which errors grow
			i := a.Find(h.At)
			require.GreaterOrEqual(t, i, 0)
			assert.InDelta(t, a[i].TempC, h.TempC, 0.05, "%v", h.At)
			if *h.RainMM > 0 {
				rain++
			}
			if *h.RainMM != *a[i].RainMM {
				other++
			}
		}
		assert.Positive(t, rain)
		assert.LessOrEqual(t, other, 2)
	}
}

// The usual days have the climate's share of wet ones, its mean and a spread, and are the same
// whenever they are asked for.
func TestUsualDays(t *testing.T) {
	n := UsualNormals(53)
	f := NewFutures(forecast(48), start, 300*24*time.Hour, Habits{Normals: n, Loc: time.UTC})
	later := NewFutures(forecast(48), start.Add(24*time.Hour), 299*24*time.Hour, Habits{Normals: n, Loc: time.UTC})
	days, wet, share, above := 0.0, 0.0, 0.0, 0.0
	usual, again := f.Usual(), later.Usual()
	for i := f.known; i+24 <= len(usual); i += 24 {
		rained := false
		for _, h := range usual[i : i+24] {
			rained = rained || *h.RainMM > 0
			assert.Equal(t, h.TempC, again[again.Find(h.At)].TempC)
		}
		days++
		share += n[usual[i].At.Month()-1].WetDayPct / 100
		above += usual[i].TempC - f.Frame()[i].TempC
		if rained {
			wet++
		}
	}
	assert.InDelta(t, share/days, wet/days, 0.12, "a stretch of rain may run into the next day")
	assert.InDelta(t, 0, above/days, 0.1)
	assert.Equal(t, 15.0, usual[f.first].TempC, "the forecast as it is")
}

// The forecast of a day later is the course until then and near it at once, and further off with its lead:
// as far as today's is at the same lead.
func TestTomorrowsForecast(t *testing.T) {
	f := NewFutures(forecast(120), start, 110*time.Hour, Habits{Normals: UsualNormals(53), Loc: time.UTC})
	off := map[int][]float64{}
	for k := range uint64(300) {
		course := f.Make(1, k, nil)
		later := f.Later(course, 24*time.Hour, 1, k)
		require.Len(t, later, len(course))
		for i, h := range course {
			lead := int(h.At.Sub(start).Hours())
			require.Equal(t, h.At, later[i].At)
			if lead <= 24 {
				require.Equal(t, h.TempC, later[i].TempC, "%d h after now", lead)
			}
			if lead == 30 || lead == 72 {
				off[lead] = append(off[lead], later[i].TempC-h.TempC)
			}
		}
	}
	soon, far := stat.StdDev(off[30], nil), stat.StdDev(off[72], nil)
	assert.Less(t, soon, 0.8*far)
	var today []float64
	for k := range uint64(300) {
		for i, h := range f.Make(1, k, nil) {
			if int(h.At.Sub(start).Hours()) == 48 {
				today = append(today, h.TempC-f.Frame()[i].TempC)
			}
		}
	}
	assert.InDelta(t, stat.StdDev(today, nil), far, 0.35*far, "two days ahead either way")
}

// A line through what was measured is held at what it comes to on the last day; one that would fall
// stays at the mean.
func TestGrowthOfALine(t *testing.T) {
	var rises, falls, days [leadDays]float64
	for d := range rises {
		rises[d], falls[d], days[d] = 1+0.5*(float64(d)+0.5), 9-float64(d), 10
	}
	g := line(rises, days)
	assert.InDelta(t, 1, g.AtOnce, 1e-9)
	assert.InDelta(t, 0.5, g.PerDay, 1e-9)
	assert.InDelta(t, 1+0.5*leadDays, g.Most, 1e-9)
	assert.InDelta(t, 1+0.5*leadDays, g.At(2*leadDays), 1e-9)
	flat := line(falls, days)
	assert.InDelta(t, 9-(leadDays-1)/2.0, flat.AtOnce, 1e-9)
	assert.Zero(t, flat.PerDay)
	assert.Equal(t, flat.AtOnce, flat.Most)
}
