package app_test

import (
	"math"
	"testing"

	"allcoats/app"
	"allcoats/core/film/step"
	"allcoats/core/finish/fair"
	"allcoats/core/job/logbook"
	"allcoats/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// plate are gaps of a dimple in a flat plate: 6 mm deep, 0.4 m round.
func plate(n int) app.Readings {
	r := app.Readings{Round: 1, BattenM: 1, SpacingM: 0.1, RowsM: 0.1,
		Limits: fair.Limits{MaxFillMM: 20, StiffnessM: 5}, Class: "yard"}
	for y := range n {
		row := []*float64{}
		for x := range n {
			d := math.Hypot(float64(x-n/2), float64(y-n/2)) * 0.1
			gap := 0.0
			if d < 0.4 {
				gap = 3 * (1 + math.Cos(math.Pi*d/0.4))
			}
			row = append(row, &gap)
		}
		r.Gaps = append(r.Gaps, row)
	}
	return r
}

func surfaceNamed(a *app.App, boat, name string) app.Surface {
	for _, f := range must(a.Survey(ctx, boatNamed(a, boat).ID)).Surfaces {
		if f.Name == name {
			return f
		}
	}
	panic(name)
}

func TestGapsBecomeAPlan(t *testing.T) {
	a := withDemo(t)
	f := surfaceNamed(a, "Marsh Lantern", "Topsides port")
	v := must(a.SetFairing(ctx, f.ID, "", 0, plate(21)))
	require.NotNil(t, v.Now)
	want := 1000 * math.Pi * 0.16 * 0.006 * (0.5 - 2/(math.Pi*math.Pi))
	assert.InEpsilon(t, want, v.Now.Result.FillL, 0.03, "πa²h(½ − 2/π²)")
	assert.InDelta(t, 6, v.Now.Result.BeforeMM, 0.2)
	assert.Less(t, v.Now.Result.AfterMM, 0.2)
	assert.Empty(t, v.Now.Short)
	require.Len(t, v.Now.Curves, 3)
	require.Len(t, v.Now.Jobs, 2)

	b := must(a.PlanFairing(ctx, v.Now.ID, "skims"))
	planned := 0.0
	for i, s := range b.Steps {
		if s.Work == step.Fair {
			assert.Equal(t, v.Now.Jobs[1].Passes, s.Coats)
			planned += b.Result.Lines[i].Litres
		}
	}
	assert.InEpsilon(t, v.Now.Jobs[1].Litres, planned, 5e-3, "stores and plan count with the same litres")
	for i, s := range b.Steps {
		if s.Work == step.Fair {
			assert.InEpsilon(t, v.Now.Result.FillM2, b.Result.Lines[i].AreaM2, 1e-3,
				"on the low, not on the whole side")
			assert.InEpsilon(t, v.Now.Jobs[1].Hours, float64(s.Coats)*b.Result.Lines[i].HoursPerCoat, 0.03)
		}
	}
	again := must(a.PlanFairing(ctx, v.Now.ID, "heavy"))
	assert.Len(t, again.Steps, len(b.Steps), "the other school comes in its place")

	r := plate(21)
	r.MaxFillMM = 2
	tight := must(a.PreviewFairing(ctx, f.ID, r))
	assert.Contains(t, tight.Short.String(), "At reading 11 of row 11 another")
	r.SpacingM, r.RowsM = 0.4, 0.4
	_, err := a.PreviewFairing(ctx, f.ID, r)
	assert.Equal(t, "spacingM", path(t, err), "64 m² of readings on 13 m²")
	r = plate(21)
	r.Class = "perfect"
	_, err = a.PreviewFairing(ctx, f.ID, r)
	assert.Equal(t, "class", path(t, err))
	r = plate(5)
	r.Gaps[2] = r.Gaps[2][:3]
	_, err = a.SetFairing(ctx, f.ID, "", 0, r)
	assert.Equal(t, "gaps[2]", path(t, err))
	_, err = a.SetFairing(ctx, f.ID, v.Now.ID, 99, plate(21))
	assert.ErrorAs(t, err, &app.Conflict{})
	require.NoError(t, a.RemoveFairing(ctx, v.Now.ID))
	assert.Nil(t, must(a.Fairing(ctx, f.ID, "")).Now)
}

func TestRoundsFromTheLog(t *testing.T) {
	a := withDemo(t)
	f := surfaceNamed(a, "Sounding Line", "Topsides port")
	v := must(a.Fairing(ctx, f.ID, ""))
	require.Len(t, v.Rounds, 2)
	assert.True(t, v.Outlook.Fitted)
	left := v.Outlook.Left
	must(a.AddEntry(ctx, app.NewEntry{Entry: logbook.Entry{SurfaceID: f.ID, Kind: step.Fair, StartedAt: demo.Now,
		Hours: 3, Detail: logbook.Detail{Round: &logbook.Round{N: 3, Lows: 7}}}}))
	v = must(a.Fairing(ctx, f.ID, ""))
	assert.Less(t, v.Outlook.Left, left)
}

func TestSandingOfASurface(t *testing.T) {
	a := withDemo(t)
	f := surfaceNamed(a, "Marsh Lantern", "Topsides port")
	s := must(a.Sanding(ctx, f.ID, app.SandQuery{}))
	assert.Equal(t, 220, s.From, "before a two-part topcoat")
	assert.Equal(t, 400, s.To)
	require.NotNil(t, s.Sandable)
	assert.False(t, s.Ready, "its primer went on last evening")
	require.Len(t, s.Margins, 3)
	coarse := must(a.Sanding(ctx, f.ID, app.SandQuery{From: 40, To: 400, Wet: true}))
	assert.Greater(t, coarse.RemovedUm, s.RemovedUm)
	assert.True(t, coarse.Margins[2].Through, "from 40 on corners go through 286 µm")
	assert.Equal(t, 4*len(coarse.Steps), coarse.Water, "a bucket for 4 m², with every grit")
	_, err := a.Sanding(ctx, f.ID, app.SandQuery{From: 400, To: 80})
	assert.Equal(t, "to", path(t, err))
}
