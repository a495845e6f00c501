package mesh

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
)

// A roof over the plane of x and z: y = 1 − |z|, seen from port; from starboard its floor.
func TestHeightsOfARoof(t *testing.T) {
	m := Mesh{Vertices: []Vec{{0, 0, -1}, {4, 0, -1}, {0, 1, 0}, {4, 1, 0}, {0, 0, 1}, {4, 0, 1}},
		Triangles: [][3]int32{{0, 1, 2}, {1, 3, 2}, {2, 3, 4}, {3, 5, 4}, {0, 4, 1}, {1, 4, 5}}}
	l := Lattice{U: 0, V: 2, Lo: [2]float64{1, 0.5}, DU: 1, DV: -0.25, NX: 5, NY: 5}
	got := m.Heights(l, 1)
	for y := range 5 {
		z := 0.5 - 0.25*float64(y)
		assert.InDelta(t, 1-math.Abs(z), got[y*5+2], 1e-12)
		assert.True(t, math.IsNaN(got[y*5+4]), "past its end")
	}
	assert.InDelta(t, 0, m.Heights(l, -1)[0], 1e-12)
}
