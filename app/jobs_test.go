package app_test

import (
	"testing"

	"allcoats/app"
	"allcoats/core/film/step"
	"allcoats/core/job/logbook"
	"allcoats/core/job/task"
	"allcoats/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What was laid keeps its film when its sheet and its step are edited, and when the entry is
// corrected; the next coat says what is new.
func TestAnEntryFreezesWhatItNeeds(t *testing.T) {
	a := withDemo(t)
	f := surfaceNamed(a, "Marsh Lantern", "Bottom")
	film := func() map[string]float64 {
		out := map[string]float64{}
		for _, e := range must(a.Log(ctx, f.BoatID)) {
			if e.SurfaceID == f.ID {
				out[e.ID] = e.FilmUm
			}
		}
		return out
	}
	before := film()
	plan := must(a.BuildUp(ctx, f.ID))
	p := must(a.Product(ctx, plan.Steps[0].ProductID))
	sheet := p.Sheet
	sheet.VolumeSolidsPct -= 20
	must(a.EditProduct(ctx, p.ID, p.Version, sheet))
	plan = must(a.BuildUp(ctx, f.ID))
	plan.Steps[0].LossPct += 10
	must(a.SetBuildUp(ctx, f.ID, plan.Surface.Version, plan.Steps))
	assert.Equal(t, before, film())
	for _, e := range must(a.Log(ctx, f.BoatID)) {
		if e.SurfaceID == f.ID && e.Kind == step.Coat {
			e.Note = "corrected"
			e.Edition, e.Planned = 0, nil // as a form sends it
			must(a.EditEntry(ctx, e.ID, e.Version, e.Entry))
			break
		}
	}
	assert.Equal(t, before, film(), "a correction is no new coat")

	checks := must(a.Bench(ctx, f.BoatID, app.BenchQuery{SurfaceID: f.ID})).Checks
	said := ""
	for _, c := range checks {
		if c.Key == "edition" {
			said = c.Text.String()
		}
	}
	assert.Contains(t, said, "the sheet was edited (edition 2, before 1), volume solids")
	next := logbook.Entry{SurfaceID: f.ID, Kind: step.Coat, StartedAt: demo.Now, ProductID: p.ID,
		StepID: plan.Steps[0].ID, Litres: 3}
	next.Early, next.BeyondShelf = "a test", true
	got := must(a.AddEntry(ctx, app.NewEntry{Entry: next}))
	assert.Equal(t, 2, got.Edition)
	assert.Contains(t, got.Changed.String(), "volume solids")
}

// Done in the plan is an entry of the log: the task leaves the plan, and so it does on
// every screen.
func TestDoneIsAnEntry(t *testing.T) {
	a, place, v := yardOf(t)
	boat := boatNamed(a, "Marsh Lantern")
	var own string
	for _, it := range v.Plan.Items {
		if it.BoatID == boat.ID && it.SurfaceID == "" && it.StepID != "" {
			own = it.StepID
		}
	}
	require.NotEmpty(t, own)
	before := must(a.Job(ctx, boat.ID)).Sum.LeftH
	e := logbook.Entry{BoatID: boat.ID, Kind: step.Other, StartedAt: demo.Now}
	e.OwnID = own
	must(a.AddEntry(ctx, app.NewEntry{Entry: e}))
	for _, it := range must(a.YardPlan(ctx, place)).Plan.Items {
		assert.NotEqual(t, own, it.StepID)
	}
	job := must(a.Job(ctx, boat.ID))
	assert.Less(t, job.Sum.LeftH, before)
	assert.InDelta(t, job.Sum.LeftH, must(a.Accounts(ctx, boat.ID)).LeftHours, 1e-9)
	o, rows := must(a.Overview(ctx, boat.ID)), 0.0
	for _, f := range o.Surfaces {
		rows += f.Sum.LeftH
	}
	for _, own := range o.Own {
		rows += own.LeftH
	}
	assert.InDelta(t, job.Sum.LeftH, o.Sum.LeftH, 1e-9)
	assert.InDelta(t, job.Sum.LeftH, rows, 1e-9, "its rows make it up")
	for _, k := range job.Own {
		if k.ID == own {
			assert.Equal(t, task.Done, k.State)
		}
	}
	e.OwnID = "none"
	_, err := a.AddEntry(ctx, app.NewEntry{Entry: e})
	assert.Equal(t, "ownId", path(t, err))
}
