package scheme

import (
	"slices"
	"sync"

	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
)

// What schemes are for.
var (
	laminates = []survey.Substrate{survey.Gelcoat, survey.GRP, survey.FoamCore, survey.BalsaCore, survey.Carbon}
	woods     = []survey.Substrate{survey.SolidWood, survey.StripPlank, survey.Plywood, survey.Veneer}
	glued     = []survey.Substrate{survey.StripPlank, survey.Plywood, survey.Veneer}
	light     = []survey.Substrate{survey.Aluminium}
	rusting   = []survey.Substrate{survey.Steel, survey.CastIron}
	keels     = []survey.Substrate{survey.Lead, survey.Stainless}
	metals    = []survey.Substrate{survey.Steel, survey.CastIron, survey.Aluminium, survey.Stainless}
)

// barrier is so many coats, the first ones in another colour, so that misses and rings show.
func barrier(first, then int, grade string) []Step {
	return []Step{graded(coloured(coat(product.Barrier, first, "roller"), "grey"), grade),
		graded(coloured(coat(product.Barrier, then, "roller"), "green"), grade)}
}

// bright is bare metal made ready without water, which would flash-rust steel.
func bright(note string) []Step {
	return []Step{strip(note), solvent(), sand(80), solvent(), bound(coat(product.MetalPrimer, 2, "roller"),
		product.Epoxy)}
}

// sealed is bare wood closed with thin epoxy, washed of its blush and sanded for what goes over it.
func sealed(grit int) []Step {
	return []Step{sand(120), bound(coat(product.WoodSealer, 2, "roller"), product.Epoxy), wash(), sand(grit)}
}

// faired is two passes of light filler on what is sanded, under primer, sanded to a gloss's grit.
func faired() []Step {
	fair := Step{Step: step.Step{Work: step.Fair, Coats: 2, DFTUm: 2000, Method: "blade"}, Kind: product.Fairing,
		Binder: product.Epoxy, Trait: Light}
	return []Step{fair, wash(), sand(80), sand(120), coat(product.HighBuild, 2, "roller"), sand(180),
		sand(240)}
}

// glossed is a two-part topcoat over what is sanded.
func glossed(method string) []Step {
	return []Step{mask(), coat(product.TopcoatTwo, 3, method), inspect()}
}

// steps joins single steps and runs of them.
func steps(parts ...any) (out []Step) {
	for _, p := range parts {
		switch p := p.(type) {
		case Step:
			out = append(out, p)
		case []Step:
			out = append(out, p...)
		}
	}
	return slices.Clip(out)
}

func foul(k product.Kind, n int, t Trait) Step { return having(coat(k, n, "roller"), t) }

// Schemes lists the schemes, those of one job together.
var Schemes = sync.OnceValue(func() []Scheme {
	return []Scheme{
		{"bottom-water", Bottom, "clean with detergent and water",
			"Water takes salt and amine blush, which solvent only smears; it is also what the waste rules like best.",
			laminates, "",
			steps(strip("old antifouling wet"), wash(), sand(80), wash(), mask(), barrier(3, 2, ""),
				foul(product.SoftAntifoul, 3, ""), inspect())},
		{"bottom-solvent", Bottom, "clean with solvent, two rags",
			"Solvent takes wax and grease, and dries at once on a cold day; it leaves salt and blush where they are.",
			laminates, "",
			steps(strip("old antifouling wet"), solvent(), sand(80), solvent(), mask(), barrier(3, 2, ""),
				foul(product.SoftAntifoul, 3, ""), inspect())},
		{"bottom-cold", Bottom, "cold: low-temperature hardener",
			"Cures from 0 °C where the standard hardener stands still, at the price of a shorter pot life and window.",
			laminates, "",
			steps(strip("old antifouling wet"), wash(), sand(80), wash(), mask(), barrier(3, 2, "low-temperature"),
				foul(product.SoftAntifoul, 3, ""), inspect())},
		{"bottom-wood", Bottom, "wood sealed with epoxy",
			"Thin epoxy soaks in and holds; the barrier over it keeps the wood at one moisture, so that nothing moves below the antifouling.", woods, "",
			steps(sealed(180), mask(), barrier(3, 2, ""), foul(product.SoftAntifoul, 3, ""), inspect())},
		{"bottom-planked", Bottom, "planks that move, antifouling into the wood",
			"Seams work in the water: nothing rigid goes on them; the first coat is thinned into the bare wood.",
			[]survey.Substrate{survey.SolidWood}, "",
			steps(sand(80), mask(), thinned(foul(product.SoftAntifoul, 1, ""), 5), foul(product.SoftAntifoul, 2, ""),
				inspect())},
		{"bottom-renewed", Bottom, "antifouling renewed",
			"Sound antifouling is washed and scuffed wet, and two coats go on of the same kind: the yearly job.",
			slices.Concat(laminates, woods), survey.OldAntifouling,
			steps(fresh(), wetSand(80), fresh(), mask(), foul(product.SoftAntifoul, 2, ""), inspect())},
		{"bottom-aluminium", MetalBottom, "aluminium, copper-free",
			"Copper eats aluminium: metal primer, barrier, and an antifouling without it.", light, "",
			steps(bright("to bright metal"), barrier(2, 2, ""), foul(product.SoftAntifoul, 3, CopperFree), inspect())},
		{"bottom-steel", MetalBottom, "steel, zinc-rich primer",
			"Zinc gives itself up for the steel where the film is scratched; it must be primed within hours of blasting.",
			rusting, "",
			steps(wash(), strip("blast to bright metal, then blow and vacuum it clean: no water from here to the primer"),
				having(coat(product.MetalPrimer, 1, "airless"), ZincRich), barrier(2, 2, ""),
				foul(product.HardAntifoul, 2, Coppered), inspect())},
		{"bottom-epoxy-steel", MetalBottom, "steel, epoxy primer",
			"No zinc: an epoxy primer on ground steel, then the barrier that keeps the water off.", rusting, "",
			steps(bright("to bright metal"), barrier(2, 2, ""), foul(product.HardAntifoul, 2, Coppered), inspect())},
		{"bottom-keel", MetalBottom, "lead or stainless, epoxy primer",
			"Soft or passive metal is ground bright and primed within the hour; the barrier parts it from the antifouling.",
			keels, "",
			steps(bright("to bright metal"), barrier(2, 2, ""), foul(product.SoftAntifoul, 3, ""), inspect())},
		{"topsides-spot", Topsides, "one coat of primer, spot-fill",
			"The primer shows the flaws; only those are filled, and one more primer goes on there only: fewer hours.",
			laminates, "",
			steps(wash(), solvent(), sand(120), coat(product.HighBuild, 1, "roller"), spots(), onSpots(wash()),
				onSpots(sand(180)), onSpots(coat(product.HighBuild, 1, "roller")), sand(240), glossed("roll-and-tip"))},
		{"topsides-two", Topsides, "two coats of primer overall",
			"A second coat overall hides scratches and gives film to sand fair in: more litres, an evener gloss.",
			laminates, "",
			steps(wash(), solvent(), sand(120), coat(product.HighBuild, 2, "roller"), sand(180), sand(240),
				glossed("roll-and-tip"))},
		{"topsides-one-part", Topsides, "one-part, rolled and tipped by the owner",
			"No isocyanate, a long wet edge, easy to mend; it lasts half as long.", laminates, "",
			steps(wash(), solvent(), sand(120), bound(coat(product.Undercoat, 2, "roller"), product.Alkyd), sand(240),
				mask(), bound(coat(product.TopcoatOne, 3, "roll-and-tip"), product.Alkyd), inspect())},
		{"topsides-wood", Topsides, "wood sealed with epoxy, one-part paint",
			"Epoxy keeps plywood and veneer from checking; undercoat and enamel over it are the owner's to mend.", glued,
			"",
			steps(sealed(180), bound(coat(product.Undercoat, 2, "roller"), product.Alkyd), sand(240), mask(),
				bound(coat(product.TopcoatOne, 3, "roll-and-tip"), product.Alkyd), inspect())},
		{"topsides-planked", Topsides, "planks that move, one-part paint",
			"Seams open and close: paint that gives, thinned into the wood and renewed often, follows them.",
			[]survey.Substrate{survey.SolidWood}, "",
			steps(sand(120), thinned(bound(coat(product.Undercoat, 1, "brush"), product.Alkyd), 5),
				bound(coat(product.Undercoat, 2, "brush"), product.Alkyd), sand(240), mask(),
				bound(coat(product.TopcoatOne, 3, "brush"), product.Alkyd), inspect())},
		{"fair-laminate", Fairing, "light filler between primer and primer",
			"Primer below shows the lows and gives the filler hold; primer above seals it, since it drinks.", laminates, "",
			steps(wash(), solvent(), sand(120), coat(product.HighBuild, 1, "roller"), sand(80), faired(), glossed("roll-and-tip"))},
		{"fair-wood", Fairing, "sealed wood, light filler, primer",
			"The sealer parts filler and wood, so that neither stains nor moves the other.", glued, "",
			steps(sealed(80), faired(), glossed("roll-and-tip"))},
		{"fair-metal", Fairing, "metal primer, light filler, primer",
			"Filler never meets bare metal: primer within the hour, filler on its sanded film, primer over it.", metals, "",
			steps(bright("to bright metal"), sand(80), faired(), glossed("roll-and-tip"))},
		{"metal-topsides", MetalTopsides, "epoxy primer, two-part topcoat",
			"Epoxy keeps the water off the metal, a build coat carries the gloss: lasts longest, wants the sprayer's care.",
			metals, "",
			steps(bright("to bright metal, edges feathered"), coat(product.HighBuild, 1, "roller"), sand(240),
				glossed("roll-and-tip"))},
		{"metal-topsides-one-part", MetalTopsides, "epoxy primer, one-part enamel",
			"The same protection below; the enamel is easier to lay and to mend, and lasts half as long.", metals, "",
			steps(bright("to bright metal, edges feathered"), sand(180), bound(coat(product.Undercoat, 1, "roller"),
				product.Alkyd), sand(240), mask(), bound(coat(product.TopcoatOne, 3, "roll-and-tip"), product.Alkyd),
				inspect())},
		{"metal-deck-paint", MetalDeck, "epoxy primer, textured roller paint",
			"Mended with a roller where a boot or an anchor goes through.", metals, "",
			steps(bright("to bright metal"), sand(180), mask(), bound(coat(product.NonSkidPaint, 2, "roller"),
				product.Alkyd), inspect())},
		{"metal-deck-grit", MetalDeck, "epoxy primer, broadcast grit",
			"Hard grit in wet epoxy over the primer, sealed by topcoat: the working boat's deck.", metals, "",
			steps(bright("to bright metal"), mask(), coat(product.NonSkidGrit, 1, "roller"),
				coat(product.TopcoatTwo, 2, "roller"), inspect())},
		{"varnish-seven", Brightwork, "one-part, thinned first coat, seven in all",
			"The first, thinned, soaks in and holds; the film of the rest is what stops the sun.", woods, "",
			steps(sand(120), sand(180), solvent(), thinned(bound(coat(product.Varnish, 1, "brush"), product.Alkyd), 10),
				bound(coat(product.Varnish, 2, "brush"), product.Alkyd), sand(240), bound(coat(product.Varnish, 2, "brush"),
					product.Alkyd), sand(320), bound(coat(product.Varnish, 2, "brush"), product.Alkyd), inspect())},
		{"varnish-two-part", Brightwork, "two-part clear, by a shop",
			"Harder, clearer and slower to go: sprayed under cover with supplied air; scratches want the shop again.",
			woods, "",
			steps(sand(120), sand(180), solvent(), thinned(bound(coat(product.Varnish, 1, "brush"), product.Polyurethane),
				10), bound(coat(product.Varnish, 3, "brush"), product.Polyurethane), sand(320),
				bound(coat(product.Varnish, 3, "brush"), product.Polyurethane), inspect())},
		{"varnish-epoxy", Brightwork, "epoxy sealed, then varnish",
			"Epoxy keeps the wood from moving, so that the varnish lasts; once it fails, all of it has to come off.", glued,
			"",
			steps(sand(120), sand(180), bound(coat(product.WoodSealer, 3, "roller"), product.Epoxy), wash(), sand(240),
				bound(coat(product.Varnish, 5, "brush"), product.Alkyd), sand(320), bound(coat(product.Varnish, 2, "brush"),
					product.Alkyd), inspect())},
		{"varnish-renewed", Brightwork, "two coats over sound varnish",
			"Dulled and coated twice a year, varnish never has to come off: the cheapest day of the season.", woods,
			survey.OldVarnish,
			steps(wash(), sand(320), bound(coat(product.Varnish, 2, "brush"), product.Alkyd), inspect())},
		{"varnish-oil", Brightwork, "oil",
			"No film to fail: wipe it on anew every few weeks in the season.", woods, "",
			steps(sand(120), sand(180), bound(coat(product.WoodSealer, 4, "brush"), product.Oil))},
		{"nonskid-paint", Deck, "textured roller paint",
			"One tin, one roller, any shape; the texture wears.", laminates, "",
			steps(wash(), solvent(), sand(120), coat(product.HighBuild, 1, "roller"), sand(180), mask(),
				bound(coat(product.NonSkidPaint, 2, "roller"), product.Alkyd), inspect())},
		{"nonskid-grit", Deck, "broadcast grit",
			"Hard grit in wet epoxy, sealed by topcoat: grips for many years, and is hard on knees.", laminates, "",
			steps(wash(), solvent(), sand(120), mask(), coat(product.NonSkidGrit, 1, "roller"),
				coat(product.TopcoatTwo, 2, "roller"), inspect())},
		{"nonskid-wood", Deck, "sealed wood, textured roller paint",
			"Thin epoxy closes plywood's edges and faces; textured paint over it is mended with a roller.", glued, "",
			steps(sealed(180), mask(), bound(coat(product.NonSkidPaint, 2, "roller"), product.Alkyd), inspect())},
		{"nonskid-planks", Deck, "planks that move, deck paint",
			"Laid planks open and close: one-part paint thinned into the wood, renewed as it wears.",
			[]survey.Substrate{survey.SolidWood}, "",
			steps(sand(120), thinned(bound(coat(product.Undercoat, 1, "brush"), product.Alkyd), 5), sand(180),
				bound(coat(product.NonSkidPaint, 2, "roller"), product.Alkyd), inspect())},
		{"inside-paint", Inside, "bilge and locker paint, one-part",
			"No isocyanate below decks, and it can be scrubbed and patched.", laminates, "",
			steps(wash(), solvent(), sand(120), bound(coat(product.Undercoat, 1, "brush"), product.Alkyd), sand(240),
				bound(coat(product.TopcoatOne, 2, "brush"), product.Alkyd), inspect())},
		{"inside-wood", Inside, "varnished wood",
			"Out of the sun five coats last for many years.", woods, "",
			steps(sand(120), sand(180), thinned(bound(coat(product.Varnish, 1, "brush"), product.Alkyd), 10),
				bound(coat(product.Varnish, 2, "brush"), product.Alkyd), sand(320), bound(coat(product.Varnish, 2, "brush"),
					product.Alkyd), inspect())},
		{"inside-metal", Inside, "epoxy primer, bilge paint",
			"Epoxy keeps bilge water off the metal; one-part paint over it shows leaks and is patched with a brush.",
			metals, "",
			steps(bright("to bright metal"), sand(180), bound(coat(product.Undercoat, 1, "brush"), product.Alkyd),
				sand(240), bound(coat(product.TopcoatOne, 2, "brush"), product.Alkyd), inspect())},
		{"gelcoat", GelcoatRepair, "brushed gelcoat",
			"The same stuff as the boat: unwaxed below, so that it bonds, waxed on top, so that it cures.",
			[]survey.Substrate{survey.Gelcoat, survey.GRP, survey.FoamCore, survey.BalsaCore}, "",
			steps(wash(), solvent(), sand(80), having(coat(product.Gelcoat, 1, "brush"), Unwaxed),
				having(coat(product.Gelcoat, 1, "brush"), Waxed), sand(320), inspect())},
	}
})
