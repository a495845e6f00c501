package purchase

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"allcoats/core/base/fielderr"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// brute tries every purchase.
func brute(r PackRequest) PackResult {
	best := PackResult{}
	counts := make([]int, len(r.Items))
	var try func(i, b, h, cost, volume int)
	try = func(i, b, h, cost, volume int) {
		if b >= r.NeedBaseML && h >= r.NeedHardenerML {
			left := r.StockBaseML + r.StockHardenerML + volume - r.NeedBaseML - r.NeedHardenerML
			if !best.Possible || cost < best.CostCents || cost == best.CostCents && left < best.LeftoverML {
				best = PackResult{Possible: true, CostCents: cost, LeftoverML: left}
			}
			return
		}
		if i == len(r.Items) {
			return
		}
		it := r.Items[i]
		for n := 0; n <= 8; n++ {
			if it.Available != nil && n > *it.Available {
				break
			}
			counts[i] = n
			try(i+1, b+n*it.BaseML, h+n*it.HardenerML, cost+n*it.PriceCents, volume+n*(it.BaseML+it.HardenerML))
		}
	}
	try(0, r.StockBaseML, r.StockHardenerML, 0, 0)
	return best
}

func TestPackAgainstTryingAll(t *testing.T) {
	rng := rand.New(rand.NewPCG(9, 9))
	possible := 0
	for range 400 {
		r := PackRequest{NeedBaseML: rng.IntN(3000), StockBaseML: rng.IntN(400)}
		if rng.IntN(2) == 0 {
			r.NeedHardenerML = r.NeedBaseML / 3
			r.StockHardenerML = rng.IntN(200)
		}
		for range 1 + rng.IntN(4) {
			it := Item{BaseML: 500 + rng.IntN(1500), PriceCents: 500 + rng.IntN(9000)}
			switch {
			case r.NeedHardenerML > 0 && rng.IntN(3) == 0:
				it.BaseML, it.HardenerML = 0, 300+rng.IntN(500)
			case r.NeedHardenerML > 0 && rng.IntN(2) == 0:
				it.HardenerML = it.BaseML / 3
			}
			if rng.IntN(4) == 0 {
				n := rng.IntN(3)
				it.Available = &n
			}
			r.Items = append(r.Items, it)
		}
		want := brute(r)
		got, err := Pack(t.Context(), r)
		require.NoError(t, err)
		require.Equal(t, want.Possible, got.Possible, "%+v", r)
		if !want.Possible {
			continue
		}
		possible++
		require.Equal(t, want.CostCents, got.CostCents, "%+v", r)
		require.Equal(t, want.LeftoverML, got.LeftoverML, "%+v", r)
		base, hardener := r.StockBaseML, r.StockHardenerML
		for i, n := range got.Counts {
			base += n * r.Items[i].BaseML
			hardener += n * r.Items[i].HardenerML
			if a := r.Items[i].Available; a != nil {
				require.LessOrEqual(t, n, *a)
			}
		}
		require.GreaterOrEqual(t, base, r.NeedBaseML)
		require.GreaterOrEqual(t, hardener, r.NeedHardenerML)
	}
	assert.Greater(t, possible, 200)
}

func TestPackEdges(t *testing.T) {
	got, err := Pack(t.Context(), PackRequest{})
	require.NoError(t, err)
	assert.True(t, got.Possible, "nothing is needed")
	got, err = Pack(t.Context(), PackRequest{NeedBaseML: 100, StockBaseML: 400,
		Items: []Item{{BaseML: 500, PriceCents: 1}}})
	require.NoError(t, err)
	assert.Equal(t, PackResult{Possible: true, Counts: []int{0}, LeftoverML: 300}, got, "the shelf has it")
	got, err = Pack(t.Context(), PackRequest{NeedBaseML: 100, NeedHardenerML: 50,
		Items: []Item{{BaseML: 500, PriceCents: 1}}})
	require.NoError(t, err)
	assert.False(t, got.Possible, "nobody sells the hardener")
	none, most, more := -1, 1_000_000, 1_000_001
	for _, it := range []Item{{BaseML: most, PriceCents: 1e8, Available: &most}, {HardenerML: most}} {
		assert.NoError(t, PackRequest{Items: []Item{it}}.Validate())
	}
	for path, r := range map[string]PackRequest{
		"needBaseML":          {NeedBaseML: -1},
		"stockHardenerML":     {StockHardenerML: -5},
		"items[0].baseML":     {Items: []Item{{PriceCents: 5}}},
		"items[0].priceCents": {Items: []Item{{BaseML: 5, PriceCents: -1}}},
		"items[0].available":  {Items: []Item{{BaseML: 5, Available: &none}}},
		"items[2].available":  {Items: []Item{{BaseML: 5}, {BaseML: 5}, {BaseML: 5, Available: &more}}},
		"items[1].baseML":     {Items: []Item{{BaseML: 5}, {BaseML: more}}},
		"items[1].priceCents": {Items: []Item{{BaseML: 5}, {BaseML: 5, PriceCents: 1e8 + 1}}},
		"items":               {Items: make([]Item, 201)},
		"items[1].hardenerML": {Items: []Item{{BaseML: 5}, {HardenerML: -5}}},
	} {
		_, err := Pack(t.Context(), r)
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
}

// offers are n packs of a two-part product: kits and separate parts of odd sizes at odd prices.
func offers(n, ratio int, rng *rand.Rand) (out []Item) {
	for i := range n {
		it := Item{Name: fmt.Sprint(i), BaseML: 250 + rng.IntN(9000)}
		it.HardenerML = it.BaseML / ratio
		if i%5 == 3 {
			it.HardenerML = 0
		}
		if i%5 == 4 {
			it.HardenerML, it.BaseML = it.BaseML/4, 0
		}
		it.PriceCents = int(float64(it.BaseML+it.HardenerML)*(3+1.5*rng.Float64())) + 300
		out = append(out, it)
	}
	return out
}

// BenchmarkPack buys twelve two-part products in some packs or in as many as are taken, a few tins
// of each and a barge's worth.
func BenchmarkPack(b *testing.B) {
	for _, c := range []struct{ items, needML int }{{40, 8000}, {200, 8000}, {200, 60_000}, {200, 400_000}} {
		b.Run(fmt.Sprintf("%d_offers_%d_L", c.items, c.needML/1000), func(b *testing.B) {
			rng := rand.New(rand.NewPCG(4, 2))
			var all []PackRequest
			for k := range 12 {
				r := PackRequest{NeedBaseML: c.needML + c.needML*k/3, StockBaseML: 377 * k, StockHardenerML: 91 * k,
					Items: offers(c.items, 2+k%4, rng)}
				r.NeedHardenerML = r.NeedBaseML / (2 + k%4)
				all = append(all, r)
			}
			for b.Loop() {
				for _, r := range all {
					got, err := Pack(b.Context(), r)
					require.NoError(b, err)
					require.True(b, got.Possible)
				}
			}
		})
	}
}
