package schedule

import (
	"slices"
)

func (s *serial) set(i, at int, wanted []int) {
	t := &s.p.Tasks[i]
	s.start[i] = at
	s.crew[i] = s.who(t, at, wanted, s.crew[i])
	s.take(t, at, s.crew[i])
	for _, k := range s.out[i] {
		s.open[s.p.Links[k].To]--
	}
	s.trail = append(s.trail, event{i: i, at: at})
}

func (s *serial) unset(i int) {
	s.trail = append(s.trail, event{i: i, at: s.start[i], crew: slices.Clone(s.crew[i]), off: true})
	s.give(&s.p.Tasks[i], s.start[i], s.crew[i])
	s.start[i], s.crew[i] = -1, s.crew[i][:0]
	for _, k := range s.out[i] {
		s.open[s.p.Links[k].To]++
	}
}

func (s *serial) setSand(k, at int, wanted []int) {
	t := s.p.Links[k].Sanding
	s.sand[k], s.sandCrew[k] = at, s.who(t, at, wanted, s.sandCrew[k])
	s.take(t, at, s.sandCrew[k])
	s.trail = append(s.trail, event{i: k, at: at, sand: true})
}

func (s *serial) unsetSand(k int) {
	s.trail = append(s.trail, event{i: k, at: s.sand[k], crew: slices.Clone(s.sandCrew[k]), sand: true, off: true})
	s.give(s.p.Links[k].Sanding, s.sand[k], s.sandCrew[k])
	s.sand[k] = -1
}

// undo takes back what was done since a mark of the trail, the last first.
func (s *serial) undo(mark int) {
	for n := len(s.trail) - 1; n >= mark; n-- {
		e := s.trail[n]
		switch {
		case e.sand && e.off:
			s.setSand(e.i, e.at, e.crew)
		case e.sand:
			s.unsetSand(e.i)
		case e.off:
			s.set(e.i, e.at, e.crew)
		default:
			s.unset(e.i)
			s.enqueue(e.i)
		}
	}
	s.trail = s.trail[:mark]
}

// keeps tells whether a link between two placed tasks holds.
func (s *serial) keeps(k int) bool {
	l := &s.p.Links[k]
	end, start := s.end(l.From), s.start[l.To]
	if start < l.Opens(end) {
		return false
	}
	if l.Early {
		return true
	}
	if m := s.p.Mend(k); s.sand[m] >= 0 {
		return s.sand[m] >= l.Opens(end)
	}
	return start <= l.Closes(s.since(k))
}

// since is the end that the window of a link counts from: that of its task, or of the sanding
// that renewed it.
func (s *serial) since(k int) int {
	last := k
	for r := s.p.Links[k].Renewed - 1; r >= 0; r = s.p.Links[r].Renewed - 1 {
		if s.sand[r] >= 0 {
			return s.sand[r] + s.p.Links[r].Sanding.Duration
		}
		last = r
	}
	return s.end(s.p.Links[last].From)
}

// plan is what is placed.
func (s *serial) plan() Plan {
	p := Plan{Start: slices.Clone(s.start), Sanding: slices.Clone(s.sand), Crew: make([][]int, len(s.start)),
		SandCrew: make([][]int, len(s.sand))}
	for i, at := range s.start {
		p.Crew[i] = slices.Clone(s.crew[i])
		if at >= 0 {
			p.Makespan = max(p.Makespan, s.end(i))
		}
	}
	for k, at := range s.sand {
		if at >= 0 {
			p.SandCrew[k] = slices.Clone(s.sandCrew[k])
		}
	}
	return p
}

// restore places what a plan had, where it still goes.
func (s *serial) restore(known Plan) {
	order := make([]int, 0, len(known.Start))
	for i, at := range known.Start {
		s.wanted[i] = of(known.Crew, i)
		if at >= 0 && s.fixed[i] < 0 {
			order = append(order, i)
		}
	}
	slices.SortStableFunc(order, func(a, b int) int { return known.Start[a] - known.Start[b] })
	for _, i := range order {
		mark := len(s.trail)
		if !s.restoreOne(known, i) {
			s.undo(mark)
		}
	}
	for _, i := range order {
		if s.start[i] >= 0 {
			s.eager(i)
		}
	}
}

func (s *serial) restoreOne(known Plan, i int) bool {
	at := known.Start[i]
	if at < s.from[i] {
		return false
	}
	for _, k := range s.in[i] {
		if known.Sanding[k] < 0 {
			continue
		}
		if s.fitBy(s.p.Links[k].Sanding, -1, known.Sanding[k], known.Sanding[k], 0) == Never {
			return false
		}
		s.setSand(k, known.Sanding[k], of(known.SandCrew, k))
	}
	if s.fitBy(&s.p.Tasks[i], i, at, at, 0) == Never {
		return false
	}
	s.set(i, at, s.wanted[i])
	for _, k := range s.in[i] {
		if s.start[s.p.Links[k].From] >= 0 && !s.keeps(k) {
			return false
		}
	}
	for _, k := range s.out[i] {
		s.enqueue(s.p.Links[k].To)
	}
	return true
}
