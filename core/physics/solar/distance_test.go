package solar

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestDistance(t *testing.T) {
	assert.InDelta(t, math.Pi*6371/180, DistanceKm(50, 0, 51, 0), 1e-6, "a degree of latitude")
	assert.InDelta(t, math.Pi*6371/180, DistanceKm(0, 10, 0, 11), 1e-6, "of longitude at the equator")
	assert.InDelta(t, math.Pi*6371, DistanceKm(90, 0, -90, 0), 1e-6, "pole to pole")
	assert.Zero(t, DistanceKm(52, 1, 52, 1))
}
