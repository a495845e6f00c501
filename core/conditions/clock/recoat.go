package clock

import (
	"fmt"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/base/working"
	"allcoats/core/physics/cure"
)

// Request is the input of the recoat calculator: tables, and the temperature
// of the surface at whole hours from hour 0, linear between them; null is an hour
// that nobody measured or forecast. Drying is how humidity bears: waterborne or
// moisture-cured products want the humidity at the surface, hour by hour.
type Request struct {
	Min cure.Table `json:"min"`
	// Max empty means that the window never closes.
	Max            cure.Table `json:"max,omitempty"`
	OnePointTables bool       `json:"onePointTables,omitempty"`
	MinCureC       float64    `json:"minCureC"`
	AppliedAtH     float64    `json:"appliedAtH,omitempty"`
	SurfaceTempsC  []*float64 `json:"surfaceTempsC"`
	Drying         string     `json:"drying,omitempty" enum:",solvent-borne,waterborne,moisture-cured"`
	// SurfaceRHPct has as many values as SurfaceTempsC, in %.
	SurfaceRHPct []*float64 `json:"surfaceRHPct,omitempty"`
}

// solventBorne is what Drying is left out for.
const solventBorne = "solvent-borne"

// Result tells when the window opens and closes, in hours after application;
// nil if the temperatures end before, and then how far the clock came.
type Result struct {
	OpensAfterH   *float64 `json:"opensAfterH"`
	ClosesAfterH  *float64 `json:"closesAfterH"`
	ClosingAfterH *float64 `json:"closingAfterH"`
	MinProgress   float64  `json:"minProgress"`
	MaxProgress   float64  `json:"maxProgress"`
	// KnownPct is how much of the time until the window closes, or the hours end, was
	// known. Under 100 the closing is the earliest that can be: sand after it.
	KnownPct float64         `json:"knownPct"`
	Working  working.Working `json:"working"`
}

// Compute answers r, or names the impossible fields.
func Compute(r Request) (Result, error) {
	var bad fielderr.Errors
	if len(r.Min) == 0 {
		bad.Add("min", "give the minimum interval at two or more temperatures")
	}
	bad.Under("min", r.Min.Validate(r.OnePointTables))
	bad.Under("max", r.Max.Validate(r.OnePointTables))
	bad.Range("minCureC", r.MinCureC, -50, 60, "°C")
	if bad == nil {
		for i, p := range r.Max {
			if lo, _ := r.Min.TauH(p.TempC, cure.Minimum); lo >= p.Hours {
				bad.Add(fmt.Sprintf("max[%d].hours", i), "must be more than the minimum at %g °C, %.3g h", p.TempC, lo)
			}
		}
	}
	p := r.path(&bad)
	if err := bad.Err(); err != nil {
		return Result{}, err
	}

	var origin time.Time
	start := origin.Add(time.Duration(r.AppliedAtH * float64(time.Hour)))
	w := working.New()
	w.In("Cures above", r.MinCureC, "°C")
	w.In("Applied at hour", r.AppliedAtH, "h")
	var out Result
	end := float64(len(r.SurfaceTempsC)-1) - r.AppliedAtH
	holeH, spanH := 0.0, end
	run := func(label string, t cure.Table, side cure.Side) (*float64, float64) {
		if len(t) == 0 {
			return nil, 0
		}
		ev := cure.Clock{Table: t, Side: side, FloorC: r.MinCureC}.Run(p, start, 1)
		holeH, spanH = ev.HoleH, end
		if len(t) == 1 {
			w.Warn("%s: one point; an activation energy of 50 kJ/mol is assumed, a rule of thumb.", label)
		} else if ev.Outside {
			w.Warn("%s: part of the time lies outside the table's temperatures.", label)
		}
		if ev.HoleH > 0 {
			w.Warn("%s: %.3g h are not known. %s", label, ev.HoleH,
				map[cure.Side]string{cure.Minimum: "No progress is made in them.",
					cure.Maximum: "The clock runs through them at its fastest: after this it is not known, sand first."}[side])
		}
		if ev.Reached == nil {
			return nil, ev.Progress
		}
		spanH = ev.Reached.Sub(start).Hours()
		h := w.StepOf(label, message.Of("hours until ∫ dt/(τ(T) · f) = 1, τ from %v, f for humidity", describe(t)),
			spanH, "h", message.Of("Arrhenius equivalent age, as ASTM C1074"))
		return &h, ev.Progress
	}
	out.OpensAfterH, out.MinProgress = run("Recoat from", r.Min, cure.Minimum)
	out.ClosesAfterH, out.MaxProgress = run("Recoat until", r.Max, cure.Maximum)
	if out.OpensAfterH != nil && out.ClosesAfterH != nil {
		at := func(h float64) time.Time { return start.Add(time.Duration(h * float64(time.Hour))) }
		h := w.Step("Closing from", "the last fifth of the window or its last 12 h",
			closingAt(at(*out.OpensAfterH), at(*out.ClosesAfterH)).Sub(start).Hours(), "h",
			"convention of this program")
		out.ClosingAfterH = &h
	}
	out.KnownPct = 100
	if spanH > 0 {
		out.KnownPct = w.Step("Known of that time", "hours known / all hours", 100*(1-holeH/spanH), "%", "")
	}
	out.Working = w
	return out, nil
}

// path are the hours that are known.
func (r Request) path(bad *fielderr.Errors) cure.Path {
	var origin time.Time
	p := cure.Path{Gap: time.Hour, Humidity: cure.Humidity(r.Drying)}
	if r.Drying == solventBorne {
		p.Humidity = cure.Indifferent
	}
	fielderr.OneOf(bad, "drying", p.Humidity, []cure.Humidity{cure.Indifferent, cure.Waterborne, cure.MoistureCured})
	n := len(r.SurfaceTempsC)
	if n < 2 || n > 100_000 {
		bad.Add("surfaceTempsC", "give the temperature at 2 to 100000 hours, not %d", n)
		return p
	}
	bad.Range("appliedAtH", r.AppliedAtH, 0, float64(n-1), "h")
	humid := p.Humidity != cure.Indifferent
	if humid && len(r.SurfaceRHPct) != n || !humid && len(r.SurfaceRHPct) > 0 && len(r.SurfaceRHPct) != n {
		bad.Add("surfaceRHPct", "has %d values for %d of surfaceTempsC", len(r.SurfaceRHPct), n)
		return p
	}
	for i, t := range r.SurfaceTempsC {
		if len(r.SurfaceRHPct) > 0 && r.SurfaceRHPct[i] != nil {
			bad.Range(fmt.Sprintf("surfaceRHPct[%d]", i), *r.SurfaceRHPct[i], 0, 100, "%")
		}
		if t == nil || humid && r.SurfaceRHPct[i] == nil {
			continue // nobody knows
		}
		bad.Range(fmt.Sprintf("surfaceTempsC[%d]", i), *t, -60, 120, "°C")
		p.At = append(p.At, origin.Add(time.Duration(i)*time.Hour))
		p.TempC = append(p.TempC, *t)
		if humid {
			p.RHPct = append(p.RHPct, *r.SurfaceRHPct[i])
		}
	}
	if len(p.At) == 0 {
		bad.Add("surfaceTempsC", "not one hour is known")
	}
	return p
}
