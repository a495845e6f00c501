// Package mesh measures surfaces made of facets: areas split at waterlines and
// by side, and what is wrong with the facets. Lengths are in m, areas in m²,
// once a mesh is placed.
package mesh

import (
	"math"

	"allcoats/core/base/fielderr"
)

// Vec is a point or direction.
type Vec [3]float64

func (a Vec) sub(b Vec) Vec { return Vec{a[0] - b[0], a[1] - b[1], a[2] - b[2]} }

func (a Vec) cross(b Vec) Vec {
	return Vec{a[1]*b[2] - a[2]*b[1], a[2]*b[0] - a[0]*b[2], a[0]*b[1] - a[1]*b[0]}
}

func (a Vec) dot(b Vec) float64 { return a[0]*b[0] + a[1]*b[1] + a[2]*b[2] }

func lerp(a, b Vec, t float64) Vec {
	return Vec{a[0] + t*(b[0]-a[0]), a[1] + t*(b[1]-a[1]), a[2] + t*(b[2]-a[2])}
}

// Mesh is a surface of triangles. Faces counts the facets as the file had
// them, before those with more corners were cut into triangles; Group names
// them by index into Groups, where the file did.
type Mesh struct {
	Vertices  []Vec
	Triangles [][3]int32
	Faces     int
	Groups    []string
	Group     []int32

	dropped int // triangles that Clean took out
}

// MaxTriangles is the largest mesh taken.
const MaxTriangles = 3_000_000

// Placing says how a file's coordinates lie on the boat.
type Placing struct {
	// Unit of the file's lengths.
	Unit string `json:"unit" enum:"m,cm,mm,in,ft"`
	// Up and Forward are axes of the file. Port is then up × forward.
	Up      string `json:"up" enum:"+x,-x,+y,-y,+z,-z"`
	Forward string `json:"forward" enum:"+x,-x,+y,-y,+z,-z"`
	// WaterlineM is its height above the file's origin, BootTopM the height of
	// the boot-top's upper edge above the waterline, 0 without a boot-top.
	WaterlineM float64 `json:"waterlineM"`
	BootTopM   float64 `json:"bootTopM,omitempty"`
}

// Units are the lengths that files come in, in m.
var Units = map[string]float64{"m": 1, "cm": 0.01, "mm": 0.001, "in": 0.0254, "ft": 0.3048}

func axis(name string) (Vec, bool) {
	if len(name) != 2 || (name[0] != '+' && name[0] != '-') || name[1] < 'x' || name[1] > 'z' {
		return Vec{}, false
	}
	var v Vec
	v[name[1]-'x'] = 1
	if name[0] == '-' {
		v[name[1]-'x'] = -1
	}
	return v, true
}

// Validate reports an unknown unit, axes that are none or not square to each
// other, and waterlines out of reach.
func (p Placing) Validate() error {
	var bad fielderr.Errors
	if _, ok := Units[p.Unit]; !ok {
		bad.Add("unit", "must be m, cm, mm, in or ft")
	}
	up, okU := axis(p.Up)
	fwd, okF := axis(p.Forward)
	switch {
	case !okU:
		bad.Add("up", "must be an axis such as +z")
	case !okF:
		bad.Add("forward", "must be an axis such as +x")
	case up.dot(fwd) != 0:
		bad.Add("forward", "must be another axis than up")
	}
	bad.Range("waterlineM", p.WaterlineM, -20, 20, "m")
	bad.Range("bootTopM", p.BootTopM, 0, 5, "m")
	return bad.Err()
}

// The size of a boat or a part of one, m.
const (
	leastSize = 0.05
	mostSize  = 150
)

// Place returns m in m on the boat: x forward, y to port, z up from the
// waterline. A size that no boat has is a fault at "unit".
func (m Mesh) Place(p Placing) (Mesh, error) {
	if err := p.Validate(); err != nil {
		return Mesh{}, err
	}
	k := Units[p.Unit]
	up, _ := axis(p.Up)
	fwd, _ := axis(p.Forward)
	port := up.cross(fwd)
	lo, hi := Vec{math.Inf(1), math.Inf(1), math.Inf(1)}, Vec{math.Inf(-1), math.Inf(-1), math.Inf(-1)}
	placed := make([]Vec, len(m.Vertices))
	for i, v := range m.Vertices {
		w := Vec{k * v.dot(fwd), k * v.dot(port), k*v.dot(up) - p.WaterlineM}
		for a := range w {
			lo[a], hi[a] = min(lo[a], w[a]), max(hi[a], w[a])
		}
		placed[i] = w
	}
	size := hi.sub(lo)
	switch longest := max(size[0], size[1], size[2]); {
	case longest > mostSize:
		return Mesh{}, fielderr.At("unit", "in %s this is %.3g m long: choose the unit that the file was drawn in",
			p.Unit, longest)
	case !(longest >= leastSize):
		return Mesh{}, fielderr.At("unit", "in %s this is only %.3g m long: choose the unit that the file was drawn in",
			p.Unit, longest)
	}
	m.Vertices = placed
	return m, nil
}

func (m Mesh) corners(i int) (a, b, c Vec) {
	t := m.Triangles[i]
	return m.Vertices[t[0]], m.Vertices[t[1]], m.Vertices[t[2]]
}

// extent is the box around all vertices.
func (m Mesh) extent() (lo, hi Vec) {
	if len(m.Vertices) == 0 {
		return
	}
	lo, hi = m.Vertices[0], m.Vertices[0]
	for _, v := range m.Vertices {
		for a := range v {
			lo[a], hi[a] = min(lo[a], v[a]), max(hi[a], v[a])
		}
	}
	return lo, hi
}

// Only keeps the faces of one group.
func (m Mesh) Only(group string) Mesh {
	out := Mesh{Vertices: m.Vertices, Groups: m.Groups}
	for i, t := range m.Triangles {
		if len(m.Group) > 0 && m.Groups[m.Group[i]] == group {
			out.Triangles = append(out.Triangles, t)
			out.Group = append(out.Group, m.Group[i])
		}
	}
	out.Faces = len(out.Triangles)
	return out
}
