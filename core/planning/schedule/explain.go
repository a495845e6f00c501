package schedule

import "slices"

// Placed is a plan that can be asked what keeps its tasks where they are.
type Placed struct{ s *serial }

// On puts a plan on the board.
func On(p *Problem, plan Plan) Placed {
	s := newSerial(p)
	s.board.reset()
	for k := range s.sand {
		s.sand[k] = -1
	}
	for i, at := range plan.Start {
		if at < 0 {
			continue
		}
		s.start[i], s.crew[i] = at, slices.Clone(of(plan.Crew, i))
		s.take(&p.Tasks[i], at, s.crew[i])
	}
	for k, at := range plan.Sanding {
		if at >= 0 {
			s.sand[k], s.sandCrew[k] = at, slices.Clone(of(plan.SandCrew, k))
			s.take(p.Links[k].Sanding, at, s.sandCrew[k])
		}
	}
	return Placed{s}
}

// Ask is what is left out of account when the earliest start of a task is looked for.
type Ask struct {
	Skip  Skip
	Links bool // all links to it
	Link  int  // one more than the link that is left out, 0 for none
	Held  bool // windows that it opens and that must not close before what follows
}

// Earliest is the first start that task i could have with all others where they are, Never
// without one. Windows before it are not looked at: what starts earlier keeps them.
func (q Placed) Earliest(i int, a Ask) int {
	s := q.s
	t := &s.p.Tasks[i]
	if at := s.start[i]; at >= 0 {
		s.give(t, at, s.crew[i])
		defer s.take(t, at, s.crew[i])
	}
	lo := q.opens(i, a)
	for _, k := range s.out[i] {
		l := &s.p.Links[k]
		to := s.start[l.To]
		if a.Held || to < 0 || s.sand[s.p.Mend(k)] >= 0 || l.Closes(s.p.Horizon) < to {
			continue
		}
		lo = max(lo, earliest(l.Closes, to, 0, s.p.Horizon)-t.Duration)
	}
	return s.fit(t, i, lo, a.Skip)
}

// opens is when the links to a task and the sandings before it let it start; Never if what
// comes before it has no place.
func (q Placed) opens(i int, a Ask) int {
	s, lo := q.s, 0
	for _, k := range s.in[i] {
		l := &s.p.Links[k]
		if a.Links || a.Link == k+1 {
			continue
		}
		if s.start[l.From] < 0 {
			return Never
		}
		lo = max(lo, l.Opens(s.end(l.From)))
		if s.sand[k] >= 0 && l.Before == 0 {
			lo = max(lo, l.dried(s.sand[k]+l.Sanding.Duration))
		}
	}
	return lo
}

// Opened is the link, or the sanding on it, that lets task i start last, −1 without one.
func (q Placed) Opened(i int) (link int, sanded bool) {
	s, lo := q.s, -1
	link = -1
	for _, k := range s.in[i] {
		l := &s.p.Links[k]
		if s.start[l.From] < 0 {
			continue
		}
		if at := l.Opens(s.end(l.From)); at > lo {
			lo, link, sanded = at, k, false
		}
		if s.sand[k] >= 0 && l.Before == 0 {
			if at := l.dried(s.sand[k] + l.Sanding.Duration); at > lo {
				lo, link, sanded = at, k, true
			}
		}
	}
	return link, sanded
}

// Holds is a link from task i that would be broken if it started at a slot: what follows
// would come too late; −1 without one.
func (q Placed) Holds(i, at int) int {
	s := q.s
	for _, k := range s.out[i] {
		l := &s.p.Links[k]
		if to := s.start[l.To]; to >= 0 && s.sand[s.p.Mend(k)] < 0 && to > l.Closes(at+s.p.Tasks[i].Duration) {
			return k
		}
	}
	return -1
}

// Closed lists the links to a task whose windows are closed at a start.
func (q Placed) Closed(i, at int) (out []int) {
	for _, k := range q.s.in[i] {
		l := &q.s.p.Links[k]
		if q.s.start[l.From] >= 0 && at > l.Closes(q.s.end(l.From)) {
			out = append(out, k)
		}
	}
	return out
}
