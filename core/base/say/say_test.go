package say

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

func TestIn(t *testing.T) {
	loc := time.FixedZone("quay", 2*3600)
	now := time.Date(2026, 5, 9, 20, 0, 0, 0, time.UTC)
	s := Sentence{Strong("Deck"), Text(": from "), Clock(now.Add(time.Hour), now, loc), Text(" to "), Clock(now.Add(3*time.Hour), now, loc), Text(", above "), Val(10, "°C")}
	assert.Equal(t, "Deck: from 23:00 to Sunday 01:00, above 10 °C", s.In(loc))
	assert.True(t, SameDay(now, now.Add(time.Hour), loc))
	assert.False(t, SameDay(now, now.Add(3*time.Hour), loc), "midnight is the place's")
	assert.True(t, SameDay(now, now.Add(3*time.Hour), time.UTC))
}
