package formats

import (
	"fmt"
	"sync"

	"allcoats/core/geometry/polygon"

	"golang.org/x/image/font"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/sfnt"
	"golang.org/x/image/math/fixed"
)

var bold = sync.OnceValues(func() (*sfnt.Font, error) { return sfnt.Parse(gobold.TTF) })

const (
	em         = 1000 // the size that glyphs are read at, in units of the outline
	curveSteps = 12   // corners of a curve of a letter
)

// Letters draws a text in the font Go Bold, on the line y = 0, an em being 1 m high.
// Letters that the font lacks are an error.
func Letters(text string) (polygon.Shape, error) {
	f, err := bold()
	if err != nil {
		return nil, err
	}
	var (
		buf   sfnt.Buffer
		rings []polygon.Ring
		x     fixed.Int26_6
		last  sfnt.GlyphIndex
	)
	for i, r := range text {
		g, err := f.GlyphIndex(&buf, r)
		if err != nil || g == 0 {
			return nil, fmt.Errorf("the letter %q cannot be drawn", r)
		}
		if i > 0 {
			if k, err := f.Kern(&buf, last, g, fixed.I(em), font.HintingNone); err == nil {
				x += k
			}
		}
		segments, err := f.LoadGlyph(&buf, g, fixed.I(em), nil)
		if err != nil {
			return nil, fmt.Errorf("the letter %q: %w", r, err)
		}
		rings = append(rings, contours(segments, x)...)
		step, err := f.GlyphAdvance(&buf, g, fixed.I(em), font.HintingNone)
		if err != nil {
			return nil, fmt.Errorf("the letter %q: %w", r, err)
		}
		x, last = x+step, g
	}
	return polygon.FromRings(rings), nil
}

// contours flattens the outlines of a glyph set at x; its y points down.
func contours(segments sfnt.Segments, x fixed.Int26_6) (rings []polygon.Ring) {
	at := func(p fixed.Point26_6) polygon.Point {
		return polygon.Point{X: float64(p.X+x) / (64 * em), Y: -float64(p.Y) / (64 * em)}
	}
	var ring polygon.Ring
	add := func(p polygon.Point) {
		if n := len(ring); n == 0 || ring[n-1] != p {
			ring = append(ring, p)
		}
	}
	end := func() {
		if n := len(ring); n > 1 && ring[0] == ring[n-1] {
			ring = ring[:n-1]
		}
		if len(ring) > 2 {
			rings = append(rings, ring)
		}
		ring = nil
	}
	for _, s := range segments {
		switch s.Op {
		case sfnt.SegmentOpMoveTo:
			end()
			add(at(s.Args[0]))
		case sfnt.SegmentOpLineTo:
			add(at(s.Args[0]))
		case sfnt.SegmentOpQuadTo, sfnt.SegmentOpCubeTo:
			a, b, c := ring[len(ring)-1], at(s.Args[0]), at(s.Args[1])
			for k := 1.0; k <= curveSteps; k++ {
				t := k / curveSteps
				if s.Op == sfnt.SegmentOpQuadTo {
					add(bezier(t, a, b, c))
				} else {
					add(bezier(t, a, b, c, at(s.Args[2])))
				}
			}
		}
	}
	end()
	return rings
}

// bezier is the point of a curve at t in [0, 1], by de Casteljau.
func bezier(t float64, p ...polygon.Point) polygon.Point {
	for n := len(p) - 1; n > 0; n-- {
		next := make([]polygon.Point, n)
		for i := range n {
			next[i] = polygon.Point{X: p[i].X + t*(p[i+1].X-p[i].X), Y: p[i].Y + t*(p[i+1].Y-p[i].Y)}
		}
		p = next
	}
	return p[0]
}
