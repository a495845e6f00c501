package polygon

import (
	"fmt"
	"math"

	"github.com/peterstace/simplefeatures/geom"
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
	// arc is the angle between the corners of a drawn arc: an arc of radius r
	// deviates by less than 1.4e-4 · r.
	arc = math.Pi / 96
)

// Inset moves every edge of a valid polygon in by margin m ≥ 0, holes too, and
// returns what is left, in parts; none if the margin eats it all. It takes
// away a strip along every edge and a wedge at every corner that points
// inwards.
func (p Polygon) Inset(margin float64, join Join) ([]Polygon, error) {
	if margin == 0 {
		return []Polygon{p}, nil
	}
	var strips []geom.Geometry
	for i, r := range p.rings() {
		if (r.signed() > 0) != (i == 0) { // inside to the left of every edge
			r = r.reversed()
		}
		strips = append(strips, r.strips(margin, join)...)
	}
	taken, err := geom.UnionMany(strips)
	if err != nil {
		return nil, fmt.Errorf("inset: %w", err)
	}
	left, err := geom.Difference(p.geom().AsGeometry(), taken)
	if err != nil {
		return nil, fmt.Errorf("inset: %w", err)
	}
	return polygons(left), nil
}

// Rounded rounds the outward corners of a valid polygon with radius r ≥ 0; parts
// narrower than 2 r go.
func (p Polygon) Rounded(r float64) ([]Polygon, error) {
	if r == 0 {
		return []Polygon{p}, nil
	}
	cores, err := p.Inset(r, Round)
	if err != nil {
		return nil, err
	}
	var grown []geom.Geometry
	for _, c := range cores {
		grown = append(grown, c.geom().AsGeometry())
		for i, ring := range c.rings() {
			if (ring.signed() > 0) == (i == 0) { // outside to the left of every edge
				ring = ring.reversed()
			}
			grown = append(grown, ring.strips(r, Round)...)
		}
	}
	all, err := geom.UnionMany(grown)
	if err != nil {
		return nil, fmt.Errorf("round: %w", err)
	}
	return polygons(all), nil
}

func (r Ring) reversed() Ring {
	out := make(Ring, len(r))
	for i, c := range r {
		out[len(r)-1-i] = c
	}
	return out
}

// strips are the rectangles of width m to the left of every edge, and the
// wedges between them at corners that turn right.
func (r Ring) strips(m float64, join Join) []geom.Geometry {
	var out []geom.Geometry
	add := func(ring Ring) { out = append(out, geom.NewPolygon([]geom.LineString{ring.line()}).AsGeometry()) }
	n := len(r)
	left := func(a, b Point) (float64, float64, bool) {
		l := math.Hypot(b.X-a.X, b.Y-a.Y)
		return -(b.Y - a.Y) / l * m, (b.X - a.X) / l * m, l > 0
	}
	for i, a := range r {
		b, c := r[(i+1)%n], r[(i+2)%n]
		ux, uy, ok := left(a, b)
		if !ok {
			continue
		}
		add(Ring{a, b, {b.X + ux, b.Y + uy}, {a.X + ux, a.Y + uy}})
		vx, vy, ok := left(b, c)
		turn := math.Atan2(ux*vy-uy*vx, ux*vx+uy*vy)
		if !ok || turn > -1e-9 {
			continue
		}
		wedge := Ring{b, {b.X + vx, b.Y + vy}}
		if reach := 1 / math.Cos(turn/2); join == Mitre && reach <= mitreLimit {
			k := reach * reach / 2
			wedge = append(wedge, Point{b.X + k*(ux+vx), b.Y + k*(uy+vy)})
		} else if join == Round {
			steps := int(math.Ceil(-turn / arc))
			for s := 1; s < steps; s++ {
				sin, cos := math.Sincos(-turn * float64(s) / float64(steps))
				wedge = append(wedge, Point{b.X + vx*cos - vy*sin, b.Y + vx*sin + vy*cos})
			}
		}
		add(append(wedge, Point{b.X + ux, b.Y + uy}))
	}
	return out
}
