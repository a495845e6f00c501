package practice

import (
	"math"
	"math/rand/v2"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/physics/weather"
)

// Day is a question: the weather of a day by the hour on a surface, the product in
// words, and the hour at which you stand with the tin.
type Day struct {
	Seed    uint64           `json:"seed"`
	Product string           `json:"product"`
	Limits  message.Sentence `json:"limits"`
	Hour    int              `json:"hour"`
	Hours   []Hour           `json:"hours"`
}

// Hour is an hour of it.
type Hour struct {
	Hour     int     `json:"hour"`
	AirC     float64 `json:"airC"`
	RHPct    float64 `json:"rhPct"`
	SurfaceC float64 `json:"surfaceC"`
	DewC     float64 `json:"dewC"`
	RainMM   float64 `json:"rainMM"`
}

// Answer is what a choice was worth, and why.
type Answer struct {
	Right  bool             `json:"right"`
	Coat   bool             `json:"coat"` // whether it was right to coat
	Reason message.Sentence `json:"reason"`
}

// The practice coat: a two-part topcoat that must hold four hours.
var practiceLimits = func() product.Limits {
	air, rh := 8.0, 85.0
	return product.Limits{AirMinC: &air, RHMaxPct: &rh, HoldH: 4, RainFreeH: 5}
}()

const layH = 1

// Deal makes the day of a seed.
func Deal(seed uint64) Day {
	r := rand.New(rand.NewPCG(seed, 77))
	mean, swing := 9+8*r.Float64(), 3+4*r.Float64()
	dew := mean - 1 - 6*r.Float64()
	rain := -1
	if r.Float64() < 0.35 {
		rain = 11 + r.IntN(9)
	}
	shade := -2 + 6*r.Float64() // the surface against the air at noon
	d := Day{Seed: seed, Product: "two-part topcoat",
		Limits: message.Lit(
			"air from 8 °C, at most 85 % humidity, 3 K above the dew point, held for 4 h after an hour of laying; no rain for 5 h"), Hour: 9 + r.IntN(8)}
	for h := range 24 {
		sun := math.Max(0, math.Sin(float64(h-6)*math.Pi/14))
		air := mean + swing*math.Sin(float64(h-9)*math.Pi/12)
		one := Hour{Hour: h, AirC: air, DewC: math.Min(air-0.2, dew), SurfaceC: air + shade*sun - 2*(1-sun)*r.Float64()}
		if rain >= 0 && h >= rain && h < rain+3 {
			one.RainMM = 0.4 + r.Float64()
		}
		e := func(t float64) float64 { return math.Exp(17.625 * t / (t + 243.04)) }
		one.RHPct = 100 * e(one.DewC) / e(one.AirC)
		round := func(v float64) float64 { return math.Round(10*v) / 10 }
		d.Hours = append(d.Hours, Hour{h, round(one.AirC), math.Round(one.RHPct), round(one.SurfaceC), round(one.DewC),
			round(one.RainMM)})
	}
	return d
}

// Judge tells what coating at the day's hour would come to, by the rules of the field.
func (d Day) Judge(coat bool) Answer {
	midnight := time.Date(2026, 6, 1, 0, 0, 0, 0, time.UTC)
	w := field.Weather{}
	for i := range 48 { // the night after is as the one before
		h := d.Hours[i%24]
		rain := h.RainMM
		w.Air = append(w.Air, weather.Hour{At: midnight.Add(time.Duration(i) * time.Hour), TempC: h.AirC,
			RHPct: h.RHPct, RainMM: &rain})
		w.SurfaceC = append(w.SurfaceC, h.SurfaceC)
	}
	job := field.Job{Limits: practiceLimits, Apply: layH * time.Hour,
		Hold: time.Duration(practiceLimits.HoldH) * time.Hour, Dry: time.Duration(practiceLimits.RainFreeH) * time.Hour,
		Lights: true}
	at := midnight.Add(time.Duration(d.Hour) * time.Hour)
	a := Answer{}
	now, forbidden := job, false
	a.Reason = message.Of("It holds: the field is kept through laying and the hold, and no rain falls.")
	now.Apply, now.Hold, now.Dry = 0, 0, 0
	for _, h := range now.Hours(w) {
		if h.At.Equal(at) && !h.Allowed {
			forbidden = true
			a.Reason = message.Of("Not now: %v.", field.Words(h.Binding))
		}
	}
	for _, win := range job.Windows(w, at, at.Add(time.Minute)) {
		a.Coat = a.Coat || !win.From.After(at)
	}
	if !a.Coat && !forbidden {
		a.Reason = message.Of("Now it may go on, but it does not hold: %v.", d.spoils(now, w, at))
	}
	a.Right = coat == a.Coat
	return a
}

// spoils names what ends the hold of a coat begun at an instant.
func (d Day) spoils(job field.Job, w field.Weather, at time.Time) message.Sentence {
	end := at.Add(time.Duration(layH+practiceLimits.HoldH) * time.Hour)
	for _, h := range job.Hours(w) {
		if h.At.After(at) && !h.At.After(end) && !h.Allowed {
			return message.Of("%v at %s", field.Words(h.Binding), h.At.Format("15:04"))
		}
	}
	return message.Of("rain comes before it is dry")
}
