package field

import (
	"fmt"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/base/working"
	"allcoats/core/catalog/product"
	"allcoats/core/physics/solar"
	"allcoats/core/physics/weather"
)

// Request is the input of the field calculator: a product's limits against a
// record of the air. SurfaceTempsC, if given, has a value for every record;
// without it the air's temperature stands for the surface's.
type Request struct {
	Limits        product.Limits `json:"limits"`
	ApplyH        float64        `json:"applyH"`
	Spray         bool           `json:"spray,omitempty"`
	Lights        bool           `json:"lights,omitempty"`
	Sheltered     bool           `json:"sheltered,omitempty"`
	LatitudeDeg   float64        `json:"latitudeDeg"`
	LongitudeDeg  float64        `json:"longitudeDeg"`
	Air           weather.Series `json:"air"`
	SurfaceTempsC []float64      `json:"surfaceTempsC,omitempty"`
}

// Result is the verdict on every record and the windows of starts.
type Result struct {
	Hours   []Hour          `json:"hours"`
	Windows []Window        `json:"windows"`
	Working working.Working `json:"working"`
}

// Compute answers r, or names the impossible fields.
func Compute(r Request) (Result, error) {
	var bad fielderr.Errors
	bad.Under("limits", r.Limits.Validate())
	bad.Range("applyH", r.ApplyH, 0, 72, "h")
	bad.Range("latitudeDeg", r.LatitudeDeg, -90, 90, "°")
	bad.Range("longitudeDeg", r.LongitudeDeg, -180, 180, "°")
	bad.Under("air", r.Air.Validate())
	if len(r.Air) < 2 {
		bad.Add("air", "give at least two records")
	}
	if n := len(r.SurfaceTempsC); n != 0 && n != len(r.Air) {
		bad.Add("surfaceTempsC", "has %d values for %d records of air", n, len(r.Air))
	}
	for i, t := range r.SurfaceTempsC {
		bad.Range(fmt.Sprintf("surfaceTempsC[%d]", i), t, -60, 120, "°C")
	}
	if err := bad.Err(); err != nil {
		return Result{}, err
	}
	w := Weather{Air: r.Air, SurfaceC: r.SurfaceTempsC}
	if w.SurfaceC == nil {
		w.SurfaceC = make([]float64, len(r.Air))
		for i, h := range r.Air {
			w.SurfaceC[i] = h.TempC
		}
	}
	j := Job{
		Limits: r.Limits, Apply: time.Duration(r.ApplyH * float64(time.Hour)), Spray: r.Spray, Lights: r.Lights,
		Sheltered: r.Sheltered,
		Hold:      time.Duration(r.Limits.HoldH * float64(time.Hour)),
		Dry:       time.Duration(r.Limits.RainFreeH * float64(time.Hour)),
		Daylight:  solar.Daylight(r.LatitudeDeg, r.LongitudeDeg, r.Air[0].At, r.Air[len(r.Air)-1].At),
	}
	return j.Judge(w, r.Air[0].At, r.Air[len(r.Air)-1].At), nil
}

// Judge returns the verdicts on the records from the one before from to to, the
// windows of starts there, and how they come about.
func (j Job) Judge(w Weather, from, to time.Time) Result {
	out := Result{Hours: []Hour{}, Windows: []Window{}, Working: working.New()}
	for _, h := range j.Hours(w) {
		if h.At.After(from.Add(-time.Hour)) && !h.At.After(to) {
			out.Hours = append(out.Hours, h)
		}
	}
	if ws := j.Windows(w, from, to); ws != nil {
		out.Windows = ws
	}
	k := &out.Working
	k.In("Laying takes", j.Apply.Hours(), "h")
	k.In("Field must hold after laying", j.Hold.Hours(), "h")
	k.In("Must stay free of rain after laying", j.Dry.Hours(), "h")
	k.In("Least dew-point spread", j.Limits.SpreadK(), "K")
	open := 0
	for _, h := range out.Hours {
		if h.Allowed {
			open++
		}
	}
	k.Step("Hours that allow laying", "every limit of the sheet kept at that hour", float64(open), "h",
		"data sheet; spread by ISO 8502-4")
	total := 0.0
	for _, win := range out.Windows {
		total += win.To.Sub(win.From).Hours()
	}
	k.Step("Hours of starts", "limits kept while laying and through the hold, rain kept away", total, "h", "data sheet")
	if j.Limits.SpreadMinK == nil {
		k.Warn("The sheet states no dew-point spread: 3 K is used (ISO 8502-4).")
	}
	for _, g := range w.Air.Gaps() {
		k.Warn("No weather is known from %v to %v: no start is allowed there.", message.Date(g.From),
			message.Date(g.To))
	}
	if len(w.Air) > 0 && w.Air[0].RainMM == nil && !j.Sheltered {
		k.Warn("The record has no rain: rain is not judged.")
	}
	return out
}
