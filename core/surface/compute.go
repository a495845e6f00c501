package surface

import (
	"fmt"

	"allcoats/core/fault"
	"allcoats/core/working"
)

// Request is the input of the surface-temperature calculator: a face, and what
// drives it at whole hours, linear between them. DewPointsC is optional.
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
}

// Result is the temperature of the surface at every hour, and the hours at
// which it is at or below the dew point.
type Result struct {
	SurfaceTempsC []float64       `json:"surfaceTempsC"`
	DewHours      []int           `json:"dewHours"`
	Working       working.Working `json:"working"`
}

// Compute answers r, or names the impossible fields.
func Compute(r Request) (Result, error) {
	var bad fault.Errors
	bad.Range("heatJM2K", r.HeatJM2K, 500, 1e6, "J/m²K")
	bad.Range("absorptance", r.Absorptance, 0, 1, "")
	bad.Range("emissivity", r.Emissivity, 0, 1, "")
	bad.Range("skyView", r.SkyView, 0, 1, "")
	bad.Range("insideWM2K", r.InsideWM2K, 0, 50, "W/m²K")
	bad.Range("insideTempC", r.InsideTempC, -40, 60, "°C")
	bad.Range("startC", r.StartC, -40, 100, "°C")
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
		{"airTempsC", r.AirTempsC, -60, 60, "°C"}, {"lightWM2", r.LightWM2, 0, 1500, "W/m²"}, {"skyTempsC", r.SkyTempsC, -90, 60, "°C"},
		{"windMS", r.WindMS, 0, 60, "m/s"}, {"dewPointsC", r.DewPointsC, -80, 60, "°C"},
	}
	for _, l := range lists {
		if len(l.v) != n && (l.path != "dewPointsC" || len(l.v) > 0) {
			bad.Add(l.path, "has %d values for %d of airTempsC", len(l.v), n)
		}
		for i, v := range l.v {
			bad.Range(fmt.Sprintf("%s[%d]", l.path, i), v, l.lo, l.hi, l.unit)
		}
	}
	if err := bad.Err(); err != nil {
		return Result{}, err
	}
	f := Face{HeatJM2K: r.HeatJM2K, Absorptance: r.Absorptance, Emissivity: r.Emissivity, SkyView: r.SkyView, InsideWM2K: r.InsideWM2K}
	drives := make([]Drive, n)
	for i := range drives {
		drives[i] = Drive{r.AirTempsC[i], r.LightWM2[i], r.SkyTempsC[i], r.WindMS[i], r.InsideTempC}
	}
	out := Result{SurfaceTempsC: f.Run(drives, r.StartC), DewHours: []int{}, Working: working.New()}
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
	w.Step("Surface at the last hour", Balance, out.SurfaceTempsC[n-1], "°C", "lumped heat balance; h = 5.7 + 3.8·v, McAdams")
	return out, nil
}

// Balance is the equation that Course and Run integrate, in words for a working.
const Balance = "C dT/dt = h(T air − T) + α·G − ε·σ·F·(T⁴ − T sky⁴) + U(T inside − T)"
