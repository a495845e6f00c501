package instruments

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
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

func TestBattensReadHalfMillimetres(t *testing.T) {
	b := Battens{Seed: 2, SpacingM: 0.15}
	got := b.Gaps(10, 5)
	assert.Equal(t, got, b.Gaps(10, 5))
	assert.Len(t, got, 5)
	most := 0.0
	for _, row := range got {
		assert.Len(t, row, 10)
		for _, v := range row {
			assert.Equal(t, math.Round(2**v)/2, *v)
			assert.GreaterOrEqual(t, *v, 0.0)
			most = math.Max(most, *v)
		}
	}
	assert.Greater(t, most, 2.0, "it has dents")
	assert.Less(t, most, 12.0)
}
