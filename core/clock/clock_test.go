package clock

import (
	"testing"
	"time"

	"allcoats/core/cure"
	"allcoats/core/field"
	"allcoats/core/product"
	"allcoats/core/surface"
	"allcoats/core/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var start = time.Date(2026, 5, 1, 10, 0, 0, 0, time.UTC)

// flat is dry measured air with a surface as warm.
func flat(tempC float64, hours int) field.Weather {
	var w field.Weather
	for i := 0; i <= hours; i++ {
		w.Air = append(w.Air, weather.Hour{At: start.Add(time.Duration(i) * time.Hour), TempC: tempC, RHPct: 50, Measured: true})
		w.SurfaceC = append(w.SurfaceC, tempC)
	}
	return w
}

func sheet() product.Sheet {
	at20 := func(h float64) cure.Table { return cure.Table{{TempC: 10, Hours: 2 * h}, {TempC: 20, Hours: h}} }
	return product.Sheet{
		Name: "test", Kind: product.HighBuild, MinCureC: 5, TouchDry: at20(2), Sandable: at20(10),
		Recoat: []product.Recoat{
			{Over: product.AnyKind, Min: at20(5), Max: at20(105)},
			{Over: product.SoftAntifoul, Min: at20(3), NeverCloses: true},
		},
	}
}

func TestStatesInOrder(t *testing.T) {
	l := Laid{Sheet: sheet(), Started: start}
	p := flat(20, 200)
	for _, c := range []struct {
		afterH float64
		want   State
	}{
		{0, Wet}, {1.9, Wet}, {2.1, Tacking}, {4.9, Tacking}, {5.1, Open}, {84.9, Open},
		{85.1, Closing}, {104.9, Closing}, {105.1, Closed}, {199, Closed},
	} {
		at := start.Add(time.Duration(c.afterH * float64(time.Hour)))
		assert.Equal(t, c.want, Run(l, product.TopcoatTwo, p, at).State, "after %g h", c.afterH)
	}
	c := Run(l, product.TopcoatTwo, p, start.Add(time.Hour))
	require.NotNil(t, c.Event(Sandable).At)
	assert.WithinDuration(t, start.Add(10*time.Hour), *c.Event(Sandable).At, time.Minute)
	assert.True(t, c.Event(Sandable).Forecast)
	assert.False(t, c.Event(Immersion).Tabled)
	require.NotNil(t, c.Until)
	assert.WithinDuration(t, start.Add(2*time.Hour), *c.Until, time.Minute)
}

func TestHalfAsWarmTakesTwiceAsLong(t *testing.T) {
	c := Run(Laid{Sheet: sheet(), Started: start}, product.TopcoatTwo, flat(10, 300), start)
	assert.WithinDuration(t, start.Add(10*time.Hour), *c.Event(RecoatOpens).At, time.Minute)
	assert.WithinDuration(t, start.Add(210*time.Hour), *c.Event(RecoatCloses).At, time.Minute)
}

func TestTooColdStandsStill(t *testing.T) {
	c := Run(Laid{Sheet: sheet(), Started: start}, product.TopcoatTwo, flat(4, 300), start.Add(200*time.Hour))
	assert.Equal(t, Wet, c.State)
	assert.Nil(t, c.Until)
	assert.Zero(t, c.Event(RecoatOpens).Progress)
}

func TestWhatGoesOverMatters(t *testing.T) {
	c := Run(Laid{Sheet: sheet(), Started: start}, product.SoftAntifoul, flat(20, 300), start.Add(250*time.Hour))
	assert.Equal(t, Open, c.State, "this one never closes")
	assert.WithinDuration(t, start.Add(3*time.Hour), *c.Event(RecoatOpens).At, time.Minute)
}

func TestAbradedIsOpenAgain(t *testing.T) {
	sanded := start.Add(120 * time.Hour)
	l := Laid{Sheet: sheet(), Started: start, Abraded: &sanded}
	assert.Equal(t, Closed, Run(l, product.TopcoatTwo, flat(20, 300), start.Add(110*time.Hour)).State)
	c := Run(l, product.TopcoatTwo, flat(20, 300), start.Add(130*time.Hour))
	assert.Equal(t, Open, c.State)
	assert.True(t, c.Abraded)
}

func TestSegmentsJoin(t *testing.T) {
	c := Run(Laid{Sheet: sheet(), Started: start}, product.TopcoatTwo, flat(17, 400), start)
	require.NotEmpty(t, c.Segments)
	assert.Equal(t, start, c.Segments[0].From)
	for i := 1; i < len(c.Segments); i++ {
		assert.Equal(t, c.Segments[i-1].To, c.Segments[i].From)
	}
}

func TestWhatIsNotKnownIsSaid(t *testing.T) {
	none := Run(Laid{Sheet: product.Sheet{Name: "bare"}, Started: start}, product.Varnish, flat(20, 10), start)
	assert.Equal(t, Unknown, none.State)
	assert.Contains(t, none.Working.Warnings[0], "no recoat table")
	empty := Run(Laid{Sheet: sheet(), Started: start}, product.Varnish, field.Weather{}, start)
	assert.Equal(t, Unknown, empty.State)
	late := Run(Laid{Sheet: sheet(), Started: start.Add(-time.Hour)}, product.Varnish, flat(20, 10), start.Add(20*time.Hour))
	assert.Len(t, late.Working.Warnings, 2, "begins too early, ends too early")
}

func TestClosing(t *testing.T) {
	h := func(n int) time.Time { return start.Add(time.Duration(n) * time.Hour) }
	assert.Equal(t, h(80), closingAt(h(0), h(100)), "a fifth")
	assert.Equal(t, h(28), closingAt(h(0), h(40)), "12 h is more than a fifth of 40 h")
	assert.Equal(t, h(0), closingAt(h(0), h(6)), "not before it opens")
}

func TestDamage(t *testing.T) {
	s := sheet() // touch-dry after 2 h at 20 °C, open after 5
	s.Blushes = true
	hot := 30.0
	s.Limits.SurfaceMaxC = &hot
	hour := func(h float64) time.Time { return start.Add(time.Duration(h * float64(time.Hour))) }
	find := func(w field.Weather, now time.Time) map[Harm]Damage {
		out := map[Harm]Damage{}
		for _, d := range Run(Laid{Sheet: s, Started: start}, product.TopcoatTwo, w, now).Damage {
			out[d.Harm] = d
		}
		return out
	}
	assert.Empty(t, find(flat(20, 48), start))
	w := flat(20, 48)
	w.Wet = []surface.Wet{{From: hour(1), To: hour(4)}, {From: hour(30), To: hour(32), Rain: true}}
	got := find(w, hour(24))
	require.Contains(t, got, ByDew)
	assert.WithinDuration(t, hour(2), got[ByDew].To, time.Minute, "only until it is touch-dry")
	assert.False(t, got[ByDew].Forecast)
	assert.NotContains(t, got, ByRain, "rain on a dry coat does nothing")
	assert.True(t, find(w, start)[ByDew].Forecast)
	damp := flat(20, 48)
	damp.Air[3].RHPct = 95
	assert.Contains(t, find(damp, hour(24)), ByDamp)
	s.Blushes = false
	assert.NotContains(t, find(damp, hour(24)), ByDamp)
	heat := flat(20, 48)
	heat.SurfaceC[1] = 36
	assert.Contains(t, find(heat, hour(24)), ByHeat)
	frost := flat(20, 48)
	frost.SurfaceC[0] = -1
	assert.Contains(t, find(frost, hour(24)), ByFrost)
}

func TestMeasuredShare(t *testing.T) {
	w := flat(20, 48)
	for i := 13; i < len(w.Air); i++ {
		w.Air[i].Measured = false
	}
	got := Run(Laid{Sheet: sheet(), Started: start}, product.TopcoatTwo, w, start.Add(24*time.Hour))
	assert.InDelta(t, 100*13.0/25, got.MeasuredPct, 1e-9)
}

// A product that dries by evaporation takes twice as long where the air takes
// half as much vapour.
func TestEvaporatingTakesLongerInDampAir(t *testing.T) {
	s := sheet()
	s.Humidity = product.Evaporating
	run := func(rh float64) float64 {
		w := flat(23, 400)
		for i := range w.Air {
			w.Air[i].RHPct = rh
		}
		return Run(Laid{Sheet: s, Started: start}, product.TopcoatTwo, w, start).Event(RecoatOpens).At.Sub(start).Hours()
	}
	assert.InEpsilon(t, 2*run(50), run(75), 1e-3)
}
