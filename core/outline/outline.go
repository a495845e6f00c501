// Package outline draws a boat from her principal dimensions: side, plan and
// bottom, as parts that surfaces can be picked on. The curves are drawn, not
// lofted: right in length, beam, draught and freeboard, a likeness between.
package outline

import (
	"math"

	"allcoats/core/area"
)

// Point is in metres; x from the aft end forward, y across (starboard
// positive) in plan, up from the waterline in the side view.
type Point struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

// Shape is a part of the boat that can be picked.
type Shape struct {
	Part   area.Part `json:"part"`
	Side   area.Side `json:"side"`
	Points []Point   `json:"points"`
}

// View is one drawing. Lines are drawn but not picked.
type View struct {
	Name   string    `json:"name"`
	Shapes []Shape   `json:"shapes"`
	Lines  [][]Point `json:"lines"`
	Min    Point     `json:"min"`
	Max    Point     `json:"max"`
}

const samples = 28

// Views returns port side, starboard side, plan and bottom of a boat with
// valid dimensions d.
func Views(d area.Dimensions) []View {
	return []View{side(d, area.Port), side(d, area.Starboard), plan(d), bottom(d)}
}

// aft and fore are the ends of the waterline: two fifths of the overhang aft.
func ends(d area.Dimensions) (aft, fore float64) {
	aft = 0.4 * (d.LOAM - d.LWLM)
	return aft, aft + d.LWLM
}

// sheer is the height of the deck edge at x: lowest at 0.4 of the length,
// higher forward, its mean about the freeboard.
func sheer(d area.Dimensions, x float64) float64 {
	u := x/d.LOAM - 0.4
	return d.FreeboardM * (0.88 + 0.95*u*u)
}

// keel is the depth below the waterline at u in [0, 1] from aft.
func keel(d area.Dimensions, u float64) float64 {
	switch d.HullForm {
	case area.FullMotor: // deep along, rising at the forefoot
		return -d.DraughtM * (1 - math.Pow(u, 6))
	case area.FinKeel: // shallow canoe body; the fin is drawn on it
		return -0.3 * d.DraughtM * math.Pow(math.Sin(math.Pi*min(1, 0.04+u*0.96)), 0.6)
	}
	return -d.DraughtM * math.Pow(math.Sin(math.Pi*(0.12+0.88*u)), 0.75)
}

func side(d area.Dimensions, s area.Side) View {
	aft, fore := ends(d)
	var top, under []Point
	for i := 0; i <= samples; i++ {
		x := d.LOAM * float64(i) / samples
		top = append(top, Point{x, sheer(d, x)})
	}
	topsides := append(append([]Point{{aft, 0}}, top...), Point{fore, 0})
	under = append(under, Point{aft, 0})
	for i := 0; i <= samples; i++ {
		u := float64(i) / samples
		under = append(under, Point{aft + u*d.LWLM, keel(d, u)})
	}
	under = append(under, Point{fore, 0})
	shapes := []Shape{{area.Topsides, s, topsides}, {area.Bottom, area.Both, under}}
	if d.HullForm == area.FinKeel {
		x := func(u float64) float64 { return aft + u*d.LWLM }
		shapes = append(shapes,
			Shape{area.Bottom, area.Both, []Point{{x(0.42), 0.9 * keel(d, 0.42)}, {x(0.64), 0.9 * keel(d, 0.64)}, {x(0.60), -d.DraughtM}, {x(0.40), -d.DraughtM}}},
			Shape{area.Bottom, area.Both, []Point{{x(0.04), 0.6 * keel(d, 0.04)}, {x(0.13), 0.8 * keel(d, 0.13)}, {x(0.11), -0.75 * d.DraughtM}, {x(0.05), -0.75 * d.DraughtM}}})
	}
	v := View{Name: string(s) + " side", Shapes: shapes, Lines: [][]Point{{{-0.02 * d.LOAM, 0}, {1.02 * d.LOAM, 0}}}}
	if s == area.Starboard {
		return v.framed()
	}
	return v.mirrored(d.LOAM).framed()
}

// halfBeam is the half-breadth at u in [0, 1] from aft: full to the stern for
// motor hulls, drawn in for the others, a point at the stem.
func halfBeam(d area.Dimensions, u float64) float64 {
	stern := map[area.HullForm]float64{area.FullMotor: 0.88, area.Medium: 0.35, area.FinKeel: 0.6}[d.HullForm]
	const widest = 0.42
	if u < widest {
		f := 1 - u/widest
		return d.BeamM / 2 * (1 - (1-stern)*f*f)
	}
	f := (u - widest) / (1 - widest)
	return d.BeamM / 2 * (1 - math.Pow(f, 2.4))
}

// half is the outline of one side from the centreline aft to the stem, with
// half-breadths times scale, s = 1 to starboard and −1 to port.
func half(d area.Dimensions, from, length, scale, s float64) []Point {
	out := []Point{{from, 0}}
	for i := 0; i <= samples; i++ {
		u := float64(i) / samples
		out = append(out, Point{from + u*length, s * scale * halfBeam(d, u)})
	}
	return out
}

func closed(d area.Dimensions, from, length, scale float64) []Point {
	out := half(d, from, length, scale, 1)
	port := half(d, from, length, scale, -1)
	for i := len(port) - 1; i >= 0; i-- {
		out = append(out, port[i])
	}
	return out
}

func plan(d area.Dimensions) View {
	v := View{Name: "plan", Shapes: []Shape{
		{area.Topsides, area.Starboard, half(d, 0, d.LOAM, 1, 1)},
		{area.Topsides, area.Port, half(d, 0, d.LOAM, 1, -1)},
		{area.Deck, area.Both, closed(d, 0.015*d.LOAM, 0.965*d.LOAM, 0.93)},
	}}
	if d.HousesM2 > 0 {
		// Houses and openings as one block of their area about the middle.
		w := min(0.62*d.BeamM, math.Sqrt(d.HousesM2*d.BeamM/d.LOAM)*1.2)
		l := min(d.HousesM2/w, 0.7*d.LOAM)
		x0 := 0.45*d.LOAM - l/2
		v.Lines = append(v.Lines, []Point{{x0, -w / 2}, {x0 + l, -w / 2}, {x0 + l, w / 2}, {x0, w / 2}, {x0, -w / 2}})
	}
	return v.framed()
}

func bottom(d area.Dimensions) View {
	aft, fore := ends(d)
	return View{Name: "bottom", Shapes: []Shape{
		{area.Bottom, area.Both, closed(d, aft, d.LWLM, 0.92)},
	}, Lines: [][]Point{{{aft, 0}, {fore, 0}}}}.framed()
}

// mirrored turns the view end for end, so that the bow of a port side points
// left.
func (v View) mirrored(length float64) View {
	flip := func(ps []Point) {
		for i := range ps {
			ps[i].X = length - ps[i].X
		}
	}
	for _, s := range v.Shapes {
		flip(s.Points)
	}
	for _, l := range v.Lines {
		flip(l)
	}
	return v
}

// framed fills in the extent.
func (v View) framed() View {
	v.Min, v.Max = Point{math.Inf(1), math.Inf(1)}, Point{math.Inf(-1), math.Inf(-1)}
	grow := func(ps []Point) {
		for _, p := range ps {
			v.Min = Point{min(v.Min.X, p.X), min(v.Min.Y, p.Y)}
			v.Max = Point{max(v.Max.X, p.X), max(v.Max.Y, p.Y)}
		}
	}
	for _, s := range v.Shapes {
		grow(s.Points)
	}
	for _, l := range v.Lines {
		grow(l)
	}
	if v.Lines == nil {
		v.Lines = [][]Point{}
	}
	return v
}
