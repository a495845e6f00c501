package upkeep

import (
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"allcoats/core/catalog/product"
	"allcoats/core/film/step"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var laid = time.Date(2026, 1, 1, 0, 0, 0, 0, time.UTC)

var open50 = Exposure{LatitudeDeg: 50, TiltDeg: 90}

// The sun above the air at the equator and the pole is 416 and 173 W/m² on the mean of a year, at 50°
// 275 (Berger's insolation tables); the air takes more where it is low.
func TestSunByLatitude(t *testing.T) {
	level := Exposure{LatitudeDeg: 50}.Year()
	assert.InDelta(t, 416.0/275, Exposure{LatitudeDeg: 0}.Year()/level, 0.15)
	assert.InDelta(t, 173.0/275, Exposure{LatitudeDeg: 90}.Year()/level, 0.12)
	m := Exposure{LatitudeDeg: 50}.Months()
	assert.Greater(t, m[5], 5*m[11], "June and December")
	south := Exposure{LatitudeDeg: -50}.Months()
	assert.InDelta(t, level, Exposure{LatitudeDeg: -50}.Year(), 0.05*level)
	assert.Greater(t, south[11], 5*south[5])
	assert.InDelta(t, 1, open50.Year(), 1e-9)
	assert.InDelta(t, 0.15, Exposure{LatitudeDeg: 50, TiltDeg: 90, Covered: true}.Year(), 1e-9)
	assert.InDelta(t, 0.05, Exposure{LatitudeDeg: 50, TiltDeg: 90, Inside: true, Covered: true}.Year(), 1e-9)
	assert.InDelta(t, 1.7, level, 0.3, "a side sees half the sky")
	assert.Less(t, Exposure{LatitudeDeg: 50, TiltDeg: 150}.Year(), 0.7)
}

func varnish(um float64) Film {
	return Film{Sheet: product.Sheet{Kind: product.Varnish}, LastAt: laid, Um: um, Exposure: open50}
}

// A whole year's sun from January is a year: 150 µm go 1.4 of them, the fifth of a year more by June,
// and each coat more by less.
func TestVarnishGoesOneToTwoSeasons(t *testing.T) {
	d, ok := varnish(150).Next(Habit{}, nil)
	require.True(t, ok)
	assert.InDelta(t, 1.4, d.Years, 0.15)
	months := open50.Months()
	sum := 0.0
	for m := range months {
		if sum+months[m] >= 0.4 {
			want := time.Date(2027, time.Month(m+1), 1, 0, 0, 0, 0, time.UTC).AddDate(0, 0,
				int(30.4*(0.4-sum)/months[m]))
			assert.InDelta(t, 0, d.At.Sub(want).Hours()/24, 2, "%v and %v", d.At, want)
			break
		}
		sum += months[m]
	}
	// exp(±1.2816 · √(0.3² + 0.2²)): 0.63 and 1.59.
	w, _ := varnish(150).wears()
	assert.InDelta(t, 1.4*0.63, 1.4*w.used(laid, d.From), 0.01)
	assert.InDelta(t, 1.4*1.587, 1.4*w.used(laid, d.To), 0.01)
	before := 0.0
	for um := 30.0; um <= 300; um += 30 {
		d, _ := varnish(um).Next(Habit{}, nil)
		assert.Greater(t, d.Years, before, "%g µm", um)
		assert.Less(t, d.To.Year(), 2031, "%g µm", um)
		before = d.Years
	}
	kept := varnish(150)
	kept.Covered = true
	k, _ := kept.Next(Habit{}, nil)
	assert.InDelta(t, 1.4/0.15, k.Years, 0.3)
}

// 60 µm a year are 30 in half a year afloat, and 15 for 1000 miles 15 more; half as much again on a rudder.
func TestAntifoulingBySeasons(t *testing.T) {
	soft := Film{Sheet: product.Sheet{Kind: product.SoftAntifoul, PolishUmYear: 60, PolishUm1000NM: 15}, LastAt: laid,
		Um: 90}
	for name, c := range map[string]struct {
		months, nm float64
		worn       bool
		want       float64
	}{
		"a usual year":      {0, 0, false, 3},
		"nine months":       {9, 0, false, 2},
		"a thousand miles":  {6, 1000, false, 2},
		"the rudder":        {6, 0, true, 2},
		"all year, far out": {12, 2000, false, 1},
	} {
		f := soft
		f.MonthsAfloat, f.NM, f.Worn = c.months, c.nm, c.worn
		d, ok := f.Next(Habit{}, nil)
		require.True(t, ok)
		assert.InDelta(t, c.want, d.Seasons, 1e-9, name)
		assert.InDelta(t, c.want, d.Years, 0.01, name)
	}
	none, ok := Film{Sheet: product.Sheet{Kind: product.SoftAntifoul}, LastAt: laid, Um: 90}.Next(Habit{}, nil)
	require.True(t, ok)
	assert.NotEmpty(t, none.Working.Warnings, "a polish rate of zero is said, not divided by")
	assert.InDelta(t, 1, none.Seasons, 1e-9)
	hard, _ := Film{Sheet: product.Sheet{Kind: product.HardAntifoul}, LastAt: laid, Um: 90}.Next(Habit{}, nil)
	assert.InDelta(t, 2, hard.Seasons, 1e-9)
}

func TestPrimersComeDueByNothing(t *testing.T) {
	for _, k := range []product.Kind{product.HighBuild, product.Barrier, product.Fairing, product.WoodSealer} {
		_, ok := Film{Sheet: product.Sheet{Kind: k}, LastAt: laid, Um: 100}.Next(Habit{}, nil)
		assert.False(t, ok, k)
	}
	oiled, ok := Film{Sheet: product.Sheet{Kind: product.WoodSealer, Binder: product.Oil}, LastAt: laid, Um: 20,
		Exposure: open50}.Next(Habit{}, nil)
	require.True(t, ok)
	assert.Less(t, oiled.Years, 1.0)
}

// A grade that says much is wrong makes it due then; one that says nothing is wrong, later than reckoned.
func TestAGradeCounts(t *testing.T) {
	plain, _ := varnish(150).Next(Habit{}, nil)
	spring := laid.AddDate(1, 3, 0)
	bad, _ := varnish(150).Next(Habit{}, []Grade{{spring, 4}})
	assert.Equal(t, spring, bad.At)
	assert.NotEmpty(t, bad.Working.Warnings)
	good, _ := varnish(150).Next(Habit{}, []Grade{{spring, 0}})
	assert.True(t, good.At.After(plain.At) && good.From.After(plain.From))
	assert.Equal(t, 1, good.Graded)
	elsewhere, _ := varnish(150).Next(Learn([]Used{{0.5, 3}, {0.6, 3}, {0.5, 2}}), nil)
	assert.True(t, elsewhere.At.Before(plain.At), "what failed early on other surfaces counts here")
	assert.Equal(t, 3, elsewhere.Graded)
}

// Boats whose finishes go longer or shorter than usual, each with four surfaces, graded by an eye that
// is off, for three springs: the range told for a film laid then holds eight times in ten, and is
// narrower than it was without grades.
func TestRangesHoldOnSimulatedBoats(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	held, all, width := 0, 0, 0.0
	const boats, surfaces = 400, 4
	for range boats {
		boat := boatSD * r.NormFloat64()
		var used []Used
		for range surfaces {
			life := boat + surfaceSD*r.NormFloat64()
			for spring := 1; spring <= 3; spring++ {
				share := 0.35 * float64(spring)
				seen, worst := math.Exp(math.Log(share)-life+gradeSD*r.NormFloat64()), 0
				for k, s := range spent {
					if seen > s {
						worst = k + 1
					}
				}
				used = append(used, Used{share, worst})
			}
		}
		h := Learn(used)
		low, high := h.own().Range()
		for range surfaces {
			truth := math.Exp(boat + surfaceSD*r.NormFloat64())
			all++
			if low <= truth && truth <= high {
				held++
			}
		}
		width += math.Log(high/low) / boats
	}
	assert.InDelta(t, 0.8, float64(held)/float64(all), 0.05)
	low, high := Habit{}.own().Range()
	assert.Less(t, width, 0.75*math.Log(high/low))
}

// Varnish wants two coats over a wash and a scuff of 320, a topcoat one.
func TestRenewal(t *testing.T) {
	for kind, coats := range map[product.Kind]int{product.Varnish: 2, product.SoftAntifoul: 2, product.TopcoatTwo: 1} {
		got := Renewal(product.Sheet{Kind: kind, Film: product.Film{TypicalUm: 40}}, "brush")
		require.Len(t, got, 3)
		assert.Equal(t, step.Step{Work: step.Wash, Agent: "detergent"}, got[0])
		assert.Equal(t, 320, got[1].Grit)
		assert.Equal(t, coats, got[2].Coats, kind)
		assert.InDelta(t, 40, got[2].DFTUm, 1e-9)
		assert.Equal(t, "brush", got[2].Method)
	}
}
