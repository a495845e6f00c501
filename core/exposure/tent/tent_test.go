package tent

import (
	"math"
	"testing"
	"time"

	"allcoats/core/base/working"
	"allcoats/core/exposure/surface"
	"allcoats/core/physics/air"
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
	return surface.Outdoors(89, 0, s), s
}

func box(h ...Heater) Tent {
	return Tent{LengthM: 8, WidthM: 4, HeightM: 3, Layers: 1, AirChanges: 1, Heaters: h, Thermostat: Thermostat{SetC: 40}}
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
	want := air.VapourPressure(5, 80) + lift
	film := air.SaturationPressure((got.Air[40].TempC + 5) / 2)
	assert.InEpsilon(t, math.Min(want, film), air.VapourPressure(got.Air[40].TempC, got.Air[40].RHPct), 0.02)
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
		s = append(s, weather.Hour{At: midnight.Add(time.Duration(i) * time.Hour), TempC: 8, RHPct: 70, CloudPct: &none})
	}
	got := Simulate(box(), surface.Outdoors(53, 0, s), s, nil, time.UTC)
	assert.Greater(t, got.Air[36].TempC, 14.0)
	assert.Less(t, got.Air[36].TempC, 30.0)
	assert.InDelta(t, 8, got.Air[28].TempC, 0.5)
	assert.Positive(t, got.Light[36])
}

func TestValidateAndCautions(t *testing.T) {
	usual := Usual(9.8, 3.2)
	require.NoError(t, usual.Validate())
	assert.False(t, usual.Unvented())
	assert.Len(t, usual.Cautions(), 3)
	bad := Tent{LengthM: 0, WidthM: 3, HeightM: 2, Layers: 3, AirChanges: 1, Heaters: []Heater{{"stove", 2}}, Thermostat: Thermostat{SetC: 90}}
	err := bad.Validate()
	for _, path := range []string{"lengthM", "layers", "heaters[0].kind", "thermostat.setC"} {
		assert.ErrorContains(t, err, path)
	}
	gas := box(Heater{Gas, 4})
	assert.Contains(t, gas.Cautions()[2], "carbon monoxide")
	night := Thermostat{10, 20, 6}
	assert.True(t, night.on(23) && night.on(5) && !night.on(12))
}
