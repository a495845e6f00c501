package tent

import (
	"math"
	"time"

	"allcoats/core/base/working"
	"allcoats/core/exposure/surface"
	"allcoats/core/physics/psychrometrics"
	"allcoats/core/physics/weather"
)

// Rules of thumb of a tent of film.
const (
	filmSingle, filmDouble   = 6.0, 3.5   // W/m²K
	lightSingle, lightDouble = 0.65, 0.5  // share of daylight let in
	sunKept                  = 0.5        // share of the light let in that warms the air, the rest goes out again
	skinInside               = 7.5        // W/m²K from the air of the tent to a surface in it
	airHeat                  = 1.2 * 1005 // J/m³K
	// What the outside of film gives to the air and to the sky, W/m²K.
	filmToAir, filmToSky = 12.0, 5.0
	// Still air brings water to cold film and from damp ground at this speed, m/s; bare ground is as
	// damp as this share.
	stillSpeed, groundDamp = 0.0024, 0.5
)

// Latent heat of water, kWh a litre.
const latentKWh = 0.68

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
// thermostat holds its temperature exactly while there is power, and so do open ends in the heat. The roof gives
// heat to the sky, on clear nights below the air outside; vapour runs down
// film that is under its dew point. What a dehumidifier draws, and the heat of
// the water that it takes, warm the tent.
func Simulate(t Tent, out surface.Conditions, s weather.Series, covered []Covered, loc *time.Location) Climate {
	n := len(s)
	c := Climate{Air: append(weather.Series(nil), s...), Light: make([]float64, n), HeatKWh: make([]float64, n),
		WaterKg: make([]float64, n), TakenL: make([]float64, n)}
	if n == 0 {
		return c
	}
	in := inside{t: t, out: out, covered: covered, u: filmSingle, light: lightSingle,
		temps: make([]float64, len(covered))}
	if t.Layers == 2 {
		in.u, in.light = filmDouble, lightDouble
	}
	in.begin(s[0].TempC, out.VapourHPa[0])
	for i := range s {
		// Half of the light that falls in meets an upright face, as from all sides.
		c.Light[i] = in.light * out.Global(i) / 2
		if i > 0 {
			gap := s[i].At.Sub(s[i-1].At).Hours()
			if gap > weather.MaxGap.Hours() {
				in.begin(s[i].TempC, out.VapourHPa[i])
			} else {
				parts := math.Ceil(gap/step - 1e-9)
				for j := 1.0; j <= parts; j++ {
					at := s[i-1].At.Add(time.Duration(j / parts * gap * float64(time.Hour)))
					in.step(&c, i, j/parts, gap/parts, t.Thermostat.on(hourOf(at, loc)))
				}
			}
		}
		a := &c.Air[i]
		a.TempC, a.RHPct = in.tC, max(1, min(100, psychrometrics.HumidityAt(in.e, in.tC)))
		none := 0.0
		a.RainMM, a.WindMS = &none, &none
		a.Measured = false
	}
	return c
}

// inside is a tent while it is followed: its air, °C and hPa, and what it covers, °C.
type inside struct {
	t        Tent
	out      surface.Conditions
	covered  []Covered
	u, light float64 // of its film, W/m²K and the share that it lets through
	tC, e    float64
	temps    []float64
	dryW     float64 // heat of the dehumidifier in the step before, W
}

// begin sets all to one temperature.
func (in *inside) begin(tC, e float64) {
	in.tC, in.e = tC, e
	for k := range in.temps {
		in.temps[k] = tC
	}
}

// step follows the tent for h hours that end at a share f of the way to record i, with its heaters on
// if they may be.
func (in *inside) step(c *Climate, i int, f, h float64, on bool) {
	t, out := in.t, in.out
	mid := func(v []float64) float64 { return v[i-1] + f*(v[i]-v[i-1]) }
	volume, floor := t.VolumeM3(), t.LengthM*t.WidthM
	ua, roof := in.u*t.FilmM2(), floor/t.FilmM2() // the roof's share of the film
	skyC, changes := mid(out.SkyC), t.changes(mid(out.WindMS))
	vent := changes * volume * airHeat / 3600
	outC, sun := mid(out.AirC), in.light*((1-f)*out.Global(i-1)+f*out.Global(i))
	// Surfaces at the end of the step, linear in the air's temperature:
	// T = p + q·Tair. Solve the air for no heat, then for what is missing.
	outerC := outC + roof*filmToSky/(filmToAir+filmToSky)*(skyC-outC) // what the film faces
	gives, takes := ua*outerC+vent*outC+sunKept*sun*floor+in.dryW, ua+vent
	ground := volume * airHeat / (h * 3600)
	gives += ground * in.tC
	takes += ground
	p, q := make([]float64, len(in.covered)), make([]float64, len(in.covered))
	for k, s := range in.covered {
		store := s.Face.HeatJM2K / (h * 3600)
		lit := s.Face.Absorptance * sun / 2
		den := store + skinInside + s.Face.InsideWM2K
		p[k] = (store*in.temps[k] + lit + s.Face.InsideWM2K*mid(out.InsideC)) / den
		q[k] = skinInside / den
		gives += s.AreaM2 * (skinInside*p[k] - sunKept*lit)
		takes += s.AreaM2 * skinInside * (1 - q[k])
	}
	next := gives / takes
	if t.OpenC > 0 && next > t.OpenC && outC < t.OpenC { // as far as it takes, or as it goes
		more := min(openChanges, (next-t.OpenC)*takes/(t.OpenC-outC)*3600/(volume*airHeat))
		changes += more
		gives, takes = gives+more*volume*airHeat/3600*outC, takes+more*volume*airHeat/3600
		next = gives / takes
	}
	heat := 0.0
	if want := t.Thermostat.SetC; on && t.PowerKW() > 0 && next < want {
		heat = min(t.PowerKW()*1000, (want-next)*takes)
		next += heat / takes
	}
	for k := range in.temps {
		in.temps[k] = p[k] + q[k]*next
	}
	in.tC = next
	kWh := heat * h / 1000
	c.HeatKWh[i] += kWh
	_, _, waterKWh := t.perKWh()
	water := kWh * waterKWh
	c.WaterKg[i] += water
	var taken float64
	roofC := (skinInside*next + filmToAir*outC + filmToSky*skyC) / (skinInside + filmToAir + filmToSky)
	in.e, taken = t.vapour(in.e, wetting{next, roofC, mid(out.InsideC), mid(out.VapourHPa), water, changes}, h)
	c.TakenL[i] += taken
	in.dryW = taken / h * (dryPower + latentKWh) * 1000
}

// wetting is what bears on the vapour in a tent: temperatures of its air, roof and ground, °C, the
// vapour outside, hPa, the water from burners, kg, and the air changes an hour.
type wetting struct{ airC, roofC, groundC, outE, waterKg, changes float64 }

// vapour takes the vapour pressure in the tent over h hours: air changes, burner
// water, bare ground, dehumidifier, and what runs down the roof.
func (t Tent) vapour(e float64, w wetting, h float64) (next, takenL float64) {
	// 1 hPa at tC is 0.216679/(T + 273.15) kg/m³.
	perM3 := 0.216679 / (w.airC + 273.15)
	kgPerHPa := perM3 * t.VolumeM3()
	rate, gain := w.changes, w.changes*w.outE+w.waterKg/kgPerHPa/h
	if t.BareGround { // changes of the volume an hour, in effect, with air that is saturated at the ground
		ground := groundDamp * stillSpeed * 3600 * t.LengthM * t.WidthM / t.VolumeM3()
		rate, gain = rate+ground, gain+ground*psychrometrics.SaturationPressure(w.groundC)
	}
	perHPa := t.DryL * yield(w.airC) / 24 / (0.6 * psychrometrics.SaturationPressure(20))
	rate += perHPa / kgPerHPa
	next = (e + h*gain) / (1 + h*rate)
	if full := psychrometrics.SaturationPressure(w.roofC); next > full { // water runs down the film
		film := stillSpeed * 3600 * t.FilmM2() / t.VolumeM3()
		next = max(full, (e+h*(gain+film*full))/(1+h*(rate+film)))
	}
	next = min(next, psychrometrics.SaturationPressure(w.airC))
	return next, perHPa * next * h
}

// yield is what a dehumidifier with a cold coil takes at a temperature, of what it takes from the
// same vapour at 20 °C: in the cold it ices up, below 2 °C it takes nothing. A rule of thumb.
func yield(airC float64) float64 { return min(1, max(0, (airC-2)/18)) }

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
	w.Step("Heat given", "what holds the thermostat's temperature, at most the heaters' power", heat, "kWh",
		"heat balance of the tent")
	out.ElectricKWh = heat * electric
	if taken > 0 {
		w.Step("Water taken by the dehumidifier", "its litres a day in proportion to the vapour", taken, "L",
			"rule of thumb")
		out.ElectricKWh += taken * dryPower
	}
	out.FuelKg = heat * fuel
	if fuel > 0 {
		w.Step("Fuel", "heat · 3.6 MJ/kWh / heating value", out.FuelKg, "kg", "46.4 MJ/kg propane, 43 MJ/kg paraffin")
	}
	if out.WaterKg > 0 {
		w.Step("Water from burning", "1.63 kg a kg of propane, 1.25 kg a kg of paraffin", out.WaterKg, "kg",
			"stoichiometry")
	}
	out.Cents = out.ElectricKWh*t.Prices.KWhCents + out.FuelKg*t.Prices.FuelKgCents
	w.Step("Energy", "kWh · price + kg · price", out.Cents/100, "", "your prices, in your currency")
	return out
}
