package nonskid

import (
	"fmt"
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/geometry/polygon"
)

// Stencil is a name or a logo in the non-skid. Its letters stay smooth, or, Textured,
// they are of non-skid in a smooth field. Outlines, if given, are drawn instead of
// Text, as wide and high as HeightM makes them.
type Stencil struct {
	Text     string         `json:"text"`
	Outlines []polygon.Ring `json:"outlines,omitempty"`
	X        float64        `json:"x"` // of its middle
	Y        float64        `json:"y"`
	HeightM  float64        `json:"heightM"`
	TurnDeg  float64        `json:"turnDeg"`
	Textured bool           `json:"textured"`
	// BridgeM is how wide the bridges are that keep it in one piece.
	BridgeM float64 `json:"bridgeM"`
}

func (s Stencil) validate() error {
	var bad fielderr.Errors
	if s.Text == "" && len(s.Outlines) == 0 {
		bad.Add("text", "give the letters, or a drawing")
	}
	if len([]rune(s.Text)) > 30 {
		bad.Add("text", "at most 30 letters")
	}
	bad.Range("x", s.X, -1000, 1000, "m")
	bad.Range("y", s.Y, -1000, 1000, "m")
	bad.Range("heightM", s.HeightM, 0.02, 5, "m")
	bad.Range("bridgeM", s.BridgeM, 0.001, 0.1, "m")
	for i, r := range s.Outlines {
		bad.Under(fmt.Sprintf("outlines[%d]", i), polygon.Polygon{Outer: r}.Validate())
	}
	return bad.Err()
}

// Cut is a stencil drawn: the letters, and the sheet to be cut for it, in one piece.
// Of smooth letters the sheet is the letters themselves, joined; of textured ones the
// field round them, its islands held by bridges.
type Cut struct {
	Letters polygon.Shape `json:"letters"`
	Sheet   polygon.Shape `json:"sheet"`
	Panel   string        `json:"panel"`
	Pieces  int           `json:"pieces"`
	LengthM float64       `json:"lengthM"`
	HeightM float64       `json:"heightM"`
	CutM    float64       `json:"cutM"`
	Bridges int           `json:"bridges"`
}

// Letters draws a text as outlines, of any size: how a font does it is not the core's.
type Letters func(text string) (polygon.Shape, error)

// letters draws them level, about the origin, HeightM high.
func (s Stencil) letters(draw Letters) (out polygon.Shape, err error) {
	if len(s.Outlines) > 0 {
		out = polygon.FromRings(s.Outlines)
	} else if out, err = draw(s.Text); err != nil {
		return nil, fielderr.At("stencil.text", "%v", err)
	}
	if len(out) == 0 {
		return nil, fielderr.At("stencil.text", "no letter of it can be drawn")
	}
	lo, hi := out.Bounds()
	k := s.HeightM / (hi.Y - lo.Y)
	return out.Placed(func(p polygon.Point) polygon.Point {
		return polygon.Point{X: k * (p.X - (lo.X+hi.X)/2), Y: k * (p.Y - (lo.Y+hi.Y)/2)}
	}), nil
}

// bar is a level strip about the origin.
func bar(x0, x1, y0, y1 float64) polygon.Shape {
	return polygon.Shape{{Outer: polygon.Ring{{X: x0, Y: y0}, {X: x1, Y: y0}, {X: x1, Y: y1}, {X: x0, Y: y1}}}}
}

// cut draws the stencil level, about the origin, and makes one piece of its sheet.
func (s Stencil) cut(draw Letters) (c Cut, err error) {
	if c.Letters, err = s.letters(draw); err != nil {
		return c, err
	}
	lo, hi := c.Letters.Bounds()
	b := s.BridgeM
	if !s.Textured {
		// A bar along the middle of the lower half joins all letters.
		y := lo.Y + 0.28*(hi.Y-lo.Y)
		if c.Sheet = c.Letters; len(c.Letters) > 1 {
			c.Bridges = 1
			c.Sheet, err = c.Letters.With(bar(lo.X, hi.X, y-b/2, y+b/2))
		}
	} else {
		pad := s.HeightM / 4
		if c.Sheet, err = bar(lo.X-pad, hi.X+pad, lo.Y-pad, hi.Y+pad).Less(c.Letters); err != nil {
			return c, err
		}
		// Each island is held by a bridge through its middle, up to the field above.
		for _, p := range c.Letters {
			for _, h := range p.Holes {
				at := polygon.Polygon{Outer: h}.Inner()
				c.Bridges++
				if c.Sheet, err = c.Sheet.With(bar(at.X-b/2, at.X+b/2, at.Y, hi.Y+pad/2)); err != nil {
					return c, err
				}
			}
		}
		if c.Letters, err = bar(lo.X-pad, hi.X+pad, lo.Y-pad, hi.Y+pad).Less(c.Sheet); err != nil {
			return c, err
		}
	}
	if err != nil {
		return c, err
	}
	c.Pieces, c.CutM = len(c.Sheet), c.Sheet.EdgeLength()
	lo, hi = c.Sheet.Bounds()
	c.LengthM, c.HeightM = hi.X-lo.X, hi.Y-lo.Y
	return c, nil
}

// letter puts a stencil into the panel that it lies on.
func (l *Layout) letter(s Stencil, draw Letters, cells []cell) error {
	c, err := s.cut(draw)
	if err != nil {
		return err
	}
	sin, cos := math.Sincos(s.TurnDeg * math.Pi / 180)
	place := func(p polygon.Point) polygon.Point {
		return polygon.Point{X: s.X + p.X*cos - p.Y*sin, Y: s.Y + p.X*sin + p.Y*cos}
	}
	c.Letters, c.Sheet = c.Letters.Placed(place), c.Sheet.Placed(place)
	l.Stencil = &c
	if c.Pieces > 1 {
		l.find(true,
			"The stencil falls into %d pieces: its parts do not meet on the bridge. Widen the bridges, or draw them into the logo.", c.Pieces)
	}
	whole, err := c.Sheet.With(c.Letters)
	if err != nil {
		return err
	}
	cut := c.Letters // smooth letters
	if s.Textured {
		cut = c.Sheet
	}
	for i := range cells {
		for k, p := range cells[i].panels {
			in, err := whole.Within(p.Shape)
			if err != nil {
				return err
			}
			if in.Area() < 0.01*whole.Area() {
				continue
			}
			if in.Area() < 0.99*whole.Area() {
				l.find(true,
					"The stencil does not lie wholly on one panel: %.0f %% of it do. Move it, or make it smaller.",
					100*in.Area()/whole.Area())
			}
			if cells[i].panels[k].Shape, err = p.Less(cut); err != nil {
				return err
			}
			l.TwiceM += c.CutM
			return nil
		}
	}
	l.find(true, "The stencil lies on no panel: move it.")
	return nil
}
