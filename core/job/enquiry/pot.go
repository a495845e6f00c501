package enquiry

import (
	"cmp"
	"math"

	"allcoats/core/base/fault"
	"allcoats/core/base/say"
	"allcoats/core/catalog/tins"
	"allcoats/core/film/film"
	"allcoats/core/film/mix"
	"allcoats/core/job/lay"
)

// film is the coat's, with its method and the loss by it as the sheet has it.
func (a Ask) film() (film.Result, film.Method, error) {
	m, ok := film.MethodByKey(a.Method)
	if !ok {
		return film.Result{}, m, fault.At("method", "is not a way to lay a coat")
	}
	if own, ok := a.Sheet.LossPct[a.Method]; ok {
		m.LossPct, m.LossMinPct, m.LossMaxPct = own, min(own, m.LossMinPct), max(own, m.LossMaxPct)
	}
	var bad fault.Errors
	bad.Range("coats", float64(a.Coats), 0, 40, "coats")
	bad.Range("areaM2", a.AreaM2, 0, 20e3, "m²")
	if err := bad.Err(); err != nil {
		return film.Result{}, m, err
	}
	r, err := film.Compute(film.Request{VolumeSolidsPct: a.Sheet.VolumeSolidsPct, DFTUm: a.DFTUm, ThinnerPct: a.ThinnerPct, AreaM2: a.AreaM2, Coats: max(1, a.Coats), LossPct: m.LossPct})
	return r, m, err
}

// howMuch tells the litres for an area and what to buy for them.
func howMuch(out *Answer, a Ask) error {
	if !(a.AreaM2 > 0) {
		return fault.At("areaM2", "say how large it is")
	}
	r, m, err := a.film()
	if err != nil {
		return err
	}
	out.gear(a)
	out.Working = r.Working
	coats := max(1, a.Coats)
	each := say.Of("%d coats", coats)
	if coats == 1 {
		each = say.Of("one coat")
	}
	what := say.Of("%v for %v of %v on %v", say.Strong(a.Sheet.Name), each, say.Val(a.DFTUm, "µm"), say.Val(a.AreaM2, "m²"))
	if buy, ok := tins.Cover(r.PracticalL, a.Sheet, tins.Stock{}); ok {
		list := say.Sentence{}
		for i, t := range buy.Tins {
			if i > 0 {
				list = say.Of("%v and ", list)
			}
			list = say.Of("%v%d × %s", list, t.Count, t.Name)
		}
		out.Says = say.Of("Buy %v: you need %v of ", list, say.Val(r.PracticalL, "L"))
		out.fact("Left over", "%v", say.Val(buy.LeftoverL, "L"))
		if buy.Priced {
			out.fact("Costs", "about %.0f %s by the prices of the library", math.Ceil(float64(buy.CostCents)/100), cmp.Or(a.Currency, "(no currency is set)"))
		}
	} else {
		out.Says = say.Of("You need %v of ", say.Val(r.PracticalL, "L"))
	}
	out.Says = say.Of("%v%v.", out.Says, what)
	least, most := need(r, m.LossMinPct), need(r, m.LossMaxPct)
	out.Detail = say.Of("With %v %% lost by %s; between %v and %v as the hand is.", say.Text("%.3g", m.LossPct), m.Name, say.Val(least, "L"), say.Val(most, "L"))
	if a.AreaPct > 0 { // independent errors, as ranges
		hand := (most - least) / 2 / r.PracticalL
		pm := math.Hypot(hand, a.AreaPct/100)
		out.Detail = say.Of("The area is ±%.0f %% from length and beam, and %.3g %% are lost by %s: between %v and %v. Measure it before you buy.", a.AreaPct, m.LossPct, m.Name,
			say.Val(r.PracticalL*(1-pm), "L"), say.Val(r.PracticalL*(1+pm), "L"))
	}
	out.fact("One coat", "%v", say.Val(r.PracticalL/float64(coats), "L"))
	if m.RateM2H > 0 {
		out.fact("Laying", "about %v of one person a coat", say.Val(a.AreaM2/m.RateM2H, "h"))
	}
	return nil
}

// need is the litres at a loss.
func need(r film.Result, lossPct float64) float64 { return r.TheoreticalL / (1 - lossPct/100) }

// howMixed tells what to pour for litres of mix, or for a coat of an area.
func howMixed(out *Answer, a Ask) error {
	if a.Litres == 0 && a.AreaM2 > 0 {
		a.Coats = 1
		r, _, err := a.film()
		if err != nil {
			return err
		}
		a.Litres = r.PracticalL
		out.fact("For", "one coat of %v: %v", say.Val(a.AreaM2, "m²"), say.Val(a.Litres, "L"))
	}
	if !(a.Litres > 0) {
		return fault.At("litres", "say how much is to be mixed")
	}
	var bad fault.Errors
	bad.Range("tempC", a.TempC, -10, 45, "°C")
	if err := bad.Err(); err != nil {
		return err
	}
	pot, err := mix.Fill(mix.PotRequest{Sheet: a.Sheet, Litres: a.Litres, ThinnerPct: a.ThinnerPct, TempC: a.TempC})
	if err != nil {
		return err
	}
	out.gear(a)
	out.Working = pot.Working
	if len(pot.Targets) == 1 {
		out.Says = say.Of("%v: one part, nothing to mix. Stir %v well.", say.Strong(a.Sheet.Name), say.Val(a.Litres, "L"))
	} else {
		out.Says = say.Sentence{}
		for i, t := range pot.Targets {
			between := ", then "
			if i == 0 {
				between = "Pour "
			}
			out.Says = say.Of("%v%s%v of %v", out.Says, between, say.Val(t.AddML, "mL"), say.Strong(t.What))
			if t.AddG != nil {
				out.Says = say.Of("%v (%v)", out.Says, say.Val(*t.AddG, "g"))
			}
		}
		out.Says = say.Of("%v.", out.Says)
	}
	switch life := mix.PotLifeH(a.Sheet, a.Litres, a.TempC); {
	case len(pot.Targets) == 1:
		out.Detail = say.Of("No pot life is stated for it: keep the lid on.")
	case math.IsInf(life, 0):
		out.Detail = say.Of("The sheet states no pot life: mix no more than you lay in a quarter of an hour.")
	default:
		out.Detail = say.Of("Use it within %v at %v: big pots go off sooner, a tray later.", say.Val(life, "h"), say.Val(a.TempC, "°C"))
	}
	if a.Sheet.InductionMin > 0 {
		out.fact("Let it stand", "%.0f min after mixing, within its pot life", a.Sheet.InductionMin)
	}
	if a.TempC < a.Sheet.MinCureC {
		out.Says = say.Of("%v: under %v it does not cure. %v", say.Strong("Too cold to use"), say.Val(a.Sheet.MinCureC, "°C"), out.Says)
	}
	return nil
}

// howThick tells the wet film that leaves a dry one, and what it comes to.
func howThick(out *Answer, a Ask) error {
	a.Coats = 1
	r, m, err := a.film()
	if err != nil {
		return err
	}
	out.gear(a)
	out.Working = r.Working
	comb := lay.OnComb(r.WFTUm)
	out.Says = say.Of("%v: %v on the comb leaves %v dry.", say.Strong("Lay it wet"), say.Val(r.WFTUm, "µm"), say.Val(a.DFTUm, "µm"))
	if comb.DryUm > 0 {
		out.Says = say.Of("%v: the %v tooth wet, the %v tooth dry leaves %v dry.", say.Sentence{say.Strong("Lay it "), say.Val(r.WFTUm, "µm"), say.Strong(" wet")},
			say.Val(comb.WetUm, "µm"), say.Val(comb.DryUm, "µm"), say.Val(a.DFTUm, "µm"))
	}
	f := a.Sheet.Film
	switch {
	case f.MaxUm > 0 && a.DFTUm > f.MaxUm:
		out.Detail = say.Of("That is more than the sheet lays in one coat (%v): lay it in two, or it sags and stays soft.", say.Val(f.MaxUm, "µm"))
	case a.DFTUm < f.MinUm:
		out.Detail = say.Of("That is less than the sheet asks of a coat (%v).", say.Val(f.MinUm, "µm"))
	default:
		out.Detail = say.Of("The sheet lays %v to %v dry in a coat.", say.Val(f.MinUm, "µm"), say.Val(f.MaxUm, "µm"))
	}
	if a.ThinnerPct > a.Sheet.ThinnerMaxPct {
		out.Detail = say.Of("%v The sheet allows %.3g %% thinner.", out.Detail, a.Sheet.ThinnerMaxPct)
	}
	out.fact("Goes", "%v with %.3g %% lost by %s", say.Val(r.PracticalRateM2L, "m²/L"), m.LossPct, m.Name)
	return nil
}
