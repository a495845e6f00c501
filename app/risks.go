package app

import (
	"context"
	"runtime"
	"slices"
	"sync"
	"sync/atomic"

	"allcoats/core/fault"
	"allcoats/core/plan"
	"allcoats/core/surface"
	"allcoats/core/survey"
	"allcoats/core/tent"
	"allcoats/core/weather"
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
// more helper and with a tent over every boat. told may be nil; when ctx ends the
// work stops with its error.
func (a *App) Risk(ctx context.Context, placeID string, n int, told func(done float64)) (YardRisk, error) {
	s, err := a.loadYard(ctx, placeID)
	if err != nil {
		return YardRisk{}, err
	}
	starts, err := s.show(0, nil)
	if err != nil {
		return YardRisk{}, err
	}
	if starts == nil {
		return YardRisk{}, fault.Errors(s.view.Trouble)
	}
	n = max(20, min(n, 2000))
	few := max(20, n/4)
	total, done := float64(n+2*few), 0.0
	tell := func(share float64, of int) {
		if told != nil {
			told((done + share*float64(of)) / total)
		}
	}
	base, err := s.play(ctx, starts, n, func(d float64) { tell(d, n) })
	if err != nil {
		return YardRisk{}, err
	}
	done += float64(n)
	out := YardRisk{Risk: base, Values: []Value{}}
	week := Value{Name: "a week more", DuePct: []float64{}}
	for _, b := range base.Boats {
		week.DuePct = append(week.DuePct, b.WeekPct)
	}
	out.Values = append(out.Values, week)
	for _, v := range []struct {
		name  string
		apply func(*yardState)
	}{
		{"one more helper", func(s *yardState) {
			s.yard.People = append(slices.Clone(s.yard.People), plan.Person{Name: "one more", Sprays: true})
		}},
		{"a tent over every boat", func(s *yardState) { s.tented() }},
	} {
		w := s
		w.looks = slices.Clone(s.looks)
		w.yard.Boats = slices.Clone(s.yard.Boats)
		v.apply(&w)
		r, err := w.play(ctx, starts, few, func(d float64) { tell(d, few) })
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

// tented puts every surface of every boat under her tent, or a usual one without
// heat.
func (s *yardState) tented() {
	for k := range s.looks {
		o := &s.looks[k]
		if o.boat.Tent == nil {
			t := tent.Usual(o.survey.Boat.Dimensions.LOAM, o.survey.Boat.Dimensions.BeamM)
			t.Heaters = nil
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
// depend on their number.
func (s yardState) play(ctx context.Context, order plan.Starts, n int, told func(done float64)) (plan.Risk, error) {
	outcomes := make([]plan.Outcome, n)
	if len(s.looks) == 0 {
		return plan.Risk{Boats: []plan.BoatRisk{}, Causes: []plan.Cause{}}, nil
	}
	first := s.looks[0]
	past := first.climate.Open.Between(s.view.Now.Add(-spinUp), s.view.Now)
	frame := append(slices.Clone(past), s.course(s.futures.Frame(), false)...)
	open := surface.Outdoors(first.boat.LatitudeDeg, first.boat.LongitudeDeg, frame)
	in := func(series weather.Series, c surface.Conditions) plan.Yard {
		y := s.yard
		y.Boats = slices.Clone(s.yard.Boats)
		for k, o := range s.looks {
			at := o.boat.AheadIn(series, c)
			y.Boats[k].Surfaces = slices.Clone(y.Boats[k].Surfaces)
			for f := range y.Boats[k].Surfaces {
				one := &y.Boats[k].Surfaces[f]
				one.Weather, one.Sheltered = at[one.ID], o.s.Surfaces[f].Sheltered
			}
		}
		return y
	}
	base, err := in(frame, open).Prepared()
	if err != nil {
		return plan.Risk{}, err
	}
	s.yard = base
	var next, done atomic.Int64
	var wait sync.WaitGroup
	var sum plan.Model
	var once sync.Once
	for w := range runtime.GOMAXPROCS(0) {
		wait.Go(func() {
			for ctx.Err() == nil {
				i := next.Add(1) - 1
				if i >= int64(n) {
					return
				}
				series := append(slices.Clone(past), s.course(s.futures.Make(futuresSeed, uint64(i), nil), false)...)
				y := in(series, open.With(series))
				m, err := y.Model()
				if err != nil {
					continue
				}
				once.Do(func() { sum = m })
				outcomes[i] = m.Play(order)
				if d := done.Add(1); w == 0 {
					told(float64(d) / float64(n))
				}
			}
		})
	}
	wait.Wait()
	if err := ctx.Err(); err != nil {
		return plan.Risk{}, err
	}
	kept := outcomes[:0]
	for _, o := range outcomes {
		if o.Ready != nil {
			kept = append(kept, o)
		}
	}
	return sum.Sum(kept), nil
}
