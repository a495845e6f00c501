package clock

import (
	"math"
	"testing"

	"allcoats/core/base/fielderr"
	"allcoats/core/physics/cure"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func hoursAt(n int, tempC float64) []float64 {
	out := make([]float64, n)
	for i := range out {
		out[i] = tempC
	}
	return out
}

func known(v []float64) []*float64 {
	out := make([]*float64, len(v))
	for i := range v {
		out[i] = &v[i]
	}
	return out
}

// table takes 8 h at 10 °C and 4 h at 20 °C.
func table(factor float64) cure.Table {
	return cure.Table{{TempC: 10, Hours: 8 * factor}, {TempC: 20, Hours: 4 * factor}}
}

// At a table's temperatures the clock says what the table says.
func TestComputeAtTheTable(t *testing.T) {
	for temp, opens := range map[float64]float64{10: 8, 20: 4} {
		got, err := Compute(Request{Min: table(1), Max: table(10), SurfaceTempsC: known(hoursAt(200, temp))})
		require.NoError(t, err)
		require.NotNil(t, got.OpensAfterH)
		require.NotNil(t, got.ClosesAfterH)
		assert.InDelta(t, opens, *got.OpensAfterH, 1e-3)
		assert.InDelta(t, 10*opens, *got.ClosesAfterH, 1e-3)
		// The last fifth of 72 h is longer than 12 h, that of 36 h is shorter.
		require.NotNil(t, got.ClosingAfterH)
		assert.InDelta(t, 10*opens-math.Max(12, 9*opens/5), *got.ClosingAfterH, 1e-2)
	}
}

// Hours count from the laying: five cold ones before it change nothing.
func TestComputeCountsFromTheLaying(t *testing.T) {
	temps := append(hoursAt(5, 10), hoursAt(100, 20)...)
	got, err := Compute(Request{Min: table(1), Max: table(10), AppliedAtH: 5, SurfaceTempsC: known(temps)})
	require.NoError(t, err)
	require.NotNil(t, got.OpensAfterH)
	assert.InDelta(t, 4, *got.OpensAfterH, 1e-3)
	assert.InDelta(t, 40, *got.ClosesAfterH, 1e-3)
	_, err = Compute(Request{Min: table(1), AppliedAtH: 200, SurfaceTempsC: known(temps)})
	assert.Error(t, err, "it was laid after the last temperature")
}

// Half of the way at 20 °C and half at 10 °C is 2 h and 4 h, with an hour between
// them that goes from the one to the other.
func TestComputeAddsUpShares(t *testing.T) {
	temps := append(hoursAt(3, 20), hoursAt(20, 10)...)
	got, err := Compute(Request{Min: table(1), SurfaceTempsC: known(temps)})
	require.NoError(t, err)
	require.NotNil(t, got.OpensAfterH)
	// The hour from 20 to 10 °C counts between 1/8 and 1/4.
	assert.Greater(t, *got.OpensAfterH, 3+8*(1-0.5-0.25))
	assert.Less(t, *got.OpensAfterH, 3+8*(1-0.5-0.125))
	assert.Nil(t, got.ClosesAfterH, "a window without a table never closes")
}

func TestComputeStandsStillInTheCold(t *testing.T) {
	got, err := Compute(Request{Min: table(1), MinCureC: 5, AppliedAtH: 1,
		SurfaceTempsC: known(append(hoursAt(11, 4), hoursAt(6, 20)...))})
	require.NoError(t, err)
	require.NotNil(t, got.OpensAfterH)
	assert.Greater(t, *got.OpensAfterH, 9.0+4-1, "ten hours under 5 °C count nothing")
	got, err = Compute(Request{Min: table(1), MinCureC: 5, SurfaceTempsC: known(hoursAt(100, 4))})
	require.NoError(t, err)
	assert.Nil(t, got.OpensAfterH)
	assert.Zero(t, got.MinProgress)
	got, err = Compute(Request{Min: table(1), SurfaceTempsC: known(hoursAt(3, 20))})
	require.NoError(t, err)
	assert.InDelta(t, 0.5, got.MinProgress, 1e-6, "two of four hours")
}

func TestComputeSaysWhatItAssumes(t *testing.T) {
	got, err := Compute(Request{Min: cure.Table{{TempC: 20, Hours: 4}}, OnePointTables: true,
		SurfaceTempsC: known(hoursAt(10, 20))})
	require.NoError(t, err)
	assert.InDelta(t, 4, *got.OpensAfterH, 1e-6)
	require.NotEmpty(t, got.Working.Warnings)
	assert.Contains(t, got.Working.Warnings[0].String(), "50 kJ/mol")
	got, err = Compute(Request{Min: table(1), SurfaceTempsC: known(hoursAt(10, 30))})
	require.NoError(t, err)
	require.NotEmpty(t, got.Working.Warnings)
	assert.Contains(t, got.Working.Warnings[0].String(), "outside the table")
}

func TestComputeBadFields(t *testing.T) {
	for path, change := range map[string]func(*Request){
		"min":              func(r *Request) { r.Min = nil },
		"max[0].hours":     func(r *Request) { r.Max = table(0.5) },
		"min[1].hours":     func(r *Request) { r.Min[1].Hours = 9 },
		"drying":           func(r *Request) { r.Drying = "wind" },
		"surfaceRHPct":     func(r *Request) { r.Drying = "waterborne" },
		"minCureC":         func(r *Request) { r.MinCureC = 70 },
		"appliedAtH":       func(r *Request) { r.AppliedAtH = 10 },
		"surfaceTempsC":    func(r *Request) { r.SurfaceTempsC = r.SurfaceTempsC[:1] },
		"surfaceTempsC[3]": func(r *Request) { *r.SurfaceTempsC[3] = math.NaN() },
	} {
		r := Request{Min: table(1), SurfaceTempsC: known(hoursAt(10, 20))}
		change(&r)
		_, err := Compute(r)
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
}
