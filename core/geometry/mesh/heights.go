package mesh

import "math"

// Lattice is a grid of points on a plane of two axes: NX by NY from Lo, rows of DU along U one after
// another along V, m; a step may be negative.
type Lattice struct {
	U, V   int // 0 x, 1 y, 2 z
	Lo     [2]float64
	DU, DV float64
	NX, NY int
}

// Heights is how far the outermost skin of a mesh stands out along the third axis, towards sign, at
// every point of a lattice, m, row by row; NaN where nothing is.
func (m Mesh) Heights(l Lattice, sign float64) []float64 {
	out := make([]float64, l.NX*l.NY)
	for i := range out {
		out[i] = math.NaN()
	}
	w := 3 - l.U - l.V
	at := func(p Vec) [2]float64 { return [2]float64{(p[l.U] - l.Lo[0]) / l.DU, (p[l.V] - l.Lo[1]) / l.DV} }
	span := func(a, b, c float64, n int) (int, int) {
		return max(0, int(math.Ceil(min(a, b, c)-1e-9))), min(n-1, int(math.Floor(max(a, b, c)+1e-9)))
	}
	for t := range m.Triangles {
		a, b, c := m.corners(t)
		p, q, r := at(a), at(b), at(c)
		det := (q[0]-p[0])*(r[1]-p[1]) - (r[0]-p[0])*(q[1]-p[1])
		if math.Abs(det) < 1e-12 {
			continue // edge on
		}
		x0, x1 := span(p[0], q[0], r[0], l.NX)
		y0, y1 := span(p[1], q[1], r[1], l.NY)
		for y := y0; y <= y1; y++ {
			for x := x0; x <= x1; x++ {
				dx, dy := float64(x)-p[0], float64(y)-p[1]
				u := (dx*(r[1]-p[1]) - dy*(r[0]-p[0])) / det
				v := (dy*(q[0]-p[0]) - dx*(q[1]-p[1])) / det
				if u < -1e-9 || v < -1e-9 || u+v > 1+1e-9 {
					continue
				}
				h := sign * (a[w] + u*(b[w]-a[w]) + v*(c[w]-a[w]))
				if i := y*l.NX + x; math.IsNaN(out[i]) || h > out[i] {
					out[i] = h
				}
			}
		}
	}
	return out
}
