package task

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
)

// Ten hours that took twenty, beside six that count as reckoned: 26/16.
func TestPaceIsLearned(t *testing.T) {
	var p Pace
	assert.Equal(t, 1.0, p.Factor())
	p.Add(20, 10)
	p.Add(0, 50)
	assert.InDelta(t, 26.0/16, p.Factor(), 1e-12)
}

// Eight in ten of a normal law lie within 1.2816 of its deviations: 25 % are a factor of e^0.3204.
func TestEightInTen(t *testing.T) {
	assert.InDelta(t, 1.3777, Tenth(0.25), 1e-4)
	assert.InDelta(t, 1, Tenth(0), 1e-12)
}

// Twice and four times what was reckoned: their logarithms lie ln √2 off their mean, either of them; six that differ by the usual count beside.
func TestHowFarTasksDiffer(t *testing.T) {
	var p Pace
	assert.InDelta(t, 0.25, p.SD(), 1e-12)
	p.Add(2, 1)
	assert.InDelta(t, 0.25, p.SD(), 1e-12, "one says nothing of it")
	p.Add(12, 3)
	half := math.Log(2) / 2
	assert.InDelta(t, math.Sqrt((6*0.25*0.25+2*half*half)/7), p.SD(), 1e-12)
}
