package formats

import (
	"bytes"
	"cmp"
	"encoding/csv"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
)

// Mapping tells how a logger's table is read. Columns are counted from 0; −1 is
// none.
type Mapping struct {
	Delimiter    string `json:"delimiter" enum:"comma,semicolon,tab,bar"`
	DecimalComma bool   `json:"decimalComma"`
	// HeaderLines are passed over.
	HeaderLines int `json:"headerLines"`
	// Time holds date and time, or the date alone if Clock holds the time.
	Time  int `json:"time"`
	Clock int `json:"clock"`
	Temp  int `json:"temp"`
	RH    int `json:"rh"`
	// Order is the order of the date: year, day or month first, or seconds or
	// milliseconds since 1970.
	Order string `json:"order" enum:"ymd,dmy,mdy,unix,unix-ms"`
	// Zone is UTC, a fixed offset such as +01:00, or a zone such as
	// Europe/London. Times that carry their own keep it.
	Zone     string `json:"zone"`
	TempUnit string `json:"tempUnit" enum:"C,F"`
	RHUnit   string `json:"rhUnit" enum:"%,fraction"`
	// TempMax and RHMax are columns whose mean with Temp and RH is read, nil without: of files that
	// have the least and the greatest of a time.
	TempMax *int `json:"tempMax,omitempty"`
	RHMax   *int `json:"rhMax,omitempty"`
	// NewestFirst says that the table is read from its end.
	NewestFirst bool `json:"newestFirst,omitempty"`
}

// Preview is how a table looks and how it would be read.
type Preview struct {
	Mapping Mapping    `json:"mapping"`
	Columns []string   `json:"columns"`
	Rows    [][]string `json:"rows"`
	// Doubts ask for a look before it is imported.
	Doubts []string `json:"doubts"`
}

var delimiters = []struct {
	name string
	r    rune
}{{"comma", ','}, {"semicolon", ';'}, {"tab", '\t'}, {"bar", '|'}}

func (m Mapping) rune() rune {
	for _, d := range delimiters {
		if d.name == m.Delimiter {
			return d.r
		}
	}
	return ','
}

// location returns the zone of times that carry none.
func (m Mapping) location() (*time.Location, error) {
	if m.Zone == "" || m.Zone == "UTC" || m.Zone == "Z" {
		return time.UTC, nil
	}
	if t, err := time.Parse("-07:00", m.Zone); err == nil {
		_, offset := t.Zone()
		return time.FixedZone(m.Zone, offset), nil
	}
	loc, err := time.LoadLocation(m.Zone)
	if err != nil || m.Zone == "Local" {
		return nil, fmt.Errorf("%q is not UTC, an offset such as +01:00 or a zone such as Europe/London", m.Zone)
	}
	return loc, nil
}

// Sniff looks at the beginning of a table and guesses how it is to be read;
// zone is used for times that carry none.
func Sniff(data []byte, zone string) (Preview, error) {
	const most = 64 << 10
	head := Text(data[:min(len(data), 2*most)])
	whole := len(data) <= most
	head = head[:min(len(head), most)]
	m := Mapping{Time: -1, Clock: -1, Temp: -1, RH: -1, Order: "ymd", Zone: zone, TempUnit: "C", RHUnit: "%"}
	var rows [][]string
	for _, d := range delimiters {
		got := cells(head, d.r, whole)
		if len(got) > 0 && (rows == nil || regular(got) >= max(2, regular(rows))) {
			rows, m.Delimiter = got, d.name
		}
	}
	if len(rows) < 1 || regular(rows) < 2 {
		return Preview{}, fielderr.At("line 1",
			"no table is seen here: a logger's file has columns separated by commas, semicolons, tabs or bars")
	}
	first := -1
	for i, r := range rows {
		if len(r) >= 2 && dataRow(r) {
			first = i
			break
		}
	}
	if first < 0 {
		return Preview{}, fielderr.At("line 1", "no row with a time and a number is seen in the first lines")
	}
	m.HeaderLines = first
	doubts := []string{}
	if z := statedZone(allCells(rows[:first])); z != "" {
		m.Zone = z
		doubts = append(doubts, fmt.Sprintf("The header says %s: times are read as %s all through the year.", z, z))
	}
	p := Preview{Columns: columnNames(rows, first), Rows: rows[first:min(len(rows), first+6)], Doubts: []string{}}
	p.Doubts = append(doubts, m.columns(p.Columns, rows[first:])...)
	p.Doubts = append(p.Doubts, m.guessOrder(rows[first:])...)
	p.Doubts = append(p.Doubts, m.guessUnits(p.Columns, rows[first:])...)
	if m.backwards(rows[first:]) {
		m.NewestFirst = true
		p.Doubts = append(p.Doubts, "The newest reading comes first: the file is read from its end.")
	}
	p.Mapping = m
	return p, nil
}

func allCells(rows [][]string) string {
	var b strings.Builder
	for _, r := range rows {
		b.WriteString(strings.Join(r, " "))
		b.WriteByte(' ')
	}
	return b.String()
}

// backwards tells whether the times of the first rows fall.
func (m Mapping) backwards(rows [][]string) bool {
	loc, err := m.location()
	if err != nil || m.Time < 0 {
		return false
	}
	falls, rises := 0, 0
	var last time.Time
	for _, r := range rows[:min(len(rows), 50)] {
		// Each by itself: the hour that is there twice is told apart by its order, which is looked for.
		t, err := (&instants{loc: loc, order: m.Order}).parse(m.stamp(r))
		if err != nil {
			continue
		}
		if !last.IsZero() && t.Before(last) {
			falls++
		} else if !last.IsZero() && t.After(last) {
			rises++
		}
		last = t
	}
	return falls > 0 && rises == 0
}

// stamp is the time of a row as it stands there.
func (m Mapping) stamp(row []string) string {
	cell := func(i int) string {
		if i < 0 || i >= len(row) {
			return ""
		}
		return strings.TrimSpace(row[i])
	}
	s := cell(m.Time)
	if m.Clock >= 0 {
		s += " " + cell(m.Clock)
	}
	return s
}

func cells(head []byte, sep rune, whole bool) [][]string {
	r := csv.NewReader(bytes.NewReader(head))
	r.Comma, r.FieldsPerRecord, r.LazyQuotes, r.TrimLeadingSpace = sep, -1, true, sep != '\t'
	var out [][]string
	for len(out) < 400 {
		row, err := r.Read()
		if err != nil {
			break
		}
		out = append(out, row)
	}
	if !whole && len(out) > 1 && len(out) < 400 {
		out = out[:len(out)-1] // may be cut off
	}
	return out
}

// regular is how many columns most of the rows share, 1 if they share none.
func regular(rows [][]string) int {
	count := map[int]int{}
	for _, r := range rows {
		count[len(r)]++
	}
	best := 1
	for n, c := range count {
		if 2*c > len(rows) && n > best {
			best = n
		}
	}
	return best
}

func dataRow(r []string) bool {
	digits := 0
	for _, c := range r {
		if isDate(c) {
			digits++
		} else if _, _, ok := measurement(c, true); ok {
			digits++
		} else if _, _, ok := measurement(c, false); ok {
			digits++
		}
	}
	return digits >= 2
}

// isDate tells a date, with or without its time of day.
func isDate(c string) bool {
	c, _ = numericDate(c)
	return len(numbers(c)) >= 3
}

// columnNames are those of the last header line with as many cells as the data.
func columnNames(rows [][]string, first int) []string {
	out := make([]string, len(rows[first]))
	for i := range out {
		out[i] = fmt.Sprintf("column %d", i+1)
	}
	for k := first - 1; k >= 0; k-- {
		if len(rows[k]) >= len(out)-1 {
			for i := range min(len(out), len(rows[k])) {
				if name := strings.TrimSpace(rows[k][i]); name != "" {
					out[i] = name
				}
			}
			break
		}
	}
	return out
}

func has(name string, words ...string) bool {
	name = strings.ToLower(name)
	return slices.ContainsFunc(words, func(w string) bool { return strings.Contains(name, w) })
}

// The words by which columns are known.
var (
	tempWords  = []string{"temp", "°c", "°f", "celsius", "fahrenheit", "ºc", "deg c", "deg f"}
	rhWords    = []string{"hum", "rh", "feucht", "vocht", "fukt", "%"}
	otherWords = []string{"no.", "index", "#", "dew", "tau", "point", "batter", "volt", "pressure", "druck", "hpa",
		"abs", "enthalpy", "signal", "rssi", "serial"}
	meanWords  = []string{"avg", "average", "mean", "moy", "mittel", "durchschn", "gemid", "medel", "snitt", "gjennom"}
	leastWords = []string{"min", "low", "tief", "bas"}
	mostWords  = []string{"max", "high", "hoch", "haut"}
)

// columns finds the columns by their names, else by what is in them, and tells what could be
// meant otherwise.
func (m *Mapping) columns(names []string, rows [][]string) (doubts []string) {
	commas, points := 0, 0
	sample := rows[:min(len(rows), 50)]
	for _, r := range sample {
		for _, c := range r {
			if isDate(c) {
				continue
			}
			if strings.Contains(c, ",") {
				commas++
			}
			if strings.Contains(c, ".") {
				points++
			}
		}
	}
	m.DecimalComma = commas > points
	var values []int
	for i, name := range names {
		dates, clocks, numeric, big := 0, 0, 0, 0
		for _, r := range sample {
			if i >= len(r) {
				continue
			}
			cell, named := numericDate(r[i])
			n := numbers(cell)
			if v, _, ok := measurement(r[i], m.DecimalComma); ok {
				numeric++
				if v > 1e8 {
					big++
				}
			} else if len(n) >= 5 || named || len(n) == 3 && !strings.Contains(r[i], ":") {
				dates++
			} else if len(n) >= 2 && strings.Contains(r[i], ":") {
				clocks++
			}
		}
		switch {
		case m.Time < 0 && (dates > 0 || big > 0):
			m.Time = i
			if big > 0 {
				m.Order = "unix"
			}
		case m.Clock < 0 && clocks > 0:
			m.Clock = i
		case numeric > 0 && !has(name, otherWords...):
			values = append(values, i)
		}
	}
	if m.Time >= 0 && len(rows) > 0 && m.Time < len(rows[0]) {
		if cell, _ := numericDate(rows[0][m.Time]); len(numbers(cell)) >= 5 {
			m.Clock = -1 // the time is in it already
		}
	}
	var doubt string
	if m.Temp, m.TempMax, doubt = pick(names, values, tempWords, "temperature"); doubt != "" {
		doubts = append(doubts, doubt)
	}
	if m.RH, m.RHMax, doubt = pick(names, values, rhWords, "humidity"); doubt != "" {
		doubts = append(doubts, doubt)
	}
	if m.RH == m.Temp {
		m.RH = -1
	}
	for _, i := range values {
		if m.Temp < 0 && i != m.RH {
			m.Temp = i
		} else if m.RH < 0 && i != m.Temp && len(values) == 2 {
			m.RH = i
		}
	}
	return doubts
}

// pick is the column of a kind by words of its name, of several the mean one, or the least and the greatest
// to be averaged, else the first; -1 for none. What could be meant otherwise is told.
func pick(names []string, values []int, words []string, kind string) (at int, with *int, doubt string) {
	var of []int
	for _, i := range values {
		if has(names[i], words...) {
			of = append(of, i)
		}
	}
	named := func(words []string) int {
		for _, i := range of {
			if has(names[i], words...) {
				return i
			}
		}
		return -1
	}
	switch mean, least, most := named(meanWords), named(leastWords), named(mostWords); {
	case len(of) == 0:
		return -1, nil, ""
	case len(of) == 1:
		return of[0], nil, ""
	case mean >= 0:
		return mean, nil, fmt.Sprintf("Of several columns of %s the mean, “%s”, is read.", kind, names[mean])
	case least >= 0 && most >= 0 && least != most:
		return least, &most, fmt.Sprintf(
			"Only the least and the greatest %s are in it: the mean of “%s” and “%s” is read.", kind, names[least],
			names[most])
	}
	return of[0], nil, fmt.Sprintf("Of several columns of %s “%s” is read.", kind, names[of[0]])
}

func (m *Mapping) guessOrder(rows [][]string) []string {
	if m.Time < 0 || m.Order == "unix" {
		if m.Time >= 0 && m.Time < len(rows[0]) {
			if v, ok := number(rows[0][m.Time], false); ok && v > 1e11 {
				m.Order = "unix-ms"
			}
		}
		return nil
	}
	first, second, year := 0, 0, false
	for _, r := range rows {
		if m.Time >= len(r) {
			continue
		}
		cell, named := numericDate(r[m.Time])
		if named {
			m.Order = "ymd"
			return nil
		}
		if n := numbers(cell); len(n) >= 3 {
			year = year || n[0] > 31
			first, second = max(first, n[0]), max(second, n[1])
		}
	}
	switch {
	case year:
		m.Order = "ymd"
	case second > 12:
		m.Order = "mdy"
	case first > 12:
		m.Order = "dmy"
	default:
		m.Order = "dmy"
		return []string{"The dates could be day first or month first; day first is taken. Check the order."}
	}
	return nil
}

func (m *Mapping) guessUnits(names []string, rows [][]string) []string {
	var doubts []string
	lo, hi, unit, ok := m.span(rows, m.Temp)
	switch {
	case m.Temp < 0 || !ok:
	case strings.HasPrefix(unit, "f") || has(names[m.Temp], "°f", "(f)", "fahrenheit", "_f", "ºf", "deg f", ", f"):
		m.TempUnit = "F"
		doubts = append(doubts, fmt.Sprintf("The temperatures run from %g to %g: taken as °F.", lo, hi))
	case strings.HasPrefix(unit, "c") || has(names[m.Temp], "°c", "(c)", "celsius", "_c", "tempc", "ºc", "deg c",
		", c"):
	case lo > 30 && hi > 45:
		m.TempUnit = "F"
		doubts = append(doubts, fmt.Sprintf("No unit is stated, and the temperatures run from %g to %g: taken as °F.",
			lo, hi))
	default:
		doubts = append(doubts, fmt.Sprintf("No unit is stated, and the temperatures run from %g to %g: taken as °C.",
			lo, hi))
	}
	if lo, hi, _, ok := m.span(rows, m.RH); ok && lo >= 0 && hi <= 1 {
		m.RHUnit = "fraction"
		doubts = append(doubts, fmt.Sprintf("The humidities run from %g to %g: taken as a share of 1, not as per cent.",
			lo, hi))
	}
	return doubts
}

// span is the range of a column, with a unit that stands in its cells.
func (m *Mapping) span(rows [][]string, column int) (lo, hi float64, unit string, ok bool) {
	lo, hi = math.Inf(1), math.Inf(-1)
	for _, r := range rows {
		if column >= 0 && column < len(r) {
			if v, u, is := measurement(r[column], m.DecimalComma); is {
				lo, hi, ok = min(lo, v), max(hi, v), true
				unit = cmp.Or(unit, u)
			}
		}
	}
	return lo, hi, unit, ok
}
