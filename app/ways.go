package app

import (
	"cmp"
	"context"
	"math"
	"slices"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/base/working"
	"allcoats/core/boat/survey"
	"allcoats/core/conditions/climate"
	"allcoats/core/exposure/tent"
	"allcoats/core/job/task"
	"allcoats/core/physics/weather"
	"allcoats/core/planning/plan"
)

// Way is a change that may bring boats forward, with what it costs.
type Way struct {
	Name  message.Sentence `json:"name"`
	Cents float64          `json:"cents"`
	// Odds are when each boat would be ready, in the order of the launches.
	Odds []plan.Odds `json:"odds"`
	// Enough says that every boat would be ready by the day wanted nine times in ten.
	Enough bool `json:"enough"`
	// DaysGained are by how much earlier the boats are ready half the time, all boats together;
	// DayCents is what one of those days costs, nil where none is gained. Later says that it moves
	// the day wanted, and nothing else.
	DaysGained float64  `json:"daysGained"`
	DayCents   *float64 `json:"dayCents,omitempty"`
	Later      bool     `json:"later"`
	// Past says that it is no longer to be had: what an earlier start would have bought, for next
	// time.
	Past bool `json:"past"`
}

// earlierDays is how much earlier a start is held against this one.
const earlierDays = 14

// What a change costs when the user has not said: rules of thumb.
const (
	usualHourCents = 2500
	usualDayCents  = 1200
)

// wayRounds are the orders that are tried for each change.
const wayRounds = 200

// remedy is a change of the yard. adds says that it only adds to what there is, so that the plan
// of now still stands; cents are its cost for the plan that comes of it, by an instant at which
// half the futures are through.
type remedy struct {
	name  message.Sentence
	adds  bool
	apply func(*yardState) (any bool)
	cents func(s *yardState, p plan.Plan, through time.Time) float64
}

// Ways tries what would bring the boats forward; each is planned and played in as many courses of
// the weather as the plan. What is enough comes first, then what a day gained costs least with.
// told may be nil; when ctx ends the work stops with its error.
func (a *App) Ways(ctx context.Context, placeID string, told func(done float64)) ([]Way, error) {
	s, kept, err := a.showYard(ctx, placeID)
	if err != nil {
		return nil, err
	}
	if s.view.Plan == nil {
		return nil, fielderr.Errors(s.view.Trouble)
	}
	later := Way{Name: message.Lit("launch later, as planned now"), Enough: true, Later: true}
	played, err := s.play(ctx, kept.Starts, s.courses(), nil)
	if err != nil {
		return nil, err
	}
	base := s.inOrder(played)
	later.Odds = slices.Clone(base)
	if o := a.oddsOf(&s); o != nil { // what the plan tells, if that was played in more futures
		for k, b := range s.yard.Boats {
			later.Odds[k] = o.Boats[b.ID]
		}
	}
	for k, l := range s.view.Plan.Launches {
		later.Cents += s.dayCents(k) * math.Ceil(later.lateH(k, l.Due)/24)
	}
	out := []Way{later}
	all := slices.Clone(remedies)
	for k, o := range s.looks {
		for _, q := range o.quotes.V {
			all = append(all, shop(k, q))
		}
	}
	for i, r := range all {
		if told != nil {
			told(float64(i+1) / float64(len(all)+3)) // and the tents
		}
		one, ok, err := s.way(ctx, r, base, later.Odds)
		if err != nil {
			return nil, err
		}
		if ok {
			out = append(out, one)
		}
	}
	for _, heat := range []bool{false, true} {
		one, err := s.underTents(ctx, heat, base, later.Odds)
		if err != nil {
			return nil, err
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
		return cmp.Compare(a.price(), b.price())
	})
	return append(out, s.earlier(played)), nil
}

// way is what a remedy buys beside the dates by base and what is told now; ok is false where it cannot
// be applied.
func (s yardState) way(ctx context.Context, r remedy, base, now []plan.Odds) (one Way, ok bool, err error) {
	v := s
	v.looks, v.yard.Boats = slices.Clone(s.looks), slices.Clone(s.yard.Boats)
	if !r.apply(&v) {
		return Way{}, false, nil
	}
	m, err := v.yard.Model()
	if err != nil {
		return Way{}, false, err
	}
	p, its := m.Make(ctx, plan.Kept{}, plan.Effort{Seed: planSeed, Rounds: s.rounds(wayRounds)})
	one = Way{Name: r.name, Enough: true}
	if one.Odds, err = v.odds(ctx, its.Starts); err != nil {
		return Way{}, false, err
	}
	through := s.view.Now
	for k, l := range s.view.Plan.Launches {
		if half := one.Odds[k].Half; half != nil {
			through = latest(through, *half)
			gained := s.half(base[k]).Sub(*half).Hours() / 24
			if r.adds { // with more to work with nobody need be later
				gained = max(0, gained)
			}
			one.DaysGained += gained
		}
		if told := now[k]; r.adds && told.Half != nil &&
			(one.Odds[k].Half == nil || one.Odds[k].Half.After(*told.Half)) {
			one.Odds[k] = told
		}
		one.Enough = one.Enough && (l.Due == nil || one.Odds[k].DuePct >= 90)
	}
	one.Cents = r.cents(&v, p, through)
	one.DaysGained = math.Round(10*max(0, one.DaysGained)) / 10
	if one.DaysGained > 0 {
		day := one.Cents / one.DaysGained
		one.DayCents = &day
	}
	return one, true, nil
}

// earlier is what a start earlierDays before this would have bought: the same futures, which are
// later in the year, with so many days more until the days wanted.
func (s *yardState) earlier(played *oddsMade) Way {
	out := Way{Past: true, Enough: true,
		Name: message.Lit("begun two weeks earlier, in weather like that to come: too late now, for next time")}
	shifted := func(at *time.Time) *time.Time {
		if at == nil {
			return nil
		}
		t := at.AddDate(0, 0, -earlierDays)
		return &t
	}
	for k, l := range s.view.Plan.Launches {
		o := played.Boats[l.BoatID]
		now := plan.Odds{Half: shifted(o.Half), Nine: shifted(o.Nine)}
		if l.Due != nil {
			now.DuePct = played.Risk.Boats[k].By(l.Due.AddDate(0, 0, earlierDays).In(s.yard.Loc))
			out.Enough = out.Enough && now.DuePct >= 90
		}
		if o.Half != nil {
			out.DaysGained += earlierDays
		}
		out.Odds = append(out.Odds, now)
	}
	return out
}

// price is what a day gained costs; what gains none comes last, but for a later launch, which is
// what all others are held against.
func (w Way) price() float64 {
	switch {
	case w.Later:
		return -1
	case w.DayCents == nil:
		return math.Inf(1)
	}
	return *w.DayCents
}

// half is when a boat is ready half the time, the end of the plan if not within it.
func (s *yardState) half(o plan.Odds) time.Time {
	if o.Half != nil {
		return *o.Half
	}
	return s.yard.Until
}

func latest(a, b time.Time) time.Time {
	if b.After(a) {
		return b
	}
	return a
}

// dayCents is what a day on the hard costs a boat.
func (s *yardState) dayCents(k int) float64 {
	if t := s.looks[k].boat.Tent; t != nil {
		return t.Prices.DayCents
	}
	return usualDayCents
}

func free(*yardState, plan.Plan, time.Time) float64 { return 0 }

// remedies are tried in this order.
var remedies = []remedy{
	{message.Lit("two hours more every evening that is worked"), true, func(s *yardState) bool {
		s.yard.People = slices.Clone(s.yard.People)
		for i := range s.yard.People {
			for d, h := range s.yard.People[i].Week {
				if h.ToH > h.FromH {
					s.yard.People[i].Week[d].ToH = min(24, h.ToH+2)
				}
			}
		}
		return true
	}, free},
	{message.Lit("one more helper"), true, func(s *yardState) bool {
		s.yard.People = append(slices.Clone(s.yard.People), plan.Person{Name: helper, Skills: task.Skills})
		return true
	}, func(s *yardState, p plan.Plan, _ time.Time) float64 {
		hour := cmp.Or(s.settings.HourCents, usualHourCents)
		sum := 0.0
		for _, it := range p.Items {
			if slices.Contains(it.People, helper) {
				sum += it.Hours / float64(len(it.People)) * hour
			}
		}
		return sum
	}},
	{message.Lit("the hardener for the cold wherever a sheet has one"), false, (*yardState).coldHardeners,
		func(s *yardState, _ plan.Plan, _ time.Time) float64 {
			sum := 0.0
			for k, b := range s.yard.Boats {
				for _, f := range b.Surfaces {
					for i, t := range f.Tasks {
						if t.Films && t.Left() && t.Step.Grade != s.looks[k].job.Chain(f.ID).Tasks[i].Step.Grade {
							sum += tent.Usual(s.looks[k].survey.Boat.Dimensions.LOAM,
								s.looks[k].survey.Boat.Dimensions.BeamM).Prices.HardenerCents
						}
					}
				}
			}
			return sum
		}},
	{message.Lit("one coat fewer where four or more of one are planned: a thinner film, sooner due again"), false,
		(*yardState).coatFewer, free},
}

// helper is the name of somebody who is not there yet.
const helper = "one more helper"

// heatedC is what a tent is heated to: a rule of thumb.
const heatedC = 15

// underTents is what tents over the boats buy: over all of them, or without those that it would make
// later, in the sun or for the sake of others, where a day gained costs less then.
func (s yardState) underTents(ctx context.Context, heat bool, base, now []plan.Odds) (Way, error) {
	all := make([]int, len(s.looks))
	for k := range all {
		all[k] = k
	}
	best, _, err := s.way(ctx, s.tents(heat, all), base, now)
	if err != nil {
		return best, err
	}
	some := slices.DeleteFunc(all, func(k int) bool { return s.half(best.Odds[k]).After(s.half(base[k])) })
	if len(some) == 0 || len(some) == len(s.looks) {
		return best, nil
	}
	fewer, _, err := s.way(ctx, s.tents(heat, some), base, now)
	if err == nil && fewer.price() < best.price() {
		best = fewer
	}
	return best, err
}

// tents puts every surface of some boats under her tent, or a usual one, with heat or without.
func (s yardState) tents(heat bool, boats []int) remedy {
	over := message.Lit("every boat")
	if len(boats) < len(s.looks) {
		names := make([]string, len(boats))
		for i, k := range boats {
			names[i] = s.yard.Boats[k].Name
		}
		over = message.List(names)
	}
	name := message.Of("a tent over %v, without heat", over)
	if heat {
		name = message.Of("a tent over %v, heated to %.0f °C", over, float64(heatedC))
	}
	apply := func(s *yardState) bool {
		for _, k := range boats {
			s.cover(&s.looks[k], heat)
		}
		s.again()
		return true
	}
	return remedy{name, false, apply, func(s *yardState, _ plan.Plan, through time.Time) float64 {
		cents := s.buildCents
		for _, k := range boats {
			if heat {
				cents += s.heating(s.looks[k], through)
			}
		}
		return cents
	}}
}

// cover puts the surfaces of a boat under a tent.
func (s *yardState) cover(o *boatState, heat bool) {
	t := tent.Usual(o.survey.Boat.Dimensions.LOAM, o.survey.Boat.Dimensions.BeamM)
	switch {
	case o.boat.Tent != nil && (!heat || len(o.boat.Tent.Heaters) > 0):
		t = *o.boat.Tent
	case !heat:
		t.Heaters = nil
	case len(t.Heaters) == 0:
		t.Heaters = []tent.Heater{{Kind: tent.Electric, PowerKW: 9}}
	}
	if heat {
		t.Thermostat.SetC = heatedC
	}
	if o.boat.Tent == nil {
		s.buildCents += t.BuildCents()
	}
	o.boat.Tent = &t
	o.boat.Surfaces, o.s.Surfaces = slices.Clone(o.boat.Surfaces), slices.Clone(o.s.Surfaces)
	for i := range o.boat.Surfaces {
		o.boat.Surfaces[i].Shelter, o.boat.Surfaces[i].Face.Roofed = survey.Tent, true
		o.s.Surfaces[i].Sheltered = true
	}
}

// heating is what the tent of a boat takes until an instant, in usual weather, cents.
func (s *yardState) heating(o boatState, until time.Time) (cents float64) {
	b := o.boat
	b.Air, b.Instruments = s.ahead()(o), nil
	if c := climate.Of(b).Tent; c != nil {
		w := working.New()
		cents = c.Sum(*b.Tent, s.view.Now, until, &w).Cents
	}
	return cents
}

// each goes through what is left of every surface, which may be changed.
func (s *yardState) each(change func(tasks []task.Task) (out []task.Task, changed bool)) (any bool) {
	for k := range s.yard.Boats {
		b := &s.yard.Boats[k]
		b.Surfaces = slices.Clone(b.Surfaces)
		for i := range b.Surfaces {
			tasks, changed := change(slices.Clone(b.Surfaces[i].Tasks))
			if changed {
				b.Surfaces[i].Tasks, any = tasks, true
			}
		}
	}
	return any
}

// coldHardeners and coatFewer change the coats that are left.
func (s *yardState) coldHardeners() bool { return s.each(task.ForTheCold) }
func (s *yardState) coatFewer() bool     { return s.each(task.OneFewer) }

// odds are those of the boats when a plan is played.
func (s *yardState) odds(ctx context.Context, starts plan.Starts) ([]plan.Odds, error) {
	played, err := s.play(ctx, starts, s.courses(), nil)
	if err != nil {
		return nil, err
	}
	return s.inOrder(played), nil
}

// inOrder are odds in the order of the boats.
func (s *yardState) inOrder(played *oddsMade) []plan.Odds {
	out := make([]plan.Odds, len(s.yard.Boats))
	for k, b := range s.yard.Boats {
		out[k] = played.Boats[b.ID]
	}
	return out
}

// lateH is how much later than due a boat is ready half the time, 0 in time.
func (w Way) lateH(boat int, due *time.Time) float64 {
	half := w.Odds[boat].Half
	if due == nil || half == nil {
		return 0
	}
	return max(0, half.Sub(*due).Hours())
}

// ahead is the record of a boat with usual weather after now.
func (s *yardState) ahead() func(boatState) weather.Series {
	course := s.course(s.futures.Usual())
	return func(o boatState) weather.Series {
		return append(slices.Clone(o.climate.Open.Between(time.Time{}, s.view.Now)), course...)
	}
}

// again computes the weather at the surfaces anew.
func (s *yardState) again() {
	course := s.ahead()
	for k, o := range s.looks {
		at := o.boat.Ahead(course(o))
		s.yard.Boats[k].Surfaces = slices.Clone(s.yard.Boats[k].Surfaces)
		for i := range s.yard.Boats[k].Surfaces {
			one := &s.yard.Boats[k].Surfaces[i]
			one.Weather, one.Sheltered = at[one.ID], o.s.Surfaces[i].Sheltered
		}
	}
}
