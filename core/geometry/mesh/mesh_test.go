package mesh

import (
	"testing"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// cube is 2 × 2 × 2 m about the origin, facets facing out.
func cube() Mesh {
	m := Mesh{Faces: 12}
	for i := range 8 {
		m.Vertices = append(m.Vertices, Vec{float64(i&1)*2 - 1, float64(i>>1&1)*2 - 1, float64(i>>2&1)*2 - 1})
	}
	for _, q := range [][4]int32{{0, 2, 3, 1}, {4, 5, 7, 6}, {0, 1, 5, 4}, {2, 6, 7, 3}, {0, 4, 6, 2}, {1, 3, 7, 5}} {
		m.Triangles = append(m.Triangles, [3]int32{q[0], q[1], q[2]}, [3]int32{q[0], q[2], q[3]})
	}
	return m
}

func TestZonesOfACube(t *testing.T) {
	a := cube().Areas(0.5)
	assert.InDelta(t, 24, a.TotalM2, 1e-12)
	// Below the waterline the floor, 4, and half the walls, 8, on either side half.
	assert.InDelta(t, 6, a.Zones[Bottom].PortM2, 1e-12)
	assert.InDelta(t, 6, a.Zones[Bottom].StarboardM2, 1e-12)
	assert.InDelta(t, 2, a.Zones[BootTop].PortM2, 1e-12)
	assert.InDelta(t, 2, a.Zones[Topsides].StarboardM2, 1e-12)
	assert.InDelta(t, 2, a.Zones[Deck].PortM2, 1e-12)
	assert.InDelta(t, 8, cube().Volume(), 1e-12)
	assert.InDelta(t, 4+4*2*1.5, cube().Below(0.5), 1e-12)
}

func TestPlacing(t *testing.T) {
	// The file lies on its side: y up, −z forward, in mm; so port is −x.
	p := Placing{Unit: "mm", Up: "+y", Forward: "-z", WaterlineM: 0.25}
	m := Mesh{Vertices: []Vec{{100, 2000, -3000}, {0, 0, 0}}, Triangles: [][3]int32{{0, 1, 1}}}
	got, err := m.Place(p)
	require.NoError(t, err)
	assert.InDeltaSlice(t, []float64{3, -0.1, 1.75}, got.Vertices[0][:], 1e-12)
	for path, change := range map[string]func(*Placing){
		"unit":       func(p *Placing) { p.Unit = "cubit" },
		"up":         func(p *Placing) { p.Up = "z" },
		"forward":    func(p *Placing) { p.Forward = "-y" },
		"waterlineM": func(p *Placing) { p.WaterlineM = 90 },
		"bootTopM":   func(p *Placing) { p.BootTopM = -1 },
	} {
		q := p
		change(&q)
		_, err := m.Place(q)
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
	// A boat of 10 km, and one of 3 mm.
	for unit, size := range map[string]float64{"m": 10000, "mm": 3} {
		big := Mesh{Vertices: []Vec{{}, {size, 0, 0}}}
		_, err := big.Place(Placing{Unit: unit, Up: "+z", Forward: "+x"})
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad)
		assert.Equal(t, "unit", bad[0].Path)
	}
}

func TestReport(t *testing.T) {
	whole, r := cube().Clean()
	assert.Equal(t, Report{Facets: 12, Vertices: 8, SizeXM: 2, SizeYM: 2, SizeZM: 2}, r)
	assert.Empty(t, r.Findings(false))

	holed := whole
	holed.Triangles = holed.Triangles[:11]
	_, r = holed.Clean()
	assert.Equal(t, 3, r.BoundaryEdges)
	assert.Contains(t, r.Findings(false)[0], "3 edges belong to one facet only")
	assert.Empty(t, r.Findings(true), "a lofted hull is open")

	flipped := cube()
	f := &flipped.Triangles[4]
	f[0], f[1] = f[1], f[0]
	_, r = flipped.Clean()
	assert.Equal(t, 3, r.ClashingEdges)
	assert.Equal(t, 1, r.FlippedFacets)
	assert.InDelta(t, 24, flipped.Areas(0).TotalM2, 1e-12, "the area does not mind")

	// One facet twice, one without area: both go.
	doubled := cube()
	doubled.Triangles = append(doubled.Triangles, doubled.Triangles[0], [3]int32{1, 1, 2})
	clean, r := doubled.Clean()
	assert.Equal(t, 2, r.Dropped)
	assert.Zero(t, r.NonManifoldEdges)
	assert.Len(t, clean.Triangles, 12)

	// A wall inside stays, and is reported.
	walled := cube()
	walled.Triangles = append(walled.Triangles, [3]int32{0, 3, 7})
	_, r = walled.Clean()
	assert.Positive(t, r.NonManifoldEdges)
	w := working.New()
	r.Explain(&w, false)
	assert.Contains(t, w.Warnings[len(w.Warnings)-1].String(), "more than two facets")
}

func TestStationsOfACube(t *testing.T) {
	for _, s := range cube().Stations(5) {
		assert.InDelta(t, -1, s.KeelM, 1e-9)
		assert.InDelta(t, 1, s.SheerM, 1e-9)
		assert.InDelta(t, 1, s.HalfM, 1e-9)
		assert.InDelta(t, 1, s.WaterHalfM, 1e-9)
		assert.InDelta(t, 4, s.GirthBelowM, 1e-9, "floor 2 and two walls of 1")
	}
}

func TestOnlyAGroup(t *testing.T) {
	m := cube()
	m.Groups = []string{"floor", "rest"}
	for i := range m.Triangles {
		m.Group = append(m.Group, int32(min(1, i/2)))
	}
	assert.InDelta(t, 4, m.Only("floor").Areas(0).TotalM2, 1e-12)
	assert.InDelta(t, 20, m.Areas(0).Groups["rest"], 1e-12)
	assert.Empty(t, m.Only("sail").Triangles)
}
