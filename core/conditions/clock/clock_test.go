package clock

import (
	"math"
	"testing"
	"time"

	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/exposure/surface"
	"allcoats/core/physics/cure"
	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var start = time.Date(2026, 5, 1, 10, 0, 0, 0, time.UTC)

// flat is dry measured air with a surface as warm.
func flat(tempC float64, hours int) field.Weather {
	var w field.Weather
	for i := 0; i <= hours; i++ {
		w.Air = append(w.Air, weather.Hour{At: start.Add(time.Duration(i) * time.Hour), TempC: tempC, RHPct: 50,
			Measured: true})
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
	assert.Contains(t, none.Working.Warnings[0].String(), "no recoat table")
	empty := Run(Laid{Sheet: sheet(), Started: start}, product.Varnish, field.Weather{}, start)
	assert.Equal(t, Unknown, empty.State)
	late := Run(Laid{Sheet: sheet(), Started: start.Add(-time.Hour)}, product.Varnish, flat(20, 10),
		start.Add(20*time.Hour))
	assert.Equal(t, Unknown, late.State, "open at the end of the record, and then?")
	assert.Contains(t, late.Working.Warnings[0].String(), "what comes before is not known")
	assert.Contains(t, late.Working.Warnings[len(late.Working.Warnings)-1].String(), "what came after it is not known")
	assert.InDelta(t, 100*10.0/21, late.KnownPct, 1e-9)
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
	damp.Air[3].RHPct = 83.5 // a dew point of 17.1 °C, 2.9 K under the surface
	assert.Contains(t, find(damp, hour(24)), ByDamp)
	damp.Air[3].RHPct = 82.3 // 16.9 °C
	assert.NotContains(t, find(damp, hour(24)), ByDamp, "3 K are enough, by ISO 8502-4")
	damp.Air[3].RHPct = 95
	s.Blushes = false
	assert.NotContains(t, find(damp, hour(24)), ByDamp)
	heat := flat(20, 48)
	heat.SurfaceC[1] = 36
	assert.Contains(t, find(heat, hour(24)), ByHeat)
	frost := flat(20, 48)
	frost.SurfaceC[0] = -1
	assert.Contains(t, find(frost, hour(24)), ByFrost)
}

// Blush is there until the coat was washed after the last of the damp: not by sanding, nor by a wash
// while it still formed, and not before the damp has come.
func TestBlushIsThereUntilItIsWashed(t *testing.T) {
	s := sheet()
	s.Blushes = true
	hour := func(h float64) *time.Time {
		at := start.Add(time.Duration(h * float64(time.Hour)))
		return &at
	}
	damp := flat(20, 48)
	damp.Air[3].RHPct = 95
	run := func(l Laid, now float64) *Damage {
		l.Sheet, l.Started = s, start
		return Run(l, product.TopcoatTwo, damp, *hour(now)).Blush
	}
	blush := run(Laid{}, 24)
	require.NotNil(t, blush)
	assert.Equal(t, ByDamp, blush.Harm)
	assert.Nil(t, run(Laid{}, 1), "it is forecast")
	assert.NotNil(t, run(Laid{Abraded: hour(20)}, 24), "sanding rubs it in")
	assert.NotNil(t, run(Laid{Washed: hour(1)}, 24))
	assert.Nil(t, run(Laid{Washed: hour(20)}, 24))
	s.Blushes = false
	assert.Nil(t, run(Laid{}, 24))
}

func TestMeasuredShare(t *testing.T) {
	w := flat(20, 48)
	for i := 13; i < len(w.Air); i++ {
		w.Air[i].Measured = false
	}
	got := Run(Laid{Sheet: sheet(), Started: start}, product.TopcoatTwo, w, start.Add(24*time.Hour))
	assert.InDelta(t, 100*12.0/24, got.MeasuredPct, 1e-9, "twelve of the 24 h lie between measured records")
	assert.InDelta(t, 100, got.KnownPct, 1e-9)
}

// Waterborne: (100 − 50)/(100 − 75) = twice as long; a solvent-borne one does not ask.
func TestOnlyWaterborneCoatsWaitForDryAir(t *testing.T) {
	run := func(h cure.Humidity, rh float64) float64 {
		s := sheet()
		s.Humidity = h
		w := flat(23, 400)
		for i := range w.Air {
			w.Air[i].RHPct = rh
		}
		return Run(Laid{Sheet: s, Started: start}, product.TopcoatTwo, w, start).Event(RecoatOpens).At.Sub(
			start).Hours()
	}
	assert.InEpsilon(t, 2*run(cure.Waterborne, 50), run(cure.Waterborne, 75), 1e-3)
	assert.Equal(t, run(cure.Indifferent, 50), run(cure.Indifferent, 95))
}

// example returns the shipped sheet of a name.
func example(t *testing.T, name string) product.Sheet {
	t.Helper()
	for _, s := range product.Examples() {
		if s.Name == name {
			return s
		}
	}
	t.Fatal("no sheet " + name)
	return product.Sheet{}
}

// wave is days of a surface that swings by swingC around meanC.
func wave(meanC, swingC float64, days int) field.Weather {
	w := flat(meanC, 24*days)
	for i := range w.SurfaceC {
		w.SurfaceC[i] += swingC * math.Sin(float64(i)*math.Pi/12)
	}
	return w
}

// Maximum clocks neither stand nor slow in the cold. By hand: 672 h at 5 °C and 336 h at
// 15 °C fall by the factor 2 over 1.2477e-4 1/K; at 6.4 °C, 1.800e-5 1/K from 5 °C, they
// are 672 · 2^−0.1443 = 608 h, 25.3 days; a swing of 4 K brings that to about day 24,
// since warmth gains more than the cold, held at 28 days, loses. A tie
// coat's 2160 h (90 days) at 5 °C hold at 2 °C. A tack window of 14 h at 10 °C does not
// outlast a night of 3 °C, at which the barrier itself does not cure (least 7 °C).
func TestMaximumClocksNeverFlatter(t *testing.T) {
	for _, c := range []struct {
		name, sheet  string
		over         product.Kind
		w            field.Weather
		lo, hi, seen float64 // days: closes between, and the state some days after
	}{
		{"metal primer, 49 days at 6.4 °C", "Epoxy metal primer, anticorrosive, two-part", product.Barrier,
			wave(6.4, 0, 60), 25.3, 25.4, 49},
		{"the same, swinging", "Epoxy metal primer, anticorrosive, two-part", product.Barrier, wave(6.4, 4, 60), 23.5,
			25.3, 49},
		{"tie coat, 151 days at 2 °C", "Epoxy tie coat, two-part", product.HighBuild, wave(2, 0, 160), 90, 90, 151},
		{"tack window over a night of 3 °C", "Epoxy barrier coat, high solids, two-part", product.SoftAntifoul,
			wave(3, 0, 4), 14. / 24, 14. / 24, 2},
	} {
		s := example(t, c.sheet)
		got := Run(Laid{Sheet: s, Started: start}, c.over, c.w, start.Add(time.Duration(c.seen*24)*time.Hour))
		closes := got.Event(RecoatCloses).At
		require.NotNil(t, closes, c.name)
		assert.GreaterOrEqual(t, closes.Sub(start).Hours()/24, c.lo-1e-3, c.name)
		assert.LessOrEqual(t, closes.Sub(start).Hours()/24, c.hi+1e-3, c.name)
		assert.NotContains(t, []State{Open, Closing}, got.State, c.name)
	}
	s := example(t, "Epoxy metal primer, anticorrosive, two-part")
	assert.Equal(t, Closed, Run(Laid{Sheet: s, Started: start}, product.Barrier, wave(6.4, 4, 60),
		start.Add(49*24*time.Hour)).State)
}

// A hole of 30 h in a window of 105 h at 20 °C: the clock runs through it as at the
// sheet's warmest row, 20 °C here, so that it closes in time; but what is then is not
// known. Of the 110 h since, 80 were known.
func TestAHoleInTheRecordIsNotAssumed(t *testing.T) {
	w := flat(20, 200)
	w.Air = append(w.Air[:20:20], w.Air[50:]...)
	w.SurfaceC = append(w.SurfaceC[:20:20], w.SurfaceC[50:]...)
	got := Run(Laid{Sheet: sheet(), Started: start}, product.TopcoatTwo, w, start.Add(110*time.Hour))
	assert.Equal(t, Unknown, got.State)
	closes := got.Event(RecoatCloses)
	require.NotNil(t, closes.At)
	assert.InDelta(t, 105, closes.At.Sub(start).Hours(), 0.01)
	assert.InDelta(t, 31, closes.HoleH, 1e-6)
	assert.InDelta(t, 100*79./110, got.KnownPct, 1e-6)
	assert.Less(t, got.MeasuredPct, 100.0, "not all was measured")
	before := Run(Laid{Sheet: sheet(), Started: start}, product.TopcoatTwo, w, start.Add(60*time.Hour))
	assert.Equal(t, Open, before.State, "at its fastest it is still open")
	// Minimum clocks make no progress in it: 5 h at 20 °C begun 2 h before it.
	late := Run(Laid{Sheet: sheet(), Started: start.Add(17 * time.Hour)}, product.TopcoatTwo, w,
		start.Add(60*time.Hour))
	assert.InDelta(t, 5+31, late.Event(RecoatOpens).At.Sub(start.Add(17*time.Hour)).Hours(), 0.01)
}

// Sanding opens a coat again only after its minimum, 5 h at 20 °C.
func TestSandingTooSoonOpensNothing(t *testing.T) {
	soon, due := start.Add(3*time.Hour), start.Add(6*time.Hour)
	now := start.Add(150 * time.Hour) // past its maximum of 105 h
	got := Run(Laid{Sheet: sheet(), Started: start, Abraded: &soon}, product.TopcoatTwo, flat(20, 200), now)
	assert.Equal(t, Closed, got.State)
	assert.False(t, got.Abraded)
	got = Run(Laid{Sheet: sheet(), Started: start, Abraded: &due}, product.TopcoatTwo, flat(20, 200), now)
	assert.Equal(t, Open, got.State)
	assert.True(t, got.Abraded)
}

// Rain an hour after a coat that is touch-dry in two: damaged until it is looked at.
func TestRainOnAWetCoatCounts(t *testing.T) {
	w := flat(20, 200)
	w.Wet = []surface.Wet{{From: start.Add(time.Hour), To: start.Add(3 * time.Hour), Rain: true}}
	at := func(l Laid, h int) Clock { return Run(l, product.TopcoatTwo, w, start.Add(time.Duration(h)*time.Hour)) }
	l := Laid{Sheet: sheet(), Started: start}
	assert.Equal(t, Wet, at(l, 0).State)
	assert.Equal(t, Damaged, at(l, 2).State)
	assert.Equal(t, Damaged, at(l, 90).State)
	looked := start.Add(20 * time.Hour)
	l.Inspected = &looked
	assert.Equal(t, Damaged, at(l, 19).State)
	assert.Equal(t, Open, at(l, 30).State)
	l.Inspected, l.Abraded = nil, &looked
	assert.Equal(t, Open, at(l, 30).State, "sanded after its minimum")
	dry := flat(20, 200)
	dry.Wet = []surface.Wet{{From: start.Add(3 * time.Hour), To: start.Add(5 * time.Hour), Rain: true}}
	assert.Equal(t, Open, Run(Laid{Sheet: sheet(), Started: start}, product.TopcoatTwo, dry,
		start.Add(30*time.Hour)).State, "touch-dry by then")
}

// The slowest clock of all films counts: 100 h of the one below began 20 h earlier than
// 24 h of the one above; both at 20 °C.
func TestAllFilmsHarden(t *testing.T) {
	under, over := sheet(), sheet()
	under.Name = "under"
	under.Immersion, over.Immersion = cure.Table{{TempC: 10, Hours: 200}, {TempC: 20, Hours: 100}},
		cure.Table{{TempC: 10, Hours: 48}, {TempC: 20, Hours: 24}}
	over.ThroughDry = cure.Table{{TempC: 10, Hours: 60}, {TempC: 20, Hours: 30}}
	films := []Laid{{Sheet: under, Started: start}, {Sheet: over, Started: start.Add(20 * time.Hour)}}
	h, ok := Hardens(films, true, flat(20, 300))
	require.True(t, ok)
	assert.Equal(t, "under", h.Sheet.Name)
	assert.WithinDuration(t, start.Add(100*time.Hour), *h.At, time.Minute)
	h, _ = Hardens(films[1:], true, flat(20, 300))
	assert.WithinDuration(t, start.Add(50*time.Hour), *h.At, time.Minute, "through-dry is slower than its immersion")
	h, _ = Hardens([]Laid{{Sheet: product.Sheet{Name: "silent"}, Started: start}, films[1]}, true, flat(20, 300))
	assert.False(t, h.Tabled, "one that does not say makes the whole not known")
	_, ok = Hardens(nil, true, flat(20, 10))
	assert.False(t, ok)
}

// Rain, dew and frost make a coat one to be inspected; heat and damp do not. The first of them counts.
func TestWhatHarmsACoat(t *testing.T) {
	of := func(all ...Harm) Clock {
		var c Clock
		for _, h := range all {
			c.Damage = append(c.Damage, Damage{Harm: h})
		}
		return c
	}
	_, harmed := of(ByHeat, ByDamp).Harmed()
	assert.False(t, harmed)
	for _, h := range []Harm{ByRain, ByDew, ByFrost} {
		d, harmed := of(ByHeat, h, ByRain).Harmed()
		assert.True(t, harmed)
		assert.Equal(t, h, d.Harm)
	}
	for says, s := range map[string]product.Sheet{
		"wash the blush off": {Kind: product.Barrier, Blushes: true}, "sand the spots": {Kind: product.Varnish},
		"wet-scuff": {Kind: product.SoftAntifoul}, "craters, spots": {Kind: product.HighBuild},
	} {
		assert.Contains(t, Mend(s).String(), says)
	}
}

func TestTheFirstRainAfter(t *testing.T) {
	start := time.Date(2026, 5, 1, 8, 0, 0, 0, time.UTC)
	at := func(h int) time.Time { return start.Add(time.Duration(h) * time.Hour) }
	var w field.Weather
	for h, mm := range []float64{1, 0, 0, 2, 2, 0} {
		w.Air = append(w.Air, weather.Hour{At: at(h), RainMM: &mm})
	}
	w.Air[1].RainMM = nil
	for _, c := range []struct {
		from, end int
		first     int // none: −1
	}{{0, 5, 0}, {1, 5, 3}, {3, 5, 3}, {4, 5, 4}, {1, 3, -1}, {5, 9, -1}} {
		got, ok := rainAfter(w, at(c.from), at(c.end))
		assert.Equal(t, c.first >= 0, ok, c)
		if ok {
			assert.Equal(t, at(c.first), got, c)
		}
	}
}
