package schedule

import "fmt"

// Check names the first rule that a plan breaks, "" if it keeps all.
func (p *Problem) Check(plan Plan) string {
	c := checker{p: p, used: make([][]int, len(p.Capacity)), busy: map[[2]int]int{}}
	for r := range c.used {
		c.used[r] = make([]int, p.Horizon)
	}
	for i := range p.Tasks {
		if plan.Start[i] < 0 {
			continue
		}
		if why := c.task(&p.Tasks[i], plan.Start[i], of(plan.Crew, i)); why != "" {
			return why
		}
	}
	for k := range p.Links {
		if why := c.link(k, plan); why != "" {
			return why
		}
	}
	for _, a := range p.Apart {
		if i, j := plan.Start[a[0]], plan.Start[a[1]]; i >= 0 && j >= 0 && p.Day[i] == p.Day[j] {
			return p.Tasks[a[0]].Name + " and " + p.Tasks[a[1]].Name + " start on the same day"
		}
	}
	return c.dusty()
}

func of(crews [][]int, i int) []int {
	if i < len(crews) {
		return crews[i]
	}
	return nil
}

// checker counts what the tasks of a plan take.
type checker struct {
	p         *Problem
	used      [][]int
	busy      map[[2]int]int // site, by hand and slot
	wet, dust []stay
}

func (c *checker) task(t *Task, start int, crew []int) string {
	end := start + t.Duration
	if !t.allows(start) {
		return t.Name + " starts where it must not"
	}
	if end > c.p.Horizon {
		return t.Name + " ends beyond the horizon"
	}
	for r, n := range t.Needs {
		for h := start; h < end; h++ {
			if c.used[r][h] += n; c.used[r][h] > c.p.Capacity[r][h] {
				return t.Name + " has too few hands"
			}
		}
	}
	for _, z := range t.Dusts {
		c.dust = append(c.dust, stay{start, end, z})
	}
	if t.Wets > 0 {
		c.wet = append(c.wet, stay{start, t.Dry(end), t.Wets - 1})
	}
	if len(c.p.Hands) == 0 || t.Crew == 0 {
		return ""
	}
	return c.crew(t, start, crew)
}

func (c *checker) crew(t *Task, start int, crew []int) string {
	led := t.Able == nil
	for _, i := range crew {
		for _, able := range t.Able {
			led = led || able == i
		}
		works := false
		for _, w := range c.p.Hands[i].Works {
			works = works || w.First <= start && start+t.Duration-1 <= w.Last
		}
		if !works {
			return fmt.Sprintf("%s is done by hand %d outside working hours", t.Name, i)
		}
		for h := start - c.p.Travel; h < start+t.Duration+c.p.Travel; h++ {
			in := h >= start && h < start+t.Duration
			site, there := c.busy[[2]int{i, h}]
			if there && (in || site != t.Site) {
				return fmt.Sprintf("%s takes hand %d from another place", t.Name, i)
			}
		}
		for h := start; h < start+t.Duration; h++ {
			c.busy[[2]int{i, h}] = t.Site
		}
	}
	if len(crew) != t.Crew || !led {
		return t.Name + " has not the crew that it takes"
	}
	return ""
}

func (c *checker) link(k int, plan Plan) string {
	l := &c.p.Links[k]
	start := plan.Start[l.To]
	if start < 0 {
		return ""
	}
	name := c.p.Tasks[l.From].Name + " to " + c.p.Tasks[l.To].Name
	if plan.Start[l.From] < 0 {
		return name + " has no beginning"
	}
	end := plan.Start[l.From] + c.p.Tasks[l.From].Duration
	if start < l.Opens(end) {
		return name + " comes too early"
	}
	if l.Early { // what it closes for is told, not forbidden
		if s := plan.Sanding[k]; s >= 0 && s < l.Opens(end) {
			return "the sanding after " + name + " is too early"
		}
		if s := plan.Sanding[k]; s >= 0 {
			return c.task(l.Sanding, s, of(plan.SandCrew, k))
		}
		return ""
	}
	m := c.p.Mend(k)
	s, by := plan.Sanding[m], &c.p.Links[m]
	if s < 0 {
		if start > l.Closes(c.since(k, plan)) {
			return name + " comes too late without sanding"
		}
		return ""
	}
	done := s + by.Sanding.Duration
	if by.Before > 0 {
		start = plan.Sanding[by.Before-1]
	}
	if start > l.Closes(c.since(k, plan)) && s < l.Opens(end) || m == k && s < l.Opens(end) || by.dried(done) > start ||
		start > by.Reopened(done) {
		return "the sanding between " + name + " is out of place"
	}
	if m != k {
		return ""
	}
	if why := c.task(l.Sanding, s, of(plan.SandCrew, k)); why != "" {
		return "sanding before " + why
	}
	return ""
}

// since is the end that the window of a link counts from.
func (c *checker) since(k int, plan Plan) int {
	last := k
	for r := c.p.Links[k].Renewed - 1; r >= 0; r = c.p.Links[r].Renewed - 1 {
		if plan.Sanding[r] >= 0 {
			return plan.Sanding[r] + c.p.Links[r].Sanding.Duration
		}
		last = r
	}
	from := c.p.Links[last].From
	return plan.Start[from] + c.p.Tasks[from].Duration
}

func (c *checker) dusty() string {
	for _, w := range c.wet {
		for _, d := range c.dust {
			if w.site == d.site && d.from < w.to && w.from < d.to {
				return fmt.Sprintf("dust at %d lies on what is wet from %d to %d", d.from, w.from, w.to)
			}
		}
	}
	return ""
}
