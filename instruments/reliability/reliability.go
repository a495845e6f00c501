// Package reliability holds the odds of futures against what comes, over years of a simulated
// climate whose weather and forecasts know nothing of the futures: of all that was given 70 %, do
// seven in ten come?
package reliability

import (
	"context"
	"math"
	"sort"
)

// Bet is one claim: its odds by the futures, what the forecast alone said, and what came. Odds and
// share are 0 to 1.
type Bet struct {
	P        float64
	Forecast bool
	Came     bool
}

// Table is how bets of one kind went. The scores are means of (odds − came)² (Brier 1950): of the
// futures, of the share of all that came told every time, and of the forecast taken at its word.
type Table struct {
	Name            string
	Deciles         [10]Decile
	N               int
	Brier           float64
	BrierClimate    float64
	BrierForecast   float64
	WorstPoints     float64 // the largest gap of a decile with bets enough, in points of a hundred
	MeanGapInPoints float64 // weighted by bets
}

// Decile are the bets whose odds lie in one tenth: how many, their mean odds, and the share that came.
type Decile struct {
	N    int
	Odds float64
	Came float64
}

// fewest is from how many bets a decile says anything: luck alone is half a tenth off in fewer.
const fewest = 150

// Sum makes the table of bets.
func Sum(name string, bets []Bet) Table {
	t := Table{Name: name, N: len(bets)}
	share := 0.0
	for _, b := range bets {
		came := number(b.Came)
		share += came
		t.Brier += (b.P - came) * (b.P - came)
		t.BrierForecast += math.Abs(number(b.Forecast) - came)
		d := &t.Deciles[min(9, int(10*b.P))]
		d.N++
		d.Odds += b.P
		d.Came += came
	}
	n := float64(max(1, len(bets)))
	share /= n
	t.Brier, t.BrierForecast, t.BrierClimate = t.Brier/n, t.BrierForecast/n, share*(1-share)
	for i := range t.Deciles {
		d := &t.Deciles[i]
		if d.N == 0 {
			continue
		}
		d.Odds, d.Came = d.Odds/float64(d.N), d.Came/float64(d.N)
		gap := 100 * math.Abs(d.Odds-d.Came)
		t.MeanGapInPoints += gap * float64(d.N) / n
		if d.N >= fewest {
			t.WorstPoints = max(t.WorstPoints, gap)
		}
	}
	return t
}

// Within counts the tenths with bets enough, those whose gap is no more than so many points, and how
// many odds without any fault would have there, if bets had nothing in common.
func Within(tables []Table, points float64) (within, of int, faultless float64) {
	for _, t := range tables {
		for _, d := range t.Deciles {
			if d.N < fewest {
				continue
			}
			of++
			if 100*math.Abs(d.Odds-d.Came) <= points {
				within++
			}
			luck := math.Sqrt(d.Odds * (1 - d.Odds) / float64(d.N))
			faultless += math.Erf(points / 100 / luck / math.Sqrt2)
		}
	}
	return within, of, faultless
}

func number(b bool) float64 {
	if b {
		return 1
	}
	return 0
}

// Of issues forecasts through two years and returns the tables of all kinds of bets, by name.
func Of(ctx context.Context, s Study) ([]Table, error) {
	bets, err := s.run(ctx)
	if err != nil {
		return nil, err
	}
	var names []string
	for name := range bets {
		names = append(names, name)
	}
	sort.Strings(names)
	var out []Table
	for _, name := range names {
		out = append(out, Sum(name, bets[name]))
	}
	return out, nil
}
