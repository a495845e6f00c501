package fair

import (
	"math"

	"allcoats/core/base/working"
	"allcoats/core/catalog/product"
)

// School is a way of filling: how thick a pass is, how much is sanded off again of
// what is laid, how fast is laid and boarded. Rules of thumb.
type School struct {
	Key      string  `json:"key"`
	Name     string  `json:"name"`
	Why      string  `json:"why"`
	PassMM   float64 `json:"passMM"` // at most, 0 for the sheet's
	WastePct float64 `json:"wastePct"`
	LayLH    float64 `json:"layLH"`    // litres laid in an hour
	BoardM2H float64 `json:"boardM2H"` // boarded in an hour, one pass
}

// Schools lists both.
var Schools = []School{
	{"heavy", "few heavy coats", "fewer waits for the cure; more to sand, and it shrinks and drags", 0, 35, 3, 1.2},
	{"skims", "many thin skims", "little to sand and no slumps; each skim waits for its cure", 1.5, 15, 2, 3},
}

// Job is a fill by one school.
type Job struct {
	School  School          `json:"school"`
	Passes  int             `json:"passes"`
	PassMM  float64         `json:"passMM"` // the thickest
	Litres  float64         `json:"litres"` // to mix
	Kg      float64         `json:"kg"`
	Hours   float64         `json:"hours"`
	Working working.Working `json:"working"`
}

// Fill reckons what a result takes of a product by a school, on a face tilted so many degrees.
func (s School) Fill(r Result, sheet product.Sheet, tiltDeg float64) Job {
	w := working.New()
	pass := s.PassMM
	if sheet.MaxPassMM > 0 && (pass == 0 || pass > sheet.MaxPassMM) {
		pass = sheet.MaxPassMM
	}
	sag, how := sheet.SagUprightUm/1000, "upright"
	if tiltDeg > 120 {
		sag, how = sheet.SagOverheadUm/1000, "overhead"
	}
	if tiltDeg >= 45 && sag > 0 && (pass == 0 || pass > sag) {
		pass = sag
		w.Warn("On a face that is %s a pass sags above %.3g mm.", how, sag)
	}
	if pass == 0 {
		pass = usualPassMM
		w.Warn("The sheet gives no greatest thickness of a pass: 6 mm is taken.")
	}
	shrink := sheet.ShrinkagePct / 100
	j := Job{School: s, PassMM: pass}
	w.In("Filler on the surface", r.FillL, "L")
	w.In("Deepest", r.MaxFillMM, "mm")
	w.In("Shrinkage", sheet.ShrinkagePct, "%")
	w.Step("Laid proud, deepest", "deepest / (1 − shrinkage)", r.MaxFillMM/(1-shrink), "mm", "the sheet's shrinkage")
	j.Passes = j.PassesTo(r.MaxFillMM, sheet)
	w.Step("Passes", "deepest laid / greatest thickness of a pass, rounded up", float64(j.Passes), "", "data sheet, or the school's skim")
	j.Litres = w.Step("To mix", "on the surface / (1 − shrinkage) · (1 + sanded off)", r.FillL/(1-shrink)*(1+s.WastePct/100), "L", "sanded off: rule of thumb")
	kgL := sheet.BaseKgL*sheet.BaseShare() + sheet.HardenerKgL*(1-sheet.BaseShare())
	j.Kg = w.Step("Weight", "litres · density", j.Litres*kgL, "kg", "densities of the sheet")
	lay := w.Step("Laying", "litres / rate", j.Litres/s.LayLH, "h", "rule of thumb")
	board := w.Step("Boarding", "filled area · passes / rate", r.FillM2*float64(j.Passes)/s.BoardM2H, "h", "rule of thumb")
	j.Hours = lay + board
	j.Working = w
	return j
}

// PassesTo is how many passes of a job a low of a depth takes, mm, shrinkage counted in.
func (j Job) PassesTo(deepestMM float64, sheet product.Sheet) int {
	return int(math.Ceil(deepestMM/(1-sheet.ShrinkagePct/100)/j.PassMM - 1e-9))
}

// usualPassMM is the thickness of a pass where the sheet is silent.
const usualPassMM = 6

// Round is what was found and done in a round.
type Round struct {
	N        int     `json:"n"`
	Lows     int     `json:"lows"`
	Pinholes int     `json:"pinholes"`
	Litres   float64 `json:"litres"`
	Hours    float64 `json:"hours"`
	Grit     int     `json:"grit"`
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
		pins = append(pins, Round{N: r.N, Lows: r.Pinholes})
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
	out.Enough = found <= out.Allowed
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
	w.Step("Hours left", "Σ last round's hours, falling with the root of the lows, never under half", out.HoursL, "h", "rule of thumb")
	out.Working = w
	return out
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
