package polygon

import (
	"fmt"
	"math"

	"github.com/peterstace/simplefeatures/geom"
)

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

// Less returns s without what lies in any of the others, in parts.
func (s Shape) Less(others ...Shape) (Shape, error) {
	var cut []geom.Geometry
	for _, o := range others {
		cut = append(cut, o.geometries()...)
	}
	if len(s) == 0 || len(cut) == 0 {
		return s, nil
	}
	return s.overlay("difference", geom.Difference, cut)
}

// With returns what lies in s or in one of the others.
func (s Shape) With(others ...Shape) (Shape, error) {
	var all []geom.Geometry
	for _, o := range others {
		all = append(all, o.geometries()...)
	}
	return s.overlay("union", geom.Union, all)
}

// Within returns what lies in s and in o.
func (s Shape) Within(o Shape) (Shape, error) {
	if len(s) == 0 || len(o) == 0 {
		return nil, nil
	}
	return s.overlay("intersection", geom.Intersection, o.geometries())
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

// overlay does one of the library's operations with what lies in any of the others.
func (s Shape) overlay(what string, do func(a, b geom.Geometry) (geom.Geometry, error),
	others []geom.Geometry) (Shape, error) {
	g, err := do(geom.NewGeometryCollection(s.geometries()).AsGeometry(), geom.NewGeometryCollection(others).AsGeometry())
	if err != nil {
		return nil, fmt.Errorf("%s: %w", what, err)
	}
	return shapeOf(g), nil
}

func (s Shape) geometries() []geom.Geometry {
	out := make([]geom.Geometry, len(s))
	for i, p := range s {
		out[i] = p.geom().AsGeometry()
	}
	return out
}

// sliver is the area, m², under which a ring is a seam of the overlay and dropped.
const sliver = 1e-9

// shapeOf takes the polygons of a geometry; points and lines where shapes only touch
// are dropped, as are seams.
func shapeOf(g geom.Geometry) Shape {
	var out Shape
	for _, part := range g.Dump() {
		p, ok := part.AsPolygon()
		if !ok || p.Area() < sliver {
			continue
		}
		one := Polygon{Outer: ringOf(p.ExteriorRing())}
		for i := range p.NumInteriorRings() {
			if h := ringOf(p.InteriorRingN(i)); math.Abs(h.signed()) >= sliver {
				one.Holes = append(one.Holes, h)
			}
		}
		out = append(out, one)
	}
	return out
}

// ringOf leaves corners out that lie on the line between their neighbours.
func ringOf(l geom.LineString) Ring {
	c := l.Coordinates()
	n := c.Length() - 1 // the last is the first again
	out := make(Ring, 0, n)
	at := func(i int) Point { p := c.GetXY((i + n) % n); return Point{p.X, p.Y} }
	for i := range n {
		a, p, b := at(i-1), at(i), at(i+1)
		if len(out) > 0 {
			a = out[len(out)-1]
		}
		if math.Abs((p.X-a.X)*(b.Y-a.Y)-(p.Y-a.Y)*(b.X-a.X)) > straightM*math.Hypot(b.X-a.X, b.Y-a.Y) {
			out = append(out, p)
		}
	}
	return out
}

// straightM is how far a corner may lie off the line between its neighbours and be none.
const straightM = 1e-9

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
