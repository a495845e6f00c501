package brightwork

import (
	"fmt"
	"math"
	"testing"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/catalog/product"
	"allcoats/core/film/sand"
	"allcoats/core/finish/craft"
	"allcoats/core/job/upkeep"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var spring = time.Date(2026, 5, 9, 0, 0, 0, 0, time.UTC)

func varnish() Case {
	return Case{AreaM2: 2, EdgeM: 10, Access: 1, Face: upkeep.Exposure{LatitudeDeg: 50, TiltDeg: 90}, From: spring,
		Winter: spring.AddDate(0, 7, 0), Method: "brush",
		Sheet: product.Sheet{Name: "varnish", Kind: product.Varnish, VolumeSolidsPct: 45, UVPerUm: 0.02,
			Film: product.Film{MinUm: 20, TypicalUm: 30, MaxUm: 45}}}
}

func plan(t *testing.T, c Case, edit func(w *Work)) Result {
	t.Helper()
	w := Usual()
	w.Thinned = false
	if edit != nil {
		edit(&w)
	}
	r, err := w.Plan(c)
	require.NoError(t, err)
	return r
}

// Six coats of 30 µm less five scuffs of 8 leave 140 µm; at 0.02 a µm they stop
// 1 − exp(−2.8) of the ultraviolet.
func TestFilmByHand(t *testing.T) {
	r := plan(t, varnish(), nil)
	require.Len(t, r.Counts, 1)
	assert.InDelta(t, 140, r.Counts[0].Um, 1e-9)
	assert.InDelta(t, 100*(1-math.Exp(-2.8)), r.Counts[0].UVPct, 1e-9)
	thin := plan(t, varnish(), func(w *Work) { w.Thinned, w.Later = true, 2 })
	require.Len(t, thin.Counts, 2)
	assert.InDelta(t, 140-0.35*30, thin.Counts[0].Um, 1e-9, "a quarter and a tenth less of two coats")
	assert.InDelta(t, 8*30-7*8-0.35*30, thin.Counts[1].Um, 1e-9, "two more, each after a scuff")
	assert.InDelta(t, 30.0/450/0.9, r.LitreM2, 1e-9)
	few, more := plan(t, varnish(), func(w *Work) { w.Now = 3 }), plan(t, varnish(), func(w *Work) { w.Now = 4 })
	assert.Greater(t, more.Counts[0].UVPct, few.Counts[0].UVPct)
	// 74 and 96 µm: 1.4 · √(74/150) and 1.4 · √(96/150) years of sun; from May a part of a year has more than its
	// share.
	assert.InDelta(t, 0.983, few.Counts[0].Years, 0.06)
	assert.InDelta(t, 1.12, more.Counts[0].Years, 0.2)
	assert.Less(t, few.Counts[0].Years, more.Counts[0].Years)
	for _, r := range []Result{few, more} {
		assert.Less(t, r.Counts[0].DueFrom, r.Counts[0].DueAt)
		assert.Less(t, r.Counts[0].DueAt, r.Counts[0].DueTo)
	}
	own := varnish()
	own.OwnFactor, own.OwnCoats = 1.25, 2
	assert.InDelta(t, 6*2*1.25*30.0/450/0.9, plan(t, own, nil).Takes[0].Value, 1e-9,
		"a quarter more than reckoned, as two coats did")
}

// A coat's hours: sanding and masking are most of them.
// By hand from docs/figures.md, 3 m² of sides (1.2 times a flat's hours) with 10 m of edges: twelve patches of half a metre's reach, three
// times twelve minutes each; a bung 0.12 h; a coat's tape at 25 m an hour, cleaning twice at 12 m², laying at 5.
func TestStepsByHand(t *testing.T) {
	c := varnish()
	c.AreaM2, c.Access, c.Sheet.ThinnerMaxPct = 3, 1.2, 15
	work := func(school string) map[string]craft.Step {
		r := plan(t, c, func(w *Work) {
			w.Strip, w.ReachM, w.Bungs, w.Stain, w.School, w.Thinned, w.Now = "chemical", 0.5, 10, true, school, true, 6
		})
		by := map[string]craft.Step{}
		for _, s := range r.Steps {
			by[s.Key] = s
		}
		return by
	}
	by := work("epoxy")
	coat := 10.0/25 + 2*3.0/12 + 3.0/5*1.2
	scuff := sand.Hours(320, 3, 1.2, false)
	for key, want := range map[string]struct{ workH, waitH, amount float64 }{
		"strip": {12 * 0.6 * 1.2, 1 + 48, 12}, "bungs": {1.2, 16, 10}, "stain": {1.5, 24, 0.24},
		"bare-120": {sand.Hours(120, 3, 1.2, false), 0, 0}, "bare-180": {sand.Hours(180, 3, 1.2, false), 0, 0},
		"sealer": {2 * (3.0/6*1.2 + 0.3), 48, 0}, "blush": {3.0/12 + 0.2, 0, 0}, "epoxy-180": {sand.Hours(180, 3, 1.2, false), 0, 0},
		"coat-1": {coat, 0, 3 * 30.0 / 450 / 0.9}, "coat-2": {coat + scuff, 0, 3 * 30.0 / 450 / 0.9},
		"coats-to-6": {4 * (coat + scuff), 0, 4 * 3 * 30.0 / 450 / 0.9},
	} {
		s := by[key]
		assert.InDelta(t, want.workH, s.WorkH, 1e-9, key)
		assert.InDelta(t, want.waitH, s.WaitH, 1e-9, key)
		assert.InDelta(t, want.amount, s.Amount, 1e-9, key)
	}
	assert.InDelta(t, 3*0.08, plan(t, c, func(w *Work) { w.Stain = true }).Takes[0].Value, 1e-12)
	assert.Equal(t, 180, by["epoxy-180"].Grit)
	assert.InDelta(t, 12, by["epoxy-180"].RemovedUm, 1e-9)
	assert.InDelta(t, 15, by["coat-1"].ThinnerPct, 1e-9, "a quarter, as far as the sheet allows")
	assert.InDelta(t, 10, by["coat-2"].ThinnerPct, 1e-9)
	assert.InDelta(t, 3.0/12, by["strip"].Where.Patches[0].AreaM2, 1e-9)
	assert.InDelta(t, 3.0/8*1.2+0.3, work("sealer")["sealer"].WorkH, 1e-9)
	assert.InDelta(t, 16, work("sealer")["sealer"].WaitH, 1e-9)
}

func TestShares(t *testing.T) {
	s := plan(t, varnish(), nil).Share
	assert.InDelta(t, 10.0/25, s.MaskH, 1e-9)
	assert.InDelta(t, 2*2.0/12, s.CleanH, 1e-9)
	assert.InDelta(t, 2.0/5, s.LayH, 1e-9)
	assert.InDelta(t, 100*(1-s.LayH/(s.SandH+s.MaskH+s.CleanH+s.LayH)), s.PrepPC, 1e-9)
	assert.Greater(t, s.PrepPC, 60.0)
}

// 2 m² in patches of 0.6 m are six; heat takes one pass of 25 minutes.
func TestPatches(t *testing.T) {
	r := plan(t, varnish(), func(w *Work) { w.Strip = "heat" })
	assert.Equal(t, 6, r.Patches)
	assert.InDelta(t, 2.5, r.Steps[0].WorkH, 1e-9)
	chemical := plan(t, varnish(), func(w *Work) { w.Strip = "chemical" })
	assert.InDelta(t, 49, chemical.Steps[0].WaitH, 1e-9, "three soaks, and two days to dry")
}

// A face 0.4 m wide with lines every 50 mm has nine; both edges of 2 m each are 36 m.
func TestSeamLines(t *testing.T) {
	seam := func(after int) func(w *Work) {
		return func(w *Work) {
			w.Seams = &Seam{SpacingMM: 50, LineMM: 4, LengthM: 2, WidthM: 0.4, After: after}
		}
	}
	r := plan(t, varnish(), seam(3))
	assert.Equal(t, 9, r.Lines)
	assert.InDelta(t, 36, r.TapeM, 1e-9)
	assert.Empty(t, r.Findings)
	assert.Len(t, plan(t, varnish(), seam(1)).Findings, 1)
	assert.Len(t, plan(t, varnish(), seam(5)).Findings, 1)
}

func TestVeneerStops(t *testing.T) {
	assert.NotEmpty(t, plan(t, varnish(), func(w *Work) { w.VeneerMM, w.Strip = 0.7, "sand" }).Stopped())
	assert.Empty(t, plan(t, varnish(), func(w *Work) { w.VeneerMM, w.Strip = 0.7, "none" }).Stopped())
}

// Three coats hold in the north under cover and not in the sun of the south.
func TestHoldACoat(t *testing.T) {
	c := varnish()
	c.Face.LatitudeDeg = 0
	r := plan(t, c, func(w *Work) { w.Now, w.Later = 2, 4 })
	assert.Contains(t, r.Stopped().String(), "may not hold till the winter")
	require.Len(t, r.Counts, 2)
	assert.Equal(t, 6, r.Counts[1].Coats)
	kept := plan(t, varnish(), func(w *Work) { w.Now, w.Later, w.Covered = 5, 3, true })
	assert.Contains(t, kept.Holds, "5 coats now hold till the winter")
	assert.Empty(t, kept.Stopped())
}

func TestDust(t *testing.T) {
	r := plan(t, varnish(), func(w *Work) { w.Seen = "white-dry" })
	require.NotNil(t, r.Dust)
	assert.Equal(t, "epoxy", r.Dust.Layer)
}

func TestSchoolsAndBadFields(t *testing.T) {
	for _, s := range Schools {
		c := varnish()
		c.Sheet.ThinnerMaxPct = 25
		c.Sealer = &product.Sheet{Kind: product.WoodSealer, VolumeSolidsPct: 100, Film: product.Film{TypicalUm: 80}}
		r := plan(t, c, func(w *Work) { w.School, w.Stain, w.Bungs = s.Key, true, 10 })
		assert.NotEmpty(t, r.Steps, s.Key)
		for _, a := range r.Takes {
			if a.Name == "Stain" {
				assert.InDelta(t, 2*0.08, a.Value, 1e-9)
			}
		}
		for _, st := range r.Steps {
			if st.Key == "stain" {
				assert.InDelta(t, 2.0/3+0.5, st.Hours, 1e-9, "3 m² an hour, and half an hour to even it out")
				assert.InDelta(t, 2*0.08, st.Amount, 1e-9)
			}
		}
		assert.Equal(t, s.Key == "epoxy", len(r.Findings) > 0, "stain under epoxy is minded")
	}
	for path, edit := range map[string]func(w *Work){
		"school":       func(w *Work) { w.School = "tar" },
		"strip":        func(w *Work) { w.Strip = "teeth" },
		"seen":         func(w *Work) { w.Seen = "stars" },
		"reachM":       func(w *Work) { w.ReachM = 0 },
		"now":          func(w *Work) { w.Now = 0 },
		"seams.lineMM": func(w *Work) { w.Seams = &Seam{SpacingMM: 20, LineMM: 30, LengthM: 1, WidthM: 1} },
		"seams.after":  func(w *Work) { w.Seams = &Seam{SpacingMM: 50, LineMM: 3, LengthM: 1, WidthM: 1, After: 9} },
	} {
		w := Usual()
		edit(&w)
		_, err := w.Plan(varnish())
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
}

func TestWinter(t *testing.T) {
	day := func(y int, m time.Month) time.Time { return time.Date(y, m, 1, 0, 0, 0, 0, time.UTC) }
	assert.Equal(t, day(2026, time.November), Winter(spring, 52))
	assert.Equal(t, day(2027, time.May), Winter(spring, -36))
	assert.Equal(t, day(2027, time.November), Winter(day(2026, time.December), 52))
}

// Six coats on bare wood with lines after the third: the first thinned by a quarter, the
// second by a tenth, the third full, the lines, three more; each but the first is keyed.
func TestCoatsGoOnInTheirOrder(t *testing.T) {
	c := varnish()
	c.Sheet.ThinnerMaxPct = 25
	r := plan(t, c, func(w *Work) {
		w.Strip, w.Thinned, w.Seams = "heat", true, &Seam{SpacingMM: 60, LineMM: 5, LengthM: 2, WidthM: 0.3, After: 3}
	})
	var got []string
	hours, litres := 0.0, 0.0
	for _, s := range r.Steps {
		got = append(got, fmt.Sprintf("%s %d %.0f %d", s.Key, s.Coats, s.ThinnerPct, s.KeyGrit))
		hours += s.WorkH
		if s.Films() {
			litres += s.Amount
		}
	}
	assert.Equal(t, []string{"strip 0 0 0", "bare-120 0 0 0", "bare-180 0 0 0", "coat-1 1 25 0", "coat-2 1 10 320",
		"coats-to-3 1 0 320", "seams 0 0 0", "coats-to-6 3 0 320"}, got)
	assert.InDelta(t, r.WorkH(), hours, 1e-9)
	assert.InDelta(t, r.Takes[0].Value, litres, 1e-9)
	assert.Len(t, r.Steps[0].Where.Patches, r.Patches)
	c.Sheet.ThinnerMaxPct = 5
	few := plan(t, c, func(w *Work) { w.Thinned = true })
	assert.Contains(t, few.Findings[0].Text.String(), "allows no more than 5 % of thinner")
	assert.InDelta(t, 5, few.Steps[0].ThinnerPct, 1e-9)
	full := plan(t, c, func(w *Work) { w.Strip = "heat" })
	assert.Equal(t, []int{0, 320}, []int{full.Steps[3].KeyGrit, full.Steps[4].KeyGrit}, "nothing to key on bare wood")
	assert.Equal(t, []int{1, 5}, []int{full.Steps[3].Coats, full.Steps[4].Coats})
	c.Sealer = nil
	none := plan(t, c, func(w *Work) { w.School = "epoxy" })
	assert.Empty(t, none.Stopped())
	assert.Contains(t, none.Steps[0].Name, "2 coats of clear epoxy wood sealer")
}
