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

// Make returns future k of a seed; the same two give the same course. room, if
// it has the capacity, is used for it.
func (f Futures) Make(seed, k uint64, room Series) Series {
	r := rand.New(rand.NewPCG(seed, k))
	out := append(room[:0], f.frame...)
	rest := make([]float64, 2*(len(out)-f.first))
	var temp, damp, gust, wet latent
	wetDay, day := false, -1
	for i := f.first; i < len(out); i++ {
		h := &out[i]
		lead := h.At.Sub(f.now).Hours() / 24
		l := h.At.In(f.loc)
		m := f.normals[l.Month()-1]
		zt, zh := temp.next(r, 24), damp.next(r, 24)
		zw, zr := gust.next(r, 12), wet.next(r, 3)
		sigma := min(1+0.2*lead, 2.8)
		h.TempC += sigma * zt
		h.RHPct = max(15, min(100, h.RHPct+min(4+lead, 12)*(0.87*zh-0.5*zt)))
		wind, rain := &rest[2*(i-f.first)], &rest[2*(i-f.first)+1]
		*wind = 3
		if h.WindMS != nil {
			*wind = *h.WindMS
		}
		*wind *= math.Exp(min(0.15+0.04*lead, 0.45) * zw)
		p := 0.0
		if i >= f.known {
			if l.YearDay() != day {
				day = l.YearDay()
				p := m.WetDayPct / 100
				if wetDay {
					p = m.WetAfterWetPct / 100
				} else if m.WetDayPct < 100 {
					// What keeps the share of wet days with that persistence.
					p = m.WetDayPct * (100 - m.WetAfterWetPct) / (100 - m.WetDayPct) / 100
				}
				wetDay = r.Float64() < p
			}
			if wetDay {
				p = wetHourPct / 100.0
			}
		} else {
			usual := m.WetDayPct / 100 * wetHourPct / 100
			if h.RainMM != nil && *h.RainMM > 0 {
				p = max(usual, 0.92-0.07*lead)
				*rain = *h.RainMM
			} else {
				p = usual * min(1, 0.1+lead/8)
			}
		}
		if zr < quantile(p) {
			*rain = max(*rain, 0.5)
		} else {
			*rain = 0
		}
		h.WindMS, h.RainMM, h.Measured = wind, rain, false
	}
	return out
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
