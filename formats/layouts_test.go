package formats

import (
	"math"
	"strings"
	"testing"
	"time"
	"unicode/utf16"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// wide writes a text as UTF-16, with a mark if asked, low bytes first if little.
func wide(s string, little, mark bool) string {
	u := utf16.Encode([]rune(s))
	if mark {
		u = append([]uint16{0xfeff}, u...)
	}
	var b strings.Builder
	for _, c := range u {
		if little {
			b.WriteByte(byte(c))
			b.WriteByte(byte(c >> 8))
		} else {
			b.WriteByte(byte(c >> 8))
			b.WriteByte(byte(c))
		}
	}
	return b.String()
}

const none = math.MaxFloat64 // no value of that kind is in the file

// Every layout holds 12.5 °C and 71 % at ten o'clock UTC on 9 May 2026, and something later.
var loggers = []struct{ name, zone, file, doubt string }{
	{"plain", "UTC", "time,temp_c,rh\n2026-05-09 10:00,12.5,71\n2026-05-09 10:10,12.6,70\n", ""},
	{"newest first", "UTC",
		"time,temp_c,rh\n2026-05-09 10:20,12.7,69\n2026-05-09 10:10,12.6,70\n2026-05-09 10:00,12.5,71\n",
		"newest reading comes first"},
	{"newest first over the clock change", "Europe/London",
		"time,temp_c,rh\n2026-05-09 11:20,12.7,69\n2026-05-09 11:10,12.6,70\n2026-05-09 11:00,12.5,71\n", "newest"},
	{"UTF-16, mark, low bytes first", "UTC",
		wide("time\ttemp (°C)\trh (%)\r\n2026-05-09 10:00\t12.5\t71\r\n2026-05-09 10:10\t12.6\t70\r\n", true, true),
		""},
	{"UTF-16, mark, high bytes first", "UTC",
		wide("time;temp (°C);rh\n2026-05-09 10:00;12,5;71\n2026-05-09 10:10;12,6;70\n", false, true), ""},
	{"UTF-16 without a mark", "UTC", wide("time,temp (°C),rh\n2026-05-09 10:00,12.5,71\n2026-05-09 10:10,12.6,70\n",
		true, false), ""},
	{"Windows-1252 degree signs", "UTC", "time;temp \xb0C;rh\n2026-05-09 10:00;12,5;71\n2026-05-09 10:10;12,6;70\n",
		""},
	{"old Macintosh line ends", "UTC", "time,temp_c,rh\r2026-05-09 10:00,12.5,71\r2026-05-09 10:10,12.6,70\r", ""},
	{"month names, day first", "UTC",
		"Date Time;Temp °C;RH %\n9-May-2026 10:00:00;12.5;71\n9-May-2026 10:10:00;12.6;70\n", ""},
	{"month names, month first, afternoon", "+12:00",
		"Time,Temp (°C),Humidity\n\"May 9, 2026 10:00:00 PM\",12.5,71\n\"May 9, 2026 10:10:00 PM\",12.6,70\n", ""},
	{"French months and zones", "Europe/Paris",
		"Horodatage;Température °C;Humidité %\n9 mai 2026 12:00;12,5;71\n9 mai 2026 12:10;12,6;70\n", ""},
	{"Norwegian months in capitals", "UTC",
		"Tid;Temp °C;Fukt %\n09 MAI 2026 10:00;12,5;71\n09 MAI 2026 10:10;12,6;70\n", ""},
	{"weekday and month", "UTC", "Time,Temp °C,RH\nSat 09 May 2026 10:00,12.5,71\nSat 09 May 2026 10:10,12.6,70\n", ""},
	{"two-digit years with month names", "UTC", "Time,Temp °C,RH\n09-May-26 10:00,12.5,71\n09-May-26 10:10,12.6,70\n",
		""},
	{"GMT offset in the header", "Europe/London",
		"\"Date Time, GMT+02:00\",\"Temp, °C\",\"RH, %\"\n2026-05-09 12:00,12.5,71\n2026-05-09 12:10,12.6,70\n",
		"+02:00"},
	{"short GMT offset", "Europe/London",
		"Time (GMT-5),Temp °C,RH %\n2026-05-09 05:00,12.5,71\n2026-05-09 05:10,12.6,70\n", "-05:00"},
	{"UTC in the header", "America/New_York",
		"Time (UTC),Temp °C,RH %\n2026-05-09 10:00,12.5,71\n2026-05-09 10:10,12.6,70\n", "UTC"},
	{"an offset on a title line", "Europe/London",
		"Station 4, times in UTC+1\ntime,temp_c,rh\n2026-05-09 11:00,12.5,71\n2026-05-09 11:10,12.6,70\n", "+01:00"},
	{"min, avg, max", "UTC",
		"time,Temp min °C,Temp avg °C,Temp max °C,RH min,RH avg,RH max\n2026-05-09 10:00,12,12.5,14,60,71,80\n2026-05-09 10:10,12,12.6,14,60,70,80\n", "the mean"},
	{"min and max alone", "UTC",
		"time,Low temp °C,High temp °C,Low RH %,High RH %\n2026-05-09 10:00,11.5,13.5,70,72\n2026-05-09 10:10,11.6,13.6,69,71\n", "least and the greatest"},
	{"German mean", "Europe/Berlin",
		"Zeit;Temp. Min °C;Temp. Mittel °C;Temp. Max °C;Feuchte Mittel %\n09.05.2026 12:00;11,0;12,5;14,0;71\n09.05.2026 12:10;11,0;12,6;14,0;70\n", "Mittel"},
	{"two probes", "UTC", "time,Temp 1 °C,Temp 2 °C,RH\n2026-05-09 10:00,12.5,9,71\n2026-05-09 10:10,12.6,9,70\n",
		"Of several columns of temperature"},
	{"units in the cells", "UTC", "when,air,damp\n2026-05-09 10:00,12.5 °C,71 %RH\n2026-05-09 10:10,12.6 °C,70 %RH\n",
		""},
	{"Fahrenheit in the cells", "UTC", "when,temp,rh\n2026-05-09 10:00,54.5F,71%\n2026-05-09 10:10,54.7F,70%\n", "°F"},
	{"°F without a unit", "UTC", "when,temp,rh\n2026-05-09 10:00,54.5,71\n2026-05-09 10:10,54.7,70\n", "taken as °F"},
	{"°C without a unit", "UTC", "when,temp,rh\n2026-05-09 10:00,12.5,71\n2026-05-09 10:10,12.6,70\n", "taken as °C"},
	{"title lines and a blank", "UTC",
		"Logger export\nSerial 4711;;\n\nNo.;Time;Temp °C;RH %\n1;2026-05-09 10:00;12,5;71\n2;2026-05-09 10:10;12,6;70\n", ""},
	{"key and value lines before", "UTC",
		"Device:,hull logger\nInterval:,10 min\nTime,Temp °C,RH %\n2026-05-09 10:00,12.5,71\n2026-05-09 10:10,12.6,70\n", ""},
	{"shares of 1", "UTC", "time,temp_c,rh\n2026-05-09 10:00,12.5,0.71\n2026-05-09 10:10,12.6,0.70\n", "share of 1"},
	{"dew point and pressure beside", "UTC",
		"time,pressure hPa,dew point °C,temp °C,rh %\n2026-05-09 10:00,1013,7.4,12.5,71\n2026-05-09 10:10,1013,7.4,12.6,70\n", ""},
	{"date and time apart, day first", "UTC",
		"Date;Time;Temp °C;RH\n09/05/2026;10:00:00;12,5;71\n23/05/2026;10:10:00;12,6;70\n", ""},
	{"seconds since 1970", "UTC", "epoch,temp_c,rh\n1778320800,12.5,71\n1778321400,12.6,70\n", ""},
	{"milliseconds since 1970", "UTC", "ts,temp_c,rh\n1778320800000,12.5,71\n1778321400000,12.6,70\n", ""},
	{"its own offset at each line", "UTC",
		"at,temp_c,rh\n2026-05-09T12:00:00+02:00,12.5,71\n2026-05-09T12:10:00+02:00,12.6,70\n", ""},
	{"bars", "UTC", "time|temp_c|rh\n2026-05-09 10:00|12.5|71\n2026-05-09 10:10|12.6|70\n", ""},
	{"decimal commas in quotes", "UTC",
		"time,temp_c,rh\n2026-05-09 10:00,\"12,5\",\"71,0\"\n2026-05-09 10:10,\"12,6\",\"70,0\"\n", ""},
	{"day or month first is open", "UTC", "time,temp_c,rh\n09/05/2026 10:00,12.5,71\n09/05/2026 10:10,12.6,70\n",
		"day first or month first"},
	{"missing cells", "UTC",
		"time,temp_c,rh\n2026-05-09 10:00,12.5,71\n2026-05-09 10:10,---,\n2026-05-09 10:20,12.6,70\n", ""},
}

func TestLoggersAsTheyCome(t *testing.T) {
	ten := time.Date(2026, 5, 9, 10, 0, 0, 0, time.UTC)
	for _, c := range loggers {
		t.Run(c.name, func(t *testing.T) {
			p, err := Sniff([]byte(c.file), c.zone)
			require.NoError(t, err)
			doubts := strings.Join(p.Doubts, " ")
			assert.Contains(t, doubts, c.doubt, "a doubt is told")
			if c.doubt == "" {
				assert.Empty(t, p.Doubts, "no doubt where there is none")
			}
			got, err := ReadReadings([]byte(c.file), p.Mapping)
			require.NoError(t, err, "%+v", p.Mapping)
			require.GreaterOrEqual(t, len(got.Rows), 2)
			assert.Equal(t, ten, got.Rows[0].At, "%+v", p.Mapping)
			assert.InDelta(t, 12.5, got.Rows[0].TempC, 1e-6, "%+v", p.Mapping)
			assert.InDelta(t, 71, got.Rows[0].RHPct, 1e-6, "%+v", p.Mapping)
			assert.True(t, got.Rows[1].At.After(ten))
		})
	}
	assert.GreaterOrEqual(t, len(loggers)+len(forecasts)+len(gauges), 40)
}

func TestAProbeOfTemperatureAlone(t *testing.T) {
	const file = "probe 2\ntime;°C\n2026-05-09 10:00;12,5\n2026-05-09 10:10;12,6\n"
	p, err := Sniff([]byte(file), "UTC")
	require.NoError(t, err)
	got, err := ReadReadings([]byte(file), p.Mapping)
	require.NoError(t, err)
	assert.InDelta(t, 12.5, got.Rows[0].TempC, 1e-9)
	assert.True(t, math.IsNaN(got.Rows[0].RHPct))
}

// Every layout holds 12.5 °C, 71 %, a wind of 5 m/s and 0.4 mm at ten o'clock UTC on 9 May 2026.
var forecasts = []struct {
	name, zone, file, doubt string
	wind, rain, cloud       float64
}{
	{"plain", "UTC",
		"time,temp_c,humidity,wind_ms,rain_mm,cloud_pct\n2026-05-09 10:00,12.5,71,5,0.4,75\n2026-05-09 11:00,13,70,5,0,75\n", "", 5, 0.4, 75},
	{"day first, decimal commas, km/h", "Europe/Berlin",
		"Datum;Temperatur (°C);Luftfeuchte (%);Wind (km/h);Windböen (km/h);Niederschlag (mm);Bewölkung (%)\n09.05.2026 12:00;12,5;71;18,0;40,0;0,4;75\n23.05.2026 13:00;13,0;70;18,0;40,0;0,0;75\n", "", 5, 0.4, 75},
	{"French, knots, eighths", "Europe/Paris",
		"Heure;Température °C;Humidité %;Vent (kt);Pluie mm;Nuages (okta)\n9 mai 2026 12:00;12,5;71;9,71922;0,4;6\n9 mai 2026 13:00;13;70;9,7;0;6\n", "", 5, 0.4, 75},
	{"°F, mph, inches", "UTC",
		"valid time,temp (°F),rh (%),wind speed (mph),precip (in)\n5/9/2026 10:00 AM,54.5,71,11.1847,0.0157480\n5/23/2026 11:00 AM,55,70,11,0\n", "", 5, 0.4, none},
	{"dew point for humidity", "UTC",
		"time,temp °C,dew point °C,wind m/s,rain mm\n2026-05-09 10:00,12.5,7.3869,5,0.4\n2026-05-09 11:00,13,7,5,0\n",
		"dew point", 5, 0.4, none},
	{"no units anywhere", "UTC",
		"time,temp,rh,wind,rain,cloud\n2026-05-09 10:00,12.5,71,5,0.4,6\n2026-05-09 11:00,13,70,5,0,6\n",
		"taken as m/s", 5, 0.4, 75},
	{"newest first, month names", "UTC",
		"time,temp °C,rh,wind m/s,rain mm\n9 May 2026 11:00,13,70,5,0\n9 May 2026 10:00,12.5,71,5,0.4\n",
		"newest hour comes first", 5, 0.4, none},
	{"UTC offset and titles", "UTC",
		"Forecast for the creek\nIssued UTC+2\n\ntime;temp °C;rh %;wind m/s;rain mm\n2026-05-09 12:00;12,5;71;5;0,4\n2026-05-09 13:00;13;70;5;0\n", "+02:00", 5, 0.4, none},
	{"units in the cells", "UTC",
		"time\tair temp\thumidity\twind\train\n2026-05-09 10:00\t12.5 °C\t71 %\t18 km/h\t0.4 mm\n2026-05-09 11:00\t13 °C\t70 %\t18 km/h\t0 mm\n", "", 5, 0.4, none},
	{"date and hour apart", "UTC",
		"Date,Hour,Temp °C,RH %,Wind m/s,Rain mm\n2026-05-09,10:00,12.5,71,5,0.4\n2026-05-09,11:00,13,70,5,0\n", "", 5,
		0.4, none},
	{"rain only by chance", "UTC",
		"time,temp °C,rh %,wind m/s,rain probability %\n2026-05-09 10:00,12.5,71,5,40\n2026-05-09 11:00,13,70,5,0\n",
		"", 5, none, none},
	{"UTF-16", "UTC",
		wide("time,temp °C,rh %,wind m/s,rain mm\r\n2026-05-09 10:00,12.5,71,5,0.4\r\n2026-05-09 11:00,13,70,5,0\r\n",
			true, true), "", 5, 0.4, none},
}

func TestForecastsAsTheyCome(t *testing.T) {
	for _, c := range forecasts {
		t.Run(c.name, func(t *testing.T) {
			loc, err := time.LoadLocation(c.zone)
			require.NoError(t, err)
			got, doubts, err := ReadWeather([]byte(c.file), loc)
			require.NoError(t, err)
			assert.Contains(t, strings.Join(doubts, " "), c.doubt, "a doubt is told")
			if c.doubt == "" {
				assert.Empty(t, doubts)
			}
			require.Len(t, got, 2)
			assert.Equal(t, time.Date(2026, 5, 9, 10, 0, 0, 0, time.UTC), got[0].At)
			assert.InDelta(t, 12.5, got[0].TempC, 1e-6)
			assert.InDelta(t, 71, got[0].RHPct, 0.05)
			for _, v := range []struct {
				name string
				got  *float64
				want float64
			}{{"wind", got[0].WindMS, c.wind}, {"rain", got[0].RainMM, c.rain}, {"cloud", got[0].CloudPct, c.cloud}} {
				if v.want == none {
					assert.Nil(t, v.got, v.name)
				} else if assert.NotNil(t, v.got, v.name) {
					assert.InDelta(t, v.want, *v.got, 0.001, v.name)
				}
			}
		})
	}
}

// Every layout begins with 120 µm.
var gauges = []struct{ name, file string }{
	{"one a line", "120\n131\n"}, {"named", "film µm\n120\n131\n"}, {"mils by name", "DFT (mil)\n4.72441\n5\n"},
	{"units in the cells", "120 µm\n131 µm\n"}, {"mils in the cells", "4.72441 mil\n5 mil\n"},
	{"a column of a table", "no;place;thickness\n1;bow;120\n2;stern;131\n"},
	{"UTF-16", wide("film µm\r\n120\r\n131\r\n", true, true)},
}

func TestGaugesAsTheyCome(t *testing.T) {
	for _, c := range gauges {
		got, err := ReadGauge([]byte(c.file), "")
		require.NoError(t, err, c.name)
		require.Len(t, got, 2, c.name)
		assert.InDelta(t, 120, got[0], 0.01, c.name)
	}
}
