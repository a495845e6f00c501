package app_test

import (
	"testing"

	"allcoats/app"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
	"allcoats/core/finish/fair"
	"allcoats/instruments"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Lines walked with an edge on bare aluminium become patches: primer under, passes within the
// sheet's thickness and sag, primer over, each on the patches and nowhere else.
func TestWalkedLinesBecomePatches(t *testing.T) {
	a := withDemo(t)
	boat := boatNamed(a, "Sounding Line")
	e := app.SurfaceEdit{Name: "Wheelhouse side", Part: area.CabinSides, Side: area.Port, Description: survey.Usual(area.CabinSides, survey.Aluminium),
		Findings: survey.Findings{Layers: []survey.Layer{}, Moisture: []survey.Moisture{}}, Measured: area.Measured{Measures: []area.Measure{{Method: area.Stated, AreaM2: 4, UncertaintyPct: 3}}}}
	f := must(a.AddSurface(ctx, boat.ID, e))
	edge := instruments.Battens{Seed: 5, EdgeM: 1, SpacingM: 0.1}
	r := app.Readings{Round: 1, BattenM: 1, SpacingM: 0.1, RowsM: 0.2, Gaps: [][]*float64{}, ErrorMM: 0.25, Limits: fair.Limits{MaxFillMM: 10, StiffnessM: 0.8}, Class: "show"}
	for _, up := range []float64{0.2, 0.4} {
		r.Lines = append(r.Lines, edge.Line("", up, 0.2, 3))
	}
	v := must(a.SetFairing(ctx, f.ID, "", 0, r))
	now := v.Now
	require.NotEmpty(t, now.Patches)
	sum := 0.0
	for _, p := range now.Patches {
		sum += p.Litres
	}
	assert.InDelta(t, sum, now.Result.FillL, 1e-9)
	assert.Greater(t, now.Result.BeforeMM, now.Result.TargetMM)
	assert.LessOrEqual(t, now.Result.AfterMM, now.Result.TargetMM+1e-6)
	assert.Zero(t, now.Result.HighL, "laid half over: nothing unknown")
	require.NotNil(t, now.Jobs[0].Ready)
	assert.True(t, now.Jobs[1].Ready == nil || now.Jobs[1].Ready.After(*now.Jobs[0].Ready), "more passes, more waits")

	b := must(a.PlanFairing(ctx, now.ID, "heavy"))
	kinds := []product.Kind{}
	products := map[string]product.Sheet{}
	for _, p := range must(a.Products(ctx)) {
		products[p.ID] = p.Sheet
	}
	for _, s := range b.Steps {
		if s.Origin == nil || s.Work == step.Sand {
			continue
		}
		kinds = append(kinds, products[s.ProductID].Kind)
		require.NotNil(t, s.Where)
		assert.Len(t, s.Where.Patches, len(now.Patches))
	}
	assert.Equal(t, []product.Kind{product.MetalPrimer, product.Fairing, product.HighBuild}, kinds)
	for _, x := range b.Findings {
		assert.NotContains(t, x.Text, "bare", x.Text)
	}
	hours := 0.0
	for _, k := range b.Tasks {
		if k.Work == step.Fair || k.ProductID == now.ProductID {
			hours += k.LeftH
		}
	}
	assert.InEpsilon(t, now.Jobs[0].Hours, hours, 0.05, "the plan books the hours that Fairing says")

	// End to end the joints' tilt is not known, and said.
	for k := range r.Lines {
		var apart []fair.Placement
		for i, p := range r.Lines[k].Placements {
			if i%2 == 0 {
				apart = append(apart, p)
			}
		}
		r.Lines[k].Placements = apart
	}
	ends := must(a.PreviewFairing(ctx, f.ID, r))
	assert.Greater(t, ends.Result.HighL, ends.Result.LowL)
	require.NotEmpty(t, ends.Notes)
	assert.Contains(t, ends.Notes[0].String(), "overlapping by half")
	r.Lines[0].WidthM = 3
	_, err := a.PreviewFairing(ctx, f.ID, r)
	assert.Equal(t, "lines", path(t, err), "more than the side has")
	r.Lines[0].WidthM, r.BattenM = 0.2, 0.05
	_, err = a.PreviewFairing(ctx, f.ID, r)
	assert.Equal(t, "battenM", path(t, err))
}
