package today

import (
	"math"
	"slices"
	"sort"
	"time"

	"allcoats/core/base/say"
	"allcoats/core/readiness/clock"
)

// recoat answers "may I coat over it without sanding?" from the clock: what was
// measured counts as measured, the rest is said to be modelled.
func (s Situation) recoat(c clock.Clock) say.Sentence {
	opens, closes := c.Event(clock.RecoatOpens), c.Event(clock.RecoatCloses)
	var out say.Sentence
	switch {
	case c.State == clock.Damaged:
		d, _ := c.Harmed()
		out = say.Of("No: it was hit while wet, %v. Inspect it, let it dry, abrade it, and log what you find.", say.Clock(d.From, s.Now, s.Loc))
	case c.Abraded:
		out = say.Of("It was sanded since: the next coat may go on.")
	case !opens.Tabled:
		return say.Of("The sheet has no recoat table.")
	case opens.At == nil || opens.At.After(s.Now):
		out = say.Of("No coat over it yet.")
		if opens.At != nil {
			out = say.Of("No coat over it yet; from %v.", say.Clock(*opens.At, s.Now, s.Loc))
		}
	case closes.At != nil && !closes.At.After(s.Now) && closes.HoleH > 0, c.State == clock.Unknown:
		return say.Of("Not known: sand first. %v of the time since was measured or forecast.", say.Val(math.Floor(c.KnownPct+1e-6), "%"))
	case closes.At != nil && !closes.At.After(s.Now):
		out = say.Of("Sand first: its window closed %v.", say.Clock(*closes.At, s.Now, s.Loc))
	case c.State == clock.Closing && closes.At != nil:
		out = say.Of("Closing: without sanding only until %v, when it has cured past its sheet's maximum.", say.Clock(*closes.At, s.Now, s.Loc))
	case closes.At != nil:
		out = say.Of("Yes, without sanding, until %v.", say.Clock(*closes.At, s.Now, s.Loc))
	case closes.Tabled:
		out = say.Of("Yes, without sanding, beyond the weather known.")
	default:
		out = say.Of("Yes, without sanding; its window does not close.")
	}
	return say.Of("%v %v of the hours since are on record.", out, say.Val(math.Floor(c.MeasuredPct+1e-6), "%"))
}

// harm puts damage into a sentence.
func (s Situation) harm(d clock.Damage) say.Sentence {
	from, to := say.Clock(d.From, s.Now, s.Loc), say.Clock(d.To, d.From, s.Loc)
	if d.Forecast {
		return say.Of("expected from %v to %v: %v.", from, to, say.Lit(d.Text))
	}
	return say.Of("from %v to %v: %v.", from, to, say.Lit(d.Text))
}

// dry tells when water goes off the surfaces that are wet now, or that were wet
// last with the sun: "Dew off starboard by 10:20, port by 11:05".
func (s Situation) dry() say.Sentence {
	type off struct {
		name string
		at   time.Time
		rain bool
	}
	var wet []off
	for _, f := range s.Surfaces {
		for _, w := range f.Weather.Wet {
			if !w.From.After(s.Now) && w.To.After(s.Now) {
				wet = append(wet, off{f.Name, w.To, w.Rain})
			}
		}
	}
	if len(wet) == 0 {
		return say.Sentence{}
	}
	sort.SliceStable(wet, func(i, j int) bool { return wet[i].at.Before(wet[j].at) })
	rain, all := false, []say.Sentence{}
	for _, w := range wet {
		rain = rain || w.rain
		all = append(all, say.Of("%s by %v", w.name, say.Clock(w.at, s.Now, s.Loc)))
	}
	if rain {
		return say.Of("Dry: %v.", say.Join(all, ", "))
	}
	return say.Of("Dew off %v.", say.Join(all, ", "))
}

// urgency is how soon something is to be done about a clock.
var urgency = []clock.State{clock.Damaged, clock.Closing, clock.Wet, clock.Tacking, clock.Open, clock.Closed, clock.Unknown}

// clocks says of the most urgent clock that runs what harmed its coat, or whether the next may
// follow; of two alike, of the one whose state ends first.
func clocks(lanes []Lane) say.Sentence {
	var first *Lane
	sooner := func(a, b *Lane) bool {
		if x, y := slices.Index(urgency, a.Clock.State), slices.Index(urgency, b.Clock.State); x != y {
			return x < y
		}
		return a.Clock.Until != nil && (b.Clock.Until == nil || a.Clock.Until.Before(*b.Clock.Until))
	}
	for i := range lanes {
		if l := &lanes[i]; l.Clock != nil && l.Chance != Finished && (first == nil || sooner(l, first)) {
			first = l
		}
	}
	switch {
	case len(lanes) == 0:
		return say.Of("Add her surfaces in Survey first: work is logged on them.")
	case first == nil:
		return say.Of("No clock runs: log what is done next.")
	case len(first.Damage) > 0:
		return say.Of("%v: %v", say.Strong(first.Surface), first.Damage[0].Lower())
	case len(first.Recoat) > 0:
		return say.Of("%v: %v", say.Strong(first.Surface), first.Recoat.Lower())
	}
	return say.Of("%v: %v", say.Strong(first.Surface), first.Detail)
}
