package weather

import (
	"math"
	"slices"
	"time"

	"gonum.org/v1/gonum/stat"
	"gonum.org/v1/gonum/stat/distuv"
)

// Issued is a forecast as it was issued.
type Issued struct {
	At    time.Time
	Hours Series
}

// Learned are the errors of a place's forecasts as its record tells them, and from how many
// forecasts and hours. It is UsualErrors to begin with, and the record's own after some weeks.
type Learned struct {
	Errors    Errors `json:"errors"`
	Forecasts int    `json:"forecasts"`
	Hours     int    `json:"hours"`
	// Rain tells whether the record told anything of rain, Cloud of cloud.
	Rain  bool `json:"rain"`
	Cloud bool `json:"cloud"`
}

// leadDays are how many days ahead errors are learned, each by itself; priorDays for how many days
// of a record the usual counts in each.
const leadDays, priorDays = 7, 10

// leastLeadH is the least lead from which is learned, h: nearer, what was measured last counts.
const leastLeadH = 6

// misses gathers of one kind the squares of what forecasts were off by, by the day of their lead.
type misses struct{ sum, n, days [leadDays]float64 }

func (m *misses) add(day int, off float64) {
	m.sum[day] += off * off
	m.n[day]++
}

// LearnErrors tells how far forecasts were from what was measured.
func LearnErrors(issued []Issued, came Series, p Habits) Learned {
	out := Learned{Errors: UsualErrors}
	var temp, dew, wind, cloud misses
	var rain [leadDays]rainRecord
	for _, f := range issued {
		var told [leadDays]bool
		doubts := make([]float64, len(f.Hours))
		for _, s := range f.Hours.showers(0, len(f.Hours)) {
			for i := range s.mm {
				doubts[s.from+i] = s.doubt()
			}
		}
		for i, said := range f.Hours {
			lead := said.At.Sub(f.At)
			day := int(lead.Hours() / 24)
			if said.Measured || lead < leastLeadH*time.Hour || day >= leadDays {
				continue
			}
			at := came.Find(said.At)
			if at < 0 || !came[at].At.Equal(said.At) || !came[at].Measured {
				continue
			}
			h := came[at]
			out.Hours++
			told[day] = true
			temp.add(day, h.TempC-said.TempC)
			dew.add(day, h.DewPointC()-said.DewPointC())
			if h.WindMS != nil && said.WindMS != nil {
				wind.add(day, math.Log(max(0.5, *h.WindMS)/max(0.5, *said.WindMS)))
			}
			if h.CloudPct != nil && said.CloudPct != nil {
				cloud.add(day, *h.CloudPct-*said.CloudPct)
			}
			if h.RainMM != nil && said.RainMM != nil {
				rain[day].hours = append(rain[day].hours,
					rainHour{doubts, i, h.rains(), p.Normals.On(said.At.In(p.Loc)).wetShare()})
			}
		}
		for day, yes := range told {
			if yes {
				temp.days[day]++
			}
		}
		if slices.Contains(told[:], true) {
			out.Forecasts++
		}
	}
	for _, m := range []*misses{&dew, &wind, &cloud} {
		m.days = temp.days
	}
	e := &out.Errors
	temp.learn(&e.TempK)
	dew.learn(&e.DewPointK)
	wind.learn(&e.WindLog)
	out.Cloud = cloud.learn(&e.CloudPct)
	out.Rain = learnRain(rain, temp.days, e)
	return out
}

// learn draws a line through the spreads of the days of lead, each held to g's by its prior.
func (m *misses) learn(g *Growth) bool {
	var spread [leadDays]float64
	known := false
	for d := range spread {
		usual := g.At(float64(d) + 0.5)
		square := usual * usual
		if m.n[d] > 0 {
			known = true
			square = (priorDays*square + m.days[d]*m.sum[d]/m.n[d]) / (priorDays + m.days[d])
		}
		spread[d] = math.Sqrt(square)
	}
	if known {
		*g = line(spread, m.days)
	}
	return known
}

// line is the growth through the figures of the days of lead; it does not fall.
func line(v, days [leadDays]float64) Growth {
	var x, w [leadDays]float64
	for d := range x {
		x[d], w[d] = float64(d)+0.5, priorDays+days[d]
	}
	at, slope := stat.LinearRegression(x[:], v[:], w[:], false)
	if slope < 0 {
		at, slope = stat.Mean(v[:], w[:]), 0
	}
	at = max(at, 0)
	return Growth{at, slope, at + slope*leadDays}
}

// rainRecord are the hours of a day of lead of which rain is known.
type rainRecord struct{ hours []rainHour }

// rainHour is hour i of a forecast, whether it rained then, and the share of hours with rain that
// is usual. Doubts are those of the forecast's showers, 0 where it is dry.
type rainHour struct {
	doubts []float64
	i      int
	came   bool
	usual  float64
}

// What is tried for the rain's errors: by how many hours showers are early or late, and how many
// per cent of them fail.
var (
	triedShiftH  = []float64{0.3, 0.6, 1, 1.5, 2, 3, 4, 5.5, 7, 9}
	triedFailPct = []float64{0, 2, 4, 7, 11, 16, 22, 30, 40, 50, 60}
)

// learnRain takes for each day of lead the shift and the share of failures that made what came
// likeliest (the logarithmic score), held to the usual, and draws lines through them.
func learnRain(record [leadDays]rainRecord, days [leadDays]float64, e *Errors) bool {
	var shift, fail [leadDays]float64
	known := false
	for d, r := range record {
		lead := float64(d) + 0.5
		shift[d], fail[d] = e.ShiftH.At(lead), e.FailPct.At(lead)
		if len(r.hours) == 0 {
			continue
		}
		known = true
		best := math.Inf(-1)
		usualShift, usualFail := shift[d], fail[d]
		for _, s := range triedShiftH {
			near := r.near(s)
			for _, f := range triedFailPct {
				// How far from the usual counts like so many days of a record.
				score := -priorDays * (sq(math.Log(s/usualShift)) + sq((f-usualFail)/20))
				for i, h := range r.hours {
					p := min(0.99, max(0.005, near[i].falls-f/100*(near[i].fails-unannouncedPart*h.usual)))
					if !h.came {
						p = 1 - p
					}
					score += math.Log(p) * days[d] / float64(len(r.hours)) * independentH
				}
				if score > best {
					best, shift[d], fail[d] = score, s, f
				}
			}
		}
	}
	if known {
		e.ShiftH, e.FailPct = line(shift, days), line(fail, days)
	}
	return known
}

// independentH is for how many hours a day of rain counts, each being much like the one before.
const independentH = 8

func sq(x float64) float64 { return x * x }

// nearness is how likely the forecast's rain falls in an hour if none fails, and that with each
// shower's doubt.
type nearness struct{ falls, fails float64 }

// near is, for each hour, how near rain is in the forecast where showers are off by a normal
// variable of so many hours.
func (r rainRecord) near(shiftH float64) []nearness {
	reach := int(math.Ceil(2.5 * shiftH))
	weight := make([]float64, 2*reach+1)
	off := distuv.Normal{Sigma: shiftH}
	for k := range weight {
		weight[k] = off.CDF(float64(k-reach)+0.5) - off.CDF(float64(k-reach)-0.5)
	}
	out := make([]nearness, len(r.hours))
	for n, h := range r.hours {
		for k, w := range weight {
			if i := h.i + k - reach; i >= 0 && i < len(h.doubts) && h.doubts[i] > 0 {
				out[n].falls += w
				out[n].fails += w * h.doubts[i]
			}
		}
	}
	return out
}
