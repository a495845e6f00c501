package antifoul

import (
	"testing"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/field"
	"allcoats/core/physics/cure"
	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func flat(h float64) cure.Table { return cure.Table{{TempC: 5, Hours: h}, {TempC: 25, Hours: h}} }

func soft() product.Sheet {
	return product.Sheet{Name: "soft", Kind: product.SoftAntifoul, Colour: "red", VolumeSolidsPct: 50,
		Film: product.Film{TypicalUm: 50}, PolishUmYear: 60, PolishUm1000NM: 20, LaunchMaxH: 720,
		Immersion: flat(12), Recoat: []product.Recoat{{Over: product.AnyKind, Min: flat(6)}}, Copper: true}
}

func plan(t *testing.T, edit func(w *Work, c *Case)) Result {
	t.Helper()
	w := Work{Coats: 2, Old: "primed", Seasons: 1, First: "red", Second: "black", NM: 500,
		Zones: []Zone{{"flats", 9, 0}, {"edges", 1.8, 1}}}
	launch := time.Date(2026, 6, 1, 12, 0, 0, 0, time.UTC)
	c := Case{Substrate: survey.GRP, AreaM2: 10.8, Sheet: soft(), TempC: 15, Launch: &launch,
		Now: launch.AddDate(0, 0, -20)}
	if edit != nil {
		edit(&w, &c)
	}
	r, err := w.Plan(c)
	require.NoError(t, err)
	return r
}

// 60 µm a year for half a year and 20 for 1000 miles over 500 are 40 µm a season: two
// coats of 50 last 2.5, three at the edges at half as much again 2.5 as well. Of 50 %
// solids 50 µm go 10 m² a litre, less a tenth.
func TestSeasonsAndLitresByHand(t *testing.T) {
	r := plan(t, nil)
	assert.InDelta(t, 2.5, r.Zones[0].Seasons, 1e-9)
	assert.InDelta(t, 2.5, r.Zones[1].Seasons, 1e-9)
	assert.InDelta(t, 2*0.9/0.9, r.Zones[0].Litres, 1e-9)
	assert.InDelta(t, 3*0.18/0.9, r.Zones[1].Litres, 1e-9)
	assert.InDelta(t, 2.6, r.Litres, 1e-9)
	assert.Equal(t, 1, r.Need)
	assert.Equal(t, []string{"red", "black"}, r.Zones[0].Colours)
	assert.Equal(t, []string{"black", "red", "black"}, r.Zones[1].Colours)
	assert.Empty(t, r.Findings)
	many := plan(t, func(w *Work, _ *Case) { w.Seasons = 3 })
	assert.Equal(t, 3, many.Need)
	assert.Len(t, many.Findings, 1)
	habit := plan(t, func(w *Work, c *Case) { w.Habit, c.Sheet.Kind = 3, product.HardAntifoul })
	assert.InDelta(t, 3, habit.Seasons, 1e-9)
}

func TestLaunchWindow(t *testing.T) {
	r := plan(t, nil)
	require.NotNil(t, r.LastTo)
	assert.Equal(t, time.Date(2026, 6, 1, 0, 0, 0, 0, time.UTC), *r.LastTo)
	assert.Equal(t, time.Date(2026, 5, 2, 12, 0, 0, 0, time.UTC), *r.LastFrom)
	late := plan(t, func(_ *Work, c *Case) { c.Now = c.Launch.Add(-time.Hour) })
	assert.Contains(t, late.Stopped().String(), "too late")
}

func TestWhatMayGoOverWhat(t *testing.T) {
	for name, c := range map[string]struct {
		edit func(w *Work, c *Case)
		stop string
	}{
		"hard over soft": {func(w *Work, c *Case) { w.Old, c.Sheet.Kind = "soft", product.HardAntifoul },
			"is hard and goes over soft"},
		"soft over hard":     {func(w *Work, _ *Case) { w.Old = "hard" }, ""},
		"over silicone":      {func(w *Work, _ *Case) { w.Old = "silicone" }, "it is silicone"},
		"silicone over hard": {func(w *Work, c *Case) { w.Old, c.Sheet.Binder = "hard", product.Silicone }, "tie coat"},
		"flaking":            {func(w *Work, _ *Case) { w.Old = "flaking" }, "is loose below it"},
		"unknown":            {func(w *Work, _ *Case) { w.Old = "unknown" }, ""},
		"copper, aluminium":  {func(_ *Work, c *Case) { c.Substrate = survey.Aluminium }, "copper-free"},
		"old copper": {func(w *Work, c *Case) {
			w.OldCopper, c.Substrate, c.Sheet.Copper = true,
				survey.Aluminium, false
		}, "Old copper"},
		"soft over soft": {func(w *Work, _ *Case) { w.Old = "soft" }, ""},
	} {
		r := plan(t, c.edit)
		if c.stop == "" {
			assert.Empty(t, r.Stopped(), name)
		} else {
			assert.Contains(t, r.Stopped().String(), c.stop, name)
		}
	}
}

// steady is dry air and a surface of tempC from two days before now to days after.
func steady(now time.Time, tempC float64, days int) field.Weather {
	var w field.Weather
	for i := -48; i <= 24*days; i++ {
		w.Air = append(w.Air, weather.Hour{At: now.Add(time.Duration(i) * time.Hour), TempC: tempC, RHPct: 50,
			Measured: true})
		w.SurfaceC = append(w.SurfaceC, tempC)
	}
	return w
}

func TestTieWindowIsTheCoatsClock(t *testing.T) {
	tie := product.Sheet{Name: "barrier", MinCureC: 7,
		Recoat: []product.Recoat{{Over: product.SoftAntifoul, Min: cure.Table{{TempC: 10, Hours: 6},
			{TempC: 20, Hours: 3}}, Max: cure.Table{{TempC: 10, Hours: 18}, {TempC: 20, Hours: 9}}}}}
	var now time.Time
	at := func(tempC float64, laid *clock.Laid) Result {
		return plan(t, func(_ *Work, c *Case) {
			c.Tie, now, c.Weather, c.TieLaid = &tie, c.Now, steady(c.Now, tempC, 5),
				laid
		})
	}
	r := at(20, nil)
	assert.WithinDuration(t, now.Add(3*time.Hour), *r.TieOpens, time.Minute)
	assert.WithinDuration(t, now.Add(9*time.Hour), *r.TieCloses, time.Minute)
	assert.False(t, r.TieLaid)
	assert.Contains(t, r.Tie.String(), "thumb")
	cold := at(5, nil)
	assert.Nil(t, cold.TieOpens)
	assert.Contains(t, cold.Stopped().String(), "does not cure", "under its least temperature it never opens")
	late := at(20, &clock.Laid{Sheet: tie, Started: now.Add(-20 * time.Hour)})
	assert.True(t, late.TieLaid)
	assert.NotEmpty(t, late.Stopped(), "20 h ago of 9")
	tie.Recoat = nil
	assert.Contains(t, at(20, nil).Tie.String(), "does not say")
}

func TestLaunchWaitsForTheSlowerTable(t *testing.T) {
	r := plan(t, func(_ *Work, c *Case) { c.Sheet.ThroughDry = flat(36) })
	assert.InDelta(t, 36, r.DryH, 1e-9)
	r = plan(t, func(_ *Work, c *Case) { c.Sheet.Immersion = nil })
	assert.Zero(t, r.DryH)
	assert.Nil(t, r.LastTo, "not known is not 24 h")
	assert.Contains(t, r.Findings[0].Text.String(), "does not say when she may be launched")
}

func TestExtraCoatsGoOnFirst(t *testing.T) {
	r := plan(t, nil)
	var names []string
	laid := map[string]float64{}
	for _, st := range r.Steps {
		if st.Films() {
			names = append(names, st.Key+" "+st.Colour)
			laid[st.Key] = st.Amount
		}
	}
	assert.Equal(t, []string{"extra-edges-1 black", "all-1 red", "all-2 black"}, names,
		"the last is of the second colour, every other below it")
	assert.InDelta(t, 0.18/0.9, laid["extra-edges-1"], 1e-9)
	assert.InDelta(t, 1.08/0.9, laid["all-1"], 1e-9)
	assert.InDelta(t, 1.8, r.Steps[2].Where.AreaM2(10.8), 1e-9)
	off := plan(t, func(_ *Work, c *Case) { c.AreaM2 = 20 })
	assert.Contains(t, off.Findings[0].Text.String(), "add up to 10.8 m² and the bottom has 20 m²")
	assert.InDelta(t, (2*2+0.18)/0.9, off.Litres, 1e-9, "all of the bottom is coated")
	old := plan(t, func(w *Work, c *Case) {
		tie := soft()
		tie.Kind = product.TieCoat
		w.Old, c.Tie = "hard", &tie
	})
	assert.Equal(t, "tie", old.Steps[2].Role)
}

func TestBadFields(t *testing.T) {
	zero := 0.0
	for path, edit := range map[string]func(w *Work){
		"wearUm":          func(w *Work) { w.WearUm, w.NM = &zero, 0 },
		"coats":           func(w *Work) { w.Coats = 0 },
		"zones":           func(w *Work) { w.Zones = nil },
		"zones[0].areaM2": func(w *Work) { w.Zones[0].AreaM2 = 0 },
		"old":             func(w *Work) { w.Old = "tar" },
		"zones[0].name":   func(w *Work) { w.Zones[0].Name = "" },
	} {
		w := Usual(20, 8)
		edit(&w)
		_, err := w.Plan(Case{Sheet: soft(), TempC: 15})
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
	s := soft()
	s.PolishUmYear, s.PolishUm1000NM = 0, 0
	r, err := Usual(20, 8).Plan(Case{Sheet: s, TempC: 15})
	require.NoError(t, err)
	assert.Contains(t, r.Findings[0].Text.String(), "gives no wear")
	sum := 0.0
	for _, z := range Usual(20, 8).Zones {
		sum += z.AreaM2
	}
	assert.InDelta(t, 20, sum, 0.1, "the zones are the bottom")
}

// More wear, more miles: never more seasons. More coats: never fewer litres.
func TestSeasonsFallWithWear(t *testing.T) {
	last := 1e9
	for _, nm := range []float64{0, 200, 1000, 4000} {
		r := plan(t, func(w *Work, _ *Case) { w.NM = nm })
		assert.LessOrEqual(t, r.Seasons, last)
		last = r.Seasons
	}
	litres := 0.0
	for coats := 1; coats < 6; coats++ {
		r := plan(t, func(w *Work, _ *Case) { w.Coats = coats })
		assert.Greater(t, r.Litres, litres)
		litres = r.Litres
		sum := 0.0
		for _, s := range r.Steps {
			if s.Unit == "L" {
				sum += s.Amount
			}
		}
		assert.InDelta(t, r.Litres, sum, 1e-9, "the steps lay what the zones take")
		for _, z := range r.Zones {
			require.Len(t, z.Colours, z.Coats)
			for i := 1; i < len(z.Colours); i++ {
				assert.NotEqual(t, z.Colours[i-1], z.Colours[i], "they alternate")
			}
			assert.Equal(t, "black", z.Colours[len(z.Colours)-1])
		}
	}
	one := plan(t, func(w *Work, _ *Case) { w.Second = "" })
	assert.Contains(t, one.Wear, "of one colour")
}

// Of a film that wears by the mile alone, one's own figure of nothing a year holds where there are miles: 20 µm for 1000 are 10 for 500.
func TestWearByTheMile(t *testing.T) {
	zero := 0.0
	r := plan(t, func(w *Work, _ *Case) { w.WearUm = &zero })
	assert.InDelta(t, 10, r.Zones[0].Seasons, 1e-9)
	for areaM2, told := range map[float64]bool{10.8 / 1.049: false, 10.8 / 1.051: true, 10.8 / 0.951: false,
		10.8 / 0.949: true} {
		r := plan(t, func(_ *Work, c *Case) { c.AreaM2 = areaM2 })
		assert.Equal(t, told, len(r.Findings) > 0, "%.3f m²", areaM2)
	}
}
