// Package clock follows one coat on one surface from the brush to the next
// coat: the coat clock that everything else reads.
package clock

import (
	"time"

	"allcoats/core/base/message"
	"allcoats/core/base/working"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/physics/cure"
	"allcoats/core/physics/weather"
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
	// Damaged is a coat that rain, dew or frost got at while it was wet: inspect it, let
	// it dry, abrade it. It stays so until the log says what was found.
	Damaged State = "damaged"
	// Unknown: the sheet has no table to tell, or the record does not know enough.
	Unknown State = "unknown"
)

// Laid is a coat that went on. Abraded is when it was sanded for the next one,
// Inspected when it was last looked at.
type Laid struct {
	Sheet     product.Sheet
	Started   time.Time
	Abraded   *time.Time
	Inspected *time.Time
	Washed    *time.Time
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
	// HoleH is how many hours until then nobody measured or forecast.
	HoleH float64 `json:"holeH"`
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
	// Abraded says that it was sanded after its minimum, so that it is open again.
	Abraded bool `json:"abraded"`
	// Damage is what harmed the coat while it could be harmed, or will.
	Damage []Damage `json:"damage"`
	// Blush is the damp after which it was not washed with water: sanding would rub the blush in.
	Blush *Damage `json:"blush,omitempty"`
	// MeasuredPct is how much of the time since the coat went on was measured, KnownPct
	// how much was measured or forecast.
	MeasuredPct float64         `json:"measuredPct"`
	KnownPct    float64         `json:"knownPct"`
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
		w.Warn("The weather record begins after the coat went on: what comes before is not known.")
	}
	recoat, tabled := s.RecoatOver(over)
	warn(&w, s)
	if !tabled {
		w.Warn("The data sheet of %s has no recoat table for %s over it.", s.Name, over.Name())
	}
	r := runner{l: l, path: p, now: now, working: w}
	touch := r.event(TouchDry, "Touch-dry", s.TouchDry, cure.Minimum)
	tack := r.event(TackFree, "Tack-free", s.TackFree, cure.Minimum)
	r.event(Sandable, "Sandable", s.Sandable, cure.Minimum)
	opens := r.event(RecoatOpens, "Recoat from", recoat.Min, cure.Minimum)
	closes := r.event(RecoatCloses, "Recoat until", recoat.Max, cure.Maximum)
	r.event(ThroughDry, "Through-dry", s.ThroughDry, cure.Minimum)
	r.event(Immersion, "Immersion, this film", s.Immersion, cure.Minimum)

	c, end := Clock{Events: r.events}, p.At[len(p.At)-1]
	w = r.working
	c.Damage = damage(s, at, l.Started, first(touch, tack, opens), first(tack, opens, touch), now)
	c.Blush = l.blush(c.Damage)
	m := marks{touch: touch, opens: opens, closes: closes, end: end, sure: c.Event(RecoatCloses).HoleH == 0,
		tabled: tabled, dries: len(s.TouchDry) > 0}
	if l.Abraded != nil && opens != nil && !l.Abraded.Before(*opens) && l.Abraded.Before(end) {
		m.abraded = l.Abraded
		c.Abraded = !l.Abraded.After(now)
	} else if l.Abraded != nil && !l.Abraded.After(now) {
		w.Warn("It was sanded before its minimum had passed: that does not open it for the next coat.")
	}
	m.damaged, m.answered = c.harmed(l)
	c.Segments = m.segments(l.Started)
	c.State, c.Until = c.StateAt(now)
	if beyond := now.Sub(end) > weather.MaxGap; beyond && c.State != Closed && c.State != Damaged &&
		!(c.State == Open && closes == nil && len(recoat.Max) == 0) {
		w.Warn("The weather known ended before now: what came after it is not known.")
		c.State, c.Until = Unknown, nil
		c.Segments = append(c.Segments, Segment{end, now, Unknown})
	}
	c.MeasuredPct, c.KnownPct = measured(at, l.Started, now)
	w.Step("Measured since it went on", "hours measured / all hours until now", c.MeasuredPct, "%",
		"the rest is forecast or not known")
	w.Step("Known since it went on", "hours measured or forecast / all hours until now", c.KnownPct, "%",
		"hours that are not known are not assumed")
	c.Working = w
	return c
}

// runner runs the clocks of a coat along its surface's temperature.
type runner struct {
	l       Laid
	path    cure.Path
	now     time.Time
	events  []Instant
	working working.Working
}

// event runs one clock and returns when it comes, nil if it does not within the weather known.
func (r *runner) event(name, label string, table cure.Table, side cure.Side) *time.Time {
	in := Instant{Name: name, Label: label, Tabled: len(table) > 0}
	if in.Tabled {
		ev := cure.Clock{Table: table, Side: side, FloorC: r.l.Sheet.MinCureC}.Run(r.path, r.l.Started, 1)
		in.Progress, in.At, in.HoleH = ev.Progress, ev.Reached, ev.HoleH
		in.Forecast = ev.Reached == nil || ev.Reached.After(r.now)
		hours := -1.0
		if ev.Reached != nil {
			hours = ev.Reached.Sub(r.l.Started).Hours()
			r.working.StepOf(label, message.Of("hours until ∫ dt/τ(T) = 1, τ from %v", describe(table)), hours, "h",
				message.Of("Arrhenius equivalent age, as ASTM C1074"))
		} else {
			r.working.StepOf(label+": progress by the end of the weather known",
				message.Of("∫ dt/τ(T), τ from %v", describe(table)), ev.Progress, "",
				message.Of("Arrhenius equivalent age, as ASTM C1074"))
		}
		if ev.Outside {
			r.working.Warn("%s: part of the time lies outside the sheet's temperatures.", label)
		}
		if ev.HoleH > 0 && side == cure.Minimum {
			r.working.Warn("%s: %.3g h of the record are not known; no progress is made in them.", label, ev.HoleH)
		} else if ev.HoleH > 0 {
			r.working.Warn("%s: %.3g h of the record are not known; the clock runs through them at its fastest.", label,
				ev.HoleH)
		}
	}
	r.events = append(r.events, in)
	return in.At
}

// warn tells what a sheet's tables hold for.
func warn(w *working.Working, s product.Sheet) {
	if s.Example {
		w.Warn("Example figures: enter the data sheet of the tin in hand.")
	}
	if s.SlowerBy > 0 {
		w.Warn("Its least times are taken %.2g times as long as printed: so coats of it were felt to take.", s.SlowerBy)
	}
	w.In("Cures above", s.MinCureC, "°C")
	switch s.Humidity {
	case cure.Waterborne:
		w.Warn(
			"Waterborne: the tables are taken for 50 %% humidity; damp air slows its minimum times, up to six times, and never lengthens a maximum.")
	case cure.MoistureCured:
		w.Warn(
			"It cures with the moisture of the air: the tables are taken for 50 %% humidity; dry air slows its minimum times, damp air closes its maximum sooner.")
	case cure.Indifferent:
	}
}

func describe(t cure.Table) message.Sentence {
	points := make([]message.Sentence, len(t))
	for i, p := range t {
		points[i] = message.Of("%g h at %g °C", p.Hours, p.TempC)
	}
	return message.Join(points, ", ")
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

// marks are the instants that part a coat's states. sure is false if the closing lies
// across hours that are not known; tabled and dries say that the sheet has the tables.
type marks struct {
	touch, opens, closes *time.Time
	end                  time.Time
	sure, tabled, dries  bool
	abraded              *time.Time // after the minimum
	damaged, answered    *time.Time
}

// segments lays the states end to end from a start to the end of what is known.
func (m marks) segments(start time.Time) []Segment {
	out := m.cured(start)
	if m.abraded != nil {
		out = append(until(out, *m.abraded), Segment{*m.abraded, m.end, Open})
	}
	if m.damaged == nil || !m.damaged.Before(m.end) {
		return out
	}
	all := until(out, *m.damaged)
	if m.answered == nil || !m.answered.Before(m.end) {
		return append(all, Segment{*m.damaged, m.end, Damaged})
	}
	all = append(all, Segment{*m.damaged, *m.answered, Damaged})
	for _, s := range out {
		if s.To.After(*m.answered) {
			if s.From.Before(*m.answered) {
				s.From = *m.answered
			}
			all = append(all, s)
		}
	}
	return all
}

// cured are the states by the tables alone.
func (m marks) cured(at time.Time) []Segment {
	var out []Segment
	put := func(state State, until *time.Time) bool {
		to := m.end
		if until != nil && until.Before(m.end) {
			to = *until
		}
		if to.After(at) {
			out = append(out, Segment{at, to, state})
			at = to
		}
		return until != nil && until.Before(m.end)
	}
	if (m.touch != nil || m.dries) && !put(Wet, m.touch) {
		return out
	}
	if !m.tabled {
		put(Unknown, nil)
		return out
	}
	if !put(Tacking, m.opens) {
		return out
	}
	if m.closes == nil {
		put(Open, nil)
		return out
	}
	closing := closingAt(*m.opens, *m.closes)
	put(Open, &closing)
	put(Closing, m.closes)
	if m.sure {
		put(Closed, nil)
	} else {
		put(Unknown, nil)
	}
	return out
}

// until keeps the segments up to an instant.
func until(all []Segment, t time.Time) []Segment {
	var kept []Segment
	for _, s := range all {
		if s.From.Before(t) {
			if s.To.After(t) {
				s.To = t
			}
			kept = append(kept, s)
		}
	}
	return kept
}
