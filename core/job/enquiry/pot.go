package enquiry

import (
	"cmp"
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/catalog/purchase"
	"allcoats/core/film/film"
	"allcoats/core/film/mix"
	"allcoats/core/job/application"
)

// film is the coat's, with its method and the loss by it as the sheet has it.
func (a Ask) film() (film.Result, film.Method, error) {
	m, ok := film.MethodByKey(a.Method)
	if !ok {
		return film.Result{}, m, fielderr.At("method", "is not a way to lay a coat")
	}
	if own, ok := a.Sheet.LossPct[a.Method]; ok {
		m.LossPct, m.LossMinPct, m.LossMaxPct = own, min(own, m.LossMinPct), max(own, m.LossMaxPct)
	}
	var bad fielderr.Errors
	bad.Range("coats", float64(a.Coats), 0, 40, "coats")
	bad.Range("areaM2", a.AreaM2, 0, 20e3, "m²")
	if err := bad.Err(); err != nil {
		return film.Result{}, m, err
	}
	r, err := film.Compute(film.Request{VolumeSolidsPct: a.Sheet.VolumeSolidsPct, DFTUm: a.DFTUm,
		ThinnerPct: a.ThinnerPct, AreaM2: a.AreaM2, Coats: max(1, a.Coats), LossPct: m.LossPct})
	return r, m, err
}

// howMuch tells the litres for an area and what to buy for them.
func howMuch(out *Answer, a Ask) error {
	if !(a.AreaM2 > 0) {
		return fielderr.At("areaM2", "say how large it is")
	}
	r, m, err := a.film()
	if err != nil {
		return err
	}
	out.gear(a)
	out.Working = r.Working
	coats := max(1, a.Coats)
	each := message.Of("%d coats", coats)
	if coats == 1 {
		each = message.Of("one coat")
	}
	what := message.Of("%v for %v of %v on %v", message.Strong(a.Sheet.Name), each, message.Val(a.DFTUm, "µm"),
		message.Val(a.AreaM2, "m²"))
	if buy, ok := purchase.Cover(r.PracticalL, a.Sheet, purchase.Stock{}); ok {
		list := message.Sentence{}
		for i, t := range buy.Tins {
			if i > 0 {
				list = message.Of("%v and ", list)
			}
			list = message.Of("%v%d × %s", list, t.Count, t.Name)
		}
		out.Says = message.Of("Buy %v: you need %v of ", list, message.Val(r.PracticalL, "L"))
		out.fact("Left over", "%v", message.Val(buy.LeftoverL, "L"))
		if buy.Priced {
			out.fact("Costs", "about %.0f %s by the prices of the library", math.Ceil(float64(buy.CostCents)/100),
				cmp.Or(a.Currency, "(no currency is set)"))
		}
	} else {
		out.Says = message.Of("You need %v of ", message.Val(r.PracticalL, "L"))
	}
	out.Says = message.Of("%v%v.", out.Says, what)
	least, most := need(r, m.LossMinPct), need(r, m.LossMaxPct)
	out.Detail = message.Of("With %v %% lost by %s; between %v and %v as the hand is.", message.Text("%.3g", m.LossPct),
		m.Name, message.Val(least, "L"), message.Val(most, "L"))
	if a.AreaPct > 0 { // independent errors, as ranges
		hand := (most - least) / 2 / r.PracticalL
		pm := math.Hypot(hand, a.AreaPct/100)
		out.Detail = message.Of(
			"The area is ±%.0f %% from length and beam, and %.3g %% are lost by %s: between %v and %v. Measure it before you buy.", a.AreaPct, m.LossPct, m.Name,
			message.Val(r.PracticalL*(1-pm), "L"), message.Val(r.PracticalL*(1+pm), "L"))
	}
	out.fact("One coat", "%v", message.Val(r.PracticalL/float64(coats), "L"))
	if m.RateM2H > 0 {
		out.fact("Laying", "about %v of one person a coat", message.Val(a.AreaM2/m.RateM2H, "h"))
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
		out.fact("For", "one coat of %v: %v", message.Val(a.AreaM2, "m²"), message.Val(a.Litres, "L"))
	}
	if !(a.Litres > 0) {
		return fielderr.At("litres", "say how much is to be mixed")
	}
	var bad fielderr.Errors
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
		out.Says = message.Of("%v: one part, nothing to mix. Stir %v well.", message.Strong(a.Sheet.Name),
			message.Val(a.Litres, "L"))
	} else {
		out.Says = message.Sentence{}
		for i, t := range pot.Targets {
			between := ", then "
			if i == 0 {
				between = "Pour "
			}
			out.Says = message.Of("%v%s%v of %v", out.Says, between, message.Val(t.AddML, "mL"), message.Strong(t.What))
			if t.AddG != nil {
				out.Says = message.Of("%v (%v)", out.Says, message.Val(*t.AddG, "g"))
			}
		}
		out.Says = message.Of("%v.", out.Says)
	}
	switch life := mix.PotLifeH(a.Sheet, a.Litres, a.TempC); {
	case len(pot.Targets) == 1:
		out.Detail = message.Of("No pot life is stated for it: keep the lid on.")
	case math.IsInf(life, 0):
		out.Detail = message.Of("The sheet states no pot life: mix no more than you lay in a quarter of an hour.")
	default:
		out.Detail = message.Of("Use it within %v at %v: big pots go off sooner, a tray later.", message.Val(life, "h"),
			message.Val(a.TempC, "°C"))
	}
	if a.Sheet.InductionMin > 0 {
		out.fact("Let it stand", "%.0f min after mixing, within its pot life", a.Sheet.InductionMin)
	}
	if a.TempC < a.Sheet.MinCureC {
		out.Says = message.Of("%v: under %v it does not cure. %v", message.Strong("Too cold to use"),
			message.Val(a.Sheet.MinCureC, "°C"), out.Says)
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
	comb := application.OnComb(r.WFTUm)
	out.Says = message.Of("%v: %v on the comb leaves %v dry.", message.Strong("Lay it wet"), message.Val(r.WFTUm, "µm"),
		message.Val(a.DFTUm, "µm"))
	if comb.DryUm > 0 {
		out.Says = message.Of("%v: the %v tooth wet, the %v tooth dry leaves %v dry.",
			message.Sentence{message.Strong("Lay it "), message.Val(r.WFTUm, "µm"), message.Strong(" wet")},
			message.Val(comb.WetUm, "µm"), message.Val(comb.DryUm, "µm"), message.Val(a.DFTUm, "µm"))
	}
	f := a.Sheet.Film
	switch {
	case f.MaxUm > 0 && a.DFTUm > f.MaxUm:
		out.Detail = message.Of(
			"That is more than the sheet lays in one coat (%v): lay it in two, or it sags and stays soft.",
			message.Val(f.MaxUm, "µm"))
	case a.DFTUm < f.MinUm:
		out.Detail = message.Of("That is less than the sheet asks of a coat (%v).", message.Val(f.MinUm, "µm"))
	default:
		out.Detail = message.Of("The sheet lays %v to %v dry in a coat.", message.Val(f.MinUm, "µm"),
			message.Val(f.MaxUm, "µm"))
	}
	if a.ThinnerPct > a.Sheet.ThinnerMaxPct {
		out.Detail = message.Of("%v The sheet allows %.3g %% thinner.", out.Detail, a.Sheet.ThinnerMaxPct)
	}
	out.fact("Goes", "%v with %.3g %% lost by %s", message.Val(r.PracticalRateM2L, "m²/L"), m.LossPct, m.Name)
	return nil
}
