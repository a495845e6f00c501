package instruments

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

func TestForecastIsPossibleAndRepeatable(t *testing.T) {
	from := time.Date(2026, 1, 1, 0, 0, 0, 0, time.UTC)
	to := from.AddDate(1, 0, 0)
	f := Forecast{Seed: 9}
	year := f.Hours(52, 1, from, to, to)
	assert.NoError(t, year.Validate())
	assert.Equal(t, year[100:124], f.Hours(52, 1, year[100].At, year[123].At, to), "asked again in part")
	assert.NotEqual(t, year[0].TempC, f.Hours(40, 1, from, from, to)[0].TempC, "another place")
	wet, january, july := 0, 0.0, 0.0
	for _, h := range year {
		if *h.RainMM > 0 {
			wet++
		}
		switch h.At.Month() {
		case time.January:
			january += h.TempC / (31 * 24)
		case time.July:
			july += h.TempC / (31 * 24)
		}
	}
	share := float64(wet) / float64(len(year))
	assert.Greater(t, share, 0.02, "it rains")
	assert.Less(t, share, 0.3, "but not always")
	assert.Greater(t, july-january, 6.0, "there are seasons")
}

func TestForecastErrorGrowsWithLead(t *testing.T) {
	miss := func(lead time.Duration) float64 {
		sum, n := 0.0, 0
		for d := range 300 {
			issued := time.Date(2026, 1, 1, 6, 0, 0, 0, time.UTC).AddDate(0, 0, d)
			at := issued.Add(lead)
			truth := Forecast{}.Hours(52, 1, at, at, at)[0]
			said := Forecast{}.Hours(52, 1, at, at, issued)[0]
			assert.False(t, said.Measured)
			assert.True(t, truth.Measured)
			sum += math.Abs(said.TempC - truth.TempC)
			n++
		}
		return sum / float64(n)
	}
	near, far := miss(6*time.Hour), miss(6*24*time.Hour)
	assert.Greater(t, near, 0.1)
	assert.Greater(t, far, 2*near)
	assert.Less(t, far, 4.0)
}
