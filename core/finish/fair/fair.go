// Package fair turns gaps under a straightedge into a fair surface: where to fill and
// where to grind, how much, and whether it is fair enough.
package fair

import (
	"fmt"
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
)

// Grid holds gaps under a straightedge or batten in mm, row by row of NX readings DX
// m apart, the NY rows DY m apart; one row is a line. A gap is how far the surface lies
// under the straightedge, NaN where none was read. Breaks are the columns, and
// RowBreaks the rows, at which a knuckle or chine lets the curve turn.
type Grid struct {
	NX, NY            int
	DX, DY            float64
	Gaps              []float64
	Breaks, RowBreaks []int
}

// Class is a finish that is aimed at: the greatest gap under a straightedge a metre
// long, mm. The gaps are rules of thumb.
type Class struct {
	Key   string  `json:"key"`
	Name  string  `json:"name"`
	GapMM float64 `json:"gapMM"`
	// Lows and Pinholes are how many may be left on ten square metres.
	Lows     float64 `json:"lows"`
	Pinholes float64 `json:"pinholes"`
	// Worth is how many lows an hour of a further round must take away to pay.
	Worth float64 `json:"worth"`
}

// Classes lists them, the coarsest first.
var Classes = []Class{{"work", "work boat", 3, 6, 100, 2}, {"yard", "yard finish", 1.5, 2, 10, 1},
	{"show", "show finish", 0.6, 0.5, 1, 0.4}}

// ClassByKey returns the class of that key.
func ClassByKey(key string) (Class, bool) {
	for _, c := range Classes {
		if c.Key == key {
			return c, true
		}
	}
	return Class{}, false
}

// Limits bound the change of the surface: filler at most MaxFillMM, grinding at most
// MaxGrindMM. Stiffness is the length, m, over which a batten bends: longer is stiffer.
type Limits struct {
	MaxFillMM  float64 `json:"maxFillMM"`
	MaxGrindMM float64 `json:"maxGrindMM"`
	StiffnessM float64 `json:"stiffnessM"`
}

// Least and most of what is taken.
const (
	mostPoints = 128 * 128
	mostGapMM  = 300
	leastGapMM = 0.05
)

// OffSurface is how many times a surface the readings on it may cover: areas are not
// exact. A rule of thumb.
const OffSurface = 1.3

// largest is the largest of the gaps read, 0 without one.
func largest(gaps []float64) float64 {
	most := 0.0
	for _, v := range gaps {
		if v > most {
			most = v
		}
	}
	return most
}

// Validate reports what cannot be.
func (g Grid) Validate() error {
	var bad fielderr.Errors
	if g.NX < 2 || g.NY < 1 || g.NX*g.NY > mostPoints {
		bad.Add("gaps", "a line needs at least two readings, and a grid at most %d", mostPoints)
		return bad
	}
	bad.Above("spacingM", g.DX, 0, 20, "m")
	if g.NY > 1 {
		bad.Above("rowsM", g.DY, 0, 20, "m")
	}
	if len(g.Gaps) != g.NX*g.NY {
		bad.Add("gaps", "%d readings do not fill %d rows of %d", len(g.Gaps), g.NY, g.NX)
		return bad
	}
	read := 0
	for i, v := range g.Gaps {
		path := fmt.Sprintf("gaps[%d][%d]", i/g.NX, i%g.NX)
		switch {
		case math.IsNaN(v):
			continue
		case v < 0:
			bad.Add(path,
				"a gap is not below nothing: where the straightedge rocks the surface is high, write 0 there and the gaps beside it")
		case v > mostGapMM:
			bad.Add(path, "%.4g mm is more than a straightedge can be off: is it in another unit?", v)
		}
		read++
	}
	if read < 3 {
		bad.Add("gaps", "%d readings do not tell a curve: read at least three", read)
	}
	if most := largest(g.Gaps); bad == nil && most > 0 && most < leastGapMM {
		bad.Add("gaps", "the largest gap is %.3g mm, less than can be read: are these metres?", most)
	}
	return bad.Err()
}

// Validate reports what cannot be.
func (l Limits) Validate() error {
	var bad fielderr.Errors
	bad.Range("maxFillMM", l.MaxFillMM, 0, 200, "mm")
	bad.Range("maxGrindMM", l.MaxGrindMM, 0, 50, "mm")
	bad.Above("stiffnessM", l.StiffnessM, 0, 50, "m")
	if bad == nil && l.MaxFillMM == 0 && l.MaxGrindMM == 0 {
		bad.Add("maxFillMM", "without filling or grinding nothing changes")
	}
	return bad.Err()
}

// Result is the fair surface. Depth is filler (+) or grinding (−) in mm at every
// reading, NaN where none was read. Gaps are the greatest under a straightedge a metre
// long, before and after.
type Result struct {
	Depth     []float64
	FillL     float64 // on the surface, without loss
	GrindL    float64
	FillM2    float64
	GrindM2   float64
	MaxFillMM float64
	MaxGrind  float64
	BeforeMM  float64
	AfterMM   float64
	WorstAt   int // the reading with the greatest gap after
	FairMM    []float64
	Objective float64
	Working   working.Working
}

// Fit finds the surface of least bending that lies within the limits of what was read:
// it minimises ½ Σ (second differences)² ℓ⁴ + ½ Σ depth², thin-plate on a grid, over
// −MaxGrind ≤ depth ≤ MaxFill; ℓ is the stiffness in spacings. Points that were not read
// bend along and have no depth. The objective is within 1e-6 of the least.
func Fit(g Grid, l Limits) (Result, error) {
	var bad fielderr.Errors
	bad.Under("", g.Validate())
	bad.Under("", l.Validate())
	if bad != nil {
		return Result{}, bad
	}
	if g.NX <= g.NY {
		f, objective := g.fit(l)
		return g.result(f, objective, l), nil
	}
	t := g.turned() // the shorter side first: the narrower band
	f, objective := t.fit(l)
	return g.result(turn(f, t.NX, t.NY), objective, l), nil
}

func (g Grid) result(f []float64, objective float64, l Limits) Result {
	out := Result{Depth: make([]float64, len(f)), FairMM: f, Objective: objective, Working: working.New()}
	before := make([]float64, len(f))
	for i, v := range g.Gaps {
		out.Depth[i] = math.NaN()
		before[i] = math.NaN()
		if math.IsNaN(v) {
			continue
		}
		before[i] = -v
		d := f[i] + v
		if math.Abs(d) < 1e-6 {
			d = 0
		}
		out.Depth[i] = d
		a := g.cell(i)
		if d > 0 {
			out.FillL += d * a // mm · m² = L
			out.MaxFillMM = math.Max(out.MaxFillMM, d)
			if d > seenMM {
				out.FillM2 += a
			}
		} else {
			out.GrindL -= d * a
			out.MaxGrind = math.Max(out.MaxGrind, -d)
			if -d > seenMM {
				out.GrindM2 += a
			}
		}
	}
	out.BeforeMM, _ = g.Unfair(before)
	out.AfterMM, out.WorstAt = g.Unfair(f)
	w := &out.Working
	w.In("Stiffness", l.StiffnessM, "m")
	w.In("Filler at most", l.MaxFillMM, "mm")
	w.In("Grinding at most", l.MaxGrindMM, "mm")
	w.Step("Filler on the surface", "Σ depth · cell", out.FillL, "L",
		"least bending within the limits, a bounded quadratic programme")
	w.Step("Deepest", "", out.MaxFillMM, "mm", "")
	w.Step("To be ground", "Σ depth · cell", out.GrindL, "L", "")
	w.Step("Greatest gap before", "under a straightedge a metre long, along rows and columns", out.BeforeMM, "mm", "")
	w.Step("Greatest gap after", "", out.AfterMM, "mm", "")
	return out
}

// seenMM is the depth from which a place is worth filling or grinding.
const seenMM = 0.1

// cell is the area of a reading, m²: half at an edge, a quarter at a corner. A line
// counts a metre of width.
func (g Grid) cell(i int) float64 {
	x, y := i%g.NX, i/g.NX
	a := g.DX
	if x == 0 || x == g.NX-1 {
		a /= 2
	}
	if g.NY == 1 {
		return a
	}
	a *= g.DY
	if y == 0 || y == g.NY-1 {
		a /= 2
	}
	return a
}

// AreaM2 is what the readings cover.
func (g Grid) AreaM2() float64 {
	a := float64(g.NX-1) * g.DX
	if g.NY > 1 {
		a *= float64(g.NY-1) * g.DY
	}
	return a
}

// battenM is the straightedge that a finish is judged with.
const battenM = 1.0

// Unfair is the greatest gap under a straightedge a metre long laid along rows and
// columns of heights, mm, and where; NaN heights are passed over, breaks are not spanned.
func (g Grid) Unfair(height []float64) (worst float64, at int) {
	line := func(n int, spacing float64, breaks []int, index func(k int) int) {
		reach := max(2, int(math.Round(battenM/spacing)))
		from := 0
		for _, end := range append(sorted(breaks, n), n-1) {
			gap, k := under(from, end, reach, func(k int) float64 { return height[index(k)] })
			if gap > worst {
				worst, at = gap, index(k)
			}
			from = end
		}
	}
	for y := range g.NY {
		line(g.NX, g.DX, g.Breaks, func(k int) int { return y*g.NX + k })
	}
	if g.NY > 2 {
		for x := range g.NX {
			line(g.NY, g.DY, g.RowBreaks, func(k int) int { return k*g.NX + x })
		}
	}
	return worst, at
}

// sorted are the breaks inside a line of n, rising.
func sorted(breaks []int, n int) []int {
	in := make([]bool, n)
	for _, b := range breaks {
		if b > 0 && b < n-1 {
			in[b] = true
		}
	}
	var out []int
	for i, v := range in {
		if v {
			out = append(out, i)
		}
	}
	return out
}

// under is the greatest gap below a straightedge of reach steps laid anywhere on
// heights from to end: the upper hull of each window less the heights in it.
func under(from, end, reach int, h func(k int) float64) (worst float64, at int) {
	var hull []int
	for a := from; a == from || a+reach <= end; a++ {
		z := min(end, a+reach)
		hull = hull[:0]
		for k := a; k <= z; k++ {
			if math.IsNaN(h(k)) {
				continue
			}
			for len(hull) > 1 {
				p, q := hull[len(hull)-2], hull[len(hull)-1]
				if (h(q)-h(p))*float64(k-p) > (h(k)-h(p))*float64(q-p) {
					break
				}
				hull = hull[:len(hull)-1]
			}
			hull = append(hull, k)
		}
		for i := 1; i < len(hull); i++ {
			p, q := hull[i-1], hull[i]
			for k := p + 1; k < q; k++ {
				if math.IsNaN(h(k)) {
					continue
				}
				if gap := h(p) + (h(q)-h(p))*float64(k-p)/float64(q-p) - h(k); gap > worst {
					worst, at = gap, k
				}
			}
		}
	}
	return worst, at
}

// Short tells how the limits fall short of a class: nothing if the result is fair
// enough, else where and how much more must be filled there. free is a fit without a
// limit of filling.
func (g Grid) Short(r, free Result, c Class) (extraMM float64, at int, short bool) {
	if r.AfterMM <= c.GapMM {
		return 0, 0, false
	}
	for i, d := range free.Depth {
		if !math.IsNaN(d) && d-r.Depth[i] > extraMM {
			extraMM, at = d-r.Depth[i], i
		}
	}
	return extraMM, at, true
}
