package mesh

import "math"

// Zone is a stretch of the hull by height and slope.
type Zone string

// The zones of a placed mesh: below the waterline, up to the boot-top's upper
// edge, and above it by slope: facets within 45° of level are deck.
const (
	Bottom   Zone = "bottom"
	BootTop  Zone = "boot-top"
	Topsides Zone = "topsides"
	Deck     Zone = "deck"
)

// Zones lists the zones.
var Zones = []Zone{Bottom, BootTop, Topsides, Deck}

// Half is the area of a zone on either side of the centreline, m².
type Half struct {
	PortM2      float64 `json:"portM2"`
	StarboardM2 float64 `json:"starboardM2"`
}

// Areas are the areas of a placed mesh.
type Areas struct {
	TotalM2 float64            `json:"totalM2"`
	Zones   map[Zone]Half      `json:"zones"`
	Groups  map[string]float64 `json:"groups"`
}

// Areas sums the facets after cutting them at the waterline, at the boot-top's
// upper edge and at the centreline.
func (m Mesh) Areas(bootTopM float64) Areas {
	var bottom, bootTop, topsides, deck Half
	groups := make([]float64, len(m.Groups))
	var total float64
	levels := []float64{math.Inf(-1), 0, math.Inf(1)}
	if bootTopM > 0 {
		levels = []float64{math.Inf(-1), 0, bootTopM, math.Inf(1)}
	}
	var one, two, three [8]Vec
	for i := range m.Triangles {
		a, b, c := m.corners(i)
		n := b.sub(a).cross(c.sub(a))
		area2 := math.Sqrt(n.dot(n))
		total += area2
		if len(m.Group) > 0 {
			groups[m.Group[i]] += area2 / 2
		}
		above := &topsides
		if math.Abs(n[2]) > math.Sqrt2/2*area2 {
			above = &deck
		}
		zone := func(z float64) *Half {
			switch {
			case z < 0:
				return &bottom
			case z < bootTopM:
				return &bootTop
			}
			return above
		}
		lo, hi := min(a[2], b[2], c[2]), max(a[2], b[2], c[2])
		starboard, port := min(a[1], b[1], c[1]), max(a[1], b[1], c[1])
		for k, from := range levels[:len(levels)-1] {
			to := levels[k+1]
			if hi <= from && hi > lo || lo >= to {
				continue
			}
			h := zone((max(from, lo) + min(to, hi)) / 2)
			if lo >= from && hi <= to && (starboard >= 0 || port <= 0) {
				addSide(h, starboard+port, area2/2)
				break
			}
			band := cut(cut(append(one[:0], a, b, c), 2, from, true, two[:0]), 2, to, false, three[:0])
			addSide(h, 1, polyArea(cut(band, 1, 0, true, one[:0])))
			addSide(h, -1, polyArea(cut(band, 1, 0, false, one[:0])))
		}
	}
	out := Areas{
		TotalM2: total / 2,
		Zones:   map[Zone]Half{Bottom: bottom, BootTop: bootTop, Topsides: topsides, Deck: deck},
		Groups:  map[string]float64{},
	}
	for i, name := range m.Groups {
		out.Groups[name] += groups[i]
	}
	return out
}

func addSide(h *Half, y, area float64) {
	if y >= 0 {
		h.PortM2 += area
	} else {
		h.StarboardM2 += area
	}
}

// Below returns the area below height z of a placed mesh, m².
func (m Mesh) Below(z float64) float64 {
	var sum float64
	var buf, out [8]Vec
	for i := range m.Triangles {
		a, b, c := m.corners(i)
		sum += polyArea(cut(append(buf[:0], a, b, c), 2, z, false, out[:0]))
	}
	return sum
}

// cut keeps the part of a convex polygon above (or not above) at along an axis.
func cut(p []Vec, axis int, at float64, above bool, out []Vec) []Vec {
	if math.IsInf(at, 0) {
		return append(out, p...)
	}
	inside := func(v Vec) bool { return (v[axis] >= at) == above }
	for i, v := range p {
		w := p[(i+1)%len(p)]
		if inside(v) {
			out = append(out, v)
		}
		if inside(v) != inside(w) {
			out = append(out, lerp(v, w, (at-v[axis])/(w[axis]-v[axis])))
		}
	}
	return out
}

func polyArea(p []Vec) float64 {
	var n Vec
	for i := 2; i < len(p); i++ {
		c := p[i-1].sub(p[0]).cross(p[i].sub(p[0]))
		n = Vec{n[0] + c[0], n[1] + c[1], n[2] + c[2]}
	}
	return math.Sqrt(n.dot(n)) / 2
}

// Volume returns the volume inside a closed mesh whose facets face out, m³.
func (m Mesh) Volume() float64 {
	var sum float64
	for i := range m.Triangles {
		a, b, c := m.corners(i)
		sum += a.dot(b.cross(c))
	}
	return sum / 6
}
