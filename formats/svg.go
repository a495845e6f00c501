package formats

import (
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"

	"allcoats/core/geometry/polygon"

	"github.com/tdewolff/canvas"
)

// flat is how far, in m, a drawn curve may lie from the corners it becomes.
const flat = 0.0001

// maxRings is the most closed lines taken from a drawing.
const maxRings = 500

// maxDrawingM is the largest drawn shape taken.
const maxDrawingM = 200.0

// svgUnits are the lengths that SVG knows, in m; a bare number is a CSS pixel,
// 1/96 in.
var svgUnits = map[string]float64{"": 0.0254 / 96, "px": 0.0254 / 96, "mm": 0.001, "cm": 0.01, "in": 0.0254, "pt": 0.0254 / 72, "pc": 0.0254 / 6, "m": 1}

// ReadSVG reads the closed shapes of an SVG drawing as rings in m, y up: path,
// polygon, polyline, rect, circle and ellipse, under their groups' transforms.
// The drawing's scale is its width over its view box; without them unitM is
// the size of one drawing unit. Curves are flattened to within 0.1 mm.
func ReadSVG(data []byte, unitM float64) ([]polygon.Ring, error) {
	if unitM <= 0 {
		unitM = svgUnits[""]
	}
	d := xml.NewDecoder(bytes.NewReader(data))
	d.CharsetReader = func(_ string, in io.Reader) (io.Reader, error) { return in, nil }
	var out []polygon.Ring
	stack := []canvas.Matrix{canvas.Identity}
	seen := false
	for {
		token, err := d.Token()
		if err == io.EOF {
			break
		}
		line, _ := d.InputPos()
		if err != nil {
			return nil, lineFault(line, "cannot be read as SVG: %v", err)
		}
		switch e := token.(type) {
		case xml.EndElement:
			stack = stack[:len(stack)-1]
		case xml.StartElement:
			at := map[string]string{}
			for _, a := range e.Attr {
				at[a.Name.Local] = a.Value
			}
			if e.Name.Local == "svg" && !seen {
				seen = true
				if s, ok := svgScale(at); ok {
					unitM = s
				}
			}
			m := stack[len(stack)-1]
			if t := at["transform"]; t != "" {
				own, err := svgTransform(t)
				if err != nil {
					return nil, lineFault(line, "transform %q: %v", t, err)
				}
				m = m.Mul(own)
			}
			stack = append(stack, m)
			rings, err := svgRings(e.Name.Local, at, canvas.Identity.Scale(unitM, -unitM).Mul(m))
			if err != nil {
				return nil, lineFault(line, "%s: %v", e.Name.Local, err)
			}
			if out = append(out, rings...); len(out) > maxRings {
				return nil, lineFault(line, "more than %d closed shapes", maxRings)
			}
		}
	}
	if !seen {
		return nil, fileFault("this is no SVG drawing")
	}
	if len(out) == 0 {
		return nil, fileFault("there is no closed shape in it")
	}
	return out, nil
}

// svgRings returns the closed lines of one element.
func svgRings(name string, at map[string]string, m canvas.Matrix) (out []polygon.Ring, err error) {
	defer func() { // the drawing library panics on some degenerate shapes
		if r := recover(); r != nil {
			out, err = nil, fmt.Errorf("cannot be drawn: %v", r)
		}
	}()
	p, err := svgShape(name, at)
	if p == nil || err != nil {
		return nil, err
	}
	p = p.Transform(m)
	if b := p.FastBounds(); !(b.W() <= maxDrawingM && b.H() <= maxDrawingM) {
		return nil, fmt.Errorf("larger than %g m", maxDrawingM)
	}
	for _, sub := range p.Flatten(flat).Split() {
		if r := ring(sub.Coords()); len(r) >= 3 && (sub.Closed() || name == "polygon") {
			out = append(out, r)
		}
	}
	return out, nil
}

func ring(coords []canvas.Point) polygon.Ring {
	var r polygon.Ring
	for _, c := range coords {
		p := polygon.Point{X: c.X, Y: c.Y}
		if len(r) == 0 || r[len(r)-1] != p {
			r = append(r, p)
		}
	}
	if n := len(r); n > 1 && r[0] == r[n-1] {
		r = r[:n-1]
	}
	return r
}

// svgScale is the m of one unit of the view box.
func svgScale(at map[string]string) (float64, bool) {
	box := strings.FieldsFunc(at["viewBox"], func(r rune) bool { return r == ' ' || r == ',' })
	text := strings.TrimSpace(at["width"])
	digits := strings.TrimRight(text, "abcdefghijklmnopqrstuvwxyz%")
	width, err := strconv.ParseFloat(digits, 64)
	unit, known := svgUnits[text[len(digits):]]
	if err != nil || !known || width <= 0 || text[len(digits):] == "" {
		return 0, false
	}
	if len(box) < 4 {
		return svgUnits[""], true
	}
	w, err := strconv.ParseFloat(box[2], 64)
	if err != nil || w <= 0 {
		return 0, false
	}
	return width * unit / w, true
}

func svgShape(name string, at map[string]string) (*canvas.Path, error) {
	bad := error(nil)
	num := func(key string) float64 {
		s := strings.TrimSpace(at[key])
		if s == "" {
			return 0
		}
		v, err := strconv.ParseFloat(strings.TrimSuffix(s, "px"), 64)
		if err != nil || !finite(v) {
			bad = errors.New(key + " " + strconv.Quote(s) + " is not a number")
		}
		return v
	}
	switch name {
	case "path":
		return canvas.ParseSVGPath(at["d"])
	case "polygon", "polyline":
		text := strings.TrimSpace(at["points"])
		if text == "" {
			return nil, nil
		}
		return canvas.ParseSVGPath("M" + text + map[string]string{"polygon": "Z"}[name])
	case "rect":
		w, h := num("width"), num("height")
		p := canvas.Rectangle(w, h).Translate(num("x"), num("y"))
		if rx := math.Max(num("rx"), num("ry")); rx > 0 {
			p = canvas.RoundedRectangle(w, h, rx).Translate(num("x"), num("y"))
		}
		return p, bad
	case "circle":
		return canvas.Circle(num("r")).Translate(num("cx"), num("cy")), bad
	case "ellipse":
		return canvas.Ellipse(num("rx"), num("ry")).Translate(num("cx"), num("cy")), bad
	}
	return nil, nil
}

// svgTransform reads a transform attribute.
func svgTransform(text string) (canvas.Matrix, error) {
	m := canvas.Identity
	for text = strings.TrimSpace(text); text != ""; text = strings.TrimLeft(text, " ,\t\r\n") {
		name, rest, ok := strings.Cut(text, "(")
		inner, after, closed := strings.Cut(rest, ")")
		if !ok || !closed {
			return m, errors.New("brackets are missing")
		}
		text = after
		var v []float64
		for _, f := range strings.FieldsFunc(inner, func(r rune) bool { return strings.ContainsRune(" ,\t\r\n", r) }) {
			x, err := strconv.ParseFloat(f, 64)
			if err != nil || !finite(x) {
				return m, errors.New(strconv.Quote(f) + " is not a number")
			}
			v = append(v, x)
		}
		second := func(or float64) float64 {
			if len(v) > 1 {
				return v[1]
			}
			return or
		}
		switch name = strings.TrimSpace(name); {
		case len(v) == 0:
			return m, errors.New("numbers are missing")
		case name == "translate":
			m = m.Translate(v[0], second(0))
		case name == "scale":
			m = m.Scale(v[0], second(v[0]))
		case name == "rotate" && len(v) == 3:
			m = m.Translate(v[1], v[2]).Rotate(v[0]).Translate(-v[1], -v[2])
		case name == "rotate":
			m = m.Rotate(v[0])
		case name == "matrix" && len(v) == 6:
			m = m.Mul(canvas.Matrix{{v[0], v[2], v[4]}, {v[1], v[3], v[5]}})
		default:
			return m, errors.New(name + " is not read")
		}
	}
	return m, nil
}
