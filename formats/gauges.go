package formats

import (
	"bufio"
	"bytes"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"

	"allcoats/core/base/fielderr"
	"allcoats/core/exposure/reading"
)

// ReadReadingLines reads JSON lines as a live instrument sends them:
// {"at":"2026-05-09T10:00:00Z","tempC":12.4,"rhPct":71}. At most 100 000.
func ReadReadingLines(data []byte) ([]reading.Reading, error) {
	var bad fielderr.Errors
	var out []reading.Reading
	in := bufio.NewScanner(bytes.NewReader(data))
	for n := 1; in.Scan() && len(bad) < 20; n++ {
		line := bytes.TrimSpace(in.Bytes())
		if len(line) == 0 {
			continue
		}
		place := fmt.Sprintf("line %d", n)
		if len(out) == 100_000 {
			bad.Add(place, "more than 100000 readings at once")
			break
		}
		var v struct {
			At    time.Time `json:"at"`
			TempC *float64  `json:"tempC"`
			RHPct *float64  `json:"rhPct"`
		}
		d := json.NewDecoder(bytes.NewReader(line))
		d.DisallowUnknownFields()
		if err := d.Decode(&v); err != nil {
			bad.Add(place, "%v", err)
			continue
		}
		r := reading.Reading{At: v.At.UTC().Truncate(time.Second), TempC: math.NaN(), RHPct: math.NaN()}
		if v.TempC != nil {
			r.TempC = *v.TempC
		}
		if v.RHPct != nil {
			r.RHPct = *v.RHPct
		}
		if y := v.At.Year(); y < 2000 || y > 2100 {
			bad.Add(place+".at", "must be a time between 2000 and 2100")
		}
		bad.Under(place, r.Validate())
		out = append(out, r)
	}
	if err := in.Err(); err != nil {
		bad.Add("file", "cannot be read: %v", err)
	}
	if bad == nil && len(out) == 0 {
		bad.Add("file", "there are no readings in it")
	}
	if bad != nil {
		return nil, bad
	}
	slices.SortStableFunc(out, func(a, b reading.Reading) int { return a.At.Compare(b.At) })
	return out, nil
}

// ReadValueLines reads JSON lines as a scale or a film gauge sends them:
// {"at":"2026-05-09T10:00:00Z","value":412.5,"unit":"g"}. At most 1000.
func ReadValueLines(data []byte, k reading.Kind) ([]reading.Value, error) {
	var bad fielderr.Errors
	var out []reading.Value
	for n, line := range bytes.Split(data, []byte("\n")) {
		if line = bytes.TrimSpace(line); len(line) == 0 {
			continue
		}
		place := fmt.Sprintf("line %d", n+1)
		if len(out) == 1000 || len(bad) > 20 {
			bad.Add(place, "more than 1000 values at once")
			break
		}
		var v reading.Value
		d := json.NewDecoder(bytes.NewReader(line))
		d.DisallowUnknownFields()
		if err := d.Decode(&v); err != nil {
			bad.Add(place, "%v", err)
			continue
		}
		if y := v.At.Year(); y < 2000 || y > 2100 {
			bad.Add(place+".at", "must be a time between 2000 and 2100")
		}
		v, err := v.In(k)
		bad.Under(place, err)
		out = append(out, v)
	}
	if bad == nil && len(out) == 0 {
		bad.Add("file", "there are no values in it")
	}
	return out, bad.Err()
}

// ReadGauge reads the values of a film gauge's file: one a line, or the column of a
// table whose name says that it holds film. A name with mil in it, and no unit given,
// makes them mils.
func ReadGauge(data []byte, unit string) ([]float64, error) {
	var bad fielderr.Errors
	data = Text(data)
	rows := cells(data, separator(data), true)
	column, first := 0, 0
	if len(rows) > 0 {
		for i, c := range rows[0] {
			name := strings.ToLower(c)
			if _, _, isNumber := measurement(c, strings.Contains(c, ",")); isNumber {
				break
			}
			first = 1
			if has(name, "µm", "um", "mil", "film", "thick", "dft", "value") {
				column = i
				if unit == "" && has(name, "mil") {
					unit = "mil"
				}
			}
		}
	}
	if unit == "" {
		unit = "µm"
	}
	var out []float64
	for i, r := range rows[min(first, len(rows)):] {
		if len(r) == 1 && strings.TrimSpace(r[0]) == "" {
			continue
		}
		place := fmt.Sprintf("line %d", first+i+1)
		if column >= len(r) {
			bad.Add(place, "has no column %d", column+1)
			continue
		}
		v, own, ok := measurement(r[column], strings.Contains(r[column], ","))
		if !ok {
			bad.Add(place, "%q is no number", r[column])
			continue
		}
		in := unit
		if strings.HasPrefix(own, "mil") {
			in = "mil"
		}
		got, err := (reading.Value{Value: v, Unit: in}).In(reading.Gauge)
		bad.Under(place, err)
		out = append(out, got.Value)
		if len(out) > 5000 || len(bad) > 20 {
			break
		}
	}
	if bad == nil && len(out) == 0 {
		bad.Add("file", "there are no readings in it")
	}
	return out, bad.Err()
}

// separator is the character that most lines have: tab, semicolon or comma; a comma
// between digits alone is a decimal.
func separator(data []byte) rune {
	for _, sep := range []rune{'\t', ';'} {
		if bytes.ContainsRune(data, sep) {
			return sep
		}
	}
	head, _, _ := bytes.Cut(data, []byte("\n"))
	if bytes.ContainsRune(head, ',') && bytes.ContainsFunc(head, unicode.IsLetter) {
		return ','
	}
	return ';'
}

// WriteReadingLines writes what ReadReadingLines reads.
func WriteReadingLines(rs []reading.Reading) []byte {
	var b bytes.Buffer
	for _, r := range rs {
		fmt.Fprintf(&b, `{"at":%q`, r.At.UTC().Format(time.RFC3339))
		if !math.IsNaN(r.TempC) {
			fmt.Fprintf(&b, `,"tempC":%s`, strconv.FormatFloat(r.TempC, 'f', -1, 64))
		}
		if !math.IsNaN(r.RHPct) {
			fmt.Fprintf(&b, `,"rhPct":%s`, strconv.FormatFloat(r.RHPct, 'f', -1, 64))
		}
		b.WriteString("}\n")
	}
	return b.Bytes()
}
