package plan

import (
	"math"
	"slices"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/job/task"
	"allcoats/core/planning/schedule"
)

// A slot is a quarter of an hour.
const (
	perHour = 4
	slot    = time.Hour / perHour
)

// Model is a yard as a problem of schedule, in slots from Start.
type Model struct {
	Yard
	Start   time.Time
	Tasks   []Task
	Problem schedule.Problem
	slots   int
	hours   int          // of the plan, each of perHour slots
	causes  []cause      // of a link
	sands   map[int]Task // of a link: the work that mends it
	allowed [][]span     // of a task: when weather and light allow its start
	// What many tasks share, worked out once: starts by surface, step and length,
	// clocks by table and surface, sessions, and the mends of a task by their kind.
	starts   map[startsKey][]span
	good     map[hoursKey][]span
	quiet    []bool // hours without noise
	clocks   map[clockKey]*curve
	dried    map[dryKey]*curve
	sessions map[string]int
	mends    map[mendKey]int
}

// span is a stretch of starts.
type span = schedule.Range

// cause is where a link comes from: a cross-rule, or a clock in words.
type cause struct {
	rule  message.Sentence
	cross string // the id of the cross-rule
	bind  string // the name of the limit, of a link that has one
	late  string // the delivery that is waited for, if it is one
}

type mendKey struct {
	to   int
	what string
}

// nowTask is the task that all that was done before hangs on.
const nowTask = 0

// guns is the resource that is counted: spray guns.
const guns = 0

// At is the instant of a slot.
func (m Model) At(s int) time.Time { return m.Start.Add(time.Duration(s) * slot) }

// Slot is the first slot at or after t.
func (m Model) Slot(t time.Time) int { return int(math.Ceil(float64(t.Sub(m.Start)) / float64(slot))) }

// Model makes the problem of a yard. Faults name what cannot be planned: nobody
// to work, a week without hours, tasks that wait for one another, pins that clash.
func (y Yard) Model() (Model, error) {
	m := Model{Yard: y, Start: y.Now.Truncate(time.Hour), starts: map[startsKey][]span{}, good: map[hoursKey][]span{},
		clocks: map[clockKey]*curve{}, dried: map[dryKey]*curve{},
		sessions: map[string]int{}, sands: map[int]Task{}, mends: map[mendKey]int{}}
	if m.Start.Before(y.Now) {
		m.Start = m.Start.Add(time.Hour)
	}
	m.hours = int(y.Until.Sub(m.Start).Hours())
	m.slots = m.hours * perHour
	if m.shared == nil {
		m.shared = newShared()
	}
	var bad fielderr.Errors
	if len(y.People) == 0 {
		bad.Add("people", "nobody works in this yard: add somebody")
	}
	if m.hours < 24 {
		bad.Add("until", "the time to plan for is shorter than a day")
	}
	if err := bad.Err(); err != nil {
		return m, err
	}
	m.room()
	m.Problem.Horizon = m.slots
	m.quiet = m.quietHours()
	m.Problem.Travel = inSlots(y.TravelMin / 60)
	m.Problem.Zones = len(y.Boats)
	m.days()
	m.Problem.Hands = m.hands()
	if !slices.ContainsFunc(m.Problem.Hands, func(h schedule.Hand) bool { return len(h.Works) > 0 }) {
		bad.Add("people", "nobody has working hours before %v: look at weeks and days off", message.On(y.Until))
		return m, bad
	}
	m.Problem.Capacity = [][]int{make([]int, m.slots)}
	for s := range m.slots {
		m.Problem.Capacity[guns][s] = max(1, m.Guns)
	}
	m.add(Task{ID: "now", What: message.Of("now"), Milestone: true}, []span{{First: 0, Last: 0}})
	chains := make([][][]int, len(y.Boats))
	for k := range y.Boats {
		chains[k] = m.boat(k)
	}
	m.tents(chains)
	m.supplies()
	m.shops()
	if loop := m.Problem.Cycle(); loop != nil {
		names := make([]message.Sentence, len(loop))
		for i, t := range loop {
			names[i] = m.Tasks[t].Name()
		}
		bad.Add("own", "these tasks wait for one another: %v", message.Join(names, ", "))
		return m, bad
	}
	m.clashes(&bad)
	return m, bad.Err()
}

// room makes the lists as long as they came to be in other weather.
func (m *Model) room() {
	m.Tasks, m.allowed = make([]Task, 0, m.shared.nTasks), make([][]span, 0, m.shared.nTasks)
	m.Problem.Tasks, m.Problem.Group = make([]schedule.Task, 0, m.shared.nTasks), make([]int, 0, m.shared.nTasks)
	m.Problem.Links, m.causes = make([]schedule.Link, 0, m.shared.nLinks), make([]cause, 0, m.shared.nLinks)
}

// days numbers the local day of every slot.
func (m *Model) days() {
	m.Problem.Day = make([]int, m.slots)
	day, last := -1, 0
	for h := range m.hours {
		if d := m.At(h * perHour).In(m.Loc).YearDay(); d != last {
			day, last = day+1, d
		}
		for s := range perHour {
			m.Problem.Day[h*perHour+s] = day
		}
	}
}

// week holds the working hours of a person, the usual ones if none are said.
func (p Person) week() calendar.Week {
	if p.Week == (calendar.Week{}) {
		return usualWeek
	}
	return p.Week
}

// WeekH are the hours that a person works in a week.
func (p Person) WeekH() (sum float64) {
	for _, h := range p.week() {
		sum += max(0, h.ToH-h.FromH)
	}
	return sum
}

// hands are the people as they work.
func (m *Model) hands() []schedule.Hand {
	if len(m.shared.hands) == len(m.People) && m.shared.hands != nil {
		return m.shared.hands
	}
	out := make([]schedule.Hand, len(m.People))
	for i, p := range m.People {
		out[i].Skills = len(p.Skills)
		for _, s := range p.week().Between(m.Start, m.Until, m.Loc) {
			if slices.Contains(p.Off, s.From.In(m.Loc).Format(time.DateOnly)) {
				continue
			}
			first, last := max(0, m.Slot(s.From)), min(m.slots, int(s.To.Sub(m.Start)/slot))-1
			if last >= first {
				out[i].Works = append(out[i].Works, span{First: first, Last: last})
			}
		}
	}
	m.shared.hands = out
	return out
}

// able are the people who can lead a task, nil for all: those with its skill, if anybody
// has it.
func (m *Model) able(k task.Skill) (out []int) {
	for i, p := range m.People {
		if k != "" && slices.Contains(p.Skills, k) {
			out = append(out, i)
		}
	}
	return out
}

// add adds a task and returns its number.
func (m *Model) add(t Task, allowed []span) int {
	one := schedule.Task{Name: t.ID, Allowed: allowed, Needs: []int{0}, Site: t.Boat}
	if t.pinned != nil {
		at := m.Slot(*t.pinned)
		one.Allowed = []span{{First: at, Last: at}}
	}
	if !t.Milestone {
		one.Duration, one.Crew, one.Able = t.slots(), t.Crew, m.able(t.Skill)
		if t.Skill == task.Spraying {
			one.Needs[guns] = 1
		}
		if t.dusty {
			one.Dusts = m.near(t.Boat)
		}
		if t.Coat && !t.sheet.Kind.Info().Filler && !t.Of.Step.Indoor {
			one.Wets, one.Dry = t.Boat+1, m.dry(t)
		}
		if t.Coat {
			one.Session = m.session(t)
		}
	}
	m.Tasks = append(m.Tasks, t)
	m.allowed = append(m.allowed, allowed)
	m.Problem.Tasks = append(m.Problem.Tasks, one)
	m.Problem.Group = append(m.Problem.Group, t.Boat)
	return len(m.Tasks) - 1
}

// session numbers coats of one product, laid in one way on one boat.
func (m *Model) session(t Task) int {
	key := m.Boats[t.Boat].ID + "\x00" + t.Of.ProductID + "\x00" + t.Of.Step.Method + "\x00" + t.sheet.Name
	if m.sessions[key] == 0 {
		m.sessions[key] = len(m.sessions) + 1
	}
	return m.sessions[key]
}

// near are the boats that the dust of one reaches, herself first.
func (m *Model) near(k int) []int {
	out := []int{k}
	for j, b := range m.Boats {
		if j != k && m.DustM > 0 && math.Abs(b.AlongM-m.Boats[k].AlongM) <= m.DustM {
			out = append(out, j)
		}
	}
	return out
}

func (m *Model) link(l schedule.Link, c cause) {
	if l.Closes == nil {
		l.Closes, l.Reopened = schedule.After(-1), schedule.After(-1)
	}
	m.Problem.Links = append(m.Problem.Links, l)
	m.causes = append(m.causes, c)
}

// mend gives the last link a piece of work that opens it again once it has closed; links
// to the same task share one of the same kind.
func (m *Model) mend(t Task, kind string, allowed []span, dried, reopened schedule.Lag) {
	k := len(m.Problem.Links) - 1
	l := &m.Problem.Links[k]
	key := mendKey{l.To, kind}
	if first, ok := m.mends[key]; ok {
		l.Shared = first + 1
		return
	}
	m.mends[key] = k
	one := schedule.Task{Name: t.ID, Duration: t.slots(), Allowed: allowed, Needs: []int{0}, Crew: t.Crew,
		Able: m.able(t.Skill), Site: t.Boat}
	if t.dusty {
		one.Dusts = m.near(t.Boat)
	}
	if t.Coat {
		one.Wets, one.Dry = t.Boat+1, m.dry(t)
	}
	l.Sanding, l.Dried, l.Reopened = &one, dried, reopened
	m.sands[k] = t
}

// clashes names pinned tasks that cannot both stand.
func (m Model) clashes(bad *fielderr.Errors) {
	var pinned []int
	for i, t := range m.Tasks {
		if t.pinned == nil {
			continue
		}
		if at := m.Slot(*t.pinned); at < 0 || at >= m.slots {
			bad.Add("pins", "%s is pinned to %v, outside the plan", t.Name(), message.Date(*t.pinned))
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
		if there := m.there(from, to); there < m.Problem.Tasks[i].Crew {
			bad.Add("pins", "%s cannot begin when it is pinned: too few hands work on %v", m.ofBoat(m.Tasks[i]),
				message.Date(m.At(from)))
		}
		for _, j := range pinned[x+1:] {
			a, z := stretch(j)
			if max(from, a) < min(to, z) && m.Problem.Tasks[i].Crew+m.Problem.Tasks[j].Crew > max(m.there(from, to),
				m.there(a, z)) {
				bad.Add("pins", "%s and %s are pinned to the same hours, and there are too few hands",
					m.Tasks[i].Name(), m.Tasks[j].Name())
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

// there counts the people who work from a slot until before another.
func (m Model) there(from, to int) (n int) {
	for _, h := range m.Problem.Hands {
		if slices.ContainsFunc(h.Works, func(w span) bool { return w.First <= from && to <= w.Last+1 }) {
			n++
		}
	}
	return n
}
