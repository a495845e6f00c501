package app

import (
	"context"
	"math"
	"slices"
	"time"

	"allcoats/core/base/fault"
	"allcoats/core/base/parallel"
	"allcoats/core/boat/survey"
	"allcoats/core/exposure/surface"
	"allcoats/core/exposure/tent"
	"allcoats/core/job/task"
	"allcoats/core/physics/weather"
	"allcoats/core/planning/plan"
	"allcoats/core/readiness/climate"
	"allcoats/core/readiness/field"
)

// YardRisk is how likely the launches are, and what would make them likelier.
type YardRisk struct {
	plan.Risk
	Values []Value `json:"values"`
}

// Value is a change of the yard with what it does to the launches, by boat in the
// order of the risk.
type Value struct {
	Name   string    `json:"name"`
	DuePct []float64 `json:"duePct"`
}

// Risk replays the plan of a place over n futures, and a quarter of them with one
// more helper and with a tent over every boat; with n 0 only the plan, over as many as a
// yard of this size is played in when it is planned. told may be nil; when ctx ends the work
// stops with its error.
func (a *App) Risk(ctx context.Context, placeID string, n int, told func(done float64)) (YardRisk, error) {
	s, kept, err := a.showYard(ctx, placeID)
	if err != nil {
		return YardRisk{}, err
	}
	if s.view.Plan == nil {
		return YardRisk{}, fault.Errors(s.view.Trouble)
	}
	starts := kept.Starts
	few := 0
	if n == 0 {
		n = s.courses()
	} else {
		n = max(20, min(n, 2000))
		few = max(20, n/4)
	}
	total, done := float64(n+2*few), 0.0
	tell := func(share float64, of int) {
		if told != nil {
			told((done + share*float64(of)) / total)
		}
	}
	base, odds, err := s.play(ctx, starts, n, func(d float64) { tell(d, n) })
	if err != nil {
		return YardRisk{}, err
	}
	a.standing.bet(placeID, &oddsMade{s.view.Now, s.view.Version, odds})
	done += float64(n)
	out := YardRisk{Risk: base, Values: []Value{}}
	if few == 0 {
		return out, nil
	}
	week := Value{Name: "begun a week earlier, or launched a week later", DuePct: []float64{}}
	for _, b := range base.Boats {
		week.DuePct = append(week.DuePct, b.WeekPct)
	}
	out.Values = append(out.Values, week)
	for _, v := range []struct {
		name  string
		apply func(*yardState)
	}{
		{"one more helper", func(s *yardState) {
			s.yard.People = append(slices.Clone(s.yard.People), plan.Person{Name: "one more", Skills: task.Skills})
		}},
		{"a tent over every boat", func(s *yardState) { s.tented() }},
	} {
		w := s
		w.looks = slices.Clone(s.looks)
		w.yard.Boats = slices.Clone(s.yard.Boats)
		v.apply(&w)
		r, _, err := w.play(ctx, starts, few, func(d float64) { tell(d, few) })
		if err != nil {
			return YardRisk{}, err
		}
		done += float64(few)
		value := Value{Name: v.name, DuePct: []float64{}}
		for _, b := range r.Boats {
			value.DuePct = append(value.DuePct, b.DuePct)
		}
		out.Values = append(out.Values, value)
	}
	return out, nil
}

// openDoors are the air changes of a tent that is kept open by day: a rule of thumb.
const openDoors = 8

// tented puts every surface of every boat under her tent, or a usual one without
// heat.
func (s *yardState) tented() {
	for k := range s.looks {
		o := &s.looks[k]
		if o.boat.Tent == nil {
			t := tent.Usual(o.survey.Boat.Dimensions.LOAM, o.survey.Boat.Dimensions.BeamM)
			t.Heaters, t.AirChanges = nil, openDoors
			o.boat.Tent = &t
		}
		o.boat.Surfaces = slices.Clone(o.boat.Surfaces)
		o.s.Surfaces = slices.Clone(o.s.Surfaces)
		for i := range o.boat.Surfaces {
			o.boat.Surfaces[i].Shelter, o.boat.Surfaces[i].Face.Roofed = survey.Tent, true
			o.s.Surfaces[i].Sheltered = true
		}
	}
}

// play replays the plan over n futures on all processors; the outcome does not
// depend on their number. Most futures are played a few weeks past the plan's end
// only; those that need longer are played again to the end.
func (s yardState) play(ctx context.Context, order plan.Starts, n int, told func(done float64)) (plan.Risk, map[string]plan.Odds, error) {
	if len(s.looks) == 0 {
		return plan.Risk{Boats: []plan.BoatRisk{}, Causes: []plan.Cause{}}, nil, nil
	}
	soon, err := s.player(s.yard.Within(order))
	if err != nil {
		return plan.Risk{}, nil, err
	}
	late, err := s.player(s.yard.Until)
	if err != nil {
		return plan.Risk{}, nil, err
	}
	outcomes := make([]plan.Outcome, n)
	err = parallel.Each(ctx, n, told, func(_, i int) {
		f := climate.Future{Seed: futuresSeed, K: uint64(i)}
		air := s.course(s.futures.Make(f.Seed, f.K, nil))
		if outcomes[i] = soon.play(air, f, order); !outcomes[i].Done() {
			outcomes[i] = late.play(air, f, order)
		}
	})
	if err != nil {
		return plan.Risk{}, nil, err
	}
	risk, odds := late.model.Sum(outcomes), map[string]plan.Odds{}
	for k, b := range risk.Boats {
		odds[b.BoatID] = plan.Odds{Half: plan.Ready(outcomes, k, 0.5), Nine: plan.Ready(outcomes, k, 0.9), DuePct: b.DuePct}
	}
	return risk, odds, nil
}

// player plays a yard until an instant in whatever weather.
type player struct {
	looks []outlook
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

// play does the work of a plan in a future, with what else may go otherwise in it. A yard that was prepared makes a model
// in any weather.
func (p player) play(air weather.Series, f climate.Future, order plan.Starts) plan.Outcome {
	m, err := p.in(p.ahead(air), &f).Model()
	if err != nil {
		return plan.Outcome{Ready: make([]*time.Time, len(p.yard.Boats))}
	}
	return m.Unsure(f.Seed, f.K).Play(order)
}

// Way is a change that may bring boats forward, with what it costs.
type Way struct {
	Name  string  `json:"name"`
	Cents float64 `json:"cents"`
	// Odds are when each boat would be ready, in the order of the launches.
	Odds []plan.Odds `json:"odds"`
	// Enough says that every boat would be ready by the day wanted nine times in ten.
	Enough bool `json:"enough"`
}

// What a change costs when the user has not said: rules of thumb.
const (
	usualHourCents = 2500
	usualTentCents = 30_000
	usualDayCents  = 1200
)

// wayRounds are the orders that are tried for each change.
const wayRounds = 400

// Ways tries what would bring the boats forward: later days, longer hours, one more helper, a
// tent; each is planned and played in as many courses of the weather as the plan. What is
// enough comes first, then the cheapest.
func (a *App) Ways(ctx context.Context, placeID string) ([]Way, error) {
	s, kept, err := a.showYard(ctx, placeID)
	if err != nil {
		return nil, err
	}
	if s.view.Plan == nil {
		return nil, fault.Errors(s.view.Trouble)
	}
	hour := s.settings.HourCents
	if hour == 0 {
		hour = usualHourCents
	}
	later := Way{Name: "launch later, as planned now", Enough: true}
	if later.Odds, err = s.odds(ctx, kept.Starts); err != nil {
		return nil, err
	}
	for k, l := range s.view.Plan.Launches {
		day := float64(usualDayCents)
		if t := s.looks[k].boat.Tent; t != nil {
			day = t.Prices.DayCents
		}
		later.Cents += day * math.Ceil(later.lateH(k, l.Due)/24)
	}
	out := []Way{later}
	for _, w := range []struct {
		name  string
		adds  bool // only adds to what there is, so that the plan of now still stands
		apply func(*yardState)
		cents func(p plan.Plan) float64
	}{
		{"two hours more every evening that is worked", true, func(s *yardState) {
			s.yard.People = slices.Clone(s.yard.People)
			for i := range s.yard.People {
				for d, h := range s.yard.People[i].Week {
					if h.ToH > h.FromH {
						s.yard.People[i].Week[d].ToH = min(24, h.ToH+2)
					}
				}
			}
		}, func(plan.Plan) float64 { return 0 }},
		{"one more helper", true, func(s *yardState) {
			s.yard.People = append(slices.Clone(s.yard.People), plan.Person{Name: helper, Skills: task.Skills})
		}, func(p plan.Plan) float64 {
			sum := 0.0
			for _, it := range p.Items {
				if slices.Contains(it.People, helper) {
					sum += it.Hours / float64(len(it.People)) * hour
				}
			}
			return sum
		}},
		{"a tent over every boat, without heat", false, func(s *yardState) {
			s.tented()
			s.again()
		}, func(plan.Plan) float64 { return usualTentCents * float64(len(s.looks)) }},
	} {
		v := s
		v.looks, v.yard.Boats = slices.Clone(s.looks), slices.Clone(s.yard.Boats)
		w.apply(&v)
		m, err := v.yard.Model()
		if err != nil {
			return nil, err
		}
		p, its := m.Make(ctx, plan.Kept{}, plan.Effort{Seed: planSeed, Rounds: s.rounds(wayRounds)})
		one := Way{Name: w.name, Cents: w.cents(p), Enough: true}
		if one.Odds, err = v.odds(ctx, its.Starts); err != nil {
			return nil, err
		}
		for k, l := range s.view.Plan.Launches {
			if now := later.Odds[k]; w.adds && now.Half != nil && (one.Odds[k].Half == nil || one.Odds[k].Half.After(*now.Half)) {
				one.Odds[k] = now
			}
			one.Enough = one.Enough && (l.Due == nil || one.Odds[k].DuePct >= 90)
		}
		out = append(out, one)
	}
	slices.SortStableFunc(out, func(a, b Way) int {
		if a.Enough != b.Enough {
			if a.Enough {
				return -1
			}
			return 1
		}
		return int(a.Cents - b.Cents)
	})
	return out, nil
}

// odds are those of the boats when a plan is played.
func (s yardState) odds(ctx context.Context, starts plan.Starts) ([]plan.Odds, error) {
	_, odds, err := s.play(ctx, starts, s.courses(), nil)
	out := make([]plan.Odds, len(s.yard.Boats))
	for k, b := range s.yard.Boats {
		out[k] = odds[b.ID]
	}
	return out, err
}

// lateH is how much later than due a boat is ready half the time, 0 in time.
func (w Way) lateH(boat int, due *time.Time) float64 {
	half := w.Odds[boat].Half
	if due == nil || half == nil {
		return 0
	}
	return max(0, half.Sub(*due).Hours())
}

// helper is the name of somebody who is not there yet.
const helper = "one more helper"

// again computes the weather at the surfaces anew.
func (s *yardState) again() {
	course := s.course(s.futures.Usual())
	for k, o := range s.looks {
		at := o.boat.Ahead(append(slices.Clone(o.climate.Open.Between(time.Time{}, s.view.Now)), course...))
		s.yard.Boats[k].Surfaces = slices.Clone(s.yard.Boats[k].Surfaces)
		for i := range s.yard.Boats[k].Surfaces {
			one := &s.yard.Boats[k].Surfaces[i]
			one.Weather, one.Sheltered = at[one.ID], o.s.Surfaces[i].Sheltered
		}
	}
}
