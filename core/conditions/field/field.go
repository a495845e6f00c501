// Package field answers whether, and from when to when, a product may be
// applied: every limit of its data sheet against the air and the surface.
package field

import (
	"math"
	"sort"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/catalog/product"
	"allcoats/core/exposure/surface"
	"allcoats/core/physics/cure"
	"allcoats/core/physics/psychrometrics"
	"allcoats/core/physics/solar"
	"allcoats/core/physics/weather"
)

// Limit names one condition of a field.
type Limit string

// The conditions of a field.
const (
	AirMin     Limit = "air-min"
	AirMax     Limit = "air-max"
	SurfaceMin Limit = "surface-min"
	SurfaceMax Limit = "surface-max"
	Humidity   Limit = "humidity"
	Spread     Limit = "dew-spread"
	Polygon    Limit = "polygon"
	Rain       Limit = "rain"
	Wind       Limit = "wind"
	Light      Limit = "daylight"
	Hours      Limit = "working-hours"
	Wetness    Limit = "surface-wet"
	NoData     Limit = "no-weather"
)

// A typical error of an hourly forecast, by which margins of different kinds
// are compared: a rule of thumb.
const (
	errTempK = 1.0
	errRH    = 5.0
	errWind  = 1.5
)

// Check is one limit at one instant. Margin is positive when it is kept, in
// Unit; Slack is the margin in typical forecast errors.
type Check struct {
	Limit  Limit   `json:"limit"`
	Value  float64 `json:"value"`
	Need   float64 `json:"need"`
	Margin float64 `json:"margin"`
	Unit   string  `json:"unit"`
	Slack  float64 `json:"slack"`
}

// OK reports whether the limit is kept.
func (c Check) OK() bool { return c.Margin >= 0 }

// Job is what is to be applied, on what and by whom.
type Job struct {
	Limits product.Limits
	// Apply is how long laying takes, Hold and Dry how long afterwards the
	// field must hold and rain must stay away.
	Apply, Hold, Dry time.Duration
	// Spray brings the wind limit in.
	Spray bool
	// Daylight lists when the sun is up; Lights lift the need for it. Work
	// lists the working hours, nil without limits.
	Daylight []solar.Daytime
	Lights   bool
	Work     []calendar.Stretch
	// Sheltered keeps rain off.
	Sheltered bool
}

// Weather is the air at a surface with the surface's temperature at each
// record, °C, and when there is water on it.
type Weather struct {
	Air      weather.Series
	SurfaceC []float64
	Wet      []surface.Wet
	// DewC are the dew points of the air, °C, nil where nobody has worked them out yet.
	DewC []float64
}

// dewC is the dew point at record i, °C.
func (w Weather) dewC(i int) float64 {
	if w.DewC != nil {
		return w.DewC[i]
	}
	return w.Air[i].DewPointC()
}

// Path returns the surface temperature for the cure clocks of a product on
// which humidity bears as h.
func (w Weather) Path(h cure.Humidity) cure.Path {
	p := cure.Path{At: make([]time.Time, len(w.Air)), TempC: w.SurfaceC, Humidity: h, Gap: weather.MaxGap}
	for i, a := range w.Air {
		p.At[i] = a.At
	}
	if h != cure.Indifferent {
		p.RHPct = make([]float64, len(w.Air))
		for i := range w.Air {
			p.RHPct[i] = w.SurfaceRH(i)
		}
	}
	return p
}

// SurfaceRH is the humidity of the air cooled or warmed to the surface at record i, %, 100 at
// the most.
func (w Weather) SurfaceRH(i int) float64 {
	a := &w.Air[i]
	return min(100, 100*psychrometrics.VapourPressure(a.TempC, a.RHPct)/psychrometrics.SaturationPressure(w.SurfaceC[i]))
}

// DryMM is the water, mm, that could have left the surface since the first record, at
// every record.
func (w Weather) DryMM(roofed bool) []float64 {
	out := make([]float64, len(w.Air))
	last := 0.0
	for i := range out {
		now := w.DryingMMH(i, roofed)
		if i > 0 {
			out[i] = out[i-1] + w.Air[i].At.Sub(w.Air[i-1].At).Hours()*(last+now)/2
		}
		last = now
	}
	return out
}

// DryingMMH is how fast water could leave the surface at record i, mm/h; dew gives none back.
// Roofed surfaces have no wind.
func (w Weather) DryingMMH(i int, roofed bool) float64 {
	a, wind := &w.Air[i], surface.StillAir
	if !roofed && a.WindMS != nil {
		wind = *a.WindMS
	}
	if a.RainMM != nil && *a.RainMM > 0 && !roofed {
		return 0
	}
	return max(0, surface.DryingMMH(w.SurfaceC[i], a.TempC, a.RHPct, wind))
}

// WetAt reports whether there is water on the surface at t.
func (w Weather) WetAt(t time.Time) bool {
	i := sort.Search(len(w.Wet), func(i int) bool { return w.Wet[i].To.After(t) })
	return i < len(w.Wet) && !t.Before(w.Wet[i].From)
}

// at returns the air and the surface temperature at t.
func (w Weather) at(t time.Time) (weather.Hour, float64, bool) {
	i, f, ok := w.Air.Locate(t)
	if !ok {
		return weather.Hour{}, 0, false
	}
	s := w.SurfaceC[i]
	if f > 0 {
		s += f * (w.SurfaceC[i+1] - s)
	}
	return w.Air.Mix(i, f), s, true
}

// climate appends the checks of temperature, humidity and spread to out.
func climate(out []Check, l product.Limits, h weather.Hour, surfaceC float64) []Check {
	add := func(limit Limit, value, need, margin float64, unit string, typical float64) {
		out = append(out, Check{limit, value, need, margin, unit, margin / typical})
	}
	least := func(limit Limit, need *float64, v float64) {
		if need != nil {
			add(limit, v, *need, v-*need, "°C", errTempK)
		}
	}
	most := func(limit Limit, need *float64, v float64) {
		if need != nil {
			add(limit, v, *need, *need-v, "°C", errTempK)
		}
	}
	least(AirMin, l.AirMinC, h.TempC)
	most(AirMax, l.AirMaxC, h.TempC)
	least(SurfaceMin, l.SurfaceMinC, surfaceC)
	most(SurfaceMax, l.SurfaceMaxC, surfaceC)
	if l.RHMaxPct != nil {
		add(Humidity, h.RHPct, *l.RHMaxPct, *l.RHMaxPct-h.RHPct, "%", errRH)
	}
	spread := surfaceC - h.DewPointC()
	add(Spread, spread, l.SpreadK(), spread-l.SpreadK(), "K", errTempK)
	if len(l.Polygon) >= 3 {
		slack := polygonSlack(l.Polygon, h.TempC, h.RHPct)
		add(Polygon, h.TempC, h.TempC, slack*errTempK, "K", errTempK)
	}
	return out
}

// polygonSlack returns the distance of (t, rh) to the polygon's border in
// typical forecast errors, negative outside.
func polygonSlack(p []product.Corner, t, rh float64) float64 {
	best := math.Inf(1)
	x, y := t/errTempK, rh/errRH
	for i := range p {
		a, b := p[i], p[(i+1)%len(p)]
		ax, ay, bx, by := a.TempC/errTempK, a.RHPct/errRH, b.TempC/errTempK, b.RHPct/errRH
		dx, dy := bx-ax, by-ay
		f := 0.0
		if l := dx*dx + dy*dy; l > 0 {
			f = max(0, min(1, ((x-ax)*dx+(y-ay)*dy)/l))
		}
		best = min(best, math.Hypot(x-ax-f*dx, y-ay-f*dy))
	}
	if !product.Inside(p, t, rh) {
		return -best
	}
	return best
}

// applying appends all checks while laying to out; rain and darkness only where
// they are.
func (j Job) applying(out []Check, h weather.Hour, surfaceC float64, isWet bool) []Check {
	out = climate(out, j.Limits, h, surfaceC)
	if isWet {
		out = append(out, wet)
	}
	if h.RainMM != nil && *h.RainMM > dry && !j.Sheltered {
		out = append(out, rain(*h.RainMM))
	}
	if j.windy() && h.WindMS != nil {
		out = append(out, j.wind(*h.WindMS))
	}
	if !j.Lights && !j.lit(h.At) {
		out = append(out, dark)
	}
	if j.Work != nil && !j.atWork(h.At) {
		out = append(out, away)
	}
	return out
}

// windy reports whether the wind counts.
func (j Job) windy() bool { return j.Spray && j.Limits.WindMaxMS != nil && !j.Sheltered }

func (j Job) wind(ms float64) Check {
	m := *j.Limits.WindMaxMS - ms
	return Check{Wind, ms, *j.Limits.WindMaxMS, m, "m/s", m / errWind}
}

// lit reports whether the sun is up at t.
func (j Job) lit(t time.Time) bool {
	i := sort.Search(len(j.Daylight), func(i int) bool { return j.Daylight[i].Set.After(t) })
	return i < len(j.Daylight) && !t.Before(j.Daylight[i].Rise)
}

// atWork reports whether t is in the working hours.
func (j Job) atWork(t time.Time) bool {
	i := sort.Search(len(j.Work), func(i int) bool { return j.Work[i].To.After(t) })
	return i < len(j.Work) && !t.Before(j.Work[i].From)
}

// Conditions that hold or not weigh as much as one typical forecast error.
var (
	dark = Check{Limit: Light, Margin: -1, Slack: -1}
	away = Check{Limit: Hours, Margin: -1, Slack: -1}
	wet  = Check{Limit: Wetness, Margin: -1, Slack: -1}
)

// dry is the most rain in an hour, mm, that does not wet a surface.
const dry = 0.05

func rain(mm float64) Check { return Check{Rain, mm, dry, dry - mm, "mm", (dry - mm) / 0.1} }

// Worst returns the check with the least slack: the binding reason if it is
// not kept, the next to bind if it is.
func Worst(checks []Check) Check {
	worst := checks[0]
	for _, c := range checks[1:] {
		if c.Slack < worst.Slack {
			worst = c
		}
	}
	return worst
}

// Hour is the verdict on one record for laying at that instant; holding
// afterwards is not part of it. Binding has the least slack of all limits.
type Hour struct {
	At       time.Time `json:"at"`
	TempC    float64   `json:"tempC"`
	RHPct    float64   `json:"rhPct"`
	SurfaceC float64   `json:"surfaceC"`
	DewC     float64   `json:"dewPointC"`
	SpreadK  float64   `json:"spreadK"`
	Allowed  bool      `json:"allowed"`
	Binding  Check     `json:"binding"`
	Measured bool      `json:"measured"`
}

// Hours judges every record of w.
func (j Job) Hours(w Weather) []Hour {
	out := make([]Hour, len(w.Air))
	for i, h := range w.Air {
		worst := Worst(j.applying(nil, h, w.SurfaceC[i], w.WetAt(h.At)))
		dew := w.dewC(i)
		out[i] = Hour{
			At: h.At, TempC: h.TempC, RHPct: h.RHPct, SurfaceC: w.SurfaceC[i], DewC: dew, SpreadK: w.SurfaceC[i] - dew,
			Allowed: worst.OK(), Binding: worst, Measured: h.Measured,
		}
	}
	return out
}
