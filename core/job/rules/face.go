package rules

import (
	"slices"
	"strings"

	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
)

// Class is what a face is made of, or a film, as the table of contacts knows it.
type Class string

// Classes: of substrates, of films, and of what was there before.
const (
	Wood          Class = "wood"
	Laminate      Class = "laminate" // polyester, bare or with its gelcoat
	EpoxyLaminate Class = "epoxy laminate"
	Steel         Class = "steel" // and cast iron
	LightMetal    Class = "light metal"
	OtherMetal    Class = "other metal" // stainless steel and lead
	OtherFace     Class = "other"
	EpoxyFilm     Class = "epoxy"
	EpoxyFiller   Class = "epoxy filler"
	Zinc          Class = "zinc-rich primer"
	Etch          Class = "etch primer"
	Polyester     Class = "polyester"
	PolyesterFill Class = "polyester filler"
	VinylEster    Class = "vinylester"
	TwoPart       Class = "two-part paint"
	OnePart       Class = "one-part paint"
	Waterborne    Class = "waterborne paint"
	OilFilm       Class = "oil"
	SoftFoul      Class = "soft antifouling"
	HardFoul      Class = "hard antifouling"
	Release       Class = "foul-release"
	ReleaseTie    Class = "foul-release tie"
	Stain         Class = "stain"
	UnknownOld    Class = "unknown paint"
	OtherFilm     Class = "other film"
	OldCoat       Class = "old primer"
)

// ClassOf is the class of a product's film.
func ClassOf(s product.Sheet) Class {
	k := s.Kind.Info()
	switch {
	case k.Antifouling && s.Binder == product.Silicone:
		return Release
	case s.Binder == product.Silicone:
		return ReleaseTie
	case k.Antifouling && k.Wears:
		return SoftFoul
	case k.Antifouling:
		return HardFoul
	case s.Zinc:
		return Zinc
	case k.Metal && s.Binder != product.Epoxy:
		return Etch
	}
	switch s.Binder {
	case product.Epoxy:
		if k.Filler {
			return EpoxyFiller
		}
		return EpoxyFilm
	case product.Polyester:
		if k.Filler {
			return PolyesterFill
		}
		return Polyester
	case product.VinylEster:
		return VinylEster
	case product.Polyurethane:
		return TwoPart
	case product.Alkyd:
		return OnePart
	case product.Acrylic:
		return Waterborne
	case product.Oil:
		return OilFilm
	case product.Vinyl, product.Rosin, product.Silicone:
	}
	return OtherFilm
}

// substrates are the classes of what a boat is made of.
var substrates = map[survey.Substrate]Class{
	survey.Gelcoat: Laminate, survey.GRP: Laminate, survey.FoamCore: Laminate, survey.BalsaCore: Laminate,
	survey.Carbon:    EpoxyLaminate,
	survey.SolidWood: Wood, survey.StripPlank: Wood, survey.Plywood: Wood, survey.Veneer: Wood,
	survey.Steel: Steel, survey.CastIron: Steel, survey.Aluminium: LightMetal, survey.Stainless: OtherMetal,
	survey.Lead: OtherMetal,
}

// oldClass is the class of an old layer. What an antifouling is is told by its note: silicone
// or foul-release, hard, else it is taken for a soft one.
func oldClass(l survey.Layer) Class {
	switch l.Kind {
	case survey.OldGelcoat:
		return Laminate
	case survey.OldEpoxy:
		return EpoxyFilm
	case survey.OldFiller, survey.OldPrimer:
		return OldCoat
	case survey.OldOnePart, survey.OldVarnish:
		return OnePart
	case survey.OldTwoPart:
		return TwoPart
	case survey.OldOil:
		return OilFilm
	case survey.OldStain:
		return Stain
	case survey.OldAntifouling:
		switch note := strings.ToLower(l.Note); {
		case strings.Contains(note, "silicone") || strings.Contains(note, "foul-release") ||
			strings.Contains(note, "foul release"):
			return Release
		case strings.Contains(note, "hard"):
			return HardFoul
		}
		return SoftFoul
	case survey.OldUnknown:
	}
	return UnknownOld
}

// Face is what a film meets: the bare substrate, an old layer or a film of the steps, and what
// was done to it since.
type Face struct {
	Class Class
	Name  string
	// Step is that of a film, −1 of what was there before; Sheet is the film's.
	Step  int
	Sheet product.Sheet
	// Bare is the substrate itself, Stripped if that was laid bare by the steps.
	Bare, Stripped bool
	// Keyed is abraded since, Washed with water.
	Keyed, Washed bool
}

// old reports a layer that was there before.
func (f Face) old() bool { return f.Step < 0 && !f.Bare }

// bare is the substrate as a face.
func (c Case) bare() Face {
	class, ok := substrates[c.Substrate]
	if !ok {
		class = OtherFace
	}
	return Face{Class: class, Name: "bare " + strings.TrimPrefix(c.Substrate.Info().Name, "bare "), Step: -1,
		Bare: true}
}

// Meets is what step i goes over.
func (c Case) Meets(i int) Face {
	f := c.bare()
	if n := len(c.Findings.Layers); n > 0 {
		top := c.Findings.Layers[n-1]
		f = Face{Class: oldClass(top), Name: oldName(top), Step: -1}
	}
	for k, s := range c.Steps[:i] {
		kind := s.Work.Kind()
		switch {
		case s.Work == step.Strip:
			f = c.bare()
			f.Keyed, f.Stripped = true, true
		case kind.Films:
			f = Face{Class: ClassOf(s.Sheet), Name: s.Sheet.Name, Step: k, Sheet: s.Sheet}
			f.Keyed = s.Work == step.Fair // its rounds are sanded
		case kind.Abrades:
			f.Keyed = true
		}
		if s.Work == step.Wash || s.Work == step.Degrease && s.Agent == "detergent" {
			f.Washed = true
		}
	}
	return f
}

// oldName is an old layer in words.
func oldName(l survey.Layer) string {
	switch l.Kind {
	case survey.OldUnknown:
		return "the old paint of unknown kind"
	case survey.OldOil:
		return "the old oil"
	default:
		return "the old " + string(l.Kind)
	}
}

// wet reports sanding with water.
func (s Step) wet() bool { return s.Wet || s.Agent == "wet" }

// has reports whether a class is one of a list.
func (k Class) has(list []Class) bool { return slices.Contains(list, k) }
