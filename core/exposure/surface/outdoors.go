package surface

import (
	"math"
	"slices"
	"time"

	"allcoats/core/physics/psychrometrics"
	"allcoats/core/physics/solar"
	"allcoats/core/physics/weather"
)

// What is used where the record is silent: rules of thumb.
const (
	unknownWind  = 2.0 // m/s
	unknownCloud = 0.5
	stillAir     = 0.3 // m/s, under a roof
)

// Conditions are a weather record with the sun, made once for all surfaces of
// a place. All lists have one value for each record.
type Conditions struct {
	At  []time.Time
	atS []float64 // since the first, s
	// AirC, SkyC and InsideC are temperatures, °C; InsideC, of the air inside a
	// closed boat, is the mean of the day before, a rule of thumb.
	AirC, SkyC, InsideC []float64
	VapourHPa, DewC     []float64
	WindMS, RainMM      []float64
	sun                 []sun
	// roofLight is the light under a roof, nil in the open.
	roofLight []float64
	steps     steps // in which faces are followed over them
	// followed are the faces that were followed over them.
	followed *followed
}

// sun is the light of a record with where the sun stands, on which day of the year; below the
// horizon there is none.
type sun struct {
	at        solar.Direction
	elevation float64
	day       int
	light     solar.Light
}

// shines sets the light of a record.
func (s *sun) shines(h weather.Hour, cloud float64) {
	switch {
	case s.elevation <= 0:
	case h.ShortwaveWM2 != nil:
		s.light = solar.Split(*h.ShortwaveWM2, s.elevation, s.day)
	default:
		s.light = solar.Clouded(s.elevation, s.day, cloud)
	}
}

// cloud is the cover of a record, 0…1.
func cloud(h weather.Hour) float64 {
	if h.CloudPct == nil {
		return unknownCloud
	}
	return *h.CloudPct / 100
}

// Outdoors prepares a record for the surfaces of a place.
func Outdoors(lat, lon float64, s weather.Series) Conditions {
	n := len(s)
	c := Conditions{
		At: make([]time.Time, n), atS: make([]float64, n),
		AirC: make([]float64, n), SkyC: make([]float64, n), InsideC: make([]float64, n),
		VapourHPa: make([]float64, n), DewC: make([]float64, n), WindMS: make([]float64, n), RainMM: make([]float64, n),
		sun: make([]sun, n), steps: usual, followed: &followed{},
	}
	first, sum := 0, 0.0
	for i, h := range s {
		c.At[i], c.AirC[i], c.VapourHPa[i] = h.At, h.TempC, psychrometrics.VapourPressure(h.TempC, h.RHPct)
		c.atS[i], c.DewC[i] = h.At.Sub(s[0].At).Seconds(), h.DewPointC()
		c.SkyC[i] = solar.Temperature(h.TempC, c.DewC[i], cloud(h))
		c.WindMS[i] = unknownWind
		if h.WindMS != nil {
			c.WindMS[i] = *h.WindMS
		}
		if h.RainMM != nil {
			c.RainMM[i] = *h.RainMM
		}
		sum += h.TempC
		for h.At.Sub(s[first].At) > 24*time.Hour {
			sum -= s[first].TempC
			first++
		}
		c.InsideC[i] = sum / float64(i-first+1)
		el, az := solar.Sun(lat, lon, h.At)
		if el > 0 {
			c.sun[i] = sun{at: solar.Toward(el, az), elevation: el, day: h.At.YearDay()}
			c.sun[i].shines(h, cloud(h))
		}
	}
	return c
}

// Global returns the light on level ground at record i, W/m².
func (c Conditions) Global(i int) float64 { return c.sun[i].light.Global }

// Under returns c under a roof where the air is as given and light falls on
// every surface, W/m²; without light it is dark.
func (c Conditions) Under(s weather.Series, light []float64) Conditions {
	n := len(c.At)
	c.AirC, c.VapourHPa, c.DewC = make([]float64, n), make([]float64, n), make([]float64, n)
	for i, h := range s {
		c.AirC[i], c.VapourHPa[i], c.DewC[i] = h.TempC, psychrometrics.VapourPressure(h.TempC, h.RHPct), h.DewPointC()
	}
	c.SkyC, c.InsideC, c.followed = c.AirC, c.AirC, &followed{}
	c.RainMM, c.WindMS, c.roofLight = make([]float64, n), make([]float64, n), light
	for i := range c.WindMS {
		c.WindMS[i] = stillAir
	}
	return c
}

// Light returns the light on the face at every record, W/m². The ground under
// a hull lies in her shade: faces that look down get less of its light, down to
// a third, a rule of thumb.
func (c Conditions) Light(f Face) []float64 {
	if c.roofLight != nil {
		return c.roofLight
	}
	out := make([]float64, len(c.At))
	if f.Roofed {
		return out
	}
	albedo := solar.Albedo
	if f.TiltDeg > 90 {
		albedo *= 1 - (f.TiltDeg-90)/90*2/3
	}
	planes := make([]solar.Direction, len(f.AzimuthDeg))
	for i, a := range f.AzimuthDeg {
		planes[i] = solar.Facing(f.TiltDeg, a)
	}
	for i, s := range c.sun {
		if s.light.Global <= 0 {
			continue
		}
		for _, p := range planes {
			out[i] += s.light.On(s.at, p, albedo).Total() / float64(len(planes))
		}
	}
	return out
}

// skyView is the share of sky in what a plane of tilt faces.
func skyView(tiltDeg float64) float64 { return (1 + math.Cos(tiltDeg*math.Pi/180)) / 2 }

// With returns c for one of many courses of the air over the same instants, in which faces are followed less finely.
// What is inside a closed boat stays.
func (c Conditions) With(s weather.Series) Conditions {
	n := len(c.At)
	out := Conditions{At: c.At, atS: c.atS, AirC: make([]float64, n), SkyC: make([]float64, n), InsideC: c.InsideC,
		VapourHPa: make([]float64, n), DewC: make([]float64, n),
		WindMS: make([]float64, n), RainMM: make([]float64, n), sun: slices.Clone(c.sun),
		steps: ofFutures, followed: &followed{}}
	for i, h := range s {
		out.AirC[i], out.VapourHPa[i], out.DewC[i] = h.TempC, psychrometrics.VapourPressure(h.TempC, h.RHPct),
			h.DewPointC()
		out.SkyC[i] = solar.Temperature(h.TempC, out.DewC[i], cloud(h))
		out.WindMS[i] = unknownWind
		if h.WindMS != nil {
			out.WindMS[i] = *h.WindMS
		}
		if h.RainMM != nil {
			out.RainMM[i] = *h.RainMM
		}
		out.sun[i].shines(h, cloud(h))
	}
	return out
}
