// Package tins chooses what to buy, and learns from what was used.
package tins

import (
	"context"
	"math"

	"allcoats/core/catalog/product"
)

// Bought is a number of tins of one size.
type Bought struct {
	Name   string  `json:"name"`
	Litres float64 `json:"litres"`
	Count  int     `json:"count"`
}

// Purchase is what covers a need. CostCents is 0 and Priced false if a price
// is missing; then the least volume is bought.
type Purchase struct {
	Tins      []Bought `json:"tins"`
	Litres    float64  `json:"litres"`
	LeftoverL float64  `json:"leftoverL"`
	CostCents int      `json:"costCents"`
	Priced    bool     `json:"priced"`
}

// Stock is what stands on the shelf of one product, in litres of base and
// hardener; a one-part product is all base.
type Stock struct {
	BaseL     float64 `json:"baseL"`
	HardenerL float64 `json:"hardenerL"`
}

// Mixed returns the litres of mix that the stock gives in ratio, base to the
// whole.
func (s Stock) Mixed(baseShare float64) float64 {
	if baseShare >= 1 {
		return s.BaseL
	}
	return min(s.BaseL/baseShare, s.HardenerL/(1-baseShare))
}

// ml rounds litres up to whole mL, but not for a rounding error.
func ml(litres float64) int { return int(math.Ceil(litres*1000 - 1e-6)) }

// Cover returns the cheapest whole tins of a product that, with the stock, give
// at least needL litres of mix, base and hardener each enough; of equally cheap
// ones those with the least left over (Pack). ok is false if there are no tins
// or they cannot reach the need.
func Cover(needL float64, s product.Sheet, stock Stock) (p Purchase, ok bool) {
	share := s.BaseShare()
	r := PackRequest{NeedBaseML: ml(needL * share), NeedHardenerML: ml(needL * (1 - share)),
		StockBaseML: int(1000 * stock.BaseL), StockHardenerML: int(1000 * stock.HardenerL)}
	p = Purchase{Tins: []Bought{}, Priced: true}
	for _, t := range s.Tins {
		p.Priced = p.Priced && t.PriceCents > 0
	}
	for _, t := range s.Tins {
		it := Item{Name: t.Name, PriceCents: t.PriceCents}
		switch t.Part {
		case product.BasePart:
			it.BaseML = int(math.Round(1000 * t.Litres))
		case product.HardenerPart:
			it.HardenerML = int(math.Round(1000 * t.Litres))
		default:
			it.BaseML = int(math.Round(1000 * t.Litres * share))
			it.HardenerML = int(math.Round(1000 * t.Litres * (1 - share)))
		}
		if !p.Priced {
			it.PriceCents = 0
		}
		if it.BaseML > 0 || it.HardenerML > 0 {
			r.Items = append(r.Items, it)
		}
	}
	got, err := Pack(context.Background(), r) // a sheet lists few tins (product.MaxTins)
	if err != nil || !got.Possible {
		return p, false
	}
	for i, n := range got.Counts {
		if n > 0 {
			it := r.Items[i]
			litres := float64(it.BaseML+it.HardenerML) / 1000
			p.Tins = append(p.Tins, Bought{it.Name, litres, n})
			p.Litres += float64(n) * litres
		}
	}
	p.CostCents = got.CostCents
	p.LeftoverL = stock.BaseL + stock.HardenerL + p.Litres - needL
	return p, true
}
