package plan

import (
	"fmt"
	"math"
	"testing"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/message"
	"allcoats/core/boat/area"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/field"
	"allcoats/core/film/step"
	"allcoats/core/job/task"
	"allcoats/core/physics/cure"
	"allcoats/core/physics/solar"
	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// now is a Friday morning.
var now = time.Date(2026, 6, 5, 8, 0, 0, 0, time.UTC)

func num(v float64) *float64 { return &v }

// fair is dry air of 20 °C for days, changed by edit hour by hour (0 is now).
func fair(days int, edit func(hour int, h *weather.Hour)) field.Weather {
	var w field.Weather
	for i := -48; i <= days*24; i++ {
		h := weather.Hour{At: now.Add(time.Duration(i) * time.Hour), TempC: 20, RHPct: 50, RainMM: num(0),
			WindMS: num(2), Measured: i <= 0}
		if edit != nil {
			edit(i, &h)
		}
		w.Air = append(w.Air, h)
		w.SurfaceC = append(w.SurfaceC, h.TempC)
	}
	return w
}

func at20(h float64) cure.Table { return cure.Table{{TempC: 10, Hours: 2 * h}, {TempC: 20, Hours: h}} }

func primer() product.Sheet {
	return product.Sheet{Name: "primer", Kind: product.HighBuild, MinCureC: 5, Sandable: at20(8), ThroughDry: at20(24),
		Limits: product.Limits{AirMinC: num(12), HoldH: 2},
		Recoat: []product.Recoat{{Over: product.AnyKind, Min: at20(4), Max: at20(40)}}}
}

// surface has coats from 1 to n of hours each.
func surface(name string, p area.Part, w field.Weather, n int, hours float64) Surface {
	return Surface{ID: name, Name: name, Part: p, Side: area.Both, AreaM2: 10, Access: 1, Weather: w,
		Tasks: coats(name+"-1", primer(), "roller", n, hours)}
}

// coats are n coats of a step as a job has them, of hours each.
func coats(id string, sheet product.Sheet, method string, n int, hours float64) (out []task.Task) {
	s := step.Step{Work: step.Coat, Coats: n, Sheet: sheet, Method: method}
	for i := 1; i <= n; i++ {
		t := task.Task{ID: fmt.Sprintf("%s#%d", id, i), StepID: id, Work: step.Coat, What: task.What(s, i), N: i, Of: n,
			Films: true, AreaM2: 10, Hours: hours, LayH: hours, State: task.ToDo, Step: s}
		if method == "spray" {
			t.Skill = task.Spraying
		}
		out = append(out, t)
	}
	return out
}

// work is a task without a film.
func work(id string, w step.Work, hours float64) task.Task {
	return task.Task{ID: id, StepID: id, Work: w, What: w.Say(), N: 1, Of: 1, Hours: hours, LayH: hours,
		State: task.ToDo, Step: step.Step{Work: w}}
}

// owns gives the boat of a yard own tasks, as her job has them.
func owns(y *Yard, own ...task.OwnTask) {
	b := &y.Boats[0]
	b.Own, b.Work = own, nil
	for _, o := range own {
		b.Work = append(b.Work, work(o.ID, step.Other, o.Hours))
	}
}

func yard(days int, surfaces ...Surface) Yard {
	return Yard{Now: now, Until: now.AddDate(0, 0, days), Loc: time.UTC, Daylight: solar.Daylight(52, 0, now,
		now.AddDate(0, 0, days)),
		People: []Person{{Name: "Ada"}}, Boats: []Boat{{ID: "b", Name: "Tern", Surfaces: surfaces}}}
}

func make_(t *testing.T, y Yard, before Starts) (Model, Plan, Starts) {
	t.Helper()
	m, err := y.Model()
	require.NoError(t, err)
	p, s := m.Make(t.Context(), Kept{Starts: before}, Effort{Seed: 1, Rounds: 60})
	return m, p, s.Starts
}

func item(t *testing.T, p Plan, id string) Item {
	t.Helper()
	for _, it := range p.Items {
		if it.TaskID == id {
			return it
		}
	}
	t.Fatalf("no item %s in %v", id, p.Items)
	return Item{}
}

func TestCoatsFollowTheirClocks(t *testing.T) {
	_, p, _ := make_(t, yard(10, surface("Hull", area.Topsides, fair(12, nil), 3, 2)), nil)
	one, two, three := item(t, p, "Hull-1#1"), item(t, p, "Hull-1#2"), item(t, p, "Hull-1#3")
	assert.Equal(t, now, one.Start)
	assert.Equal(t, one.End.Add(4*time.Hour), two.Start, "four hours at 20 °C after it is laid")
	assert.Equal(t, now.AddDate(0, 0, 1), three.Start, "the third would run into the evening")
	assert.Equal(t, []string{"Ada"}, one.People)
	require.NotNil(t, two.Closes)
	assert.WithinDuration(t, one.Start.Add(40*time.Hour), *two.Closes, time.Hour, "counted from when it was begun")
	assert.Contains(t, three.Why.In(time.UTC), "Not before")
	assert.Contains(t, three.Why.In(time.UTC), "the work of Ada begins Saturday 08:00")
	assert.Contains(t, p.Headline.In(time.UTC), "Tern can be launched from")
	assert.Equal(t, three.End.Add(24*time.Hour), *p.Launches[0].At, "through-dry")
}

func TestColdIsNamedAndWaitedFor(t *testing.T) {
	w := fair(12, func(i int, h *weather.Hour) {
		if i >= 0 && i < 30 {
			h.TempC = 8
		}
	})
	_, p, _ := make_(t, yard(10, surface("Hull", area.Topsides, w, 1, 2)), nil)
	it := item(t, p, "Hull-1#1")
	assert.False(t, it.Start.Before(now.Add(30*time.Hour)))
	assert.Contains(t, it.Why.In(time.UTC), "Not at 08:00: the air is below 12 °C")
}

// A week of rain closes the window: the sanding that costs is planned and counted.
func TestAMissedWindowTakesSanding(t *testing.T) {
	w := fair(20, func(i int, h *weather.Hour) {
		if i > 4 && i < 96 {
			h.RainMM = num(1)
		}
	})
	m, p, _ := make_(t, yard(16, surface("Hull", area.Topsides, w, 2, 2)), nil)
	assert.Equal(t, 1, p.Launches[0].Rekey)
	sand := item(t, p, "Hull-1#2~rekey")
	assert.True(t, sand.Rekey)
	assert.False(t, sand.Start.Before(now.Add(96*time.Hour)), "not in the rain")
	assert.False(t, item(t, p, "Hull-1#2").Start.Before(sand.End))
	assert.InDelta(t, 2+2, p.Hours, 1e-9, "of the job")
	assert.InDelta(t, 0.5+10./8+10./25, p.Launches[0].BesideH, 1e-9, "10 m² scuffed at 8 m²/h and washed at 25")
	assert.Equal(t, 2*time.Hour+15*time.Minute, sand.End.Sub(sand.Start), "in quarters")
	assert.LessOrEqual(t, item(t, p, "Hull-1#2").Start.Sub(sand.End), 12*time.Hour, "right before its coat")
	assert.NotEmpty(t, m.Problem.Links)
}

func TestCrossRulesAndHowTheyAreSwitchedOff(t *testing.T) {
	w := fair(20, nil)
	deck, sides := surface("Deck", area.Deck, w, 1, 2), surface("Sides", area.Topsides, w, 1, 2)
	y := yard(16, sides, deck)
	y.People = []Person{{Name: "Ada"}, {Name: "Wim"}}
	_, p, _ := make_(t, y, nil)
	assert.NotEqual(t, item(t, p, "Deck-1#1").Start.YearDay(), item(t, p, "Sides-1#1").Start.YearDay(),
		"they meet at a mask line")
	assert.True(t, item(t, p, "Deck-1#1").Start.Before(item(t, p, "Sides-1#1").Start), "top down")
	assert.Contains(t, item(t, p, "Sides-1#1").Why.In(time.UTC),
		"Deck is coated that day, and a mask line is between them")
	y.Boats[0].Off = map[string]string{TopDown: "covered", MaskLines: "no tape"}
	_, p, _ = make_(t, y, nil)
	assert.Equal(t, now, item(t, p, "Deck-1#1").Start)
	assert.Equal(t, now, item(t, p, "Sides-1#1").Start)
}

func TestOwnTasksPinsAndMarks(t *testing.T) {
	w := fair(20, nil)
	y := yard(16, surface("Deck", area.Deck, w, 1, 2))
	owns(&y, task.OwnTask{ID: "drill", Own: task.Own{Name: "Drill for cleats", Hours: 3, Crew: 1, SurfaceID: "Deck",
		When: "before"}},
		task.OwnTask{ID: "bed", Own: task.Own{Name: "Bed the cleats", Hours: 2, Crew: 1, SurfaceID: "Deck",
			When: "after"}})
	_, p, _ := make_(t, y, nil)
	assert.Equal(t, item(t, p, "drill").End, item(t, p, "Deck-1#1").Start)
	assert.False(t, item(t, p, "bed").Start.Before(item(t, p, "Deck-1#1").End.Add(24*time.Hour)))

	pin := now.AddDate(0, 0, 3)
	y.Marks = map[string]Mark{"Deck-1#1": {Pinned: &pin}}
	y.Boats[0].Work[0].State = task.Done
	_, p, _ = make_(t, y, nil)
	assert.Equal(t, pin, item(t, p, "Deck-1#1").Start)
	assert.True(t, item(t, p, "Deck-1#1").Pinned)
	for _, it := range p.Items {
		assert.NotEqual(t, "drill", it.TaskID)
	}
	y.Marks["bed"] = Mark{Pinned: &pin}
	_, err := y.Model()
	assert.ErrorContains(t, err, "Deck, high-build primer and Bed the cleats are pinned to the same hours")
}

func TestPinAgainstTheWeather(t *testing.T) {
	wet := now.AddDate(0, 0, 2)
	w := fair(20, func(_ int, h *weather.Hour) {
		if h.At.Sub(wet).Abs() < 48*time.Hour {
			h.TempC = 4
		}
	})
	y := yard(16, surface("Deck", area.Deck, w, 1, 2))
	y.Marks = map[string]Mark{"Deck-1#1": {Pinned: &wet}}
	m, p, _ := make_(t, y, nil)
	assert.Contains(t, item(t, p, "Deck-1#1").Why.In(time.UTC), "Pinned by you, against the weather: ")
	suits := m.Nearest("Deck-1#1", wet)
	assert.GreaterOrEqual(t, suits.Sub(wet), 48*time.Hour, "the cold days are behind it")
	assert.Less(t, suits.Sub(wet), 96*time.Hour)
	y.Marks["Deck-1#1"] = Mark{Pinned: &suits}
	_, p, _ = make_(t, y, nil)
	assert.Equal(t, "Pinned by you.", item(t, p, "Deck-1#1").Why.In(time.UTC))
}

func TestBadYards(t *testing.T) {
	w := fair(20, nil)
	for name, c := range map[string]struct {
		edit func(*Yard)
		want string
	}{
		"nobody": {func(y *Yard) { y.People = nil }, "nobody works in this yard"},
		"no hours": {func(y *Yard) {
			y.People[0].Week = calendar.Week{3: {FromH: 8, ToH: 9}}
			y.People[0].Off = []string{"2026-06-10", "2026-06-17"}
		}, "nobody has working hours"},
		"a loop": {func(y *Yard) {
			owns(y, task.OwnTask{ID: "a", Own: task.Own{Name: "Wiring", Hours: 1, Crew: 1, After: []string{"b"}}},
				task.OwnTask{ID: "b", Own: task.Own{Name: "Engine", Hours: 1, Crew: 1, After: []string{"a"}}})
		}, "these tasks wait for one another: Wiring, Engine"},
	} {
		y := yard(14, surface("Deck", area.Deck, w, 1, 2))
		c.edit(&y)
		_, err := y.Model()
		assert.ErrorContains(t, err, c.want, name)
	}
	cold := yard(5, surface("Deck", area.Deck, fair(7, func(_ int, h *weather.Hour) { h.TempC = 5 }), 1, 2))
	m, err := cold.Model()
	require.NoError(t, err)
	p, _ := m.Make(t.Context(), Kept{}, Effort{})
	require.Len(t, p.Left, 1)
	assert.Equal(t, "Tern: Deck, high-build primer", p.Left[0].Name.String())
	assert.Contains(t, p.Left[0].Why.In(time.UTC), "the air is below 12 °C")
	assert.Equal(t, []string{"a tent with heat", "a warmer month", "a hardener or product for the cold"},
		p.Left[0].Needs)
	assert.Equal(t, "ready to launch Tern", message.List(p.Left[0].Behind).String())
	assert.Contains(t, p.Headline.In(time.UTC), "cannot be launched yet")
}

// Whatever the plan, no rule of the problem is broken, and the same seed gives it again.
func TestPlansKeepTheirRules(t *testing.T) {
	w := fair(30, func(i int, h *weather.Hour) {
		h.TempC = 14 + 6*math.Sin(float64(i-6)*math.Pi/12) - 2*math.Sin(float64(i)/50)
		if i%61 < 9 {
			h.RainMM = num(0.8)
		}
	})
	y := yard(26, surface("Bottom", area.Bottom, w, 4, 4), surface("Sides", area.Topsides, w, 4, 5),
		surface("Deck", area.Deck, w, 3, 3), surface("Rudder", area.Rudder, w, 4, 1))
	y.People = []Person{{Name: "Ada"},
		{Name: "Wim", Week: calendar.Week{0: {FromH: 9, ToH: 17}, 6: {FromH: 9, ToH: 17}}}}
	_, p, s := make_(t, y, nil)
	_, q, r := make_(t, y, nil)
	assert.Equal(t, p, q)
	assert.Equal(t, s, r)
	last := map[string]time.Time{}
	for _, it := range p.Items {
		if it.Launch {
			continue
		}
		assert.NotEmpty(t, it.People, it.What)
		assert.False(t, it.Start.Before(last[it.SurfaceID]), "%s overlaps", it.What)
		last[it.SurfaceID] = it.End
		if it.Coat {
			assert.Empty(t, overlap(w, it), "rain while laying")
		}
	}
}

func overlap(w field.Weather, it Item) string {
	for _, h := range w.Air.Between(it.Start, it.End.Add(-time.Hour)) {
		if *h.RainMM > 0.05 {
			return h.At.String()
		}
	}
	return ""
}

func TestRiskOverFutures(t *testing.T) {
	launch := now.AddDate(0, 0, 4)
	build := func(rainy bool) Yard {
		w := fair(20, func(i int, h *weather.Hour) {
			if rainy && i < 120 {
				h.RainMM = num(1)
			}
		})
		y := yard(16, surface("Hull", area.Topsides, w, 2, 2))
		y.Boats[0].Launch = &launch
		return y
	}
	m, _, order := make_(t, build(false), nil)
	var all []Outcome
	for i := range 10 {
		wet, err := build(i < 3).Model()
		require.NoError(t, err)
		all = append(all, wet.Play(order))
	}
	r := m.Sum(all)
	require.Len(t, r.Boats, 1)
	assert.Equal(t, 70.0, r.Boats[0].DuePct, "seven dry futures of ten")
	assert.Equal(t, 99.0, r.Boats[0].WeekPct)
	assert.Equal(t, 99.0, r.Boats[0].Curve[len(r.Boats[0].Curve)-1].Pct)
	require.NotEmpty(t, r.Causes)
	assert.Equal(t, "Hull-1#1", r.Causes[0].TaskID, "the first coat waits for the rain to end")
}

// The day by which half are ready is that of the instant at which they are, at midnight too.
func TestTheMedianIsOneDay(t *testing.T) {
	m, _, _ := make_(t, yard(16, surface("Hull", area.Topsides, fair(20, nil), 1, 1)), nil)
	midnight := time.Date(now.Year(), now.Month(), now.Day()+3, 0, 0, 0, 0, m.Loc)
	for _, after := range []time.Duration{-time.Minute, 0, time.Minute} {
		late := midnight.AddDate(0, 0, 5)
		half := midnight.Add(after)
		all := []Outcome{{Ready: []*time.Time{&half}}, {Ready: []*time.Time{&late}}}
		assert.Equal(t, Ready(all, 0, 0.5).Format(time.DateOnly), m.Sum(all).Boats[0].Median, after)
	}
}

// What is done before an earlier end is done at the same hours with a later one.
func TestPlayedToAnEarlierEnd(t *testing.T) {
	y := sixty(2, 120)
	m, p, order := make_(t, y, nil)
	end := y.Within(order)
	require.True(t, end.Before(y.Until.AddDate(0, 0, -30)))
	for _, it := range p.Items {
		assert.False(t, it.Start.AddDate(0, 0, 14).After(end), it.What)
	}
	long := m.Play(order)
	require.True(t, long.Done())
	soon, err := sixty(2, int(end.Sub(now).Hours()/24)).Model()
	require.NoError(t, err)
	assert.Equal(t, long, soon.Play(order))
	tight, err := sixty(2, 10).Model()
	require.NoError(t, err)
	assert.False(t, tight.Play(order).Done())
}

// A launch that has passed is told and counted from; the yard is planned all the same.
func TestALaunchThatHasPassed(t *testing.T) {
	y := yard(14, surface("Deck", area.Deck, fair(20, nil), 1, 2))
	due := now.AddDate(0, 0, -2)
	y.Boats[0].Launch = &due
	_, p, _ := make_(t, y, nil)
	assert.Equal(t, "[the launch of Tern, Wed 3 Jun, has passed: give her another day]", fmt.Sprint(p.Notes))
	assert.Equal(t, p.Launches[0].At.Sub(due).Hours(), p.Launches[0].LateH)
}

// The clock of the coat that is on a surface holds the next one: at 20 °C it opens
// four hours after it was begun and closes after forty.
func TestTheCoatThatIsOn(t *testing.T) {
	laid := func(ago time.Duration, sanded bool) Yard {
		s := surface("Hull", area.Topsides, fair(12, nil), 1, 2)
		s.Last = &clock.Laid{Sheet: primer(), Started: now.Add(-ago)}
		if sanded {
			s.Last.Abraded = &now
		}
		return yard(10, s)
	}
	_, p, _ := make_(t, laid(2*time.Hour, false), nil)
	assert.Equal(t, now.Add(2*time.Hour), item(t, p, "Hull-1#1").Start)
	assert.Contains(t, item(t, p, "Hull-1#1").Why.In(time.UTC), "the coat that is on it")
	_, p, _ = make_(t, laid(45*time.Hour, false), nil)
	assert.Equal(t, 1, p.Launches[0].Rekey, "its window has closed")
	_, p, _ = make_(t, laid(45*time.Hour, true), nil)
	assert.Zero(t, p.Launches[0].Rekey, "it was sanded")
	assert.Equal(t, now, item(t, p, "Hull-1#1").Start)
	assert.Nil(t, Surface{}.Run(now))
}

// The launch waits for every film, whatever task is last: an inspection behind a coat,
// films laid long ago, and a bottom on which nothing is left to do. The barrier takes
// 100 h at 20 °C until it may stand in water, longer than its 24 h to through-dry.
func TestLaunchWaitsForAllFilms(t *testing.T) {
	barrier := primer()
	barrier.Immersion = at20(100)
	w := fair(20, nil)
	s := surface("Bottom", area.Bottom, w, 1, 2)
	s.Tasks[0].Step.Sheet = barrier
	s.Tasks = append(s.Tasks, work("look", step.Inspect, 1))
	_, p, _ := make_(t, yard(12, s), nil)
	coat := item(t, p, "Bottom-1#1")
	assert.Equal(t, coat.End.Add(100*time.Hour), *p.Launches[0].At)

	// Bedding on it needs the film through-dry, not fit for the water.
	y := yard(12, s)
	owns(&y, task.OwnTask{ID: "bed", Own: task.Own{Name: "Bed the log", Hours: 1, Crew: 1, SurfaceID: "Bottom",
		When: "after"}})
	_, p, _ = make_(t, y, nil)
	assert.Equal(t, coat.End.Add(24*time.Hour), item(t, p, "bed").Start)

	// 30 h ago, nothing planned any more: 70 h to go.
	done := Surface{ID: "Bottom", Name: "Bottom", Part: area.Bottom, Weather: w,
		Films: []clock.Laid{{Sheet: barrier, Started: now.Add(-30 * time.Hour)}}}
	done.Last = &done.Films[0]
	_, p, _ = make_(t, yard(12, done, surface("Deck", area.Deck, w, 1, 1)), nil)
	assert.Equal(t, now.Add(70*time.Hour), *p.Launches[0].At)
	done.Films[0].Started = now.Add(-20 * time.Hour)
	y = yard(12, done)
	owns(&y, task.OwnTask{ID: "bed", Own: task.Own{Name: "Bed the log", Hours: 1, Crew: 1, SurfaceID: "Bottom",
		When: "after"}})
	_, p, _ = make_(t, y, nil)
	assert.Equal(t, now.Add(4*time.Hour), item(t, p, "bed").Start)
	// A sheet that does not say is named.
	done.Films[0].Sheet.Immersion, done.Films[0].Sheet.ThroughDry = nil, nil
	_, p, _ = make_(t, yard(12, done, surface("Deck", area.Deck, w, 1, 1)), nil)
	require.Len(t, p.Notes, 1)
	assert.Contains(t, p.Notes[0].String(), "does not say when it is hard enough")
}

// After a wash a surface dries by its air and wind, not by a constant: by hand, 0.15 mm at
// 20 °C and 50 %, wind 2 m/s: h 8.8 W/m²K, g 5.914e-6 kg/m²s·hPa, lack 11.68 hPa, es' 1.447
// hPa/K, 1 + 2.454e6 · 5.914e-6 · 1.447/(8.8 + 5.14) = 2.506: 0.0992 mm/h, 1.51 h, seven quarters.
func TestTheWaitAfterAWashIsItsDrying(t *testing.T) {
	start := func(rh float64, roofed bool) time.Time {
		w := fair(20, func(_ int, h *weather.Hour) { h.RHPct = rh })
		s := surface("Hull", area.Topsides, w, 1, 2)
		s.HoldsMM, s.Sheltered = 0.15, roofed
		s.Tasks = append([]task.Task{work("wash", step.Wash, 1)}, s.Tasks...)
		_, p, _ := make_(t, yard(12, s), nil)
		return item(t, p, "Hull-1#1").Start
	}
	assert.Equal(t, now.Add(2*time.Hour+45*time.Minute), start(50, false))
	assert.Equal(t, now.Add(5*time.Hour), start(80, false), "0.0397 mm/h, 3.8 h")
	assert.True(t, start(50, true).After(start(50, false)), "no wind under a roof")
}
