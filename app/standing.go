package app

import (
	"context"
	"strings"
	"sync"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/fault"
	"allcoats/core/planning/plan"
	"allcoats/core/readiness/today"
)

// standing are the plans of places as they stood last, for as long as nothing is written
// and the hour is the same.
type standing struct {
	sync.Mutex
	plans map[string]standingPlan
	odds  map[string]*oddsMade   // of a place, as they were worked out last
	makes map[string]*sync.Mutex // by place, so that one that is being made is waited for
}

// of returns what is kept of a place, and who makes it.
func (s *standing) of(placeID string) (standingPlan, *sync.Mutex) {
	s.Lock()
	defer s.Unlock()
	if s.makes[placeID] == nil {
		s.makes[placeID] = &sync.Mutex{}
	}
	return s.plans[placeID], s.makes[placeID]
}

// oddsMade are the odds of the launches of a version of a plan.
type oddsMade struct {
	At      time.Time            `json:"at"`
	Version int                  `json:"version"`
	Boats   map[string]plan.Odds `json:"boats"`
}

// goodOdds is how long odds are told, while the plan is the same.
const goodOdds = 24 * time.Hour

func (s *standing) bet(placeID string, o *oddsMade) {
	s.Lock()
	defer s.Unlock()
	s.odds[placeID] = o
}

// oddsOf are the odds of a plan as they are known: those of this run, or those that were kept
// with it.
func (a *App) oddsOf(s *yardState) *oddsMade {
	a.standing.Lock()
	defer a.standing.Unlock()
	for _, o := range []*oddsMade{a.standing.odds[s.view.Place.ID], s.now.Odds} {
		if o != nil && o.Version == s.row.Version && s.view.Now.Sub(o.At).Abs() < goodOdds {
			return o
		}
	}
	return nil
}

func (s *standing) keep(placeID string, p standingPlan) {
	s.Lock()
	defer s.Unlock()
	s.plans[placeID] = p
}

type standingPlan struct {
	stamp   uint64
	hour    time.Time
	plan    *plan.Plan
	trouble []fault.Field
}

// standingPlan is the plan of a place as YardPlan shows it, nil with the trouble where there
// is none.
func (a *App) standingPlan(ctx context.Context, placeID string, now time.Time) (p standingPlan, err error) {
	err = a.View(ctx, func(ctx context.Context) error {
		stamp, known := a.store.Stamp(ctx)
		_, makes := a.standing.of(placeID)
		makes.Lock()
		defer makes.Unlock()
		p, _ = a.standing.of(placeID)
		if known && p.plan != nil && p.stamp == stamp && p.hour.Equal(now.Truncate(time.Hour)) {
			return nil
		}
		s, err := a.loadYard(ctx, placeID)
		if err != nil {
			return err
		}
		if _, err := s.show(ctx, plan.Effort{}); err != nil {
			return err
		}
		p = standingPlan{stamp, now.Truncate(time.Hour), s.view.Plan, s.view.Trouble}
		if known {
			a.standing.keep(placeID, p)
		}
		return nil
	})
	return p, err
}

// ofBoat is a boat's work of a plan, by its starts.
func (p standingPlan) ofBoat(boatID string) []today.Planned {
	if p.plan == nil {
		return nil
	}
	out := []today.Planned{}
	for _, it := range p.plan.Items {
		if it.BoatID != boatID || it.Launch {
			continue
		}
		whole, _, _ := strings.Cut(it.TaskID, "/")
		out = append(out, today.Planned{TaskID: it.TaskID, Whole: whole, StepID: it.StepID, SurfaceID: it.SurfaceID, Surface: it.Surface, What: it.What, Work: it.Work, SharePct: it.SharePct,
			Coat: it.Coat, Start: it.Start, End: it.End, Hours: it.Hours, People: it.People, Before: it.Before, Why: it.Why})
	}
	return out
}

// plan puts the boat's work as the plan of her place has it into her situation, and what
// benches say against her coats.
func (a *App) plan(ctx context.Context, o *outlook) error {
	p, err := a.standingPlan(ctx, o.survey.Place.ID, o.now)
	o.s.Plan = p.ofBoat(o.survey.Boat.ID)
	o.s.HoursSaid = len(o.choices.People) > 0 || o.survey.Boat.Week != (calendar.Week{})
	for i := range o.s.Surfaces {
		f := &o.s.Surfaces[i]
		_, next := o.job.Chain(f.ID).First()
		f.Stop = o.stops(f.ID, next)
	}
	return err
}
