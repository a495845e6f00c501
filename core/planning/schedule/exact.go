package schedule

import (
	"context"
	"slices"
)

// exact searches plans by branch and bound: starts are narrowed by the links and
// by what is sure to run at an hour, then the task with the fewest allowed starts left is tried
// at its earliest start, and after it; where fewer sandings are looked for each is
// first decided on. Complete: what it does not find is not there.
type exact struct {
	p     Problem
	vars  []Task   // the tasks, then the sandings of links that may have one
	sand  []int    // of a link: its variable, −1 without one
	fits  [][]int  // of a variable: how many allowed starts there are before each hour
	work  [][]int  // of a resource: what there is before each hour, where anything may run
	order []int    // room for workFits
	left  []int    // room for narrowHands
	rooms []window // room for what is searched at each depth
	nodes int      // left
	ctx   context.Context
	best  Plan
	found bool
	// Plans must end by bound with at most most sandings; one that is found
	// lowers the one or, with fewer set, the other.
	bound, most int
	fewer       bool
}

// window is the earliest and the latest start of every variable; on says of a
// sanding that it must be, or must not: 1, −1, 0 not decided.
type window struct {
	lo, hi []int
	on     []int8
}

// copied is w in the room of a depth.
func (e *exact) copied(w window, depth int) window {
	if depth == len(e.rooms) {
		n := len(w.lo)
		e.rooms = append(e.rooms, window{make([]int, n), make([]int, n), make([]int8, n)})
	}
	to := e.rooms[depth]
	copy(to.lo, w.lo)
	copy(to.hi, w.hi)
	copy(to.on, w.on)
	return to
}

func newExact(ctx context.Context, p Problem, nodes int) *exact {
	e := &exact{p: p, vars: append([]Task(nil), p.Tasks...), nodes: nodes, ctx: ctx, most: len(p.Links)}
	for _, l := range p.Links {
		if l.Sanding == nil {
			e.sand = append(e.sand, -1)
			continue
		}
		e.sand = append(e.sand, len(e.vars))
		e.vars = append(e.vars, *l.Sanding)
	}
	e.count()
	return e
}

// starts is how many starts a variable has left.
func (e *exact) starts(w window, i int) int { return e.fits[i][w.hi[i]+1] - e.fits[i][w.lo[i]] }

// count sums up what there is of each resource at the hours at which any variable
// may run.
func (e *exact) count() {
	runs := make([]bool, e.p.Horizon+1)
	for _, t := range e.vars {
		for _, r := range t.Allowed {
			for h := max(0, r.First); h < min(r.Last+t.Duration, e.p.Horizon); h++ {
				runs[h] = true
			}
		}
	}
	for _, t := range e.vars {
		sum := make([]int, e.p.Horizon+2)
		for h := range e.p.Horizon + 1 {
			sum[h+1] = sum[h]
			if t.next(h) == h {
				sum[h+1]++
			}
		}
		e.fits = append(e.fits, sum)
	}
	for _, capacity := range e.p.Capacity {
		sum := make([]int, e.p.Horizon+1)
		for h := range e.p.Horizon {
			sum[h+1] = sum[h]
			if runs[h] {
				sum[h+1] += capacity[h]
			}
		}
		e.work = append(e.work, sum)
	}
	e.order = make([]int, len(e.vars))
}

func (e *exact) root() window {
	n := len(e.vars)
	w := window{make([]int, n), make([]int, n), make([]int8, n)}
	for i, t := range e.vars {
		w.hi[i] = e.p.Horizon - t.Duration
		if i < len(e.p.Tasks) {
			w.on[i] = 1
		}
	}
	return w
}

// run looks for the best plan that ends by bound with at most most sandings: the
// earliest end, or with fewer set the fewest sandings. complete is false if it
// gave up before it knew.
func (e *exact) run(bound, most int, fewer bool) (complete bool) {
	e.bound, e.most, e.fewer = bound, most, fewer
	return e.search(e.root(), 0)
}

// search looks below w, which it may change.
func (e *exact) search(w window, depth int) bool {
	for {
		if e.nodes--; e.nodes < 0 || e.nodes%256 == 0 && e.ctx.Err() != nil {
			e.nodes = -1
			return false
		}
		if !e.narrow(w) {
			return true
		}
		if v := e.undecided(w); v >= 0 {
			without := e.copied(w, depth)
			without.on[v] = -1
			if !e.search(without, depth+1) {
				return false
			}
			w.on[v] = 1
			continue
		}
		pick := -1
		for i := range e.vars {
			if w.on[i] != 1 || w.lo[i] == w.hi[i] {
				continue
			}
			if pick < 0 || e.starts(w, i) < e.starts(w, pick) {
				pick = i
			}
		}
		if pick < 0 {
			e.keep(w)
			return true
		}
		left := e.copied(w, depth)
		left.hi[pick] = left.lo[pick]
		if !e.search(left, depth+1) {
			return false
		}
		w.lo[pick]++
	}
}

// undecided is a sanding to decide on first, −1 for none.
func (e *exact) undecided(w window) int {
	if !e.fewer {
		return -1
	}
	for _, v := range e.sand {
		if v >= 0 && w.on[v] == 0 {
			return v
		}
	}
	return -1
}

// keep takes over a plan in which all is fixed.
func (e *exact) keep(w window) {
	p := Plan{Start: append([]int(nil), w.lo[:len(e.p.Tasks)]...), Sanding: make([]int, len(e.p.Links))}
	for i, t := range e.p.Tasks {
		p.Makespan = max(p.Makespan, p.Start[i]+t.Duration)
	}
	for k, v := range e.sand {
		p.Sanding[k] = -1
		if v >= 0 && w.on[v] == 1 {
			p.Sanding[k] = w.lo[v]
		}
	}
	e.best, e.found = p, true
	if e.fewer {
		e.most = p.Sandings() - 1
	} else {
		e.bound = p.Makespan - 1
	}
}

// narrow moves the windows in until nothing changes; false if one is empty.
func (e *exact) narrow(w window) bool {
	for i, t := range e.vars {
		if i < len(e.p.Tasks) {
			w.hi[i] = min(w.hi[i], e.bound-t.Duration)
		}
	}
	for changed := true; changed; {
		changed = false
		lo := func(i, v int) {
			if v > w.lo[i] {
				w.lo[i], changed = v, true
			}
		}
		hi := func(i, v int) {
			if v < w.hi[i] {
				w.hi[i], changed = v, true
			}
		}
		on := 0
		for k, l := range e.p.Links {
			if !e.narrowLink(w, k, l, lo, hi) {
				return false
			}
			if v := e.sand[k]; v >= 0 && w.on[v] == 1 {
				on++
			}
		}
		if on > e.most {
			return false
		}
		for i, t := range e.vars {
			if w.on[i] == -1 {
				continue
			}
			lo(i, t.next(w.lo[i]))
			hi(i, t.last(w.hi[i]))
			if w.lo[i] > w.hi[i] {
				if w.on[i] == 1 {
					return false
				}
				w.on[i], changed = -1, true
			}
		}
		if !changed {
			var ok bool
			if changed, ok = e.narrowHands(w); !ok {
				return false
			}
		}
	}
	return e.workFits(w)
}

// workFits reports whether the work of all that must run between two hours fits
// into what there is between them.
func (e *exact) workFits(w window) bool {
	order := e.order[:0]
	for i := range e.vars {
		if w.on[i] == 1 {
			order = append(order, i)
		}
	}
	due := func(i int) int { return w.hi[i] + e.vars[i].Duration }
	slices.SortFunc(order, func(a, b int) int { return due(a) - due(b) })
	for r, sum := range e.work {
		for _, first := range order {
			from, need := w.lo[first], 0
			for k, i := range order {
				if w.lo[i] >= from {
					need += e.vars[i].need(r) * e.vars[i].Duration
				}
				if (k+1 == len(order) || due(order[k+1]) > due(i)) && need > sum[due(i)]-sum[min(from, due(i))] {
					return false
				}
			}
		}
	}
	return true
}

// narrowLink moves the windows of a link's two tasks and its sanding.
func (e *exact) narrowLink(w window, k int, l Link, lo, hi func(i, v int)) bool {
	i, j, v := l.From, l.To, e.sand[k]
	di := e.p.Tasks[i].Duration
	lo(j, l.Opens(w.lo[i]+di))
	hi(i, latest(l.Opens, w.hi[j], w.hi[i]+di)-di)
	if w.lo[i] > w.hi[i] || w.lo[j] > w.hi[j] {
		return false
	}
	if v >= 0 && w.on[v] == 0 {
		if w.lo[j] > l.Closes(w.hi[i]+di) {
			w.on[v] = 1
		} else if w.hi[j] <= l.Closes(w.lo[i]+di) {
			w.on[v] = -1
		}
	}
	if v < 0 || w.on[v] == -1 {
		hi(j, l.Closes(w.hi[i]+di))
		lo(i, earliest(l.Closes, w.lo[j], w.lo[i]+di, w.hi[i]+di)-di)
		return w.lo[i] <= w.hi[i] && w.lo[j] <= w.hi[j]
	}
	ds := e.vars[v].Duration
	lo(v, l.Opens(w.lo[i]+di))
	hi(v, w.hi[j]-ds)
	if w.on[v] == 1 {
		hi(i, latest(l.Opens, w.hi[v], w.hi[i]+di)-di)
		lo(j, w.lo[v]+ds)
		hi(j, l.Reopened(w.hi[v]+ds))
		lo(v, earliest(l.Reopened, w.lo[j], w.lo[v]+ds, w.hi[v]+ds)-ds)
	}
	return w.lo[i] <= w.hi[i] && w.lo[j] <= w.hi[j]
}

// latest returns the last end up to to for which lag gives no more than limit,
// less than any if there is none.
func latest(lag Lag, limit, to int) int {
	over := lag(to) - limit
	if over <= 0 {
		return to
	}
	bad, good := to, to-1
	if over < Never/2 {
		good = to - over // right for a lag of so many slots, and about right for most
	}
	step := 1
	for ; lag(good) > limit; step *= 2 {
		bad, good = good, good-step
		if good < -Never/2 {
			return -Never
		}
	}
	for step = 1; good+step < bad && lag(good+step) <= limit; step *= 2 {
		good += step
	}
	return lastUnder(lag, limit, good, min(bad, good+step))
}

// earliest returns the first end in [from, to] for which lag reaches at least
// limit, to+1 if there is none.
func earliest(lag Lag, limit, from, to int) int {
	short := limit - lag(from)
	if short <= 0 {
		return from
	}
	if lag(to) < limit {
		return to + 1
	}
	bad, good := from, min(to, from+short)
	step := 1
	for ; lag(good) < limit; step *= 2 {
		bad, good = good, min(to, good+step)
	}
	for step = 1; good-step > bad && lag(good-step) >= limit; step *= 2 {
		good -= step
	}
	return lastUnder(lag, limit-1, max(bad, good-step), good) + 1
}

// lastUnder returns the last end from low on, for which lag gives no more than limit, before high, for
// which it gives more.
func lastUnder(lag Lag, limit, low, high int) int {
	for high-low > 1 {
		if mid := low + (high-low)/2; lag(mid) <= limit {
			low = mid
		} else {
			high = mid
		}
	}
	return low
}

// narrowHands moves windows out of hours at which what is sure to run leaves too
// little of a resource.
func (e *exact) narrowHands(w window) (changed, ok bool) {
	for r, capacity := range e.p.Capacity {
		left := append(e.left[:0], capacity...)
		e.left = left
		sure := func(i int) (from, to int) { return w.hi[i], w.lo[i] + e.vars[i].Duration }
		for i, t := range e.vars {
			if w.on[i] != 1 || t.need(r) == 0 {
				continue
			}
			for h, to := sure(i); h < to; h++ {
				if left[h] -= t.need(r); left[h] < 0 {
					return changed, false
				}
			}
		}
		for i, t := range e.vars {
			n := t.need(r)
			if w.on[i] == -1 || n == 0 {
				continue
			}
			from, to := sure(i)
			if w.on[i] != 1 {
				from, to = 0, 0 // takes nothing for sure
			}
			room := func(h int) bool {
				l := left[h]
				if h >= from && h < to {
					l += n
				}
				return l >= n
			}
			fits := func(s int) int { // the first hour at which it does not fit, −1
				for h := s + t.Duration - 1; h >= s; h-- {
					if !room(h) {
						return h
					}
				}
				return -1
			}
			for w.lo[i] <= w.hi[i] {
				h := fits(w.lo[i])
				if h < 0 {
					break
				}
				w.lo[i], changed = t.next(h+1), true
			}
			for w.lo[i] <= w.hi[i] {
				if fits(w.hi[i]) < 0 {
					break
				}
				w.hi[i], changed = t.last(w.hi[i]-1), true
			}
			if w.lo[i] > w.hi[i] {
				if w.on[i] == 1 {
					return changed, false
				}
				w.on[i], changed = -1, true
			}
		}
	}
	return changed, true
}

// need is what a task takes of resource r.
func (t *Task) need(r int) int {
	if r < len(t.Needs) {
		return t.Needs[r]
	}
	return 0
}
