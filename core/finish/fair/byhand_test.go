package fair

import (
	"math"
	"testing"

	"allcoats/core/boat/outline"

	"github.com/stretchr/testify/assert"
)

// Between 3 and 9 mm two places that were not read are at 5 and 7; what was read stays.
func TestBridge(t *testing.T) {
	nan := math.NaN()
	h := []float64{3, nan, nan, 9, 1, nan, 2}
	bridge(h)
	assert.InDeltaSlice(t, []float64{3, 5, 7, 9, 1, 1.5, 2}, h, 1e-12)
}

// A square of two metres, 8 mm in its middle: three quarters of it half of the way to an edge, to a corner too; nothing on the rim or beyond.
func TestABowlByHand(t *testing.T) {
	l := Low{DepthMM: 8, By: "hand", Points: []outline.Point{{X: 1, Y: 1}, {X: 3, Y: 1}, {X: 3, Y: 3}, {X: 1, Y: 3}}}
	for _, c := range []struct{ x, y, mm float64 }{
		{2, 2, 8}, {2.5, 2, 6}, {1.5, 2, 6}, {2, 2.5, 6}, {2.5, 2.5, 6}, {1.5, 2.5, 6}, {2.9, 2, 8 * (1 - 0.81)},
		{3, 2, 0}, {3.5, 2, 0}, {0, 0, 0},
		{2.25, 2.75, 8 * (1 - 0.75*0.75)},
	} {
		assert.InDelta(t, c.mm, l.depthAt(outline.Point{X: c.x, Y: c.y}), 1e-9, "%v", c)
	}
	p := l.patch(0)
	assert.InDelta(t, 4, p.AreaM2, 1e-12)
	assert.InDelta(t, 0.5*4*8, p.Litres, 1e-12)
	assert.InDelta(t, 0.4*p.Litres, p.SpreadL, 1e-12, "by hand it is good to 40 %")
	assert.Equal(t, "low 1, by hand", p.Name)
}
