package mesh

import (
	"fmt"
	"math"

	"allcoats/core/base/fielderr"
)

// Offsets is a table of half-breadths at stations and waterlines, m. Heights
// are above the table's own base.
type Offsets struct {
	Waterlines []float64
	Sections   []Section
}

// Section is a station at X from aft: its half-breadths at the waterlines, nil
// where the hull does not reach, and the height of its keel, if known.
type Section struct {
	X      float64
	Halves []*float64
	Keel   *float64
}

// point of a section: half-breadth and height.
type point struct{ y, z float64 }

// outline returns a section from the keel up. Without a keel the first
// half-breadth is joined level to the centreline.
func (o Offsets) outline(s Section) []point {
	var out []point
	for i, h := range s.Halves {
		if h != nil && (s.Keel == nil || o.Waterlines[i] >= *s.Keel) {
			out = append(out, point{*h, o.Waterlines[i]})
		}
	}
	if s.Keel != nil {
		return append([]point{{0, *s.Keel}}, out...)
	}
	if len(out) > 0 && out[0].y > 0 {
		return append([]point{{0, out[0].z}}, out...)
	}
	return out
}

// Validate reports waterlines and stations out of order, negative
// half-breadths, gaps in a section, and too few of anything. Its paths are
// "waterlines" and "sections[i]".
func (o Offsets) Validate() error {
	var bad fielderr.Errors
	if len(o.Waterlines) < 2 {
		bad.Add("waterlines", "at least two waterlines are needed")
	}
	for i := 1; i < len(o.Waterlines); i++ {
		if o.Waterlines[i] <= o.Waterlines[i-1] {
			bad.Add("waterlines", "heights must rise: %g m does not lie above %g m", o.Waterlines[i], o.Waterlines[i-1])
		}
	}
	if len(o.Sections) < 3 {
		bad.Add("waterlines", "at least three stations are needed")
	}
	for i, s := range o.Sections {
		path := fmt.Sprintf("sections[%d]", i)
		if i > 0 && s.X <= o.Sections[i-1].X {
			bad.Add(path, "stations must go from aft forward: %g m does not lie beyond %g m", s.X, o.Sections[i-1].X)
		}
		if len(s.Halves) != len(o.Waterlines) {
			bad.Add(path, "needs a half-breadth or nothing for each waterline")
			continue
		}
		ended, begun := false, false
		for _, h := range s.Halves {
			switch {
			case h != nil && (*h < 0 || *h > mostSize/2):
				bad.Add(path, "a half-breadth of %g m cannot be", *h)
			case h != nil && ended:
				bad.Add(path, "a half-breadth is missing between others")
			case h != nil:
				begun = true
			case begun:
				ended = true
			}
		}
		if bad == nil && len(o.outline(s)) < 2 {
			bad.Add(path, "needs at least two points")
		}
	}
	return bad.Err()
}

// girthPoints is how many points a section is drawn anew with, evenly along its
// girth.
const girthPoints = 41

// Loft joins the sections by straight lines between points at equal parts of
// their girths, on both sides of the centreline (port is +y). It lies inside a
// hull that is curved between stations, so its area is a little small.
func (o Offsets) Loft() (Mesh, error) {
	if err := o.Validate(); err != nil {
		return Mesh{}, err
	}
	var m Mesh
	for _, s := range o.Sections {
		for _, p := range even(o.outline(s)) {
			m.Vertices = append(m.Vertices, Vec{s.X, p.y, p.z}, Vec{s.X, -p.y, p.z})
		}
	}
	at := func(station, k, side int) int32 {
		i := (station*girthPoints + k) * 2
		if m.Vertices[i][1] == 0 { // on the centreline both sides have one point
			side = 0
		}
		return int32(i + side)
	}
	for i := range len(o.Sections) - 1 {
		for k := range girthPoints - 1 {
			for side := range 2 {
				a, b, c, d := at(i, k, side), at(i+1, k, side), at(i+1, k+1, side), at(i, k+1, side)
				if side == 0 { // port faces out to +y
					a, b, c, d = b, a, d, c
				}
				m.Triangles = append(m.Triangles, [3]int32{a, b, c}, [3]int32{a, c, d})
				m.Faces++
			}
		}
	}
	return m, nil
}

// even draws a line anew with girthPoints points evenly along it.
func even(p []point) []point {
	along := make([]float64, len(p))
	for i := 1; i < len(p); i++ {
		along[i] = along[i-1] + math.Hypot(p[i].y-p[i-1].y, p[i].z-p[i-1].z)
	}
	total := along[len(p)-1]
	out := make([]point, girthPoints)
	for k, i := 0, 0; k < girthPoints; k++ {
		s := total * float64(k) / (girthPoints - 1)
		for i < len(p)-2 && along[i+1] < s {
			i++
		}
		t := 0.0
		if d := along[i+1] - along[i]; d > 0 {
			t = (s - along[i]) / d
		}
		out[k] = point{p[i].y + t*(p[i+1].y-p[i].y), p[i].z + t*(p[i+1].z-p[i].z)}
	}
	return out
}
