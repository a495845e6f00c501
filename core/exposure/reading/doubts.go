package reading

import (
	"math"
	"sort"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/physics/weather"
)

// Doubt is something odd about an instrument's readings.
type Doubt struct {
	// What is drop-out, stuck, saturated, clock or units.
	What string           `json:"what"`
	Text message.Sentence `json:"text"`
	From time.Time        `json:"from"`
	To   time.Time        `json:"to"`
}

// When readings are doubted: rules of thumb.
const (
	stuckFor     = 6 * time.Hour
	stuckWhileK  = 2.0 // the reference moved by that much meanwhile
	saturatedFor = 36 * time.Hour
	saturatedPct = 99.5
	leastGap     = time.Hour
	lagStep      = 10 * time.Minute
	maxLag       = 4 * time.Hour
	leastLag     = 40 * time.Minute
	lagDays      = 5
)

// Doubts looks through readings, in order of time, for drop-outs, a stuck or
// saturated sensor and a clock that is off, the last two against ref, the air of
// the place. Figures in it are rules of thumb.
func Doubts(rs []Reading, ref weather.Series) []Doubt {
	out := []Doubt{}
	if len(rs) < 2 {
		return out
	}
	out = append(out, dropOuts(rs)...)
	out = append(out, runs(rs, func(a, b Reading) bool {
		return a.TempC == b.TempC
	}, stuckFor, func(r []Reading) *Doubt {
		lo, hi := span(ref.Between(r[0].At, r[len(r)-1].At))
		if hi-lo < stuckWhileK {
			return nil
		}
		return &Doubt{What: "stuck",
			Text: message.Of("It showed %.1f °C all the time while the air moved by %.1f K: stuck sensor?", r[0].TempC,
				hi-lo)}
	})...)
	out = append(out, runs(rs, func(a, b Reading) bool {
		return a.RHPct >= saturatedPct && b.RHPct >= saturatedPct
	}, saturatedFor, func(r []Reading) *Doubt {
		return &Doubt{What: "saturated",
			Text: message.Of("It showed %.0f %% humidity for %.0f h on end: is the sensor wet or worn out?", r[0].RHPct,
				r[len(r)-1].At.Sub(r[0].At).Hours())}
	})...)
	if d := lag(rs, ref); d != nil {
		out = append(out, *d)
	}
	sort.SliceStable(out, func(i, j int) bool { return out[i].From.Before(out[j].From) })
	return out
}

// dropOuts lists gaps of an hour and four usual steps; many are one doubt.
func dropOuts(rs []Reading) []Doubt {
	steps := make([]time.Duration, len(rs)-1)
	for i := range steps {
		steps[i] = rs[i+1].At.Sub(rs[i].At)
	}
	sorted := append([]time.Duration(nil), steps...)
	sort.Slice(sorted, func(i, j int) bool { return sorted[i] < sorted[j] })
	least := max(leastGap, 4*sorted[len(sorted)/2])
	var out []Doubt
	lost := time.Duration(0)
	for i, s := range steps {
		if s > least {
			out = append(out, Doubt{"drop-out", message.Of("No readings for %.1f h.", s.Hours()), rs[i].At, rs[i+1].At})
			lost += s
		}
	}
	if len(out) > 4 {
		out = []Doubt{{"drop-out", message.Of("%d gaps, %.1f h without readings in all.", len(out), lost.Hours()),
			out[0].From, out[len(out)-1].To}}
	}
	return out
}

// runs finds stretches of at least long in which every neighbour is alike.
func runs(rs []Reading, alike func(a, b Reading) bool, long time.Duration, say func([]Reading) *Doubt) []Doubt {
	var out []Doubt
	from := 0
	for i := 1; i <= len(rs); i++ {
		if i < len(rs) && alike(rs[i-1], rs[i]) && rs[i].At.Sub(rs[i-1].At) <= weather.MaxGap {
			continue
		}
		if rs[i-1].At.Sub(rs[from].At) >= long {
			if d := say(rs[from:i]); d != nil {
				d.From, d.To = rs[from].At, rs[i-1].At
				out = append(out, *d)
			}
		}
		from = i
	}
	return out
}

func span(s weather.Series) (lo, hi float64) {
	if len(s) == 0 {
		return 0, 0
	}
	lo, hi = s[0].TempC, s[0].TempC
	for _, h := range s {
		lo, hi = min(lo, h.TempC), max(hi, h.TempC)
	}
	return lo, hi
}

// lag compares the last days with ref, shifted to and fro: the shift with the
// least scatter of the difference, if it is at least leastLag and much better
// than none, is how far the clock is off.
func lag(rs []Reading, ref weather.Series) *Doubt {
	end := rs[len(rs)-1].At
	var hours []Reading
	for _, r := range Hourly(rs) {
		if end.Sub(r.At) <= lagDays*24*time.Hour && !math.IsNaN(r.TempC) {
			hours = append(hours, r)
		}
	}
	if len(hours) < 48 {
		return nil
	}
	scatter := func(shift time.Duration) float64 {
		n, sum, squares := 0.0, 0.0, 0.0
		for _, r := range hours {
			h, ok := ref.At(r.At.Add(-shift))
			if !ok {
				continue
			}
			d := r.TempC - h.TempC
			n, sum, squares = n+1, sum+d, squares+d*d
		}
		if n < 40 {
			return math.Inf(1)
		}
		return squares/n - sum*sum/n/n
	}
	none := scatter(0)
	best, least := time.Duration(0), none
	for s := -maxLag; s <= maxLag; s += lagStep {
		if v := scatter(s); v < least {
			best, least = s, v
		}
	}
	if math.IsInf(none, 1) || best.Abs() < leastLag || least > none/2 {
		return nil
	}
	word := "ahead"
	if best < 0 {
		word = "behind"
	}
	return &Doubt{"clock", message.Of(
		"Its days run %.1f h %s of the place's: is its clock, or the time zone chosen, off?", best.Abs().Hours(), word),
		hours[0].At, end}
}
