package units

import (
	"allcoats/core/base/message"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestConvertByDefinition(t *testing.T) {
	for _, c := range []struct {
		v        float64
		from, to string
		want     float64
	}{
		{1, "in", "mm", 25.4}, {1, "ft", "m", 0.3048}, {1, "imp gal", "L", 4.54609}, {1, "US gal", "US qt", 4},
		{16, "oz", "lb", 1}, {0, "°C", "°F", 32}, {100, "°C", "°F", 212}, {-40, "°F", "°C", -40},
		{9, "°F difference", "K", 5},
		{1, "kn", "m/s", 1852. / 3600}, {100, "um", "mil", 100 / 25.4},
		// By the exact foot, pound and gallons, reckoned by hand.
		{1, "US fl oz/ft²", "L/m²", 0.3183268229}, {1, "ft²/US gal", "m²/L", 0.0245423867}, {1, "ft²/h", "m²/h", 0.09290304},
		{1, "lb/US gal", "kg/L", 0.119826427}, {1, "US fl oz", "mL", 29.573529563}, {1, "imp fl oz", "mL", 28.4130625},
		{1, "imp pt", "mL", 568.26125}, {1, "US qt", "L", 0.946352946}, {1, "ft²", "m²", 0.09290304},
		{1, "lb", "g", 453.59237}, {1, "oz", "g", 28.349523125}, {1, "mph", "m/s", 0.44704}, {1, "inHg", "hPa", 33.86389},
	} {
		got, err := Convert(c.v, c.from, c.to)
		require.NoError(t, err)
		assert.InDelta(t, c.want, got, 1e-9, "%v %s in %s", c.v, c.from, c.to)
		back, err := Convert(got, c.to, c.from)
		require.NoError(t, err)
		assert.InDelta(t, c.v, back, 1e-9, "and back")
	}
}

// What the client does with a Display is what Convert does.
func TestDisplaysAgreeWithConvert(t *testing.T) {
	imperial := map[string]string{"K": "°F difference"}
	for _, d := range Displays() {
		to := d.ImperialSymbol
		if name, ok := imperial[d.Metric]; ok {
			to = name
		}
		for _, v := range []float64{-3, 0, 17.5} {
			want, err := Convert(v, d.Metric, to)
			require.NoError(t, err, d.Metric)
			assert.InDelta(t, want, v*d.Factor+d.Offset, 1e-9, d.Metric)
		}
	}
}

func TestOverflowIsAFault(t *testing.T) {
	for _, v := range []float64{1e308, -1e308, math.Inf(1), math.NaN()} {
		_, err := Convert(v, "m", "µm")
		assert.ErrorContains(t, err, "value: ", "%g", v)
	}
	_, err := Convert(1e300, "m", "µm")
	assert.NoError(t, err)
}

func TestQuantitiesInSentencesCanBeShown(t *testing.T) {
	var shown []string
	for _, d := range Displays() {
		shown = append(shown, d.Metric)
	}
	assert.ElementsMatch(t, shown, message.Units)
}
