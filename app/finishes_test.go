package app_test

import (
	"math"
	"strings"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/base/fielderr"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
	"allcoats/core/finish/antifoul"
	"allcoats/core/finish/completion"
	"allcoats/core/finish/gelcoat"
	"allcoats/core/finish/metal"
	"allcoats/core/finish/nonskid"
	"allcoats/core/geometry/polygon"
	"allcoats/core/job/logbook"
	"allcoats/demo"
	"allcoats/formats"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func said(n interface{ In(*time.Location) string }) string { return n.In(time.UTC) }

func faultAt(t *testing.T, err error) string {
	t.Helper()
	var bad fielderr.Errors
	require.ErrorAs(t, err, &bad)
	return bad[0].Path
}

// What is kept is worked out again; another's change is a conflict; bad work is not kept.
func TestAWorkbenchKeepsItsWork(t *testing.T) {
	a := withDemo(t)
	f := surfaceNamed(a, "Reed Warbler", "Deck")
	got := must(app.NonSkidBench.Get(ctx, a, f.ID))
	assert.Zero(t, got.Version)
	assert.Empty(t, got.Work.Deck)
	assert.Contains(t, said(got.Says), "Trace the deck first")
	require.Greater(t, len(got.Sketch), 2, "the map has a plan of it")

	w := got.Work
	w.Deck = []polygon.Polygon{{Outer: polygon.Ring{{X: 0, Y: 0}, {X: 4, Y: 0}, {X: 4, Y: 1}, {X: 0, Y: 1}}}}
	_, err := app.NonSkidBench.Preview(ctx, a, f.ID, w)
	require.NoError(t, err)
	assert.Zero(t, must(app.NonSkidBench.Get(ctx, a, f.ID)).Version, "a preview stores nothing")
	kept := must(app.NonSkidBench.Set(ctx, a, f.ID, 0, w))
	assert.Equal(t, 1, kept.Version)
	assert.InDelta(t, 8, kept.Result.DeckM2, 1e-6, "mirrored")
	_, err = app.NonSkidBench.Set(ctx, a, f.ID, 0, w)
	var stale app.Conflict
	require.ErrorAs(t, err, &stale)
	assert.Equal(t, 1, stale.Current.(app.NonSkid).Version)
	w.Fittings = []nonskid.Fitting{{Kind: "cleat", X: 9, LengthM: 0.2, WidthM: 0.1}}
	_, err = app.NonSkidBench.Set(ctx, a, f.ID, 1, w)
	assert.Equal(t, "fittings[0].x", faultAt(t, err))
	assert.Equal(t, 1, must(app.NonSkidBench.Get(ctx, a, f.ID)).Version)
	_, err = app.NonSkidBench.Get(ctx, a, "none")
	assert.ErrorIs(t, err, app.ErrNotFound)
}

// The litres of the layout are those of the build-up, and so of Stores.
func TestALayoutGoesIntoTheBuildUp(t *testing.T) {
	a := withDemo(t)
	f := surfaceNamed(a, "Marsh Lantern", "Deck")
	n := must(app.NonSkidBench.Get(ctx, a, f.ID))
	require.Len(t, n.Handovers, 1)
	require.NotEmpty(t, n.Field.Windows)
	assert.Contains(t, said(n.Says), "may be begun")
	b := must(a.PlanFinish(ctx, n.Finish))[0]
	found := false
	products := map[string]product.Sheet{}
	for _, p := range must(a.Products(ctx)) {
		products[p.ID] = p.Sheet
	}
	for i, s := range b.Steps {
		if s.Work == step.Coat && products[s.ProductID].Kind == product.NonSkidPaint {
			assert.False(t, found, "one step of it")
			found = true
			assert.Equal(t, 2, s.Coats, "each within the sheet's 130 µm")
			assert.InEpsilon(t, n.Result.Takes.Litres, b.Result.Lines[i].Litres, 2e-3)
			assert.InEpsilon(t, n.Result.AreaM2, b.Result.Lines[i].AreaM2, 1e-3, "on the panels, not on the whole deck")
			assert.InEpsilon(t, 10*n.Result.Takes.PerM2*products[s.ProductID].VolumeSolidsPct, 2*s.DFTUm, 1e-3,
				"the film that is laid there")
			assert.Len(t, s.Where.Patches, 10)
		}
		if s.Work == step.Mask {
			assert.InDelta(t, n.Result.Takes.TapeM, s.TapeM, 0.01)
			assert.Equal(t, step.WhileWet, s.Pull)
		}
	}
	assert.True(t, found)
	assert.Empty(t, must(app.NonSkidBench.Get(ctx, a, f.ID)).Handovers[0].Changes, "it is there, whole")
	_, err := a.PlanFinish(ctx, app.Finish{})
	assert.Equal(t, "handovers", faultAt(t, err))
}

// Templates are read back with the areas of the panels.
func TestTemplatesOfALayout(t *testing.T) {
	a := withDemo(t)
	f := surfaceNamed(a, "Marsh Lantern", "Deck")
	n := must(app.NonSkidBench.Get(ctx, a, f.ID))
	var s2 nonskid.Panel
	for _, p := range n.Result.Panels {
		if p.Name == "S2" {
			s2 = p
		}
	}
	require.Positive(t, s2.AreaM2)
	sum := func(rings []polygon.Ring) float64 { return polygon.FromRings(rings).Area() }
	svg := must(a.Template(ctx, f.ID, "svg", "S2", false))
	assert.InEpsilon(t, s2.AreaM2, sum(must(formats.ReadSVG(svg.Data, 0))), 1e-3)
	dxf := must(a.Template(ctx, f.ID, "dxf", "", false))
	assert.InEpsilon(t, n.Result.AreaM2, sum(must(formats.ReadDXF(dxf.Data, 0))), 1e-3)
	pair := must(a.Template(ctx, f.ID, "dxf", "S2", true))
	assert.InEpsilon(t, 2*s2.AreaM2, sum(must(formats.ReadDXF(pair.Data, 0))), 1e-3)
	assert.NotEmpty(t, must(a.Template(ctx, f.ID, "svg", "stencil", false)).Data)
	pdf := must(a.Template(ctx, f.ID, "pdf", "S1", false))
	assert.True(t, strings.HasPrefix(string(pdf.Data), "%PDF"))
	_, err := a.Template(ctx, f.ID, "svg", "S99", false)
	assert.Equal(t, "panel", faultAt(t, err))
}

func TestMouldedTakesTheLayout(t *testing.T) {
	a := withDemo(t)
	f := surfaceNamed(a, "Marsh Lantern", "Deck")
	m := must(app.MouldBench.Get(ctx, a, f.ID))
	assert.Len(t, m.Layout, 10)
	assert.Len(t, m.Work.Panels, 10)
	assert.NotEmpty(t, m.Result.Seams)
	assert.Contains(t, said(m.Says), "seam")
	w := m.Work
	w.Pct = 0.4
	_, err := app.MouldBench.Preview(ctx, a, f.ID, w)
	assert.Equal(t, "pct", faultAt(t, err))
}

func TestGelcoatIsDosedForTheShop(t *testing.T) {
	a := withDemo(t)
	f := surfaceNamed(a, "Marsh Lantern", "Topsides starboard")
	g := must(app.GelcoatBench.Get(ctx, a, f.ID))
	assert.Contains(t, g.Result.Match, "ochre")
	w := gelcoat.Usual(2)
	cold, warm := w, w
	cold.TempC, warm.TempC = 15, 25
	c, h := must(app.GelcoatBench.Preview(ctx, a, f.ID, cold)), must(app.GelcoatBench.Preview(ctx, a, f.ID, warm))
	assert.Greater(t, c.Result.Dose.Pct, h.Result.Dose.Pct, "more catalyst in the cold")
	var repair, passes []string
	for _, ch := range g.Handovers[0].Changes {
		repair = append(repair, said(ch.Will))
	}
	for _, ch := range c.Handovers[0].Changes {
		passes = append(passes, said(ch.Will))
	}
	assert.Contains(t, strings.Join(repair, "; "), "gouges", "a repair is of its places")
	assert.Contains(t, strings.Join(passes, "; "), "2 × ")
	assert.Contains(t, strings.Join(passes, "; "), "compound and polish")
}

// What one surface took of a varnish is what another is reckoned with.
func TestBrightworkLearnsFromTheLog(t *testing.T) {
	a := withDemo(t)
	mast := surfaceNamed(a, "Reed Warbler", "Mizzen mast")
	b := must(app.BrightBench.Get(ctx, a, mast.ID))
	var sheet product.Sheet
	for _, p := range must(a.Products(ctx)) {
		if p.ID == b.Work.ProductID {
			sheet = p.Sheet
		}
	}
	factor := 0.0
	for _, k := range must(a.Job(ctx, mast.BoatID)).Chain(mast.ID).Tasks {
		if k.ProductID == b.Work.ProductID {
			factor = k.Litres / k.ReckonedL
		}
	}
	require.Greater(t, math.Abs(factor-1), 0.001)
	assert.InEpsilon(t, factor*sheet.Film.TypicalUm/(10*sheet.VolumeSolidsPct)/0.9, b.Result.LitreM2, 1e-9,
		"as the job reckons")
	require.Len(t, b.Result.Counts, 2)
	// From each start the mast stays above the dew point for 14 h and the laying.
	require.NotEmpty(t, b.Nights)
	air := must(a.Today(ctx, mast.BoatID)).Ribbon
	for _, n := range b.Nights {
		for _, face := range air.Faces {
			if face.SurfaceID != mast.ID {
				continue
			}
			for i, h := range air.Hours {
				if !h.At.Before(n.To) && h.At.Before(n.To.Add(14*time.Hour)) {
					assert.GreaterOrEqual(t, face.SpreadK[i], -0.05, "%s after %s", h.At, n.To)
				}
			}
		}
	}
	w := b.Work
	w.AboveDewH = 48
	assert.Less(t, len(must(app.BrightBench.Preview(ctx, a, mast.ID, w)).Nights), len(b.Nights)+1)
}

func TestAntifoulingOfTheDemo(t *testing.T) {
	a := withDemo(t)
	f := surfaceNamed(a, "Marsh Lantern", "Bottom")
	got := must(app.AntifoulBench.Get(ctx, a, f.ID))
	sum := 0.0
	for _, z := range got.Result.Zones {
		sum += z.AreaM2
	}
	assert.InDelta(t, f.Area.AreaM2, sum, 0.15, "the zones are the bottom")
	require.NotNil(t, got.Result.LastTo)
	require.NotNil(t, got.Result.TieOpens)
	zero := 0.0
	w := got.Work
	w.WearUm, w.NM = &zero, 0
	_, err := app.AntifoulBench.Preview(ctx, a, f.ID, w)
	assert.Equal(t, "wearUm", faultAt(t, err))
	tender := surfaceNamed(a, "Sounding Line", "Bottom")
	al := must(app.AntifoulBench.Get(ctx, a, tender.ID))
	assert.Empty(t, al.Result.Stopped(), "a copper-free one is planned there")
	for _, p := range must(a.Products(ctx)) {
		if p.Sheet.Copper && p.Sheet.Kind == product.SoftAntifoul {
			w = al.Work
			w.ProductID = p.ID
			assert.Contains(t, must(app.AntifoulBench.Preview(ctx, a, tender.ID, w)).Result.Stopped().String(),
				"copper")
		}
	}
}

// The log washes: a wash logged after the last coat is the next coat's.
func TestMetalReadsTheLog(t *testing.T) {
	a := withDemo(t)
	f := surfaceNamed(a, "Sounding Line", "Topsides port")
	w := metal.Usual(5)
	before := must(app.MetalBench.Preview(ctx, a, f.ID, w))
	require.Len(t, before.Result.Washes, 2)
	assert.Nil(t, before.Result.Washes[1].At)
	must(a.AddEntry(ctx, app.NewEntry{Entry: logbook.Entry{SurfaceID: f.ID, Kind: step.Wash,
		StartedAt: demo.Now.Add(-time.Hour), WetUm: []float64{}}}))
	after := must(app.MetalBench.Preview(ctx, a, f.ID, w))
	require.NotNil(t, after.Result.Washes[1].At)
	blasted := surfaceNamed(a, "Sounding Line", "Topsides starboard")
	got := must(app.MetalBench.Get(ctx, a, blasted.ID))
	require.NotNil(t, got.Result.PrimeBy)
	assert.Equal(t, demo.Now.Add(6*time.Hour), *got.Result.PrimeBy, "aluminium has eight hours, two have gone")
	wood := surfaceNamed(a, "Reed Warbler", "Deck")
	_, err := app.MetalBench.Preview(ctx, a, wood.ID, w)
	assert.Contains(t, err.Error(), "no metal")
	kept := must(app.MetalBench.Get(ctx, a, wood.ID))
	assert.NotEmpty(t, kept.Trouble)
}

func TestRefitOfTheBoat(t *testing.T) {
	a := withDemo(t)
	boat := boatNamed(a, "Marsh Lantern")
	r := must(app.RefitBench.Get(ctx, a, boat.ID))
	assert.Contains(t, said(r.Says), "2 snags open")
	assert.Equal(t, 1, r.Result.Stops)
	w := r.Work
	w.Snags = append(w.Snags, completion.Snag{Text: "x", SurfaceID: surfaceNamed(a, "Reed Warbler", "Deck").ID})
	_, err := app.RefitBench.Preview(ctx, a, boat.ID, w)
	assert.Equal(t, "snags[3].surfaceId", faultAt(t, err))
	w = r.Work
	w.Snags[1].Done = true
	done := must(app.RefitBench.Set(ctx, a, boat.ID, r.Version, w))
	assert.Zero(t, done.Result.Stops)
}

// A library without the kind that is wanted says so at the product, and nothing breaks.
func TestBenchesOfAnEmptyLibrary(t *testing.T) {
	a := withDemo(t)
	f := surfaceNamed(a, "Sounding Line", "Deck")
	for _, p := range must(a.Products(ctx)) {
		if p.Sheet.Kind == product.Gelcoat {
			require.NoError(t, a.RemoveProduct(ctx, p.ID))
		}
	}
	got := must(app.GelcoatBench.Get(ctx, a, f.ID))
	require.Len(t, got.Trouble, 1)
	assert.Equal(t, "productId", got.Trouble[0].Path)
	keel := must(a.AddSurface(ctx, f.BoatID, app.SurfaceEdit{Name: "Keel", Part: area.Keel, Side: area.Both,
		Description: survey.Usual(area.Keel, survey.Aluminium),
		Measured:    area.Measured{Measures: []area.Measure{{Method: "stated", AreaM2: 2, UncertaintyPct: 5}}}}))
	zones := must(app.AntifoulBench.Get(ctx, a, keel.ID)).Work.Zones
	assert.Equal(t, []antifoul.Zone{{Name: "all of it", AreaM2: 2, Extra: 1}}, zones)
}

// A boat with her finishes goes out in a file and comes back.
func TestFinishesTravelInTheBoatFile(t *testing.T) {
	a := withDemo(t)
	boat := boatNamed(a, "Marsh Lantern")
	file := must(a.BoatFile(ctx, boat.ID))
	assert.Contains(t, string(file), `"LANTERN"`)
	deck := surfaceNamed(a, "Marsh Lantern", "Deck").ID
	want := must(app.NonSkidBench.Get(ctx, a, deck)).Result.AreaM2
	require.NoError(t, a.RemoveBoat(ctx, boat.ID))
	_, err := app.NonSkidBench.Get(ctx, a, deck)
	assert.ErrorIs(t, err, app.ErrNotFound)
	must(a.TakeBoat(ctx, file))
	assert.InDelta(t, want, must(app.NonSkidBench.Get(ctx, a, deck)).Result.AreaM2, 1e-9)
	assert.Equal(t, 1, must(app.RefitBench.Get(ctx, a, boat.ID)).Version)
}
