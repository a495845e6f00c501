package plan

import (
	"math"
	"math/rand/v2"
	"testing"

	"allcoats/core/planning/schedule"

	"github.com/stretchr/testify/require"
)

// A curve summed by parts against one summed whole: the first slot at which it has risen by so much.
func TestCurveAgainstTheWholeSum(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 3))
	for range 200 {
		hours := 1 + r.IntN(200)
		rates := make([]float64, hours+1)
		for h := range rates {
			rates[h] = max(0, r.Float64()-0.4) // a third of the hours stand still
		}
		c := newCurve(hours, func(h int) float64 { return rates[h] })
		risen := func(slot int) (sum float64) { // by the trapezoids up to a slot, the last one in part
			for h := range slot / perHour {
				sum += (rates[h] + rates[h+1]) / 2
			}
			if h := slot / perHour; h < hours {
				sum += (rates[h] + rates[h+1]) / 2 * float64(slot%perHour) / perHour
			}
			return sum
		}
		for range 20 {
			since, more := r.IntN(hours*perHour), 0.01+10*r.Float64()
			want := schedule.Never
			for s := since; s <= hours*perHour; s++ {
				if risen(s)-risen(since) >= more-1e-6 {
					want = s
					break
				}
			}
			slot, short := c.after(since, more)
			require.Equal(t, want, slot, "%d hours, %.3f from slot %d", hours, more, since)
			if slot < schedule.Never {
				require.Equal(t, slot-1, short)
			}
		}
	}
	never, _ := newCurve(0, nil).after(3, 1)
	require.Equal(t, schedule.Never, never)
	day := newCurve(24, func(int) float64 { return 0.25 })
	slot, _ := day.after(-5, 1)
	require.Equal(t, 16, slot, "what began before is taken from the start")
	require.InDelta(t, 6, math.Round(float64(day.parts[0].sum[24])), 1e-9)
}
