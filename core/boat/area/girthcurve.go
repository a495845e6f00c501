package area

import (
	"math"
	"slices"

	"allcoats/core/base/message"

	"gonum.org/v1/gonum/integrate/quad"
)

// girthCurve is a side's girths over the way along the hull, taken apart into a smooth
// body and the jumps where a keel begins or ends within an interval.
type girthCurve struct {
	x, s, g []float64
	// jump is what the girth of interval i, from station i to i+1, changes by a keel's end.
	jump []float64
	// slope is the body's dg/ds at the stations, shape-preserving.
	slope []float64
	// taped: s was taped, not reckoned.
	taped bool
}

// reach is how far the middle of the girth moves sideways for each metre that a body's girth
// changes: 2/π for a round section, 1 where the sides stay upright.
const reach = 0.75

// slack is what a tape may be out along the hull, m.
const slack = 0.01

// curveOf takes stations apart. Where the path was not taped, each step along the hull is
// reckoned from the centreline and the body's change of girth.
func curveOf(stations []Station) girthCurve {
	n := len(stations)
	c := girthCurve{x: make([]float64, n), s: make([]float64, n), g: make([]float64, n), jump: make([]float64, n-1),
		taped: stations[0].PathM != nil}
	for i, st := range stations {
		c.x[i], c.g[i] = st.AtM, st.GirthM
		if c.taped {
			c.s[i] = *st.PathM
		}
	}
	for i := range c.jump {
		// Without the path a blunt end of the body cannot be told from a keel's.
		if c.taped || i > 0 && i < n-2 {
			c.jump[i] = c.jumpIn(i, 2)
		}
	}
	for i := 0; !c.taped && i+1 < n; i++ {
		step := c.x[i+1] - c.x[i]
		aside := min(reach*math.Abs(c.g[i+1]-c.g[i]-c.jump[i]), 0.66*step)
		if i > 0 && i < n-2 {
			aside = min(aside, 0.2*step)
		}
		c.s[i+1] = c.s[i] + math.Hypot(step, aside)
	}
	c.slope = c.slopes()
	return c
}

// jumpIn is the part of interval i's change of girth that no body accounts for: not the
// intervals beside it, run on so many times as steep, nor the way along the hull.
func (c girthCurve) jumpIn(i int, steeper float64) float64 {
	last := len(c.g) - 2
	change := c.g[i+1] - c.g[i]
	h := c.x[i+1] - c.x[i]
	usual := 0.03
	beside := func(k int) {
		if d := c.g[k+1] - c.g[k]; d*change > 0 {
			usual = max(usual, steeper*h*math.Abs(d)/(c.x[k+1]-c.x[k]))
		}
	}
	if i > 0 {
		beside(i - 1)
	}
	if i < last {
		beside(i + 1)
	}
	if c.taped {
		step := c.s[i+1] - c.s[i] - slack
		usual = max(usual, math.Sqrt(max(0, step*step-h*h))/(0.9*reach))
	} else if i == 0 && c.pointed(c.g[0]) || i == last && c.pointed(c.g[last+1]) {
		return 0
	}
	return math.Copysign(max(0, math.Abs(change)-usual), change)
}

// slopes are the three-point slopes of the body at the stations, bounded so that the cubic
// between two stations stays between their girths (Fritsch and Carlson 1980).
func (c girthCurve) slopes() []float64 {
	n := len(c.g)
	h, d := make([]float64, n-1), make([]float64, n-1)
	for i := range h {
		h[i] = c.s[i+1] - c.s[i]
		d[i] = (c.g[i+1] - c.g[i] - c.jump[i]) / h[i]
	}
	m := make([]float64, n)
	for i := 1; i < n-1; i++ {
		if d[i-1]*d[i] > 0 {
			m[i] = bounded((d[i-1]*h[i]+d[i]*h[i-1])/(h[i-1]+h[i]), d[i-1], d[i])
		}
	}
	m[0] = bounded(((2*h[0]+h[1])*d[0]-h[0]*d[1])/(h[0]+h[1]), d[0], d[0])
	m[n-1] = bounded(((2*h[n-2]+h[n-3])*d[n-2]-h[n-2]*d[n-3])/(h[n-2]+h[n-3]), d[n-2], d[n-2])
	return m
}

// bounded keeps a slope of the sign of the chords a and b and at most three times the flatter.
func bounded(m, a, b float64) float64 {
	if m*a <= 0 {
		return 0
	}
	return math.Copysign(min(math.Abs(m), 3*min(math.Abs(a), math.Abs(b))), m)
}

// bulge is what the cubic through interval i's body holds more than its chord. Where the
// body runs out to nothing the cubic is laid through the squares of the girths: those of a
// rounded end rise evenly, as the girths themselves do not.
func (c girthCurve) bulge(i int) float64 {
	h, last := c.s[i+1]-c.s[i], len(c.jump)-1
	switch {
	case i == 0 && c.pointed(c.g[0]):
		return c.rounded(0, 1, 2)
	case i == last && c.pointed(c.g[last+1]):
		return c.rounded(last+1, last, last-1)
	}
	b := h * h / 12 * (c.slope[i] - c.slope[i+1])
	if i == 0 || i == last {
		// Nothing tells the outer slope: the longer the interval the more the cubic overdoes it.
		b *= 1 - h/c.s[last+1]
	}
	return b
}

// hidden is half of the 80 % range, m², of what interval i's area is wrong by because a keel
// may end anywhere in it.
func (c girthCurve) hidden(i int) float64 {
	return jumpShare * (c.s[i+1] - c.s[i]) * math.Abs(c.jumpIn(i, 0.5))
}

// pointed reports whether an end's girth is next to nothing.
func (c girthCurve) pointed(g float64) bool { return g < 0.1*slices.Max(c.g) }

// rounded is the bulge from station tip to the next, in, with the one after, far: the root of
// a cubic through the squares over the centreline, and what the path is longer than that,
// which lies close to the tip, where there is little girth.
func (c girthCurve) rounded(tip, in, far int) float64 {
	h, h2 := math.Abs(c.x[in]-c.x[tip]), math.Abs(c.x[far]-c.x[in])
	inner := max(0, c.g[in]-math.Abs(c.jump[min(tip, in)]))
	a, b, f := c.g[tip]*c.g[tip], inner*inner, c.g[far]*c.g[far]
	d1, d2 := (b-a)/h, (f-b)/h2
	m1 := 0.0
	if d1*d2 > 0 {
		m1 = bounded((d1*h2+d2*h)/(h+h2), d1, d2)
	}
	m0 := bounded(((2*h+h2)*d1-h*d2)/(h+h2), d1, d1)
	over := h * quad.Fixed(func(u float64) float64 {
		return math.Sqrt(max(0, hermite(a, b, m0*h, m1*h, u)))
	}, 0, 1, 40, nil, 0)
	path := math.Abs(c.s[in] - c.s[tip])
	return over + nearTip*inner*(path-h) - path*(c.g[tip]+inner)/2
}

// nearTip is the mean girth over what a rounded end's path is longer than the centreline, as a
// share of the next station's: 0.41 on a sphere over its last quarter.
const nearTip = 0.4

// hermite is the cubic from a with slope ma at 0 to b with slope mb at 1.
func hermite(a, b, ma, mb, u float64) float64 {
	v := 1 - u
	return a*v*v*(1+2*u) + b*u*u*(1+2*v) + ma*u*v*v - mb*u*u*v
}

// line draws the curve, and doubts stations that stand out of their neighbours' line while
// those, without it, lie well in line themselves.
func (c girthCurve) line() GirthLine {
	l := GirthLine{Points: []GirthPoint{}, Doubts: []GirthDoubt{}}
	const parts = 8
	for i := range c.jump {
		h := c.s[i+1] - c.s[i]
		for k := range parts {
			u := float64(k) / parts
			body := hermite(c.g[i], c.g[i+1]-c.jump[i], c.slope[i]*h, c.slope[i+1]*h, u)
			l.Points = append(l.Points, GirthPoint{c.x[i] + u*(c.x[i+1]-c.x[i]), max(0, body+u*c.jump[i])})
		}
	}
	last := len(c.g) - 1
	l.Points = append(l.Points, GirthPoint{c.x[last], c.g[last]})
	off := func(a, i, b int) float64 { // by how much station i leaves the chord from a to b
		return c.g[i] - c.g[a] - (c.g[b]-c.g[a])*(c.s[i]-c.s[a])/(c.s[b]-c.s[a])
	}
	for i := 1; last > 3 && i < last; i++ {
		beside := []float64{}
		if i > 1 {
			beside = append(beside, off(i-2, i-1, i+1))
		}
		if i < last-1 {
			beside = append(beside, off(i-1, i+1, i+2))
		}
		low, high := slices.Min(beside), slices.Max(beside)
		if low*high < 0 { // they bend both ways without it: a keel begins or ends here
			continue
		}
		more := off(i-1, i, i+1) - (low+high)/4
		if math.Abs(more) < max(0.1*slices.Max(c.g), 1.2*high, -1.2*low) {
			continue
		}
		way := "more"
		if more < 0 {
			way = "less"
		}
		l.Doubts = append(l.Doubts,
			GirthDoubt{i, message.Of(
				"Station %d has %.2f m %s girth than its neighbours lead one to expect. Tape it again; if a keel or a bulge stands there, tape just before and just after it too.",
				i+1, math.Abs(more), way)})
	}
	return l
}
