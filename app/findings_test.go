package app_test

import (
	"slices"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/readiness"
	"allcoats/core/film/step"
	"allcoats/core/job/logbook"
	"allcoats/core/job/rules"
	"allcoats/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A soft antifouling with copper is planned on the bare aluminium of the demo's tender: the
// build-up stops it and offers the primer, Today and Bench hold the coat back, and with the
// mends put in nothing stops but the copper itself.
func TestWhatTheRulesStopIsHeldBack(t *testing.T) {
	a := withDemo(t)
	deck := surfaceNamed(a, "Sounding Line", "Deck")
	p := productOf(t, a, product.SoftAntifoul)
	require.True(t, p.Sheet.Copper)
	got := must(a.SetBuildUp(ctx, deck.ID, deck.Version,
		[]app.Step{{Step: step.Step{Work: step.Sand, Grit: 80, RemovedUm: 20}},
			{ProductID: p.ID, Step: step.Step{Work: step.Coat, Coats: 1, DFTUm: 60, Method: "roller", LossPct: 10}}}))
	rule := func(b app.BuildUp, id string) int {
		return slices.IndexFunc(b.Findings, func(f app.Finding) bool { return f.Rule == id })
	}
	bare := rule(got, "antifouling-on-bare-metal")
	require.GreaterOrEqual(t, bare, 0)
	require.GreaterOrEqual(t, rule(got, "copper-near-aluminium"), 0)
	assert.Equal(t, rules.Stop, got.Findings[bare].Severity)

	must(a.AddEntry(ctx, app.NewEntry{Entry: logbook.Entry{SurfaceID: deck.ID, Kind: step.Sand, StepID: got.Steps[0].ID,
		Grit: 80, StartedAt: demo.Now.Add(-time.Hour)}}))
	view := must(a.Today(ctx, boatNamed(a, "Sounding Line").ID))
	lane := slices.IndexFunc(view.Answer.Lanes, func(l readiness.Lane) bool { return l.SurfaceID == deck.ID })
	require.GreaterOrEqual(t, lane, 0)
	assert.Equal(t, readiness.Blocked, view.Answer.Lanes[lane].Chance)
	assert.Contains(t, view.Answer.Lanes[lane].Answer.In(time.UTC), "without a primer")

	mended := got.Findings[bare].Mended
	require.NotEmpty(t, mended)
	then := must(a.PreviewBuildUp(ctx, deck.ID, mended))
	assert.Less(t, rule(then, "antifouling-on-bare-metal"), 0)
	assert.GreaterOrEqual(t, rule(then, "copper-near-aluminium"), 0)
	primer := must(a.Product(ctx, mended[1].ProductID)).Sheet
	assert.Equal(t, product.MetalPrimer, primer.Kind)
	assert.False(t, primer.Zinc, "what suits aluminium")
}
