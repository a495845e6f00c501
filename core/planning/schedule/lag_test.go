package schedule

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"
)

// The last end under a limit and the first that reaches one, against trying every end: of lags that
// stand still, jump, and end in Never.
func TestEndsOfALagAgainstTryingAll(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 7))
	for range 3000 {
		n := 1 + r.IntN(40)
		gives := make([]int, n)
		for i := range gives {
			if i > 0 {
				gives[i] = gives[i-1]
			}
			gives[i] += []int{0, 0, 1, 1, 2, 9}[r.IntN(6)]
			if r.IntN(60) == 0 || i > 0 && gives[i-1] == Never {
				gives[i] = Never
			}
		}
		lag := func(end int) int { return gives[min(n-1, max(0, end))] }
		from := r.IntN(n)
		to, limit := from+r.IntN(n-from), r.IntN(60)
		last := -Never
		for end := range to + 1 {
			if lag(end) <= limit {
				last = end
			}
		}
		first := to + 1
		for end := to; end >= from && lag(end) >= limit; end-- {
			first = end
		}
		require.Equal(t, last, latest(lag, limit, to), "%v up to %d, no more than %d", gives, to, limit)
		require.Equal(t, first, earliest(lag, limit, from, to), "%v in %d to %d, at least %d", gives, from, to, limit)
	}
	require.Equal(t, -2, latest(After(5), 3, 10))
	require.Equal(t, -Never, latest(After(-1), 3, 10))
}
