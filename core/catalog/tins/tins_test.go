package tins

import (
	"math"
	"testing"

	"allcoats/core/catalog/product"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var sizes = product.Sheet{Tins: []product.Tin{{Name: "0.75 L", Litres: .75, PriceCents: 3490}, {Name: "2.5 L", Litres: 2.5, PriceCents: 9990}, {Name: "5 L", Litres: 5, PriceCents: 18990}}}

// Optima from integer programs solved by GLPK.
func TestCoverAgainstIntegerPrograms(t *testing.T) {
	for _, c := range []struct {
		need, leftover float64
		cost           int
	}{{2.5, 0, 9990}, {11, 0.5, 44960}} {
		p, ok := Cover(c.need, sizes, Stock{})
		require.True(t, ok)
		assert.Equal(t, c.cost, p.CostCents)
		assert.InDelta(t, c.leftover, p.LeftoverL, 1e-9)
	}
}

func TestCoverEdges(t *testing.T) {
	p, ok := Cover(0, sizes, Stock{})
	assert.True(t, ok)
	assert.Empty(t, p.Tins)
	_, ok = Cover(1, product.Sheet{}, Stock{})
	assert.False(t, ok)
	_, ok = Cover(1e6, sizes, Stock{})
	assert.False(t, ok)
	// Without prices the least volume, and said so.
	p, ok = Cover(3, product.Sheet{Tins: []product.Tin{{Name: "a", Litres: 2.5}, {Name: "b", Litres: .75, PriceCents: 5}}}, Stock{})
	assert.True(t, ok)
	assert.False(t, p.Priced)
	assert.Zero(t, p.CostCents)
	assert.InDelta(t, 3, p.Litres, 1e-9)
	// A hair over a tin needs another; what the shelf has is not bought.
	p, _ = Cover(5.0005, sizes, Stock{})
	assert.Greater(t, p.Litres, 5.0)
	p, _ = Cover(5.0005, sizes, Stock{BaseL: 0.1})
	assert.InDelta(t, 5, p.Litres, 1e-9)
	assert.InDelta(t, 0.0995, p.LeftoverL, 1e-9)
}

// Kits of 3:1, and hardener alone: with base left from a spill only the
// hardener is bought.
func TestCoverPartsAndKits(t *testing.T) {
	s := product.Sheet{RatioByVolume: product.Ratio{Base: 3, Hardener: 1}, Tins: []product.Tin{
		{Name: "kit", Litres: 4, PriceCents: 9000}, {Name: "hardener", Litres: 1, PriceCents: 2500, Part: product.HardenerPart}, {Name: "base", Litres: 3, PriceCents: 7000, Part: product.BasePart}}}
	p, ok := Cover(4, s, Stock{})
	require.True(t, ok)
	assert.Equal(t, []Bought{{"kit", 4, 1}}, p.Tins)
	p, ok = Cover(4, s, Stock{BaseL: 3})
	require.True(t, ok)
	assert.Equal(t, []Bought{{"hardener", 1, 1}}, p.Tins)
	assert.Equal(t, 2500, p.CostCents)
	assert.InDelta(t, 4, Stock{BaseL: 3, HardenerL: 2}.Mixed(0.75), 1e-12)
	assert.InDelta(t, 8, Stock{BaseL: 8}.Mixed(1), 1e-12)
}

// Buying more never costs less.
func TestCostRisesWithNeed(t *testing.T) {
	last := 0
	for need := 0.1; need < 30; need += 0.37 {
		p, ok := Cover(need, sizes, Stock{})
		require.True(t, ok)
		assert.GreaterOrEqual(t, p.CostCents, last)
		assert.GreaterOrEqual(t, p.Litres, need-1e-9)
		last = p.CostCents
	}
}

// Without a coat the forecast is the reckoning; what is bought is the quantile that the costs
// ask for.
func TestForecast(t *testing.T) {
	sd := map[string]float64{"a": 10}
	f := NewUsage(nil, sd).Forecast(map[string][]float64{"a": {2, 2}}, Costs{100, 100})
	assert.InDelta(t, 4, f.LitresL, 1e-9)
	assert.InDelta(t, 1, f.Factor, 1e-9)
	assert.InDelta(t, 4*math.Exp(1.2815515655*math.Sqrt(0.04+0.01+0.0144/2)), f.HighL, 0.05)
	assert.InDelta(t, 4, f.BuyL, 0.03, "a stop costs what a tin costs: even odds")
	assert.Zero(t, NewUsage(nil, sd).Forecast(nil, Costs{}).LitresL)
	coats, last := []Coat{}, f
	for range 6 { // each coat that takes a fifth more pulls the factor towards 1.2 and narrows the range
		coats = append(coats, Coat{"a", 2, 2.4})
		f := NewUsage(coats, sd).Forecast(map[string][]float64{"a": {2, 2}}, Costs{900, 100})
		assert.Greater(t, f.Factor, last.Factor)
		assert.Less(t, f.Factor, 1.2)
		assert.Less(t, f.HighL/f.LowL, last.HighL/last.LowL)
		assert.InDelta(t, f.HighL, f.BuyL, 1e-6, "nine to one: the 90 % quantile")
		last = f
	}
	assert.InDelta(t, 1.19, last.Factor, 0.01)
	assert.Equal(t, 6, last.Coats)
}

func TestSpareCents(t *testing.T) {
	tin := func(part string, cents int) product.Tin { return product.Tin{Part: part, PriceCents: cents, Litres: 1} }
	assert.Equal(t, 4000, SpareCents(product.Sheet{Tins: []product.Tin{tin("", 9000), tin("hardener", 1000), tin("", 0), tin("", 4000)}}))
	assert.Zero(t, SpareCents(product.Sheet{Tins: []product.Tin{tin("", 0)}}), "no price")
}
