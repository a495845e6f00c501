package purchase

import (
	"math"
	"math/rand/v2"
	"testing"

	"allcoats/core/catalog/product"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var sizes = product.Sheet{Tins: []product.Tin{{Name: "0.75 L", Litres: .75, PriceCents: 3490},
	{Name: "2.5 L", Litres: 2.5, PriceCents: 9990}, {Name: "5 L", Litres: 5, PriceCents: 18990}}}

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
	p, ok = Cover(3, product.Sheet{Tins: []product.Tin{{Name: "a", Litres: 2.5},
		{Name: "b", Litres: .75, PriceCents: 5}}}, Stock{})
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
		{Name: "kit", Litres: 4, PriceCents: 9000}, {Name: "hardener", Litres: 1, PriceCents: 2500,
			Part: product.HardenerPart}, {Name: "base", Litres: 3, PriceCents: 7000, Part: product.BasePart}}}
	p, ok := Cover(4, s, Stock{})
	require.True(t, ok)
	assert.Equal(t, []Bought{{Name: "kit", Litres: 4, Count: 1, PriceCents: 9000}}, p.Tins)
	p, ok = Cover(4, s, Stock{BaseL: 3})
	require.True(t, ok)
	assert.Equal(t, []Bought{{Name: "hardener", Litres: 1, Count: 1, PriceCents: 2500}}, p.Tins)
	assert.Zero(t, p.OddL)
	// Base left from a spill that a kit does not use up is named.
	spilt, ok := Cover(8, s, Stock{BaseL: 4.5, HardenerL: 1})
	require.True(t, ok)
	assert.Equal(t, product.BasePart, spilt.OddPart)
	assert.InDelta(t, 1.5, spilt.OddL, 1e-9)
	assert.Equal(t, 2500, p.CostCents)
	// What stays in a can is named from 0.05 L on.
	for litres, part := range map[float64]string{3.045: "", 3.055: product.BasePart} {
		p, _ = Cover(4, s, Stock{BaseL: litres})
		assert.Equal(t, part, p.OddPart, "%g L of base", litres)
	}
	assert.InDelta(t, 4, Stock{BaseL: 3, HardenerL: 2}.Mixed(0.75), 1e-12)
	assert.InDelta(t, 8, Stock{BaseL: 8}.Mixed(1), 1e-12)
}

// Of purchases with as many tins of as many sizes at one price the one with the least left, base and
// hardener together: of 700 + 300 and 900 + 50 mL the second, though less of the first is base.
func TestOfEquallyHandyPurchasesTheOneWithTheLeastLeft(t *testing.T) {
	r := PackRequest{NeedBaseML: 500, NeedHardenerML: 50, Items: []Item{{BaseML: 700, HardenerML: 300, PriceCents: 1000},
		{BaseML: 900, HardenerML: 50, PriceCents: 1000}}}
	assert.Equal(t, []int{0, 1}, handier(r, PackResult{Counts: []int{0, 1}, CostCents: 1000}))
	assert.Equal(t, []int{0, 1}, handier(r, PackResult{Counts: []int{1, 0}, CostCents: 1000}))
}

// Buying more never costs less, but for the few per cent that fewer tins may cost.
func TestCostRisesWithNeed(t *testing.T) {
	last := 0.0
	for need := 0.1; need < 30; need += 0.37 {
		p, ok := Cover(need, sizes, Stock{})
		require.True(t, ok)
		assert.GreaterOrEqual(t, 1.04*float64(p.CostCents), last)
		assert.GreaterOrEqual(t, p.Litres, need-1e-9)
		last = max(last, float64(p.CostCents))
	}
}

// Of purchases within a few per cent of the cheapest the one with the fewest tins: checked
// against trying all.
func TestFewTinsForNearlyTheSame(t *testing.T) {
	// Seven of 0.75 L would cost 2450, one of 5 L 2500: 2 % for six tins fewer.
	s := product.Sheet{Tins: []product.Tin{{Name: "0.75 L", Litres: .75, PriceCents: 350},
		{Name: "5 L", Litres: 5, PriceCents: 2500}}}
	p, ok := Cover(5, s, Stock{})
	require.True(t, ok)
	assert.Equal(t, []Bought{{Name: "5 L", Litres: 5, Count: 1, PriceCents: 2500}}, p.Tins)
	s.Tins[1].PriceCents = 2600 // 6 %: no longer
	p, _ = Cover(5, s, Stock{})
	assert.Equal(t, 7, p.Tins[0].Count)

	rng := rand.New(rand.NewPCG(6, 1))
	for range 150 {
		s := product.Sheet{Tins: []product.Tin{{Name: "a", Litres: .5, PriceCents: 400 + rng.IntN(300)},
			{Name: "b", Litres: 1 + rng.Float64(), PriceCents: 900 + rng.IntN(900)},
			{Name: "c", Litres: 3, PriceCents: 2000 + rng.IntN(1500)}}}
		need := 0.3 + 7*rng.Float64()
		got, ok := Cover(need, s, Stock{})
		require.True(t, ok)
		cheapest, fewest := math.MaxInt, math.MaxInt
		all := func(f func(tins, cents int)) {
			for a := range 16 {
				for b := range 9 {
					for c := range 4 {
						litres := .5*float64(a) + math.Round(1000*s.Tins[1].Litres)/1000*float64(b) + 3*float64(c)
						if litres >= need-1e-6 {
							f(a+b+c, a*s.Tins[0].PriceCents+b*s.Tins[1].PriceCents+c*s.Tins[2].PriceCents)
						}
					}
				}
			}
		}
		all(func(_, cents int) { cheapest = min(cheapest, cents) })
		all(func(tins, cents int) {
			if cents <= cheapest+cheapest*4/100 {
				fewest = min(fewest, tins)
			}
		})
		tins := 0
		for _, b := range got.Tins {
			tins += b.Count
		}
		assert.Equal(t, fewest, tins, "%+v, %g L", s.Tins, need)
		assert.LessOrEqual(t, got.CostCents, cheapest+cheapest*4/100)
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
	assert.Equal(t, 4000, SpareCents(product.Sheet{Tins: []product.Tin{tin("", 9000), tin("", 4000),
		tin("hardener", 1000), tin("", 5000), tin("", 0)}}))
	assert.Zero(t, SpareCents(product.Sheet{Tins: []product.Tin{tin("", 0)}}), "no price")
}
