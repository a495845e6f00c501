package upkeep

import (
	"math"
	"strconv"
	"sync"
	"time"

	"allcoats/core/physics/solar"
)

// Exposure is where a face lies to the weather. It has turned to every bearing: a boat swings.
type Exposure struct {
	LatitudeDeg float64
	TiltDeg     float64
	Covered     bool
	Inside      bool
}

// upright is the tilt of most of what is finished: sides, coamings, spars.
const upright = 90

// What cover, and a cabin's windows, leave of the sun: rules of thumb.
const coveredShare, insideShare = 0.15, 0.05

// Months is the sun on the face in each month, January first, in years of an upright face in the open at
// 50° N.
func (e Exposure) Months() [12]float64 {
	sun, whole := clearSky(e.LatitudeDeg, e.TiltDeg), 0.0
	for _, s := range clearSky(50, upright) {
		whole += s
	}
	share := 1.0
	switch {
	case e.Inside:
		share = insideShare
	case e.Covered:
		share = coveredShare
	}
	for m := range sun {
		sun[m] *= share / whole
	}
	return sun
}

// Year is the sun of a year.
func (e Exposure) Year() (sum float64) {
	for _, m := range e.Months() {
		sum += m
	}
	return sum
}

// skies keeps what clearSky worked out, by whole degrees.
var skies sync.Map

// clearSky is the sun of a clear sky on a face of a tilt that turns to every bearing, W/m² on the mean
// of the hours of the middle day of each month.
func clearSky(latitude, tilt float64) (out [12]float64) {
	key := [2]int{int(math.Round(latitude)), int(math.Round(tilt))}
	if v, ok := skies.Load(key); ok {
		return v.([12]float64)
	}
	const bearings, hours = 8, 24
	for m := range out {
		day := time.Date(2026, time.Month(m+1), 15, 0, 30, 0, 0, time.UTC)
		for h := range hours {
			at := day.Add(time.Duration(h) * time.Hour)
			elevation, azimuth := solar.Sun(float64(key[0]), 0, at)
			light, sun := solar.Clear(elevation, at.YearDay()), solar.Toward(elevation, azimuth)
			for b := range bearings {
				plane := solar.Facing(float64(key[1]), 360/bearings*float64(b))
				out[m] += light.On(sun, plane, solar.Albedo).Total() / (bearings * hours)
			}
		}
	}
	skies.Store(key, out)
	return out
}

// used is the share of a life that is spent between two instants.
func (w wear) used(from, to time.Time) (sum float64) {
	for at := from; at.Before(to); {
		end := monthAfter(at)
		part := end
		if to.Before(end) {
			part = to
		}
		sum += w.monthly[at.UTC().Month()-1] * share(at, part)
		at = end
	}
	return sum
}

// longest is the longest that a film is reckoned to go, years.
const longest = 60

// reaches is when so much of a life is spent.
func (w wear) reaches(from time.Time, life float64) time.Time {
	for at := from; ; {
		end := monthAfter(at)
		rate := w.monthly[at.UTC().Month()-1]
		spent := rate * share(at, end)
		if spent >= life && rate > 0 {
			month := monthAfter(at).Sub(monthBegin(at))
			return at.Add(time.Duration(life / rate * float64(month)))
		}
		if life -= spent; years(from, end) > longest {
			return end
		}
		at = end
	}
}

func monthBegin(t time.Time) time.Time {
	return time.Date(t.UTC().Year(), t.UTC().Month(), 1, 0, 0, 0, 0, time.UTC)
}

func monthAfter(t time.Time) time.Time { return monthBegin(t).AddDate(0, 1, 0) }

// share is how much of its month lies between two instants of one.
func share(from, to time.Time) float64 {
	return to.Sub(from).Hours() / monthAfter(from).Sub(monthBegin(from)).Hours()
}

func number(v float64) string { return strconv.FormatFloat(v, 'f', 2, 64) }
