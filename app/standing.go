package app

import (
	"context"
	"errors"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/conditions/readiness"
	"allcoats/core/planning/plan"
)

// standing are the yards of places as they stood last, for as long as nothing is written
// and the hour is the same.
type standing struct {
	sync.Mutex
	yards map[string]*standingYard
	odds  map[string]*oddsMade // of a place, as they were worked out last
	bets  atomic.Uint64        // how often they were
}

// standingYard is a yard as it was gathered, and its plan once somebody has asked for it.
type standingYard struct {
	sync.Mutex // held while it is gathered or its plan made, so that others wait for that
	stamp      uint64
	hour       time.Time
	known      bool // gathered
	yard       yardState
	made       bool
	shown      yardState
	kept       plan.Kept
}

// of is what stands at a place, to be gathered if nothing does.
func (s *standing) of(placeID string, stamp uint64, hour time.Time) *standingYard {
	s.Lock()
	defer s.Unlock()
	y := s.yards[placeID]
	if y == nil || y.stamp != stamp || !y.hour.Equal(hour) {
		y = &standingYard{stamp: stamp, hour: hour}
		s.yards[placeID] = y
	}
	return y
}

// yardOf gathers a yard, if it does not stand.
func (a *App) yardOf(ctx context.Context, placeID string) (y *standingYard, err error) {
	err = a.View(ctx, func(ctx context.Context) error {
		now, err := a.Now(ctx)
		if err != nil {
			return err
		}
		y = &standingYard{}
		if stamp, ok := a.store.Stamp(ctx); ok {
			y = a.standing.of(placeID, stamp, now.Truncate(time.Hour))
		}
		y.Lock()
		defer y.Unlock()
		if !y.known {
			y.yard, err = a.gatherYard(ctx, placeID)
			y.known = err == nil
		}
		return err
	})
	return y, err
}

// loadYard is a yard as it is stored.
func (a *App) loadYard(ctx context.Context, placeID string) (yardState, error) {
	y, err := a.yardOf(ctx, placeID)
	if err != nil {
		return yardState{}, err
	}
	return y.yard, nil
}

// showYard is a yard with its plan.
func (a *App) showYard(ctx context.Context, placeID string) (yardState, plan.Kept, error) {
	y, err := a.yardOf(ctx, placeID)
	if err != nil {
		return yardState{}, plan.Kept{}, err
	}
	y.Lock()
	defer y.Unlock()
	if !y.made {
		shown := y.yard
		kept, err := shown.show(ctx, plan.Effort{})
		if err = errors.Join(err, ctx.Err()); err != nil {
			return yardState{}, plan.Kept{}, err
		}
		y.shown, y.kept, y.made = shown, kept, true
	}
	return y.shown, y.kept, nil
}

// oddsMade are the odds of the launches of a version of a plan. Risk, what they are told from, is
// known while the program runs and nothing is written; after that it is played again.
type oddsMade struct {
	At      time.Time            `json:"at"`
	Version int                  `json:"version"`
	Boats   map[string]plan.Odds `json:"boats"`
	Risk    plan.Risk            `json:"-"`
	written uint64               // how many writes there were
}

// goodOdds is how long odds are told, while the plan is the same.
const goodOdds = 24 * time.Hour

// bet keeps odds as what is told of the plan of a place.
func (a *App) bet(placeID string, o *oddsMade) {
	s := &a.standing
	s.Lock()
	defer s.Unlock()
	s.odds[placeID] = o
	s.bets.Add(1)
}

// outdated reports whether something was written since odds were worked out.
func (a *App) outdated(o *oddsMade) bool {
	return o.Risk.Futures == 0 || o.written != a.store.Written()
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

// ofBoat is a boat's work of a plan, by its starts.
func ofBoat(p *plan.Plan, boatID string) []readiness.Planned {
	if p == nil {
		return nil
	}
	out := []readiness.Planned{}
	for _, it := range p.Items {
		if it.BoatID != boatID || it.Launch {
			continue
		}
		whole, _, _ := strings.Cut(it.TaskID, "/")
		out = append(out, readiness.Planned{TaskID: it.TaskID, Whole: whole, StepID: it.StepID, SurfaceID: it.SurfaceID,
			Surface: it.Surface, What: it.What, Work: it.Work, SharePct: it.SharePct,
			Coat: it.Coat, Start: it.Start, End: it.End, Hours: it.Hours, People: it.People, Before: it.Before,
			Why: it.Why})
	}
	return out
}

// plan puts the boat's work as the plan of her place has it into her situation, and what
// benches say against her coats.
func (a *App) plan(ctx context.Context, o *boatState) error {
	yard, _, err := a.showYard(ctx, o.survey.Place.ID)
	o.s.Plan = ofBoat(yard.view.Plan, o.survey.Boat.ID)
	o.s.HoursSaid = len(o.choices.People) > 0 || o.survey.Boat.Week != (calendar.Week{})
	for i := range o.s.Surfaces {
		f := &o.s.Surfaces[i]
		_, next := o.job.Chain(f.ID).First()
		f.Stop = o.stops(f.ID, next)
	}
	return err
}
