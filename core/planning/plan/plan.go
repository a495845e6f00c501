package plan

import (
	"context"
	"fmt"
	"maps"
	"slices"
	"sort"
	"strings"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/say"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
	"allcoats/core/job/task"
	"allcoats/core/planning/schedule"
	"allcoats/core/readiness/clock"
	"allcoats/core/readiness/field"
)

// Item is a task, or a sanding that a missed window takes, with its time.
type Item struct {
	TaskID    string    `json:"taskId"`
	BoatID    string    `json:"boatId"`
	Boat      string    `json:"boat"`
	SurfaceID string    `json:"surfaceId"`
	Surface   string    `json:"surface"`
	What      string    `json:"what"`
	Start     time.Time `json:"start"`
	End       time.Time `json:"end"`
	// Closes is when the window of the coat below it closes, nil if it does not.
	Closes *time.Time `json:"closes,omitempty"`
	Hours  float64    `json:"hours"`
	// StepID and Work are of the task of the job that it is part of, SharePct how much of
	// it; Before names what comes first and is not done.
	StepID   string    `json:"stepId"`
	Work     step.Work `json:"work"`
	SharePct float64   `json:"sharePct"`
	Before   []string  `json:"before"`
	People   []string  `json:"people"`
	Coat     bool      `json:"coat"`
	Rekey    bool      `json:"rekey"`
	Launch   bool      `json:"launch"`
	Pinned   bool      `json:"pinned"`
	Indoor   bool      `json:"indoor"` // does not wait for weather
	// Why says why it does not start earlier.
	Why say.Sentence `json:"why"`
}

// Launching is when a boat can be launched.
type Launching struct {
	BoatID string     `json:"boatId"`
	Boat   string     `json:"boat"`
	At     time.Time  `json:"at"`
	Due    *time.Time `json:"due,omitempty"`
	// LateH is how much after the day wanted, 0 in time.
	LateH float64 `json:"lateH"`
	// Hours are those to come of her job, BesideH what the plan takes beside: sanding for
	// missed windows, a tent moved; Cents what both cost, 0 without a price of an hour.
	Hours   float64 `json:"hours"`
	BesideH float64 `json:"besideH"`
	Cents   float64 `json:"cents"`
	Rekey   int     `json:"rekey"`
	// Says is all this as a sentence.
	Says say.Sentence `json:"says"`
}

// Plan is a yard's work in time.
type Plan struct {
	Headline say.Sentence `json:"headline"`
	Items    []Item       `json:"items"`
	Launches []Launching  `json:"launches"`
	Hours    float64      `json:"hours"`
	// Open is when the next coat of each surface may begin by weather and light.
	Open []OpenHours `json:"open"`
	// Notes are what the plan does not count with.
	Notes []say.Sentence `json:"notes"`
}

// OpenHours are the stretches of starts of a surface's next coat.
type OpenHours struct {
	SurfaceID string             `json:"surfaceId"`
	Starts    []calendar.Stretch `json:"starts"`
}

// Starts are the starts of the tasks of a plan, by their ids, to be kept.
type Starts map[string]time.Time

// Effort bounds the search: rounds of improvement.
type Effort struct {
	Seed   uint64
	Rounds int
	// Told, if not nil, is called now and then with the share done.
	Told func(done float64)
}

// Make plans the yard. With starts of a plan before, tasks keep their order and
// are moved only where they must be or the launch gains by it. A plan that does
// not fit before Until is a fault that names the task without a place. When ctx ends
// the best so far is told.
func (m Model) Make(ctx context.Context, before Starts, e Effort) (Plan, Starts, error) {
	p, ok := m.better(ctx, m.known(before), e)
	if !ok {
		return Plan{}, nil, m.impossible()
	}
	if e.Rounds > 0 {
		p = m.settled(p)
	}
	return m.tell(p), m.starts(p), nil
}

// better is a plan that is known, unless another one gains by it: tasks are not moved for
// hours, only for a launch in time, a day, or a sanding. Without a known one it is the
// best that is found.
func (m Model) better(ctx context.Context, known schedule.Plan, e Effort) (p schedule.Plan, ok bool) {
	got := schedule.Improve(ctx, m.Problem, known, e.Seed, e.Rounds, e.Told)
	if !got.Found || known.Start == nil {
		return got.Plan, got.Found
	}
	old, gained := m.Problem.Score(known), m.Problem.Score(got.Plan)
	if old[0] == gained[0] && old[1]-gained[1] < 24 && old[2] <= gained[2] {
		return known, true
	}
	return got.Plan, true
}

// starts are those of a plan's tasks.
func (m Model) starts(p schedule.Plan) Starts {
	out := Starts{}
	for i, t := range m.Tasks {
		if !t.Milestone {
			out[t.ID] = m.At(p.Start[i])
		}
	}
	for k, at := range p.Sanding {
		if at >= 0 {
			out[rekeyID(m.Tasks[m.Problem.Links[k].To].ID)] = m.At(at)
		}
	}
	return out
}

// rekeyID names the sanding that a task waits for among the starts of a plan.
func rekeyID(task string) string { return rekeyPrefix + task }

const rekeyPrefix = "rekey:"

// settling is how often a plan is read again until it stays.
const settling = 8

// settled is a plan as it is read again from its starts: what is kept is what will be
// shown.
func (m Model) settled(p schedule.Plan) schedule.Plan {
	for range settling {
		again, ok := m.better(context.Background(), m.known(m.starts(p)), Effort{}) // no rounds: at once
		if !ok || slices.Equal(again.Start, p.Start) {
			break
		}
		p = again
	}
	return p
}

// known turns starts into a plan of schedule: every task where it was, or as soon
// after as it can be; an empty plan if that is none.
func (m Model) known(before Starts) schedule.Plan {
	if len(before) == 0 {
		return schedule.Plan{}
	}
	from := make([]int, len(m.Tasks))
	for i, t := range m.Tasks {
		if at, ok := before[t.ID]; ok && t.pinned == nil {
			from[i] = max(0, m.Slot(at))
		}
	}
	sandFrom := make([]int, len(m.Problem.Links))
	for k, l := range m.Problem.Links {
		if at, ok := before[rekeyID(m.Tasks[l.To].ID)]; ok && l.Sanding != nil {
			sandFrom[k] = max(0, m.Slot(at))
		}
	}
	p, ok := schedule.Follow(m.Problem, m.order(before), from, sandFrom)
	if !ok {
		p, ok = schedule.Follow(m.Problem, m.order(before), nil, nil)
	}
	if !ok {
		return schedule.Plan{}
	}
	return p
}

// order ranks the tasks as before had them; new ones come by the starts of their
// neighbours, at the end.
func (m Model) order(before Starts) []float64 {
	out := make([]float64, len(m.Tasks))
	last := 0.0
	for i, t := range m.Tasks {
		if at, ok := before[t.ID]; ok {
			last = at.Sub(m.Start).Hours()
		}
		if at, ok := before[rekeyID(t.ID)]; ok {
			last = min(last, at.Sub(m.Start).Hours()) // its sanding takes the hands first
		}
		out[i] = last
		if t.Milestone {
			out[i] = float64(m.slots)
		}
	}
	return out
}

// impossible names a task that finds no place and what is in its way.
func (m Model) impossible() error {
	stuck := schedule.Stuck(m.Problem)
	if stuck < 0 {
		return faultOf("no plan was found before %v: allow more days, people or a tent", say.On(m.Until))
	}
	t := m.Tasks[stuck]
	name := m.Boats[t.Boat].Name + ": " + t.Name()
	if t.pinned != nil {
		at := m.Slot(*t.pinned)
		for h := at; h < min(m.slots, at+t.duration()); h++ {
			if m.Problem.Capacity[hands][h] < m.Problem.Tasks[stuck].Needs[hands] {
				return faultOf("%s cannot begin when it is pinned: too few hands work on %v", name, say.Date(m.At(h)))
			}
		}
		return faultOf("%s cannot begin when it is pinned: what comes before it is not done by then, or the hands are pinned to other work", name)
	}
	if len(m.Problem.Tasks[stuck].Allowed) == 0 {
		return faultOf("%s has no hour before %v: %v", name, say.On(m.Until), m.mostly(stuck, 0, m.slots))
	}
	return faultOf("%s finds no place before %v", name, say.On(m.Until))
}

// tell turns a plan of schedule into one for people.
func (m Model) tell(p schedule.Plan) Plan {
	out := Plan{Items: []Item{}, Launches: []Launching{}, Open: m.openHours(), Notes: m.notes()}
	in := map[int][]int{}
	for k, l := range m.Problem.Links {
		in[l.To] = append(in[l.To], k)
	}
	for _, b := range m.Boats {
		out.Launches = append(out.Launches, Launching{BoatID: b.ID, Boat: b.Name, Due: b.Launch})
	}
	for i, t := range m.Tasks {
		if i == nowTask {
			continue
		}
		b := m.Boats[t.Boat]
		start := p.Start[i]
		it := Item{TaskID: t.ID, BoatID: b.ID, Boat: b.Name, SurfaceID: t.SurfaceID, Surface: t.Surface, What: t.What, Start: m.At(start),
			End: m.At(start + m.Problem.Tasks[i].Duration), Hours: t.Hours, Coat: t.Coat, Launch: t.Milestone, Pinned: t.pinned != nil,
			Indoor: !t.Coat && !t.outdoors && !t.Milestone, StepID: t.Of.StepID, Work: t.Of.Work, SharePct: t.SharePct, Before: m.before(in[i]), People: []string{}}
		for _, k := range in[i] {
			l := m.Problem.Links[k]
			end := p.Start[l.From] + m.Problem.Tasks[l.From].Duration
			if closes := l.Closes(end); closes < m.slots {
				at := m.At(closes)
				it.Closes = &at
			}
			if s := p.Sanding[k]; s >= 0 {
				it.Closes = nil
				hours := float64(l.Sanding.Duration * l.Sanding.Needs[hands])
				out.Items = append(out.Items, Item{TaskID: t.ID + "~", BoatID: b.ID, Boat: b.Name, SurfaceID: t.SurfaceID, Surface: t.Surface, What: "sand to re-key",
					Start: m.At(s), End: m.At(s + l.Sanding.Duration), Hours: hours, Rekey: true, Before: []string{}, People: []string{},
					Why: say.Sentence{say.Text("The recoat window of the coat below closes before the next can go on.")}})
				out.Launches[t.Boat].Rekey++
				out.Launches[t.Boat].BesideH += hours
			}
		}
		it.Why = m.why(p, i, in[i])
		if t.Milestone {
			l := &out.Launches[t.Boat]
			l.At = it.Start
			if l.Due != nil && l.At.After(*l.Due) {
				l.LateH = l.At.Sub(*l.Due).Hours()
			}
		} else if t.Of.ID != "" {
			out.Launches[t.Boat].Hours += t.Hours
			out.Hours += t.Hours
		} else {
			out.Launches[t.Boat].BesideH += t.Hours
		}
		out.Items = append(out.Items, it)
	}
	sort.SliceStable(out.Items, func(a, b int) bool { return out.Items[a].Start.Before(out.Items[b].Start) })
	for i := range out.Launches {
		out.Launches[i].Cents = (out.Launches[i].Hours + out.Launches[i].BesideH) * m.HourCents
		out.Launches[i].Says = m.says(out.Launches[i])
	}
	m.assign(out.Items)
	out.Headline = m.headline(out)
	return out
}

// before names the tasks that links come from.
func (m Model) before(links []int) []string {
	out := []string{}
	for _, k := range links {
		if from := m.Problem.Links[k].From; from != nowTask && !slices.Contains(out, m.Tasks[from].Name()) {
			out = append(out, m.Tasks[from].Name())
		}
	}
	return out
}

// openHours are the starts of the first coat left on every surface.
func (m Model) openHours() []OpenHours {
	out := []OpenHours{}
	for i, t := range m.Tasks {
		if !t.first || t.Milestone {
			continue
		}
		o := OpenHours{t.SurfaceID, []calendar.Stretch{}}
		for _, r := range m.Problem.Tasks[i].Allowed {
			o.Starts = append(o.Starts, calendar.Stretch{From: m.At(r.First), To: m.At(r.Last + 1)})
		}
		out = append(out, o)
	}
	return out
}

// notes name what is missing: surfaces on which nothing is planned.
func (m Model) notes() []say.Sentence {
	out := []say.Sentence{}
	for _, k := range m.unmanned() {
		out = append(out, say.Of("nobody is named for %s: it is planned for anybody", k))
	}
	for _, b := range m.Boats {
		if b.Launch != nil && b.Launch.Before(m.Now) {
			out = append(out, say.Of("the launch of %s, %v, has passed: give her another day", b.Name, say.On(*b.Launch)))
		}
		for _, s := range b.Surfaces {
			if len(s.Tasks) == 0 && s.Last == nil {
				out = append(out, say.Of("%s: nothing is planned on %s; choose its coats in Build-up", b.Name, s.Name))
			}
			out = append(out, m.unsure(b, s)...)
		}
	}
	return out
}

// unsure names what the launch cannot be reckoned with: films that no sheet says the
// hardening of, or that are not hard within the weather known.
func (m Model) unsure(b Boat, s Surface) (out []say.Sentence) {
	silent := map[string]bool{}
	note := func(sheet product.Sheet) {
		if !silent[sheet.Name] {
			silent[sheet.Name] = true
			out = append(out, say.Of("%s, %s: the sheet of %s does not say when it is hard enough for launching; the launch does not wait for it: ask its maker", b.Name, s.Name, sheet.Name))
		}
	}
	for _, t := range s.Tasks {
		if sheet := t.Step.Sheet; t.Films && t.Left() && len(clock.Hardening(sheet, s.Part.Underwater())) == 0 {
			note(sheet)
		}
	}
	h := s.Hard
	if h == nil {
		h = s.Hardens()
	}
	switch {
	case h == nil:
	case !h.Tabled:
		note(h.Sheet)
	case h.At == nil || !h.At.Before(m.Until):
		out = append(out, say.Of("%s, %s: %s is not hard enough for launching within the weather known", b.Name, s.Name, h.Sheet.Name))
	}
	return out
}

// says tells when a boat is ready.
func (m Model) says(l Launching) say.Sentence {
	if l.LateH > 0 {
		return say.Of("%v is ready on %v, %s after the day wanted.", say.Strong(l.Boat), say.On(l.At), days(m.apart(*l.Due, l.At)))
	}
	if slices.ContainsFunc(m.Boats, func(b Boat) bool { return b.Name == l.Boat && b.unplanned() }) {
		return say.Sentence{say.Text("Nothing is planned on "), say.Strong(l.Boat), say.Text(" yet: choose her coats in Build-up.")}
	}
	out := say.Of("%v can be launched from %v", say.Strong(l.Boat), say.On(l.At))
	switch {
	case l.Due == nil:
	case m.apart(l.At, *l.Due) == 0:
		out = append(out, say.Text(", the day wanted"))
	default:
		out = append(out, say.Text(", %s before the day wanted", days(m.apart(l.At, *l.Due))))
	}
	return append(out, say.Text("."))
}

// unplanned reports whether no work is planned on a boat, and none was done.
func (b Boat) unplanned() bool {
	return !slices.ContainsFunc(b.Surfaces, func(s Surface) bool { return len(s.Tasks) > 0 || s.Last != nil })
}

// headline says when the boats are ready: the first that is late, or the last.
func (m Model) headline(p Plan) say.Sentence {
	if late := slices.IndexFunc(p.Launches, func(l Launching) bool { return l.LateH > 0 }); late >= 0 {
		return p.Launches[late].Says
	}
	last := slices.MaxFunc(p.Launches, func(a, b Launching) int { return a.At.Compare(b.At) })
	if len(p.Launches) == 1 {
		return last.Says
	}
	return say.Of("All %d boats are in time: the last, %v, on %v.", len(p.Launches), say.Strong(last.Boat), say.On(last.At))
}

// apart are the days of the calendar from a to b.
func (m Model) apart(a, b time.Time) int {
	midnight := func(t time.Time) time.Time {
		y, mo, d := t.In(m.Loc).Date()
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

// unmanned are the skills that tasks take and nobody has, if anybody has any.
func (m Model) unmanned() []task.Skill {
	has := map[task.Skill]bool{"": true}
	for _, p := range m.People {
		for _, k := range p.Skills {
			has[k] = true
		}
	}
	var out []task.Skill
	for _, t := range m.Tasks {
		if len(has) > 1 && !has[t.Skill] {
			has[t.Skill] = true
			out = append(out, t.Skill)
		}
	}
	return out
}

// seat is one of the hands that an item takes in an hour.
type seat struct {
	item  int
	skill task.Skill
}

// assign gives people to the items hour by hour. A seat goes, among those who have
// its skill, to who sat there the hour before, then to who can stay longest, was on
// the surface, has the fewest skills and least to do. Seats that take a skill come
// first; where a choice leaves one empty it is taken back (augmenting paths).
func (m Model) assign(items []Item) {
	works := m.working()
	named := map[task.Skill]bool{}
	for _, p := range m.People {
		for _, k := range p.Skills {
			named[k] = true
		}
	}
	skills := map[string]task.Skill{}
	for _, t := range m.Tasks {
		if named[t.Skill] {
			skills[t.ID] = t.Skill
		}
	}
	at := map[int][]seat{}
	for k, it := range items {
		from, to := m.Slot(it.Start), m.Slot(it.End)
		need := max(1, int(it.Hours/max(1, float64(to-from))+0.999))
		for h := from; !it.Launch && h < to; h++ {
			for n := range need {
				s := seat{item: k}
				if n == 0 {
					s.skill = skills[it.TaskID]
				}
				at[h] = append(at[h], s)
			}
		}
	}
	load := make([]int, len(m.People))
	before := map[string]int{} // who was on a surface
	sat := map[seat][]int{}    // who sat there the hour before
	for _, h := range slices.Sorted(maps.Keys(at)) {
		seats := at[h]
		sort.SliceStable(seats, func(i, j int) bool { return seats[i].skill != "" && seats[j].skill == "" })
		worth := func(s seat, i int) int {
			it := &items[s.item]
			w := -10*len(m.People[i].Skills) - load[i]/10
			for k := h; k < m.Slot(it.End) && works[i][k]; k++ {
				w += 100
			}
			if slices.Contains(sat[s], i) {
				w += 10_000
			}
			if who, ok := before[it.SurfaceID]; ok && who == i {
				w += 50
			}
			return w
		}
		given := m.give(seats, func(s seat, i int) bool {
			return works[i][h] && (s.skill == "" || slices.Contains(m.People[i].Skills, s.skill))
		}, worth)
		clear(sat)
		for n, i := range given {
			if i < 0 {
				continue
			}
			it := &items[seats[n].item]
			sat[seats[n]] = append(sat[seats[n]], i)
			before[it.SurfaceID] = i
			load[i]++
			if !slices.Contains(it.People, m.People[i].Name) {
				it.People = append(it.People, m.People[i].Name)
			}
		}
	}
}

// give matches seats to people who may take them, the worthiest first, -1 for none.
func (m Model) give(seats []seat, may func(s seat, i int) bool, worth func(s seat, i int) int) []int {
	given, of := make([]int, len(seats)), make([]int, len(m.People))
	for i := range of {
		of[i] = -1
	}
	var take func(n int, asked []bool) bool
	take = func(n int, asked []bool) bool {
		var able []int
		for i := range m.People {
			if !asked[i] && may(seats[n], i) {
				able = append(able, i)
			}
		}
		slices.SortStableFunc(able, func(a, b int) int { return worth(seats[n], b) - worth(seats[n], a) })
		for _, free := range []bool{true, false} {
			for _, i := range able {
				if asked[i] || (of[i] < 0) != free {
					continue
				}
				asked[i] = true
				if free || take(of[i], asked) {
					given[n], of[i] = i, n
					return true
				}
			}
		}
		return false
	}
	for n := range seats {
		given[n] = -1
		take(n, make([]bool, len(m.People)))
	}
	return given
}

// why says why task i does not start earlier than in p.
func (m Model) why(p schedule.Plan, i int, in []int) say.Sentence {
	t, start := m.Tasks[i], p.Start[i]
	if t.pinned != nil {
		if i < len(m.open) && m.open[i] != nil && !m.open[i][start] {
			return append(append(say.Sentence{say.Text("Pinned by you, against the weather: ")}, m.mostly(i, start, start+1)...), say.Text("."))
		}
		return say.Sentence{say.Text("Pinned by you.")}
	}
	least, from := 0, -1
	for _, k := range in {
		l := m.Problem.Links[k]
		end := p.Start[l.From] + m.Problem.Tasks[l.From].Duration
		if opens := l.Opens(end); opens > least {
			least, from = opens, k
		}
		if s := p.Sanding[k]; s >= 0 && s+l.Sanding.Duration > least {
			least, from = s+l.Sanding.Duration, -1
		}
	}
	var out say.Sentence
	switch {
	case from >= 0:
		out = say.Sentence{say.Text("Not before "), m.clock(least), say.Text(": %s.", m.cause(from))}
	case least == 0:
		out = say.Sentence{say.Text("Free to begin at once.")}
	default:
		out = say.Sentence{say.Text("After it is sanded, "), m.clock(least), say.Text(".")}
	}
	if t.Milestone || start <= least {
		return out
	}
	first, last := m.Problem.Day[least], m.Problem.Day[start]
	told := 0
	for day := first; day <= last && told < 3; day++ {
		lo, hi := m.ofDay(day)
		lo, hi = max(lo, least), min(hi, start)
		if lo >= hi {
			continue
		}
		reason := m.blocked(p, i, lo, hi)
		if reason == nil {
			continue
		}
		word := "Not"
		if day == last {
			word = "Not earlier on"
		}
		out = say.Of("%v %s %v: %v.", out, word, say.On(m.At(lo)), reason)
		told++
	}
	if last-first > 3 {
		out = append(out, say.Text(" Nor on the other %d days.", last-first-2))
	}
	return out
}

// Nearest is the hour nearest to at when a task may begin by its own weather and
// the hours of the hands, whatever comes before it; at if there is none.
func (m Model) Nearest(taskID string, at time.Time) time.Time {
	i := slices.IndexFunc(m.Tasks, func(t Task) bool { return t.ID == taskID })
	if i < 0 || i >= len(m.open) || m.open[i] == nil {
		return at
	}
	fits := func(h int) bool {
		if h < 0 || h >= m.slots || !m.open[i][h] {
			return false
		}
		return m.there(m.Problem.Tasks[i].Needs, h, m.Problem.Tasks[i].Duration)
	}
	from := m.Slot(at)
	for off := range m.slots {
		for _, h := range []int{from + off, from - off} {
			if fits(h) {
				return m.At(h)
			}
		}
	}
	return at
}

// there tells whether so much of the resources is there for d slots from a start,
// whatever else takes of it.
func (m Model) there(needs []int, start, d int) bool {
	for r, n := range needs {
		for h := start; n > 0 && h < start+d; h++ {
			if h >= m.slots || m.Problem.Capacity[r][h] < n {
				return false
			}
		}
	}
	return true
}

// clock is a slot as an instant.
func (m Model) clock(slot int) say.Span { return say.Clock(m.At(slot), m.Now, m.Loc) }

// cause puts the origin of a link in words.
func (m Model) cause(k int) string {
	l := m.Problem.Links[k]
	for _, r := range CrossRules {
		if r.ID == m.rule[k] {
			return fmt.Sprintf("%s comes first (%s)", m.Tasks[l.From].Name(), r.Name)
		}
	}
	return m.rule[k]
}

// ofDay are the slots of a day.
func (m Model) ofDay(day int) (lo, hi int) {
	lo = sort.SearchInts(m.Problem.Day, day)
	return lo, sort.SearchInts(m.Problem.Day, day+1)
}

// blocked says why task i cannot start in [lo, hi), nil if it could.
func (m Model) blocked(p schedule.Plan, i, lo, hi int) say.Sentence {
	d := m.Problem.Tasks[i].Duration
	needs := m.Problem.Tasks[i].Needs
	need := needs[hands]
	anyOpen, anyHands, anySkill := false, false, false
	for s := lo; s < hi; s++ {
		anyHands = anyHands || m.there(needs[:hands+1], s, d)
		there := m.there(needs, s, d)
		open := m.open[i] == nil || m.open[i][s]
		anyOpen, anySkill = anyOpen || open, anySkill || there
		if !open || !there {
			continue
		}
		for _, a := range m.Problem.Apart {
			if a[0] == i || a[1] == i {
				j := a[0] + a[1] - i
				if m.Problem.Day[p.Start[j]] == m.Problem.Day[s] {
					return say.Sentence{say.Text("%s is coated that day, and a mask line is between them", m.Tasks[j].Surface)}
				}
			}
		}
		for j := range m.Tasks {
			if j != i && !m.Tasks[j].Milestone && p.Start[j] < s+d && s < p.Start[j]+m.Problem.Tasks[j].Duration {
				return say.Sentence{say.Text("the hands are at %s", m.Tasks[j].Name())}
			}
		}
		return nil
	}
	switch {
	case !anyHands && need > 1:
		return say.Sentence{say.Text("there are not %d people for %d h", need, d)}
	case !anyHands:
		return say.Sentence{say.Text("there is no %d h of working time left", d)}
	case !anySkill:
		return say.Sentence{say.Text("nobody works then who does %s", m.Tasks[i].Skill)}
	case !anyOpen:
		return m.mostly(i, lo, hi)
	}
	return say.Sentence{say.Text("the good hours are not those that people work")}
}

// mostly is what the weather forbids most of in [lo, hi) for task i.
func (m Model) mostly(i, lo, hi int) say.Sentence {
	t := m.Tasks[i]
	if !t.Coat {
		return say.Sentence{say.Text("it is dark, or wet with rain or dew")}
	}
	j := t.job
	j.Apply = t.laying()
	count := map[field.Limit]int{}
	check := map[field.Limit]field.Check{}
	var most field.Limit
	for _, h := range j.Hours(field.Weather{Air: t.weather.Air.Between(m.At(lo), m.At(hi-1)), SurfaceC: t.weather.SurfaceC[max(0, t.weather.Air.Find(m.At(lo))):], Wet: t.weather.Wet}) {
		l := h.Binding.Limit
		if h.Allowed || l == field.Light && hi-lo < 24*3 && len(count) > 0 {
			continue
		}
		count[l]++
		check[l] = h.Binding
		if count[l] > count[most] && (l != field.Light || most == "") || most == field.Light && l != field.Light {
			most = l
		}
	}
	if most == "" {
		return say.Sentence{say.Text("the field does not hold long enough after laying")}
	}
	return field.Words(check[most])
}

// Moved is a task that a new plan puts elsewhere.
type Moved struct {
	TaskID string       `json:"taskId"`
	Name   string       `json:"name"`
	From   *time.Time   `json:"from,omitempty"`
	To     *time.Time   `json:"to,omitempty"`
	Why    say.Sentence `json:"why"`
}

// Changes lists what moved by half an hour or more from one plan to the next, what
// came and what went, with the reason of the new one.
func Changes(before Starts, after Plan) []Moved {
	out := []Moved{}
	there := map[string]bool{}
	for _, it := range after.Items {
		if it.Launch || it.Rekey {
			continue
		}
		there[it.TaskID] = true
		name := strings.TrimPrefix(it.Boat+": "+it.Surface+", "+it.What, ": ")
		if it.Surface == "" {
			name = it.Boat + ": " + it.What
		}
		at := it.Start
		old, ok := before[it.TaskID]
		switch {
		case !ok:
			out = append(out, Moved{it.TaskID, name, nil, &at, it.Why})
		case old.Sub(at).Abs() >= 30*time.Minute:
			out = append(out, Moved{it.TaskID, name, &old, &at, it.Why})
		}
	}
	for id, at := range before {
		if !there[id] && !strings.HasPrefix(id, rekeyPrefix) {
			out = append(out, Moved{TaskID: id, Name: "done or left out", From: &at, Why: say.Sentence{}})
		}
	}
	sort.SliceStable(out, func(a, b int) bool {
		at := func(m Moved) time.Time {
			if m.To != nil {
				return *m.To
			}
			return *m.From
		}
		return at(out[a]).Before(at(out[b]))
	})
	return out
}
