package app_test

import (
	"fmt"
	"math"
	"strings"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/boat/area"
	"allcoats/core/boat/outline"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
	"allcoats/core/finish/fair"
	"allcoats/core/geometry/mesh"
	"allcoats/core/job/logbook"
	"allcoats/core/job/task"
	"allcoats/demo"
	"allcoats/instruments"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Lines walked with an edge on bare aluminium become patches: primer under, passes within the
// sheet's thickness and sag, primer over, each on the patches and nowhere else.
func TestWalkedLinesBecomePatches(t *testing.T) {
	a := withDemo(t)
	boat := boatNamed(a, "Sounding Line")
	e := app.SurfaceEdit{Name: "Wheelhouse side", Part: area.CabinSides, Side: area.Port,
		Description: survey.Usual(area.CabinSides, survey.Aluminium),
		Findings:    survey.Findings{Layers: []survey.Layer{}, Moisture: []survey.Moisture{}},
		Measured:    area.Measured{Measures: []area.Measure{{Method: area.Stated, AreaM2: 4, UncertaintyPct: 3}}}}
	f := must(a.AddSurface(ctx, boat.ID, e))
	edge := instruments.Battens{Seed: 5, EdgeM: 1, SpacingM: 0.1}
	r := app.Readings{Round: 1, BattenM: 1, SpacingM: 0.1, RowsM: 0.2, Gaps: [][]*float64{}, ErrorMM: 0.25,
		Limits: fair.Limits{MaxFillMM: 10, StiffnessM: 0.8}, Class: "show"}
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
		if s.Origin == nil || s.ProductID == "" {
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
		if k.Work == step.Fair || k.Work == step.Sand && k.Of == now.Jobs[0].Passes && k.StepID != "" &&
			k.What.String() == "key with 60" {
			hours += k.LeftH
		}
	}
	assert.InEpsilon(t, now.Jobs[0].Hours, hours, 0.05, "the plan books the hours that Fairing says")

	// A logged round does all of its passes; what is counted over the primer is filled one by one.
	log := func(e logbook.Entry) {
		e.SurfaceID = f.ID
		must(a.AddEntry(ctx, app.NewEntry{Entry: e}))
	}
	when := demo.Now
	entry := func(kind step.Work, product string, r *logbook.Round) {
		when = when.Add(time.Hour)
		log(logbook.Entry{Kind: kind, StartedAt: when.Add(-30 * time.Hour), ProductID: product, Hours: 3, Litres: 0.4,
			Detail: logbook.Detail{Round: r, Early: "the trial of a test"}})
	}
	of := map[product.Kind]string{}
	for id, sheet := range products {
		of[sheet.Kind] = id
	}
	for _, s := range b.Steps {
		if products[s.ProductID].Kind == product.MetalPrimer {
			log(logbook.Entry{Kind: step.Coat, StepID: s.ID, ProductID: s.ProductID,
				StartedAt: when.Add(-30 * time.Hour), Hours: 1})
		}
	}
	entry(step.Fair, "", &logbook.Round{N: 1, Lows: 12, Pinholes: 40})
	tookH := 0.0
	for _, k := range must(a.BuildUp(ctx, f.ID)).Tasks {
		if k.Work == step.Fair {
			assert.Equal(t, task.Done, k.State, "pass %d of %d", k.N, k.Of)
			tookH += k.TookH
		}
	}
	assert.InDelta(t, 3, tookH, 1e-9)
	v = must(a.Fairing(ctx, f.ID, now.ID))
	require.Len(t, v.Rounds, 1)
	assert.Nil(t, v.Spots, "no primer over it yet")
	_, err := a.PlanSpots(ctx, f.ID)
	assert.Equal(t, "round", path(t, err))
	entry(step.Coat, of[product.HighBuild], nil)
	v = must(a.Fairing(ctx, f.ID, now.ID))
	require.NotNil(t, v.Spots)
	assert.Contains(t, v.Spots.Says.String(), "mist a guide coat on")
	entry(step.Inspect, "", &logbook.Round{N: 2, Pinholes: 60, By: "guide coat"})
	v = must(a.Fairing(ctx, f.ID, now.ID))
	assert.Len(t, v.Rounds, 1, "a look over the primer is no round of lows")
	assert.Contains(t, v.Spots.Says.String(), "Fill 60 pinholes one by one, about 0.5 h")
	b = must(a.PlanSpots(ctx, f.ID))
	spots := 0
	for _, s := range b.Steps {
		if s.Where != nil && s.Where.Name == "pinholes of look 2" {
			spots++
			assert.InDelta(t, 0.024, s.Where.AreaM2(4), 1e-6, "4 cm² each")
		}
	}
	assert.Equal(t, 3, spots, "fill, prime, look again")
	entry(step.Inspect, "", &logbook.Round{N: 3, Pinholes: 60, Verdict: logbook.FairEnough})
	assert.Contains(t, must(a.Fairing(ctx, f.ID, now.ID)).Spots.Says.String(), "stop, and go on")

	// A patch at 1:1: its depths, on pages.
	paper := must(a.PatchTemplate(ctx, now.ID, now.Patches[0].Name, "svg"))
	assert.Contains(t, string(paper.Data), "mm</text>")
	_, err = a.PatchTemplate(ctx, now.ID, "elsewhere", "pdf")
	assert.Equal(t, "patch", path(t, err))

	// Marked on the map, with a chine drawn across her, nothing is filled over the chine.
	before := must(a.PreviewFairing(ctx, f.ID, r)).Result.FillL
	side := outline.PortSide
	r.Lines[0].On = &fair.Track{View: side, From: outline.Point{X: 2, Y: 1}, To: outline.Point{X: 5, Y: 1}}
	r.Lows = []fair.Low{{View: side, By: "hand", DepthMM: 4, Points: []outline.Point{{X: 3, Y: 2}, {X: 3.3, Y: 2},
		{X: 3.3, Y: 2.3}}}}
	placed := must(a.PreviewFairing(ctx, f.ID, r))
	assert.InDelta(t, before+0.045*4/2, placed.Result.FillL, 1e-6)
	assert.NotEmpty(t, placed.Contours)
	r.Lows, r.Lines[0].On = nil, nil

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
	_, err = a.PreviewFairing(ctx, f.ID, r)
	assert.Equal(t, "lines", path(t, err), "more than the side has")
	r.Lines[0].WidthM, r.BattenM = 0.2, 0.05
	_, err = a.PreviewFairing(ctx, f.ID, r)
	assert.Equal(t, "battenM", path(t, err))
}

// A scan of a curved side with a dent of 6 mm on starboard: the dent is where it is on the map, the
// curve of the side is no filler, and port has none.
func TestAScanAgainstItsFairFace(t *testing.T) {
	a := withDemo(t)
	s := surveyed(t, a, 0)
	var stl strings.Builder
	stl.WriteString("solid side\n")
	at := func(side float64, i, k int) [3]float64 {
		x, z := 0.05*float64(i), 0.05*float64(k)
		y := 1.3*(1-math.Pow((x-5)/6, 2)) + 0.1*z
		if r := math.Hypot(x-6, z-0.6); side < 0 && r < 0.25 {
			y -= 0.006 * (1 - r/0.25)
		}
		return [3]float64{x, side * y, z}
	}
	for _, side := range []float64{1, -1} {
		for i := range 200 {
			for k := range 24 {
				p, q, r, u := at(side, i, k), at(side, i+1, k), at(side, i+1, k+1), at(side, i, k+1)
				for _, c := range [][3][3]float64{{p, q, r}, {p, r, u}} {
					stl.WriteString("facet normal 0 0 0\nouter loop\n")
					for _, v := range c {
						fmt.Fprintf(&stl, "vertex %.6f %.6f %.6f\n", v[0], v[1], v[2])
					}
					stl.WriteString("endloop\nendfacet\n")
				}
			}
		}
	}
	stl.WriteString("endsolid\n")
	placed := app.ModelEdit{Name: "scan", Sure: true, Placing: mesh.Placing{Unit: "m", Forward: "+x", Up: "+z",
		BootTopM: 0.1}}
	m, err := a.AddModel(ctx, s.Boat.ID, "stl", placed, []byte(stl.String()))
	require.NoError(t, err)
	deepest := func(name string) (mm float64, where outline.Point) {
		f := surfaceNamed(a, s.Boat.Name, name)
		got := must(a.ScanModel(ctx, f.ID, m.ID, 1))
		r := app.Readings{Round: 1, BattenM: 1, SpacingM: got.SpacingM, RowsM: got.RowsM, Gaps: got.Gaps, On: &got.On,
			ErrorMM: 0.5, Limits: fair.Limits{MaxFillMM: 12, StiffnessM: 0.6}, Class: "show"}
		v := must(a.PreviewFairing(ctx, f.ID, r))
		for _, p := range v.Patches {
			if p.DeepestMM > mm {
				mm, where = p.DeepestMM, outline.Point{X: (p.Min.X + p.Max.X) / 2, Y: (p.Min.Y + p.Max.Y) / 2}
			}
		}
		return mm, where
	}
	mm, where := deepest("Topsides starboard")
	assert.InDelta(t, 5, mm, 1, "its point lies between readings")
	assert.InDelta(t, 6, where.X, 0.15)
	assert.InDelta(t, 0.6, where.Y, 0.15)
	fairMM, _ := deepest("Topsides port")
	assert.Less(t, fairMM, 1.0)
	_, err = a.ScanModel(ctx, surfaceNamed(a, s.Boat.Name, "Bottom").ID, m.ID, 1)
	assert.Equal(t, "modelId", path(t, err), "the scan has no bottom")
}
