package plan

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/say"
	"allcoats/core/planning/schedule"
	"allcoats/core/readiness/field"
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
		{byBoth, schedule.Ask{Skip: schedule.SkipAllowed | schedule.SkipHours}}, {byHands, schedule.Ask{Skip: schedule.SkipBusy | schedule.SkipHours}},
		{byHands, schedule.Ask{Skip: schedule.SkipBusy | schedule.SkipAllowed}}, {comesAfter, schedule.Ask{Links: true}},
		{comesAfter, schedule.Ask{Links: true, Skip: schedule.SkipAllowed | schedule.SkipHours | schedule.SkipBusy | schedule.SkipApart | schedule.SkipDust}},
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
func (w asker) why(i int) say.Sentence {
	m, start := w.m, w.p.Start[i]
	r := w.reason(i)
	could := m.clock(r.could)
	switch r.kind {
	case pinnedBy:
		if len(m.allowed[i]) > 0 && !schedule.Allows(m.allowed[i], start) {
			return append(append(say.Sentence{say.Text("Pinned by you, against the weather: ")}, m.mostly(i, start, start+perHour)...), say.Text("."))
		}
		return say.Sentence{say.Text("Pinned by you.")}
	case atOnce:
		return say.Sentence{say.Text("Free to begin at once.")}
	case heldFor:
		return append(say.Sentence{say.Text("Could begin at "), could}, say.Text("; held back so that %s follows within its limit (%s).", m.Tasks[m.Problem.Links[r.link].To].Name(), m.causes[r.link].bind))
	case keptThere:
		if w.known.Start[i] == start {
			return append(say.Sentence{say.Text("Could begin at "), could}, say.Text("; kept where the plan had it."))
		}
		return append(say.Sentence{say.Text("Could begin at "), could}, say.Text("; put later for the sake of other work."))
	case comesAfter:
		link, sanded := w.placed.Opened(i)
		if sanded {
			return say.Sentence{say.Text("After it is opened again: %s.", m.sands[link].What)}
		}
		l := m.Problem.Links[link]
		at := l.Opens(w.p.Start[l.From] + m.Problem.Tasks[l.From].Duration)
		out := say.Sentence{say.Text("Not before "), m.clock(at), say.Text(": %s.", m.cause(link))}
		if next := w.taken(i, false); at < start && next.could < start {
			out = append(append(out, say.Text(" ")), w.words(i, next)...)
		}
		return out
	case byWeather, byHours, byHands, byDay, byDust, byBoth:
	}
	return w.words(i, r)
}

// words put what keeps a task from a start that it could have into a sentence.
func (w asker) words(i int, r reason) say.Sentence {
	m, start := w.m, w.p.Start[i]
	out := say.Sentence{say.Text("Not at "), m.clock(r.could), say.Text(": ")}
	switch r.kind {
	case byWeather:
		out = append(out, m.mostly(i, r.could, start)...)
	case byHours:
		out = append(out, m.hoursOf(i, w.p, start)...)
	case byHands:
		out = append(out, w.busyAt(i, r.could)...)
	case byDay:
		out = append(out, w.apartFrom(i, r.could)...)
	case byDust:
		out = append(out, w.dustAt(i, r.could)...)
	case byBoth:
		out = append(out, say.Text("the good hours are not those that people work"))
	case pinnedBy, atOnce, heldFor, keptThere, comesAfter: // why tells these whole
	}
	return append(out, say.Text("."))
}

// hoursOf says when those who do a task begin to work.
func (m Model) hoursOf(i int, p schedule.Plan, start int) say.Sentence {
	for _, h := range p.Crew[i] {
		for _, w := range m.Problem.Hands[h].Works {
			if w.First == start {
				at, only := m.At(start).In(m.Loc), ""
				if m.Problem.Tasks[i].Able != nil {
					only = fmt.Sprintf(", and nobody else who does %s is there before", m.Tasks[i].Skill)
				}
				return say.Sentence{say.Text("the work of %s begins at %s on %ss%s", m.People[h].Name, at.Format("15:04"), at.Weekday(), only)}
			}
		}
	}
	if len(m.Problem.Tasks[i].Able) > 0 && m.Tasks[i].Skill != "" {
		return say.Sentence{say.Text("nobody who does %s works then", m.Tasks[i].Skill)}
	}
	d := float64(m.Problem.Tasks[i].Duration) / perHour
	if n := m.Problem.Tasks[i].Crew; n > 1 {
		return say.Sentence{say.Text("%d people do not work %g h together before", n, d)}
	}
	return say.Sentence{say.Text("nobody works %g h on end before", d)}
}

// busyAt names the work that has the hands, or the gun, at a slot: that of those who do the
// task, if they are not free.
func (w asker) busyAt(i, at int) say.Sentence {
	m, t := w.m, &w.m.Problem.Tasks[i]
	said := say.Sentence{say.Text("the hands are at other work")}
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
			if said = m.isAt(w.p.SandCrew[k], m.sands[k].Name()); slices.ContainsFunc(w.p.SandCrew[k], func(h int) bool { return slices.Contains(w.p.Crew[i], h) }) {
				return said
			}
		}
	}
	return said
}

// isAt says where people are.
func (m Model) isAt(crew []int, at string) say.Sentence {
	verb := "is"
	if len(crew) > 1 {
		verb = "are"
	}
	return say.Sentence{say.Text("%s %s at %s", and(m.names(crew)), verb, at)}
}

// nameFor names task j to one who asks about task i: with its boat if it is another one.
func (m Model) nameFor(i, j int) string {
	if m.Tasks[i].Boat != m.Tasks[j].Boat {
		return m.Boats[m.Tasks[j].Boat].Name + ": " + m.Tasks[j].Name()
	}
	return m.Tasks[j].Name()
}

// apartFrom names the task that has the day of a slot.
func (w asker) apartFrom(i, at int) say.Sentence {
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
			return say.Sentence{say.Text("%s is filled that day, and corners and flats want different ones", m.Tasks[j].Name())}
		}
		return say.Sentence{say.Text("%s is coated that day, and a mask line is between them", m.Tasks[j].Surface)}
	}
	return say.Sentence{say.Text("a neighbour has that day")}
}

// dustAt names what is wet, or makes dust, at a slot.
func (w asker) dustAt(i, at int) say.Sentence {
	m, t := w.m, &w.m.Problem.Tasks[i]
	for j := range m.Problem.Tasks {
		o, start := &m.Problem.Tasks[j], w.p.Start[j]
		if j == i || start < 0 {
			continue
		}
		for _, z := range t.Dusts {
			if o.Wets == z+1 && start < at+t.Duration && at < o.Dry(start+o.Duration) {
				return append(say.Sentence{say.Text("%s is not dry to touch before ", m.nameFor(i, j))}, m.clock(o.Dry(start+o.Duration)))
			}
		}
		for _, z := range o.Dusts {
			if t.Wets == z+1 && start < t.Dry(at+t.Duration) && at < start+o.Duration {
				return say.Sentence{say.Text("%s makes dust while it is wet", m.nameFor(i, j))}
			}
		}
	}
	return say.Sentence{say.Text("there is dust in the air")}
}

// clock is a slot as an instant.
func (m Model) clock(slot int) say.Span { return say.Clock(m.At(slot), m.Now, m.Loc) }

// cause puts the origin of a link in words.
func (m Model) cause(k int) string {
	l := m.Problem.Links[k]
	for _, r := range CrossRules {
		if r.ID == m.causes[k].rule {
			return m.nameFor(l.To, l.From) + " comes first (" + r.Name + ")"
		}
	}
	return m.causes[k].rule
}

// mostly is what the weather forbids most of in [lo, hi) for task i.
func (m Model) mostly(i, lo, hi int) say.Sentence {
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
		return say.Sentence{say.Text("the weather does not hold long enough after laying")}
	}
	return field.Words(check[most])
}

// shut says what keeps work without a field from beginning between two instants.
func (m Model) shut(t Task, from, to time.Time) say.Sentence {
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
		case i < len(lit) && !lit[i]:
			dark++
		case t.noisy && s >= 0 && s < len(m.quiet) && m.quiet[s]:
			quiet++
		}
	}
	switch max(rain, wet, dark, quiet) {
	case 0:
		return say.Sentence{say.Text("the dry and light hours are too short")}
	case rain:
		return say.Sentence{say.Text("it rains")}
	case wet:
		return say.Sentence{say.Text("it is wet with rain or dew")}
	case dark:
		return say.Sentence{say.Text("it is dark")}
	}
	return say.Sentence{say.Text("no noise may be made then")}
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
				if s >= 0 && s < m.slots && schedule.Allows(m.allowed[i], s) && m.there(s, s+need.Duration) >= need.Crew {
					return m.At(s)
				}
			}
		}
	}
	return at
}

// and joins names.
func and(names []string) string {
	if n := len(names); n > 1 {
		return strings.Join(names[:n-1], ", ") + " and " + names[n-1]
	}
	return strings.Join(names, "")
}
