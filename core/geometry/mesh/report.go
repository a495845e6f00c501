package mesh

import (
	"fmt"
	"maps"
	"math"
	"slices"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
)

// Report tells how sound a mesh is. Size is along x, y, z in m. A hole shows
// as edges with one facet, a facet turned over as edges run through in the
// same direction by both facets.
type Report struct {
	Facets           int     `json:"facets"`
	Vertices         int     `json:"vertices"`
	SizeXM           float64 `json:"sizeXM"`
	SizeYM           float64 `json:"sizeYM"`
	SizeZM           float64 `json:"sizeZM"`
	Dropped          int     `json:"dropped" doc:"facets without area, and facets there twice"`
	BoundaryEdges    int     `json:"boundaryEdges"`
	NonManifoldEdges int     `json:"nonManifoldEdges"`
	ClashingEdges    int     `json:"clashingEdges"`
	FlippedFacets    int     `json:"flippedFacets"`
}

// Doubts asks about a placed hull that does not look like a boat of loaM by beamM: fields of
// Placing with a question each. Whole says that the file should be all of her hull.
func (r Report) Doubts(p Placing, loaM, beamM float64, whole bool) error {
	var bad fielderr.Errors
	near := func(a, b, within float64) bool { return math.Abs(a-b) <= within*b }
	longest := max(r.SizeXM, r.SizeYM, r.SizeZM)
	switch {
	case longest > 1.2*loaM, whole && longest < 0.8*loaM:
		hint := "Choose the unit that it was drawn in, or say that it is right as it is."
		for _, u := range slices.Sorted(maps.Keys(Units)) {
			if k := Units[u] / Units[p.Unit]; u != p.Unit && near(k*longest, loaM, 0.1) {
				hint = fmt.Sprintf("In %s it would be %.3g m: was it drawn in %s?", u, k*longest, u)
			}
		}
		bad.Add("unit", "so placed it is %.3g m long and she is %.3g m. %s", longest, loaM, hint)
	case whole && r.SizeXM < longest:
		bad.Add("forward", "so placed it is %.3g m from aft forward and %.3g m the other way: is forward another axis?",
			r.SizeXM, longest)
	case whole && !near(r.SizeYM, beamM, 0.25) && near(r.SizeZM, beamM, 0.25):
		bad.Add("up", "so placed it is %.3g m broad and %.3g m high, and her beam is %.3g m: is up another axis?",
			r.SizeYM, r.SizeZM, beamM)
	}
	return bad.Err()
}

// edges lists, for each corner, the edges to corners of a higher number as
// other·2 + way, sorted; way is 1 for a facet that runs through it down.
type edges struct {
	from []int32 // where a corner's edges begin in list, one more at the end
	list []uint32
}

func directed(t [3]int32, k int) (lo int32, edge uint32) {
	a, b := t[k], t[(k+1)%3]
	if a < b {
		return a, uint32(b) << 1
	}
	return b, uint32(a)<<1 | 1
}

func edgesOf(corners int, triangles [][3]int32) edges {
	e := edges{make([]int32, corners+2), make([]uint32, 3*len(triangles))}
	for _, t := range triangles {
		for k := range 3 {
			lo, _ := directed(t, k)
			e.from[lo+2]++
		}
	}
	for i := 2; i < len(e.from); i++ {
		e.from[i] += e.from[i-1]
	}
	for _, t := range triangles {
		for k := range 3 {
			lo, edge := directed(t, k)
			e.list[e.from[lo+1]] = edge
			e.from[lo+1]++
		}
	}
	e.from = e.from[:corners+1]
	for i := range corners {
		slices.Sort(e.list[e.from[i]:e.from[i+1]])
	}
	return e
}

// each calls fn with how often facets run up and down every edge.
func (e edges) each(fn func(up, down int)) {
	for i := range len(e.from) - 1 {
		l := e.list[e.from[i]:e.from[i+1]]
		for len(l) > 0 {
			n, down := 0, 0
			for n < len(l) && l[n]>>1 == l[0]>>1 {
				down += int(l[n] & 1)
				n++
			}
			fn(n-down, down)
			l = l[n:]
		}
	}
}

// facets returns how often facets run up and down edge k of t; of more than two it sees three.
func (e edges) facets(t [3]int32, k int) (up, down int) {
	lo, edge := directed(t, k)
	l := e.list[e.from[lo]:e.from[lo+1]]
	first, _ := slices.BinarySearch(l, edge&^1)
	for _, x := range l[first:] {
		if x>>1 != edge>>1 || up+down > 2 {
			break
		}
		up += int(1 - x&1)
		down += int(x & 1)
	}
	return up, down
}

// Clean drops facets without area and facets that are there twice, and reports
// on the rest. Areas do not depend on which way a facet faces.
func (m Mesh) Clean() (Mesh, Report) {
	facets := m.Faces
	m = m.only(func(i int) bool {
		a, b, c := m.corners(i)
		n := b.sub(a).cross(c.sub(a))
		return n.dot(n) > 0
	})
	e := edgesOf(len(m.Vertices), m.Triangles)
	r := e.count()
	if r.NonManifoldEdges > 0 {
		before := len(m.Triangles)
		seen := map[[3]int32]bool{}
		m = m.only(func(i int) bool {
			t := m.Triangles[i]
			for k := range 3 {
				if up, down := e.facets(t, k); up+down > 2 { // only here can it be there twice
					key := sorted(t)
					twice := seen[key]
					seen[key] = true
					return !twice
				}
			}
			return true
		})
		if len(m.Triangles) < before {
			e = edgesOf(len(m.Vertices), m.Triangles)
			r = e.count()
		}
	}
	if r.ClashingEdges > 0 {
		for _, t := range m.Triangles {
			if e.turned(t) {
				r.FlippedFacets++
			}
		}
	}
	r.Facets, r.Vertices, r.Dropped = facets, len(m.Vertices), m.dropped
	lo, hi := m.extent()
	r.SizeXM, r.SizeYM, r.SizeZM = hi[0]-lo[0], hi[1]-lo[1], hi[2]-lo[2]
	return m, r
}

func (e edges) count() Report {
	var r Report
	e.each(func(up, down int) {
		switch {
		case up+down == 1:
			r.BoundaryEdges++
		case up+down > 2:
			r.NonManifoldEdges++
		case up != down:
			r.ClashingEdges++
		}
	})
	return r
}

// turned reports whether a facet clashes with most of its neighbours.
func (e edges) turned(t [3]int32) bool {
	clash, shared := 0, 0
	for k := range 3 {
		if up, down := e.facets(t, k); up+down == 2 {
			shared++
			if up != down {
				clash++
			}
		}
	}
	return 2*clash > shared
}

// only keeps the triangles that pass, and counts the others as dropped.
func (m Mesh) only(pass func(i int) bool) Mesh {
	out := m
	for i := range m.Triangles {
		if pass(i) {
			if out.dropped > m.dropped {
				out.Triangles = append(out.Triangles, m.Triangles[i])
				if len(m.Group) > 0 {
					out.Group = append(out.Group, m.Group[i])
				}
			}
			continue
		}
		if out.dropped == m.dropped { // the first that goes: copy those before
			out.Triangles = slices.Clone(m.Triangles[:i])
			if len(m.Group) > 0 {
				out.Group = slices.Clone(m.Group[:i])
			}
		}
		out.dropped++
	}
	return out
}

func sorted(t [3]int32) [3]int32 {
	if t[0] > t[1] {
		t[0], t[1] = t[1], t[0]
	}
	if t[1] > t[2] {
		t[1], t[2] = t[2], t[1]
	}
	if t[0] > t[1] {
		t[0], t[1] = t[1], t[0]
	}
	return t
}

// Explain adds the report's size to w, and a warning for everything that is
// wrong.
func (r Report) Explain(w *working.Working, lofted bool) {
	w.In("Facets", float64(r.Facets), "")
	w.In("Length of the model", r.SizeXM, "m")
	w.In("Width of the model", r.SizeYM, "m")
	w.In("Height of the model", r.SizeZM, "m")
	for _, f := range r.Findings(lofted) {
		w.Warn("%s", f)
	}
}

// Findings says in words what is wrong with the mesh and what it does to the
// area. A lofted surface is open at its edges by its nature.
func (r Report) Findings(lofted bool) []string {
	out := []string{}
	say := func(n int, one, many string) {
		if n == 1 {
			out = append(out, one)
		} else if n > 1 {
			out = append(out, fmt.Sprintf(many, n))
		}
	}
	if !lofted {
		say(r.BoundaryEdges, "One edge belongs to one facet only: the surface is open there.",
			"%d edges belong to one facet only: the surface is open there, or facets are missing and their area with them.")
	}
	say(r.NonManifoldEdges, "One edge belongs to more than two facets: walls inside the hull may be counted.",
		"%d edges belong to more than two facets: walls inside the hull may be counted.")
	say(r.FlippedFacets,
		"One facet is turned over: its area is right, deck and topsides may be told apart wrongly there.",
		"%d facets are turned over: their area is right, deck and topsides may be told apart wrongly there.")
	say(r.Dropped, "One facet without area or there twice was left out.",
		"%d facets without area or there twice were left out.")
	return out
}
