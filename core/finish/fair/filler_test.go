package fair

import (
	"math"
	"testing"

	"allcoats/core/catalog/product"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// 2 L in 9 mm of a filler that shrinks by 10 %: 10 mm laid, 2.22 L and a third more for
// what is sanded off again; passes of 5 mm are two, skims of 1.5 mm seven.
func TestTwoSchools(t *testing.T) {
	r := Result{FillL: 2, FillM2: 1.5, MaxFillMM: 9}
	s := product.Sheet{ShrinkagePct: 10, MaxPassMM: 5, BaseKgL: 0.75, HardenerKgL: 0.75, RatioByVolume: product.Ratio{Base: 2, Hardener: 1}}
	heavy, skims := Schools[0].Fill(r, s, 0), Schools[1].Fill(r, s, 0)
	assert.Equal(t, 2, heavy.Passes)
	assert.InDelta(t, 2/0.9*1.35, heavy.Litres, 1e-9)
	assert.InDelta(t, heavy.Litres*0.75, heavy.Kg, 1e-9)
	assert.InDelta(t, heavy.Litres/3+1.5*2/1.2, heavy.Hours, 1e-9)
	assert.Equal(t, 7, skims.Passes)
	assert.Less(t, skims.Litres, heavy.Litres)
	s.MaxPassMM = 0
	assert.NotEmpty(t, Schools[0].Fill(r, s, 0).Working.Warnings)
	// A side, and a bottom: what sags bounds the pass.
	s.MaxPassMM, s.SagUprightUm, s.SagOverheadUm = 5, 4000, 2500
	assert.Equal(t, 2, Schools[0].Fill(r, s, 20).Passes)
	assert.Equal(t, 3, Schools[0].Fill(r, s, 90).Passes)
	assert.Equal(t, 4, Schools[0].Fill(r, s, 130).Passes)
}

// Lows of 80, 40, 20 halve each round: two allowed on 10 m² are reached after three
// more, 10, 5, 2.5, and then 1.25.
func TestRoundsDecline(t *testing.T) {
	c := Classes[1]
	rounds := []Round{{N: 1, Lows: 80, Hours: 10}, {N: 2, Lows: 40, Hours: 7}, {N: 3, Lows: 20, Hours: 5}}
	o := Ahead(rounds, 10, c)
	assert.True(t, o.Fitted)
	assert.InDelta(t, 0.5, o.Ratio, 0.01)
	assert.Equal(t, 3, o.Left)
	assert.LessOrEqual(t, o.LeftLow, o.Left)
	assert.GreaterOrEqual(t, o.LeftHigh, o.Left)
	assert.False(t, o.Enough)
	want := 5 * (math.Max(0.5, math.Sqrt(o.Ratio)) + math.Max(0.5, o.Ratio) + 0.5)
	assert.InDelta(t, want, o.HoursL, 0.1)
	assert.InDelta(t, 5*math.Max(0.5, math.Sqrt(o.Ratio)), o.NextH, 1e-9)
	// With 12 h for the last round the next takes 10 lows in 8.5 h, the one after 5 in 6.
	rounds[2].Hours = 12
	assert.Equal(t, 4, Ahead(rounds, 10, c).StopAfter, "less than a low an hour")
	assert.NotEqual(t, 4, Ahead(rounds, 10, Classes[2]).StopAfter, "a show finish is worth more")

	// The course carried on: lows halve, pinholes by their own decline.
	pinned := []Round{{N: 1, Lows: 80, Pinholes: 90, Hours: 1}, {N: 2, Lows: 40, Pinholes: 30, Hours: 1}, {N: 3, Lows: 20, Pinholes: 10, Hours: 1}}
	course := Ahead(pinned, 10, c).Course
	require.Len(t, course, 6)
	assert.False(t, course[2].Ahead)
	assert.Equal(t, Found{4, course[3].Lows, course[3].Pinholes, true}, course[3])
	assert.InDelta(t, 10, course[3].Lows, 0.2)
	assert.InDelta(t, 10./3, course[3].Pinholes, 0.15)

	one := Ahead(rounds[:1], 10, c)
	assert.False(t, one.Fitted)
	assert.Greater(t, one.LeftHigh, one.LeftLow)
	assert.True(t, Ahead([]Round{{N: 4, Lows: 1}}, 10, c).Enough)
	assert.NotEmpty(t, Ahead(nil, 10, c).Working.Warnings)
	worse := Ahead([]Round{{N: 1, Lows: 10, Hours: 4}, {N: 2, Lows: 14, Hours: 4}}, 10, c)
	assert.LessOrEqual(t, worse.Ratio, 0.95, "rounds that find more are taken to decline slowly")
	assert.LessOrEqual(t, worse.Left, mostRounds)
}
