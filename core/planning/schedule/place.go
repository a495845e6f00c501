package schedule

import (
	"cmp"
	"slices"
)

// stay is somebody or something at a site, or in a zone, from a slot until before another.
type stay struct{ from, to, site int }

// Skip leaves out rules when a start is looked for.
type Skip uint8

// The rules that can be left out.
const (
	SkipAllowed Skip = 1 << iota // the allowed starts
	SkipHours                    // when hands work
	SkipBusy                     // what else hands and resources do
	SkipApart                    // days of others
	SkipDust                     // dust and what is wet
)

// board is what is placed.
type board struct {
	p     *Problem
	apart [][]int
	start []int // −1 is not placed
	crew  [][]int
	used  [][]int
	busy  [][]stay // of each hand, in order
	load  []int    // slots that each hand has
	wet   []stays  // of each zone
	dust  []stays
	room  []int // of hands
}

func newBoard(p *Problem) *board {
	n := len(p.Tasks)
	b := &board{p: p, apart: p.apart(), start: make([]int, n), crew: make([][]int, n),
		used: make([][]int, len(p.Capacity)), busy: make([][]stay, len(p.Hands)), load: make([]int, len(p.Hands)),
		wet: make([]stays, p.Zones), dust: make([]stays, p.Zones)}
	for r := range b.used {
		b.used[r] = make([]int, p.Horizon)
	}
	return b
}

func (b *board) reset() {
	for i := range b.start {
		b.start[i], b.crew[i] = -1, b.crew[i][:0]
	}
	for _, u := range b.used {
		clear(u)
	}
	for i := range b.busy {
		b.busy[i] = b.busy[i][:0]
	}
	clear(b.load)
	for z := range b.wet {
		b.wet[z].list, b.dust[z].list = b.wet[z].list[:0], b.dust[z].list[:0]
	}
}

// fit is the first start from from on that keeps the rules but those skipped, Never
// without one. i is the number of the task, −1 for a sanding.
func (b *board) fit(t *Task, i, from int, skip Skip) int { return b.fitBy(t, i, from, Never-1, skip) }

// fitBy is fit if that is not after by, else Never.
func (b *board) fitBy(t *Task, i, from, by int, skip Skip) int {
	by = min(by, b.p.Horizon-t.Duration)
	for at := max(from, 0); at <= by; {
		was := at
		if skip&SkipAllowed == 0 {
			if at = t.next(at); at == Never {
				return Never
			}
		}
		if skip&SkipBusy == 0 {
			at = b.resources(t, at)
		}
		if t.Crew > 0 && len(b.p.Hands) > 0 {
			at = b.hands(t, at, by, skip)
		}
		if skip&SkipDust == 0 {
			at = b.clear(t, at)
		}
		if i >= 0 && skip&SkipApart == 0 {
			at = b.apartFrom(i, at)
		}
		if at == was {
			return at
		}
	}
	return Never
}

// resources is the first start from at on that finds what it needs of each resource.
func (b *board) resources(t *Task, at int) int {
	for r, n := range t.Needs {
		if n == 0 {
			continue
		}
		used, there := b.used[r], b.p.Capacity[r]
		for h := min(at+t.Duration, b.p.Horizon) - 1; h >= at; h-- {
			if used[h]+n > there[h] {
				return h + 1
			}
		}
	}
	return at
}

// hands is a start not before at before which there are not hands enough; at if there are.
// Those after by need not be right.
func (b *board) hands(t *Task, at, by int, skip Skip) int {
	if t.Crew > len(b.p.Hands) {
		return Never
	}
	b.room = b.room[:0]
	ready, lead := 0, at
	if t.Able != nil {
		lead = Never
	}
	for i := range b.p.Hands {
		free := b.free(i, t, at, by, skip)
		b.room = append(b.room, free)
		if free == at {
			ready++
		}
		if t.Able != nil && slices.Contains(t.Able, i) {
			lead = min(lead, free)
		}
		if ready >= t.Crew && lead == at {
			return at
		}
	}
	if t.Crew == 1 && t.Able != nil {
		return lead
	}
	slices.Sort(b.room)
	return max(lead, b.room[t.Crew-1])
}

// free is the first slot from at to by from which a hand is free for a task.
func (b *board) free(i int, t *Task, at, by int, skip Skip) int {
	if skip&SkipHours != 0 {
		return b.between(i, t, at, b.p.Horizon, skip)
	}
	works := b.p.Hands[i].Works
	k := 0
	for n := len(works); k < n; {
		if mid := (k + n) / 2; works[mid].Last < at {
			k = mid + 1
		} else {
			n = mid
		}
	}
	for ; k < len(works) && works[k].First <= by; k++ {
		if s := b.between(i, t, max(at, works[k].First), works[k].Last+1, skip); s < Never {
			return s
		}
	}
	return Never
}

// between is the first slot from at on from which a hand is free for a task that ends by to.
func (b *board) between(i int, t *Task, at, to int, skip Skip) int {
	if skip&SkipBusy == 0 {
		busy := b.busy[i]
		j := ends(busy, at)
		if j > 0 {
			at = max(at, busy[j-1].to+b.way(busy[j-1].site, t.Site))
		}
		for ; j < len(busy) && busy[j].from < at+t.Duration+b.way(t.Site, busy[j].site); j++ {
			at = max(at, busy[j].to+b.way(busy[j].site, t.Site))
			if at+t.Duration > to {
				return Never
			}
		}
	}
	if at+t.Duration > to {
		return Never
	}
	return at
}

// ends is the first of stays in order that ends after a slot.
func ends(busy []stay, at int) int {
	lo := 0
	for hi := len(busy); lo < hi; {
		if mid := (lo + hi) / 2; busy[mid].to <= at {
			lo = mid + 1
		} else {
			hi = mid
		}
	}
	return lo
}

// way is how long it takes from one site to another.
func (b *board) way(from, to int) int {
	if from == to {
		return 0
	}
	return b.p.Travel
}

// clear is the first start from at on without dust on what is wet.
func (b *board) clear(t *Task, at int) int {
	for was := -1; was != at && at < b.p.Horizon; {
		was = at
		for _, z := range t.Dusts {
			at = b.wet[z].after(at, at+t.Duration)
		}
		if t.Wets > 0 {
			if free := b.dust[t.Wets-1].after(at, t.Dry(at+t.Duration)); free > at {
				at = free
			}
		}
	}
	return at
}

// stays are in order of their beginnings; none is longer than longest.
type stays struct {
	list    []stay
	longest int
}

// after is from, or the end of the last stay that overlaps [from, to), taken one after the
// other.
func (s *stays) after(from, to int) int {
	i, _ := slices.BinarySearchFunc(s.list, from-s.longest, func(x stay, at int) int { return cmp.Compare(x.from, at) })
	d := to - from
	for ; i < len(s.list) && s.list[i].from < from+d; i++ {
		from = max(from, s.list[i].to)
	}
	return from
}

func (s *stays) add(x stay) {
	i, _ := slices.BinarySearchFunc(s.list, x.from, func(o stay, at int) int { return cmp.Compare(o.from, at) })
	s.list = slices.Insert(s.list, i, x)
	s.longest = max(s.longest, x.to-x.from)
}

func (s *stays) drop(x stay) {
	i, _ := slices.BinarySearchFunc(s.list, x.from, func(o stay, at int) int { return cmp.Compare(o.from, at) })
	for s.list[i] != x {
		i++
	}
	s.list = slices.Delete(s.list, i, i+1)
}

// apartFrom is at, or the next day if a task that must be apart from i starts on its day.
func (b *board) apartFrom(i, at int) int {
	for _, j := range b.apart[i] {
		if at < b.p.Horizon && b.start[j] >= 0 && b.p.Day[b.start[j]] == b.p.Day[at] {
			day := b.p.Day[at]
			next, _ := slices.BinarySearch(b.p.Day, day+1)
			return next
		}
	}
	return at
}

// who are the hands for a task at a start that fits: those wanted if they are free, else
// who leads with the fewest skills, was there before, and has least to do.
func (b *board) who(t *Task, at int, wanted, out []int) []int {
	out = out[:0]
	if t.Crew == 0 || len(b.p.Hands) == 0 {
		return out
	}
	able := func(i int) bool { return b.free(i, t, at, at, 0) == at }
	if len(wanted) == t.Crew && !slices.ContainsFunc(wanted, func(i int) bool { return !able(i) }) {
		return append(out, wanted...)
	}
	worth := func(i int) int {
		w := b.load[i] + 40*b.p.Hands[i].Skills
		if busy := b.busy[i]; len(busy) > 0 {
			j := ends(busy, at)
			if j > 0 && busy[j-1].site == t.Site && at-busy[j-1].to < 40 {
				w -= 1000
			}
		}
		return w
	}
	best := func(among func(i int) bool) {
		pick := -1
		for i := range b.p.Hands {
			if !slices.Contains(out, i) && among(i) && able(i) && (pick < 0 || worth(i) < worth(pick)) {
				pick = i
			}
		}
		if pick >= 0 {
			out = append(out, pick)
		}
	}
	if t.Able != nil {
		best(func(i int) bool { return slices.Contains(t.Able, i) })
	}
	for range t.Crew - len(out) {
		best(func(int) bool { return true })
	}
	return out
}

// take puts a task with its crew on the board, and give takes it off.
func (b *board) take(t *Task, at int, crew []int) {
	b.add(t, at, 1)
	for _, i := range crew {
		j, _ := slices.BinarySearchFunc(b.busy[i], at, func(s stay, at int) int { return cmp.Compare(s.from, at) })
		b.busy[i] = slices.Insert(b.busy[i], j, stay{at, at + t.Duration, t.Site})
		b.load[i] += t.Duration
	}
	for _, z := range t.Dusts {
		b.dust[z].add(stay{at, at + t.Duration, z})
	}
	if t.Wets > 0 {
		b.wet[t.Wets-1].add(stay{at, t.Dry(at + t.Duration), t.Wets - 1})
	}
}

func (b *board) give(t *Task, at int, crew []int) {
	b.add(t, at, -1)
	for _, i := range crew {
		j, _ := slices.BinarySearchFunc(b.busy[i], at, func(s stay, at int) int { return cmp.Compare(s.from, at) })
		b.busy[i] = slices.Delete(b.busy[i], j, j+1)
		b.load[i] -= t.Duration
	}
	for _, z := range t.Dusts {
		b.dust[z].drop(stay{at, at + t.Duration, z})
	}
	if t.Wets > 0 {
		b.wet[t.Wets-1].drop(stay{at, t.Dry(at + t.Duration), t.Wets - 1})
	}
}

func (b *board) add(t *Task, at, sign int) {
	for r, n := range t.Needs {
		if n == 0 {
			continue
		}
		for h := at; h < at+t.Duration; h++ {
			b.used[r][h] += sign * n
		}
	}
}
