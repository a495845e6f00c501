package readiness

import (
	"strings"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/conditions/clock"
)

// urgent is how far ahead a closing window goes before everything else.
const urgent = 36 * time.Hour

// headline picks the surface to begin with: a recoat window about to close
// that can still be met, then what may go on now, today, later.
func (s Situation) headline(a *Answer) {
	rank := func(l Lane) (int, time.Time) {
		switch {
		case l.best == nil:
			return 9, time.Time{}
		case l.closes != nil && !l.best.Sand && l.closes.Sub(s.Now) < urgent:
			return 0, *l.closes
		case l.Chance == Now:
			return 1, l.best.To
		case l.Chance == Today:
			return 2, l.best.From
		}
		return 3, l.best.From
	}
	first := -1 // what must be covered comes before everything
	for i, l := range a.Lanes {
		if l.cover != nil && (first < 0 || l.cover.From.Before(a.Lanes[first].cover.From)) {
			first = i
		}
	}
	if first >= 0 {
		l := a.Lanes[first]
		for _, f := range s.Surfaces {
			if f.ID == l.SurfaceID {
				a.Detail = message.Of("If it is hit: %v", clock.Mend(f.Last.Sheet))
			}
		}
		a.Headline, a.SurfaceID = l.Cover, l.SurfaceID
		return
	}
	best := -1
	for i, l := range a.Lanes {
		if l.best == nil {
			continue
		}
		if best >= 0 {
			r, t := rank(l)
			br, bt := rank(a.Lanes[best])
			if r > br || r == br && !t.Before(bt) {
				continue
			}
		}
		best = i
	}
	urgentFirst := false
	if best >= 0 {
		r, _ := rank(a.Lanes[best])
		urgentFirst = r == 0
	}
	if !urgentFirst && s.headOfPlan(a) {
		return
	}
	if best >= 0 {
		l := a.Lanes[best]
		a.Headline, a.Detail, a.SurfaceID = l.Answer, l.Detail, l.SurfaceID
		return
	}
	a.Headline, a.Detail = s.nothing(a.Lanes)
}

// headOfPlan leads with the first work of the plan that can be begun today, or without any
// with when the next is; it reports whether there is a plan to lead with.
func (s Situation) headOfPlan(a *Answer) bool {
	lane := func(id string) *Lane {
		for i := range a.Lanes {
			if a.Lanes[i].SurfaceID == id {
				return &a.Lanes[i]
			}
		}
		return nil
	}
	for _, l := range a.Lanes {
		if l.Chance == Harmed || l.Chance == NotKnown {
			return false
		}
	}
	var next *Planned
	for i := range s.Plan {
		p := &s.Plan[i]
		l := lane(p.SurfaceID)
		switch {
		case !p.End.After(s.Now) || len(p.Before) > 0 && !p.Start.Before(s.Now):
			continue
		case !s.today(p) && !(!s.HoursSaid && p.Coat && l != nil && (l.Chance == Now || l.Chance == Today)):
			if next == nil {
				next = p
			}
			continue
		case p.Coat && l != nil && (l.Chance == Now || l.Chance == Today):
			a.Headline, a.Detail, a.SurfaceID = l.Answer, l.Detail, l.SurfaceID
			return true
		case p.Coat:
			continue
		}
		a.Headline, a.Detail, a.SurfaceID = s.begin(p), s.leads(p, l), p.SurfaceID
		return true
	}
	if next == nil {
		return false
	}
	a.Headline = message.Of("Nothing to begin today. Next is %v, %v.", next.name().Strong(),
		message.Clock(next.Start, s.Now, s.Loc))
	a.Detail, a.SurfaceID = next.Why, next.SurfaceID
	return true
}

// today reports whether work of the plan is begun on the day of now.
func (s Situation) today(p *Planned) bool {
	return p.Start.Before(s.Now) || message.SameDay(p.Start, s.Now, s.Loc)
}

func (p Planned) name() message.Sentence {
	if p.Surface == "" {
		return p.What
	}
	return message.Of("%s: %v", p.Surface, p.What)
}

// begin says what is to be begun, when and by whom.
func (s Situation) begin(p *Planned) message.Sentence {
	when := message.Of("now to %v", message.Clock(p.End, s.Now, s.Loc))
	if p.Start.Sub(s.Now) > time.Minute {
		when = message.Of("from %v to %v", message.Clock(p.Start, s.Now, s.Loc), message.Clock(p.End, s.Now, s.Loc))
	}
	if len(p.People) > 0 {
		return message.Of("%v, %v: %s.", p.name().Strong(), when, strings.Join(p.People, ", "))
	}
	return message.Of("%v, %v.", p.name().Strong(), when)
}

// leads says what waits for work of the plan.
func (s Situation) leads(p *Planned, l *Lane) message.Sentence {
	if l == nil || l.Chance != Unprepared {
		return p.Why
	}
	return l.Answer
}

// nothing is the headline when no coat can go on.
func (s Situation) nothing(lanes []Lane) (headline, detail message.Sentence) {
	count := map[Chance]int{}
	for _, l := range lanes {
		count[l.Chance]++
	}
	switch {
	case len(lanes) == 0:
		return message.Of("This boat has no surfaces yet."),
			message.Of("Add them in Survey; then choose their coats in Build-up.")
	case count[NotKnown] > 0:
		return message.Of("Cannot tell what may go on."), firstOf(lanes, NotKnown)
	case count[Harmed] > 0:
		return firstOf(lanes, Harmed), message.Sentence{}
	case count[Unprepared] > 0:
		return firstOf(lanes, Unprepared), message.Of("No coat may go on before that.")
	case count[NoChance] > 0:
		return message.Of("No coat may go on within the forecast."), firstOf(lanes, NoChance)
	case count[Unplanned] == len(lanes):
		return message.Of("No coats are planned yet."),
			message.Of("Choose them in Build-up; then this page says when they may go on.")
	}
	return message.Of("All planned coats are on."), message.Of("Watch the clocks below for launching.")
}

func firstOf(lanes []Lane, c Chance) message.Sentence {
	for _, l := range lanes {
		if l.Chance == c {
			return message.Of("%v %v", l.Answer, l.Detail)
		}
	}
	return nil
}
