package formats

import (
	"bytes"
	"math"
	"strconv"
	"strings"

	"allcoats/core/geometry/polygon"
)

// dxfUnits are the drawing units of the header variable $INSUNITS, in m.
var dxfUnits = map[int]float64{1: 0.0254, 2: 0.3048, 4: 0.001, 5: 0.01, 6: 1}

// pair is a group of a DXF file: a code and its value.
type pair struct {
	code  int
	value string
	line  int
}

// ReadDXF reads the closed shapes of an ASCII DXF drawing as rings in m:
// closed LWPOLYLINE and POLYLINE with bulges, CIRCLE, whole ELLIPSE and closed SPLINE,
// and LINE, ARC and parts of ELLIPSE and SPLINE that join end to end. The unit is the header's $INSUNITS; without it
// unitM. Arcs become 192 corners a turn. Blocks are not read.
func ReadDXF(data []byte, unitM float64) ([]polygon.Ring, error) {
	pairs, err := dxfPairs(data)
	if err != nil {
		return nil, err
	}
	if unitM <= 0 {
		unitM = 0.001
	}
	var out []polygon.Ring
	var loose [][]polygon.Point
	section := ""
	for i := 0; i < len(pairs); i++ {
		p := pairs[i]
		switch {
		case p.code == 2 && i > 0 && pairs[i-1].value == "SECTION":
			section = p.value
		case p.code == 9 && p.value == "$INSUNITS" && i+1 < len(pairs):
			n, _ := strconv.Atoi(pairs[i+1].value)
			if u, ok := dxfUnits[n]; ok {
				unitM = u
			}
		case p.code == 0 && section == "ENTITIES":
			end := i + 1
			for end < len(pairs) && pairs[end].code != 0 {
				end++
			}
			if p.value == "POLYLINE" { // its vertices follow as entities of their own
				for end < len(pairs) && !(pairs[end].code == 0 && pairs[end].value == "SEQEND") {
					end++
				}
			}
			line, closed, err := dxfEntity(p, pairs[i+1:end])
			if err != nil {
				return nil, err
			}
			switch {
			case closed && len(line) >= 3:
				out = append(out, line)
			case !closed && len(line) >= 2:
				loose = append(loose, line)
			}
			if len(out)+len(loose) > 20*maxRings {
				return nil, lineFault(p.line, "more than %d shapes", 20*maxRings)
			}
			i = end - 1
		}
	}
	out = append(out, joined(loose)...)
	if len(out) == 0 {
		return nil, fileFault("there is no closed shape in it")
	}
	if len(out) > maxRings {
		return nil, fileFault("more than %d closed shapes", maxRings)
	}
	for _, r := range out {
		for k := range r {
			r[k].X *= unitM
			r[k].Y *= unitM
		}
	}
	return out, nil
}

func dxfPairs(data []byte) ([]pair, error) {
	if bytes.HasPrefix(data, []byte("AutoCAD Binary DXF")) {
		return nil, fileFault("this is a binary DXF file; save it as ASCII DXF")
	}
	lines := strings.Split(strings.TrimRight(string(data), "\r\n \t\x00"), "\n")
	var out []pair
	for i := 0; i+1 < len(lines); i += 2 {
		code, err := strconv.Atoi(strings.TrimSpace(lines[i]))
		if err != nil {
			return nil, lineFault(i+1, "%.20q is no group code: this is no DXF file", strings.TrimSpace(lines[i]))
		}
		out = append(out, pair{code, strings.TrimSpace(lines[i+1]), i + 1})
	}
	if len(out) == 0 || out[len(out)-1].value != "EOF" {
		return nil, fileFault("it is cut off, or no DXF file: there is no EOF at its end")
	}
	return out, nil
}

// dxfEntity returns the corners of one entity in drawing units.
func dxfEntity(head pair, body []pair) (line polygon.Ring, closed bool, err error) {
	number := func(p pair) float64 {
		v, e := strconv.ParseFloat(p.value, 64)
		if (e != nil || !finite(v)) && err == nil {
			err = lineFault(p.line+1, "%q is not a number", p.value)
		}
		return v
	}
	var bulges []float64
	value := map[int]float64{}
	var s spline
	vertex := head.value == "LWPOLYLINE"
	for _, p := range body {
		switch {
		case p.code == 0:
			vertex = p.value == "VERTEX"
		case head.value != "SPLINE" && p.code == 70 && (!vertex || head.value == "LWPOLYLINE"):
			n, _ := strconv.Atoi(p.value)
			closed = closed || n&1 == 1
		case p.code == 10 && vertex:
			line = append(line, polygon.Point{X: number(p)})
			bulges = append(bulges, 0)
		case p.code == 20 && vertex && len(line) > 0:
			line[len(line)-1].Y = number(p)
		case p.code == 42 && vertex && len(line) > 0:
			bulges[len(line)-1] = number(p)
		case head.value == "SPLINE":
			s.take(p.code, number(p))
		case p.code >= 10 && p.code <= 59:
			value[p.code] = number(p)
		}
	}
	if err != nil {
		return nil, false, err
	}
	switch head.value {
	case "LWPOLYLINE", "POLYLINE":
		return bulged(line, bulges, closed), closed, nil
	case "CIRCLE":
		return arcPoints(value[10], value[20], value[40], 0, 2*math.Pi), value[40] > 0, nil
	case "ARC":
		from, to := value[50]*math.Pi/180, value[51]*math.Pi/180
		for to <= from {
			to += 2 * math.Pi
		}
		from, to = math.Mod(from, 4*math.Pi), math.Mod(from, 4*math.Pi)+math.Min(to-from, 2*math.Pi)
		return arcPoints(value[10], value[20], value[40], from, to), false, nil
	case "ELLIPSE":
		line, closed = ellipsePoints(value)
		return line, closed, nil
	case "SPLINE":
		line, err = s.points()
		if err != nil {
			return nil, false, lineFault(head.line, "%v", err)
		}
		if n := len(line); n > 3 && math.Hypot(line[0].X-line[n-1].X, line[0].Y-line[n-1].Y) < 1e-9*(1+
			math.Abs(line[0].X)+math.Abs(line[0].Y)) {
			return line[:n-1], true, nil
		}
		return line, false, nil
	case "LINE":
		return polygon.Ring{{X: value[10], Y: value[20]}, {X: value[11], Y: value[21]}}, false, nil
	}
	return nil, false, nil
}

// arcSteps is into how many lines a full circle is flattened: 1.3e-4 of the
// radius away.
const arcSteps = 192

func arcPoints(x, y, r, from, to float64) polygon.Ring {
	n := max(1, int(math.Ceil((to-from)/(2*math.Pi)*arcSteps)))
	full := to-from >= 2*math.Pi-1e-9
	out := polygon.Ring{}
	for i := 0; i < n || i == n && !full; i++ {
		s, c := math.Sincos(from + (to-from)*float64(i)/float64(n))
		out = append(out, polygon.Point{X: x + r*c, Y: y + r*s})
	}
	return out
}

// bulged puts arcs between corners: a bulge is the tangent of a quarter of the
// arc's angle, positive anticlockwise.
func bulged(line polygon.Ring, bulges []float64, closed bool) polygon.Ring {
	var out polygon.Ring
	for i, a := range line {
		out = append(out, a)
		if bulges[i] == 0 || i == len(line)-1 && !closed {
			continue
		}
		b := line[(i+1)%len(line)]
		angle := 4 * math.Atan(bulges[i])
		dx, dy := b.X-a.X, b.Y-a.Y
		k := (1 - bulges[i]*bulges[i]) / (4 * bulges[i])
		cx, cy := (a.X+b.X)/2-k*dy, (a.Y+b.Y)/2+k*dx
		r, start := math.Hypot(a.X-cx, a.Y-cy), math.Atan2(a.Y-cy, a.X-cx)
		n := int(math.Ceil(math.Abs(angle) / (2 * math.Pi) * arcSteps))
		for s := 1; s < n; s++ {
			sin, cos := math.Sincos(start + angle*float64(s)/float64(n))
			out = append(out, polygon.Point{X: cx + r*cos, Y: cy + r*sin})
		}
	}
	return out
}

// joined puts open lines end to end; those that close become rings.
func joined(loose [][]polygon.Point) []polygon.Ring {
	var out []polygon.Ring
	near := func(a, b polygon.Point, size float64) bool { return math.Hypot(a.X-b.X, a.Y-b.Y) <= 1e-6*size+1e-9 }
	size := 0.0
	for _, l := range loose {
		for _, p := range l {
			size = max(size, math.Abs(p.X), math.Abs(p.Y))
		}
	}
	used := make([]bool, len(loose))
	for i := range loose {
		if used[i] {
			continue
		}
		used[i] = true
		chain := append(polygon.Ring{}, loose[i]...)
		for grown := true; grown && !near(chain[0], chain[len(chain)-1], size); {
			grown = false
			for k, l := range loose {
				if used[k] {
					continue
				}
				end := chain[len(chain)-1]
				if near(end, l[len(l)-1], size) {
					l = reversed(l)
				}
				if near(end, l[0], size) {
					chain, used[k], grown = append(chain, l[1:]...), true, true
					break
				}
			}
		}
		if n := len(chain); n > 3 && near(chain[0], chain[n-1], size) {
			out = append(out, chain[:n-1])
		}
	}
	return out
}

func reversed(l []polygon.Point) []polygon.Point {
	out := make([]polygon.Point, len(l))
	for i, p := range l {
		out[len(l)-1-i] = p
	}
	return out
}
