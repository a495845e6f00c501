package plan

import (
	"slices"
	"strconv"

	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"
	"allcoats/core/film/step"
	"allcoats/core/job/task"
	"allcoats/core/planning/schedule"
)

// place adds a task with the starts that weather and light allow.
func (m *Model) place(t Task) int { return m.add(t, m.may(t)) }

// boat adds a boat's tasks, their clocks and the rules between them; it returns
// the numbers of her tasks, surface by surface, then her own.
func (m *Model) boat(k int) (numbers [][]int) {
	b := m.Boats[k]
	chains, ok := m.shared.tasks[k]
	if !ok {
		chains = m.Yard.tasks(k)
		m.shared.tasks[k] = chains
	}
	for i, chain := range chains {
		var own []int
		for _, t := range chain {
			if len(b.Surfaces) > 0 {
				t.weather = b.Surfaces[m.weatherOf(k, i)].Weather
			}
			own = append(own, m.place(t))
		}
		numbers = append(numbers, m.main(own))
		if i < len(b.Surfaces) {
			m.chain(b.Surfaces[i], own)
		}
	}
	m.cross(k, numbers)
	launch := m.add(Task{ID: launchPrefix + b.ID, Boat: k, What: message.Of("ready to launch %s", b.Name),
		Milestone: true}, []span{{First: 0, Last: m.slots - 1}})
	due := m.slots
	if b.Launch != nil {
		due = m.Slot(*b.Launch)
	}
	m.Problem.Due = append(m.Problem.Due, due)
	hard := cause{rule: message.Of("all films hard enough for launching")}
	for i, own := range numbers {
		immersed := i < len(b.Surfaces) && b.Surfaces[i].Part.Underwater()
		if i < len(b.Surfaces) {
			m.waitForFilms(launch, b.Surfaces[i], immersed, hard)
		}
		ends := m.before(own)
		for _, n := range own {
			l := schedule.Link{From: n, To: launch, Opens: schedule.After(0)}
			t := m.Tasks[n]
			if t.last && immersed && t.sheet.LaunchMaxH > 0 {
				l.Closes, l.Reopened = schedule.After(inSlots(t.sheet.LaunchMaxH)), schedule.After(-1)
			}
			if t.last || slices.Contains(ends, n) {
				m.link(l, cause{rule: message.Of("the work on it")})
			}
			m.hardBefore(n, launch, immersed, hard)
		}
	}
	return numbers
}

// weatherOf is the surface whose weather a chain of tasks has: its own, or the first.
func (m *Model) weatherOf(k, chain int) int {
	if chain < len(m.Boats[k].Surfaces) {
		return chain
	}
	return 0
}

// main are the tasks of a chain that others wait for.
func (m *Model) main(all []int) []int {
	return slices.DeleteFunc(slices.Clone(all), func(n int) bool { return m.Tasks[n].Work.Kind().Aside })
}

// chain links the tasks of a surface: each to what comes before it, to the film below it by
// its clock, and by the limits that run until it.
func (m *Model) chain(s Surface, all []int) {
	m.asides(all)
	own := m.main(all)
	var before []int
	for i, n := range own {
		if i == 0 || !m.alongside(own[i-1], n) {
			before = m.before(own[:i])
		}
		m.follow(s, own[:i], before, n)
		m.over(s, own[:i], n)
		if m.Tasks[n].Work.Kind().Cured {
			m.waitForFilms(n, s, false, cause{rule: message.Of("till the film is hard")})
			for _, c := range own[:i] {
				m.hardBefore(c, n, false, cause{rule: message.Of("till the film is hard")})
			}
		}
	}
	for i, n := range own {
		for _, b := range m.Tasks[n].Of.Binds {
			m.bind(s, own[i+1:], n, b)
		}
	}
	for _, t := range s.Tasks {
		for _, b := range t.Binds {
			if b.By != nil && !t.Left() {
				m.running(s, own, t, b)
			}
		}
	}
}

// asides lets what follows work of its own kind wait for that alone.
func (m *Model) asides(all []int) {
	for i, n := range all {
		if !m.Tasks[n].Work.Kind().Aside {
			continue
		}
		l := schedule.Link{From: nowTask, To: n, Opens: schedule.After(0)}
		if i > 0 && (m.Tasks[all[i-1]].Work.Kind().Aside || m.Tasks[all[i-1]].Work == step.Bed) {
			l.From = all[i-1]
			l.Opens = m.atLeast(l.Opens, m.Tasks[l.From].Of.Step.WaitH)
		}
		m.link(l, cause{rule: message.Of("till the compound has set")})
	}
}

// alongside tells whether two tasks are parts of one that need no order.
func (m *Model) alongside(a, b int) bool {
	return m.Tasks[a].Of.ID == m.Tasks[b].Of.ID && !m.Tasks[a].Coat && m.Tasks[a].Run == ""
}

// before are the tasks that the next after own waits for: the last, with the parts
// alongside it.
func (m *Model) before(own []int) (out []int) {
	for i := len(own) - 1; i >= 0 && (len(out) == 0 || m.alongside(own[i], out[0])); i-- {
		out = append(out, own[i])
	}
	return out
}

// follow links a task to those before it: in order, after their wait, and dry after water.
func (m *Model) follow(s Surface, own, before []int, n int) {
	if len(before) == 0 {
		m.link(schedule.Link{From: nowTask, To: n, Opens: schedule.After(0)}, cause{rule: message.Of("the start")})
	}
	for _, from := range before {
		prev := m.Tasks[from]
		l := schedule.Link{From: from, To: n, Opens: schedule.After(0)}
		rule := message.Of("it comes after %v", prev.What)
		if prev.Work.Kind().Wets {
			l.Opens, rule = m.dries(s, prev.weather, m.under(own)), message.Of("it dries after %v", prev.What)
		}
		if wait := prev.Of.Step.WaitH; wait > 0 && prev.Of.Work == prev.Of.Step.Work && prev.Work != step.Bed &&
			prev.Of.ID != m.Tasks[n].Of.ID {
			l.Opens, rule = m.atLeast(l.Opens, wait), message.Of("the wait after %v", prev.What)
		}
		m.link(l, cause{rule: rule})
	}
}

// under is the sheet of the last coat among tasks.
func (m *Model) under(own []int) product.Sheet {
	for i := len(own) - 1; i >= 0; i-- {
		if t := m.Tasks[own[i]]; t.Coat {
			return t.sheet
		}
	}
	return product.Sheet{}
}

// films are the tasks of the last coat on the place of n among those before it; keyed says
// that it is sanded since.
func (m *Model) films(own []int, n int) (out []int, keyed bool) {
	for i := len(own) - 1; i >= 0; i-- {
		t := m.Tasks[own[i]]
		switch {
		case !m.Tasks[n].covers(t):
		case t.Coat && (len(out) == 0 || m.Tasks[out[0]].Of.ID == t.Of.ID):
			out = append(out, own[i])
		case len(out) > 0 && t.Of.ID != m.Tasks[out[0]].Of.ID && t.Run == "":
			return out, keyed
		case len(out) == 0 && t.Work.Kind().Abrades:
			keyed = true
		}
	}
	return out, keyed
}

// over links a task to the film below it: coats of the plan, or the one that is on.
func (m *Model) over(s Surface, own []int, n int) {
	below, keyed := m.films(own, n)
	if len(below) == 0 {
		if s.Last != nil {
			m.overLast(s, n, keyed || s.Last.Abraded != nil)
		}
		return
	}
	t := m.Tasks[n]
	for _, k := range below {
		c := m.Tasks[k]
		table, rule := ready(c, t)
		l := schedule.Link{From: k, To: n, Opens: m.readyAfter(table, c.sheet, c.weather)}
		if wait := c.Of.Step.WaitH; wait > 0 {
			l.Opens = m.atLeast(l.Opens, wait)
		}
		r, ok := c.sheet.RecoatOver(t.sheet.Kind)
		closes := ok && t.Coat && !keyed && len(r.Max) > 0
		if closes {
			l.Closes = m.until(r.Max, c.sheet, c.weather, m.Problem.Tasks[k].Duration)
		}
		m.link(l, cause{rule: rule, bind: "recoat window"})
		if closes {
			m.rekey(s, c, t)
		}
	}
}

// rekey lets the last link, once closed, be opened again: by scuffing and washing; where
// antifouling goes on something else by another coat of that, too.
func (m *Model) rekey(s Surface, below, t Task) {
	share := t.SharePct / 100
	mend := Task{ID: "rekey", Boat: t.Boat, SurfaceID: s.ID, Surface: s.Name, What: message.Of("scuff and wash"),
		Hours: task.KeyAndWashH(t.Of.AreaM2*share, s.Access), Crew: 1, weather: s.Weather,
		outdoors: !s.Sheltered, noisy: true, dry: true, dusty: m.dusty(t.Boat), light: t.light}
	dried := m.dries(s, s.Weather, below.sheet)
	if !t.sheet.Kind.Info().Antifouling || below.sheet.Kind.Info().Antifouling || below.sheet.Kind.Info().Filler {
		mend = m.fitted(mend)
		m.mend(mend, "key", m.may(mend), dried, schedule.After(keyedH*perHour))
		return
	}
	m.tie(s, below, t, mend, dried)
}

// tie lets the last link, once closed, be opened again by a tie coat, which is laid as the
// coat below it is and scuffed and washed for; the key is that scuffing.
func (m *Model) tie(s Surface, below, t, key Task, washed schedule.Lag) {
	k := len(m.Problem.Links) - 1
	coat := t
	if below.Coat {
		coat = below
	}
	coat.ID, coat.What, coat.Hours, coat.SetupH, coat.Work = "tie", message.Of("lay a tie coat"), t.Hours, 0, step.Coat
	coat.litres = max(below.Of.ReckonedL, t.Of.ReckonedL)
	r, _ := below.sheet.RecoatOver(t.sheet.Kind)
	m.mend(coat, "tie", m.may(coat), m.readyAfter(r.Min, below.sheet, s.Weather), schedule.After(tiedH*perHour))
	l := m.Problem.Links[k]
	m.Problem.Links[k].Patience = tiePatienceH * perHour
	if l.Shared > 0 {
		return
	}
	m.link(schedule.Link{From: l.From, To: l.To, Opens: l.Opens}, m.causes[k])
	key = m.fitted(key)
	m.mend(key, "key for tie", m.may(key), washed, schedule.After(keyedH*perHour))
	m.Problem.Links[k+1].Before = k + 1
}

// How long a scuffed and washed face, and a tie coat, may wait for the coat; and for how long
// a coat is put off to do without a tie coat, h: rules of thumb.
const (
	keyedH       = 48
	tiedH        = 24 * 14
	tiePatienceH = 24 * 7
)

// fitted gives a mend as many hands as bring it into the longest stretch that is worked.
func (m *Model) fitted(t Task) Task {
	_, long := m.stretches()
	for t.Hours/float64(t.Crew) > long && t.Crew < len(m.People) {
		t.Crew++
	}
	return t
}

func (m *Model) dusty(boat int) bool {
	_, off := m.Boats[boat].Off[Dust]
	return !off
}

// overLast links a task to the coat that is on the surface.
func (m *Model) overLast(s Surface, n int, keyed bool) {
	t := m.Tasks[n]
	c := s.Clock
	if c == nil {
		c = s.Run(m.Now)
	}
	slot := func(name string) (int, bool) {
		e := c.Event(name)
		if e.At == nil {
			return schedule.Never, e.Tabled
		}
		return max(0, m.Slot(*e.At)), true
	}
	opens, tabled := slot(clock.RecoatOpens)
	l := schedule.Link{From: nowTask, To: n}
	closed := false
	switch {
	case c.Abraded && t.Coat || !tabled || t.Work == step.Unmask && t.Of.Step.Pull != step.Hard:
		return
	case !t.Coat:
		if sandable, has := slot(clock.Sandable); has {
			opens = sandable
		}
		if c.Abraded {
			return
		}
	default:
		if closes, has := slot(clock.RecoatCloses); has && closes < schedule.Never && !keyed {
			closed = true
			l.Closes = func(int) int { return closes - 1 }
		}
	}
	l.Opens = func(int) int { return opens }
	m.link(l, cause{rule: message.Of("the coat that is on it"), bind: "recoat window"})
	if closed {
		below := Task{sheet: s.Last.Sheet, weather: s.Weather, Hours: t.Hours}
		m.rekey(s, below, t)
	}
}

// bind links a task to what must follow it within a limit; later are the tasks after it.
func (m *Model) bind(s Surface, later []int, n int, b task.Bind) {
	t := m.Tasks[n]
	until := func(want func(o Task) bool) int {
		i := slices.IndexFunc(later, func(k int) bool { return want(m.Tasks[k]) && m.Tasks[k].covers(t) })
		if i < 0 {
			return -1
		}
		return later[i]
	}
	to := until(func(o Task) bool { return o.Of.ID == b.Until })
	if to < 0 {
		return
	}
	if m.Tasks[to].Work == step.Unmask {
		m.tape(s, later, n, to, b)
		return
	}
	m.limit(s, n, to, b, b.MaxH, t.SharePct/100)
}

// limit links from to a task that must start within so many hours of it, or after its mend.
func (m *Model) limit(s Surface, from, to int, b task.Bind, maxH, share float64) {
	l := schedule.Link{From: from, To: to, Opens: schedule.After(0), Closes: schedule.After(inSlots(maxH)),
		Reopened: schedule.After(-1)}
	m.link(l, cause{rule: message.Of("it comes after %v", m.Tasks[from].What), bind: b.Name})
	m.mendLimit(s, to, b, min(maxH, mendedH), share)
}

// mendedH is how long a mend holds at most, h: a rule of thumb.
const mendedH = 72

// mendLimit lets the last link, once closed, be opened again by the mend of a limit.
func (m *Model) mendLimit(s Surface, to int, b task.Bind, holdsH, share float64) {
	t := m.Tasks[to]
	washes := b.Name == "washed"
	mend := Task{ID: "mend:" + b.Name, Boat: t.Boat, SurfaceID: s.ID, Surface: s.Name, What: message.Lit(b.Mend),
		Hours: max(0.25, b.MendH*share), Crew: 1, weather: s.Weather,
		outdoors: !s.Sheltered, noisy: !washes, dry: !washes, dusty: !washes && b.Name != "tape" && m.dusty(t.Boat),
		light: t.light}
	dried := m.dries(s, s.Weather, t.sheet)
	if b.Name == "tape" || b.Name == "bare metal" {
		dried = nil
	}
	fit := m.fitted(mend)
	m.mend(fit, b.Name+" until "+b.Until, m.may(fit), dried, schedule.After(inSlots(holdsH)))
	l := &m.Problem.Links[len(m.Problem.Links)-1]
	l.Patience, l.Hard = inSlots(patienceH[b.Name]), b.Name == "bare metal" || b.Name == "tape left on"
}

// patienceH is how much later a coat is rather laid than after the mend of a limit, h.
var patienceH = map[string]float64{"bare metal": 24 * 120, "tape": 24 * 3, "tape left on": 24}

// tape links a masking to every coat that it is for, and the last of them to the pulling.
// Where the tape would be too old for a coat it is pulled after the one before and put on
// anew.
func (m *Model) tape(s Surface, later []int, n, pull int, b task.Bind) {
	var coats []int
	for _, k := range later[:slices.Index(later, pull)] {
		if m.Tasks[k].Coat {
			coats = append(coats, k)
		}
	}
	if len(coats) == 0 {
		m.limit(s, n, pull, b, b.MaxH, 1)
		return
	}
	// What is left for the pulling: a day, or half of what a tape of few hours has.
	pullH := min(24, b.MaxH/2)
	renewed := 0
	for j, k := range coats {
		holdsH := b.MaxH - pullH - float64(m.Problem.Tasks[k].Duration)/perHour
		link := len(m.Problem.Links)
		if j == 0 { // masking moves to its first coat
			m.link(schedule.Link{From: n, To: k, Opens: schedule.After(0), Closes: schedule.After(inSlots(holdsH)),
				Reopened: schedule.After(-1), Hard: true}, cause{rule: message.Of("it comes after %v", m.Tasks[n].What),
				bind: b.Name})
		} else {
			again := b
			again.Mend, again.MendH, again.Until = "mask anew", m.Tasks[n].Hours, m.Tasks[n].ID // each part for itself
			m.limit(s, n, k, again, holdsH, 1)
			m.Problem.Links[link].Renewed = renewed
			m.pullBetween(s, coats[j-1], k, link, m.Tasks[pull], b.MaxH)
		}
		renewed = link + 1
	}
	late := b
	late.Name, late.Mend = "tape left on", "warm the tape and wash the glue off"
	m.limit(s, coats[len(coats)-1], pull, late, pullH, 1)
	m.Problem.Links[len(m.Problem.Links)-1].Hot = true
}

// pullBetween has the tape pulled after a coat where it is put on anew before the next.
func (m *Model) pullBetween(s Surface, coat, next, anew int, pull Task, tapeH float64) {
	c := m.Tasks[coat]
	table, _ := ready(c, pull)
	m.link(schedule.Link{From: coat, To: next, Opens: m.readyAfter(table, c.sheet, c.weather)},
		cause{rule: message.Of("it comes after %v", c.What), bind: "tape"})
	one := Task{ID: "pull", Boat: c.Boat, SurfaceID: s.ID, Surface: s.Name, What: message.Of("pull the tape"),
		Hours: max(0.25, pull.Hours), Crew: 1, weather: s.Weather, outdoors: pull.outdoors, light: pull.light}
	m.mend(one, "pull for "+strconv.Itoa(anew), m.may(one), nil, schedule.After(-1))
	l := &m.Problem.Links[len(m.Problem.Links)-1]
	l.Before, l.Early, l.Hot, l.Renewed, l.Closes = anew+1, true, true, m.Problem.Links[anew].Renewed,
		schedule.After(inSlots(tapeH))
}

// running links what ends a limit that runs already.
func (m *Model) running(s Surface, own []int, t task.Task, b task.Bind) {
	i := slices.IndexFunc(own, func(n int) bool { return m.Tasks[n].Of.ID == b.Until })
	if i < 0 {
		return
	}
	by := max(-1, int(b.By.Sub(m.Start)/slot))
	m.link(schedule.Link{From: nowTask, To: own[i], Opens: schedule.After(0), Closes: func(int) int {
		return by
	}, Reopened: schedule.After(-1)}, cause{rule: t.What, bind: b.Name})
	m.mendLimit(s, own[i], b, min(b.MaxH, mendedH), 1)
}
