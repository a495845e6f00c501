package polygon

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"allcoats/core/base/fielderr"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/tdewolff/canvas"
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
		var bad fielderr.Errors
		require.ErrorAs(t, c.p.Validate(), &bad, name)
		assert.Equal(t, c.path, bad[0].Path, name)
	}
}

// A margin that grows never leaves more, and never more than the strip along
// the edges takes.
func TestInsetShrinks(t *testing.T) {
	deck := Polygon{Ring{{0, -1.1}, {3, -1.5}, {7, -1.3}, {10, 0}, {7, 1.3}, {3, 1.5}, {0, 1.1}},
		[]Ring{box(0.5, -0.5, 2, 1)}}
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
	dumbbell := Polygon{Outer: Ring{{0, 0}, {2, 0}, {2, 0.8}, {3, 0.8}, {3, 0}, {5, 0}, {5, 2}, {3, 2}, {3, 1.2},
		{2, 1.2}, {2, 2}, {0, 2}}}
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

// star draws a random outline round a random place; snapped, many corners and edges of
// two of them fall on each other.
func star(r *rand.Rand, snap bool) Polygon {
	n := 4 + r.IntN(20)
	at := Point{r.Float64(), r.Float64()}
	var p Polygon
	for i := range n {
		s, c := math.Sincos(2 * math.Pi * (float64(i) + 0.6*r.Float64()) / float64(n))
		reach := 0.4 + r.Float64()
		q := Point{at.X + 2*c*reach, at.Y + s*reach}
		if snap {
			q = Point{math.Round(q.X*20) / 20, math.Round(q.Y*20) / 20}
		}
		p.Outer = append(p.Outer, q)
	}
	return p
}

// drawn is a shape as a path of the drawing library, in mm, outer rings anticlockwise.
func drawn(s Shape) *canvas.Path {
	out := &canvas.Path{}
	for _, p := range s {
		for k, r := range p.rings() {
			if r = r.anticlockwise(); k > 0 {
				r = r.reversed()
			}
			for i, c := range r {
				if i == 0 {
					out.MoveTo(1000*c.X, 1000*c.Y)
				} else {
					out.LineTo(1000*c.X, 1000*c.Y)
				}
			}
			out.Close()
		}
	}
	return out
}

// drawnArea is the area of a path, m²; the library does not tell holes by their sense.
func drawnArea(p *canvas.Path) float64 {
	var rings []Ring
	for _, sub := range p.Split() {
		var r Ring
		for _, c := range sub.Coords() {
			r = append(r, Point{c.X / 1000, c.Y / 1000})
		}
		rings = append(rings, r)
	}
	return FromRings(rings).Area()
}

// Union, difference and intersection against another library.
func TestOverlaysAgainstAnotherLibrary(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 2))
	for k := range 300 {
		a, b := star(r, k%2 == 0), star(r, k%2 == 0)
		if k%3 == 0 {
			b = Polygon{Outer: box(math.Round(20*r.Float64())/20-1, math.Round(20*r.Float64())/20-0.5, 1, 0.05)}
		}
		if a.Validate() != nil || b.Validate() != nil {
			continue
		}
		one, err := Shape{a}.Less(Shape{{Outer: box(0.3, 0.2, 0.3, 0.3)}})
		require.NoError(t, err)
		for name, c := range map[string]struct {
			do   func(Shape) (Shape, error)
			want *canvas.Path
		}{
			"union":        {func(s Shape) (Shape, error) { return one.With(s) }, drawn(one).Or(drawn(Shape{b}))},
			"difference":   {func(s Shape) (Shape, error) { return one.Less(s) }, drawn(one).Not(drawn(Shape{b}))},
			"intersection": {one.Within, drawn(one).And(drawn(Shape{b}))},
		} {
			got, err := c.do(Shape{b})
			require.NoError(t, err, "%s %d", name, k)
			require.InDelta(t, drawnArea(c.want), got.Area(), 1e-6, "%s %d", name, k)
			for _, p := range got {
				require.True(t, p.Contains(p.Inner()))
			}
		}
	}
}

// What an inset leaves, and an outset covers, is a matter of the distance from the edge:
// point by point, for outlines of any shape, with and without a hole.
func TestOffsetsByDistance(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 5))
	inside := func(s Shape, at Point) bool {
		return slices.ContainsFunc(s, func(p Polygon) bool { return p.Contains(at) })
	}
	const slack = 2e-5
	seen := 0
	for k := range 120 {
		p := star(r, k%2 == 0)
		if k%3 == 0 {
			p.Holes = []Ring{box(0.4, 0.3, 0.3, 0.2)}
		}
		if p.Validate() != nil {
			continue
		}
		m := 0.02 + 0.2*r.Float64()
		in, err := Shape{p}.Inset(m, Round)
		require.NoError(t, err)
		out, err := Shape{p}.Outset(m, Round)
		require.NoError(t, err)
		sharp, err := Shape{p}.Inset(m, Mitre)
		require.NoError(t, err)
		lo, hi := Shape{p}.Bounds()
		for range 300 {
			at := Point{lo.X - 0.3 + (hi.X-lo.X+0.6)*r.Float64(), lo.Y - 0.3 + (hi.Y-lo.Y+0.6)*r.Float64()}
			d, on := p.ToEdge(at), p.Contains(at)
			if math.Abs(d-m) < slack {
				continue
			}
			seen++
			require.Equal(t, on && d > m, inside(in, at), "%d: %v, %g from the edge, inset by %g", k, at, d, m)
			require.Equal(t, on || d < m, inside(out, at), "%d: %v, %g from the edge, outset by %g", k, at, d, m)
			if inside(sharp, at) {
				require.True(t, on && d > m, "%d: a mitre never leaves less than the margin", k)
			}
		}
	}
	assert.Greater(t, seen, 10000)
}

// Out and in again gives a convex shape back; a hole narrower than twice the way closes.
func TestOutset(t *testing.T) {
	frame := Shape{{box(0, 0, 2, 2), []Ring{box(0.9, 0.9, 0.1, 0.1).reversed()}}}
	out, err := frame.Outset(0.1, Round)
	require.NoError(t, err)
	require.Len(t, out, 1)
	assert.Empty(t, out[0].Holes)
	assert.InDelta(t, 4+8*0.1+math.Pi*0.01, out.Area(), 1e-4)
	back, err := out.Inset(0.1, Round)
	require.NoError(t, err)
	assert.InDelta(t, 4, back.Area(), 1e-4)
	two := Shape{{Outer: box(0, 0, 1, 1)}, {Outer: box(1.1, 0, 1, 1)}}
	out, err = two.Outset(0.1, Round)
	require.NoError(t, err)
	assert.Len(t, out, 1, "what meets is joined")
	assert.InDelta(t, two.Area(), two.Mirrored().Area(), 1e-12)
}

// Fillets by hand: a square corner loses (1 − π/4) r², an inward one gains it, and an
// edge too short for two gets smaller ones.
func TestFilleted(t *testing.T) {
	ell := Polygon{Outer: Ring{{0, 0}, {4, 0}, {4, 2}, {2, 2}, {2, 4}, {0, 4}}}
	for name, c := range map[string]struct {
		p       Polygon
		out, in float64
		want    float64
	}{
		"outward": {ell, 0.3, 0, 12 - 5*(1-math.Pi/4)*0.09},
		"inward":  {ell, 0, 0.3, 12 + (1-math.Pi/4)*0.09},
		"both":    {ell, 0.2, 0.3, 12 - 5*(1-math.Pi/4)*0.04 + (1-math.Pi/4)*0.09},
		"clockwise": {Polygon{Outer: ell.Outer.reversed()}, 0.2, 0.3, 12 - 5*(1-math.Pi/4)*0.04 +
			(1-math.Pi/4)*0.09},
		"hole":      {Polygon{box(0, 0, 4, 4), []Ring{box(1, 1, 1, 1)}}, 0, 0.2, 15 + 4*(1-math.Pi/4)*0.04},
		"too short": {Polygon{Outer: box(0, 0, 4, 0.4)}, 1, 0, 1.6 - 4*(1-math.Pi/4)*0.04},
		"hole, square": {Polygon{box(0, 0, 4, 4), []Ring{box(1, 1, 1, 1).reversed()}}, 0.1, 0,
			15 - 4*(1-math.Pi/4)*0.01},
	} {
		got := c.p.Filleted(c.out, c.in)
		require.NoError(t, got.Validate(), name)
		assert.InDelta(t, c.want, got.Area(), 1e-3*c.want, name)
	}
	curve := Polygon{}
	for i := range 60 {
		s, c := math.Sincos(2 * math.Pi * float64(i) / 60)
		curve.Outer = append(curve.Outer, Point{c, s})
	}
	assert.Equal(t, curve.Outer, curve.Filleted(0.1, 0.1).Outer, "a drawn curve has no corners")
}

// Fillets of any radius leave a valid outline within the corners' own, with every new
// corner on a side of it or inside; a smaller radius never takes more.
func TestFilletsStayInside(t *testing.T) {
	r := rand.New(rand.NewPCG(6, 1))
	for k := range 200 {
		p := star(r, false)
		if p.Validate() != nil {
			continue
		}
		last := p.Area()
		for _, radius := range []float64{0, 0.05, 0.2, 0.8} {
			f := p.Filleted(radius, 0)
			require.NoError(t, f.Validate(), "%d at %g", k, radius)
			assert.LessOrEqual(t, f.Area(), last+1e-9, "%d at %g", k, radius)
			last = f.Area()
			for _, c := range f.Outer {
				if !p.Contains(c) {
					assert.Less(t, p.ToEdge(c), 1e-9, "%d at %g: %v is outside", k, radius, c)
				}
			}
			wider := p.Filleted(0, radius)
			require.NoError(t, wider.Validate(), "%d at %g", k, radius)
			assert.GreaterOrEqual(t, wider.Area(), p.Area()-1e-9, "inward corners are filled up")
		}
	}
}

func TestInnerAndEdges(t *testing.T) {
	frame := Polygon{box(0, 0, 4, 4), []Ring{box(1, 1, 2, 2).reversed()}}
	assert.True(t, frame.Contains(frame.Inner()))
	assert.False(t, frame.Contains(Point{2, 2}), "in the hole")
	assert.InDelta(t, 0.5, frame.ToEdge(Point{0.5, 2}), 1e-12)
	assert.InDelta(t, 0.25, frame.ToEdge(Point{0.75, 2}), 1e-12, "of the hole")
	assert.InDelta(t, math.Sqrt2, frame.ToEdge(Point{-1, -1}), 1e-12, "from a corner")
	lo, hi := Shape{frame, {Outer: box(6, -1, 1, 1)}}.Bounds()
	assert.Equal(t, [2]Point{{0, -1}, {7, 4}}, [2]Point{lo, hi})
	moved := Shape{frame}.Placed(func(p Point) Point { return Point{2 * p.X, 2 * p.Y} })
	assert.InDelta(t, 4*frame.Area(), moved.Area(), 1e-12)
	assert.InDelta(t, 2*frame.EdgeLength(), moved.EdgeLength(), 1e-12)
	none, err := Shape{}.With(Shape{})
	require.NoError(t, err)
	assert.Empty(t, none)
}

// A slit cut in, blunt or running out to a point, keeps its margin at the tip whatever the join.
func TestTheTipOfASlitKeepsItsMargin(t *testing.T) {
	for _, half := range []float64{0.2, 0.02, 1e-3, 1e-5} {
		for name, slit := range map[string]Ring{
			"pointed": {{0, 0}, {2, 0}, {2, 2}, {1 + half, 2}, {1, 1}, {1 - half, 2}, {0, 2}},
			"blunt":   {{0, 0}, {2, 0}, {2, 2}, {1 + half, 2}, {1 + half, 1}, {1 - half, 1}, {1 - half, 2}, {0, 2}},
		} {
			p := Polygon{Outer: slit}
			require.NoError(t, p.Validate(), name)
			for _, join := range Joins {
				left, err := p.Inset(0.1, join)
				require.NoError(t, err)
				require.NotEmpty(t, left, name)
				for _, part := range left {
					for i, a := range part.Outer {
						b := part.Outer[(i+1)%len(part.Outer)]
						for _, u := range []float64{0, 0.25, 0.5, 0.75} {
							at := Point{a.X + u*(b.X-a.X), a.Y + u*(b.Y-a.Y)}
							assert.GreaterOrEqual(t, p.ToEdge(at), 0.1-1e-9, "%s, half width %g, %s", name, half, join)
						}
					}
				}
			}
		}
	}
}

func TestTidyDropsRepeatedAndClosingCorners(t *testing.T) {
	p := Polygon{Outer: Ring{{0, 0}, {1, 0}, {1, 0}, {1, 1}, {0, 1}, {0, 0}, {0, 0}},
		Holes: []Ring{{{0.2, 0.2}, {0.2, 0.2}, {0.4, 0.2}, {0.3, 0.4}, {0.2, 0.2}}}}
	require.Error(t, p.Validate())
	got := p.Tidy()
	assert.Equal(t, Ring{{0, 0}, {1, 0}, {1, 1}, {0, 1}}, got.Outer)
	assert.Len(t, got.Holes[0], 3)
	assert.NoError(t, got.Validate())
	assert.Empty(t, Ring{{1, 1}, {1, 1}}.tidy()[1:])
}
