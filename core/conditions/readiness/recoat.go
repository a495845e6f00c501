package readiness

import (
	"math"
	"slices"
	"sort"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/conditions/clock"
)

// recoat answers "may I coat over it without sanding?" from the clock.
func (s Situation) recoat(c clock.Clock) message.Sentence {
	opens, closes := c.Event(clock.RecoatOpens), c.Event(clock.RecoatCloses)
	var out message.Sentence
	switch {
	case c.State == clock.Damaged:
		d, _ := c.Harmed()
		out = message.Of("No: it was hit while wet, %v. Inspect it, let it dry, abrade it, and log what you find.",
			message.Clock(d.From, s.Now, s.Loc))
	case c.Abraded:
		out = message.Of("It was sanded since: the next coat may go on.")
	case !opens.Tabled:
		return message.Of("The sheet has no recoat table.")
	case opens.At == nil || opens.At.After(s.Now):
		out = message.Of("No coat over it yet.")
		if opens.At != nil {
			out = message.Of("No coat before %v.", message.Clock(*opens.At, s.Now, s.Loc))
		}
		if opens.At != nil && closes.At != nil {
			out = message.Of("No coat before %v, then without sanding until %v.", message.Clock(*opens.At, s.Now, s.Loc),
				message.Clock(*closes.At, s.Now, s.Loc))
		}
	case closes.At != nil && !closes.At.After(s.Now) && closes.HoleH > 0, c.State == clock.Unknown:
		return message.Of("Not known: sand first. %v of the time since was measured or forecast.",
			message.Val(math.Floor(c.KnownPct+1e-6), "%"))
	case closes.At != nil && !closes.At.After(s.Now):
		out = message.Of("Sand first: its window closed %v.", message.Clock(*closes.At, s.Now, s.Loc))
	case c.State == clock.Closing && closes.At != nil:
		out = message.Of("Closing: without sanding only until %v, when it has cured past its sheet's maximum.",
			message.Clock(*closes.At, s.Now, s.Loc))
	case closes.At != nil:
		out = message.Of("Yes, without sanding, until %v.", message.Clock(*closes.At, s.Now, s.Loc))
	case closes.Tabled:
		out = message.Of("Yes, without sanding, beyond the weather known.")
	default:
		out = message.Of("Yes, without sanding; its window does not close.")
	}
	if c.Blush != nil && c.State != clock.Damaged {
		out = message.Of("Wash it with warm water first: amine blush is likely. %v", out)
	}
	return out
}

// harm puts damage into a sentence.
func (s Situation) harm(d clock.Damage) message.Sentence {
	from, to := message.Clock(d.From, s.Now, s.Loc), message.Clock(d.To, d.From, s.Loc)
	if d.Forecast {
		return message.Of("expected from %v to %v: %v.", from, to, message.Lit(d.Text))
	}
	return message.Of("from %v to %v: %v.", from, to, message.Lit(d.Text))
}

// dry tells when water goes off the surfaces that are wet now, or that were wet
// last with the sun: "Dew off starboard by 10:20, port by 11:05".
func (s Situation) dry() message.Sentence {
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
		return message.Sentence{}
	}
	sort.SliceStable(wet, func(i, j int) bool { return wet[i].at.Before(wet[j].at) })
	rain, all := false, []message.Sentence{}
	for _, w := range wet {
		rain = rain || w.rain
		all = append(all, message.Of("%s by %v", w.name, message.Clock(w.at, s.Now, s.Loc)))
	}
	if rain {
		return message.Of("Dry: %v.", message.Join(all, ", "))
	}
	return message.Of("Dew off %v.", message.Join(all, ", "))
}

// urgency is how soon something is to be done about a clock.
var urgency = []clock.State{clock.Damaged, clock.Closing, clock.Wet, clock.Tacking, clock.Open, clock.Closed,
	clock.Unknown}

// clocks says of the most urgent clock that runs what harmed its coat, or whether the next may
// follow; of two alike, of the one whose state ends first.
func (s Situation) clocks(lanes []Lane) message.Sentence {
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
		return message.Of("Add her surfaces in Survey first: work is logged on them.")
	case first == nil:
		return message.Of("No clock runs: log what is done next.")
	case len(first.Damage) > 0:
		return message.Of("%v: %v", message.Strong(first.Surface), first.Damage[0].Lower())
	case len(first.Recoat) > 0:
		return message.Of("%v: %v", message.Strong(first.Surface), s.recoat(*first.Clock).Lower())
	}
	return message.Of("%v: %v", message.Strong(first.Surface), first.Detail)
}
