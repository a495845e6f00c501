package polygon

import (
	"math"
	"slices"

	"github.com/peterstace/simplefeatures/geom"
)

// Join is what an inset makes of a corner that points inwards.
type Join string

// Joins. A mitre keeps the corner sharp, up to mitreLimit margins long; beyond it is
// round.
const (
	Round Join = "round"
	Mitre Join = "mitre"
)

// Joins lists the joins.
var Joins = []Join{Round, Mitre}

const (
	mitreLimit = 20
	flatM      = 1e-5 // the most that an arc deviates outwards, m
)

// Inset moves every edge of a valid polygon in by margin m ≥ 0, holes too, and
// returns what is left, in parts; none if the margin eats it all. Arcs deviate by
// less than 0.01 mm.
func (p Polygon) Inset(margin float64, join Join) ([]Polygon, error) {
	return Shape{p}.Inset(margin, join)
}

// Rounded rounds the outward corners of a valid polygon with radius r ≥ 0; parts
// narrower than 2 r go.
func (p Polygon) Rounded(r float64) ([]Polygon, error) {
	core, err := p.Inset(r, Round)
	if err != nil {
		return nil, err
	}
	return Shape(core).Outset(r, Round)
}

// Inset moves every edge in by m ≥ 0: what lies in the strips along the edges goes.
func (s Shape) Inset(m float64, join Join) (Shape, error) {
	if m == 0 || len(s) == 0 {
		return s, nil
	}
	if e := s[0].Outer.anticlockwise().edges(m); len(s) == 1 && e.meet {
		left := e.shrunk()
		if left == nil || len(s[0].Holes) == 0 {
			return left, nil
		}
		holes := Shape{{Holes: s[0].Holes}}
		return left.overlay("inset", geom.Difference, holes.strips(m, join))
	}
	return s.overlay("inset", geom.Difference, s.strips(m, join))
}

// Outset moves every edge out by m ≥ 0, holes closing up; what then meets is joined.
func (s Shape) Outset(m float64, join Join) (Shape, error) {
	if m == 0 || len(s) == 0 {
		return s, nil
	}
	if len(s) == 1 && len(s[0].Holes) == 0 {
		if e := s[0].Outer.anticlockwise().edges(-m); e.part {
			return Shape{{Outer: e.grown(join)}}, nil
		}
	}
	return s.overlay("outset", geom.Union, s.strips(-m, join))
}

// strips are bands of |m| along all edges, on the inside for a positive m.
func (s Shape) strips(m float64, join Join) []geom.Geometry {
	var out []geom.Geometry
	for _, p := range s {
		for k, r := range p.rings() {
			if len(r) == 0 {
				continue
			}
			r = r.anticlockwise()
			if k > 0 {
				r = r.reversed()
			}
			if e := r.edges(m); e.part {
				out = append(out, Polygon{Outer: e.grown(join)}.geom().AsGeometry())
			} else {
				out = append(out, e.strips(join)...)
			}
		}
	}
	return out
}

// edges of a ring that has the inside on its left: how they are moved by m to the left.
type edges struct {
	Ring
	m    float64
	side []Point   // of the edge after a corner
	turn []float64 // from the edge before a corner to that after it, radians
	part bool      // the strips of all neighbours part, as round a hole
	meet bool      // they all overlap, as within a convex outline
}

func (r Ring) edges(m float64) edges {
	n := len(r)
	e := edges{r, m, make([]Point, n), make([]float64, n), true, true}
	for i, a := range r {
		b := r[(i+1)%n]
		k := m / math.Hypot(b.X-a.X, b.Y-a.Y)
		e.side[i] = Point{-k * (b.Y - a.Y), k * (b.X - a.X)}
	}
	for i, to := range e.side {
		from := e.side[(i+n-1)%n]
		e.turn[i] = math.Atan2(from.X*to.Y-from.Y*to.X, from.X*to.X+from.Y*to.Y)
		e.part, e.meet = e.part && e.turn[i]*m <= 0, e.meet && e.turn[i]*m >= 0
	}
	return e
}

// grown is the ring moved whole, where all strips part.
func (e edges) grown(join Join) Ring {
	var out Ring
	for i := range e.Ring {
		out = append(out, e.corner(i, join)...)
	}
	return out
}

// shrunk is what a convex ring leaves within all its edges moved, none if nothing.
func (e edges) shrunk() Shape {
	left := e.Ring
	for i, a := range e.Ring {
		at, side := a.plus(e.side[i]), e.side[i]
		beyond := func(p Point) float64 { return (p.X-at.X)*side.X + (p.Y-at.Y)*side.Y }
		var cut Ring
		for k, p := range left {
			q := left[(k+1)%len(left)]
			dp, dq := beyond(p), beyond(q)
			if dp >= 0 {
				cut = append(cut, p)
			}
			if dp < 0 != (dq < 0) {
				cut = append(cut, p.plus(Point{q.X - p.X, q.Y - p.Y}.times(dp/(dp-dq))))
			}
		}
		left = cut
	}
	if len(left) < 3 || left.signed() < sliver {
		return nil
	}
	return Shape{{Outer: left}}
}

// strips are the bands along the edges. Edges whose strips part share one, up to a
// quarter turn.
func (e edges) strips(join Join) (out []geom.Geometry) {
	var near, far Ring // of the strip so far, along the edges and m away
	turned := 0.0
	end := func() {
		slices.Reverse(far)
		out = append(out, Polygon{Outer: append(near, far...)}.geom().AsGeometry())
		near, far, turned = nil, nil, 0
	}
	for i, b := range e.Ring {
		part := e.turn[i]*e.m <= 0
		if turned += math.Abs(e.turn[i]); near != nil && (!part || turned > math.Pi/2) {
			end()
		}
		if near == nil {
			near = Ring{b}
		}
		if part {
			far = append(far, e.corner(i, join)...)
		} else {
			far = append(far, b.plus(e.side[i]))
		}
		c := e.Ring[(i+1)%len(e.Ring)]
		near, far = append(near, c), append(far, c.plus(e.side[i]))
	}
	end()
	return out
}

// corner is what the join makes of a corner where strips part, from the end of one to
// the beginning of the next.
func (e edges) corner(i int, join Join) Ring {
	n := len(e.Ring)
	at, from, to, turn := e.Ring[i], e.side[(i+n-1)%n], e.side[i], e.turn[i]
	out := Ring{at.plus(from)}
	if tip := 1 / math.Cos(turn/2); join == Mitre && tip <= mitreLimit {
		out = append(out, at.plus(Point{(from.X + to.X) / 2, (from.Y + to.Y) / 2}.times(tip*tip)))
	} else {
		// Lines that touch the arc from outside, so that no margin is less than asked.
		steps := max(1, math.Ceil(math.Abs(turn)/(2*math.Acos(1-flatM/math.Abs(e.m)))))
		beyond := 1 / math.Cos(turn/steps/2)
		for j := 0.5; j < steps; j++ {
			sin, cos := math.Sincos(turn * j / steps)
			out = append(out, at.plus(Point{from.X*cos - from.Y*sin, from.X*sin + from.Y*cos}.times(beyond)))
		}
	}
	return append(out, at.plus(to))
}

func (p Point) plus(q Point) Point    { return Point{p.X + q.X, p.Y + q.Y} }
func (p Point) times(k float64) Point { return Point{k * p.X, k * p.Y} }
