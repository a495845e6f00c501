package weather

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestSayTheDay(t *testing.T) {
	now := time.Date(2026, 5, 9, 9, 24, 0, 0, time.UTC)
	day := func(date, rain string, from, to, ms float64) Series {
		s, err := SimpleDay{Date: date, MinC: 8, MaxC: 16, Sky: "clear", Rain: rain, RainFromH: from, RainToH: to,
			Wind: "light", Air: "usual", WindMS: &ms}.Hours(time.UTC)
		require.NoError(t, err)
		return s
	}
	for _, c := range []struct {
		today, tomorrow Series
		want            string
	}{
		{day("2026-05-09", "dry", 0, 0, 4), nil,
			"10.8 °C to 16 °C, dry, wind to 4 m/s"}, // 8 + 4 · (1 − cos 72°) at nine, 16 at three
		{day("2026-05-09", RainHours, 14, 17, 4), day("2026-05-10", RainHours, 0, 2, 5),
			"10.8 °C to 16 °C, rain 14:00 to 17:00, wind to 4 m/s; tomorrow 8 °C to 16 °C, rain 00:00 to 02:00, wind to 5 m/s"},
		{day("2026-05-09", RainHours, 20, 24, 4), nil, "10.8 °C to 16 °C, rain 20:00 to 24:00, wind to 4 m/s"},
		{nil, nil, ""},
	} {
		got := append(append(Series{}, c.today...), c.tomorrow...).Say(now, time.UTC).String()
		assert.Equal(t, c.want, got)
	}
	untold := day("2026-05-09", "dry", 0, 0, 4)
	for i := range untold {
		untold[i].RainMM = nil
	}
	assert.Contains(t, untold.Say(now, time.UTC).String(), "rain not told")
}

func TestSimpleDayTakesFigures(t *testing.T) {
	rh, ms := 70.0, 6.0
	d := SimpleDay{Date: "2026-05-09", MinC: 10, MaxC: 10, Sky: "clear", Rain: RainHours, RainFromH: 14, RainToH: 15.5,
		Wind: "calm", Air: "fog", RHPct: &rh, WindMS: &ms}
	s, err := d.Hours(time.UTC)
	require.NoError(t, err)
	for i, h := range s {
		assert.InDelta(t, 70, h.RHPct, 0.2, "hour %d: of a day of one temperature the mean is every hour's", i)
		assert.InDelta(t, 6, *h.WindMS, 1e-9)
		assert.Equal(t, i == 14 || i == 15, *h.RainMM > 0, "hour %d", i)
	}
	assert.Equal(t, "Sat 9 May: 10 °C to 10 °C, sunny, rain from 14:00 to 15:30, wind 6 m/s, humidity about 70 %",
		d.Say().String())
	d.RainToH = 30
	_, err = d.Hours(time.UTC)
	assert.ErrorContains(t, err, "rainToH")
}
