package tins

import (
	"context"
	"fmt"
	"math"
	"slices"

	"allcoats/core/base/fault"
)

// Item is a pack as sold: a kit, a one-part tin, or base or hardener alone.
// Volumes are in mL, the price in cents. Available nil is any number.
type Item struct {
	Name       string `json:"name"`
	BaseML     int    `json:"baseML"`
	HardenerML int    `json:"hardenerML"`
	PriceCents int    `json:"priceCents"`
	Available  *int   `json:"available,omitempty"`
}

// PackRequest is the input of the purchase calculator: mL of base and hardener
// that are needed, and in stock.
type PackRequest struct {
	NeedBaseML      int    `json:"needBaseML"`
	NeedHardenerML  int    `json:"needHardenerML"`
	StockBaseML     int    `json:"stockBaseML"`
	StockHardenerML int    `json:"stockHardenerML"`
	Items           []Item `json:"items"`
}

// PackResult is the cheapest purchase; of equally cheap ones that with the
// least left over, base and hardener together. Possible is false if the items
// cannot reach the need. Counts go with the items.
type PackResult struct {
	Possible   bool  `json:"possible"`
	Counts     []int `json:"counts"`
	CostCents  int   `json:"costCents"`
	LeftoverML int   `json:"leftoverML"`
}

// Validate reports impossible figures.
func (r PackRequest) Validate() error {
	var bad fault.Errors
	for _, f := range []struct {
		path string
		v    int
	}{{"needBaseML", r.NeedBaseML}, {"needHardenerML", r.NeedHardenerML}, {"stockBaseML", r.StockBaseML}, {"stockHardenerML", r.StockHardenerML}} {
		bad.Range(f.path, float64(f.v), 0, 1e7, "mL")
	}
	if len(r.Items) > 200 {
		bad.Add("items", "at most 200 items are taken")
	}
	for i, it := range r.Items {
		at := func(field string) string { return fmt.Sprintf("items[%d].%s", i, field) }
		bad.Range(at("baseML"), float64(it.BaseML), 0, 1e6, "mL")
		bad.Range(at("hardenerML"), float64(it.HardenerML), 0, 1e6, "mL")
		if it.BaseML == 0 && it.HardenerML == 0 {
			bad.Add(at("baseML"), "an item holds base, hardener or both")
		}
		bad.Range(at("priceCents"), float64(it.PriceCents), 0, 1e8, "cents")
		if it.Available != nil {
			bad.Range(at("available"), float64(*it.Available), 0, 1e6, "pieces")
		}
	}
	return bad.Err()
}

// packer is the search. weight is the price with the volume as tie-break.
type packer struct {
	items  []packItem
	needB  float64
	needH  float64
	rates  [][]float64 // rates[i][k]: least weight per share of the need, items from i on, multiplier k
	best   int64
	counts []int
	chosen []int
	seen   map[[3]int]int64
	last   int
	ctx    context.Context
	nodes  int
}

type packItem struct {
	index, base, hardener, most int
	weight                      int64
}

// priceWeight sets a cent above any volume in mL.
const priceWeight = 1 << 25

// multipliers is how many mixtures of the two needs the bound tries.
const multipliers = 33

// Pack finds the cheapest purchase exactly, by branch and bound: items from the
// best price down, each as often as it can be of use; a branch is left when even
// the best price per share of what is still needed cannot beat the best so far. When
// ctx ends it gives up with ctx's error.
func Pack(ctx context.Context, r PackRequest) (PackResult, error) {
	if err := r.Validate(); err != nil {
		return PackResult{}, err
	}
	needB, needH := max(0, r.NeedBaseML-r.StockBaseML), max(0, r.NeedHardenerML-r.StockHardenerML)
	out := PackResult{Counts: make([]int, len(r.Items))}
	p := packer{ctx: ctx, needB: float64(needB), needH: float64(needH), best: math.MaxInt64, seen: map[[3]int]int64{}}
	for i, it := range r.Items {
		useB, useH := needB > 0 && it.BaseML > 0, needH > 0 && it.HardenerML > 0
		most := 0
		if useB {
			most = (needB + it.BaseML - 1) / it.BaseML
		}
		if useH {
			most = max(most, (needH+it.HardenerML-1)/it.HardenerML)
		}
		if it.Available != nil {
			most = min(most, *it.Available)
		}
		if most > 0 {
			p.items = append(p.items, packItem{i, it.BaseML, it.HardenerML, most, int64(it.PriceCents)*priceWeight + int64(it.BaseML+it.HardenerML)})
		}
	}
	p.items = slices.DeleteFunc(p.items, func(x packItem) bool {
		return slices.ContainsFunc(p.items, func(y packItem) bool { // one that holds as much for less makes it useless
			return y.index != x.index && r.Items[y.index].Available == nil && y.base >= x.base && y.hardener >= x.hardener &&
				(y.weight < x.weight || y.weight == x.weight && y.index < x.index)
		})
	})
	share := func(x packItem, k int) float64 {
		l := float64(k) / (multipliers - 1)
		s := 0.0
		if needB > 0 {
			s += l * min(1, float64(x.base)/p.needB)
		}
		if needH > 0 {
			s += (1 - l) * min(1, float64(x.hardener)/p.needH)
		}
		return s
	}
	for k, least := 0, 0.0; k < multipliers; k++ { // the multiplier that bounds best orders the items
		rate := math.Inf(1)
		for _, x := range p.items {
			if s := share(x, k); s > 0 {
				rate = min(rate, float64(x.weight)/s)
			}
		}
		if rate > least && !math.IsInf(rate, 1) {
			least, p.last = rate, k
		}
	}
	slices.SortFunc(p.items, func(x, y packItem) int {
		a, b := float64(x.weight)/share(x, p.last), float64(y.weight)/share(y, p.last)
		switch {
		case a < b:
			return -1
		case a > b:
			return 1
		}
		return x.index - y.index
	})
	p.rates = make([][]float64, len(p.items)+1)
	for i := len(p.items); i >= 0; i-- {
		p.rates[i] = make([]float64, multipliers)
		for k := range multipliers {
			p.rates[i][k] = math.Inf(1)
			if i < len(p.items) {
				p.rates[i][k] = p.rates[i+1][k]
				if s := share(p.items[i], k); s > 0 {
					p.rates[i][k] = min(p.rates[i][k], float64(p.items[i].weight)/s)
				}
			}
		}
	}
	p.counts = make([]int, len(p.items))
	p.search(0, needB, needH, 0)
	if err := ctx.Err(); err != nil {
		return out, err
	}
	if p.best == math.MaxInt64 {
		return out, nil
	}
	out.Possible = true
	out.LeftoverML = r.StockBaseML + r.StockHardenerML - r.NeedBaseML - r.NeedHardenerML
	for i, n := range p.chosen {
		it := r.Items[p.items[i].index]
		out.Counts[p.items[i].index] = n
		out.CostCents += n * it.PriceCents
		out.LeftoverML += n * (it.BaseML + it.HardenerML)
	}
	return out, nil
}

func (p *packer) search(i, b, h int, weight int64) {
	if p.nodes++; p.nodes%1024 == 0 && p.ctx.Err() != nil {
		p.best = 0 // nothing can beat it: the search runs out
	}
	if b <= 0 && h <= 0 {
		if weight < p.best {
			p.best, p.chosen = weight, slices.Clone(p.counts)
		}
		return
	}
	if i == len(p.items) || p.hopeless(i, max(0, b), max(0, h), float64(p.best-weight)*(1+1e-12)) {
		return
	}
	key := [3]int{i, max(0, b), max(0, h)}
	if was, ok := p.seen[key]; ok && was <= weight {
		return
	}
	p.seen[key] = weight
	x := p.items[i]
	most := 0
	if b > 0 && x.base > 0 {
		most = (b + x.base - 1) / x.base
	}
	if h > 0 && x.hardener > 0 {
		most = max(most, (h+x.hardener-1)/x.hardener)
	}
	for n := min(most, x.most); n >= 0; n-- {
		p.counts[i] = n
		p.search(i+1, b-n*x.base, h-n*x.hardener, weight+int64(n)*x.weight)
	}
	p.counts[i] = 0
}

// hopeless reports whether covering b and h with items from i on weighs limit or
// more by one of the bounds; the one that told so last is asked first.
func (p *packer) hopeless(i, b, h int, limit float64) bool {
	for n := range multipliers {
		k := (p.last + n) % multipliers
		l := float64(k) / (multipliers - 1)
		s := 0.0
		if p.needB > 0 {
			s += l * float64(b) / p.needB
		}
		if p.needH > 0 {
			s += (1 - l) * float64(h) / p.needH
		}
		if s > 0 && p.rates[i][k]*s >= limit {
			p.last = k
			return true
		}
	}
	return false
}
