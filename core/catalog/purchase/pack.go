package purchase

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"

	"allcoats/core/base/fielderr"
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
	var bad fielderr.Errors
	for _, f := range []struct {
		path string
		v    int
	}{{"needBaseML", r.NeedBaseML}, {"needHardenerML", r.NeedHardenerML}, {"stockBaseML", r.StockBaseML},
		{"stockHardenerML", r.StockHardenerML}} {
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

// packer is the search for the least weight, the price with the volume as tie-break. A mixture is
// one of the two needs, weighed against each other; its rate is the least weight per share of it.
type packer struct {
	items  []packItem
	needB  int
	needH  int
	mixes  [mixtures][2]float64 // shares of the needs that a mL of base and of hardener are
	rates  [][mixtures]float64  // rates[i][k]: of mixture k, from items i on
	best   int64                // the least weight known
	counts []int                // of items, that it comes from
}

type packItem struct {
	index, base, hardener, most int
	weight                      int64
}

// packLabel is a purchase of the items before one: what is needed still, and the label that it
// goes on from with n more.
type packLabel struct {
	weight  int64
	b, h    int32
	from, n int32
}

// priceWeight sets a cent above any volume in mL.
const priceWeight = 1 << 25

// mixtures of the two needs are tried for a bound, half of them about the best of the others; beam
// is how many labels the first search keeps.
const mixtures, beam = 32, 256

// Pack finds the cheapest purchase exactly, item after item from the best price down. Of the
// purchases of the first items only those go on that none beats in price and in both needs, and
// that the best price per share of what is needed still does not rule out against the best
// purchase known. A quick search that keeps few gives that one. When ctx ends it gives up with
// ctx's error.
func Pack(ctx context.Context, r PackRequest) (PackResult, error) {
	if err := r.Validate(); err != nil {
		return PackResult{}, err
	}
	out := PackResult{Counts: make([]int, len(r.Items))}
	p := newPacker(r)
	if !p.enough() {
		return out, nil
	}
	tight := p.mixAll()
	for k := range mixtures {
		p.greedy(k)
	}
	p.order(tight)
	for _, keep := range []int{beam, math.MaxInt} {
		p.fix()
		if err := p.search(ctx, keep); err != nil {
			return out, err
		}
	}
	out.Possible = true
	out.LeftoverML = r.StockBaseML + r.StockHardenerML - r.NeedBaseML - r.NeedHardenerML
	for i, n := range p.counts {
		it := r.Items[i]
		out.Counts[i] = n
		out.CostCents += n * it.PriceCents
		out.LeftoverML += n * (it.BaseML + it.HardenerML)
	}
	return out, nil
}

// newPacker takes the items that are of use.
func newPacker(r PackRequest) *packer {
	p := &packer{needB: max(0, r.NeedBaseML-r.StockBaseML), needH: max(0, r.NeedHardenerML-r.StockHardenerML),
		best: math.MaxInt64, counts: make([]int, len(r.Items))}
	for i, it := range r.Items {
		most := 0
		if p.needB > 0 && it.BaseML > 0 {
			most = (p.needB + it.BaseML - 1) / it.BaseML
		}
		if p.needH > 0 && it.HardenerML > 0 {
			most = max(most, (p.needH+it.HardenerML-1)/it.HardenerML)
		}
		if it.Available != nil {
			most = min(most, *it.Available)
		}
		if most > 0 {
			p.items = append(p.items, packItem{i, it.BaseML, it.HardenerML, most, int64(it.PriceCents)*priceWeight +
				int64(it.BaseML+it.HardenerML)})
		}
	}
	all := slices.Clone(p.items)
	p.items = slices.DeleteFunc(p.items, func(x packItem) bool {
		return slices.ContainsFunc(all, func(y packItem) bool { // one that holds as much for less makes it useless
			return y.index != x.index && r.Items[y.index].Available == nil && y.base >= x.base &&
				y.hardener >= x.hardener &&
				(y.weight < x.weight || y.weight == x.weight && y.index < x.index)
		})
	})
	return p
}

// enough reports whether all items together cover the needs.
func (p *packer) enough() bool {
	b, h := 0, 0
	for _, x := range p.items {
		b, h = b+x.most*x.base, h+x.most*x.hardener
	}
	return b >= p.needB && h >= p.needH
}

// mix sets mixture k to so much of base, the rest of hardener.
func (p *packer) mix(k int, ofBase float64) {
	if p.needB > 0 {
		p.mixes[k][0] = ofBase / float64(p.needB)
	}
	if p.needH > 0 {
		p.mixes[k][1] = (1 - ofBase) / float64(p.needH)
	}
}

// share is what b and h are of mixture k of the needs, at most the whole of each.
func (p *packer) share(b, h, k int) float64 {
	return p.mixes[k][0]*float64(min(b, p.needB)) + p.mixes[k][1]*float64(min(h, p.needH))
}

// bound is the least that the needs weigh by mixture k, 0 if it tells nothing.
func (p *packer) bound(k int) float64 {
	if rate := p.rate(k); !math.IsInf(rate, 1) {
		return rate * p.share(p.needB, p.needH, k)
	}
	return 0
}

// mixAll makes the mixtures; it returns that which bounds best.
func (p *packer) mixAll() (tight int) {
	const wide = mixtures / 2
	best := func(from, to int) (k int) {
		k = from
		for i := from; i < to; i++ {
			if p.bound(i) > p.bound(k) {
				k = i
			}
		}
		return k
	}
	for k := range wide {
		p.mix(k, float64(k)/(wide-1))
	}
	first := best(0, wide)
	for k := range wide { // between its neighbours, more the nearer
		off := (float64(k) - (wide-1)/2.0) / (wide / 2.0)
		p.mix(wide+k, min(1, max(0, float64(first)/(wide-1)+off*math.Abs(off)/(wide-1))))
	}
	return best(0, mixtures)
}

// greedy buys one after another what costs least per share of mixture k that it still fills.
func (p *packer) greedy(k int) {
	left, counts := make([]int, len(p.items)), make([]int, len(p.counts))
	for i, x := range p.items {
		left[i] = x.most
	}
	b, h, weight := p.needB, p.needH, int64(0)
	for b > 0 || h > 0 {
		pick, least := -1, math.Inf(1)
		for i, x := range p.items {
			s := p.share(min(max(0, b), x.base), min(max(0, h), x.hardener), k)
			if left[i] > 0 && s > 0 && float64(x.weight)/s < least {
				pick, least = i, float64(x.weight)/s
			}
		}
		if pick < 0 {
			return // the mixture leaves out what is still needed
		}
		x, n := p.items[pick], left[pick]
		if x.base > 0 && b > 0 { // as long as all of it is of use
			n = min(n, max(1, b/x.base))
		}
		if x.hardener > 0 && h > 0 {
			n = min(n, max(1, h/x.hardener))
		}
		left[pick] -= n
		counts[x.index] += n
		b, h, weight = b-n*x.base, h-n*x.hardener, weight+int64(n)*x.weight
	}
	if weight < p.best {
		p.best, p.counts = weight, counts
	}
}

// rate is the least weight per share of mixture k.
func (p *packer) rate(k int) float64 {
	rate := math.Inf(1)
	for _, x := range p.items {
		if s := p.share(x.base, x.hardener, k); s > 0 {
			rate = min(rate, float64(x.weight)/s)
		}
	}
	return rate
}

// order puts the items from the best price down, by the mixture that bounds best.
func (p *packer) order(tight int) {
	price := func(x packItem) float64 { return float64(x.weight) / p.share(x.base, x.hardener, tight) }
	slices.SortFunc(p.items, func(x, y packItem) int {
		return cmp.Or(cmp.Compare(price(x), price(y)), x.index-y.index)
	})
}

// fix drops the items of which one is too many to beat the best, and takes the rates of the others.
func (p *packer) fix() {
	for k := range mixtures {
		rate, all := p.rate(k), p.share(p.needB, p.needH, k)
		if math.IsInf(rate, 1) {
			continue
		}
		p.items = slices.DeleteFunc(p.items, func(x packItem) bool {
			return float64(x.weight)+rate*(all-p.share(x.base, x.hardener, k)) >= float64(p.best)*(1+1e-12)
		})
	}
	p.rates = make([][mixtures]float64, len(p.items)+1)
	for i := len(p.items); i >= 0; i-- {
		for k := range mixtures {
			p.rates[i][k] = math.Inf(1)
			if i < len(p.items) {
				p.rates[i][k] = p.rates[i+1][k]
				if s := p.share(p.items[i].base, p.items[i].hardener, k); s > 0 {
					p.rates[i][k] = min(p.rates[i][k], float64(p.items[i].weight)/s)
				}
			}
		}
	}
}

// least is the weight below which b and h cannot be covered with items from i on.
func (p *packer) least(i int, b, h int32) float64 {
	bound := 0.0
	for k := range mixtures {
		if s := p.share(int(b), int(h), k); s > 0 {
			bound = max(bound, p.rates[i][k]*s)
		}
	}
	return bound
}

// span is how often, least and most, item i may follow a label without its bounds ruling it out.
func (p *packer) span(i int, l packLabel) (lo, hi int) {
	x := p.items[i]
	hi = min(x.most, max(times(l.b, x.base), times(l.h, x.hardener)))
	for k := range mixtures {
		rate, still, each := p.rates[i+1][k], p.share(int(l.b), int(l.h), k), p.share(x.base, x.hardener, k)
		if math.IsInf(rate, 1) { // no other item can do it
			if each > 0 {
				lo = max(lo, int(math.Ceil(still/each-1e-9)))
			} else if still > 0 {
				return 1, 0
			}
			continue
		}
		// weight + n · its weight + rate · (still − n · each) < best
		room, slope := float64(p.best)*(1+1e-12)-float64(l.weight)-rate*still, float64(x.weight)-rate*each
		switch n := room / slope; {
		case slope > 0 && n < float64(hi):
			hi = int(math.Floor(n))
		case slope < 0 && n > float64(lo):
			lo = int(math.Ceil(n))
		}
	}
	return lo, hi
}

// times is how many of a size a need takes, 0 if the item has none.
func times(need int32, size int) int {
	if size == 0 {
		return 0
	}
	return (int(need) + size - 1) / size
}

// search goes through the items and keeps so many labels after each; a better purchase that it
// finds is the best.
func (p *packer) search(ctx context.Context, keep int) error {
	levels := [][]packLabel{{{b: int32(p.needB), h: int32(p.needH)}}}
	if p.needB == 0 && p.needH == 0 {
		return nil
	}
	for i, x := range p.items {
		var next []packLabel
		for from, l := range levels[i] {
			if from%64 == 0 && ctx.Err() != nil {
				return ctx.Err()
			}
			lo, hi := p.span(i, l)
			for n := hi; n >= lo; n-- {
				to := packLabel{l.weight + int64(n)*x.weight, max(0, l.b-int32(n*x.base)),
					max(0, l.h-int32(n*x.hardener)), int32(from), int32(n)}
				switch {
				case to.b == 0 && to.h == 0:
					if to.weight < p.best {
						p.take(levels, to)
					}
				case float64(to.weight)+p.least(i+1, to.b, to.h) < float64(p.best)*(1+1e-12):
					next = append(next, to)
				}
			}
		}
		levels = append(levels, p.front(next, i+1, keep))
	}
	return nil
}

// take makes a label after the last level the best purchase.
func (p *packer) take(levels [][]packLabel, l packLabel) {
	p.best, p.counts = l.weight, make([]int, len(p.counts))
	for i := len(levels) - 1; i >= 0; i-- {
		p.counts[p.items[i].index] = int(l.n)
		l = levels[i][l.from]
	}
}

// front is the labels before item i that no other beats in weight and in both needs, of them the
// first so many by the least that they come to.
func (p *packer) front(all []packLabel, i, keep int) []packLabel {
	slices.SortFunc(all, func(x, y packLabel) int {
		return cmp.Or(cmp.Compare(x.weight, y.weight), cmp.Compare(x.b, y.b), cmp.Compare(x.h, y.h))
	})
	var stairs [][2]int32 // the needs that none of those so far beats in both, by the first
	out := all[:0]
	for _, l := range all {
		n, _ := slices.BinarySearchFunc(stairs, l.b+1, func(s [2]int32, b int32) int { return cmp.Compare(s[0], b) })
		if n > 0 && stairs[n-1][1] <= l.h {
			continue
		}
		from := n // those that l beats begin with one of its own b, or after it
		for from > 0 && stairs[from-1][0] >= l.b {
			from--
		}
		to := n
		for to < len(stairs) && stairs[to][1] >= l.h {
			to++
		}
		stairs = slices.Replace(stairs, from, to, [2]int32{l.b, l.h})
		out = append(out, l)
	}
	if len(out) > keep {
		slices.SortStableFunc(out, func(x, y packLabel) int {
			return cmp.Compare(float64(x.weight)+p.least(i, x.b, x.h), float64(y.weight)+p.least(i, y.b, y.h))
		})
		out = out[:keep]
	}
	return out
}
