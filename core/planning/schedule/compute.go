package schedule

import (
	"context"
	"fmt"
	"strings"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
)

// Request is the input of the schedule calculator, in whole hours from 0. An
// allowed_start_h is a list of ranges [first, last], both inclusive. Every sanding
// holds one crew; max_lag_h null is no maximum.
type Request struct {
	HorizonH int           `json:"horizon_h"`
	Crews    int           `json:"crews"`
	Tasks    []TaskRequest `json:"tasks"`
	Links    []LinkRequest `json:"links"`
}

// TaskRequest is a task that holds crews while it runs.
type TaskRequest struct {
	ID            string   `json:"id"`
	DurationH     int      `json:"duration_h"`
	Crews         int      `json:"crews"`
	AllowedStartH [][2]int `json:"allowed_start_h"`
}

// LinkRequest lets one task start min to max hours after another ends, or after
// a sanding between the two.
type LinkRequest struct {
	From    string          `json:"from"`
	To      string          `json:"to"`
	MinLagH int             `json:"min_lag_h"`
	MaxLagH *int            `json:"max_lag_h,omitempty"`
	Sanding *SandingRequest `json:"sanding,omitempty"`
}

// SandingRequest is a sanding that may be done on a link.
type SandingRequest struct {
	DurationH     int      `json:"duration_h"`
	AllowedStartH [][2]int `json:"allowed_start_h"`
}

// Answer is the plan found, if any. Proven says that none is shorter, or that
// there is none.
type Answer struct {
	Feasible  bool            `json:"feasible"`
	Proven    bool            `json:"proven"`
	MakespanH int             `json:"makespan_h"`
	StartH    map[string]int  `json:"start_h"`
	Sandings  []SandingAnswer `json:"sandings"`
	Working   working.Working `json:"working"`
}

// SandingAnswer is a sanding on a link.
type SandingAnswer struct {
	From   string `json:"from"`
	To     string `json:"to"`
	StartH int    `json:"start_h"`
}

// calcNodes bounds the complete search of the calculator, calcRounds what follows it.
const calcNodes, calcRounds = 1_500_000, 3000

// Compute answers r, or names the impossible fields. When ctx ends it answers with
// the best plan so far.
func Compute(ctx context.Context, r Request) (Answer, error) {
	p, err := r.problem()
	if err != nil {
		return Answer{}, err
	}
	out := Answer{StartH: map[string]int{}, Sandings: []SandingAnswer{}, Working: working.New()}
	got := Solve(ctx, p, 1, calcNodes, calcRounds)
	w := &out.Working
	w.In("Tasks", float64(len(p.Tasks)), "")
	w.In("Crews", float64(r.Crews), "")
	out.Feasible, out.Proven = got.Found, got.Proven
	if !got.Found {
		if got.Proven {
			w.Warn("There is no plan within the horizon.")
		} else {
			w.Warn("No plan was found in the time given; there may be one.")
		}
		return out, nil
	}
	if why := p.Check(got.Plan); why != "" {
		return out, fmt.Errorf("the plan found breaks a rule: %s", why)
	}
	out.MakespanH = got.Plan.Makespan
	for i, t := range r.Tasks {
		out.StartH[t.ID] = got.Plan.Start[i]
	}
	for k, s := range got.Plan.Sanding {
		if s >= 0 {
			out.Sandings = append(out.Sandings, SandingAnswer{r.Links[k].From, r.Links[k].To, s})
		}
	}
	w.Step("Last task ends", "branch and bound over starts", float64(out.MakespanH), "h", "complete search")
	w.Step("Sandings", "the fewest at that end", float64(len(out.Sandings)), "", "complete search")
	if !got.Proven {
		w.Warn("The search was cut short: a shorter plan may exist.")
	}
	return out, nil
}

func (r Request) problem() (Problem, error) {
	var bad fielderr.Errors
	if r.HorizonH < 1 || r.HorizonH > 20_000 {
		bad.Add("horizon_h", "must be between 1 and 20000")
	}
	if r.Crews < 1 || r.Crews > 1000 {
		bad.Add("crews", "must be between 1 and 1000")
	}
	if len(r.Tasks) == 0 || len(r.Tasks) > 2000 {
		bad.Add("tasks", "give 1 to 2000 tasks")
	}
	p := Problem{Horizon: r.HorizonH}
	index := map[string]int{}
	for i, t := range r.Tasks {
		path := fmt.Sprintf("tasks[%d]", i)
		if _, twice := index[t.ID]; twice || t.ID == "" {
			bad.Add(path+".id", "must be there and be no other task's")
		}
		index[t.ID] = i
		if t.DurationH < 1 {
			bad.Add(path+".duration_h", "must be at least 1")
		}
		if t.Crews < 0 {
			bad.Add(path+".crews", "must not be negative")
		}
		allowed := ranges(&bad, path, t.AllowedStartH)
		p.Tasks = append(p.Tasks, Task{Name: t.ID, Duration: t.DurationH, Allowed: allowed, Needs: []int{t.Crews}})
	}
	for k, l := range r.Links {
		path := fmt.Sprintf("links[%d]", k)
		from, ok := index[l.From]
		if !ok {
			bad.Add(path+".from", "%q is no task", l.From)
		}
		to, ok := index[l.To]
		if !ok {
			bad.Add(path+".to", "%q is no task", l.To)
		}
		if l.MinLagH < 0 {
			bad.Add(path+".min_lag_h", "must not be negative")
		}
		longest := -1
		if l.MaxLagH != nil {
			if longest = *l.MaxLagH; longest < l.MinLagH {
				bad.Add(path+".max_lag_h", "must not be less than the minimum")
			}
		}
		link := Link{From: from, To: to, Opens: After(l.MinLagH), Closes: After(longest), Reopened: After(longest)}
		if l.Sanding != nil && l.MaxLagH != nil {
			if l.Sanding.DurationH < 1 {
				bad.Add(path+".sanding.duration_h", "must be at least 1")
			}
			link.Sanding = &Task{Name: "sanding", Duration: l.Sanding.DurationH, Allowed: ranges(&bad, path+".sanding",
				l.Sanding.AllowedStartH), Needs: []int{1}}
		}
		p.Links = append(p.Links, link)
	}
	if err := bad.Err(); err != nil {
		return p, err
	}
	if loop := p.Cycle(); loop != nil {
		names := make([]string, len(loop))
		for i, t := range loop {
			names[i] = p.Tasks[t].Name
		}
		return p, fielderr.At("links", "these tasks wait for one another: %s", strings.Join(names, ", "))
	}
	hours := make([]int, r.HorizonH)
	for h := range hours {
		hours[h] = r.Crews
	}
	p.Capacity = [][]int{hours}
	return p, nil
}

// ranges reads stretches of starts, which must rise and not overlap.
func ranges(bad *fielderr.Errors, path string, list [][2]int) []Range {
	out := make([]Range, 0, len(list))
	for i, r := range list {
		if r[0] > r[1] || i > 0 && r[0] <= list[i-1][1] {
			bad.Add(fmt.Sprintf("%s.allowed_start_h[%d]", path, i), "must be [first, last], after the one before")
		}
		out = append(out, Range{r[0], r[1]})
	}
	return out
}
