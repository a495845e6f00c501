package film

import (
	"slices"
	"testing"

	"allcoats/core/base/fielderr"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestReadingsByArea(t *testing.T) {
	for _, c := range []struct {
		areaM2 float64
		want   int
	}{{0, 5}, {1, 5}, {1.01, 10}, {3, 10}, {10, 15}, {10.5, 20}, {30, 20}, {31, 30}, {100, 30}, {100.1, 40}, {200, 40},
		{201, 50}, {1000, 120}} {
		assert.Equal(t, c.want, Readings(c.areaM2), "%g m²", c.areaM2)
	}
}

// Verdicts worked out by hand for a nominal film of 100 µm.
func TestAcceptByHand(t *testing.T) {
	for _, c := range []struct {
		name     string
		readings []float64
		maximum  float64
		mean     float64
		reasons  []string
	}{
		{"two of five between", []float64{100, 110, 90, 105, 95}, 0, 100, []string{TooManyLow}},
		{"one of five between: a fifth is not fewer than 20 %", []float64{120, 110, 80, 105, 100}, 0, 103,
			[]string{TooManyLow}},
		{"one of six between", []float64{120, 110, 80, 105, 100, 103}, 0, 103, []string{}},
		{"just under 80 %", []float64{120, 130, 79.9, 105, 100}, 0, 106.98, []string{ReadingLow}},
		{"thin on the mean", []float64{100, 100, 100, 100, 100, 97}, 0, 99.5, []string{MeanLow}},
		{"over the maximum", []float64{100, 100, 100, 100, 201}, 200, 120.2, []string{AboveMaximum}},
		{"at the maximum", []float64{100, 100, 100, 100, 200}, 200, 120, []string{}},
		{"all that can be wrong", []float64{90, 70, 90, 301, 1}, 300, 110.4,
			[]string{ReadingLow, TooManyLow, AboveMaximum}},
	} {
		got, err := Accept(AcceptanceRequest{NominalUm: 100, MaximumUm: c.maximum, ReadingsUm: c.readings})
		require.NoError(t, err, c.name)
		assert.InDelta(t, c.mean, got.MeanUm, 1e-9, c.name)
		assert.Equal(t, c.reasons, got.Reasons, c.name)
		assert.Equal(t, len(c.reasons) == 0, got.Accepted, c.name)
	}
}

// Decimals that have no exact binary form are judged as they are written.
func TestAcceptIsExact(t *testing.T) {
	got, err := Accept(AcceptanceRequest{NominalUm: 0.3, ReadingsUm: []float64{0.1, 0.5}})
	require.NoError(t, err)
	assert.NotContains(t, got.Reasons, MeanLow, "the mean is 0.3, not a little less")
	got, err = Accept(AcceptanceRequest{NominalUm: 137.5, ReadingsUm: []float64{110, 165, 137.5, 137.5, 137.5, 137.5}})
	require.NoError(t, err)
	assert.Zero(t, got.Below80, "110 is 80 % of 137.5")
	assert.Equal(t, 1, got.Between)
	assert.True(t, got.Accepted)
}

func TestTooFewReadingsAreSaid(t *testing.T) {
	got, err := Accept(AcceptanceRequest{NominalUm: 100, ReadingsUm: []float64{100, 100}, AreaM2: 12})
	require.NoError(t, err)
	assert.Equal(t, 20, got.Needed)
	require.Len(t, got.Working.Warnings, 1)
	assert.Contains(t, got.Working.Warnings[0].String(), "Readings: 2, and 12 m² needs 20: next to nothing")
	for n, says := range map[int]string{3: "next to nothing", 4: "too few to judge", 19: "too few to judge"} { // a fifth of 20
		got, err = Accept(AcceptanceRequest{NominalUm: 100, ReadingsUm: slices.Repeat([]float64{100}, n), AreaM2: 12})
		require.NoError(t, err)
		require.Len(t, got.Working.Warnings, 1)
		assert.Contains(t, got.Working.Warnings[0].String(), says, "%d readings", n)
	}
	got, err = Accept(AcceptanceRequest{NominalUm: 100, ReadingsUm: slices.Repeat([]float64{100}, 20), AreaM2: 12})
	require.NoError(t, err)
	assert.Empty(t, got.Working.Warnings)
}

func TestAcceptBadFields(t *testing.T) {
	for path, r := range map[string]AcceptanceRequest{
		"nominalUm":     {ReadingsUm: []float64{1}},
		"maximumUm":     {NominalUm: 100, MaximumUm: 90, ReadingsUm: []float64{1}},
		"readingsUm":    {NominalUm: 100},
		"readingsUm[1]": {NominalUm: 100, ReadingsUm: []float64{1, -1}},
		"areaM2":        {NominalUm: 100, ReadingsUm: []float64{1}, AreaM2: -1},
	} {
		_, err := Accept(r)
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
}
