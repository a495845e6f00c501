// Package field answers whether, and from when to when, a product may be
// applied: every limit of its data sheet against the air and the surface.
package field

import (
	"math"
	"time"

	"allcoats/core/cure"
	"allcoats/core/product"
	"allcoats/core/sky"
	"allcoats/core/weather"
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
	// Lights, or shelter with light, lift the need for daylight.
	Lights bool
	// Sheltered keeps rain off.
	Sheltered bool
	Lat, Lon  float64
}

// Weather is the air with the temperature of the surface at each record, °C.
type Weather struct {
	Air      weather.Series
	SurfaceC []float64
}

// Path returns the surface temperature for the cure clocks.
func (w Weather) Path() cure.Path {
	at := make([]time.Time, len(w.Air))
	for i, h := range w.Air {
		at[i] = h.At
	}
	return cure.Path{At: at, TempC: w.SurfaceC}
}

// at returns the air and the surface temperature at t.
func (w Weather) at(t time.Time) (weather.Hour, float64, bool) {
	h, ok := w.Air.At(t)
	if !ok {
		return h, 0, false
	}
	i := w.Air.Find(t)
	s := w.SurfaceC[i]
	if i+1 < len(w.Air) {
		f := float64(t.Sub(w.Air[i].At)) / float64(w.Air[i+1].At.Sub(w.Air[i].At))
		s += f * (w.SurfaceC[i+1] - s)
	}
	return h, s, true
}

// climate lists the checks of temperature, humidity and spread.
func climate(l product.Limits, h weather.Hour, surfaceC float64) []Check {
	out := make([]Check, 0, 8)
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
	inside := false
	best := math.Inf(1)
	x, y := t/errTempK, rh/errRH
	for i := range p {
		a, b := p[i], p[(i+1)%len(p)]
		ax, ay, bx, by := a.TempC/errTempK, a.RHPct/errRH, b.TempC/errTempK, b.RHPct/errRH
		if (ay > y) != (by > y) && x < ax+(y-ay)/(by-ay)*(bx-ax) {
			inside = !inside
		}
		dx, dy := bx-ax, by-ay
		f := 0.0
		if l := dx*dx + dy*dy; l > 0 {
			f = max(0, min(1, ((x-ax)*dx+(y-ay)*dy)/l))
		}
		best = min(best, math.Hypot(x-ax-f*dx, y-ay-f*dy))
	}
	if !inside {
		return -best
	}
	return best
}

// applying lists the checks while laying; rain and darkness only where they are.
func (j Job) applying(h weather.Hour, surfaceC float64) []Check {
	out := climate(j.Limits, h, surfaceC)
	if h.RainMM != nil && *h.RainMM > dry && !j.Sheltered {
		out = append(out, rain(*h.RainMM))
	}
	if j.Spray && j.Limits.WindMaxMS != nil && h.WindMS != nil && !j.Sheltered {
		m := *j.Limits.WindMaxMS - *h.WindMS
		out = append(out, Check{Wind, *h.WindMS, *j.Limits.WindMaxMS, m, "m/s", m / errWind})
	}
	if !j.Lights {
		el, _ := sky.Sun(j.Lat, j.Lon, h.At)
		if m := el - sky.Horizon; m < 0 {
			out = append(out, Check{Light, el, sky.Horizon, m, "°", m / 2})
		}
	}
	return out
}

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
		worst := Worst(j.applying(h, w.SurfaceC[i]))
		dew := h.DewPointC()
		out[i] = Hour{
			At: h.At, TempC: h.TempC, RHPct: h.RHPct, SurfaceC: w.SurfaceC[i], DewC: dew, SpreadK: w.SurfaceC[i] - dew,
			Allowed: worst.OK(), Binding: worst, Measured: h.Measured,
		}
	}
	return out
}
