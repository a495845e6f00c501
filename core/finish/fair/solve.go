package fair

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/blas"
	"gonum.org/v1/gonum/blas/blas64"
)

// problem is ½ fᵀQf − bᵀf + c over lo ≤ f ≤ hi, Q from the stencils of second
// differences and a diagonal. Heights are in mm.
type problem struct {
	nx, ny int
	wx, wy []float64 // weight of the second difference that is centred at a point
	wxy    []float64 // of the mixed difference of the cell to the right and below
	diag   []float64
	main   []float64 // of Q
	target []float64
	lo, hi []float64
}

// anchor holds points that were not read a little, so that the solution is unique.
const anchor = 1e-9

func (g Grid) problem(l Limits) *problem {
	n := g.NX * g.NY
	p := &problem{nx: g.NX, ny: g.NY, wx: make([]float64, n), wy: make([]float64, n), wxy: make([]float64, n),
		diag: make([]float64, n), target: make([]float64, n),
		lo: make([]float64, n), hi: make([]float64, n)}
	kx := math.Pow(l.StiffnessM/g.DX, 4)
	ky, kxy := 0.0, 0.0
	if g.NY > 1 {
		ky = math.Pow(l.StiffnessM/g.DY, 4)
		kxy = 2 * math.Pow(l.StiffnessM, 4) / (g.DX * g.DX * g.DY * g.DY)
	}
	breakX, breakY := map[int]bool{}, map[int]bool{}
	for _, b := range g.Breaks {
		breakX[b] = true
	}
	for _, b := range g.RowBreaks {
		breakY[b] = true
	}
	for i := range n {
		x, y := i%g.NX, i/g.NX
		if x > 0 && x < g.NX-1 && !breakX[x] {
			p.wx[i] = kx
		}
		if y > 0 && y < g.NY-1 && !breakY[y] {
			p.wy[i] = ky
		}
		if x < g.NX-1 && y < g.NY-1 && !breakX[x] && !breakY[y] && !breakX[x+1] && !breakY[y+1] {
			p.wxy[i] = kxy
		}
		if v := g.Gaps[i]; math.IsNaN(v) {
			p.diag[i], p.lo[i], p.hi[i] = anchor, math.Inf(-1), math.Inf(1)
		} else {
			p.diag[i], p.target[i] = 1, -v
			p.lo[i], p.hi[i] = -v-l.MaxGrindMM, -v+l.MaxFillMM
		}
	}
	p.main = slices.Clone(p.diag)
	for i := range n {
		if w := p.wx[i]; w > 0 {
			p.main[i-1] += w
			p.main[i] += 4 * w
			p.main[i+1] += w
		}
		if w := p.wy[i]; w > 0 {
			p.main[i-p.nx] += w
			p.main[i] += 4 * w
			p.main[i+p.nx] += w
		}
		if w := p.wxy[i]; w > 0 {
			p.main[i] += w
			p.main[i+1] += w
			p.main[i+p.nx] += w
			p.main[i+p.nx+1] += w
		}
	}
	return p
}

// apply sets out to Q·f.
func (p *problem) apply(out, f []float64) {
	nx := p.nx
	for i := range f {
		out[i] = p.diag[i] * f[i]
	}
	for i, w := range p.wx {
		if w > 0 {
			d := w * (f[i-1] - 2*f[i] + f[i+1])
			out[i-1] += d
			out[i] -= 2 * d
			out[i+1] += d
		}
	}
	for i, w := range p.wy {
		if w > 0 {
			d := w * (f[i-nx] - 2*f[i] + f[i+nx])
			out[i-nx] += d
			out[i] -= 2 * d
			out[i+nx] += d
		}
	}
	for i, w := range p.wxy {
		if w > 0 {
			d := w * (f[i] - f[i+1] - f[i+nx] + f[i+nx+1])
			out[i] += d
			out[i+1] -= d
			out[i+nx] -= d
			out[i+nx+1] += d
		}
	}
}

// gradient sets out to the gradient at f and returns the objective there.
func (p *problem) gradient(out, f []float64) float64 {
	p.apply(out, f)
	value := 0.0
	for i := range f {
		pull := p.diag[i] * p.target[i]
		value += 0.5*f[i]*(out[i]-pull) - 0.5*pull*(f[i]-p.target[i])
		out[i] -= pull
	}
	return value
}

// matrix is Q with the held points taken out: ones on the diagonal for them.
func (p *problem) matrix(held []bool) blas64.SymmetricBand {
	n, nx := len(p.diag), p.nx
	k := p.band()
	data := make([]float64, n*(k+1))
	q := blas64.SymmetricBand{Uplo: blas.Upper, N: n, K: k, Stride: k + 1, Data: data}
	for i, d := range p.diag {
		if held[i] {
			d = 1
		}
		data[i*(k+1)] = d
	}
	add := func(w float64, at, s []int) {
		for a, i := range at {
			if held[i] {
				continue
			}
			for b := a; b < len(at); b++ {
				if j := at[b]; !held[j] {
					data[i*(k+1)+j-i] += w * float64(s[a]*s[b])
				}
			}
		}
	}
	second, mixed := []int{1, -2, 1}, []int{1, -1, -1, 1}
	at := make([]int, 4)
	for i := range p.diag {
		if w := p.wx[i]; w > 0 {
			at[0], at[1], at[2] = i-1, i, i+1
			add(w, at[:3], second)
		}
		if w := p.wy[i]; w > 0 {
			at[0], at[1], at[2] = i-nx, i, i+nx
			add(w, at[:3], second)
		}
		if w := p.wxy[i]; w > 0 {
			at[0], at[1], at[2], at[3] = i, i+1, i+nx, i+nx+1
			add(w, at, mixed)
		}
	}
	return q
}

// band is how many diagonals Q has above the main one.
func (p *problem) band() int { return min(len(p.diag)-1, max(2, 2*p.nx)) }

// mostSteps bounds the Newton steps; a strictly convex problem takes a few. Before each
// there are so many sweeps of damped Jacobi. It ends within this part of the objective.
// Points that were not read count as if they were held a little (loose).
const (
	mostSteps   = 80
	sweeps      = 12
	firstSweeps = 40
	damping     = 0.55
	within      = 1e-6
	loose       = 1e-3
)

// solve is projected Newton (Bertsekas 1982) on the bounds: points at a bound that the
// gradient pushes against are held, a Newton step is taken for the rest through a
// banded Cholesky factor (newton.go), and the step is projected and halved until the objective
// falls. It ends when the gradient that is left bounds the rest.
func (s *newton) solve(f []float64) float64 {
	n, p := len(f), s.p
	g, try, gTry := make([]float64, n), make([]float64, n), make([]float64, n)
	held, d := make([]bool, n), make([]float64, n)
	p.project(f)
	value := p.gradient(g, f)
	for step := range mostSteps {
		for range max(sweeps, firstSweeps*(1-step)) { // smooth, so that the held points are found sooner
			for i := range f {
				try[i] = f[i] - damping*g[i]/p.main[i]
			}
			p.project(try)
			v := p.gradient(gTry, try)
			if v >= value {
				break
			}
			value = v
			copy(f, try)
			copy(g, gTry)
		}
		for i := range f {
			held[i] = f[i] <= p.lo[i] && g[i] > 0 || f[i] >= p.hi[i] && g[i] < 0
		}
		if p.left(g, held) <= within*math.Abs(value) {
			break
		}
		if !s.step(d, g, held) {
			break // rounding has taken the matrix's definiteness: what is found stands
		}
		for alpha := 1.0; alpha > 1e-6; alpha /= 2 { // if none is better the sweeps go on
			for i := range f {
				try[i] = f[i] + alpha*d[i]
			}
			p.project(try)
			if v := p.gradient(gTry, try); v < value {
				value = v
				copy(f, try)
				copy(g, gTry)
				break
			}
		}
	}
	return value
}

// left bounds how far the objective is above its least: half the square of the
// gradient over the curvature, which is at least the diagonal's.
func (p *problem) left(g []float64, held []bool) float64 {
	sum := 0.0
	for i, v := range g {
		if !held[i] {
			sum += v * v / (2 * math.Max(p.diag[i], loose))
		}
	}
	return sum
}

func (p *problem) project(f []float64) {
	for i := range f {
		f[i] = min(p.hi[i], max(p.lo[i], f[i]))
	}
}

// fit solves a grid from a solution on every second point, so that few steps are left.
func (g Grid) fit(l Limits) ([]float64, float64) {
	f := make([]float64, g.NX*g.NY)
	newton := g.problem(l).newton()
	if g.NX > coarsest && g.NY > coarsest {
		go newton.whole() // it will be wanted
		half := g.half()
		small, _ := half.fit(l)
		for i := range f {
			x, y := float64(i%g.NX)/2, float64(i/g.NX)/2
			f[i] = half.between(small, x, y)
		}
	} else {
		for i, v := range g.Gaps {
			if !math.IsNaN(v) {
				f[i] = -v
			}
		}
	}
	return f, newton.solve(f)
}

// coarsest is the side under which a grid is solved as it is.
const coarsest = 20

func (g Grid) half() Grid {
	h := Grid{NX: (g.NX + 1) / 2, NY: (g.NY + 1) / 2, DX: 2 * g.DX, DY: 2 * g.DY}
	for y := range h.NY {
		for x := range h.NX {
			h.Gaps = append(h.Gaps, g.Gaps[2*y*g.NX+2*x])
		}
	}
	for _, b := range g.Breaks {
		h.Breaks = append(h.Breaks, b/2)
	}
	for _, b := range g.RowBreaks {
		h.RowBreaks = append(h.RowBreaks, b/2)
	}
	return h
}

// between is the value of a grid at a place, in its own steps, straight between points.
func (g Grid) between(f []float64, x, y float64) float64 {
	i, j := min(int(x), g.NX-1), min(int(y), g.NY-1)
	u, v := min(i+1, g.NX-1), min(j+1, g.NY-1)
	a, b := x-float64(i), y-float64(j)
	at := func(i, j int) float64 { return f[j*g.NX+i] }
	return (1-b)*((1-a)*at(i, j)+a*at(u, j)) + b*((1-a)*at(i, v)+a*at(u, v))
}

// turned is g with rows for columns.
func (g Grid) turned() Grid {
	t := Grid{NX: g.NY, NY: g.NX, DX: g.DY, DY: g.DX, Breaks: g.RowBreaks, RowBreaks: g.Breaks,
		Gaps: turn(g.Gaps, g.NX, g.NY)}
	if g.NY == 1 {
		t.DX = 1 // of no bearing
	}
	return t
}

func turn(v []float64, nx, ny int) []float64 {
	out := make([]float64, len(v))
	for i, x := range v {
		out[(i%nx)*ny+i/nx] = x
	}
	return out
}
