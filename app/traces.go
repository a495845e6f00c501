package app

import (
	"context"
	"math"
	"time"

	"allcoats/core/exposure/reading"
)

// Trace is an instrument's readings thinned for drawing: no extreme is lost.
type Trace struct {
	Instrument Instrument   `json:"instrument"`
	From       time.Time    `json:"from"`
	To         time.Time    `json:"to"`
	Points     []TracePoint `json:"points"`
}

// TracePoint sums up a stretch of readings; what was not measured is left out.
type TracePoint struct {
	At     time.Time `json:"at"`
	N      int       `json:"n"`
	MinC   *float64  `json:"minC,omitempty"`
	MeanC  *float64  `json:"meanC,omitempty"`
	MaxC   *float64  `json:"maxC,omitempty"`
	MinRH  *float64  `json:"minRHPct,omitempty"`
	MeanRH *float64  `json:"meanRHPct,omitempty"`
	MaxRH  *float64  `json:"maxRHPct,omitempty"`
}

// Trace returns an instrument's readings in [from, to], zero times for all of
// them, in at most points stretches.
func (a *App) Trace(ctx context.Context, id string, from, to time.Time, points int) (Trace, error) {
	i, err := a.Instrument(ctx, id)
	if err != nil {
		return Trace{}, err
	}
	out := Trace{Instrument: i, From: from, To: to, Points: []TracePoint{}}
	if i.First == nil {
		return out, nil
	}
	if from.IsZero() {
		out.From = *i.First
	}
	if to.IsZero() {
		out.To = *i.Last
	}
	rs, err := a.store.Read(ctx).Readings(ctx, id, out.From, out.To)
	if err != nil {
		return out, err
	}
	value := func(v float64) *float64 {
		if math.IsNaN(v) {
			return nil
		}
		return &v
	}
	for _, e := range reading.Thin(rs, out.From, out.To, max(10, min(points, 2000))) {
		out.Points = append(out.Points, TracePoint{e.At, e.N, value(e.MinC), value(e.MeanC), value(e.MaxC),
			value(e.MinRH), value(e.MeanRH), value(e.MaxRH)})
	}
	return out, nil
}
