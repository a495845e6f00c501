// Package clock follows one coat on one surface from the brush to the next
// coat: the coat clock that everything else reads.
package clock

import (
	"fmt"
	"time"

	"allcoats/core/cure"
	"allcoats/core/field"
	"allcoats/core/product"
	"allcoats/core/working"
)

// State is what a coat is like at an instant.
type State string

// States of a coat.
const (
	Wet     State = "wet"     // not yet touch-dry
	Tacking State = "tacking" // curing, too early for the next coat
	Open    State = "open"    // the next coat may follow without sanding
	Closing State = "closing" // the last fifth of the window, or its last 12 h
	Closed  State = "closed"  // abrade first
	Unknown State = "unknown" // the sheet has no table to tell
)

// Laid is a coat that went on. Abraded is when it was sanded for the next one.
type Laid struct {
	Sheet   product.Sheet
	Started time.Time
	Abraded *time.Time
}

// Instant is an event of a clock. Tabled is false if the sheet has no table
// for it. At is nil if the weather known does not reach it; Progress then says
// how far it came.
type Instant struct {
	Name     string     `json:"name"`
	Label    string     `json:"label"`
	At       *time.Time `json:"at,omitempty"`
	Tabled   bool       `json:"tabled"`
	Progress float64    `json:"progress"`
	Forecast bool       `json:"forecast"`
}

// Segment is a stretch of one state.
type Segment struct {
	From  time.Time `json:"from"`
	To    time.Time `json:"to"`
	State State     `json:"state"`
}

// Clock is a coat's events, its state at now, and its states over the time of
// the weather known.
type Clock struct {
	State State `json:"state"`
	// Until is when the state ends, nil if not within the weather known.
	Until    *time.Time `json:"until,omitempty"`
	Events   []Instant  `json:"events"`
	Segments []Segment  `json:"segments"`
	Abraded  bool       `json:"abraded"`
	// Damage is what harmed the coat while it could be harmed, or will.
	Damage []Damage `json:"damage"`
	// MeasuredPct is how much of the time since the coat went on was measured.
	MeasuredPct float64         `json:"measuredPct"`
	Working     working.Working `json:"working"`
}

// Names of the events.
const (
	TouchDry     = "touch-dry"
	TackFree     = "tack-free"
	Sandable     = "sandable"
	RecoatOpens  = "recoat-opens"
	RecoatCloses = "recoat-closes"
	ThroughDry   = "through-dry"
	Immersion    = "immersion"
)

// Event returns the event of that name.
func (c Clock) Event(name string) Instant {
	for _, e := range c.Events {
		if e.Name == name {
			return e
		}
	}
	return Instant{Name: name}
}

// StateAt returns the state at t.
func (c Clock) StateAt(t time.Time) (State, *time.Time) {
	for i, s := range c.Segments {
		if t.Before(s.To) || i == len(c.Segments)-1 {
			if i == len(c.Segments)-1 {
				return s.State, nil
			}
			return s.State, &c.Segments[i].To
		}
	}
	return Unknown, nil
}

// Run follows coat l, to be overcoated by a product of kind over, along the
// weather at the surface, and tells its state at now.
func Run(l Laid, over product.Kind, at field.Weather, now time.Time) Clock {
	s := l.Sheet
	p := at.Path(s.Humidity)
	w := working.New()
	if len(p.At) == 0 {
		w.Warn("No weather is known for this place: the clock cannot run.")
		return Clock{State: Unknown, Events: []Instant{}, Segments: []Segment{}, Damage: []Damage{}, Working: w}
	}
	if l.Started.Before(p.At[0]) {
		w.Warn("The weather record begins after the coat went on; its first temperature is used until then.")
	}
	if s.Example {
		w.Warn("Example figures: enter the data sheet of the tin in hand.")
	}
	recoat, tabled := s.RecoatOver(over)
	if !tabled {
		w.Warn("The data sheet of %s has no recoat table for %s over it.", s.Name, over.Name())
	}
	w.In("Cures above", s.MinCureC, "°C")
	switch s.Humidity {
	case product.Evaporating:
		w.Warn("It dries by evaporation: the tables are taken for 50 %% humidity at 23 °C and run with the vapour that the air can still take up.")
	case product.MoistureCured:
		w.Warn("It cures with the moisture of the air: the tables are taken for 50 %% humidity at 23 °C and run with the vapour in the air.")
	}

	c := Clock{Abraded: l.Abraded != nil && !l.Abraded.After(now)}
	add := func(name, label string, table cure.Table, side cure.Side) *time.Time {
		in := Instant{Name: name, Label: label, Tabled: len(table) > 0}
		if in.Tabled {
			ev := cure.Clock{Table: table, Side: side, FloorC: s.MinCureC}.Run(p, l.Started, 1)
			in.Progress, in.At = ev.Progress, ev.Reached
			in.Forecast = ev.Reached == nil || ev.Reached.After(now)
			hours := -1.0
			if ev.Reached != nil {
				hours = ev.Reached.Sub(l.Started).Hours()
				w.Step(label, "hours until ∫ dt/τ(T) = 1, τ from "+describe(table), hours, "h", "Arrhenius equivalent age, as ASTM C1074")
			} else {
				w.Step(label+": progress by the end of the weather known", "∫ dt/τ(T), τ from "+describe(table), ev.Progress, "", "Arrhenius equivalent age, as ASTM C1074")
			}
			if ev.Outside {
				w.Warn("%s: part of the time lies outside the sheet's temperatures.", label)
			}
		}
		c.Events = append(c.Events, in)
		return in.At
	}
	touch := add(TouchDry, "Touch-dry", s.TouchDry, cure.Minimum)
	tack := add(TackFree, "Tack-free", s.TackFree, cure.Minimum)
	add(Sandable, "Sandable", s.Sandable, cure.Minimum)
	opens := add(RecoatOpens, "Recoat from", recoat.Min, cure.Minimum)
	closes := add(RecoatCloses, "Recoat until", recoat.Max, cure.Maximum)
	add(ThroughDry, "Through-dry", s.ThroughDry, cure.Minimum)
	add(Immersion, "Immersion from", s.Immersion, cure.Minimum)

	end := p.At[len(p.At)-1]
	if now.After(end) {
		w.Warn("The weather known ended before now: states after it are not known.")
	}
	c.Segments = segments(l, tabled, touch, opens, closes, end)
	c.State, c.Until = c.StateAt(now)
	c.Damage = damage(s, at, l.Started, first(touch, tack, opens), first(tack, opens, touch), now)
	c.MeasuredPct = measured(at, l.Started, now)
	w.Step("Measured since it went on", "records that were measured / all records until now", c.MeasuredPct, "%", "the rest is forecast or not known")
	c.Working = w
	return c
}

func describe(t cure.Table) string {
	s := ""
	for i, p := range t {
		if i > 0 {
			s += ", "
		}
		s += fmt.Sprintf("%g h at %g °C", p.Hours, p.TempC)
	}
	return s
}

// closingAt returns when an open window starts closing: a fifth of it, or
// 12 h, before its end, whichever is earlier, but not before it opens.
func closingAt(opens, closes time.Time) time.Time {
	at := closes.Add(-max(closes.Sub(opens)/5, 12*time.Hour))
	if at.Before(opens) {
		return opens
	}
	return at
}

// segments lays the states end to end from the start to end.
func segments(l Laid, tabled bool, touch, opens, closes *time.Time, end time.Time) []Segment {
	var out []Segment
	at := l.Started
	put := func(state State, until *time.Time) bool {
		to := end
		if until != nil && until.Before(end) {
			to = *until
		}
		if to.After(at) {
			out = append(out, Segment{at, to, state})
			at = to
		}
		return until != nil && until.Before(end)
	}
	run := func() {
		if touch != nil || len(l.Sheet.TouchDry) > 0 {
			if !put(Wet, touch) {
				return
			}
		}
		if !tabled {
			put(Unknown, nil)
			return
		}
		if !put(Tacking, opens) {
			return
		}
		if closes == nil {
			put(Open, nil)
			return
		}
		closing := closingAt(*opens, *closes)
		put(Open, &closing)
		put(Closing, closes)
		put(Closed, nil)
	}
	run()
	if l.Abraded == nil || !l.Abraded.Before(end) {
		return out
	}
	kept := out[:0]
	for _, s := range out {
		if s.From.Before(*l.Abraded) {
			if s.To.After(*l.Abraded) {
				s.To = *l.Abraded
			}
			kept = append(kept, s)
		}
	}
	return append(kept, Segment{*l.Abraded, end, Open})
}
