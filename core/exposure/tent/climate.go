package tent

import (
	"math"
	"time"

	"allcoats/core/base/working"
	"allcoats/core/exposure/surface"
	"allcoats/core/physics/air"
	"allcoats/core/physics/weather"
)

// Rules of thumb of a tent of film.
const (
	filmSingle, filmDouble   = 6.0, 3.5   // W/m²K
	lightSingle, lightDouble = 0.65, 0.5  // share of daylight let in
	sunKept                  = 0.5        // share of the light let in that warms the air, the rest goes out again
	skinInside               = 7.5        // W/m²K from the air of the tent to a surface in it
	airHeat                  = 1.2 * 1005 // J/m³K
)

// Covered is a surface in the tent.
type Covered struct {
	Face   surface.Face
	AreaM2 float64
}

// Climate is the air in a tent over a record, and what it took to make it.
type Climate struct {
	Air weather.Series
	// Light falls on every surface in it, W/m².
	Light []float64
	// HeatKWh is the heat given, per record: since the record before.
	HeatKWh []float64
	WaterKg []float64 // from burners
	TakenL  []float64 // by the dehumidifier
}

// Cost is what a stretch of a climate used.
type Cost struct {
	ElectricKWh float64 `json:"electricKWh"`
	FuelKg      float64 `json:"fuelKg"`
	WaterKg     float64 `json:"waterKg"`
	Cents       float64 `json:"cents"`
}

// step is the longest sub-step, h.
const step = 1.0 / 12

// dryPower is what a dehumidifier draws, kWh a litre: rule of thumb.
const dryPower = 0.6

// Simulate follows the air in t over the conditions in the open, out, a record
// of which is s; covered surfaces give and take heat. Balances of heat and water
// are implicit in the air's temperature and vapour, so they cannot oscillate; the
// thermostat holds its temperature exactly while there is power. Vapour above
// what film half-way to the outside can hold runs down it.
func Simulate(t Tent, out surface.Conditions, s weather.Series, covered []Covered, loc *time.Location) Climate {
	n := len(s)
	c := Climate{Air: append(weather.Series(nil), s...), Light: make([]float64, n), HeatKWh: make([]float64, n), WaterKg: make([]float64, n), TakenL: make([]float64, n)}
	if n == 0 {
		return c
	}
	u, light := filmSingle, lightSingle
	if t.Layers == 2 {
		u, light = filmDouble, lightDouble
	}
	volume := t.VolumeM3()
	ua, vent := u*t.FilmM2(), t.AirChanges*volume*airHeat/3600
	floor := t.LengthM * t.WidthM
	_, _, waterKWh := t.perKWh()
	temps := make([]float64, len(covered))
	tC := s[0].TempC
	e := out.VapourHPa[0]
	for k := range temps {
		temps[k] = tC
	}
	for i := range s {
		// Half of the light that falls in meets an upright face, as from all sides.
		c.Light[i] = light * out.Global(i) / 2
		if i > 0 {
			gap := s[i].At.Sub(s[i-1].At).Hours()
			if gap > weather.MaxGap.Hours() {
				tC, e = s[i].TempC, out.VapourHPa[i]
				for k := range temps {
					temps[k] = tC
				}
			} else {
				parts := math.Ceil(gap/step - 1e-9)
				h := gap / parts
				for j := 1.0; j <= parts; j++ {
					f := j / parts
					mid := func(v []float64) float64 { return v[i-1] + f*(v[i]-v[i-1]) }
					outC, sun := mid(out.AirC), light*((1-f)*out.Global(i-1)+f*out.Global(i))
					// Surfaces at the end of the step, linear in the air's temperature:
					// T = p + q·Tair. Solve the air for no heat, then for what is missing.
					gives, takes := (ua+vent)*outC+sunKept*sun*floor, ua+vent
					ground := volume * airHeat / (h * 3600)
					gives += ground * tC
					takes += ground
					p, q := make([]float64, len(covered)), make([]float64, len(covered))
					for k, s := range covered {
						store := s.Face.HeatJM2K / (h * 3600)
						lit := s.Face.Absorptance * sun / 2
						den := store + skinInside + s.Face.InsideWM2K
						p[k] = (store*temps[k] + lit + s.Face.InsideWM2K*mid(out.InsideC)) / den
						q[k] = skinInside / den
						gives += s.AreaM2 * (skinInside*p[k] - sunKept*lit)
						takes += s.AreaM2 * skinInside * (1 - q[k])
					}
					next := gives / takes
					heat := 0.0
					if want := t.Thermostat.SetC; t.PowerKW() > 0 && next < want && t.Thermostat.on(hourOf(s[i-1].At.Add(time.Duration(f*gap*float64(time.Hour))), loc)) {
						heat = min(t.PowerKW()*1000, (want-next)*takes)
						next += heat / takes
					}
					for k := range temps {
						temps[k] = p[k] + q[k]*next
					}
					tC = next
					kWh := heat * h / 1000
					c.HeatKWh[i] += kWh
					water := kWh * waterKWh
					c.WaterKg[i] += water
					var taken float64
					e, taken = t.vapour(e, tC, outC, mid(out.VapourHPa), water, h)
					c.TakenL[i] += taken
				}
			}
		}
		a := &c.Air[i]
		a.TempC, a.RHPct = tC, max(1, min(100, air.HumidityAt(e, tC)))
		none := 0.0
		a.RainMM, a.WindMS = &none, &none
		a.Measured = false
	}
	return c
}

// vapour takes the vapour pressure in the tent over h hours: air changes, burner
// water, dehumidifier, and what runs down the film.
func (t Tent) vapour(e, tC, outC, outE, waterKg, h float64) (next, takenL float64) {
	// 1 hPa at tC is 0.216679/(T + 273.15) kg/m³.
	kgPerHPa := 0.216679 / (tC + 273.15) * t.VolumeM3()
	rate := t.AirChanges
	gain := waterKg / kgPerHPa / h
	if t.DryL > 0 {
		// Its litres a day, at 20 °C and 60 %, in proportion to the vapour.
		perHPa := t.DryL / 24 / (0.6 * air.SaturationPressure(20))
		next = (e + h*(rate*outE+gain)) / (1 + h*(rate+perHPa/kgPerHPa))
		takenL = perHPa * next * h
	} else {
		next = (e + h*(rate*outE+gain)) / (1 + h*rate)
	}
	return min(next, max(outE, air.SaturationPressure((tC+outC)/2))), takenL
}

// Sum adds up what [from, to] of the climate used, with its working.
func (c Climate) Sum(t Tent, from, to time.Time, w *working.Working) Cost {
	heat, taken := 0.0, 0.0
	var out Cost
	for i, a := range c.Air {
		if a.At.After(from) && !a.At.After(to) {
			heat += c.HeatKWh[i]
			out.WaterKg += c.WaterKg[i]
			taken += c.TakenL[i]
		}
	}
	electric, fuel, _ := t.perKWh()
	w.Step("Heat given", "what holds the thermostat's temperature, at most the heaters' power", heat, "kWh", "heat balance of the tent")
	out.ElectricKWh = heat * electric
	if taken > 0 {
		w.Step("Water taken by the dehumidifier", "its litres a day in proportion to the vapour", taken, "L", "rule of thumb")
		out.ElectricKWh += taken * dryPower
	}
	out.FuelKg = heat * fuel
	if fuel > 0 {
		w.Step("Fuel", "heat · 3.6 MJ/kWh / heating value", out.FuelKg, "kg", "46.4 MJ/kg propane, 43 MJ/kg paraffin")
	}
	if out.WaterKg > 0 {
		w.Step("Water from burning", "1.63 kg a kg of propane, 1.25 kg a kg of paraffin", out.WaterKg, "kg", "stoichiometry")
	}
	out.Cents = out.ElectricKWh*t.Prices.KWhCents + out.FuelKg*t.Prices.FuelKgCents
	w.Step("Energy", "kWh · price + kg · price", out.Cents/100, "", "your prices, in your currency")
	return out
}
