package app

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"maps"
	"math"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/fault"
	"allcoats/core/base/parallel"
	"allcoats/core/base/say"
	"allcoats/core/boat/survey"
	"allcoats/core/exposure/surface"
	"allcoats/core/job/task"
	"allcoats/core/physics/sky"
	"allcoats/core/physics/weather"
	"allcoats/core/planning/plan"
	"allcoats/core/readiness/field"
	"allcoats/formats"
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
	var bad fault.Errors
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
		fault.OneOf(&bad, "marks."+id+".state", m.State, []string{"", "skipped"})
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
	Trouble []fault.Field `json:"trouble"`
	// Made is when the plan that stands was made, nil if none was: then it is a
	// first draft. Moved is what it has had to move since.
	Made  *time.Time   `json:"made,omitempty"`
	Moved []plan.Moved `json:"moved"`
	// Undo and Redo are how many plans can be gone back to, and forward again.
	Undo int `json:"undo"`
	Redo int `json:"redo"`
	// Odds is when the odds of the launches were worked out, nil if they are not.
	Odds *time.Time `json:"odds,omitempty"`
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

// made is a plan that was made.
type made struct {
	At time.Time `json:"at"`
	plan.Kept
	Odds *oddsMade `json:"odds,omitempty"`
	// Marks are those that the plan was made with, where one before can be gone back to.
	Marks map[string]plan.Mark `json:"marks"`
}

// How far a plan looks: so long after the last launch, at least and at most so long; and
// where work finds no place, to half a year after the launch.
const (
	afterLaunch = 35 * 24 * time.Hour
	afterLast   = 14 * 24 * time.Hour // after the last start of the plan before
	halfAYear   = 183 * 24 * time.Hour
	leastAhead  = 42 * 24 * time.Hour
	mostAhead   = 400 * 24 * time.Hour
)

// yardState is all that a plan is made of, loaded.
type yardState struct {
	row      store.Plan
	settings PlanSettings
	now      made
	before   []made
	after    []made
	view     YardPlan
	yard     plan.Yard
	looks    []outlook
	futures  weather.Futures
	unread   []say.Sentence // boats that are left out, with why
	// buildCents is what tents cost that a change puts up.
	buildCents float64
}

// unread says of a boat that cannot be read that she is left out. One that the reading of was
// given up is none.
func unread(ctx context.Context, name string, err error) (say.Sentence, error) {
	if errors.Is(err, context.Canceled) || errors.Is(err, context.DeadlineExceeded) || ctx.Err() != nil {
		return nil, err
	}
	slog.ErrorContext(ctx, "a boat cannot be read", "boat", name, "err", err)
	return say.Of("%v cannot be read and is left out: open her Survey and mend what it names, or restore a copy", say.Strong(name)), nil
}

func (a *App) gatherYard(ctx context.Context, placeID string) (yardState, error) {
	q := a.store.Read(ctx)
	var s yardState
	p, err := a.Place(ctx, placeID)
	if err != nil {
		return s, err
	}
	now, err := a.Now(ctx)
	if err != nil {
		return s, err
	}
	s.row, err = q.Plan(ctx, placeID)
	switch {
	case errors.Is(err, store.ErrNotFound):
		s.row = store.Plan{PlaceID: placeID, Settings: "{}", Starts: "{}", Before: "[]", Redo: "[]"}
	case err != nil:
		return s, err
	}
	if err := errors.Join(json.Unmarshal([]byte(s.row.Settings), &s.settings), json.Unmarshal([]byte(s.row.Starts), &s.now), json.Unmarshal([]byte(s.row.Before), &s.before), json.Unmarshal([]byte(s.row.Redo), &s.after)); err != nil {
		return s, fmt.Errorf("plan of %s: %w", p.Name, err)
	}
	boats, err := q.Boats(ctx)
	if err != nil {
		return s, err
	}
	until := now.Add(leastAhead)
	boats = slices.DeleteFunc(boats, func(b store.Boat) bool { return b.PlaceID != placeID })
	for _, b := range boats {
		if launch, err := time.ParseInLocation(time.DateOnly, b.LaunchDate, p.location()); err == nil && launch.Add(afterLaunch).After(until) {
			until = launch.Add(afterLaunch)
		}
	}
	s.looks = make([]outlook, len(boats))
	failed := make([]error, len(boats))
	err = parallel.Each(ctx, len(boats), nil, func(_, i int) { s.looks[i], failed[i] = a.look(ctx, boats[i].ID) })
	if err != nil {
		return s, err
	}
	read := s.looks[:0]
	for i, o := range s.looks {
		if failed[i] == nil {
			read = append(read, o)
			continue
		}
		why, err := unread(ctx, boats[i].Name, failed[i])
		if err != nil {
			return s, err
		}
		s.unread = append(s.unread, why)
	}
	s.looks = read
	for _, at := range s.now.Starts {
		if end := at.Add(afterLast); end.After(until) {
			until = end
		}
	}
	s.fill(p, now, until)
	if need := now.Add(s.workTakes()); need.After(until) {
		s.fill(p, now, need)
	}
	return s, nil
}

// fill makes the yard of what was loaded.
func (s *yardState) fill(p Place, now, until time.Time) {
	if len(s.settings.People) == 0 {
		s.settings.People = assumed(s.looks)
	}
	if s.settings.Own == nil {
		s.settings.Own = map[string][]task.OwnTask{}
	}
	if s.settings.Off == nil {
		s.settings.Off = map[string]map[string]string{}
	}
	if s.settings.Marks == nil {
		s.settings.Marks = map[string]plan.Mark{}
	}
	s.view = YardPlan{Version: s.row.Version, Place: p, Now: now, Until: until, Settings: s.settings, Rules: plan.CrossRules, Boats: []YardBoat{},
		Days: []PlanDay{}, Trouble: []fault.Field{}, Moved: []plan.Moved{}, Undo: len(s.before), Redo: len(s.after)}
	if len(s.now.Starts) > 0 {
		s.view.Made = &s.now.At
	}
	s.yard = plan.Yard{Now: now, Until: until, Loc: p.location(), People: s.settings.People, Guns: s.settings.Guns, Tents: s.settings.Tents, Noise: s.settings.Noise, HourCents: s.settings.HourCents, Marks: s.settings.Marks,
		TravelMin: s.settings.TravelMin, DustM: s.settings.DustM,
		Daylight: sky.Daylight(p.LatitudeDeg, p.LongitudeDeg, now.Add(-24*time.Hour), until)}
	var open weather.Series
	if len(s.looks) > 0 {
		open = s.looks[0].climate.Open
	}
	s.futures = weather.NewFutures(open, now, until.Sub(now)+48*time.Hour, p.habits())
	s.view.Known = s.futures.Known()
	course := s.course(s.futures.Usual())
	s.view.Days = planDays(course, s.view.Known, p.location())
	if len(s.looks) > 0 {
		s.yard.Supplies = supplies(s.looks[0].shelf, s.looks[0].products, now, p.location())
	}
	for _, o := range s.looks {
		boat := s.boat(o, o.boat.Ahead(append(slices.Clone(o.climate.Open.Between(time.Time{}, now)), course...)))
		for i := range boat.Surfaces {
			boat.Surfaces[i].Clock = boat.Surfaces[i].Run(now)
			boat.Surfaces[i].Hard = boat.Surfaces[i].Hardens()
		}
		s.yard.Boats = append(s.yard.Boats, boat)
		v := YardBoat{ID: o.survey.Boat.ID, Name: o.survey.Boat.Name, Launch: o.survey.Boat.LaunchDate, Surfaces: []YardSurface{}, WorkDayH: o.workDayH()}
		for _, f := range o.survey.Surfaces {
			v.Surfaces = append(v.Surfaces, YardSurface{f.ID, f.Name})
		}
		s.view.Boats = append(s.view.Boats, v)
	}
}

// planSeed orders the search for a plan.
const planSeed = 7

// course is what comes of a course after now.
func (s yardState) course(c weather.Series) weather.Series {
	for len(c) > 0 && !c[0].At.After(s.view.Now) {
		c = c[1:]
	}
	return c
}

// assumed are the hands that the boats speak of when nobody is named.
func assumed(looks []outlook) []plan.Person {
	out := []plan.Person{}
	crew := 1
	var week = plan.Person{}.Week
	for _, o := range looks {
		crew = max(crew, o.survey.Boat.Crew)
		week = o.survey.Boat.Week
	}
	for i := range crew {
		out = append(out, plan.Person{Name: fmt.Sprintf("Hand %d", i+1), Week: week, Off: []string{}, Skills: []task.Skill{}})
	}
	return out
}

// boat is a boat of the yard with the weather at her surfaces ahead.
func (s yardState) boat(o outlook, at map[string]field.Weather) plan.Boat {
	b := o.survey.Boat
	out := plan.Boat{ID: b.ID, Name: b.Name, Lights: b.Lights, AlongM: s.settings.AlongM[b.ID], Own: s.settings.Own[b.ID], Work: o.job.Own, Off: s.settings.Off[b.ID]}
	if launch, err := time.ParseInLocation(time.DateOnly, b.LaunchDate, s.yard.Loc); err == nil {
		end := launch.AddDate(0, 0, 1).Add(-time.Minute).UTC() // ready on the day is in time
		out.Launch = &end
	}
	for i, f := range o.survey.Surfaces {
		t := plan.Surface{ID: f.ID, Name: f.Name, Part: f.Part, Side: f.Side, AreaM2: f.Area.AreaM2, Access: f.accessFactor(),
			Sheltered: o.s.Surfaces[i].Sheltered, Tented: o.boat.Surfaces[i].Shelter == survey.Tent, Weather: at[f.ID], Last: o.s.Surfaces[i].Last, Films: o.s.Surfaces[i].Films, HoldsMM: surface.HoldsMM(f.Tilt(f.Part))}
		t.Tasks = o.job.Chain(f.ID).Tasks
		out.Surfaces = append(out.Surfaces, t)
	}
	return out
}

// draft makes a plan that reaches as far ahead as it takes to find all work a place, if any
// does.
func (s *yardState) draft(ctx context.Context, e plan.Effort) (plan.Draft, error) {
	quick := e
	quick.Rounds, quick.Told = 0, nil
	for ahead := s.view.Until.Sub(s.view.Now); ; {
		m, err := s.yard.Model()
		if err != nil {
			return plan.Draft{}, err
		}
		d := m.Draft(ctx, s.now.Kept, quick)
		if d.Left() > 0 && ahead < s.farthest() {
			ahead = min(2*ahead, s.farthest())
			s.fill(s.view.Place, s.view.Now, s.view.Now.Add(ahead))
			continue
		}
		if e.Rounds > 0 {
			d = m.Draft(ctx, s.now.Kept, e)
		}
		return d, nil
	}
}

// show makes the plan as it stands.
func (s *yardState) show(ctx context.Context, e plan.Effort) (kept plan.Kept, err error) {
	if len(s.yard.Boats) == 0 {
		s.view.Trouble = append(s.view.Trouble, fault.At("boats", "no boat stands here")...)
		return kept, nil
	}
	d, err := s.draft(ctx, e)
	var bad fault.Errors
	if errors.As(err, &bad) {
		s.view.Trouble = bad
		return kept, nil
	}
	if err != nil {
		return kept, err
	}
	p, kept := d.Tell()
	p.Notes = append(p.Notes, s.unread...)
	s.view.Plan = &p
	if len(s.now.Starts) > 0 {
		s.view.Moved = plan.Changes(s.now.Starts, p)
	}
	return kept, nil
}

// workTakes is how long the people take for all that is left, twice over for what waits, no
// longer than a plan may look.
func (s *yardState) workTakes() time.Duration {
	left, week := 0.0, 0.0
	for _, o := range s.looks {
		left += o.job.Sum.LeftH
	}
	for _, p := range s.settings.People {
		week += p.WeekH()
	}
	return min(time.Duration(2*left/max(1, week)*7*24)*time.Hour, s.farthest())
}

// farthest is how far a plan may look: half a year after the last launch wanted, or after now.
func (s *yardState) farthest() time.Duration {
	last := s.view.Now
	for _, b := range s.yard.Boats {
		if b.Launch != nil && b.Launch.After(last) {
			last = *b.Launch
		}
	}
	return min(last.Add(halfAYear).Sub(s.view.Now), mostAhead)
}

// YardPlan returns the plan of a place as it stands now. Nothing is stored.
func (a *App) YardPlan(ctx context.Context, placeID string) (YardPlan, error) {
	s, _, err := a.showYard(ctx, placeID)
	if err != nil {
		return YardPlan{}, err
	}
	if o := a.oddsOf(&s); o != nil && s.view.Plan != nil {
		p := s.view.Plan.WithOdds(o.Boats, s.yard.Loc)
		s.view.Plan, s.view.Odds = &p, &o.At
	}
	return s.view, nil
}

// planFutures are the courses of the weather that a plan is played in when it is made, fewer
// for a big yard.
const planFutures, leastFutures, futureTasks = 40, 11, 6000

// courses are in how many courses of the weather a plan is played when it is made.
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
		_, odds, err := s.play(ctx, kept.Starts, s.courses(), later)
		if err != nil {
			return YardPlan{}, err
		}
		next.Odds = &oddsMade{s.view.Now, s.row.Version + 1, odds}
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
		p := out.Plan.WithOdds(next.Odds.Boats, s.yard.Loc)
		out.Plan, out.Odds = &p, &next.Odds.At
	}
	return out, nil
}

// putPlan stores a plan with those before and after it that can be gone to.
func (a *App) putPlan(ctx context.Context, s yardState, now made, before, after []made) error {
	row := s.row
	past := func(list []made) (string, error) {
		if list == nil {
			list = []made{}
		}
		raw, err := json.Marshal(list[max(0, len(list)-mostUndo):])
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

// pin pins a task to a start, or to the quarter of an hour nearest to it that suits its
// weather and the hands; without a start it is free again.
func (s *yardState) pin(taskID string, at *time.Time, near bool) {
	if at != nil && near {
		if m, err := s.yard.Model(); err == nil {
			suits := m.Nearest(taskID, *at)
			at = &suits
		}
	}
	marks := maps.Clone(s.settings.Marks)
	m := marks[taskID]
	if m.Pinned = at; at != nil {
		whole := at.UTC().Truncate(15 * time.Minute)
		m.Pinned = &whole
	}
	marks[taskID] = m
	if m == (plan.Mark{}) {
		delete(marks, taskID)
	}
	s.settings.Marks = marks
	s.fill(s.view.Place, s.view.Now, s.view.Until)
}

// Tried is what a move would do: where the task comes to, what else moves, and the launches
// that it changes. Trouble says why it cannot stand.
type Tried struct {
	At      *time.Time     `json:"at,omitempty"`
	Moved   []plan.Moved   `json:"moved"`
	Says    []say.Sentence `json:"says"`
	Trouble []fault.Field  `json:"trouble"`
}

// try pins a task and makes the plan with that; the starts before and after are told.
func (a *App) try(ctx context.Context, s *yardState, taskID string, at *time.Time, near bool) (Tried, error) {
	out := Tried{Moved: []plan.Moved{}, Says: []say.Sentence{}, Trouble: []fault.Field{}}
	shown, old, err := a.showYard(ctx, s.view.Place.ID)
	if err != nil {
		return out, err
	}
	var before []plan.Launching
	if shown.view.Plan != nil {
		before = shown.view.Plan.Launches
	}
	s.pin(taskID, at, near)
	if _, err := s.show(ctx, plan.Effort{}); err != nil {
		return out, err
	}
	out.At = s.settings.Marks[taskID].Pinned
	if out.Trouble = append(out.Trouble, s.view.Trouble...); len(out.Trouble) > 0 {
		return out, nil
	}
	for _, l := range s.view.Plan.Left {
		if l.TaskID == taskID && at != nil {
			out.Trouble = append(out.Trouble, fault.At("at", "%s: %s", l.Name, l.Why.In(s.yard.Loc))...)
		}
	}
	for _, m := range plan.Changes(old.Starts, *s.view.Plan) {
		if m.TaskID != taskID {
			out.Moved = append(out.Moved, m)
		}
	}
	for k, l := range s.view.Plan.Launches {
		if k < len(before) && !same(before[k].At, l.At) {
			out.Says = append(out.Says, l.Says)
		}
	}
	return out, nil
}

func same(a, b *time.Time) bool { return a == nil && b == nil || a != nil && b != nil && a.Equal(*b) }

// TryMove tells what a move would do; nothing is stored.
func (a *App) TryMove(ctx context.Context, placeID string, taskID string, at *time.Time, near bool) (Tried, error) {
	s, err := a.loadYard(ctx, placeID)
	if err != nil {
		return Tried{}, err
	}
	return a.try(ctx, &s, taskID, at, near)
}

// Move pins a task to a start, if that can stand; the plan is shown with it.
// Without a start it is free again. near pins it to the quarter of an hour nearest to the
// start that suits its weather and the hands. It can be gone back on.
func (a *App) Move(ctx context.Context, placeID string, version int, taskID string, at *time.Time, near bool) (YardPlan, error) {
	s, err := a.loadYard(ctx, placeID)
	if err != nil {
		return YardPlan{}, err
	}
	now := s.now
	now.Marks = s.settings.Marks
	tried, err := a.try(ctx, &s, taskID, at, near)
	if err != nil {
		return YardPlan{}, err
	}
	if len(tried.Trouble) > 0 {
		return YardPlan{}, fault.Errors(tried.Trouble)
	}
	s.row.Version = version
	if err := a.putPlan(ctx, s, s.now, append(s.before, now), nil); err != nil {
		return YardPlan{}, err
	}
	return a.YardPlan(ctx, placeID)
}

// Calendar returns the plan of a place as an iCalendar file: tasks, and when
// recoat windows close, with alarms.
func (a *App) Calendar(ctx context.Context, placeID string) ([]byte, error) {
	v, err := a.YardPlan(ctx, placeID)
	if err != nil {
		return nil, err
	}
	var events []formats.Event
	if v.Plan == nil || len(v.Plan.Items) == 0 { // a calendar has one entry at least
		why := "nothing is left to do"
		for _, t := range v.Trouble {
			why = t.Says.In(v.Place.location())
		}
		events = append(events, formats.Event{ID: placeID, Start: v.Now, End: v.Now.Add(time.Hour), Summary: "No plan: " + why})
		return formats.WriteCalendar("All Coats, "+v.Place.Name, v.Now, events), nil
	}
	for _, it := range v.Plan.Items {
		name := it.Named().String()
		events = append(events, formats.Event{ID: it.TaskID, Start: it.Start, End: it.End, Summary: name, Description: it.Why.In(v.Place.location()), AlarmMin: 30})
		if it.Closes != nil && it.Closes.After(v.Now) {
			events = append(events, formats.Event{ID: it.TaskID + ":closes", Start: *it.Closes, End: *it.Closes, Summary: "Window closes before " + name,
				Description: "After this it must be sanded first.", AlarmMin: 12 * 60})
		}
	}
	return formats.WriteCalendar("All Coats, "+v.Place.Name, v.Now, events), nil
}

// PlanTable returns the plan of a place as a table.
func (a *App) PlanTable(ctx context.Context, placeID string) (formats.Table, error) {
	v, err := a.YardPlan(ctx, placeID)
	t := formats.Table{Name: "Plan", Header: []string{"start", "end", "boat", "surface", "what", "hours", "people", "window closes", "why not earlier"}}
	if err != nil || v.Plan == nil {
		return t, err
	}
	loc := v.Place.location()
	for _, it := range v.Plan.Items {
		people, closes := "", ""
		for i, p := range it.People {
			if i > 0 {
				people += ", "
			}
			people += p
		}
		if it.Closes != nil {
			closes = it.Closes.In(loc).Format("2006-01-02 15:04")
		}
		t.Rows = append(t.Rows, []any{it.Start.In(loc).Format("2006-01-02 15:04"), it.End.In(loc).Format("2006-01-02 15:04"), it.Boat, it.Surface, it.What.String(),
			math.Round(10*it.Hours) / 10, people, closes, it.Why.In(loc)})
	}
	return t, nil
}
