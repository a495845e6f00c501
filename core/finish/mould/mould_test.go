package mould

import (
	"math"
	"testing"

	"allcoats/core/base/fielderr"
	"allcoats/core/catalog/product"
	"allcoats/core/finish/craft"
	"allcoats/core/physics/cure"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func sheet() product.Sheet {
	return product.Sheet{Name: "gelcoat", Kind: product.Gelcoat, BaseKgL: 1.2, VolumeSolidsPct: 97, MinCureC: 12,
		Doses:    []product.Dose{{TempC: 15, Pct: 2.5}, {TempC: 25, Pct: 1.5}},
		PotLife:  cure.Table{{TempC: 15, Hours: 0.5}, {TempC: 25, Hours: 0.25}},
		TackFree: cure.Table{{TempC: 15, Hours: 4}, {TempC: 25, Hours: 2}}, Sandable: cure.Table{{TempC: 15, Hours: 12},
			{TempC: 25, Hours: 6}}}
}

func one(edit func(w *Work)) Work {
	w := Usual()
	w.TrimM, w.Panels = 0, []Panel{{"S1", 0.5, 1, 0.5}}
	if edit != nil {
		edit(&w)
	}
	return w
}

// By hand from docs/figures.md: five panels of half a m² from a new mould of two, three plies, at 15 °C where the sheet has 4 h to tack-free
// and 12 to sandable. Four panels fill the mould, the fifth is another filling.
func TestStepsByHand(t *testing.T) {
	r, err := one(func(w *Work) {
		w.SourceLengthM, w.SourceWidthM, w.FirstUse, w.Casts, w.Moulds, w.TempC, w.FillerMM = 2, 1, true, 2, 1, 15, 1
		w.Panels = nil
		for range 5 {
			w.Panels = append(w.Panels, Panel{"S", 0.5, 1, 0.5})
		}
	}).Plan(sheet())
	require.NoError(t, err)
	assert.Equal(t, 2, r.Rounds)
	by := map[string]craft.Step{}
	for _, s := range r.Steps {
		by[s.Key] = s
	}
	for key, want := range map[string]struct{ workH, waitH float64 }{
		"mould": {2 + (3+2)*2/1.5, 12 + 1}, "trial": {0.5, 12}, "clean": {0.3 + 0.2*2, 0.5}, "wax": {6 * 0.2 * 2, 6 * 1.25},
		"pva": {0.3, 1}, "gelcoat": {0.4, 4}, "filler": {0.6, 4}, "plies": {3 * 2 / 1.5, 13}, "demould": {0.5, 0},
		"more": {0.7 + 2.4 + 0.3 + 0.4 + 0.6 + 4 + 0.5, 0.5 + 7.5 + 1 + 4 + 4 + 13}, "fit": {1.5, 0}, "bond": {2 + 2.5/2, 12},
	} {
		assert.InDelta(t, want.workH, by[key].WorkH, 1e-9, key)
		assert.InDelta(t, want.waitH, by[key].WaitH, 1e-9, key)
	}
	assert.InDelta(t, 8.9+30, r.PartH, 1e-9)
	assert.InDelta(t, 0.24, by["pva"].Amount, 1e-9)
	for _, a := range r.Takes {
		if a.Name == "Release PVA" {
			assert.InDelta(t, 0.48, a.Value, 1e-9, "twice over")
		}
	}
}

// By hand: 0.5 m² of 500 µm gelcoat at 1.2 kg/L and 10 % is 0.33 kg; of 300 + 450 + 450
// g/m² mat 0.6 kg of glass, with 2.3 times and 10 % 1.518 kg of resin.
func TestMaterialsByHand(t *testing.T) {
	r, err := one(nil).Plan(sheet())
	require.NoError(t, err)
	at := map[string]float64{}
	for _, a := range r.Takes {
		at[a.Name] = a.Value
	}
	assert.InDelta(t, 0.33, at["Gelcoat"], 1e-9)
	assert.InDelta(t, 0.6, at["Glass"], 1e-9)
	assert.InDelta(t, 1.518, at["Laminating resin"], 1e-9)
	assert.InDelta(t, 0.5*2*1.15, at["Bonding paste"], 1e-9)
	trimmed, err := one(func(w *Work) { w.TrimM = 0.05 }).Plan(sheet())
	require.NoError(t, err)
	assert.InDelta(t, 1.1*0.6, trimmed.CastM2, 1e-12, "trim on every side")
	assert.InDelta(t, (0.33+0.5*1.15*1.1+1.518)*20, at["Catalyst"], 1e-6, "2 % at 20 °C")
	assert.True(t, r.Right)
	assert.Equal(t, 1, r.Rounds)
	assert.Empty(t, r.Findings)
}

func TestThePatternTurnsOverWithEveryCast(t *testing.T) {
	for _, c := range []struct {
		hollow bool
		casts  int
		right  bool
	}{{false, 2, true}, {false, 1, false}, {true, 1, true}, {true, 2, false}, {false, 3, false}, {true, 3, true}} {
		r, err := one(func(w *Work) { w.Hollow, w.Casts = c.hollow, c.casts }).Plan(sheet())
		require.NoError(t, err)
		assert.Equal(t, c.right, r.Right, r.Chain)
		assert.Equal(t, !c.right, r.Stopped() != nil)
	}
}

// A panel of 2 × 0.5 m from a source of 1.2 × 0.6 is two pieces with half a metre of
// seam; one that fits turned round is one.
func TestSeams(t *testing.T) {
	r, err := one(func(w *Work) {
		w.Panels = []Panel{{"long", 1, 2, 0.5}, {"turned", 0.55, 0.6, 1.1}, {"wide", 0.7, 1.1, 0.7}}
	}).Plan(sheet())
	require.NoError(t, err)
	require.Len(t, r.Seams, 2)
	assert.Equal(t, Seam{"long", 2, 2, 1, false, 0.5}, r.Seams[0])
	assert.Equal(t, Seam{"wide", 2, 1, 2, false, 1.1}, r.Seams[1])
}

func TestSeveralPartsFromOneMould(t *testing.T) {
	w := one(func(w *Work) { w.Panels = nil })
	for range 6 { // two to a filling of 1.2 × 0.6
		w.Panels = append(w.Panels, Panel{"p", 0.3, 0.6, 0.5})
	}
	r, err := w.Plan(sheet())
	require.NoError(t, err)
	assert.Equal(t, 3, r.Rounds)
	w.Moulds = 2
	r, err = w.Plan(sheet())
	require.NoError(t, err)
	assert.Equal(t, 2, r.Rounds)
	assert.InDelta(t, math.Sqrt(12*6), r.DemouldH, 0.15,
		"nearly the geometric mean, half way between the sheet's temperatures")
}

func TestBadFields(t *testing.T) {
	for path, edit := range map[string]func(w *Work){
		"pct":               func(w *Work) { w.Pct = 0.5 },
		"plies":             func(w *Work) { w.Plies = nil },
		"sourceLengthM":     func(w *Work) { w.SourceLengthM = 0 },
		"casts":             func(w *Work) { w.Casts = 0 },
		"panels[0].areaM2":  func(w *Work) { w.Panels[0].AreaM2 = 3 },
		"plies[0].gsm":      func(w *Work) { w.Plies[0].GSM = 5 },
		"panels[0].lengthM": func(w *Work) { w.Panels[0].LengthM = 0 },
	} {
		_, err := one(edit).Plan(sheet())
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
	r, err := one(func(w *Work) { w.TempC = 8 }).Plan(sheet())
	require.NoError(t, err)
	assert.NotEmpty(t, r.Stopped())
}
