package tins

import (
	"testing"

	"allcoats/core/product"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var sizes = []product.Tin{{Name: "0.75 L", Litres: .75, PriceCents: 3490}, {Name: "2.5 L", Litres: 2.5, PriceCents: 9990}, {Name: "5 L", Litres: 5, PriceCents: 18990}}

// Optima from integer programs solved by GLPK.
func TestCoverAgainstIntegerPrograms(t *testing.T) {
	for _, c := range []struct {
		need, leftover float64
		cost           int
	}{{2.5, 0, 9990}, {11, 0.5, 44960}} {
		p, ok := Cover(c.need, sizes)
		require.True(t, ok)
		assert.Equal(t, c.cost, p.CostCents)
		assert.InDelta(t, c.leftover, p.LeftoverL, 1e-9)
	}
}

func TestCoverEdges(t *testing.T) {
	p, ok := Cover(0, sizes)
	assert.True(t, ok)
	assert.Empty(t, p.Tins)
	_, ok = Cover(1, nil)
	assert.False(t, ok)
	_, ok = Cover(1e6, sizes)
	assert.False(t, ok)
	// Without prices the least volume, and said so.
	p, ok = Cover(3, []product.Tin{{Name: "a", Litres: 2.5}, {Name: "b", Litres: .75}})
	assert.True(t, ok)
	assert.False(t, p.Priced)
	assert.Zero(t, p.CostCents)
	assert.InDelta(t, 3, p.Litres, 1e-9)
	// A hair over a tin needs another.
	p, _ = Cover(5.0005, sizes)
	assert.Greater(t, p.Litres, 5.0)
}

// Buying more never costs less.
func TestCostRisesWithNeed(t *testing.T) {
	last := 0
	for need := 0.1; need < 30; need += 0.37 {
		p, ok := Cover(need, sizes)
		require.True(t, ok)
		assert.GreaterOrEqual(t, p.CostCents, last)
		assert.GreaterOrEqual(t, p.Litres, need-1e-9)
		last = p.CostCents
	}
}
