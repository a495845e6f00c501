// Package purchase chooses what to buy, and learns from what was used.
package purchase

import (
	"cmp"
	"context"
	"math"
	"slices"

	"allcoats/core/catalog/product"
)

// Bought is a number of tins of one size, with who sells it under which number, if given.
type Bought struct {
	Name       string  `json:"name"`
	Litres     float64 `json:"litres"`
	Count      int     `json:"count"`
	PriceCents int     `json:"priceCents,omitempty"`
	Supplier   string  `json:"supplier,omitempty"`
	PartNo     string  `json:"partNo,omitempty"`
}

// Purchase is what covers a need. CostCents is 0 and Priced false if a price
// is missing; then the least volume is bought. OddL is what of the leftover has no
// OddPart to go with.
type Purchase struct {
	Tins      []Bought `json:"tins"`
	Litres    float64  `json:"litres"`
	LeftoverL float64  `json:"leftoverL"`
	OddL      float64  `json:"oddL,omitempty"`
	OddPart   string   `json:"oddPart,omitempty" doc:"the part that is over without the other: base or hardener"`
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

// leastOddL is the least of one part left without the other that is worth naming, L.
const leastOddL = 0.05

// handier are the counts of the purchase with the fewest tins, then sizes, that costs at most
// nearlyPct more than the cheapest; those of the cheapest if the search grows too long.
func handier(r PackRequest, cheapest PackResult) []int {
	needB, needH := max(0, r.NeedBaseML-r.StockBaseML), max(0, r.NeedHardenerML-r.StockHardenerML)
	// Without prices a purchase costs its volume.
	price := func(i int) int {
		if cheapest.CostCents == 0 {
			return r.Items[i].BaseML + r.Items[i].HardenerML
		}
		return r.Items[i].PriceCents
	}
	type score struct{ tins, sizes, cents, left int }
	better := func(a, b score) bool {
		return cmp.Or(cmp.Compare(a.tins, b.tins), cmp.Compare(a.sizes, b.sizes), cmp.Compare(a.cents, b.cents),
			cmp.Compare(a.left, b.left)) < 0
	}
	scoreOf := func(counts []int) (s score) {
		for i, n := range counts {
			s.tins += n
			s.sizes += min(n, 1)
			s.cents += n * price(i)
			s.left += n * (r.Items[i].BaseML + r.Items[i].HardenerML)
		}
		return s
	}
	order := make([]int, len(r.Items)) // the largest first
	for i := range order {
		order[i] = i
	}
	size := func(i int) int { return r.Items[i].BaseML + r.Items[i].HardenerML }
	slices.SortStableFunc(order, func(a, b int) int { return size(b) - size(a) })
	best, bestScore := cheapest.Counts, scoreOf(cheapest.Counts)
	limit := bestScore.cents + bestScore.cents*nearlyPct/100
	counts, nodes := make([]int, len(r.Items)), 0
	var try func(at, b, h int)
	try = func(at, b, h int) {
		if nodes++; nodes > 200_000 {
			return
		}
		now := scoreOf(counts)
		if now.cents > limit || now.tins > bestScore.tins {
			return
		}
		if b <= 0 && h <= 0 {
			if better(now, bestScore) {
				best, bestScore = slices.Clone(counts), now
			}
			return
		}
		if at == len(order) {
			return
		}
		it := r.Items[order[at]]
		most := 0
		if b > 0 && it.BaseML > 0 {
			most = (b + it.BaseML - 1) / it.BaseML
		}
		if h > 0 && it.HardenerML > 0 {
			most = max(most, (h+it.HardenerML-1)/it.HardenerML)
		}
		if it.Available != nil {
			most = min(most, *it.Available)
		}
		for n := min(most, bestScore.tins-now.tins); n >= 0; n-- {
			counts[order[at]] = n
			try(at+1, b-n*it.BaseML, h-n*it.HardenerML)
		}
		counts[order[at]] = 0
	}
	try(0, needB, needH)
	return best
}

// ml rounds litres up to whole mL, but not for a rounding error.
func ml(litres float64) int { return int(math.Ceil(litres*1000 - 1e-6)) }

// nearlyPct is how much dearer than the cheapest purchase one may be that has fewer tins.
const nearlyPct = 4

// Cover returns whole tins of a product that, with the stock, give at least needL litres of mix,
// base and hardener each enough: of all purchases within 4 % of the cheapest (Pack) the one with
// the fewest tins, then the fewest sizes, then the cheapest. ok is false if there are no tins or
// they cannot reach the need.
func Cover(needL float64, s product.Sheet, stock Stock) (p Purchase, ok bool) {
	share := s.BaseShare()
	r := PackRequest{NeedBaseML: ml(needL * share), NeedHardenerML: ml(needL * (1 - share)),
		StockBaseML: int(1000 * stock.BaseL), StockHardenerML: int(1000 * stock.HardenerL)}
	p = Purchase{Tins: []Bought{}, Priced: true}
	for _, t := range s.Tins {
		p.Priced = p.Priced && t.PriceCents > 0
	}
	var sold []product.Tin
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
			r.Items, sold = append(r.Items, it), append(sold, t)
		}
	}
	got, err := Pack(context.Background(), r) // a sheet lists few tins (product.MaxTins)
	if err != nil || !got.Possible {
		return p, false
	}
	base, hardener := stock.BaseL-needL*share, stock.HardenerL-needL*(1-share)
	for i, n := range handier(r, got) {
		if n > 0 {
			it, t := r.Items[i], sold[i]
			litres := float64(it.BaseML+it.HardenerML) / 1000
			p.Tins = append(p.Tins, Bought{it.Name, litres, n, t.PriceCents, t.Supplier, t.PartNo})
			p.Litres += float64(n) * litres
			p.CostCents += n * it.PriceCents
			base, hardener = base+float64(n*it.BaseML)/1000, hardener+float64(n*it.HardenerML)/1000
		}
	}
	p.LeftoverL = base + hardener
	if share < 1 {
		mixed := min(base/share, hardener/(1-share))
		if over := base - mixed*share; over > leastOddL {
			p.OddL, p.OddPart = over, product.BasePart
		} else if over := hardener - mixed*(1-share); over > leastOddL {
			p.OddL, p.OddPart = over, product.HardenerPart
		}
	}
	return p, true
}
