package surface

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var midnight = time.Date(2026, 5, 9, 0, 0, 0, 0, time.UTC)

func ptr(v float64) *float64 { return &v }

// record makes n hours; edit may be nil.
func record(n int, tempC, rhPct float64, edit func(i int, h *weather.Hour)) weather.Series {
	s := make(weather.Series, n)
	for i := range s {
		s[i] = weather.Hour{At: midnight.Add(time.Duration(i) * time.Hour), TempC: tempC, RHPct: rhPct, WindMS: ptr(1),
			CloudPct: ptr(0)}
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
	still := Drive{AirC: 10, WindMS: 0, DewC: -99}
	got := f.Run([]Drive{still, still, still}, 20, 0, 0, 0)
	for i, v := range got.TempC {
		assert.InDelta(t, 10+10*math.Exp(-2.8*3600*float64(i)/20_000), v, 1e-9)
	}
}

// A balance at rest: sun against the air, no sky.
func TestRunComesToRest(t *testing.T) {
	f := Face{HeatJM2K: 10_000, Absorptance: 0.9}
	d := Drive{AirC: 15, LightWM2: 500, WindMS: 1, DewC: -99}
	drives := make([]Drive, 48)
	for i := range drives {
		drives[i] = d
	}
	got := f.Run(drives, 0, 0, 0, 0).TempC
	assert.InDelta(t, 15+0.9*500/5.8, got[47], 1e-6)
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
	assert.WithinRange(t, dry.To, midnight.Add(31*time.Hour), midnight.Add(36*time.Hour),
		"the sun dries it in the morning")
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

// Water dries as fast as air takes vapour. By hand, 0.5 mm on a plate held at 12 °C in
// air of 12 °C and 70 %, wind 2 m/s: h = 8.8 W/m²K, the air lacks 0.3 · 14.03 hPa = 420.9
// Pa, E = 8.8 · 0.622 · 420.9 / (1006 · 0.908 · 101325) = 24.9 mg/m²s: 5.58 h.
func TestDryingTime(t *testing.T) {
	d := Drive{AirC: 12, WindMS: 2, DewC: 6.70, VapourHPa: 0.7 * 14.03}
	drives := make([]Drive, 9)
	for i := range drives {
		drives[i] = d
	}
	held := Face{HeatJM2K: 1e9}
	got := held.Run(drives, 12, 0, 0.5, 0.5)
	require.Len(t, got.WetH, 1)
	assert.InEpsilon(t, 5.58, got.WetH[0][1], 0.01)
	// Left to itself it is cooled by its own drying, and takes longer.
	free := Face{HeatJM2K: 16_000, Emissivity: 0.9}.Run(drives, 12, 0, 0.5, 0.5)
	require.Len(t, free.WetH, 1)
	assert.Greater(t, free.WetH[0][1], 1.25*5.58)
	assert.Less(t, free.TempC[3], 11.5)
	// What sits in pores comes out ever slower: 0.5 mm on it as before, then 0.2 mm with
	// the rate falling in proportion till a twentieth is left: ln 20 times as long as 0.2
	// mm would take, 0.2/0.0896 h · 3.0 = 6.69 h.
	held.SoakMM = 0.2
	long := append(drives, drives...)
	porous := held.Run(long, 12, 0, 0.7, 0.5)
	require.Len(t, porous.WetH, 1)
	assert.InEpsilon(t, 5.58+6.69, porous.WetH[0][1], 0.01)
}

// A cored deck's light skin loses its heat to the clear night faster than a solid
// laminate of the same thickness, and dews earlier and for longer.
// By hand, in air of 20 °C and 50 % with 3 m/s of wind: es 23.33 hPa and its slope 1.4446 hPa/K, h 11.8 W/m²K,
// g 7.930e-6 kg/m²s for each hPa, radiation 5.143 W/m²K, Lv 2.4538e6 J/kg: 3600 · g · 11.667/(1 + 28.11/16.943).
func TestDryingByHand(t *testing.T) {
	assert.InDelta(t, 0.1253, DryingMMH(20, 20, 50, 3), 2e-4)
	assert.Negative(t, DryingMMH(5, 15, 90, 3), "dew")
}

func TestADriveOnTheWayToAnother(t *testing.T) {
	got := Drive{}.toward(Drive{4, 8, 12, 16, 20, 24, 28, 32}, 0.25)
	assert.Equal(t, Drive{1, 2, 3, 4, 5, 6, 7, 8}, got)
}

func TestCoredDecksDewEarlier(t *testing.T) {
	c := Outdoors(53, 0, record(60, 12, 75, func(i int, h *weather.Hour) {
		h.TempC = 12 + 5*math.Sin(float64(i-9)*math.Pi/12)
	}))
	first := func(s survey.Substrate) (time.Time, float64) {
		d := survey.Usual(area.Deck, s)
		d.ThicknessMM = 26
		course := c.Course(Of(d, area.Deck, area.Both, 0))
		for _, w := range course.Wet {
			if w.From.After(midnight.Add(36 * time.Hour)) {
				return w.From, course.TempC[52]
			}
		}
		return time.Time{}, course.TempC[52]
	}
	foam, foamC := first(survey.FoamCore)
	solid, solidC := first(survey.GRP)
	require.False(t, foam.IsZero())
	assert.True(t, solid.IsZero() || foam.Before(solid.Add(-30*time.Minute)), "foam %v, solid %v", foam, solid)
	assert.Less(t, foamC, solidC, "in the small hours")
}

// At rest a cored wall carries one flow through all of it: by hand, from 25 °C inside
// to 5 °C outside with no wind, sky or sun: 1/8 + 0.02/0.035 + 1/2.8 m²K/W, 19 W/m².
func TestACoredWallAtRest(t *testing.T) {
	f := Face{HeatJM2K: 5400, InnerJM2K: 5400, CoreWM2K: 0.035 / 0.02, InsideWM2K: 8}
	drives := make([]Drive, 200)
	for i := range drives {
		drives[i] = Drive{AirC: 5, InsideC: 25, DewC: -99}
	}
	got := f.Run(drives, 5, 25, 0, 0)
	flow := 20 / (1/8.0 + 0.02/0.035 + 1/2.8)
	assert.InDelta(t, 5+flow/2.8, got.TempC[199], 0.01)
	assert.InDelta(t, 25-flow/8, got.InnerC[199], 0.01)
}

// A wash in the evening is followed like rain, under a roof too.
func TestAWashDriesInItsOwnTime(t *testing.T) {
	wash := midnight.Add(30 * time.Hour)
	dry := func(rh float64, shelter survey.Shelter) time.Duration {
		c := Outdoors(53, 0, record(96, 12, rh, func(_ int, h *weather.Hour) { h.CloudPct = ptr(100) }))
		d := survey.Usual(area.Topsides, survey.GRP)
		d.Shelter = shelter
		f := Of(d, area.Topsides, area.Port, 0)
		f.Washed = []time.Time{wash}
		for _, w := range c.Course(f).Wet {
			if w.Wash {
				return w.To.Sub(wash)
			}
		}
		return 0
	}
	quick, slow := dry(50, survey.Open), dry(90, survey.Open)
	assert.Positive(t, quick)
	assert.Greater(t, slow, 5*quick/2)
	assert.Positive(t, dry(50, survey.Shed))
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
	other := survey.Usual(area.Topsides, survey.OtherSubstr)
	other.ThicknessMM = 10
	assert.InDelta(t, 1/(1.0/8+0.01/0.3), Of(other, area.Topsides, area.Port, 0).InsideWM2K, 1e-9)
	for _, s := range survey.Substrates {
		assert.Positive(t, Of(survey.Usual(area.Rudder, s.Key), area.Rudder, area.Both, 0).HeatJM2K, s.Key)
	}
}

// yearOfTwelve is a year with showers, and twelve faces of as many substrates.
func yearOfTwelve(edit func(h *weather.Hour)) (weather.Series, []Face) {
	year := record(8760, 12, 75, func(i int, h *weather.Hour) {
		h.TempC = 10 + 8*math.Sin(float64(i)/1400) + 4*math.Sin(float64(i)*math.Pi/12)
		h.RainMM = ptr(math.Max(0, math.Sin(float64(i)/40)-0.95) * 20)
		edit(h)
	})
	var faces []Face
	for i := range 12 {
		d := survey.Usual(area.Topsides, survey.Substrates[i].Key)
		faces = append(faces, Of(d, area.Parts[i].Part, area.Sides[i%3], float64(30*i)))
	}
	return year, faces
}

// A step a minute is what the fewer steps of a course are held against, in fast cloud and wind.
func TestStepsOfAnHourSuffice(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	cloud, wind, hour := 50.0, 3.0, 0.0
	year, faces := yearOfTwelve(func(h *weather.Hour) {
		cloud = max(0, min(100, cloud+20*r.NormFloat64()))
		wind = max(0.3, 0.7+0.8*wind+r.NormFloat64())
		h.CloudPct, h.WindMS = ptr(cloud), ptr(wind)
		h.RHPct = max(30, min(99, 75+15*math.Sin(hour*math.Pi/12+3)+5*r.NormFloat64()))
		hour++
	})
	c := Outdoors(53, 0, year)
	wetH := func(c Course) (sum float64) {
		for _, w := range c.Wet {
			sum += w.To.Sub(w.From).Hours()
		}
		return sum
	}
	for _, one := range []struct {
		steps               steps
		rmsK, worstK, wetPc float64
	}{{usual, 0.05, 1.3, 1}, {ofFutures, 0.13, 2.1, 4}} {
		for i, f := range faces {
			c.steps = steps{60, 60}
			minute := c.follow(f)
			c.steps = one.steps
			got := c.follow(f)
			squares, worst := 0.0, 0.0
			for k, v := range got.TempC {
				off := math.Abs(v - minute.TempC[k])
				squares, worst = squares+off*off, max(worst, off)
			}
			assert.LessOrEqual(t, math.Sqrt(squares/float64(len(got.TempC))), one.rmsK, "%v face %d", one.steps, i)
			assert.LessOrEqual(t, worst, one.worstK, "%v face %d", one.steps, i)
			assert.InDelta(t, wetH(minute), wetH(got), one.wetPc/100*wetH(minute)+1e-9, "%v face %d", one.steps, i)
		}
	}
}

func BenchmarkYearTwelveSurfaces(b *testing.B) {
	year, faces := yearOfTwelve(func(*weather.Hour) {})
	for b.Loop() {
		Outdoors(53, 0, year).Courses(faces)
	}
}

// The conditions of another course of the air are those that the air itself makes, whatever its record leaves out.
func TestAnotherCourseOfTheAir(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	maybe := func(most float64) *float64 {
		if r.IntN(3) == 0 {
			return nil
		}
		return ptr(most * r.Float64())
	}
	air := func() weather.Series {
		return record(48, 12, 70, func(_ int, h *weather.Hour) {
			h.TempC, h.RHPct = 5+10*r.Float64(), 50+40*r.Float64()
			h.WindMS, h.CloudPct, h.RainMM = maybe(9), maybe(100), maybe(2)
		})
	}
	first, other := air(), air()
	got, want := Outdoors(53, 0, first).With(other), Outdoors(53, 0, other)
	assert.Equal(t, want.AirC, got.AirC)
	assert.Equal(t, want.SkyC, got.SkyC)
	assert.Equal(t, want.VapourHPa, got.VapourHPa)
	assert.Equal(t, want.DewC, got.DewC)
	assert.Equal(t, want.WindMS, got.WindMS)
	assert.Equal(t, want.RainMM, got.RainMM)
	for i, h := range other {
		assert.InDelta(t, want.Global(i), got.Global(i), 1e-9)
		if h.WindMS == nil {
			assert.InDelta(t, 2, got.WindMS[i], 1e-12, "a rule of thumb")
		} else {
			assert.InDelta(t, *h.WindMS, got.WindMS[i], 1e-12)
		}
	}
}

// In steady conditions every face comes to where what warms it is what cools it, each term by its own formula: convection, the sun, the sky
// and what else it faces, the air inside through the wall or through core and inner skin, and the heat of the water that leaves it.
func TestEveryTermBalancesAtRest(t *testing.T) {
	const sigma = 5.670374419e-8
	kelvin := func(c float64) float64 { return c + 273.15 }
	fourth := func(c float64) float64 { return math.Pow(kelvin(c), 4) }
	r := rand.New(rand.NewPCG(7, 8))
	for n := range 40 {
		f := Face{HeatJM2K: 2000 + 8000*r.Float64(), Absorptance: r.Float64(), Emissivity: 0.3 + 0.7*r.Float64(),
			SkyView: r.Float64(), InsideWM2K: 8 * r.Float64()}
		if n%2 == 0 {
			f.CoreWM2K, f.InnerJM2K = 1+4*r.Float64(), 2000+3000*r.Float64()
		}
		d := Drive{AirC: 30*r.Float64() - 5, LightWM2: 800 * r.Float64(), SkyC: -20 + 20*r.Float64(), WindMS: 6 * r.Float64(),
			InsideC: 20 * r.Float64(), DewC: -99}
		water, drives := 0.0, slices.Repeat([]Drive{d}, 40)
		if n%4 < 2 { // wet: so much that it stays
			water = 1000
			d.VapourHPa = 6.1094 * math.Exp(17.625*d.AirC/(d.AirC+243.04)) * (0.3 + 0.6*r.Float64())
			ratio := math.Log(d.VapourHPa / 6.1094)
			d.DewC = 243.04 * ratio / (17.625 - ratio)
			drives = slices.Repeat([]Drive{d}, 40)
		}
		got := f.Run(drives, d.AirC, d.AirC, water, water)
		at, inner := got.TempC[39], got.InnerC[39]
		h := 2.8 + 3*d.WindMS
		sum := h*(d.AirC-at) + f.Absorptance*d.LightWM2 -
			f.Emissivity*sigma*(f.SkyView*(fourth(at)-fourth(d.SkyC))+(1-f.SkyView)*(fourth(at)-fourth(d.AirC)))
		if f.CoreWM2K > 0 {
			sum += f.CoreWM2K * (inner - at)
			assert.InDelta(t, 0, f.CoreWM2K*(at-inner)+f.InsideWM2K*(d.InsideC-inner), 1e-6, "of the inner skin")
		} else {
			sum += f.InsideWM2K * (d.InsideC - at)
		}
		if water > 0 {
			es := 6.1094 * math.Exp(17.625*at/(at+243.04))
			e := h * 0.622 * 100 * (es - d.VapourHPa) / (1006 * 0.908 * 101325)
			sum -= (2.501e6 - 2361*at) * e
			assert.InDelta(t, 3600*e, got.WaterMM[38]-got.WaterMM[39], 1e-9, "and the water that leaves in an hour")
		}
		assert.InDelta(t, 0, sum, 1e-6, "%+v under %+v", f, d)
	}
}
