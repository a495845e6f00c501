package mesh

import "math"

// Station is a cross section of a hull at x: the heights of its lowest and
// highest point from the waterline, its greatest half-breadth in all and at
// the waterline, and its length round on both sides below the waterline, m.
type Station struct {
	XM          float64 `json:"xM"`
	KeelM       float64 `json:"keelM"`
	SheerM      float64 `json:"sheerM"`
	HalfM       float64 `json:"halfM"`
	WaterHalfM  float64 `json:"waterHalfM"`
	GirthBelowM float64 `json:"girthBelowM"`
}

// Stations cuts a placed mesh at n even stations from aft forward, the first
// and last a little inside its ends.
func (m Mesh) Stations(n int) []Station {
	lo, hi := m.extent()
	out := make([]Station, n)
	step := (hi[0] - lo[0]) / float64(n-1)
	for i := range out {
		x := lo[0] + step*float64(i)
		if i == 0 {
			x += step * 0.02
		} else if i == n-1 {
			x -= step * 0.02
		}
		out[i] = Station{XM: x, KeelM: math.Inf(1), SheerM: math.Inf(-1)}
	}
	for i := range m.Triangles {
		a, b, c := m.corners(i)
		from, to := min(a[0], b[0], c[0]), max(a[0], b[0], c[0])
		first := max(0, int((from-lo[0])/step)-1)
		for k := first; k < n && out[k].XM < to; k++ {
			if out[k].XM > from {
				out[k].add(a, b, c)
			}
		}
	}
	kept := out[:0]
	for _, s := range out {
		if s.SheerM >= s.KeelM {
			s.XM -= lo[0]
			kept = append(kept, s)
		}
	}
	return kept
}

// add takes in the line in which a facet meets the station.
func (s *Station) add(corners ...Vec) {
	var line []Vec
	for i, v := range corners {
		w := corners[(i+1)%3]
		if (v[0] < s.XM) != (w[0] < s.XM) {
			line = append(line, lerp(v, w, (s.XM-v[0])/(w[0]-v[0])))
		}
	}
	if len(line) != 2 {
		return
	}
	p, q := line[0], line[1]
	for _, v := range line {
		s.KeelM, s.SheerM, s.HalfM = min(s.KeelM, v[2]), max(s.SheerM, v[2]), max(s.HalfM, math.Abs(v[1]))
	}
	if (p[2] < 0) != (q[2] < 0) {
		at := lerp(p, q, -p[2]/(q[2]-p[2]))
		at[2] = 0 // not nearly
		s.WaterHalfM = max(s.WaterHalfM, math.Abs(at[1]))
		if p[2] < 0 {
			q = at
		} else {
			p = at
		}
	}
	if p[2] <= 0 && q[2] <= 0 {
		s.GirthBelowM += math.Hypot(p[1]-q[1], p[2]-q[2])
	}
}
