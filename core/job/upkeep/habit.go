package upkeep

import (
	"math"
	"time"

	"gonum.org/v1/gonum/stat/distuv"
)

// Grade is how a film held when it was looked at: 0 as new to 4 gone, by the worst of it.
type Grade struct {
	At    time.Time
	Worst int
}

// Used is a grade with the share of the life by rule of thumb that was spent by then.
type Used struct {
	Life  float64
	Worst int
}

// Habit is how films of a kind hold on a boat: the logarithm of their life over the rule of thumb, its
// mean and standard deviation, and from how many grades it was learned. The zero Habit is that of a boat
// of which nothing is known.
type Habit struct {
	Mean, SD float64
	Graded   int
}

// How far boats differ, one surface from the next of a boat, and one grade from the next of a film,
// standard deviations of the logarithm of a life; and the grade from which a film wants doing. Rules of
// thumb.
const (
	boatSD    = 0.30
	surfaceSD = 0.20
	gradeSD   = 0.25
	dueGrade  = 3
)

// spent are the shares of a life beyond which a grade is worse than 0, 1, 2 and 3: rules of thumb.
var spent = [4]float64{0.45, 0.70, 0.95, 1.25}

// Learn is the habit of a boat from grades of its films of a kind.
func Learn(grades []Used) Habit {
	return Habit{SD: boatSD}.with(grades, math.Hypot(gradeSD, surfaceSD))
}

// own is the habit of one surface.
func (h Habit) own() Habit {
	if h.SD == 0 {
		h.SD = boatSD
	}
	h.SD = math.Hypot(h.SD, surfaceSD)
	return h
}

// Range is between what a life is eight times in ten, as a factor of the rule of thumb.
func (h Habit) Range() (low, high float64) {
	tenth := distuv.UnitNormal.Quantile(0.9) * h.SD
	return math.Exp(h.Mean - tenth), math.Exp(h.Mean + tenth)
}

// with is a habit after more grades, each of which tells the share of the life that is spent give or
// take sd: the posterior on a grid.
func (h Habit) with(grades []Used, sd float64) Habit {
	if len(grades) == 0 {
		return h
	}
	const step, end = 0.02, 2.0
	var sum, mean, square float64
	for x := -end; x <= end; x += step {
		z := (x - h.Mean) / h.SD
		log := -z * z / 2
		for _, g := range grades {
			log += math.Log(g.chance(x, sd) + 1e-12)
		}
		p := math.Exp(log)
		sum, mean, square = sum+p, mean+p*x, square+p*x*x
	}
	mean /= sum
	return Habit{mean, math.Sqrt(square/sum - mean*mean), h.Graded + len(grades)}
}

// chance that a film is graded so if its life is exp(x) of the rule of thumb.
func (u Used) chance(x, sd float64) float64 {
	share := math.Log(max(1e-6, u.Life)) - x
	below := func(k int) float64 { // that it is graded no worse than k
		switch {
		case k < 0:
			return 0
		case k >= len(spent):
			return 1
		}
		return distuv.UnitNormal.CDF((math.Log(spent[k]) - share) / sd)
	}
	return below(u.Worst) - below(u.Worst-1)
}

// Spends is the share of a film's life, by rule of thumb, that is spent by an instant; ok is false for
// one that only needs looking at.
func (f Film) Spends(at time.Time) (life float64, ok bool) {
	w, ok := f.wears()
	return w.used(f.LastAt, at), ok
}
