package polygon

import (
	"fmt"
	"math"

	"github.com/tdewolff/canvas"
)

// Join is what an inset makes of a corner that points inwards.
type Join string

// Joins. A mitre keeps the corner sharp, up to mitreLimit margins long.
const (
	Round Join = "round"
	Mitre Join = "mitre"
)

// Joins lists the joins.
var Joins = []Join{Round, Mitre}

const (
	mitreLimit = 20
	mm         = 1000 // the drawing library is fed millimetres
	flatMM     = 0.01
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

// Shape is a set of polygons that do not overlap. The zero value is empty.
type Shape []Polygon

// Area returns the area of all, m².
func (s Shape) Area() float64 {
	sum := 0.0
	for _, p := range s {
		sum += p.Area()
	}
	return sum
}

// EdgeLength returns the length of all edges, m.
func (s Shape) EdgeLength() float64 {
	sum := 0.0
	for _, p := range s {
		sum += p.EdgeLength()
	}
	return sum
}

// Inset moves every edge in by m ≥ 0.
func (s Shape) Inset(m float64, join Join) (out Shape, err error) {
	if m == 0 || len(s) == 0 {
		return s, nil
	}
	if join == Round {
		return overlay("inset", func() *canvas.Path { return s.moved(-m) })
	}
	return overlay("inset", func() *canvas.Path { return s.path().Not(s.mitred(m)) })
}

// Outset moves every edge out by m ≥ 0, holes closing up; what then meets is joined.
func (s Shape) Outset(m float64, join Join) (Shape, error) {
	if m == 0 || len(s) == 0 {
		return s, nil
	}
	if join == Round {
		return overlay("outset", func() *canvas.Path { return s.moved(m) })
	}
	return overlay("outset", func() *canvas.Path { return s.path().Or(s.mitred(m)) })
}

// mitred is the strip of m on both sides of all edges, its corners sharp.
func (s Shape) mitred(m float64) *canvas.Path {
	return s.path().Stroke(2*m*mm, canvas.ButtCap, canvas.MiterJoiner{GapJoiner: canvas.BevelJoin, Limit: mitreLimit}, flatMM)
}

// Less returns s without what lies in any of the others, in parts.
func (s Shape) Less(others ...Shape) (Shape, error) {
	cut := &canvas.Path{}
	for _, o := range others {
		cut = cut.Append(o.path())
	}
	if len(s) == 0 || cut.Empty() {
		return s, nil
	}
	return overlay("difference", func() *canvas.Path { return s.path().Not(cut.Settle(canvas.NonZero)) })
}

// With returns what lies in s or in one of the others.
func (s Shape) With(others ...Shape) (Shape, error) {
	return overlay("union", func() *canvas.Path {
		all := s.path()
		for _, o := range others {
			if p := o.path(); all.Empty() {
				all = p
			} else if !p.Empty() {
				all = all.Or(p)
			}
		}
		return all
	})
}

// Within returns what lies in s and in o.
func (s Shape) Within(o Shape) (Shape, error) {
	if len(s) == 0 || len(o) == 0 {
		return nil, nil
	}
	return overlay("intersection", func() *canvas.Path { return s.path().And(o.path()) })
}

// Mirrored returns s mirrored about the line y = 0.
func (s Shape) Mirrored() Shape {
	flip := func(r Ring) Ring {
		out := r.reversed()
		for i := range out {
			out[i].Y = -out[i].Y
		}
		return out
	}
	out := make(Shape, len(s))
	for i, p := range s {
		out[i].Outer = flip(p.Outer)
		for _, h := range p.Holes {
			out[i].Holes = append(out[i].Holes, flip(h))
		}
	}
	return out
}

// Placed returns s with every corner put elsewhere; to must not turn rings over.
func (s Shape) Placed(to func(Point) Point) Shape {
	move := func(r Ring) Ring {
		out := make(Ring, len(r))
		for i, c := range r {
			out[i] = to(c)
		}
		return out
	}
	out := make(Shape, len(s))
	for i, p := range s {
		out[i].Outer = move(p.Outer)
		for _, h := range p.Holes {
			out[i].Holes = append(out[i].Holes, move(h))
		}
	}
	return out
}

// FromPath reads a path of the drawing library, drawn in mm, with curves flattened and
// overlaps joined.
func FromPath(p *canvas.Path) (Shape, error) {
	return overlay("path", func() *canvas.Path { return p.Flatten(flatMM).Settle(canvas.NonZero) })
}

// moved moves all edges out by m, in for a negative one.
func (s Shape) moved(m float64) *canvas.Path {
	outer, holes := &canvas.Path{}, &canvas.Path{}
	for _, p := range s {
		outer = outer.Append(p.Outer.path(true).Offset(m*mm, flatMM).Flatten(flatMM))
		for _, h := range p.Holes {
			holes = holes.Append(h.path(true).Offset(-m*mm, flatMM).Flatten(flatMM))
		}
	}
	if m > 0 && len(s) > 1 {
		outer = outer.Settle(canvas.NonZero)
	}
	if holes.Empty() || outer.Empty() {
		return outer
	}
	return outer.Not(holes.Settle(canvas.NonZero))
}

// overlay runs one of the drawing library's operations, which panic on input that
// degenerates.
func overlay(what string, do func() *canvas.Path) (out Shape, err error) {
	defer func() {
		if r := recover(); r != nil {
			out, err = nil, fmt.Errorf("%s: %v", what, r)
		}
	}()
	return shapeOf(do()), nil
}

// path draws a shape in mm, outer rings anticlockwise, holes clockwise.
func (s Shape) path() *canvas.Path {
	out := &canvas.Path{}
	for _, p := range s {
		for i, r := range p.rings() {
			out = out.Append(r.path(i == 0))
		}
	}
	return out
}

// path draws a ring in mm.
func (r Ring) path(anticlockwise bool) *canvas.Path {
	if (r.signed() > 0) != anticlockwise {
		r = r.reversed()
	}
	out := &canvas.Path{}
	for i, c := range r {
		if i == 0 {
			out.MoveTo(mm*c.X, mm*c.Y)
		} else {
			out.LineTo(mm*c.X, mm*c.Y)
		}
	}
	out.Close()
	return out
}

// sliver is the area, m², under which a ring is a seam of the overlay and dropped.
const sliver = 1e-9

// shapeOf reads a settled path; the library does not tell holes by the sense of their
// rings alone.
func shapeOf(p *canvas.Path) Shape {
	var rings []Ring
	for _, sub := range p.Split() {
		var r Ring
		for _, c := range sub.Coords() {
			q := Point{c.X / mm, c.Y / mm}
			if len(r) == 0 || r[len(r)-1] != q {
				r = append(r, q)
			}
		}
		if n := len(r); n > 1 && r[0] == r[n-1] {
			r = r[:n-1]
		}
		rings = append(rings, r)
	}
	return FromRings(rings)
}

// FromRings makes a shape of rings that do not cross, such as those of a drawing: what
// lies in an odd number of others is a hole of the smallest of them. Rings without area
// are dropped.
func FromRings(all []Ring) Shape {
	var rings []Polygon
	for _, r := range all {
		if len(r) < 3 || math.Abs(r.signed()) < sliver {
			continue
		}
		if r.signed() < 0 {
			r = r.reversed()
		}
		rings = append(rings, Polygon{Outer: r})
	}
	out := Shape{}
	home := make([]int, len(rings)) // of an outer ring its place in out, of a hole the ring round it
	var holes []int
	for i, r := range rings {
		depth, least := 0, -1
		if len(rings) > 1 {
			at := r.Inner()
			for k, o := range rings {
				if k != i && o.Outer.signed() > r.Outer.signed() && o.Outer.Contains(at) {
					if depth++; least < 0 || o.Outer.signed() < rings[least].Outer.signed() {
						least = k
					}
				}
			}
		}
		if depth%2 == 1 {
			home[i] = least
			holes = append(holes, i)
			continue
		}
		home[i] = len(out)
		out = append(out, r)
	}
	for _, h := range holes {
		o := &out[home[home[h]]]
		o.Holes = append(o.Holes, rings[h].Outer.reversed())
	}
	return out
}

// Contains reports whether p lies inside the ring, by counting crossings; on its edge
// either may be said.
func (r Ring) Contains(p Point) bool {
	in := false
	for i, a := range r {
		b := r[(i+1)%len(r)]
		if (a.Y > p.Y) != (b.Y > p.Y) && p.X < a.X+(p.Y-a.Y)/(b.Y-a.Y)*(b.X-a.X) {
			in = !in
		}
	}
	return in
}

// Contains reports whether p lies in the polygon and in none of its holes.
func (p Polygon) Contains(at Point) bool {
	for _, h := range p.Holes {
		if h.Contains(at) {
			return false
		}
	}
	return p.Outer.Contains(at)
}

// Inner returns a point inside a polygon with area.
func (p Polygon) Inner() Point {
	at, _ := p.geom().PointOnSurface().XY()
	return Point{at.X, at.Y}
}

// ToEdge is the distance of a point from the nearest edge, m.
func (p Polygon) ToEdge(at Point) float64 {
	best := math.Inf(1)
	for _, r := range p.rings() {
		for i, a := range r {
			b := r[(i+1)%len(r)]
			dx, dy := b.X-a.X, b.Y-a.Y
			t := 0.0
			if l := dx*dx + dy*dy; l > 0 {
				t = max(0, min(1, ((at.X-a.X)*dx+(at.Y-a.Y)*dy)/l))
			}
			x, y := at.X-a.X-t*dx, at.Y-a.Y-t*dy
			best = min(best, x*x+y*y)
		}
	}
	return math.Sqrt(best)
}
