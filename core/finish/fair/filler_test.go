package fair

import (
	"testing"

	"allcoats/core/boat/outline"
	"allcoats/core/catalog/product"
	"allcoats/core/film/sand"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// 2 L on 1.5 m² in 9 mm of a filler that shrinks by 10 %: 10 mm laid; 0.6 mm proud are 0.9 L more,
// 2.9 / 0.9 mixed. Passes of 5 mm are two, skims of 1.5 mm seven.
func TestTwoSchools(t *testing.T) {
	n := Need{FillL: 2, FillM2: 1.5, DeepestMM: 9}
	s := product.Sheet{ShrinkagePct: 10, MaxPassMM: 5, BaseKgL: 0.75, HardenerKgL: 0.75,
		RatioByVolume: product.Ratio{Base: 2, Hardener: 1}}
	heavy, skims := Schools[0].Fill(n, s, nil, Face{Access: 1}), Schools[1].Fill(n, s, nil, Face{Access: 1})
	assert.Equal(t, 2, heavy.Passes)
	assert.InDelta(t, 2.9/0.9, heavy.Litres, 1e-9)
	assert.InDelta(t, 100*0.9/2.9, heavy.LossPct, 1e-9)
	assert.InDelta(t, heavy.Litres*0.75, heavy.Kg, 1e-9)
	assert.InDelta(t, heavy.Litres/3+1.5/1.2, heavy.LayH, 1e-9)
	assert.InDelta(t, 2*sand.Hours(60, 1.5, 1, true), heavy.Hours-heavy.LayH, 1e-9)
	assert.Equal(t, 7, skims.Passes)
	assert.InDelta(t, (2+1.5*0.2)/0.9, skims.Litres, 1e-9)
	s.MaxPassMM = 0
	assert.NotEmpty(t, Schools[0].Fill(n, s, nil, Face{Access: 1}).Working.Warnings)
	// A side, and a bottom: what sags bounds the pass.
	s.MaxPassMM, s.SagUprightUm, s.SagOverheadUm = 5, 4000, 2500
	assert.Equal(t, 2, Schools[0].Fill(n, s, nil, Face{TiltDeg: 20}).Passes)
	assert.Equal(t, 3, Schools[0].Fill(n, s, nil, Face{TiltDeg: 90}).Passes)
	assert.Equal(t, 4, Schools[0].Fill(n, s, nil, Face{TiltDeg: 130}).Passes)
}

// A low of 21 mm: hard filler up to 3 mm under the surface in passes of 15, light on top; one of
// 6 mm beside it takes light alone.
func TestDeepLowsAreBuiltUpHard(t *testing.T) {
	light := product.Sheet{Name: "light", MaxPassMM: 10, BaseKgL: 0.7, HardenerKgL: 0.7,
		RatioByVolume: product.Ratio{Base: 1, Hardener: 1}}
	hard := product.Sheet{Name: "hard", MaxPassMM: 15, ShrinkagePct: 4, BaseKgL: 1.3, HardenerKgL: 1.3,
		RatioByVolume: product.Ratio{Base: 1, Hardener: 1}}
	c := newChart([]strip{{name: "deep", widthM: 0.5, spacing: 0.1, on: Track{To: outline.Point{X: 0.4}},
		depth: []float64{0, 11, 21, 2, 0}},
		{name: "shallow", widthM: 0.5, spacing: 0.1, on: Track{From: outline.Point{Y: -2},
			To: outline.Point{X: 0.4, Y: -2}}, depth: []float64{0, 6, 6, 6, 0}}}, nil)
	patches := c.patch(0.25)
	require.Len(t, patches, 2)
	n := c.Need(patches)
	assert.InDelta(t, 0.05*(34+18), n.FillL, 1e-9)
	assert.InDelta(t, 0.05*(8+18), n.DeepL, 1e-9, "what is over 3 mm in the deep low alone")
	assert.InDelta(t, 0.15, n.DeepM2, 1e-9, "the patch that is deep")
	j := Schools[0].Fill(n, light, &hard, Face{Access: 1})
	require.NotNil(t, j.Under)
	assert.InDelta(t, 1.3/0.96, j.Under.Litres, 1e-9)
	assert.Equal(t, 2, j.Under.Passes, "18 mm less 4 % in passes of 15")
	assert.InDelta(t, 1.3+0.3*0.6, j.Litres, 1e-9, "2.6 L less what is hard, and 0.6 mm proud on 0.3 m²")
	assert.Equal(t, 3, j.PassesTo(21, light, &hard))
	assert.Equal(t, 1, j.PassesTo(6, light, &hard))
	assert.Nil(t, Schools[0].Fill(Need{FillL: 1, FillM2: 1, DeepestMM: 9}, light, &hard, Face{Access: 1}).Under)
}
