package weather

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// Ten forecasts of a week that were each 2 K too warm in every hour that counts, from six hours ahead on: beside as many days of the usual the
// spread of a day is √((usual² + 4)/2), and the growth the line through the seven.
func TestErrorsLearnedByHand(t *testing.T) {
	start := time.Date(2026, 4, 1, 0, 0, 0, 0, time.UTC)
	air := func(tempC float64) (s Series) {
		for h := range 24 * 20 {
			s = append(s, Hour{At: start.Add(time.Duration(h) * time.Hour), TempC: tempC, RHPct: 70, Measured: true})
		}
		return s
	}
	var issued []Issued
	for d := range 10 {
		f := Issued{At: start.AddDate(0, 0, d)}
		for h := range 24 * 8 {
			said := Hour{At: f.At.Add(time.Duration(h) * time.Hour), TempC: 14, RHPct: 70}
			if h < 6 {
				said.TempC = 60 // nearer than six hours nothing is learned
			}
			f.Hours = append(f.Hours, said)
		}
		issued = append(issued, f)
	}
	got := LearnErrors(issued, air(12), Habits{Normals: UsualNormals(53), Loc: time.UTC})
	assert.Equal(t, 10, got.Forecasts)
	assert.Equal(t, 10*(7*24-6), got.Hours)
	assert.False(t, got.Rain || got.Cloud)
	var n, x, y, xx, xy float64
	for d := range 7 {
		at := float64(d) + 0.5
		usual := min(1+0.2*at, 2.8)
		v := math.Sqrt((usual*usual + 4) / 2)
		n, x, y, xx, xy = n+1, x+at, y+v, xx+at*at, xy+at*v
	}
	slope := (n*xy - x*y) / (n*xx - x*x)
	assert.InDelta(t, slope, got.Errors.TempK.PerDay, 1e-9)
	assert.InDelta(t, (y-slope*x)/n, got.Errors.TempK.AtOnce, 1e-9)
	assert.InDelta(t, (y-slope*x)/n+7*slope, got.Errors.TempK.Most, 1e-9)
	assert.Equal(t, UsualErrors.WindLog, got.Errors.WindLog, "nobody recorded it")
	assert.Equal(t, UsualErrors.FailPct, got.Errors.FailPct)
	assert.Equal(t, UsualErrors, LearnErrors(nil, air(12), Habits{Normals: UsualNormals(53), Loc: time.UTC}).Errors)
}

// A drift is standard normal, keeps e^(−1/24) of itself for an hour, and has nothing to do with one of another name, future or seed.
func TestDrift(t *testing.T) {
	at := make([]time.Time, 60_000)
	for i := range at {
		at[i] = time.Date(2000, 1, 1, i, 0, 0, 0, time.UTC)
	}
	with := func(a, b []float64) float64 {
		sum := 0.0
		for i := range a {
			sum += a[i] * b[i]
		}
		return sum / float64(len(a))
	}
	z := Drift(1, 2, "deck", at, 24)
	assert.InDelta(t, 1, with(z, z), 0.1)
	assert.InDelta(t, math.Exp(-1.0/24), with(z[1:], z[:len(z)-1])/with(z, z), 0.003)
	for _, other := range [][]float64{Drift(1, 2, "bottom", at, 24), Drift(1, 3, "deck", at, 24), Drift(2, 2, "deck", at, 24)} {
		assert.InDelta(t, 0, with(z, other), 0.1)
	}
	assert.Equal(t, z, Drift(1, 2, "deck", at, 24))
	late := Drift(1, 2, "deck", at[24*10:], 24)
	assert.InDelta(t, z[24*30], late[24*20], 1e-3, "it hangs on the day, not on where it begins")
	assert.Empty(t, Drift(1, 2, "deck", nil, 24))
}

func TestOdds(t *testing.T) {
	for _, c := range []struct {
		come, of int
		want     float64
	}{{0, 100, 0}, {1, 4, 0.25}, {98, 100, 0.98}, {99, 100, 0.99}, {100, 100, 0.99}, {0, 0, 0}} {
		assert.InDelta(t, c.want, Odds(c.come, c.of), 1e-12)
	}
}
