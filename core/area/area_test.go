package area

import (
	"testing"

	"allcoats/core/fault"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var launch = Dimensions{HullForm: FullMotor, LOAM: 10, LWLM: 9, BeamM: 3, DraughtM: 1, FreeboardM: 1.2, HousesM2: 6}

func TestPrincipalByHand(t *testing.T) {
	p, err := FromPrincipal(launch)
	require.NoError(t, err)
	assert.InDelta(t, 36, p.Bottom.AreaM2, 1e-9)          // 1 · 9 · (3 + 1)
	assert.InDelta(t, 31.2, p.TopsidesSides.AreaM2, 1e-9) // 2 · 13 · 1.2
	assert.InDelta(t, 15.6, p.TopsidesSide.AreaM2, 1e-9)
	assert.InDelta(t, 16.5, p.Deck.AreaM2, 1e-9) // 0.75 · 30 − 6
	assert.Equal(t, 15.0, p.Bottom.UncertaintyPct)
	for form, want := range map[HullForm]float64{Medium: 27, FinKeel: 18} {
		d := launch
		d.HullForm = form
		p, err := FromPrincipal(d)
		require.NoError(t, err)
		assert.InDelta(t, want, p.Bottom.AreaM2, 1e-9)
	}
}

func TestImpossibleDimensions(t *testing.T) {
	for path, change := range map[string]func(*Dimensions){
		"beamM":      func(d *Dimensions) { d.BeamM = 11 },
		"lwlM":       func(d *Dimensions) { d.LWLM = 10.5 },
		"loaM":       func(d *Dimensions) { d.LOAM = 0 },
		"draughtM":   func(d *Dimensions) { d.DraughtM = -1 },
		"freeboardM": func(d *Dimensions) { d.FreeboardM = 40 },
		"housesM2":   func(d *Dimensions) { d.HousesM2 = 30 },
		"hullForm":   func(d *Dimensions) { d.HullForm = "raft" },
	} {
		d := launch
		change(&d)
		var bad fault.Errors
		require.ErrorAs(t, d.Validate(), &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
}

func TestOf(t *testing.T) {
	for _, c := range []struct {
		name string
		part Part
		side Side
		m    Measure
		want float64
	}{
		{"whole bottom", Bottom, Both, Measure{}, 36},
		{"bottom to port", Bottom, Port, Measure{Method: ByPrincipal}, 18},
		{"topsides to starboard", Topsides, Starboard, Measure{}, 15.6},
		{"both topsides", Topsides, Both, Measure{}, 31.2},
		{"deck", Deck, Both, Measure{}, 16.5},
		{"two coamings", Other, Both, Measure{Method: ByStrip, LengthM: 3, WidthM: 0.4, Count: 2}, 2.4},
		{"stated", Other, Both, Measure{Method: Stated, AreaM2: 7, UncertaintyPct: 4}, 7},
	} {
		f, err := Of(launch, c.part, c.side, c.m)
		require.NoError(t, err, c.name)
		assert.InDelta(t, c.want, f.AreaM2, 1e-9, c.name)
	}
	for path, m := range map[string]Measure{
		"method":  {},
		"lengthM": {Method: ByStrip, WidthM: 1, Count: 1},
		"count":   {Method: ByStrip, LengthM: 1, WidthM: 1},
		"areaM2":  {Method: Stated},
	} {
		_, err := Of(launch, Other, Both, m)
		var bad fault.Errors
		require.ErrorAs(t, err, &bad)
		assert.Equal(t, path, bad[0].Path)
	}
}
