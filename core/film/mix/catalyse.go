package mix

import (
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/physics/cure"
)

// Dose is the catalyst of a pot.
type Dose struct {
	Pct  float64 `json:"pct"`
	G    float64 `json:"g"`
	ML   float64 `json:"mL"`
	GelH float64 `json:"gelH"` // of the whole pot
	// Drops is the catalyst counted, where it is too little to be weighed; LeastL is the
	// smallest pot whose catalyst a kitchen scale weighs.
	Drops    float64           `json:"drops"`
	LeastL   float64           `json:"leastL"`
	Findings []message.Finding `json:"findings"`
}

// What a kitchen scale in tenths of a gram weighs to a tenth of it, and a drop of peroxide, g:
// rules of thumb.
const (
	weighableG = 1.0
	dropG      = 0.035
)

// usualPct is the catalyst where a sheet gives no table: a rule of thumb.
const usualPct = 2.0

// Catalyse doses litres of a polyester at a temperature: pct per cent by weight, or 0
// for what the sheet says. It refuses less than 1 or more than 3 % unless the sheet
// goes there. The pot life is the sheet's for its own dose; it goes with the inverse of
// the dose, a rule of thumb.
func Catalyse(s product.Sheet, tempC, pct, litres float64) (Dose, error) {
	out := Dose{Findings: []message.Finding{}}
	find := func(stop bool, words string) {
		out.Findings = append(out.Findings, message.Finding{Stop: stop, Text: message.Lit(words)})
	}
	own, tabled := s.DosePct(tempC)
	if !tabled {
		own = usualPct
		find(false, "The sheet has no table of catalyst: 2 % are taken, a rule of thumb.")
	} else if lo, hi := s.Doses[0].TempC, s.Doses[len(s.Doses)-1].TempC; tempC < lo || tempC > hi {
		find(true, "The sheet doses no catalyst at this temperature: it would gel too slowly to cure, or in the pot.")
	}
	out.Pct = pct
	if pct == 0 {
		out.Pct = own
	}
	kgL := s.BaseKgL
	if kgL == 0 {
		kgL = 1.2
	}
	allowed := false
	for _, d := range s.Doses {
		allowed = allowed || d.Pct < 1 && out.Pct >= d.Pct || d.Pct > 3 && out.Pct <= d.Pct
	}
	p, err := Peroxide(PeroxideRequest{ResinL: litres, ResinKgL: kgL, Pct: out.Pct, CatalystKgL: usualCatalystKgL,
		SheetAllowed: allowed})
	if err != nil {
		if pct == 0 {
			return out, fielderr.At("tempC", "the sheet doses %.3g %% here, outside 1 to 3 %%", own)
		}
		return out, err
	}
	out.G, out.ML = p.CatalystG, p.CatalystML
	out.LeastL = weighableG / (kgL * 1000 * out.Pct / 100)
	if out.G < weighableG {
		out.Drops = math.Max(1, math.Round(out.G/dropG))
		out.Findings = append(out.Findings,
			message.Finding{Text: message.Of(
				"%.2g g of catalyst cannot be weighed: count %g drops from a pipette, or mix a pot of %v at least.",
				out.G, out.Drops, message.Val(out.LeastL, "L"))})
	}
	if tau, _ := s.PotLife.TauH(tempC, cure.Maximum); len(s.PotLife) > 0 && !math.IsInf(tau, 1) {
		out.GelH = tau * MassFactor(s, litres) * own / out.Pct
	}
	return out, nil
}
