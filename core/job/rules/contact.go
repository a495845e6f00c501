package rules

import (
	"slices"

	"allcoats/core/base/message"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
)

// Contact is a row of the table of what holds on what: a film of one of Over, laid on a face of
// one of Under, is wrong unless it fits. What no row names holds. Text is of the film and the
// face.
type Contact struct {
	Rule  Rule
	Over  []Class
	Under []Class
	text  string
	// fits lets a pair stand, nil never; mend is what helps, nil for nothing to be had.
	fits func(c Case, s Step, f Face) bool
	mend func(c Case, at int, f Face) *Mend
}

// Groups of classes.
var (
	metals       = []Class{Steel, LightMetal, OtherMetal}
	antifoulings = []Class{SoftFoul, HardFoul}
	allFoul      = []Class{SoftFoul, HardFoul, Release}
	fillers      = []Class{EpoxyFiller, PolyesterFill}
	styrenes     = []Class{Polyester, PolyesterFill, VinylEster}
	epoxies      = []Class{EpoxyFilm, EpoxyFiller, Zinc}
	tender       = []Class{OnePart, Waterborne}
	stiff        = []Class{EpoxyFilm, EpoxyFiller, TwoPart}
	paints       = []Class{EpoxyFilm, EpoxyFiller, Zinc, Etch, Polyester, PolyesterFill, VinylEster, TwoPart, OnePart,
		Waterborne, OilFilm, OtherFilm}
	films      = append(append([]Class{}, paints...), SoftFoul, HardFoul, Release, ReleaseTie)
	notRelease = append(append([]Class{}, paints...), SoftFoul, HardFoul)
	cured      = []Class{Laminate, EpoxyLaminate, Steel, LightMetal, OtherMetal, EpoxyFilm, TwoPart, OnePart, OldCoat,
		UnknownOld}
)

// stripped takes off what was there before the first step; what the steps lay it cannot.
func stripped(says, agent string) func(Case, int, Face) *Mend {
	return func(_ Case, _ int, f Face) *Mend {
		if !f.old() {
			return nil
		}
		return before(0, says, work(step.Strip, agent))
	}
}

// keyFor is the sanding that readies a face for a step, with water on antifouling.
func (c Case) keyFor(at int, f Face) Want {
	lo, hi := c.Steps[at].Sheet.Kind.Grits(f.Sheet.Kind)
	grit := 80
	for _, g := range []int{80, 120, 180, 240, 320} {
		if g >= lo && g <= hi {
			grit = g
		}
		if g >= (lo+hi)/2 {
			break
		}
	}
	return sanding(grit, 10, f.Class.has(antifoulings))
}

func keyed(c Case, at int, f Face) *Mend {
	return before(at, "Sand it before this coat", c.keyFor(at, f))
}

// Contacts is the table. The first row that names a pair decides.
var Contacts = []Contact{
	{Rule{ID: "silicone-near", What: "Anything over silicone", Why: "Nothing bonds to silicone but silicone.",
		Severity: Stop, Source: trade,
		Fix: "Remove it wholly first, with its tools kept apart."},
		notRelease, []Class{Release, ReleaseTie}, "%s does not stick to %s: it is silicone.", nil, nil},
	{Rule{ID: "foul-release-tie", What: "Foul-release without its tie coat",
		Why: "Foul-release has to stand on its own tie coat over epoxy: on antifouling, paint or bare epoxy it peels as a skin.", Severity: Warning, Source: sheet,
		Fix: "Take old antifouling off, build up barrier, and lay the tie coat that the sheet names."},
		[]Class{Release}, append(append([]Class{}, paints...), SoftFoul, HardFoul, Laminate, EpoxyLaminate, Wood, Steel,
			LightMetal, OtherMetal, UnknownOld, OldCoat), "%s over %s has nothing to hold on without its tie coat.",
		nil,
		func(_ Case, at int, _ Face) *Mend {
			return before(at, "Put its tie coat in", laying(product.TieCoat, product.Silicone, 1))
		}},
	{Rule{ID: "over-antifouling", What: "A coat over antifouling that is none",
		Why: "Antifouling stays soft and soluble: the solvent and the shrinkage of what goes over it lift it, and water finds the soluble layer.", Severity: Warning, Source: sheet,
		Fix: "Take the old antifouling off, wet, down to what carries."},
		append(append([]Class{}, paints...), ReleaseTie), antifoulings,
		"%s over %s lets go: strip the antifouling first.",
		func(_ Case, s Step, f Face) bool { // a tie coat seals a hard one, as its sheet says
			return s.Sheet.Kind == product.TieCoat && ClassOf(s.Sheet) == EpoxyFilm && f.Class == HardFoul && f.Keyed
		}, stripped("Take the old antifouling off, wet, as the first step", "wet")},
	{Rule{ID: "hard-over-soft", What: "Hard antifouling over soft",
		Why:      "A hard film over a soft, soluble one has no ground to stand on: it flakes when the one below wears.",
		Severity: Warning, Source: trade,
		Fix: "Stay with soft, or take the soft one off."},
		[]Class{HardFoul}, []Class{SoftFoul}, "%s is hard and goes over soft antifouling (%s).", nil,
		stripped("Take the soft antifouling off, wet, as the first step", "wet")},
	{Rule{ID: "polyester-over-epoxy", What: "Polyester, vinylester or gelcoat over epoxy",
		Why: "Amine left in the epoxy keeps the polyester from curing at the joint: it peels.", Severity: Stop,
		Source: trade,
		Fix:    "Stay with epoxy, or put a tie coat between that both sheets name."},
		styrenes, append(append([]Class{}, epoxies...), EpoxyLaminate), "%s over %s will not bond.", nil, nil},
	{Rule{ID: "styrene-over-paint", What: "Polyester, vinylester or gelcoat over paint",
		Why:      "Styrene is a stronger solvent than any thinner: it softens and lifts old paint and varnish.",
		Severity: Stop, Source: trade,
		Fix: "Strip the paint to gelcoat or laminate first."},
		styrenes, []Class{OnePart, Waterborne, OilFilm, TwoPart, UnknownOld, Stain, Etch, OtherFilm},
		"The styrene of %s lifts %s.", nil, stripped("Strip the old paint as the first step", "")},
	{Rule{ID: "one-part-under-strong-solvent", What: "One-part coating under a strong solvent",
		Why: "The solvent of a two-part coating lifts and wrinkles one-part paint and varnish.", Severity: Stop,
		Source: trade,
		Fix:    "Strip the one-part coating, or stay with one-part coatings over it."},
		films, append(append([]Class{}, tender...), OilFilm), "The solvent of %s lifts %s.",
		func(_ Case, s Step, _ Face) bool {
			return !s.Sheet.StrongSolvent
		}, stripped("Strip the one-part coating as the first step", "")},
	{Rule{ID: "oil-under-film", What: "Oil under a film",
		Why: "Oil keeps bleeding out: films over it cure slowly and let go.", Severity: Warning, Source: trade,
		Fix: "Leave the wood oiled, or scrape and degrease it until it takes water evenly."},
		films, []Class{OilFilm}, "%s holds badly on %s: oil bleeds through.", func(_ Case, s Step, _ Face) bool {
			return s.Sheet.Binder == product.Oil
		}, nil},
	{Rule{ID: "stiff-over-soft", What: "A stiff film over a one-part one",
		Why:      "A film that cures hard pulls at the softer one below, cracks with it and holds no better than that did.",
		Severity: Warning, Source: trade,
		Fix: "Strip the one-part coating, or stay with one-part coatings over it."},
		stiff, tender, "%s is stiffer than %s below it.", nil, stripped("Strip the one-part coating as the first step",
			"")},
	{Rule{ID: "alkyd-on-zinc", What: "One-part paint on zinc-rich primer",
		Why: "Zinc's alkaline salts turn the oil of an alkyd to soap: it peels within a season.", Severity: Warning,
		Source: trade,
		Fix:    "Put an epoxy primer between."},
		[]Class{OnePart, OilFilm, SoftFoul, HardFoul}, []Class{Zinc},
		"%s straight on zinc (%s) turns to soap and peels.", nil,
		func(_ Case, at int, _ Face) *Mend {
			return before(at, "Put an epoxy primer between", laying(product.HighBuild, product.Epoxy, 1))
		}},
	{Rule{ID: "antifouling-on-bare-metal", What: "Antifouling on bare metal",
		Why: "It neither holds nor keeps the water off; copper eats the metal under it.", Severity: Stop, Source: trade,
		Fix: "Build up an epoxy metal primer and a barrier first."},
		allFoul, metals, "%s lies on %s, without a primer.", nil, primed},
	{Rule{ID: "zinc-off-steel", What: "Zinc-rich primer where there is no bare steel",
		Why: "Zinc dust protects steel that it touches; on other metals, on wood, laminate or paint it gives nothing and its film holds badly.", Severity: Warning, Source: trade,
		Fix: "Take an epoxy primer without zinc; keep zinc for steel blasted bright."},
		[]Class{Zinc}, append(append([]Class{}, films...), Wood, Laminate, EpoxyLaminate, LightMetal, OtherMetal,
			UnknownOld, OldCoat), "%s on %s: zinc protects bare steel only.",
		func(_ Case, _ Step, f Face) bool { return f.Class == Zinc }, nil},
	{Rule{ID: "etch-off-light-metal", What: "Etch primer where there is no bare light metal",
		Why: "Its acid bites bare aluminium and zinc only; over anything else it stays weak, and takes what follows along.", Severity: Warning, Source: sheet,
		Fix: "Take an epoxy primer here."},
		[]Class{Etch}, append(append([]Class{}, films...), Wood, Laminate, EpoxyLaminate, Steel, OtherMetal, UnknownOld,
			OldCoat), "%s on %s: etch primer is for bare light metal.",
		func(_ Case, s Step, f Face) bool {
			return f.Class == Etch || f.Class == OtherMetal && s.Sheet.Kind.Info().Metal
		}, nil},
	{Rule{ID: "no-metal-primer", What: "No metal primer on bare metal",
		Why:      "Filler, topcoat and undercoat do not wet or protect metal: rust or bloom creeps under them.",
		Severity: Warning, Source: trade,
		Fix: "Put a metal primer straight on the bright metal."},
		paints, metals, "%s meets %s: it is no metal primer.", func(_ Case, s Step, f Face) bool {
			k := s.Sheet.Kind.Info()
			return k.Metal || f.Class != Steel && k.OnMetal
		}, primed},
	{Rule{ID: "acid-under-epoxy", What: "Epoxy over etch primer",
		Why: "What is left of the acid keeps an epoxy's amine from curing at the joint.", Severity: Note, Source: trade,
		Fix: "Ask both sheets; where in doubt leave the etch primer out and let epoxy primer meet the metal."},
		epoxies, []Class{Etch}, "%s over %s: ask both sheets.", nil, nil},
	{Rule{ID: "wax-not-sanded", What: "A coat over wax",
		Why: "The wax of the last gelcoat floats to its face and parts it from whatever comes next.", Severity: Warning,
		Source: sheet,
		Fix:    "Wipe it with solvent and sand it dull before the next coat, or lay unwaxed gelcoat below."},
		films, []Class{Polyester, PolyesterFill, VinylEster}, "%s over %s, whose wax was not sanded off.",
		func(_ Case, _ Step, f Face) bool { return !f.Sheet.Waxed || f.Keyed }, keyed},
	{Rule{ID: "unknown-old", What: "Over paint of unknown kind",
		Why: "It may be lifted by the solvent, or give no hold.", Severity: Warning, Source: trade,
		Fix: "Rub a patch with the new one's thinner and lay a test patch; seal what stands it with a tie coat, strip what does not."},
		append(append([]Class{}, films...), Release), []Class{UnknownOld},
		"%s goes over %s: find out what it is with a test patch, or seal it.",
		func(_ Case, s Step, _ Face) bool {
			return s.Sheet.Kind == product.TieCoat || !s.Sheet.StrongSolvent && !s.Sheet.Kind.Info().Antifouling
		},
		func(_ Case, at int, _ Face) *Mend {
			return before(at, "Seal it with a tie coat", laying(product.TieCoat, product.Epoxy, 1))
		}},
	{Rule{ID: "porous-unsealed", What: "Filler left unsealed",
		Why: "Light filler drinks water and the next coat; antifouling on it comes off with it: it must be sealed with primer.", Severity: Warning, Source: trade,
		Fix: "Put a primer, tie coat or barrier straight over it."},
		append(append([]Class{}, paints...), SoftFoul, HardFoul), fillers,
		"%s goes straight over %s; seal it with a primer first.",
		func(_ Case, s Step, f Face) bool {
			k := s.Sheet.Kind.Info()
			return k.Filler || k.Seals || !f.Sheet.Porous && !k.Antifouling || f.Class == PolyesterFill &&
				ClassOf(s.Sheet).has(styrenes)
		},
		func(c Case, at int, _ Face) *Mend {
			kind := product.HighBuild
			if c.underwater() {
				kind = product.Barrier
			}
			return before(at, "Seal it with a primer", laying(kind, product.Epoxy, 1))
		}},
	{Rule{ID: "stain-bleeds", What: "A strong solvent over stain",
		Why: "The solvent draws the stain out and leaves it blotched.", Severity: Note, Source: trade,
		Fix: "Try it on an offcut; seal the stain with thinned varnish first."},
		films, []Class{Stain}, "The solvent of %s may draw %s out.", func(_ Case, s Step, _ Face) bool {
			return !s.Sheet.StrongSolvent
		}, nil},
	{Rule{ID: "not-keyed", What: "A cured face that is not sanded",
		Why: "A film that has cured through gives the next one nothing to bite: it peels as a skin.", Severity: Warning,
		Source: trade,
		Fix:    "Sand it dull all over, or lay the coat within the window of the one below."},
		append(append([]Class{}, films...), Release), cured, "%s goes on %s, which is not sanded: it gives no key.",
		func(_ Case, s Step, f Face) bool { return f.Keyed || f.Step >= 0 && open(f, s.Sheet.Kind) }, keyed},
	{Rule{ID: "alkyd-over-epoxy", What: "One-part varnish or paint over fresh epoxy",
		Why: "Amine on and in fresh epoxy slows the drying of oil: the film stays soft for weeks.", Severity: Note,
		Source: trade,
		Fix:    "Let the epoxy cure through, wash it and sand it; an undercoat between helps."},
		[]Class{OnePart, OilFilm}, []Class{EpoxyFilm},
		"%s over %s dries slowly unless that is cured, washed and sanded.", func(_ Case, _ Step, f Face) bool {
			return f.old() || f.Keyed && (f.Washed || !f.Sheet.Blushes)
		},
		func(c Case, at int, f Face) *Mend {
			return before(at, "Wash and sand it before this coat", washing(), c.keyFor(at, f))
		}},
}

// open reports whether a film takes one of a kind unsanded within a window, or is no gloss
// that would part from it.
func open(f Face, kind product.Kind) bool {
	_, ok := f.Sheet.RecoatOver(kind)
	return ok || !f.Sheet.Kind.Info().Gloss
}

// primed puts the primer in that belongs on bare metal.
func primed(_ Case, at int, _ Face) *Mend {
	return before(at, "Put a metal primer on the bare metal first", laying(product.MetalPrimer, product.Epoxy, 2))
}

// judge is the row that a film breaks on a face, nil if it holds there.
func (c Case) judge(s Step, f Face) *Contact {
	over := ClassOf(s.Sheet)
	for k := range Contacts {
		row := &Contacts[k]
		if over.has(row.Over) && f.Class.has(row.Under) && (row.fits == nil || !row.fits(c, s, f)) {
			return row
		}
	}
	return nil
}

// contactRules are the rows as rules: each step that lays a film is judged once.
var contactRules = func() (out []Rule) {
	for k := range Contacts {
		row := &Contacts[k]
		r := row.Rule
		r.check = func(c Case) (hits []hit) {
			for i, s := range c.Steps {
				if !s.Films() {
					continue
				}
				f := c.Meets(i)
				if c.judge(s, f) != row {
					continue
				}
				h := hit{step: i, text: message.Of(row.text, s.Sheet.Name, f.Name)}
				if row.mend != nil {
					h.mend = row.mend(c, i, f)
				}
				hits = append(hits, h)
			}
			return hits
		}
		out = append(out, r)
	}
	return out
}()

// Between reports a rule of what goes on what: a contact, a loose layer, metals near one another.
func Between(rule string) bool {
	return rule == "loose-below" || rule == "copper-near-aluminium" ||
		slices.ContainsFunc(Contacts, func(c Contact) bool { return c.Rule.ID == rule })
}

// ferrous reports metal that rusts.
func ferrous(s survey.Substrate) bool { return s == survey.Steel || s == survey.CastIron }
