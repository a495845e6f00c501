package app_test

import (
	"strings"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/base/fault"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
	"allcoats/core/finish/antifoul"
	"allcoats/core/finish/gelcoat"
	"allcoats/core/finish/metal"
	"allcoats/core/finish/nonskid"
	"allcoats/core/finish/refit"
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
	var bad fault.Errors
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
	require.NotNil(t, n.Planned)
	require.NotEmpty(t, n.Field.Windows)
	assert.Contains(t, said(n.Says), "may be begun")
	b := must(a.PlanFinish(ctx, f.ID, n.Finish))
	found := false
	products := map[string]product.Sheet{}
	for _, p := range must(a.Products(ctx)) {
		products[p.ID] = p.Sheet
	}
	for i, s := range b.Steps {
		if s.Work == step.Coat && products[s.ProductID].Kind == product.NonSkidPaint {
			assert.False(t, found, "one step of it")
			found = true
			assert.Equal(t, 1, s.Coats)
			assert.InEpsilon(t, n.Result.Takes.Litres, b.Result.Lines[i].Litres, 0.01)
		}
	}
	assert.True(t, found)
	_, err := a.PlanFinish(ctx, f.ID, app.Finish{})
	assert.Equal(t, "planned", faultAt(t, err))
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
	assert.Nil(t, g.Planned, "a repair is no coat")
	require.NotNil(t, c.Planned)
	assert.Equal(t, 2, c.Planned.Coats)
}

// What one surface took of a varnish is what another is reckoned with.
func TestBrightworkLearnsFromTheLog(t *testing.T) {
	a := withDemo(t)
	mast := surfaceNamed(a, "Reed Warbler", "Mizzen mast")
	b := must(app.BrightBench.Get(ctx, a, mast.ID))
	litres, m2 := 0.0, 0.0
	for _, e := range must(a.Log(ctx, mast.BoatID)) {
		if e.Kind == step.Coat && e.ProductID == b.Work.ProductID && e.Litres > 0 {
			litres += e.Litres
			for _, f := range must(a.Survey(ctx, mast.BoatID)).Surfaces {
				if f.ID == e.SurfaceID {
					m2 += f.Area.AreaM2
				}
			}
		}
	}
	require.Positive(t, litres)
	assert.InEpsilon(t, litres/m2, b.Result.LitreM2, 1e-9)
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
			assert.Contains(t, must(app.AntifoulBench.Preview(ctx, a, tender.ID, w)).Result.Stopped().String(), "copper")
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
	must(a.AddEntry(ctx, app.NewEntry{Entry: logbook.Entry{SurfaceID: f.ID, Kind: step.Wash, StartedAt: demo.Now.Add(-time.Hour), WetUm: []float64{}}}))
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
	w.Snags = append(w.Snags, refit.Snag{Text: "x", SurfaceID: surfaceNamed(a, "Reed Warbler", "Deck").ID})
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
	keel := must(a.AddSurface(ctx, f.BoatID, app.SurfaceEdit{Name: "Keel", Part: area.Keel, Side: area.Both, Description: survey.Usual(area.Keel, survey.Aluminium),
		Measured: area.Measured{Measures: []area.Measure{{Method: "stated", AreaM2: 2, UncertaintyPct: 5}}}}))
	zones := must(app.AntifoulBench.Get(ctx, a, keel.ID)).Work.Zones
	assert.Equal(t, []antifoul.Zone{{Name: "all of it", AreaM2: 2, Extra: 1}}, zones)
}

// A step that has been begun keeps its place and what was laid; one that was not is
// replaced; without one the coat comes last.
func TestAFinishFindsItsPlaceInTheBuildUp(t *testing.T) {
	a := withDemo(t)
	begun := surfaceNamed(a, "Reed Warbler", "Coamings")
	before := must(a.BuildUp(ctx, begun.ID))
	b := must(app.BrightBench.Get(ctx, a, begun.ID))
	require.NotNil(t, b.Planned)
	after := must(a.PlanFinish(ctx, begun.ID, b.Finish))
	require.Len(t, after.Steps, len(before.Steps))
	assert.Equal(t, before.Steps[0].ID, after.Steps[0].ID, "three coats are on it: it stays the same step")
	assert.Equal(t, 3, after.Done[0])
	few := b.Finish
	planned := *few.Planned
	planned.Coats = 1
	few.Planned = &planned
	assert.Equal(t, 3, must(a.PlanFinish(ctx, begun.ID, few)).Steps[0].Coats, "never fewer than are on")

	bottom := surfaceNamed(a, "Marsh Lantern", "Bottom")
	f := must(app.AntifoulBench.Get(ctx, a, bottom.ID))
	was := must(a.BuildUp(ctx, bottom.ID))
	got := must(a.PlanFinish(ctx, bottom.ID, f.Finish))
	require.Len(t, got.Steps, len(was.Steps))
	assert.Contains(t, got.Steps[1].Note, "antifouling bench", "in the place of what was not begun")
	assert.InEpsilon(t, f.Result.Litres, got.Result.Lines[1].Litres, 0.01, "with what the zones take more")

	bare := surfaceNamed(a, "Sounding Line", "Deck")
	g := must(app.GelcoatBench.Get(ctx, a, bare.ID))
	last := must(a.PlanFinish(ctx, bare.ID, g.Finish))
	require.Len(t, last.Steps, 1)
}

// The benches follow the boat: coats of the build-up, the substrate, the shelter.
func TestUsualWorkFollowsTheBoat(t *testing.T) {
	a := withDemo(t)
	sides := must(app.BrightBench.Get(ctx, a, surfaceNamed(a, "Reed Warbler", "Topsides port").ID))
	assert.Equal(t, "epoxy", sides.Work.School, "an epoxy sealer is planned under the varnish")
	assert.Equal(t, 6, sides.Work.Now)
	tender := must(app.MetalBench.Get(ctx, a, surfaceNamed(a, "Sounding Line", "Bottom").ID))
	assert.Equal(t, 4, tender.Work.Coats, "primer and barrier")
	assert.InDelta(t, 2*75+2*125, tender.Work.NominalUm, 1e-9)
	deck := must(app.NonSkidBench.Get(ctx, a, surfaceNamed(a, "Sounding Line", "Deck").ID))
	assert.Empty(t, deck.Work.Deck, "nothing is traced there")
	rudder := must(app.AntifoulBench.Get(ctx, a, surfaceNamed(a, "Marsh Lantern", "Rudder").ID))
	require.Len(t, rudder.Work.Zones, 1)
	assert.Equal(t, 1, rudder.Work.Zones[0].Extra, "a rudder wears")
}

// A field that must hold for the whole set leaves fewer starts than for one panel.
func TestTheWholeSetWantsALongerWindow(t *testing.T) {
	a := withDemo(t)
	f := surfaceNamed(a, "Marsh Lantern", "Deck")
	got := must(app.NonSkidBench.Get(ctx, a, f.ID))
	open := func(rate float64) time.Duration {
		w := got.Work
		w.RateM2H = rate
		sum := time.Duration(0)
		for _, win := range must(app.NonSkidBench.Preview(ctx, a, f.ID, w)).Field.Windows {
			sum += win.To.Sub(win.From)
		}
		return sum
	}
	fast, slow, never := open(20), open(3), open(0.1)
	assert.Greater(t, fast, slow)
	assert.Positive(t, slow)
	assert.Zero(t, never, "no stretch of weather is 130 h long")
	w := got.Work
	w.RateM2H = 0.1
	assert.Contains(t, said(must(app.NonSkidBench.Preview(ctx, a, f.ID, w)).Says), "no stretch long enough")
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
