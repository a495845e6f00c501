package upkeep

import (
	"testing"
	"time"

	"allcoats/core/catalog/product"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var laid = time.Date(2026, 5, 1, 0, 0, 0, 0, time.UTC)

func years(d Due) float64 { return d.At.Sub(laid).Hours() / 24 / 365.25 }

func TestVarnishIsDueBeforeItCracks(t *testing.T) {
	s := product.Sheet{Kind: product.Varnish, Film: product.Film{TypicalUm: 30}}
	at50 := func(um, latitude float64, covered bool) float64 {
		d, ok := Film{Sheet: s, LastAt: laid, Um: um, LatitudeDeg: latitude, Covered: covered}.Next()
		require.True(t, ok)
		return years(d)
	}
	assert.InDelta(t, 2, at50(80, 50, false), 1e-6, "20 µm over two coats, 10 µm a year")
	assert.InDelta(t, mostYears, at50(80, 50, true), 1e-6, "under cover 3 µm a year")
	assert.Less(t, at50(80, 20, false), at50(80, 50, false), "the sun is higher in the south")
	assert.InDelta(t, leastYears, at50(50, 50, false), 1e-6)
}

// 60 µm a year are 30 in half a year afloat, and 15 for 1000 miles 15 more.
func TestAntifoulingBySeasons(t *testing.T) {
	soft := product.Sheet{Kind: product.SoftAntifoul, PolishUmYear: 60, PolishUm1000NM: 15}
	d, ok := Film{Sheet: soft, LastAt: laid, Um: 90}.Next()
	require.True(t, ok)
	assert.InDelta(t, 3, d.Seasons, 1e-9)
	assert.InDelta(t, 3, years(d), 1e-6)
	d, _ = Film{Sheet: soft, LastAt: laid, Um: 90, NM: 1000}.Next()
	assert.InDelta(t, 2, d.Seasons, 1e-9)
	none, ok := Film{Sheet: product.Sheet{Kind: product.SoftAntifoul}, LastAt: laid, Um: 90}.Next()
	require.True(t, ok)
	assert.NotEmpty(t, none.Working.Warnings, "a polish rate of zero is said, not divided by")
	assert.InDelta(t, 1, none.Seasons, 1e-9)
	hard, _ := Film{Sheet: product.Sheet{Kind: product.HardAntifoul}, LastAt: laid, Um: 90}.Next()
	assert.InDelta(t, 2, hard.Seasons, 1e-9)
}

func TestPrimersComeDueByNothing(t *testing.T) {
	for _, k := range []product.Kind{product.HighBuild, product.Barrier, product.Fairing, product.WoodSealer} {
		_, ok := Film{Sheet: product.Sheet{Kind: k}, LastAt: laid, Um: 100}.Next()
		assert.False(t, ok, k)
	}
}

func TestDueInWords(t *testing.T) {
	for days, want := range map[int]string{-12: "due for 12 days", 30: "in 30 days", 304: "in 10 months", 1096: "in 3.0 years"} {
		assert.Equal(t, want, Due{At: laid.AddDate(0, 0, days)}.In(laid))
	}
}
