// Package instruments holds simulated stand-ins for outside devices and
// services.
package instruments

import (
	"math"
	"time"

	"allcoats/core/physics/air"
	"allcoats/core/physics/sky"
	"allcoats/core/physics/weather"
	"allcoats/formats"
)

// Forecast is a simulated weather service: an invented but plausible climate
// for any place, with seasons, days, fronts and rain. What it gives for an
// instant depends only on Seed, place and instant, so it can be asked again.
// The zero value is ready to use.
type Forecast struct{ Seed uint64 }

// Days is how far ahead the service forecasts.
const Days = 7

// Hours returns the whole hours in [from, to] as known at issued: the truth as
// measured until then, forecasts after, whose error grows with their lead.
func (f Forecast) Hours(lat, lon float64, from, to, issued time.Time) weather.Series {
	seed := f.Seed ^ mix(math.Float64bits(math.Round(lat*10))) ^ mix(math.Float64bits(math.Round(lon*10))+1)
	from = from.UTC().Truncate(time.Hour)
	var out weather.Series
	for at := from; !at.After(to); at = at.Add(time.Hour) {
		out = append(out, hourAt(seed, lat, lon, at, issued))
	}
	return out
}

// Forecast gives Hours as a document that formats.ReadForecast reads.
func (f Forecast) Forecast(lat, lon float64, from, to, issued time.Time) ([]byte, error) {
	return formats.WriteForecast(lat, lon, issued, f.Hours(lat, lon, from, to, issued))
}

// hourAt makes one hour. Amplitudes and periods are chosen to look like a
// maritime climate in middle latitudes; none is fitted to a real place.
func hourAt(seed uint64, lat, lon float64, at, issued time.Time) weather.Hour {
	h := float64(at.Unix()) / 3600
	lead := max(0, at.Sub(issued).Hours()) / 24 // days
	measured := !at.After(issued)
	miss := 0.0 // forecast error in its standard deviations
	if !measured {
		miss = noise(seed^mix(uint64(issued.Unix()/3600)), 18, h)
	}

	season := math.Cos(2 * math.Pi * (float64(at.YearDay()) - 205) / 365.25)
	if lat < 0 {
		season = -season
	}
	mean := 27 - 0.33*math.Abs(lat) + 0.13*math.Abs(lat)*season
	front := noise(seed+1, 54, h) + 0.45*noise(seed+2, 8, h)
	cloud := 1 / (1 + math.Exp(-2.2*front))
	swing := (4.5 + 1.5*season) * (1 - 0.65*cloud)
	solarHour := math.Mod(h+lon/15, 24)
	temp := mean + 2.4*noise(seed+3, 90, h) + swing*math.Cos(2*math.Pi*(solarHour-15)/24) + miss*(0.5+0.25*lead)
	dew := mean - 5.2 + 2.6*cloud + 2*noise(seed+4, 70, h) + 0.4*miss
	rh := min(100, max(20, 100*air.SaturationPressure(dew)/air.SaturationPressure(temp)))
	wind := 3.4 * math.Exp(0.4*noise(seed+5, 30, h)+0.2*front+0.3*math.Cos(2*math.Pi*(solarHour-14)/24))
	rain := 0.0
	if wet := front + 0.3*noise(seed+6, 3, h) + 0.12*lead*miss; wet > 1.05 {
		rain = math.Round(10*2.4*(wet-1.05)) / 10
	}
	elevation, _ := sky.Sun(lat, lon, at)
	sun := math.Sin(max(0, elevation) * math.Pi / 180)
	// Clear sky by Haurwitz (1945), cloud factor by Kasten & Czeplak (1980).
	short := 0.0
	if sun > 0.01 {
		short = 1098 * sun * math.Exp(-0.057/sun) * (1 - 0.75*math.Pow(cloud, 3.4))
	}
	cloudPct := math.Round(100 * cloud)
	temp, rh, wind, short = math.Round(10*temp)/10, math.Round(rh), math.Round(10*wind)/10, math.Round(short)
	return weather.Hour{At: at, TempC: temp, RHPct: rh, WindMS: &wind, RainMM: &rain, CloudPct: &cloudPct, ShortwaveWM2: &short, Measured: measured}
}

// noise is smooth Gaussian-like noise of about unit variance whose knots are
// period hours apart.
func noise(seed uint64, period, h float64) float64 {
	k := math.Floor(h / period)
	f := h/period - k
	f = f * f * (3 - 2*f)
	a, b := gauss(seed, int64(k)), gauss(seed, int64(k)+1)
	return (a*(1-f) + b*f) / math.Sqrt(f*f+(1-f)*(1-f))
}

// gauss is a fixed draw from a normal distribution for every seed and k.
func gauss(seed uint64, k int64) float64 {
	x := mix(seed*0x9e3779b97f4a7c15 + uint64(k))
	y := mix(x)
	u := (float64(x>>11) + 0.5) / (1 << 53)
	v := float64(y>>11) / (1 << 53)
	return math.Sqrt(-2*math.Log(u)) * math.Cos(2*math.Pi*v)
}

// mix is the splitmix64 finalizer.
func mix(x uint64) uint64 {
	x += 0x9e3779b97f4a7c15
	x = (x ^ x>>30) * 0xbf58476d1ce4e5b9
	x = (x ^ x>>27) * 0x94d049bb133111eb
	return x ^ x>>31
}
