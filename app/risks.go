package app

import (
	"context"
	"slices"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/parallel"
	"allcoats/core/conditions/climate"
	"allcoats/core/conditions/field"
	"allcoats/core/exposure/surface"
	"allcoats/core/physics/weather"
	"allcoats/core/planning/plan"
)

// Risk replays the plan of a place over n futures; what comes of it is what the plan tells from then
// on. With n 0 it is what the plan tells, played as when it is made if nothing is known or something was
// written since. told may be nil; when ctx ends the work stops with its error.
func (a *App) Risk(ctx context.Context, placeID string, n int, told func(done float64)) (plan.Risk, error) {
	written := a.store.Written()
	s, kept, err := a.showYard(ctx, placeID)
	if err != nil {
		return plan.Risk{}, err
	}
	if s.view.Plan == nil {
		return plan.Risk{}, fielderr.Errors(s.view.Trouble)
	}
	if n == 0 {
		if o := a.oddsOf(&s); o != nil && !a.outdated(o) {
			return o.Risk, nil
		}
		n = s.courses()
	} else {
		n = max(20, min(n, 2000))
	}
	odds, err := s.play(ctx, kept.Starts, n, told)
	if err != nil {
		return plan.Risk{}, err
	}
	odds.Version = s.view.Version
	odds.written = written
	a.bet(placeID, odds)
	return odds.Risk, nil
}

// play replays the plan over n futures on all processors, several in each course of the weather; the
// outcome does not depend on their number. Most futures are played a few weeks past the plan's end
// only; those that need longer are played again to the end.
func (s yardState) play(ctx context.Context, order plan.Starts, n int, told func(done float64)) (*oddsMade, error) {
	out := &oddsMade{At: s.view.Now, Boats: map[string]plan.Odds{}, Risk: plan.Risk{Boats: []plan.BoatRisk{},
		Causes: []plan.Cause{}}}
	if len(s.looks) == 0 {
		return out, nil
	}
	soon, err := s.player(s.yard.Within(order))
	if err != nil {
		return nil, err
	}
	late, err := s.player(s.yard.Until)
	if err != nil {
		return nil, err
	}
	outcomes := make([]plan.Outcome, n)
	err = parallel.Each(ctx, (n+lucks-1)/lucks, told, func(_, k int) {
		f := climate.Future{Seed: futuresSeed, K: uint64(k)}
		air := s.course(s.futures.Make(f.Seed, f.K, nil))
		mine := outcomes[k*lucks : min(n, (k+1)*lucks)]
		soon.play(air, f, order, mine)
		if slices.ContainsFunc(mine, func(o plan.Outcome) bool { return !o.Done() }) {
			late.play(air, f, order, mine)
		}
	})
	if err != nil {
		return nil, err
	}
	out.Risk = late.model.Sum(outcomes)
	for k, b := range out.Risk.Boats {
		out.Boats[b.BoatID] = plan.Odds{Half: plan.Ready(outcomes, k, 0.5), Nine: plan.Ready(outcomes, k, 0.9),
			DuePct: b.DuePct}
	}
	return out, nil
}

// lucks is how often the work is done in one course of the weather, each time with other hours,
// clocks, deliveries and people away. That spreads launches about as much as the weather does, and
// takes a tenth of the time.
const lucks = 4

// player plays a yard until an instant in whatever weather.
type player struct {
	looks []boatState
	yard  plan.Yard
	model plan.Model
	past  weather.Series
	open  surface.Conditions
}

// holdAhead is how much weather is needed past the last hour of a plan.
const holdAhead = 48 * time.Hour

func (s yardState) player(until time.Time) (player, error) {
	first := s.looks[0]
	p := player{looks: s.looks, yard: s.yard, past: first.climate.Open.Between(s.view.Now.Add(-spinUp), s.view.Now)}
	p.yard.Until = until
	frame := p.ahead(s.course(s.futures.Frame()))
	p.open = surface.Outdoors(first.boat.LatitudeDeg, first.boat.LongitudeDeg, frame)
	var err error
	if p.yard, err = p.in(frame, nil).Prepared(); err != nil {
		return p, err
	}
	p.model, err = p.yard.Model()
	return p, err
}

// ahead is the past with a future as far as it is needed.
func (p player) ahead(future weather.Series) weather.Series {
	return append(slices.Clone(p.past), future.Between(p.yard.Now, p.yard.Until.Add(holdAhead))...)
}

// in is the yard in a course of the weather, of a future if that is told.
func (p player) in(series weather.Series, f *climate.Future) plan.Yard {
	c := p.open.With(series)
	y := p.yard
	y.Boats = slices.Clone(p.yard.Boats)
	for k, o := range p.looks {
		var at map[string]field.Weather
		if f == nil {
			at = o.boat.AheadIn(series, c)
		} else {
			at = o.boat.InFuture(series, c, *f)
		}
		y.Boats[k].Surfaces = slices.Clone(y.Boats[k].Surfaces)
		for f := range y.Boats[k].Surfaces {
			one := &y.Boats[k].Surfaces[f]
			one.Weather, one.Sheltered = at[one.ID], o.s.Surfaces[f].Sheltered
		}
	}
	return y
}

// play does the work of a plan in a future's weather, once for each outcome that is not done, with
// what else may go otherwise in it. A yard that was prepared makes a model in any weather.
func (p player) play(air weather.Series, f climate.Future, order plan.Starts, out []plan.Outcome) {
	m, err := p.in(p.ahead(air), &f).Model()
	for i := range out {
		switch {
		case err != nil:
			out[i] = plan.Outcome{Ready: make([]*time.Time, len(p.yard.Boats))}
		case out[i].Ready == nil || !out[i].Done():
			out[i] = m.Unsure(f.Seed, f.K*lucks+uint64(i)).Play(order)
		}
	}
}
