package gelcoat

import (
	"slices"
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

// 3 m² at 600 µm through a roller that loses 10 %: 2 L, in four pots of half a litre;
// each 600 g, of which 2 % is 12 g.
func TestRolled(t *testing.T) {
	w := Usual(3)
	r, err := w.Plan(sheet(), 10)
	require.NoError(t, err)
	assert.InDelta(t, 2, r.Litres, 1e-9)
	assert.Equal(t, 2, r.Passes)
	assert.Equal(t, 4, r.Pots)
	assert.InDelta(t, 2, r.Dose.Pct, 1e-9, "between the sheet's temperatures")
	assert.InDelta(t, 12, r.Dose.G, 1e-9)
	assert.Empty(t, r.Stopped())
	assert.Equal(t, 300.0, r.Comb.WetUm)
	warm := w
	warm.TempC = 25
	h, err := warm.Plan(sheet(), 10)
	require.NoError(t, err)
	assert.Less(t, h.GelMin, r.GelMin)
	assert.InDelta(t, 6, h.SandH, 1e-9)
	more := w
	more.Pct = 3
	m, err := more.Plan(sheet(), 10)
	require.NoError(t, err)
	assert.InDelta(t, r.GelMin*2/3, m.GelMin, 1e-9, "with the inverse of the dose")
}

func TestSandedThroughIsStopped(t *testing.T) {
	w := Usual(3)
	w.FilmUm = 400
	r, err := w.Plan(sheet(), 10)
	require.NoError(t, err)
	assert.Contains(t, r.Stopped().String(), "must stay")
}

// Two gouges of 60 × 10 × 4 mm, proud by 15 %: 5.5 mL in two layers.
func TestRepair(t *testing.T) {
	w := Usual(1)
	w.Way, w.Seal, w.Gouges = Repair, Film, []Gouge{{60, 10, 4, 2}}
	r, err := w.Plan(sheet(), 10)
	require.NoError(t, err)
	assert.InDelta(t, 1.15*4.8e-3, r.Litres, 1e-9)
	assert.Equal(t, 2, r.Passes)
	assert.Contains(t, r.Steps[2].Name, "film")
}

// By hand from docs/figures.md: 3 of 10 m² rolled, keyed at 6 m² an hour and laid at 8, a pass of 2 L / 2 less a tenth at 97 % solids; PVA
// sponged at 20 m² an hour. Two gouges are 12 cm², filled in two layers.
func TestStepsByHand(t *testing.T) {
	w := Usual(3)
	w.Seal = PVA
	r, err := w.Plan(sheet(), 10)
	require.NoError(t, err)
	by := map[string]craft.Step{}
	for _, s := range r.Steps {
		by[s.Key] = s
		assert.InDelta(t, 3, s.Where.AreaM2(10), 1e-9, s.Key)
	}
	assert.InDelta(t, 0.5, by["key"].WorkH, 1e-9)
	assert.Equal(t, 120, by["key"].Grit)
	assert.InDelta(t, 20, by["key"].RemovedUm, 1e-9)
	assert.InDelta(t, 2*3.0/8, by["passes"].WorkH, 1e-9)
	assert.InDelta(t, 2*0.9*10*97/3/2, by["passes"].DFTUm, 1e-9)
	assert.InDelta(t, 2, by["passes"].Amount, 1e-9)
	assert.InDelta(t, 0.1+3.0/20, by["seal"].WorkH, 1e-9)
	assert.InDelta(t, 180, by["seal"].Amount, 1e-9, "60 mL a m²")
	assert.InDelta(t, 0.5+r.SandH, by["seal"].WaitH, 1e-9)
	assert.InDelta(t, 1.5, by["polish"].WorkH, 1e-9)
	w.Seal, w.TempC = Wax, 15
	r, err = w.Plan(sheet(), 10)
	require.NoError(t, err)
	i := slices.IndexFunc(r.Steps, func(s craft.Step) bool { return s.Key == "wax" })
	assert.InDelta(t, 50, r.Steps[i].Amount, 1e-9, "5 % of the litre of the last pass, mL")
	assert.InDelta(t, 4*60, r.TackMin, 1e-9)
	last := r.Working.Steps[len(r.Working.Steps)-1]
	assert.InDelta(t, 4, last.Value, 1e-9, "the second pass may follow the first when it is tack-free, h")
	w.Seal = Film
	r, err = w.Plan(sheet(), 10)
	require.NoError(t, err)
	i = slices.IndexFunc(r.Steps, func(s craft.Step) bool { return s.Key == "seal" })
	assert.InDelta(t, 0.1, r.Steps[i].WorkH, 1e-9)
	assert.InDelta(t, 12, r.Steps[i].WaitH, 1e-9)

	w = Usual(1)
	w.Way, w.Seal, w.Gouges = Repair, Film, []Gouge{{60, 10, 4, 2}}
	r, err = w.Plan(sheet(), 10)
	require.NoError(t, err)
	for _, s := range r.Steps {
		by[s.Key] = s
		assert.InDelta(t, 0.0012, s.Where.AreaM2(10), 1e-9, s.Key)
	}
	assert.InDelta(t, 0.3, by["key"].WorkH, 1e-9)
	assert.Equal(t, 80, by["key"].Grit)
	assert.InDelta(t, 2*0.16*0.11, w.face(), 1e-12, "a hand's breadth round each")
	assert.Equal(t, [3]float64{320, 1500, 350}, [3]float64{float64(w.FromGrit), float64(w.ToGrit), w.LeastUm})
	assert.InDelta(t, 0.6, by["fill"].WorkH, 1e-9)
	assert.InDelta(t, 5.52e-3*0.85*10*97/0.0012/2, by["fill"].DFTUm, 1e-6)
	assert.InDelta(t, 5.52, by["fill"].Amount, 1e-9)
	assert.InDelta(t, 0.2, by["polish"].WorkH, 1e-9, "no less")
}

func TestSeals(t *testing.T) {
	for seal, waxed := range map[Seal]bool{Wax: true, PVA: false} {
		s := sheet()
		s.Waxed = waxed
		w := Usual(2)
		w.Seal = seal
		r, err := w.Plan(s, 10)
		require.NoError(t, err)
		assert.Contains(t, r.Steps[2].Name, map[Seal]string{Wax: "wax is in it", PVA: "PVA"}[seal])
	}
}

func TestBadFields(t *testing.T) {
	for path, edit := range map[string]func(w *Work){
		"pct":                func(w *Work) { w.Pct = 4 },
		"toGrit":             func(w *Work) { w.FromGrit, w.ToGrit = 800, 320 },
		"gouges":             func(w *Work) { w.Way = Repair },
		"gouges[0].depthMM":  func(w *Work) { w.Way, w.Gouges = Repair, []Gouge{{10, 10, 90, 1}} },
		"patches[0].on":      func(w *Work) { w.Patches = []Patch{{On: "today", Recipe: "1 drop of black"}} },
		"areaM2":             func(w *Work) { w.AreaM2 = 0 },
		"seal":               func(w *Work) { w.Seal = "hope" },
		"gouges[0].lengthMM": func(w *Work) { w.Way, w.Gouges = Repair, []Gouge{{0, 10, 1, 1}} },
		"patches[0].recipe":  func(w *Work) { w.Patches = []Patch{{On: "2026-05-01"}} },
		"filmUm":             func(w *Work) { w.FilmUm = 20 },
		"gouges[0].count":    func(w *Work) { w.Way, w.Gouges = Repair, []Gouge{{10, 10, 1, 0}} },
		"tempC":              func(w *Work) { w.TempC = 90 },
	} {
		w := Usual(1)
		edit(&w)
		_, err := w.Plan(sheet(), 10)
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
	w := Usual(1)
	w.TempC = 10
	r, err := w.Plan(sheet(), 10)
	require.NoError(t, err)
	assert.Contains(t, r.Stopped().String(), "doses no catalyst")
}

func TestPatches(t *testing.T) {
	assert.Contains(t, match(nil), "No patch yet")
	tried := []Patch{{On: "2026-05-01", Recipe: "1 : 100 black", Judged: "too dark"}}
	assert.Contains(t, match(tried), "none matches")
	assert.Contains(t, match(append(tried, Patch{On: "2026-05-02", Recipe: "1 : 200 black", Judged: "match"})),
		"1 : 200 black")
}
