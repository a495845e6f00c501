package buildup

import (
	"math"
	"testing"

	"allcoats/core/area"
	"allcoats/core/fault"
	"allcoats/core/product"
	"allcoats/core/survey"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var primer = product.Sheet{
	Name: "primer", Kind: product.HighBuild, VolumeSolidsPct: 50, Film: product.Film{MinUm: 75, TypicalUm: 100, MaxUm: 150},
	ThinnerMaxPct: 10, Methods: []string{"roller"}, Tins: []product.Tin{{Name: "2.5 L", Litres: 2.5, PriceCents: 8000}},
}

func step() Step {
	return Step{Sheet: primer, Coats: 2, DFTUm: 100, Method: "roller", LossPct: 10}
}

func TestComputeByHand(t *testing.T) {
	r, err := Compute(area.Figure{AreaM2: 20, UncertaintyPct: 15}, []Step{step()})
	require.NoError(t, err)
	l := r.Lines[0]
	assert.InDelta(t, 200, l.WFTUm, 1e-9)            // 100 / 0.5
	assert.InDelta(t, 4./0.9, l.LitresPerCoat, 1e-9) // 20 m² at 5 m²/L, a tenth lost
	assert.InDelta(t, 2*4/0.9, l.Litres, 1e-9)       // 8.889 L
	assert.Equal(t, 4, l.Purchase.Tins[0].Count)     // 10 L
	assert.Equal(t, 32000, r.CostCents)
	assert.InDelta(t, 200, r.FilmUm, 1e-9)
	assert.Equal(t, 2, r.Coats)
	assert.InDelta(t, 2*20./12, r.Hours, 1e-9)
	assert.Empty(t, l.Findings)
	// 80 % of a log-normal with σ = √(15² + (100·10/4/90)²) %.
	assert.InDelta(t, 8.889*1.2173, l.LitresHigh, 0.05)
	assert.InDelta(t, l.Litres*l.Litres, l.LitresLow*l.LitresHigh, 1e-9)
}

func TestFindings(t *testing.T) {
	for want, change := range map[string]func(*Step){
		"Thinner than the sheet": func(s *Step) { s.DFTUm = 60 },
		"Thicker than the sheet": func(s *Step) { s.DFTUm = 160 },
		"More thinner":           func(s *Step) { s.ThinnerPct = 12 },
		"does not list":          func(s *Step) { s.Method = "hvlp" },
	} {
		s := step()
		change(&s)
		r, err := Compute(area.Figure{AreaM2: 5}, []Step{s})
		require.NoError(t, err)
		require.Len(t, r.Lines[0].Findings, 1, want)
		assert.Contains(t, r.Lines[0].Findings[0].Text, want)
	}
}

func TestBadSteps(t *testing.T) {
	for path, change := range map[string]func(*Step){
		"steps[1].coats":      func(s *Step) { s.Coats = 0 },
		"steps[1].dftUm":      func(s *Step) { s.DFTUm = -5 },
		"steps[1].lossPct":    func(s *Step) { s.LossPct = 100 },
		"steps[1].thinnerPct": func(s *Step) { s.ThinnerPct = 80 },
		"steps[1].method":     func(s *Step) { s.Method = "sponge" },
		"steps[1].productId":  func(s *Step) { s.Sheet.Kind = product.Thinner },
	} {
		s := step()
		change(&s)
		_, err := Compute(area.Figure{AreaM2: 5}, []Step{step(), s})
		var bad fault.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
}

func TestWithoutPricesTheRestStillWorks(t *testing.T) {
	s := step()
	s.Sheet.Tins = nil
	r, err := Compute(area.Figure{AreaM2: 5}, []Step{s})
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
		got, how := c.l.FilmUm(20)
		assert.InDelta(t, c.want, got, 1e-9, c.name)
		assert.Equal(t, c.how, how, c.name)
	}
	// 180 and 220 µm wet are 72 and 88 µm dry: 8 · √2 apart from their mean.
	assert.InDelta(t, 8*math.Sqrt2, Laid{Sheet: primer, WetUm: []float64{180, 220}, ThinnerPct: 25}.SDUm(), 1e-9)
	assert.Zero(t, Laid{Sheet: primer, WetUm: []float64{180}}.SDUm())
}

func TestSection(t *testing.T) {
	got, _ := Section(20, survey.Findings{}, []Done{{Coat: &Laid{Sheet: primer, StepUm: 90}}}, []Step{step(), {Sheet: primer, Coats: 1, DFTUm: 50}}, []int{1, 0})
	require.Len(t, got, 3)
	assert.True(t, got[0].Laid)
	assert.Equal(t, []float64{90, 100, 50}, []float64{got[0].Um, got[1].Um, got[2].Um})
	assert.False(t, got[1].Laid)
}

// Sanding takes the film from above, down to the old layer that must stay.
func TestSandThroughMargin(t *testing.T) {
	old := survey.Findings{Stop: 1, Layers: []survey.Layer{{Kind: survey.OldGelcoat, Colour: "white", Um: 500}, {Kind: survey.OldTwoPart, Um: 80}}}
	coat := Done{Coat: &Laid{Sheet: primer, StepUm: 90}}
	layers, m := Section(20, old, []Done{coat, {RemovedUm: 100}}, nil, nil)
	require.Len(t, layers, 2, "the coat is gone, and 10 µm of the old paint")
	assert.Equal(t, 70.0, layers[1].Um)
	assert.Equal(t, 70.0, m.AboveUm)
	assert.Contains(t, m.Text(), "70 µm lie above the old gelcoat white")
	_, m = Section(20, old, []Done{coat, {RemovedUm: 200}}, nil, nil)
	assert.Equal(t, 30.0, m.ThroughUm)
	assert.Contains(t, m.Text(), "30 µm through into the old gelcoat white")
	old.Layers[1].Um = 0
	_, m = Section(20, old, nil, nil, nil)
	assert.False(t, m.Known)
	assert.Contains(t, m.Text(), "not known")
	_, m = Section(20, survey.Findings{}, []Done{coat}, nil, nil)
	assert.Contains(t, m.Text(), "90 µm lie above the substrate")
}
