// Package instruments holds simulated stand-ins for outside devices and
// services.
package instruments

import (
	"math"
	"time"

	"allcoats/core/physics/psychrometrics"
	"allcoats/core/physics/solar"
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

// hourAt makes one hour. Amplitudes and periods are chosen to look like a maritime climate in
// middle latitudes; none is fitted to a real place. A forecast is of the last run before it was
// issued: its fronts pass early or late, its small showers are not those that come, and what it
// says of temperature, vapour, wind and cloud is off, the more the longer ahead.
func hourAt(seed uint64, lat, lon float64, at, issued time.Time) weather.Hour {
	h := float64(at.Unix()) / 3600
	measured := !at.After(issued)
	var off miss
	if !measured {
		run := issued.Truncate(runs)
		off = missed(seed^mix(uint64(run.Unix())), h, at.Sub(run).Hours()/24)
	}

	season := math.Cos(2 * math.Pi * (float64(at.YearDay()) - 205) / 365.25)
	if lat < 0 {
		season = -season
	}
	mean := 27 - 0.33*math.Abs(lat) + 0.13*math.Abs(lat)*season
	passes := h - off.lateH // of what passes over the place
	front := noise(seed+1, 54, passes) + 0.45*noise(seed+2, 8, passes)
	front = math.Sqrt(1-off.wrong*off.wrong)*front + off.wrong*off.front
	cloud := 1 / (1 + math.Exp(-2.2*front))
	swing := (4.5 + 1.5*season) * (1 - 0.65*cloud)
	solarHour := math.Mod(h+lon/15, 24)
	temp := mean + 2.4*noise(seed+3, 90, h) + swing*math.Cos(2*math.Pi*(solarHour-15)/24) + off.tempK
	dew := mean - 5.2 + 2.6*cloud + 2*noise(seed+4, 70, passes) + off.dewK
	rh := min(100, max(20, 100*psychrometrics.SaturationPressure(dew)/psychrometrics.SaturationPressure(temp)))
	wind := 3.4 * math.Exp(0.4*noise(seed+5, 30, passes)+0.2*front+0.3*math.Cos(2*math.Pi*(solarHour-14)/24)+
		off.windLog)
	rain := 0.0
	small := math.Sqrt(1-off.lost*off.lost)*noise(seed+6, 3, passes) + off.lost*off.small
	if wet := front + 0.3*small; wet > 1.05 {
		rain = math.Round(10*2.4*(wet-1.05)) / 10
	}
	elevation, _ := solar.Sun(lat, lon, at)
	sun := math.Sin(max(0, elevation) * math.Pi / 180)
	// Clear sky by Haurwitz (1945), cloud factor by Kasten & Czeplak (1980).
	short := 0.0
	if sun > 0.01 {
		short = 1098 * sun * math.Exp(-0.057/sun) * (1 - 0.75*math.Pow(cloud, 3.4))
	}
	cloudPct := math.Round(100 * cloud)
	temp, rh, wind, short = math.Round(10*temp)/10, math.Round(rh), math.Round(10*wind)/10, math.Round(short)
	return weather.Hour{At: at, TempC: temp, RHPct: rh, WindMS: &wind, RainMM: &rain, CloudPct: &cloudPct,
		ShortwaveWM2: &short, Measured: measured}
}

// runs is how often the service makes a new forecast.
const runs = 6 * time.Hour

// miss is by how much a forecast is off at an hour. wrong and lost are how much of the fronts and of
// the small showers it has not caught, 0 to 1; front and small are those it has in their place.
type miss struct{ lateH, wrong, front, tempK, dewK, windLog, lost, small float64 }

// missed is that of a run so many days ahead.
func missed(run uint64, h, lead float64) miss {
	return miss{
		lateH:   noise(run+1, 30, h) * min(0.8+0.9*lead, 7),
		wrong:   min(0.22+0.06*lead, 0.6),
		front:   1.1 * noise(run+2, 12, h),
		tempK:   noise(run+3, 20, h) * min(0.7+0.22*lead, 2.4),
		dewK:    noise(run+4, 20, h) * min(0.6+0.2*lead, 2.2),
		windLog: noise(run+5, 14, h) * min(0.15+0.04*lead, 0.4),
		lost:    min(0.4+0.15*lead, 1),
		small:   noise(run+6, 3, h),
	}
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
