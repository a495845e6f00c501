package tent

import (
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"allcoats/core/base/working"
	"allcoats/core/exposure/surface"
	"allcoats/core/physics/psychrometrics"
	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var midnight = time.Date(2026, 4, 1, 0, 0, 0, 0, time.UTC)

// dark is steady overcast air at the pole in winter, without sun.
func dark(hours int, tempC, rh float64) (surface.Conditions, weather.Series) {
	winter := time.Date(2026, 12, 21, 0, 0, 0, 0, time.UTC)
	var s weather.Series
	for i := range hours {
		s = append(s, weather.Hour{At: winter.Add(time.Duration(i) * time.Hour), TempC: tempC, RHPct: rh})
	}
	c := surface.Outdoors(89, 0, s)
	c.SkyC = c.AirC // a sky as warm as the air
	return c, s
}

func box(h ...Heater) Tent {
	return Tent{LengthM: 8, WidthM: 4, HeightM: 3, Layers: 1, AirChanges: 1, Heaters: h,
		Thermostat: Thermostat{SetC: 40}}
}

// At rest the heat goes through the film and with the air: Q = (UA + nVρc)ΔT.
func TestSteadyHeatAgainstHand(t *testing.T) {
	c, s := dark(48, 5, 80)
	tent := box(Heater{Electric, 3})
	got := Simulate(tent, c, s, nil, time.UTC)
	film := 8*4 + 2*3*(8+4.0)
	loss := 6*film + 1*96*1206/3600.0
	assert.InDelta(t, 5+3000/loss, got.Air[47].TempC, 0.01)
	assert.InDelta(t, 3, got.HeatKWh[47], 1e-9)
	tent.Layers = 2
	double := Simulate(tent, c, s, nil, time.UTC)
	assert.InDelta(t, 5+3000/(3.5*film+96*1206/3600.0), double.Air[47].TempC, 0.01)
	assert.InDelta(t, 5, Simulate(box(), c, s, nil, time.UTC).Air[47].TempC, 1e-6, "without heat it is as outside")
}

func TestThermostatHoldsItsTemperature(t *testing.T) {
	c, s := dark(48, 5, 80)
	tent := box(Heater{Electric, 9})
	tent.Thermostat = Thermostat{12, 8, 20}
	got := Simulate(tent, c, s, nil, time.UTC)
	assert.InDelta(t, 12, got.Air[24+14].TempC, 1e-6)
	assert.InDelta(t, 5, got.Air[24+7].TempC, 0.1)
	loss := 6*104 + 96*1206/3600.0
	assert.InDelta(t, 7*loss/1000, got.HeatKWh[24+14], 1e-6)
	w := working.New()
	sum := got.Sum(tent, s[0].At, s[47].At, &w)
	assert.Greater(t, sum.ElectricKWh, 2*12*7*loss/1000*0.98)
	assert.Zero(t, sum.FuelKg)
}

// In the sun open ends hold the tent at the temperature above which they are opened, while thirty
// more air changes are enough for it; at the most they take 30·V·ρc/3600 of what the tent is warmer.
func TestOpenEndsInTheSun(t *testing.T) {
	clear := 0.0
	noon := func(airC, openC float64) weather.Hour {
		var s weather.Series
		for i := range 40 {
			at := time.Date(2026, 6, 20, i, 0, 0, 0, time.UTC)
			s = append(s, weather.Hour{At: at, TempC: airC, RHPct: 50, CloudPct: &clear})
		}
		tent := box()
		tent.OpenC = openC
		return Simulate(tent, surface.Outdoors(51, 0, s), s, nil, time.UTC).Air[36]
	}
	shut := noon(16, 0)
	require.Greater(t, shut.TempC, 28.0)
	assert.InDelta(t, 25, noon(16, 25).TempC, 1e-9)

	const ua, flow = 6 * 104.0, 96 * 1206 / 3600.0
	gives := (ua + flow) * noon(24, 0).TempC // at noon the balance is nearly at rest
	assert.InDelta(t, (gives+30*flow*24)/(ua+31*flow), noon(24, 25).TempC, 0.1)
	assert.Greater(t, noon(24, 25).TempC, 25.0)
	assert.Equal(t, noon(26, 0).TempC, noon(26, 25).TempC, "warmer air outside is kept out")
}

// Without air changes worth naming, what a gas burner gives stays: 1.63 kg of
// water a kilogram, 46.4 MJ/kg.
func TestBurnerWater(t *testing.T) {
	c, s := dark(48, 5, 80)
	tent := box(Heater{Gas, 2})
	got := Simulate(tent, c, s, nil, time.UTC)
	w := working.New()
	sum := got.Sum(tent, s[0].At, s[47].At, &w)
	assert.InDelta(t, 47*2*3.6/46.4, sum.FuelKg, 1e-6)
	assert.InDelta(t, sum.FuelKg*1.63, sum.WaterKg, 1e-6)
	electric := Simulate(box(Heater{Electric, 2}), c, s, nil, time.UTC)
	assert.InDelta(t, electric.Air[40].TempC, got.Air[40].TempC, 1e-9)
	assert.Greater(t, got.Air[40].DewPointC(), electric.Air[40].DewPointC()+3, "it raises the dew point")
	// At rest the vapour that comes goes with the air: nV(ρ − ρo) = water an hour.
	kg := 0.216679 / (got.Air[40].TempC + 273.15) * 96
	lift := 2 * 3.6 / 46.4 * 1.63 / kg
	out, full := psychrometrics.VapourPressure(5, 80),
		psychrometrics.SaturationPressure((7.5*got.Air[40].TempC+17*5)/24.5) // 17 W/m²K outside the film, 7.5 inside
	film := 0.0024 * 3600 * 104 / 96 // changes an hour that reach it
	require.Greater(t, out+lift, full, "so much that some runs down the film")
	assert.InEpsilon(t, (out+lift+film*full)/(1+film), psychrometrics.VapourPressure(got.Air[40].TempC,
		got.Air[40].RHPct), 0.01)
}

func TestDehumidifierDries(t *testing.T) {
	c, s := dark(48, 10, 95)
	tent := box(Heater{Electric, 2})
	wet := Simulate(tent, c, s, nil, time.UTC)
	tent.DryL = 10
	tent.AirChanges = 0.3
	got := Simulate(tent, c, s, nil, time.UTC)
	assert.Less(t, got.Air[40].DewPointC(), wet.Air[40].DewPointC()-1)
	w := working.New()
	assert.Greater(t, got.Sum(tent, s[0].At, s[47].At, &w).ElectricKWh, 2*47.0)
}

// A cold steel hull holds the tent back at first and is as warm as it in the end.
func TestSurfacesTakeHeat(t *testing.T) {
	c, s := dark(72, 5, 80)
	steel := Covered{surface.Face{HeatJM2K: 7850 * 460 * 0.01}, 60}
	tent := box(Heater{Electric, 3})
	bare, with := Simulate(tent, c, s, nil, time.UTC), Simulate(tent, c, s, []Covered{steel}, time.UTC)
	assert.Less(t, with.Air[1].TempC, bare.Air[1].TempC-0.5)
	assert.InDelta(t, bare.Air[71].TempC, with.Air[71].TempC, 0.05)
}

func TestSunWarmsATent(t *testing.T) {
	var s weather.Series
	for i := range 48 {
		none := 0.0
		s = append(s, weather.Hour{At: midnight.Add(time.Duration(i) * time.Hour), TempC: 8, RHPct: 70,
			CloudPct: &none})
	}
	got := Simulate(box(), surface.Outdoors(53, 0, s), s, nil, time.UTC)
	assert.Greater(t, got.Air[36].TempC, 14.0)
	assert.Less(t, got.Air[36].TempC, 30.0)
	assert.Less(t, got.Air[28].TempC, 8.0, "the clear sky cools it at night")
	assert.Greater(t, got.Air[28].TempC, 5.0)
	assert.Positive(t, got.Light[36])
}

func TestValidateAndCautions(t *testing.T) {
	usual := Usual(9.8, 3.2)
	require.NoError(t, usual.Validate())
	assert.False(t, usual.Unvented())
	assert.Len(t, usual.Cautions(), 3)
	bad := Tent{LengthM: 0, WidthM: 3, HeightM: 2, Layers: 3, AirChanges: 1, Heaters: []Heater{{"stove", 2}},
		Thermostat: Thermostat{SetC: 90}}
	err := bad.Validate()
	for _, path := range []string{"lengthM", "layers", "heaters[0].kind", "thermostat.setC"} {
		assert.ErrorContains(t, err, path)
	}
	gas := box(Heater{Gas, 4})
	assert.Contains(t, gas.Cautions()[2], "carbon monoxide")
	night := Thermostat{10, 20, 6}
	assert.True(t, night.on(23) && night.on(5) && !night.on(12))
}

// Under a clear sky 20 K colder the roof, 32 of 104 m² of film, loses 5 of 17 W/m²K to it: the tent is
// colder than the air, and water runs down the roof.
func TestClearNightsCoolTheFilm(t *testing.T) {
	c, s := dark(48, 5, 98)
	c.SkyC = append([]float64(nil), c.AirC...)
	for i := range c.SkyC {
		c.SkyC[i] -= 20
	}
	got := Simulate(box(), c, s, nil, time.UTC)
	ua, vent := 6*104.0, 96*1206/3600.0
	assert.InDelta(t, 5-ua/(ua+vent)*32/104.0*5/17*20, got.Air[47].TempC, 0.01)
	tC := got.Air[47].TempC
	roof := (7.5*tC + 12*5 + 5*-15) / 24.5
	out, film := psychrometrics.VapourPressure(5, 98), 0.0024*3600*104/96
	assert.InDelta(t, (out+film*psychrometrics.SaturationPressure(roof))/(1+film),
		psychrometrics.VapourPressure(tC, got.Air[47].RHPct), 0.02)
}

// What a dehumidifier takes falls with the temperature, and warms the tent: 0.6 kWh drawn and 0.68 of
// latent heat a litre.
func TestDehumidifierInTheCold(t *testing.T) {
	taken := func(tempC float64) (litres, warmerK float64) {
		c, s := dark(96, tempC, 60)
		tent := box()
		tent.DryL, tent.AirChanges = 10, 20
		got := Simulate(tent, c, s, nil, time.UTC)
		return got.TakenL[95], got.Air[95].TempC - tempC
	}
	warm, k := taken(20)
	assert.InDelta(t, 10/24.0, warm, 0.03, "its litres a day, at 20 °C and 60 %")
	assert.InDelta(t, warm*1.28*1000/(6*104+20*96*1206/3600.0), k, 0.01)
	cold, _ := taken(8)
	share := psychrometrics.SaturationPressure(8) / psychrometrics.SaturationPressure(20)
	assert.InDelta(t, warm*share*6/18, cold, 0.1*cold, "a third of what the vapour would give")
	none, _ := taken(1)
	assert.Zero(t, none)
}

// Bare ground at 10 °C gives as much as 0.5 · 0.0024 m/s · 3600 · 32 m² / 96 m³ = 1.44 changes an hour of
// air that is saturated at it.
func TestBareGroundIsDamp(t *testing.T) {
	c, s := dark(96, 10, 40)
	tent := box()
	tent.BareGround = true
	got := Simulate(tent, c, s, nil, time.UTC)
	full := psychrometrics.SaturationPressure(10)
	assert.InDelta(t, (0.4*full+1.44*full)/2.44, psychrometrics.VapourPressure(got.Air[95].TempC, got.Air[95].RHPct),
		0.02)
}

// A box of 10 by 4 by 3 m has 124 m² of film; hoops at 0, 1.5 … 10.5 m are eight of 10 m, with three
// rails of 10 m: 110 m.
func TestWhatATentCostsToBuild(t *testing.T) {
	box := Tent{LengthM: 10, WidthM: 4, HeightM: 3, Layers: 1, AirChanges: 1}
	assert.InDelta(t, 120*124+100*110, box.BuildCents(), 1e-9)
	box.Layers = 2
	assert.InDelta(t, 2*120*124+100*110, box.BuildCents(), 1e-9)
}

// Wind of 4 m/s on a door of 3 m² drives 0.025 · 3 · 4 = 0.3 m³ a second through it: nine of the 120 m³ an hour.
func TestADoorChangesTheAir(t *testing.T) {
	box := Tent{LengthM: 10, WidthM: 4, HeightM: 3, Layers: 1, AirChanges: 1, DoorM2: 3}
	assert.InDelta(t, 10, box.changes(4), 1e-9)
	assert.InDelta(t, 1, box.changes(0), 1e-9)
	assert.InDelta(t, 100, box.changes(400), 1e-9, "at the most")
}

// Sixty changes of 120 m³ are 7,200 m³ an hour, 2 m³ a second: 4 m² at half a metre a second.
func TestABoothHasItsFilter(t *testing.T) {
	box := Tent{LengthM: 10, WidthM: 4, HeightM: 3, Layers: 1, AirChanges: 60}
	assert.Contains(t, box.Booth(40).String(), "7200 m³ an hour, through a filter of 4.0 m² at least")
	assert.Contains(t, box.Booth(40).String(), "40 %")
	box.AirChanges = 3
	assert.Nil(t, box.Booth(40))
}

// In steady air under steady light, as at the pole in summer, every tent comes to rest where its heat and its vapour balance, each by formulas
// of their own: film that faces the air and, with its roof, the sky; the light that falls in; air changes, a door in the wind; a heater; surfaces
// with the air behind them; what a dehumidifier draws and takes; water from burning, from bare ground, and down a roof that is under the dew point.
func TestEveryTentComesToRest(t *testing.T) {
	r := rand.New(rand.NewPCG(9, 10))
	wet := 0
	for n := range 60 {
		airC := -2 + 14*r.Float64()
		rh, light := 40+55*r.Float64(), 400*r.Float64()
		var s weather.Series
		for i := range 240 {
			at := time.Date(2026, 6, 15, i, 0, 0, 0, time.UTC)
			s = append(s, weather.Hour{At: at, TempC: airC, RHPct: rh, ShortwaveWM2: &light})
		}
		c := surface.Outdoors(90, 0, s)
		skyC, wind, inC := airC-15*r.Float64(), 8*r.Float64(), airC+6*r.Float64()
		all := func(v float64) []float64 { return slices.Repeat([]float64{v}, len(s)) }
		c.SkyC, c.WindMS, c.InsideC = all(skyC), all(wind), all(inC)
		heater := HeatKinds[n%len(HeatKinds)]
		tent := Tent{LengthM: 6 + 6*r.Float64(), WidthM: 3 + 3*r.Float64(), HeightM: 2.5 + r.Float64(),
			Layers: 1 + n%2, AirChanges: 3 * r.Float64(),
			DoorM2: 2 * r.Float64(), BareGround: n%3 == 0, DryL: float64(n%2) * 20 * r.Float64(),
			Heaters: []Heater{{heater.Kind, 1 + 3*r.Float64()}}, Thermostat: Thermostat{90, 0, 24}}
		steel := Covered{surface.Face{HeatJM2K: 20000, InsideWM2K: 8 * r.Float64(), Absorptance: r.Float64()},
			30 * r.Float64()}
		got := Simulate(tent, c, s, []Covered{steel}, time.UTC)
		at := got.Air[239]
		T, e := at.TempC, psychrometrics.VapourPressure(at.TempC, at.RHPct)

		volume, floor := tent.LengthM*tent.WidthM*tent.HeightM, tent.LengthM*tent.WidthM
		film := floor + 2*tent.HeightM*(tent.LengthM+tent.WidthM)
		u := map[int]float64{1: 6, 2: 3.5}[tent.Layers]
		changes := tent.AirChanges + 0.025*tent.DoorM2*wind*3600/volume
		faces := airC + floor/film*5/17*(skyC-airC)
		sun := light * map[int]float64{1: 0.65, 2: 0.5}[tent.Layers]
		lit := steel.Face.Absorptance * sun / 2
		behind := (7.5*T + steel.Face.InsideWM2K*inC + lit) / (7.5 + steel.Face.InsideWM2K)
		assert.InDelta(t, sun/2, got.Light[239], 1e-6)
		taken := got.TakenL[239]
		sum := u*film*(faces-T) + changes*volume*1206/3600*(airC-T) + 1000*tent.Heaters[0].PowerKW + taken*(0.6+0.68)*1000 +
			steel.AreaM2*7.5*(behind-T) + 0.5*(sun*floor-steel.AreaM2*lit)
		assert.InDelta(t, 0, sum, 0.01, "heat, W: %+v", tent)

		hPa := 0.216679 / (T + 273.15) * volume // kg of vapour in the tent for each hPa
		burnt := 0.0
		if heater.MJKg > 0 {
			burnt = tent.Heaters[0].PowerKW * 3.6 / heater.MJKg * heater.WaterKg
		}
		gain := changes*hPa*(psychrometrics.VapourPressure(airC, s[0].RHPct)-e) + burnt - taken
		if tent.BareGround {
			gain += 0.5 * 0.0024 * 3600 * floor * hPa / volume * (psychrometrics.SaturationPressure(inC) - e)
		}
		if tent.DryL > 0 {
			assert.InDelta(t, tent.DryL/24*e/(0.6*psychrometrics.SaturationPressure(20))*min(1, max(0, (T-2)/18)), taken, 1e-6)
		}
		roof := psychrometrics.SaturationPressure((7.5*T + 12*airC + 5*skyC) / 24.5)
		if e > roof+1e-6 {
			wet++
			gain += 0.0024 * 3600 * film * hPa / volume * (roof - e)
		}
		if e < roof-1e-6 || e > roof+1e-6 {
			assert.InDelta(t, 0, gain, 1e-3, "vapour, kg an hour: %+v", tent)
		} else {
			assert.GreaterOrEqual(t, gain, -1e-3, "what comes beyond runs down the roof")
		}
	}
	assert.Greater(t, wet, 5)
}
