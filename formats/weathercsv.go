// Package formats reads and writes open formats.
package formats

import (
	"fmt"
	"io"
	"strings"
	"time"

	"allcoats/core/base/fault"
	"allcoats/core/physics/weather"
)

// MaxWeatherRows is the most rows that one weather file may hold.
const MaxWeatherRows = 100_000

// weatherColumns maps header names, in lower case, to fields.
var weatherColumns = map[string]string{
	"time": "time", "at": "time",
	"temperature": "temp", "temp": "temp", "tempc": "temp", "temp_c": "temp",
	"humidity": "rh", "rh": "rh", "rhpct": "rh", "rh_pct": "rh",
	"wind": "wind", "windms": "wind", "wind_ms": "wind",
	"rain": "rain", "rainmm": "rain", "rain_mm": "rain",
	"cloud": "cloud", "cloudpct": "cloud", "cloud_pct": "cloud",
	"shortwave": "shortwave", "shortwavewm2": "shortwave", "shortwave_wm2": "shortwave",
}

var timeLayouts = []string{"2006-01-02T15:04:05", "2006-01-02T15:04", "2006-01-02 15:04:05", "2006-01-02 15:04"}

// ReadWeatherCSV reads an hourly record with a header line. Columns, in any
// order: time, temperature (°C), humidity (%), and optionally wind (m/s), rain
// (mm in the hour that begins), cloud (%), shortwave (W/m²). Separated by
// commas or semicolons. A time without zone is in loc. Every fault names its
// line ("line 12"); after twenty it stops. All or nothing: on error there is
// no series.
func ReadWeatherCSV(data []byte, loc *time.Location) (weather.Series, error) {
	var bad fault.Errors
	r := csvReader(data)
	header, err := r.Read()
	if err != nil {
		bad.Add("line 1", "there is no header line")
		return nil, bad
	}
	column := map[string]int{}
	for i, name := range header {
		if field, ok := weatherColumns[strings.ToLower(strings.TrimSpace(name))]; ok {
			if _, twice := column[field]; twice {
				bad.Add("line 1", "two columns for %s", field)
			}
			column[field] = i
		}
	}
	for _, need := range []string{"time", "temp", "rh"} {
		if _, ok := column[need]; !ok {
			bad.Add("line 1", "no column for %s; columns are time, temperature, humidity and optionally wind, rain, cloud, shortwave",
				map[string]string{"time": "time", "temp": "temperature", "rh": "humidity"}[need])
		}
	}
	if bad != nil {
		return nil, bad
	}
	var out weather.Series
	for len(bad) < 20 {
		row, err := r.Read()
		if err == io.EOF {
			break
		}
		if err != nil {
			bad.Add(csvPlace(err), "cannot be read: %v", err)
			break
		}
		line, _ := r.FieldPos(0)
		place := fmt.Sprintf("line %d", line)
		if len(out) == MaxWeatherRows {
			bad.Add(place, "more than %d rows", MaxWeatherRows)
			break
		}
		h, faults := weatherRow(row, column, loc, r.Comma != ',')
		if n := len(out); n > 0 && faults == nil {
			switch d := h.At.Compare(out[n-1].At); {
			case d == 0:
				faults.Add("time", "is the same as on the line before")
			case d < 0:
				faults.Add("time", "is earlier than on the line before; times must rise")
			}
		}
		for _, f := range faults {
			bad.Add(place, "%s %s", f.Path, f.Message)
		}
		out = append(out, h)
	}
	if bad == nil && len(out) == 0 {
		bad.Add("line 2", "there are no rows")
	}
	if bad != nil {
		return nil, bad
	}
	return out, nil
}

func weatherRow(row []string, column map[string]int, loc *time.Location, comma bool) (weather.Hour, fault.Errors) {
	var bad fault.Errors
	cell := func(field string) string {
		if i, ok := column[field]; ok && i < len(row) {
			return strings.TrimSpace(row[i])
		}
		return ""
	}
	figure := func(field, name string) *float64 {
		s := cell(field)
		if s == "" {
			return nil
		}
		v, ok := number(s, comma)
		if !ok {
			bad.Add(name, "%q is not a number", s)
			return nil
		}
		return &v
	}
	var h weather.Hour
	at, err := parseTime(cell("time"), loc)
	if err != nil {
		bad.Add("time", "%v", err)
	}
	h.At = at
	if v := figure("temp", "temperature"); v != nil {
		h.TempC = *v
	} else if bad == nil {
		bad.Add("temperature", "is missing")
	}
	if v := figure("rh", "humidity"); v != nil {
		h.RHPct = *v
	} else if bad == nil {
		bad.Add("humidity", "is missing")
	}
	h.WindMS, h.RainMM = figure("wind", "wind"), figure("rain", "rain")
	h.CloudPct, h.ShortwaveWM2 = figure("cloud", "cloud"), figure("shortwave", "shortwave")
	if bad == nil {
		bad.Under("", h.Validate())
	}
	return h, bad
}

func parseTime(s string, loc *time.Location) (time.Time, error) {
	if t, err := time.Parse(time.RFC3339, s); err == nil {
		return t.UTC(), nil
	}
	for _, layout := range timeLayouts {
		if t, err := time.ParseInLocation(layout, s, loc); err == nil {
			return t.UTC(), nil
		}
	}
	return time.Time{}, fmt.Errorf("%q is not a time like 2026-05-09T10:00 or 2026-05-09T10:00:00Z", s)
}
