package reliability

import (
	"context"
	"errors"
	"fmt"
	"math"
	"sync"
	"time"

	"allcoats/core/base/parallel"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/climate"
	"allcoats/core/conditions/field"
	"allcoats/core/exposure/surface"
	"allcoats/core/film/step"
	"allcoats/core/job/task"
	"allcoats/core/physics/cure"
	"allcoats/core/physics/solar"
	"allcoats/core/physics/weather"
	"allcoats/core/planning/plan"
	"allcoats/instruments"
)

// Study says what is tried: from when on, how many forecasts, how far apart, and in how many
// futures each.
type Study struct {
	From    time.Time
	Issues  int
	Apart   time.Duration
	Futures int
	Service instruments.Forecast
	// LearnDays are for how many days before the first forecast those of the place were kept and
	// held against its readings; without them errors are the usual.
	LearnDays int

	errors weather.Errors
}

// Where the boat lies, and what of the simulated record before the study tells what is usual.
const (
	latitudeDeg, longitudeDeg = 52.6, 1.3
	recordYears               = 8
)

// TwoYears is a forecast every other day, at other hours in turn.
var TwoYears = Study{From: time.Date(2026, 1, 1, 5, 0, 0, 0, time.UTC), Issues: 365, Apart: 47 * time.Hour,
	Futures: 200}

// The kinds of bets; those on coats also by kind of product, after a colon.
const (
	Starts     = "starts"
	DryBy      = "dry by"
	LaunchBy   = "launch by"
	RainBefore = "rain before"
	RainWithin = "rain in six hours to come"
	RainEarly  = "rain in the three hours before it is forecast"
)

// leads are when coats are begun, h after a forecast; within is when rain is asked for.
var (
	leads  = []int{1, 3, 6, 9, 22, 25, 28, 31, 47, 52, 71, 76, 95, 100, 119, 124, 139}
	within = []int{3, 6, 12, 24, 48}
)

// What is bet on lies so far ahead; launches farther, beyond the forecast.
const (
	horizon       = 150 * time.Hour
	launchHorizon = 21 * 24 * time.Hour
)

// issue is one forecast with what came.
type issue struct {
	Study
	now     time.Time
	boat    climate.Boat
	climate climate.Climate
	habits  weather.Habits
	futures weather.Futures
	truth   map[string]field.Weather
	jobs    []job
	bets    map[string][]Bet
}

// play is the weather at the surfaces in every future.
func (o *issue) play(f weather.Futures) (air []weather.Series, at []map[string]field.Weather) {
	open := surface.Outdoors(latitudeDeg, longitudeDeg, f.Frame())
	for i := range o.Futures {
		one := climate.Future{Seed: 1, K: uint64(i)}
		air = append(air, f.Make(one.Seed, one.K, nil))
		at = append(at, o.boat.InFuture(air[i], open.With(air[i]), one))
	}
	return air, at
}

// job is a coat of a kind of product on one of the two surfaces.
type job struct {
	sheet   product.Sheet
	surface string
	field.Job
}

func (s Study) run(ctx context.Context) (map[string][]Bet, error) {
	var mu sync.Mutex
	all := make([]map[string][]Bet, s.Issues)
	normals := s.normals()
	if s.LearnDays > 0 {
		s.errors = s.learned(normals).Errors
	}
	var failed error
	err := parallel.Each(ctx, s.Issues, nil, func(_, i int) {
		one := s.issue(i, normals)
		if err := one.bet(ctx); err != nil {
			mu.Lock()
			failed = err
			mu.Unlock()
		}
		all[i] = one.bets
	})
	if err := errors.Join(err, failed); err != nil {
		return nil, fmt.Errorf("reliability: %w", err)
	}
	out := map[string][]Bet{}
	for _, bets := range all { // in order, whoever was first
		for name, b := range bets {
			out[name] = append(out[name], b...)
		}
	}
	return out, nil
}

// normals are what the years before the study tell.
func (s Study) normals() weather.Normals {
	record := s.Service.Hours(latitudeDeg, longitudeDeg, s.From.AddDate(-recordYears, 0, 0), s.From, s.From)
	return record.Normals(weather.UsualNormals(latitudeDeg), time.UTC)
}

// learned are the errors of the forecasts before the study, one a day.
func (s Study) learned(n weather.Normals) weather.Learned {
	var issued []weather.Issued
	for d := range s.LearnDays {
		at := s.From.AddDate(0, 0, d-s.LearnDays)
		issued = append(issued, weather.Issued{At: at, Hours: s.Service.Hours(latitudeDeg, longitudeDeg, at,
			at.Add(instruments.Days*24*time.Hour), at)})
	}
	came := s.Service.Hours(latitudeDeg, longitudeDeg, s.From.AddDate(0, 0, -s.LearnDays), s.From, s.From)
	return weather.LearnErrors(issued, came, weather.Habits{Normals: n, Loc: time.UTC})
}

// issue makes forecast i with the weather that came.
func (s Study) issue(i int, n weather.Normals) issue {
	now := s.From.Add(time.Duration(i) * s.Apart).Truncate(time.Hour)
	begin, end := now.Add(-72*time.Hour), now.Add(instruments.Days*24*time.Hour)
	one := issue{Study: s, now: now, bets: map[string][]Bet{}}
	one.boat = climate.Boat{Site: climate.Site{LatitudeDeg: latitudeDeg, LongitudeDeg: longitudeDeg, Loc: time.UTC,
		Now: now}, Air: s.Service.Hours(latitudeDeg, longitudeDeg, begin, end, now)}
	for _, p := range []area.Part{area.Topsides, area.Deck} {
		id := string(p)
		d := survey.Usual(p, survey.GRP)
		one.boat.Surfaces = append(one.boat.Surfaces, climate.Surface{ID: id, Face: surface.Of(d, p, area.Port, 200),
			AreaM2: 10})
	}
	one.climate = climate.Of(one.boat)
	one.habits = weather.Habits{Normals: n, Errors: s.errors, Loc: time.UTC}
	one.futures = weather.NewFutures(one.climate.Open, now, horizon, one.habits)

	until := now.Add(launchHorizon)
	came := s.Service.Hours(latitudeDeg, longitudeDeg, one.futures.Frame()[0].At, until, until)
	one.truth = map[string]field.Weather{}
	c := surface.Outdoors(latitudeDeg, longitudeDeg, came)
	for k, f := range one.boat.Surfaces {
		course := c.Course(f.Face)
		w := field.Weather{Air: came, SurfaceC: append([]float64(nil), course.TempC...), Wet: course.Wet}
		for h, at := range c.At { // what the model of the surface is off by, of which the futures know the size
			w.SurfaceC[h] += 1.5 * wander(s.Service.Seed+uint64(k)+77, at)
		}
		one.truth[f.ID] = w
	}
	light := solar.Daylight(latitudeDeg, longitudeDeg, begin, until)
	seen := map[product.Kind]bool{}
	for k, sheet := range product.Examples() {
		if seen[sheet.Kind] || len(sheet.Recoat) == 0 {
			continue
		}
		seen[sheet.Kind] = true
		l := sheet.Limits
		hours := func(h float64) time.Duration { return time.Duration(h * float64(time.Hour)) }
		one.jobs = append(one.jobs, job{sheet, []string{"topsides", "deck"}[k%2],
			field.Job{Limits: l, Apply: 2 * time.Hour, Hold: hours(l.HoldH), Dry: hours(l.RainFreeH), Daylight: light}})
	}
	return one
}

// wander is a slow course of about unit variance, of waves whose lengths have nothing in common.
func wander(seed uint64, at time.Time) float64 {
	h, sum := float64(at.Unix())/3600, 0.0
	for k, period := range []float64{31.7, 47.3, 71.9, 113.1} {
		sum += math.Sin(2*math.Pi*(h/period) + float64(seed*uint64(7+k)%97))
	}
	return sum / math.Sqrt2
}

func (o *issue) add(name string, b Bet) { o.bets[name] = append(o.bets[name], b) }

func (o *issue) bet(ctx context.Context) error {
	if err := o.starts(ctx); err != nil {
		return err
	}
	o.others()
	return nil
}

// starts bets on coats begun at hours to come: that their field holds.
func (o *issue) starts(ctx context.Context) error {
	asks := make([]climate.Ask, len(o.jobs))
	for k, j := range o.jobs {
		asks[k] = climate.Ask{SurfaceID: j.surface, Job: j.Job}
	}
	odds, err := o.boat.Chances(ctx, o.climate, climate.Ensemble{Futures: o.futures, N: o.Futures, Seed: 1}, asks, nil)
	if err != nil {
		return err
	}
	said := o.boat.Ahead(o.futures.Frame())
	for k, j := range o.jobs {
		free := j.Free(times(o.futures.Frame()))
		came, forecast := j.Starts(o.truth[j.surface], j.Free(times(o.truth[j.surface].Air))),
			j.Starts(said[j.surface], free)
		off := len(forecast) - len(odds[k].At) // the odds begin now
		for _, lead := range leads {
			if i := lead; i < len(odds[k].P) && free.At(off+i) {
				b := Bet{odds[k].P[i], forecast[off+i], came[off+i]}
				o.add(Starts, b)
				o.add(Starts+": "+string(j.sheet.Kind), b)
			}
		}
	}
	return nil
}

func times(s weather.Series) []time.Time {
	out := make([]time.Time, len(s))
	for i, h := range s {
		out[i] = h.At
	}
	return out
}

// others bets on rain, on coats that are dry by then, and on launches.
func (o *issue) others() {
	n := o.Futures
	frame := o.futures.Frame()
	now := frame.Find(o.now)
	air, ready := o.play(o.futures)
	rains := make([][]bool, n) // of each future, hour by hour from now
	for i := range air {
		rains[i] = raining(air[i][now:])
	}
	said, came := raining(frame[now:]), raining(o.truth["deck"].Air[now:])
	bet := func(name string, from, to int) {
		b := Bet{Forecast: rained(said, from, to), Came: rained(came, from, to)}
		for _, r := range rains {
			b.P += number(rained(r, from, to)) / float64(n)
		}
		o.add(name, b)
	}
	for _, h := range within {
		bet(RainBefore, 1, h+1)
	}
	for h := 1; h < 120; h += 6 {
		bet(RainWithin, h, h+6)
	}
	for h := 7; h < 120; h++ {
		if said[h] && !rained(said, h-6, h) { // a shower of the forecast, dry for six hours before it
			bet(RainEarly, h-3, h)
			bet("rain in the three hours from when it is forecast", h, h+3)
		}
	}
	o.dryBy(ready, o.boat.Ahead(frame))
	o.launchBy()
}

func raining(s weather.Series) []bool {
	out := make([]bool, len(s))
	for i, h := range s {
		out[i] = h.RainMM != nil && *h.RainMM > 0.05
	}
	return out
}

// rained tells whether any of the hours is wet.
func rained(of []bool, from, to int) bool {
	for i := from; i < min(to, len(of)); i++ {
		if of[i] {
			return true
		}
	}
	return false
}

// dryBy bets that a coat begun at once may be coated again by hours about the one forecast.
func (o *issue) dryBy(futures []map[string]field.Weather, planned map[string]field.Weather) {
	for _, j := range o.jobs {
		r, ok := j.sheet.RecoatOver(j.sheet.Kind)
		if !ok {
			continue
		}
		done := func(w field.Weather) float64 { // h from now, beyond the horizon if not in it
			at := cure.Clock{Table: r.Min, FloorC: j.sheet.MinCureC}.Run(w.Path(j.sheet.Humidity), o.now, 1).Reached
			if at == nil {
				return math.Inf(1)
			}
			return at.Sub(o.now).Hours()
		}
		forecast, came := done(planned[j.surface]), done(o.truth[j.surface])
		if math.IsInf(forecast, 1) {
			continue
		}
		var all []float64
		for _, f := range futures {
			all = append(all, done(f[j.surface]))
		}
		for _, off := range []float64{-0.3, -0.15, -0.05, 0.05, 0.15, 0.3} {
			by := forecast * (1 + off)
			b := Bet{Forecast: forecast <= by, Came: came <= by}
			for _, h := range all {
				b.P += number(h <= by) / float64(len(all))
			}
			o.add(DryBy, b)
			o.add(DryBy+": "+string(j.sheet.Kind), b)
		}
	}
}

// launchBy bets that a plan of two surfaces, two coats each, is through by days in the next three
// weeks, played in the futures as in what came.
func (o *issue) launchBy() {
	long := weather.NewFutures(o.climate.Open, o.now, launchHorizon, o.habits)
	_, futures := o.play(long)
	planned := o.boat.Ahead(long.Usual())
	yard := plan.Yard{Now: o.now, Until: o.now.Add(launchHorizon - 48*time.Hour), Loc: time.UTC,
		Daylight: solar.Daylight(latitudeDeg, longitudeDeg, o.now, o.now.Add(launchHorizon)),
		People:   []plan.Person{{Name: "one"}}}
	in := func(at map[string]field.Weather) (plan.Model, error) {
		y := yard
		b := plan.Boat{ID: "b", Name: "b"}
		for k, id := range []string{"topsides", "deck"} {
			b.Surfaces = append(b.Surfaces,
				plan.Surface{ID: id, Name: id, Part: []area.Part{area.Topsides, area.Deck}[k], Side: area.Both,
					AreaM2: 10, Access: 1, Weather: at[id],
					Tasks: coats(id, o.jobs[6+k].sheet)})
		}
		y.Boats = []plan.Boat{b}
		return y.Model()
	}
	m, err := in(planned)
	if err != nil {
		return
	}
	_, kept := m.Make(context.Background(), plan.Kept{}, plan.Effort{Seed: 1, Rounds: 20})
	through := func(at map[string]field.Weather) float64 { // h from now
		if m, err := in(at); err == nil {
			if out := m.Play(kept.Starts); out.Ready[0] != nil {
				return out.Ready[0].Sub(o.now).Hours()
			}
		}
		return math.Inf(1)
	}
	forecast, came := through(planned), through(o.truth)
	var all []float64
	for _, f := range futures {
		all = append(all, through(f))
	}
	for by := 48.0; by <= 20*24; by += 48 {
		b := Bet{Forecast: forecast <= by, Came: came <= by}
		for _, h := range all {
			b.P += number(h <= by) / float64(len(all))
		}
		o.add(LaunchBy, b)
	}
}

// coats are two coats of an hour and a half.
func coats(surface string, sheet product.Sheet) (out []task.Task) {
	s := step.Step{Work: step.Coat, Coats: 2, Sheet: sheet, Method: "roller"}
	for i := 1; i <= s.Coats; i++ {
		out = append(out, task.Task{ID: fmt.Sprintf("%s#%d", surface, i), StepID: surface, Work: step.Coat,
			What: task.What(s, i), N: i, Of: s.Coats, Films: true, AreaM2: 10, Hours: 1.5, LayH: 1.5, State: task.ToDo,
			Step: s})
	}
	return out
}
