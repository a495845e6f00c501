package surface

import (
	"fmt"
	"slices"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
	"allcoats/core/physics/psychrometrics"
)

// Request is the input of the surface-temperature calculator: a face, and what
// drives it at whole hours, linear between them. Water on it is followed if HoldsMM is
// given, the most that stays on it, and then DewPointsC is needed; RainMMH is what
// falls on it. A wall with a core has CoreWM2K and InnerJM2K; HeatJM2K is its outer
// skin's then. SoakMM is what an open, porous film takes up beside.
type Request struct {
	HeatJM2K    float64   `json:"heatJM2K"`
	Absorptance float64   `json:"absorptance"`
	Emissivity  float64   `json:"emissivity"`
	SkyView     float64   `json:"skyView"`
	InsideWM2K  float64   `json:"insideWM2K"`
	InsideTempC float64   `json:"insideTempC"`
	StartC      float64   `json:"startC"`
	AirTempsC   []float64 `json:"airTempsC"`
	LightWM2    []float64 `json:"lightWM2"`
	SkyTempsC   []float64 `json:"skyTempsC"`
	WindMS      []float64 `json:"windMS"`
	DewPointsC  []float64 `json:"dewPointsC,omitempty"`
	HoldsMM     float64   `json:"holdsMM,omitempty"`
	SoakMM      float64   `json:"soakMM,omitempty"`
	StartMM     float64   `json:"startMM,omitempty"`
	RainMMH     []float64 `json:"rainMMH,omitempty"`
	CoreWM2K    float64   `json:"coreWM2K,omitempty"`
	InnerJM2K   float64   `json:"innerJM2K,omitempty"`
	// InnerStartC is the inner skin's temperature at hour 0, StartC if left out.
	InnerStartC *float64 `json:"innerStartC,omitempty"`
}

// Result is the temperature of the surface at every hour, and the hours at
// which it is at or below the dew point; with water followed, how much there is at
// every hour, for how long it is wet, when it first dries, and from when it stays dry:
// 0 if it was never wet, null if it is wet at the end.
type Result struct {
	SurfaceTempsC   []float64       `json:"surfaceTempsC"`
	InnerTempsC     []float64       `json:"innerTempsC,omitempty"`
	DewHours        []int           `json:"dewHours"`
	WaterMM         []float64       `json:"waterMM,omitempty"`
	HoursWet        *float64        `json:"hoursWet,omitempty"`
	FirstDriesAtH   *float64        `json:"firstDriesAtH,omitempty"`
	DryForGoodFromH *float64        `json:"dryForGoodFromH,omitempty"`
	Working         working.Working `json:"working"`
}

// never is a dew point that nothing reaches, °C: a plate without water.
const never = -200

// check names the impossible fields.
func (r Request) check() error {
	var bad fielderr.Errors
	bad.Range("heatJM2K", r.HeatJM2K, 500, 1e6, "J/m²K")
	bad.Range("absorptance", r.Absorptance, 0, 1, "")
	bad.Range("emissivity", r.Emissivity, 0, 1, "")
	bad.Range("skyView", r.SkyView, 0, 1, "")
	bad.Range("insideWM2K", r.InsideWM2K, 0, 50, "W/m²K")
	bad.Range("insideTempC", r.InsideTempC, -40, 60, "°C")
	bad.Range("startC", r.StartC, -40, 100, "°C")
	bad.Range("holdsMM", r.HoldsMM, 0, 5, "mm")
	bad.Range("soakMM", r.SoakMM, 0, 20, "mm")
	bad.Range("startMM", r.StartMM, 0, 50, "mm")
	bad.Range("coreWM2K", r.CoreWM2K, 0, 1000, "W/m²K")
	if r.CoreWM2K > 0 {
		bad.Range("innerJM2K", r.InnerJM2K, 500, 1e6, "J/m²K")
	}
	if r.InnerStartC != nil {
		bad.Range("innerStartC", *r.InnerStartC, -40, 100, "°C")
	}
	if water := r.HoldsMM > 0; water && len(r.DewPointsC) == 0 {
		bad.Add("dewPointsC", "is needed to follow the water")
	} else if !water && (len(r.RainMMH) > 0 || r.StartMM > 0 || r.SoakMM > 0) {
		bad.Add("holdsMM", "say how much water stays on it")
	}
	n := len(r.AirTempsC)
	if n < 2 || n > 100_000 {
		bad.Add("airTempsC", "give the temperature at 2 to 100000 hours, not %d", n)
	}
	lists := []struct {
		path   string
		v      []float64
		lo, hi float64
		unit   string
	}{
		{"airTempsC", r.AirTempsC, -60, 60, "°C"}, {"lightWM2", r.LightWM2, 0, 1500, "W/m²"},
		{"skyTempsC", r.SkyTempsC, -90, 60, "°C"},
		{"windMS", r.WindMS, 0, 60, "m/s"}, {"dewPointsC", r.DewPointsC, -80, 60, "°C"},
		{"rainMMH", r.RainMMH, 0, 300, "mm/h"},
	}
	for _, l := range lists {
		if len(l.v) != n && (l.path != "dewPointsC" && l.path != "rainMMH" || len(l.v) > 0) {
			bad.Add(l.path, "has %d values for %d of airTempsC", len(l.v), n)
		}
		for i, v := range l.v {
			bad.Range(fmt.Sprintf("%s[%d]", l.path, i), v, l.lo, l.hi, l.unit)
		}
	}
	return bad.Err()
}

// drives are what drives the face hour by hour.
func (r Request) drives() []Drive {
	out := make([]Drive, len(r.AirTempsC))
	for i := range out {
		out[i] = Drive{AirC: r.AirTempsC[i], LightWM2: r.LightWM2[i], SkyC: r.SkyTempsC[i], WindMS: r.WindMS[i],
			InsideC: r.InsideTempC, DewC: never}
		if r.HoldsMM > 0 {
			out[i].DewC, out[i].VapourHPa = r.DewPointsC[i], psychrometrics.SaturationPressure(r.DewPointsC[i])
		}
		if len(r.RainMMH) > 0 {
			out[i].RainMMH = r.RainMMH[i]
		}
	}
	return out
}

// Compute answers r, or names the impossible fields.
func Compute(r Request) (Result, error) {
	if err := r.check(); err != nil {
		return Result{}, err
	}
	f := Face{HeatJM2K: r.HeatJM2K, Absorptance: r.Absorptance, Emissivity: r.Emissivity, SkyView: r.SkyView,
		InsideWM2K: r.InsideWM2K,
		CoreWM2K:   r.CoreWM2K, InnerJM2K: r.InnerJM2K, SoakMM: r.SoakMM}
	inner := r.StartC
	if r.InnerStartC != nil {
		inner = *r.InnerStartC
	}
	got := f.Run(r.drives(), r.StartC, inner, r.StartMM, r.HoldsMM)
	out := Result{SurfaceTempsC: got.TempC, DewHours: []int{}, Working: working.New()}
	for i, d := range r.DewPointsC {
		if out.SurfaceTempsC[i] <= d {
			out.DewHours = append(out.DewHours, i)
		}
	}
	w := &out.Working
	w.In("Heat capacity", r.HeatJM2K, "J/m²K")
	w.In("Share of sunshine taken up", r.Absorptance, "")
	w.In("Emissivity", r.Emissivity, "")
	w.In("Share of sky in view", r.SkyView, "")
	w.In("Conductance to the inside", r.InsideWM2K, "W/m²K")
	w.Step("Surface at the last hour", Balance, out.SurfaceTempsC[len(got.TempC)-1], "°C",
		"heat balance; h = 2.8 + 3.0·v, Watmuff 1977; water by the Lewis relation")
	if r.CoreWM2K > 0 {
		out.InnerTempsC = got.InnerC
		w.In("Conductance of the core", r.CoreWM2K, "W/m²K")
	}
	if r.HoldsMM > 0 {
		out.water(got, len(got.TempC)-1)
	}
	return out, nil
}

// water fills in when it was wet in the hours 0 to last.
func (r *Result) water(got Followed, last int) {
	r.WaterMM = got.WaterMM
	wet, dry := 0.0, 0.0
	for _, s := range got.WetH {
		wet += s[1] - s[0]
		dry = s[1]
		if r.FirstDriesAtH == nil && s[1] < float64(last) {
			r.FirstDriesAtH = &s[1]
		}
	}
	r.HoursWet = &wet
	if r.WaterMM[last] == 0 {
		r.DryForGoodFromH = &dry
	}
	r.Working.In("Thickest water at an hour", slices.Max(got.WaterMM), "mm")
	r.Working.Step("Hours wet", "dm/dt = rain − h·0.622·(es(T) − e)/(cp·Le^⅔·p)", wet, "h",
		"Lewis relation, from the convective h alone")
}

// Balance is the equation that Course and Run integrate, in words for a working.
const Balance = "C dT/dt = h(T air − T) + α·G − ε·σ·[F·(T⁴ − T sky⁴) + (1 − F)·(T⁴ − T air⁴)] + U(T inside − T) − Lv·E"
