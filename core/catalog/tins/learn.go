package tins

import (
	"math"

	"allcoats/core/base/working"
	"allcoats/core/catalog/product"

	"gonum.org/v1/gonum/stat/distuv"
)

// Used is a coat that was laid: the litres reckoned for it and those it took.
type Used struct {
	Reckoned float64 `json:"reckonedL"`
	Taken    float64 `json:"takenL"`
}

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

// coatPct is how much one coat of a surface scatters from the next, one
// standard deviation: a rule of thumb.
const coatPct = 8

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

// Learn forecasts the litres of coats to come, reckoned litres each in coming,
// from coats of the same product on the same surface. The factor of use to
// reckoning is log-normal: before any coat it is 1 with standard deviation
// priorPct (area and loss), each coat tells it with coatPct.
func Learn(priorPct float64, laid []Used, coming []float64, c Costs) Forecast {
	w := working.New()
	prior, coat := math.Log1p(priorPct/100), math.Log1p(coatPct/100.)
	prior = max(prior, 1e-3)
	precision := 1 / (prior * prior)
	sum := 0.0
	w.In("Uncertainty of the reckoning", priorPct, "%")
	n := 0
	for _, u := range laid {
		if u.Reckoned > 0 && u.Taken > 0 {
			sum += math.Log(u.Taken/u.Reckoned) / (coat * coat)
			precision += 1 / (coat * coat)
			n++
			w.In("A coat: used", u.Taken, "L")
			w.In("A coat: reckoned", u.Reckoned, "L")
		}
	}
	mean, variance := sum/precision, 1/precision
	total := 0.0
	for _, l := range coming {
		total += l
	}
	f := Forecast{Coats: n, Factor: w.Step("Use to reckoning, learned", "exp of the posterior mean of ln(used / reckoned)", math.Exp(mean), "", "Bayes, log-normal")}
	// The coats' own scatter averages out over those to come.
	sd := math.Sqrt(variance + coat*coat/float64(max(1, len(coming))))
	w.Step("Uncertainty of what is to come", "√(posterior variance + scatter of a coat² / coats)", 100*math.Expm1(sd), "%", "scatter of a coat ±8 %: rule of thumb")
	z := distuv.UnitNormal
	at := func(q float64) float64 { return total * math.Exp(mean+sd*z.Quantile(q)) }
	if total > 0 {
		f.LitresL = w.Step("Litres to come", "reckoned · factor", total*f.Factor, "L", "learned")
		f.LowL = w.Step("80 % range, low", "10 % quantile", at(0.1), "L", "log-normal")
		f.HighL = w.Step("80 % range, high", "90 % quantile", at(0.9), "L", "log-normal")
		q := w.Step("Chance to have enough", "cost of a stop / (cost of a stop + cost of a spare tin)",
			min(0.99, max(0.5, float64(c.StopCents)/float64(max(1, c.StopCents+c.SpareCents)))), "", "newsvendor rule, kept within 0.5 and 0.99")
		f.BuyL = w.Step("Litres to have at hand", "that quantile", at(q), "L", "log-normal")
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
	out.LowL = w.Step("80 % range, low", "litres − √Σ (litres − low)²", out.LitresL-math.Sqrt(low), "L", "boats independent of one another")
	out.HighL = w.Step("80 % range, high", "litres + √Σ (high − litres)²", out.LitresL+math.Sqrt(high), "L", "boats independent of one another")
	out.BuyL = w.Step("Litres to have at hand", "litres + √Σ (at hand − litres)²", out.LitresL+math.Copysign(math.Sqrt(math.Abs(buy)), buy), "L", "boats independent of one another")
	return out
}
