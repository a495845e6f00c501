package surface

import (
	"math"
	"testing"
	"time"

	"allcoats/core/area"
	"allcoats/core/survey"
	"allcoats/core/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var midnight = time.Date(2026, 5, 9, 0, 0, 0, 0, time.UTC)

func ptr(v float64) *float64 { return &v }

// record makes n hours; edit may be nil.
func record(n int, tempC, rhPct float64, edit func(i int, h *weather.Hour)) weather.Series {
	s := make(weather.Series, n)
	for i := range s {
		s[i] = weather.Hour{At: midnight.Add(time.Duration(i) * time.Hour), TempC: tempC, RHPct: rhPct, WindMS: ptr(1), CloudPct: ptr(0)}
		if edit != nil {
			edit(i, &s[i])
		}
	}
	return s
}

func side(s area.Side, tone survey.Tone) survey.Description {
	d := survey.Usual(area.Topsides, survey.GRP)
	d.Tone = tone
	return d
}

// With nothing but the air a surface follows the exponential of its time constant.
func TestRunFollowsTheExponential(t *testing.T) {
	f := Face{HeatJM2K: 20_000}
	still := Drive{AirC: 10, WindMS: 0}
	got := f.Run([]Drive{still, still, still}, 20)
	for i, v := range got {
		assert.InDelta(t, 10+10*math.Exp(-5.7*3600*float64(i)/20_000), v, 1e-9)
	}
}

// A balance at rest: sun against the air, no sky.
func TestRunComesToRest(t *testing.T) {
	f := Face{HeatJM2K: 10_000, Absorptance: 0.9}
	d := Drive{AirC: 15, LightWM2: 500, WindMS: 1}
	drives := make([]Drive, 48)
	for i := range drives {
		drives[i] = d
	}
	got := f.Run(drives, 0)
	assert.InDelta(t, 15+0.9*500/9.5, got[47], 1e-6)
	for i, v := range got[1:] {
		assert.GreaterOrEqual(t, v, got[i]-1e-9, "it does not oscillate")
	}
}

func TestShadedSideIsColder(t *testing.T) {
	c := Outdoors(53, 0, record(72, 14, 60, nil))
	noon := 60
	port := c.Course(Of(side(area.Port, survey.Dark), area.Topsides, area.Port, 270)) // faces south
	starboard := c.Course(Of(side(area.Starboard, survey.Dark), area.Topsides, area.Starboard, 270))
	assert.Greater(t, port.TempC[noon], starboard.TempC[noon]+10)
	white := c.Course(Of(side(area.Port, survey.White), area.Topsides, area.Port, 270))
	assert.Less(t, white.TempC[noon], port.TempC[noon]-10, "a white side stays cooler than a dark one")
	both := c.Course(Of(side(area.Both, survey.Dark), area.Topsides, area.Both, 270))
	assert.Greater(t, port.TempC[noon], both.TempC[noon])
	assert.Greater(t, both.TempC[noon], starboard.TempC[noon])
}

// On a clear calm night a deck falls below the dew point and a side, which sees
// half the sky, less so; under a roof nothing does.
func TestDewFallsOnTheDeckAndDriesInTheSun(t *testing.T) {
	c := Outdoors(53, 0, record(48, 9, 92, func(i int, h *weather.Hour) {
		*h.WindMS = 0.5
		if hour := i % 24; hour > 8 && hour < 20 {
			h.RHPct, h.TempC = 60, 15
		}
	}))
	d := survey.Usual(area.Deck, survey.GRP)
	deck := c.Course(Of(d, area.Deck, area.Both, 0))
	require.NotEmpty(t, deck.Wet)
	assert.False(t, deck.Wet[0].Rain)
	for _, w := range deck.Wet {
		assert.True(t, w.To.After(w.From))
	}
	dry := deck.Wet[len(deck.Wet)-1]
	for _, w := range deck.Wet {
		if w.To.Before(midnight.Add(36*time.Hour)) && w.To.After(midnight.Add(28*time.Hour)) {
			dry = w
		}
	}
	assert.WithinRange(t, dry.To, midnight.Add(31*time.Hour), midnight.Add(36*time.Hour), "the sun dries it in the morning")
	d.Shelter = survey.Shed
	assert.Empty(t, c.Course(Of(d, area.Deck, area.Both, 0)).Wet)
}

func TestRainWetsADeckAndNotAnUnderside(t *testing.T) {
	rain := record(24, 12, 90, func(i int, h *weather.Hour) {
		h.CloudPct, h.RainMM = ptr(100), ptr(0)
		if i == 10 || i == 11 {
			*h.RainMM = 1.5
		}
	})
	c := Outdoors(53, 0, rain)
	deck := c.Course(Of(survey.Usual(area.Deck, survey.GRP), area.Deck, area.Both, 0))
	require.Len(t, deck.Wet, 1)
	assert.True(t, deck.Wet[0].Rain)
	assert.WithinDuration(t, midnight.Add(10*time.Hour), deck.Wet[0].From, time.Minute)
	assert.True(t, deck.Wet[0].To.After(midnight.Add(12*time.Hour)), "it is wet for a while after the rain")
	bottom := c.Course(Of(survey.Usual(area.Bottom, survey.GRP), area.Bottom, area.Both, 0))
	assert.Empty(t, bottom.Wet)
}

// Water dries as fast as air takes vapour: 0.5 mm from a deck at the air's
// temperature, h = 9.5 W/m²K, by hand.
func TestDryingTime(t *testing.T) {
	w := water{out: &Course{}}
	e := 0.7 * 14.03 // 70 % at 12 °C, hPa
	w.step(midnight, 1.0/60, 12, e, 9.5, 0.5, 0.5)
	at, h := midnight, 0.0
	for ; w.open && h < 24; h += 1.0 / 60 {
		at = at.Add(time.Minute)
		w.step(at, 1.0/60, 12, e, 9.5, 0, 0.5)
	}
	density := 0.216679 * 0.3 * 14.03 / 285.15 // kg/m³ lacking
	perHour := 9.5 / (1.2 * 1005 * 0.9) * density * 3600
	assert.InEpsilon(t, (0.5-dryMM)/perHour, h, 0.02)
}

func TestCourseBeginsAnewAfterAGap(t *testing.T) {
	s := record(5, 10, 60, nil)
	s = append(s, weather.Hour{At: midnight.Add(20 * time.Hour), TempC: 18, RHPct: 60})
	got := Outdoors(53, 0, s).Course(Of(survey.Usual(area.Deck, survey.Steel), area.Deck, area.Both, 0))
	assert.Equal(t, 18.0, got.TempC[5])
	assert.Empty(t, Outdoors(53, 0, nil).Course(Face{HeatJM2K: 1e4}).TempC)
}

func TestOf(t *testing.T) {
	d := survey.Usual(area.Topsides, survey.GRP)
	f := Of(d, area.Topsides, area.Starboard, 240)
	assert.Equal(t, 1800*1000*0.008, f.HeatJM2K)
	assert.Equal(t, []float64{330}, f.AzimuthDeg)
	assert.InDelta(t, 0.5, f.SkyView, 1e-12)
	assert.InDelta(t, 1, Of(d, area.Deck, area.Both, 0).SkyView, 1e-12)
	assert.Equal(t, []float64{180}, Of(d, area.Transom, area.Both, 0).AzimuthDeg)
	d.Facing, d.Shelter = "bow", survey.Tent
	f = Of(d, area.Topsides, area.Port, 10)
	assert.Equal(t, []float64{10}, f.AzimuthDeg)
	assert.Zero(t, f.SkyView)
	for _, s := range survey.Substrates {
		assert.Positive(t, Of(survey.Usual(area.Rudder, s.Key), area.Rudder, area.Both, 0).HeatJM2K, s.Key)
	}
}

func BenchmarkYearTwelveSurfaces(b *testing.B) {
	year := record(8760, 12, 75, func(i int, h *weather.Hour) {
		h.TempC = 10 + 8*math.Sin(float64(i)/1400) + 4*math.Sin(float64(i)*math.Pi/12)
		h.RainMM = ptr(math.Max(0, math.Sin(float64(i)/40)-0.95) * 20)
	})
	var faces []Face
	for i := range 12 {
		d := survey.Usual(area.Topsides, survey.Substrates[i].Key)
		faces = append(faces, Of(d, area.Parts[i].Part, area.Sides[i%3], float64(30*i)))
	}
	for b.Loop() {
		Outdoors(53, 0, year).Courses(faces)
	}
}
