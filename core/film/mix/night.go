package mix

import (
	"math"

	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/physics/cure"
)

// Night is the catalyst that sets a coat before it gets dark and cold.
type Night struct {
	// Pct is the dose, 0 if none does it; SetH when it is tack-free with it, or with the most
	// that is allowed, h.
	Pct  float64          `json:"pct"`
	SetH float64          `json:"setH"`
	Says message.Sentence `json:"says"`
}

// The least and the most peroxide that a sheet without others allows, % by weight.
const leastPct, mostPct = 1.0, 3.0

// ByNight is the dose with which a coat laid now at tempC is tack-free in so many hours. The
// sheet's time is for its own dose; it goes with the inverse of the dose, a rule of thumb.
func ByNight(s product.Sheet, tempC, hours float64) Night {
	own, ok := s.DosePct(tempC)
	set, _ := s.TackFree.TauH(tempC, cure.Minimum)
	switch {
	case hours <= 0:
		return Night{Says: message.Lit("It is dark: lay it tomorrow.")}
	case !ok || len(s.TackFree) == 0 || tempC < s.MinCureC || math.IsInf(set, 1):
		return Night{Says: message.Of("Not today: the sheet has no dose that sets at %v.", message.Val(tempC, "°C"))}
	}
	most, least := mostPct, leastPct
	for _, d := range s.Doses {
		most, least = max(most, d.Pct), min(least, d.Pct)
	}
	pct := set * own / hours
	if pct > most {
		soonest := set * own / most
		return Night{SetH: soonest,
			Says: message.Of("Not today: even with %.3g %% it takes %.2g h to set, and it is light for %.2g h more.",
				most, soonest, hours)}
	}
	pct = max(least, math.Ceil(pct*10-1e-9)/10)
	if pct < own {
		pct = own // what the sheet doses sets in time
	}
	return Night{pct, set * own / pct,
		message.Of("Set before night with %.3g %%: tack-free in %.2g h, and it is light for %.2g h more.", pct,
			set*own/pct, hours)}
}
