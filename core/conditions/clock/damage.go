package clock

import (
	"time"

	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/physics/weather"
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

// Say is what comes on it.
func (h Harm) Say() message.Sentence { return message.Lit(string(h)) }

// counts reports whether a harm makes a coat one to be inspected before anything goes
// over it.
func (h Harm) counts() bool { return h == ByRain || h == ByDew || h == ByFrost }

// Harmed is the first stretch that makes the coat damaged, past or to come; ok is
// false if there is none.
func (c Clock) Harmed() (Damage, bool) {
	for _, d := range c.Damage {
		if d.Harm.counts() {
			return d, true
		}
	}
	return Damage{}, false
}

// harmed is when the coat was or will be damaged, and when the log answered that: by a
// look at it after the last of it, or by sanding it after its minimum.
func (c Clock) harmed(l Laid) (at, answered *time.Time) {
	var last time.Time
	for i, d := range c.Damage {
		if !d.Harm.counts() {
			continue
		}
		if at == nil || d.From.Before(*at) {
			at = &c.Damage[i].From
		}
		if !d.Forecast && d.From.After(last) {
			last = d.From
		}
	}
	if at == nil {
		return nil, nil
	}
	opens := c.Event(RecoatOpens).At
	for _, t := range []*time.Time{l.Inspected, l.Abraded} {
		if t == nil || t.Before(last) || t.Before(*at) || t == l.Abraded && (opens == nil || t.Before(*opens)) {
			continue
		}
		if answered == nil || t.Before(*answered) {
			answered = t
		}
	}
	return at, answered
}

// blush is the last damp that has come on a coat since it was washed, nil if there is none.
func (l Laid) blush(all []Damage) (last *Damage) {
	for i, d := range all {
		if d.Harm == ByDamp && !d.Forecast && (l.Washed == nil || l.Washed.Before(d.To)) {
			last = &all[i]
		}
	}
	return last
}

// Mend says what to do with a coat of a kind that was harmed while wet.
func Mend(s product.Sheet) message.Sentence {
	switch {
	case s.Blushes:
		return message.Of(
			"Let it dry and cure, wash the blush off with warm water and detergent, then abrade it; craters and soft places come off.")
	case s.Kind.Info().Gloss:
		return message.Of("Let it harden, sand the spots and the dull out, and lay the coat again.")
	case s.Kind.Info().Antifouling:
		return message.Of("Let it dry; where it was washed thin or ran, wet-scuff and lay it again.")
	}
	return message.Of("Look for craters, spots and soft places, let it dry, abrade it, lay again what is thin.")
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
		if !x.From.After(start) {
			// Who laid it found it dry: only rain that falls after counts.
			rain, ok := rainAfter(w, start, x.To)
			if !x.Rain || !ok {
				continue
			}
			x.From = rain
		}
		switch {
		case x.Wash && !x.Rain: // the user's own water, told in the log
		case x.Rain:
			put(ByRain, x.From, x.To, until(touch))
		default:
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

// rainAfter is the first hour with rain from t on and before end.
func rainAfter(w field.Weather, t, end time.Time) (time.Time, bool) {
	for _, h := range w.Air {
		if !h.At.Before(t) && h.At.Before(end) && h.RainMM != nil && *h.RainMM > 0 {
			return h.At, true
		}
	}
	return time.Time{}, false
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

// measured is how much of the time in [from, to] was measured, and how much was
// measured or forecast, per cent.
func measured(w field.Weather, from, to time.Time) (measuredPct, knownPct float64) {
	all := to.Sub(from).Hours()
	if all <= 0 {
		return 0, 0
	}
	for i := 1; i < len(w.Air); i++ {
		a, b := w.Air[i-1], w.Air[i]
		if b.At.Sub(a.At) > weather.MaxGap {
			continue
		}
		lo, hi := a.At, b.At
		if lo.Before(from) {
			lo = from
		}
		if hi.After(to) {
			hi = to
		}
		if h := hi.Sub(lo).Hours(); h > 0 {
			knownPct += 100 * h / all
			if a.Measured && b.Measured {
				measuredPct += 100 * h / all
			}
		}
	}
	return measuredPct, knownPct
}
