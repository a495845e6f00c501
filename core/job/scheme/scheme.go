// Package scheme holds usual sequences of work for each kind of job, by the
// schools that practitioners follow, each with its reason.
package scheme

import (
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
)

// Trait is what a sheet must say of its product beyond its kind.
type Trait string

// Traits.
const (
	CopperFree Trait = "copper-free"
	Coppered   Trait = "copper"
	ZincRich   Trait = "zinc-rich"
	Waxed      Trait = "waxed"
	Unwaxed    Trait = "unwaxed"
	Light      Trait = "light" // swims: below 1 kg/L
)

// fits says whether a product has the trait. Without one it is for any job: neither
// zinc, which is for steel only, nor a clear topcoat.
func (t Trait) fits(s product.Sheet) bool {
	switch t {
	case CopperFree:
		return !s.Copper
	case Coppered:
		return s.Copper
	case ZincRich:
		return s.Zinc
	case Waxed:
		return s.Waxed
	case Unwaxed:
		return !s.Waxed
	case Light:
		return s.BaseKgL > 0 && s.BaseKgL < 1
	}
	return !s.Zinc && (s.Kind != product.TopcoatTwo || s.UVPerUm == 0)
}

// Step is a step of a scheme. The product is the first of the library of that kind, with
// the binder, trait and grade of hardener, if they are given. DFTUm 0 is the sheet's
// typical film.
type Step struct {
	step.Step
	Kind   product.Kind   `json:"kind,omitempty"`
	Binder product.Binder `json:"binder,omitempty"`
	Trait  Trait          `json:"trait,omitempty" enum:"copper-free,copper,zinc-rich,waxed,unwaxed,light"`
}

// Scheme is a sequence of steps for a job, as a school does it.
type Scheme struct {
	Key    string `json:"key"`
	Job    string `json:"job"`
	School string `json:"school"`
	Reason string `json:"reason"`
	Steps  []Step `json:"steps"`
}

// JobFor is the job that a surface usually needs: by what it is part of and
// what it is made of.
func JobFor(part area.Part, substrate survey.Substrate) string {
	switch info := part.Info(); {
	case info.Trodden:
		if substrate.Info().Metal {
			return "Metal deck"
		}
		return "Non-skid deck"
	case info.Underwater:
		if substrate.Info().Metal {
			return "Metal bottom"
		}
		return "Bottom: barrier and antifouling"
	}
	switch {
	case substrate.Info().Metal:
		return "Metal topsides"
	case substrate == survey.SolidWood || substrate == survey.StripPlank || part == area.Spars || part == area.Coamings:
		return "Brightwork"
	}
	return "Topsides in colour"
}

// Find returns the first sheet that a step asks for, by index.
func (s Step) Find(library []product.Sheet) (int, bool) {
	for i, p := range library {
		if _, graded := p.With(s.Grade); graded && p.Kind == s.Kind && (s.Binder == "" || p.Binder == s.Binder) && s.Trait.fits(p) {
			return i, true
		}
	}
	return 0, false
}

// work is a step without a film.
func work(w step.Work, note string) Step { return Step{Step: step.Step{Work: w, Note: note}} }
func strip(note string) Step             { return work(step.Strip, note) }
func inspect() Step                      { return work(step.Inspect, "") }
func mask() Step                         { return work(step.Mask, "") }
func wash() Step {
	s := work(step.Wash, "warm water and detergent, rinse, let dry")
	s.Agent = "detergent"
	return s
}
func solvent() Step {
	s := work(step.Degrease, "two rags, one wet, one dry")
	s.Agent = "solvent"
	return s
}
func sand(grit int) Step {
	s := work(step.Sand, "")
	s.Grit, s.RemovedUm = grit, removed[grit]
	return s
}
func coat(k product.Kind, n int, method string) Step {
	return Step{Step: step.Step{Work: step.Coat, Coats: n, Method: method}, Kind: k}
}

// spotsPct is the share of a side that is pinholes and lows after the first primer: a rule
// of thumb.
const spotsPct = 10

// spots is light epoxy filler in pinholes and lows only.
func spots() Step {
	return onSpots(Step{Step: step.Step{Work: step.Fill, Coats: 1, DFTUm: 500, Method: "blade"}, Kind: product.Fairing, Binder: product.Epoxy, Trait: Light})
}

// onSpots keeps a step to the spots.
func onSpots(s Step) Step {
	s.Where = &step.Where{Name: "spots", SharePct: spotsPct}
	return s
}

// removed is about what a sanding takes off, µm, by grit: rules of thumb.
var removed = map[int]float64{80: 40, 120: 20, 180: 12, 240: 8, 320: 5}

func thinned(s Step, pct float64) Step    { s.ThinnerPct = pct; return s }
func graded(s Step, grade string) Step    { s.Grade = grade; return s }
func having(s Step, t Trait) Step         { s.Trait = t; return s }
func bound(s Step, b product.Binder) Step { s.Binder = b; return s }

// Schemes lists the schemes, those of one job together.
var Schemes = []Scheme{
	{"bottom-water", "Bottom: barrier and antifouling", "clean with detergent and water",
		"Water takes salt and amine blush, which solvent only smears; it is also what the waste rules like best.",
		[]Step{strip("old antifouling wet"), wash(), sand(80), wash(), mask(), coat(product.Barrier, 5, "roller"), coat(product.SoftAntifoul, 3, "roller"), inspect()}},
	{"bottom-solvent", "Bottom: barrier and antifouling", "clean with solvent, two rags",
		"Solvent takes wax and grease, and dries at once on a cold day; it leaves salt and blush where they are.",
		[]Step{strip("old antifouling wet"), solvent(), sand(80), solvent(), mask(), coat(product.Barrier, 5, "roller"), coat(product.SoftAntifoul, 3, "roller"), inspect()}},
	{"bottom-cold", "Bottom: barrier and antifouling", "cold: low-temperature hardener",
		"Cures from 0 °C where the standard hardener stands still, at the price of a shorter pot life and window.",
		[]Step{strip("old antifouling wet"), wash(), sand(80), wash(), mask(), graded(coat(product.Barrier, 5, "roller"), "low-temperature"), coat(product.SoftAntifoul, 3, "roller"), inspect()}},
	{"bottom-aluminium", "Metal bottom", "aluminium, copper-free",
		"Copper eats aluminium: metal primer, barrier, and an antifouling without it.",
		[]Step{strip("to bright metal"), wash(), sand(80), wash(), coat(product.MetalPrimer, 2, "roller"), coat(product.Barrier, 4, "roller"), having(coat(product.SoftAntifoul, 3, "roller"), CopperFree), inspect()}},
	{"bottom-steel", "Metal bottom", "steel, zinc-rich primer",
		"Zinc gives itself up for the steel where the film is scratched; it must be primed within hours of blasting.",
		[]Step{wash(), strip("blast to bright metal, then blow and vacuum it clean: no water from here to the primer"), having(coat(product.MetalPrimer, 1, "airless"), ZincRich), coat(product.Barrier, 4, "roller"), having(coat(product.HardAntifoul, 2, "roller"), Coppered), inspect()}},
	{"topsides-spot", "Topsides in colour", "one coat of primer, spot-fill",
		"The primer shows the flaws; only those are filled, and one more primer goes on there only: fewer hours.",
		[]Step{wash(), solvent(), sand(120), coat(product.HighBuild, 1, "roller"), spots(), onSpots(wash()), onSpots(sand(180)), onSpots(coat(product.HighBuild, 1, "roller")), sand(240), mask(), coat(product.TopcoatTwo, 3, "roll-and-tip"), inspect()}},
	{"topsides-two", "Topsides in colour", "two coats of primer overall",
		"A second coat overall hides scratches and gives film to sand fair in: more litres, an evener gloss.",
		[]Step{wash(), solvent(), sand(120), coat(product.HighBuild, 2, "roller"), sand(180), sand(240), mask(), coat(product.TopcoatTwo, 3, "roll-and-tip"), inspect()}},
	{"topsides-one-part", "Topsides in colour", "one-part, rolled and tipped by the owner",
		"No isocyanate, a long wet edge, easy to mend; it lasts half as long.",
		[]Step{wash(), sand(120), coat(product.Undercoat, 2, "roller"), sand(240), mask(), coat(product.TopcoatOne, 3, "roll-and-tip"), inspect()}},
	{"metal-topsides", "Metal topsides", "epoxy primer, two-part topcoat",
		"Epoxy keeps the water off the metal, a build coat carries the gloss: lasts longest, wants the sprayer's care.",
		[]Step{strip("to bright metal, edges feathered"), wash(), sand(80), wash(), coat(product.MetalPrimer, 2, "roller"), coat(product.HighBuild, 1, "roller"), sand(240), mask(), coat(product.TopcoatTwo, 3, "roll-and-tip"), inspect()}},
	{"metal-topsides-one-part", "Metal topsides", "epoxy primer, one-part enamel",
		"The same protection below; the enamel is easier to lay and to mend, and lasts half as long.",
		[]Step{strip("to bright metal, edges feathered"), wash(), sand(80), wash(), coat(product.MetalPrimer, 2, "roller"), sand(180), coat(product.Undercoat, 1, "roller"), sand(240), mask(), coat(product.TopcoatOne, 3, "roll-and-tip"), inspect()}},
	{"metal-deck-paint", "Metal deck", "epoxy primer, textured roller paint",
		"Mended with a roller where a boot or an anchor goes through.",
		[]Step{strip("to bright metal"), wash(), sand(80), wash(), coat(product.MetalPrimer, 2, "roller"), sand(180), mask(), bound(coat(product.NonSkidPaint, 2, "roller"), product.Alkyd), inspect()}},
	{"metal-deck-grit", "Metal deck", "epoxy primer, broadcast grit",
		"Hard grit in wet epoxy over the primer, sealed by topcoat: the working boat's deck.",
		[]Step{strip("to bright metal"), wash(), sand(80), wash(), coat(product.MetalPrimer, 2, "roller"), mask(), coat(product.NonSkidGrit, 1, "roller"), coat(product.TopcoatTwo, 2, "roller"), inspect()}},
	{"varnish-three", "Brightwork", "three coats",
		"A floor: it looks well for a season, and the next coats go on in winter.",
		[]Step{sand(120), sand(180), solvent(), coat(product.Varnish, 3, "brush"), inspect()}},
	{"varnish-seven", "Brightwork", "thinned first coat, seven in all",
		"The first, thinned, soaks in and holds; the film of the rest is what stops the sun.",
		[]Step{sand(120), sand(180), solvent(), thinned(coat(product.Varnish, 1, "brush"), 10), coat(product.Varnish, 2, "brush"), sand(240), coat(product.Varnish, 2, "brush"), sand(320), coat(product.Varnish, 2, "brush"), inspect()}},
	{"varnish-epoxy", "Brightwork", "epoxy sealed, then varnish",
		"Epoxy keeps the wood from moving, so that the varnish lasts; once it fails, all of it has to come off.",
		[]Step{sand(120), sand(180), coat(product.WoodSealer, 3, "roller"), wash(), sand(240), bound(coat(product.Varnish, 5, "brush"), product.Alkyd), sand(320), bound(coat(product.Varnish, 1, "brush"), product.Alkyd), inspect()}},
	{"varnish-oil", "Brightwork", "oil",
		"No film to fail: wipe it on anew every few weeks in the season.",
		[]Step{sand(120), sand(180), bound(coat(product.WoodSealer, 4, "brush"), product.Oil)}},
	{"nonskid-paint", "Non-skid deck", "textured roller paint",
		"One tin, one roller, any shape; the texture wears.",
		[]Step{wash(), sand(120), coat(product.HighBuild, 1, "roller"), sand(180), mask(), bound(coat(product.NonSkidPaint, 2, "roller"), product.Alkyd), inspect()}},
	{"nonskid-grit", "Non-skid deck", "broadcast grit",
		"Hard grit in wet epoxy, sealed by topcoat: grips for many years, and is hard on knees.",
		[]Step{wash(), sand(120), mask(), coat(product.NonSkidGrit, 1, "roller"), coat(product.TopcoatTwo, 2, "roller"), inspect()}},
	{"gelcoat", "Gelcoat repair", "brushed gelcoat",
		"The same stuff as the boat: unwaxed below, so that it bonds, waxed on top, so that it cures.",
		[]Step{wash(), solvent(), sand(80), having(coat(product.Gelcoat, 1, "brush"), Unwaxed), having(coat(product.Gelcoat, 1, "brush"), Waxed), sand(320), inspect()}},
}
