package formats

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/physics/weather"
)

// ClimatePlace is where a climate file is of.
type ClimatePlace struct {
	Name                      string
	LatitudeDeg, LongitudeDeg float64
}

// Fields of an EPW row, and the figures that stand for none.
const (
	epwTemp, epwDew, epwRH, epwGlobal, epwWind, epwCloud, epwRain = 6, 7, 8, 13, 21, 22, 33
	epwFields                                                     = 29 // older files end before the rain
	epwHeader                                                     = 8
)

// epwYear is the year that a typical year is put into: its months may come of different years.
const epwYear = 2001

// leastEPWRain is the rain of a year under which a file is taken not to know of any, mm.
const leastEPWRain = 50

// IsEPW tells an EnergyPlus weather file by its first word.
func IsEPW(data []byte) bool { return bytes.HasPrefix(Text(data), []byte("LOCATION,")) }

// ReadEPW reads a climate file as building simulation has them, EnergyPlus Weather: a year of hours
// that are typical of a place, each ending at its hour in local standard time. What it does not know
// is left out, rain altogether where the year has next to none. All or nothing; a fault names its
// line, after twenty it stops.
func ReadEPW(data []byte) (s weather.Series, p ClimatePlace, err error) {
	r := csv.NewReader(bytes.NewReader(Text(data)))
	r.FieldsPerRecord = -1
	r.LazyQuotes = true
	var bad fielderr.Errors
	zone := time.UTC
	rain := 0.0
	for line := 1; len(bad) < 20; line++ {
		row, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			bad.Add(csvPlace(err), "cannot be read: %v", err)
			break
		}
		switch {
		case line == 1:
			p, zone, err = epwLocation(row)
			if err != nil {
				return nil, p, fielderr.At("line 1", "%v", err)
			}
			continue
		case line <= epwHeader:
			continue
		case len(s) == MaxWeatherRows:
			return nil, p, fielderr.At(fmt.Sprintf("line %d", line), "more than %d rows", MaxWeatherRows)
		}
		h, leap, err := epwHour(row, zone)
		if err != nil {
			bad.Add(fmt.Sprintf("line %d", line), "%v", err)
			continue
		}
		if leap {
			continue
		}
		if n := len(s); n > 0 && !h.At.After(s[n-1].At) {
			bad.Add(fmt.Sprintf("line %d", line), "is not later than the line before")
		}
		if h.RainMM != nil {
			rain += *h.RainMM
		}
		s = append(s, h)
	}
	if bad == nil && len(s) < 365*24 {
		bad.Add("file", "holds %d hours; a climate file holds the 8760 of a year", len(s))
	}
	if bad == nil {
		bad = epwValid(s)
	}
	if bad != nil {
		return nil, p, bad
	}
	if rain < leastEPWRain {
		for i := range s {
			s[i].RainMM = nil
		}
	}
	return s, p, nil
}

func epwValid(s weather.Series) fielderr.Errors {
	var bad fielderr.Errors
	bad.Under("hours", s.Validate())
	return bad
}

// epwLocation reads the first line: LOCATION, city, region, country, source, number, latitude,
// longitude, zone in hours.
func epwLocation(row []string) (p ClimatePlace, zone *time.Location, err error) {
	if len(row) < 9 {
		return p, nil, errors.New("LOCATION has no latitude, longitude and time zone")
	}
	var v [3]float64
	for i := range v {
		if v[i], err = strconv.ParseFloat(strings.TrimSpace(row[6+i]), 64); err != nil {
			return p, nil, fmt.Errorf("%q is no number", row[6+i])
		}
	}
	var bad fielderr.Errors
	bad.Range("latitude", v[0], -90, 90, "°")
	bad.Range("longitude", v[1], -180, 180, "°")
	bad.Range("time zone", v[2], -14, 14, "h")
	return ClimatePlace{strings.TrimSpace(row[1]), v[0], v[1]}, time.FixedZone("", int(v[2]*3600)), bad.Err()
}

// epwHour reads a row; leap is a 29 February, which the year has not.
func epwHour(row []string, zone *time.Location) (h weather.Hour, leap bool, err error) {
	if len(row) < epwFields {
		return h, false, fmt.Errorf("has %d fields; a row of an EPW file has %d or more", len(row), epwFields)
	}
	var when [3]int
	for i := range when {
		if when[i], err = strconv.Atoi(strings.TrimSpace(row[1+i])); err != nil {
			return h, false, fmt.Errorf("%q is no whole number", row[1+i])
		}
	}
	month, day, hour := when[0], when[1], when[2]
	if month < 1 || month > 12 || day < 1 || day > 31 || hour < 1 || hour > 24 {
		return h, false, fmt.Errorf("month %d, day %d, hour %d is no hour of a year", month, day, hour)
	}
	if month == 2 && day == 29 {
		return h, true, nil
	}
	// known is a figure below what stands for none.
	known := func(field int, none float64) *float64 {
		if field >= len(row) || err != nil {
			return nil
		}
		v, bad := strconv.ParseFloat(strings.TrimSpace(row[field]), 64)
		if bad != nil {
			err = fmt.Errorf("field %d, %q, is no number", field+1, row[field])
		}
		if v >= none {
			return nil
		}
		return &v
	}
	temp, rh := known(epwTemp, 99.9), known(epwRH, 999)
	h = weather.Hour{At: time.Date(epwYear, time.Month(month), day, hour-1, 0, 0, 0, zone).UTC(),
		WindMS: known(epwWind, 999), RainMM: known(epwRain, 999), ShortwaveWM2: known(epwGlobal, 9999), Measured: true}
	if cloud := known(epwCloud, 99); cloud != nil {
		pct := 10 * *cloud
		h.CloudPct = &pct
	}
	switch {
	case err != nil:
		return h, false, err
	case temp == nil || rh == nil:
		return h, false, errors.New("temperature or humidity is missing")
	}
	h.TempC, h.RHPct = *temp, min(100, max(1, *rh))
	return h, false, nil
}
