// Package tins chooses what to buy.
package tins

import (
	"math"

	"allcoats/core/product"
)

// Bought is a number of tins of one size.
type Bought struct {
	Name   string  `json:"name"`
	Litres float64 `json:"litres"`
	Count  int     `json:"count"`
}

// Purchase is what covers a need. CostCents is 0 and Priced false if a price
// is missing.
type Purchase struct {
	Tins      []Bought `json:"tins"`
	Litres    float64  `json:"litres"`
	LeftoverL float64  `json:"leftoverL"`
	CostCents int      `json:"costCents"`
	Priced    bool     `json:"priced"`
}

// maxNeedML bounds the search: more than any boat takes of one product.
const maxNeedML = 5_000_000

// Cover returns the cheapest whole tins that hold at least needL litres; of
// equally cheap ones those with the least left over. Without a price for every
// size it takes the least volume. Exact to a millilitre (unbounded knapsack
// over the need). ok is false if there are no tins or the need is beyond
// 5000 L.
func Cover(needL float64, sizes []product.Tin) (p Purchase, ok bool) {
	need := int(math.Ceil(needL*1000 - 1e-6))
	p = Purchase{Tins: []Bought{}, Priced: true}
	if len(sizes) == 0 || need > maxNeedML {
		return p, false
	}
	if need <= 0 {
		return p, true
	}
	for _, s := range sizes {
		p.Priced = p.Priced && s.PriceCents > 0
	}
	type best struct{ cost, ml, tin int }
	table := make([]best, need+1)
	for v := 1; v <= need; v++ {
		table[v].cost = math.MaxInt
		for i, s := range sizes {
			ml := int(math.Round(s.Litres * 1000))
			from := table[max(0, v-ml)]
			cost := from.cost
			if p.Priced {
				cost += s.PriceCents
			}
			if t := &table[v]; cost < t.cost || cost == t.cost && from.ml+ml < t.ml {
				*t = best{cost, from.ml + ml, i}
			}
		}
	}
	counts := make([]int, len(sizes))
	for v := need; v > 0; {
		i := table[v].tin
		counts[i]++
		v -= int(math.Round(sizes[i].Litres * 1000))
	}
	for i, n := range counts {
		if n > 0 {
			p.Tins = append(p.Tins, Bought{sizes[i].Name, sizes[i].Litres, n})
		}
	}
	p.CostCents = table[need].cost
	p.Litres = float64(table[need].ml) / 1000
	p.LeftoverL = p.Litres - needL
	return p, true
}
