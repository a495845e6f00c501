package plan

import (
	"math"
	"sync"

	"allcoats/core/planning/schedule"
)

// A curve is a sum over the hours of a plan that never falls: what has cured, what has dried. It is
// worked out where it is asked for, some days at a time, and is safe for concurrent use.
type curve struct {
	rate  func(hour int) float64 // per hour, at the start of an hour
	hours int
	parts []summed
}

type summed struct {
	once sync.Once
	sum  []float64 // at every hour, from 0
}

// A part has so many hours.
const (
	partHours = 48
	partSlots = partHours * perHour
)

func newCurve(hours int, rate func(hour int) float64) *curve {
	return &curve{rate, hours, make([]summed, max(0, (hours+partHours-1)/partHours))}
}

// part is the k-th, summed by trapezoids.
func (c *curve) part(k int) []float64 {
	p := &c.parts[k]
	p.once.Do(func() {
		from := k * partHours
		p.sum = make([]float64, min(partHours, c.hours-from)+1)
		last := c.rate(from)
		for h := range len(p.sum) - 1 {
			next := c.rate(from + h + 1)
			p.sum[h+1] = p.sum[h] + (last+next)/2
			last = next
		}
	})
	return p.sum
}

// after is the first slot at which a curve has risen by so much since a slot, Never if it
// does not; short is the last before.
func (c *curve) after(since int, more float64) (slot, short int) {
	since = max(0, since)
	for k := since / partSlots; k < len(c.parts); k++ {
		sum := c.part(k)
		if k == since/partSlots {
			more += at(sum, since%partSlots)
		}
		if slot, short = reaches(sum, more); slot < schedule.Never {
			return k*partSlots + slot, k*partSlots + short
		}
		more -= sum[len(sum)-1]
	}
	return schedule.Never, schedule.Never
}

// at is a sum over hours at a slot.
func at(sum []float64, s int) float64 {
	h := s / perHour
	if h+1 >= len(sum) {
		return sum[len(sum)-1]
	}
	return sum[h] + (sum[h+1]-sum[h])*float64(s%perHour)/perHour
}

// reaches is the first slot at which a sum over hours has come to want, Never if it does
// not; short is the last before.
func reaches(sum []float64, want float64) (slot, short int) {
	h := 0
	for n := len(sum); h < n; { // as sort.SearchFloat64s, without its calls
		if mid := (h + n) / 2; sum[mid] < want-1e-9 {
			h = mid + 1
		} else {
			n = mid
		}
	}
	if h == len(sum) {
		return schedule.Never, schedule.Never
	}
	if h == 0 {
		return 0, -1
	}
	slot = (h-1)*perHour + int(math.Ceil((want-sum[h-1])/(sum[h]-sum[h-1])*perHour-1e-6))
	return slot, slot - 1
}
