// Package reading deals with what instruments show: thinning for drawing,
// hourly means, faults, and what their departure from a model says of the hours
// ahead.
package reading

import (
	"math"
	"sort"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/physics/psychrometrics"
	"allcoats/core/physics/weather"
)

// Kind is what an instrument measures.
type Kind string

// Kinds of instrument.
const (
	InOpen    Kind = "air"     // temperature and humidity in the open
	InTent    Kind = "tent"    // temperature and humidity in the tent
	OnSurface Kind = "surface" // a probe on a surface
	Spot      Kind = "spot"    // a surface now and then, by infra-red
)

// Kinds lists them with their names.
var Kinds = []struct {
	Kind Kind   `json:"kind"`
	Name string `json:"name"`
	// Surface says that it sits on a surface, Humidity that it measures it.
	Surface  bool `json:"surface"`
	Humidity bool `json:"humidity"`
}{
	{InOpen, "logger in the open, in the shade", false, true}, {InTent, "logger in the tent", false, true},
	{OnSurface, "probe on a surface", true, false}, {Spot, "spot readings by infra-red", true, false},
	{Scale, "scale at the bench", false, false}, {Gauge, "film gauge", false, false},
}

// Reading is what an instrument showed. What it does not measure, or missed, is NaN.
type Reading struct {
	At    time.Time
	TempC float64
	RHPct float64
}

// Validate reports figures that no instrument shows.
func (r Reading) Validate() error {
	var bad fielderr.Errors
	if math.IsNaN(r.TempC) && math.IsNaN(r.RHPct) {
		bad.Add("tempC", "there is neither a temperature nor a humidity")
	}
	if !math.IsNaN(r.TempC) {
		bad.Range("tempC", r.TempC, -60, 120, "°C")
	}
	if !math.IsNaN(r.RHPct) {
		bad.Range("rhPct", r.RHPct, 0, 105, "%")
	}
	return bad.Err()
}

// Extremes are the readings of a stretch: least, mean and most, NaN where there
// are none.
type Extremes struct {
	At              time.Time
	N               int
	MinC, MeanC     float64
	MaxC            float64
	MinRH, MeanRH   float64
	MaxRH           float64
	sumC, sumRH     float64
	countC, countRH int
}

// Thin sums readings up in n stretches of equal length between from and to. No
// extreme is lost; stretches without readings are left out.
func Thin(rs []Reading, from, to time.Time, n int) []Extremes {
	if n < 1 || !from.Before(to) {
		return nil
	}
	step := max(to.Sub(from)/time.Duration(n), 1)
	out := make([]Extremes, 0, n)
	last := -1
	for _, r := range rs {
		if r.At.Before(from) || r.At.After(to) {
			continue
		}
		k := min(n-1, int(r.At.Sub(from)/step))
		if k != last {
			out = append(out, Extremes{At: from.Add(time.Duration(k)*step + step/2), MinC: math.Inf(1),
				MaxC: math.Inf(-1), MinRH: math.Inf(1), MaxRH: math.Inf(-1)})
			last = k
		}
		e := &out[len(out)-1]
		e.N++
		if !math.IsNaN(r.TempC) {
			e.MinC, e.MaxC, e.sumC, e.countC = min(e.MinC, r.TempC), max(e.MaxC, r.TempC), e.sumC+r.TempC, e.countC+1
		}
		if !math.IsNaN(r.RHPct) {
			e.MinRH, e.MaxRH, e.sumRH, e.countRH = min(e.MinRH, r.RHPct), max(e.MaxRH, r.RHPct), e.sumRH+r.RHPct,
				e.countRH+1
		}
	}
	for i := range out {
		e := &out[i]
		if e.MeanC = e.sumC / float64(e.countC); e.countC == 0 {
			e.MinC, e.MaxC = math.NaN(), math.NaN()
		}
		if e.MeanRH = e.sumRH / float64(e.countRH); e.countRH == 0 {
			e.MinRH, e.MaxRH = math.NaN(), math.NaN()
		}
	}
	return out
}

// Hourly returns the means of the readings within half an hour of every whole
// hour that has any.
func Hourly(rs []Reading) []Reading {
	var out []Reading
	for i := 0; i < len(rs); {
		hour := rs[i].At.Add(30 * time.Minute).Truncate(time.Hour)
		var c, rh float64
		var nc, nrh float64
		for ; i < len(rs) && rs[i].At.Before(hour.Add(30*time.Minute)); i++ {
			if !math.IsNaN(rs[i].TempC) {
				c, nc = c+rs[i].TempC, nc+1
			}
			if !math.IsNaN(rs[i].RHPct) {
				rh, nrh = rh+rs[i].RHPct, nrh+1
			}
		}
		out = append(out, Reading{hour, c / nc, rh / nrh})
	}
	return out
}

// Departure is how far readings were from a model: at each hour of the day in
// the mean of the last days, and last seen.
type Departure struct {
	byHour [24]float64
	loc    *time.Location
	lastAt time.Time
	last   float64
	// N is how many hours it was learned from.
	N int
}

// Residual is a reading less the model at an instant, K.
type Residual struct {
	At time.Time
	K  float64
}

// How a departure is learned: from so many days, each hour of the day drawn to
// zero as by so many hours that showed none, and what was last seen fading with
// so many hours. Rules of thumb.
const (
	learnDays = 7
	shrinkN   = 3
	fadeH     = 6
)

// Learn learns from residuals, an hour apart, of the days before now.
func Learn(rs []Residual, now time.Time, loc *time.Location) Departure {
	d := Departure{loc: loc}
	var n [24]float64
	for _, r := range rs {
		if r.At.After(now) || now.Sub(r.At) > learnDays*24*time.Hour {
			continue
		}
		h := r.At.In(loc).Hour()
		d.byHour[h] += r.K
		n[h]++
		d.N++
		d.lastAt, d.last = r.At, r.K
	}
	for h := range d.byHour {
		d.byHour[h] /= n[h] + shrinkN
	}
	return d
}

// At returns what to add to the model at t, after the last residual.
func (d Departure) At(t time.Time) float64 {
	if d.N == 0 {
		return 0
	}
	hour := func(t time.Time) float64 { return d.byHour[t.In(d.loc).Hour()] }
	return hour(t) + (d.last-hour(d.lastAt))*math.Exp(-t.Sub(d.lastAt).Hours()/fadeH)
}

// Adjust lays readings over a model, one value an instant: where readings are
// no more than weather.MaxGap apart it goes through them, after the last it adds
// their departure, before the first and in gaps it keeps the model. rs are
// hourly means.
func Adjust(at []time.Time, model []float64, rs []Reading, value func(Reading) float64, now time.Time,
	loc *time.Location) ([]float64, []bool, Departure) {
	out := append([]float64(nil), model...)
	covered := make([]bool, len(at))
	var res []Residual
	for _, r := range rs {
		v := value(r)
		i := sort.Search(len(at), func(i int) bool { return at[i].After(r.At) }) - 1
		if math.IsNaN(v) || i < 0 || r.At.After(now) {
			continue
		}
		m := model[i]
		if i+1 < len(at) && at[i+1].Sub(at[i]) <= weather.MaxGap {
			m += (model[i+1] - model[i]) * float64(r.At.Sub(at[i])) / float64(at[i+1].Sub(at[i]))
		} else if !at[i].Equal(r.At) {
			continue
		}
		res = append(res, Residual{r.At, v - m})
	}
	d := Learn(res, now, loc)
	if len(res) == 0 {
		return out, covered, d
	}
	k := 0
	for i, t := range at {
		for k < len(res) && res[k].At.Before(t) {
			k++
		}
		switch {
		case k < len(res) && res[k].At.Equal(t):
			out[i] += res[k].K
			covered[i] = true
		case k == len(res):
			if d.N > 0 {
				out[i] += d.At(t)
			}
			covered[i] = t.Sub(res[k-1].At) < time.Hour && !t.After(now)
		case k > 0 && res[k].At.Sub(res[k-1].At) <= weather.MaxGap:
			f := float64(t.Sub(res[k-1].At)) / float64(res[k].At.Sub(res[k-1].At))
			out[i] += res[k-1].K + f*(res[k].K-res[k-1].K)
			covered[i] = true
		}
	}
	return out, covered, d
}

// Air lays the readings of a logger in the open over a record of the air:
// temperature and dew point. What was covered counts as measured.
func Air(s weather.Series, rs []Reading, now time.Time, loc *time.Location) (weather.Series, Departure) {
	rs = Hourly(rs)
	at, temp, dew := make([]time.Time, len(s)), make([]float64, len(s)), make([]float64, len(s))
	for i, h := range s {
		at[i], temp[i], dew[i] = h.At, h.TempC, h.DewPointC()
	}
	t, covered, d := Adjust(at, temp, rs, func(r Reading) float64 { return r.TempC }, now, loc)
	td, _, _ := Adjust(at, dew, rs, func(r Reading) float64 {
		if math.IsNaN(r.TempC) || !(r.RHPct > 0) {
			return math.NaN()
		}
		return psychrometrics.DewPoint(r.TempC, min(100, r.RHPct))
	}, now, loc)
	out := append(weather.Series(nil), s...)
	for i := range out {
		out[i].TempC = t[i]
		out[i].RHPct = max(1, min(100, psychrometrics.HumidityAt(psychrometrics.SaturationPressure(td[i]), t[i])))
		out[i].Measured = out[i].Measured || covered[i]
	}
	return out, d
}
