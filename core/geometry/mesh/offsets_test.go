package mesh

import (
	"math"
	"testing"

	"allcoats/core/base/fielderr"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func ptr(v float64) *float64 { return &v }

// vee is a hull of one section all along: by 3-4-5 from the keel 0.8 m under the waterline out to 0.6 m at it, then upright for a metre.
func vee() Offsets {
	o := Offsets{Waterlines: []float64{0, 1}}
	for _, x := range []float64{0, 0.5, 2} {
		o.Sections = append(o.Sections, Section{X: x, Halves: []*float64{ptr(0.6), ptr(0.6)}, Keel: ptr(-0.8)})
	}
	return o
}

// Its skin is two sides of two metres of girth, two metres long; each triangle faces outward.
func TestLoftByHand(t *testing.T) {
	m, err := vee().Loft()
	require.NoError(t, err)
	area := 0.0
	for _, tri := range m.Triangles {
		a, b, c := m.Vertices[tri[0]], m.Vertices[tri[1]], m.Vertices[tri[2]]
		u, v := Vec{b[0] - a[0], b[1] - a[1], b[2] - a[2]}, Vec{c[0] - a[0], c[1] - a[1], c[2] - a[2]}
		n := Vec{u[1]*v[2] - u[2]*v[1], u[2]*v[0] - u[0]*v[2], u[0]*v[1] - u[1]*v[0]}
		area += math.Sqrt(n[0]*n[0]+n[1]*n[1]+n[2]*n[2]) / 2
		middle := (a[1] + b[1] + c[1]) / 3
		assert.Positive(t, middle*n[1], "outward to its side")
	}
	assert.InDelta(t, 8, area, 1e-9)
	for _, v := range m.Vertices {
		half := 0.6
		if v[2] < 0 {
			half *= 1 + v[2]/0.8
		}
		assert.InDelta(t, half, math.Abs(v[1]), 1e-9, "%v lies on the section", v)
	}
}

// Without a keel the lowest half-breadth is joined level to the middle.
func TestSectionsFromTheKeelUp(t *testing.T) {
	o := Offsets{Waterlines: []float64{-1, 0, 1}}
	assert.Equal(t, []point{{0, 0}, {2, 0}, {3, 1}}, o.outline(Section{Halves: []*float64{nil, ptr(2), ptr(3)}}))
	assert.Equal(t, []point{{0, 0}, {3, 1}}, o.outline(Section{Halves: []*float64{nil, ptr(0), ptr(3)}}))
	keeled := Section{Halves: []*float64{ptr(1), ptr(2), ptr(3)}, Keel: ptr(-0.5)}
	assert.Equal(t, []point{{0, -0.5}, {2, 0}, {3, 1}}, o.outline(keeled),
		"what is drawn under the keel is not there")
}

func TestOffsetsThatCannotBe(t *testing.T) {
	for says, edit := range map[string]func(o *Offsets){
		"at least two waterlines":       func(o *Offsets) { o.Waterlines = o.Waterlines[:1] },
		"heights must rise":             func(o *Offsets) { o.Waterlines[1] = 0 },
		"at least three stations":       func(o *Offsets) { o.Sections = o.Sections[:2] },
		"0.5 m does not lie beyond 0.5": func(o *Offsets) { o.Sections[0].X = 0.5 },
		"or nothing for each":           func(o *Offsets) { o.Sections[1].Halves = o.Sections[1].Halves[:1] },
		"-0.1 m cannot be":              func(o *Offsets) { o.Sections[1].Halves[0] = ptr(-0.1) },
		"75.1 m cannot be":              func(o *Offsets) { o.Sections[1].Halves[0] = ptr(75.1) },
		"at least two points":           func(o *Offsets) { o.Sections[1].Halves = []*float64{nil, nil} },
		"missing between others": func(o *Offsets) {
			o.Waterlines = []float64{0, 0.5, 1}
			for i := range o.Sections {
				o.Sections[i].Halves = []*float64{ptr(1), nil, ptr(1)}
			}
		},
	} {
		o := vee()
		edit(&o)
		var bad fielderr.Errors
		require.ErrorAs(t, o.Validate(), &bad, says)
		assert.ErrorContains(t, bad, says)
	}
	wide := vee()
	wide.Sections[1].Halves[0] = ptr(75)
	assert.NoError(t, wide.Validate())
}
