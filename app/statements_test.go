package app_test

import (
	"context"
	"strings"
	"testing"

	"allcoats/app"
	"allcoats/core/film/step"
	"allcoats/core/job/logbook"
	"allcoats/demo"
	"allcoats/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// statements counts what a use case puts to the file, transactions' ends apart.
func statements(t *testing.T, do func(ctx context.Context) error) int {
	t.Helper()
	n := 0
	require.NoError(t, do(store.Watch(context.Background(), func(s string) {
		n++
		if testing.Verbose() {
			t.Log(strings.Join(strings.Fields(s), " "))
		}
	})))
	return n
}

// No screen asks the file for each of its surfaces or hours: what a use case costs is
// bound, and more surfaces cost nothing.
func TestStatementsOfAScreen(t *testing.T) {
	a, _, _ := yardOf(t)
	b := boatNamed(a, "Marsh Lantern")
	deck := surfaceNamed(a, "Marsh Lantern", "Deck")
	work := must(app.NonSkidBench.Get(ctx, a, deck.ID))
	screens := map[string]struct {
		most int
		do   func(context.Context) error
	}{
		"today":    {50, func(ctx context.Context) error { _, err := a.Today(ctx, b.ID); return err }},
		"survey":   {8, func(ctx context.Context) error { _, err := a.Survey(ctx, b.ID); return err }},
		"build-up": {17, func(ctx context.Context) error { _, err := a.BuildUp(ctx, deck.ID); return err }},
		"overview": {16, func(ctx context.Context) error { _, err := a.Overview(ctx, b.ID); return err }},
		"stores":   {50, func(ctx context.Context) error { _, err := a.Stores(ctx, b.ID); return err }},
		"bench": {50, func(ctx context.Context) error {
			_, err := a.Bench(ctx, b.ID, app.BenchQuery{SurfaceID: deck.ID})
			return err
		}},
		"log":    {16, func(ctx context.Context) error { _, err := a.Log(ctx, b.ID); return err }},
		"report": {46, func(ctx context.Context) error { _, err := a.Report(ctx, b.ID); return err }},
		"plan":   {48, func(ctx context.Context) error { _, err := a.YardPlan(ctx, b.PlaceID); return err }},
		"a bench": {21, func(ctx context.Context) error {
			_, err := app.NonSkidBench.Get(ctx, a,
				deck.ID)
			return err
		}},
		"keep a bench": {23, func(ctx context.Context) error {
			_, err := app.NonSkidBench.Set(ctx, a, deck.ID, work.Version, work.Work)
			work.Version++
			return err
		}},
		"log an entry": {28, func(ctx context.Context) error {
			_, err := a.AddEntry(ctx,
				app.NewEntry{Entry: logbook.Entry{SurfaceID: deck.ID, Kind: step.Wash, StartedAt: demo.Now}})
			return err
		}},
	}
	before := map[string]int{}
	count := func(name string) int {
		require.NoError(t, a.MarkDemo(ctx), "a write, so that no plan stands")
		return statements(t, func(ctx context.Context) error { return a.View(ctx, screens[name].do) })
	}
	for name, s := range screens {
		if strings.HasPrefix(name, "keep") || strings.HasPrefix(name, "log an") {
			before[name] = statements(t, s.do)
		} else {
			before[name] = count(name)
		}
		t.Logf("%-14s %d", name, before[name])
		assert.LessOrEqual(t, before[name], s.most, name)
	}
	for range 8 {
		must(a.DuplicateSurface(ctx, deck.ID))
	}
	for _, name := range []string{"today", "survey", "stores", "plan", "log"} {
		assert.Equal(t, before[name], count(name), "%s asks for each surface", name)
	}
}
