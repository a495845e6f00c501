package weather

import (
	"hash/fnv"
	"math"
	"math/rand/v2"
	"time"
)

// draw draws a course hour by hour, each day from its own seed.
type draw struct {
	f                                      *Futures
	seed, k                                uint64
	r                                      *rand.Rand
	day                                    int64
	wetDay                                 bool
	wetAt                                  int // hour of the day at which its rain begins
	temp, damp, gust, cloud, shift, season latent
}

// drawnHour are the normal variables of an hour, two chances from 0 to 1, and whether a wet day's
// rain begins at it; wet says that rain falls in it, failed that some was forecast which does not.
type drawnHour struct {
	temp, damp, gust, cloud, shift, season, length, amount float64
	fails, comes                                           float64
	begins, wet, failed                                    bool
}

// set makes the errors nothing now.
func (d *draw) set() {
	for _, l := range []*latent{&d.temp, &d.damp, &d.gust, &d.cloud} {
		l.off = l.z
	}
}

func (d *draw) next(at time.Time) drawnHour {
	if day := at.Unix() / 86400; day != d.day {
		d.day = day
		d.r = rand.New(rand.NewPCG(d.seed<<32^d.k, uint64(day)))
		m := d.f.normals.On(at.In(d.f.loc))
		p := m.WetDayPct / 100
		if d.wetDay {
			p = m.WetAfterWetPct / 100
		} else if m.WetDayPct < 100 {
			// What keeps the share of wet days with that persistence.
			p = m.WetDayPct * (100 - m.WetAfterWetPct) / (100 - m.WetDayPct) / 100
		}
		d.wetDay, d.wetAt = d.r.Float64() < p, d.r.IntN(24)
	}
	r := d.r
	return drawnHour{temp: d.temp.next(r, tempMemoryH), damp: d.damp.next(r, dewMemoryH),
		gust: d.gust.next(r, windMemoryH), cloud: d.cloud.next(r, cloudMemoryH),
		shift: d.shift.next(r, shiftMemoryH), season: d.season.next(r, seasonMemoryH), length: r.NormFloat64(),
		amount: r.NormFloat64(),
		fails:  r.Float64(), comes: r.Float64(), begins: d.wetDay && at.UTC().Hour() == d.wetAt}
}

// Drift is a standard normal variable with a memory of so many hours at instants an hour apart, in
// future k of a seed. It has a name, and hangs on the day of the calendar as futures do.
func Drift(seed, k uint64, name string, at []time.Time, memoryH float64) []float64 {
	out := make([]float64, len(at))
	if len(at) == 0 {
		return out
	}
	h := fnv.New64a()
	h.Write([]byte(name))
	var z latent
	var r *rand.Rand
	day, spin := int64(-1), int(4*memoryH)
	for i := -spin; i < len(at); i++ {
		t := at[max(0, i)].Add(time.Duration(min(0, i)) * time.Hour)
		if d := t.Unix() / 86400; d != day {
			day, r = d, rand.New(rand.NewPCG(seed<<32^k^h.Sum64(), uint64(d)))
		}
		if v := z.next(r, memoryH); i >= 0 {
			out[i] = v
		}
	}
	return out
}

// Odds is the share of futures, 0…1, in which something comes; never more than 99 in a hundred: the
// futures do not hold all that may come in between.
func Odds(come, futures int) float64 {
	return min(mostOdds, float64(come)/float64(max(1, futures)))
}

const mostOdds = 0.99

// latent is a normal variable with memory; off is what it is set off by, which it forgets likewise.
type latent struct {
	z, off float64
	set    bool
	// keeps is what it has of itself an hour later with a memory of so many hours, spread how far it lies about that.
	memory, keeps, spread float64
}

// next takes it an hour on, with a memory of so many hours.
func (l *latent) next(r *rand.Rand, memory float64) float64 {
	if !l.set {
		l.z, l.set = r.NormFloat64(), true
		return l.z
	}
	if memory != l.memory {
		l.memory, l.keeps = memory, math.Exp(-1/memory)
		l.spread = math.Sqrt(1 - l.keeps*l.keeps)
	}
	l.z = l.keeps*l.z + l.spread*r.NormFloat64()
	l.off *= l.keeps
	return l.z - l.off
}

// quantile is the normal variable below which a share p lies.
func quantile(p float64) float64 { return math.Sqrt2 * math.Erfinv(2*p-1) }
