package fair

import (
	"math"
	"slices"
)

// filled raises heights, NaN apart, to the least that shows no edge of m spacings or shorter more
// than the limit: the upper concave envelope of every stretch, less the limit, until nothing moves.
func (r EdgeRequest) filled(heights []float64, m int) []float64 {
	f := slices.Clone(heights)
	from, to := 0, len(f)-1
	for from < to && math.IsNaN(f[from]) {
		from++
	}
	for to > from && math.IsNaN(f[to]) {
		to--
	}
	for range mostSweeps {
		moved := 0.0
		r.stretches(from, to, m, func(a, z int) { moved = max(moved, raise(f[a:z+1], r.GapLimitMM)) })
		if moved < 1e-9 {
			break
		}
	}
	return f
}

// stretches calls do with the readings of every edge of m spacings laid between from and to, no
// break spanned.
func (r EdgeRequest) stretches(from, to, m int, do func(a, z int)) {
	for _, end := range append(sorted(r.Breaks, to+1), to) {
		if end <= from {
			continue
		}
		for a := from; a == from || a+m <= end; a++ {
			do(a, min(end, a+m))
		}
		from = end
	}
}

// unfair is the greatest gap under an edge of m spacings, mm.
func (r EdgeRequest) unfair(heights []float64, m int) (worst float64) {
	r.stretches(0, len(heights)-1, m, func(a, z int) {
		gap, _ := under(a, z, z-a, func(k int) float64 { return heights[k] })
		worst = max(worst, gap)
	})
	return worst
}

// mostSweeps bounds the raising; a hollow as long as a hundred edges takes some thousands.
const mostSweeps = 20000

// raise lifts what lies more than limit under the upper concave envelope of f, and returns the most.
func raise(f []float64, limit float64) float64 {
	hull := make([]int, 0, len(f))
	for i := range f {
		for len(hull) > 1 {
			a, b := hull[len(hull)-2], hull[len(hull)-1]
			if (f[b]-f[a])*float64(i-a) > (f[i]-f[a])*float64(b-a) {
				break
			}
			hull = hull[:len(hull)-1]
		}
		hull = append(hull, i)
	}
	most := 0.0
	for k := 1; k < len(hull); k++ {
		a, b := hull[k-1], hull[k]
		for i := a + 1; i < b; i++ {
			if up := f[a] + (f[b]-f[a])*float64(i-a)/float64(b-a) - limit - f[i]; up > 0 {
				f[i] += up
				most = max(most, up)
			}
		}
	}
	return most
}

func fillOf(heights, filled []float64) []float64 {
	out := make([]float64, len(heights))
	for i := range heights {
		if !math.IsNaN(heights[i]) {
			out[i] = filled[i] - heights[i]
		}
	}
	return out
}

// litres for a metre of width: 1 mm on 1 m² is 1 L.
func litres(fill []float64, spacing float64) float64 {
	sum := 0.0
	for i := 1; i < len(fill); i++ {
		sum += (fill[i-1] + fill[i]) / 2 * spacing
	}
	return sum
}
