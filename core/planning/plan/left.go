package plan

import (
	"math"
	"slices"

	"allcoats/core/base/message"
	"allcoats/core/conditions/field"
	"allcoats/core/planning/schedule"
)

// LeftOut is work that finds no place: why, and what would let it in. What only waits for it
// is left out with it.
type LeftOut struct {
	TaskID string           `json:"taskId"`
	BoatID string           `json:"boatId"`
	Name   message.Sentence `json:"name"`
	Why    message.Sentence `json:"why"`
	Needs  []string         `json:"needs"`
	// Behind names what waits for it.
	Behind []message.Sentence `json:"behind"`
}

// leftOut lists what a plan leaves out, by what is in its own way.
func (m Model) leftOut(p schedule.Plan) []LeftOut {
	out := []LeftOut{}
	if p.Left() == 0 {
		return out
	}
	_, links := m.linksOf()
	ask := schedule.On(&m.Problem, p)
	behind := func(i int) []message.Sentence {
		names, seen := []message.Sentence{}, map[int]bool{i: true}
		for queue := []int{i}; len(queue) > 0; queue = queue[1:] {
			for _, k := range links[queue[0]] {
				if to := m.Problem.Links[k].To; !seen[to] && p.Start[to] < 0 {
					seen[to] = true
					queue = append(queue, to)
					names = append(names, m.Tasks[to].Name())
				}
			}
		}
		return names
	}
	for i, t := range m.Tasks {
		if p.Start[i] >= 0 || m.waits(p, i) {
			continue
		}
		why, needs := m.stuck(ask, i)
		out = append(out, LeftOut{t.ID, m.Boats[t.Boat].ID, m.ofBoat(t), why, needs, behind(i)})
	}
	return out
}

// waits tells whether a task has no place because something before it has none.
func (m Model) waits(p schedule.Plan, i int) bool {
	return slices.ContainsFunc(m.Problem.Links, func(l schedule.Link) bool { return l.To == i && p.Start[l.From] < 0 })
}

// What lets work in.
const (
	needTent    = "a tent"
	needHeat    = "a tent with heat"
	needWarm    = "a warmer month"
	needCold    = "a hardener or product for the cold"
	needHands   = "another pair of hands"
	needLater   = "a later launch, and with it a longer plan"
	needLonger  = "a longer working day"
	needPanels  = "a break in it: work it as two surfaces"
	needLights  = "lights"
	needRepin   = "another start for what is pinned"
	needRecoats = "a product with a longer recoat window"
)

// stuck says what is in the way of a task that has no place, and what would let it in.
func (m Model) stuck(ask schedule.Placed, i int) (message.Sentence, []string) {
	t, need := m.Tasks[i], m.Problem.Tasks[i]
	d := float64(need.Duration) / perHour
	longest, together := 0, 0
	for k, h := range m.Problem.Hands {
		if need.Able != nil && !slices.Contains(need.Able, k) {
			continue
		}
		for _, w := range h.Works {
			longest = max(longest, w.Last+1-w.First)
			together = max(together, m.there(w.First, min(w.First+need.Duration, w.Last+1)))
		}
	}
	switch {
	case t.pinned != nil:
		return message.Of(
			"it cannot begin when it is pinned: what comes before it is not done by then, or the hands are pinned to other work"), []string{needRepin}
	case need.Crew > len(m.People):
		return message.Of("it takes %d people at once, and there are %d", need.Crew, len(m.People)), []string{needHands}
	case need.Duration > longest:
		return message.Of("it takes %g h on end, and nobody who does it works longer than %g h in a day", round1(d),
			round1(float64(longest)/perHour)), []string{needLonger, needHands, needPanels}
	case need.Crew > together:
		return message.Of("%d people never work together for %g h", need.Crew, round1(d)),
			[]string{needHands, needLonger}
	case len(m.allowed[i]) == 0:
		return message.Of("%v, all the time before %s", m.mostly(i, 0, m.slots),
			m.Until.In(m.Loc).Format("2 January 2006")), m.forWeather(i)
	}
	could := func(skip schedule.Skip) bool { return ask.Earliest(i, schedule.Ask{Skip: skip}) < schedule.Never }
	until := m.Until.In(m.Loc).Format("2 January 2006")
	switch {
	case could(0):
		return m.closed(ask, i), []string{needRecoats, needHands, needTent}
	case could(schedule.SkipBusy):
		return message.Of("the hands are taken whenever it could be done before %s", until),
			[]string{needHands, needLater}
	case could(schedule.SkipAllowed):
		return message.Of("%v, whenever hands are there before %s", m.mostly(i, 0, m.slots), until), m.forWeather(i)
	case could(schedule.SkipHours):
		return message.Of("the good hours before %s are not those that people work", until),
			[]string{needLonger, needTent}
	}
	return message.Of("what comes before it ends too late for it before %s", until),
		[]string{needLater, needHands, needTent}
}

// closed names what closes before a task finds a place.
func (m Model) closed(ask schedule.Placed, i int) message.Sentence {
	closed := ask.Closed(i, ask.Earliest(i, schedule.Ask{}))
	if len(closed) == 0 {
		return message.Of("what must go with it finds no place")
	}
	k := closed[0]
	name, after := message.Lit(m.causes[k].bind), m.Tasks[m.Problem.Links[k].From].What
	if len(name) == 0 || m.causes[k].bind == "" {
		name = message.Of("time")
	}
	if l := m.Problem.Links[m.Problem.Mend(k)]; l.Sanding != nil {
		return message.Of(
			"the %v after %v is over before it finds a place, and there is no place for the work that opens it again: %v", name, after, m.sands[m.Problem.Mend(k)].What)
	}
	return message.Of("the %v after %v is over before it finds a place", name, after)
}

func round1(v float64) float64 { return math.Round(10*v) / 10 }

// forWeather is what lets a task in that weather or light keeps out.
func (m Model) forWeather(i int) []string {
	t := m.Tasks[i]
	if !t.Coat {
		if t.light {
			return []string{needTent, needLights}
		}
		return []string{needTent}
	}
	j := t.job
	j.Apply = t.laying()
	count := map[field.Limit]int{}
	for _, h := range j.Hours(t.weather) {
		if !h.Allowed {
			count[h.Binding.Limit]++
		}
	}
	most, light := field.Limit(""), count[field.Light]
	delete(count, field.Light)
	for l, n := range count {
		if n > count[most] || n == count[most] && l < most {
			most = l
		}
	}
	switch {
	case most == field.Rain || most == field.Wind:
		return []string{needTent}
	case most == "" && light > 0:
		return []string{needLights}
	case most == field.AirMin || most == field.SurfaceMin:
		return []string{needHeat, needWarm, needCold}
	}
	return []string{needHeat, needTent, needWarm}
}
