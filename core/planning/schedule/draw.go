package schedule

import (
	"slices"
)

// draw puts what opens link k as late as lets the task after it start at a slot; else it
// returns a later one to try.
func (s *serial) draw(k, at, depth int) (ok bool, later int) {
	l := &s.p.Links[k]
	i := l.From
	s.draws, s.left = s.draws-1, s.left-1
	if s.mending || s.fixed[i] >= 0 || depth >= mostDepth || s.left < 0 || s.since(k) != s.end(i) {
		return false, Never
	}
	if s.draws < 0 {
		return false, at + 1
	}
	t := &s.p.Tasks[i]
	end := s.end(i)
	s.lift(i)
	lo := max(s.least(i), earliest(l.Closes, at, end, at)-t.Duration)
	hi := at
	for _, q := range s.out[i] {
		if o := &s.p.Links[q]; o.To == l.To {
			hi = min(hi, latest(o.Opens, at, at))
		}
	}
	hi -= t.Duration
	if !s.early(i, lo) {
		return false, Never
	}
	for from := hi; from >= lo; {
		f := s.fitBy(t, i, from, hi, 0)
		if f < Never && s.early(i, f) && s.follows(i, f) == f {
			mark := len(s.trail)
			if s.hold(i, f, 0, depth+1) == f {
				s.put(i, f)
				return true, at
			}
			s.undo(mark)
		}
		if from == lo {
			break
		}
		from = max(lo, from-max(1, t.Duration/2, (hi-lo)/8))
	}
	f := s.fit(t, i, max(lo, hi+1), 0)
	if f >= Never {
		return false, Never
	}
	return false, max(at+1, l.Opens(f+t.Duration))
}

// early tells whether what is placed after task i keeps its place if that starts at a slot.
func (s *serial) early(i, at int) bool {
	end := at + s.p.Tasks[i].Duration
	for _, k := range s.out[i] {
		l := &s.p.Links[k]
		// What waits for something that has no place yet moves anyhow.
		if start := s.start[l.To]; start >= 0 && start < l.Opens(end) && !s.waits(l.To, i) {
			return false
		}
	}
	return true
}

// waits tells whether a task waits for another than i that has no place.
func (s *serial) waits(j, i int) bool {
	return slices.ContainsFunc(s.in[j], func(k int) bool {
		from := s.p.Links[k].From
		return from != i &&
			s.start[from] < 0
	})
}

// sandBefore places the sanding of link m, the last before a start of task i; else it
// returns a later start to try.
func (s *serial) sandBefore(i, m, at int) (later int) {
	l := &s.p.Links[m]
	t := l.Sanding
	if l.Early && s.sand[m] >= 0 {
		if s.sand[m]+t.Duration > at {
			return Never
		}
		return at
	}
	opens := 0
	for _, q := range s.in[i] {
		if s.p.Mend(q) == m {
			opens = max(opens, s.p.Links[q].Opens(s.end(s.p.Links[q].From)))
		}
	}
	lo := max(opens, earliest(l.Reopened, at, 0, at)-t.Duration)
	hi := latest(l.dried, at, at) - t.Duration
	if l.Early {
		lo, hi = max(opens, s.fit(t, -1, opens, 0)), min(hi, max(opens, s.fit(t, -1, opens, 0)))
	}
	for from := hi; from >= lo; {
		if f := s.fitBy(t, -1, from, hi, 0); f < Never {
			mark := len(s.trail)
			s.setSand(m, f, nil)
			if s.prior[m] < 0 || s.sandBefore(i, s.prior[m], f) == f {
				return at
			}
			s.undo(mark)
		}
		if from == lo {
			break
		}
		from = max(lo, from-max(1, t.Duration/2, (hi-lo)/8))
	}
	f := s.fit(t, -1, max(lo, hi+1), 0)
	if f >= Never {
		return Never
	}
	return max(at+1, l.dried(f+t.Duration))
}
