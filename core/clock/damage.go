package clock

import (
	"time"

	"allcoats/core/field"
	"allcoats/core/product"
)

// Harm is a way in which a fresh coat is spoiled.
type Harm string

// Harms.
const (
	ByRain  Harm = "rain"
	ByDew   Harm = "dew"
	ByFrost Harm = "frost"
	ByHeat  Harm = "heat"
	ByDamp  Harm = "damp" // amine blush
)

// harms are the words for each.
var harms = map[Harm]string{
	ByRain:  "rain on it before it was touch-dry: look for craters and water spots",
	ByDew:   "dew on it before it was touch-dry: look for dull or spotted gloss",
	ByFrost: "frost before it was tack-free: it may stay soft and lose its hold",
	ByHeat:  "the surface was above the sheet's maximum while it was wet: look for skins, wrinkles and pinholes",
	ByDamp:  "near the dew point before it was tack-free: amine blush is likely; wash with warm water before sanding or coating",
}

// Damage is a stretch in which a coat was or will be harmed.
type Damage struct {
	Harm     Harm      `json:"harm"`
	Text     string    `json:"text"`
	From     time.Time `json:"from"`
	To       time.Time `json:"to"`
	Forecast bool      `json:"forecast"`
}

// dampK is how near the dew point a surface is damp enough to blush: the spread
// of ISO 8502-4.
const dampK = 3

// damage lists what harms a coat of s from its start until it is touch-dry and
// tack-free; nil instants are those not reached within the weather known.
func damage(s product.Sheet, w field.Weather, start time.Time, touch, tack *time.Time, now time.Time) []Damage {
	out := []Damage{}
	_, end, ok := w.Air.Span()
	if !ok {
		return out
	}
	until := func(t *time.Time) time.Time {
		if t == nil {
			return end
		}
		return *t
	}
	put := func(h Harm, from, to, limit time.Time) {
		if from.Before(start) {
			from = start
		}
		if to.After(limit) {
			to = limit
		}
		if to.After(from) {
			out = append(out, Damage{h, harms[h], from, to, from.After(now)})
		}
	}
	for _, x := range w.Wet {
		if x.Rain {
			put(ByRain, x.From, x.To, until(touch))
		} else {
			put(ByDew, x.From, x.To, until(touch))
		}
	}
	stretches := func(h Harm, limit time.Time, bad func(i int) bool) {
		from := -1
		for i, a := range w.Air {
			switch {
			case a.At.Before(start) || a.At.After(limit):
			case bad(i) && from < 0:
				from = i
			case !bad(i) && from >= 0:
				put(h, w.Air[from].At, a.At, limit)
				from = -1
			}
		}
		if from >= 0 {
			put(h, w.Air[from].At, limit, limit)
		}
	}
	stretches(ByFrost, until(tack), func(i int) bool { return w.SurfaceC[i] < 0 })
	if hot := s.Limits.SurfaceMaxC; hot != nil {
		stretches(ByHeat, until(touch), func(i int) bool { return w.SurfaceC[i] > *hot })
	}
	if s.Blushes {
		stretches(ByDamp, until(tack), func(i int) bool { return w.SurfaceC[i]-w.Air[i].DewPointC() < dampK })
	}
	return out
}

// first returns the first of its instants that is known.
func first(of ...*time.Time) *time.Time {
	for _, t := range of {
		if t != nil {
			return t
		}
	}
	return nil
}

// measured is the share of records in [from, to] that were measured, per cent.
func measured(w field.Weather, from, to time.Time) float64 {
	n, m := 0, 0
	for _, h := range w.Air.Between(from, to) {
		n++
		if h.Measured {
			m++
		}
	}
	if n == 0 {
		return 0
	}
	return 100 * float64(m) / float64(n)
}
