package area

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every part is described: what stands in the water lies low and is not indoors, what is
// trodden has no steep slope, and parts meet those that are at their height or above.
func TestPartsAreDescribed(t *testing.T) {
	seen := map[Part]bool{}
	for _, p := range Parts {
		assert.False(t, seen[p.Part], p.Name)
		seen[p.Part] = true
		assert.NotEmpty(t, p.Name)
		assert.False(t, p.Underwater && (p.Level > 1 || p.Inside || p.Trodden), p.Name)
		assert.False(t, p.Trodden && p.TiltDeg > 10, p.Name)
		for _, o := range p.Meets {
			assert.GreaterOrEqual(t, o.Info().Level, p.Level, "%s meets %s", p.Name, o)
			assert.True(t, o.Touches(p.Part) && p.Part.Touches(o), "%s meets %s", p.Name, o)
		}
	}
	for _, c := range []struct {
		a, b Part
		want bool
	}{{Topsides, Deck, true}, {Deck, Topsides, true}, {CabinTop, CabinSides, true}, {Bottom, Deck, false},
		{Keel, Keel, false}} {
		assert.Equal(t, c.want, c.a.Touches(c.b), "%s, %s", c.a, c.b)
	}
	for _, p := range []Part{Bottom, BootTop, Keel, Rudder, Tunnel, Struts} {
		assert.True(t, p.Underwater(), p)
	}
	assert.False(t, Topsides.Underwater())
	assert.Equal(t, Other, Part("bowsprit").Info().Part)
}

// Hulls of known area, by the rule of their form: the stated range holds them.
func TestRulesHoldHullsOfTheirForm(t *testing.T) {
	both := func(h solid) float64 { return 2 * h.area() }
	for name, c := range map[string]struct {
		d    Dimensions
		part Part
		want float64
	}{
		"round bilge": {Dimensions{HullForm: Medium, LOAM: 10, LWLM: 9, BeamM: 3, DraughtM: 1, FreeboardM: 1},
			Bottom, both(ellipsoidSide(9, 3, 1))},
		"two hulls": {Dimensions{HullForm: Catamaran, LOAM: 13.5, LWLM: 13, BeamM: 7, DraughtM: 0.9,
			BodyDraughtM: 0.9, HullBeamM: 1.2, FreeboardM: 1.2}, Bottom, 2 * both(powerSide(13, 1.2, 0.9, 2, 2))},
		"two, smaller": {Dimensions{HullForm: Catamaran, LOAM: 9.5, LWLM: 9, BeamM: 5, DraughtM: 0.5,
			BodyDraughtM: 0.5, HullBeamM: 0.9, FreeboardM: 0.9}, Bottom, 2 * both(powerSide(9, 0.9, 0.5, 2, 2))},
		"fin keel, hull alone": {Dimensions{HullForm: FinKeel, LOAM: 9.5, LWLM: 8, BeamM: 2.9, DraughtM: 1.7,
			BodyDraughtM: 0.5, FreeboardM: 1}, Bottom, both(ellipsoidSide(8, 2.6, 0.5))},
		// A skiff: flat bottom 1.1 m broad and straight sides of 0.45 m, tapering to the stem.
		"inside of a skiff": {Dimensions{HullForm: OpenChine, LOAM: 4.5, LWLM: 4.1, BeamM: 1.5, DraughtM: 0.12,
			FreeboardM: 0.42}, OpenInside, 4.1*1.1*0.7 + 2*4.5*0.5},
	} {
		require.NoError(t, c.d.Validate(), name)
		f, err := Boat{Dimensions: c.d}.Of(c.part, Both, Measure{Method: ByPrincipal})
		require.NoError(t, err, name)
		assert.InDelta(t, c.want, f.AreaM2, f.plusMinus(), name)
	}
}

// No area twice: the hull alone, fin and bottom by the draught of each; houses shared out.
func TestPartsAddUp(t *testing.T) {
	d := Dimensions{HullForm: FinKeel, LOAM: 9.5, LWLM: 8, BeamM: 2.9, DraughtM: 1.7, BodyDraughtM: 0.5, FreeboardM: 1,
		HousesM2: 6}
	of := func(d Dimensions, p Part) float64 {
		f, err := Boat{Dimensions: d}.Of(p, Both, Measure{Method: ByPrincipal})
		require.NoError(t, err)
		return f.AreaM2
	}
	assert.InDelta(t, 0.75*9.5*2.9, of(d, Deck)+of(d, CabinTop)+of(d, Cockpit)/2, 1e-9,
		"deck, cabin top and the cockpit's plan")
	assert.InDelta(t, 2*0.22*8*1.2, of(d, Keel), 1e-9, "the fin below the hull")
	deeper := d
	deeper.DraughtM = 2.2
	assert.Equal(t, of(d, Bottom), of(deeper, Bottom), "a deeper fin is no more hull")
	assert.Greater(t, of(deeper, Keel), of(d, Keel))
	assert.InDelta(t, 6/1.025/(8*2.9*0.5), d.Block(6), 1e-12)
	for path, change := range map[string]func(*Dimensions){
		"bodyDraughtM": func(d *Dimensions) { d.BodyDraughtM = 1.8 },
		"hullBeamM":    func(d *Dimensions) { d.HullBeamM = 2 },
	} {
		bad := d
		change(&bad)
		refused(t, bad.Validate(), path, "")
	}
}

// What one more measurement buys: from ±15 % to ±5 % of 20 m² are 4 m² less from end to end.
func TestBetter(t *testing.T) {
	rough := Measured{Measures: []Measure{{Method: ByPrincipal}}}
	assert.Equal(t, "Tape four girths and the way along the hull: ±15 % becomes about ±5 %, 4 m² less doubt.",
		rough.Better(Bottom, Figure{AreaM2: 20, UncertaintyPct: 15}, 0).String())
	assert.Contains(t, rough.Better(Deck, Figure{AreaM2: 20, UncertaintyPct: 25}, 100).String(),
		"40 L less doubt in what to buy")
	assert.Nil(t, Measured{Measures: []Measure{stated(20, 4)}}.Better(Deck, Figure{AreaM2: 20, UncertaintyPct: 4}, 0))
}

// The first guesses by hand, for a boat of 10 m over all, 8 m on the waterline, 3 m broad, 1.5 m deep
// and 1 m high, without and with 6 m² of houses.
func TestFirstGuessesByHand(t *testing.T) {
	d := Dimensions{HullForm: Medium, LOAM: 10, LWLM: 8, BeamM: 3, DraughtM: 1.5, FreeboardM: 1}
	of := func(d Dimensions, p Part) float64 {
		f, err := Boat{Dimensions: d}.Of(p, Both, Measure{Method: ByPrincipal})
		require.NoError(t, err, p)
		return f.AreaM2
	}
	for p, want := range map[Part]float64{BootTop: 2 * 8 * 0.12, Topsides: 2 * 13, Transom: 0.7 * 3,
		SideDecks: 0.5 * (22.5 - 7.5), CabinTop: 0.6 * 7.5, CabinSides: 2 * 3.5 * 0.4, Cockpit: 2 * 0.4 * 7.5,
		Coamings: 2 * 3 * 0.4, Rails: 21 * 0.2, Skeg: 2 * 0.48 * 0.75, Rudder: 2 * 0.56 * 1.2, Spars: 11 * 0.4,
		Deck: 22.5, Keel: 2 * 0.5 * 8 * 0.45} {
		assert.InDelta(t, want, of(d, p), 1e-9, p)
	}
	d.HousesM2 = 6
	for p, want := range map[Part]float64{SideDecks: 0.5 * (22.5 - 6), CabinTop: 0.6 * 6, Cockpit: 2 * 0.4 * 6,
		Deck: 16.5} {
		assert.InDelta(t, want, of(d, p), 1e-9, p)
	}
	d.BodyDraughtM = 0.9
	assert.InDelta(t, 2*0.5*8*0.6, of(d, Keel), 1e-9, "what stands below the hull")
	d.BodyDraughtM = d.DraughtM
	assert.InDelta(t, 2*0.5*8*0.45, of(d, Keel), 1e-9, "a hull that draws as much as the boat tells nothing of it")
}
