package weather

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// Thirty days of June: means of 14 and 16 °C in turn, 4 K warmer at three and colder at three, two wet days in five that follow one another with
// rain in six hours, 3 m/s, 40 % of cloud. What May has too few days of, and what nobody recorded, stays as usual.
func TestNormalsOfARecord(t *testing.T) {
	wind, cloud := 3.0, 40.0
	var s Series
	for d := range 45 { // from the 17th of May
		for h := range 24 {
			at := time.Date(2026, 5, 17+d, h, 0, 0, 0, time.UTC)
			one := Hour{At: at, TempC: 14 + 2*float64(at.Day()%2) + 4*math.Cos(float64(h-15)*math.Pi/12), RHPct: 70,
				WindMS: &wind, CloudPct: &cloud}
			rain := 0.0
			if k := (at.Day() - 1) % 5; k < 2 && h < 6 && at.Month() == time.June {
				rain = 0.5
			}
			one.RainMM = &rain
			s = append(s, one)
		}
	}
	usual := UsualNormals(53)
	got := s.Normals(usual, time.UTC)
	assert.Equal(t, usual[4], got[4], "fifteen days of May")
	assert.Equal(t, usual[6], got[6])
	june := got[5]
	assert.InDelta(t, 15, june.MeanC, 1e-9)
	assert.InDelta(t, 8, june.SwingK, 1e-9)
	assert.InDelta(t, 1, june.SpreadK, 1e-9)
	assert.InDelta(t, 70, june.RHPct, 1e-9)
	assert.InDelta(t, 3, june.WindMS, 1e-9)
	assert.InDelta(t, 40, june.CloudPct, 1e-9)
	assert.InDelta(t, 40, june.WetDayPct, 1e-9)
	assert.InDelta(t, 50, june.WetAfterWetPct, 1e-9)
	assert.InDelta(t, 25, june.WetHoursPct, 1e-9)

	for i := range s {
		s[i].RainMM, s[i].CloudPct, s[i].WindMS = nil, nil, nil
	}
	silent := s.Normals(usual, time.UTC)[5]
	assert.InDelta(t, 15, silent.MeanC, 1e-9)
	want := usual[5]
	want.MeanC, want.SwingK, want.SpreadK, want.RHPct = silent.MeanC, silent.SwingK, silent.SpreadK, silent.RHPct
	assert.Equal(t, want, silent)
}
