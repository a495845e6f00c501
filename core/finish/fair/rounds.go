package fair

import (
	"math"
	"time"

	"allcoats/core/base/working"
	"allcoats/core/job/logbook"
)

// Round is what was found and done in a round. Looked is a look without filling, Primed one over the
// primer that closed the filler.
type Round struct {
	logbook.Round
	At     time.Time `json:"at"`
	Litres float64   `json:"litres"`
	Hours  float64   `json:"hours"`
	Grit   int       `json:"grit"`
	Looked bool      `json:"looked"`
	Primed bool      `json:"primed"`
}

// Outlook is how the rounds decline: each leaves Ratio of what the one before found.
// Left are the rounds to what the class allows, with a range; nothing is fitted from
// fewer than two rounds.
type Outlook struct {
	Fitted   bool    `json:"fitted"`
	Ratio    float64 `json:"ratio"`
	Left     int     `json:"left"`
	LeftLow  int     `json:"leftLow"`
	LeftHigh int     `json:"leftHigh"`
	HoursL   float64 `json:"hoursLeft"`
	// NextH is what the next round takes, h, 0 if it is fair enough.
	NextH   float64 `json:"nextH"`
	Allowed float64 `json:"allowed"`
	Enough  bool    `json:"enough"`
	// Course is what was found round by round, and what the rounds left will find.
	Course []Found `json:"course"`
	// StopAfter is the round after which another one takes fewer lows away in an hour
	// than the class is worth, 0 if that is past what is left.
	StopAfter int             `json:"stopAfter"`
	Working   working.Working `json:"working"`
}

// Found is what a round found, or with Ahead is to find.
type Found struct {
	N        int     `json:"n"`
	Lows     float64 `json:"lows"`
	Pinholes float64 `json:"pinholes"`
	Ahead    bool    `json:"ahead"`
}

// course carries lows and pinholes on by their own declines.
func (o *Outlook) course(rounds []Round) {
	o.Course = []Found{}
	pins := []Round{}
	for _, r := range rounds {
		o.Course = append(o.Course, Found{N: r.N, Lows: float64(r.Lows), Pinholes: float64(r.Pinholes)})
		pins = append(pins, r.pins())
	}
	ratio := o.Ratio
	if len(pins) >= 2 {
		slope, _ := decline(pins)
		ratio = math.Min(0.95, math.Exp(slope))
	}
	for n := 1; n <= o.Left; n++ {
		last := o.Course[len(o.Course)-1]
		o.Course = append(o.Course, Found{last.N + 1, last.Lows * o.Ratio, last.Pinholes * ratio, true})
	}
}

// usualRatio is the decline where it cannot be fitted: a rule of thumb.
const usualRatio = 0.45

// most rounds that are foretold.
const mostRounds = 12

// Ahead fits the decline of the lows found and foretells the rounds left on areaM2 to
// what a class allows. The range is that of the fitted slope, one standard error each
// way.
func Ahead(rounds []Round, areaM2 float64, c Class) Outlook {
	w := working.New()
	out := Outlook{Ratio: usualRatio, Allowed: c.Lows * areaM2 / 10, Course: []Found{}}
	if len(rounds) == 0 {
		w.Warn("No round is logged yet.")
		out.Working = w
		return out
	}
	last := rounds[len(rounds)-1]
	low, high := usualRatio/1.4, usualRatio*1.4
	if len(rounds) >= 2 {
		slope, se := decline(rounds)
		out.Fitted = true
		out.Ratio = math.Min(0.95, math.Exp(slope))
		low, high = math.Min(0.95, math.Exp(slope-se)), math.Min(0.95, math.Exp(slope+se))
	} else {
		w.Warn("One round tells no decline: each is taken to leave 45 %% of the lows of the one before.")
	}
	found := float64(last.Lows)
	w.In("Lows found in the last round", found, "")
	w.Step("Each round leaves", "fit of ln(lows) against rounds", 100*out.Ratio, "%", "geometric decline")
	w.Step("Allowed", "of the class, on this area", out.Allowed, "lows", "rule of thumb")
	after := func(ratio float64) int {
		n := 0
		for left := found * ratio; left > out.Allowed && n < mostRounds; left *= ratio {
			n++
		}
		return n
	}
	out.Enough = found <= out.Allowed || last.Verdict == logbook.FairEnough
	if !out.Enough {
		out.Left, out.LeftLow, out.LeftHigh = after(out.Ratio), after(low), after(high)
	}
	hours := 0.0
	for _, r := range rounds {
		hours += r.Hours / float64(len(rounds))
	}
	// A later round finds less and takes less, but never less than walking over it all.
	at := found
	for n := 1; n <= out.Left; n++ {
		next := at * out.Ratio
		h := last.Hours * math.Max(0.5, math.Pow(out.Ratio, float64(n)/2))
		out.HoursL += h
		if n == 1 {
			out.NextH = h
		}
		if out.StopAfter == 0 && h > 0 && (at-next)/h < c.Worth {
			out.StopAfter = last.N + n - 1
		}
		at = next
	}
	out.course(rounds)
	w.In("Hours of a round, so far", hours, "h")
	w.Step("Hours left", "Σ last round's hours, falling with the root of the lows, never under half", out.HoursL, "h",
		"rule of thumb")
	out.Working = w
	return out
}

// pins is a round whose pinholes are what is counted.
func (r Round) pins() Round {
	r.Lows = r.Pinholes
	return r
}

// pinWorth is how many pinholes are worth a low's time.
const pinWorth = 10

// Pins is Ahead for the pinholes that show once the filler is primed.
func Pins(rounds []Round, areaM2 float64, c Class) Outlook {
	c.Lows, c.Worth = c.Pinholes, pinWorth*c.Worth
	pins := make([]Round, len(rounds))
	for i, r := range rounds {
		pins[i] = r.pins()
	}
	return Ahead(pins, areaM2, c)
}

// decline is the slope of ln(lows + ½) over the rounds with its standard error.
func decline(rounds []Round) (slope, se float64) {
	n := float64(len(rounds))
	var sx, sy, sxx, sxy float64
	y := make([]float64, len(rounds))
	for i, r := range rounds {
		x := float64(r.N)
		y[i] = math.Log(float64(r.Lows) + 0.5)
		sx, sy, sxx, sxy = sx+x, sy+y[i], sxx+x*x, sxy+x*y[i]
	}
	det := n*sxx - sx*sx
	if det == 0 {
		return math.Log(usualRatio), 0.3
	}
	slope = (n*sxy - sx*sy) / det
	mean := (sy - slope*sx) / n
	rss := 0.0
	for i, r := range rounds {
		d := y[i] - mean - slope*float64(r.N)
		rss += d * d
	}
	if n > 2 {
		return slope, math.Sqrt(rss / (n - 2) * n / det)
	}
	return slope, 0.3 // two points tell no scatter: a rule of thumb
}

// SpotFill is what filling so many pinholes one by one takes: each a spot of spotM2, struck off flush.
type SpotFill struct{ AreaM2, DepthMM, WorkH float64 }

// Rules of thumb of a pinhole: the spot that is filled and primed over, how thick it lies, and the
// time it takes to find, fill and board it.
const (
	spotM2 = 4e-4
	spotMM = 0.5
	spotH  = 0.5 / 60
)

// SpotsOf is what n pinholes take.
func SpotsOf(n int) SpotFill { return SpotFill{float64(n) * spotM2, spotMM, float64(n) * spotH} }
