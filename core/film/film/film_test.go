package film

import (
	"math"
	"math/rand/v2"
	"testing"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/fielderr/bounds"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestComputeByHand(t *testing.T) {
	// 30 m² at 80 µm from 40 % solids: 5 m²/L, 6 L; a fifth lost, 7.5 L; 0.1 L/m²
	// of profile 3 L; two coats of three batches leaving 0.05 L each, 0.3 L.
	r, err := Compute(Request{VolumeSolidsPct: 40, DFTUm: 80, ThinnerPct: 10, AreaM2: 30, Coats: 2, LossPct: 20,
		DeadLM2: 0.1, ResidueL: 0.05, Batches: 3})
	require.NoError(t, err)
	assert.InDelta(t, 220, r.WFTUm, 1e-9)
	assert.InDelta(t, 5, r.SpreadingRateM2L, 1e-9)
	assert.InDelta(t, 4, r.PracticalRateM2L, 1e-9)
	assert.InDelta(t, 12, r.TheoreticalL, 1e-9)
	assert.InDelta(t, 15+3+0.3, r.PracticalL, 1e-9)
	assert.InDelta(t, 1.83, r.ThinnerL, 1e-9)
	assert.InDelta(t, 4.8, r.DryVolumeOnSurfaceL, 1e-9)
	assert.Equal(t, r.PracticalL, r.Working.Steps[len(r.Working.Steps)-3].Value, "the working ends in what is said")
}

func TestMoreFilmIsNeverFewerLitres(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	for range 500 {
		a, vs, loss, dft := 1+50*r.Float64(), 20+80*r.Float64(), 50*r.Float64(), 20+200*r.Float64()
		more := dft * (1 + r.Float64())
		assert.GreaterOrEqual(t, Litres(a, more, vs, loss), Litres(a, dft, vs, loss))
		assert.GreaterOrEqual(t, Litres(a, dft, vs, loss*1.1), Litres(a, dft, vs, loss))
		// What is laid wet dries to what was wanted.
		thin := 20 * r.Float64()
		assert.InDelta(t, dft, Dry(Wet(dft, vs, thin), vs, thin), 1e-9)
		// Two halves take what the whole takes.
		assert.InDelta(t, Litres(a, dft, vs, loss), 2*Litres(a/2, dft, vs, loss), 1e-9)
	}
}

func TestBadFields(t *testing.T) {
	good := Request{VolumeSolidsPct: 50, DFTUm: 100, AreaM2: 10}
	for path, change := range map[string]func(*Request){
		"volumeSolidsPct": func(r *Request) { r.VolumeSolidsPct = 0 },
		"dftUm":           func(r *Request) { r.DFTUm = -3 },
		"thinnerPct":      func(r *Request) { r.ThinnerPct = -1 },
		"areaM2":          func(r *Request) { r.AreaM2 = math.Inf(1) },
		"coats":           func(r *Request) { r.Coats = -1 },
		"lossPct":         func(r *Request) { r.LossPct = 95 },
		"deadLM2":         func(r *Request) { r.DeadLM2 = math.NaN() },
		"residueL":        func(r *Request) { r.ResidueL = -1 },
		"batches":         func(r *Request) { r.Batches = -1 },
	} {
		r := good
		change(&r)
		_, err := Compute(r)
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
}

func TestBounds(t *testing.T) {
	check := func(r Request) error { _, err := Compute(r); return err }
	r := Request{VolumeSolidsPct: 50, DFTUm: 100, AreaM2: 10}
	bounds.Try(t, r, check, map[string]bounds.Bound{
		"dftUm": bounds.Above(0, 50000), "thinnerPct": bounds.From(0, 100), "areaM2": bounds.From(0, 100000),
		"coats": bounds.From(0, 100), "lossPct": bounds.From(0, 90), "deadLM2": bounds.From(0, 10),
		"residueL": bounds.From(0, 100), "batches": bounds.From(0, 1000), "volumeSolidsPct": bounds.Above(1, 100),
	})
	r.DFTUm, r.WFTUm = 0, 100
	bounds.Try(t, r, check, map[string]bounds.Bound{"wftUm": bounds.From(0, 100000)})
}

// 100 m² laid in each way, as yards reckon: the litres lost of a hundred, and the hours.
func TestWhatAMethodTakes(t *testing.T) {
	for key, want := range map[string]struct{ loss, least, most, hours float64 }{
		"brush": {10, 5, 15, 20}, "roller": {10, 5, 15, 8.33}, "roll-and-tip": {12, 5, 15, 11.11},
		"blade": {15, 10, 25, 33.33}, "airless": {25, 20, 30, 2.5}, "hvlp": {42, 35, 50, 5.56}, "spray": {50, 40, 60, 4},
	} {
		m, ok := MethodByKey(key)
		require.True(t, ok, key)
		assert.Equal(t, []float64{want.loss, want.least, want.most}, []float64{m.LossPct, m.LossMinPct, m.LossMaxPct}, key)
		assert.InDelta(t, want.hours, 100/m.RateM2H, 0.005, key)
		assert.Equal(t, want.loss >= 25, m.Spray, "%s: only what is sprayed loses a quarter", key)
	}
}

func TestMethods(t *testing.T) {
	for _, m := range Methods {
		assert.True(t, m.LossMinPct <= m.LossPct && m.LossPct <= m.LossMaxPct, m.Key)
		assert.Positive(t, m.RateM2H, m.Key)
		got, ok := MethodByKey(m.Key)
		assert.True(t, ok)
		assert.Equal(t, m, got)
	}
	_, ok := MethodByKey("mop")
	assert.False(t, ok)
}

// What reads as a share where per cent is asked for is refused where it can be nothing else,
// and asked about where it could.
func TestSharesForPerCent(t *testing.T) {
	_, err := Compute(Request{VolumeSolidsPct: 0.5, DFTUm: 100})
	assert.ErrorContains(t, err, "In per cent that is 50")
	r, err := Compute(Request{VolumeSolidsPct: 50, DFTUm: 100, LossPct: 0.3, ThinnerPct: 0.05})
	require.NoError(t, err)
	require.Len(t, r.Working.Warnings, 2)
	assert.Contains(t, r.Working.Warnings[1].String(), "Is 30 meant?")
	r, err = Compute(Request{VolumeSolidsPct: 50, DFTUm: 100, LossPct: 1})
	require.NoError(t, err)
	assert.Empty(t, r.Working.Warnings)
}
