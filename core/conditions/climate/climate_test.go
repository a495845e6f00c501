package climate

import (
	"context"
	"math"
	"testing"
	"time"

	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/exposure/reading"
	"allcoats/core/exposure/surface"
	"allcoats/core/exposure/tent"
	"allcoats/core/physics/cure"
	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var now = time.Date(2026, 5, 9, 8, 0, 0, 0, time.UTC)

func num(v float64) *float64 { return &v }

// boat lies with her bow to the west, so that port faces south, in fair weather
// of meanC.
func boat(meanC float64, hours int) Boat {
	b := Boat{Site: Site{LatitudeDeg: 53, LongitudeDeg: 0, Loc: time.UTC, Now: now}}
	for i := -72; i < hours; i++ {
		at := now.Add(time.Duration(i) * time.Hour)
		b.Air = append(b.Air, weather.Hour{At: at, TempC: meanC + 4*math.Cos(2*math.Pi*float64(at.Hour()-15)/24),
			RHPct:  65,
			WindMS: num(2), CloudPct: num(10), RainMM: num(0), Measured: i <= 0})
	}
	for id, side := range map[string]area.Side{"port": area.Port, "starboard": area.Starboard} {
		d := survey.Usual(area.Topsides, survey.GRP)
		d.Tone = survey.Dark
		b.Surfaces = append(b.Surfaces, Surface{ID: id, Face: surface.Of(d, area.Topsides, side, 270), AreaM2: 12})
	}
	return b
}

func at(w field.Weather, t time.Time) float64 {
	return w.SurfaceC[w.Air.Find(t)]
}

func TestPortAndStarboardDiffer(t *testing.T) {
	c := Of(boat(12, 72))
	noon := now.Add(4 * time.Hour)
	assert.Greater(t, at(c.Surface["port"], noon), at(c.Surface["starboard"], noon)+8)
	assert.Nil(t, c.Tent)
}

func TestProbeCorrectsItsSurfaceOnly(t *testing.T) {
	b := boat(12, 72)
	model := Of(b)
	var rs []reading.Reading
	for h := -48; h <= 0; h++ {
		t := now.Add(time.Duration(h) * time.Hour)
		rs = append(rs, reading.Reading{At: t, TempC: at(model.Surface["port"], t) - 3, RHPct: math.NaN()})
	}
	b.Instruments = []Instrument{{Kind: reading.OnSurface, SurfaceID: "port", Readings: rs}}
	c := Of(b)
	past, ahead := now.Add(-10*time.Hour), now.Add(30*time.Hour)
	assert.InDelta(t, at(model.Surface["port"], past)-3, at(c.Surface["port"], past), 1e-6)
	assert.Less(t, at(c.Surface["port"], ahead), at(model.Surface["port"], ahead)-0.8)
	assert.Equal(t, at(model.Surface["starboard"], ahead), at(c.Surface["starboard"], ahead))
}

func TestTentWarmsWhatIsInIt(t *testing.T) {
	b := boat(6, 72)
	heated := tent.Usual(9, 3)
	heated.Heaters = []tent.Heater{{Kind: tent.Electric, PowerKW: 9}}
	heated.Thermostat = tent.Thermostat{SetC: 15}
	b.Tent = &heated
	for i := range b.Surfaces {
		if b.Surfaces[i].ID == "port" {
			b.Surfaces[i].Shelter, b.Surfaces[i].Face.Roofed = survey.Tent, true
		}
	}
	c := Of(b)
	night := now.Add(18 * time.Hour)
	assert.Greater(t, at(c.Surface["port"], night), at(c.Surface["starboard"], night)+5)
	assert.Equal(t, 0.0, *c.Surface["port"].Air[0].WindMS)
	b.Instruments = []Instrument{{Kind: reading.InTent, Readings: []reading.Reading{{At: now, TempC: 11, RHPct: 60}}}}
	assert.InDelta(t, 11, Of(b).Tent.Air[b.Air.Find(now)].TempC, 1e-6, "what is read in the tent stands")
}

func job() field.Job {
	return field.Job{Limits: product.Limits{AirMinC: num(10), SurfaceMinC: num(10)}, Apply: time.Hour,
		Hold: 3 * time.Hour, Lights: true}
}

func TestChances(t *testing.T) {
	b := boat(16, 240)
	c := Of(b)
	f := weather.NewFutures(c.Open, now, 8*24*time.Hour, weather.Habits{Normals: weather.UsualNormals(53),
		Loc: time.UTC})
	sure, never := job(), job()
	sure.Limits = product.Limits{AirMinC: num(-20), SpreadMinK: num(0)}
	sure.Sheltered = true
	never.Limits.AirMinC = num(40)
	asks := []Ask{{"port", sure}, {"port", never}, {"starboard", job()}}
	odds, err := b.Chances(t.Context(), c, Ensemble{f, 200, 1}, asks, nil)
	require.NoError(t, err)
	require.Len(t, odds, 3)
	p, when, opens, closes, ok := odds[2].Best(now, now.Add(24*time.Hour))
	require.True(t, ok)
	assert.Greater(t, p, 0.8, "a warm day")
	assert.False(t, when.Before(opens) || closes.Before(when))
	_, _, _, _, ok = odds[1].Best(now, now.Add(7*24*time.Hour))
	assert.False(t, ok)
	again, _ := b.Chances(t.Context(), c, Ensemble{f, 200, 1}, asks, nil)
	assert.Equal(t, odds, again, "the same seed, the same odds")
	for i, v := range odds[0].P[:48] {
		assert.GreaterOrEqual(t, v, odds[1].P[i])
	}
	ctx, stop := context.WithCancel(t.Context())
	stopped, err := b.Chances(ctx, c, Ensemble{f, 5000, 1}, asks, func(float64) { stop() })
	assert.ErrorIs(t, err, context.Canceled)
	assert.Nil(t, stopped)
}

func TestCompareSchools(t *testing.T) {
	b := boat(7, 10*24)
	for i := range b.Air {
		b.Air[i].CloudPct = num(100)
	}
	sheet := product.Sheet{
		Name: "test", Kind: product.HighBuild, MinCureC: 10, Limits: product.Limits{AirMinC: num(10),
			SurfaceMinC: num(10), HoldH: 6},
		Recoat: []product.Recoat{{Over: product.AnyKind, Min: cure.Table{{TempC: 10, Hours: 24}, {TempC: 20, Hours: 8}},
			NeverCloses: true}},
		Grades: []product.Grade{{Name: "winter", MinCureC: 0,
			Recoat: []product.Recoat{
				{Over: product.AnyKind, Min: cure.Table{{TempC: 0, Hours: 40}, {TempC: 10, Hours: 12}},
					NeverCloses: true}}}},
	}
	coat := Coat{SurfaceID: "starboard", Sheet: sheet, Over: product.HighBuild, From: now, To: b.Air[len(b.Air)-1].At,
		Job: field.Job{Limits: sheet.Limits, Apply: time.Hour, Hold: 6 * time.Hour, Lights: true}}
	t1 := tent.Usual(9, 3)
	t1.Heaters = []tent.Heater{{Kind: tent.Gas, PowerKW: 12}}
	t1.Thermostat = tent.Thermostat{SetC: 16}
	f := weather.NewFutures(b.Air, now, 8*24*time.Hour, weather.Habits{Normals: weather.UsualNormals(53),
		Loc: time.UTC})
	got := map[School]Option{}
	for _, o := range b.Compare(t.Context(), coat, t1, Ensemble{f, 40, 1}) {
		got[o.School] = o
	}
	require.Len(t, got, 4)
	heat, grade := got[TentHeat], got[Hardener]
	require.NotNil(t, heat.Start)
	require.NotNil(t, heat.Done)
	assert.Greater(t, heat.StartH, got[Wait].StartH+48, "heat opens nights")
	assert.Positive(t, heat.Cost.FuelKg)
	assert.Positive(t, heat.Cost.WaterKg)
	assert.Greater(t, heat.ChancePct, got[Wait].ChancePct)
	require.NotNil(t, grade.Start)
	assert.Equal(t, "winter", grade.Hardener)
	assert.Greater(t, grade.StartH, got[Wait].StartH)
	days := grade.Done.Sub(now).Hours() / 24
	assert.InDelta(t, days*1200+2500, grade.Cents, 1, "days on the hard and the hardener")
	days = got[TentAlone].Done.Sub(now).Hours() / 24
	// 11 by 5 by 3 m: 151 m² of film at 1.20, nine hoops of 11 m and three rails of 11 at 1.00.
	assert.InDelta(t, days*1200+151*120+132*100, got[TentAlone].Cents, 1,
		"days on the hard and the tent, as none stands")
	for _, o := range got {
		if o.Start == nil {
			continue
		}
		assert.InDelta(t, o.Cents+(1-o.ChancePct/100)*15000, o.WorthCents, 1, o.School)
		if !o.Best {
			continue
		}
		for _, other := range got {
			assert.True(t, other.Done == nil || other.WorthCents >= o.WorthCents,
				"the best costs least, failures reckoned")
		}
	}
	assert.Zero(t, got[TentAlone].Cost.ElectricKWh)
}

func BenchmarkThousandFutures(b *testing.B) {
	boat := boat(12, 240)
	var asks []Ask
	for i := range 10 {
		id := string(rune('a' + i))
		boat.Surfaces = append(boat.Surfaces, Surface{ID: id, Face: surface.Of(survey.Usual(area.Topsides, survey.GRP),
			area.Topsides, area.Port, float64(36*i)), AreaM2: 10})
		asks = append(asks, Ask{id, job()})
	}
	c := Of(boat)
	f := weather.NewFutures(c.Open, now, 10*24*time.Hour, weather.Habits{Normals: weather.UsualNormals(53),
		Loc: time.UTC})
	for b.Loop() {
		if _, err := boat.Chances(b.Context(), c, Ensemble{f, 1000, 1}, asks, nil); err != nil {
			b.Fatal(err)
		}
	}
}

// A surface at 4 °C that is at 12 an hour later has 10 after three quarters of it; one that has it has it now.
func TestWarmFrom(t *testing.T) {
	at := time.Date(2026, 4, 1, 8, 0, 0, 0, time.UTC)
	w := field.Weather{SurfaceC: []float64{4, 12, 13}}
	for i := range w.SurfaceC {
		w.Air = append(w.Air, weather.Hour{At: at.Add(time.Duration(i) * time.Hour)})
	}
	assert.Equal(t, at.Add(45*time.Minute), *warm(w, at, 10))
	assert.Equal(t, at.Add(50*time.Minute), *warm(w, at.Add(50*time.Minute), 10), "not before now")
	assert.Equal(t, at, *warm(w, at, 4))
	assert.Nil(t, warm(w, at, 20))
}
