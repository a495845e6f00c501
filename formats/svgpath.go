package formats

import (
	"errors"
	"fmt"
	"math"
	"strconv"

	"allcoats/core/geometry/polygon"
)

// affine is x' = ax + cy + e, y' = bx + dy + f, as SVG's matrix(a b c d e f) has it.
type affine [6]float64

var identity = affine{1, 0, 0, 1, 0, 0}

// times is first n, then m.
func (m affine) times(n affine) affine {
	return affine{
		m[0]*n[0] + m[2]*n[1], m[1]*n[0] + m[3]*n[1],
		m[0]*n[2] + m[2]*n[3], m[1]*n[2] + m[3]*n[3],
		m[0]*n[4] + m[2]*n[5] + m[4], m[1]*n[4] + m[3]*n[5] + m[5],
	}
}

func (m affine) of(p polygon.Point) polygon.Point {
	return polygon.Point{X: m[0]*p.X + m[2]*p.Y + m[4], Y: m[1]*p.X + m[3]*p.Y + m[5]}
}

// subpath is a line of a path, its curves flattened.
type subpath struct {
	line   []polygon.Point
	closed bool
}

// path is drawn in the units of a drawing and kept as m places it, in m.
type path struct {
	m        affine
	at       polygon.Point // in the drawing's units
	subpaths []subpath
	room     *int // corners that may still be put
}

// maxCorners is the most corners that one curve becomes.
const maxCorners = 4096

func (p *path) put(to polygon.Point) {
	if *p.room--; *p.room < 0 {
		return
	}
	s := &p.subpaths[len(p.subpaths)-1]
	s.line = append(s.line, p.m.of(to))
	p.at = to
}

func (p *path) moveTo(to polygon.Point) {
	p.subpaths = append(p.subpaths, subpath{})
	p.put(to)
}

func (p *path) lineTo(to polygon.Point) { p.put(to) }

func (p *path) close() { p.subpaths[len(p.subpaths)-1].closed = true }

// cubicTo is a Bézier curve, its chords within flat of it: an n-th of it is within 6/8 of its largest second
// difference, over n².
func (p *path) cubicTo(b, c, to polygon.Point) {
	from := p.at
	p0, p1, p2, p3 := p.m.of(from), p.m.of(b), p.m.of(c), p.m.of(to)
	bend := math.Max(math.Hypot(p0.X-2*p1.X+p2.X, p0.Y-2*p1.Y+p2.Y), math.Hypot(p1.X-2*p2.X+p3.X, p1.Y-2*p2.Y+p3.Y))
	n := math.Min(math.Max(1, math.Ceil(math.Sqrt(0.75*bend/flat))), maxCorners)
	for i := 1.0; i <= n && *p.room > 0; i++ {
		t := i / n
		u := 1 - t
		k0, k1, k2, k3 := u*u*u, 3*u*u*t, 3*u*t*t, t*t*t
		p.put(polygon.Point{X: k0*from.X + k1*b.X + k2*c.X + k3*to.X, Y: k0*from.Y + k1*b.Y + k2*c.Y + k3*to.Y})
	}
}

func (p *path) quadTo(b, to polygon.Point) {
	a := p.at
	toward := func(end polygon.Point) polygon.Point {
		return polygon.Point{X: end.X + 2*(b.X-end.X)/3, Y: end.Y + 2*(b.Y-end.Y)/3}
	}
	p.cubicTo(toward(a), toward(to), to)
}

// arcTo is an elliptical arc, its x axis turned by rot degrees (SVG 2, appendix B.2.4 and B.2.5), as Bézier curves of
// an eighth of it at most, which lie within 4 millionths of its radius.
func (p *path) arcTo(rx, ry, rot float64, large, sweep bool, to polygon.Point) {
	from := p.at
	rx, ry = math.Abs(rx), math.Abs(ry)
	if from == to {
		return
	}
	if rx == 0 || ry == 0 {
		p.lineTo(to)
		return
	}
	sin, cos := math.Sincos(rot * math.Pi / 180)
	hx, hy := (from.X-to.X)/2, (from.Y-to.Y)/2
	x, y := cos*hx+sin*hy, cos*hy-sin*hx
	if over := x*x/(rx*rx) + y*y/(ry*ry); over > 1 { // too small to reach
		rx, ry = rx*math.Sqrt(over), ry*math.Sqrt(over)
	}
	d := rx*rx*y*y + ry*ry*x*x
	k := math.Sqrt(math.Max(0, (rx*rx*ry*ry-d)/d))
	if large == sweep {
		k = -k
	}
	cx, cy := k*rx*y/ry, -k*ry*x/rx
	theta := math.Atan2((y-cy)/ry, (x-cx)/rx)
	turn := math.Atan2((-y-cy)/ry, (-x-cx)/rx) - theta
	switch {
	case sweep && turn < 0:
		turn += 2 * math.Pi
	case !sweep && turn > 0:
		turn -= 2 * math.Pi
	}
	mx, my := (from.X+to.X)/2, (from.Y+to.Y)/2
	on := func(u, v float64) polygon.Point { // of the unit circle
		u, v = rx*u+cx, ry*v+cy
		return polygon.Point{X: cos*u - sin*v + mx, Y: sin*u + cos*v + my}
	}
	n := math.Ceil(math.Abs(turn) / (math.Pi / 4))
	step := turn / n
	arm := 4.0 / 3 * math.Tan(step/4)
	for i := range int(n) {
		s0, c0 := math.Sincos(theta + float64(i)*step)
		s1, c1 := math.Sincos(theta + float64(i+1)*step)
		end := on(c1, s1)
		if i == int(n)-1 {
			end = to
		}
		p.cubicTo(on(c0-arm*s0, s0+arm*c0), on(c1+arm*s1, s1-arm*c1), end)
	}
}

// ellipse is a closed one round a centre.
func (p *path) ellipse(cx, cy, rx, ry float64) {
	left, right := polygon.Point{X: cx - rx, Y: cy}, polygon.Point{X: cx + rx, Y: cy}
	p.moveTo(left)
	p.arcTo(rx, ry, 0, false, true, right)
	p.arcTo(rx, ry, 0, false, true, left)
	p.close()
}

// rectangle is a closed one with corners rounded by rx and ry.
func (p *path) rectangle(x, y, w, h, rx, ry float64) {
	rx, ry = math.Min(rx, w/2), math.Min(ry, h/2)
	at := func(x, y float64) polygon.Point { return polygon.Point{X: x, Y: y} }
	p.moveTo(at(x+rx, y))
	for _, side := range [][2]polygon.Point{
		{at(x+w-rx, y), at(x+w, y+ry)}, {at(x+w, y+h-ry), at(x+w-rx, y+h)}, {at(x+rx, y+h), at(x, y+h-ry)},
		{at(x, y+ry), at(x+rx, y)},
	} {
		p.lineTo(side[0])
		p.arcTo(rx, ry, 0, false, true, side[1])
	}
	p.close()
}

// pathData reads the d of a path (SVG 2, 9.3).
type pathData struct {
	text string
	pos  int
}

func (d *pathData) skip() {
	for d.pos < len(d.text) && (d.text[d.pos] == ',' || d.text[d.pos] == ' ' || d.text[d.pos] >= '\t' &&
		d.text[d.pos] <= '\r') {
		d.pos++
	}
}

// more reports whether a number comes next.
func (d *pathData) more() bool {
	d.skip()
	if d.pos == len(d.text) {
		return false
	}
	c := d.text[d.pos]
	return c >= '0' && c <= '9' || c == '-' || c == '+' || c == '.'
}

var errPathNumber = errors.New("a number is missing in the path")

// number reads a number, which may be followed by the next one without a gap: 1.5.5-3 are three.
func (d *pathData) number() (float64, error) {
	if !d.more() {
		return 0, errPathNumber
	}
	from, dot, exponent := d.pos, false, false
scan:
	for ; d.pos < len(d.text); d.pos++ {
		c := d.text[d.pos]
		switch {
		case c >= '0' && c <= '9':
		case c == '-' || c == '+':
			if d.pos > from && d.text[d.pos-1] != 'e' && d.text[d.pos-1] != 'E' {
				break scan
			}
		case c == '.' && !dot && !exponent:
			dot = true
		case (c == 'e' || c == 'E') && !exponent:
			exponent = true
		default:
			break scan
		}
	}
	v, err := strconv.ParseFloat(d.text[from:d.pos], 64)
	if err != nil || !finite(v) {
		return 0, fmt.Errorf("%q is not a number", d.text[from:d.pos])
	}
	return v, nil
}

// flag reads a 0 or 1, which nothing need follow.
func (d *pathData) flag() (float64, error) {
	d.skip()
	if d.pos == len(d.text) || d.text[d.pos] != '0' && d.text[d.pos] != '1' {
		return 0, errors.New("a flag of an arc is neither 0 nor 1")
	}
	d.pos++
	return float64(d.text[d.pos-1] - '0'), nil
}

// pathNumbers is how many numbers follow each command.
var pathNumbers = map[byte]int{'M': 2, 'L': 2, 'H': 1, 'V': 1, 'C': 6, 'S': 4, 'Q': 4, 'T': 2, 'A': 7, 'Z': 0}

// read draws what the text says.
func (p *path) read(text string) error {
	d := &pathData{text: text}
	var command, was byte
	var start, handle polygon.Point // of the line, and of the curve before
	for {
		if d.skip(); d.pos == len(text) {
			return nil
		}
		if !d.more() {
			command = text[d.pos]
			d.pos++
		} else if command == 0 || command == 'Z' || command == 'z' {
			return errors.New("a command is missing in the path")
		}
		upper := command &^ 0x20
		count, ok := pathNumbers[upper]
		if !ok || was == 0 && upper != 'M' {
			return fmt.Errorf("%q is no command that can stand there", string(rune(command)))
		}
		var v [7]float64
		for i := range count {
			var err error
			if upper == 'A' && (i == 3 || i == 4) {
				v[i], err = d.flag()
			} else {
				v[i], err = d.number()
			}
			if err != nil {
				return err
			}
		}
		from := polygon.Point{}
		if command != upper {
			from = p.at
		}
		at := func(i int) polygon.Point { return polygon.Point{X: from.X + v[i], Y: from.Y + v[i+1]} }
		smooth := func(kinds ...byte) polygon.Point { // the handle before, mirrored
			for _, k := range kinds {
				if was == k {
					return polygon.Point{X: 2*p.at.X - handle.X, Y: 2*p.at.Y - handle.Y}
				}
			}
			return p.at
		}
		if was == 'Z' && upper != 'M' && upper != 'Z' {
			p.moveTo(start)
		}
		switch upper {
		case 'M':
			start = at(0)
			p.moveTo(start)
			command-- // what follows are lines, L or l
		case 'L':
			p.lineTo(at(0))
		case 'H':
			p.lineTo(polygon.Point{X: from.X + v[0], Y: p.at.Y})
		case 'V':
			p.lineTo(polygon.Point{X: p.at.X, Y: from.Y + v[0]})
		case 'C':
			handle = at(2)
			p.cubicTo(at(0), handle, at(4))
		case 'S':
			first := smooth('C', 'S')
			handle = at(0)
			p.cubicTo(first, handle, at(2))
		case 'Q':
			handle = at(0)
			p.quadTo(handle, at(2))
		case 'T':
			handle = smooth('Q', 'T')
			p.quadTo(handle, at(0))
		case 'A':
			p.arcTo(v[0], v[1], v[2], v[3] == 1, v[4] == 1, at(5))
		case 'Z':
			p.close()
			p.at = start
		}
		was = upper
	}
}
