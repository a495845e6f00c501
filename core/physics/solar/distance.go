package solar

import "math"

// earthKm is the mean radius of the earth.
const earthKm = 6371

// DistanceKm is the way between two positions, degrees, over a round earth (haversine).
func DistanceKm(lat1, lon1, lat2, lon2 float64) float64 {
	half := func(d float64) float64 { return math.Pow(math.Sin(d*deg/2), 2) }
	a := half(lat2-lat1) + math.Cos(lat1*deg)*math.Cos(lat2*deg)*half(lon2-lon1)
	return 2 * earthKm * math.Asin(math.Sqrt(min(1, a)))
}
