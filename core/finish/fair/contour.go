package fair

import (
	"math"

	"allcoats/core/boat/outline"
)

// Contour is where a depth begins on a view, as closed outlines: filler (+) or grinding (−), mm.
type Contour struct {
	View    string            `json:"view"`
	DepthMM float64           `json:"depthMM"`
	Rings   [][]outline.Point `json:"rings"`
}

// depths are those at which contours are drawn, mm.
var depths = []float64{0.25, 0.5, 1, 2, 4, 8, 16, 32, 64}

// mostAcross bounds the places a contour is looked for at, on each side of a view.
const mostAcross = 160

// Contours draws the depths of a chart on every view that it lies on, from the least worth filling.
func (c Chart) Contours(leastMM float64) []Contour {
	out := []Contour{}
	seen := map[string]bool{}
	var views []string
	points := map[string][]outline.Point{}
	at := func(view string, p ...outline.Point) {
		if !seen[view] {
			seen[view] = true
			views = append(views, view)
		}
		points[view] = append(points[view], p...)
	}
	for _, s := range c.strips {
		for _, end := range []float64{0, 1} {
			at(s.on.View, s.on.at(end, -s.widthM/2), s.on.at(end, s.widthM/2))
		}
	}
	for _, l := range c.lows {
		at(l.View, l.Points...)
	}
	for _, v := range views {
		lo, hi := bounds(points[v])
		step := max(0.005, max(hi.X-lo.X, hi.Y-lo.Y)/mostAcross)
		out = append(out, c.within(v, lo, hi, step, max(seenMM, leastMM))...)
	}
	return out
}

// Of draws the depths of a patch in its box, every 5 mm or as many as are needed.
func (c Chart) Of(p Patch, leastMM float64) []Contour {
	step := max(0.005, max(p.Max.X-p.Min.X, p.Max.Y-p.Min.Y)/mostAcross)
	return c.within(p.View, p.Min, p.Max, step, max(seenMM, leastMM))
}

func (c Chart) within(view string, lo, hi outline.Point, step, least float64) []Contour {
	nx, ny := int(math.Ceil((hi.X-lo.X)/step-1e-9))+1, int(math.Ceil((hi.Y-lo.Y)/step-1e-9))+1
	z := make([]float64, nx*ny)
	deepest, highest, depthAt := 0.0, 0.0, c.depthsOn(view)
	for y := range ny {
		for x := range nx {
			d := depthAt(outline.Point{X: min(hi.X, lo.X+float64(x)*step), Y: min(hi.Y, lo.Y+float64(y)*step)})
			z[y*nx+x] = d
			deepest, highest = max(deepest, d), max(highest, -d)
		}
	}
	var out []Contour
	draw := func(sign, level float64) {
		rings := isolines(z, nx, ny, sign, level)
		for i, r := range rings {
			for j, p := range r {
				rings[i][j] = outline.Point{X: min(hi.X, max(lo.X, lo.X+p.X*step)),
					Y: min(hi.Y, max(lo.Y, lo.Y+p.Y*step))}
			}
		}
		if len(rings) > 0 {
			out = append(out, Contour{view, sign * level, rings})
		}
	}
	for _, d := range depths {
		if d >= least && d < deepest {
			draw(1, d)
		}
		if d >= least && d < highest {
			draw(-1, d)
		}
	}
	return out
}

// isolines are the closed lines round where sign·z reaches level, in steps of the lattice; beyond its
// edge nothing does. Each runs with the inside to its left.
func isolines(z []float64, nx, ny int, sign, level float64) [][]outline.Point {
	at := func(x, y int) float64 {
		if x < 0 || y < 0 || x >= nx || y >= ny {
			return 0
		}
		return sign * z[y*nx+x]
	}
	type edge struct {
		x, y int
		up   bool // else to the right
	}
	cross := func(e edge) outline.Point {
		a, b := at(e.x, e.y), at(e.x+1, e.y)
		if e.up {
			b = at(e.x, e.y+1)
		}
		t := (level - a) / (b - a)
		if e.up {
			return outline.Point{X: float64(e.x), Y: float64(e.y) + t}
		}
		return outline.Point{X: float64(e.x) + t, Y: float64(e.y)}
	}
	next := map[edge]edge{}
	var order []edge
	link := func(from, to edge) {
		next[from] = to
		order = append(order, from)
	}
	for y := -1; y < ny; y++ {
		for x := -1; x < nx; x++ {
			a, b, cc, d := at(x, y) >= level, at(x+1, y) >= level, at(x+1, y+1) >= level, at(x, y+1) >= level
			if a == b && b == cc && cc == d {
				continue
			}
			bottom, top, left, right := edge{x, y, false}, edge{x, y + 1, false}, edge{x, y, true}, edge{x + 1, y, true}
			// Round the cell: a line leaves through a side where the inside ends.
			var in, out []edge
			for _, s := range []struct {
				from, to bool
				e        edge
			}{{a, b, bottom}, {b, cc, right}, {cc, d, top}, {d, a, left}} {
				switch {
				case s.from && !s.to:
					in = append(in, s.e)
				case !s.from && s.to:
					out = append(out, s.e)
				}
			}
			switch len(in) {
			case 1:
				link(in[0], out[0])
			case 2: // a saddle: parted
				if a {
					link(bottom, left)
					link(top, right)
				} else {
					link(right, bottom)
					link(left, top)
				}
			}
		}
	}
	var rings [][]outline.Point
	for _, first := range order {
		var ring []outline.Point
		for e, ok := next[first]; ok; e, ok = next[e] {
			ring = append(ring, cross(e))
			delete(next, first)
			first = e
		}
		if len(ring) > 2 {
			rings = append(rings, ring)
		}
	}
	return rings
}
