package nonskid

import (
	"math"

	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/finish/craft"
)

// traceOffPct is how far the traced deck may be off the surveyed one, which leaves margins
// out, before it is said.
const traceOffPct = 15

// tapeH is how long masking for non-skid may stay, h: a rule of thumb for crêpe tape.
const tapeH = 24

// where are the panels that are laid.
func (l Layout) where() *step.Where {
	out := &step.Where{Name: "panels"}
	for _, p := range l.Panels {
		if p.Order > 0 {
			out.Patches = append(out.Patches, step.Patch{Name: p.Name, AreaM2: p.AreaM2})
		}
	}
	return out
}

// Plan turns a layout into the work on the deck, with the sheet of what is laid on the
// panels and the area of the deck as surveyed. What is laid becomes the film of the
// panels; a dose outside the sheet's film is found.
func (w Work) Plan(l *Layout, sheet product.Sheet, surveyedM2 float64) []craft.Step {
	if l.DeckM2 > 0 && surveyedM2 > 0 && math.Abs(l.DeckM2/surveyedM2-1) > traceOffPct/100. {
		l.find(false, "The traced deck has %.3g m² and the survey %.3g m²: one of the two is not the deck.", l.DeckM2,
			surveyedM2)
	}
	at := l.where()
	if len(at.Patches) == 0 || w.School == Moulded {
		return []craft.Step{}
	}
	plan := craft.New()
	m2 := at.AreaM2(0)
	plan.Do(craft.Work("wash", "", message.Of("warm water and detergent, rinse, let dry"), m2/25+0.25, 0).As(
		step.Wash).At(at))
	plan.Do(craft.Work("key", "", message.Of("no shiny spot left in the panels; dust off"), 0, 0).With(120, 20).At(at))
	if w.School == Mats {
		plan.Do(craft.Work("mats", "lay the mats", l.Takes.Spread, l.Hours, 0).At(at).Of(float64(len(at.Patches)),
			"mats"))
		return plan.Steps
	}
	mask := craft.Work("mask", "mask the panels",
		message.Of("edges pressed down, corners rounded; pull the tape while it is wet"), 0, 0).As(step.Mask).At(at).Of(
		l.MaskM+l.TwiceM, "m")
	mask.TapeM, mask.Tape, mask.TapeH, mask.Pull = l.Takes.TapeM, "crepe", tapeH, step.WhileWet
	plan.Do(mask)
	roller, _ := film.MethodByKey("roller")
	one := craft.Coats("panels", "main", 1, sheet.Film.TypicalUm, roller, l.Hours+0.5, l.Takes.Spread).At(at)
	if w.School == Paint && l.Takes.Litres > 0 {
		one.LossPct = w.Texture.WastePct
		one.Coats, one.DFTUm = l.coats(w.Texture, sheet)
		one.How = l.Takes.Spread
		one = one.Of(l.Takes.Litres, "L")
	} else {
		one = one.Of(l.Takes.GritKg, "kg")
	}
	one.DFTUm = math.Max(1, one.DFTUm)
	plan.Do(one)
	return plan.Steps
}

// coats are how many coats of the paint its texture takes, and the dry film of each, µm: by roller as
// many as bring each within the sheet, by trowel one.
func (l *Layout) coats(t Texture, sheet product.Sheet) (n int, dftUm float64) {
	n, dftUm = 1, l.Takes.PerM2*10*sheet.VolumeSolidsPct
	f := sheet.Film
	if t.Tool == Roller && f.MaxUm > 0 {
		n = max(1, int(math.Ceil(dftUm/(f.MaxUm*1.02))))
		dftUm /= float64(n)
	}
	l.Takes.Coats = n
	if n > 1 {
		l.Takes.Spread = message.Of(
			"Lay it in %d coats, for each weigh out %.2g L/m² and use it all: roll it on, draw the texture up in one direction in the last, and do not go back.", n, l.Takes.PerM2/float64(n))
	}
	switch {
	case f.MaxUm > 0 && dftUm > f.MaxUm*1.02:
		l.find(false,
			"%.2g L/m² make %.0f µm dry, and the sheet of %s ends at %.0f µm: it skins over what stays soft, and slides off upright faces. Ask its maker, or lay less.", l.Takes.PerM2, dftUm, sheet.Name, f.MaxUm)
	case dftUm < f.MinUm*0.98:
		l.find(false, "%.2g L/m² make %.0f µm dry, and the sheet of %s begins at %.0f µm: lay more.", l.Takes.PerM2,
			dftUm, sheet.Name, f.MinUm)
	}
	return n, dftUm
}

// Stopped returns the first finding that stops it, none if none does.
func (l Layout) Stopped() message.Sentence { return craft.Plan{Findings: l.Findings}.Stopped() }
