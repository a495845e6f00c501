package schedule

import (
	"context"
	"math/rand/v2"
	"slices"
)

// serial places one task after another at the earliest start that is left.
type serial struct {
	p    Problem
	in   [][]int // of a task: the links that come to it
	out  [][]int
	used [][]int
	// from is the earliest start that a task is given beside its links, raised
	// where it would end too soon for what follows.
	from []int
	plan Plan
	done []bool
	open []int // links from tasks that are not placed yet
	// sandFrom, if given, is the earliest start of the sanding on each link.
	sandFrom []int
	// apart are the tasks that must not start on a task's day.
	apart [][]int
}

func newSerial(p Problem) *serial {
	s := &serial{p: p, in: make([][]int, len(p.Tasks)), out: make([][]int, len(p.Tasks)), from: make([]int, len(p.Tasks)), apart: p.apart()}
	for k, l := range p.Links {
		s.in[l.To] = append(s.in[l.To], k)
		s.out[l.From] = append(s.out[l.From], k)
	}
	return s
}

// reset forgets what was placed.
func (s *serial) reset() {
	n := len(s.p.Tasks)
	s.used = make([][]int, len(s.p.Capacity))
	for r := range s.used {
		s.used[r] = make([]int, s.p.Horizon)
	}
	s.plan = Plan{Start: make([]int, n), Sanding: make([]int, len(s.p.Links))}
	for k := range s.plan.Sanding {
		s.plan.Sanding[k] = -1
	}
	s.done, s.open = make([]bool, n), make([]int, n)
	for i, t := range s.p.Tasks {
		s.open[i] = len(s.in[i])
		if at := t.fixed(); at >= 0 && at+t.Duration <= s.p.Horizon {
			s.take(t, at) // nothing else may have its hands
		}
	}
}

// fixed is the only start that a task may have, −1 if it has a choice.
func (t Task) fixed() int {
	if len(t.Allowed) == 1 && t.Allowed[0].First == t.Allowed[0].Last && t.Allowed[0].First >= 0 {
		return t.Allowed[0].First
	}
	return -1
}

// pushes is how often a task may be put later for what follows it before the
// order is given up.
const pushes = 400

// run places the tasks in the order of rank, the least first of those whose
// predecessors stand. It returns false, and the task that found no place, if
// there is none.
func (s *serial) run(rank []float64, from []int) (ok bool, stuck int) {
	copy(s.from, from)
	for range pushes {
		moved, stuck := s.once(rank)
		if moved < 0 {
			return stuck < 0, stuck
		}
	}
	return false, -1
}

// once places all tasks; moved is a task whose from was raised, so that all
// begins anew.
func (s *serial) once(rank []float64) (moved, stuck int) {
	s.reset()
	ready := make([]int, 0, len(s.p.Tasks))
	for i, n := range s.open {
		if n == 0 {
			ready = append(ready, i)
		}
	}
	for len(ready) > 0 {
		best := 0
		for k, i := range ready {
			if rank[i] < rank[ready[best]] {
				best = k
			}
		}
		i := ready[best]
		ready = slices.Delete(ready, best, best+1)
		if moved, ok := s.place(i); !ok {
			return moved, i
		}
		for _, k := range s.out[i] {
			j := s.p.Links[k].To
			if s.open[j]--; s.open[j] == 0 {
				ready = append(ready, j)
			}
		}
	}
	return -1, -1
}

// end is when a placed task ends.
func (s *serial) end(i int) int { return s.plan.Start[i] + s.p.Tasks[i].Duration }

// place puts task i at its earliest start, with the sandings that takes. If there
// is none because windows close too soon, the predecessor that must end later is
// moved, or −1 if none can help.
func (s *serial) place(i int) (moved int, ok bool) {
	t := s.p.Tasks[i]
	if at := t.fixed(); at >= 0 && at+t.Duration <= s.p.Horizon {
		s.give(t, at)
	}
	start := s.from[i]
	for _, k := range s.in[i] {
		start = max(start, s.p.Links[k].Opens(s.end(s.p.Links[k].From)))
	}
	late := -1 // a link that had closed
	first := -1
	for at := s.fit(t, start); at < Never; at = s.fit(t, at+1) {
		if first < 0 {
			first = at
		}
		if day := s.clash(i, at); day >= 0 {
			for at+1 < s.p.Horizon && s.p.Day[at+1] == day {
				at++
			}
			continue
		}
		k, good := s.sandings(i, at)
		if good {
			s.take(t, at)
			s.plan.Start[i], s.done[i] = at, true
			s.plan.Makespan = max(s.plan.Makespan, at+t.Duration)
			return -1, true
		}
		if late < 0 {
			late = k
		}
		if s.p.Links[k].Sanding == nil {
			break // it only gets later
		}
	}
	if late < 0 {
		return -1, false
	}
	l := s.p.Links[late]
	from := l.From
	need := earliest(l.Closes, first, s.end(from), s.p.Horizon) - s.p.Tasks[from].Duration
	if need <= s.from[from] || need <= s.plan.Start[from] {
		need = s.plan.Start[from] + 1
	}
	if s.p.Tasks[from].next(need) >= s.p.Horizon {
		return -1, false
	}
	s.from[from] = need
	return from, false
}

// clash is the day of at if a task that must be apart from i starts on it, −1
// else.
func (s *serial) clash(i, at int) int {
	for _, j := range s.apart[i] {
		if s.done[j] && s.p.Day[s.plan.Start[j]] == s.p.Day[at] {
			return s.p.Day[at]
		}
	}
	return -1
}

// sandings finds place for the sandings that a start of task i needs, and takes
// it; else the link that has none.
func (s *serial) sandings(i, at int) (link int, ok bool) {
	var took []int
	for _, k := range s.in[i] {
		l := s.p.Links[k]
		end := s.end(l.From)
		s.plan.Sanding[k] = -1
		if at <= l.Closes(end) {
			continue
		}
		found := -1
		if l.Sanding != nil {
			from := l.Opens(end)
			if s.sandFrom != nil {
				from = max(from, s.sandFrom[k])
			}
			for x := s.fit(*l.Sanding, from); x+l.Sanding.Duration <= at; x = s.fit(*l.Sanding, x+1) {
				if at <= l.Reopened(x+l.Sanding.Duration) {
					found = x
					break
				}
			}
		}
		if found < 0 {
			for _, k := range took {
				s.give(*s.p.Links[k].Sanding, s.plan.Sanding[k])
				s.plan.Sanding[k] = -1
			}
			return k, false
		}
		s.plan.Sanding[k] = found
		s.take(*l.Sanding, found)
		took = append(took, k)
	}
	// The start itself must still fit beside its sandings.
	if len(took) > 0 && s.fit(s.p.Tasks[i], at) != at {
		for _, k := range took {
			s.give(*s.p.Links[k].Sanding, s.plan.Sanding[k])
			s.plan.Sanding[k] = -1
		}
		return took[0], false
	}
	return -1, true
}

// fit returns the first start from from on that is allowed and finds what it
// needs, Never without one.
func (s *serial) fit(t Task, from int) int {
	at := t.next(max(from, 0))
next:
	for at < Never && at+t.Duration <= s.p.Horizon {
		for r, n := range t.Needs {
			if n == 0 {
				continue
			}
			for h := at + t.Duration - 1; h >= at; h-- {
				if s.used[r][h]+n > s.p.Capacity[r][h] {
					at = t.next(h + 1)
					continue next
				}
			}
		}
		return at
	}
	return Never
}

func (s *serial) take(t Task, at int) { s.add(t, at, 1) }
func (s *serial) give(t Task, at int) { s.add(t, at, -1) }

func (s *serial) add(t Task, at, sign int) {
	for r, n := range t.Needs {
		for h := at; h < at+t.Duration; h++ {
			s.used[r][h] += sign * n
		}
	}
}

// Serial places tasks one after another by their latest starts, then improves
// the plan by other orders and by putting tasks off, for rounds tries or until ctx
// ends; told, if not nil, hears the share done. Not complete: it may miss a plan and
// the best one. The same seed gives the same plan for the same rounds.
func Serial(ctx context.Context, p Problem, seed uint64, rounds int, told func(done float64)) Result {
	return Improve(ctx, p, Plan{}, seed, rounds, told)
}

// Improve is Serial from a plan that is known, which is kept if nothing is better;
// one without starts is none.
func Improve(ctx context.Context, p Problem, known Plan, seed uint64, rounds int, told func(done float64)) Result {
	if p.Cycle() != nil {
		return Result{Proven: true}
	}
	n := len(p.Tasks)
	s := newSerial(p)
	rank, from := p.latestStarts(), make([]int, n)
	var out Result
	var best [3]int
	keep := func() bool {
		if ok, _ := s.run(rank, from); !ok {
			return false
		}
		score := p.Score(s.plan)
		if out.Found && slices.Compare(score[:], best[:]) >= 0 {
			return score == best
		}
		out.Plan, out.Found, best = s.plan, true, score
		return true
	}
	if known.Start != nil {
		out.Plan, out.Found, best = known, true, p.Score(known)
		for i, at := range known.Start {
			rank[i] = float64(at)
		}
	}
	keep()
	r := rand.New(rand.NewPCG(seed, 0))
	first := p.latestStarts()
	bestRank, bestFrom := slices.Clone(rank), slices.Clone(from)
	for round := range rounds {
		if ctx.Err() != nil {
			break
		}
		if told != nil && round%16 == 0 {
			told(float64(round) / float64(rounds))
		}
		copy(rank, bestRank)
		copy(from, bestFrom)
		if round%10 == 9 { // from another side
			for i := range rank {
				rank[i], from[i] = first[i]*(0.6+0.8*r.Float64()), 0
			}
		}
		for range 1 + r.IntN(3) {
			i := r.IntN(n)
			switch r.IntN(4) {
			case 0:
				j := r.IntN(n)
				rank[i], rank[j] = rank[j], rank[i]
			case 1:
				rank[i] *= 0.5 + r.Float64()
			case 2:
				from[i] = 0
			default:
				if out.Found {
					from[i] = out.Plan.Start[i] + 1 + r.IntN(24)
				}
			}
		}
		if keep() {
			copy(bestRank, rank)
			copy(bestFrom, from)
		}
	}
	return out
}

// latestStarts ranks tasks by how late they could start if there were hands
// enough, so that the longest way to the end goes first.
func (p Problem) latestStarts() []float64 {
	hi := make([]int, len(p.Tasks))
	for i, t := range p.Tasks {
		hi[i] = p.Horizon - t.Duration
	}
	for range p.Tasks {
		moved := false
		for _, l := range p.Links {
			d := p.Tasks[l.From].Duration
			if v := latest(l.Opens, hi[l.To], hi[l.From]+d) - d; v < hi[l.From] {
				hi[l.From], moved = v, true
			}
		}
		if !moved {
			break
		}
	}
	out := make([]float64, len(hi))
	for i, h := range hi {
		out[i] = float64(h)
	}
	return out
}

// Follow places the tasks in the order of rank, none before from and no sanding of a
// link before sandFrom (nil for no such bounds); ok is false if that finds no plan.
func Follow(p Problem, rank []float64, from, sandFrom []int) (plan Plan, ok bool) {
	if from == nil {
		from = make([]int, len(p.Tasks))
	}
	s := newSerial(p)
	s.sandFrom = sandFrom
	ok, _ = s.run(rank, from)
	return s.plan, ok
}

// Stuck is a task that finds no place in the usual order, −1 if all do.
func Stuck(p Problem) int {
	s := newSerial(p)
	ok, stuck := s.run(p.latestStarts(), make([]int, len(p.Tasks)))
	if ok {
		return -1
	}
	return stuck
}
