package formats

import (
	"fmt"
	"math"
	"strings"
	"testing"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/exposure/reading"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestSniffAndRead(t *testing.T) {
	ten := time.Date(2026, 5, 9, 10, 0, 0, 0, time.UTC)
	cases := []struct {
		name, file, zone string
		first            time.Time
		tempC, rhPct     float64
		doubt            string
	}{
		{"commas, ISO", "time,temperature,humidity\n2026-05-09 10:00,12.5,71\n2026-05-09 10:10,12.6,70\n", "UTC", ten,
			12.5, 71, ""},
		{"semicolons, decimal commas, day first, in Berlin",
			"Logger 7;;\nZeit;Temperatur °C;Feuchte %\n09.05.2026 12:00:00;12,5;71,0\n22.05.2026 12:10:00;12,6;70,0\n",
			"Europe/Berlin", ten, 12.5, 71, ""},
		{"month first, afternoon, °F and a share of 1",
			"No.,Date,Temp (°F),RH\n1,5/13/2026 1:30:00 PM,59.0,0.55\n2,5/13/2026 1:40:00 PM,60.8,0.56\n", "UTC",
			time.Date(2026, 5, 13, 13, 30, 0, 0, time.UTC), 15, 55, "°F"},
		{"tabs, date and time apart, humidity first",
			"rh\ttemp\tdate\ttime\n71\t12.5\t2026-05-09\t10:00\n70\t12.6\t2026-05-09\t10:10\n", "UTC", ten, 12.5, 71,
			""},
		{"seconds since 1970 and its own order",
			"batt_volt,rh,epoch,temp\n3.1,71,1778320800,12.5\n3.1,70,1778321400,12.6\n", "UTC", ten, 12.5, 71, ""},
		{"an offset of its own",
			"at|temp_c|rh_pct\n2026-05-09T12:00:00+02:00|12.5|71\n2026-05-09T12:10:00+02:00|12.6|71\n",
			"America/New_York", ten, 12.5, 71, ""},
		{"no header, temperature alone", "09/05/2026 10:00;12,5\n09/05/2026 10:10;12,6\n", "UTC", ten, 12.5, math.NaN(),
			"day first or month first"},
		{"a fixed offset", "time;t;rh\n2026-05-09 11:00;12.5;71\n2026-05-09 11:10;12.6;71\n", "+01:00", ten, 12.5, 71,
			""},
	}
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			p, err := Sniff([]byte(c.file), c.zone)
			require.NoError(t, err)
			assert.Contains(t, strings.Join(p.Doubts, " "), c.doubt)
			got, err := ReadReadings([]byte(c.file), p.Mapping)
			require.NoError(t, err, "%+v", p.Mapping)
			require.Len(t, got.Rows, 2, "%+v", p.Mapping)
			assert.Equal(t, c.first, got.Rows[0].At, "%+v", p.Mapping)
			assert.InDelta(t, c.tempC, got.Rows[0].TempC, 1e-9)
			if math.IsNaN(c.rhPct) {
				assert.True(t, math.IsNaN(got.Rows[0].RHPct))
			} else {
				assert.InDelta(t, c.rhPct, got.Rows[0].RHPct, 1e-9)
			}
		})
	}
	_, err := Sniff([]byte("a letter about the weather\n"), "UTC")
	assert.ErrorContains(t, err, "no table")
	_, err = Sniff(nil, "UTC")
	assert.Error(t, err)
}

func iso(zone string) Mapping {
	return Mapping{Delimiter: "comma", HeaderLines: 1, Time: 0, Clock: -1, Temp: 1, RH: 2, Order: "ymd", Zone: zone,
		TempUnit: "C", RHUnit: "%"}
}

func rows(lines ...string) []byte {
	return []byte("time,temp,rh\n" + strings.Join(lines, "\n") + "\n")
}

// The clocks of London go back on 25 October 2026 at 02:00 summer time.
func TestHourThatIsThereTwice(t *testing.T) {
	got, err := ReadReadings(rows("2026-10-25 00:30,10,70", "2026-10-25 01:00,10,70", "2026-10-25 01:30,10,71",
		"2026-10-25 01:00,10,72", "2026-10-25 01:30,10,73", "2026-10-25 02:00,10,74"), iso("Europe/London"))
	require.NoError(t, err)
	require.Len(t, got.Rows, 6)
	for i, r := range got.Rows {
		assert.Equal(t, time.Date(2026, 10, 24, 23, 30+30*i, 0, 0, time.UTC), r.At)
	}
	assert.Contains(t, got.Notes[0], "told apart by their order")
	_, err = ReadReadings(rows("2026-10-25 01:30,10,70", "2026-10-25 02:30,10,70"), iso("Europe/London"))
	assert.ErrorContains(t, err, "there twice in Europe/London")
	got, err = ReadReadings(rows("2026-10-25 01:30,10,70", "2026-10-25 02:30,10,70"), iso("UTC"))
	require.NoError(t, err)
	assert.Equal(t, 1, got.Rows[0].At.Hour())
	_, err = ReadReadings(rows("2026-03-29 00:30,10,70", "2026-03-29 01:30,10,70"), iso("Europe/London"))
	assert.ErrorContains(t, err, "does not exist in Europe/London")
}

func TestBadReadings(t *testing.T) {
	many := func(line func(i int) string) []byte {
		var out []string
		for i := range 30 {
			out = append(out, fmt.Sprintf("2026-05-09 10:%02d,%s", i, line(i)))
		}
		return rows(out...)
	}
	cases := []struct {
		name  string
		file  []byte
		m     Mapping
		where string
		what  string
	}{
		{"backwards", rows("2026-05-09 10:00,10,70", "2026-05-09 09:00,10,70"), iso("UTC"), "line 3", "earlier"},
		{"twice with other values", rows("2026-05-09 10:00,10,70", "2026-05-09 10:00,11,70"), iso("UTC"), "line 3",
			"the same"},
		{"no number", rows("2026-05-09 10:00,warm,70"), iso("UTC"), "line 2", "not a number"},
		{"no time", rows("yesterday,10,70"), iso("UTC"), "line 2", "not a time"},
		{"fraction", many(func(int) string { return "12,0.7" }), iso("UTC"), "mapping.rhUnit", "share of 1"},
		{"fahrenheit", many(func(i int) string {
			return fmt.Sprint(50+i, ",70")
		}), iso("UTC"), "mapping.tempUnit", "°F"},
		{"impossible", rows("2026-05-09 10:00,10,170"), iso("UTC"), "2026-05-09T10:00:00Z.rhPct", "105"},
		{"no such zone", rows("2026-05-09 10:00,10,70"), iso("Mars/Olympus"), "mapping.zone", "offset"},
		{"nothing", rows(), iso("UTC"), "file", "no readings"},
	}
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			_, err := ReadReadings(c.file, c.m)
			var bad fielderr.Errors
			require.ErrorAs(t, err, &bad)
			assert.Equal(t, c.where, bad[0].Path)
			assert.Contains(t, bad[0].Message, c.what)
		})
	}
	m := iso("UTC")
	m.Time, m.Temp, m.RH = -1, -1, -1
	_, err := ReadReadings(rows("2026-05-09 10:00,10,70"), m)
	assert.ErrorContains(t, err, "mapping.time")
	got, err := ReadReadings(rows("2026-05-09 10:00,10,70", "2026-05-09 10:00,10,70", "2026-05-09 10:10,---,",
		"2026-05-09 10:20,,71"), iso("UTC"))
	require.NoError(t, err)
	assert.Len(t, got.Rows, 2)
	assert.Len(t, got.Notes, 2)
}

func TestReadingLinesRoundTrip(t *testing.T) {
	in := []reading.Reading{{At: time.Date(2026, 5, 9, 10, 0, 0, 0, time.UTC), TempC: 12.375, RHPct: 71},
		{At: time.Date(2026, 5, 9, 10, 1, 0, 0, time.UTC), TempC: 12.4, RHPct: math.NaN()}}
	out, err := ReadReadingLines(WriteReadingLines(in))
	require.NoError(t, err)
	require.Len(t, out, 2)
	assert.Equal(t, in[0], out[0])
	assert.True(t, math.IsNaN(out[1].RHPct))
	for _, bad := range []string{"", "{", `{"at":"2026-05-09T10:00:00Z"}`, `{"at":"2026-05-09T10:00:00Z","tempC":400}`,
		`{"at":"1926-05-09T10:00:00Z","tempC":4}`, `{"at":"2026-05-09T10:00:00Z","temp":4}`} {
		_, err := ReadReadingLines([]byte(bad))
		assert.Error(t, err, bad)
	}
}

func TestForecastRoundTrip(t *testing.T) {
	noon := time.Date(2026, 5, 9, 12, 0, 0, 0, time.UTC)
	wind := 4.5
	s, _, err := ReadForecast(
		[]byte(
			`{"latitudeDeg":52,"longitudeDeg":1,"issuedAt":"2026-05-09T12:30:00Z","hourly":{"at":["2026-05-09T12:00:00Z","2026-05-09T13:00:00Z"],"tempC":[12,13],"rhPct":[70,68],"windMS":[4.5,null]}}`))
	require.NoError(t, err)
	require.Len(t, s, 2)
	assert.Equal(t, []bool{true, false}, []bool{s[0].Measured, s[1].Measured})
	assert.Equal(t, &wind, s[0].WindMS)
	assert.Nil(t, s[1].WindMS)
	raw, err := WriteForecast(52, 1, noon.Add(30*time.Minute), s)
	require.NoError(t, err)
	again, doc, err := ReadForecast(raw)
	require.NoError(t, err)
	assert.Equal(t, s, again)
	assert.Equal(t, 52.0, doc.LatitudeDeg)
	for path, bad := range map[string]string{
		"hourly.rhPct":    `{"issuedAt":"2026-05-09T12:30:00Z","hourly":{"at":["2026-05-09T12:00:00Z"],"tempC":[12],"rhPct":[]}}`,
		"issuedAt":        `{"hourly":{"at":["2026-05-09T12:00:00Z"],"tempC":[12],"rhPct":[70]}}`,
		"hourly[0].rhPct": `{"issuedAt":"2026-05-09T12:30:00Z","hourly":{"at":["2026-05-09T12:00:00Z"],"tempC":[12],"rhPct":[700]}}`,
		"file":            `{"hours":[]}`,
	} {
		_, _, err := ReadForecast([]byte(bad))
		assert.ErrorContains(t, err, path)
	}
}

func FuzzReadReadings(f *testing.F) {
	f.Add([]byte("time,temp,rh\n2026-05-09 10:00,12.5,71\n"))
	f.Add([]byte("a;b\n09.05.2026 12:00;12,5\n10.05.2026 12:00;12,6\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		p, err := Sniff(data, "Europe/London")
		if err != nil {
			return
		}
		got, err := ReadReadings(data, p.Mapping)
		if err != nil {
			return
		}
		for i, r := range got.Rows {
			require.NoError(t, r.Validate())
			if i > 0 {
				require.True(t, r.At.After(got.Rows[i-1].At))
			}
		}
	})
}

func FuzzReadReadingLines(f *testing.F) {
	f.Add([]byte(`{"at":"2026-05-09T10:00:00Z","tempC":12}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		if rs, err := ReadReadingLines(data); err == nil {
			require.NotEmpty(t, rs)
		}
	})
}

func FuzzReadForecast(f *testing.F) {
	f.Add(
		[]byte(
			`{"issuedAt":"2026-05-09T12:30:00Z","hourly":{"at":["2026-05-09T12:00:00Z"],"tempC":[12],"rhPct":[70]}}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		if s, _, err := ReadForecast(data); err == nil {
			require.NoError(t, s.Validate())
		}
	})
}

// A year of minutes, 525 600 lines.
func BenchmarkReadYearOfMinutes(b *testing.B) {
	var file strings.Builder
	file.WriteString("time;temp;rh\n")
	for at, i := time.Date(2025, 1, 1, 0, 0, 0, 0, time.UTC), 0; i < 525_600; i++ {
		fmt.Fprintf(&file, "%s;%.1f;%d\n", at.Add(time.Duration(i)*time.Minute).Format("02.01.2006 15:04"),
			10+float64(i%97)/10, 60+i%30)
	}
	data := []byte(file.String())
	m := iso("UTC")
	m.Delimiter, m.Order = "semicolon", "dmy"
	for b.Loop() {
		if _, err := ReadReadings(data, m); err != nil {
			b.Fatal(err)
		}
	}
}

// A probe on a surface shows no humidity.
func TestAProbeWithTemperatureOnly(t *testing.T) {
	var b strings.Builder
	b.WriteString("Time,Temp (°C)\n")
	at := time.Date(2026, 5, 9, 6, 0, 0, 0, time.UTC)
	for i := range 30 {
		fmt.Fprintf(&b, "%s,%.1f\n", at.Add(time.Duration(i)*10*time.Minute).Format("2006-01-02 15:04"),
			8+0.1*float64(i))
	}
	p, err := Sniff([]byte(b.String()), "UTC")
	require.NoError(t, err)
	assert.Equal(t, -1, p.Mapping.RH)
	got, err := ReadReadings([]byte(b.String()), p.Mapping)
	require.NoError(t, err)
	require.Len(t, got.Rows, 30)
	assert.InDelta(t, 10.9, got.Rows[29].TempC, 1e-9)
	assert.True(t, math.IsNaN(got.Rows[29].RHPct))
}
