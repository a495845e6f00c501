package app_test

import (
	"sync"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/film/step"
	"allcoats/core/job/logbook"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Who asks while others ask and one writes gets an answer of what is stored: every page of every boat, the plan and the odds, six at a time
// (make race looks over it).
func TestManyAskWhileOneWrites(t *testing.T) {
	a := withDemo(t)
	boats, err := a.Boats(ctx)
	require.NoError(t, err)
	place := boats[0].PlaceID
	asks := map[string]func(boat string) error{
		"today":    func(b string) error { _, err := a.Today(ctx, b); return err },
		"stores":   func(b string) error { _, err := a.Stores(ctx, b); return err },
		"overview": func(b string) error { _, err := a.Overview(ctx, b); return err },
		"log":      func(b string) error { _, err := a.Log(ctx, b); return err },
		"plan":     func(string) error { _, err := a.YardPlan(ctx, place); return err },
		"odds":     func(string) error { _, err := a.Risk(ctx, place, 8, nil); return err },
	}
	var wait sync.WaitGroup
	for name, ask := range asks {
		wait.Go(func() {
			for i := range 3 {
				assert.NoError(t, ask(boats[i%len(boats)].ID), name)
			}
		})
	}
	wait.Go(func() {
		for i := range 3 {
			_, err := a.AddEntry(ctx, app.NewEntry{Entry: logbook.Entry{BoatID: boats[0].ID, Kind: step.Idle, Note: "asked",
				StartedAt: time.Date(2026, 5, 8, 8+i, 0, 0, 0, time.UTC), Who: "Ada"}})
			assert.NoError(t, err)
		}
	})
	wait.Wait()
	log, err := a.Log(ctx, boats[0].ID)
	require.NoError(t, err)
	idle := 0
	for _, e := range log {
		if e.Note == "asked" {
			idle++
		}
	}
	assert.Equal(t, 3, idle)
}
