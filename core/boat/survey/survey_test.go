package survey

import (
	"fmt"
	"slices"
	"testing"

	"allcoats/core/base/fielderr"
	"allcoats/core/boat/area"
	"allcoats/core/boat/outline"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestRingsAreLayersFromTheSubstrateOut(t *testing.T) {
	l := ByRings("white, grey primer, , blue")
	require.Len(t, l, 3)
	assert.Equal(t, []string{"blue", "grey primer", "white"}, []string{l[0].Colour, l[1].Colour, l[2].Colour})
	assert.NoError(t, Findings{Layers: l}.Validate())
	assert.Empty(t, ByRings(" "))
}

func TestAboveStop(t *testing.T) {
	f := Findings{Layers: []Layer{{Um: 500}, {Um: 120}, {Um: 60}}}
	for stop, want := range map[int]float64{0: 680, 1: 180, 3: 0} {
		f.Stop = stop
		um, known := f.AboveStop()
		assert.Equal(t, want, um)
		assert.True(t, known)
	}
	f.Stop, f.Layers[2].Um = 1, 0
	_, known := f.AboveStop()
	assert.False(t, known)
}

func TestCautions(t *testing.T) {
	for word, c := range map[string]struct {
		f Findings
		s Substrate
	}{
		"lead":          {Findings{Layers: []Layer{{Kind: OldUnknown, Um: 100}}}, GRP},
		"chromate":      {Findings{Layers: []Layer{{Kind: OldPrimer, Um: 100}}}, Aluminium},
		"tin":           {Findings{Layers: []Layer{{Kind: OldAntifouling, Um: 100}}}, GRP},
		"loose":         {Findings{Layers: []Layer{{Kind: OldVarnish, Um: 100, Soundness: Loose}}}, SolidWood},
		"too wet":       {Findings{Moisture: []Moisture{{"garboard", 23}}}, SolidWood},
		"relative":      {Findings{Moisture: []Moisture{{"keel", 23}}}, GRP},
		"veneer":        {Findings{VeneerMM: 0.4}, Veneer},
		"is not known":  {Findings{Layers: []Layer{{Kind: OldEpoxy}}}, GRP},
		"scuff by hand": {Findings{Layers: []Layer{{Kind: OldEpoxy, Um: 30}}}, GRP},
	} {
		assert.Contains(t, fmt.Sprint(c.f.Cautions(c.s)), word)
	}
	assert.Empty(t, Findings{Layers: []Layer{{Kind: OldEpoxy, Um: 200}}, Moisture: []Moisture{{"deck", 12}}}.Cautions(
		SolidWood))
}

func TestBadFindings(t *testing.T) {
	good := Layer{Kind: OldEpoxy, Soundness: Sound}
	for path, f := range map[string]Findings{
		"layers[0].kind":      {Layers: []Layer{{Kind: "chalk", Soundness: Sound}}},
		"layers[0].soundness": {Layers: []Layer{{Kind: OldEpoxy}}},
		"layers[1].um":        {Layers: []Layer{good, {Kind: OldEpoxy, Soundness: Sound, Um: -1}}},
		"stop":                {Layers: []Layer{good}, Stop: 2},
		"moisture[0].pct":     {Moisture: []Moisture{{"x", 120}}},
		"veneerMM":            {VeneerMM: -1},
		"layers":              {Layers: slices.Repeat([]Layer{good}, 51)},
	} {
		var bad fielderr.Errors
		require.ErrorAs(t, f.Validate(), &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
}

func defect(view string, x, y float64) Defect {
	return Defect{Kind: "void", State: "found", Count: 1, Place: Place{view, x, y}}
}

// A void of 100 × 50 × 10 mm: 0.8 of 50 mL, 15 % proud.
func TestRepair(t *testing.T) {
	d := defect(outline.PortSide, 1, 0)
	d.LengthMM, d.WidthMM, d.DepthMM = 100, 50, 10
	r := d.Repair()
	assert.InDelta(t, 0.046, r.FillerL, 1e-12)
	assert.InDelta(t, 0.5+0.15*0.5, r.Hours, 1e-12)
	assert.True(t, r.Open)
	d.Count = 10
	assert.InDelta(t, 0.46, d.Repair().FillerL, 1e-12)
	own := 2.5
	d.Hours, d.FillerL, d.State = &own, &own, "faired"
	r = d.Repair()
	assert.Equal(t, []float64{2.5, 2.5}, []float64{r.Hours, r.FillerL})
	assert.False(t, r.Open)
}

func TestBadDefects(t *testing.T) {
	minus := -1.0
	for path, change := range map[string]func(*Defect){
		"kind":       func(d *Defect) { d.Kind = "ghost" },
		"state":      func(d *Defect) { d.State = "" },
		"place.view": func(d *Defect) { d.Place.View = "mirror" },
		"place.x":    func(d *Defect) { d.Place.X = 1e6 },
		"depthMM":    func(d *Defect) { d.DepthMM = -1 },
		"count":      func(d *Defect) { d.Count = 0 },
		"hours":      func(d *Defect) { d.Hours = &minus },
		"fillerL":    func(d *Defect) { d.FillerL = &minus },
	} {
		d := defect(outline.Plan, 1, 1)
		require.NoError(t, d.Validate())
		change(&d)
		var bad fielderr.Errors
		require.ErrorAs(t, d.Validate(), &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
}

func TestWalkRound(t *testing.T) {
	want := []Place{
		{outline.StarboardSide, 1, 0.5}, {outline.StarboardSide, 6, 0.9},
		{outline.StarboardSide, 6.1, 0.2},                      // stern to bow, from above down
		{outline.PortSide, 6, 0.5}, {outline.PortSide, 1, 0.5}, // bow to stern
		{outline.Under, 2, 0}, {outline.Plan, 5, 0}, {outline.Plan, 1, 0}, {outline.Apart, 0, 0},
	}
	got := slices.Clone(want)
	slices.Reverse(got)
	slices.SortStableFunc(got, WalkRound)
	assert.Equal(t, want, got)
}

func TestEveryTemplateCanBeMeasured(t *testing.T) {
	d := area.Dimensions{HullForm: area.Medium, LOAM: 7, LWLM: 6, BeamM: 2, DraughtM: 0.8, FreeboardM: 0.7}
	for _, tpl := range Templates {
		names := map[string]bool{}
		for _, s := range tpl.Surfaces {
			_, err := area.Boat{Dimensions: d}.Of(s.Part, s.Side, area.Measure{Method: area.ByPrincipal})
			assert.NoError(t, err, "%s: %s", tpl.Name, s.Name)
			names[s.Name] = true
		}
		assert.Len(t, names, len(tpl.Surfaces), "names are there once")
	}
}

// What is usual follows the part: what is indoors has a roof over it, an edge is fiddly.
func TestUsualByPart(t *testing.T) {
	for _, c := range []struct {
		part    area.Part
		access  Access
		shelter Shelter
	}{
		{area.Deck, Flat, Open}, {area.Bottom, Overhead, Open}, {area.Topsides, Upright, Open},
		{area.Rails, Fiddly, Open},
		{area.Sole, Flat, Shed}, {area.Linings, Upright, Shed}, {area.Lockers, Fiddly, Shed},
		{area.Tunnel, Fiddly, Open},
	} {
		d := Usual(c.part, GRP)
		assert.Equal(t, c.access, d.Access, c.part)
		assert.Equal(t, c.shelter, d.Shelter, c.part)
	}
}
