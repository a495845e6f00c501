package mix

import (
	"testing"

	"allcoats/core/base/fielderr"
	"allcoats/core/catalog/product"
	"allcoats/core/physics/cure"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func gelcoat() product.Sheet {
	return product.Sheet{Name: "gelcoat", BaseKgL: 1.2, VolumeSolidsPct: 97, PotMassKg: 0.6,
		Doses:   []product.Dose{{TempC: 15, Pct: 2.5}, {TempC: 25, Pct: 1.5}},
		PotLife: cure.Table{{TempC: 15, Hours: 0.4}, {TempC: 25, Hours: 0.2}}}
}

// Half a litre of 1.2 kg/L at 20 °C: 600 g, 2 % of it 12 g; the pot life is the sheet's for
// that mass.
func TestCatalyseByHand(t *testing.T) {
	d, err := Catalyse(gelcoat(), 20, 0, 0.5)
	require.NoError(t, err)
	assert.InDelta(t, 2, d.Pct, 1e-12)
	assert.InDelta(t, 12, d.G, 1e-9)
	assert.InDelta(t, 12/usualCatalystKgL, d.ML, 1e-9)
	at20, _ := gelcoat().PotLife.TauH(20, cure.Maximum)
	assert.InDelta(t, at20, d.GelH, 1e-9)
	assert.Empty(t, d.Findings)
}

// More catalyst, more warmth or a larger pot never gel later.
func TestGelsSoonerWith(t *testing.T) {
	at := func(tempC, pct, litres float64) float64 {
		d, err := Catalyse(gelcoat(), tempC, pct, litres)
		require.NoError(t, err)
		return d.GelH
	}
	for _, temp := range []float64{15, 18, 21, 25} {
		assert.Less(t, at(temp, 3, 0.5), at(temp, 1.5, 0.5))
		assert.Less(t, at(temp, 2, 2), at(temp, 2, 0.5))
	}
	assert.Less(t, at(25, 1.5, 0.5), at(15, 2.5, 0.5), "at the sheet's own doses")
}

func TestCatalystBeyondLimits(t *testing.T) {
	var bad fielderr.Errors
	for _, pct := range []float64{0.5, 3.5, 12} {
		_, err := Catalyse(gelcoat(), 20, pct, 0.5)
		require.ErrorAs(t, err, &bad, "%g", pct)
		assert.Equal(t, "pct", bad[0].Path)
	}
	// A sheet that goes further is followed as far as it goes.
	hot := gelcoat()
	hot.Doses[0].Pct = 4
	d, err := Catalyse(hot, 15, 0, 0.5)
	require.NoError(t, err)
	assert.InDelta(t, 4, d.Pct, 1e-12)
	_, err = Catalyse(hot, 15, 4.5, 0.5)
	require.ErrorAs(t, err, &bad)
	out, err := Catalyse(gelcoat(), 5, 0, 0.5)
	require.NoError(t, err)
	require.NotEmpty(t, out.Findings)
	assert.True(t, out.Findings[0].Stop, "colder than the sheet doses")
	bare := gelcoat()
	bare.Doses, bare.PotLife = nil, nil
	none, err := Catalyse(bare, 20, 0, 0.5)
	require.NoError(t, err)
	assert.InDelta(t, usualPct, none.Pct, 1e-12)
	assert.Zero(t, none.GelH, "not known")
	assert.False(t, none.Findings[0].Stop)
}
