package plan

import (
	"math"
	"slices"
	"sort"
	"strings"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/fault"
	"allcoats/core/base/say"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
	"allcoats/core/job/task"
	"allcoats/core/physics/cure"
	"allcoats/core/planning/schedule"
	"allcoats/core/readiness/clock"
	"allcoats/core/readiness/field"
)

// Model is a yard as a problem of schedule, in slots of an hour from Start.
type Model struct {
	Yard
	Start   time.Time
	Tasks   []Task
	Problem schedule.Problem
	slots   int
	rule    []string // of a link: the cross-rule or the clock it comes from
	circles []circle // of a resource after the guns
	open    [][]bool // of a task: the hours that weather and light allow, whatever the hands
	// What many tasks share, worked out once: hours by surface, step and length,
	// and clocks by table and surface.
	hours  map[hoursKey]starts
	clocks map[clockKey][]float64
	speeds map[speedKey][]float64
	dried  map[dryKey][]float64
}

type hoursKey struct {
	boat                              int
	surface, step                     string
	coat, outdoors, light, dry, noisy bool
	duration                          int
}

// starts are the slots at which a task may start, one by one and as ranges.
type starts struct {
	at   []bool
	runs []schedule.Range
}

type dryKey struct {
	surface *float64
	roofed  bool
}

type speedKey struct {
	at       *float64
	humidity cure.Humidity
	side     cure.Side
}

type clockKey struct {
	table *cure.Point
	at    *float64
	side  cure.Side
}

// now is the task that all that was done before hangs on.
const nowTask = 0

// The resources; after them come the circles.
const (
	hands = iota
	guns
)

// circle is a resource: the people who have one of some skills. With one for every
// set of skills that somebody joins, the people in them can be given to any tasks
// that fit (Hall's condition).
type circle []task.Skill

// At is the instant of a slot.
func (m Model) At(slot int) time.Time { return m.Start.Add(time.Duration(slot) * time.Hour) }

// Slot is the first slot at or after t.
func (m Model) Slot(t time.Time) int { return int(math.Ceil(t.Sub(m.Start).Hours())) }

// Model makes the problem of a yard. Faults name what cannot be planned: nobody
// to work, a week without hours, a launch that has passed, tasks that wait for one
// another, pins that clash.
func (y Yard) Model() (Model, error) {
	m := Model{Yard: y, Start: y.Now.Truncate(time.Hour), hours: map[hoursKey]starts{}, clocks: map[clockKey][]float64{}, speeds: map[speedKey][]float64{}, dried: map[dryKey][]float64{}}
	if m.Start.Before(y.Now) {
		m.Start = m.Start.Add(time.Hour)
	}
	m.slots = int(y.Until.Sub(m.Start).Hours())
	if m.shared == nil {
		m.shared = newShared()
	}
	var bad fault.Errors
	if len(y.People) == 0 {
		bad.Add("people", "nobody works in this yard: add somebody")
	}
	if m.slots < 24 {
		bad.Add("until", "the time to plan for is shorter than a day")
	}
	if err := bad.Err(); err != nil {
		return m, err
	}
	m.Problem.Horizon = m.slots
	m.days()
	m.capacity()
	if slices.Max(m.Problem.Capacity[hands]) == 0 {
		bad.Add("people", "nobody has working hours before %v: look at weeks and days off", say.On(y.Until))
		return m, bad
	}
	m.add(Task{ID: "now", What: "now", Milestone: true}, 0, []schedule.Range{{First: 0, Last: 0}})
	chains := make([][][]int, len(y.Boats))
	for k := range y.Boats {
		chains[k] = m.boat(k)
	}
	m.tents(chains)
	if loop := m.Problem.Cycle(); loop != nil {
		names := ""
		for i, t := range loop {
			if i > 0 {
				names += ", "
			}
			names += m.Tasks[t].Name()
		}
		bad.Add("own", "these tasks wait for one another: %s", names)
		return m, bad
	}
	m.clashes(&bad)
	return m, bad.Err()
}

// days numbers the local day of every slot.
func (m *Model) days() {
	m.Problem.Day = make([]int, m.slots)
	day, last := -1, 0
	for h := range m.Problem.Day {
		if d := m.At(h).In(m.Loc).YearDay(); d != last {
			day, last = day+1, d
		}
		m.Problem.Day[h] = day
	}
}

// works tells at which slots a person works through the hour.
func (m Model) works(p Person) []bool {
	out := make([]bool, m.slots)
	week := p.Week
	if week == (calendar.Week{}) {
		week = usualWeek
	}
	off := map[string]bool{}
	for _, d := range p.Off {
		off[d] = true
	}
	for _, s := range week.Between(m.Start, m.Until, m.Loc) {
		if off[s.From.In(m.Loc).Format(time.DateOnly)] {
			continue
		}
		for h := max(0, m.Slot(s.From)); h < m.slots && !m.At(h+1).After(s.To); h++ {
			out[h] = true
		}
	}
	return out
}

// working tells when each person works.
func (m Model) working() [][]bool {
	if w := m.shared.works; len(w) == len(m.People) && (len(w) == 0 || len(w[0]) == m.slots) {
		return w
	}
	out := make([][]bool, len(m.People))
	for i, p := range m.People {
		out[i] = m.works(p)
	}
	m.shared.works = out
	return out
}

func (m *Model) capacity() {
	m.circles = circles(m.People)
	c := make([][]int, 2+len(m.circles))
	for r := range c {
		c[r] = make([]int, m.slots)
	}
	for i, works := range m.working() {
		in := []int{hands}
		for r, of := range m.circles {
			if slices.ContainsFunc(of, func(k task.Skill) bool { return slices.Contains(m.People[i].Skills, k) }) {
				in = append(in, 2+r)
			}
		}
		for h, w := range works {
			if !w {
				continue
			}
			for _, r := range in {
				c[r][h]++
			}
		}
	}
	for h := range c[guns] {
		c[guns][h] = max(1, m.Guns)
	}
	m.Problem.Capacity = c
}

// mostJoined bounds the skills whose every set is a circle; of more only the pairs are.
const mostJoined = 4

// circles are the sets of skills that have to be counted: each that somebody has
// and somebody else has not, and their unions that somebody joins.
func circles(people []Person) []circle {
	var scarce circle
	for _, p := range people {
		for _, k := range p.Skills {
			lacks := func(p Person) bool { return !slices.Contains(p.Skills, k) }
			if !slices.Contains(scarce, k) && slices.ContainsFunc(people, lacks) {
				scarce = append(scarce, k)
			}
		}
	}
	var out []circle
	add := func(of circle) {
		joined := slices.ContainsFunc(people, func(p Person) bool {
			n := 0
			for _, k := range of {
				if slices.Contains(p.Skills, k) {
					n++
				}
			}
			return n > 1
		})
		if len(of) == 1 || joined {
			out = append(out, of)
		}
	}
	if len(scarce) > mostJoined {
		for i, k := range scarce {
			add(circle{k})
			for _, l := range scarce[:i] {
				add(circle{k, l})
			}
		}
		return out
	}
	for set := 1; set < 1<<len(scarce); set++ {
		var of circle
		for i, k := range scarce {
			if set>>i&1 == 1 {
				of = append(of, k)
			}
		}
		add(of)
	}
	return out
}

// add adds a task and returns its number.
func (m *Model) add(t Task, duration int, allowed []schedule.Range) int {
	needs := m.needs(t)
	if t.pinned != nil {
		at := m.Slot(*t.pinned)
		allowed = []schedule.Range{{First: at, Last: at}}
	}
	m.Tasks = append(m.Tasks, t)
	m.Problem.Tasks = append(m.Problem.Tasks, schedule.Task{Name: t.Name(), Duration: duration, Allowed: allowed, Needs: needs})
	m.Problem.Group = append(m.Problem.Group, t.Boat)
	return len(m.Tasks) - 1
}

// needs is what a task holds of each resource: hands, one of them with its skill.
func (m Model) needs(t Task) []int {
	out := make([]int, 2+len(m.circles))
	if t.Milestone {
		return out
	}
	out[hands] = t.Crew
	if t.Skill == task.Spraying {
		out[guns] = 1
	}
	for r, of := range m.circles {
		if slices.Contains(of, t.Skill) {
			out[2+r] = 1
		}
	}
	return out
}

func (m *Model) link(l schedule.Link, rule string) {
	if l.Closes == nil {
		l.Closes, l.Reopened = schedule.After(-1), schedule.After(-1)
	}
	m.Problem.Links = append(m.Problem.Links, l)
	m.rule = append(m.rule, rule)
}

// laying is how long its hands lay.
func (t Task) laying() time.Duration {
	return max(10*time.Minute, hours(t.Of.LayH*t.SharePct/100/float64(max(1, t.Crew))).Round(5*time.Minute))
}

func (t Task) duration() int { return max(1, int(math.Ceil(t.Hours/float64(max(1, t.Crew))-1e-9))) }

// place adds a task with the hours at which it may start.
func (m *Model) place(t Task) int {
	d := t.duration()
	open := m.may(t, d)
	for len(m.open) < len(m.Tasks) {
		m.open = append(m.open, nil)
	}
	m.open = append(m.open, open.at)
	return m.add(t, d, open.runs)
}

// may tells at which slots weather and light allow a task to start.
func (m Model) may(t Task, d int) starts {
	step, _, _ := strings.Cut(t.ID, "#")
	key := hoursKey{t.Boat, t.SurfaceID, step, t.Coat, t.outdoors, t.light, t.dry, t.noisy, d}
	out, ok := m.hours[key]
	if !ok {
		at := m.mayStart(t, d)
		out = starts{at, runs(at)}
		m.hours[key] = out
	}
	return out
}

// free tells for every record of w whether light allows laying.
func (m Model) free(w field.Weather, lights bool) []bool {
	if out := m.shared.free[lights]; len(out) == len(w.Air) {
		return out
	}
	at := make([]time.Time, len(w.Air))
	for i, h := range w.Air {
		at[i] = h.At
	}
	out := field.Job{Lights: lights, Daylight: m.Daylight}.Free(at)
	m.shared.free[lights] = out
	return out
}

func (m Model) mayStart(t Task, d int) []bool {
	out := make([]bool, m.slots)
	if t.Coat {
		j := t.job
		j.Apply = t.laying()
		i0 := t.weather.Air.Find(m.Start)
		if i0 < 0 {
			return out
		}
		starts := j.Starts(t.weather, m.free(t.weather, j.Lights))
		for h := range out {
			out[h] = i0+h < len(starts) && starts[i0+h]
		}
		return out
	}
	var lit []bool
	i0 := -1
	if len(t.weather.Air) > 0 {
		i0, lit = t.weather.Air.Find(m.Start), m.free(t.weather, !t.light)
	}
	ok, loud := make([]bool, m.slots), m.loud()
	for h := range ok {
		i := i0 + h
		ok[h] = (i0 < 0 || i >= len(lit) || lit[i]) && (!t.noisy || loud[h])
		if ok[h] && t.outdoors && i0 >= 0 && i < len(t.weather.Air) {
			a := &t.weather.Air[i]
			ok[h] = (a.RainMM == nil || *a.RainMM <= 0.05) && (!t.dry || !t.weather.WetAt(a.At))
		}
	}
	run := 0
	for h := m.slots - 1; h >= 0; h-- {
		if run++; !ok[h] {
			run = 0
		}
		out[h] = run >= d
	}
	return out
}

// loud tells at which slots noise may be made through the hour.
func (m Model) loud() []bool {
	if len(m.shared.loud) == m.slots {
		return m.shared.loud
	}
	out := make([]bool, m.slots)
	for h := range out {
		hour := float64(m.At(h).In(m.Loc).Hour())
		out[h] = m.Noise.ToH <= m.Noise.FromH || hour >= m.Noise.FromH && hour+1 <= m.Noise.ToH
	}
	m.shared.loud = out
	return out
}

// runs lists the stretches of true.
func runs(ok []bool) []schedule.Range {
	var out []schedule.Range
	for h, v := range ok {
		if !v {
			continue
		}
		if n := len(out); n > 0 && out[n-1].Last == h-1 {
			out[n-1].Last = h
		} else {
			out = append(out, schedule.Range{First: h, Last: h})
		}
	}
	return out
}

// progress is ∫ dt/τ at every slot along a surface's temperature.
func (m Model) progress(table cure.Table, side cure.Side, s product.Sheet, w field.Weather) []float64 {
	if len(w.SurfaceC) == 0 {
		return make([]float64, m.slots+1)
	}
	key := clockKey{&table[0], &w.SurfaceC[0], side}
	if sum, ok := m.clocks[key]; ok {
		return sum
	}
	rates := m.rates(table, side)
	var speed []float64
	if s.Humidity != cure.Indifferent {
		k := speedKey{&w.SurfaceC[0], s.Humidity, side}
		if speed = m.speeds[k]; speed == nil {
			speed = make([]float64, len(w.SurfaceC))
			for i, rh := range w.Path(s.Humidity).RHPct {
				speed[i] = s.Humidity.Speed(rh, side)
			}
			m.speeds[k] = speed
		}
	}
	i0 := w.Air.Find(m.Start)
	sum := make([]float64, m.slots+1)
	rate := func(h int) float64 {
		i := i0 + h
		if i0 < 0 || i >= len(w.SurfaceC) || side == cure.Minimum && w.SurfaceC[i] < s.MinCureC {
			return 0
		}
		r := rates[min(len(rates)-1, max(0, int((w.SurfaceC[i]-coldest)*10+0.5)))]
		if speed != nil {
			r *= speed[i]
		}
		return r
	}
	last := rate(0)
	for h := range m.slots {
		next := rate(h + 1)
		sum[h+1] = sum[h] + (last+next)/2
		last = next
	}
	m.clocks[key] = sum
	return sum
}

// The temperatures that rates are worked out for, °C.
const coldest, hottest = -30, 90

// rates are 1/τ of a table, per hour, at tenths of a degree.
func (m Model) rates(table cure.Table, side cure.Side) []float64 {
	key := clockKey{&table[0], nil, side}
	if r, ok := m.shared.rates[key]; ok {
		return r
	}
	r := make([]float64, 10*(hottest-coldest)+1)
	for i := range r {
		tau, _ := table.TauH(coldest+float64(i)/10, side)
		r[i] = 1 / tau
	}
	m.shared.rates[key] = r
	return r
}

// ripe is a lag until a table's hours have passed at the surface's temperature,
// counted from the end of a coat; without a table it is at once.
func (m Model) ripe(table cure.Table, s product.Sheet, w field.Weather) schedule.Lag {
	if len(table) == 0 {
		return schedule.After(0)
	}
	sum := m.progress(table, cure.Minimum, s, w)
	return func(end int) int {
		if end >= m.slots {
			return schedule.Never
		}
		want := sum[max(0, end)] + 1
		h := sort.SearchFloat64s(sum, want-1e-9)
		if h > m.slots {
			return schedule.Never
		}
		return h
	}
}

// until is a lag to the last slot before a table's hours have passed, counted from
// the start of a coat of d slots.
func (m Model) until(table cure.Table, s product.Sheet, w field.Weather, d int) schedule.Lag {
	if len(table) == 0 {
		return schedule.After(-1)
	}
	sum := m.progress(table, cure.Maximum, s, w)
	return func(end int) int {
		start := max(0, end-d)
		if start >= m.slots {
			return schedule.Never
		}
		h := sort.SearchFloat64s(sum, sum[start]+1)
		if h > m.slots {
			return schedule.Never
		}
		return h - 1
	}
}

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
				t.weather = b.Surfaces[m.near(k, i)].Weather
			}
			own = append(own, m.place(t))
		}
		numbers = append(numbers, m.main(own))
		if i < len(b.Surfaces) {
			m.chain(b.Surfaces[i], own)
		} else {
			for j := 1; j < len(own); j++ {
				m.link(schedule.Link{From: own[j-1], To: own[j], Opens: schedule.After(0)}, "its parts")
			}
		}
	}
	m.cross(k, numbers)
	launch := m.add(Task{ID: "launch:" + b.ID, Boat: k, What: "ready to launch " + b.Name, Milestone: true}, 0, []schedule.Range{{First: 0, Last: m.slots - 1}})
	due := m.slots
	if b.Launch != nil {
		due = m.Slot(*b.Launch)
	}
	m.Problem.Due = append(m.Problem.Due, due)
	const hard = "all films hard enough for launching"
	for i, own := range numbers {
		immersed := i < len(b.Surfaces) && b.Surfaces[i].Part.Underwater()
		if i < len(b.Surfaces) {
			m.waitForFilms(launch, b.Surfaces[i], immersed, hard)
		}
		if len(own) == 0 {
			continue
		}
		l := schedule.Link{From: own[len(own)-1], To: launch, Opens: schedule.After(0)}
		if t := m.Tasks[l.From]; t.Coat && immersed && t.sheet.LaunchMaxH > 0 {
			l.Closes, l.Reopened = schedule.After(int(t.sheet.LaunchMaxH)), schedule.After(-1)
		}
		m.link(l, "the work on it")
		for _, n := range own {
			m.hardBefore(n, launch, immersed, hard)
		}
	}
	return numbers
}

// main are the tasks of a chain that others wait for.
func (m *Model) main(all []int) []int {
	return slices.DeleteFunc(slices.Clone(all), func(n int) bool { return m.Tasks[n].Work.Kind().Aside })
}

// hardBefore lets a task wait until the film of another one, if it is a coat, is hard.
func (m *Model) hardBefore(coat, to int, immersed bool, rule string) {
	t := m.Tasks[coat]
	if !t.Coat {
		return
	}
	for _, table := range clock.Hardening(t.sheet, immersed) {
		m.link(schedule.Link{From: coat, To: to, Opens: m.ripe(table, t.sheet, t.weather)}, rule)
	}
}

// waitForFilms lets a task wait for the films that are on a surface. What no sheet says,
// and what is not hard within the weather known, is told as a note.
func (m *Model) waitForFilms(to int, s Surface, immersed bool, rule string) {
	h := s.Hard
	if h == nil || !immersed && s.Part.Underwater() {
		if got, ok := clock.Hardens(s.Films, immersed, s.Weather); ok {
			h = &got
		}
	}
	if h == nil || !h.Tabled || h.At == nil || !h.At.After(m.Now) {
		return
	}
	at := m.Slot(*h.At)
	if m.At(at).Before(*h.At) {
		at++
	}
	if at < m.slots {
		m.link(schedule.Link{From: nowTask, To: to, Opens: func(int) int { return at }}, rule)
	}
}

// pitchH is what it takes two people to strike a tent and to pitch it again, h: a
// rule of thumb.
const pitchH = 4

// tents lets boats that share the yard's tents have them one after the other, the
// earlier launch first: what is done in the tent of one is hard before it moves on.
func (m *Model) tents(chains [][][]int) {
	if m.Tents == 0 {
		return
	}
	type stay struct {
		boat int
		work [][]int // of each surface in the tent
	}
	var stays []stay
	for k, b := range m.Boats {
		s := stay{boat: k}
		for i, f := range b.Surfaces {
			if f.Tented && len(chains[k][i]) > 0 {
				s.work = append(s.work, chains[k][i])
			}
		}
		if _, off := b.Off[TentMoves]; !off && len(s.work) > 0 {
			stays = append(stays, s)
		}
	}
	due := func(k int) time.Time {
		if l := m.Boats[k].Launch; l != nil {
			return *l
		}
		return m.Until
	}
	sort.SliceStable(stays, func(i, j int) bool { return due(stays[i].boat).Before(due(stays[j].boat)) })
	for i := m.Tents; i < len(stays); i++ {
		from, to := stays[i-m.Tents], stays[i]
		crew := min(2, len(m.People))
		pitch := m.place(Task{ID: "tent:" + m.Boats[to.boat].ID, Boat: to.boat, What: "move the tent over from " + m.Boats[from.boat].Name,
			Hours: pitchH * float64(crew), Crew: crew, weather: m.Boats[to.boat].Surfaces[0].Weather, light: true})
		for _, work := range from.work {
			l := schedule.Link{From: work[len(work)-1], To: pitch, Opens: schedule.After(0)}
			if t := m.Tasks[l.From]; t.Coat {
				l.Opens = m.ripe(t.sheet.ThroughDry, t.sheet, t.weather)
			}
			m.link(l, TentMoves)
		}
		for _, work := range to.work {
			m.link(schedule.Link{From: pitch, To: work[0], Opens: schedule.After(0)}, TentMoves)
		}
	}
}

// near is the surface whose weather a chain of tasks has: its own, or the first.
func (m Model) near(k, chain int) int {
	if chain < len(m.Boats[k].Surfaces) {
		return chain
	}
	return 0
}

// rekeyM2H is how much is scuffed for the next coat in an hour: a rule of thumb.
const rekeyM2H = 8

// rekey is the sanding that a coat takes once the window of the one below has closed.
func (m *Model) rekey(s Surface, t Task) *schedule.Task {
	hours := s.AreaM2 / rekeyM2H * max(1, s.Access)
	crew := max(1, min(len(m.People), int(math.Ceil(hours/longest))))
	sand := Task{ID: "rekey", Boat: t.Boat, SurfaceID: s.ID, Hours: hours, Crew: crew, weather: s.Weather, outdoors: !s.Sheltered, noisy: true, dry: true, light: t.light}
	d := sand.duration()
	return &schedule.Task{Name: s.Name + ", sand to re-key", Duration: d, Allowed: m.may(sand, d).runs, Needs: m.needs(sand)}
}

// chain links the tasks of a surface: each to the one before it, and to the film below it
// by its clock, from the coat that is on it.
func (m *Model) chain(s Surface, all []int) {
	own := m.main(all)
	for i, n := range all {
		if !m.Tasks[n].Work.Kind().Aside {
			continue
		}
		l := schedule.Link{From: nowTask, To: n, Opens: schedule.After(0)}
		if i > 0 && (m.Tasks[all[i-1]].Work.Kind().Aside || m.Tasks[all[i-1]].Work == step.Bed) {
			l.From = all[i-1]
			l.Opens = m.atLeast(l.Opens, m.Tasks[l.From].Of.Step.WaitH)
		}
		m.link(l, "till the compound has set")
	}
	below := -1 // the last coat of own
	keyed := s.Last != nil && s.Last.Abraded != nil
	for i, n := range own {
		t := m.Tasks[n]
		if i == 0 {
			m.link(schedule.Link{From: nowTask, To: n, Opens: schedule.After(0)}, "the start")
		} else if before := own[i-1]; before != below || !t.Coat {
			m.follow(s, own[:i], n)
		}
		switch {
		case below >= 0:
			m.over(s, below, n, keyed)
		case s.Last != nil:
			m.overLast(s, n, keyed)
		}
		if t.Work.Kind().Cured {
			m.waitForFilms(n, s, false, "till the film is hard")
			for _, c := range own[:i] {
				m.hardBefore(c, n, false, "till the film is hard")
			}
		}
		if t.Coat {
			below, keyed = n, false
		} else {
			keyed = keyed || t.Work.Kind().Abrades
		}
	}
}

// follow links a task to the one before it: in order, after its wait, and dry after water.
func (m *Model) follow(s Surface, before []int, n int) {
	from := before[len(before)-1]
	prev := m.Tasks[from]
	l := schedule.Link{From: from, To: n, Opens: schedule.After(0)}
	rule := "the order of the steps"
	if prev.Work.Kind().Wets {
		under := product.Sheet{}
		for _, k := range before {
			if t := m.Tasks[k]; t.Coat {
				under = t.sheet
			}
		}
		l.Opens, rule = m.dries(s, prev.weather, under), "to dry after "+prev.What
	}
	if wait := prev.Of.Step.WaitH; wait > 0 && prev.Of.Work == prev.Of.Step.Work && prev.Work != step.Bed && prev.Of.ID != m.Tasks[n].Of.ID {
		l.Opens, rule = m.atLeast(l.Opens, wait), "the wait after "+prev.What
	}
	m.link(l, rule)
}

// atLeast is a lag that is never shorter than so many hours.
func (m Model) atLeast(lag schedule.Lag, hours float64) schedule.Lag {
	wait := int(math.Ceil(hours - 1e-9))
	return func(end int) int {
		at := lag(end)
		if at == schedule.Never || end+wait >= m.slots {
			return schedule.Never
		}
		return max(at, end+wait)
	}
}

// ready is what the film below must have come to before a task: its recoat interval for a
// coat, what the tape is pulled at, sandable for other work on it.
func ready(below product.Sheet, t Task) (table cure.Table, rule string) {
	r, ok := below.RecoatOver(t.sheet.Kind)
	switch {
	case t.Coat && ok:
		return r.Min, "the recoat interval of "
	case t.Work == step.Unmask && t.Of.Step.Pull == step.Hard:
		return below.ThroughDry, "till it is hard: "
	case t.Work == step.Unmask && t.Of.Step.Pull == step.TouchDry:
		return below.TouchDry, "till it is dry to touch: "
	case t.Work == step.Unmask:
		return nil, "pulled while wet: "
	case len(below.Sandable) > 0:
		return below.Sandable, "till it can be sanded: "
	}
	r, _ = below.RecoatOver(below.Kind)
	return r.Min, "till it can be worked on: "
}

// over links a task to a coat of the plan that lies below it; keyed says that it is sanded
// in between.
func (m *Model) over(s Surface, below, n int, keyed bool) {
	c, t := m.Tasks[below], m.Tasks[n]
	table, rule := ready(c.sheet, t)
	l := schedule.Link{From: below, To: n, Opens: m.ripe(table, c.sheet, c.weather)}
	if wait := c.Of.Step.WaitH; wait > 0 {
		l.Opens = m.atLeast(l.Opens, wait)
	}
	if r, ok := c.sheet.RecoatOver(t.sheet.Kind); ok && t.Coat && !keyed && len(r.Max) > 0 {
		l.Closes, l.Reopened, l.Sanding = m.until(r.Max, c.sheet, c.weather, m.Problem.Tasks[below].Duration), schedule.After(-1), m.rekey(s, t)
	}
	m.link(l, rule+c.What)
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
			closes--
			l.Closes, l.Reopened, l.Sanding = func(int) int { return closes }, schedule.After(-1), m.rekey(s, t)
		}
	}
	l.Opens = func(int) int { return opens }
	m.link(l, "the coat that is on it")
}

// dries is a lag until the water of a wash has left a surface, and the pores of an open
// film on it, by the air and the wind at it.
func (m *Model) dries(s Surface, w field.Weather, under product.Sheet) schedule.Lag {
	if len(w.Air) == 0 {
		return schedule.After(0)
	}
	holds := s.HoldsMM + under.SoakMM(under.Film.TypicalUm)
	key := dryKey{&w.SurfaceC[0], s.Sheltered}
	left, ok := m.dried[key]
	if !ok {
		left = w.DryMM(s.Sheltered)
		m.dried[key] = left
	}
	i0 := w.Air.Find(m.Start)
	return func(end int) int {
		i := max(0, i0+end)
		if i >= len(left) {
			return schedule.Never
		}
		k := sort.SearchFloat64s(left[i:], left[i]+holds)
		if i+k >= len(left) {
			return schedule.Never
		}
		return end + k
	}
}

// cross adds the rules between the surfaces of a boat; numbers are the tasks of
// each surface, then own tasks.
func (m *Model) cross(k int, numbers [][]int) {
	b := m.Boats[k]
	on := func(rule string) bool { _, off := b.Off[rule]; return !off }
	lastCoat := func(i int) int {
		for _, n := range numbers[i] {
			if m.Tasks[n].last {
				return n
			}
		}
		return -1
	}
	after := func(from, to int, rule string) {
		m.link(schedule.Link{From: from, To: to, Opens: schedule.After(0)}, rule)
	}
	for i, s := range b.Surfaces {
		for j, o := range b.Surfaces {
			if i == j {
				continue
			}
			a, z := lastCoat(i), lastCoat(j)
			lower := s.Part.Info().Level > o.Part.Info().Level
			if a >= 0 && z >= 0 && !s.Part.Info().Inside && !o.Part.Info().Inside && lower && on(TopDown) {
				after(a, z, TopDown)
			}
			if a >= 0 && z >= 0 && s.Part.Info().Inside && !o.Part.Info().Inside && on(InsideOut) {
				after(a, z, InsideOut)
			}
			if lower && on(Overspray) && !s.Part.Info().Inside {
				m.overspray(numbers[i], numbers[j])
			}
			if i < j && on(Corners) && (s.Access >= fiddly) != (o.Access >= fiddly) {
				m.corners(numbers[i], numbers[j])
			}
			if i < j && on(MaskLines) && s.Part.Touches(o.Part) && (s.Side == o.Side || s.Side == "both" || o.Side == "both") {
				for _, one := range numbers[i] {
					for _, other := range numbers[j] {
						a, z := m.Tasks[one], m.Tasks[other]
						if a.Coat && z.Coat && a.pinned == nil && z.pinned == nil {
							m.Problem.Apart = append(m.Problem.Apart, [2]int{one, other})
						}
					}
				}
			}
		}
	}
	byID := map[string][]int{}
	for i, o := range b.Own {
		byID[o.ID] = numbers[len(b.Surfaces)+i]
	}
	for _, o := range b.Own {
		for _, id := range o.After {
			if own, first := byID[o.ID], byID[id]; len(own) > 0 && len(first) > 0 {
				after(first[len(first)-1], own[0], "your order")
			}
		}
	}
	if !on(DrillFirst) {
		return
	}
	for _, o := range b.Own {
		own := byID[o.ID]
		for j, s := range b.Surfaces {
			if len(own) == 0 || o.SurfaceID != s.ID {
				continue
			}
			chain := numbers[j]
			switch {
			case o.When == "before" && len(chain) > 0:
				after(own[len(own)-1], chain[0], DrillFirst)
			case o.When == "after":
				m.waitForFilms(own[0], s, false, DrillFirst)
				if len(chain) > 0 {
					after(chain[len(chain)-1], own[0], DrillFirst)
				}
				for _, n := range chain {
					m.hardBefore(n, own[0], false, DrillFirst)
				}
			}
		}
	}
}

// fiddly is the access factor from which a surface is full of corners.
const fiddly = 2.5

// corners keeps the filling of two surfaces on different days.
func (m *Model) corners(a, b []int) {
	fills := func(n int) bool {
		w := m.Tasks[n].Work
		return w == step.Fill || w == step.Fair || m.Tasks[n].sheet.Kind.Info().Filler
	}
	for _, p := range a {
		for _, q := range b {
			if fills(p) && fills(q) && m.Tasks[p].pinned == nil && m.Tasks[q].pinned == nil {
				m.Problem.Apart = append(m.Problem.Apart, [2]int{p, q})
			}
		}
	}
}

// overspray puts the sprayed coats of upper before the last sanding of lower.
func (m *Model) overspray(upper, lower []int) {
	sand := -1
	for _, n := range lower {
		if m.Tasks[n].Work == step.Sand {
			sand = n
		}
	}
	for _, n := range upper {
		if sand >= 0 && m.Tasks[n].Skill == task.Spraying {
			m.link(schedule.Link{From: n, To: sand, Opens: schedule.After(0)}, Overspray)
		}
	}
}

// clashes names pinned tasks that cannot both stand.
func (m Model) clashes(bad *fault.Errors) {
	var pinned []int
	for i, t := range m.Tasks {
		if t.pinned == nil {
			continue
		}
		at := m.Slot(*t.pinned)
		if at < 0 || at >= m.slots {
			bad.Add("pins", "%s is pinned to %v, outside the plan", t.Name(), say.Date(*t.pinned))
			continue
		}
		pinned = append(pinned, i)
	}
	stretch := func(i int) (from, to int) {
		at := m.Slot(*m.Tasks[i].pinned)
		return at, at + m.Problem.Tasks[i].Duration
	}
	for x, i := range pinned {
		from, to := stretch(i)
		for _, j := range pinned[x+1:] {
			a, z := stretch(j)
			for h := max(from, a); h < min(to, z); h++ {
				if m.Problem.Tasks[i].Needs[hands]+m.Problem.Tasks[j].Needs[hands] > m.Problem.Capacity[hands][h] {
					bad.Add("pins", "%s and %s are pinned to the same hours, and there are too few hands", m.Tasks[i].Name(), m.Tasks[j].Name())
					break
				}
			}
		}
	}
	for _, l := range m.Problem.Links {
		if m.Tasks[l.From].pinned == nil || m.Tasks[l.To].pinned == nil {
			continue
		}
		_, end := stretch(l.From)
		if start, _ := stretch(l.To); start < l.Opens(end) {
			bad.Add("pins", "%s is pinned before %s lets it begin", m.Tasks[l.To].Name(), m.Tasks[l.From].Name())
		}
	}
}
