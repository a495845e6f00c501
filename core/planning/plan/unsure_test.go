package plan

import (
	"math"
	"testing"

	"allcoats/core/boat/area"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"
)

// Hours are log-normal of a part that all share and one of each task, 0.12 and 0.25: together
// 0.277, of which two tasks share 0.0144 of 0.0769, or 0.187. Four in a hundred coats are laid twice.
func TestHoursAreUnsure(t *testing.T) {
	m, err := yard(60, surface("Deck", area.Deck, fair(60, nil), 2, 2)).Model()
	require.NoError(t, err)
	var first, second []float64
	twice := 0
	for k := range uint64(4000) {
		u := m.Unsure(1, k)
		var logs []float64
		for i, one := range u.Problem.Tasks {
			if i != nowTask && m.Tasks[i].Coat {
				logs = append(logs, math.Log(float64(one.Duration)/float64(m.Problem.Tasks[i].Duration)))
			}
		}
		require.Len(t, logs, 2)
		if max(logs[0], logs[1]) > 0.277*2.5 {
			twice++
			continue
		}
		first, second = append(first, logs[0]), append(second, logs[1])
	}
	assert.InDelta(t, 0, stat.Mean(first, nil), 0.02)
	assert.InDelta(t, 0.277, stat.StdDev(first, nil), 0.03)
	assert.InDelta(t, 0.187, stat.Correlation(first, second, nil), 0.06)
	assert.InDelta(t, 0.05, float64(twice)/4000, 0.02, "laid twice, and half of them over 2.5 deviations")
	for i, one := range m.Unsure(1, 7).Problem.Tasks {
		assert.Equal(t, one.Duration, m.Unsure(1, 7).Problem.Tasks[i].Duration)
	}
}

// One day in a hundred somebody is off for two and a half: about one in forty is missed.
func TestPeopleAreAway(t *testing.T) {
	m, err := yard(300, surface("Deck", area.Deck, fair(60, nil), 1, 2)).Model()
	require.NoError(t, err)
	days, gone := 0, 0
	for k := range uint64(60) {
		u := m.Unsure(1, k)
		days += len(m.Problem.Hands[0].Works)
		gone += len(m.Problem.Hands[0].Works) - len(u.Problem.Hands[0].Works)
	}
	assert.InDelta(t, 0.025, float64(gone)/float64(days), 0.006)
}

// In weather that never fails, the end is not sure all the same, and no later than a task that is
// laid twice and somebody ill would make it, most times.
func TestAFairPlanIsNotSure(t *testing.T) {
	y := yard(90, surface("Deck", area.Deck, fair(90, nil), 4, 5))
	m, _, order := make_(t, y, nil)
	plain := m.Play(order)
	require.True(t, plain.Done())
	var off []float64 // days
	for k := range uint64(200) {
		out := m.Unsure(1, k).Play(order)
		require.True(t, out.Done())
		off = append(off, out.Ready[0].Sub(*plain.Ready[0]).Hours()/24)
	}
	assert.Greater(t, stat.StdDev(off, nil), 0.3)
	assert.InDelta(t, 0.7, stat.Mean(off, nil), 1.5)
}
