package formats

import (
	"fmt"
	"math"
	"strings"
	"testing"
	"time"

	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// epw writes a year: 10 °C with a swing of 8 K in January and 20 °C with one of 8 K in July, a
// straight line between; every fourth day rains for six hours, 1 mm each.
func epw(t *testing.T, rain string, edit func(line int, row []string)) []byte {
	t.Helper()
	var b strings.Builder
	b.WriteString("LOCATION,Oyster Quay,-,XXX,made up,000000,52.5,-4.25,-1.0,3.0\n")
	for _, head := range []string{
		"DESIGN CONDITIONS,0", "TYPICAL/EXTREME PERIODS,0", "GROUND TEMPERATURES,0",
		"HOLIDAYS/DAYLIGHT SAVINGS,No,0,0,0", "COMMENTS 1", "COMMENTS 2", "DATA PERIODS,1,1,Data,Sunday,1/1,12/31"} {
		b.WriteString(head + "\n")
	}
	day := time.Date(epwYear, 1, 1, 0, 0, 0, 0, time.UTC)
	for line := 9; day.Year() == epwYear; line++ {
		mean := 15 - 5*math.Cos(2*math.Pi*float64(day.YearDay()-15)/365)
		row := make([]string, 35)
		for i := range row {
			row[i] = "0"
		}
		row[0], row[1], row[2], row[3] = fmt.Sprint(1990+day.Month()), fmt.Sprint(int(day.Month())),
			fmt.Sprint(day.Day()), fmt.Sprint(day.Hour()+1)
		row[epwTemp] = fmt.Sprintf("%.2f", mean+4*math.Cos(2*math.Pi*float64(day.Hour()-15)/24))
		row[epwRH], row[epwWind], row[epwCloud], row[epwRain], row[epwGlobal] = "80", "5", "4", "0", "9999"
		if rain != "" && day.YearDay()%4 == 0 && day.Hour() < 6 {
			row[epwRain] = rain
		}
		if edit != nil {
			edit(line, row)
		}
		b.WriteString(strings.Join(row, ",") + "\n")
		day = day.Add(time.Hour)
	}
	return []byte(b.String())
}

func TestReadEPW(t *testing.T) {
	s, p, err := ReadEPW(epw(t, "1", nil))
	require.NoError(t, err)
	assert.Equal(t, ClimatePlace{"Oyster Quay", 52.5, -4.25}, p)
	require.Len(t, s, 8760)
	assert.Equal(t, time.Date(epwYear, 1, 1, 1, 0, 0, 0, time.UTC), s[0].At,
		"the hour that ends at one, an hour west of Greenwich")
	assert.Nil(t, s[0].ShortwaveWM2, "9999 is none")
	assert.Equal(t, 40.0, *s[0].CloudPct)
	n := s.Normals(weather.UsualNormals(52), time.FixedZone("", -3600))
	assert.InDelta(t, 10, n[0].MeanC, 0.3)
	assert.InDelta(t, 20, n[6].MeanC, 0.3)
	assert.InDelta(t, 8, n[3].SwingK, 0.05)
	assert.InDelta(t, 700/31.0, n[4].WetDayPct, 0.01, "every fourth day of the year, seven in May")
	assert.InDelta(t, 25, n[4].WetHoursPct, 0.01, "six hours of twenty-four")
	assert.Zero(t, n[4].WetAfterWetPct)
	assert.Equal(t, []float64{80, 5, 40}, []float64{n[2].RHPct, n[2].WindMS, n[2].CloudPct})

	dry, _, err := ReadEPW(epw(t, "", nil))
	require.NoError(t, err)
	assert.Nil(t, dry[100].RainMM, "a year without rain is one of which it is not known")
	assert.Equal(t, weather.UsualNormals(52)[4].WetDayPct, dry.Normals(weather.UsualNormals(52), time.UTC)[4].WetDayPct)
}

func TestReadEPWRefuses(t *testing.T) {
	for want, data := range map[string][]byte{
		"line 1: LOCATION has no latitude": []byte("LOCATION,a\n"),
		"line 1: latitude":                 []byte("LOCATION,a,-,X,s,0,95,0,0,0\n"),
		"file: holds 0 hours":              []byte("LOCATION,a,-,X,s,0,50,0,0,0\n"),
		"line 20: temperature or humidity is missing": epw(t, "1", func(line int, row []string) {
			row[epwTemp] = map[bool]string{true: "99.9", false: row[epwTemp]}[line == 20]
		}),
		"line 30: field 22, \"x\", is no number":     epw(t, "1", func(line int, row []string) { row[epwWind] = map[bool]string{true: "x", false: "5"}[line == 30] }),
		"line 40: month 13, day":                     epw(t, "1", func(line int, row []string) { row[1] = map[bool]string{true: "13", false: row[1]}[line == 40] }),
		"line 34: is not later than the line before": epw(t, "1", func(line int, row []string) { row[2] = map[bool]string{true: "1", false: row[2]}[line == 34] }),
		"line 9: has 3 fields; a row of an EPW file has 29": []byte("LOCATION,a,-,X,s,0,50,0,0,0\n" +
			strings.Repeat("x\n", 7) + "1,2,3\n"),
	} {
		_, _, err := ReadEPW(data)
		assert.ErrorContains(t, err, want)
	}
}

func FuzzReadEPW(f *testing.F) {
	f.Add([]byte("LOCATION,a,-,X,s,0,50,0,0,0\n" + strings.Repeat("x\n", 7) + "2001,1,1,1,0,?,5,4,90" +
		strings.Repeat(",0", 26) + "\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		if s, _, err := ReadEPW(data); err == nil {
			require.NoError(t, s.Validate())
		}
	})
}
