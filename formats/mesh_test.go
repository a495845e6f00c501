package formats

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"math"
	"os"
	"runtime"
	"strings"
	"testing"

	"allcoats/core/base/fielderr"
	"allcoats/core/geometry/mesh"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const reference = "../calc/testdata/meshes/"

func file(t testing.TB, name string) []byte {
	data, err := os.ReadFile(reference + name)
	require.NoError(t, err)
	return data
}

// asASCII writes a mesh as ASCII STL.
func asASCII(m mesh.Mesh) []byte {
	var b bytes.Buffer
	b.WriteString("solid test\n")
	for _, t := range m.Triangles {
		b.WriteString("facet normal 0 0 0\n outer loop\n")
		for _, k := range t {
			v := m.Vertices[k]
			fmt.Fprintf(&b, "  vertex %g %g %g\n", v[0], v[1], v[2])
		}
		b.WriteString(" endloop\nendfacet\n")
	}
	b.WriteString("endsolid test\n")
	return b.Bytes()
}

func TestBinaryAndASCIIAreTheSameMesh(t *testing.T) {
	binary, err := ReadSTL(file(t, "wigley_deck.stl"))
	require.NoError(t, err)
	ascii, err := ReadSTL(asASCII(binary))
	require.NoError(t, err)
	assert.Equal(t, binary, ascii)
	assert.Equal(t, 1470, ascii.Faces)
}

func TestBadSTL(t *testing.T) {
	good := file(t, "box_flipped_hole_mm.stl")
	nan := bytes.Clone(good)
	binary.LittleEndian.PutUint32(nan[84+50*4+12:], math.Float32bits(float32(math.NaN())))
	mesh, err := ReadSTL(good)
	require.NoError(t, err)
	ascii := string(asASCII(mesh))
	for name, c := range map[string]struct {
		data         string
		path, reason string
	}{
		"empty":             {"", "file", "no STL file"},
		"text":              {strings.Repeat("not a mesh ", 20), "file", "cut off or no STL file"},
		"cut off":           {string(good[:len(good)-7]), "file", "announces 79 facets, 4034 bytes; the file has 4027"},
		"NaN":               {string(nan), "file", "facet 5 has a corner that is no number"},
		"no facets":         {string(make([]byte, 84)), "file", "no facets"},
		"ASCII cut off":     {ascii[:strings.LastIndex(ascii, "outer")], "file", "cut off in or after facet"},
		"ASCII without end": {strings.TrimSuffix(ascii, "endsolid test\n"), "file", "no endsolid"},
		"ASCII word":        {strings.Replace(ascii, "vertex ", "vertex x", 1), "line 4", "is no number"},
		"ASCII infinite":    {"solid\nvertex 1 2 +Inf\n", "line 2", "is no number"},
		"ASCII two corners": {"solid\nvertex 0 0 0\nvertex 1 0 0\nendloop\nendsolid", "line 4", "2 corners"},
		"ASCII four": {"solid\nvertex 0 0 0\nvertex 1 0 0\nvertex 1 1 0\nvertex 0 1 0\nendloop", "line 5",
			"more than three"},
		"ASCII empty": {"solid\nendsolid\n", "file", "no facets"},
	} {
		_, err := ReadSTL([]byte(c.data))
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, name)
		assert.Equal(t, c.path, bad[0].Path, name)
		assert.Contains(t, bad[0].Message, c.reason, name)
	}
}

// A face in the shape of an L of three squares, from each of its corners, upright and lying:
// a fan from the first would cover some of it twice.
func TestHollowFacesAreCoveredOnce(t *testing.T) {
	corners := [][2]int{{0, 0}, {2, 0}, {2, 1}, {1, 1}, {1, 2}, {0, 2}}
	for first := range corners {
		for name, format := range map[string]string{"lying": "v %d %d 0\n", "upright": "v %d 0 %d\n"} {
			obj := ""
			for _, c := range corners {
				obj += fmt.Sprintf(format, c[0], c[1])
			}
			obj += "f"
			for k := range corners {
				obj += fmt.Sprintf(" %d", (first+k)%len(corners)+1)
			}
			m, err := ReadOBJ([]byte(obj))
			require.NoError(t, err)
			assert.InDelta(t, 3, m.Areas(0).TotalM2, 1e-12, "%s from corner %d", name, first)
			assert.Len(t, m.Triangles, 4)
		}
	}
}

// Tables as spreadsheets of other countries write them.
func TestOffsetsWithDecimalCommas(t *testing.T) {
	want, err := ReadOffsets([]byte("x,-0.5,0,0.5,keel\n0,0.2,0.5,0.6,-0.7\n2.5,0.4,0.9,1,-0.8\n5,0.1,0.4,0.5,-0.6\n"))
	require.NoError(t, err)
	for name, data := range map[string]string{
		"semicolons": "x;-0,5;0;0,5;keel\n0;0,2;0,5;0,6;-0,7\n2,5;0,4;0,9;1;-0,8\n5;0,1;0,4;0,5;-0,6\n",
		"tabs":       "x\t-0,5\t0\t0,5\tkeel\n0\t0,2\t0,5\t0,6\t-0,7\n2,5\t0,4\t0,9\t1\t-0,8\n5\t0,1\t0,4\t0,5\t-0,6\n",
	} {
		got, err := ReadOffsets([]byte(data))
		require.NoError(t, err, name)
		assert.Equal(t, want, got, name)
	}
}

func TestBadOBJ(t *testing.T) {
	for name, c := range map[string]struct{ data, path, reason string }{
		"empty":          {"", "file", "no faces"},
		"missing vertex": {"v 0 0 0\nv 1 0 0\nf 1 2 3\n", "line 3", `"3" names a vertex that is not there; 2 are read`},
		"zero":           {"v 0 0 0\nv 1 0 0\nv 1 1 0\nf 0 1 2\n", "line 4", "not there"},
		"back too far":   {"v 0 0 0\nv 1 0 0\nv 1 1 0\nf -4 1 2\n", "line 4", "not there"},
		"two corners":    {"v 0 0 0\nv 1 0 0\nf 1 2\n", "line 3", "three corners"},
		"NaN":            {"v 0 nan 0\n", "line 1", "is no number"},
		"short":          {"v 0 0\n", "line 1", "three numbers"},
	} {
		_, err := ReadOBJ([]byte(c.data))
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, name)
		assert.Equal(t, c.path, bad[0].Path, name)
		assert.Contains(t, bad[0].Message, c.reason, name)
	}
}

// A box 2 wide, 1 deep, 4 long has girths of 4 at every station; its lofted
// area is 4 · 4, its ends being open.
func TestOffsetsOfABox(t *testing.T) {
	m, err := ReadOffsets([]byte("x;0;0.5;1;keel\n0;1;1;1;0\n1;1;1;1;0\n4;1;1;1;0\n"))
	require.NoError(t, err)
	areas := m.Areas(0)
	assert.InDelta(t, 16, areas.TotalM2, 1e-9)
	assert.InDelta(t, areas.Zones[mesh.Deck].PortM2, areas.Zones[mesh.Deck].StarboardM2, 1e-9)
	_, report := m.Clean()
	assert.Zero(t, report.NonManifoldEdges+report.ClashingEdges)
}

func TestBadOffsets(t *testing.T) {
	const head = "x,0,0.5,1\n"
	for name, c := range map[string]struct{ data, path, reason string }{
		"empty":             {"", "line 1", "no header"},
		"only a header":     {head, "line 1", "no header line with rows"},
		"waterline":         {"x,0,low\n0,1,1\n", "line 1", "no waterline's height"},
		"waterlines fall":   {"x,1,0\n0,1,1\n1,1,1\n2,1,1\n", "line 1", "must rise"},
		"out of order":      {head + "0,1,1,1\n2,1,1,1\n1,1,1,1\n", "line 4", "from aft forward"},
		"negative":          {head + "0,1,1,1\n1,-1,1,1\n2,1,1,1\n", "line 3", "cannot be"},
		"gap":               {head + "0,1,1,1\n1,1,,1\n2,1,1,1\n", "line 3", "missing between"},
		"text":              {head + "0,1,wide,1\n", "line 2", "is not a number"},
		"columns":           {head + "0,1,1\n", "line 2", "3 columns, the header 4"},
		"no distance":       {head + ",1,1,1\n", "line 2", "distance is missing"},
		"two stations":      {head + "0,1,1,1\n1,1,1,1\n", "line 1", "three stations"},
		"nothing at a line": {head + "0,,,\n1,1,1,1\n2,1,1,1\n", "line 2", "two points"},
		"quote":             {head + "\"0,1,1,1\n", "line 2", "cannot be read"},
	} {
		_, err := ReadOffsets([]byte(c.data))
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, name)
		assert.Equal(t, c.path, bad[0].Path, name)
		assert.Contains(t, bad[0].Message, c.reason, name)
	}
}

// whole reports that what a reader accepts can be measured.
func whole(t *testing.T, m mesh.Mesh, err error) {
	if err != nil {
		assert.Empty(t, m.Triangles)
		return
	}
	assert.NotEmpty(t, m.Triangles)
	for _, f := range m.Triangles {
		for _, k := range f {
			require.Less(t, int(k), len(m.Vertices))
		}
	}
	clean, _ := m.Clean()
	assert.False(t, math.IsNaN(clean.Areas(0.1).Zones[mesh.Bottom].PortM2) && !math.IsInf(clean.Areas(0).TotalM2, 0))
}

func FuzzReadSTL(f *testing.F) {
	f.Add(file(f, "box_flipped_hole_mm.stl"))
	f.Add(
		[]byte(
			"solid a\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\nendsolid a\n"))
	f.Add(make([]byte, 84))
	f.Fuzz(func(t *testing.T, data []byte) { m, err := ReadSTL(data); whole(t, m, err) })
}

func FuzzReadOBJ(f *testing.F) {
	f.Add(file(f, "pontoon.obj"))
	f.Add([]byte("v 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\ng a b\nf 1/1 2//2 3/1/2 -1\n"))
	f.Fuzz(func(t *testing.T, data []byte) { m, err := ReadOBJ(data); whole(t, m, err) })
}

func FuzzReadOffsets(f *testing.F) {
	f.Add([]byte("x;0;0.5;1;keel\n0;1;1;1;0\n1;1;1;1;0\n4;1;1;1;0\n"))
	f.Add([]byte("st,-1,0,1\n0,,0.1,0.2\n1,0.1,0.5,0.6\n2,,0,0.1\n"))
	f.Fuzz(func(t *testing.T, data []byte) { m, err := ReadOffsets(data); whole(t, m, err) })
}

// million is a binary STL of a wavy closed tube with a million facets.
func million() []byte {
	const around, along = 1000, 500
	data := make([]byte, 84+50*2*around*along)
	binary.LittleEndian.PutUint32(data[80:], 2*around*along)
	at := func(i, k int) [3]float64 {
		s, c := math.Sincos(2 * math.Pi * float64(i%around) / around)
		r := 1 + 0.2*math.Sin(float64(k)/40)
		return [3]float64{10 * float64(k) / along, r * c, r * s}
	}
	n := 84
	facet := func(v ...[3]float64) {
		for i, p := range v {
			for a, x := range p {
				binary.LittleEndian.PutUint32(data[n+12+12*i+4*a:], math.Float32bits(float32(x)))
			}
		}
		n += 50
	}
	for k := range along {
		for i := range around {
			a, b, c, d := at(i, k), at(i+1, k), at(i+1, k+1), at(i, k+1)
			facet(a, b, c)
			facet(a, c, d)
		}
	}
	return data
}

// BenchmarkMillionFacets reads a binary STL of 1,000,000 facets and splits its
// area; "MB" is the memory it takes beside the file.
func BenchmarkMillionFacets(b *testing.B) {
	data := million()
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	for b.Loop() {
		m, err := ReadSTL(data)
		require.NoError(b, err)
		m, err = m.Place(mesh.Placing{Unit: "m", Up: "+z", Forward: "+x"})
		require.NoError(b, err)
		require.NotZero(b, m.Areas(0.1).TotalM2)
	}
	runtime.ReadMemStats(&after)
	b.ReportMetric(float64(after.TotalAlloc-before.TotalAlloc)/float64(b.N)/1e6, "MB")
}

// BenchmarkMillionFacetsChecked looks for holes, flipped and doubled facets.
func BenchmarkMillionFacetsChecked(b *testing.B) {
	m, err := ReadSTL(million())
	require.NoError(b, err)
	for b.Loop() {
		_, report := m.Clean()
		require.Equal(b, 2000, report.BoundaryEdges)
	}
}

// One facet many times over, and faces of many corners: the time goes with the length of the file.
func TestOBJOfOneFacetManyTimes(t *testing.T) {
	corners := "v 0 0 0\nv 1 0 0\nv 0 1 0\nv 0 0 1\n"
	m, err := ReadOBJ([]byte(corners + strings.Repeat("f 1 2 3\n", 300_000) + "f 1 2 4\nf 1 4 2\n"))
	require.NoError(t, err)
	m, r := m.Clean()
	assert.Len(t, m.Triangles, 2, "each once")
	assert.Equal(t, 300_000, r.Dropped)
	_, err = ReadOBJ([]byte(corners + "f" + strings.Repeat(" 1 2 3", 100) + "\n"))
	assert.ErrorContains(t, err, "a face of 300 corners; at most 250")
}
