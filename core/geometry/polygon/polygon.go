// Package polygon measures outlines in the plane and moves their edges in by a
// margin. Lengths are in m, areas in m². Overlays and checks are done by simplefeatures.
package polygon

import (
	"fmt"
	"math"
	"slices"

	"allcoats/core/base/fielderr"

	"github.com/peterstace/simplefeatures/geom"
)

// Point is a corner, m.
type Point struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

// Ring is a closed line of corners, in either sense; the last joins the first.
type Ring []Point

// Polygon is an outer ring with holes.
type Polygon struct {
	Outer Ring   `json:"outer"`
	Holes []Ring `json:"holes,omitempty"`
}

// MaxCorners is the most corners that a polygon may have in all.
const MaxCorners = 4000

// extent is the largest coordinate taken, m.
const extent = 1000

// Validate reports rings that enclose nothing or cross themselves, and holes
// that are outside or meet another ring.
func (p Polygon) Validate() error {
	var bad fielderr.Errors
	total := 0
	for i, r := range p.rings() {
		path := "outer"
		if i > 0 {
			path = fmt.Sprintf("holes[%d]", i-1)
		}
		if total += len(r); total > MaxCorners {
			bad.Add(path, "more than %d corners in all", MaxCorners)
			return bad
		}
		bad.Under(path, r.validate())
	}
	if bad == nil && p.geom().Validate() != nil {
		bad.Add("holes", "each hole must lie inside the outline, clear of it and of the other holes")
	}
	return bad.Err()
}

// Tidy drops corners that repeat the one before them, the last where it repeats the first.
func (p Polygon) Tidy() Polygon {
	out := Polygon{Outer: p.Outer.tidy()}
	for _, h := range p.Holes {
		out.Holes = append(out.Holes, h.tidy())
	}
	return out
}

func (r Ring) tidy() Ring {
	out := slices.Compact(slices.Clone(r))
	for len(out) > 1 && out[len(out)-1] == out[0] {
		out = out[:len(out)-1]
	}
	return out
}

func (r Ring) validate() error {
	var bad fielderr.Errors
	if len(r) < 3 {
		bad.Add("", "needs at least three corners")
	}
	for i, c := range r {
		bad.Range(fmt.Sprintf("[%d].x", i), c.X, -extent, extent, "m")
		bad.Range(fmt.Sprintf("[%d].y", i), c.Y, -extent, extent, "m")
	}
	if bad != nil {
		return bad
	}
	if i, j, ok := r.crossing(); ok {
		bad.Add("", "crosses itself: the edge after corner %d meets the edge after corner %d", i+1, j+1)
	} else if math.Abs(r.signed()) < 1e-9 {
		bad.Add("", "encloses no area")
	}
	return bad.Err()
}

// crossing finds two edges that are no neighbours and meet.
func (r Ring) crossing() (i, j int, ok bool) {
	n := len(r)
	for i := range n {
		for j := i + 2; j < n; j++ {
			if (j+1)%n != i && meet(r[i], r[i+1], r[j], r[(j+1)%n]) {
				return i, j, true
			}
		}
	}
	return 0, 0, false
}

func meet(a, b, c, d Point) bool {
	turn := func(p, q, r Point) float64 { return (q.X-p.X)*(r.Y-p.Y) - (q.Y-p.Y)*(r.X-p.X) }
	within := func(p, q, r Point) bool {
		return min(p.X, q.X) <= r.X && r.X <= max(p.X, q.X) && min(p.Y, q.Y) <= r.Y && r.Y <= max(p.Y, q.Y)
	}
	t1, t2, t3, t4 := turn(c, d, a), turn(c, d, b), turn(a, b, c), turn(a, b, d)
	if t1*t2 < 0 && t3*t4 < 0 {
		return true
	}
	return t1 == 0 && within(c, d, a) || t2 == 0 && within(c, d, b) || t3 == 0 && within(a, b, c) || t4 == 0 &&
		within(a, b, d)
}

// signed is the area by the shoelace formula, positive anticlockwise.
func (r Ring) signed() float64 {
	sum := 0.0
	for i, a := range r {
		b := r[(i+1)%len(r)]
		sum += a.X*b.Y - b.X*a.Y
	}
	return sum / 2
}

// Length returns the length of the line round, m.
func (r Ring) Length() float64 {
	sum := 0.0
	for i, a := range r {
		b := r[(i+1)%len(r)]
		sum += math.Hypot(b.X-a.X, b.Y-a.Y)
	}
	return sum
}

func (p Polygon) rings() []Ring { return append([]Ring{p.Outer}, p.Holes...) }

// Area returns the area without the holes, m².
func (p Polygon) Area() float64 {
	a := math.Abs(p.Outer.signed())
	for _, h := range p.Holes {
		a -= math.Abs(h.signed())
	}
	return a
}

// EdgeLength returns the length of all edges, holes too: what is masked.
func (p Polygon) EdgeLength() float64 {
	sum := 0.0
	for _, r := range p.rings() {
		sum += r.Length()
	}
	return sum
}

// Centroid returns the centre of area of a polygon with area.
func (p Polygon) Centroid() Point {
	c, _ := p.geom().Centroid().XY()
	return Point{c.X, c.Y}
}

func (p Polygon) geom() geom.Polygon {
	rings := make([]geom.LineString, 0, 1+len(p.Holes))
	for _, r := range p.rings() {
		rings = append(rings, r.line())
	}
	return geom.NewPolygon(rings)
}

func (r Ring) line() geom.LineString {
	xy := make([]float64, 0, 2*len(r)+2)
	for _, c := range r {
		xy = append(xy, c.X, c.Y)
	}
	if len(r) > 0 {
		xy = append(xy, r[0].X, r[0].Y)
	}
	return geom.NewLineString(geom.NewSequence(xy, geom.DimXY))
}

// Bounds returns the corners of the box round all of s.
func (s Shape) Bounds() (lo, hi Point) {
	lo, hi = Point{math.Inf(1), math.Inf(1)}, Point{math.Inf(-1), math.Inf(-1)}
	for _, p := range s {
		for _, c := range p.Outer {
			lo, hi = Point{min(lo.X, c.X), min(lo.Y, c.Y)}, Point{max(hi.X, c.X), max(hi.Y, c.Y)}
		}
	}
	return lo, hi
}

func (r Ring) anticlockwise() Ring {
	if r.signed() < 0 {
		return r.reversed()
	}
	return r
}

func (r Ring) reversed() Ring {
	out := make(Ring, len(r))
	for i, c := range r {
		out[len(r)-1-i] = c
	}
	return out
}
