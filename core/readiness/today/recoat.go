package today

import (
	"math"
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
		out = say.Sentence{say.Text("No: it was hit while wet, "), say.Clock(d.From, s.Now, s.Loc), say.Text(". Inspect it, let it dry, abrade it, and log what you find.")}
	case c.Abraded:
		out = say.Sentence{say.Text("It was sanded since: the next coat may go on.")}
	case !opens.Tabled:
		return say.Sentence{say.Text("The sheet has no recoat table.")}
	case opens.At == nil || opens.At.After(s.Now):
		out = say.Sentence{say.Text("No coat over it yet")}
		if opens.At != nil {
			out = append(out, say.Text("; from "), say.Clock(*opens.At, s.Now, s.Loc))
		}
		out = append(out, say.Text("."))
	case closes.At != nil && !closes.At.After(s.Now) && closes.HoleH > 0, c.State == clock.Unknown:
		return say.Sentence{say.Text("Not known: sand first. "), say.Val(math.Floor(c.KnownPct+1e-6), "%"), say.Text(" of the time since was measured or forecast.")}
	case closes.At != nil && !closes.At.After(s.Now):
		out = say.Sentence{say.Text("Sand first: its window closed "), say.Clock(*closes.At, s.Now, s.Loc), say.Text(".")}
	case c.State == clock.Closing && closes.At != nil:
		out = say.Sentence{say.Text("Closing: without sanding only until "), say.Clock(*closes.At, s.Now, s.Loc), say.Text(", when it has cured past its sheet's maximum.")}
	case closes.At != nil:
		out = say.Sentence{say.Text("Yes, without sanding, until "), say.Clock(*closes.At, s.Now, s.Loc), say.Text(".")}
	case closes.Tabled:
		out = say.Sentence{say.Text("Yes, without sanding, beyond the weather known.")}
	default:
		out = say.Sentence{say.Text("Yes, without sanding; its window does not close.")}
	}
	return append(out, say.Text(" "), say.Val(math.Floor(c.MeasuredPct+1e-6), "%"), say.Text(" of the hours since are on record."))
}

// harm puts damage into a sentence.
func (s Situation) harm(d clock.Damage) say.Sentence {
	verb := "from "
	if d.Forecast {
		verb = "expected from "
	}
	return say.Sentence{say.Text("%s", verb), say.Clock(d.From, s.Now, s.Loc), say.Text(" to "), say.Clock(d.To, d.From, s.Loc), say.Text(": %s.", d.Text)}
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
	word := "Dew off "
	for _, w := range wet {
		if w.rain {
			word = "Dry: "
		}
	}
	out := say.Sentence{say.Text("%s", word)}
	for i, w := range wet {
		if i > 0 {
			out = append(out, say.Text(", "))
		}
		out = append(out, say.Text("%s by ", w.name), say.Clock(w.at, s.Now, s.Loc))
	}
	return append(out, say.Text("."))
}
