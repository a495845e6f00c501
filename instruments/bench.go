package instruments

import (
	"math"
	"time"

	"allcoats/core/exposure/reading"
)

// Scale is a simulated scale on which somebody pours: from a weight toward one that
// is wanted, at 40 g a second, a little beyond it, and not quite still. What it shows
// depends only on Seed and the time since pouring began.
type Scale struct {
	Seed        uint64
	FromG, ToG  float64
	PouredSince time.Duration
}

// pourGS is how fast is poured, g/s; overPct how far beyond at most, %.
const (
	pourGS  = 40.0
	overPct = 2.0
)

// ShowsG is the weight that it shows.
func (s Scale) ShowsG() float64 {
	over := math.Abs(gauss(s.Seed, int64(s.ToG))) * overPct / 300
	to := s.FromG + (s.ToG-s.FromG)*(1+math.Min(over, overPct/100))
	g := math.Min(to, s.FromG+pourGS*s.PouredSince.Seconds())
	return math.Round(10*(g+0.1*gauss(s.Seed+1, int64(s.PouredSince/time.Millisecond)))) / 10
}

// Gauge is a simulated film gauge on a film of a mean and scatter, µm.
type Gauge struct {
	Seed          uint64
	MeanUm, SDPct float64
}

// Readings are n readings of it from an instant on, a second apart.
func (g Gauge) Readings(n int, from time.Time) []reading.Value {
	out := make([]reading.Value, n)
	for i := range out {
		um := g.MeanUm * (1 + g.SDPct/100*gauss(g.Seed, int64(i)))
		out[i] = reading.Value{At: from.Add(time.Duration(i) * time.Second), Value: math.Max(0, math.Round(um)),
			Unit: "µm"}
	}
	return out
}
