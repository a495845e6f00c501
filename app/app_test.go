package app_test

import (
	"context"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/base/fielderr"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/readiness"
	"allcoats/core/film/step"
	"allcoats/core/job/logbook"
	"allcoats/demo"
	"allcoats/demo/standing"
	"allcoats/instruments"
	"allcoats/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var ctx = context.Background()

func open(t testing.TB, path string) *app.App {
	s, err := store.Open(ctx, path)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	a, err := app.New(ctx, s, instruments.Forecast{Seed: demo.Seed})
	require.NoError(t, err)
	return a
}

func withDemo(t *testing.T) *app.App {
	path := filepath.Join(t.TempDir(), "a.db")
	require.NoError(t, standing.Write(path))
	return open(t, path)
}

func TestDemoHasThreeBoatsWithCoatsInDifferentStates(t *testing.T) {
	a := withDemo(t)
	boats, err := a.Boats(ctx)
	require.NoError(t, err)
	require.Len(t, boats, 3)
	states := map[clock.State]bool{}
	for _, b := range boats {
		got, err := a.Today(ctx, b.ID)
		require.NoError(t, err)
		assert.NotEmpty(t, got.Answer.Headline)
		assert.Empty(t, got.Answer.Warnings)
		for _, l := range got.Answer.Lanes {
			if l.Clock != nil {
				states[l.Clock.State] = true
			}
		}
	}
	assert.True(t, states[clock.Tacking] && states[clock.Open] && states[clock.Closed], "%v", states)
	require.NoError(t, a.SetClock(ctx, app.FixedClock, demo.Now.Add(6*time.Hour)))
	yawl, err := a.Today(ctx, boats[1].ID)
	require.NoError(t, err)
	assert.True(t, slices.ContainsFunc(yawl.Answer.Lanes, func(l readiness.Lane) bool {
		return l.Clock != nil && l.Clock.State == clock.Closing
	}), "in the afternoon")
}

func TestLibraryIsStockedOnce(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a.db")
	s, err := store.Open(ctx, path)
	require.NoError(t, err)
	a, err := app.New(ctx, s, instruments.Forecast{})
	require.NoError(t, err)
	all, err := a.Products(ctx)
	require.NoError(t, err)
	assert.Len(t, all, len(product.Examples()))
	require.NoError(t, a.RemoveProduct(ctx, all[0].ID))
	require.NoError(t, s.Close())
	again, err := open(t, path).Products(ctx)
	require.NoError(t, err)
	assert.Len(t, again, len(all)-1, "what was deleted stays deleted")
}

func TestLoggedCoatStartsAClockAndMovesThePlanOn(t *testing.T) {
	a := withDemo(t)
	boats, err := a.Boats(ctx)
	require.NoError(t, err)
	// The dew is off the deck by then.
	now := demo.Now.Add(3 * time.Hour)
	require.NoError(t, a.SetClock(ctx, app.FixedClock, now))
	before, err := a.Today(ctx, boats[0].ID)
	require.NoError(t, err)
	lane := before.Answer.Lanes[3] // the deck, bare
	require.Nil(t, lane.Clock)
	plan, err := a.BuildUp(ctx, lane.SurfaceID)
	require.NoError(t, err)
	edit := logbook.Entry{SurfaceID: lane.SurfaceID, Kind: step.Coat, StartedAt: now,
		ProductID: plan.Steps[0].ProductID, StepID: plan.Steps[0].ID, WetUm: []float64{80, 76}}
	entry, err := a.AddEntry(ctx, app.NewEntry{Entry: edit})
	require.NoError(t, err)
	assert.InDelta(t, 78*0.52, entry.FilmUm, 1e-9)

	after, err := a.Today(ctx, boats[0].ID)
	require.NoError(t, err)
	assert.Equal(t, clock.Wet, after.Answer.Lanes[3].Clock.State)
	assert.Equal(t, plan.Steps[1].ID, after.Answer.Lanes[3].NextStepID)
	plan, err = a.BuildUp(ctx, lane.SurfaceID)
	require.NoError(t, err)
	assert.Equal(t, []int{1, 0}, plan.Done)
	assert.True(t, plan.Layers[0].Laid)

	// The clock moves on with the program's time and its weather.
	require.NoError(t, a.SetClock(ctx, app.FixedClock, now.AddDate(0, 0, 2)))
	later, err := a.Today(ctx, boats[0].ID)
	require.NoError(t, err)
	assert.Equal(t, clock.Open, later.Answer.Lanes[3].Clock.State)
	assert.Empty(t, later.Answer.Warnings)

	// Deleting is undoable.
	require.NoError(t, a.SetClock(ctx, app.FixedClock, now))
	_, err = a.MarkEntry(ctx, entry.ID, true)
	require.NoError(t, err)
	gone, err := a.Today(ctx, boats[0].ID)
	require.NoError(t, err)
	assert.Nil(t, gone.Answer.Lanes[3].Clock)
	restored, err := a.MarkEntry(ctx, entry.ID, false)
	require.NoError(t, err)
	assert.False(t, restored.Deleted)

	// What has gone on cannot be planned away, and the surface not deleted.
	plan.Steps[0].Coats = 0
	_, err = a.PreviewBuildUp(ctx, lane.SurfaceID, plan.Steps)
	assert.Error(t, err)
	assert.ErrorAs(t, a.RemoveSurface(ctx, lane.SurfaceID), &app.InUse{})
}

func TestBadEntries(t *testing.T) {
	a := withDemo(t)
	boats, err := a.Boats(ctx)
	require.NoError(t, err)
	today, err := a.Today(ctx, boats[0].ID)
	require.NoError(t, err)
	lane := today.Answer.Lanes[0]
	products, err := a.Products(ctx)
	require.NoError(t, err)
	good := logbook.Entry{SurfaceID: lane.SurfaceID, Kind: step.Coat, StartedAt: demo.Now, ProductID: products[0].ID}
	for path, change := range map[string]func(*logbook.Entry){
		"surfaceId": func(e *logbook.Entry) { e.SurfaceID = "none" },
		"startedAt": func(e *logbook.Entry) { e.StartedAt = demo.Now.Add(time.Hour) },
		"productId": func(e *logbook.Entry) { e.ProductID = "none" },
		"stepId":    func(e *logbook.Entry) { e.StepID = "none" },
		"litres":    func(e *logbook.Entry) { e.Litres = -1 },
		"wetUm[1]":  func(e *logbook.Entry) { e.WetUm = []float64{100, 0} },
		"kind":      func(e *logbook.Entry) { e.Kind = "polish" },
		"grit":      func(e *logbook.Entry) { e.Kind = step.Sand },
	} {
		e := good
		change(&e)
		_, err := a.AddEntry(ctx, app.NewEntry{Entry: e})
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
	log, err := a.Log(ctx, boats[0].ID)
	require.NoError(t, err)
	_, err = a.AddEntry(ctx, app.NewEntry{Entry: good})
	require.NoError(t, err)
	more, err := a.Log(ctx, boats[0].ID)
	require.NoError(t, err)
	assert.Len(t, more, len(log)+1, "the bad ones left nothing")
}

func TestMovingAPlaceDropsItsSimulatedWeather(t *testing.T) {
	a := withDemo(t)
	places, err := a.Places(ctx)
	require.NoError(t, err)
	p := places[0]
	boats, err := a.Boats(ctx)
	require.NoError(t, err)
	here, err := a.Today(ctx, boats[0].ID)
	require.NoError(t, err)
	p.LatitudeDeg = 60
	_, err = a.EditPlace(ctx, p.ID, p.Version, p.PlaceEdit)
	require.NoError(t, err)
	there, err := a.Today(ctx, boats[0].ID)
	require.NoError(t, err)
	require.Len(t, there.Ribbon.Hours, len(here.Ribbon.Hours))
	same, told := 0, 0
	for i, h := range here.Ribbon.Hours {
		if h.Measured { // by instruments that stay
			continue
		}
		told++
		if h.TempC == there.Ribbon.Hours[i].TempC {
			same++
		}
	}
	assert.Less(t, same, told/10, "hours of the former place")
	_, err = a.EditPlace(ctx, p.ID, p.Version, p.PlaceEdit)
	assert.ErrorAs(t, err, &app.Conflict{})
}

// No coat of the standing demo went on before it might.
func TestTheDemoKeepsItsOwnWindows(t *testing.T) {
	a := withDemo(t)
	boats, err := a.Boats(ctx)
	require.NoError(t, err)
	for _, b := range boats {
		log, err := a.Log(ctx, b.ID)
		require.NoError(t, err)
		for _, e := range log {
			assert.Empty(t, e.Early, "%s, %s", e.Surface, e.StartedAt)
		}
	}
}
