// Package solar finds the sun and what light and cold the sky sends.
package solar

import (
	"math"
	"sync"
	"time"
)

// Horizon is the elevation of the sun's centre at sunrise and sunset, degrees:
// refraction 34′ and half a disc 16′.
const Horizon = -0.8333

// Sun returns the sun's geometric elevation and its azimuth from true north,
// clockwise, both in degrees, at latitude lat and longitude lon (degrees,
// east positive). Good to 0.05° from 1950 to 2050; no refraction.
// Source: Astronomical Almanac low-precision formulas (Michalsky 1988).
func Sun(lat, lon float64, t time.Time) (elevation, azimuth float64) {
	// Days since J2000.0.
	n := float64(t.Unix())/86400 + float64(t.Nanosecond())/86400e9 + 2440587.5 - 2451545
	l := 280.460 + 0.9856474*n          // mean longitude
	g := (357.528 + 0.9856003*n) * deg  // mean anomaly
	obl := (23.439 - 0.0000004*n) * deg // obliquity of the ecliptic
	ecl := (l + 1.915*math.Sin(g) + 0.020*math.Sin(2*g)) * deg
	ra := math.Atan2(math.Cos(obl)*math.Sin(ecl), math.Cos(ecl))
	dec := math.Asin(math.Sin(obl) * math.Sin(ecl))
	gmst := 280.46062 + 360.98564737*n // Greenwich mean sidereal time, degrees
	ha := (gmst+lon)*deg - ra
	sinLat, cosLat := math.Sincos(lat * deg)
	sinEl := sinLat*math.Sin(dec) + cosLat*math.Cos(dec)*math.Cos(ha)
	az := math.Atan2(-math.Sin(ha)*math.Cos(dec), math.Sin(dec)*cosLat-math.Cos(dec)*sinLat*math.Cos(ha)) / deg
	return math.Asin(max(-1, min(1, sinEl))) / deg, math.Mod(az+360, 360)
}

// Daytime is a stretch of daylight.
type Daytime struct{ Rise, Set time.Time }

// Daylight lists the stretches between from and to with the sun above Horizon,
// cut at from and to, each edge good to a second of the model.
func Daylight(lat, lon float64, from, to time.Time) []Daytime {
	above := func(t time.Time) float64 { e, _ := Sun(lat, lon, t); return e - Horizon }
	up := func(t time.Time) bool { return above(t) > 0 }
	const step = 10 * time.Minute
	var out []Daytime
	lit := up(from)
	rise := from
	for a := from; a.Before(to); a = a.Add(step) {
		// No faster than the earth turns: as long as that it stays on its side.
		const perStep = 15.1 / 6
		if n := time.Duration(math.Abs(above(a)) / perStep); n > 1 {
			a = a.Add((n - 1) * step)
			if !a.Before(to) {
				break
			}
		}
		b := a.Add(step)
		if b.After(to) {
			b = to
		}
		now := up(b)
		if now == lit {
			continue
		}
		lo, hi := a, b
		for hi.Sub(lo) > time.Second {
			mid := lo.Add(hi.Sub(lo) / 2)
			if up(mid) == lit {
				lo = mid
			} else {
				hi = mid
			}
		}
		if lit {
			out = append(out, Daytime{rise, hi})
		} else {
			rise = hi
		}
		lit = now
	}
	if lit {
		out = append(out, Daytime{rise, to})
	}
	return out
}

// Days keeps the daylight that was asked for last, of a few places and times. The zero value is empty; it is safe for
// concurrent use.
type Days struct {
	mutex sync.Mutex
	by    map[days][]Daytime
}

type days struct {
	lat, lon float64
	from, to time.Time
}

// mostDays is how many a Days keeps before it begins anew.
const mostDays = 8

// Daylight is that of the package, worked out once; it is not to be changed.
func (d *Days) Daylight(lat, lon float64, from, to time.Time) []Daytime {
	key := days{lat, lon, from, to}
	d.mutex.Lock()
	defer d.mutex.Unlock()
	out, ok := d.by[key]
	if !ok {
		if d.by == nil || len(d.by) >= mostDays {
			d.by = map[days][]Daytime{}
		}
		out = Daylight(lat, lon, from, to)
		d.by[key] = out
	}
	return out
}
