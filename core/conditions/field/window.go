package field

import (
	"sort"
	"time"

	"allcoats/core/physics/weather"
)

// Phase is when a limit fails, seen from a coat's start.
type Phase string

// Phases of a coat.
const (
	Laying  Phase = "laying"
	Holding Phase = "holding"
	Drying  Phase = "drying" // must stay free of rain
)

// Reason is why a coat may not start at some time: Check fails from From to
// To, in the phase that a coat started there would be in.
type Reason struct {
	Check Check     `json:"check"`
	Phase Phase     `json:"phase"`
	From  time.Time `json:"from"`
	To    time.Time `json:"to"`
}

// Window is a stretch of starts from each of which the field holds through
// laying and holding. Opens is what forbids earlier starts, Closes later ones;
// nil at the ends of what was asked for.
type Window struct {
	From   time.Time `json:"from"`
	To     time.Time `json:"to"`
	Opens  *Reason   `json:"opens,omitempty"`
	Closes *Reason   `json:"closes,omitempty"`
	// SlackH is how long the best start is away from both ends, hours.
	SlackH float64 `json:"slackH"`
	// Slack is the least margin to any limit, in typical forecast errors,
	// from the middle start to the end of its hold.
	Slack float64 `json:"slack"`
	// Binding is the check that Slack belongs to.
	Binding Check `json:"binding"`
	// Measured is set if the whole window lies in the measured record.
	Measured bool `json:"measured"`
}

// grid is how finely the record is searched for crossings, on whole tens of
// minutes wherever the search begins; they are then found to the second.
const grid = 10 * time.Minute

// blocked is a stretch of starts forbidden by a reason.
type blocked struct {
	from, to time.Time
	why      Reason
	last     Check // what fails just before to
}

// Windows lists the stretches of starts in [from, to], at least one minute
// long, in order of time. Edges are rounded inward to whole minutes. Weather
// that is not known forbids.
func (j Job) Windows(w Weather, from, to time.Time) []Window {
	if len(w.Air) == 0 || !from.Before(to) {
		return nil
	}
	var stops []blocked
	// A failure in (a, b) forbids the starts that come less than reach before
	// it: the phase would meet it.
	forbid := func(f failure, phase Phase, reach time.Duration) {
		if begin := f.from.Add(-reach); begin.Before(f.to) {
			stops = append(stops, blocked{begin, f.to, Reason{f.check, phase, f.from, f.to}, f.last})
		}
	}
	end := to.Add(j.Apply + max(j.Hold, j.Dry))
	for _, f := range failures(w, from, end, func(out []Check, h weather.Hour, s float64) []Check {
		return climate(out, j.Limits, h, s)
	}) {
		forbid(f, after(Holding, j.Hold), j.Apply+j.Hold)
	}
	if j.windy() {
		wind := func(out []Check, h weather.Hour, _ float64) []Check {
			if h.WindMS == nil {
				return append(out, j.wind(0))
			}
			return append(out, j.wind(*h.WindMS))
		}
		for _, f := range failures(w, from, end, wind) {
			forbid(f, Laying, j.Apply)
		}
	}
	if !j.Sheltered {
		for _, f := range showers(w.Air) {
			forbid(f, after(Drying, j.Dry), j.Apply+j.Dry)
		}
	}
	for _, s := range w.Wet {
		forbid(failure{s.From, s.To, wet, wet}, Laying, j.Apply)
	}
	if !j.Lights {
		sunset := from
		for _, l := range j.Daylight {
			forbid(failure{sunset, l.Rise, dark, dark}, Laying, j.Apply)
			sunset = l.Set
		}
		forbid(failure{sunset, end, dark, dark}, Laying, j.Apply)
	}
	if j.Work != nil {
		off := from
		for _, s := range j.Work {
			forbid(failure{off, s.From, away, away}, Laying, j.Apply)
			off = s.To
		}
		forbid(failure{off, end, away, away}, Laying, j.Apply)
	}
	sort.SliceStable(stops, func(a, b int) bool { return stops[a].from.Before(stops[b].from) })
	return j.between(w, stops, from, to)
}

// after is the phase in which a limit fails that binds for d after laying.
func after(p Phase, d time.Duration) Phase {
	if d == 0 {
		return Laying
	}
	return p
}

// showers lists the stretches of rain.
func showers(air weather.Series) []failure {
	var out []failure
	for _, h := range air {
		if h.RainMM == nil || *h.RainMM <= dry {
			continue
		}
		c, end := rain(*h.RainMM), h.At.Add(time.Hour)
		if n := len(out); n > 0 && !out[n-1].to.Before(h.At) {
			out[n-1].to, out[n-1].last = end, c
		} else {
			out = append(out, failure{h.At, end, c, c})
		}
	}
	return out
}

// between returns the gaps that stops leave in [from, to].
func (j Job) between(w Weather, stops []blocked, from, to time.Time) []Window {
	var out []Window
	open := from
	var opens *Reason
	close := func(at time.Time, why *Reason) {
		a, b := open.Truncate(time.Minute), at.Truncate(time.Minute)
		if a.Before(open) {
			a = a.Add(time.Minute)
		}
		if b.Sub(a) >= time.Minute {
			out = append(out, j.judge(w, Window{From: a, To: b, Opens: opens, Closes: why}))
		}
	}
	for i := range stops {
		s := &stops[i]
		if !s.to.After(from) {
			continue
		}
		if s.from.After(to) {
			break
		}
		if s.from.After(open) {
			close(s.from, &s.why)
		}
		if s.to.After(open) {
			why := s.why
			why.Check = s.last
			open, opens = s.to, &why
		}
	}
	if open.Before(to) {
		close(to, nil)
	}
	return out
}

// judge fills in the slack of a window from a coat started in its middle.
func (j Job) judge(w Weather, win Window) Window {
	win.SlackH = win.To.Sub(win.From).Hours() / 2
	start := win.From.Add(win.To.Sub(win.From) / 2)
	first := true
	win.Measured = true
	for t := start; !t.After(start.Add(j.Apply + j.Hold)); t = t.Add(30 * time.Minute) {
		h, s, ok := w.at(t)
		if !ok {
			continue
		}
		checks := climate(nil, j.Limits, h, s)
		if t.Before(start.Add(j.Apply)) {
			checks = j.applying(nil, h, s, w.WetAt(t))
		}
		if c := Worst(checks); first || c.Slack < win.Slack {
			win.Slack, win.Binding, first = c.Slack, c, false
		}
		win.Measured = win.Measured && h.Measured
	}
	return win
}

// At returns the limit with the least room while a coat that starts at t is laid
// and held; ok is false where the weather is not known.
func (j Job) At(w Weather, t time.Time) (c Check, ok bool) {
	if _, _, known := w.at(t); !known {
		return Check{}, false
	}
	return j.judge(w, Window{From: t, To: t}).Binding, true
}

// failure is a stretch in which some check is not kept; check is the worst at
// its beginning and last the worst at its end.
type failure struct {
	from, to    time.Time
	check, last Check
}

// failures finds the stretches in [from, to] in which any of checks fails.
func failures(w Weather, from, to time.Time, checks func([]Check, weather.Hour, float64) []Check) []failure {
	var room [8]Check
	worst := func(t time.Time) Check {
		h, s, ok := w.at(t)
		if !ok {
			return Check{Limit: NoData, Margin: -1, Slack: -1}
		}
		return Worst(checks(room[:0], h, s))
	}
	cross := func(a, b time.Time, failsAt bool) time.Time {
		for b.Sub(a) > time.Second {
			mid := a.Add(b.Sub(a) / 2).Truncate(time.Second)
			if !worst(mid).OK() == failsAt {
				a = mid
			} else {
				b = mid
			}
		}
		return b
	}
	var out []failure
	last := worst(from)
	if !last.OK() {
		out = append(out, failure{from: from, check: last})
	}
	for a := from; a.Before(to); {
		b := a.Add(grid).Truncate(grid)
		now := worst(b)
		switch {
		case now.OK() && !last.OK():
			at := cross(a, b, true)
			out[len(out)-1].to = at
			out[len(out)-1].last = worst(at.Add(-time.Second))
		case !now.OK() && last.OK():
			at := cross(a, b, false)
			out = append(out, failure{from: at, check: worst(at)})
		}
		last, a = now, b
	}
	if !last.OK() {
		out[len(out)-1].to, out[len(out)-1].last = to.Add(grid), last
	}
	return out
}
