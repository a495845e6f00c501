package purchase

import (
	"maps"
	"math"
	"slices"
	"sync"

	"gonum.org/v1/gonum/stat/distuv"
)

// Coat is a coat that was logged: the litres reckoned for it, and those it took.
type Coat struct {
	Surface   string  `json:"surface"`
	ReckonedL float64 `json:"reckonedL"`
	LoggedL   float64 `json:"loggedL"`
}

// Range is a median with an 80 % range.
type Range struct {
	Median, Low, High float64
}

// Spreads of what a coat takes over what was reckoned, standard deviations of its logarithm:
// of one person from the next, of one coat from the next, and of a coat that was logged
// wrongly, as one in thirty-three is. Rules of thumb.
const (
	personSD    = 0.20
	coatSD      = 0.12
	wrongSD     = 0.70
	wrongChance = 0.03
)

// Usage is what logged coats tell of the litres to come. The logarithm of used over reckoned is
// the person's, the same everywhere; the error of a surface's area, the same for its coats; and
// the coat's own. The posterior is reckoned on a grid of the person's factor by the area's error;
// before any coat was logged all three are normal, and nothing needs a grid.
type Usage struct {
	coats  []Coat
	areaSD map[string]float64
	// weight is the posterior of the person's factor on personGrid, by all coats; curve what a
	// surface's coats say of person and area together, on factorGrid, the likeliest being 1.
	weight []float64
	curve  map[string][]float64
	on     map[string]Range
	factor Range
	wrong  func() []int // found when first asked for
}

// The grids: of the person's logarithm, of both together, and of an area's error in standard
// deviations.
const (
	personStep, personEnd = 0.02, 1.5
	factorStep, factorEnd = 0.01, 2.5
	areaStep, areaEnd     = 0.25, 4.0
)

// negligible is the weight of a person's factor below which it tells nothing.
const negligible = 1e-9

func grid(step, end float64) []float64 {
	n := int(math.Round(end / step))
	out := make([]float64, 2*n+1)
	for i := range out {
		out[i] = float64(i-n) * step
	}
	return out
}

var (
	personGrid = grid(personStep, personEnd)
	factorGrid = grid(factorStep, factorEnd)
	areaGrid   = grid(areaStep, areaEnd)
	areaWeight = func() []float64 {
		w, sum := make([]float64, len(areaGrid)), 0.0
		for i, z := range areaGrid {
			w[i] = math.Exp(-z * z / 2)
			sum += w[i]
		}
		for i := range w {
			w[i] /= sum
		}
		return w
	}()
)

// NewUsage learns from coats; areaSDPct is the standard uncertainty of each surface's area, %.
// Coats without litres tell nothing.
func NewUsage(coats []Coat, areaSDPct map[string]float64) *Usage {
	u := &Usage{areaSD: map[string]float64{}, weight: make([]float64, len(personGrid)), curve: map[string][]float64{},
		on: map[string]Range{}}
	for s, pct := range areaSDPct {
		u.areaSD[s] = pct / 100
	}
	for _, c := range coats {
		if c.ReckonedL > 0 && c.LoggedL > 0 {
			u.coats = append(u.coats, c)
		}
	}
	if len(u.coats) == 0 {
		return u
	}
	for _, c := range u.coats {
		curve := u.curve[c.Surface]
		if curve == nil {
			curve = make([]float64, len(factorGrid))
			u.curve[c.Surface] = curve
		}
		for k, f := range factorGrid {
			good, wrong := c.densities(f)
			curve[k] += math.Log(good + wrong)
		}
	}
	for k, p := range personGrid {
		u.weight[k] = -p * p / (2 * personSD * personSD)
	}
	for _, s := range slices.Sorted(
		maps.Keys(u.curve)) { // in order, so that the same coats give the same figure to the last digit
		c := u.curve[s]
		for k, top := 0, slices.Max(c); k < len(c); k++ {
			c[k] = math.Exp(c[k] - top)
		}
		for k, p := range personGrid {
			u.weight[k] += math.Log(u.given(s, p, nil))
		}
	}
	top, sum := slices.Max(u.weight), 0.0
	for k, w := range u.weight {
		u.weight[k] = math.Exp(w - top)
		sum += u.weight[k]
	}
	for k := range u.weight {
		u.weight[k] /= sum
	}
	for s := range u.areaSD {
		u.on[s] = u.onSurface(s)
	}
	u.factor, u.wrong = quantiles(personGrid, u.weight), sync.OnceValue(u.findWrong)
	return u
}

// densities are those of c's litres, logged rightly and wrongly, where person and area together
// make f of the logarithm.
func (c Coat) densities(f float64) (good, wrong float64) {
	r := math.Log(c.LoggedL/c.ReckonedL) - f
	return (1 - wrongChance) / coatSD * math.Exp(-r*r/(2*coatSD*coatSD)),
		wrongChance / wrongSD * math.Exp(-r*r/(2*wrongSD*wrongSD))
}

// given calls f, if any, with each of the area's errors and its weight where the person's factor
// is p, and returns the sum of the weights.
func (u *Usage) given(surface string, p float64, f func(d, weight float64)) float64 {
	sum, sd, curve := 1e-300, u.areaSD[surface], u.curve[surface]
	for i, z := range areaGrid {
		d, w := z*sd, areaWeight[i]
		if curve != nil { // what the coats say of p + d, between two places of the grid
			x := min(max((p+d+factorEnd)/factorStep, 0), float64(len(curve)-1)-1e-9)
			k := int(x)
			w *= curve[k] + (x-float64(k))*(curve[k+1]-curve[k])
		}
		if f != nil {
			f(d, w)
		}
		sum += w
	}
	return sum
}

// Coats is how many coats it was learned from.
func (u *Usage) Coats() int { return len(u.coats) }

// Factor is the person's use over reckoning.
func (u *Usage) Factor() Range {
	if len(u.coats) == 0 {
		return unlearned(personSD)
	}
	return u.factor
}

// unlearned is the range of a log-normal about 1, sd that of its logarithm.
func unlearned(sd float64) Range {
	tenth := distuv.UnitNormal.Quantile(0.9) * sd
	return Range{1, math.Exp(-tenth), math.Exp(tenth)}
}

// On is use over reckoning on a surface whose area's uncertainty is known, that error included; on
// any other the person's.
func (u *Usage) On(surface string) Range {
	if len(u.coats) == 0 {
		return unlearned(math.Hypot(personSD, u.areaSD[surface]))
	}
	if r, ok := u.on[surface]; ok {
		return r
	}
	return u.Factor()
}

func (u *Usage) onSurface(surface string) Range {
	var x, w []float64
	for k, p := range personGrid {
		if u.weight[k] < negligible {
			continue
		}
		start := len(w)
		sum := u.given(surface, p, func(d, weight float64) { x, w = append(x, p+d), append(w, weight) })
		for i := start; i < len(w); i++ {
			w[i] *= u.weight[k] / sum
		}
	}
	return quantiles(x, w)
}

// quantiles of exp x with weights w, which add up to 1, by a histogram.
func quantiles(x, w []float64) Range {
	const bin = 0.005
	least := slices.Min(x)
	bins := make([]float64, int((slices.Max(x)-least)/bin)+2)
	for i, v := range x {
		at := (v - least) / bin
		k := int(at)
		bins[k] += w[i] * (1 - at + float64(k))
		bins[k+1] += w[i] * (at - float64(k))
	}
	at := func(q float64) float64 {
		for k, b := range bins { // a bin's weight lies evenly half a bin to either side
			if b >= q {
				return math.Exp(least + bin*(float64(k)-0.5+q/b))
			}
			q -= b
		}
		return math.Exp(least + bin*float64(len(bins)))
	}
	return Range{at(0.5), at(0.1), at(0.9)}
}

// Litres is the spread of the litres of coats to come.
type Litres struct {
	weight, mean, sd []float64 // of the logarithm, a normal part for each of the person's factors
	none             bool
}

// ToCome is the spread of coats to come, given the litres reckoned for each by surface. No
// mistakes are to come.
func (u *Usage) ToCome(reckoned map[string][]float64) Litres {
	l := Litres{none: true}
	type surface struct{ mean, variance float64 }
	sums := map[string]surface{}
	for s, coats := range reckoned {
		for _, r := range coats {
			if r > 0 {
				x := sums[s]
				x.mean += r * math.Exp(coatSD*coatSD/2)
				x.variance += r * r * math.Exp(coatSD*coatSD) * math.Expm1(coatSD*coatSD)
				sums[s] = x
				l.none = false
			}
		}
	}
	if l.none {
		return l
	}
	names := slices.Sorted(maps.Keys(sums))
	// add takes up a part in which the person's factor is p give or take sd; moments are those of
	// exp of the area's error there.
	add := func(weight, p, sd float64, moments func(surface string) (first, second float64)) {
		mean, variance := 0.0, 0.0
		for _, s := range names {
			first, second := moments(s)
			mean += first * sums[s].mean
			variance += second*(sums[s].variance+sums[s].mean*sums[s].mean) - math.Pow(first*sums[s].mean, 2)
		}
		// A log-normal of the same mean and variance (Fenton 1960).
		sd2 := math.Log1p(variance / (mean * mean))
		l.weight = append(l.weight, weight)
		l.mean = append(l.mean, p+math.Log(mean)-sd2/2)
		l.sd = append(l.sd, math.Sqrt(sd2+sd*sd))
	}
	if len(u.coats) == 0 {
		add(1, 0, personSD, func(s string) (first, second float64) {
			v := u.areaSD[s] * u.areaSD[s]
			return math.Exp(v / 2), math.Exp(2 * v)
		})
		return l
	}
	exp := map[string][]float64{} // of a surface's errors
	for _, s := range names {
		for _, z := range areaGrid {
			exp[s] = append(exp[s], math.Exp(z*u.areaSD[s]))
		}
	}
	for k, p := range personGrid {
		if u.weight[k] < negligible {
			continue
		}
		add(u.weight[k], p, 0, func(s string) (first, second float64) {
			i, e := 0, exp[s]
			sum := u.given(s, p, func(_, w float64) {
				first, second = first+w*e[i], second+w*e[i]*e[i]
				i++
			})
			return first / sum, second / sum
		})
	}
	return l
}

// Chance that litres are enough.
func (l Litres) Chance(litres float64) float64 {
	if l.none {
		return 1
	}
	sum, all := 0.0, 0.0
	for i, w := range l.weight {
		sum += w * distuv.UnitNormal.CDF((math.Log(litres)-l.mean[i])/l.sd[i])
		all += w
	}
	return sum / all
}

// At are the litres that are enough with chance q, in (0, 1).
func (l Litres) At(q float64) float64 {
	if l.none {
		return 0
	}
	low, high := math.Inf(1), math.Inf(-1)
	for i := range l.mean {
		low, high = min(low, l.mean[i]-6*l.sd[i]), max(high, l.mean[i]+6*l.sd[i])
	}
	for range 40 {
		if mid := (low + high) / 2; l.Chance(math.Exp(mid)) < q {
			low = mid
		} else {
			high = mid
		}
	}
	return math.Exp((low + high) / 2)
}

// Wrong are the places of coats that were more likely logged wrongly than not, among those that
// have litres.
func (u *Usage) Wrong() []int {
	if len(u.coats) == 0 {
		return []int{}
	}
	return u.wrong()
}

func (u *Usage) findWrong() []int {
	out := []int{}
	for i, c := range u.coats {
		chance := 0.0
		for k, p := range personGrid {
			if u.weight[k] < negligible {
				continue
			}
			part := 0.0
			sum := u.given(c.Surface, p, func(d, w float64) {
				good, wrong := c.densities(p + d)
				part += w * wrong / (good + wrong)
			})
			chance += u.weight[k] * part / sum
		}
		if chance > 0.5 {
			out = append(out, i)
		}
	}
	return out
}
