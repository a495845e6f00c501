package climate

import (
	"context"
	"time"

	"allcoats/core/base/parallel"
	"allcoats/core/physics/weather"
)

// Waited is the share of futures, 0…1, in which the start that tomorrow's forecast makes the best of the
// days after it holds. None says that there is none: the coat has to be on before.
type Waited struct {
	Then float64
	None bool
}

// Span is a stretch of time.
type Span struct{ From, To time.Time }

// How far ahead a start is looked for when one waits, and when the next forecast is there.
const (
	waitAhead    = 72 * time.Hour
	NextForecast = 24 * time.Hour
)

// Waits plays an ensemble, and in each the forecast that would be issued a day from now: the future itself
// off by what a forecast of that lead is. between is when each coat may begin; a zero To is no end.
func (b Boat) Waits(ctx context.Context, c Climate, f Ensemble, asks []Ask,
	between []Span) ([]Waited, error) {
	q := b.waiting(c, f.Frame(), asks)
	at, n, seed := q.open.At, f.N, f.Seed
	held, told := make([][][]bool, n), make([][][]bool, n)
	err := parallel.Each(ctx, n, nil, func(_, i int) {
		course := f.Make(seed, uint64(i), nil)
		held[i] = q.holds(course, Future{seed, uint64(i)})
		told[i] = q.holds(f.Later(course, NextForecast, seed, uint64(i)), Future{seed + 1, uint64(i)})
	})
	if err != nil {
		return nil, err
	}
	out := make([]Waited, len(asks))
	for k := range asks {
		end := b.Now.Add(waitAhead)
		if to := between[k].To; !to.IsZero() && to.Before(end) {
			end = to
		}
		var later []int
		for i, t := range at {
			if !t.Before(b.Now.Add(NextForecast)) && !t.Before(between[k].From.Truncate(time.Hour)) && !t.After(end) {
				later = append(later, i)
			}
		}
		of := func(all [][][]bool) [][]bool {
			one := make([][]bool, n)
			for i := range all {
				one[i] = all[i][k]
			}
			return one
		}
		out[k] = Waited{Then: weather.Odds(chosen(of(held), of(told), later), n), None: len(later) == 0}
	}
	return out, nil
}

// priorForecasts weigh the share of all courses against those that a forecast was told of.
const priorForecasts = 4

// chosen is the number of courses in which the hour that a forecast makes the best one holds. How often
// an hour holds that the forecast says holds, or does not, is learned from every other course, and tried on the rest.
func chosen(held, told [][]bool, hours []int) (good int) {
	if len(hours) == 0 || len(held) < 2 {
		return 0
	}
	for half := range 2 {
		odds := make([][2]float64, len(hours)) // that it holds, if the forecast says no, and yes
		for k, t := range hours {
			all, n, yes := 0.0, [2]float64{}, [2]float64{}
			for i := half; i < len(held); i += 2 {
				said := 0
				if told[i][t] {
					said = 1
				}
				n[said]++
				if held[i][t] {
					yes[said]++
					all++
				}
			}
			all /= n[0] + n[1]
			for said := range 2 {
				odds[k][said] = (yes[said] + priorForecasts*all) / (n[said] + priorForecasts)
			}
		}
		for i := 1 - half; i < len(held); i += 2 {
			best, p := -1, -1.0
			for k, t := range hours {
				said := 0
				if told[i][t] {
					said = 1
				}
				if odds[k][said] > p {
					best, p = t, odds[k][said]
				}
			}
			if held[i][best] {
				good++
			}
		}
	}
	return good
}
