package demo_test

import (
	"context"
	"path/filepath"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/boat/area"
	"allcoats/demo"
	"allcoats/instruments"
	"allcoats/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func built(t *testing.T, now time.Time) (*app.App, []app.Survey) {
	ctx := context.Background()
	s, err := store.Open(ctx, filepath.Join(t.TempDir(), "d.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	a, err := app.New(ctx, s, instruments.Forecast{Seed: demo.Seed})
	require.NoError(t, err)
	require.NoError(t, demo.Build(ctx, a, now, app.FixedClock))
	boats, err := a.Boats(ctx)
	require.NoError(t, err)
	var out []app.Survey
	for _, b := range boats {
		survey, err := a.Survey(ctx, b.ID)
		require.NoError(t, err)
		out = append(out, survey)
	}
	return a, out
}

// Building it twice in one program gives the same yard twice.
func TestTheDemoCanBeBuiltAgain(t *testing.T) {
	_, one := built(t, demo.Now)
	showsEveryWayOfMeasuring(t, one)
	_, two := built(t, demo.Now)
	for i := range one {
		require.Len(t, two[i].Surfaces, len(one[i].Surfaces))
		for k, s := range one[i].Surfaces {
			assert.Equal(t, s.Area.AreaM2, two[i].Surfaces[k].Area.AreaM2)
			assert.Len(t, two[i].Surfaces[k].Measured.Measures, len(s.Measured.Measures))
		}
	}
	assert.Len(t, demo.Boats(), 3)
}

func showsEveryWayOfMeasuring(t *testing.T, boats []app.Survey) {
	require.Len(t, boats, 3)
	ways := map[area.Method]bool{}
	states := map[app.Measuring]bool{}
	layers, defects, photos := 0, 0, 0
	for _, b := range boats {
		for _, s := range b.Surfaces {
			states[s.Measuring] = true
			layers += len(s.Findings.Layers)
			for _, m := range s.Measured.Measures {
				ways[m.Method] = true
			}
		}
		defects += len(b.Defects)
		for _, d := range b.Defects {
			photos += len(d.Photos)
		}
	}
	for _, m := range []area.Method{area.ByPrincipal, area.ByGirth, area.ByShape, area.ByOutline, area.ByModel} {
		assert.True(t, ways[m], m)
	}
	assert.Len(t, states, 3, "rough, good and disagreeing ones")
	assert.Positive(t, layers)
	assert.Equal(t, 7, defects)
	assert.Equal(t, 1, photos)
	for _, i := range []int{0, 2} {
		require.NotNil(t, boats[i].CrossCheck)
		assert.True(t, boats[i].CrossCheck.Plausible, boats[i].CrossCheck.Text)
	}
	assert.Equal(t, "Table of offsets", boats[2].DrawnFrom)
}

// Whenever it is built, its day is that one, its log of the past and its launches to come.
func TestTheDemoCanBeBuiltAroundAnyTime(t *testing.T) {
	now := demo.Now.AddDate(0, 7, 3)
	a, boats := built(t, now)
	today, err := a.Today(context.Background(), boats[0].Boat.ID)
	require.NoError(t, err)
	assert.Equal(t, now, today.Ribbon.Now.UTC())
	for _, b := range boats {
		entries, err := a.Log(context.Background(), b.Boat.ID)
		require.NoError(t, err)
		for _, e := range entries {
			assert.False(t, e.StartedAt.After(now), "%s, %s", b.Boat.Name, e.Note)
		}
		assert.Greater(t, b.Boat.LaunchDate, now.Format(time.DateOnly), "she is to be launched after the demo's day")
	}
}
