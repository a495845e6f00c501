package app_test

import (
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/boat/survey"
	"allcoats/core/conditions/readiness"
	"allcoats/core/film/step"
	"allcoats/core/job/logbook"
	"allcoats/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What the log does not tell of comes first: on Today and at the bench.
func TestACoatWaitsForWhatComesBeforeIt(t *testing.T) {
	a := withDemo(t)
	f := surfaceNamed(a, "Sounding Line", "Deck") // bare, nothing planned
	boat := f.BoatID
	primer := must(a.BuildUp(ctx, surfaceNamed(a, "Sounding Line", "Topsides port").ID)).Steps[0]
	primer.ID = ""
	steps := []app.Step{{Step: step.Step{Work: step.Wash}}, {Step: step.Step{Work: step.Sand, Grit: 80}},
		{Step: step.Step{Work: step.Wash}}, primer}
	must(a.SetBuildUp(ctx, f.ID, f.Version, steps))
	lane := func() readiness.Lane {
		for _, l := range must(a.Today(ctx, boat)).Answer.Lanes {
			if l.SurfaceID == f.ID {
				return l
			}
		}
		t.Fatal("no lane")
		return readiness.Lane{}
	}
	told := func(kind step.Work, grit int, before time.Duration) {
		must(a.AddEntry(ctx, app.NewEntry{Entry: logbook.Entry{SurfaceID: f.ID, Kind: kind,
			StartedAt: demo.Now.Add(-before), Grit: grit}}))
	}
	assert.Regexp(t,
		`^Deck: wash \([\d.]+ h\), sand with 80 \([\d.]+ h\), wash \([\d.]+ h\) first; metal primer not before [\w ,]+ \d\d:\d\d\.$`, lane().Answer.In(time.UTC))
	bench := must(a.Bench(ctx, boat, app.BenchQuery{SurfaceID: f.ID}))
	assert.Contains(t, bench.Says.In(time.UTC),
		"Not now: not logged since the last coat: wash, sand with 80, wash. When it may: mix ")
	assert.Equal(t, "first", bench.Checks[0].Key)
	told("wash", 0, 5*time.Hour)
	told("sand", 80, 4*time.Hour)
	assert.Regexp(t, `^Deck: wash \([\d.]+ h\) first; metal primer not before`, lane().Answer.In(time.UTC))
	told("wash", 0, 3*time.Hour)
	assert.NotEqual(t, readiness.Unprepared, lane().Chance)
}

// One coat more than planned is a fact of the log, and no screen falls silent over it.
func TestOneCoatMoreThanPlanned(t *testing.T) {
	a := withDemo(t)
	f := surfaceNamed(a, "Sounding Line", "Bottom")
	plan := must(a.BuildUp(ctx, f.ID))
	require.Equal(t, 2, plan.Steps[0].Coats)
	require.Equal(t, 2, plan.Done[0])
	edit := logbook.Entry{SurfaceID: f.ID, Kind: step.Coat, StartedAt: demo.Now.Add(-time.Hour),
		ProductID: plan.Steps[0].ProductID, StepID: plan.Steps[0].ID, WetUm: []float64{140}}
	edit.Detail.Early = "a test"
	must(a.AddEntry(ctx, app.NewEntry{Entry: edit}))
	plan = must(a.BuildUp(ctx, f.ID))
	assert.Equal(t, 3, plan.Done[0])
	must(a.Stores(ctx, ""))
	must(a.Overview(ctx, f.BoatID))
	must(a.Today(ctx, f.BoatID))
	must(a.YardPlan(ctx, must(a.Boat(ctx, f.BoatID)).PlaceID))
	// Another change to the steps is taken; fewer coats than that are not.
	plan.Steps[0].Note = "one more went on"
	plan = must(a.SetBuildUp(ctx, f.ID, surfaceNamed(a, "Sounding Line", "Bottom").Version, plan.Steps))
	plan.Steps[0].Coats = 1
	_, err := a.SetBuildUp(ctx, f.ID, surfaceNamed(a, "Sounding Line", "Bottom").Version, plan.Steps)
	assert.Equal(t, "steps[0].coats", path(t, err))
}

// The paper never meets antifouling dry: the last coat's, or an old layer's.
func TestAntifoulingIsSandedWet(t *testing.T) {
	a := withDemo(t)
	f := surfaceNamed(a, "Marsh Lantern", "Deck")
	e := f.SurfaceEdit
	e.Findings.Layers = []survey.Layer{{Kind: survey.OldAntifouling, Um: 200, Soundness: survey.Sound}}
	must(a.EditSurface(ctx, f.ID, f.Version, e))
	s := must(a.Sanding(ctx, f.ID, app.SandQuery{Wet: false}))
	assert.True(t, s.Wet && s.WetOnly)
	assert.Contains(t, s.Dust, "never dry-sanded")
	assert.NotContains(t, s.Notes[0], "Dry:")
	assert.Positive(t, s.Water)
}
