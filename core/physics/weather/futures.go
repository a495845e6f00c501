package weather

import (
	"math"
	"math/rand/v2"
	"time"
)

// Futures makes courses that the weather may take: the measured record until
// now, the forecast with an error that grows with its lead, then the climate of
// the place. The figures of the errors are rules of thumb.
type Futures struct {
	now     time.Time
	loc     *time.Location
	normals Normals
	frame   Series
	first   int // the first hour after now
	known   int // the first hour beyond the forecast
}

// NewFutures prepares futures from a day before now to ahead after it.
func NewFutures(s Series, now time.Time, ahead time.Duration, n Normals, loc *time.Location) Futures {
	f := Futures{now: now, loc: loc, normals: n}
	known := time.Time{}
	for at := now.Add(-24 * time.Hour).Truncate(time.Hour); !at.After(now.Add(ahead)); at = at.Add(time.Hour) {
		h, ok := s.At(at)
		if ok {
			known = at
		} else {
			h = n.At(at, loc)
		}
		h.At = at
		if !at.After(now) {
			f.first = len(f.frame) + 1
		}
		f.frame = append(f.frame, h)
	}
	f.known = len(f.frame)
	for i, h := range f.frame {
		if h.At.After(known) && i >= f.first {
			f.known = i
			break
		}
	}
	return f
}

// Frame is the course without error: what was measured, the forecast, and the
// usual weather beyond.
func (f Futures) Frame() Series { return f.frame }

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
	if f.first >= len(out) {
		return out
	}
	rest := make([]float64, 2*(len(out)-f.first))
	d := draw{f: &f, seed: seed, k: k, day: -1}
	for at := out[f.first].At.Add(-spinUpH * time.Hour); at.Before(out[f.first].At); at = at.Add(time.Hour) {
		d.next(at)
	}
	for i := f.first; i < len(out); i++ {
		wind, rain := &rest[2*(i-f.first)], &rest[2*(i-f.first)+1]
		f.vary(&out[i], i, d.next(out[i].At), wind, rain)
	}
	return out
}

// vary puts the errors of an hour on it.
func (f *Futures) vary(h *Hour, i int, z drawnHour, wind, rain *float64) {
	lead := h.At.Sub(f.now).Hours() / 24
	m := f.normals[h.At.In(f.loc).Month()-1]
	sigma := min(1+0.2*lead, 2.8)
	h.TempC += sigma * z.temp
	h.RHPct = max(15, min(100, h.RHPct+min(4+lead, 12)*(0.87*z.damp-0.5*z.temp)))
	*wind = 3
	if h.WindMS != nil {
		*wind = *h.WindMS
	}
	*wind *= math.Exp(min(0.15+0.04*lead, 0.45) * z.gust)
	p := 0.0
	switch usual := m.WetDayPct / 100 * wetHourPct / 100; {
	case i >= f.known && z.wetDay:
		p = wetHourPct / 100.0
	case i >= f.known:
	case h.RainMM != nil && *h.RainMM > 0:
		p = max(usual, 0.92-0.07*lead)
		*rain = *h.RainMM
	default:
		p = usual * min(1, 0.1+lead/8)
	}
	if z.rain < quantile(p) {
		*rain = max(*rain, 0.5)
	} else {
		*rain = 0
	}
	h.WindMS, h.RainMM, h.Measured = wind, rain, false
}

// draw draws a course hour by hour, each day from its own seed.
type draw struct {
	f                       *Futures
	seed, k                 uint64
	r                       *rand.Rand
	day                     int64
	wetDay                  bool
	temp, damp, gust, shift latent
}

// drawnHour are the normal variables of an hour, and whether its day is wet.
type drawnHour struct {
	temp, damp, gust, rain float64
	wetDay                 bool
}

func (d *draw) next(at time.Time) drawnHour {
	if day := at.Unix() / 86400; day != d.day {
		d.day = day
		d.r = rand.New(rand.NewPCG(d.seed<<32^d.k, uint64(day)))
		m := d.f.normals[at.In(d.f.loc).Month()-1]
		p := m.WetDayPct / 100
		if d.wetDay {
			p = m.WetAfterWetPct / 100
		} else if m.WetDayPct < 100 {
			// What keeps the share of wet days with that persistence.
			p = m.WetDayPct * (100 - m.WetAfterWetPct) / (100 - m.WetDayPct) / 100
		}
		d.wetDay = d.r.Float64() < p
	}
	return drawnHour{d.temp.next(d.r, 24), d.damp.next(d.r, 24), d.gust.next(d.r, 12), d.shift.next(d.r, 3), d.wetDay}
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
		m := f.normals[l.Month()-1]
		warm := quantile(turn(day, 0.6180339887))
		wind, rain := 3.0, 0.0
		if h.WindMS != nil {
			wind = *h.WindMS
		}
		h.TempC += usualSpreadK * warm
		h.RHPct = max(15, min(100, h.RHPct-usualSpreadPct*warm))
		// A wet day has its rain in one stretch, at another hour each time.
		if hours := wetHourPct / 100.0 * 24; turn(day, 0.4142135624) < m.WetDayPct/100 {
			from := turn(day, 0.7320508076) * 24
			if since := math.Mod(float64(l.Hour())-from+24, 24); since < hours {
				rain = 0.5
			}
		}
		h.WindMS, h.RainMM, h.Measured = &wind, &rain, false
	}
	return out
}

// How far usual days lie about the mean of their month: rules of thumb.
const usualSpreadK, usualSpreadPct = 2.5, 6

// turn is a share, over 0 and under 1, that takes its turns evenly over the days.
func turn(day int64, step float64) float64 {
	_, part := math.Modf(float64(day) * step)
	return min(0.995, max(0.005, part))
}

// latent is a normal variable with memory.
type latent struct {
	z   float64
	set bool
}

// next takes it an hour on, with a memory of so many hours.
func (l *latent) next(r *rand.Rand, memory float64) float64 {
	if !l.set {
		l.z, l.set = r.NormFloat64(), true
		return l.z
	}
	phi := math.Exp(-1 / memory)
	l.z = phi*l.z + math.Sqrt(1-phi*phi)*r.NormFloat64()
	return l.z
}

// quantile is the normal variable below which a share p lies.
func quantile(p float64) float64 { return math.Sqrt2 * math.Erfinv(2*p-1) }
