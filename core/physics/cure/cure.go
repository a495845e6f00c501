// Package cure runs the clocks of a coating over the temperature of its
// surface. A clock is a table of hours at temperatures; progress is the
// Arrhenius equivalent age p(t) = ∫ dt/τ(T), as ASTM C1074 does for concrete,
// and the event comes at p = 1.
package cure

import (
	"fmt"
	"math"
	"slices"
	"sort"
	"time"

	"allcoats/core/base/fielderr"
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
// (0, 100000] or rising with them, and a table of a single point unless guess accepts
// GuessedEnergy for it. An empty table is valid: the sheet is silent.
func (t Table) Validate(guess bool) error {
	var bad fielderr.Errors
	if len(t) == 1 && !guess {
		bad.Add("",
			"one point cannot say how the time changes with temperature: add a second, or accept the rule of thumb for one-point tables (50 kJ/mol)")
	}
	for i, p := range t {
		bad.Range(fmt.Sprintf("[%d].tempC", i), p.TempC, -30, 80, "°C")
		bad.Above(fmt.Sprintf("[%d].hours", i), p.Hours, 0, 1e5, "h")
		if i > 0 && p.TempC <= t[i-1].TempC {
			bad.Add(fmt.Sprintf("[%d].tempC", i), "temperatures must rise from row to row")
		} else if i > 0 && p.Hours > t[i-1].Hours {
			bad.Add(fmt.Sprintf("[%d].hours", i), "must not be more than the %g h at %g °C: warmth makes it no slower",
				t[i-1].Hours, t[i-1].TempC)
		}
	}
	return bad.Err()
}

// Side says how a table goes on beyond its points: never to the kind side.
type Side int

const (
	// Minimum clocks (dry, sandable, recoat from) hold the last value above the
	// points: more heat than the sheet knows is not trusted to make them faster.
	// Below the points they go on rising, and below Clock.FloorC they stand.
	Minimum Side = iota
	// Maximum clocks (recoat until, pot life, wet edge) go on falling above the
	// points. Below them they hold the coldest printed value, and never stand.
	Maximum
)

// TauH returns the hours at tempC: ln τ linear in 1/T between the points, beyond
// them as side says. outside reports that tempC lies beyond the points. An empty
// table gives +Inf.
func (t Table) TauH(tempC float64, side Side) (hours float64, outside bool) {
	n := len(t)
	switch {
	case n == 0:
		return math.Inf(1), false
	case n == 1:
		inv := 1/(tempC+kelvin) - 1/(t[0].TempC+kelvin)
		if side == Minimum && tempC > t[0].TempC || side == Maximum && tempC < t[0].TempC {
			inv = 0
		}
		return t[0].Hours * math.Exp(GuessedEnergy/gasConstant*inv), tempC != t[0].TempC
	case tempC > t[n-1].TempC && side == Minimum:
		return t[n-1].Hours, true
	case tempC < t[0].TempC && side == Maximum:
		return t[0].Hours, true
	}
	outside = tempC < t[0].TempC || tempC > t[n-1].TempC
	i := sort.Search(n, func(i int) bool { return t[i].TempC > tempC })
	i = min(max(i, 1), n-1)
	a, b := t[i-1], t[i]
	ka, kb := a.TempC+kelvin, b.TempC+kelvin
	f := (1/(tempC+kelvin) - 1/ka) / (1/kb - 1/ka)
	return a.Hours * math.Exp(f*math.Log(b.Hours/a.Hours)), outside
}

// Humidity is how the humidity of the air at the surface bears on curing.
type Humidity string

// Humidities. The solvent of solvent-borne coats does not leave with the vapour that
// the air lacks, and what cures by itself does not ask for any.
const (
	Indifferent   Humidity = ""
	Waterborne    Humidity = "waterborne"
	MoistureCured Humidity = "moisture-cured"
)

// The most and the least that humidity multiplies a table's hours by.
const (
	waterMost, waterLeast       = 6.0, 0.5
	moistureMost, moistureLeast = 2.5, 0.6
)

// Speed is how many times as fast as its table a clock runs in rhPct at the surface;
// the table is taken to be for 50 %. Waterborne: hours × VPD(T, 50 %)/VPD(T, RH) at the
// same temperature, held to 0.5…6, the minimum only. Moisture-cured: hours × 50/RH,
// held to 0.6…2.5, and for the maximum to 1 at most.
func (h Humidity) Speed(rhPct float64, side Side) float64 {
	switch {
	case h == Waterborne && side == Minimum:
		return min(max((100-rhPct)/50, 1/waterMost), 1/waterLeast)
	case h == MoistureCured:
		v := min(max(rhPct/50, 1/moistureMost), 1/moistureLeast)
		if side == Maximum {
			v = max(1, v)
		}
		return v
	}
	return 1
}

// bends are the humidities, %, at which Speed is not smooth.
func (h Humidity) bends() []float64 {
	switch h {
	case Waterborne:
		return []float64{100 - 50/waterMost}
	case MoistureCured:
		return []float64{50 / moistureMost, 50, 50 / moistureLeast}
	case Indifferent:
	}
	return nil
}

// UsualGap is the longest step between two instants of a path that is bridged.
const UsualGap = 3 * time.Hour

// Path is the temperature of a surface, °C, linear between the instants At, which
// rise. A step longer than Gap (0: UsualGap) is a hole in the record, and so is the
// time from a start to the first instant. After the last nothing is known.
type Path struct {
	At    []time.Time
	TempC []float64
	// RHPct is the humidity at the surface, %, needed unless Indifferent.
	RHPct    []float64
	Humidity Humidity
	Gap      time.Duration
}

func (p Path) rh(i int) float64 {
	if p.Humidity == Indifferent {
		return 0
	}
	return p.RHPct[i]
}

func (p Path) hole(step time.Duration) bool {
	if p.Gap > 0 {
		return step > p.Gap
	}
	return step > UsualGap
}

// stretch is h hours of linear temperature and humidity.
type stretch struct{ a, b, ra, rb, h float64 }

// Event is where a clock came to. Progress is 1 at Reached, else what the path
// allowed by its end; Reached is nil then. HoleH is how much of the time until then
// the record does not know.
type Event struct {
	Reached  *time.Time
	Progress float64
	// Outside is set if any progress was made beyond the table's points.
	Outside bool
	HoleH   float64
}

// A Clock is a table with the temperature below which a minimum makes no progress.
// Through a hole in the record a minimum makes none, and a maximum runs as fast as the
// table's warmest row.
type Clock struct {
	Table  Table
	Side   Side
	FloorC float64
}

// Nodes and weights of four-point Gauss–Legendre on [0, 1]; over an hour of
// linear temperature the error of 1/τ is below 1e-9 relative.
var gaussX = [4]float64{0.06943184420297371, 0.33000947820757187, 0.6699905217924281, 0.9305681557970262}
var gaussW = [4]float64{0.17392742256872693, 0.32607257743127307, 0.32607257743127307, 0.17392742256872693}

// By is the progress that the clock has made along p from start by an instant.
func (c Clock) By(p Path, start, by time.Time) float64 {
	n := sort.Search(len(p.At), func(i int) bool { return p.At[i].After(by) })
	until := Path{At: slices.Clip(p.At[:n]), TempC: slices.Clip(p.TempC[:n]), Humidity: p.Humidity, Gap: p.Gap}
	if p.Humidity != Indifferent {
		until.RHPct = slices.Clip(p.RHPct[:n])
	}
	if n > 0 && n < len(p.At) && !p.hole(p.At[n].Sub(p.At[n-1])) {
		until.At, until.TempC = append(until.At, by),
			append(until.TempC, lerp(p.At[n-1], p.At[n], p.TempC[n-1], p.TempC[n], by))
		if p.Humidity != Indifferent {
			until.RHPct = append(until.RHPct, lerp(p.At[n-1], p.At[n], p.RHPct[n-1], p.RHPct[n], by))
		}
	}
	return c.Run(until, start, math.Inf(1)).Progress
}

// Run integrates the clock along p from start until progress reaches target
// (1 for the event itself). The instant is good to a second.
func (c Clock) Run(p Path, start time.Time, target float64) Event {
	var ev Event
	if len(c.Table) == 0 || len(p.At) == 0 {
		return ev
	}
	k := sort.Search(len(p.At), func(i int) bool { return p.At[i].After(start) })
	if k == len(p.At) {
		return ev
	}
	from, fromC, fromRH := start, p.TempC[k], p.rh(k)
	if k > 0 && !p.hole(p.At[k].Sub(p.At[k-1])) {
		fromC = lerp(p.At[k-1], p.At[k], p.TempC[k-1], p.TempC[k], start)
		fromRH = lerp(p.At[k-1], p.At[k], p.rh(k-1), p.rh(k), start)
	}
	var room [24][2]float64
	for ; k < len(p.At); k++ {
		to := p.At[k]
		s := stretch{fromC, p.TempC[k], fromRH, p.rh(k), to.Sub(from).Hours()}
		if k == 0 && s.h > 0 || k > 0 && p.hole(to.Sub(p.At[k-1])) {
			if at := c.throughHole(&ev, p.Humidity, s.h, target); at >= 0 {
				t := from.Add(time.Duration(at * float64(time.Hour))).Round(time.Second)
				ev.Reached = &t
				return ev
			}
			from, fromC, fromRH = to, p.TempC[k], p.rh(k)
			continue
		}
		for _, cut := range c.cuts(room[:0], s, p.Humidity) {
			piece := c.progress(s, p.Humidity, cut[0], cut[1], &ev.Outside)
			if ev.Progress+piece >= target {
				x := c.solve(s, p.Humidity, cut[0], cut[1], target-ev.Progress)
				at := from.Add(time.Duration(x * s.h * float64(time.Hour))).Round(time.Second)
				ev.Progress, ev.Reached = target, &at
				return ev
			}
			ev.Progress += piece
		}
		from, fromC, fromRH = to, s.b, s.rb
	}
	return ev
}

// throughHole takes the clock through h hours that the record does not know; it
// returns the hours into them at which progress reaches target, −1 if it does not.
func (c Clock) throughHole(ev *Event, humidity Humidity, h, target float64) float64 {
	if c.Side == Minimum {
		ev.HoleH += h
		return -1
	}
	rate := humidity.Speed(100, Maximum) / c.Table[len(c.Table)-1].Hours
	if need := (target - ev.Progress) / rate; need <= h {
		ev.HoleH += need
		ev.Progress = target
		return need
	}
	ev.HoleH += h
	ev.Progress += rate * h
	return -1
}

// cuts splits the unit of a stretch where its rate is not smooth: at the table's
// points, at the humidity's bends and, for a minimum, at the floor, below which the
// parts are left out. It appends the parts to out in their order.
func (c Clock) cuts(out [][2]float64, s stretch, humidity Humidity) [][2]float64 {
	floored := c.Side == Minimum
	last := 0.0
	for last < 1 {
		next := 1.0
		cut := func(a, b, v float64) {
			if x := (v - a) / (b - a); x > last && x < next {
				next = x
			}
		}
		if floored {
			cut(s.a, s.b, c.FloorC)
		}
		for _, p := range c.Table {
			cut(s.a, s.b, p.TempC)
		}
		for _, rh := range humidity.bends() {
			cut(s.ra, s.rb, rh)
		}
		if mid := (last + next) / 2; !floored || s.a+mid*(s.b-s.a) >= c.FloorC {
			out = append(out, [2]float64{last, next})
		}
		last = next
	}
	return out
}

// progress integrates speed/τ over the part [x0, x1] of a stretch.
func (c Clock) progress(s stretch, humidity Humidity, x0, x1 float64, outside *bool) float64 {
	sum := 0.0
	for i, g := range gaussX {
		x := x0 + g*(x1-x0)
		tau, out := c.Table.TauH(s.a+x*(s.b-s.a), c.Side)
		*outside = *outside || out
		sum += gaussW[i] * humidity.Speed(s.ra+x*(s.rb-s.ra), c.Side) / tau
	}
	return sum * s.h * (x1 - x0)
}

// solve finds x in [x0, x1] where the progress from x0 is want, by bisection
// to a second.
func (c Clock) solve(s stretch, humidity Humidity, x0, x1, want float64) float64 {
	var ignored bool
	lo, hi := x0, x1
	for (hi-lo)*s.h > 1.0/7200 {
		mid := (lo + hi) / 2
		if c.progress(s, humidity, x0, mid, &ignored) < want {
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
