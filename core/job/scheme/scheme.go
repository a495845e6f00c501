// Package scheme holds usual sequences of work for each kind of job, by the
// schools that practitioners follow, each with its reason.
package scheme

import (
	"slices"

	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/physics/cure"
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

// Step is a step of a scheme. The product is what suits the place best of that kind, with
// the binder, trait and grade of hardener, if they are given. DFTUm 0 is the sheet's
// typical film.
type Step struct {
	step.Step
	Kind   product.Kind   `json:"kind,omitempty"`
	Binder product.Binder `json:"binder,omitempty"`
	Trait  Trait          `json:"trait,omitempty" enum:"copper-free,copper,zinc-rich,waxed,unwaxed,light"`
}

// Scheme is a sequence of steps for a job, as a school does it. On are the substrates that it
// is for, Over the outermost old layer that it goes over, none where it begins bare.
type Scheme struct {
	Key    string             `json:"key"`
	Job    string             `json:"job"`
	School string             `json:"school"`
	Reason string             `json:"reason"`
	On     []survey.Substrate `json:"on"`
	Over   survey.LayerKind   `json:"over,omitempty"`
	Steps  []Step             `json:"steps"`
}

// Suits reports whether the scheme is for a substrate with what lies on it.
func (s Scheme) Suits(on survey.Substrate, layers []survey.Layer) bool {
	if !slices.Contains(s.On, on) {
		return false
	}
	return s.Over == "" || len(layers) > 0 && layers[len(layers)-1].Kind == s.Over
}

// Jobs.
const (
	Bottom        = "Bottom: barrier and antifouling"
	MetalBottom   = "Metal bottom"
	Topsides      = "Topsides in colour"
	Fairing       = "Fairing"
	MetalTopsides = "Metal topsides"
	MetalDeck     = "Metal deck"
	Brightwork    = "Brightwork"
	Deck          = "Non-skid deck"
	Inside        = "Inside"
	GelcoatRepair = "Gelcoat repair"
)

// JobFor is the job that a surface usually needs: by what it is part of and
// what it is made of.
func JobFor(part area.Part, substrate survey.Substrate) string {
	info, of := part.Info(), substrate.Info()
	switch {
	case info.Underwater && of.Metal:
		return MetalBottom
	case info.Underwater:
		return Bottom
	case info.Inside:
		return Inside
	case info.Trodden && of.Metal:
		return MetalDeck
	case info.Trodden:
		return Deck
	case of.Metal:
		return MetalTopsides
	case substrate == survey.SolidWood || substrate == survey.StripPlank || of.Wood &&
		(part == area.Spars || part == area.Coamings || part == area.Rails):
		return Brightwork
	}
	return Topsides
}

// Place is where a step is done.
type Place struct {
	Part      area.Part
	Substrate survey.Substrate
}

// Find returns the sheet that suits a step best, by index: of those of its kind, with its
// binder, trait and hardener, the one that is made for the place, the user's own before
// examples, then the first.
func (s Step) Find(library []product.Sheet, at Place) (int, bool) {
	best, most := -1, 0
	for i, p := range library {
		if _, graded := p.With(s.Grade); !graded || p.Kind != s.Kind || s.Binder != "" && p.Binder != s.Binder ||
			!s.Trait.fits(p) {
			continue
		}
		if fit := at.suits(p); best < 0 || fit > most {
			best, most = i, fit
		}
	}
	return best, best >= 0
}

// suits is how well a product suits a place, the more the better.
func (at Place) suits(p product.Sheet) (fit int) {
	kind, info := p.Kind.Info(), at.Part.Info()
	count := func(good bool, by int) {
		if good {
			fit += by
		}
	}
	count(!info.Underwater || p.Underwater, 32)
	count(!p.Copper || at.Substrate != survey.Aluminium, 16)
	count(!kind.Antifouling || p.Binder != product.Silicone, 16) // it wants a tie coat of its own
	count(!kind.Metal || p.Binder == product.Epoxy, 8)
	count(!kind.Antifouling || p.Copper || at.Substrate == survey.Aluminium, 4)
	count(p.Decks == info.Trodden, 4)
	count(kind.Clear && p.Binder == product.Alkyd, 4) // which the owner lays
	count(p.Humidity == cure.Indifferent, 2)
	count(!p.Example, 1)
	return fit
}

// Laid is a step with what it leaves open as a product's sheet has it.
func Laid(s step.Step, p product.Sheet) step.Step {
	if s.DFTUm == 0 {
		s.DFTUm = p.Film.TypicalUm
	}
	if s.Method == "" && len(p.Methods) > 0 {
		s.Method = p.Methods[0]
	}
	if m, ok := film.MethodByKey(s.Method); ok {
		s.LossPct = m.LossPct
		if own, ok := p.LossPct[m.Key]; ok {
			s.LossPct = own
		}
	}
	return s
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
func fresh() Step {
	s := work(step.Wash, "fresh water, let dry")
	s.Agent = "water"
	return s
}
func wetSand(grit int) Step {
	s := sand(grit)
	s.Wet = true
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
	return onSpots(Step{Step: step.Step{Work: step.Fill, Coats: 1, DFTUm: 500, Method: "blade"}, Kind: product.Fairing,
		Binder: product.Epoxy, Trait: Light})
}

// onSpots keeps a step to the spots.
func onSpots(s Step) Step {
	s.Where = &step.Where{Name: "spots", SharePct: spotsPct}
	return s
}

// removed is about what a sanding takes off, µm, by grit: rules of thumb.
var removed = map[int]float64{80: 40, 120: 20, 180: 12, 240: 8, 320: 5}

func coloured(s Step, colour string) Step { s.Colour = colour; return s }
func thinned(s Step, pct float64) Step    { s.ThinnerPct = pct; return s }
func graded(s Step, grade string) Step    { s.Grade = grade; return s }
func having(s Step, t Trait) Step         { s.Trait = t; return s }
func bound(s Step, b product.Binder) Step { s.Binder = b; return s }
