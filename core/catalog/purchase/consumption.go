package purchase

import (
	"fmt"
	"math"
	"slices"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
)

// UseRequest is the input of the consumption calculator: coats that were logged, the standard
// uncertainty of each surface's area, and the coats to come on one of them. Tins are asked for
// only with TinL.
type UseRequest struct {
	Logged          []Coat             `json:"logged"`
	AreaSDPct       map[string]float64 `json:"areaSdPct"`
	PlannedSurface  string             `json:"plannedSurface"`
	ReckonedToComeL []float64          `json:"reckonedLitresOfCoatsToCome"`
	TinL            float64            `json:"tinL,omitempty"`
	StockL          float64            `json:"stockL,omitempty"`
	ServiceLevelPct float64            `json:"serviceLevelPct,omitempty" doc:"chance, in per cent, that what is bought is enough; 80 if not given"`
}

// UseResult is use over reckoning, the person's and on the planned surface, and the litres to
// come, medians with 80 % ranges.
type UseResult struct {
	Factor                 float64         `json:"factor"`
	Factor80Low            float64         `json:"factor80Low"`
	Factor80High           float64         `json:"factor80High"`
	SurfaceFactor          float64         `json:"surfaceFactor"`
	SurfaceFactor80Low     float64         `json:"surfaceFactor80Low"`
	SurfaceFactor80High    float64         `json:"surfaceFactor80High"`
	SpreadPct              float64         `json:"spreadPct" doc:"standard deviation of the litres to come, of their logarithm"`
	LitresToCome           float64         `json:"litresToCome"`
	Litres80Low            float64         `json:"litres80Low"`
	Litres80High           float64         `json:"litres80High"`
	Tins                   int             `json:"tins"`
	CoatsLikelyLoggedWrong []int           `json:"coatsLikelyLoggedWrong"`
	Working                working.Working `json:"working"`
}

func (r UseRequest) validate() error {
	var bad fielderr.Errors
	if len(r.Logged) > 500 {
		bad.Add("logged", "at most 500 coats are taken")
	}
	known := func(path, surface string) {
		if _, ok := r.AreaSDPct[surface]; !ok {
			bad.Add(path, "areaSdPct gives no uncertainty for %q", surface)
		}
	}
	for s, pct := range r.AreaSDPct {
		bad.Range("areaSdPct."+s, pct, 0, 60, "%")
	}
	for i, c := range r.Logged {
		at := fmt.Sprintf("logged[%d].", i)
		known(at+"surface", c.Surface)
		bad.Range(at+"reckonedL", c.ReckonedL, 0.001, 10000, "L")
		bad.Range(at+"loggedL", c.LoggedL, 0.001, 10000, "L")
	}
	known("plannedSurface", r.PlannedSurface)
	if len(r.ReckonedToComeL) > 100 {
		bad.Add("reckonedLitresOfCoatsToCome", "at most 100 coats are taken")
	}
	for i, l := range r.ReckonedToComeL {
		bad.Range(fmt.Sprintf("reckonedLitresOfCoatsToCome[%d]", i), l, 0.001, 10000, "L")
	}
	if r.TinL != 0 {
		bad.Range("tinL", r.TinL, 0.01, 1000, "L")
	}
	bad.Range("stockL", r.StockL, 0, 10000, "L")
	if r.ServiceLevelPct != 0 {
		bad.Range("serviceLevelPct", r.ServiceLevelPct, 1, 99.9, "%")
	}
	return bad.Err()
}

// Consumption learns from logged coats how many litres are to come, and how many tins are enough.
func Consumption(r UseRequest) (UseResult, error) {
	if err := r.validate(); err != nil {
		return UseResult{}, err
	}
	u := NewUsage(r.Logged, r.AreaSDPct)
	l := u.ToCome(map[string][]float64{r.PlannedSurface: r.ReckonedToComeL})
	own, on := u.Factor(), u.On(r.PlannedSurface)
	out := UseResult{Factor: own.Median, Factor80Low: own.Low, Factor80High: own.High, SurfaceFactor: on.Median,
		SurfaceFactor80Low: on.Low, SurfaceFactor80High: on.High,
		LitresToCome: l.At(0.5), Litres80Low: l.At(0.1), Litres80High: l.At(0.9), CoatsLikelyLoggedWrong: u.Wrong()}
	level := r.ServiceLevelPct
	if level == 0 {
		level = 80
	}
	out.Working = working.New()
	w := &out.Working
	u.explain(w, r.PlannedSurface)
	if !l.none {
		out.SpreadPct = w.Step("Spread of the litres to come", "ln(high / low) / 2.56",
			100*math.Log(out.Litres80High/out.Litres80Low)/2/1.2815515655, "%", "80 % of a normal spread")
		w.Step("Litres to come", "reckoned · factor, every coat with its own scatter", out.LitresToCome, "L",
			"median; sums of log-normals after Fenton 1960")
		w.Step("80 % range, low", "10 % quantile", out.Litres80Low, "L", "the same")
		w.Step("80 % range, high", "90 % quantile", out.Litres80High, "L", "the same")
	}
	if r.TinL > 0 {
		need := l.At(level / 100)
		out.Tins = max(0, int(math.Ceil((need-r.StockL)/r.TinL-1e-9)))
		w.In("Chance that it is enough", level, "%")
		w.Step("Litres to have at hand", "that quantile", need, "L", "the same")
		w.Step("Tins", "(at hand − stock) / tin, rounded up", float64(out.Tins), "", "whole tins")
	}
	return out, nil
}

// explain puts what was learned, and from what, into a working.
func (u *Usage) explain(w *working.Working, surfaces ...string) {
	w.In("Coats logged with their litres", float64(len(u.coats)), "")
	wrong := u.Wrong()
	for i, c := range u.coats {
		w.In("A coat: reckoned", c.ReckonedL, "L")
		w.In("A coat: used", c.LoggedL, "L")
		if slices.Contains(wrong, i) {
			w.Warn(
				"A coat logged with %.3g L where %.3g L were reckoned was more likely logged wrongly than laid so: it counts for next to nothing. Look at its entry.", c.LoggedL, c.ReckonedL)
		}
	}
	own := u.Factor()
	w.Step("Your use over the reckoning", "median of the posterior of ln(used / reckoned)", own.Median, "",
		"person ±20 %, coat ±12 %, area as measured; 3 % of coats logged wrongly: rules of thumb; Bayes")
	w.Step("Your use, 80 % range, low", "10 % quantile", own.Low, "", "Bayes")
	w.Step("Your use, 80 % range, high", "90 % quantile", own.High, "", "Bayes")
	for _, s := range surfaces {
		on := u.On(s)
		w.Step("On this surface, its area's error included", "median", on.Median, "", "Bayes")
	}
}
