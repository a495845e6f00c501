package mix

import (
	"testing"

	"allcoats/core/catalog/product"
	"allcoats/core/physics/cure"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// At 15 °C the sheet doses 2.5 % and is tack-free in 4 h. In 3.5 h it takes 2.5·4/3.5 = 2.86,
// told as 2.9 %; in 10 h the sheet's own dose is soon enough; in 3 h it takes 3.33 %, and 3 %
// is the most: not today.
func TestSetBeforeNight(t *testing.T) {
	s := gelcoat()
	s.TackFree = cure.Table{{TempC: 15, Hours: 4}, {TempC: 25, Hours: 2}}
	soon := ByNight(s, 15, 3.5)
	assert.InDelta(t, 2.9, soon.Pct, 1e-9)
	assert.InDelta(t, 2.5*4/2.9, soon.SetH, 1e-9)
	assert.InDelta(t, 2.5, ByNight(s, 15, 10).Pct, 1e-9)
	late := ByNight(s, 15, 3)
	assert.Zero(t, late.Pct)
	assert.InDelta(t, 2.5*4/3, late.SetH, 1e-9)
	assert.Contains(t, late.Says.String(), "Not today")
	assert.Contains(t, ByNight(s, 15, 0).Says.String(), "dark")
	assert.Contains(t, ByNight(product.Sheet{}, 15, 5).Says.String(), "no dose")
}

// 2.5 mL of 1.2 kg/L is 3 g, and 2.5 % of it 0.075 g: two drops of 0.035 g; a scale wants 1 g,
// which is in 33 mL.
func TestTooLittleToWeigh(t *testing.T) {
	d, err := Catalyse(gelcoat(), 15, 0, 0.0025)
	require.NoError(t, err)
	assert.InDelta(t, 0.075, d.G, 1e-9)
	assert.InDelta(t, 2, d.Drops, 1e-9)
	assert.InDelta(t, 1/(1200*0.025), d.LeastL, 1e-9)
	require.Len(t, d.Findings, 1)
	assert.Contains(t, d.Findings[0].Text.String(), "2 drops")
	big, err := Catalyse(gelcoat(), 15, 0, 0.5)
	require.NoError(t, err)
	assert.Zero(t, big.Drops)
	assert.Empty(t, big.Findings)
}
