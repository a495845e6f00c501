package fair

import (
	"fmt"
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/boat/outline"
	"allcoats/core/boat/survey"
)

// Track is where a line of readings, or the first row of a grid, lies on a view of the boat's map:
// from its first reading to its last. The rows of a grid follow below it on the drawing.
type Track struct {
	View string        `json:"view"`
	From outline.Point `json:"from"`
	To   outline.Point `json:"to"`
}

func (t Track) validate() error {
	var bad fielderr.Errors
	survey.OnMap(&bad, "view", t.View)
	if t.lengthM() < 0.05 {
		bad.Add("to", "a line begins at one place and ends at another")
	}
	return bad.Err()
}

func (t Track) lengthM() float64 { return math.Hypot(t.To.X-t.From.X, t.To.Y-t.From.Y) }

// axis is a track made ready to be measured along.
type axis struct {
	from         outline.Point
	dx, dy, long float64 // a unit vector, and the length, m
}

func (t Track) axis() axis {
	l := t.lengthM()
	return axis{t.From, (t.To.X - t.From.X) / l, (t.To.Y - t.From.Y) / l, l}
}

// at is the place so much of the way along, and so far to the right of it as one walks, m.
func (a axis) at(share, right float64) outline.Point {
	return outline.Point{X: a.from.X + share*a.long*a.dx + right*a.dy, Y: a.from.Y + share*a.long*a.dy - right*a.dx}
}

// of is how much of the way along a place lies, and how far to the right of it, m.
func (a axis) of(p outline.Point) (share, right float64) {
	x, y := p.X-a.from.X, p.Y-a.from.Y
	return (x*a.dx + y*a.dy) / a.long, x*a.dy - y*a.dx
}

func (t Track) at(share, right float64) outline.Point { return t.axis().at(share, right) }

func (t Track) of(p outline.Point) (share, right float64) { return t.axis().of(p) }

// below is the track moved so far down the drawing, to its right where it runs up and down, m.
func (t Track) below(m float64) Track {
	down := t
	right := m
	if dx := t.To.X - t.From.X; outline.Up(t.View) == (dx < 0) && dx != 0 {
		right = -m
	}
	down.From, down.To = t.at(0, right), t.at(1, right)
	return down
}

// crossed lists the readings, of n along a track, at which hard lines cross it.
func (t Track) crossed(hard []survey.HardLine, n int) []int {
	var out []int
	for _, h := range hard {
		if h.View != t.View {
			continue
		}
		for i := 1; i < len(h.Points); i++ {
			a, ra := t.of(h.Points[i-1])
			b, rb := t.of(h.Points[i])
			if (ra < 0) == (rb < 0) {
				continue
			}
			share := a + (b-a)*ra/(ra-rb)
			if at := int(math.Round(share * float64(n-1))); share > 0 && share < 1 && at > 0 && at < n-1 {
				out = append(out, at)
			}
		}
	}
	return out
}

// strip is a line of depths, mm, every SpacingM along a track, and the width that it stands for.
type strip struct {
	name, way       string
	line            int // it was read as
	on              Track
	widthM, spacing float64
	depth           []float64
}

// cell is the area that a reading stands for, m²: half of it at either end.
func (s strip) cell(i int) float64 {
	a := s.spacing * s.widthM
	if i == 0 || i == len(s.depth)-1 {
		a /= 2
	}
	return a
}

// over is the depth beside a place so much of the way along, mm; ok is false past the ends and where
// nothing was read.
func (s strip) over(share float64) (mm float64, ok bool) {
	if share < 0 || share > 1 {
		return 0, false
	}
	at := share * float64(len(s.depth)-1)
	i := min(int(at), len(s.depth)-2)
	a, b := s.depth[i], s.depth[i+1]
	switch {
	case math.IsNaN(a) && math.IsNaN(b):
		return 0, false
	case math.IsNaN(a):
		a = b
	case math.IsNaN(b):
		b = a
	}
	return a + (at-float64(i))*(b-a), true
}

// Chart is what is to be filled, laid out: strips of depths beside one another, and lows that were
// circled. Those without a place on the map lie one below the other on a drawing of their own.
type Chart struct {
	strips []strip
	lows   []Low
	mine   [][]float64 // of each reading's cell, the share that no strip before it covers
	thinMM float64     // what is no deeper is not filled
}

func newChart(strips []strip, lows []Low) Chart {
	c := Chart{strips: strips, lows: lows}
	const across = 5
	for k, s := range strips {
		mine := make([]float64, len(s.depth))
		for i := range mine {
			for j := range across {
				p := s.on.at(float64(i)/float64(len(mine)-1), s.widthM*((float64(j)+0.5)/across-0.5))
				if !c.covered(p, s.on.View, k) {
					mine[i] += 1. / across
				}
			}
		}
		c.mine = append(c.mine, mine)
	}
	return c
}

// covered reports whether one of the first n strips lies over a place.
func (c Chart) covered(p outline.Point, view string, n int) bool {
	for _, s := range c.strips[:n] {
		if s.on.View != view {
			continue
		}
		if share, right := s.on.of(p); share >= 0 && share <= 1 && math.Abs(right) < s.widthM/2-1e-9 {
			return true
		}
	}
	return false
}

// chartOf lays a grid's depths out, row below row.
func chartOf(g Grid, depth []float64, on *Track) Chart {
	first := Track{To: outline.Point{X: float64(g.NX-1) * g.DX}}
	if on != nil {
		first = *on
	}
	c := Chart{thinMM: seenMM} // a fit has tails
	for y := range g.NY {
		s := strip{name: fmt.Sprintf("row %d", y+1), line: y, on: first.below(float64(y) * g.DY), widthM: g.DY,
			spacing: g.DX, depth: depth[y*g.NX : (y+1)*g.NX]}
		share := 1.0
		switch {
		case g.NY == 1:
			s.widthM = 1
		case y == 0 || y == g.NY-1:
			share = 0.5
		}
		mine := make([]float64, g.NX)
		for i := range mine {
			mine[i] = share
		}
		c.strips, c.mine = append(c.strips, s), append(c.mine, mine)
	}
	return c
}

// depthsOn returns the depth at any place of a view, mm: between strips in proportion, 0 where nothing
// was read.
func (c Chart) depthsOn(view string) func(p outline.Point) float64 {
	var strips []strip
	var axes []axis
	for _, s := range c.strips {
		if s.on.View == view {
			strips, axes = append(strips, s), append(axes, s.on.axis())
		}
	}
	return func(p outline.Point) float64 {
		sum, weight, on := 0.0, 0.0, false
		for k, s := range strips {
			share, right := axes[k].of(p)
			right = math.Abs(right)
			if right >= s.widthM {
				continue
			}
			d, ok := s.over(share)
			if !ok {
				continue
			}
			on = on || right <= s.widthM/2+1e-9
			w := 1 - right/s.widthM
			sum, weight = sum+w*d, weight+w
		}
		if on {
			return sum / weight
		}
		most := 0.0
		for _, l := range c.lows {
			if l.View == view {
				most = max(most, l.depthAt(p))
			}
		}
		return most
	}
}
