package area

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

// PartInfo describes a part: its name, its usual slope (0° level and facing
// up, 90° upright, 180° overhead) and whether principal dimensions give its
// area.
type PartInfo struct {
	Part    Part    `json:"part"`
	Name    string  `json:"name"`
	TiltDeg float64 `json:"tiltDeg"`
	ByRule  bool    `json:"byRule"`
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
	{Part: Bottom, Name: "bottom", TiltDeg: 130, rule: rule{PrincipalPct, "k · LWL · (beam + draught)",
		func(d Dimensions) float64 { return d.HullForm.factor() * d.LWLM * (d.BeamM + d.DraughtM) }}},
	{Part: BootTop, Name: "boot-top", TiltDeg: 95, rule: rule{25, "2 · LWL · 0.12 m",
		func(d Dimensions) float64 { return 2 * d.LWLM * 0.12 }}},
	{Part: Topsides, Name: "topsides", TiltDeg: 90, rule: rule{PrincipalPct, "2 · (LOA + beam) · freeboard",
		func(d Dimensions) float64 { return 2 * (d.LOAM + d.BeamM) * d.FreeboardM }}},
	{Part: Transom, Name: "transom", TiltDeg: 90, rule: rule{30, "0.7 · beam · freeboard",
		func(d Dimensions) float64 { return 0.7 * d.BeamM * d.FreeboardM }}},
	{Part: Deck, Name: "deck", TiltDeg: 0, rule: rule{PrincipalPct, "0.75 · LOA · beam − houses",
		func(d Dimensions) float64 { return 0.75*d.LOAM*d.BeamM - d.HousesM2 }}},
	{Part: SideDecks, Name: "side decks", TiltDeg: 0, rule: rule{30, "0.25 · LOA · beam",
		func(d Dimensions) float64 { return 0.25 * d.LOAM * d.BeamM }}},
	{Part: CabinTop, Name: "cabin top", TiltDeg: 0, rule: rule{30, "0.6 · houses, or 0.15 · LOA · beam",
		func(d Dimensions) float64 { return 0.6 * d.houses() }}},
	{Part: CabinSides, Name: "cabin sides", TiltDeg: 80, rule: rule{35, "2 · 0.35 · LOA · 0.4 m",
		func(d Dimensions) float64 { return 2 * 0.35 * d.LOAM * 0.4 }}},
	{Part: Cockpit, Name: "cockpit", TiltDeg: 0, rule: rule{35, "0.8 · houses, or 0.2 · LOA · beam",
		func(d Dimensions) float64 { return 0.8 * d.houses() }}},
	{Part: Sole, Name: "sole", TiltDeg: 0},
	{Part: Hatches, Name: "hatches", TiltDeg: 0},
	{Part: Coamings, Name: "coamings", TiltDeg: 85, rule: rule{35, "2 · 0.3 · LOA · 0.4 m",
		func(d Dimensions) float64 { return 2 * 0.3 * d.LOAM * 0.4 }}},
	{Part: Rails, Name: "rails", TiltDeg: 45, rule: rule{30, "2 · 1.05 · LOA · 0.2 m",
		func(d Dimensions) float64 { return 2 * 1.05 * d.LOAM * 0.2 }}},
	{Part: Tunnel, Name: "tunnel", TiltDeg: 150},
	{Part: Keel, Name: "keel", TiltDeg: 90, rule: rule{30, "2 · 0.22 · LWL · 0.65 · draught",
		func(d Dimensions) float64 { return 2 * 0.22 * d.LWLM * 0.65 * d.DraughtM }}},
	{Part: Rudder, Name: "rudder", TiltDeg: 90, rule: rule{35, "2 · 0.07 · LWL · 0.8 · draught",
		func(d Dimensions) float64 { return 2 * 0.07 * d.LWLM * 0.8 * d.DraughtM }}},
	{Part: Struts, Name: "struts", TiltDeg: 90},
	{Part: Spars, Name: "spars", TiltDeg: 90, rule: rule{35, "1.1 · LOA · 0.04 · LOA",
		func(d Dimensions) float64 { return 1.1 * d.LOAM * 0.04 * d.LOAM }}},
	{Part: Lockers, Name: "lockers", TiltDeg: 90},
	{Part: Linings, Name: "inside linings", TiltDeg: 90},
	{Part: Furniture, Name: "furniture parts", TiltDeg: 0},
	{Part: Other, Name: "other", TiltDeg: 90},
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
	}
	return s
}

// Underwater reports whether the part stands in the water for good.
func (p Part) Underwater() bool {
	switch p {
	case Bottom, BootTop, Rudder, Keel, Tunnel, Struts:
		return true
	}
	return false
}
