// Package schedule puts tasks into time: each within its allowed starts, after
// others by lags that may depend on when those end, before windows close or with
// a sanding in between, and within what resources there are at every hour.
// Time is in whole slots from 0; an hour each in this program.
package schedule

import (
	"sort"
)

// Task is a piece of work without a break.
type Task struct {
	Name     string
	Duration int
	// Allowed lists the stretches of starts, both ends inclusive, in order.
	Allowed []Range
	// Needs says how much it takes of each resource while it runs.
	Needs []int
}

// Range is a stretch of starts, both ends inclusive.
type Range struct{ First, Last int }

// Lag tells from the end of a task when the next may start, and until when
// without sanding: both must not fall as end rises. Never is without end.
type Lag func(end int) int

// Never is later than any horizon.
const Never = 1 << 30

// After is a lag of a fixed number of slots; a negative one is Never.
func After(slots int) Lag {
	if slots < 0 {
		return func(int) int { return Never }
	}
	return func(end int) int { return end + slots }
}

// Link lets To start no earlier than Opens and, without sanding, no later than
// Closes, both counted from the end of From. Sanding, if not nil, may be done on
// the link once, after Opens: then To starts after it and no later than Reopened
// counted from its end.
type Link struct {
	From, To int
	Opens    Lag
	Closes   Lag
	Sanding  *Task
	Reopened Lag
}

// Problem is tasks, links between them, and what there is of each resource at
// every slot before Horizon.
type Problem struct {
	Horizon  int
	Tasks    []Task
	Links    []Link
	Capacity [][]int
	// Group is the group of each task, such as its boat, and Due when each group
	// should end; without groups all tasks are one that is due at once.
	Group []int
	Due   []int
	// Apart are pairs of tasks that must not start on the same day; Day is the
	// day of every slot.
	Apart [][2]int
	Day   []int
}

// Plan is a start for each task, and for each link the start of its sanding, −1
// without one.
type Plan struct {
	Start    []int
	Sanding  []int
	Makespan int
}

// Sandings counts them.
func (p Plan) Sandings() int {
	n := 0
	for _, s := range p.Sanding {
		if s >= 0 {
			n++
		}
	}
	return n
}

// Score is what is made small, the first figure first: slots too late in all
// groups, the ends of the groups added up, sandings.
func (p Problem) Score(plan Plan) [3]int {
	ends := make([]int, max(1, len(p.Due)))
	for i, t := range p.Tasks {
		g := 0
		if p.Group != nil {
			g = p.Group[i]
		}
		ends[g] = max(ends[g], plan.Start[i]+t.Duration)
	}
	var out [3]int
	for g, end := range ends {
		if g < len(p.Due) {
			out[0] += max(0, end-p.Due[g])
		}
		out[1] += end
	}
	out[2] = plan.Sandings()
	return out
}

// apart returns the tasks that must not start on the day of each.
func (p Problem) apart() [][]int {
	out := make([][]int, len(p.Tasks))
	for _, a := range p.Apart {
		out[a[0]], out[a[1]] = append(out[a[0]], a[1]), append(out[a[1]], a[0])
	}
	return out
}

// Cycle returns tasks that wait for one another, nil if none do.
func (p Problem) Cycle() []int {
	out := make([][]int, len(p.Tasks))
	for _, l := range p.Links {
		out[l.From] = append(out[l.From], l.To)
	}
	state := make([]int, len(p.Tasks)) // 1 on the way, 2 done
	var path, found []int
	var visit func(i int) bool
	visit = func(i int) bool {
		state[i] = 1
		path = append(path, i)
		for _, j := range out[i] {
			if state[j] == 1 {
				for k, v := range path {
					if v == j {
						found = append([]int(nil), path[k:]...)
					}
				}
				return true
			}
			if state[j] == 0 && visit(j) {
				return true
			}
		}
		path = path[:len(path)-1]
		state[i] = 2
		return false
	}
	for i := range p.Tasks {
		if state[i] == 0 && visit(i) {
			return found
		}
	}
	return nil
}

// Check names the first rule that a plan breaks, "" if it keeps all.
func (p Problem) Check(plan Plan) string {
	used := make([][]int, len(p.Capacity))
	for r := range used {
		used[r] = make([]int, p.Horizon)
	}
	place := func(t Task, start int) string {
		if !t.allows(start) {
			return t.Name + " starts where it must not"
		}
		if start+t.Duration > p.Horizon {
			return t.Name + " ends beyond the horizon"
		}
		for r, n := range t.Needs {
			for h := start; h < start+t.Duration; h++ {
				if used[r][h] += n; used[r][h] > p.Capacity[r][h] {
					return t.Name + " has too few hands"
				}
			}
		}
		return ""
	}
	for i, t := range p.Tasks {
		if why := place(t, plan.Start[i]); why != "" {
			return why
		}
	}
	for k, l := range p.Links {
		end, start := plan.Start[l.From]+p.Tasks[l.From].Duration, plan.Start[l.To]
		name := p.Tasks[l.From].Name + " to " + p.Tasks[l.To].Name
		if start < l.Opens(end) {
			return name + " comes too early"
		}
		s := plan.Sanding[k]
		if s < 0 {
			if start > l.Closes(end) {
				return name + " comes too late without sanding"
			}
			continue
		}
		if why := place(*l.Sanding, s); why != "" {
			return "sanding before " + why
		}
		if s < l.Opens(end) || s+l.Sanding.Duration > start || start > l.Reopened(s+l.Sanding.Duration) {
			return "the sanding between " + name + " is out of place"
		}
	}
	for _, a := range p.Apart {
		if p.Day[plan.Start[a[0]]] == p.Day[plan.Start[a[1]]] {
			return p.Tasks[a[0]].Name + " and " + p.Tasks[a[1]].Name + " start on the same day"
		}
	}
	return ""
}

func (t Task) allows(start int) bool {
	i := sort.Search(len(t.Allowed), func(i int) bool { return t.Allowed[i].Last >= start })
	return i < len(t.Allowed) && t.Allowed[i].First <= start
}

// next returns the first allowed start at or after from, Never without one.
func (t Task) next(from int) int {
	i := sort.Search(len(t.Allowed), func(i int) bool { return t.Allowed[i].Last >= from })
	if i == len(t.Allowed) {
		return Never
	}
	return max(from, t.Allowed[i].First)
}

// last returns the last allowed start at or before to, −1 without one.
func (t Task) last(to int) int {
	i := sort.Search(len(t.Allowed), func(i int) bool { return t.Allowed[i].First > to }) - 1
	if i < 0 {
		return -1
	}
	return min(to, t.Allowed[i].Last)
}
