package plan

import (
	"fmt"
	"slices"
	"sort"
	"strings"
	"time"

	"allcoats/core/calendar"
	"allcoats/core/field"
	"allcoats/core/say"
	"allcoats/core/schedule"
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
	People []string   `json:"people"`
	Coat   bool       `json:"coat"`
	Rekey  bool       `json:"rekey"`
	Launch bool       `json:"launch"`
	Pinned bool       `json:"pinned"`
	Indoor bool       `json:"indoor"` // does not wait for weather
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
	Hours float64 `json:"hours"` // of work left
	Cents float64 `json:"cents"` // what it costs, 0 without a price of an hour
	Rekey int     `json:"rekey"`
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
	Notes []string `json:"notes"`
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
	// Told is called now and then with the share done; false ends the search.
	Told func(done float64) bool
}

// Make plans the yard. With starts of a plan before, tasks keep their order and
// are moved only where they must be or the launch gains by it. A plan that does
// not fit before Until is a fault that names the task without a place.
func (m Model) Make(before Starts, e Effort) (Plan, Starts, error) {
	known := m.known(before)
	got := schedule.Improve(m.Problem, known, e.Seed, e.Rounds, e.Told)
	if !got.Found {
		return Plan{}, nil, m.impossible()
	}
	if known.Start != nil {
		// Tasks are not moved for hours: only for a launch in time, a day, or a sanding.
		old, gained := m.Problem.Score(known), m.Problem.Score(got.Plan)
		if old[0] == gained[0] && old[1]-gained[1] < 24 && old[2] <= gained[2] {
			got.Plan = known
		}
	}
	out := m.tell(got.Plan)
	starts := Starts{}
	for i, t := range m.Tasks {
		if !t.Milestone {
			starts[t.ID] = m.At(got.Plan.Start[i])
		}
	}
	return out, starts, nil
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
	p, ok := schedule.Follow(m.Problem, m.order(before), from)
	if !ok {
		p, ok = schedule.Follow(m.Problem, m.order(before), nil)
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
		return faultOf("no plan was found before %s: allow more days, people or a tent", m.Until.In(m.Loc).Format("2 January"))
	}
	t := m.Tasks[stuck]
	name := m.Boats[t.Boat].Name + ": " + t.Name()
	if t.pinned != nil {
		at := m.Slot(*t.pinned)
		for h := at; h < min(m.slots, at+t.duration()); h++ {
			if m.Problem.Capacity[hands][h] < m.Problem.Tasks[stuck].Needs[hands] {
				return faultOf("%s cannot begin when it is pinned: too few hands work on %s", name, m.At(h).In(m.Loc).Format("Mon 2 Jan at 15:04"))
			}
		}
		return faultOf("%s cannot begin when it is pinned: what comes before it is not done by then, or the hands are pinned to other work", name)
	}
	if len(m.Problem.Tasks[stuck].Allowed) == 0 {
		return faultOf("%s has no hour before %s: %s", name, m.Until.In(m.Loc).Format("2 January"), m.mostly(stuck, 0, m.slots).In(m.Loc))
	}
	return faultOf("%s finds no place before %s", name, m.Until.In(m.Loc).Format("2 January"))
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
			Indoor: !t.Coat && !t.outdoors && !t.Milestone, People: []string{}}
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
					Start: m.At(s), End: m.At(s + l.Sanding.Duration), Hours: hours, Rekey: true, People: []string{},
					Why: say.Sentence{say.Text("The recoat window of the coat below closes before the next can go on.")}})
				out.Launches[t.Boat].Rekey++
				out.Launches[t.Boat].Hours += hours
				out.Hours += hours
			}
		}
		it.Why = m.why(p, i, in[i])
		if t.Milestone {
			l := &out.Launches[t.Boat]
			l.At = it.Start
			if l.Due != nil && l.At.After(*l.Due) {
				l.LateH = l.At.Sub(*l.Due).Hours()
			}
		} else {
			out.Launches[t.Boat].Hours += t.Hours
			out.Hours += t.Hours
		}
		out.Items = append(out.Items, it)
	}
	sort.SliceStable(out.Items, func(a, b int) bool { return out.Items[a].Start.Before(out.Items[b].Start) })
	for i := range out.Launches {
		out.Launches[i].Cents = out.Launches[i].Hours * m.HourCents
	}
	m.assign(out.Items)
	out.Headline = m.headline(out)
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
func (m Model) notes() []string {
	out := []string{}
	for _, b := range m.Boats {
		for _, s := range b.Surfaces {
			if len(s.Steps) == 0 && s.Last == nil {
				out = append(out, b.Name+": nothing is planned on "+s.Name+"; choose its coats in Build-up")
			}
		}
	}
	return out
}

// headline says when the boats are ready.
func (m Model) headline(p Plan) say.Sentence {
	late := slices.IndexFunc(p.Launches, func(l Launching) bool { return l.LateH > 0 })
	date := func(t time.Time) string { return t.In(m.Loc).Format("Monday 2 January") }
	if late >= 0 {
		l := p.Launches[late]
		return say.Sentence{say.Strong(l.Boat), say.Text(" is ready on %s, %s after the day wanted.", date(l.At), days(l.LateH))}
	}
	last := slices.MaxFunc(p.Launches, func(a, b Launching) int { return a.At.Compare(b.At) })
	if len(p.Launches) == 1 {
		out := say.Sentence{say.Strong(last.Boat), say.Text(" can be launched from %s", date(last.At))}
		if last.Due != nil {
			out = append(out, say.Text(", %s before the day wanted", days(last.Due.Sub(last.At).Hours())))
		}
		return append(out, say.Text("."))
	}
	return say.Sentence{say.Text("All %d boats are in time: the last, ", len(p.Launches)), say.Strong(last.Boat), say.Text(", on %s.", date(last.At))}
}

func days(h float64) string {
	n := int(h/24 + 0.99)
	if n == 1 {
		return "1 day"
	}
	return fmt.Sprintf("%d days", n)
}

// assign gives people to the items by their hours, the one who was on the surface
// before first, then who has least to do.
func (m Model) assign(items []Item) {
	works := make([][]bool, len(m.People))
	busy := make([]map[int]bool, len(m.People))
	load := make([]float64, len(m.People))
	before := map[string]int{}
	for i, p := range m.People {
		works[i], busy[i] = m.works(p), map[int]bool{}
	}
	for k := range items {
		it := &items[k]
		if it.Launch {
			continue
		}
		from, to := m.Slot(it.Start), m.Slot(it.End)
		need := max(1, int(it.Hours/max(1, float64(to-from))+0.999))
		// Each hand may be given over in between: who has most of the hours goes first.
		for range need {
			rest := make([]int, 0, to-from)
			for h := from; h < to; h++ {
				rest = append(rest, h)
			}
			for len(rest) > 0 {
				best, most := -1, 0
				for i := range m.People {
					free := 0
					for _, h := range rest {
						if works[i][h] && !busy[i][h] {
							free++
						}
					}
					if free == 0 {
						continue
					}
					score := 1000*free - int(load[i]) + 1
					if who, ok := before[it.SurfaceID]; ok && who == i {
						score += 500
					}
					if score > most {
						best, most = i, score
					}
				}
				if best < 0 {
					break
				}
				left := rest[:0]
				for _, h := range rest {
					if works[best][h] && !busy[best][h] {
						busy[best][h] = true
						load[best]++
					} else {
						left = append(left, h)
					}
				}
				rest = left
				before[it.SurfaceID] = best
				if !slices.Contains(it.People, m.People[best].Name) {
					it.People = append(it.People, m.People[best].Name)
				}
			}
		}
	}
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
		word := "Not " + m.At(lo).In(m.Loc).Format("Mon 2 Jan")
		if day == last {
			word = "Not earlier on " + m.At(lo).In(m.Loc).Format("Mon 2 Jan")
		}
		out = append(append(append(out, say.Text(" %s: ", word)), reason...), say.Text("."))
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
		for k := h; k < min(m.slots, h+m.Problem.Tasks[i].Duration); k++ {
			if m.Problem.Capacity[hands][k] < m.Problem.Tasks[i].Needs[hands] {
				return false
			}
		}
		return true
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
	need := m.Problem.Tasks[i].Needs[hands]
	anyOpen, anyHands := false, false
	for s := lo; s < hi; s++ {
		there := s+d <= m.slots
		for h := s; there && h < s+d; h++ {
			there = m.Problem.Capacity[hands][h] >= need
		}
		open := m.open[i] == nil || m.open[i][s]
		anyOpen, anyHands = anyOpen || open, anyHands || there
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
	j.Apply = time.Duration(m.Problem.Tasks[i].Duration) * time.Hour
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
		if !there[id] {
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
