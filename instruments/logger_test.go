package instruments

import (
	"math"
	"testing"
	"time"

	"allcoats/core/exposure/reading"
	"allcoats/formats"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestLoggerShowsItsTruthAndItsFaults(t *testing.T) {
	from := time.Date(2026, 5, 1, 0, 0, 0, 0, time.UTC)
	var truth []reading.Reading
	for h := -6; h <= 240; h++ {
		truth = append(truth, reading.Reading{At: from.Add(time.Duration(h) * time.Hour), TempC: 12 +
			5*math.Sin(float64(h)/4), RHPct: 70})
	}
	to := from.Add(9 * 24 * time.Hour)
	read := func(l Logger) []reading.Reading {
		l.Seed, l.Step = 3, 10*time.Minute
		rs, err := formats.ReadReadingLines(l.Lines(truth, from, to, time.UTC))
		require.NoError(t, err)
		return rs
	}
	sound := read(Logger{})
	assert.Len(t, sound, 9*144)
	for _, r := range sound {
		i := int(r.At.Sub(truth[0].At).Hours())
		lo, hi := min(truth[i].TempC, truth[i+1].TempC), max(truth[i].TempC, truth[i+1].TempC)
		require.True(t, r.TempC > lo-0.6 && r.TempC < hi+0.6, "%s: %g", r.At, r.TempC)
	}
	again := read(Logger{})
	assert.Equal(t, sound, again)
	hollow := read(Logger{Local: 2})
	three, noon := 3*6-1, 12*6-1
	assert.InDelta(t, sound[three].TempC-2, hollow[three].TempC, 0.15)
	assert.InDelta(t, sound[noon].TempC, hollow[noon].TempC, 0.15)
	assert.Less(t, len(read(Logger{Fault: DropOuts})), len(sound)-50)
	ahead := read(Logger{Fault: Drifted})
	assert.InDelta(t, sound[100].TempC, ahead[112].TempC, 0.3, "two hours late")
	longest, run := 0, 0
	stuck := read(Logger{Fault: Stuck})
	for i := 1; i < len(stuck); i++ {
		if run++; stuck[i].TempC != stuck[i-1].TempC {
			run = 0
		}
		longest = max(longest, run)
	}
	assert.Greater(t, longest, 29*6)
	empty := Logger{Step: time.Minute}
	assert.Empty(t, empty.Lines(truth[:1], from, to, time.UTC))
}

func TestForecastSpeaksTheDocument(t *testing.T) {
	at := time.Date(2026, 5, 1, 0, 0, 0, 0, time.UTC)
	raw, err := Forecast{}.Forecast(53, 1, at, at.Add(48*time.Hour), at.Add(24*time.Hour))
	require.NoError(t, err)
	s, doc, err := formats.ReadForecast(raw)
	require.NoError(t, err)
	assert.Len(t, s, 49)
	assert.Equal(t, 53.0, doc.LatitudeDeg)
	assert.Equal(t, Forecast{}.Hours(53, 1, at, at.Add(48*time.Hour), at.Add(24*time.Hour)), s)
}
