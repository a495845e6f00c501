package readiness

import (
	"time"

	"allcoats/core/base/message"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/field"
	"allcoats/core/physics/cure"
)

// answer writes the lane's sentence.
func (s Situation) answer(l *Lane, f Surface, job field.Job) {
	n := f.Next
	for i := range l.Starts {
		if w := &l.Starts[i]; w.To.Sub(w.From) >= minStart {
			l.best = w
			break
		}
	}
	name, kind := message.Strong(f.Name), n.Sheet.Kind
	if l.best == nil {
		l.Chance = NoChance
		l.Answer = message.Of("%v: no chance for %v within the forecast.", name, kind)
		l.Detail = s.whyNot(job, f.Weather)
		return
	}
	w := l.best
	when := message.Of("from %v to %v", message.Clock(w.From, s.Now, s.Loc), message.Clock(w.To, w.From, s.Loc))
	switch {
	case w.From.Sub(s.Now) < time.Minute+1:
		l.Chance = Now
		when = message.Of("now, until %v", message.Clock(w.To, s.Now, s.Loc))
	case message.SameDay(w.From, s.Now, s.Loc):
		l.Chance = Today
	default:
		l.Chance = Later
	}
	blush := l.Clock != nil && l.Clock.Blush != nil
	switch {
	case blush && w.Sand:
		when = message.Of("after a wash with warm water and sanding %v", when)
	case blush:
		when = message.Of("after a wash with warm water %v", when)
	case w.Sand:
		when = message.Of("after sanding %v", when)
	}
	if l.Chance == Later {
		l.Answer = message.Of("%v: not today; %v may go on %v.", name, kind, when)
	} else {
		l.Answer = message.Of("%v: %v may go on %v.", name, kind, when)
	}
	if l.Chance != Later && n.N < n.Of {
		if second := s.second(*l, f); second != nil {
			l.Answer = message.Of("%v %v", l.Answer, second)
		}
	}
	l.Detail = s.reasons(*l, job)
}

// second tells whether the coat after the next fits on the same day.
func (s Situation) second(l Lane, f Surface) message.Sentence {
	r, ok := f.Next.Sheet.RecoatOver(f.Next.Sheet.Kind)
	if !ok {
		return nil
	}
	first := cure.Clock{Table: r.Min, FloorC: f.Next.Sheet.MinCureC}
	ev := first.Run(f.Weather.Path(f.Next.Sheet.Humidity), l.best.From, 1)
	if ev.Reached != nil {
		for _, w := range l.Starts {
			from := w.From
			if ev.Reached.After(from) {
				from = ev.Reached.Truncate(time.Minute).Add(time.Minute)
			}
			if w.To.Sub(from) >= minStart && message.SameDay(from, l.best.From, s.Loc) {
				return message.Of("Two coats fit: the second from %v.", message.Clock(from, s.Now, s.Loc))
			}
		}
	}
	return message.Of("One coat, not two.")
}

// reasons says what bounds the best window.
func (s Situation) reasons(l Lane, job field.Job) message.Sentence {
	var before, after message.Sentence
	w := l.best
	opens := time.Time{}
	if l.Clock != nil {
		if e := l.Clock.Event(clock.RecoatOpens); e.At != nil {
			opens = *e.At
		}
	}
	switch {
	case l.Chance == Now:
	case w.Sand && l.closes != nil && w.From.Equal(*l.closes):
		before = message.Of("The recoat window closes at %v", message.Clock(*l.closes, s.Now, s.Loc))
	case w.Opens != nil && w.Opens.To.After(opens):
		before = message.Of("Before that %v", field.Words(w.Opens.Check))
	case opens.After(s.Now):
		before = message.Of("Before that the last coat is not ready")
	}
	switch {
	case !w.Sand && l.closes != nil && w.To.Equal(*l.closes):
		after = message.Of("After that it must be sanded first.")
	case w.Closes != nil && w.Closes.Phase == field.Drying:
		after = message.Of("After that the rain of %v falls inside the %v it must stay dry.",
			message.Clock(w.Closes.From, s.Now, s.Loc), message.Val(job.Dry.Hours(), "h"))
	case w.Closes != nil && w.Closes.Phase == field.Holding:
		after = message.Of("After that %v from %v, inside the %v it must hold.", field.Words(w.Closes.Check),
			message.Clock(w.Closes.From, s.Now, s.Loc), message.Val(job.Hold.Hours(), "h"))
	case w.Closes != nil:
		after = message.Of("After that %v from %v, before it is all laid.", field.Words(w.Closes.Check),
			message.Clock(w.Closes.From, s.Now, s.Loc))
	default:
		after = message.Of("After that the forecast ends.")
	}
	out := after
	if before != nil {
		out = message.Of("%v; %v", before, after.Lower())
	}
	switch closing := l.Clock != nil && l.Clock.State == clock.Closing; {
	case l.closes == nil || w.Sand || w.To.Equal(*l.closes):
		return out
	case closing:
		return message.Of("%v The recoat window is closing: the last coat cures past taking another %v.", out,
			message.Clock(*l.closes, s.Now, s.Loc))
	}
	return message.Of("%v The recoat window closes %v.", out, message.Clock(*l.closes, s.Now, s.Loc))
}

// whyNot names the limit that fails most of the daylight hours ahead.
func (s Situation) whyNot(job field.Job, w field.Weather) message.Sentence {
	count := map[field.Limit]int{}
	check := map[field.Limit]field.Check{}
	var most field.Limit
	for _, h := range job.Hours(w) {
		if h.At.Before(s.Now) || h.Allowed || h.Binding.Limit == field.Light || h.Binding.Limit == field.Hours {
			continue
		}
		l := h.Binding.Limit
		count[l]++
		check[l] = h.Binding
		if count[l] > count[most] {
			most = l
		}
	}
	if most == "" {
		return message.Of("No stretch is long enough to lay it and hold it.")
	}
	return message.Of("Most hours %v, or the good hours are too few to lay it and hold it.", field.Words(check[most]))
}
