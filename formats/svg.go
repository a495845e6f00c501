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
)

// flat is how far, in m, a drawn curve may lie from the corners it becomes.
const flat = 0.0001

// maxRings is the most closed lines taken from a drawing.
const maxRings = 500

// maxCornersInAll is the most corners of all of them.
const maxCornersInAll = 1 << 20

// maxDrawingM is the largest drawn shape taken.
const maxDrawingM = 200.0

// svgUnits are the lengths that SVG knows, in m; a bare number is a CSS pixel,
// 1/96 in.
var svgUnits = map[string]float64{"": 0.0254 / 96, "px": 0.0254 / 96, "mm": 0.001, "cm": 0.01, "in": 0.0254,
	"pt": 0.0254 / 72, "pc": 0.0254 / 6, "m": 1}

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
	stack := []affine{identity}
	seen, room := false, maxCornersInAll
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
				m = m.times(own)
			}
			stack = append(stack, m)
			rings, err := svgRings(e.Name.Local, at, affine{unitM, 0, 0, -unitM, 0, 0}.times(m), &room)
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

// svgRings returns the closed lines of one element, which may take room corners.
func svgRings(name string, at map[string]string, m affine, room *int) (out []polygon.Ring, err error) {
	p := &path{m: m, room: room}
	if err := svgShape(p, name, at); err != nil {
		return nil, err
	}
	if *room <= 0 {
		return nil, fmt.Errorf("more than %d corners", maxCornersInAll)
	}
	for _, s := range p.subpaths {
		r := ring(s.line)
		if len(r) < 3 || !s.closed && s.line[0] != s.line[len(s.line)-1] {
			continue
		}
		lo, hi := polygon.Shape{{Outer: r}}.Bounds()
		if !(hi.X-lo.X <= maxDrawingM && hi.Y-lo.Y <= maxDrawingM) {
			return nil, fmt.Errorf("larger than %g m", maxDrawingM)
		}
		out = append(out, r)
	}
	return out, nil
}

func ring(line []polygon.Point) polygon.Ring {
	var r polygon.Ring
	for _, p := range line {
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

// svgShape draws an element; one that is no shape draws nothing.
func svgShape(p *path, name string, at map[string]string) error {
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
		return p.read(at["d"])
	case "polygon", "polyline":
		if text := strings.TrimSpace(at["points"]); text != "" {
			return p.read("M" + text + map[string]string{"polygon": "Z"}[name])
		}
	case "rect":
		rx, ry := num("rx"), num("ry")
		if at["rx"] == "" {
			rx = ry
		} else if at["ry"] == "" {
			ry = rx
		}
		p.rectangle(num("x"), num("y"), num("width"), num("height"), rx, ry)
	case "circle":
		p.ellipse(num("cx"), num("cy"), num("r"), num("r"))
	case "ellipse":
		p.ellipse(num("cx"), num("cy"), num("rx"), num("ry"))
	}
	return bad
}

// svgTransform reads a transform attribute.
func svgTransform(text string) (affine, error) {
	m := identity
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
			m = m.times(affine{1, 0, 0, 1, v[0], second(0)})
		case name == "scale":
			m = m.times(affine{v[0], 0, 0, second(v[0]), 0, 0})
		case name == "rotate" && len(v) == 3:
			m = m.times(affine{1, 0, 0, 1, v[1], v[2]}).times(turned(v[0])).times(affine{1, 0, 0, 1, -v[1], -v[2]})
		case name == "rotate":
			m = m.times(turned(v[0]))
		case name == "matrix" && len(v) == 6:
			m = m.times(affine(v))
		default:
			return m, errors.New(name + " is not read")
		}
	}
	return m, nil
}

// turned turns by degrees.
func turned(degrees float64) affine {
	sin, cos := math.Sincos(degrees * math.Pi / 180)
	return affine{cos, sin, -sin, cos, 0, 0}
}
