package logbook

import (
	"testing"

	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMilsAreNoticed(t *testing.T) {
	for _, c := range []struct {
		readings []float64
		expected float64
		want     bool
	}{
		{[]float64{8, 8.5, 7.5}, 200, true}, // 203 µm as mils
		{[]float64{190, 210}, 200, false},
		{[]float64{60, 70}, 200, false}, // thin, but µm
		{[]float64{0.5}, 200, false},    // neither
		{[]float64{40, 42}, 1000, true},
		{nil, 200, false},
		{[]float64{8}, 0, false},
	} {
		assert.Equal(t, c.want, Mils(c.readings, c.expected), c.readings)
	}
	err := Dry{NominalUm: 200, ReadingsUm: []float64{8, 8.5, 7.5}}.Validate()
	assert.ErrorContains(t, err, "these look like mils: about 8 where 200 µm is wanted, and 203.2 µm if they are")
}

// On blasted steel the medium profile of 25 µm comes off each reading.
func TestVerdictTakesTheProfileOff(t *testing.T) {
	d := Dry{NominalUm: 200, ReadingsUm: []float64{210, 220, 215, 225, 205}}
	v, err := d.Verdict(1)
	require.NoError(t, err)
	assert.True(t, v.Accepted)
	assert.Equal(t, 5, v.Needed)
	d.ProfileUm = 25
	v, err = d.Verdict(1)
	require.NoError(t, err)
	assert.False(t, v.Accepted)
	assert.InDelta(t, 190, v.MeanUm, 1e-9)
}

func TestCausesAreRankedByTheRecord(t *testing.T) {
	told := func(key string, r Record) []string {
		b, ok := BlemishByKey(key)
		require.True(t, ok)
		all := b.Causes(r)
		require.Len(t, all, len(b.causes), "none is left out")
		var out []string
		for i, c := range all {
			if c.Told != nil {
				out = append(out, c.Text)
				assert.Equal(t, len(out), i+1, "those with evidence come first")
			}
		}
		return out
	}
	sheet := product.Sheet{Name: "topcoat", SagUprightUm: 150, ThinnerMaxPct: 10, MinCureC: 8, HidingUm: 60,
		Film: product.Film{MinUm: 30}}
	kept := Record{Sheet: sheet, Cleaned: true, Keyed: true}
	for _, c := range []struct {
		blemish string
		edit    func(*Record)
		want    []string
	}{
		{"runs", func(r *Record) { r.WetUm, r.Upright = 180, true }, []string{"laid too thick"}},
		{"runs", func(r *Record) { r.ThinnerPct = 15 }, []string{"thinned too far"}},
		{"fisheye", func(r *Record) { r.Cleaned = false }, []string{"wax, oil or silicone on the surface"}},
		{"bloom", func(r *Record) { r.Damage = []clock.Damage{{Harm: clock.ByDew}} },
			[]string{"dew or rain before it was touch-dry"}},
		{"bloom", func(r *Record) { r.Damage = []clock.Damage{{Harm: clock.ByDew, Forecast: true}} }, nil},
		{"grin", func(r *Record) { r.DryUm = 40 }, []string{"a dark ground under too little film"}},
		{"soft", func(r *Record) { r.RatioOffPct = -12 }, []string{"mixed off its ratio, or not stirred out"}},
		{"soft", func(r *Record) { r.Conditions = &Conditions{SurfaceC: 4, RHPct: 60} }, []string{"too cold to cure"}},
		{"orange-peel", func(r *Record) { r.Conditions = &Conditions{SurfaceC: 36, AirC: 28}; r.Spray = true },
			[]string{"a hot surface: it skinned before it flowed",
				"the spray dried on its way: gun too far, air too high, too warm"}},
		{"dust", func(r *Record) { r.WindMS = 7 }, []string{"dust from the floor, the tack rag or the neighbours"}},
		{"wrinkles", func(r *Record) { r.Early = true }, []string{"coated before the coat below had dried"}},
		{"peeling", func(r *Record) { r.Keyed = false },
			[]string{"no key: the window had closed and it was not sanded"}},
	} {
		r := kept
		c.edit(&r)
		assert.Equal(t, c.want, told(c.blemish, r), c.blemish)
	}
	for _, b := range Blemishes {
		assert.Empty(t, told(b.Key, kept), "a record without a fault speaks for no cause of %s", b.Name)
		assert.NotEmpty(t, b.Remedy)
	}
}

// Runs on two coats, each laid too thick, and once thinned too far: the first came again.
func TestACauseThatComesAgain(t *testing.T) {
	sheet := product.Sheet{Name: "topcoat", SagUprightUm: 150, ThinnerMaxPct: 10}
	thick := Record{Sheet: sheet, WetUm: 180, Upright: true, Cleaned: true, Keyed: true}
	both := thick
	both.ThinnerPct = 15
	got := Repeats([]Blemished{{thick, []string{"runs", "pinholes"}}, {both, []string{"runs"}},
		{Record{Sheet: sheet, Cleaned: true, Keyed: true}, []string{"runs", "no such thing"}}})
	require.Len(t, got, 1)
	assert.Equal(t, "laid too thick", got[0].Text)
	assert.Equal(t, 2, got[0].Times, "two blemishes of one coat count once")
	assert.Equal(t, []string{"runs, sags, curtains", "pinholes, solvent pop"}, got[0].Blemishes)
	assert.NotEmpty(t, got[0].Next)
	assert.Empty(t, Repeats([]Blemished{{thick, []string{"runs"}}}), "once is none")
	for _, b := range Blemishes {
		for _, c := range b.causes {
			assert.NotEmpty(t, c.next, c.text)
		}
	}
}
