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
	assert.InDelta(t, 651.836171, DistanceKm(52.9, 0.8, 48.1, -4.5), 1e-5, "by the angle between two vectors")
	assert.InDelta(t, 10504.597237, DistanceKm(-36.8, 174.8, 37.8, -122.4), 1e-5)
	assert.Zero(t, DistanceKm(52, 1, 52, 1))
}
