package plan

import (
	"context"
	"slices"
	"strings"
	"time"

	"allcoats/core/planning/schedule"
)

// Starts are the starts of the tasks of a plan, and of the mends before them, by their ids.
type Starts map[string]time.Time

// Kept is a plan as it is kept: when each task starts, and who does it.
type Kept struct {
	Starts Starts              `json:"starts"`
	People map[string][]string `json:"people,omitempty"`
}

// Effort bounds the search: rounds of improvement. Anew forgets the plan before.
type Effort struct {
	Seed   uint64
	Rounds int
	Anew   bool
	// Told, if not nil, is called now and then with the share done.
	Told func(done float64)
}

// Make plans the yard. A plan before is repaired: every task stays where it still goes, and
// more is moved only where a launch gains a day by it. What finds no place is left out.
// When ctx ends the best so far is told.
func (m Model) Make(ctx context.Context, before Kept, e Effort) (Plan, Kept) {
	return m.Draft(ctx, before, e).Tell()
}

// Draft is a plan that is not told yet.
type Draft struct {
	m      Model
	plan   schedule.Plan
	before Kept
}

// Draft is Make without telling.
func (m Model) Draft(ctx context.Context, before Kept, e Effort) Draft {
	return Draft{m, m.make(ctx, before, e), before}
}

// Left is how many tasks find no place.
func (d Draft) Left() int { return d.plan.Left() }

// Tell tells a plan, and what of it is kept.
func (d Draft) Tell() (Plan, Kept) { return d.m.tell(d.plan, d.before), d.m.kept(d.plan) }

func (m Model) make(ctx context.Context, before Kept, e Effort) schedule.Plan {
	if len(before.Starts) == 0 || e.Anew {
		return schedule.Improve(ctx, m.Problem, schedule.Plan{}, m.rank(), e.Seed, e.Rounds, e.Told).Plan
	}
	p := m.repaired(before)
	if e.Rounds == 0 {
		return p
	}
	return m.better(p, schedule.Improve(ctx, m.Problem, p, m.rank(), e.Seed, e.Rounds, e.Told).Plan)
}

// repaired keeps every task of a plan where it still goes; but where that delays a launch,
// and it gains a day, all that follows is pushed on in its order, or placed anew.
func (m Model) repaired(before Kept) schedule.Plan {
	known, order := m.known(before), m.order(before.Starts)
	p := schedule.Repair(m.Problem, known, order)
	if !m.delayed(before, known, p) {
		return p
	}
	p = m.better(p, schedule.Follow(m.Problem, order, m.from(known)))
	return m.better(p, schedule.Quick(m.Problem, m.rank()))
}

// delayed tells whether a plan leaves something out, has more last resorts than the one before,
// or launches a boat a day later.
func (m Model) delayed(before Kept, known, p schedule.Plan) bool {
	for i, t := range m.Tasks {
		if was, ok := before.Starts[t.ID]; ok && t.Milestone && p.Start[i]-m.Slot(was) >= worthwhile {
			return true
		}
	}
	score := m.Problem.Score(p)
	return score[schedule.LeftOut] > 0 || score[schedule.Resorts] > m.Problem.Score(known)[schedule.Resorts]
}

// worthwhile is the gain for which tasks are moved, in slots.
const worthwhile = 24 * perHour

// better is another plan if it leaves less out, or brings late boats, or all together, a day
// forward.
func (m Model) better(old, other schedule.Plan) schedule.Plan {
	a, b := m.Problem.Score(old), m.Problem.Score(other)
	bad := func(s schedule.Score) int { return 1000*s[schedule.LeftOut] + s[schedule.Resorts] }
	late, ends := a[schedule.Late]-b[schedule.Late], a[schedule.Ends]-b[schedule.Ends]
	if bad(b) < bad(a) || bad(b) == bad(a) && (late >= worthwhile || late >= 0 && ends >= worthwhile) {
		return other
	}
	return old
}

// rank is the order in which tasks look for a place: what the earliest launch waits for
// longest goes first, what goes on in any weather last.
func (m Model) rank() []float64 {
	out := schedule.Order(m.Problem)
	holds := make([]bool, len(m.Tasks))
	for _, l := range m.Problem.Links {
		holds[l.From] = holds[l.From] || !m.Tasks[l.To].Milestone
	}
	for i, t := range m.Tasks {
		out[i] -= float64(m.slots - m.Problem.Due[t.Boat])
		if !t.Milestone && !holds[i] && t.anyWeather() {
			out[i] += float64(m.slots)
		}
	}
	return out
}

// anyWeather tells whether a task does not wait for weather.
func (t Task) anyWeather() bool { return !t.Coat && !t.outdoors && !t.Milestone }

// known are starts as a plan of schedule: what lies in the past has none.
func (m Model) known(before Kept) schedule.Plan {
	p := schedule.Plan{Start: make([]int, len(m.Tasks)), Crew: make([][]int, len(m.Tasks)),
		Sanding: make([]int, len(m.Problem.Links)), SandCrew: make([][]int, len(m.Problem.Links))}
	who := map[string]int{}
	for i, one := range m.People {
		who[one.Name] = i
	}
	at := func(id string) (start int, crew []int) {
		t, ok := before.Starts[id]
		if !ok || t.Before(m.Start) {
			return -1, nil
		}
		for _, name := range before.People[id] {
			if i, ok := who[name]; ok {
				crew = append(crew, i)
			}
		}
		return m.Slot(t), crew
	}
	for i, t := range m.Tasks {
		p.Start[i], p.Crew[i] = at(t.ID)
		if t.pinned != nil || t.Milestone {
			p.Start[i] = -1
		}
	}
	for k := range m.Problem.Links {
		if p.Sanding[k] = -1; m.Problem.Links[k].Sanding != nil {
			p.Sanding[k], p.SandCrew[k] = at(m.mendID(k))
		}
	}
	return p
}

// from are the starts of a plan as the earliest that tasks may have.
func (m Model) from(p schedule.Plan) []int {
	out := slices.Clone(p.Start)
	for i := range out {
		out[i] = max(0, out[i])
	}
	return out
}

// mendID names the mend on a link.
func (m Model) mendID(k int) string {
	return mendPrefix + m.Tasks[m.Problem.Links[k].To].ID + ":" + m.sands[k].ID
}

const mendPrefix = "mend:"

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

// kept is a plan as it is kept.
func (m Model) kept(p schedule.Plan) Kept {
	out := Kept{Starts{}, map[string][]string{}}
	put := func(id string, at int, crew []int) {
		if at >= 0 {
			out.Starts[id] = m.At(at)
			if names := m.names(crew); len(names) > 0 {
				out.People[id] = names
			}
		}
	}
	for i, t := range m.Tasks {
		if i != nowTask {
			put(t.ID, p.Start[i], p.Crew[i])
		}
	}
	for k, at := range p.Sanding {
		if at >= 0 {
			put(m.mendID(k), at, p.SandCrew[k])
		}
	}
	return out
}

func (m Model) names(crew []int) []string {
	out := []string{}
	for _, i := range crew {
		out = append(out, m.People[i].Name)
	}
	return out
}

// isMend and isLaunch tell what an id of Starts names.
func isMend(id string) bool   { return strings.HasPrefix(id, mendPrefix) }
func isLaunch(id string) bool { return strings.HasPrefix(id, launchPrefix) }

const launchPrefix = "launch:"
