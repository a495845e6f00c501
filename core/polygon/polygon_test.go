package polygon

import (
	"math"
	"testing"

	"allcoats/core/fault"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func box(x, y, w, h float64) Ring { return Ring{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}} }

func TestAreaOfAFrame(t *testing.T) {
	p := Polygon{box(0, 0, 4, 3), []Ring{box(1, 1, 1, 1).reversed()}}
	require.NoError(t, p.Validate())
	assert.InDelta(t, 11, p.Area(), 1e-12)
	assert.InDelta(t, 18, p.EdgeLength(), 1e-12)
	c := p.Centroid()
	assert.InDelta(t, (12*2-1*1.5)/11, c.X, 1e-12)
	assert.InDelta(t, (12*1.5-1*1.5)/11, c.Y, 1e-12)
}

func TestValidate(t *testing.T) {
	for name, c := range map[string]struct {
		p    Polygon
		path string
	}{
		"two corners":         {Polygon{Outer: Ring{{0, 0}, {1, 1}}}, "outer"},
		"bow tie":             {Polygon{Outer: Ring{{0, 0}, {2, 2}, {2, 0}, {0, 2}}}, "outer"},
		"touches itself":      {Polygon{Outer: Ring{{0, 0}, {4, 0}, {4, 2}, {2, 0}, {0, 2}}}, "outer"},
		"a line":              {Polygon{Outer: Ring{{0, 0}, {1, 0}, {3, 0}}}, "outer"},
		"not a number":        {Polygon{Outer: Ring{{0, 0}, {1, math.NaN()}, {1, 1}}}, "outer[1].y"},
		"too far":             {Polygon{Outer: box(0, 0, 2000, 1)}, "outer[1].x"},
		"hole outside":        {Polygon{box(0, 0, 2, 2), []Ring{box(3, 0, 1, 1)}}, "holes"},
		"holes overlap":       {Polygon{box(0, 0, 5, 5), []Ring{box(1, 1, 2, 2), box(2, 2, 2, 2)}}, "holes"},
		"hole has no area":    {Polygon{box(0, 0, 5, 5), []Ring{{{1, 1}, {2, 2}}}}, "holes[0]"},
		"too many corners":    {Polygon{Outer: make(Ring, MaxCorners+1)}, "outer"},
		"hole across an edge": {Polygon{box(0, 0, 5, 5), []Ring{box(4, 1, 2, 2)}}, "holes"},
	} {
		var bad fault.Errors
		require.ErrorAs(t, c.p.Validate(), &bad, name)
		assert.Equal(t, c.path, bad[0].Path, name)
	}
}

// A margin that grows never leaves more, and never more than the strip along
// the edges takes.
func TestInsetShrinks(t *testing.T) {
	deck := Polygon{Ring{{0, -1.1}, {3, -1.5}, {7, -1.3}, {10, 0}, {7, 1.3}, {3, 1.5}, {0, 1.1}}, []Ring{box(0.5, -0.5, 2, 1)}}
	last := deck.Area()
	for m := 0.05; m < 1.6; m += 0.05 {
		parts, err := deck.Inset(m, Round)
		require.NoError(t, err)
		sum := 0.0
		for _, p := range parts {
			require.NoError(t, p.Validate())
			sum += p.Area()
		}
		assert.LessOrEqual(t, sum, last)
		assert.GreaterOrEqual(t, sum, deck.Area()-m*deck.EdgeLength()-math.Pi*m*m)
		last = sum
	}
	assert.Zero(t, last, "the margin eats it all")
}

func TestInsetFallsApart(t *testing.T) {
	dumbbell := Polygon{Outer: Ring{{0, 0}, {2, 0}, {2, 0.8}, {3, 0.8}, {3, 0}, {5, 0}, {5, 2}, {3, 2}, {3, 1.2}, {2, 1.2}, {2, 2}, {0, 2}}}
	parts, err := dumbbell.Inset(0.25, Mitre)
	require.NoError(t, err)
	require.Len(t, parts, 2)
	assert.InDelta(t, 1.5*1.5, parts[0].Area(), 1e-9)
}

// Each of the four corners of a square gives (1 − π/4) r².
func TestRounded(t *testing.T) {
	parts, err := Polygon{Outer: box(0, 0, 2, 2)}.Rounded(0.3)
	require.NoError(t, err)
	require.Len(t, parts, 1)
	assert.InDelta(t, 4-(4-math.Pi)*0.09, parts[0].Area(), 1e-4)
	assert.InDelta(t, 8-8*0.3+2*math.Pi*0.3, parts[0].EdgeLength(), 1e-3)
	parts, err = Polygon{Outer: box(0, 0, 2, 0.5)}.Rounded(0.3)
	require.NoError(t, err)
	assert.Empty(t, parts, "narrower than twice the radius")
}

// BenchmarkInset moves in a deck of 40 corners with 5 hatches.
func BenchmarkInset(b *testing.B) {
	var p Polygon
	for i := range 40 {
		s, c := math.Sincos(2 * math.Pi * float64(i) / 40)
		p.Outer = append(p.Outer, Point{6 * c, 1.8 * s})
	}
	for i := range 5 {
		p.Holes = append(p.Holes, box(-4+1.6*float64(i), -0.3, 0.6, 0.6))
	}
	for b.Loop() {
		_, err := p.Inset(0.06, Round)
		require.NoError(b, err)
	}
}
