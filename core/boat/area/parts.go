package area

import "slices"

// Part is what part of the boat a surface is.
type Part string

// The parts of a boat that are coated.
const (
	Bottom     Part = "bottom"
	BootTop    Part = "boot-top"
	Topsides   Part = "topsides"
	Transom    Part = "transom"
	Deck       Part = "deck"
	SideDecks  Part = "side-decks"
	CabinTop   Part = "cabin-top"
	CabinSides Part = "cabin-sides"
	Cockpit    Part = "cockpit"
	Sole       Part = "sole"
	Hatches    Part = "hatches"
	Coamings   Part = "coamings"
	Rails      Part = "rails"
	Spars      Part = "spars"
	Rudder     Part = "rudder"
	Keel       Part = "keel"
	Tunnel     Part = "tunnel"
	Struts     Part = "struts"
	Lockers    Part = "lockers"
	Linings    Part = "linings"
	Furniture  Part = "furniture"
	Other      Part = "other"
)

// PartInfo describes a part: all that rules and screens ask of it.
type PartInfo struct {
	Part Part   `json:"part"`
	Name string `json:"name"`
	// TiltDeg is its usual slope: 0° level and facing up, 90° upright, 180° overhead.
	TiltDeg float64 `json:"tiltDeg"`
	// ByRule: principal dimensions give its area.
	ByRule bool `json:"byRule"`
	// Level orders the parts from the keel, 0, to the spars, 5, for work top down.
	Level int `json:"-"`
	// Underwater: it stands in the water for good. Trodden: feet go on it.
	Underwater bool `json:"underwater"`
	Trodden    bool `json:"trodden"`
	// Girthed: it is taped at stations.
	Girthed bool `json:"girthed"`
	// Inside: it is indoors of the boat. Skin: it has her inside behind it. Fiddly: there is
	// more edge than face. Portable: it is taken indoors when it rains.
	Inside, Skin, Fiddly, Portable bool `json:"-"`
	// Meets are parts further up that it meets at a mask line.
	Meets []Part `json:"-"`
	// rule gives the part's whole area, both sides, in m².
	rule rule
}

// rule estimates an area from principal dimensions.
type rule struct {
	pct     float64
	formula string
	area    func(d Dimensions) float64
}

// PrincipalPct is the standard uncertainty of the trade's three rules: bottom,
// topsides and deck.
const PrincipalPct = 15

// Parts lists the parts from the keel up, those outside the hull last. Beside
// bottom, topsides and deck the rules are first guesses of this program, made
// to be replaced by a tape.
var Parts = withRules([]PartInfo{
	{Part: Bottom, Name: "bottom", TiltDeg: 130, Underwater: true, Skin: true, Girthed: true, Meets: []Part{BootTop, Topsides}, rule: rule{PrincipalPct, "k · LWL · (beam + draught)",
		func(d Dimensions) float64 { return d.HullForm.factor() * d.LWLM * (d.BeamM + d.DraughtM) }}},
	{Part: BootTop, Name: "boot-top", TiltDeg: 95, Level: 1, Underwater: true, Skin: true, Girthed: true, Meets: []Part{Topsides}, rule: rule{25, "2 · LWL · 0.12 m",
		func(d Dimensions) float64 { return 2 * d.LWLM * 0.12 }}},
	{Part: Topsides, Name: "topsides", TiltDeg: 90, Level: 2, Skin: true, Girthed: true, Meets: []Part{Transom, Deck, SideDecks, Rails}, rule: rule{PrincipalPct, "2 · (LOA + beam) · freeboard",
		func(d Dimensions) float64 { return 2 * (d.LOAM + d.BeamM) * d.FreeboardM }}},
	{Part: Transom, Name: "transom", TiltDeg: 90, Level: 2, Skin: true, rule: rule{30, "0.7 · beam · freeboard",
		func(d Dimensions) float64 { return 0.7 * d.BeamM * d.FreeboardM }}},
	{Part: Deck, Name: "deck", TiltDeg: 0, Level: 3, Skin: true, Trodden: true, Meets: []Part{CabinSides, Coamings, Cockpit, Rails}, rule: rule{PrincipalPct, "0.75 · LOA · beam − houses",
		func(d Dimensions) float64 { return 0.75*d.LOAM*d.BeamM - d.HousesM2 }}},
	{Part: SideDecks, Name: "side decks", TiltDeg: 0, Level: 3, Skin: true, Trodden: true, rule: rule{30, "0.25 · LOA · beam",
		func(d Dimensions) float64 { return 0.25 * d.LOAM * d.BeamM }}},
	{Part: CabinTop, Name: "cabin top", TiltDeg: 0, Level: 5, Skin: true, Trodden: true, rule: rule{30, "0.6 · houses, or 0.15 · LOA · beam",
		func(d Dimensions) float64 { return 0.6 * d.houses() }}},
	{Part: CabinSides, Name: "cabin sides", TiltDeg: 80, Level: 4, Skin: true, Meets: []Part{CabinTop}, rule: rule{35, "2 · 0.35 · LOA · 0.4 m",
		func(d Dimensions) float64 { return 2 * 0.35 * d.LOAM * 0.4 }}},
	{Part: Cockpit, Name: "cockpit", TiltDeg: 0, Level: 3, Skin: true, Trodden: true, rule: rule{35, "0.8 · houses, or 0.2 · LOA · beam",
		func(d Dimensions) float64 { return 0.8 * d.houses() }}},
	{Part: Sole, Name: "sole", TiltDeg: 0, Level: 3, Inside: true, Skin: true, Trodden: true},
	{Part: Hatches, Name: "hatches", TiltDeg: 0, Level: 4, Portable: true},
	{Part: Coamings, Name: "coamings", TiltDeg: 85, Level: 4, Fiddly: true, rule: rule{35, "2 · 0.3 · LOA · 0.4 m",
		func(d Dimensions) float64 { return 2 * 0.3 * d.LOAM * 0.4 }}},
	{Part: Rails, Name: "rails", TiltDeg: 45, Level: 3, Fiddly: true, rule: rule{30, "2 · 1.05 · LOA · 0.2 m",
		func(d Dimensions) float64 { return 2 * 1.05 * d.LOAM * 0.2 }}},
	{Part: Tunnel, Name: "tunnel", TiltDeg: 150, Underwater: true, Skin: true, Fiddly: true},
	{Part: Keel, Name: "keel", TiltDeg: 90, Underwater: true, rule: rule{30, "2 · 0.22 · LWL · 0.65 · draught",
		func(d Dimensions) float64 { return 2 * 0.22 * d.LWLM * 0.65 * d.DraughtM }}},
	{Part: Rudder, Name: "rudder", TiltDeg: 90, Underwater: true, Portable: true, rule: rule{35, "2 · 0.07 · LWL · 0.8 · draught",
		func(d Dimensions) float64 { return 2 * 0.07 * d.LWLM * 0.8 * d.DraughtM }}},
	{Part: Struts, Name: "struts", TiltDeg: 90, Underwater: true, Fiddly: true},
	{Part: Spars, Name: "spars", TiltDeg: 90, Level: 5, Portable: true, rule: rule{35, "1.1 · LOA · 0.04 · LOA",
		func(d Dimensions) float64 { return 1.1 * d.LOAM * 0.04 * d.LOAM }}},
	{Part: Lockers, Name: "lockers", TiltDeg: 90, Level: 3, Inside: true, Skin: true, Fiddly: true},
	{Part: Linings, Name: "inside linings", TiltDeg: 90, Level: 3, Inside: true, Skin: true},
	{Part: Furniture, Name: "furniture parts", TiltDeg: 0, Level: 3, Inside: true, Fiddly: true, Portable: true},
	{Part: Other, Name: "other", TiltDeg: 90, Level: 3},
})

func withRules(parts []PartInfo) []PartInfo {
	for i := range parts {
		parts[i].ByRule = parts[i].rule.area != nil
	}
	return parts
}

func (d Dimensions) houses() float64 {
	if d.HousesM2 > 0 {
		return d.HousesM2
	}
	return 0.25 * d.LOAM * d.BeamM
}

// Info returns what is known of a part; an unknown one is Other.
func (p Part) Info() PartInfo {
	for _, i := range Parts {
		if i.Part == p {
			return i
		}
	}
	return Parts[len(Parts)-1]
}

// Side is the side of the boat that a surface is on.
type Side string

// Sides of the boat. Both is also the side of what has none.
const (
	Port      Side = "port"
	Starboard Side = "starboard"
	Both      Side = "both"
)

// Sides lists the sides.
var Sides = []Side{Port, Starboard, Both}

// Opposite returns the other side; both stay both.
func (s Side) Opposite() Side {
	switch s {
	case Port:
		return Starboard
	case Starboard:
		return Port
	case Both:
	}
	return s
}

// Underwater reports whether the part stands in the water for good.
func (p Part) Underwater() bool { return p.Info().Underwater }

// Touches reports whether two parts meet at a mask line.
func (p Part) Touches(o Part) bool {
	return slices.Contains(p.Info().Meets, o) || slices.Contains(o.Info().Meets, p)
}
