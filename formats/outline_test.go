package formats

import (
	"math"
	"strings"
	"testing"

	"allcoats/core/base/fielderr"
	"allcoats/core/geometry/polygon"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/tdewolff/canvas"
)

func svg(inner string) string {
	return `<svg xmlns="http://www.w3.org/2000/svg" width="2000mm" height="1000mm" viewBox="0 0 2000 1000">` + inner +
		`</svg>`
}

func TestReadSVG(t *testing.T) {
	for name, c := range map[string]struct {
		inner string
		area  float64
	}{
		"rectangle":         {`<rect x="100" y="100" width="1500" height="400"/>`, 0.6},
		"circle":            {`<circle cx="500" cy="500" r="400"/>`, math.Pi * 0.16},
		"ellipse":           {`<ellipse cx="500" cy="500" rx="400" ry="100"/>`, math.Pi * 0.04},
		"polygon":           {`<polygon points="0,0 1000,0 0,1000"/>`, 0.5},
		"path, relative":    {`<path d="m0 0h1000v500h-1000z"/>`, 0.5},
		"half disc by arc":  {`<path d="M0 0A500 500 0 0 1 1000 0Z"/>`, math.Pi * 0.125},
		"scaled group":      {`<g transform="translate(10 10) scale(2)"><rect width="100" height="100"/></g>`, 0.04},
		"turned":            {`<rect transform="rotate(30)" width="300" height="100"/>`, 0.03},
		"turned about":      {`<rect transform="rotate(30, 5, 5)" width="300" height="100"/>`, 0.03},
		"by matrix":         {`<rect transform="matrix(0 1 -1 0 0 0)" width="300" height="100"/>`, 0.03},
		"rounded rectangle": {`<rect width="400" height="400" rx="100"/>`, 0.16 - (4-math.Pi)*0.01},
	} {
		rings, err := ReadSVG([]byte(svg(c.inner)), 0)
		require.NoError(t, err, name)
		require.Len(t, rings, 1, name)
		assert.InDelta(t, c.area, polygon.Polygon{Outer: rings[0]}.Area(), 3e-3*c.area, name)
	}
	// Without a size the caller's unit holds.
	rings, err := ReadSVG([]byte(`<svg><rect width="3" height="2"/></svg>`), 0.01)
	require.NoError(t, err)
	assert.InDelta(t, 6e-4, polygon.Polygon{Outer: rings[0]}.Area(), 1e-9)
}

func TestBadSVG(t *testing.T) {
	for name, c := range map[string]struct{ data, path, reason string }{
		"empty":         {"", "file", "no SVG"},
		"other XML":     {"<html></html>", "file", "no SVG"},
		"cut off":       {svg("<rect")[:100], "line 1", "cannot be read"},
		"open line":     {svg(`<polyline points="0,0 1,0 1,1"/>`), "file", "no closed shape"},
		"bad path":      {svg("\n" + `<path d="M0 0 L x"/>`), "line 2", "path"},
		"bad number":    {svg(`<circle r="wide"/>`), "line 1", "is not a number"},
		"huge":          {svg(`<circle r="1e9"/>`), "line 1", "larger than 200 m"},
		"bad transform": {svg(`<g transform="skewX(3)"></g>`), "line 1", "is not read"},
	} {
		_, err := ReadSVG([]byte(c.data), 0)
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, name)
		assert.Equal(t, c.path, bad[0].Path, name)
		assert.Contains(t, bad[0].Message, c.reason, name)
	}
}

// dxf writes groups "code value" as a DXF file in mm.
func dxf(groups ...string) string {
	all := append([]string{"0 SECTION", "2 HEADER", "9 $INSUNITS", "70 4", "0 ENDSEC", "0 SECTION", "2 ENTITIES"},
		groups...)
	all = append(all, "0 ENDSEC", "0 EOF")
	return strings.ReplaceAll(strings.Join(all, "\n"), " ", "\n") + "\n"
}

func TestReadDXF(t *testing.T) {
	for name, c := range map[string]struct {
		data string
		area float64
	}{
		"light polyline": {dxf("0 LWPOLYLINE", "90 4", "70 1", "10 0", "20 0", "10 1000", "20 0", "10 1000",
			"20 500", "10 0", "20 500"), 0.5},
		"half disc by bulge": {dxf("0 LWPOLYLINE", "70 1", "10 0", "20 0", "42 1", "10 1000", "20 0"), math.Pi * 0.125},
		"bulge inwards": {dxf("0 LWPOLYLINE", "70 1", "10 0", "20 0", "42 -0.414213562", "10 1000", "20 0", "10 1000",
			"20 1000", "10 0", "20 1000"),
			1 - (math.Pi/2-1)/4},
		"old polyline": {dxf("0 POLYLINE", "66 1", "70 1", "10 0", "20 0", "0 VERTEX", "10 0", "20 0", "0 VERTEX",
			"10 300", "20 0", "0 VERTEX", "10 300", "20 100",
			"0 VERTEX", "10 0", "20 100", "0 SEQEND"), 0.03},
		"circle": {dxf("0 CIRCLE", "10 5", "20 5", "40 400"), math.Pi * 0.16},
		"lines in any way": {dxf("0 LINE", "10 0", "20 0", "11 1000", "21 0", "0 LINE", "10 0", "20 1000",
			"11 0", "21 0", "0 LINE", "10 1000", "20 0", "11 0", "21 1000"), 0.5},
		"whole ellipse": {dxf("0 ELLIPSE", "10 5", "20 5", "11 300", "21 400", "40 0.5", "41 0",
			"42 6.283185307"), math.Pi * 0.125},
		"half an ellipse and a line": {dxf("0 ELLIPSE", "10 0", "20 0", "11 500", "21 0", "40 0.4", "41 0",
			"42 3.141592654", "0 LINE", "10 -500", "20 0", "11 500", "21 0"), math.Pi * 0.05},
		// A quarter circle as a rational quadratic, with its two radii.
		"rational spline": {dxf("0 SPLINE", "70 4", "71 2", "40 0", "40 0", "40 0", "40 1", "40 1", "40 1", "41 1",
			"41 0.707106781", "41 1",
			"10 1000", "20 0", "10 1000", "20 1000", "10 0", "20 1000", "0 LINE", "10 0", "20 0", "11 1000", "21 0",
			"0 LINE", "10 0", "20 1000", "11 0", "21 0"), math.Pi * 0.25},
		// A cubic arch of height 3/4 of its control points' 1000 over a base of 1000: ∫ 3t(1−t) x'(t) dt = 3/5.
		"cubic spline": {dxf("0 SPLINE", "70 0", "71 3", "40 0", "40 0", "40 0", "40 0", "40 1", "40 1", "40 1", "40 1",
			"10 0", "20 0", "10 0", "20 1000", "10 1000", "20 1000", "10 1000", "20 0", "0 LINE", "10 0", "20 0",
			"11 1000", "21 0"), 0.6},
		"line and arc": {dxf("0 LINE", "10 -500", "20 0", "11 500", "21 0", "0 ARC", "10 0", "20 0", "40 500", "50 0",
			"51 180"), math.Pi * 0.125},
	} {
		rings, err := ReadDXF([]byte(c.data), 0)
		require.NoError(t, err, name)
		require.Len(t, rings, 1, name)
		assert.InDelta(t, c.area, polygon.Polygon{Outer: rings[0]}.Area(), 1e-3*c.area, name)
	}
}

func TestBadDXF(t *testing.T) {
	for name, c := range map[string]struct{ data, path, reason string }{
		"empty":     {"", "file", "cut off"},
		"text":      {"hello\nthere\n", "line 1", "no group code"},
		"cut off":   {strings.TrimSuffix(dxf("0 CIRCLE", "10 0", "20 0", "40 1"), "0\nEOF\n"), "file", "cut off"},
		"binary":    {"AutoCAD Binary DXF\r\n\x1a\x00", "file", "save it as ASCII"},
		"open":      {dxf("0 LINE", "10 0", "20 0", "11 1", "21 0"), "file", "no closed shape"},
		"spline":    {dxf("0 SPLINE", "71 3", "40 0", "10 0", "20 0"), "line 15", "do not go together"},
		"no number": {dxf("0 CIRCLE", "10 x", "20 0", "40 1"), "line 18", "is not a number"},
	} {
		_, err := ReadDXF([]byte(c.data), 0)
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, name)
		assert.Equal(t, c.path, bad[0].Path, name)
		assert.Contains(t, bad[0].Message, c.reason, name)
	}
}

// closed reports that what a reader accepts are rings of numbers.
func closed(t *testing.T, rings []polygon.Ring, err error) {
	if err != nil {
		assert.Empty(t, rings)
		return
	}
	assert.NotEmpty(t, rings)
	for _, r := range rings {
		assert.GreaterOrEqual(t, len(r), 3)
	}
}

func FuzzReadSVG(f *testing.F) {
	f.Add([]byte(svg(`<g transform="scale(2)"><path d="M0 0A5 5 0 0 1 10 0C1 2 3 4 5 6Z"/></g>`)))
	f.Add([]byte(svg(`<rect width="3" height="2" rx="1"/><polygon points="0,0 1,0 1,1"/>`)))
	f.Fuzz(func(t *testing.T, data []byte) { r, err := ReadSVG(data, 0.001); closed(t, r, err) })
}

func FuzzReadDXF(f *testing.F) {
	f.Add([]byte(dxf("0 LWPOLYLINE", "70 1", "10 0", "20 0", "42 1", "10 1000", "20 0")))
	f.Add([]byte(dxf("0 LINE", "10 -500", "20 0", "11 500", "21 0", "0 ARC", "10 0", "20 0", "40 500", "50 0",
		"51 180")))
	f.Fuzz(func(t *testing.T, data []byte) { r, err := ReadDXF(data, 0.001); closed(t, r, err) })
}

// Paths are read as another reader of them does: every command, absolute and relative, with and without gaps.
func TestPathsAgainstAnotherReader(t *testing.T) {
	for _, d := range []string{
		"M10 10L60 10 60 40 10 40Z", "m10,10 50,0 0,30 -50,0z", "M10 10H60V40H10Z", "M10 10h50v30h-50z",
		"M10 10C20 0 50 0 60 10S60 60 10 40Z", "m10 10c10-10 40-10 50 0s0 50-50 30z", "M10 10Q35-20 60 10T60 40 10 40Z",
		"m10 10q25-30 50 0t0 30-50 0z",
		"M10 10A30 20 30 1 0 60 10A30 20 30 0 0 10 10Z", "M10 10a30 20-30 0150 0a30 20-30 0 1-50 0z",
		"M10 10A5 5 0 0 1 60 10L60 40Z", "M1e1 1e1L.6e2 10 60.0.4e2Z",
		"M10 10L60 10 60 40ZL20 80 5 60ZM100 100h10v10z",
	} {
		other, err := canvas.ParseSVGPath(d)
		require.NoError(t, err, d)
		want, got := 0.0, 0.0
		for _, sub := range other.Transform(canvas.Identity.Scale(0.001, -0.001)).Flatten(1e-6).Split() {
			want += area(ring(pointsOf(sub.Coords())))
		}
		rings, err := ReadSVG([]byte(`<svg width="200mm" viewBox="0 0 200 200"><path d="`+d+`"/></svg>`), 0)
		require.NoError(t, err, d)
		for _, r := range rings {
			got += area(r)
		}
		assert.InDelta(t, want, got, 1e-5+1e-4*0.2, d) // within 0.1 mm along at most 200 mm
		assert.Greater(t, math.Abs(want), 1e-4, d)
	}
	for _, bad := range []string{"L10 10", "M10", "M10 10A5 5 0 2 0 20 20", "M10 10C1 2 3", "M10 10X5", "M10 10Z5",
		"M1e999 0L1 1Z"} {
		_, err := ReadSVG([]byte(`<svg width="200mm" viewBox="0 0 200 200"><path d="`+bad+`"/></svg>`), 0)
		assert.Error(t, err, bad)
	}
	long := "M0 0" + strings.Repeat("C0 900 900 0 0 0", 20_000) + "Z"
	_, err := ReadSVG([]byte(`<svg width="900mm" viewBox="0 0 900 900"><path d="`+long+`"/></svg>`), 0)
	assert.ErrorContains(t, err, "corners")
}

func pointsOf(coords []canvas.Point) (out []polygon.Point) {
	for _, c := range coords {
		out = append(out, polygon.Point{X: c.X, Y: c.Y})
	}
	return out
}

// area is by the shoelace formula, signed.
func area(r polygon.Ring) (a float64) {
	for i, p := range r {
		q := r[(i+1)%len(r)]
		a += (p.X*q.Y - q.X*p.Y) / 2
	}
	return a
}
