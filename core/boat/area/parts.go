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
	Skeg       Part = "skeg"
	Keel       Part = "keel"
	Tunnel     Part = "tunnel"
	Struts     Part = "struts"
	Lockers    Part = "lockers"
	Linings    Part = "linings"
	OpenInside Part = "open-inside"
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
	// rule gives the part's whole area, both sides.
	rule rule
}

// rule estimates an area from principal dimensions: m², its formula and ±, %.
type rule func(d Dimensions) (a float64, formula string, pct float64)

// plain is a rule of one formula and ±.
func plain(pct float64, formula string, area func(d Dimensions) float64) rule {
	return func(d Dimensions) (float64, string, float64) { return area(d), formula, pct }
}

// PrincipalPct is the ± of the trade's three rules, bottom, topsides and deck, for the hulls
// that they were made for.
const PrincipalPct = 15

// Parts lists the parts from the keel up, those outside the hull last. Beside
// bottom, topsides and deck the rules are first guesses of this program, made
// to be replaced by a tape.
var Parts = withRules([]PartInfo{
	{Part: Bottom, Name: "bottom", TiltDeg: 130, Underwater: true, Skin: true, Girthed: true,
		Meets: []Part{BootTop, Topsides}, rule: Dimensions.bottom},
	{Part: BootTop, Name: "boot-top", TiltDeg: 95, Level: 1, Underwater: true, Skin: true, Girthed: true,
		Meets: []Part{Topsides}, rule: plain(30, "hulls · 2 · LWL · 0.12 m",
			func(d Dimensions) float64 { return d.HullForm.Info().whole * 2 * d.LWLM * 0.12 })},
	{Part: Topsides, Name: "topsides", TiltDeg: 90, Level: 2, Skin: true, Girthed: true,
		Meets: []Part{Transom, Deck, SideDecks, Rails},
		rule:  plain(PrincipalPct, "hulls · 2 · (LOA + beam of a hull) · freeboard", Dimensions.topsides)},
	{Part: Transom, Name: "transom", TiltDeg: 90, Level: 2, Skin: true, rule: plain(35, "0.7 · beam · freeboard",
		func(d Dimensions) float64 { return 0.7 * d.BeamM * d.FreeboardM })},
	{Part: Deck, Name: "deck", TiltDeg: 0, Level: 3, Skin: true, Trodden: true,
		Meets: []Part{CabinSides, Coamings, Cockpit, Rails}, rule: Dimensions.deck},
	{Part: SideDecks, Name: "side decks", TiltDeg: 0, Level: 3, Skin: true, Trodden: true,
		rule: plain(40, "0.5 · (0.75 · LOA · beam − houses, or a quarter of LOA · beam)",
			func(d Dimensions) float64 { return 0.5 * max(0, d.deckPlan()-d.houses()) })},
	{Part: CabinTop, Name: "cabin top", TiltDeg: 0, Level: 5, Skin: true, Trodden: true,
		rule: plain(40, "0.6 · houses, or 0.15 · LOA · beam",
			func(d Dimensions) float64 { return 0.6 * d.houses() })},
	{Part: CabinSides, Name: "cabin sides", TiltDeg: 80, Level: 4, Skin: true, Meets: []Part{CabinTop},
		rule: plain(45, "2 · 0.35 · LOA · 0.4 m",
			func(d Dimensions) float64 { return 2 * 0.35 * d.LOAM * 0.4 })},
	{Part: Cockpit, Name: "cockpit", TiltDeg: 0, Level: 3, Skin: true, Trodden: true,
		rule: plain(45, "2 · 0.4 · houses, or 0.2 · LOA · beam: sole, seats and sides",
			func(d Dimensions) float64 { return 2 * 0.4 * d.houses() })},
	{Part: OpenInside, Name: "inside of an open boat", TiltDeg: 60, Level: 3, Skin: true, Meets: []Part{Rails},
		rule: plain(25,
			"0.95 · (bottom + topsides): the other face of the same skin, less what rails and thwarts cover",
			func(d Dimensions) float64 {
				b, _, _ := d.bottom()
				return 0.95 * (b + d.topsides())
			})},
	{Part: Sole, Name: "sole", TiltDeg: 0, Level: 3, Inside: true, Skin: true, Trodden: true},
	{Part: Hatches, Name: "hatches", TiltDeg: 0, Level: 4, Portable: true},
	{Part: Coamings, Name: "coamings", TiltDeg: 85, Level: 4, Fiddly: true, rule: plain(45, "2 · 0.3 · LOA · 0.4 m",
		func(d Dimensions) float64 { return 2 * 0.3 * d.LOAM * 0.4 })},
	{Part: Rails, Name: "rails", TiltDeg: 45, Level: 3, Fiddly: true, rule: plain(40, "2 · 1.05 · LOA · 0.2 m",
		func(d Dimensions) float64 { return 2 * 1.05 * d.LOAM * 0.2 })},
	{Part: Tunnel, Name: "tunnel", TiltDeg: 150, Underwater: true, Skin: true, Fiddly: true},
	{Part: Keel, Name: "keel", TiltDeg: 90, Underwater: true, rule: Dimensions.keel},
	{Part: Skeg, Name: "skeg", TiltDeg: 90, Underwater: true, rule: plain(50, "2 · 0.06 · LWL · 0.5 · draught",
		func(d Dimensions) float64 { return 2 * 0.06 * d.LWLM * 0.5 * d.DraughtM })},
	{Part: Rudder, Name: "rudder", TiltDeg: 90, Underwater: true, Portable: true,
		rule: plain(45, "2 · 0.07 · LWL · 0.8 · draught",
			func(d Dimensions) float64 { return 2 * 0.07 * d.LWLM * 0.8 * d.DraughtM })},
	{Part: Struts, Name: "struts", TiltDeg: 90, Underwater: true, Fiddly: true},
	{Part: Spars, Name: "spars", TiltDeg: 90, Level: 5, Portable: true, rule: plain(45, "1.1 · LOA · 0.04 · LOA",
		func(d Dimensions) float64 { return 1.1 * d.LOAM * 0.04 * d.LOAM })},
	{Part: Lockers, Name: "lockers", TiltDeg: 90, Level: 3, Inside: true, Skin: true, Fiddly: true},
	{Part: Linings, Name: "inside linings", TiltDeg: 90, Level: 3, Inside: true, Skin: true},
	{Part: Furniture, Name: "furniture parts", TiltDeg: 0, Level: 3, Inside: true, Fiddly: true, Portable: true},
	{Part: Other, Name: "other", TiltDeg: 90, Level: 3},
})

func withRules(parts []PartInfo) []PartInfo {
	for i := range parts {
		parts[i].ByRule = parts[i].rule != nil
	}
	return parts
}

// deck is what of the deck's plan is not houses and openings.
func (d Dimensions) deck() (float64, string, float64) {
	pct := float64(PrincipalPct)
	if f := d.HullForm.Info(); f.Open || f.Hulls > 1 {
		pct = 35 // thwarts, nets and bridges are as various as boats
	}
	return d.deckPlan() - d.HousesM2, "0.75 · LOA · beam − houses", pct
}

// keel is both faces of a fin, or of what of a long keel stands below the hull.
func (d Dimensions) keel() (float64, string, float64) {
	switch {
	case d.HullForm.Info().Fin:
		return 2 * 0.22 * d.LWLM * (d.DraughtM - d.body()), "2 · 0.22 · LWL · (draught − draught of the hull)", 35
	case d.BodyDraughtM > 0 && d.BodyDraughtM < d.DraughtM:
		return 2 * 0.5 * d.LWLM * (d.DraughtM - d.BodyDraughtM), "2 · 0.5 · LWL · (draught − draught of the hull)", 40
	}
	return 2 * 0.5 * d.LWLM * 0.3 * d.DraughtM, "2 · 0.5 · LWL · 0.3 · draught", 60
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
