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
	// Crew is how many hands do it, the same from its start to its end, and Able who may
	// lead them, nil for anybody. Site is where it is done.
	Crew int
	Able []int
	Site int
	// Session, if not 0, is that of tasks that go well one after the other.
	Session int
	// Dusts are the zones that it fills with dust; Wets, if not 0, is one more than the zone
	// in which it must have none from its start until Dry of its end.
	Dusts []int
	Wets  int
	Dry   Lag
}

// Range is a stretch of slots, both ends inclusive.
type Range struct{ First, Last int }

// Hand is somebody who works: in which slots, and of how many skills.
type Hand struct {
	Works  []Range
	Skills int
}

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
// the link once, after Opens: then To starts no earlier than Dried (nil for at once) and
// no later than Reopened counted from its end.
type Link struct {
	From, To int
	Opens    Lag
	Closes   Lag
	Sanding  *Task
	Dried    Lag
	Reopened Lag
	// Shared, if not 0, is one more than the link to the same task whose sanding is that of
	// this one too.
	Shared int
	// Before, if not 0, is one more than the link to the same task whose sanding that of this
	// one goes before: it is done when that is.
	Before int
	// Early places the sanding, one of its own, as soon as From stands, and takes it off again if that of
	// Before is not done. Hot is a link whose sanding, or whose task, is given its place right
	// after From; From starts where there is one within Closes, if that is not too far off.
	Early bool
	Hot   bool
	// Renewed, if not 0, is one more than the link whose sanding, if it is done, counts as the
	// end that Closes counts from.
	Renewed int
	// Hard says that its sanding is a last resort: plans with fewer of them are better.
	Hard bool
	// Patience is how much later To may start to do without the sanding.
	Patience int
}

// Mend is the link whose sanding opens link k again.
func (p *Problem) Mend(k int) int {
	if s := p.Links[k].Shared; s > 0 {
		return s - 1
	}
	return k
}

// dried is when what follows a sanding may start.
func (l *Link) dried(end int) int {
	if l.Dried == nil {
		return end
	}
	return l.Dried(end)
}

// Problem is tasks, links between them, and what there is of each resource at
// every slot before Horizon.
type Problem struct {
	Horizon  int
	Tasks    []Task
	Links    []Link
	Capacity [][]int
	// Hands do the tasks; Travel is how long they take from one site to another.
	Hands  []Hand
	Travel int
	// Zones is how many zones of dust there are.
	Zones int
	// Group is the group of each task, such as its boat, and Due when each group
	// should end; without groups all tasks are one that is due at once.
	Group []int
	Due   []int
	// Apart are pairs of tasks that must not start on the same day; Day is the
	// day of every slot.
	Apart [][2]int
	Day   []int
}

// Plan is a start for each task, −1 for one that is left out, and for each link the start
// of its sanding, −1 without one; Crew and SandCrew are the hands of each.
type Plan struct {
	Start    []int
	Sanding  []int
	Crew     [][]int
	SandCrew [][]int
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

// Left counts the tasks that are left out.
func (p Plan) Left() int {
	n := 0
	for _, s := range p.Start {
		if s < 0 {
			n++
		}
	}
	return n
}

// Score is what is made small, the first figure first: tasks left out, last resorts, slots
// too late in all groups, the ends of the groups added up, slots of sanding.
type Score [5]int

// The figures of a score.
const (
	LeftOut = iota
	Resorts
	Late
	Ends
	Sanded
)

// Score is that of a plan.
func (p *Problem) Score(plan Plan) Score {
	ends := make([]int, max(1, len(p.Due)))
	for i := range p.Tasks {
		g := 0
		if p.Group != nil {
			g = p.Group[i]
		}
		if plan.Start[i] >= 0 {
			ends[g] = max(ends[g], plan.Start[i]+p.Tasks[i].Duration)
		}
	}
	out := Score{LeftOut: plan.Left()}
	for g, end := range ends {
		if g < len(p.Due) {
			out[Late] += max(0, end-p.Due[g])
		}
		out[Ends] += end
	}
	for k, s := range plan.Sanding {
		if s < 0 {
			continue
		}
		if p.Links[k].Hard {
			out[Resorts]++
		}
		out[Sanded] += p.Links[k].Sanding.Duration * max(1, p.Links[k].Sanding.Crew)
	}
	return out
}

// apart returns the tasks that must not start on the day of each.
func (p *Problem) apart() [][]int {
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

func (t *Task) allows(start int) bool { return Allows(t.Allowed, start) }

// Allows tells whether a slot lies in one of stretches that rise.
func Allows(stretches []Range, slot int) bool {
	i := sort.Search(len(stretches), func(i int) bool { return stretches[i].Last >= slot })
	return i < len(stretches) && stretches[i].First <= slot
}

// next returns the first allowed start at or after from, Never without one.
func (t *Task) next(from int) int {
	i := sort.Search(len(t.Allowed), func(i int) bool { return t.Allowed[i].Last >= from })
	if i == len(t.Allowed) {
		return Never
	}
	return max(from, t.Allowed[i].First)
}

// last returns the last allowed start at or before to, −1 without one.
func (t *Task) last(to int) int {
	i := sort.Search(len(t.Allowed), func(i int) bool { return t.Allowed[i].First > to }) - 1
	if i < 0 {
		return -1
	}
	return min(to, t.Allowed[i].Last)
}
