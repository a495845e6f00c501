package app

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"slices"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/base/parallel"
	"allcoats/core/boat/survey"
	"allcoats/core/conditions/field"
	"allcoats/core/exposure/surface"
	"allcoats/core/job/task"
	"allcoats/core/physics/solar"
	"allcoats/core/physics/weather"
	"allcoats/core/planning/plan"
	"allcoats/store"
)

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
	looks    []boatState
	futures  weather.Futures
	unread   []message.Sentence // boats that are left out, with why
	// buildCents is what tents cost that a change puts up.
	buildCents float64
}

// unread says of a boat that cannot be read that she is left out. One that the reading of was
// given up is none.
func unread(ctx context.Context, name string, err error) (message.Sentence, error) {
	if errors.Is(err, context.Canceled) || errors.Is(err, context.DeadlineExceeded) || ctx.Err() != nil {
		return nil, err
	}
	slog.ErrorContext(ctx, "a boat cannot be read", "boat", name, "err", err)
	return message.Of("%v cannot be read and is left out: open her Survey and mend what it names, or restore a copy",
		message.Strong(name)), nil
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
	if err := errors.Join(json.Unmarshal([]byte(s.row.Settings), &s.settings), json.Unmarshal([]byte(s.row.Starts),
		&s.now), json.Unmarshal([]byte(s.row.Before), &s.before),
		json.Unmarshal([]byte(s.row.Redo), &s.after)); err != nil {
		return s, fmt.Errorf("plan of %s: %w", p.Name, err)
	}
	boats, err := q.Boats(ctx)
	if err != nil {
		return s, err
	}
	until := now.Add(leastAhead)
	boats = slices.DeleteFunc(boats, func(b store.Boat) bool { return b.PlaceID != placeID })
	for _, b := range boats {
		if launch, err := time.ParseInLocation(time.DateOnly, b.LaunchDate, p.location()); err == nil &&
			launch.Add(afterLaunch).After(until) {
			until = launch.Add(afterLaunch)
		}
	}
	s.looks = make([]boatState, len(boats))
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
	s.view = YardPlan{Version: s.row.Version, Place: p, Now: now, Until: until, Settings: s.settings,
		Rules: plan.CrossRules, Boats: []YardBoat{},
		Days: []PlanDay{}, Trouble: []fielderr.Field{}, Moved: []plan.Moved{}, Undo: len(s.before), Redo: len(s.after)}
	if len(s.now.Starts) > 0 {
		s.view.Made = &s.now.At
	}
	s.yard = plan.Yard{Now: now, Until: until, Loc: p.location(), People: s.settings.People, Guns: s.settings.Guns,
		Tents: s.settings.Tents, Noise: s.settings.Noise, HourCents: s.settings.HourCents, Marks: s.settings.Marks,
		TravelMin: s.settings.TravelMin, DustM: s.settings.DustM,
		Daylight: solar.Daylight(p.LatitudeDeg, p.LongitudeDeg, now.Add(-24*time.Hour), until)}
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
		v := YardBoat{ID: o.survey.Boat.ID, Name: o.survey.Boat.Name, Launch: o.survey.Boat.LaunchDate,
			Surfaces: []YardSurface{}, WorkDayH: o.workDayH()}
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
func assumed(looks []boatState) []plan.Person {
	out := []plan.Person{}
	crew := 1
	var week = plan.Person{}.Week
	for _, o := range looks {
		crew = max(crew, o.survey.Boat.Crew)
		week = o.survey.Boat.Week
	}
	for i := range crew {
		out = append(out, plan.Person{Name: fmt.Sprintf("Hand %d", i+1), Week: week, Off: []string{},
			Skills: []task.Skill{}})
	}
	return out
}

// boat is a boat of the yard with the weather at her surfaces ahead.
func (s yardState) boat(o boatState, at map[string]field.Weather) plan.Boat {
	b := o.survey.Boat
	out := plan.Boat{ID: b.ID, Name: b.Name, Lights: b.Lights, AlongM: s.settings.AlongM[b.ID],
		Own: s.settings.Own[b.ID], Work: o.job.Own, Off: s.settings.Off[b.ID]}
	if launch, err := time.ParseInLocation(time.DateOnly, b.LaunchDate, s.yard.Loc); err == nil {
		end := launch.AddDate(0, 0, 1).Add(-time.Minute).UTC() // ready on the day is in time
		out.Launch = &end
	}
	for i, f := range o.survey.Surfaces {
		t := plan.Surface{ID: f.ID, Name: f.Name, Part: f.Part, Side: f.Side, AreaM2: f.Area.AreaM2,
			Access:    f.accessFactor(),
			Sheltered: o.s.Surfaces[i].Sheltered, Tented: o.boat.Surfaces[i].Shelter == survey.Tent, Weather: at[f.ID],
			Last: o.s.Surfaces[i].Last, Films: o.s.Surfaces[i].Films, HoldsMM: surface.HoldsMM(f.Tilt(f.Part))}
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
		s.view.Trouble = append(s.view.Trouble, fielderr.At("boats", "no boat stands here")...)
		return kept, nil
	}
	d, err := s.draft(ctx, e)
	var bad fielderr.Errors
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
