package readiness

import (
	"slices"
	"sort"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/conditions/clock"
)

// actions lists what to do today, in order of time.
func (s Situation) actions(a *Answer) {
	for _, l := range a.Lanes {
		s.ofLane(a, l)
	}
	s.ofLimits(a)
	s.ofPlan(a)
	sort.SliceStable(a.Actions, func(i, j int) bool {
		x, y := a.Actions[i], a.Actions[j]
		if x.At.Equal(y.At) && x.Until != nil && y.Until != nil {
			return x.Until.Before(*y.Until)
		}
		return x.At.Before(y.At)
	})
}

// ofLane adds what a lane asks for today.
func (s Situation) ofLane(a *Answer, l Lane) {
	day := func(t *time.Time) bool { return t != nil && message.SameDay(*t, s.Now, s.Loc) && t.After(s.Now) }
	if l.cover != nil {
		a.Actions = append(a.Actions, Action{At: s.Now, Until: &l.cover.From, SurfaceID: l.SurfaceID,
			Text: l.Cover})
	}
	if l.Chance == Harmed {
		a.Actions = append(a.Actions, Action{At: s.Now, SurfaceID: l.SurfaceID, Text: l.Answer})
	} else if l.Clock != nil {
		if e := l.Clock.Event(clock.Sandable); day(e.At) {
			a.Actions = append(a.Actions, Action{At: *e.At, SurfaceID: l.SurfaceID,
				Text: message.Of("%s can be sanded", l.Surface)})
		}
		if l.closes != nil && l.closes.After(s.Now) && l.closes.Sub(s.Now) < urgent {
			a.Actions = append(a.Actions, Action{At: *l.closes, SurfaceID: l.SurfaceID,
				Text: message.Of("%s: after this it must be sanded first", l.Surface)})
		}
	}
	if s.Plan == nil && l.Chance == Unprepared {
		a.Actions = append(a.Actions, Action{At: s.Now, SurfaceID: l.SurfaceID,
			Text: l.Answer[:len(l.Answer):len(l.Answer)]})
	}
	if l.best == nil || l.Chance != Now && l.Chance != Today {
		return
	}
	until := l.best.To
	act := Action{At: l.best.From, Until: &until, SurfaceID: l.SurfaceID, Hours: l.Mix.LayH,
		Text: message.Of("%s: mix %v, lay %v wet", l.Surface, message.Val(l.Mix.Litres, "L"),
			message.Val(l.Mix.WFTUm, "µm"))}
	for _, f := range s.Surfaces {
		if f.ID == l.SurfaceID && f.Next != nil {
			if act.Task = s.planned(f.Next.TaskID); act.Task != nil && act.Task.Start.After(act.At) &&
				act.Task.Start.Before(until) {
				act.At = act.Task.Start // after what the plan has before it
			}
		}
	}
	a.Actions = append(a.Actions, act)
}

// ofLimits adds what must be done before a limit runs out.
func (s Situation) ofLimits(a *Answer) {
	for _, f := range s.Surfaces {
		for _, k := range f.Limits {
			if k.By.Sub(s.Now) > urgent {
				continue
			}
			name, by := message.Strong(f.Name), message.Clock(k.By, s.Now, s.Loc)
			text := message.Of("%v, %v: %v by %v, or %v.", name, message.Lit(k.Name), k.Until, by, k.Breaks)
			if !k.By.After(s.Now) {
				text = message.Of("%v: %v for too long, since %v it is not %v: %v.", name, message.Lit(k.Name), by,
					k.Until, k.Breaks)
			}
			at := k.By
			if at.Before(s.Now) {
				at = s.Now
			}
			a.Actions = append(a.Actions, Action{At: at, SurfaceID: f.ID, Text: text})
		}
	}
}

// ofPlan adds the tasks of the plan that are on today.
func (s Situation) ofPlan(a *Answer) {
	// A coat that only waits for other work of today has its turn after it.
	waits := func(surfaceID string) bool {
		return slices.ContainsFunc(a.Lanes, func(l Lane) bool {
			return l.SurfaceID == surfaceID && (l.Chance == Unprepared || l.Chance == Blocked)
		}) && !slices.ContainsFunc(s.Surfaces, func(f Surface) bool { return f.ID == surfaceID && len(f.Stop) > 0 })
	}
	for i := range s.Plan {
		p := &s.Plan[i]
		if p.Coat && !waits(p.SurfaceID) || !s.today(p) || !p.End.After(s.Now) || len(p.Before) > 0 &&
			p.Start.After(s.Now) && !s.doneBefore(p) {
			continue
		}
		at, until := p.Start, p.End
		if at.Before(s.Now) {
			at = s.Now
		}
		a.Actions = append(a.Actions, Action{At: at, Until: &until, SurfaceID: p.SurfaceID, Hours: p.Hours,
			Text: p.name(), Task: p})
	}
}

// doneBefore reports whether all that comes before work of the plan is to be done today.
func (s Situation) doneBefore(p *Planned) bool {
	for _, name := range p.Before {
		for i := range s.Plan {
			if o := &s.Plan[i]; message.Of("%s, %v", o.Surface, o.What).String() == name.String() && !s.today(o) {
				return false
			}
		}
	}
	return true
}
