package plan

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"time"

	"allcoats/core/base/message"
)

// Launching is when a boat can be launched; At is nil if some of her work finds no place.
type Launching struct {
	BoatID string     `json:"boatId"`
	Boat   string     `json:"boat"`
	At     *time.Time `json:"at,omitempty"`
	Due    *time.Time `json:"due,omitempty"`
	// Half and Nine are the days by which she is ready in half, and in nine of ten courses of
	// the weather, nil if not within the plan; DuePct is how often by the day wanted.
	Half   *time.Time `json:"half,omitempty"`
	Nine   *time.Time `json:"nine,omitempty"`
	DuePct *float64   `json:"duePct,omitempty"`
	// LateH is how much after the day wanted, 0 in time.
	LateH float64 `json:"lateH"`
	// Hours are those to come of her job, BesideH what the plan takes beside: setting up
	// again, mends of missed windows, a tent moved; Cents what both cost, 0 without a price
	// of an hour. Rekey counts the mends.
	Hours   float64 `json:"hours"`
	BesideH float64 `json:"besideH"`
	Cents   float64 `json:"cents"`
	Rekey   int     `json:"rekey"`
	// Left is how many of her tasks find no place.
	Left int `json:"left"`
	// Says is all this as a sentence.
	Says message.Sentence `json:"says"`

	unplanned bool
}

// Odds are when a boat is ready over many courses of the weather.
type Odds struct {
	Half   *time.Time `json:"half,omitempty"`
	Nine   *time.Time `json:"nine,omitempty"`
	DuePct float64    `json:"duePct"`
}

// WithOdds tells the launches by their odds, by the id of the boat; without any they stay as
// the plan has them in usual weather.
func (p Plan) WithOdds(odds map[string]Odds, loc *time.Location) Plan {
	p.Launches = slices.Clone(p.Launches)
	for i := range p.Launches {
		l := &p.Launches[i]
		o, ok := odds[l.BoatID]
		if !ok || l.At == nil {
			continue
		}
		l.Half, l.Nine, l.DuePct, l.LateH = o.Half, o.Nine, &o.DuePct, 0
		if l.Due != nil && (o.Half == nil || o.Half.After(*l.Due)) {
			l.LateH = max(24, l.ready().Sub(*l.Due).Hours())
		}
		if l.Due == nil {
			l.DuePct = nil
		}
		l.Says = l.says(loc)
	}
	p.Headline = headline(p.Launches)
	return p
}

// ready is when a boat is ready half the time, or where that is not known in the plan.
func (l Launching) ready() time.Time {
	if l.Half != nil {
		return *l.Half
	}
	return *l.At
}

// says tells when a boat is ready: by the weather's odds where they are known, else as the
// plan has it in usual weather.
func (l Launching) says(loc *time.Location) message.Sentence {
	if l.At == nil {
		n := "one task finds"
		if l.Left > 1 {
			n = fmt.Sprintf("%d tasks find", l.Left)
		}
		return message.Of("%v cannot be launched yet: %s no place in this plan.", message.Strong(l.Boat), n)
	}
	if l.unplanned {
		return message.Of("Nothing is planned on %v yet: choose her coats in Build-up.", message.Strong(l.Boat))
	}
	out := message.Of("%v can be launched from %v", message.Strong(l.Boat), message.On(*l.At))
	switch {
	case l.Half != nil && l.Nine != nil:
		out = message.Of("%v is ready half the time by %v, nine times in ten by %v", message.Strong(l.Boat),
			message.On(*l.Half), message.On(*l.Nine))
	case l.Half != nil:
		out = message.Of(
			"%v is ready half the time by %v; in one course of the weather out of ten not within this plan",
			message.Strong(l.Boat), message.On(*l.Half))
	case l.DuePct != nil:
		return message.Of("%v in usual weather, but in more than half of its courses not within this plan.", out)
	}
	switch ready := l.ready(); {
	case l.Due == nil:
	case l.LateH > 0:
		out = message.Of("%v: %s after the day wanted", out, days(apartDays(*l.Due, ready, loc)))
	case apartDays(ready, *l.Due, loc) == 0:
		out = message.Of("%v: the day wanted", out)
	default:
		out = message.Of("%v: %s before the day wanted", out, days(apartDays(ready, *l.Due, loc)))
	}
	return message.Of("%v.", out)
}

// unplanned reports whether no work is planned on a boat, and none was done.
func (b Boat) unplanned() bool {
	return !slices.ContainsFunc(b.Surfaces, func(s Surface) bool { return len(s.Tasks) > 0 || s.Last != nil })
}

// headline says when the boats are ready: which are stuck or late, the worst first, or the last.
func headline(all []Launching) message.Sentence {
	var late []Launching
	for _, l := range all {
		if l.At == nil || l.LateH > 0 {
			late = append(late, l)
		}
	}
	slices.SortStableFunc(late, func(a, b Launching) int { return cmp.Compare(b.behindH(), a.behindH()) })
	switch {
	case len(late) == 1 || len(late) > 0 && late[0].At == nil:
		return late[0].Says
	case len(late) > 1:
		return message.Of("%d of %d boats are late: %v by %s, then %v.", len(late), len(all),
			message.Strong(late[0].Boat), days(int(math.Ceil(late[0].LateH/24))), message.Strong(late[1].Boat))
	}
	last := slices.MaxFunc(all, func(a, b Launching) int { return a.ready().Compare(b.ready()) })
	if len(all) == 1 {
		return last.Says
	}
	return message.Of("All %d boats are in time: the last, %v, on %v.", len(all), message.Strong(last.Boat),
		message.On(last.ready()))
}

// behindH is how late a boat is, h, without end where some of her work finds no place.
func (l Launching) behindH() float64 {
	if l.At == nil {
		return math.Inf(1)
	}
	return l.LateH
}

// apartDays are the days of the calendar from a to b.
func apartDays(a, b time.Time, loc *time.Location) int {
	midnight := func(t time.Time) time.Time {
		y, mo, d := t.In(loc).Date()
		return time.Date(y, mo, d, 0, 0, 0, 0, time.UTC)
	}
	return int(midnight(b).Sub(midnight(a)).Hours() / 24)
}

func days(n int) string {
	if n == 1 {
		return "1 day"
	}
	return fmt.Sprintf("%d days", n)
}
