package fair

import (
	"fmt"

	"allcoats/core/base/fielderr"
	"allcoats/core/boat/outline"
	"allcoats/core/boat/survey"
	"allcoats/core/geometry/polygon"
)

// Low is a hollow circled on the map with a guess of its depth, found by eye, by hand or by a light.
// DefectID is the defect in Survey that it was noted as.
type Low struct {
	Name     string          `json:"name"`
	View     string          `json:"view"`
	Points   []outline.Point `json:"points"`
	By       string          `json:"by" enum:"eye,hand,light"`
	DepthMM  float64         `json:"depthMM"`
	DefectID string          `json:"defectId,omitempty"`
}

// guessPct is half of an 80 % range of a depth guessed, %: rules of thumb.
var guessPct = map[string]float64{"eye": 60, "hand": 40, "light": 50}

// Round a low lies as a bowl: its mean depth is half of the deepest.
const bowl = 0.5

func (l Low) validate() error {
	var bad fielderr.Errors
	survey.OnMap(&bad, "view", l.View)
	bad.Above("depthMM", l.DepthMM, 0, 200, "mm")
	if len(l.Points) < 3 || len(l.Points) > 500 || l.areaM2() < 1e-4 {
		bad.Add("points", "circle the low: its outline encloses nothing")
	}
	if guessPct[l.By] == 0 {
		bad.Add("by", "must be by eye, by hand or by a light")
	}
	return bad.Err()
}

func (l Low) ring() polygon.Ring {
	out := make(polygon.Ring, len(l.Points))
	for i, p := range l.Points {
		out[i] = polygon.Point{X: p.X, Y: p.Y}
	}
	return out
}

func (l Low) areaM2() float64 { return polygon.Polygon{Outer: l.ring()}.Area() }

func (l Low) middle() outline.Point {
	var m outline.Point
	for _, p := range l.Points {
		m.X, m.Y = m.X+p.X/float64(len(l.Points)), m.Y+p.Y/float64(len(l.Points))
	}
	return m
}

// depthAt is the depth of the bowl at a place, mm, 0 outside of it.
func (l Low) depthAt(p outline.Point) float64 {
	m := l.middle()
	dx, dy := p.X-m.X, p.Y-m.Y
	out := 0.0 // how far out to the rim the place lies
	for i, a := range l.Points {
		b := l.Points[(i+1)%len(l.Points)]
		// m + t·d = a + u·(b − a)
		ex, ey := b.X-a.X, b.Y-a.Y
		det := dx*ey - dy*ex
		if det == 0 {
			continue
		}
		t := ((a.X-m.X)*ey - (a.Y-m.Y)*ex) / det
		u := ((a.X-m.X)*dy - (a.Y-m.Y)*dx) / det
		if t > 0 && u >= 0 && u <= 1 {
			out = max(out, 1/t)
		}
	}
	return max(0, l.DepthMM*(1-out*out))
}

// patch is the low as a patch to be filled.
func (l Low) patch(k int) Patch {
	p := Patch{Name: l.Name, View: l.View, Circled: true, AreaM2: l.areaM2(), DeepestMM: l.DepthMM}
	if p.Name == "" {
		p.Name = fmt.Sprintf("low %d, by %s", k+1, l.By)
	}
	p.Litres = bowl * p.AreaM2 * l.DepthMM
	p.SpreadL = guessPct[l.By] / 100 * p.Litres
	p.Min, p.Max = bounds(l.Points)
	return p
}

func bounds(points []outline.Point) (lo, hi outline.Point) {
	lo, hi = points[0], points[0]
	for _, p := range points {
		lo, hi = outline.Point{X: min(lo.X, p.X), Y: min(lo.Y, p.Y)},
			outline.Point{X: max(hi.X, p.X), Y: max(hi.Y, p.Y)}
	}
	return lo, hi
}
