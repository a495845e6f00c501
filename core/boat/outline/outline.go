// Package outline draws a boat as a map: side, plan and bottom views from her
// dimensions, 3-D file or table of offsets, with her surfaces as parts that can
// be picked, and what is not on the hull beside it.
package outline

import (
	"math"
	"slices"

	"allcoats/core/boat/area"
	"allcoats/core/geometry/mesh"
)

// Point is in metres; x from the aft end forward, y up from the waterline in
// the side views, to starboard in plan and bottom.
type Point struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

// Surface is a surface to be placed on the map.
type Surface struct {
	ID     string
	Part   area.Part
	Side   area.Side
	AreaM2 float64
}

// Shape is a part of a view that can be picked. Label is a point inside it,
// where it is widest.
type Shape struct {
	SurfaceID string  `json:"surfaceId"`
	Points    []Point `json:"points"`
	Label     Point   `json:"label"`
}

// View is one drawing. Lines are drawn but not picked. Up says that y points
// up, Mirrored that x points to the left.
type View struct {
	Name   string    `json:"name"`
	Up     bool      `json:"up"`
	Mirror bool      `json:"mirror"`
	Shapes []Shape   `json:"shapes"`
	Lines  [][]Point `json:"lines"`
	Min    Point     `json:"min"`
	Max    Point     `json:"max"`
}

// Names of the views.
const (
	PortSide      = "port side"
	StarboardSide = "starboard side"
	Plan          = "plan"
	Under         = "bottom"
	Apart         = "apart from the hull"
)

// Up reports whether y points up on a view.
func Up(view string) bool { return view != Plan && view != Under && view != Apart }

// region is a place on a view: its part, the sides it shows and its outline.
type region struct {
	part   area.Part
	side   area.Side
	points []Point
}

func keelLine(s mesh.Station) float64  { return s.KeelM }
func sheerLine(s mesh.Station) float64 { return s.SheerM }
func level(z float64) func(mesh.Station) float64 {
	return func(mesh.Station) float64 { return z }
}

// Map draws a boat with her surfaces. Surfaces that share a place are drawn
// side by side in it, in their order from aft; those without a place on the
// hull stand apart.
func Map(p Profile, surfaces []Surface) []View {
	has := func(part area.Part) bool {
		return slices.ContainsFunc(surfaces, func(s Surface) bool { return s.Part == part })
	}
	views := []View{
		{Name: PortSide, Up: true, Mirror: true},
		{Name: StarboardSide, Up: true},
		{Name: Plan},
		{Name: Under},
	}
	placed := map[string]bool{}
	water := []Point{{-0.02 * p.LengthM, 0}, {1.02 * p.LengthM, 0}}
	for i := range views {
		v := &views[i]
		var regions []region
		switch v.Name {
		case PortSide:
			regions = p.side(area.Port, has)
			v.Lines = append(v.Lines, water)
		case StarboardSide:
			regions = p.side(area.Starboard, has)
			v.Lines = append(v.Lines, water)
		case Plan:
			regions = p.plan(has)
		case Under:
			regions = p.under(has)
			v.Lines = append(v.Lines, []Point{{0.02 * p.LengthM, 0}, {0.98 * p.LengthM, 0}})
		}
		for _, r := range regions {
			if len(r.points) < 3 {
				continue
			}
			var here []Surface
			for _, s := range surfaces {
				if s.Part == r.part && (s.Side == r.side || s.Side == area.Both || r.side == area.Both) {
					here = append(here, s)
					placed[s.ID] = true
				}
			}
			if len(here) == 0 {
				v.Lines = append(v.Lines, append(slices.Clone(r.points), r.points[0]))
				continue
			}
			for k, s := range here {
				if points := slice(r.points, k, len(here)); len(points) >= 3 {
					v.Shapes = append(v.Shapes, Shape{s.ID, points, inside(points)})
				}
			}
		}
	}
	if apart := beside(p, surfaces, placed); len(apart.Shapes) > 0 {
		views = append(views, apart)
	}
	for i := range views {
		views[i].frame()
	}
	return views
}

// side lists the regions of a side view, from behind forward.
func (p Profile) side(s area.Side, has func(area.Part) bool) []region {
	l := p.LengthM
	boot := 0.0
	if has(area.BootTop) {
		boot = max(0.12, 0.015*l)
	}
	upper := func(st mesh.Station) float64 { return max(st.KeelM, boot) }
	out := []region{
		{area.Bottom, area.Both, p.between(0, 1, level(0), keelLine)},
		{area.Topsides, s, p.between(0, 1, sheerLine, upper)},
	}
	add := func(part area.Part, side area.Side, points []Point) {
		if has(part) {
			out = append(out, region{part, side, points})
		}
	}
	add(area.BootTop, s, p.between(0, 1, level(boot), func(st mesh.Station) float64 { return max(st.KeelM, 0) }))
	add(area.Rails, s, p.between(0, 1, func(st mesh.Station) float64 { return st.SheerM + 0.016*l }, sheerLine))
	above := func(h float64) func(mesh.Station) float64 {
		return func(st mesh.Station) float64 { return st.SheerM + h }
	}
	add(area.CabinSides, s, p.between(0.36, 0.68, above(0.06*l), above(0.02*l)))
	add(area.Coamings, s, p.between(0.12, 0.34, above(0.045*l), above(0.02*l)))
	if has(area.Keel) || p.FinKeel {
		part := area.Bottom
		if has(area.Keel) {
			part = area.Keel
		}
		if p.FinKeel {
			top := func(u float64) Point { return Point{u * l, 0.9 * p.at(u).KeelM} }
			out = append(out, region{part, area.Both, []Point{top(0.42), top(0.62), {0.59 * l, -p.DraughtM},
				{0.41 * l, -p.DraughtM}}})
		} else {
			out = append(out, region{part, area.Both, p.between(0.2, 0.8, func(st mesh.Station) float64 {
				return 0.72 * st.KeelM
			}, keelLine)})
		}
	}
	if has(area.Rudder) {
		top, foot := min(0, 0.5*p.at(0.1).KeelM), -0.8*p.DraughtM
		out = append(out, region{area.Rudder, area.Both, []Point{{-0.025 * l, top}, {0.045 * l, top}, {0.035 * l, foot},
			{-0.02 * l, foot}}})
	}
	skeg := 0.6 * p.at(0.12).KeelM
	add(area.Skeg, area.Both, []Point{{0.06 * l, skeg}, {0.16 * l, skeg}, {0.08 * l, 0.75 * -p.DraughtM},
		{0.06 * l, 0.75 * -p.DraughtM}})
	add(area.Struts, area.Both, []Point{{0.15 * l, 0.7 * p.at(0.16).KeelM}, {0.165 * l, 0.7 * p.at(0.16).KeelM},
		{0.13 * l, 1.1 * p.at(0.16).KeelM}, {0.115 * l, 1.1 * p.at(0.16).KeelM}})
	return out
}

func scaled(k float64) func(mesh.Station) float64 {
	return func(s mesh.Station) float64 { return k * s.HalfM }
}

// plan lists the regions seen from above.
func (p Profile) plan(has func(area.Part) bool) []region {
	l := p.LengthM
	out := []region{
		{area.Topsides, area.Starboard, p.between(0, 1, scaled(1), scaled(0.9))},
		{area.Topsides, area.Port, p.between(0, 1, scaled(-0.9), scaled(-1))},
		{area.Deck, area.Both, p.between(0.012, 0.985, scaled(0.9), scaled(-0.9))},
	}
	add := func(part area.Part, side area.Side, points []Point) {
		if has(part) {
			out = append(out, region{part, side, points})
		}
	}
	add(area.Rails, area.Starboard, p.between(0, 1, scaled(0.95), scaled(0.9)))
	add(area.Rails, area.Port, p.between(0, 1, scaled(-0.9), scaled(-0.95)))
	add(area.SideDecks, area.Starboard, p.between(0.3, 0.72, scaled(0.88), scaled(0.56)))
	add(area.SideDecks, area.Port, p.between(0.3, 0.72, scaled(-0.56), scaled(-0.88)))
	h := p.at(0.5).HalfM
	block := func(u0, u1, half float64) []Point {
		return []Point{{u0 * l, -half}, {u1 * l, -half}, {u1 * l, half}, {u0 * l, half}}
	}
	add(area.CabinSides, area.Starboard, []Point{{0.36 * l, 0.46 * h}, {0.68 * l, 0.46 * h}, {0.68 * l, 0.54 * h},
		{0.36 * l, 0.54 * h}})
	add(area.CabinSides, area.Port, []Point{{0.36 * l, -0.54 * h}, {0.68 * l, -0.54 * h}, {0.68 * l, -0.46 * h},
		{0.36 * l, -0.46 * h}})
	switch {
	case has(area.CabinTop):
		add(area.CabinTop, area.Both, block(0.36, 0.68, 0.45*h))
	case p.HousesM2 > 0 && !has(area.Cockpit) && !has(area.CabinSides): // houses and openings as one block
		w := min(1.24*h, math.Sqrt(p.HousesM2*2*h/l)*1.2)
		n := min(p.HousesM2/w, 0.7*l) / l
		out = append(out, region{"", area.Both, block(0.45-n/2, 0.45+n/2, w/2)})
	}
	add(area.Coamings, area.Starboard, []Point{{0.1 * l, 0.5 * h}, {0.34 * l, 0.5 * h}, {0.34 * l, 0.58 * h},
		{0.1 * l, 0.58 * h}})
	add(area.Coamings, area.Port, []Point{{0.1 * l, -0.58 * h}, {0.34 * l, -0.58 * h}, {0.34 * l, -0.5 * h},
		{0.1 * l, -0.5 * h}})
	add(area.Cockpit, area.Both, block(0.1, 0.34, 0.49*h))
	add(area.OpenInside, area.Both, p.between(0.03, 0.95, scaled(0.8), scaled(-0.8)))
	add(area.Sole, area.Both, block(0.14, 0.3, 0.26*h))
	add(area.Hatches, area.Both, block(0.74, 0.81, 0.28*p.at(0.78).HalfM))
	add(area.Transom, area.Both, []Point{{-0.035 * l, -0.9 * p.at(0).HalfM}, {-0.006 * l, -p.at(0).HalfM},
		{-0.006 * l, p.at(0).HalfM}, {-0.035 * l, 0.9 * p.at(0).HalfM}})
	return out
}

// under lists the regions seen from below, as if through the deck: starboard
// down, as in plan.
func (p Profile) under(has func(area.Part) bool) []region {
	l := p.LengthM
	half := func(k float64) func(mesh.Station) float64 {
		return func(s mesh.Station) float64 {
			if s.KeelM >= 0 {
				return 0
			}
			return k * s.WaterHalfM
		}
	}
	out := []region{
		{area.Bottom, area.Starboard, p.between(0, 1, half(1), half(0))},
		{area.Bottom, area.Port, p.between(0, 1, half(0), half(-1))},
	}
	add := func(part area.Part, side area.Side, points []Point) {
		if has(part) {
			out = append(out, region{part, side, points})
		}
	}
	w := p.at(0.5).HalfM
	add(area.Tunnel, area.Starboard, []Point{{0.05 * l, 0.2 * w}, {0.3 * l, 0.25 * w}, {0.3 * l, 0.5 * w},
		{0.05 * l, 0.6 * w}})
	add(area.Tunnel, area.Port, []Point{{0.05 * l, -0.6 * w}, {0.3 * l, -0.5 * w}, {0.3 * l, -0.25 * w},
		{0.05 * l, -0.2 * w}})
	add(area.Keel, area.Both, []Point{{0.3 * l, -0.06 * w}, {0.7 * l, -0.06 * w}, {0.7 * l, 0.06 * w},
		{0.3 * l, 0.06 * w}})
	return out
}

// slice is the kth of n pieces of an outline, cut across the boat.
func slice(points []Point, k, n int) []Point {
	if n == 1 {
		return points
	}
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, p := range points {
		lo, hi = min(lo, p.X), max(hi, p.X)
	}
	step := (hi - lo) / float64(n)
	cut := func(in []Point, at float64, keep func(x float64) bool) []Point {
		var out []Point
		for i, a := range in {
			b := in[(i+1)%len(in)]
			if keep(a.X) {
				out = append(out, a)
			}
			if keep(a.X) != keep(b.X) {
				t := (at - a.X) / (b.X - a.X)
				out = append(out, Point{at, a.Y + t*(b.Y-a.Y)})
			}
		}
		return out
	}
	from, to := lo+step*float64(k), lo+step*float64(k+1)
	if k > 0 {
		points = cut(points, from, func(x float64) bool { return x >= from })
	}
	if k < n-1 {
		points = cut(points, to, func(x float64) bool { return x <= to })
	}
	return points
}

// inside is the middle of the widest stretch across an outline at the middle
// of its length.
func inside(points []Point) Point {
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, p := range points {
		lo, hi = min(lo, p.X), max(hi, p.X)
	}
	x := lo + 0.497*(hi-lo)
	var ys []float64
	for i, a := range points {
		b := points[(i+1)%len(points)]
		if (a.X < x) != (b.X < x) {
			ys = append(ys, a.Y+(x-a.X)/(b.X-a.X)*(b.Y-a.Y))
		}
	}
	slices.Sort(ys)
	best, at := -1.0, Point{x, 0}
	for i := 0; i+1 < len(ys); i += 2 {
		if w := ys[i+1] - ys[i]; w > best {
			best, at.Y = w, (ys[i]+ys[i+1])/2
		}
	}
	return at
}

// beside draws what has no place on the hull: spars long and thin, the rest as
// boxes of their area, in rows as long as the boat.
func beside(p Profile, surfaces []Surface, placed map[string]bool) View {
	v := View{Name: Apart}
	gap := 0.03 * p.LengthM
	x, y, row := 0.0, 0.0, 0.0
	for _, s := range surfaces {
		if placed[s.ID] {
			continue
		}
		w, h := math.Sqrt(1.6*s.AreaM2), math.Sqrt(s.AreaM2/1.6)
		if s.Part == area.Spars {
			w = 0.8 * p.LengthM
			h = max(0.02*p.LengthM, s.AreaM2/w)
		}
		w, h = min(p.LengthM, max(w, 0.16*p.LengthM)), min(0.3*p.LengthM, max(h, 0.06*p.LengthM))
		if x > 0 && x+w > p.LengthM {
			x, y, row = 0, y+row+gap, 0
		}
		box := []Point{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}
		v.Shapes = append(v.Shapes, Shape{s.ID, box, inside(box)})
		x, row = x+w+gap, max(row, h)
	}
	return v
}

// frame fills in the extent and turns null lists into empty ones.
func (v *View) frame() {
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
	if v.Shapes == nil {
		v.Shapes = []Shape{}
	}
}
