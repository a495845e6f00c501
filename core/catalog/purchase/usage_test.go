package purchase

import (
	"encoding/json"
	"math"
	"math/rand/v2"
	"os"
	"testing"

	"allcoats/core/base/fielderr/bounds"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The reference file: exact mixtures, litres to come by a million draws.
func TestReferenceConsumption(t *testing.T) {
	raw, err := os.ReadFile("testdata/consumption.json")
	require.NoError(t, err)
	type figures map[string]float64
	var file struct {
		Cases []struct {
			Name  string
			Input struct {
				Logged []struct {
					Surface   string
					ReckonedL float64 `json:"reckoned_l"`
					LoggedL   float64 `json:"logged_l"`
				}
				AreaSD  figures   `json:"area_sd_pct"`
				Planned string    `json:"planned_surface"`
				Coming  []float64 `json:"reckoned_litres_of_coats_to_come"`
				TinL    float64   `json:"tin_l"`
				StockL  float64   `json:"stock_l"`
				Level   float64   `json:"service_level_pct"`
			}
			Expect map[string]any
			Tol    map[string]struct{ Rel float64 }
		}
	}
	require.NoError(t, json.Unmarshal(raw, &file))
	require.Len(t, file.Cases, 13)
	for _, c := range file.Cases {
		r := UseRequest{AreaSDPct: c.Input.AreaSD, PlannedSurface: c.Input.Planned, ReckonedToComeL: c.Input.Coming,
			TinL: c.Input.TinL, StockL: c.Input.StockL, ServiceLevelPct: c.Input.Level}
		for _, l := range c.Input.Logged {
			r.Logged = append(r.Logged, Coat(l))
		}
		got, err := Consumption(r)
		require.NoError(t, err, c.Name)
		for key, value := range map[string]float64{
			"factor": got.Factor, "factor_80_low": got.Factor80Low, "factor_80_high": got.Factor80High,
			"surface_factor": got.SurfaceFactor, "surface_factor_80_low": got.SurfaceFactor80Low,
			"surface_factor_80_high": got.SurfaceFactor80High,
			"litres_to_come":         got.LitresToCome, "litres_80_low": got.Litres80Low,
			"litres_80_high": got.Litres80High,
		} {
			assert.InEpsilon(t, c.Expect[key], value, c.Tol[key].Rel, "%s: %s", c.Name, key)
		}
		assert.EqualValues(t, c.Expect["tins"], got.Tins, c.Name)
		assert.InEpsilon(t, got.Litres80High/got.Litres80Low, math.Exp(2*1.28155*got.SpreadPct/100), 1e-4,
			"%s: four fifths of a normal spread lie within 1.28 of its deviations", c.Name)
		wrong := []any{}
		for _, i := range got.CoatsLikelyLoggedWrong {
			wrong = append(wrong, float64(i))
		}
		assert.Equal(t, c.Expect["coats_likely_logged_wrong"], wrong, c.Name)
	}
}

// Painters and surfaces drawn from the model: the 80 % range of the litres to come holds them
// three to seventeen times in twenty, whether nothing, one, three or ten coats were logged, on
// the surface itself or on another.
func TestEightyPerCentRangesHold(t *testing.T) {
	rng := rand.New(rand.NewPCG(11, 4))
	for _, logged := range []int{0, 1, 3, 10} {
		held := 0
		const painters = 600
		for range painters {
			person := personSD * rng.NormFloat64()
			sd := map[string]float64{"hull": 2 + 12*rng.Float64(), "deck": 5 + 10*rng.Float64()}
			off := map[string]float64{}
			for s, pct := range sd {
				off[s] = pct / 100 * rng.NormFloat64()
			}
			lay := func(s string, reckoned float64, mistakes bool) float64 {
				e := coatSD * rng.NormFloat64()
				if mistakes && rng.Float64() < wrongChance {
					e = wrongSD * rng.NormFloat64()
				}
				return reckoned * math.Exp(person+off[s]+e)
			}
			var coats []Coat
			for k := range logged {
				s := []string{"hull", "deck"}[k%2]
				coats = append(coats, Coat{s, 2, lay(s, 2, true)})
			}
			l := NewUsage(coats, sd).ToCome(map[string][]float64{"hull": {3, 3}, "deck": {1}})
			used := lay("hull", 3, false) + lay("hull", 3, false) + lay("deck", 1, false)
			if used >= l.At(0.1) && used <= l.At(0.9) {
				held++
			}
		}
		share := float64(held) / painters
		assert.True(t, share >= 0.75 && share <= 0.85, "%d coats logged: %.3f", logged, share)
	}
}

// What the deck took says something of the topsides, less than their own coat would.
func TestOneSurfaceTellsOfAnother(t *testing.T) {
	sd := map[string]float64{"deck": 10, "topsides": 10}
	none := NewUsage(nil, sd).On("topsides")
	deck := NewUsage([]Coat{{"deck", 2, 2.6}}, sd).On("topsides")
	own := NewUsage([]Coat{{"topsides", 2, 2.6}}, sd).On("topsides")
	assert.InDelta(t, 1, none.Median, 1e-6)
	assert.InDelta(t, math.Exp(1.2815515655*math.Hypot(0.2, 0.1)), none.High, 0.003)
	assert.Greater(t, deck.Median, 1.1)
	assert.Greater(t, own.Median, deck.Median)
	assert.Less(t, own.High/own.Low, deck.High/deck.Low)
	assert.Less(t, deck.High/deck.Low, none.High/none.Low)
	assert.Equal(t, 0, NewUsage([]Coat{{"deck", 2, 0}, {"deck", 0, 2}}, sd).Coats(),
		"without litres a coat tells nothing")
}

func TestBoundsOfConsumption(t *testing.T) {
	r := UseRequest{AreaSDPct: map[string]float64{"a": 5}, PlannedSurface: "a", ReckonedToComeL: []float64{2},
		Logged: []Coat{{"a", 2, 2}}, TinL: 1}
	bounds.Try(t, r, func(r UseRequest) error { _, err := Consumption(r); return err }, map[string]bounds.Bound{
		"reckonedLitresOfCoatsToCome[0]": bounds.From(0.001, 10000), "logged[0].loggedL": bounds.From(0.001, 10000),
		"logged[0].reckonedL": bounds.From(0.001, 10000), "tinL": bounds.From(0.01, 1000)})
}

// Surfaces' errors are independent: the range of all is narrower than those of each put end to
// end, and never narrower than the person alone makes it.
func TestSurfacesAddInQuadrature(t *testing.T) {
	sd := map[string]float64{"a": 15, "b": 15, "small": 60}
	u := NewUsage(nil, sd)
	one, both := u.ToCome(map[string][]float64{"a": {5}}), u.ToCome(map[string][]float64{"a": {5}, "b": {5}})
	width := func(l Litres) float64 { return l.At(0.9) - l.At(0.1) }
	assert.Less(t, width(both), 2*width(one)-0.3)
	assert.Greater(t, both.At(0.9)/both.At(0.1), math.Exp(2*1.28*personSD))
	with := u.ToCome(map[string][]float64{"a": {5}, "b": {5}, "small": {0.1}})
	assert.InDelta(t, width(both), width(with), 0.06, "the smallest surface does not spoil the range")
	assert.Zero(t, u.ToCome(nil).At(0.9))
	assert.InDelta(t, 0.9, both.Chance(both.At(0.9)), 1e-6)
}

// BenchmarkUsage learns from forty coats on eight surfaces and reckons what is to come on all.
func BenchmarkUsage(b *testing.B) {
	rng := rand.New(rand.NewPCG(2, 2))
	sd, coming := map[string]float64{}, map[string][]float64{}
	var coats []Coat
	for k := range 40 {
		s := string(rune('a' + k%8))
		sd[s], coming[s] = 8, []float64{2, 2}
		coats = append(coats, Coat{s, 2, 2 * math.Exp(0.2*rng.NormFloat64())})
	}
	for b.Loop() {
		l := NewUsage(coats, sd).ToCome(coming)
		require.Positive(b, l.At(0.9)-l.At(0.1))
	}
}

// Boats do not lean on one another: 10 and 9 L, of 5 and 6 reckoned, are 19 of 11; their ranges add in squares, 3 and 4 below, 6 and 8 above,
// and what to have at hand lies √(5² − 3²) over.
func TestTogetherByHand(t *testing.T) {
	one := Forecast{LitresL: 10, LowL: 7, HighL: 16, BuyL: 15, Factor: 2, Coats: 4}
	other := Forecast{LitresL: 9, LowL: 5, HighL: 17, BuyL: 6, Factor: 1.5, Coats: 3}
	both := Together([]Forecast{one, other})
	assert.InDelta(t, 19, both.LitresL, 1e-12)
	assert.InDelta(t, 14, both.LowL, 1e-12)
	assert.InDelta(t, 29, both.HighL, 1e-12)
	assert.InDelta(t, 23, both.BuyL, 1e-12)
	assert.InDelta(t, 19.0/11, both.Factor, 1e-12)
	assert.Equal(t, 7, both.Coats)
	assert.Equal(t, one, Together([]Forecast{one}))
}
