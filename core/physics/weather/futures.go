package weather

import (
	"math"
	"slices"
	"time"

	"allcoats/core/physics/psychrometrics"
	"allcoats/core/physics/solar"
)

// Futures makes courses that the weather may take: the measured record until now, the forecast
// with the errors of the place's forecasts, then the climate of the place. Rain is moved, stretched,
// left out and added by whole showers; there are clouds where it falls, and damp air. Errors set
// out from nothing where the last hour was measured.
type Futures struct {
	now      time.Time
	loc      *time.Location
	normals  Normals
	errors   Errors
	frame    Series
	base     []baseHour
	showers  []shower
	first    int // the first hour after now
	known    int // the first hour beyond the forecast
	measured bool
}

// baseHour is what of an hour of the frame does not change from one future to the next. dry are the
// dew point and the cloud where no rain falls, beyond the forecast lower than their means, which hold rain too.
type baseHour struct {
	dewC, cloudPct, wind float64
	dry                  damp
	// What of a forecast's departure from the usual holds on the mean, 0 to 1: of it, too, some is error.
	usualC, usualDewC, tempHolds, dewHolds float64
	cos                                    float64 // of the hour of the day: 1 when it is warmest
	month                                  Normal
}

// damp is what an air mass brings: its dew point, °C, and cloud, %.
type damp struct{ dewC, cloudPct float64 }

// Habits are what is known of the weather of a place: its usual weather, and how far its forecasts
// are from what comes, UsualErrors if nothing is said.
type Habits struct {
	Normals Normals
	Errors  Errors
	Loc     *time.Location
}

// NewFutures prepares futures from a day before now to ahead after it.
func NewFutures(s Series, now time.Time, ahead time.Duration, p Habits) Futures {
	n, loc := p.Normals, p.Loc
	f := Futures{now: now, loc: loc, normals: n, errors: p.Errors}
	if f.errors == (Errors{}) {
		f.errors = UsualErrors
	}
	known := -1
	for at := now.Add(-24 * time.Hour).Truncate(time.Hour); !at.After(now.Add(ahead)); at = at.Add(time.Hour) {
		h, ok := s.At(at)
		if ok {
			known = len(f.frame)
		} else {
			h = n.At(at, loc)
		}
		h.At = at
		if !at.After(now) {
			f.first = len(f.frame) + 1
		}
		f.frame = append(f.frame, h)
	}
	f.known = min(len(f.frame), max(f.first, known+1))
	f.measured = f.first > 0 && f.first <= len(f.frame) && f.frame[f.first-1].Measured
	f.settle()
	for i, h := range f.frame {
		b := f.baseOf(h, i < f.known)
		b.tempHolds, b.dewHolds = f.holds(b.month, i, f.errors.TempK, tempMemoryH),
			f.holds(b.month, i, f.errors.DewPointK, dewMemoryH)
		f.base = append(f.base, b)
	}
	f.showers = f.frame.showers(f.first, f.known)
	return f
}

// settleH is how long after its end the weather of the forecast takes to become the usual, h.
const settleH = 36

// settle lets what the last day of the forecast is off the usual die away beyond it.
func (f *Futures) settle() {
	temp, damp, n := 0.0, 0.0, 0.0
	for i := max(0, f.known-24); i < f.known; i++ {
		usual := f.normals.At(f.frame[i].At, f.loc)
		temp += f.frame[i].TempC - usual.TempC
		damp += f.frame[i].DewPointC() - usual.DewPointC()
		n++
	}
	if f.known <= f.first || n == 0 {
		return
	}
	for i := f.known; i < len(f.frame); i++ {
		h, left := &f.frame[i], math.Exp(-float64(i-f.known+1)/settleH)/n
		dew := h.DewPointC() + damp*left
		h.TempC += temp * left
		h.RHPct = humidity(h.TempC, dew)
	}
}

// holds is the share of a forecast's departure from the usual that comes on the mean, where the days of the
// place spread as they do and the forecast errs by e: S²/(S² + e²), least squares.
func (f *Futures) holds(m Normal, i int, e Growth, memoryH float64) float64 {
	lead := max(0, f.lead(i))
	off := e.At(lead)
	if f.measured { // it sets out from what is
		off *= math.Sqrt(1 - math.Exp(-2*24*lead/memoryH))
	}
	s := m.spread()
	return s * s / (s*s + off*off)
}

// humidity is that of air of a temperature and dew point, °C, %.
func humidity(tempC, dewC float64) float64 {
	return max(15, min(100, 100*psychrometrics.SaturationPressure(dewC)/psychrometrics.SaturationPressure(tempC)))
}

func (f *Futures) baseOf(h Hour, forecast bool) baseHour {
	l := h.At.In(f.loc)
	b := baseHour{dewC: h.DewPointC(), wind: 3, month: f.normals.On(l)}
	b.cloudPct = b.month.CloudPct
	if h.CloudPct != nil {
		b.cloudPct = *h.CloudPct
	}
	if h.WindMS != nil {
		b.wind = *h.WindMS
	}
	usual := f.normals.At(h.At, f.loc)
	b.usualC, b.usualDewC = usual.TempC, usual.DewPointC()
	b.cos = math.Cos(2 * math.Pi * (float64(l.Hour()) - warmest) / 24)
	b.dry = damp{b.dewC, b.cloudPct}
	if w := b.month.wetShare(); !forecast && w < 1 {
		without := func(mean, wet float64) float64 { return max(0, (mean-w*max(mean, wet))/(1-w)) }
		b.dry = damp{h.DewPointC() + math.Log(max(0.5, without(b.month.RHPct, wetRH)/max(1, b.month.RHPct)))/vapourPerK,
			without(b.cloudPct, wetCloudMean)}
	}
	return b
}

// Frame is the course without error: what was measured, the forecast, and the
// usual weather beyond.
func (f Futures) Frame() Series { return f.frame }

// Later is the forecast that would be issued some time after now if the weather took a course: the course
// until then, and off by what forecasts are after it. The same seed and k give the same one; it has the hours of Frame.
func (f Futures) Later(course Series, after time.Duration, seed, k uint64) Series {
	if len(course) == 0 {
		return course
	}
	course = slices.Clone(course)
	at := f.now.Add(after)
	for i := range course {
		course[i].Measured = !course[i].At.After(at)
	}
	next := NewFutures(course, at, course[len(course)-1].At.Sub(at), Habits{f.normals, f.errors, f.loc})
	out := course[:0:0]
	for _, h := range course {
		if h.At.Before(next.frame[0].At) {
			out = append(out, h)
		}
	}
	return append(out, next.Make(seed+1, k, nil)...)
}

// Known is the end of the forecast.
func (f Futures) Known() time.Time {
	if f.known == 0 || len(f.frame) == 0 {
		return f.now
	}
	return f.frame[f.known-1].At
}

// spinUpH is how long before now what is drawn begins, so that it does not depend on now, h.
const spinUpH = 10 * 24

// Make returns future k of a seed; the same two give the same course. What is drawn hangs on
// the day of the calendar: tomorrow's futures go on as today's do. room, if it has the
// capacity, is used for it.
func (f Futures) Make(seed, k uint64, room Series) Series {
	out := append(room[:0], f.frame...)
	n := len(out) - f.first
	if n <= 0 {
		return out
	}
	d := draw{f: &f, seed: seed, k: k, day: -1}
	for at := out[f.first].At.Add(-spinUpH * time.Hour); at.Before(out[f.first].At); at = at.Add(time.Hour) {
		d.next(at)
	}
	if f.measured {
		d.set()
	}
	drawn := make([]drawnHour, n)
	for i := range drawn {
		drawn[i] = d.next(out[f.first+i].At)
	}
	rest := make([]float64, 4*n)
	rain := rest[3*n:]
	f.rain(rain, drawn)
	for i := range drawn {
		drawn[i].wet = rain[i] > 0
		f.vary(&out[f.first+i], f.first+i, drawn[i], rest[3*i:3*i+3])
		out[f.first+i].RainMM = &rain[i]
	}
	return out
}

// lead is that of an hour of the frame, days.
func (f *Futures) lead(i int) float64 { return f.frame[i].At.Sub(f.now).Hours() / 24 }

// cloudK is by how much a full cover of cloud damps the swing of a day, K: a rule of thumb.
const cloudK = 2.5

// vary puts the errors of an hour on it; rest has room for its wind, cloud and light.
func (f *Futures) vary(h *Hour, i int, z drawnHour, rest []float64) {
	e, lead, b := &f.errors, f.lead(i), &f.base[i]
	air := b.dry
	temp, vapour := e.TempK.At(lead)*z.temp, e.DewPointK.At(lead)*z.damp
	spread := e.CloudPct.At(lead)
	if i < f.known { // fronts come earlier or later, with their air and cloud
		j := min(f.known-1, max(0, i-int(math.Round(e.ShiftH.At(lead)*z.shift))))
		air = f.base[j].dry
		temp = temp*math.Sqrt(b.tempHolds) - (1-b.tempHolds)*(h.TempC-b.usualC)
		vapour = vapour*math.Sqrt(b.dewHolds) - (1-b.dewHolds)*(air.dewC-b.usualDewC)
	} else {
		part := math.Exp(-float64(i-f.known+1) / settleH)
		slow := math.Sqrt(1 - part*part)
		temp, vapour = temp*part+b.month.spread()*slow*z.season, vapour*part+
			b.month.spread()*slow*(0.8*z.season+0.6*z.damp)
	}
	cloud := max(0, min(100, air.cloudPct+spread*z.cloud))
	switch {
	case z.wet:
		cloud = max(cloud, wetCloud)
	case z.failed:
		cloud = max(0, cloud-brokenPct)
	}
	h.TempC += temp - cloudK*(cloud-b.cloudPct)/100*b.cos
	h.RHPct = humidity(h.TempC, air.dewC+vapour)
	switch {
	case z.wet:
		h.RHPct = max(h.RHPct, wetFloorRH)
	case z.failed:
		h.RHPct = min(h.RHPct, wetFloorRH)
	}
	gust := e.WindLog.At(lead)
	rest[0], rest[1] = b.wind*math.Exp(gust*z.gust-gust*gust/2), cloud // of which the mean stays
	h.WindMS, h.CloudPct, h.Measured = &rest[0], &rest[1], false
	if h.ShortwaveWM2 != nil {
		rest[2] = *h.ShortwaveWM2 * solar.CloudFactor(cloud/100) / solar.CloudFactor(b.cloudPct/100)
		h.ShortwaveWM2 = &rest[2]
	}
}

// Usual is the forecast as it is and, beyond it, days as the place has them, warm and cold,
// wet and dry in turn: as many of each as its climate has, spread evenly over the calendar.
// The same day is always the same.
func (f Futures) Usual() Series {
	out := append(Series(nil), f.frame...)
	for i := f.known; i < len(out); i++ {
		h := &out[i]
		l := h.At.In(f.loc)
		day := time.Date(l.Year(), l.Month(), l.Day(), 0, 0, 0, 0, time.UTC).Unix() / 86400
		m := f.normals.On(l)
		warm := quantile(turn(day, 0.6180339887))
		wind, rain := 3.0, 0.0
		if h.WindMS != nil {
			wind = *h.WindMS
		}
		h.TempC += m.spread() * 0.9 * warm
		h.RHPct = max(15, min(100, h.RHPct-usualSpreadPct*warm))
		// A wet day has its rain in one stretch, at another hour each time.
		if hours := m.wetHours() / 100 * 24; turn(day, 0.4142135624) < m.WetDayPct/100 {
			from := turn(day, 0.7320508076) * 24
			if since := math.Mod(float64(l.Hour())-from+24, 24); since < hours {
				rain = 0.5
			}
		}
		h.WindMS, h.RainMM, h.Measured = &wind, &rain, false
	}
	return out
}

// usualSpreadPct is how far the humidity of usual days lies about the mean of their month: a rule
// of thumb.
const usualSpreadPct = 6

// turn is a share, over 0 and under 1, that takes its turns evenly over the days.
func turn(day int64, step float64) float64 {
	_, part := math.Modf(float64(day) * step)
	return min(0.995, max(0.005, part))
}
