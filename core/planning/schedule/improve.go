package schedule

import (
	"cmp"
	"context"
	"math/rand/v2"
	"slices"
)

// Serial places tasks one after another by their latest starts, then improves
// the plan by other orders and by putting tasks off, for rounds tries or until ctx
// ends; told, if not nil, hears the share done. Not complete: it may miss a plan and
// the best one. The same seed gives the same plan for the same rounds.
func Serial(ctx context.Context, p Problem, seed uint64, rounds int, told func(done float64)) Result {
	return Improve(ctx, p, Plan{}, p.latestStarts(), seed, rounds, told)
}

// Improve is Serial from the order of rank and a plan that is known, which is kept if nothing
// is better; one without starts is none. Found says that no task is left out.
func Improve(ctx context.Context, p Problem, known Plan, rank []float64, seed uint64, rounds int,
	told func(done float64)) Result {
	if p.Cycle() != nil {
		return Result{Proven: true}
	}
	s := newSearch(&p, known, rank, seed)
	for round := range rounds {
		if ctx.Err() != nil {
			break
		}
		if told != nil && round%16 == 0 {
			told(float64(round) / float64(rounds))
		}
		s.vary(round)
		s.try()
	}
	s.justify()
	for n := 0; n < mostUntangled && s.untangle(s.best, s.later); n++ {
		s.try()
	}
	return Result{Plan: s.best, Found: s.best.Left() == 0}
}

// justify places the tasks of the best plan once more in their order, without putting any
// off.
func (s *search) justify() {
	for i, at := range s.best.Start {
		s.rank[i], s.later[i] = float64(at), 0
		if at < 0 {
			s.rank[i] = float64(s.p.Horizon)
		}
	}
	copy(s.sandOnly, s.bestSand)
	s.try()
}

// search varies the order of the best plan so far.
type search struct {
	*serial
	r      *rand.Rand
	chains [][]int
	first  []float64
	best   Plan
	score  Score
	rank   []float64
	later  []int // the earliest start of each task
	// What the best plan was made with.
	bestRank  []float64
	bestLater []int
	bestSand  []bool
}

func newSearch(p *Problem, known Plan, rank []float64, seed uint64) *search {
	s := &search{serial: newSerial(p), r: rand.New(rand.NewPCG(seed, 0)), first: rank, later: make([]int, len(p.Tasks))}
	s.rank = slices.Clone(s.first)
	s.run(s.rank, s.later)
	s.keep()
	s.chains = s.paths()
	s.rank = s.oneByOne(rank)
	s.try()
	if known.Start == nil {
		return s
	}
	if score := p.Score(known); slices.Compare(score[:], s.score[:]) <= 0 {
		s.best, s.score = known, score
	}
	for i, at := range known.Start {
		if at >= 0 {
			s.rank[i] = float64(at)
		}
	}
	s.try()
	return s
}

// paths are the tasks in chains: each continues with the first that waits for it and is not
// in one.
func (s *serial) paths() (out [][]int) {
	in := make([]bool, len(s.p.Tasks))
	for i := range s.p.Tasks {
		if in[i] || s.fixed[i] >= 0 {
			continue
		}
		var path []int
		for next := i; next >= 0; {
			in[next] = true
			path = append(path, next)
			from := next
			next = -1
			for _, k := range s.out[from] {
				if to := s.p.Links[k].To; !in[to] && s.fixed[to] < 0 {
					next = to
					break
				}
			}
		}
		out = append(out, path)
	}
	return out
}

// oneByOne ranks chain after chain, that which is due first by rank before the others.
func (s *search) oneByOne(rank []float64) []float64 {
	order := slices.Clone(s.chains)
	slices.SortStableFunc(order, func(a, b []int) int { return cmp.Compare(rank[a[0]], rank[b[0]]) })
	out := make([]float64, len(rank))
	for n, chain := range order {
		for k, i := range chain {
			out[i] = float64(n) + float64(k)/float64(len(chain)+1)
		}
	}
	return out
}

// keep takes over what is placed.
func (s *search) keep() {
	s.best = s.plan()
	s.score = s.p.Score(s.best)
	s.bestRank, s.bestLater, s.bestSand = slices.Clone(s.rank), slices.Clone(s.later), slices.Clone(s.sandOnly)
}

// try places the tasks and keeps the plan if it is as good as the best.
func (s *search) try() {
	s.run(s.rank, s.later)
	score := s.p.Score(Plan{Start: s.start, Sanding: s.sand})
	if slices.Compare(score[:], s.score[:]) <= 0 {
		s.keep()
	}
}

// vary changes the order of the best plan a little, or now and then that of the first
// one a lot.
func (s *search) vary(round int) {
	copy(s.rank, s.bestRank)
	copy(s.later, s.bestLater)
	copy(s.sandOnly, s.bestSand)
	if round%10 == 9 {
		for i := range s.rank {
			s.rank[i], s.later[i] = s.first[i]*(0.6+0.8*s.r.Float64()), 0
		}
	}
	n := len(s.rank)
	for range 1 + s.r.IntN(3) {
		i := s.r.IntN(n)
		switch s.r.IntN(7) {
		case 5, 6:
			by := 0.3 + 1.4*s.r.Float64()
			for _, i := range s.chains[s.r.IntN(len(s.chains))] {
				s.rank[i] *= by
			}
		case 0:
			j := s.r.IntN(n)
			s.rank[i], s.rank[j] = s.rank[j], s.rank[i]
		case 1:
			s.rank[i] *= 0.5 + s.r.Float64()
		case 2:
			s.later[i] = 0
		case 3:
			if len(s.in[i]) > 0 {
				k := s.in[i][s.r.IntN(len(s.in[i]))]
				s.sandOnly[k] = !s.sandOnly[k]
			}
		default:
			if at := s.best.Start[i]; at >= 0 {
				s.later[i] = at + 1 + s.r.IntN(24)
			}
		}
	}
}

// latestStarts ranks tasks by how late they could start if there were hands
// enough, so that the longest way to the end goes first.
func (p *Problem) latestStarts() []float64 {
	hi := make([]int, len(p.Tasks))
	for i, t := range p.Tasks {
		hi[i] = p.Horizon - t.Duration
	}
	for range p.Tasks {
		moved := false
		for k := len(p.Links) - 1; k >= 0; k-- {
			l := &p.Links[k]
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

// Order ranks tasks by how late they could start.
func Order(p Problem) []float64 { return p.latestStarts() }

// Quick is the better of two plans: the tasks in the order of rank, and chain after chain in
// that order.
func Quick(p Problem, rank []float64) Plan { return newSearch(&p, Plan{}, rank, 0).best }

// Follow places the tasks in the order of rank, none before from. What finds no place is left
// out.
func Follow(p Problem, rank []float64, from []int) Plan {
	s := newSerial(&p)
	s.run(rank, from)
	return s.plan()
}

// mostUntangled is how often a plan is placed anew to do without last resorts.
const mostUntangled = 4

// untangle puts what led to a last resort in a plan, or left a task without a place, off until
// the window that it opens holds; it tells whether there was any.
func (s *serial) untangle(p Plan, later []int) (any bool) {
	for k := range s.p.Links {
		l := &s.p.Links[k]
		if !l.Hard || p.Start[l.From] < 0 || s.fixed[l.From] >= 0 || l.Sanding != nil && p.Sanding[k] < 0 {
			continue
		}
		at := p.Start[l.To]
		if at < 0 && l.Sanding == nil && s.open[l.To] == 0 {
			at = s.fit(&s.p.Tasks[l.To], l.To, s.least(l.To), 0)
		}
		if at < 0 || at >= Never {
			continue
		}
		d := s.p.Tasks[l.From].Duration
		if from := earliest(l.Closes, at, p.Start[l.From]+d, s.p.Horizon) - d; from > p.Start[l.From] &&
			from > later[l.From] && from < s.p.Horizon {
			later[l.From], any = from, true
		}
	}
	return any
}

// Repair keeps every task of a plan where it still goes, and places the others around
// them in the order of rank: only what must move does. Where that leaves something out, its
// chain is let go of.
func Repair(p Problem, known Plan, rank []float64) (best Plan) {
	s := newSerial(&p)
	later, chains := make([]int, len(p.Tasks)), s.paths()
	known.Start = slices.Clone(known.Start)
	var least Score
	had := p.Score(known)[Resorts]
	for n := range mostUntangled {
		s.begin(rank, later)
		s.restore(known)
		s.fill()
		got := s.plan()
		score := p.Score(got)
		if n == 0 || slices.Compare(score[:], least[:]) < 0 {
			best, least = got, score
		}
		if score[LeftOut] == 0 && score[Resorts] <= had {
			break // it is as good as it was
		}
		let := letGo(&known, got, chains)
		if !s.untangle(got, later) && !let {
			break
		}
	}
	return best
}

// letGo forgets where a plan had the chains of what is left out; it tells whether that
// changes it.
func letGo(known *Plan, got Plan, chains [][]int) (any bool) {
	for _, chain := range chains {
		if !slices.ContainsFunc(chain, func(i int) bool { return got.Start[i] < 0 }) {
			continue
		}
		for _, i := range chain {
			if known.Start[i] >= 0 {
				known.Start[i], any = -1, true
			}
		}
	}
	return any
}
