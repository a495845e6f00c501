package app_test

import (
	"math"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
	"allcoats/core/finish/brightwork"
	"allcoats/core/finish/completion"
	"allcoats/core/job/logbook"
	"allcoats/core/job/task"
	"allcoats/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A bench hands over whole: steps that are begun keep what was laid, what was planned of the
// same and is not begun gives way, and what came over is known again.
func TestABenchHandsOverWhole(t *testing.T) {
	a := withDemo(t)
	words := func(b app.BuildUp) (out []string) {
		for _, k := range b.Tasks {
			out = append(out, k.Named().String())
		}
		return out
	}
	begun := surfaceNamed(a, "Reed Warbler", "Coamings")
	before := must(a.BuildUp(ctx, begun.ID))
	require.Equal(t, 3, before.Done[0])
	bright := must(app.BrightBench.Get(ctx, a, begun.ID))
	after := must(a.PlanFinish(ctx, bright.Finish))[0]
	assert.Equal(t, before.Steps[0].ID, after.Steps[0].ID, "three coats are on it: it stays the same step")
	assert.Equal(t, 3, after.Steps[0].Coats)
	coats := 0
	for _, s := range after.Steps {
		coats += s.Coats
	}
	assert.Equal(t, bright.Work.Now, coats, "with those that are on, as many as the bench plans")
	assert.Equal(t, 320, after.Steps[1].KeyGrit)

	// From bare: stripping by patches, bungs, sanding, stain, thinned coats, lines between the
	// right coats, a scuff before each.
	deck := surfaceNamed(a, "Reed Warbler", "Mizzen mast")
	w := must(app.BrightBench.Get(ctx, a, deck.ID)).Work
	w.Strip, w.Bungs, w.Stain, w.Thinned, w.Now, w.Later = "heat", 46, true, true, 6, 0
	w.Seams = &brightwork.Seam{SpacingMM: 60, LineMM: 5, LengthM: 2, WidthM: 0.3, After: 3}
	kept := must(app.BrightBench.Set(ctx, a, deck.ID, must(app.BrightBench.Get(ctx, a, deck.ID)).Version, w))
	h := kept.Handovers[0]
	b := must(a.PlanFinish(ctx, kept.Finish))[0]
	varnish := 0
	for _, name := range words(b) {
		if strings.Contains(name, "varnish") {
			varnish++
		}
	}
	assert.Equal(t, 6, varnish)
	list := strings.Join(words(b), "; ")
	for _, want := range []string{"strip ", "set 46 bungs; sand with 120; sand with 180; stain",
		"6 seam lines after coat 3"} {
		assert.Contains(t, list, want)
	}
	assert.Equal(t, 5, strings.Count(list, "key with 320"), "before each but the first on bare wood")
	at := slices.IndexFunc(b.Tasks, func(k task.Task) bool { return strings.Contains(k.What.String(), "seam lines") })
	laid := 0
	for _, k := range b.Tasks[:at] {
		if k.Films {
			laid++
		}
	}
	assert.Equal(t, 3, laid, "lines go on after the third coat")
	assert.InDelta(t, h.Sum.LeftH, b.Sum.LeftH, 0.3, "the bench's hours are the job's")
	assert.Contains(t, said(kept.Says), strconv.Itoa(int(math.Round(h.Sum.LeftH)))+" h")

	// What is stripped is not planned again.
	must(a.AddEntry(ctx, app.NewEntry{Entry: logbook.Entry{SurfaceID: deck.ID, Kind: step.Strip, StepID: b.Steps[0].ID,
		StartedAt: demo.Now.Add(-time.Hour)}}))
	assert.Empty(t, must(app.BrightBench.Get(ctx, a, deck.ID)).Handovers[0].Changes)
	b = must(a.BuildUp(ctx, deck.ID))
	assert.Equal(t, task.Done, b.Tasks[0].State)

	// What is changed in the build-up stays; the bench offers what would change.
	b.Steps[1].Hours = 99
	must(a.SetBuildUp(ctx, deck.ID, b.Surface.Version, b.Steps))
	again := must(app.BrightBench.Get(ctx, a, deck.ID)).Handovers[0]
	require.Len(t, again.Changes, 1)
	assert.Contains(t, said(again.Changes[0].Was), "99 h")

	bottom := surfaceNamed(a, "Marsh Lantern", "Bottom")
	f := must(app.AntifoulBench.Get(ctx, a, bottom.ID))
	got := must(a.PlanFinish(ctx, f.Finish))[0]
	litres, extra := 0.0, 0
	for i, s := range got.Steps {
		if s.Origin != nil && s.Films() {
			litres += got.Result.Lines[i].Litres
			assert.NotEmpty(t, s.Colour, "the colour tells the wear")
			if s.Where != nil {
				extra++
			}
		}
	}
	assert.InEpsilon(t, f.Result.Litres, litres, 2e-3)
	assert.Equal(t, 2, extra, "waterline and edges have one more")
	assert.Len(t, got.Places, 2)
	assert.Greater(t, got.Places[0].FilmUm, got.Result.FilmUm)

	// What stops a bench is not handed over, and Today does not offer the coat.
	stop := f.Work
	stop.Old = "silicone"
	stopped := must(app.AntifoulBench.Set(ctx, a, bottom.ID, f.Version, stop))
	_, err := a.PlanFinish(ctx, stopped.Finish)
	assert.ErrorContains(t, err, "it is silicone")
}

// Fittings see the coats that are planned; their holes come before them, two tightenings
// weeks after, and what is behind them is asked for.
func TestARefitIsWorkOfTheBoat(t *testing.T) {
	a := withDemo(t)
	deck := surfaceNamed(a, "Sounding Line", "Topsides port")
	w := completion.Work{Hardware: []completion.Hardware{{Name: "cleat", SurfaceID: deck.ID, Compound: "butyl",
		Through: true, Core: completion.Balsa, EndGrain: true}}, Lines: []completion.Line{}, Snags: []completion.Snag{}}
	was := must(app.RefitBench.Get(ctx, a, deck.BoatID))
	r := must(app.RefitBench.Set(ctx, a, deck.BoatID, was.Version, w))
	assert.Contains(t, r.Result.Bedding[0].Next, "drill over size")
	assert.Len(t, r.Result.Bedding[0].Advice, 3)
	b := must(a.PlanFinish(ctx, r.Finish))[0]
	work := map[string]int{}
	for i, k := range b.Tasks {
		work[k.What.String()] = i
	}
	film := slices.IndexFunc(b.Tasks, func(k task.Task) bool { return k.Films && k.N == 1 && k.Left() })
	assert.Less(t, work["drill and seal for cleat"], film)
	assert.Less(t, film, work["bed cleat in butyl tape"])
	assert.Less(t, work["tighten cleat the second time"], work["tighten cleat the third time"])
	w.Hardware[0].Sealed = true
	r = must(app.RefitBench.Preview(ctx, a, deck.BoatID, w))
	assert.Contains(t, r.Result.Bedding[0].Next, "still to go on", "coats that are planned, though none is on")

	v := must(a.YardPlan(ctx, must(a.Boat(ctx, deck.BoatID)).PlaceID))
	require.NotNil(t, v.Plan, "%v", v.Trouble)
	start := func(what string) time.Time {
		for _, it := range v.Plan.Items {
			if it.SurfaceID == deck.ID && it.What.String() == what {
				return it.Start
			}
		}
		t.Fatal(what)
		return time.Time{}
	}
	assert.GreaterOrEqual(t, start("tighten cleat the third time").Sub(start("tighten cleat the second time")),
		21*24*time.Hour)
}

// The benches follow the boat: coats of the build-up, the substrate, the shelter.
func TestUsualWorkFollowsTheBoat(t *testing.T) {
	a := withDemo(t)
	sides := must(app.BrightBench.Get(ctx, a, surfaceNamed(a, "Reed Warbler", "Topsides port").ID))
	assert.Equal(t, "epoxy", sides.Work.School, "an epoxy sealer is planned under the varnish")
	assert.Equal(t, 6, sides.Work.Now)
	tender := must(app.MetalBench.Get(ctx, a, surfaceNamed(a, "Sounding Line", "Bottom").ID))
	assert.Equal(t, 2, tender.Work.Coats, "of primer; the barrier over it is the build-up's own")
	assert.InDelta(t, 2*75, tender.Work.NominalUm, 1e-9)
	assert.Equal(t, "Bottom: 2 of 2 coats are on.", said(tender.Says))
	assert.Empty(t, tender.Result.Steps, "nothing is left of it")
	assert.Empty(t, tender.Handovers[0].Changes, "and nothing is planned again")
	blasted := tender.Work
	blasted.BlastedAt = &demo.Now
	tender = must(app.MetalBench.Preview(ctx, a, surfaceNamed(a, "Sounding Line", "Bottom").ID, blasted))
	assert.NotEmpty(t, tender.Handovers[0].Changes, "what was laid before it was blasted is off")
	deck := must(app.NonSkidBench.Get(ctx, a, surfaceNamed(a, "Sounding Line", "Deck").ID))
	assert.Empty(t, deck.Work.Deck, "nothing is traced there")
	rudder := must(app.AntifoulBench.Get(ctx, a, surfaceNamed(a, "Marsh Lantern", "Rudder").ID))
	require.Len(t, rudder.Work.Zones, 1)
	assert.Equal(t, 1, rudder.Work.Zones[0].Extra, "a rudder wears")
}

// What a bench plans anew comes before what belongs over it: primer for bare metal before barrier and antifouling.
func TestABenchKeepsTheOrderOfTheWork(t *testing.T) {
	a := withDemo(t)
	deck := surfaceNamed(a, "Sounding Line", "Deck")
	sheets := map[string]product.Sheet{}
	of := map[product.Kind]string{}
	for _, p := range must(a.Products(ctx)) {
		sheets[p.ID], of[p.Sheet.Kind] = p.Sheet, p.ID
	}
	var steps []app.Step
	for _, kind := range []product.Kind{product.Barrier, product.HardAntifoul} {
		steps = append(steps, app.Step{ProductID: of[kind], Step: step.Step{Work: step.Coat, Coats: 2,
			DFTUm: sheets[of[kind]].Film.TypicalUm, Method: "roller"}})
	}
	must(a.SetBuildUp(ctx, deck.ID, deck.Version, steps))
	bench := must(app.MetalBench.Get(ctx, a, deck.ID))
	var order []product.Kind
	for _, s := range bench.Handovers[0].Steps {
		if s.Work == step.Coat {
			order = append(order, sheets[s.ProductID].Kind)
		}
	}
	assert.Equal(t, []product.Kind{product.MetalPrimer, product.MetalPrimer, product.Barrier, product.HardAntifoul},
		order)
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
