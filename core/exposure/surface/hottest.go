package surface

import (
	"slices"
	"time"

	"allcoats/core/physics/weather"
)

// summerWindMS is the wind of a hot day: a rule of thumb.
const summerWindMS = 2

// Hottest is the temperature that a face comes to on a clear day of the warmest month, °C.
func Hottest(lat, lon float64, normals weather.Normals, f Face) float64 {
	warmest := 0
	for k, n := range normals {
		if n.MeanC > normals[warmest].MeanC {
			warmest = k
		}
	}
	loc := time.FixedZone("sun time", int(lon*3600/15))
	begin := time.Date(2026, time.Month(warmest+1), 15, 0, 0, 0, 0, loc)
	const days = 2 // one for the surface to settle in
	air := make(weather.Series, 24*days)
	clear, wind := 0.0, float64(summerWindMS)
	for h := range air {
		at := begin.Add(time.Duration(h) * time.Hour)
		air[h] = normals.At(at, loc)
		air[h].CloudPct, air[h].WindMS = &clear, &wind
	}
	return slices.Max(Outdoors(lat, lon, air).Course(f).TempC)
}
