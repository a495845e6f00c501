// Package cure runs the clocks of a coating over the temperature of its
// surface. A clock is a table of hours at temperatures; progress is the
// Arrhenius equivalent age p(t) = ∫ dt/τ(T), as ASTM C1074 does for concrete,
// and the event comes at p = 1.
package cure

import (
	"fmt"
	"math"
	"sort"
	"time"

	"allcoats/core/fault"
)

const kelvin = 273.15

// GuessedEnergy is the activation energy assumed for a table of one point,
// J/mol: a rule of thumb.
const GuessedEnergy = 50e3

const gasConstant = 8.314462618

// Point is a row of a data sheet's table.
type Point struct {
	TempC float64 `json:"tempC"`
	Hours float64 `json:"hours"`
}

// Table is hours at temperatures, temperatures rising.
type Table []Point

// Validate reports temperatures outside −30…80 °C or not rising, hours not in
// (0, 100000], and a table of a single point unless guess accepts
// GuessedEnergy for it. An empty table is valid: the sheet is silent.
func (t Table) Validate(guess bool) error {
	var bad fault.Errors
	if len(t) == 1 && !guess {
		bad.Add("", "one point cannot say how the time changes with temperature: add a second, or accept the rule of thumb for one-point tables (50 kJ/mol)")
	}
	for i, p := range t {
		bad.Range(fmt.Sprintf("[%d].tempC", i), p.TempC, -30, 80, "°C")
		bad.Above(fmt.Sprintf("[%d].hours", i), p.Hours, 0, 1e5, "h")
		if i > 0 && p.TempC <= t[i-1].TempC {
			bad.Add(fmt.Sprintf("[%d].tempC", i), "temperatures must rise from row to row")
		}
	}
	return bad.Err()
}

// Side says how a table goes on above its last point.
type Side int

const (
	// Minimum clocks (dry, sandable, recoat from) hold the last value: more
	// heat than the sheet knows is not trusted to make them faster.
	Minimum Side = iota
	// Maximum clocks (recoat until, pot life) go on falling: more heat is
	// trusted to make them shorter.
	Maximum
)

// TauH returns the hours at tempC: ln τ linear in 1/T between the points and,
// below the first, on the line of the first two. outside reports that tempC
// lies beyond the points. An empty table gives +Inf.
func (t Table) TauH(tempC float64, side Side) (hours float64, outside bool) {
	n := len(t)
	switch {
	case n == 0:
		return math.Inf(1), false
	case n == 1:
		inv := 1/(tempC+kelvin) - 1/(t[0].TempC+kelvin)
		if side == Minimum && tempC > t[0].TempC {
			inv = 0
		}
		return t[0].Hours * math.Exp(GuessedEnergy/gasConstant*inv), tempC != t[0].TempC
	case tempC > t[n-1].TempC && side == Minimum:
		return t[n-1].Hours, true
	}
	outside = tempC < t[0].TempC || tempC > t[n-1].TempC
	i := sort.Search(n, func(i int) bool { return t[i].TempC > tempC })
	i = min(max(i, 1), n-1)
	a, b := t[i-1], t[i]
	ka, kb := a.TempC+kelvin, b.TempC+kelvin
	f := (1/(tempC+kelvin) - 1/ka) / (1/kb - 1/ka)
	return a.Hours * math.Exp(f*math.Log(b.Hours/a.Hours)), outside
}

// Path is the temperature of a surface, °C, linear between the instants At,
// which rise. Before the first instant the first temperature holds; after the
// last nothing is known.
type Path struct {
	At    []time.Time
	TempC []float64
	// Speed is how many times as fast as the table it cures for other reasons
	// than temperature, such as humidity; nil is once.
	Speed []float64
}

// speed is Speed at record i.
func (p Path) speed(i int) float64 {
	if p.Speed == nil {
		return 1
	}
	return p.Speed[i]
}

// stretch is h hours of linear temperature and speed.
type stretch struct{ a, b, sa, sb, h float64 }

// Event is where a clock came to. Progress is 1 at Reached, else what the path
// allowed by its end; Reached is nil then.
type Event struct {
	Reached  *time.Time
	Progress float64
	// Outside is set if any progress was made beyond the table's points.
	Outside bool
}

// A Clock is a table with the temperature below which nothing cures.
type Clock struct {
	Table  Table
	Side   Side
	FloorC float64
}

// Nodes and weights of four-point Gauss–Legendre on [0, 1]; over an hour of
// linear temperature the error of 1/τ is below 1e-9 relative.
var gaussX = [4]float64{0.06943184420297371, 0.33000947820757187, 0.6699905217924281, 0.9305681557970262}
var gaussW = [4]float64{0.17392742256872693, 0.32607257743127307, 0.32607257743127307, 0.17392742256872693}

// Run integrates the clock along p from start until progress reaches target
// (1 for the event itself). The instant is good to a second.
func (c Clock) Run(p Path, start time.Time, target float64) Event {
	var ev Event
	if len(c.Table) == 0 || len(p.At) == 0 {
		return ev
	}
	k := sort.Search(len(p.At), func(i int) bool { return p.At[i].After(start) })
	from := start
	fromC, fromSpeed := p.TempC[0], p.speed(0)
	if k > 0 {
		if k == len(p.At) {
			return ev
		}
		fromC = lerp(p.At[k-1], p.At[k], p.TempC[k-1], p.TempC[k], start)
		fromSpeed = lerp(p.At[k-1], p.At[k], p.speed(k-1), p.speed(k), start)
	}
	var room [16][2]float64
	for ; k < len(p.At); k++ {
		to := p.At[k]
		s := stretch{fromC, p.TempC[k], fromSpeed, p.speed(k), to.Sub(from).Hours()}
		for _, cut := range c.cuts(room[:0], s.a, s.b) {
			piece := c.progress(s, cut[0], cut[1], &ev.Outside)
			if ev.Progress+piece >= target {
				x := c.solve(s, cut[0], cut[1], target-ev.Progress)
				at := from.Add(time.Duration(x * s.h * float64(time.Hour))).Round(time.Second)
				ev.Progress, ev.Reached = target, &at
				return ev
			}
			ev.Progress += piece
		}
		from, fromC, fromSpeed = to, s.b, s.sb
	}
	return ev
}

// cuts splits the unit stretch from temperature a to b at the floor and at the
// table's points, where 1/τ is not smooth, leaving out what lies below the
// floor, and appends the parts to out in their order.
func (c Clock) cuts(out [][2]float64, a, b float64) [][2]float64 {
	part := func(x0, x1 float64) {
		if mid := (x0 + x1) / 2; a+mid*(b-a) >= c.FloorC {
			out = append(out, [2]float64{x0, x1})
		}
	}
	last := 0.0
	for last < 1 {
		next := 1.0
		cut := func(tempC float64) {
			if x := (tempC - a) / (b - a); x > last && x < next {
				next = x
			}
		}
		cut(c.FloorC)
		for _, p := range c.Table {
			cut(p.TempC)
		}
		part(last, next)
		last = next
	}
	return out
}

// progress integrates speed/τ over the part [x0, x1] of a stretch.
func (c Clock) progress(s stretch, x0, x1 float64, outside *bool) float64 {
	sum := 0.0
	for i, g := range gaussX {
		x := x0 + g*(x1-x0)
		tau, out := c.Table.TauH(s.a+x*(s.b-s.a), c.Side)
		*outside = *outside || out
		sum += gaussW[i] * (s.sa + x*(s.sb-s.sa)) / tau
	}
	return sum * s.h * (x1 - x0)
}

// solve finds x in [x0, x1] where the progress from x0 is want, by bisection
// to a second.
func (c Clock) solve(s stretch, x0, x1, want float64) float64 {
	var ignored bool
	lo, hi := x0, x1
	for (hi-lo)*s.h > 1.0/7200 {
		mid := (lo + hi) / 2
		if c.progress(s, x0, mid, &ignored) < want {
			lo = mid
		} else {
			hi = mid
		}
	}
	return (lo + hi) / 2
}

func lerp(a, b time.Time, va, vb float64, t time.Time) float64 {
	if !b.After(a) {
		return va
	}
	return va + (vb-va)*float64(t.Sub(a))/float64(b.Sub(a))
}
