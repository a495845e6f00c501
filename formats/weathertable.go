package formats

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"io"
	"math"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/physics/psychrometrics"
	"allcoats/core/physics/weather"
)

// MaxWeatherRows is the most rows that one weather file may hold.
const MaxWeatherRows = 100_000

// quantity is a column of a weather table: the words that name it, those that name something else with
// the same words, and its units, the one that is taken where none is stated first.
type quantity struct {
	key   string
	words []string
	not   []string
	units []unit
}

// unit is a unit by its names, and how a figure in it becomes the program's.
type unit struct {
	names []string
	to    func(v float64) float64
}

func times(k float64) func(float64) float64 { return func(v float64) float64 { return k * v } }

var (
	celsius    = unit{[]string{"°c", "celsius", "(c)", "_c", "tempc", "degc", "deg c", "ºc", "[c]"}, times(1)}
	fahrenheit = unit{[]string{"°f", "fahrenheit", "(f)", "_f", "tempf", "degf", "deg f", "ºf", "[f]"},
		func(v float64) float64 { return (v - 32) / 1.8 }}
	perCent = unit{[]string{"%", "pct", "percent"}, times(1)}
)

var quantities = []quantity{
	{"time", []string{"time", "date", "zeit", "datum", "heure", "hora", "tid", "valid", "at", "stunde", "hour", "tijd"},
		[]string{"sunrise", "sunset", "duration"}, nil},
	{"dew", []string{"dew", "taupunkt", "rosée", "rosee", "dauwpunt", "duggpunkt", "td"}, nil,
		[]unit{celsius, fahrenheit}},
	{"temp", []string{"temp", "t2m", "°c", "°f", "lufttemp", "celsius"}, []string{"dew", "tau", "apparent", "feels",
		"soil", "water", "sea", "ground", "wind"}, []unit{celsius, fahrenheit}},
	{"rh", []string{"hum", "rh", "feucht", "vocht", "fukt", "hygro"}, []string{"absolute", "specific"},
		[]unit{perCent}},
	{"wind", []string{"wind", "vent", "vind", "ff"}, []string{"dir", "gust", "richt", "böe", "rafale", "rétning",
		"bearing", "chill"}, []unit{
		{[]string{"m/s", "_ms", "windms", "ms-1"}, times(1)}, {[]string{"km/h", "kmh", "kph"}, times(1 / 3.6)},
		{[]string{"kn", "kt", "knots"}, times(1852.0 / 3600)}, {[]string{"mph"}, times(0.44704)}}},
	{"rain", []string{"rain", "precip", "regen", "pluie", "neder", "nedbør", "niederschlag", "rr"},
		[]string{"prob", "chance", "risk", "%", "wahrsch"},
		[]unit{{[]string{"mm"}, times(1)}, {[]string{"inch", "(in)", " in", "_in"}, times(25.4)}}},
	{"cloud", []string{"cloud", "wolk", "bewölk", "nuage", "nébul", "sky", "skydekke"},
		[]string{"base", "low", "mid", "high"},
		[]unit{perCent, {[]string{"okta", "/8", "eighth", "achtel"}, times(12.5)},
			{[]string{"fraction", "0-1"}, times(100)}}},
	{"shortwave", []string{"shortwave", "solar", "radiation", "ghi", "global", "strahlung", "instråling"},
		[]string{"sunshine", "longwave", "diffuse"}, nil},
}

func (w WeatherReader) readTable(data []byte, loc *time.Location) (s weather.Series, doubts []string, err error) {
	t, bad := tableOf(data, loc, w.Columns)
	if bad != nil {
		return nil, nil, bad
	}
	r := csv.NewReader(bytes.NewReader(data))
	r.Comma, r.FieldsPerRecord, r.TrimLeadingSpace = t.sep, -1, t.sep != '\t'
	when := &instants{loc: t.loc, order: t.order}
	type numbered struct {
		line int
		row  []string
	}
	var all []numbered
	for i := 0; len(bad) < 20; i++ {
		row, err := r.Read()
		if err == io.EOF {
			break
		}
		if err != nil {
			bad.Add(csvPlace(err), "cannot be read: %v", err)
			break
		}
		line, _ := r.FieldPos(0)
		if i < t.first || strings.TrimSpace(strings.Join(row, "")) == "" {
			continue
		}
		if len(all) == MaxWeatherRows {
			bad.Add(fmt.Sprintf("line %d", line), "more than %d rows", MaxWeatherRows)
			break
		}
		all = append(all, numbered{line, row})
	}
	if t.newestFirst {
		slices.Reverse(all)
	}
	var out weather.Series
	for _, n := range all {
		if len(bad) >= 20 {
			break
		}
		h, faults := t.hour(n.row, when)
		if k := len(out); k > 0 && faults == nil {
			switch d := h.At.Compare(out[k-1].At); {
			case d == 0:
				faults.Add("time", "is the same as on the line before")
			case d < 0:
				faults.Add("time",
					"is earlier than on the line before; times must rise, or fall, through the whole file")
			}
		}
		for _, f := range faults {
			bad.Add(fmt.Sprintf("line %d", n.line), "%s %s", f.Path, f.Message)
		}
		out = append(out, h)
	}
	if bad == nil && len(out) == 0 {
		bad.Add(fmt.Sprintf("line %d", t.first+1), "there are no rows")
	}
	if bad != nil {
		return nil, nil, bad
	}
	return out, t.doubts, nil
}

// weatherTable is how a table is read.
type weatherTable struct {
	names       []string
	sample      [][]string
	sep         rune
	first       int // rows before the first of data
	column      map[string]int
	clock       int
	to          map[string]func(float64) float64
	comma       bool
	order       string
	loc         *time.Location
	newestFirst bool
	doubts      []string
}

// tableOf looks at the beginning of a table, whose columns are what is said of them.
func tableOf(data []byte, loc *time.Location, said map[string]string) (t weatherTable, bad fielderr.Errors) {
	t = weatherTable{column: map[string]int{}, clock: -1, to: map[string]func(float64) float64{}, loc: loc,
		doubts: []string{}}
	const most = 64 << 10
	head := data[:min(len(data), most)]
	var rows [][]string
	for _, d := range delimiters {
		if got := cells(head, d.r, len(data) <= most); len(got) > 0 &&
			(rows == nil || regular(got) >= max(2, regular(rows))) {
			rows, t.sep = got, d.r
		}
	}
	if len(rows) == 0 {
		bad.Add("line 1", "there is no header line")
		return t, bad
	}
	t.first = slices.IndexFunc(rows, dataRow)
	if t.first < 0 {
		t.first = min(1, len(rows))
	}
	if t.first == 0 {
		bad.Add("line 1", "there is no header line: name the columns, such as time, temperature, humidity")
		return t, bad
	}
	names := rows[t.first-1]
	if t.first < len(rows) {
		names = columnNames(rows, t.first)
	}
	sample := rows[min(t.first, len(rows)):min(len(rows), t.first+50)]
	t.names, t.sample = names, sample
	t.name(said)
	if _, ok := t.column["rh"]; !ok {
		if _, ok := t.column["dew"]; ok {
			t.doubts = append(t.doubts, "There is no humidity: it is reckoned from the dew point.")
		}
	}
	for _, one := range [][2]string{{"time", "time"}, {"temp", "temperature"}, {"rh", "humidity, or the dew point"}} {
		key, says := one[0], one[1]
		if _, ok := t.column[key]; !ok && !(key == "rh" && t.has("dew")) {
			bad.Add("line "+fmt.Sprint(t.first),
				"no column for %s; columns are time, temperature, humidity and optionally dew point, wind, rain, cloud, shortwave", says)
		}
	}
	if bad != nil {
		return t, bad
	}
	if z := statedZone(allCells(rows[:t.first])); z != "" {
		m := Mapping{Zone: z}
		if own, err := m.location(); err == nil {
			t.loc = own
			t.doubts = append(t.doubts, fmt.Sprintf("The header says %s: times are read as %s.", z, z))
		}
	}
	m := Mapping{Time: t.column["time"], Clock: t.clock, Zone: t.loc.String(), DecimalComma: t.comma, Order: "ymd"}
	t.doubts = append(t.doubts, m.guessOrder(sample)...)
	t.order = m.Order
	if t.newestFirst = m.backwards(sample); t.newestFirst {
		t.doubts = append(t.doubts, "The newest hour comes first: the file is read from its end.")
	}
	return t, nil
}

func (t weatherTable) has(key string) bool { _, ok := t.column[key]; return ok }

// name finds the columns and their units, by what is said of them and by their names.
func (t *weatherTable) name(said map[string]string) {
	names, sample := t.names, t.sample
	commas, points := 0, 0
	for _, r := range sample {
		for _, c := range r {
			if !isDate(c) && strings.Contains(c, ",") {
				commas++
			} else if !isDate(c) && strings.Contains(c, ".") {
				points++
			}
		}
	}
	t.comma = commas > points
	taken, told := map[int]bool{}, map[string]int{}
	for i, name := range names {
		if key, ok := said[name]; ok {
			taken[i], told[key] = true, i
		}
	}
	for _, q := range quantities {
		var of []int
		at, isTold := told[q.key]
		if isTold {
			of = []int{at}
		}
		for i, name := range names {
			if !isTold && !taken[i] && has(name, q.words...) && !has(name, q.not...) &&
				(q.key != "time" || t.dates(sample, i)) {
				of = append(of, i)
			}
		}
		if q.key == "time" && len(of) == 0 { // an unnamed column of times
			for i := range names {
				if t.dates(sample, i) {
					of = append(of, i)
					break
				}
			}
		}
		if len(of) == 0 {
			continue
		}
		at = of[0]
		if mean := slices.IndexFunc(of, func(i int) bool { return has(names[i], meanWords...) }); mean >= 0 {
			at = of[mean]
		}
		if len(of) > 1 && q.key != "time" {
			t.doubts = append(t.doubts, fmt.Sprintf("Of several columns “%s” is read.", names[at]))
		}
		t.column[q.key], taken[at] = at, true
		if q.units != nil {
			t.unit(q, names[at], sample)
		}
	}
	if at, ok := t.column["time"]; ok && len(sample) > 0 && at < len(sample[0]) {
		if cell, _ := numericDate(sample[0][at]); len(
			numbers(cell)) < 4 { // the time of day stands in a column of its own
			t.clock = slices.IndexFunc(names, func(n string) bool {
				i := slices.Index(names, n)
				return i != at && t.clocks(sample, i)
			})
		}
	}
}

func (t weatherTable) dates(sample [][]string, i int) bool {
	return len(sample) == 0 || slices.ContainsFunc(sample, func(r []string) bool {
		if i >= len(r) {
			return false
		}
		v, isNumber := number(r[i], false)
		return isDate(r[i]) && !isNumber || isNumber && v > 1e8
	})
}

func (t weatherTable) clocks(sample [][]string, i int) bool {
	return slices.ContainsFunc(sample, func(r []string) bool {
		return i < len(r) && strings.Contains(r[i], ":") && len(numbers(r[i])) >= 2
	})
}

// unit finds the unit of a quantity in its name, in the cells, or by what figures there are.
func (t *weatherTable) unit(q quantity, name string, sample [][]string) {
	lo, hi := math.Inf(1), math.Inf(-1)
	stated := name
	for _, r := range sample {
		if i := t.column[q.key]; i < len(r) {
			if v, u, ok := measurement(r[i], t.comma); ok {
				lo, hi = min(lo, v), max(hi, v)
				if u != "" && stated == name {
					stated += " (" + u + ")"
				}
			}
		}
	}
	if i := slices.IndexFunc(q.units, func(u unit) bool { return has(stated, u.names...) }); i >= 0 {
		if q.key != "rh" || hi > 1 {
			t.to[q.key] = q.units[i].to
			return
		}
	}
	take := func(i int, template string, args ...any) {
		t.to[q.key] = q.units[i].to
		t.doubts = append(t.doubts, fmt.Sprintf(template, args...))
	}
	switch {
	case math.IsInf(lo, 0):
		t.to[q.key] = q.units[0].to
	case (q.key == "temp" || q.key == "dew") && lo > 30 && hi > 45:
		take(1, "No unit is stated for “%s”, which runs from %g to %g: taken as °F.", name, lo, hi)
	case q.key == "rh" && hi <= 1:
		t.to["rh"] = times(100)
		t.doubts = append(t.doubts, fmt.Sprintf("“%s” runs from %g to %g: taken as a share of 1, not as per cent.",
			name, lo, hi))
	case q.key == "rh":
		t.to["rh"] = times(1)
	case q.key == "cloud" && hi <= 1 && hi > 0:
		take(2, "No unit is stated for “%s”, which runs up to %g: taken as a share of 1.", name, hi)
	case q.key == "cloud" && hi <= 8 && hi > 0:
		take(1, "No unit is stated for “%s”, which runs up to %g: taken as eighths of the sky.", name, hi)
	case q.key == "temp" || q.key == "dew":
		take(0, "No unit is stated for “%s”, which runs from %g to %g: taken as °C.", name, lo, hi)
	case q.key == "wind":
		take(0, "No unit is stated for “%s”: taken as m/s.", name)
	case q.key == "rain" && hi > 0:
		take(0, "No unit is stated for “%s”: taken as mm in the hour that begins then.", name)
	default:
		t.to[q.key] = q.units[0].to
	}
}

// hour reads a row.
func (t weatherTable) hour(row []string, when *instants) (h weather.Hour, bad fielderr.Errors) {
	m := Mapping{Time: t.column["time"], Clock: t.clock}
	at, err := when.parse(m.stamp(row))
	if err != nil {
		bad.Add("time", "%v", err)
	}
	h.At = at
	figure := func(key, name string) *float64 {
		i, ok := t.column[key]
		if !ok || i >= len(row) || missing(strings.TrimSpace(row[i])) {
			return nil
		}
		v, _, ok := measurement(row[i], t.comma)
		if !ok {
			bad.Add(name, "%q is not a number", row[i])
			return nil
		}
		if to := t.to[key]; to != nil {
			v = to(v)
		}
		return &v
	}
	if v := figure("temp", "temperature"); v != nil {
		h.TempC = *v
	} else if bad == nil {
		bad.Add("temperature", "is missing")
	}
	switch v := figure("rh", "humidity"); {
	case v != nil:
		h.RHPct = *v
	case t.has("dew"):
		if dew := figure("dew", "dew point"); dew != nil {
			h.RHPct = min(100, 100*psychrometrics.SaturationPressure(*dew)/psychrometrics.SaturationPressure(h.TempC))
		} else if bad == nil {
			bad.Add("dew point", "is missing")
		}
	case bad == nil:
		bad.Add("humidity", "is missing")
	}
	h.WindMS, h.RainMM = figure("wind", "wind"), figure("rain", "rain")
	h.CloudPct, h.ShortwaveWM2 = figure("cloud", "cloud"), figure("shortwave", "shortwave")
	if bad == nil {
		bad.Under("", h.Validate())
	}
	return h, bad
}
