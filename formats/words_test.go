package formats

import (
	"strings"
	"testing"
	"time"

	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestReadDays(t *testing.T) {
	now := time.Date(2026, 5, 7, 9, 0, 0, 0, time.UTC) // a Thursday
	f := func(v float64) *float64 { return &v }
	day := func(date string, lo, hi float64, sky, rain, wind, air string) weather.SimpleDay {
		return weather.SimpleDay{Date: date, MinC: lo, MaxC: hi, Sky: sky, Rain: rain, Wind: wind, Air: air}
	}
	with := func(d weather.SimpleDay, change func(*weather.SimpleDay)) weather.SimpleDay { change(&d); return d }
	const d7, d8, d9 = "2026-05-07", "2026-05-08", "2026-05-09"
	for text, c := range map[string]struct {
		want   []weather.SimpleDay
		doubts int
	}{
		"8 to 16, sunny, dry, light wind": {
			[]weather.SimpleDay{day(d7, 8, 16, "clear", "dry", "light", "usual")}, 0},
		"Overcast. 4-9 °C; no rain, calm and damp": {nil, -1}, // a second day without temperatures
		"Overcast, 4–9 °C, no rain, calm and damp": {
			[]weather.SimpleDay{day(d7, 4, 9, "overcast", "dry", "calm", "damp")}, 0},
		"min 3 max 11 partly cloudy rain from 15": {[]weather.SimpleDay{with(day(d7, 3, 11, "broken", "hours", "light", "usual"), func(d *weather.SimpleDay) { d.RainFromH, d.RainToH = 15, 24 })}, 0},
		"-2/6 clear, dry, 12 kn":                  {[]weather.SimpleDay{with(day(d7, -2, 6, "clear", "dry", "light", "usual"), func(d *weather.SimpleDay) { d.WindMS = f(12 * 1852.0 / 3600) })}, 0},
		"50 to 68, cloudy, dry": {
			[]weather.SimpleDay{day(d7, 10, 20, "cloudy", "dry", "light", "usual")}, 1},
		"50F to 59F cloudy dry": {
			[]weather.SimpleDay{day(d7, 10, 15, "cloudy", "dry", "light", "usual")}, 0},
		"9 to 17, sunny, dry until 2 pm, humidity 70": {[]weather.SimpleDay{with(day(d7, 9, 17, "clear", "hours", "light", "usual"), func(d *weather.SimpleDay) { d.RainFromH, d.RainToH, d.RHPct = 14, 24, f(70) })}, 0},
		"9 to 17, cloudy, rain 1 to 3 pm, 60-90 %":    {[]weather.SimpleDay{with(day(d7, 9, 17, "cloudy", "hours", "light", "usual"), func(d *weather.SimpleDay) { d.RainFromH, d.RainToH, d.RHPct = 13, 15, f(75) })}, 0},
		"18 by day, 7 at night, fine, dry": {
			[]weather.SimpleDay{day(d7, 7, 18, "clear", "dry", "light", "usual")}, 0},
		"15 and sunny": {
			[]weather.SimpleDay{day(d7, 4, 15, "clear", "dry", "light", "usual")}, 2}, // one temperature, no rain
		"8 to 16": {
			[]weather.SimpleDay{day(d7, 8, 16, "cloudy", "dry", "light", "usual")}, 2},
		"8 to 16, sunny, dry, purple": {
			[]weather.SimpleDay{day(d7, 8, 16, "clear", "dry", "light", "usual")}, 1},
		"today 8 to 16 sunny dry tomorrow 6 to 12 overcast rain": {
			[]weather.SimpleDay{day(d7, 8, 16, "clear", "dry", "light", "usual"), day(d8, 6, 12, "overcast", "all-day",
				"light", "usual")}, 0},
		"8 to 16 sunny dry\nsat: 6 to 12 cloudy showers force 4": {[]weather.SimpleDay{day(d7, 8, 16, "clear", "dry", "light", "usual"), day(d8, 8, 16, "clear", "dry", "light", "usual"), with(day(d9, 6, 12, "cloudy", "showers", "light", "usual"), func(d *weather.SimpleDay) { d.WindMS = f(0.836 * 8) })}, 1},
		"8 to 16, sun and cloud, dry; 9 to 15 fog, sunny, dry": {
			[]weather.SimpleDay{day(d7, 8, 16, "broken", "dry", "light", "usual"),
				day(d8, 9, 15, "clear", "dry", "light", "fog")}, 0},
		"8.5 to 16,5 sunny, rain in the morning, breezy, dry air": {
			[]weather.SimpleDay{day(d7, 8.5, 16.5, "clear", "morning", "fresh", "dry")}, 0},
	} {
		got, doubts, err := ReadDays(text, now, time.UTC)
		if c.doubts < 0 {
			assert.Error(t, err, text)
			continue
		}
		require.NoError(t, err, text)
		assert.Len(t, doubts, c.doubts, "%s: %v", text, doubts)
		require.Len(t, got, len(c.want), text)
		for i := range got {
			assert.InDelta(t, c.want[i].MinC, got[i].MinC, 1e-9, text)
			assert.InDelta(t, c.want[i].MaxC, got[i].MaxC, 1e-9, text)
			if c.want[i].WindMS != nil {
				require.NotNil(t, got[i].WindMS, text)
				assert.InDelta(t, *c.want[i].WindMS, *got[i].WindMS, 1e-9, text)
				got[i].WindMS = c.want[i].WindMS
			}
			got[i].MinC, got[i].MaxC = c.want[i].MinC, c.want[i].MaxC
			assert.Equal(t, c.want[i], got[i], text)
		}
		_, err = got[0].Hours(time.UTC)
		assert.NoError(t, err, text)
	}
	for _, text := range []string{strings.Repeat("8 to 16, dry, ", 300), "", "sunny and dry", "8 to 16 and 20, dry",
		"tomorrow 8 to 12 dry", "8 to 12; today 8 to 12"} {
		_, _, err := ReadDays(text, now, time.UTC)
		assert.Error(t, err, text)
	}
}

func FuzzReadDays(f *testing.F) {
	f.Add("8 to 16, sunny, dry, light wind; tomorrow 6 to 12, rain from 14")
	f.Add("min -3 max 4 °C overcast showers 60-90 % f5")
	f.Add("sat 50F")
	now := time.Date(2026, 5, 7, 9, 0, 0, 0, time.UTC)
	f.Fuzz(func(t *testing.T, text string) {
		days, _, err := ReadDays(text, now, time.UTC)
		assert.Equal(t, err != nil, len(days) == 0)
		for i, d := range days {
			assert.LessOrEqual(t, d.MinC, d.MaxC)
			if i > 0 {
				assert.Greater(t, d.Date, days[i-1].Date)
			}
		}
	})
}
