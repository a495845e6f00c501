package climate

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
)

// Two hours of which just one holds, either as often: a forecast that tells which is worth all, one that
// tells nothing half; one that is right four times in five, four fifths.
func TestTheWorthOfAForecast(t *testing.T) {
	const n = 4000
	r := rand.New(rand.NewPCG(1, 2))
	held := make([][]bool, n)
	for i := range held {
		first := r.IntN(2) == 0
		held[i] = []bool{first, !first}
	}
	for right, want := range map[float64]float64{1: 1, 0.5: 0.5, 0.8: 0.8} {
		told := make([][]bool, n)
		for i := range told {
			ok := r.Float64() < right
			told[i] = []bool{held[i][0] == ok, held[i][1] == ok}
		}
		assert.InDelta(t, want*n, chosen(held, told, []int{0, 1}), 0.03*n, "right %g of the time", right)
	}
	first := 0
	for _, h := range held {
		if h[0] {
			first++
		}
	}
	assert.Zero(t, chosen(held, held, nil))
	// A second hour that never holds adds nothing; one that always does is taken.
	for i := range held {
		held[i][1] = false
	}
	assert.Equal(t, first, chosen(held, held, []int{0, 1}))
	for i := range held {
		held[i][1] = true
	}
	assert.Equal(t, n, chosen(held, held, []int{0, 1}))
}
