package application

import (
	"slices"
	"strings"

	"allcoats/core/base/message"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
)

// Gear lists what to wear and mind with a product laid by a method. It defers to the
// data sheet.
func Gear(s product.Sheet, method string) []message.Sentence {
	m, _ := film.MethodByKey(method)
	out := []message.Sentence{message.Of("Goggles, gloves, arms covered")}
	add := func(text string) { out = append(out, message.Lit(text)) }
	two := s.BaseShare() < 1
	switch {
	case s.Binder == product.Polyurethane && two && m.Spray:
		add("Isocyanates: spray only with supplied air, nobody else near")
	case s.Binder == product.Polyurethane:
		add("Isocyanates: an organic-vapour mask and moving air even with the brush; who is sensitised stays away")
	case s.Binder == product.Epoxy:
		add("Nitrile gloves, changed often: epoxy sensitises. Never wash skin with solvent")
	}
	if len(s.Doses) > 0 {
		add("Peroxide: goggles before the bottle is opened, never with cobalt or acetone; eyewash at hand")
		add("Styrene: moving air, no cabin without a watcher")
	}
	if s.Kind.Info().Antifouling {
		add("Antifouling: nothing to the ground or the water; never dry-sanded")
	}
	if m.Spray {
		add("Spray: a full mask with the sheet's filter, no flame, hose earthed")
	} else if s.VolumeSolidsPct < 90 && s.Binder != product.Polyurethane {
		add("Solvent: air through the tent or locker, no heater, stove or switch that sparks")
	}
	if s.Binder == product.Oil || s.Binder == product.Alkyd {
		add("Oily rags heat themselves: spread them out, or under water in a tin")
	}
	return out
}

// Defers is what comes before all that is told of safety.
const Defers = "The data sheet, local rules and licensed practice come first."

// Site is where a step is done: inside the hull, on what, and over which old layers and film.
type Site struct {
	Inside    bool
	Substrate survey.Substrate
	Old       []survey.Layer
	Over      product.Sheet // the film that it is done to, empty without one
}

// Mind lists what to wear and mind at a step, by what is laid or abraded, how and where. It
// defers to the data sheet.
func Mind(s step.Step, at Site) (out []message.Sentence) {
	add := func(when bool, text string) {
		if when {
			out = append(out, message.Lit(text))
		}
	}
	kind := s.Work.Kind()
	if kind.Films {
		out = Gear(s.Sheet, s.Method)
		add(at.Inside && s.Sheet.Isocyanate(),
			"Closed space with isocyanate: supplied air, fresh air blown in low, somebody outside")
		add(at.Inside && s.Sheet.VolumeSolidsPct < 90,
			"Closed space: fresh air blown in low, somebody outside, no flame, no hot work, no switch that sparks")
		return out
	}
	old := func(kinds ...survey.LayerKind) bool {
		return slices.ContainsFunc(at.Old, func(l survey.Layer) bool { return slices.Contains(kinds, l.Kind) })
	}
	bare := at.Over.Name == ""
	if kind.Removes {
		foul := at.Over.Kind.Info().Antifouling || bare && old(survey.OldAntifouling)
		add(foul, "Antifouling: wet only, never a machine dry; P3 mask, coverall; slurry and wash water caught")
		add(!foul && bare && old(survey.OldUnknown, survey.OldOnePart, survey.OldTwoPart, survey.OldPrimer),
			"Old paint may hold lead or chromate: test it first; if it does, stop")
		add(at.Over.Binder == product.Epoxy || at.Over.Kind.Info().Filler,
			"Epoxy dust sensitises while it is young: extraction, P2 mask, sleeves")
		add(at.Over.Isocyanate(), "Dust of young polyurethane: extraction, P2 mask")
		add(bare && at.Substrate.Info().Wood && !foul, "Hardwood dust harms lungs and nose: extraction, P2 mask")
		add(bare && !at.Substrate.Info().Wood && !at.Substrate.Info().Metal && !foul,
			"Laminate dust itches and harms lungs: extraction, P3 mask, coverall")
		add(bare && at.Substrate == survey.Lead, "Lead: no dry dust, P3 mask, wash before eating")
		said := strings.ToLower(s.Agent + " " + s.Note)
		add(strings.Contains(said, "blast"), "Blasting: helmet with air, nobody near, grit caught")
		add(strings.Contains(said, "heat") || strings.Contains(said, "torch"),
			"Heat: never over old lead paint, no solvent near, an extinguisher at hand")
		add(strings.Contains(said, "stripper") || strings.Contains(said, "chemical"),
			"Stripper: butyl gloves, goggles, moving air; keep it off laminate for longer than its sheet says")
	}
	if s.Work == step.Degrease && s.Agent != "detergent" {
		add(true, "Solvent: gloves, moving air, no flame, hot work or unvented heater near; earth the can when pouring")
		add(true, "Solvent rags: into a lidded metal tin, out of the boat at night")
		add(at.Inside, "Closed space: fresh air blown in low, somebody outside")
	}
	return out
}
