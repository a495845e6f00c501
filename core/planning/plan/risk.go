package plan

import (
	"math"
	"slices"
	"sort"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/physics/weather"
	"allcoats/core/planning/schedule"
)

// Outcome is a yard's work replayed in one course of the weather: when each boat
// can be launched, and how long each task waited after what comes before it let it
// begin. A boat that is not ready before Until has no instant.
type Outcome struct {
	Ready []*time.Time
	WaitH map[string]float64
}

// Play does the work in the order of a plan, or surface after surface in that order where
// that is quicker, each task as early as this weather lets it.
func (m Model) Play(order Starts) Outcome {
	out := Outcome{Ready: make([]*time.Time, len(m.Boats)), WaitH: map[string]float64{}}
	p := schedule.Quick(m.Problem, m.order(order))
	least := make([]int, len(m.Tasks))
	for k, l := range m.Problem.Links {
		if p.Start[l.From] < 0 {
			continue
		}
		if s := p.Sanding[k]; s >= 0 {
			least[l.To] = max(least[l.To], s+l.Sanding.Duration)
		} else {
			least[l.To] = max(least[l.To], l.Opens(p.Start[l.From]+m.Problem.Tasks[l.From].Duration))
		}
	}
	for i, t := range m.Tasks {
		if i == nowTask || p.Start[i] < 0 {
			continue
		}
		if t.Milestone {
			at := m.At(p.Start[i])
			out.Ready[t.Boat] = &at
			continue
		}
		out.WaitH[t.ID] = float64(p.Start[i]-least[i]) / perHour
	}
	return out
}

// Done tells whether every boat was ready; if so, a later end of the yard would
// have changed nothing.
func (o Outcome) Done() bool { return !slices.Contains(o.Ready, nil) }

// Ready is when a boat is ready in a share of outcomes, nil if not in so many.
func Ready(all []Outcome, boat int, share float64) *time.Time {
	var ready []time.Time
	for _, o := range all {
		if at := o.Ready[boat]; at != nil {
			ready = append(ready, *at)
		}
	}
	sort.Slice(ready, func(i, j int) bool { return ready[i].Before(ready[j]) })
	n := int(math.Ceil(share*float64(len(all)))) - 1
	if n < 0 || n >= len(ready) {
		return nil
	}
	return &ready[n]
}

// within is how long after a plan's end most courses of the weather are done.
const within = 14 * 24 * time.Hour

// Within is an end of the yard by which a plan is done in most weather.
func (y Yard) Within(order Starts) time.Time {
	last := y.Now
	for _, at := range order {
		if at.After(last) {
			last = at
		}
	}
	if end := last.Add(within); end.Before(y.Until) {
		return end
	}
	return y.Until
}

// Point is the share of futures, %, in which a boat is ready by the end of a day.
type Point struct {
	Day string  `json:"day"` // 2026-05-30
	Pct float64 `json:"pct"`
}

// BoatRisk is how likely a boat is ready, day by day.
type BoatRisk struct {
	BoatID string `json:"boatId"`
	Boat   string `json:"boat"`
	Due    string `json:"due,omitempty"`
	// DuePct is the share ready by the day wanted, WeekPct by a week after it.
	DuePct  float64 `json:"duePct"`
	WeekPct float64 `json:"weekPct"`
	// Median is the day by which half are ready, empty if they are not.
	Median string  `json:"median,omitempty"`
	Curve  []Point `json:"curve"`
}

// By is the share of futures, %, in which she is ready by the end of a day.
func (b BoatRisk) By(day time.Time) (pct float64) {
	name := day.Format(time.DateOnly)
	for _, p := range b.Curve {
		if p.Day <= name {
			pct = p.Pct
		}
	}
	return pct
}

// Cause is a task and how long it waits on the mean for weather and hands.
type Cause struct {
	TaskID string           `json:"taskId"`
	Name   message.Sentence `json:"name"`
	MeanH  float64          `json:"meanH"`
}

// Risk is the work of a yard over many courses of the weather.
type Risk struct {
	Futures int        `json:"futures"`
	Boats   []BoatRisk `json:"boats"`
	Causes  []Cause    `json:"causes"`
}

// mostCauses is how many causes are named.
const mostCauses = 6

// Sum adds outcomes up.
func (m Model) Sum(all []Outcome) Risk {
	out := Risk{Futures: len(all), Boats: []BoatRisk{}, Causes: []Cause{}}
	for k, b := range m.Boats {
		var ready []time.Time
		for _, o := range all {
			if o.Ready[k] != nil {
				ready = append(ready, *o.Ready[k])
			}
		}
		sort.Slice(ready, func(i, j int) bool { return ready[i].Before(ready[j]) })
		by := func(t time.Time) float64 {
			n := sort.Search(len(ready), func(i int) bool { return ready[i].After(t) })
			return math.Round(1000*weather.Odds(n, len(all))) / 10
		}
		r := BoatRisk{BoatID: b.ID, Boat: b.Name, Curve: []Point{}}
		day := m.Now.In(m.Loc)
		for d := range int(m.Until.Sub(m.Now).Hours()/24) + 1 {
			end := time.Date(day.Year(), day.Month(), day.Day()+d+1, 0, 0, 0, -1, m.Loc) // midnight is of the day after
			pct := by(end)
			name := end.Format(time.DateOnly)
			if pct > 0 || len(r.Curve) > 0 {
				r.Curve = append(r.Curve, Point{name, pct})
			}
			if r.Median == "" && pct >= 50 {
				r.Median = name
			}
			if len(ready) == len(all) && !ready[len(ready)-1].After(end) {
				break
			}
		}
		if b.Launch != nil {
			r.Due = b.Launch.In(m.Loc).Format(time.DateOnly)
			r.DuePct, r.WeekPct = by(*b.Launch), by(b.Launch.AddDate(0, 0, 7))
		}
		out.Boats = append(out.Boats, r)
	}
	wait := map[string]float64{}
	for _, o := range all {
		for id, h := range o.WaitH {
			wait[id] += h / float64(max(1, len(all)))
		}
	}
	for _, t := range m.Tasks {
		if h := wait[t.ID]; !t.Milestone && h >= 1 {
			out.Causes = append(out.Causes, Cause{t.ID, m.ofBoat(t), math.Round(10*h) / 10})
		}
	}
	sort.SliceStable(out.Causes, func(i, j int) bool { return out.Causes[i].MeanH > out.Causes[j].MeanH })
	out.Causes = out.Causes[:min(mostCauses, len(out.Causes))]
	return out
}
