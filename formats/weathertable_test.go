package formats

import (
	"strings"
	"testing"
	"time"

	"allcoats/core/base/fault"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func london(t testing.TB) *time.Location {
	loc, err := time.LoadLocation("Europe/London")
	require.NoError(t, err)
	return loc
}

func TestReadWeather(t *testing.T) {
	const file = "\xef\xbb\xbfhumidity;Time;temperature;rain\n81;2026-05-09 10:00;9.5;0.2\n79;2026-05-09T10:00:00Z;10;\n"
	got, _, err := ReadWeather([]byte(file), london(t))
	require.NoError(t, err)
	require.Len(t, got, 2)
	assert.Equal(t, time.Date(2026, 5, 9, 9, 0, 0, 0, time.UTC), got[0].At, "local summer time")
	assert.Equal(t, time.Date(2026, 5, 9, 10, 0, 0, 0, time.UTC), got[1].At, "with its own zone")
	assert.Equal(t, 9.5, got[0].TempC)
	assert.Equal(t, 0.2, *got[0].RainMM)
	assert.Nil(t, got[1].RainMM)
	assert.Nil(t, got[0].WindMS)
}

func TestReadWeatherNamesTheLine(t *testing.T) {
	const head = "time,temperature,humidity\n2026-05-09T08:00Z,9,80\n"
	for _, c := range []struct{ name, file, place, message string }{
		{"empty", "", "line 1", "no header"},
		{"no humidity", "time,temperature\n", "line 1", "humidity"},
		{"no rows", "time,temperature,humidity\n", "line 2", "no rows"},
		{"humidity 140", head + "2026-05-09T09:00:00Z,9,140\n", "line 3", "rhPct"},
		{"text", head + "2026-05-09T09:00:00Z,warm,80\n", "line 3", `"warm" is not a number`},
		{"not a number", head + "2026-05-09T09:00:00Z,NaN,80\n", "line 3", "temperature is missing"},
		{"missing", head + "2026-05-09T09:00:00Z,,80\n", "line 3", "temperature is missing"},
		{"bad time", head + "yesterday,9,80\n", "line 3", "not a time"},
		{"twice", strings.Replace(head, "08:00Z", "08:00:00Z", 1) + "2026-05-09T08:00:00Z,9,80\n", "line 3", "same as on the line before"},
		{"backwards", strings.Replace(head, "08:00Z", "08:00:00Z", 1) + "2026-05-09T09:00:00Z,9,80\n2026-05-09T07:00:00Z,9,80\n", "line 4", "earlier than"},
		{"quote", head + "\"2026,9,80\n", "line 3", "cannot be read"},
	} {
		t.Run(c.name, func(t *testing.T) {
			file := strings.Replace(c.file, "08:00Z", "08:00:00Z", 1)
			got, _, err := ReadWeather([]byte(file), time.UTC)
			assert.Nil(t, got)
			var bad fault.Errors
			require.ErrorAs(t, err, &bad)
			assert.Equal(t, c.place, bad[0].Path)
			assert.Contains(t, bad[0].Message, c.message)
		})
	}
}

func FuzzReadWeather(f *testing.F) {
	f.Add("time,temperature,humidity\n2026-05-09T08:00:00Z,9,80\n2026-05-09T09:00:00Z,9.5,79\n")
	f.Add("Time;humidity;temp;wind;rain;cloud;shortwave\n2026-05-09 08:00;80;9;1;2;3;4\n")
	f.Add("\"")
	f.Fuzz(func(t *testing.T, file string) {
		s, _, err := ReadWeather([]byte(file), time.UTC)
		if err == nil {
			assert.NoError(t, s.Validate(), "what is accepted is valid")
			assert.NotEmpty(t, s)
		} else {
			assert.Nil(t, s)
		}
	})
}
