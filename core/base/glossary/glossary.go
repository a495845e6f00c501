// Package glossary explains the words of the trade and of the program, each in a sentence or two.
package glossary

import "strings"

// Term is a word with what it means. Also are other words for it, and labels that stand for it on
// screens; Own says that it is a word of this program rather than of the trade.
type Term struct {
	Name string   `json:"name"`
	Also []string `json:"also"`
	Own  bool     `json:"own"`
	Says string   `json:"says"`
}

func trade(name, says string, also ...string) Term {
	return Term{name, append([]string{}, also...), false, says}
}
func own(name, says string, also ...string) Term {
	return Term{name, append([]string{}, also...), true, says}
}

// Terms lists them by name.
var Terms = []Term{
	trade("air draught of a tent",
		"How often an hour the air in a tent is changed: it carries off solvent and damp, and heat with them.",
		"air changes"),
	trade("amine blush",
		"A greasy film that amine-cured epoxy grows in damp or cold. Water and a pad take it off; sanding rubs it in. What is laid over it peels."),
	trade("barrier coat",
		"Epoxy that keeps water out of a laminate, or salt off metal. Its total film counts, so no coat of it is left out."),
	trade("brightwork", "Wood under a clear finish: varnish, oil or clear topcoat."),
	trade("build-up",
		"The layers of a surface from the substrate up: what is planned, in order, with what is done between them."),
	trade("comb",
		"A wet-film gauge: a card with teeth that is pressed into the wet coat. The last tooth that is wetted and the first that stays dry hold the film between them.", "wet-film comb"),
	trade("cure",
		"What a two-part product does: its parts react and the film cannot be dissolved again. One-part paints dry; they may soften under strong solvents.", "cures above", "min cure"),
	trade("cut section", "The film drawn as if it were cut through, thickness to scale: laid, planned, sanded off.",
		"the film, cut through"),
	trade("defect", "Something found on a surface that wants mending: a blister, a crack, a dent, a bare spot."),
	trade("dew point",
		"The temperature at which the air's water begins to settle. A surface colder than that is wet, even when the day is dry."),
	trade("dew-point spread",
		"How much warmer the surface is than the dew point. Coatings want at least 3 °C while they are laid and for hours after (ISO 8502-4).", "above dew point", "spread", "least spread"),
	trade("dry film",
		"The thickness that is left when a coat has dried, in thousandths of a millimetre. Data sheets state it for a coat and for the whole.", "dry film thickness", "dry, each", "dry film wanted", "DFT"),
	trade("fairing",
		"Making a surface smooth to eye and hand: filling lows, boarding highs, until no light bends on it."),
	own("field",
		"The temperatures, humidity and dew-point spread within which a product may be laid, as its sheet states them. Inside it is allowed, outside it is not.", "the product's field"),
	own("finding",
		"What the rules have to say of a step: a warning, or a stop. Each names its reason and offers a mend; it can be let stand with a reason.", "findings"),
	trade("gelcoat", "The coloured polyester skin of a glass-fibre boat."),
	trade("guide coat",
		"A thin mist of dark paint that sanding takes off the highs and leaves in the lows, so that one sees them."),
	trade("hard line", "A knuckle, chine or edge that must stay sharp: fairing on both sides ends at it."),
	own("hold", "How long after laying the field must still be kept, so that the coat is not spoiled while it is soft.",
		"field must hold", "hold after laying"),
	trade("induction",
		"How long a two-part mix must stand after stirring before it is laid. It is part of the pot life.",
		"induction time"),
	trade("key", "The scratch that a coat holds on to. A film that has cured through gives none until it is sanded.",
		"mechanical key"),
	trade("longboard", "A long stiff sanding board that rides over the highs and so makes a surface fair."),
	trade("loss",
		"The part of the paint that does not end on the surface: left in tins, trays and rollers, or blown away.",
		"lost"),
	trade("non-skid", "A rough finish of decks, by grit, textured paint or a moulded pattern."),
	trade("one-part", "Ready as it comes out of the tin; it dries in air."),
	trade("overcoating", "Laying the next coat on one that has dried.", "recoat", "recoating"),
	trade("peroxide catalyst",
		"What sets polyester: one to three parts of a hundred by weight. Too little never hardens, too much burns."),
	own("plan",
		"When each task is done and by whom, within the weather, the windows and the hours of the people. It moves with the weather and says why."),
	trade("pot life",
		"How long a mix can be laid. A big pot heats itself and goes off sooner; poured into a tray it lasts longer."),
	trade("recoat window",
		"From when to when the next coat may follow without sanding. Before it the film is too soft, after it the next one finds no key.", "window", "recoat from", "recoat until"),
	own("ribbon",
		"The time axis that all screens share: weather, clocks and tasks one below another, now marked in red. Point at it, or use the arrow keys, to read an instant."),
	trade("scheme",
		"A usual sequence of steps for a kind of surface, by kinds of product. It is filled with products of your library."),
	own("school",
		"One of the ways in which the trade does a thing: none is right for all, so each is reckoned and compared, with its price and its risk.", "schools"),
	trade("spreading rate", "How many square metres a litre covers at a film."),
	trade("steel profile", "How rough blasted or ground metal is, from peak to valley: a primer needs it to hold.",
		"profile", "surface profile"),
	trade("strip", "Taking old paint off, down to what is to be coated."),
	trade("stripe coat", "A coat brushed on edges, welds and bolts first, where the full coat draws thin."),
	trade("substrate", "What the boat is made of under all coats: laminate, wood, steel, aluminium.", "mostly of"),
	own("system", "A sequence of steps that you kept to use it again."),
	trade("tack",
		"The time in which a film is dry to touch but still takes the next coat into itself: no sanding is needed then."),
	trade("tack-free", "When dust no longer sticks to a coat."),
	trade("tent", "A frame and film over a boat or a part of her, to keep rain off, and to be heated or dried inside."),
	trade("through-dry", "When a film is hard to its bottom and can be used."),
	trade("tie coat", "A coat between two that would not hold on each other."),
	trade("tip", "To draw a brush lightly over a rolled coat, so that it flows out.", "roll and tip"),
	trade("touch-dry", "When a finger leaves no mark and takes nothing off."),
	trade("two-part",
		"Base and hardener, mixed in a ratio that must be kept; what is mixed must be laid within its pot life."),
	trade("volume solids",
		"The part of the tin that stays as film; the rest evaporates. 50 % leaves half of the wet thickness.",
		"solids"),
	trade("wet edge", "How long the edge of a laid stripe still flows into the next one."),
	trade("wet film", "The thickness of a coat as it is laid. It is read with a comb and is what the hand can steer.",
		"wet film thickness", "WFT"),
	own("window of starts",
		"A stretch of time in which a coat can be begun so that it is laid, and holds, within its field to the end.",
		"hours of starts", "starts", "windows of starts"),
	own("working",
		"How a figure came about: what went in, each formula with its value and source. Every underlined figure opens it.", "the working"),
	own("±", "Half of the range that holds the truth in four cases of five.", "plus or minus", "uncertainty"),
}

// Find returns the term of a word, in any case.
func Find(word string) (Term, bool) {
	for _, t := range Terms {
		if strings.EqualFold(t.Name, word) {
			return t, true
		}
		for _, a := range t.Also {
			if strings.EqualFold(a, word) {
				return t, true
			}
		}
	}
	return Term{}, false
}
