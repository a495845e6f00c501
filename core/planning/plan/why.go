package plan

import (
	"slices"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/conditions/field"
	"allcoats/core/planning/schedule"
)

// asker asks a plan what keeps its tasks where they are.
type asker struct {
	m      Model
	p      schedule.Plan
	placed schedule.Placed
	known  schedule.Plan
}

func (m Model) asker(p schedule.Plan, before Kept) asker {
	return asker{m, p, schedule.On(&m.Problem, p), m.known(before)}
}

// reason is what keeps a task from an earlier start: without it, it could start at Could.
type reason struct {
	kind  reasonKind
	ask   schedule.Ask
	could int
	link  int // of a reason that is a link
}

type reasonKind string

const (
	pinnedBy   reasonKind = "pinned"
	atOnce     reasonKind = "at once"
	heldFor    reasonKind = "held for what follows"
	keptThere  reasonKind = "kept"
	comesAfter reasonKind = "after"
	byWeather  reasonKind = "weather"
	byHours    reasonKind = "hours"
	byHands    reasonKind = "hands"
	byDay      reasonKind = "day"
	byDust     reasonKind = "dust"
	byBoth     reasonKind = "weather and hours"
)

// reason is the one that binds: of all that could be taken away alone, what lets the task
// start the earliest.
func (w asker) reason(i int) reason {
	start := w.p.Start[i]
	if w.m.Tasks[i].pinned != nil {
		return reason{kind: pinnedBy, could: start}
	}
	if start == 0 {
		return reason{kind: atOnce}
	}
	if could := w.placed.Earliest(i, schedule.Ask{}); could < start {
		return reason{kind: keptThere, could: could}
	}
	if could := w.placed.Earliest(i, schedule.Ask{Held: true}); could < start {
		return reason{kind: heldFor, ask: schedule.Ask{Held: true}, could: could, link: w.placed.Holds(i, could)}
	}
	best := w.taken(i, true)
	if best.could < start {
		return best
	}
	link, _ := w.placed.Opened(i)
	for _, two := range []struct {
		kind reasonKind
		ask  schedule.Ask
	}{
		{byBoth, schedule.Ask{Skip: schedule.SkipAllowed | schedule.SkipHours}},
		{byHands, schedule.Ask{Skip: schedule.SkipBusy | schedule.SkipHours}},
		{byHands, schedule.Ask{Skip: schedule.SkipBusy | schedule.SkipAllowed}},
		{byHands, schedule.Ask{Skip: schedule.SkipBusy | schedule.SkipDust}},
		{byDust, schedule.Ask{Skip: schedule.SkipDust | schedule.SkipAllowed}},
		{byDust, schedule.Ask{Skip: schedule.SkipDust | schedule.SkipHours}},
		{byDay, schedule.Ask{Skip: schedule.SkipApart | schedule.SkipBusy}},
		{byDay, schedule.Ask{Skip: schedule.SkipApart | schedule.SkipAllowed}},
		{comesAfter, schedule.Ask{Links: true}},
		{comesAfter, schedule.Ask{Links: true,
			Skip: schedule.SkipAllowed | schedule.SkipHours | schedule.SkipBusy | schedule.SkipApart | schedule.SkipDust}},
	} {
		if could := w.placed.Earliest(i, two.ask); could < start && (two.kind != comesAfter || link >= 0) {
			return reason{two.kind, two.ask, could, link}
		}
	}
	return reason{kind: atOnce}
}

// taken is what, taken away alone, lets a task start the earliest: the last link to it, with
// links, or weather, hours, hands, days and dust. Without any its could is the start.
func (w asker) taken(i int, links bool) reason {
	best := reason{could: w.p.Start[i]}
	try := func(kind reasonKind, a schedule.Ask, link int) {
		if could := w.placed.Earliest(i, a); could < best.could {
			best = reason{kind, a, could, link}
		}
	}
	if link, _ := w.placed.Opened(i); links && link >= 0 {
		try(comesAfter, schedule.Ask{Link: link + 1}, link)
	}
	try(byWeather, schedule.Ask{Skip: schedule.SkipAllowed}, -1)
	try(byHands, schedule.Ask{Skip: schedule.SkipBusy}, -1)
	try(byDay, schedule.Ask{Skip: schedule.SkipApart}, -1)
	try(byDust, schedule.Ask{Skip: schedule.SkipDust}, -1)
	if best.could == w.p.Start[i] { // everybody knows that nobody works at night
		try(byHours, schedule.Ask{Skip: schedule.SkipHours}, -1)
	}
	return best
}

// why says why task i does not start earlier.
func (w asker) why(i int) message.Sentence {
	m, start := w.m, w.p.Start[i]
	r := w.reason(i)
	could := m.clock(r.could)
	switch r.kind {
	case pinnedBy:
		if len(m.allowed[i]) > 0 && !schedule.Allows(m.allowed[i], start) {
			return message.Of("Pinned by you, against the weather: %v.", m.mostly(i, start, start+perHour))
		}
		return message.Of("Pinned by you.")
	case atOnce:
		return message.Of("Free to begin at once.")
	case heldFor:
		return message.Of("Could begin at %v; held back so that %s follows within its limit (%v).", could,
			m.Tasks[m.Problem.Links[r.link].To].Name(), message.Lit(m.causes[r.link].bind))
	case keptThere:
		if w.known.Start[i] == start {
			return message.Of("Could begin at %v; kept where the plan had it.", could)
		}
		return message.Of("Could begin at %v; put later for the sake of other work.", could)
	case comesAfter:
		link, sanded := w.placed.Opened(i)
		if sanded {
			return message.Of("After it is opened again: %s.", m.sands[link].What)
		}
		l := m.Problem.Links[link]
		at := l.Opens(w.p.Start[l.From] + m.Problem.Tasks[l.From].Duration)
		out := message.Of("Not before %v: %s.", m.clock(at), m.cause(link))
		if next := w.taken(i, false); at < start && next.could < start {
			out = message.Of("%v %v", out, w.words(i, next))
		}
		return out
	case byWeather, byHours, byHands, byDay, byDust, byBoth:
	}
	return w.words(i, r)
}

// words put what keeps a task from a start that it could have into a sentence.
func (w asker) words(i int, r reason) message.Sentence {
	m, start := w.m, w.p.Start[i]
	var why message.Sentence
	switch r.kind {
	case byWeather:
		why = m.mostly(i, r.could, start)
	case byHours:
		why = m.hoursOf(i, w.p, start)
	case byHands:
		why = w.busyAt(i, r.could)
	case byDay:
		why = w.apartFrom(i, r.could)
	case byDust:
		why = w.dustAt(i, r.could)
	case byBoth:
		why = message.Of("the good hours are not those that people work")
	case pinnedBy, atOnce, heldFor, keptThere, comesAfter: // why tells these whole
	}
	return message.Of("Not at %v: %v.", m.clock(r.could), why)
}

// hoursOf says when those who do a task begin to work.
func (m Model) hoursOf(i int, p schedule.Plan, start int) message.Sentence {
	for _, h := range p.Crew[i] {
		for _, w := range m.Problem.Hands[h].Works {
			if w.First == start {
				began := message.Of("the work of %s begins %v", m.People[h].Name, m.clock(start))
				if m.Problem.Tasks[i].Able != nil {
					return message.Of("%v, and nobody else who does %v is there before", began,
						message.Lit(string(m.Tasks[i].Skill)))
				}
				return began
			}
		}
	}
	if len(m.Problem.Tasks[i].Able) > 0 && m.Tasks[i].Skill != "" {
		return message.Of("nobody who does %v works then", message.Lit(string(m.Tasks[i].Skill)))
	}
	d := float64(m.Problem.Tasks[i].Duration) / perHour
	if n := m.Problem.Tasks[i].Crew; n > 1 {
		return message.Of("%d people do not work %g h together before", n, d)
	}
	return message.Of("nobody works %g h on end before", d)
}

// busyAt names the work that has the hands, or the gun, at a slot: that of those who do the
// task, if they are not free.
func (w asker) busyAt(i, at int) message.Sentence {
	m, t := w.m, &w.m.Problem.Tasks[i]
	said := message.Of("the hands are at other work")
	for j := range m.Problem.Tasks {
		o, start := &m.Problem.Tasks[j], w.p.Start[j]
		if j == i || start < 0 || len(w.p.Crew[j]) == 0 {
			continue
		}
		end, way := start+o.Duration, 0
		if o.Site != t.Site {
			way = m.Problem.Travel
		}
		if start-way >= at+t.Duration || at >= end+way {
			continue
		}
		said = m.isAt(w.p.Crew[j], m.nameFor(i, j))
		if slices.ContainsFunc(w.p.Crew[j], func(h int) bool { return slices.Contains(w.p.Crew[i], h) }) {
			return said
		}
	}
	for k, start := range w.p.Sanding {
		if l := m.Problem.Links[k]; start >= 0 && start < at+t.Duration && at < start+l.Sanding.Duration {
			if said = m.isAt(w.p.SandCrew[k], m.sands[k].Name()); slices.ContainsFunc(w.p.SandCrew[k],
				func(h int) bool { return slices.Contains(w.p.Crew[i], h) }) {
				return said
			}
		}
	}
	return said
}

// isAt says where people are.
func (m Model) isAt(crew []int, at message.Sentence) message.Sentence {
	if len(crew) > 1 {
		return message.Of("%v are at %v", message.List(m.names(crew)), at)
	}
	return message.Of("%v is at %v", message.List(m.names(crew)), at)
}

// nameFor names task j to one who asks about task i: with its boat if it is another one.
func (m Model) nameFor(i, j int) message.Sentence {
	if m.Tasks[i].Boat != m.Tasks[j].Boat {
		return m.ofBoat(m.Tasks[j])
	}
	return m.Tasks[j].Name()
}

// ofBoat names a task with its boat.
func (m Model) ofBoat(t Task) message.Sentence {
	return message.Of("%s: %v", m.Boats[t.Boat].Name, t.Name())
}

// apartFrom names the task that has the day of a slot.
func (w asker) apartFrom(i, at int) message.Sentence {
	m := w.m
	for _, a := range m.Problem.Apart {
		if a[0] != i && a[1] != i {
			continue
		}
		j := a[0] + a[1] - i
		if w.p.Start[j] < 0 || m.Problem.Day[w.p.Start[j]] != m.Problem.Day[at] {
			continue
		}
		if m.Tasks[j].SurfaceID == m.Tasks[i].SurfaceID {
			return message.Of("%s is filled that day, and corners and flats want different ones", m.Tasks[j].Name())
		}
		return message.Of("%s is coated that day, and a mask line is between them", m.Tasks[j].Surface)
	}
	return message.Of("a neighbour has that day")
}

// dustAt names what is wet, or makes dust, at a slot.
func (w asker) dustAt(i, at int) message.Sentence {
	m, t := w.m, &w.m.Problem.Tasks[i]
	for j := range m.Problem.Tasks {
		o, start := &m.Problem.Tasks[j], w.p.Start[j]
		if j == i || start < 0 {
			continue
		}
		for _, z := range t.Dusts {
			if o.Wets == z+1 && start < at+t.Duration && at < o.Dry(start+o.Duration) {
				return message.Of("%s is not dry to touch before %v", m.nameFor(i, j), m.clock(o.Dry(start+o.Duration)))
			}
		}
		for _, z := range o.Dusts {
			if t.Wets == z+1 && start < t.Dry(at+t.Duration) && at < start+o.Duration {
				return message.Of("%s makes dust while it is wet", m.nameFor(i, j))
			}
		}
	}
	return message.Of("there is dust in the air")
}

// clock is a slot as an instant.
func (m Model) clock(slot int) message.Span { return message.Clock(m.At(slot), m.Now, m.Loc) }

// cause puts the origin of a link in words.
func (m Model) cause(k int) message.Sentence {
	l := m.Problem.Links[k]
	for _, r := range CrossRules {
		if r.ID == m.causes[k].cross {
			return message.Of("%v comes first (%v)", m.nameFor(l.To, l.From), message.Lit(r.Name))
		}
	}
	return m.causes[k].rule
}

// mostly is what the weather forbids most of in [lo, hi) for task i.
func (m Model) mostly(i, lo, hi int) message.Sentence {
	t := m.Tasks[i]
	from, to := m.At(lo), m.At(max(lo+perHour, hi))
	if !t.Coat {
		return m.shut(t, from, to)
	}
	j := t.job
	j.Apply = t.laying()
	count := map[field.Limit]int{}
	check := map[field.Limit]field.Check{}
	var most field.Limit
	first := max(0, t.weather.Air.Find(from.Truncate(time.Hour)))
	air := t.weather.Air.Between(from.Truncate(time.Hour), to.Add(-time.Minute))
	for _, h := range j.Hours(field.Weather{Air: air, SurfaceC: t.weather.SurfaceC[first:], Wet: t.weather.Wet}) {
		l := h.Binding.Limit
		if h.Allowed || l == field.Light && to.Sub(from) < 72*time.Hour && len(count) > 0 {
			continue
		}
		count[l]++
		check[l] = h.Binding
		if count[l] > count[most] && (l != field.Light || most == "") || most == field.Light && l != field.Light {
			most = l
		}
	}
	if most == "" {
		return message.Of("the weather does not hold long enough after laying")
	}
	return field.Words(check[most])
}

// shut says what keeps work without a field from beginning between two instants.
func (m Model) shut(t Task, from, to time.Time) message.Sentence {
	rain, wet, dark, quiet := 0, 0, 0, 0
	lit := m.free(t.weather, !t.light)
	first := max(0, t.weather.Air.Find(from.Truncate(time.Hour)))
	for i, h := range t.weather.Air[first:] {
		if !h.At.Before(to) {
			break
		}
		i += first
		switch s := m.Slot(h.At) / perHour; {
		case t.outdoors && h.RainMM != nil && *h.RainMM > 0.05:
			rain++
		case t.outdoors && t.dry && t.weather.WetAt(h.At):
			wet++
		case !lit.At(i):
			dark++
		case t.noisy && s >= 0 && s < len(m.quiet) && m.quiet[s]:
			quiet++
		}
	}
	switch max(rain, wet, dark, quiet) {
	case 0:
		return message.Of("the dry and light hours are too short")
	case rain:
		return message.Of("it rains")
	case wet:
		return message.Of("it is wet with rain or dew")
	case dark:
		return message.Of("it is dark")
	}
	return message.Of("no noise may be made then")
}

// Nearest is the quarter of an hour nearest to at when a task may begin by its own weather
// and the hours of the hands, whatever comes before it; at if there is none.
func (m Model) Nearest(taskID string, at time.Time) time.Time {
	for i, t := range m.Tasks {
		if t.ID != taskID {
			continue
		}
		need := m.Problem.Tasks[i]
		from := m.Slot(at)
		for off := range m.slots {
			for _, s := range []int{from + off, from - off} {
				if s >= 0 && s < m.slots && schedule.Allows(m.allowed[i], s) &&
					m.there(s, s+need.Duration) >= need.Crew {
					return m.At(s)
				}
			}
		}
	}
	return at
}
