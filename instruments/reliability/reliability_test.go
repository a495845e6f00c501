package reliability

import (
	"os"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestSum(t *testing.T) {
	var bets []Bet
	for i := range 200 { // of those given 72 % one in two comes; the forecast says always
		bets = append(bets, Bet{0.72, true, i%2 == 0})
	}
	got := Sum("a", append(bets, Bet{1, true, true}))
	assert.Equal(t, 201, got.N)
	assert.Equal(t, 200, got.Deciles[7].N)
	assert.InDelta(t, 0.5, got.Deciles[7].Came, 1e-9)
	assert.Equal(t, 1, got.Deciles[9].N, "sure is of the last tenth")
	assert.InDelta(t, 22, got.WorstPoints, 1e-9)
	assert.InDelta(t, 22*200.0/201, got.MeanGapInPoints, 1e-9)
	assert.InDelta(t, (100*0.28*0.28+100*0.72*0.72)/201, got.Brier, 1e-9)
	assert.InDelta(t, 100/201.0, got.BrierForecast, 1e-9)
	assert.InDelta(t, 101/201.0*100/201, got.BrierClimate, 1e-9)
}

func TestWithin(t *testing.T) {
	one := Table{}
	one.Deciles[5] = Decile{N: 200, Odds: 0.5, Came: 0.54}
	one.Deciles[2] = Decile{N: 10_000, Odds: 0.2, Came: 0.26} // 0.4 points of luck
	one.Deciles[1] = Decile{N: fewest - 1, Odds: 0.1, Came: 0.9}
	within, of, faultless := Within([]Table{one}, 5)
	assert.Equal(t, [2]int{1, 2}, [2]int{within, of})
	assert.InDelta(t, 0.8427+1, faultless, 1e-3, "√(0.25/200) is 3.54 points: five are erf(1)")
}

// A part of the two years: odds are near what comes, and better than the usual share and than the
// forecast at its word. The whole is a benchmark.
func TestOddsAreReliable(t *testing.T) {
	s := TwoYears
	s.Issues, s.Apart, s.Futures = 40, 431*time.Hour, 50
	tables, err := Of(t.Context(), s)
	require.NoError(t, err)
	seen := map[string]Table{}
	for _, one := range tables {
		seen[one.Name] = one
	}
	for name, most := range map[string]float64{Starts: 4, DryBy: 4, LaunchBy: 4, RainWithin: 4} {
		one := seen[name]
		require.Greater(t, one.N, 300, name)
		assert.Less(t, one.MeanGapInPoints, most, name)
		assert.Less(t, one.WorstPoints, 20.0, "%s: forty forecasts are few", name)
		assert.Less(t, one.Brier, one.BrierClimate, name)
		assert.Less(t, one.Brier, one.BrierForecast, name)
	}
	early := seen[RainEarly]
	odds := 0.0
	for _, d := range early.Deciles {
		odds += d.Odds * float64(d.N) / float64(early.N)
	}
	assert.Greater(t, odds, 0.15, "rain comes before its hour, too")
	assert.Greater(t, len(seen), 25, "every kind of product")
}

// What a place learns in 60 days is nearer to its service than the usual errors are.
func TestWhatAPlaceLearns(t *testing.T) {
	s := TwoYears
	s.LearnDays = 60
	n := s.normals()
	got := s.learned(n)
	assert.Equal(t, 60, got.Forecasts)
	assert.Greater(t, got.Hours, 8000)
	assert.True(t, got.Rain)
	// The service is off by 0.7 K and 0.22 K a day, of noise of unit variance.
	assert.InDelta(t, 0.7+0.22*3, got.Errors.TempK.At(3), 0.25)
	assert.Less(t, got.Errors.DewPointK.At(5), 2.05, "the usual are 2.05")
	assert.Positive(t, got.Errors.ShiftH.PerDay)
	few := s
	few.LearnDays = 2
	assert.InDelta(t, 1.6, few.learned(n).Errors.TempK.At(3), 0.25, "two days say little against the usual")
}

// BenchmarkTwoYears prints the table.
func BenchmarkTwoYears(b *testing.B) {
	for b.Loop() {
		tables, err := Of(b.Context(), TwoYears)
		require.NoError(b, err)
		_, _ = os.Stdout.WriteString("\n" + Text(tables))
	}
}
