package app

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/fielderr"
	"allcoats/core/job/task"
	"allcoats/core/physics/weather"
	"allcoats/core/planning/plan"
	"allcoats/store"
)

// PlanSettings are what a user says of a yard's plan. Maps are by the id of the
// boat, Marks by that of the task.
type PlanSettings struct {
	People []plan.Person `json:"people"`
	Guns   int           `json:"guns"`
	// Tents is how many tents the boats share, 0 when each has her own.
	Tents int `json:"tents"`
	// Noise are the hours of a day in which noise may be made; HourCents is what an
	// hour of work costs, in cents of the user's currency.
	Noise     calendar.Hours `json:"noise"`
	HourCents float64        `json:"hourCents"`
	// TravelMin is how long it takes from one boat to another, minutes; DustM how far dust
	// flies to a wet coat on another, m; AlongM where each boat stands along the yard, m.
	TravelMin float64                      `json:"travelMin"`
	DustM     float64                      `json:"dustM"`
	AlongM    map[string]float64           `json:"alongM"`
	Own       map[string][]task.OwnTask    `json:"own"`
	Off       map[string]map[string]string `json:"off"`
	Marks     map[string]plan.Mark         `json:"marks"`
}

// validate reports what cannot be, and gives own tasks their ids.
func (s *PlanSettings) validate() error {
	var bad fielderr.Errors
	names := map[string]bool{}
	for i, p := range s.People {
		path := fmt.Sprintf("people[%d]", i)
		bad.Under(path, p.Validate())
		if names[p.Name] {
			bad.Add(path+".name", "two people have this name")
		}
		names[p.Name] = true
	}
	if len(s.People) == 0 {
		bad.Add("people", "nobody works in this yard: add somebody")
	}
	bad.Range("guns", float64(s.Guns), 0, 20, "guns")
	bad.Range("tents", float64(s.Tents), 0, 50, "tents")
	bad.Range("noise.fromH", s.Noise.FromH, 0, 24, "h")
	bad.Range("noise.toH", s.Noise.ToH, 0, 24, "h")
	if s.Noise.ToH < s.Noise.FromH {
		bad.Add("noise.toH", "must be after the hour that it begins")
	}
	bad.Range("hourCents", s.HourCents, 0, 1e6, "cents")
	bad.Range("travelMin", s.TravelMin, 0, 240, "min")
	bad.Range("dustM", s.DustM, 0, 500, "m")
	for boat, m := range s.AlongM {
		bad.Range("alongM."+boat, m, -5000, 5000, "m")
	}
	for boat, own := range s.Own {
		for i := range own {
			bad.Under(fmt.Sprintf("own.%s[%d]", boat, i), own[i].Validate())
			own[i].Skill = task.Skill(strings.TrimSpace(string(own[i].Skill)))
			if own[i].ID == "" {
				own[i].ID = newID()
			}
		}
	}
	for boat, off := range s.Off {
		for rule, reason := range off {
			known := slices.ContainsFunc(plan.CrossRules, func(r plan.Rule) bool { return r.ID == rule })
			if !known || reason == "" {
				bad.Add(fmt.Sprintf("off.%s.%s", boat, rule), "say why the rule does not hold here")
			}
		}
	}
	for id, m := range s.Marks {
		fielderr.OneOf(&bad, "marks."+id+".state", m.State, []string{"", "skipped"})
	}
	return bad.Err()
}

// YardPlan is the plan of a place as it stands, under the weather and the log of
// now.
type YardPlan struct {
	Version  int          `json:"version"`
	Place    Place        `json:"place"`
	Now      time.Time    `json:"now"`
	Until    time.Time    `json:"until"`
	Known    time.Time    `json:"known"` // end of the forecast
	Settings PlanSettings `json:"settings"`
	Rules    []plan.Rule  `json:"rules"`
	Boats    []YardBoat   `json:"boats"`
	Plan     *plan.Plan   `json:"plan,omitempty"`
	// Days are the weather that the plan counts with, day by day.
	Days []PlanDay `json:"days"`
	// Trouble says why there is no plan.
	Trouble []fielderr.Field `json:"trouble"`
	// Made is when the plan that stands was made, nil if none was: then it is a
	// first draft. Moved is what it has had to move since.
	Made  *time.Time   `json:"made,omitempty"`
	Moved []plan.Moved `json:"moved"`
	// Undo and Redo are how many plans can be gone back to, and forward again.
	Undo int `json:"undo"`
	Redo int `json:"redo"`
	// Odds is when the odds of the launches were worked out, nil if they are not.
	Odds *time.Time `json:"odds,omitempty"`
	// OddsStale says that something was written since then.
	OddsStale bool `json:"oddsStale"`
}

// PlanDay is a day's weather in the open.
type PlanDay struct {
	Day      string  `json:"day"` // 2026-05-30
	MinC     float64 `json:"minC"`
	MaxC     float64 `json:"maxC"`
	RainH    int     `json:"rainH"` // hours with rain between six and twenty
	Forecast bool    `json:"forecast"`
}

// planDays sums a course up by local days.
func planDays(course weather.Series, known time.Time, loc *time.Location) []PlanDay {
	out := []PlanDay{}
	for _, h := range course {
		l := h.At.In(loc)
		day := l.Format(time.DateOnly)
		if n := len(out); n == 0 || out[n-1].Day != day {
			out = append(out, PlanDay{Day: day, MinC: h.TempC, MaxC: h.TempC, Forecast: !h.At.After(known)})
		}
		d := &out[len(out)-1]
		d.MinC, d.MaxC = min(d.MinC, h.TempC), max(d.MaxC, h.TempC)
		if h.RainMM != nil && *h.RainMM > 0.05 && l.Hour() >= 6 && l.Hour() < 20 {
			d.RainH++
		}
	}
	return out
}

// YardBoat is a boat of the plan with the surfaces that own tasks can be tied to.
type YardBoat struct {
	ID       string        `json:"id"`
	Name     string        `json:"name"`
	Launch   string        `json:"launch"`
	Surfaces []YardSurface `json:"surfaces"`
	// WorkDayH is how long a working day of her people is.
	WorkDayH float64 `json:"workDayH"`
}

// YardSurface is a surface's id and name.
type YardSurface struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// YardPlan returns the plan of a place as it stands now. Nothing is stored.
func (a *App) YardPlan(ctx context.Context, placeID string) (YardPlan, error) {
	s, _, err := a.showYard(ctx, placeID)
	if err != nil {
		return YardPlan{}, err
	}
	if o := a.oddsOf(&s); o != nil && s.view.Plan != nil {
		p := s.view.Plan.WithOdds(o.Boats, s.yard.Loc)
		s.view.Plan, s.view.Odds, s.view.OddsStale = &p, &o.At, a.outdated(o)
	}
	return s.view, nil
}

// planFutures are the futures that a plan is played in when it is made, fewer for a big yard.
const planFutures, leastFutures, futureTasks = 200, 40, 20_000

// courses are in how many futures a plan is played when it is made.
func (s *yardState) courses() int {
	return max(leastFutures, min(planFutures, futureTasks/s.tasks()))
}

// planRounds are the orders that are tried for a plan, fewer for a big yard.
const planRounds, planTasks = 1500, 60_000

// halves tell the shares done of two pieces of work as that of both; told may be nil.
func halves(told func(done float64)) (first, later func(done float64)) {
	if told == nil {
		return nil, nil
	}
	return func(done float64) { told(done / 2) }, func(done float64) { told((1 + done) / 2) }
}

// Making is how a plan is made: Anew forgets the one before, Quick does not look for a better
// one, nor for its odds.
type Making struct{ Anew, Quick bool }

// MakePlan repairs the plan, looking for a better one, or makes it anew, and keeps it; the
// one before can be gone back to. told may be nil; when ctx ends nothing is kept.
func (a *App) MakePlan(ctx context.Context, placeID string, how Making, told func(done float64)) (YardPlan, error) {
	written := a.store.Written()
	s, err := a.loadYard(ctx, placeID)
	if err != nil {
		return YardPlan{}, err
	}
	first, later := halves(told)
	e := plan.Effort{Seed: planSeed, Rounds: s.rounds(planRounds), Anew: how.Anew, Told: first}
	if how.Quick {
		e.Rounds = 0
	}
	kept, err := s.show(ctx, e)
	if err = errors.Join(err, ctx.Err()); err != nil || len(kept.Starts) == 0 {
		return s.view, err
	}
	next := made{At: s.view.Now, Kept: kept}
	if !how.Quick {
		if next.Odds, err = s.play(ctx, kept.Starts, s.courses(), later); err != nil {
			return YardPlan{}, err
		}
		next.Odds.Version, next.Odds.written = s.row.Version+1, written+1 // keeping it is a write
	}
	return a.keepPlan(ctx, s, next)
}

// rounds are as many as most, fewer where there are many tasks.
func (s *yardState) rounds(most int) int {
	return max(10, min(most, planTasks/s.tasks()))
}

// tasks is how many tasks are left, at least one.
func (s *yardState) tasks() int {
	tasks := 1
	for _, o := range s.looks {
		tasks += o.job.Sum.Left
	}
	return tasks
}

// mostUndo is how many plans can be gone back to.
const mostUndo = 20

// keepPlan keeps the plan that s shows.
func (a *App) keepPlan(ctx context.Context, s yardState, next made) (YardPlan, error) {
	before := s.before
	if len(s.now.Starts) > 0 && !maps.Equal(s.now.Starts, next.Starts) {
		now := s.now
		now.Marks = s.settings.Marks
		before = append(before, now)
	}
	if err := a.putPlan(ctx, s, next, before, nil); err != nil {
		return YardPlan{}, err
	}
	out := s.view
	out.Version, out.Made, out.Undo, out.Redo = s.row.Version+1, &next.At, min(len(before), mostUndo), 0
	if next.Odds != nil {
		a.bet(out.Place.ID, next.Odds)
		p := out.Plan.WithOdds(next.Odds.Boats, s.yard.Loc)
		out.Plan, out.Odds = &p, &next.Odds.At
	}
	return out, nil
}

// putPlan stores a plan with those before and after it that can be gone to.
func (a *App) putPlan(ctx context.Context, s yardState, now made, before, after []made) error {
	row := s.row
	past := func(list []made) (string, error) {
		last := append([]made{}, list[max(0, len(list)-mostUndo):]...)
		for i := range last {
			last[i].Odds = nil // told of another version
		}
		raw, err := json.Marshal(last)
		return string(raw), err
	}
	settings, err1 := json.Marshal(s.settings)
	starts, err2 := json.Marshal(now)
	var err3, err4 error
	row.Before, err3 = past(before)
	row.Redo, err4 = past(after)
	if err := errors.Join(err1, err2, err3, err4); err != nil {
		return err
	}
	row.Settings, row.Starts = string(settings), string(starts)
	err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error { return q.PutPlan(ctx, row) })
	return stale(err, func() (YardPlan, error) { return a.YardPlan(ctx, s.row.PlaceID) })
}

// UndoPlan goes back to the plan before, RedoPlan forward again.
func (a *App) UndoPlan(ctx context.Context, placeID string) (YardPlan, error) {
	return a.goTo(ctx, placeID, func(s *yardState) (from, to *[]made) { return &s.before, &s.after })
}

// RedoPlan takes an UndoPlan back.
func (a *App) RedoPlan(ctx context.Context, placeID string) (YardPlan, error) {
	return a.goTo(ctx, placeID, func(s *yardState) (from, to *[]made) { return &s.after, &s.before })
}

func (a *App) goTo(ctx context.Context, placeID string, lists func(s *yardState) (from, to *[]made)) (YardPlan, error) {
	return change(ctx, a, func(ctx context.Context) (YardPlan, error) {
		s, err := a.loadYard(ctx, placeID)
		if err != nil {
			return YardPlan{}, err
		}
		from, to := lists(&s)
		if n := len(*from); n > 0 {
			now, next := s.now, (*from)[n-1]
			now.Marks = s.settings.Marks
			*from, *to = (*from)[:n-1], append(*to, now)
			if next.Marks != nil {
				s.settings.Marks = next.Marks
			}
			next.Marks = nil
			if err := a.putPlan(ctx, s, next, s.before, s.after); err != nil {
				return YardPlan{}, err
			}
		}
		return a.YardPlan(ctx, placeID)
	})
}

// SetPlan changes the settings of a plan and shows what becomes of it.
func (a *App) SetPlan(ctx context.Context, placeID string, version int, e PlanSettings) (YardPlan, error) {
	return change(ctx, a, func(ctx context.Context) (YardPlan, error) {
		if err := e.validate(); err != nil {
			return YardPlan{}, err
		}
		s, err := a.loadYard(ctx, placeID)
		if err != nil {
			return YardPlan{}, err
		}
		s.row.Version, s.settings = version, e
		if err := a.putPlan(ctx, s, s.now, s.before, s.after); err != nil {
			return YardPlan{}, err
		}
		return a.YardPlan(ctx, placeID)
	})
}
