package sand

import (
	"testing"

	"allcoats/core/catalog/product"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMedianGrain(t *testing.T) {
	for grit, um := range map[int]float64{40: 425, 80: 201, 240: 58.5, 2000: 10.3, 20: 850, 4000: 5.15} {
		assert.InDelta(t, um, Median(grit), 1e-9)
	}
	assert.InDelta(t, 170, Median(95), 5)
	// FEPA 43-1: the median of macrogrits to P220, of microgrits beyond.
	fepa := map[int]float64{40: 425, 60: 269, 80: 201, 100: 162, 120: 125, 150: 100, 180: 82, 220: 68, 240: 58.5,
		280: 52.2, 320: 46.2, 360: 40.5, 400: 35, 500: 30.2, 600: 25.8, 800: 21.8, 1000: 18.3, 1200: 15.3,
		1500: 12.6, 2000: 10.3}
	for grit, um := range fepa {
		assert.InDelta(t, um, Median(grit), 1e-9, grit)
	}
	assert.Len(t, grades, len(fepa))
}

// No step of a ladder is more than 1.6 times finer, where the grades allow it, and no
// rung can be left out.
func TestLadders(t *testing.T) {
	assert.Equal(t, []int{80, 120, 180, 240}, Ladder(80, 240))
	assert.Equal(t, []int{120}, Ladder(120, 120))
	for _, c := range [][2]int{{40, 320}, {60, 180}, {80, 400}, {220, 2000}, {100, 1000}} {
		l := Ladder(c[0], c[1])
		assert.Equal(t, c[0], l[0])
		assert.Equal(t, c[1], l[len(l)-1])
		for i := 1; i < len(l); i++ {
			assert.LessOrEqual(t, Median(l[i-1])/Median(l[i]), MostStep+0.02, "%v", l)
			if i > 1 {
				assert.Greater(t, Median(l[i-2])/Median(l[i]), MostStep+0.02, "%v: %d could be left out", l, l[i-1])
			}
		}
	}
}

// From 120 to 180: a quarter of 125 µm twice, for its own cut and for the scratches of
// 120 that 180 takes away: 62.5 µm; edges lose twice that.
func TestFilmAgainstFilm(t *testing.T) {
	p, err := Make(Request{From: 120, To: 180, AreaM2: 6, Access: 1.5, FilmUm: 150, FilmKnown: true,
		Next: product.TopcoatTwo})
	require.NoError(t, err)
	assert.InDelta(t, 62.5, p.RemovedUm, 1e-9)
	assert.InDelta(t, 2*6.0/6*1.5, p.Hours, 1e-9)
	assert.Equal(t, 5, p.Steps[0].Discs)
	require.Len(t, p.Margins, 3)
	assert.InDelta(t, 150-62.5-1.2816*0.3*62.5, p.Margins[0].LeftUm, 1e-6)
	assert.False(t, p.Margins[0].Through)
	assert.True(t, p.Margins[1].Through, "150 − 125 less the spread")
	assert.True(t, p.Margins[2].Through)
	assert.InDelta(t, 150-2*62.5-1.2816*0.3*2*62.5, p.Margins[1].LeftUm, 1e-6)
	assert.InDelta(t, 150-3*62.5-1.2816*0.3*3*62.5, p.Margins[2].LeftUm, 1e-6)
	assert.Contains(t, p.Dust, "P3")
	finer, err := Make(Request{From: 121, To: 180, AreaM2: 6, Next: product.TopcoatTwo})
	require.NoError(t, err)
	assert.Contains(t, finer.Dust, "P2", "finer than 120 it is paint")
	under, err := Make(Request{From: 180, To: 240, AreaM2: 6, Next: product.Fairing})
	require.NoError(t, err)
	assert.Contains(t, under.Dust, "P3", "filler")

	wet, err := Make(Request{From: 320, To: 1000, AreaM2: 0.3, Wet: true, Antifoul: true})
	require.NoError(t, err)
	assert.Equal(t, len(wet.Steps), wet.Water, "fresh water with each grit")
	// 9 m² wet: 1.4 times as long, three buckets a grit, fewer sheets.
	dry, err := Make(Request{From: 120, To: 180, AreaM2: 9})
	require.NoError(t, err)
	soaked, err := Make(Request{From: 120, To: 180, AreaM2: 9, Wet: true})
	require.NoError(t, err)
	assert.InDelta(t, 1.4*dry.Hours, soaked.Hours, 1e-9)
	assert.Equal(t, 3*len(soaked.Steps), soaked.Water)
	assert.Equal(t, 8, dry.Steps[0].Discs)    // 9 / 1.2
	assert.Equal(t, 5, soaked.Steps[0].Discs) // 9 / 1.92
	assert.Zero(t, dry.Water)
	assert.Equal(t, "hand", wet.Tool.Key)
	assert.Contains(t, wet.Dust, "never dry-sanded")
	assert.Empty(t, wet.Margins, "the film is not known")
	board, err := Make(Request{From: 80, To: 120, AreaM2: 9, Filler: true})
	require.NoError(t, err)
	assert.Equal(t, "board", board.Tool.Key)

	for path, r := range map[string]Request{"from": {From: 3, To: 80, AreaM2: 1}, "to": {From: 240, To: 80, AreaM2: 1},
		"areaM2": {From: 80, To: 120}} {
		_, err := Make(r)
		assert.ErrorContains(t, err, path)
	}
}
