package buildup

import (
	"math"
	"testing"

	"allcoats/core/base/fielderr"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/catalog/purchase"
	"allcoats/core/film/step"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var primer = product.Sheet{
	Name: "primer", Kind: product.HighBuild, VolumeSolidsPct: 50, Film: product.Film{MinUm: 75, TypicalUm: 100,
		MaxUm: 150},
	ThinnerMaxPct: 10, Methods: []string{"roller"}, Tins: []product.Tin{{Name: "2.5 L", Litres: 2.5, PriceCents: 8000}},
}

func coats() step.Step {
	return step.Step{Work: step.Coat, Sheet: primer, Coats: 2, DFTUm: 100, Method: "roller", LossPct: 10}
}

func TestComputeByHand(t *testing.T) {
	r, err := Compute(area.Figure{AreaM2: 20, UncertaintyPct: 15}, 1, []step.Step{coats()}, Own{})
	require.NoError(t, err)
	l := r.Lines[0]
	assert.InDelta(t, 200, l.WFTUm, 1e-9)            // 100 / 0.5
	assert.InDelta(t, 4./0.9, l.LitresPerCoat, 1e-9) // 20 m² at 5 m²/L, a tenth lost
	assert.InDelta(t, 2*4/0.9, l.Litres, 1e-9)       // 8.889 L
	assert.Equal(t, 4, l.Purchase.Tins[0].Count)     // 10 L
	assert.Equal(t, 32000, r.CostCents)
	assert.InDelta(t, 200, r.FilmUm, 1e-9)
	assert.Equal(t, 2, r.Coats)
	assert.InDelta(t, 2*(20./12+0.5), r.Hours, 1e-9, "half an hour to set up and to clear away each time")
	assert.InDelta(t, 20./12, l.LayH, 1e-9)
	// 80 % of a log-normal: person 0.2, area 0.15 / 1.28, two coats of 0.12: σ = 0.2468.
	assert.InDelta(t, 8.889*math.Exp(1.2816*0.2468), l.LitresHigh, 0.07)
	assert.InDelta(t, 8.889/math.Exp(1.2816*0.2468), l.LitresLow, 0.07)
	// Coats that took a fifth more tell it, and narrow the range.
	own := Own{purchase.NewUsage([]purchase.Coat{{Surface: "s", ReckonedL: 4, LoggedL: 4.8},
		{Surface: "s", ReckonedL: 4, LoggedL: 4.8}}, map[string]float64{"s": 10}), "s"}
	learned, err := Compute(area.Figure{AreaM2: 20, UncertaintyPct: 15}, 1, []step.Step{coats()}, own)
	require.NoError(t, err)
	assert.InDelta(t, l.Litres*own.Usage.On("s").Median, learned.Litres, 1e-9)
	assert.Greater(t, learned.Litres, 1.1*l.Litres)
	assert.Less(t, learned.Lines[0].LitresHigh-learned.Lines[0].LitresLow, l.LitresHigh-l.LitresLow)
}

// 20 m² of sanding with 180 grit at 6 m²/h, upright: 4 h; it takes 30 of 200 µm.
func TestWorkWithoutAFilm(t *testing.T) {
	r, err := Compute(area.Figure{AreaM2: 20}, 1.2, []step.Step{{Work: step.Wash}, coats(),
		{Work: step.Sand, Grit: 180, RemovedUm: 30}, {Work: step.Mask}}, Own{})
	require.NoError(t, err)
	require.Len(t, r.Lines, 4)
	assert.InDelta(t, 20./25*1.2+0.25, r.Lines[0].HoursPerCoat, 1e-9)
	assert.InDelta(t, 4+0.25, r.Lines[2].HoursPerCoat, 1e-9)
	assert.InDelta(t, 20./20+0.25+20./60, r.Lines[3].HoursPerCoat, 1e-9,
		"on and off again; masking does not mind the slope")
	assert.InDelta(t, 200, r.FilmUm, 1e-9)
	assert.InDelta(t, 170, r.NetUm, 1e-9)
	assert.InDelta(t, 1.2816*12*math.Sqrt2, r.NetHighUm-r.NetUm, 1e-9, "two coats of 100 µm ± 12")
	assert.Equal(t, 2, r.Coats)
	assert.True(t, r.Priced)
}

func TestBadSteps(t *testing.T) {
	for path, change := range map[string]func(*step.Step){
		"steps[1].coats":      func(s *step.Step) { s.Coats = 0 },
		"steps[1].dftUm":      func(s *step.Step) { s.DFTUm = -5 },
		"steps[1].lossPct":    func(s *step.Step) { s.LossPct = 100 },
		"steps[1].thinnerPct": func(s *step.Step) { s.ThinnerPct = 80 },
		"steps[1].method":     func(s *step.Step) { s.Method = "sponge" },
		"steps[1].productId":  func(s *step.Step) { s.Sheet.Kind = product.Thinner },
		"steps[1].grade":      func(s *step.Step) { s.Grade = "tropical" },
		"steps[1].work":       func(s *step.Step) { *s = step.Step{Work: "polish"} },
		"steps[1].grit":       func(s *step.Step) { *s = step.Step{Work: step.Sand, Grit: 3} },
		"steps[1].removedUm":  func(s *step.Step) { *s = step.Step{Work: step.Wash, RemovedUm: -3} },
	} {
		s := coats()
		change(&s)
		_, err := Compute(area.Figure{AreaM2: 5}, 1, []step.Step{coats(), s}, Own{})
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
}

func TestWithoutPricesTheRestStillWorks(t *testing.T) {
	s := coats()
	s.Sheet.Tins = nil
	r, err := Compute(area.Figure{AreaM2: 5}, 1, []step.Step{s}, Own{})
	require.NoError(t, err)
	assert.False(t, r.Priced)
	assert.Positive(t, r.Litres)
}

func TestLaidFilm(t *testing.T) {
	for _, c := range []struct {
		name string
		l    Laid
		want float64
		how  string
	}{
		{"comb", Laid{Sheet: primer, WetUm: []float64{180, 220}, ThinnerPct: 25, Litres: 9}, 80, ByComb},
		{"litres", Laid{Sheet: primer, Litres: 4, LossPct: 10}, 90, ByLitres}, // 4 · 0.9 · 0.5 L over 20 m²
		{"planned", Laid{Sheet: primer, StepUm: 110}, 110, AsPlanned},
		{"sheet", Laid{Sheet: primer}, 100, ByTheSheet},
	} {
		c.l.AreaM2 = 20
		got, how := c.l.FilmUm()
		assert.InDelta(t, c.want, got, 1e-9, c.name)
		assert.Equal(t, c.how, how, c.name)
	}
	// 180 and 220 µm wet are 72 and 88 µm dry: 8 · √2 apart from their mean.
	assert.InDelta(t, 8*math.Sqrt2, Laid{Sheet: primer, WetUm: []float64{180, 220}, ThinnerPct: 25}.SDUm(), 1e-9)
	assert.Zero(t, Laid{Sheet: primer, WetUm: []float64{180}}.SDUm())
}

func TestSection(t *testing.T) {
	got, _ := Section("", survey.Findings{}, []Done{{Coat: &Laid{Sheet: primer, StepUm: 90}}},
		[]step.Step{coats(), {Work: step.Coat, Sheet: primer, Coats: 1, DFTUm: 50}}, []int{1, 0})
	require.Len(t, got, 3)
	assert.True(t, got[0].Laid)
	assert.Equal(t, []float64{90, 100, 50}, []float64{got[0].Um, got[1].Um, got[2].Um})
	assert.False(t, got[1].Laid)
}

// Sanding takes the film from above, down to the old layer that must stay.
func TestSandThroughMargin(t *testing.T) {
	old := survey.Findings{Stop: 1, Layers: []survey.Layer{{Kind: survey.OldGelcoat, Colour: "white", Um: 500},
		{Kind: survey.OldTwoPart, Um: 80}}}
	coat := Done{Coat: &Laid{Sheet: primer, StepUm: 90}}
	layers, m := Section("", old, []Done{coat, {RemovedUm: 100}}, nil, nil)
	require.Len(t, layers, 2, "the coat is gone, and 10 µm of the old paint")
	assert.Equal(t, 70.0, layers[1].Um)
	assert.Equal(t, 70.0, m.AboveUm)
	assert.Contains(t, m.Text().String(), "70 µm lie above the old gelcoat white")
	_, m = Section("", old, []Done{coat, {RemovedUm: 200}}, nil, nil)
	assert.Equal(t, 30.0, m.ThroughUm)
	assert.Contains(t, m.Text().String(), "30 µm through into the old gelcoat white")
	old.Layers[1].Um = 0
	_, m = Section("", old, nil, nil, nil)
	assert.False(t, m.Known)
	assert.Contains(t, m.Text().String(), "not known")
	_, m = Section("", survey.Findings{}, []Done{coat}, nil, nil)
	assert.Contains(t, m.Text().String(), "90 µm lie above the substrate")
}

// A sanding planned between coats takes its film off what is planned before it;
// once a coat after it is on, it is past.
func TestPlannedSandings(t *testing.T) {
	plan := []step.Step{coats(), {Work: step.Sand, Grit: 180, RemovedUm: 30}, {Work: step.Coat, Sheet: primer, Coats: 1,
		DFTUm: 50}}
	got, _ := Section("", survey.Findings{}, nil, plan, []int{0, 0, 0})
	require.Len(t, got, 3)
	assert.Equal(t, []float64{100, 70, 50}, []float64{got[0].Um, got[1].Um, got[2].Um})
	coat := Done{Coat: &Laid{Sheet: primer, StepUm: 100}}
	got, _ = Section("", survey.Findings{}, []Done{coat, coat, {RemovedUm: 25}, coat}, plan, []int{2, 0, 1})
	require.Len(t, got, 3)
	assert.Equal(t, []float64{100, 75, 100}, []float64{got[0].Um, got[1].Um, got[2].Um}, "as it was done")
}

func names(c []Consumable) map[string]float64 {
	out := map[string]float64{}
	for _, x := range c {
		out[x.Name] = x.Amount
	}
	return out
}

func TestConsumables(t *testing.T) {
	mixed := primer
	mixed.RatioByVolume, mixed.BaseKgL, mixed.HardenerKgL = product.Ratio{Base: 4, Hardener: 1}, 1.4, 1
	s := coats()
	s.Sheet, s.ThinnerPct = mixed, 10
	r, err := Compute(area.Figure{AreaM2: 20}, 1, []step.Step{s, {Work: step.Sand, Grit: 180}, {Work: step.Mask}},
		Own{})
	require.NoError(t, err)
	got := names(Consumables(18, []step.Step{s, {Work: step.Sand, Grit: 180}, {Work: step.Mask}}, r))
	litres := 2 * 4 / 0.9
	assert.InDelta(t, 0.8*litres, got["primer, base"], 1e-9)
	assert.InDelta(t, 0.2*litres, got["primer, hardener"], 1e-9)
	assert.InDelta(t, 0.8*litres*1.4, got["primer, base by weight"], 1e-9)
	assert.InDelta(t, 0.1*litres, got["thinner for primer"], 1e-9)
	assert.InDelta(t, 0.1*litres, got["lost in pots, tools and drips, within the litres"], 1e-9)
	assert.InDelta(t, 18, got["masking tape"], 1e-9)
	assert.Equal(t, 20.0, got["discs, 180 grit"])
	assert.Equal(t, 2.0, got["rollers"])
	cat := mixed
	cat.RatioByVolume, cat.Doses = product.Ratio{}, []product.Dose{{TempC: 20, Pct: 2}}
	s.Sheet = cat
	r, err = Compute(area.Figure{AreaM2: 20}, 1, []step.Step{s}, Own{})
	require.NoError(t, err)
	assert.InDelta(t, litres*1.4*20, names(Consumables(18, []step.Step{s}, r))["catalyst for primer"], 1e-6,
		"2 % by weight")
}

func TestCoatsFor(t *testing.T) {
	sheet := product.Sheet{Name: "clear", HidingUm: 90, UVPerUm: 0.02}
	for _, c := range []struct {
		name string
		g    Goal
		want int
	}{
		{"film", Goal{FilmUm: 300}, 8},                   // 300 / 40
		{"hiding", Goal{Hide: true}, 3},                  // 90 / 40
		{"sun, no years", Goal{UVStopPct: 95}, 4},        // ln 20 / 0.02 = 149.8 µm
		{"five years", Goal{UVStopPct: 95, Years: 5}, 5}, // and 10 µm a year
		{"all", Goal{FilmUm: 300, Hide: true, UVStopPct: 95}, 8},
	} {
		got, err := CoatsFor(sheet, 40, c.g)
		require.NoError(t, err, c.name)
		assert.Equal(t, c.want, got.Coats, c.name)
		assert.InDelta(t, float64(c.want)*40, got.FilmUm, 1e-9)
	}
	for path, g := range map[string]Goal{"filmUm": {}, "uvStopPct": {UVStopPct: 100},
		"years": {UVStopPct: 90, Years: -1}} {
		_, err := CoatsFor(sheet, 40, g)
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
	_, err := CoatsFor(sheet, 40, Goal{FilmUm: 100, Years: 5})
	assert.ErrorContains(t, err, "what share", "years alone are not passed over")
	_, err = CoatsFor(product.Sheet{}, 40, Goal{Hide: true})
	assert.Error(t, err, "the sheet does not say what hides")
	_, err = CoatsFor(product.Sheet{}, 40, Goal{UVStopPct: 90})
	assert.Error(t, err)
	_, err = CoatsFor(sheet, 0, Goal{FilmUm: 100})
	assert.Error(t, err)
}

// A fill of 4 m² in spots of 20 m², one coat more on a waterline of 3 m²: litres, hours and
// discs are of these areas, the film is told apart.
func TestPartsOfASurface(t *testing.T) {
	spots := step.Step{Work: step.Coat, Sheet: primer, Coats: 1, DFTUm: 50, Method: "roller", LossPct: 10,
		Detail: step.Detail{Where: &step.Where{Name: "spots", SharePct: 20}}}
	line := step.Step{Work: step.Coat, Sheet: primer, Coats: 2, DFTUm: 100, Method: "roller", LossPct: 10, RemovedUm: 5,
		Detail: step.Detail{KeyGrit: 240, Where: &step.Where{Name: "waterline",
			Patches: []step.Patch{{Name: "port", AreaM2: 1}, {Name: "starboard", AreaM2: 2}}}}}
	all := []step.Step{coats(), spots, line}
	r, err := Compute(area.Figure{AreaM2: 20}, 1, all, Own{})
	require.NoError(t, err)
	assert.InDelta(t, 4./10/0.9, r.Lines[1].Litres, 1e-9, "4 m² at 10 m²/L")
	assert.InDelta(t, 2*3./5/0.9, r.Lines[2].Litres, 1e-9)
	assert.InDelta(t, 3./12+0.5+3./9, r.Lines[2].HoursPerCoat, 1e-9, "laid, set up, keyed with 240 at 9 m²/h")
	assert.InDelta(t, 200, r.FilmUm, 1e-9, "at large")
	assert.Equal(t, 5, r.Coats)
	um := func(place string) (sum float64) {
		layers, _ := Section(place, survey.Findings{}, nil, all, []int{0, 0, 0})
		for _, l := range layers {
			sum += l.Um
		}
		return sum
	}
	assert.InDelta(t, 200, um(""), 1e-9)
	assert.InDelta(t, 250, um("spots"), 1e-9)
	assert.InDelta(t, 390, um("waterline"), 1e-9, "200 and two of 100, 5 keyed off before each")
	assert.Len(t, Places(all), 2)
	for _, c := range Consumables(18, all, r) {
		if c.Name == "discs, 240 grit" {
			assert.InDelta(t, 6, c.Amount, 1e-9)
		}
	}
	bad := spots
	bad.Where = &step.Where{SharePct: 120}
	_, err = Compute(area.Figure{AreaM2: 20}, 1, []step.Step{bad}, Own{})
	var faults fielderr.Errors
	require.ErrorAs(t, err, &faults)
	assert.Equal(t, "steps[0].where.name", faults[0].Path)
	assert.Equal(t, "steps[0].where.sharePct", faults[1].Path)
}

// 46 bungs that a bench gives 5 h for take 5 h, whatever the area.
func TestHoursOfABench(t *testing.T) {
	r, err := Compute(area.Figure{AreaM2: 20}, 2,
		[]step.Step{{Work: step.Other, Detail: step.Detail{Name: "set 46 bungs", Hours: 5}}}, Own{})
	require.NoError(t, err)
	assert.InDelta(t, 5, r.Hours, 1e-9)
}
