package clock

import (
	"fmt"
	"time"

	"allcoats/core/cure"
	"allcoats/core/fault"
	"allcoats/core/working"
)

// Request is the input of the recoat calculator: tables, and the temperature
// of the surface at whole hours from hour 0, linear between them.
type Request struct {
	Min cure.Table `json:"min"`
	// Max empty means that the window never closes.
	Max            cure.Table `json:"max,omitempty"`
	OnePointTables bool       `json:"onePointTables,omitempty"`
	MinCureC       float64    `json:"minCureC"`
	AppliedAtH     float64    `json:"appliedAtH"`
	SurfaceTempsC  []float64  `json:"surfaceTempsC"`
}

// Result tells when the window opens and closes, in hours after application;
// nil if the temperatures end before, and then how far the clock came.
type Result struct {
	OpensAfterH   *float64        `json:"opensAfterH"`
	ClosesAfterH  *float64        `json:"closesAfterH"`
	ClosingAfterH *float64        `json:"closingAfterH"`
	MinProgress   float64         `json:"minProgress"`
	MaxProgress   float64         `json:"maxProgress"`
	Working       working.Working `json:"working"`
}

// Compute answers r, or names the impossible fields.
func Compute(r Request) (Result, error) {
	var bad fault.Errors
	if len(r.Min) == 0 {
		bad.Add("min", "give the minimum interval at two or more temperatures")
	}
	bad.Under("min", r.Min.Validate(r.OnePointTables))
	bad.Under("max", r.Max.Validate(r.OnePointTables))
	bad.Range("minCureC", r.MinCureC, -50, 60, "°C")
	n := len(r.SurfaceTempsC)
	if n < 2 || n > 100_000 {
		bad.Add("surfaceTempsC", "give the temperature at 2 to 100000 hours, not %d", n)
	} else {
		bad.Range("appliedAtH", r.AppliedAtH, 0, float64(n-1), "h")
	}
	for i, t := range r.SurfaceTempsC {
		bad.Range(fmt.Sprintf("surfaceTempsC[%d]", i), t, -60, 120, "°C")
	}
	if err := bad.Err(); err != nil {
		return Result{}, err
	}

	var origin time.Time
	p := cure.Path{At: make([]time.Time, n), TempC: r.SurfaceTempsC}
	for i := range p.At {
		p.At[i] = origin.Add(time.Duration(i) * time.Hour)
	}
	start := origin.Add(time.Duration(r.AppliedAtH * float64(time.Hour)))
	w := working.New()
	w.In("Cures above", r.MinCureC, "°C")
	w.In("Applied at hour", r.AppliedAtH, "h")
	var out Result
	run := func(label string, t cure.Table, side cure.Side) (*float64, float64) {
		if len(t) == 0 {
			return nil, 0
		}
		ev := cure.Clock{Table: t, Side: side, FloorC: r.MinCureC}.Run(p, start, 1)
		if len(t) == 1 {
			w.Warn("%s: one point; an activation energy of 50 kJ/mol is assumed, a rule of thumb.", label)
		} else if ev.Outside {
			w.Warn("%s: part of the time lies outside the table's temperatures.", label)
		}
		if ev.Reached == nil {
			return nil, ev.Progress
		}
		h := w.Step(label, "hours until ∫ dt/τ(T) = 1, τ from "+describe(t), ev.Reached.Sub(start).Hours(), "h", "Arrhenius equivalent age, as ASTM C1074")
		return &h, ev.Progress
	}
	out.OpensAfterH, out.MinProgress = run("Recoat from", r.Min, cure.Minimum)
	out.ClosesAfterH, out.MaxProgress = run("Recoat until", r.Max, cure.Maximum)
	if out.OpensAfterH != nil && out.ClosesAfterH != nil {
		at := func(h float64) time.Time { return start.Add(time.Duration(h * float64(time.Hour))) }
		h := w.Step("Closing from", "the last fifth of the window or its last 12 h",
			closingAt(at(*out.OpensAfterH), at(*out.ClosesAfterH)).Sub(start).Hours(), "h", "convention of this program")
		out.ClosingAfterH = &h
	}
	out.Working = w
	return out, nil
}
