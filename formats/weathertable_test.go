package formats

import (
	"strings"
	"testing"
	"time"

	"allcoats/core/base/fielderr"

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
		{"twice", strings.Replace(head, "08:00Z", "08:00:00Z", 1) + "2026-05-09T08:00:00Z,9,80\n", "line 3",
			"same as on the line before"},
		{"backwards", strings.Replace(head, "08:00Z", "08:00:00Z", 1) +
			"2026-05-09T09:00:00Z,9,80\n2026-05-09T07:00:00Z,9,80\n", "line 4", "earlier than"},
		{"quote", head + "\"2026,9,80\n", "line 3", "cannot be read"},
	} {
		t.Run(c.name, func(t *testing.T) {
			file := strings.Replace(c.file, "08:00Z", "08:00:00Z", 1)
			got, _, err := ReadWeather([]byte(file), time.UTC)
			assert.Nil(t, got)
			var bad fielderr.Errors
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

// A table and a document whose names nobody guesses are read by what is said of them.
func TestColumnsThatAreTold(t *testing.T) {
	const table = "stamp;k1;k2;k3;note\n2026-05-09 10:00;12,5;81;3,2;a\n2026-05-09 11:00;13,0;79;2,8;b\n"
	const arrays = `{"h":{"note":["a","b"],"k1":[12.5,13.0],"k2":[81,79],"k3":[3.2,2.8],"stamp":["2026-05-09T10:00","2026-05-09T11:00"]}}`
	said := map[string]string{"stamp": "time", "k1": "temp", "k2": "rh", "k3": "wind", "note": ""}
	for _, data := range []string{table, arrays} {
		_, _, err := WeatherReader{Loc: time.UTC}.Read([]byte(data))
		require.Error(t, err, "no column is named")
		columns, err := WeatherReader{Loc: time.UTC}.Names([]byte(data))
		require.NoError(t, err)
		require.Len(t, columns, 5)
		for _, c := range columns {
			assert.Equal(t, c.Name == "stamp", c.Is == "time", c.Name)
			if c.Name == "k2" {
				assert.Equal(t, "81", c.First)
			}
		}
		s, _, err := WeatherReader{Loc: time.UTC, Columns: said}.Read([]byte(data))
		require.NoError(t, err)
		require.Len(t, s, 2)
		assert.Equal(t, []float64{12.5, 81, 3.2}, []float64{s[0].TempC, s[0].RHPct, *s[0].WindMS})
		assert.Equal(t, time.Date(2026, 5, 9, 11, 0, 0, 0, time.UTC), s[1].At.UTC())
	}
	// What is said counts more than what a name says, and what is left out is not read.
	s, _, err := WeatherReader{Loc: time.UTC, Columns: map[string]string{"temp inside": "", "wind (m/s)": ""}}.Read(
		[]byte("time,temp inside,temp outside,rh,wind (m/s)\n2026-05-09 10:00,21,9,80,4\n"))
	require.NoError(t, err)
	assert.Equal(t, 9.0, s[0].TempC)
	assert.Nil(t, s[0].WindMS)

	assert.NoError(t, CheckColumns(said))
	assert.ErrorContains(t, CheckColumns(map[string]string{"a": "temp", "b": "temp"}), "“a” and “b”")
	assert.ErrorContains(t, CheckColumns(map[string]string{"a": "mood"}), "mood")
}
