package fair

import (
	"math"
	"testing"

	"allcoats/core/job/logbook"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Lows of 80, 40, 20 halve each round: two allowed on 10 m² are reached after three
// more, 10, 5, 2.5, and then 1.25.
func TestRoundsDecline(t *testing.T) {
	c := Classes[1]
	rounds := []Round{{Round: logbook.Round{N: 1, Lows: 80}, Hours: 10}, {Round: logbook.Round{N: 2, Lows: 40},
		Hours: 7}, {Round: logbook.Round{N: 3, Lows: 20}, Hours: 5}}
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
	pinned := []Round{{Round: logbook.Round{N: 1, Lows: 80, Pinholes: 90}, Hours: 1},
		{Round: logbook.Round{N: 2, Lows: 40, Pinholes: 30}, Hours: 1},
		{Round: logbook.Round{N: 3, Lows: 20, Pinholes: 10}, Hours: 1}}
	course := Ahead(pinned, 10, c).Course
	require.Len(t, course, 6)
	assert.False(t, course[2].Ahead)
	assert.Equal(t, Found{4, course[3].Lows, course[3].Pinholes, true}, course[3])
	assert.InDelta(t, 10, course[3].Lows, 0.2)
	assert.InDelta(t, 10./3, course[3].Pinholes, 0.15)

	// Two rounds tell as much: pinholes of 90 and 30 are a third each time.
	two := Ahead(pinned[:2], 10, c)
	require.Greater(t, len(two.Course), 2)
	assert.InDelta(t, 10, two.Course[2].Pinholes, 0.15)

	one := Ahead(rounds[:1], 10, c)
	assert.False(t, one.Fitted)
	assert.Greater(t, one.LeftHigh, one.LeftLow)
	assert.True(t, Ahead([]Round{{Round: logbook.Round{N: 4, Lows: 1}}}, 10, c).Enough)
	assert.NotEmpty(t, Ahead(nil, 10, c).Working.Warnings)
	worse := Ahead([]Round{{Round: logbook.Round{N: 1, Lows: 10}, Hours: 4}, {Round: logbook.Round{N: 2, Lows: 14},
		Hours: 4}}, 10, c)
	assert.LessOrEqual(t, worse.Ratio, 0.95, "rounds that find more are taken to decline slowly")
	assert.LessOrEqual(t, worse.Left, mostRounds)

	// The eye may find it fair enough before the count does; pinholes have a count of their own.
	said := append(rounds[:2:2], Round{Round: logbook.Round{N: 3, Lows: 20, Verdict: logbook.FairEnough}})
	assert.True(t, Ahead(said, 10, c).Enough)
	assert.Zero(t, Ahead(said, 10, c).Left)
	pins := Pins([]Round{{Round: logbook.Round{N: 1, Lows: 0, Pinholes: 80}, Hours: 2},
		{Round: logbook.Round{N: 2, Pinholes: 38}, Hours: 2}}, 10, c)
	assert.InDelta(t, 10, pins.Allowed, 1e-9)
	assert.Equal(t, 1, pins.Left, "38, 18, then 9")
}
