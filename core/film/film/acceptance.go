package film

import (
	"fmt"
	"math/big"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
)

// AcceptanceRequest is the input of the film-acceptance calculator: readings of
// the dry film, µm. MaximumUm 0 sets none.
type AcceptanceRequest struct {
	NominalUm  float64   `json:"nominalUm"`
	MaximumUm  float64   `json:"maximumUm,omitempty"`
	ReadingsUm []float64 `json:"readingsUm"`
	AreaM2     float64   `json:"areaM2,omitempty"`
}

// AcceptanceResult is a verdict in the style of ISO 19840.
type AcceptanceResult struct {
	Accepted     bool            `json:"accepted"`
	Reasons      []string        `json:"reasons"`
	MeanUm       float64         `json:"meanUm"`
	Below80      int             `json:"below80Pct"`
	Between      int             `json:"from80Below100Pct"`
	AboveMaximum int             `json:"aboveMaximum"`
	Needed       int             `json:"readingsNeeded"`
	Working      working.Working `json:"working"`
}

// Reasons for refusing a film.
const (
	MeanLow      = "mean-below-nominal"
	ReadingLow   = "reading-below-80-pct"
	TooManyLow   = "more-than-20-pct-between-80-and-100-pct"
	AboveMaximum = "above-maximum"
)

// Readings returns how many readings an area in m² needs: 5 to 1 m², 10 to 3,
// 15 to 10, 20 to 30, 30 to 100, 10 more for each further 100 or part.
func Readings(areaM2 float64) int {
	for _, s := range []struct {
		to float64
		n  int
	}{{1, 5}, {3, 10}, {10, 15}, {30, 20}, {100, 30}} {
		if areaM2 <= s.to {
			return s.n
		}
	}
	n := 30
	for a := areaM2; a > 100; a -= 100 {
		n += 10
	}
	return n
}

// Accept judges readings: mean at least nominal, none under 80 % of it, fewer
// than 20 % of them between, none above the maximum. Comparisons are exact.
func Accept(r AcceptanceRequest) (AcceptanceResult, error) {
	var bad fielderr.Errors
	bad.Above("nominalUm", r.NominalUm, 0, 50e3, "µm")
	bad.Range("maximumUm", r.MaximumUm, 0, 200e3, "µm")
	if bad == nil && r.MaximumUm > 0 && r.MaximumUm < r.NominalUm {
		bad.Add("maximumUm", "must not be less than the nominal film")
	}
	bad.Range("areaM2", r.AreaM2, 0, 1e5, "m²")
	if len(r.ReadingsUm) == 0 {
		bad.Add("readingsUm", "there are no readings")
	}
	for i, v := range r.ReadingsUm {
		bad.Range(fmt.Sprintf("readingsUm[%d]", i), v, 0, 200e3, "µm")
	}
	if err := bad.Err(); err != nil {
		return AcceptanceResult{}, err
	}
	exact := func(v float64) *big.Rat { // the decimal as it is written
		q, _ := new(big.Rat).SetString(fmt.Sprint(v))
		return q
	}
	nominal, sum := exact(r.NominalUm), new(big.Rat)
	least := new(big.Rat).Mul(nominal, big.NewRat(4, 5))
	out := AcceptanceResult{Reasons: []string{}, Needed: Readings(r.AreaM2)}
	w := working.New()
	w.In("Nominal film", r.NominalUm, "µm")
	for i, v := range r.ReadingsUm {
		w.In(fmt.Sprintf("Reading %d", i+1), v, "µm")
		q := exact(v)
		sum.Add(sum, q)
		switch {
		case q.Cmp(least) < 0:
			out.Below80++
		case q.Cmp(nominal) < 0:
			out.Between++
		}
		if r.MaximumUm > 0 && q.Cmp(exact(r.MaximumUm)) > 0 {
			out.AboveMaximum++
		}
	}
	n := len(r.ReadingsUm)
	mean := sum.Quo(sum, big.NewRat(int64(n), 1))
	out.MeanUm, _ = mean.Float64()
	const source = "in the style of ISO 19840; the standard or the sheet that you work to wins"
	w.Step("Mean", "sum / number", out.MeanUm, "µm", source)
	w.Step("Below 80 % of nominal", "none is allowed", float64(out.Below80), "readings", source)
	w.Step("Between 80 % and nominal", "fewer than 20 % of the readings", float64(out.Between), "readings", source)
	refuse := func(when bool, reason string) {
		if when {
			out.Reasons = append(out.Reasons, reason)
		}
	}
	refuse(mean.Cmp(nominal) < 0, MeanLow)
	refuse(out.Below80 > 0, ReadingLow)
	refuse(5*out.Between >= n, TooManyLow)
	refuse(out.AboveMaximum > 0, AboveMaximum)
	out.Accepted = len(out.Reasons) == 0
	if r.AreaM2 > 0 && n < out.Needed {
		few := "too few to judge it by"
		if 5*n < out.Needed {
			few = "next to nothing is known of it"
		}
		w.Warn("Readings: %d, and %.3g m² needs %d: %s.", n, r.AreaM2, out.Needed, few)
	}
	out.Working = w
	return out, nil
}
