package formats

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Documents of hours under other names say the same three hours.
func TestReadArrays(t *testing.T) {
	zone, err := time.LoadLocation("Europe/Stockholm")
	require.NoError(t, err)
	for name, doc := range map[string]string{
		"arrays with units beside them": `{"latitude": 57.7, "timezone": "Europe/Stockholm", "units": {"wind": "km/h", "temperature": "°F"},
			"hours": {"time": ["2026-05-01T10:00", "2026-05-01T11:00", "2026-05-01T12:00"], "temperature": [50, 51.8, 53.6], "humidity": [80, 75, 70], "wind": [18, 21.6, null], "rain_mm": [0, 0.4, 0]}}`,
		"an array of hours, with objects in them": `{"list": [
			{"dt": 1777622400, "air": {"temp_c": 10, "humidity": 80}, "wind": {"speed_ms": 5, "direction": 200}, "rain": {"mm": 0}},
			{"dt": 1777626000, "air": {"temp_c": 11, "humidity": 75}, "wind": {"speed_ms": 6, "direction": 210}, "rain": {"mm": 0.4}},
			{"dt": 1777629600, "air": {"temp_c": 12, "humidity": 70}, "wind": {"direction": 210}, "rain": {"mm": 0}}]}`,
		"a bare array, milliseconds": `[{"valid": 1777622400000, "temp °C": 10, "rh %": 80, "wind m/s": 5, "rain mm": 0}, {"valid": 1777626000000, "temp °C": 11, "rh %": 75, "wind m/s": 6, "rain mm": 0.4},
			{"valid": 1777629600000, "temp °C": 12, "rh %": 70, "wind m/s": null, "rain mm": 0}]`,
	} {
		s, _, err := ReadArrays([]byte(doc), zone)
		require.NoError(t, err, name)
		require.Len(t, s, 3, name)
		assert.Equal(t, time.Date(2026, 5, 1, 8, 0, 0, 0, time.UTC), s[0].At, name)
		assert.InDelta(t, 11, s[1].TempC, 1e-9, name)
		assert.Equal(t, 70.0, s[2].RHPct, name)
		assert.InDelta(t, 5, *s[0].WindMS, 1e-9, name)
		assert.Nil(t, s[2].WindMS, name)
		assert.Equal(t, 0.4, *s[1].RainMM, name)
	}
	for want, doc := range map[string]string{
		"cannot be read as a forecast": `{`,
		"has no hourly arrays":         `{"a": [1], "b": {"c": "d"}}`,
		"temp":                         `{"time": ["2026-05-01T10:00", "2026-05-01T11:00"], "pressure": [1000, 1001]}`,
	} {
		_, _, err := ReadArrays([]byte(doc), zone)
		assert.ErrorContains(t, err, want)
	}
}

func FuzzReadArrays(f *testing.F) {
	f.Add(
		[]byte(
			`{"units": {"t": "°C"}, "h": {"time": ["2026-05-01T10:00", "2026-05-01T11:00"], "temp": [1, 2], "rh": [3, null]}}`))
	f.Add([]byte(`[{"dt": 1777622400, "air": {"temp": 1, "hum": 2}}]`))
	f.Fuzz(func(t *testing.T, data []byte) {
		if s, _, err := ReadArrays(data, time.UTC); err == nil {
			for _, h := range s {
				require.False(t, h.At.IsZero())
			}
		}
	})
}
