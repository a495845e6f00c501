package app_test

import (
	"context"
	"slices"
	"strings"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/base/fielderr"
	"allcoats/core/exposure/tent"
	"allcoats/core/film/step"
	"allcoats/core/job/logbook"
	"allcoats/core/job/task"
	"allcoats/core/planning/plan"
	"allcoats/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func yardOf(t *testing.T) (*app.App, string, app.YardPlan) {
	a, s := launch(t)
	v, err := a.YardPlan(ctx, s.Place.ID)
	require.NoError(t, err)
	require.NotNil(t, v.Plan, "%v", v.Trouble)
	return a, s.Place.ID, v
}

func TestTheDemoIsPlanned(t *testing.T) {
	a, place, v := yardOf(t)
	assert.GreaterOrEqual(t, len(v.Plan.Items), 60)
	assert.Len(t, v.Plan.Launches, 3)
	assert.Empty(t, v.Moved, "made a moment ago")
	require.NotNil(t, v.Made)
	busy := map[string][]plan.Item{}
	for _, it := range v.Plan.Items {
		assert.False(t, it.Start.Before(demo.Now), it.What)
		if !it.Launch {
			assert.NotEmpty(t, it.People, it.What)
		}
		if !it.Rekey {
			assert.NotEmpty(t, it.Why, it.What)
			assert.NotContains(t, it.Why.String(), "the start.", it.What) // says nothing
		}
		if len(it.People) == 1 {
			busy[it.People[0]] = append(busy[it.People[0]], it)
		}
	}
	for who, items := range busy {
		for i := 1; i < len(items); i++ {
			assert.False(t, items[i].Start.Before(items[i-1].End), "%s is at two places: %s and %s", who,
				items[i-1].What, items[i].What)
		}
	}
	again, err := a.MakePlan(ctx, place, app.Making{}, nil)
	require.NoError(t, err)
	assert.LessOrEqual(t, again.Plan.Launches[0].LateH, v.Plan.Launches[0].LateH)
}

func TestALoggedCoatAndARainedOffDayMoveThePlan(t *testing.T) {
	a, place, v := yardOf(t)
	var first plan.Item
	for _, it := range v.Plan.Items {
		if it.Coat && it.Boat == "Marsh Lantern" && it.Surface == "Bottom" {
			first = it
			break
		}
	}
	b := must(a.BuildUp(ctx, first.SurfaceID))
	_, err := a.AddEntry(ctx, app.NewEntry{Entry: logbook.Entry{SurfaceID: first.SurfaceID, Kind: step.Coat,
		ProductID: b.Steps[0].ProductID, StepID: b.Steps[0].ID, StartedAt: demo.Now, Litres: 7, Who: "Ada",
		Detail: logbook.Detail{BeyondShelf: true}}})
	require.NoError(t, err)
	v, err = a.YardPlan(ctx, place)
	require.NoError(t, err)
	require.NotEmpty(t, v.Moved)
	for _, it := range v.Plan.Items {
		assert.NotEqual(t, first.TaskID, it.TaskID, "it is on")
	}
	v, err = a.MakePlan(ctx, place, app.Making{}, nil)
	require.NoError(t, err)
	assert.Empty(t, must(a.YardPlan(ctx, place)).Moved)
	assert.Equal(t, 1, v.Undo)
	back, err := a.UndoPlan(ctx, place)
	require.NoError(t, err)
	assert.Zero(t, back.Undo)
	assert.NotEmpty(t, back.Moved)
}

// Hours told in the log make the same kind of work take as long in the plan.
func TestThePlanLearnsFromHours(t *testing.T) {
	a, place, v := yardOf(t)
	hours := func(v app.YardPlan) float64 {
		sum := 0.0
		for _, it := range v.Plan.Items {
			if it.Coat && it.Surface == "Topsides port" && it.Boat == "Marsh Lantern" {
				sum += it.Hours
			}
		}
		return sum
	}
	before := hours(v)
	s := must(a.Survey(ctx, v.Boats[0].ID))
	log := must(a.Log(ctx, s.Boat.ID))
	told := 0
	for _, e := range log {
		if e.Kind == step.Coat && e.Surface == "Bottom" {
			edit := e.Entry
			edit.Hours += 6
			_, err := a.EditEntry(ctx, e.ID, e.Version, edit)
			require.NoError(t, err)
			told++
		}
	}
	require.Equal(t, 3, told)
	// What was told of all coats is near what was reckoned, R, so (R + 3·6 + 6) / (R + 6).
	reckoned := 0.0
	for _, e := range log {
		reckoned += e.Hours * map[bool]float64{true: 1}[e.Kind == step.Coat]
	}
	v = must(a.YardPlan(ctx, place))
	require.NotNil(t, v.Plan)
	assert.InEpsilon(t, (reckoned+18+6)/(reckoned+6), hours(v)/before, 0.03)
}

func TestPinsSettingsAndTheirFaults(t *testing.T) {
	a, place, v := yardOf(t)
	var it plan.Item
	for _, x := range v.Plan.Items {
		if strings.HasPrefix(x.What.String(), "Service the stern gland") {
			it = x
		}
	}
	at := time.Date(2026, 5, 13, 9, 0, 0, 0, time.UTC)
	v, err := a.Move(ctx, place, v.Version, it.TaskID, &at, false)
	require.NoError(t, err)
	for _, x := range v.Plan.Items {
		if x.TaskID == it.TaskID {
			assert.Equal(t, at, x.Start)
			assert.True(t, x.Pinned)
		}
	}
	night := time.Date(2026, 5, 13, 1, 0, 0, 0, time.UTC)
	_, err = a.Move(ctx, place, v.Version, it.TaskID, &night, false)
	var bad fielderr.Errors
	require.ErrorAs(t, err, &bad)
	assert.Contains(t, bad[0].Message, "too few hands work on Wed 13 May, ")
	near, err := a.Move(ctx, place, v.Version, it.TaskID, &night, true)
	require.NoError(t, err)
	v = near
	for _, x := range v.Plan.Items {
		if x.TaskID == it.TaskID {
			assert.GreaterOrEqual(t, x.Start.Hour(), 5, "in working hours")
			assert.Less(t, x.Start.Sub(night).Abs(), 20*time.Hour)
		}
	}
	_, err = a.Move(ctx, place, v.Version-1, it.TaskID, nil, false)
	var stale app.Conflict
	assert.ErrorAs(t, err, &stale)
	v, err = a.Move(ctx, place, v.Version, it.TaskID, nil, false)
	require.NoError(t, err)
	assert.Empty(t, v.Settings.Marks)

	s := v.Settings
	s.People = []plan.Person{{Name: "Ada"}, {Name: "Ada", Off: []string{"soon"}}}
	s.Own = map[string][]task.OwnTask{"b": {{Own: task.Own{}}}}
	s.Off = map[string]map[string]string{"b": {"top-down": "", "gravity": "x"}}
	s.Noise.FromH = 30
	_, err = a.SetPlan(ctx, place, v.Version, s)
	for _, field := range []string{"people[1].name", "people[1].off[0]", "own.b[0].name", "own.b[0].hours",
		"off.b.top-down", "off.b.gravity", "noise.fromH"} {
		assert.ErrorContains(t, err, field)
	}
	s.People = nil
	_, err = a.SetPlan(ctx, place, v.Version, s)
	assert.ErrorContains(t, err, "nobody works")
}

func TestRiskAndWays(t *testing.T) {
	a, place, _ := yardOf(t)
	told := 0.0
	r, err := a.Risk(ctx, place, 20, func(d float64) { told = d })
	require.NoError(t, err)
	assert.Positive(t, told)
	require.Len(t, r.Boats, 3)
	for _, b := range r.Boats {
		assert.GreaterOrEqual(t, b.WeekPct, b.DuePct, "a week more is never worse")
		for i := 1; i < len(b.Curve); i++ {
			assert.GreaterOrEqual(t, b.Curve[i].Pct, b.Curve[i-1].Pct)
		}
	}
	same, err := a.Risk(ctx, place, 20, nil)
	require.NoError(t, err)
	assert.Equal(t, r, same)
	assert.False(t, must(a.YardPlan(ctx, place)).OddsStale)
	require.NoError(t, a.SetCurrency(ctx, "EUR"))
	assert.True(t, must(a.YardPlan(ctx, place)).OddsStale, "something was written")
	told = 0
	_, err = a.Risk(ctx, place, 0, func(d float64) { told = d })
	require.NoError(t, err)
	assert.Positive(t, told, "and it is played again")
	r, err = a.Risk(ctx, place, 20, nil)
	require.NoError(t, err)
	told = 0
	kept, err := a.Risk(ctx, place, 0, func(d float64) { told = d })
	require.NoError(t, err)
	assert.Equal(t, r, kept, "what was played stands, and is what the plan tells")
	assert.Zero(t, told, "nothing is played again")
	for k, l := range must(a.YardPlan(ctx, place)).Plan.Launches {
		assert.Equal(t, r.Boats[k].DuePct, *l.DuePct)
		assert.Equal(t, r.Boats[k].Median, l.Half.In(must(time.LoadLocation(demo.Yard.TimeZone))).Format(time.DateOnly))
	}
	gone, cancel := context.WithCancel(ctx)
	cancel()
	_, err = a.Risk(gone, place, 20, nil)
	assert.ErrorIs(t, err, context.Canceled)
	told = 0
	ways, err := a.Ways(ctx, place, func(d float64) { told = d })
	require.NoError(t, err)
	assert.Positive(t, told)
	require.GreaterOrEqual(t, len(ways), 8)
	assert.True(t, ways[0].Enough, "a later launch always is")
	for _, w := range ways {
		if w.DayCents != nil {
			assert.InDelta(t, w.Cents, *w.DayCents*w.DaysGained, 1, w.Name.String())
		}
	}
	odds := map[string][]plan.Odds{}
	for _, w := range ways {
		odds[w.Name.String()] = w.Odds
		require.Len(t, w.Odds, 3, w.Name.String())
		for _, o := range w.Odds {
			require.NotNil(t, o.Half, w.Name.String())
			assert.False(t, o.Nine != nil && o.Nine.Before(*o.Half), w.Name.String())
		}
	}
	sheets := 0
	for _, w := range ways { // film and frame over the boats that are named, but for the tender, which has her tent
		name := w.Name.String()
		if !strings.HasPrefix(name, "a tent over") {
			continue
		}
		sheets++
		build := 0.0
		for _, b := range must(a.Boats(ctx)) {
			if b.Name != "Sounding Line" && (strings.Contains(name, b.Name) || strings.Contains(name, "every boat")) {
				build += tent.Usual(b.Dimensions.LOAM, b.Dimensions.BeamM).BuildCents()
			}
		}
		require.Positive(t, build, name)
		if strings.HasSuffix(name, "without heat") {
			assert.InDelta(t, build, w.Cents, 1e-6, name)
		} else {
			assert.Greater(t, w.Cents, build, name)
		}
		assert.NotContains(t, name, "Reed Warbler", "her varnish waits in a tent that the sun heats")
	}
	assert.Equal(t, 2, sheets, "with heat and without")
	assert.Contains(t, odds, "Sallow Creek spray shop", "what a shop quoted is one of them")
	for _, adds := range []string{"two hours more every evening that is worked", "one more helper"} {
		require.Contains(t, odds, adds)
		for k, now := range odds["launch later, as planned now"] {
			assert.False(t, odds[adds][k].Half.After(*now.Half), adds)
		}
	}
	past := ways[len(ways)-1]
	require.True(t, past.Past)
	assert.InDelta(t, 3*14, past.DaysGained, 1e-9)
	assert.Nil(t, past.DayCents, "it is not to be had")
	played := must(a.Risk(ctx, place, 200, nil)) // as many as a plan of this size
	for k, o := range past.Odds {
		due, err := time.Parse(time.DateOnly, played.Boats[k].Due)
		require.NoError(t, err)
		two := due.AddDate(0, 0, 14).Format(time.DateOnly)
		i := slices.IndexFunc(played.Boats[k].Curve, func(p plan.Point) bool { return p.Day == two })
		if i < 0 { // all are ready before
			i = len(played.Boats[k].Curve) - 1
		}
		assert.Equal(t, played.Boats[k].Curve[i].Pct, o.DuePct, "as many as are ready two weeks after the day wanted")
	}

	_, err = a.MakePlan(ctx, place, app.Making{}, nil)
	require.NoError(t, err)
	assert.False(t, must(a.YardPlan(ctx, place)).OddsStale, "a plan that was just made is told by its own play")
}

func TestPlanGoesOut(t *testing.T) {
	a, place, v := yardOf(t)
	cal, err := a.Calendar(ctx, place)
	require.NoError(t, err)
	table, err := a.PlanTable(ctx, place)
	require.NoError(t, err)
	assert.Len(t, table.Rows, len(v.Plan.Items))
	assert.Contains(t, string(cal), "BEGIN:VCALENDAR")
}

// A pin can be tried before it is set, gone back on, and forward again.
func TestAMoveIsTriedUndoneAndRedone(t *testing.T) {
	a, place, v := yardOf(t)
	it := v.Plan.Items[slices.IndexFunc(v.Plan.Items, func(it plan.Item) bool {
		return it.Surface == "Deck" && it.What.String() == "undercoat"
	})]
	at := it.Start.AddDate(0, 0, 12)
	tried, err := a.TryMove(ctx, place, it.TaskID, &at, true)
	require.NoError(t, err)
	require.Empty(t, tried.Trouble)
	assert.NotEmpty(t, tried.Moved, "what follows it cannot stay")
	assert.Equal(t, v.Version, must(a.YardPlan(ctx, place)).Version, "nothing is stored")
	moved, err := a.Move(ctx, place, v.Version, it.TaskID, &at, true)
	require.NoError(t, err)
	start := func(v app.YardPlan) time.Time {
		return v.Plan.Items[slices.IndexFunc(v.Plan.Items, func(x plan.Item) bool {
			return x.TaskID == it.TaskID
		})].Start
	}
	assert.Equal(t, *tried.At, start(moved))
	assert.Equal(t, 1, moved.Undo)
	back := must(a.UndoPlan(ctx, place))
	assert.Equal(t, it.Start, start(back))
	assert.Empty(t, back.Settings.Marks)
	assert.Equal(t, 1, back.Redo)
	again := must(a.RedoPlan(ctx, place))
	assert.Equal(t, *tried.At, start(again))
	assert.Equal(t, []int{1, 0}, []int{again.Undo, again.Redo})
}
