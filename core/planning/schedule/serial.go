package schedule

import (
	"container/heap"
	"slices"
)

// serial places one task after another at the earliest start that is left. Where a window
// closes before what must come within it, what opened it is drawn up to it, or a sanding
// is placed.
type serial struct {
	*board
	in, out  [][]int // of a task: the links that come to it, and go from it
	fixed    []int
	sessions map[int][]int

	from     []int // the earliest start that a task is given beside its links
	open     []int // links from tasks that are not placed
	sand     []int
	sandCrew [][]int
	wanted   [][]int // hands of a plan before
	sandOnly []bool  // of a link: it is sanded rather
	prior    []int   // of a link: that whose sanding goes before its own, −1 for none
	queue    queue
	trail    []event
	draws    int   // that may still be tried for a start
	left     int   // and for all
	missed   []int // how often a task was not placed
	mending  bool  // what was missed is mended for, and nothing drawn up to it
}

// event is something that was done to the board: task or sanding i put at a slot, or taken
// off it.
type event struct {
	i, at     int
	crew      []int
	sand, off bool
}

func newSerial(p *Problem) *serial {
	n := len(p.Tasks)
	s := &serial{board: newBoard(p), in: make([][]int, n), out: make([][]int, n), fixed: make([]int, n),
		sessions: map[int][]int{}, from: make([]int, n), open: make([]int, n), missed: make([]int, n),
		sand: make([]int, len(p.Links)), sandCrew: make([][]int, len(p.Links)), wanted: make([][]int, n),
		sandOnly: make([]bool, len(p.Links)), prior: slices.Repeat([]int{-1}, len(p.Links))}
	for k, l := range p.Links {
		if l.Before > 0 {
			s.prior[l.Before-1] = k
		}
		s.in[l.To] = append(s.in[l.To], k)
		s.out[l.From] = append(s.out[l.From], k)
	}
	for i := range p.Tasks {
		s.fixed[i] = p.Tasks[i].fixed()
		if g := p.Tasks[i].Session; g > 0 {
			s.sessions[g] = append(s.sessions[g], i)
		}
	}
	return s
}

// fixed is the only start that a task may have, −1 if it has a choice.
func (t *Task) fixed() int {
	if len(t.Allowed) == 1 && t.Allowed[0].First == t.Allowed[0].Last && t.Allowed[0].First >= 0 {
		return t.Allowed[0].First
	}
	return -1
}

// begin forgets what was placed; nothing else may have the hands of fixed tasks.
func (s *serial) begin(rank []float64, from []int) {
	s.board.reset()
	copy(s.from, from)
	for k := range s.sand {
		s.sand[k] = -1
	}
	s.left = 500 + 15*len(s.p.Tasks)
	clear(s.missed)
	s.queue.rank, s.queue.tasks, s.trail = rank, s.queue.tasks[:0], s.trail[:0]
	for i := range s.open {
		s.open[i] = len(s.in[i])
	}
	for i, at := range s.fixed {
		if t := &s.p.Tasks[i]; at >= 0 && at+t.Duration <= s.p.Horizon && s.fit(t, -1, at, 0) == at {
			s.put(i, at)
		}
	}
}

// run places the tasks in the order of rank, the least first of those whose
// predecessors stand, none before from.
func (s *serial) run(rank []float64, from []int) {

	s.begin(rank, from)
	s.fill()
}

// fill places what is not placed.
func (s *serial) fill() {
	for i, at := range s.start {
		if at < 0 {
			s.enqueue(i)
		}
	}
	for len(s.queue.tasks) > 0 {
		i := heap.Pop(&s.queue).(int)
		if s.start[i] >= 0 || s.open[i] > 0 {
			continue
		}
		s.place(i)
		s.hot(i)
		s.together(i)
	}
	for again := true; again; { // what was kept waits for what has no place
		again = false
		for i, at := range s.start {
			if at >= 0 && s.open[i] > 0 && s.fixed[i] < 0 {
				s.lift(i)
				again = true
			}
		}
	}
}

// enqueue lets a task wait for its place if all before it stand.
func (s *serial) enqueue(i int) {
	if s.open[i] == 0 && s.start[i] < 0 {
		heap.Push(&s.queue, i)
	}
}

// hot places what must follow a task at once.
func (s *serial) hot(i int) {
	for _, k := range s.out[i] {
		if l := &s.p.Links[k]; l.Hot && !l.Early && s.start[l.To] < 0 && s.open[l.To] == 0 {
			s.place(l.To)
		}
	}
}

// between two tasks of a session lies no more than an hour of quarters.
const mateSlots = 4

// together places, right after a task, another one of its session.
func (s *serial) together(i int) {
	for i >= 0 && s.start[i] >= 0 && s.p.Tasks[i].Session > 0 {
		next := -1
		for _, j := range s.sessions[s.p.Tasks[i].Session] {
			if s.start[j] < 0 && s.open[j] == 0 {
				lo := max(s.least(j), s.end(i))
				if lo <= s.end(i)+mateSlots && s.fitBy(&s.p.Tasks[j], j, lo, s.end(i)+mateSlots, 0) < Never {
					next = j
					break
				}
			}
		}
		if next >= 0 {
			s.place(next)
		}
		i = next
	}
}

// end is when a placed task ends.
func (s *serial) end(i int) int { return s.start[i] + s.p.Tasks[i].Duration }

// least is the earliest start of a task by the links to it.
func (s *serial) least(i int) int {
	lo := s.from[i]
	for _, k := range s.in[i] {
		lo = max(lo, s.p.Links[k].Opens(s.end(s.p.Links[k].From)))
	}
	return lo
}

// place puts task i at its earliest start that all links to it hold for, or leaves it out.
func (s *serial) place(i int) {
	if s.missed[i] >= 2*mostMissed {
		return
	}
	t := &s.p.Tasks[i]
	lo, first := s.least(i), -1
	s.trail, s.mending = s.trail[:0], s.missed[i] >= mostMissed
	s.missed[i]++
	for n := range mostTries {
		at := s.fit(t, i, lo, 0)
		if at >= Never {
			return
		}
		if first < 0 {
			first = at
		}
		s.draws = mostDraws
		next := s.hold(i, at, at-first, 0)
		if next == at {
			if next = s.follows(i, at); next == at || at-first > hotPatience {
				s.missed[i]--
				s.put(i, at)
				return
			}
		}
		s.undo(0)
		lo = max(next, at+n) // by ever longer steps
	}
}

// How often a start is looked for that everything before it can be drawn up to; how far
// back what comes before is drawn, and how much of it for one start; for all it is a multiple
// of the tasks.
const (
	mostTries = 50
	// mostMissed is how often what comes before a task is drawn up to it in vain.
	mostMissed = 2
	mostDepth  = 12
	mostDraws  = 24
	// hotPatience is how much later a task starts where what must follow at once has a place.
	hotPatience = 21 * 24 * 4
)

// follows is a start if what must follow task i at once has a place after it, else a later one.
func (s *serial) follows(i, at int) int {
	end := at + s.p.Tasks[i].Duration
	for _, k := range s.out[i] {
		l := &s.p.Links[k]
		if !l.Hot {
			continue
		}
		t, since := &s.p.Tasks[l.To], end
		if l.Early {
			s.start[i] = at // so that its end is known
			t, since = l.Sanding, s.since(k)
			s.start[i] = -1
		}
		if s.fitBy(t, -1, l.Opens(end), l.Closes(since), 0) == Never {
			return at + max(1, s.p.Tasks[i].Duration/2)
		}
	}
	return at
}

// hold makes the links to task i hold for a start: what opened a closed window is drawn up
// to it, or a sanding placed. Else it returns a later start to try.
func (s *serial) hold(i, at, waited, depth int) (next int) {
	var closed, need []int
	for _, k := range s.in[i] {
		if l := &s.p.Links[k]; s.start[l.From] >= 0 && at > l.Closes(s.since(k)) {
			closed = append(closed, k)
		}
	}
	// What comes last is drawn up first and makes room for what is before it.
	slices.SortStableFunc(closed, func(a, b int) int { return s.start[s.p.Links[b].From] - s.start[s.p.Links[a].From] })
	for _, k := range closed {
		l := &s.p.Links[k]
		if s.start[l.From] < 0 || at <= l.Closes(s.since(k)) {
			continue // drawn up with another, or off for it
		}
		m := s.p.Mend(k)
		by := &s.p.Links[m]
		later := Never
		if by.Sanding == nil || !s.sandOnly[m] {
			mark := len(s.trail)
			var ok bool
			if ok, later = s.draw(k, at, depth); ok {
				continue
			}
			s.undo(mark)
		}
		if by.Sanding == nil || waited < by.Patience && later < Never {
			return max(at+max(1, s.p.Tasks[i].Duration/2), later)
		}
		if !slices.Contains(need, m) {
			need = append(need, m)
		}
	}
	for _, m := range need {
		if later := s.sandBefore(i, m, at); later > at {
			return later
		}
	}
	if len(closed) > 0 && s.fitBy(&s.p.Tasks[i], i, at, at, 0) == Never { // its hands went to what is before it
		return at + 1
	}
	return at
}

// put places a task, and takes off what stands too early after it.
func (s *serial) put(i, at int) {
	s.set(i, at, s.wanted[i])
	for _, k := range s.in[i] {
		if l := &s.p.Links[k]; l.Early && s.sand[k] >= 0 && s.sand[l.Before-1] < 0 {
			s.unsetSand(k)
		}
	}
	for _, k := range s.out[i] {
		if l := &s.p.Links[k]; l.Early && s.sand[k] >= 0 && s.sand[k] < l.Opens(s.end(i)) {
			s.unsetSand(k)
			if s.start[l.To] >= 0 && s.sand[l.Before-1] >= 0 {
				s.lift(l.To)
			}
		}
	}
	s.eager(i)
	for _, k := range s.out[i] {
		to := s.p.Links[k].To
		if s.start[to] >= 0 && s.fixed[to] < 0 && !s.keeps(k) {
			s.lift(to)
		}
		s.enqueue(to)
	}
}

// eager places what is done early after a task, if what follows does not stand yet.
func (s *serial) eager(i int) {
	for _, k := range s.out[i] {
		l := &s.p.Links[k]
		if !l.Early || s.sand[k] >= 0 || s.start[l.To] >= 0 {
			continue
		}
		if f := s.fit(l.Sanding, -1, l.Opens(s.end(i)), 0); f < Never {
			s.setSand(k, f, nil)
		}
	}
}

// lift takes a task off, with its sandings, to be placed anew.
func (s *serial) lift(i int) {
	for _, k := range s.in[i] {
		if s.sand[k] >= 0 && !s.p.Links[k].Early {
			s.unsetSand(k)
		}
	}
	for _, k := range s.out[i] {
		if s.sand[k] >= 0 && s.p.Links[k].Early {
			s.unsetSand(k)
		}
	}
	s.unset(i)
	s.enqueue(i)
}
