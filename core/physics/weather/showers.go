package weather

import (
	"math"

	"gonum.org/v1/gonum/floats"
)

// shower is a stretch of rain of the forecast, of so many mm in each hour.
type shower struct {
	from int
	mm   []float64
}

// doubt is how much likelier than others it is to fail: light rain more, by its mm in all, a downpour
// less. A rule of thumb.
func (s shower) doubt() float64 { return max(0.55, 7*math.Exp(-floats.Sum(s.mm))) }

// mostFail is the largest chance that a shower fails.
const mostFail = 0.8

// showers are the stretches of rain from hour first to before hour end.
func (s Series) showers(first, end int) (out []shower) {
	for i := first; i < end; i++ {
		if !s[i].rains() {
			continue
		}
		if n := len(out); n > 0 && out[n-1].from+len(out[n-1].mm) == i {
			out[n-1].mm = append(out[n-1].mm, *s[i].RainMM)
			continue
		}
		out = append(out, shower{i, []float64{*s[i].RainMM}})
	}
	return out
}

// rains tells whether more than a trace falls in the hour.
func (h Hour) rains() bool { return h.RainMM != nil && *h.RainMM > traceMM }

// traceMM is what is too little to count as rain, mm in the hour.
const traceMM = 0.05

// rain lets it rain in the hours from the first: showers of the forecast, some that nobody
// announced, and beyond the forecast stretches on wet days.
func (f *Futures) rain(mm []float64, drawn []drawnHour) {
	fall := func(from, hours int, amount func(j int) float64) {
		for j := max(0, from); j < from+hours && j < len(mm); j++ {
			mm[j] = max(mm[j], amount(j-from))
		}
	}
	for _, s := range f.showers {
		z, lead := &drawn[s.from-f.first], f.lead(s.from)
		goes := s.from == f.first && f.measured && f.frame[f.first-1].rains() // already
		if !goes && z.fails < min(mostFail, s.doubt()*f.errors.FailPct.At(lead)/100) {
			for j := range s.mm {
				drawn[s.from-f.first+j].failed = true
			}
			continue
		}
		from := s.from - f.first
		if !goes {
			from += int(math.Round(f.errors.ShiftH.At(lead) * z.shift))
		}
		hours := max(1, int(math.Round(float64(len(s.mm))*math.Exp(lengthLog*z.length))))
		much := math.Exp(amountLog*z.amount - amountLog*amountLog/2)
		fall(from, hours, func(j int) float64 { return max(0.1, s.mm[j*len(s.mm)/hours]*much) })
	}
	for i := range mm {
		at, z := f.first+i, &drawn[i]
		hours, chance := 0.0, 0.0
		if at < f.known {
			b := &f.base[at]
			// In place of what fails, under cloud, and not out of what was measured just now.
			lead := f.lead(at)
			chance = f.errors.FailPct.At(lead) / 100 * unannouncedPart * b.month.wetShare() / unannouncedH * min(
				mostUnderCloud, math.Pow(b.cloudPct/max(20, b.month.CloudPct), 4))
			if f.measured {
				chance *= 1 - math.Exp(-24*lead/seenH)
			}
			hours = unannouncedH * math.Exp(0.5*z.length-0.125)
		} else if z.begins {
			chance = 1
			hours = f.base[at].month.wetHours() / 100 * 24 * math.Exp(0.7*z.length-0.245)
		}
		if z.comes < chance {
			fall(i, max(1, int(math.Round(hours))), func(int) float64 {
				return max(0.1, wetAmount*math.Exp(amountLog*z.amount))
			})
		}
	}
}
