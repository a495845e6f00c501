// Package mix measures out two-part products and catalysed resins.
package mix

import (
	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
	"allcoats/core/catalog/product"
)

// Request is the input of the mix calculator: one ratio, by volume or by
// weight, and one amount. Densities, kg/L, turn volumes into weights; without
// them the answer stays in the ratio's own measure.
type Request struct {
	ByVolume    product.Ratio `json:"ratioByVolume,omitempty"`
	ByWeight    product.Ratio `json:"ratioByWeight,omitempty"`
	BaseKgL     float64       `json:"baseKgL,omitempty"`
	HardenerKgL float64       `json:"hardenerKgL,omitempty"`
	TotalL      float64       `json:"totalL,omitempty"`
	TotalKg     float64       `json:"totalKg,omitempty"`
	BaseL       float64       `json:"baseL,omitempty"`
}

// Result is what to pour. Figures that cannot be told without densities are
// missing. MixedKgL takes the parts' volumes to add up.
type Result struct {
	BaseL       *float64        `json:"baseL,omitempty"`
	HardenerL   *float64        `json:"hardenerL,omitempty"`
	TotalL      *float64        `json:"totalL,omitempty"`
	BaseKg      *float64        `json:"baseKg,omitempty"`
	HardenerKg  *float64        `json:"hardenerKg,omitempty"`
	TotalKg     *float64        `json:"totalKg,omitempty"`
	PerVolume   *float64        `json:"baseToHardenerByVolume,omitempty"`
	Per100Grams *float64        `json:"hardenerGPer100GBase,omitempty"`
	MixedKgL    *float64        `json:"mixedKgL,omitempty"`
	Working     working.Working `json:"working"`
}

// check names the impossible fields.
func (r Request) check() error {
	var bad fielderr.Errors
	volume, weight := r.ByVolume != product.Ratio{}, r.ByWeight != product.Ratio{}
	check := func(path string, p product.Ratio) {
		bad.Above(path+".base", p.Base, 0, 1000, "parts")
		bad.Above(path+".hardener", p.Hardener, 0, 1000, "parts")
	}
	switch {
	case volume && weight:
		bad.Add("ratioByWeight", "give the ratio by volume or by weight, not both")
	case volume:
		check("ratioByVolume", r.ByVolume)
	case weight:
		check("ratioByWeight", r.ByWeight)
	default:
		bad.Add("ratioByVolume", "give the ratio by volume, or by weight in ratioByWeight")
	}
	bad.Range("baseKgL", r.BaseKgL, 0, 10, "kg/L")
	bad.Range("hardenerKgL", r.HardenerKgL, 0, 10, "kg/L")
	bad.Range("totalL", r.TotalL, 0, 1000, "L")
	bad.Range("totalKg", r.TotalKg, 0, 5000, "kg")
	bad.Range("baseL", r.BaseL, 0, 1000, "L")
	given := 0
	for _, v := range []float64{r.TotalL, r.TotalKg, r.BaseL} {
		if v > 0 {
			given++
		}
	}
	if bad == nil && given != 1 {
		bad.Add("totalL", "give one amount: the litres or the weight of the mix, or the litres of base")
	}
	if bad == nil && !r.dense() && (volume && r.TotalKg > 0 || weight && (r.TotalL > 0 || r.BaseL > 0)) {
		bad.Add("baseKgL", "both densities are needed to go between volume and weight")
	}
	return bad.Err()
}

// dense tells whether both densities are known.
func (r Request) dense() bool { return r.BaseKgL > 0 && r.HardenerKgL > 0 }

// Compute answers r.
func Compute(r Request) (Result, error) {
	if err := r.check(); err != nil {
		return Result{}, err
	}
	weight, dense := r.ByWeight != product.Ratio{}, r.dense()
	w := working.New()
	// Litres of base and hardener per litre of mix, or per kg with densities unknown.
	parts := r.ByVolume
	if weight {
		parts = r.ByWeight
		if dense {
			parts = product.Ratio{Base: r.ByWeight.Base / r.BaseKgL, Hardener: r.ByWeight.Hardener / r.HardenerKgL}
		}
	}
	w.In("Parts of base", parts.Base, "")
	w.In("Parts of hardener", parts.Hardener, "")
	if dense {
		w.In("Base", r.BaseKgL, "kg/L")
		w.In("Hardener", r.HardenerKgL, "kg/L")
	}
	var out Result
	at := func(v float64) *float64 { return &v }
	share := parts.Base / (parts.Base + parts.Hardener)
	if weight && !dense {
		out.BaseKg, out.HardenerKg, out.TotalKg = at(r.TotalKg*share), at(r.TotalKg*(1-share)), at(r.TotalKg)
		out.Per100Grams = at(100 * parts.Hardener / parts.Base)
		w.Step("Base", "total · parts of base / all parts", *out.BaseKg, "kg", "the sheet's ratio by weight")
		w.Step("Hardener", "the rest", *out.HardenerKg, "kg", "the sheet's ratio by weight")
		out.Working = w
		return out, nil
	}
	var total float64
	switch {
	case r.TotalL > 0:
		total = r.TotalL
	case r.BaseL > 0:
		total = r.BaseL / share
	default:
		total = r.TotalKg / (share*r.BaseKgL + (1-share)*r.HardenerKgL)
	}
	base, hardener := total*share, total*(1-share)
	out.BaseL, out.HardenerL, out.TotalL, out.PerVolume = at(base), at(hardener), at(total),
		at(parts.Base/parts.Hardener)
	w.Step("Base", "total · parts of base / all parts", base, "L", "the sheet's ratio")
	w.Step("Hardener", "the rest", hardener, "L", "the sheet's ratio")
	if dense {
		out.BaseKg, out.HardenerKg = at(base*r.BaseKgL), at(hardener*r.HardenerKgL)
		out.TotalKg = at(*out.BaseKg + *out.HardenerKg)
		out.Per100Grams = at(100 * *out.HardenerKg / *out.BaseKg)
		out.MixedKgL = at(*out.TotalKg / total)
		w.Step("Base, weighed", "litres · density", *out.BaseKg, "kg", "densities of the sheet")
		w.Step("Hardener, weighed", "litres · density", *out.HardenerKg, "kg", "densities of the sheet")
	}
	out.Working = w
	return out, nil
}

// PeroxideRequest is the input of the peroxide calculator: resin by weight, or
// by litres and density.
type PeroxideRequest struct {
	ResinKg      float64 `json:"resinKg,omitempty"`
	ResinL       float64 `json:"resinL,omitempty"`
	ResinKgL     float64 `json:"resinKgL,omitempty"`
	Pct          float64 `json:"pct"`
	CatalystKgL  float64 `json:"catalystKgL"`
	SheetAllowed bool    `json:"sheetAllows,omitempty" doc:"the product's sheet allows less than 1 % or more than 3 %"`
}

// PeroxideResult is the catalyst to add.
type PeroxideResult struct {
	CatalystG  float64         `json:"catalystG"`
	CatalystML float64         `json:"catalystML"`
	Working    working.Working `json:"working"`
}

// Peroxide returns the catalyst for a resin, per cent by weight. Outside 1 to
// 3 % it is refused unless the sheet allows it.
func Peroxide(r PeroxideRequest) (PeroxideResult, error) {
	var bad fielderr.Errors
	bad.Range("resinKg", r.ResinKg, 0, 5000, "kg")
	bad.Range("resinL", r.ResinL, 0, 5000, "L")
	if (r.ResinKg > 0) == (r.ResinL > 0) {
		bad.Add("resinKg", "give the resin by weight, or in resinL by volume")
	}
	if r.ResinL > 0 {
		bad.Above("resinKgL", r.ResinKgL, 0, 3, "kg/L")
	}
	if r.SheetAllowed {
		bad.Above("pct", r.Pct, 0, 10, "%")
	} else if !(r.Pct >= 1 && r.Pct <= 3) {
		bad.Add("pct", "must be between 1 %% and 3 %% unless the sheet of the product allows otherwise, not %.3g %%",
			r.Pct)
	}
	bad.Range("catalystKgL", r.CatalystKgL, 0.5, 2, "kg/L")
	if err := bad.Err(); err != nil {
		return PeroxideResult{}, err
	}
	w := working.New()
	kg := r.ResinKg
	if r.ResinL > 0 {
		w.In("Resin", r.ResinL, "L")
		kg = w.Step("Resin, weight", "litres · density", r.ResinL*r.ResinKgL, "kg", "density of the sheet")
	} else {
		w.In("Resin", kg, "kg")
	}
	w.In("Catalyst", r.Pct, "%")
	g := w.Step("Catalyst", "resin · per cent", kg*10*r.Pct, "g", "per cent by weight of the resin")
	ml := w.Step("Catalyst, volume", "grams / density", g/r.CatalystKgL, "mL", "density of the catalyst")
	w.Warn("Peroxide burns eyes and skin: goggles and gloves. Never let it touch cobalt or acetone directly.")
	return PeroxideResult{g, ml, w}, nil
}
