package purchase

import (
	"maps"
	"math"
	"slices"

	"allcoats/core/base/working"
	"allcoats/core/catalog/product"
)

// Forecast is how much more will be used: litres with an 80 % range, and the
// litres to have at hand so that a stop in mid-coat and a spare tin cost the
// same.
type Forecast struct {
	LitresL float64         `json:"litres"`
	LowL    float64         `json:"low"`
	HighL   float64         `json:"high"`
	BuyL    float64         `json:"buy"`
	Factor  float64         `json:"factor" doc:"litres used to litres reckoned, learned"`
	Coats   int             `json:"coats" doc:"logged coats that it was learned from"`
	Working working.Working `json:"working"`
}

// Costs of running out in mid-coat and of a spare tin, in cents.
type Costs struct {
	StopCents  int
	SpareCents int
}

// StopCents is what a stop in mid-coat is taken to cost, a day of sanding: a
// rule of thumb.
const StopCents = 15000

// SpareCents is the price of the cheapest tin of a sheet that is sold whole, 0
// if it gives no price.
func SpareCents(s product.Sheet) int {
	least := 0
	for _, t := range s.Tins {
		if t.PriceCents > 0 && t.Part == "" && (least == 0 || t.PriceCents < least) {
			least = t.PriceCents
		}
	}
	return least
}

// Forecast of coats to come, given the litres reckoned for each by surface, each taken with what
// is to be expected there.
func (u *Usage) Forecast(coming map[string][]float64, c Costs) Forecast {
	w := working.New()
	u.explain(&w)
	f := Forecast{Coats: u.Coats(), Factor: u.Factor().Median}
	reckoned := 0.0
	for _, s := range slices.Sorted(maps.Keys(coming)) {
		on := u.On(s).Median
		for _, l := range coming[s] {
			reckoned += l
			f.LitresL += l * on
		}
	}
	if reckoned > 0 {
		all := u.ToCome(coming)
		w.Step("Reckoned", "sum of the coats to come", reckoned, "L", "addition")
		f.Factor = w.Step("Your use on these surfaces", "Σ reckoned · use on its surface / Σ reckoned",
			f.LitresL/reckoned, "", "Bayes")
		w.Step("Litres to come", "reckoned · use", f.LitresL, "L", "learned")
		f.LowL = w.Step("80 % range, low", "10 % quantile: one person, surfaces and coats independent", all.At(0.1),
			"L", "sums of log-normals, Fenton 1960")
		f.HighL = w.Step("80 % range, high", "90 % quantile", all.At(0.9), "L", "the same")
		q := w.Step("Chance to have enough", "cost of a stop / (cost of a stop + cost of a spare tin)",
			min(0.99, max(0.5, float64(c.StopCents)/float64(max(1, c.StopCents+c.SpareCents)))), "",
			"newsvendor rule, kept within 0.5 and 0.99")
		f.BuyL = w.Step("Litres to have at hand", "that quantile", all.At(q), "L", "the same")
	}
	f.Working = w
	return f
}

// Together adds forecasts of one product for several boats up; what they are wrong by is
// taken to have nothing to do with one another.
func Together(all []Forecast) Forecast {
	if len(all) == 1 {
		return all[0]
	}
	out := Forecast{Working: working.New()}
	low, high, buy, reckoned := 0.0, 0.0, 0.0, 0.0
	for _, f := range all {
		out.LitresL += f.LitresL
		out.Coats += f.Coats
		reckoned += f.LitresL / math.Max(f.Factor, 1e-9)
		low += (f.LitresL - f.LowL) * (f.LitresL - f.LowL)
		high += (f.HighL - f.LitresL) * (f.HighL - f.LitresL)
		buy += math.Copysign((f.BuyL-f.LitresL)*(f.BuyL-f.LitresL), f.BuyL-f.LitresL)
		out.Working.In("Litres to come on a boat", f.LitresL, "L")
	}
	out.Factor = out.LitresL / math.Max(reckoned, 1e-9)
	w := &out.Working
	w.Step("Litres to come", "sum of the boats", out.LitresL, "L", "addition")
	out.LowL = w.Step("80 % range, low", "litres − √Σ (litres − low)²", out.LitresL-math.Sqrt(low), "L",
		"boats independent of one another")
	out.HighL = w.Step("80 % range, high", "litres + √Σ (high − litres)²", out.LitresL+math.Sqrt(high), "L",
		"boats independent of one another")
	out.BuyL = w.Step("Litres to have at hand", "litres + √Σ (at hand − litres)²", out.LitresL+
		math.Copysign(math.Sqrt(math.Abs(buy)), buy), "L", "boats independent of one another")
	return out
}
