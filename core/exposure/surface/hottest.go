package surface

import (
	"slices"
	"time"

	"allcoats/core/physics/weather"
)

// A hot, still day: how much warmer it is than the usual of the month, K, and its wind: rules of
// thumb.
const (
	hotterK  = 8
	stillDay = 0.5 // m/s
)

// Hottest is the temperature that a face comes to on a clear, still, hot day of the warmest
// month, °C; of several sides that of the hottest.
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
	clear, wind := 0.0, float64(stillDay)
	for h := range air {
		at := begin.Add(time.Duration(h) * time.Hour)
		air[h] = normals.At(at, loc)
		air[h].TempC += hotterK
		air[h].CloudPct, air[h].WindMS = &clear, &wind
	}
	out, open := 0.0, Outdoors(lat, lon, air)
	for _, side := range f.AzimuthDeg {
		f.AzimuthDeg = []float64{side}
		out = max(out, slices.Max(open.Course(f).TempC))
	}
	return out
}
