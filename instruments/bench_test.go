package instruments

import (
	"allcoats/core/finish/fair"
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestScalePoursToALittleBeyond(t *testing.T) {
	s := Scale{Seed: 3, FromG: 50, ToG: 450}
	s.PouredSince = 5 * time.Second
	assert.InDelta(t, 250, s.ShowsG(), 1, "40 g a second")
	s.PouredSince = time.Minute
	assert.GreaterOrEqual(t, s.ShowsG(), 449.0)
	assert.LessOrEqual(t, s.ShowsG(), 450+0.02*400+1)
	assert.Equal(t, s.ShowsG(), s.ShowsG(), "the same at the same instant")
}

func TestGaugeScattersAroundTheFilm(t *testing.T) {
	at := time.Unix(0, 0)
	rs := Gauge{Seed: 1, MeanUm: 200, SDPct: 10}.Readings(400, at)
	sum, sq := 0.0, 0.0
	for i, r := range rs {
		sum += r.Value
		sq += r.Value * r.Value
		assert.Equal(t, at.Add(time.Duration(i)*time.Second), r.At)
		assert.Equal(t, math.Round(r.Value), r.Value, "a gauge shows whole µm")
	}
	mean := sum / 400
	assert.InDelta(t, 200, mean, 4)
	assert.InDelta(t, 20, math.Sqrt(sq/400-mean*mean), 4)
	for _, r := range (Gauge{Seed: 1, MeanUm: 1, SDPct: 300}).Readings(50, at) {
		assert.GreaterOrEqual(t, r.Value, 0.0)
	}
}

// The edge stands on the side, never in it, is read to a quarter of a millimetre, and laid half
// over its last place; what is read of it finds the dents again.
func TestBattensAreLaidHalfOver(t *testing.T) {
	b := Battens{Seed: 2, EdgeM: 1, SpacingM: 0.1}
	l := b.Line("", 0.3, 0.2, 3)
	require.Len(t, l.Placements, 5)
	for k, p := range l.Placements {
		assert.InDelta(t, 0.5*float64(k), p.StartM, 1e-9)
		require.Len(t, p.GapsMM, 11)
		touching := 0
		for _, g := range p.GapsMM {
			assert.GreaterOrEqual(t, *g, 0.0)
			assert.InDelta(t, math.Round(4**g), 4**g, 1e-9)
			if *g == 0 {
				touching++
			}
		}
		assert.GreaterOrEqual(t, touching, 2)
	}
	got, err := fair.Walk(fair.WalkRequest{Lines: []fair.Line{l}, EdgeM: 1, SpacingM: 0.1, LimitMM: 0.6, ErrorMM: 0.25})
	require.NoError(t, err)
	assert.Zero(t, got.TiltsNotObserved)
	assert.Equal(t, l, b.Line("", 0.3, 0.2, 3), "the same each time")
}
