package formats

import (
	"bytes"
	"compress/zlib"
	"io"
	"math"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"allcoats/core/base/fielderr"
	"allcoats/core/geometry/polygon"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func panel() Template {
	hatch := polygon.Ring{{X: 0.8, Y: 0.2}, {X: 0.8, Y: 0.5}, {X: 1.2, Y: 0.5}, {X: 1.2, Y: 0.2}}
	p := polygon.Polygon{Outer: polygon.Ring{{X: 0, Y: 0}, {X: 2, Y: 0}, {X: 1.8, Y: 0.7}, {X: 0, Y: 0.6}},
		Holes: []polygon.Ring{hatch}}
	return Template{"Deck & more", []Piece{{"S1", polygon.Shape{p.Filleted(0.05, 0.04)}}}}
}

// What is written is read back with the same areas, in its true size.
func TestTemplatesReadBack(t *testing.T) {
	one := panel()
	want := one.Pieces[0].Shape.Area()
	for name, way := range map[string]struct {
		write func(Template) ([]byte, error)
		read  func([]byte, float64) ([]polygon.Ring, error)
	}{"svg": {WriteSVG, ReadSVG}, "dxf": {WriteDXF, ReadDXF}} {
		for times, d := range map[float64]Template{1: one, 2: one.Paired()} {
			data, err := way.write(d)
			require.NoError(t, err)
			rings, err := way.read(data, 0)
			require.NoError(t, err, name)
			assert.Len(t, rings, 2*int(times), name)
			assert.InDelta(t, times*want, polygon.FromRings(rings).Area(), 1e-3*want, name)
			lo, hi := polygon.Shape{{Outer: rings[0]}}.Bounds()
			from, to := one.Pieces[0].Shape.Bounds()
			assert.InDelta(t, to.X-from.X, hi.X-lo.X, 1e-5, name)
			assert.InDelta(t, to.Y-from.Y, hi.Y-lo.Y, 1e-5, name)
		}
	}
	svg, err := WriteSVG(one)
	require.NoError(t, err)
	assert.Contains(t, string(svg), "Deck &amp; more")
	assert.Equal(t, 11, strings.Count(string(svg), `<path d="M`)-1, "four crosses of two lines, and the bar of three")
}

func TestMirroredPairIsMirrored(t *testing.T) {
	p := panel().Paired()
	require.Len(t, p.Pieces, 2)
	alo, ahi := p.Pieces[0].Shape.Bounds()
	blo, bhi := p.Pieces[1].Shape.Bounds()
	assert.Greater(t, blo.X, ahi.X, "beside it")
	assert.InDelta(t, ahi.Y-alo.Y, bhi.Y-blo.Y, 1e-9)
	// The hatch, low in the one, is as high in the other.
	a, b := p.Pieces[0].Shape[0].Holes[0], p.Pieces[1].Shape[0].Holes[0]
	ha, _ := polygon.Shape{{Outer: a}}.Bounds()
	_, hb := polygon.Shape{{Outer: b}}.Bounds()
	assert.InDelta(t, ha.Y-alo.Y, bhi.Y-hb.Y, 1e-9)
}

func TestTiles(t *testing.T) {
	var b bytes.Buffer
	n, err := WriteTiles(&b, panel())
	require.NoError(t, err)
	// 2080 × 780 mm with the frame; a page carries 180 × 267 of it.
	assert.Equal(t, int(math.Ceil(2070.0/180)*math.Ceil(770.0/267)), n)
	assert.Equal(t, n, strings.Count(b.String(), "/Type /Page\n"))
	assert.Contains(t, b.String(), "/MediaBox [0 0 595.28 841.89]", "A4 in points")
	bars := 0
	for _, stream := range regexp.MustCompile(`(?s)stream\n(.*?)\nendstream`).FindAllStringSubmatch(b.String(), -1) {
		r, err := zlib.NewReader(strings.NewReader(stream[1]))
		if err != nil {
			continue // a picture or a font
		}
		drawn, _ := io.ReadAll(r) // what of it is no drawing has no lines
		for _, m := range regexp.MustCompile(
			`(?m)^([\d.-]+) ([\d.-]+) m ([\d.-]+) ([\d.-]+) l S$`).FindAllStringSubmatch(string(drawn), -1) {
			x0, _ := strconv.ParseFloat(m[1], 64)
			x1, _ := strconv.ParseFloat(m[3], 64)
			if m[2] == m[4] && math.Abs(x1-x0-100*72/25.4) < 0.02 {
				bars++
			}
		}
	}
	assert.GreaterOrEqual(t, bars, 1, "the bar of 100 mm is that long")
	big := panel()
	big.Pieces[0].Shape = big.Pieces[0].Shape.Placed(func(p polygon.Point) polygon.Point {
		return polygon.Point{X: 6 * p.X, Y: 6 * p.Y}
	})
	var bad fielderr.Errors
	_, err = WriteTiles(&b, big)
	require.ErrorAs(t, err, &bad)
	assert.Contains(t, bad[0].Message, "too many to glue")
	_, err = WriteSVG(Template{Title: "nothing"})
	require.ErrorAs(t, err, &bad)
}
