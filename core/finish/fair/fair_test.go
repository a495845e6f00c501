package fair

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"allcoats/core/boat/outline"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/floats"
	"gonum.org/v1/gonum/mat"
)

// bumpy is a rough surface with waves and noise, mm under the straightedge.
func bumpy(nx, ny int, seed uint64, noise float64) Grid {
	r := rand.New(rand.NewPCG(seed, 1))
	g := Grid{NX: nx, NY: ny, DX: 0.1, DY: 0.1}
	for i := range nx * ny {
		x, y := float64(i%nx), float64(i/nx)
		g.Gaps = append(g.Gaps, math.Max(0, 2+1.5*math.Sin(x/7)*math.Cos(y/9)+noise*r.NormFloat64()))
	}
	return g
}

// dense is Q of a problem as a whole matrix.
func dense(p *problem) *mat.SymDense {
	n := len(p.diag)
	q := mat.NewSymDense(n, nil)
	e, out := make([]float64, n), make([]float64, n)
	for j := range n {
		clear(e)
		e[j] = 1
		p.apply(out, e)
		for i := 0; i <= j; i++ {
			q.SetSym(i, j, out[i])
		}
	}
	return q
}

// reference solves a small bounded programme by the barrier method (Boyd and
// Vandenberghe, ch. 11) with dense matrices: the objective is within 2n/t of the least.
func reference(p *problem) float64 {
	n := len(p.diag)
	q := dense(p)
	f, g, try := make([]float64, n), make([]float64, n), make([]float64, n)
	for i := range f {
		f[i] = (p.lo[i] + p.hi[i]) / 2
	}
	barrier := func(t float64, f []float64) float64 {
		sum := t * p.gradient(try, f)
		for i, v := range f {
			sum -= math.Log(v-p.lo[i]) + math.Log(p.hi[i]-v)
		}
		return sum
	}
	for t := 1e-3; t < 1e9; t *= 8 {
		for range 50 {
			p.gradient(g, f)
			h := mat.NewSymDense(n, nil)
			h.ScaleSym(t, q)
			rhs := mat.NewVecDense(n, nil)
			for i, v := range f {
				a, b := v-p.lo[i], p.hi[i]-v
				h.SetSym(i, i, h.At(i, i)+1/(a*a)+1/(b*b))
				rhs.SetVec(i, -t*g[i]+1/a-1/b)
			}
			var c mat.Cholesky
			c.Factorize(h)
			d := mat.NewVecDense(n, nil)
			_ = c.SolveVecTo(d, rhs)
			decrement := mat.Dot(d, rhs)
			if decrement < 1e-9 {
				break
			}
			here, step := barrier(t, f), 1.0
			next := make([]float64, n)
			for ; step > 1e-12; step /= 2 {
				for i := range next {
					next[i] = f[i] + step*d.AtVec(i)
				}
				if v := barrier(t, next); v < here-0.1*step*decrement { // NaN outside the bounds
					break
				}
			}
			copy(f, next)
		}
	}
	return p.gradient(g, f)
}

func TestCurvesAgainstAGeneralSolver(t *testing.T) {
	for seed := range uint64(2) {
		for _, l := range []Limits{{5, 0, 0.5}, {3, 0.5, 1}, {1, 1, 2}, {40, 0, 3}} {
			g := bumpy(200, 1, seed, 0.8)
			got, err := Fit(g, l)
			require.NoError(t, err)
			want := reference(g.problem(l))
			require.False(t, math.IsNaN(want))
			assert.InEpsilon(t, want, got.Objective, 1e-4, "seed %d, %+v", seed, l)
			for i, d := range got.Depth {
				assert.LessOrEqual(t, d, l.MaxFillMM+1e-3, i)
				assert.GreaterOrEqual(t, d, -l.MaxGrindMM-1e-3, i)
			}
		}
	}
}

// On a grid of 64 × 64 the distance to the least objective is bounded by the gradient
// that is left: ½ |g|² over the least curvature, 1.
func TestGridsAreSolved(t *testing.T) {
	for seed := range uint64(2) {
		for _, l := range []Limits{{5, 0, 0.5}, {3, 0.5, 1}, {1, 1, 2}} {
			g := bumpy(64, 64, seed, 0.8)
			got, err := Fit(g, l)
			require.NoError(t, err)
			p := g.problem(l)
			grad := make([]float64, len(got.FairMM))
			p.gradient(grad, got.FairMM)
			left := 0.0
			for i, v := range grad {
				f := got.FairMM[i]
				require.LessOrEqual(t, f, p.hi[i]+1e-3, "within a µm")
				require.GreaterOrEqual(t, f, p.lo[i]-1e-3)
				if (f <= p.lo[i] && v > 0) || (f >= p.hi[i] && v < 0) {
					continue
				}
				left += v * v / 2
			}
			assert.Less(t, left, 1e-4*got.Objective, "seed %d, %+v", seed, l)
		}
	}
}

// A step with some points kept is that of Q without their rows and columns, whether forces keep
// them or they are taken out.
func TestStepsKeepHeldPoints(t *testing.T) {
	for _, held := range []int{0, 1, 7, 40} {
		p := bumpy(12, 9, 3, 0.8).problem(Limits{3, 0.5, 0.4})
		n := len(p.diag)
		r := rand.New(rand.NewPCG(uint64(held), 2))
		keep, g, got := make([]bool, n), make([]float64, n), make([]float64, n)
		for _, i := range r.Perm(n)[:held] {
			keep[i] = true
		}
		var free []int
		for i := range n {
			if g[i] = r.NormFloat64(); !keep[i] {
				free = append(free, i)
			}
		}
		require.True(t, p.newton().step(got, g, keep))
		q, of := dense(p), mat.NewSymDense(len(free), nil)
		down := mat.NewVecDense(len(free), nil)
		for a, i := range free {
			down.SetVec(a, -g[i])
			for b, j := range free[:a+1] {
				of.SetSym(b, a, q.At(i, j))
			}
		}
		var c mat.Cholesky
		require.True(t, c.Factorize(of))
		want := mat.NewVecDense(len(free), nil)
		require.NoError(t, c.SolveVecTo(want, down))
		for a, i := range free {
			assert.InDelta(t, want.AtVec(a), got[i], 1e-9, "%d held", held)
		}
		for i, k := range keep {
			assert.True(t, !k || got[i] == 0, "%d is kept", i)
		}
	}
}

// Without bounds that bind, the fit is the smoothing spline: (I + k D²ᵀD²) f = h.
func TestUnboundIsTheSmoothingSpline(t *testing.T) {
	g := bumpy(60, 1, 9, 0.8)
	got, err := Fit(g, Limits{100, 50, 0.4})
	require.NoError(t, err)
	p := g.problem(Limits{100, 50, 0.4})
	h := mat.NewVecDense(60, nil)
	for i, v := range g.Gaps {
		h.SetVec(i, -v)
	}
	var c mat.Cholesky
	require.True(t, c.Factorize(dense(p)))
	want := mat.NewVecDense(60, nil)
	require.NoError(t, c.SolveVecTo(want, h))
	assert.True(t, floats.EqualApprox(want.RawVector().Data, got.FairMM, 1e-6))
}

// dent fills a dent in a flat plate of so many points a side, spacing m.
func dent(t *testing.T, n int, spacing float64, depth func(r float64) float64) Result {
	g := Grid{NX: n, NY: n, DX: spacing, DY: spacing}
	mid := float64(n-1) / 2 * spacing
	for i := range n * n {
		r := math.Hypot(float64(i%n)*spacing-mid, float64(i/n)*spacing-mid)
		g.Gaps = append(g.Gaps, depth(r))
	}
	got, err := Fit(g, Limits{MaxFillMM: 50, StiffnessM: 20})
	require.NoError(t, err)
	return got
}

// Dents whose volume is known: a spherical cap of radius a and depth h holds
// πh(3a²+h²)/6, a cosine dimple h(1+cos πr/a)/2 holds πa²h(½ − 2/π²).
func TestVolumesOfDents(t *testing.T) {
	const a, h = 0.4, 0.008
	radius := (a*a + h*h) / (2 * h)
	bowl := dent(t, 101, 0.01, func(r float64) float64 {
		return 1000 * math.Max(0, math.Sqrt(math.Max(0, radius*radius-r*r))-(radius-h))
	})
	assert.InEpsilon(t, 1000*math.Pi*h*(3*a*a+h*h)/6, bowl.FillL, 0.01)
	assert.InEpsilon(t, 8, bowl.MaxFillMM, 0.01)
	assert.Zero(t, bowl.GrindL)
	dimple := dent(t, 101, 0.01, func(r float64) float64 {
		if r >= a {
			return 0
		}
		return 1000 * h * (1 + math.Cos(math.Pi*r/a)) / 2
	})
	assert.InEpsilon(t, 1000*math.Pi*a*a*h*(0.5-2/(math.Pi*math.Pi)), dimple.FillL, 0.01)
}

// A knuckle in the middle of a line stays sharp where it is told, and is filled round
// where it is not.
func TestKnucklesAreKept(t *testing.T) {
	g := Grid{NX: 41, NY: 1, DX: 0.1}
	for i := range 41 {
		g.Gaps = append(g.Gaps, 10-0.5*math.Abs(float64(i-20)))
	}
	round, err := Fit(g, Limits{MaxFillMM: 20, StiffnessM: 1})
	require.NoError(t, err)
	g.Breaks = []int{20}
	sharp, err := Fit(g, Limits{MaxFillMM: 20, StiffnessM: 1})
	require.NoError(t, err)
	assert.Greater(t, round.FillL, 0.1)
	assert.InDelta(t, 0, sharp.FillL, 1e-6)
	assert.InDelta(t, 0, sharp.AfterMM, 1e-6, "a straightedge is not laid over a knuckle")
}

// Gaps under a straightedge on a V of 5 mm in a metre: 5 mm at its middle.
func TestUnfair(t *testing.T) {
	g := Grid{NX: 11, NY: 1, DX: 0.1}
	for i := range 11 {
		g.Gaps = append(g.Gaps, 5-math.Abs(float64(i-5)))
	}
	h := make([]float64, 11)
	for i, v := range g.Gaps {
		h[i] = -v
	}
	worst, at := g.Unfair(h)
	assert.InDelta(t, 5, worst, 1e-9)
	assert.Equal(t, 5, at)
	h[5] = math.NaN()
	worst, _ = g.Unfair(h)
	assert.InDelta(t, 4, worst, 1e-9, "what was not read does not count")
}

func TestShortOfAClass(t *testing.T) {
	g := Grid{NX: 21, NY: 1, DX: 0.1}
	for i := range 21 {
		g.Gaps = append(g.Gaps, 10*math.Exp(-math.Pow(float64(i-10)/3, 2)))
	}
	tight, err := Fit(g, Limits{MaxFillMM: 2, StiffnessM: 2})
	require.NoError(t, err)
	free, err := Fit(g, Limits{MaxFillMM: 200, StiffnessM: 2})
	require.NoError(t, err)
	extra, at, short := g.Short(tight, free, Classes[2])
	assert.True(t, short)
	assert.Equal(t, 10, at)
	assert.InDelta(t, free.Depth[10]-2, extra, 1e-6)
	_, _, short = g.Short(free, free, Classes[0])
	assert.False(t, short)
}

func TestBadReadings(t *testing.T) {
	nan := math.NaN()
	for where, g := range map[string]Grid{
		"gaps":       {NX: 4, NY: 1, DX: 0.1, Gaps: []float64{1, nan, nan, nan}},
		"gaps[0][1]": {NX: 3, NY: 1, DX: 0.1, Gaps: []float64{1, -2, 0}},
		"gaps[1][0]": {NX: 2, NY: 2, DX: 0.1, DY: 0.1, Gaps: []float64{1, 2, 4000, 1}},
		"spacingM":   {NX: 3, NY: 1, Gaps: []float64{1, 2, 3}},
	} {
		_, err := Fit(g, Limits{MaxFillMM: 5, StiffnessM: 1})
		assert.ErrorContains(t, err, where)
	}
	_, err := Fit(Grid{NX: 3, NY: 1, DX: 0.1, Gaps: []float64{0.001, 0.004, 0}}, Limits{MaxFillMM: 5, StiffnessM: 1})
	assert.ErrorContains(t, err, "are these metres?")
	ok := Grid{NX: 3, NY: 1, DX: 0.1, Gaps: []float64{1, 2, 3}}
	_, err = Fit(ok, Limits{StiffnessM: 1})
	assert.ErrorContains(t, err, "nothing changes")
}

// Waves of 1.5 mm, read to 0.2 mm, with their patches and contours.
func BenchmarkFairSurface(b *testing.B) {
	for _, size := range [][2]int{{64, 64}, {200, 60}} {
		b.Run(fmt.Sprintf("%dx%d", size[0], size[1]), func(b *testing.B) {
			g := bumpy(size[0], size[1], 1, 0.2)
			for b.Loop() {
				r, err := Fit(g, Limits{MaxFillMM: 3, MaxGrindMM: 0.5, StiffnessM: 1})
				if err != nil {
					b.Fatal(err)
				}
				c, _, err := FitChart(g, r, nil, nil, 0.25)
				if err != nil || len(c.Contours(0.25)) == 0 {
					b.Fatal("nothing to fill", err)
				}
			}
		})
	}
}

// Twenty lines of thirty placements, half over.
func BenchmarkWalk(b *testing.B) {
	r := WalkRequest{EdgeM: 1, SpacingM: 0.1, LimitMM: 0.6, ErrorMM: 0.25}
	for y := range 20 {
		l := Line{Way: "along", WidthM: 0.1, On: &Track{outline.PortSide, outline.Point{X: 1, Y: 0.1 * float64(y)},
			outline.Point{X: 16.5, Y: 0.1 * float64(y)}}}
		for k := range 30 {
			p := Placement{StartM: 0.5 * float64(k)}
			for i := range 11 {
				gap := 1 - math.Cos(float64(5*k+i)+0.3*float64(y))
				p.GapsMM = append(p.GapsMM, &gap)
			}
			l.Placements = append(l.Placements, p)
		}
		r.Lines = append(r.Lines, l)
	}
	for b.Loop() {
		w, err := Walk(r)
		if err != nil || len(w.Chart.Contours(0.25)) == 0 {
			b.Fatal("nothing to fill", err)
		}
	}
}
