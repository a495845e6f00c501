package fair

import (
	"math"

	"gonum.org/v1/gonum/mat"
)

// Departures makes gaps of heights of a curved face, mm, NaN apart: how far each lies under the fair
// face, a quadratic through what lies within reach of it, m, by least squares in which outliers count
// little. The highest place has a gap of 0.
func (g Grid) Departures(heights []float64, reachM float64) []float64 {
	out := make([]float64, len(heights))
	most := math.Inf(-1)
	rx, ry := max(2, int(math.Round(reachM/g.DX))), max(2, int(math.Round(reachM/g.DY)))
	for i, h := range heights {
		out[i] = math.NaN()
		if math.IsNaN(h) {
			continue
		}
		if f, ok := g.quadratic(heights, i, rx, ry); ok {
			out[i] = h - f
			most = max(most, out[i])
		}
	}
	for i := range out {
		out[i] = most - out[i]
	}
	return out
}

// bisquares is how often the weights of a robust fit are set anew.
const bisquares = 4

// quadratic is the fair height at a point. Heights within the window weigh by Tukey's bisquare of
// their distance from it.
func (g Grid) quadratic(heights []float64, at, rx, ry int) (float64, bool) {
	x0, y0 := at%g.NX, at/g.NX
	var rows [][6]float64
	var hs []float64
	for y := max(0, y0-ry); y <= min(g.NY-1, y0+ry); y++ {
		for x := max(0, x0-rx); x <= min(g.NX-1, x0+rx); x++ {
			if h := heights[y*g.NX+x]; !math.IsNaN(h) {
				u, v := float64(x-x0)/float64(rx), float64(y-y0)/float64(ry)
				rows, hs = append(rows, [6]float64{1, u, v, u * u, u * v, v * v}), append(hs, h)
			}
		}
	}
	if len(rows) < 12 {
		return 0, false
	}
	weight := make([]float64, len(rows))
	for i := range weight {
		weight[i] = 1
	}
	var c mat.VecDense
	for range bisquares {
		normal, right := mat.NewSymDense(6, nil), mat.NewVecDense(6, nil)
		for i, r := range rows {
			for a := range 6 {
				right.SetVec(a, right.AtVec(a)+weight[i]*r[a]*hs[i])
				for b := a; b < 6; b++ {
					normal.SetSym(a, b, normal.At(a, b)+weight[i]*r[a]*r[b])
				}
			}
		}
		for a := range 6 {
			normal.SetSym(a, a, normal.At(a, a)+1e-9) // where a window is one row
		}
		var chol mat.Cholesky
		if !chol.Factorize(normal) || chol.SolveVecTo(&c, right) != nil {
			return 0, false
		}
		off := make([]float64, len(rows))
		sum := 0.0
		for i, r := range rows {
			off[i] = hs[i]
			for a := range 6 {
				off[i] -= c.AtVec(a) * r[a]
			}
			sum += math.Abs(off[i])
		}
		scale := 4 * sum / float64(len(rows)) // about 3 standard deviations of noise
		if scale < 1e-9 {
			break
		}
		for i := range weight {
			u := off[i] / scale
			weight[i] = math.Pow(max(0, 1-u*u), 2)
		}
	}
	return c.AtVec(0), true
}
