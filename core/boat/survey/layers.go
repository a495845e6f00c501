// Package survey holds what is found on a boat before she is coated: the
// substrate and the old layers on it, defects and their repair, and what a hull
// type usually has for surfaces.
package survey

import (
	"fmt"
	"strings"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
)

// Substrate is what a surface is made of.
type Substrate string

// Substrates.
const (
	Gelcoat     Substrate = "gelcoat"
	GRP         Substrate = "grp"
	FoamCore    Substrate = "foam-core"
	BalsaCore   Substrate = "balsa-core"
	Carbon      Substrate = "carbon"
	SolidWood   Substrate = "solid-wood"
	StripPlank  Substrate = "strip-plank"
	Plywood     Substrate = "plywood"
	Veneer      Substrate = "veneer"
	Steel       Substrate = "steel"
	Stainless   Substrate = "stainless"
	Aluminium   Substrate = "aluminium"
	CastIron    Substrate = "cast-iron"
	Lead        Substrate = "lead"
	OtherSubstr Substrate = "other"
)

// SubstrateInfo describes a substrate: all that rules and screens ask of its kind.
type SubstrateInfo struct {
	Key  Substrate `json:"key"`
	Name string    `json:"name"`
	// Laminate: polyester or its like with fibres, on which gelcoat holds.
	Laminate bool `json:"laminate"`
	Wood     bool `json:"wood"`
	Metal    bool `json:"metal"`
}

// Substrates lists the substrates.
var Substrates = []SubstrateInfo{
	{Key: Gelcoat, Name: "gelcoat on GRP", Laminate: true}, {Key: GRP, Name: "bare GRP laminate", Laminate: true},
	{Key: FoamCore, Name: "laminate over foam core", Laminate: true}, {Key: BalsaCore, Name: "laminate over balsa core",
		Laminate: true},
	{Key: Carbon, Name: "carbon laminate"},
	{Key: SolidWood, Name: "solid wood", Wood: true}, {Key: StripPlank, Name: "strip plank", Wood: true},
	{Key: Plywood, Name: "plywood", Wood: true}, {Key: Veneer, Name: "veneer", Wood: true},
	{Key: Steel, Name: "steel", Metal: true}, {Key: Stainless, Name: "stainless steel", Metal: true},
	{Key: Aluminium, Name: "aluminium", Metal: true},
	{Key: CastIron, Name: "cast iron", Metal: true}, {Key: Lead, Name: "lead", Metal: true},
	{Key: OtherSubstr, Name: "other"},
}

// Info returns what is known of a substrate; an unknown one has its key for a name.
func (s Substrate) Info() SubstrateInfo {
	for _, i := range Substrates {
		if i.Key == s {
			return i
		}
	}
	return SubstrateInfo{Key: s, Name: string(s)}
}

func substrateKeys() []Substrate {
	out := make([]Substrate, len(Substrates))
	for i, s := range Substrates {
		out[i] = s.Key
	}
	return out
}

// LayerKind is what an old layer is.
type LayerKind string

// Kinds of old layers.
const (
	OldUnknown     LayerKind = "unknown"
	OldGelcoat     LayerKind = "gelcoat"
	OldFiller      LayerKind = "filler"
	OldEpoxy       LayerKind = "epoxy"
	OldPrimer      LayerKind = "primer"
	OldOnePart     LayerKind = "one-part paint"
	OldTwoPart     LayerKind = "two-part paint"
	OldVarnish     LayerKind = "varnish"
	OldStain       LayerKind = "stain"
	OldOil         LayerKind = "oil"
	OldAntifouling LayerKind = "antifouling"
)

// LayerKinds lists the kinds of old layers.
var LayerKinds = []LayerKind{OldUnknown, OldGelcoat, OldFiller, OldEpoxy, OldPrimer, OldOnePart, OldTwoPart, OldVarnish,
	OldStain, OldOil, OldAntifouling}

// Soundness of an old layer.
type Soundness string

// Soundness.
const (
	Sound    Soundness = "sound"
	Doubtful Soundness = "doubtful"
	Loose    Soundness = "loose"
)

// Soundnesses lists them.
var Soundnesses = []Soundness{Sound, Doubtful, Loose}

// Layer is an old layer, µm thick; 0 is not known.
type Layer struct {
	Kind      LayerKind `json:"kind"`
	Colour    string    `json:"colour"`
	Um        float64   `json:"um"`
	Soundness Soundness `json:"soundness"`
	Note      string    `json:"note"`
}

// Moisture is a reading of a moisture meter, %.
type Moisture struct {
	Where string  `json:"where"`
	Pct   float64 `json:"pct"`
}

// Findings is what lies on a substrate. Layers go from the substrate outward.
// Stop is how many of them, counted from the substrate, must stay: sanding may
// reach the Stop-th and no deeper; 0 lets it reach the substrate.
type Findings struct {
	Layers   []Layer    `json:"layers"`
	Stop     int        `json:"stop"`
	Moisture []Moisture `json:"moisture"`
	// VeneerMM is the veneer left over the core, mm; 0 is none or not known.
	VeneerMM float64 `json:"veneerMM"`
	// HardLines are its knuckles, chines, edges and inside corners.
	HardLines []HardLine `json:"hardLines,omitempty"`
}

// Validate reports impossible figures.
func (f Findings) Validate() error {
	var bad fielderr.Errors
	if len(f.Layers) > 50 {
		bad.Add("layers", "at most 50 layers are kept")
	}
	for i, l := range f.Layers {
		at := fmt.Sprintf("layers[%d]", i)
		fielderr.OneOf(&bad, at+".kind", l.Kind, LayerKinds)
		fielderr.OneOf(&bad, at+".soundness", l.Soundness, Soundnesses)
		bad.Range(at+".um", l.Um, 0, 50e3, "µm")
	}
	bad.Range("stop", float64(f.Stop), 0, float64(len(f.Layers)), "layers")
	for i, m := range f.Moisture {
		bad.Range(fmt.Sprintf("moisture[%d].pct", i), m.Pct, 0, 100, "%")
	}
	bad.Range("veneerMM", f.VeneerMM, 0, 20, "mm")
	hardLines(&bad, f.HardLines)
	return bad.Err()
}

// ByRings makes layers of the rings of colour that sanding through shows,
// named from the outermost in, between commas: each ring is a layer.
func ByRings(rings string) []Layer {
	out := []Layer{}
	parts := strings.Split(rings, ",")
	for i := len(parts) - 1; i >= 0; i-- {
		if colour := strings.TrimSpace(parts[i]); colour != "" {
			out = append(out, Layer{Kind: OldUnknown, Colour: colour, Soundness: Sound})
		}
	}
	return out
}

// AboveStop is the film, µm, that may be sanded before the layer that must
// stay, and whether every layer's thickness above it is known.
func (f Findings) AboveStop() (um float64, known bool) {
	known = true
	for _, l := range f.Layers[min(f.Stop, len(f.Layers)):] {
		um += l.Um
		known = known && l.Um > 0
	}
	return um, known
}

// WetWoodPct is the moisture above which wood is too wet to be coated, %: a rule of thumb.
const WetWoodPct = 18

// Cautions are what the old layers and the substrate warn of; they defer to
// local rules and licensed practice.
func (f Findings) Cautions(s Substrate) []message.Sentence {
	out := []message.Sentence{}
	has := map[LayerKind]bool{}
	loose := false
	for _, l := range f.Layers {
		has[l.Kind] = true
		loose = loose || l.Soundness == Loose
	}
	add := func(when bool, template string, args ...any) {
		if when {
			out = append(out, message.Of(template, args...))
		}
	}
	add(has[OldUnknown] || has[OldOnePart] || has[OldPrimer] && s.Info().Metal,
		"Old paint of unknown kind may hold lead or chromate: test it before sanding. If it does, stop: removal is for licensed people under local rules.")
	add(has[OldAntifouling],
		"Old antifouling is toxic, older ones may hold tin: never sand it dry. Wet it, catch dust, slurry and wash water, and follow local rules for the waste.")
	add(loose, "A loose layer carries nothing: take it off down to what is sound before anything goes on.")
	for _, m := range f.Moisture {
		if s.Info().Wood && m.Pct > WetWoodPct {
			out = append(out, message.Of(
				"%.3g %% moisture (%s): wood over %d %% is too wet to be sealed (rule of thumb). Dry it first.", m.Pct,
				m.Where, WetWoodPct))
		}
	}
	add(!s.Info().Wood && !s.Info().Metal && len(f.Moisture) > 0,
		"Moisture readings on laminate are relative to the meter: compare with a dry part of the same boat, above the waterline.")
	add(f.VeneerMM > 0 && f.VeneerMM < 0.6,
		"Only %.2g mm of veneer is left: strip chemically or by scraper; a machine goes through.", f.VeneerMM)
	um, known := f.AboveStop()
	add(len(f.Layers) > 0 && !known,
		"The thickness of a layer that may be sanded is not known: gauge it, or sand a test patch to see its rings.")
	add(len(f.Layers) > 0 && known && um < 40,
		"Only %.3g µm lie above the layer that must stay: scuff by hand, no machine.", um)
	return out
}
