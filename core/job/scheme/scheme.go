// Package scheme holds usual sequences of work for each kind of job, by the
// schools that practitioners follow, each with its reason.
package scheme

import (
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/job/rules"
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
	Work      rules.Work     `json:"work"`
	Kind      product.Kind   `json:"kind,omitempty"`
	Binder    product.Binder `json:"binder,omitempty"`
	Trait     Trait          `json:"trait,omitempty" enum:"copper-free,copper,zinc-rich,waxed,unwaxed,light"`
	Coats     int            `json:"coats,omitempty"`
	DFTUm     float64        `json:"dftUm,omitempty"`
	Method    string         `json:"method,omitempty"`
	Grade     string         `json:"grade,omitempty"`
	Thinner   float64        `json:"thinnerPct,omitempty"`
	Grit      int            `json:"grit,omitempty"`
	RemovedUm float64        `json:"removedUm,omitempty"`
	Agent     string         `json:"agent,omitempty"`
	Note      string         `json:"note,omitempty"`
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

func wash() Step {
	return Step{Work: rules.Wash, Agent: "detergent", Note: "warm water and detergent, rinse, let dry"}
}
func solvent() Step {
	return Step{Work: rules.Degrease, Agent: "solvent", Note: "two rags, one wet, one dry"}
}
func mask() Step         { return Step{Work: rules.Mask} }
func sand(grit int) Step { return Step{Work: rules.Sand, Grit: grit, RemovedUm: removed[grit]} }
func coat(k product.Kind, n int, method string) Step {
	return Step{Work: rules.Coat, Kind: k, Coats: n, Method: method}
}

// removed is about what a sanding takes off, µm, by grit: rules of thumb.
var removed = map[int]float64{80: 40, 120: 20, 180: 12, 240: 8, 320: 5}

func thinned(s Step, pct float64) Step    { s.Thinner = pct; return s }
func graded(s Step, grade string) Step    { s.Grade = grade; return s }
func having(s Step, t Trait) Step         { s.Trait = t; return s }
func bound(s Step, b product.Binder) Step { s.Binder = b; return s }

// Schemes lists the schemes, those of one job together.
var Schemes = []Scheme{
	{"bottom-water", "Bottom: barrier and antifouling", "clean with detergent and water",
		"Water takes salt and amine blush, which solvent only smears; it is also what the waste rules like best.",
		[]Step{{Work: rules.Strip, Note: "old antifouling wet"}, wash(), sand(80), wash(), mask(), coat(product.Barrier, 5, "roller"), coat(product.SoftAntifoul, 3, "roller"), {Work: rules.Inspect}}},
	{"bottom-solvent", "Bottom: barrier and antifouling", "clean with solvent, two rags",
		"Solvent takes wax and grease, and dries at once on a cold day; it leaves salt and blush where they are.",
		[]Step{{Work: rules.Strip, Note: "old antifouling wet"}, solvent(), sand(80), solvent(), mask(), coat(product.Barrier, 5, "roller"), coat(product.SoftAntifoul, 3, "roller"), {Work: rules.Inspect}}},
	{"bottom-cold", "Bottom: barrier and antifouling", "cold: low-temperature hardener",
		"Cures from 0 °C where the standard hardener stands still, at the price of a shorter pot life and window.",
		[]Step{{Work: rules.Strip, Note: "old antifouling wet"}, wash(), sand(80), wash(), mask(), graded(coat(product.Barrier, 5, "roller"), "low-temperature"), coat(product.SoftAntifoul, 3, "roller"), {Work: rules.Inspect}}},
	{"bottom-aluminium", "Metal bottom", "aluminium, copper-free",
		"Copper eats aluminium: metal primer, barrier, and an antifouling without it.",
		[]Step{{Work: rules.Strip, Note: "to bright metal"}, wash(), sand(80), wash(), coat(product.MetalPrimer, 2, "roller"), coat(product.Barrier, 4, "roller"), having(coat(product.SoftAntifoul, 3, "roller"), CopperFree), {Work: rules.Inspect}}},
	{"bottom-steel", "Metal bottom", "steel, zinc-rich primer",
		"Zinc gives itself up for the steel where the film is scratched; it must be primed within hours of blasting.",
		[]Step{wash(), {Work: rules.Strip, Note: "blast to bright metal, then blow and vacuum it clean: no water from here to the primer"}, having(coat(product.MetalPrimer, 1, "airless"), ZincRich), coat(product.Barrier, 4, "roller"), having(coat(product.HardAntifoul, 2, "roller"), Coppered), {Work: rules.Inspect}}},
	{"topsides-spot", "Topsides in colour", "one coat of primer, spot-fill",
		"The primer shows the flaws; only those are filled, and one more primer goes on there only: fewer hours.",
		[]Step{wash(), solvent(), sand(120), coat(product.HighBuild, 1, "roller"), {Work: rules.Fill, Kind: product.Fairing, Binder: product.Epoxy, Trait: Light, Coats: 1, DFTUm: 500, Method: "blade", Note: "pinholes and lows only"}, wash(), sand(180), coat(product.HighBuild, 1, "roller"), sand(240), mask(), coat(product.TopcoatTwo, 3, "roll-and-tip"), {Work: rules.Inspect}}},
	{"topsides-two", "Topsides in colour", "two coats of primer overall",
		"A second coat overall hides scratches and gives film to sand fair in: more litres, an evener gloss.",
		[]Step{wash(), solvent(), sand(120), coat(product.HighBuild, 2, "roller"), sand(180), sand(240), mask(), coat(product.TopcoatTwo, 3, "roll-and-tip"), {Work: rules.Inspect}}},
	{"topsides-one-part", "Topsides in colour", "one-part, rolled and tipped by the owner",
		"No isocyanate, a long wet edge, easy to mend; it lasts half as long.",
		[]Step{wash(), sand(120), coat(product.Undercoat, 2, "roller"), sand(240), mask(), coat(product.TopcoatOne, 3, "roll-and-tip"), {Work: rules.Inspect}}},
	{"metal-topsides", "Metal topsides", "epoxy primer, two-part topcoat",
		"Epoxy keeps the water off the metal, a build coat carries the gloss: lasts longest, wants the sprayer's care.",
		[]Step{{Work: rules.Strip, Note: "to bright metal, edges feathered"}, wash(), sand(80), wash(), coat(product.MetalPrimer, 2, "roller"), coat(product.HighBuild, 1, "roller"), sand(240), mask(), coat(product.TopcoatTwo, 3, "roll-and-tip"), {Work: rules.Inspect}}},
	{"metal-topsides-one-part", "Metal topsides", "epoxy primer, one-part enamel",
		"The same protection below; the enamel is easier to lay and to mend, and lasts half as long.",
		[]Step{{Work: rules.Strip, Note: "to bright metal, edges feathered"}, wash(), sand(80), wash(), coat(product.MetalPrimer, 2, "roller"), sand(180), coat(product.Undercoat, 1, "roller"), sand(240), mask(), coat(product.TopcoatOne, 3, "roll-and-tip"), {Work: rules.Inspect}}},
	{"metal-deck-paint", "Metal deck", "epoxy primer, textured roller paint",
		"Mended with a roller where a boot or an anchor goes through.",
		[]Step{{Work: rules.Strip, Note: "to bright metal"}, wash(), sand(80), wash(), coat(product.MetalPrimer, 2, "roller"), sand(180), mask(), bound(coat(product.NonSkidPaint, 2, "roller"), product.Alkyd), {Work: rules.Inspect}}},
	{"metal-deck-grit", "Metal deck", "epoxy primer, broadcast grit",
		"Hard grit in wet epoxy over the primer, sealed by topcoat: the working boat's deck.",
		[]Step{{Work: rules.Strip, Note: "to bright metal"}, wash(), sand(80), wash(), coat(product.MetalPrimer, 2, "roller"), mask(), coat(product.NonSkidGrit, 1, "roller"), coat(product.TopcoatTwo, 2, "roller"), {Work: rules.Inspect}}},
	{"varnish-three", "Brightwork", "three coats",
		"A floor: it looks well for a season, and the next coats go on in winter.",
		[]Step{sand(120), sand(180), solvent(), coat(product.Varnish, 3, "brush"), {Work: rules.Inspect}}},
	{"varnish-seven", "Brightwork", "thinned first coat, seven in all",
		"The first, thinned, soaks in and holds; the film of the rest is what stops the sun.",
		[]Step{sand(120), sand(180), solvent(), thinned(coat(product.Varnish, 1, "brush"), 10), coat(product.Varnish, 2, "brush"), sand(240), coat(product.Varnish, 2, "brush"), sand(320), coat(product.Varnish, 2, "brush"), {Work: rules.Inspect}}},
	{"varnish-epoxy", "Brightwork", "epoxy sealed, then varnish",
		"Epoxy keeps the wood from moving, so that the varnish lasts; once it fails, all of it has to come off.",
		[]Step{sand(120), sand(180), coat(product.WoodSealer, 3, "roller"), wash(), sand(240), bound(coat(product.Varnish, 5, "brush"), product.Alkyd), sand(320), bound(coat(product.Varnish, 1, "brush"), product.Alkyd), {Work: rules.Inspect}}},
	{"varnish-oil", "Brightwork", "oil",
		"No film to fail: wipe it on anew every few weeks in the season.",
		[]Step{sand(120), sand(180), bound(coat(product.WoodSealer, 4, "brush"), product.Oil)}},
	{"nonskid-paint", "Non-skid deck", "textured roller paint",
		"One tin, one roller, any shape; the texture wears.",
		[]Step{wash(), sand(120), coat(product.HighBuild, 1, "roller"), sand(180), mask(), bound(coat(product.NonSkidPaint, 2, "roller"), product.Alkyd), {Work: rules.Inspect}}},
	{"nonskid-grit", "Non-skid deck", "broadcast grit",
		"Hard grit in wet epoxy, sealed by topcoat: grips for many years, and is hard on knees.",
		[]Step{wash(), sand(120), mask(), coat(product.NonSkidGrit, 1, "roller"), coat(product.TopcoatTwo, 2, "roller"), {Work: rules.Inspect}}},
	{"gelcoat", "Gelcoat repair", "brushed gelcoat",
		"The same stuff as the boat: unwaxed below, so that it bonds, waxed on top, so that it cures.",
		[]Step{wash(), solvent(), sand(80), having(coat(product.Gelcoat, 1, "brush"), Unwaxed), having(coat(product.Gelcoat, 1, "brush"), Waxed), sand(320), {Work: rules.Inspect}}},
}
