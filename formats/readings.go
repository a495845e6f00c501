package formats

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/exposure/reading"
)

// MaxReadings is the most rows that one file of readings may hold: two years
// of minutes.
const MaxReadings = 1_060_000

// number reads a decimal number; ok is false for what is none.
func number(s string, comma bool) (float64, bool) {
	s = strings.TrimSpace(s)
	if comma {
		s = strings.Replace(s, ",", ".", 1)
	}
	v, err := strconv.ParseFloat(s, 64)
	return v, err == nil && !math.IsNaN(v) && !math.IsInf(v, 0)
}

// numbers are the runs of digits in s.
func numbers(s string) []int {
	var room [8]int
	out := room[:0]
	n, in := 0, false
	for i := range len(s) {
		if c := s[i]; c >= '0' && c <= '9' {
			if n < 1e9 {
				n = 10*n + int(c-'0')
			}
			in = true
		} else if in {
			out, n, in = append(out, n), 0, false
		}
		if len(out) == cap(out) {
			return out
		}
	}
	if in {
		out = append(out, n)
	}
	return out
}

// Readings are what a table gave, with notes on what was passed over.
type Readings struct {
	Rows  []reading.Reading
	Notes []string
}

// ReadReadings reads a logger's table. Every fault names its line or the field
// of the mapping; after twenty it stops. All or nothing. Rows that repeat the one
// before, or hold no value, are passed over and noted.
func ReadReadings(data []byte, m Mapping) (Readings, error) {
	var bad fielderr.Errors
	loc, err := m.location()
	if err != nil {
		bad.Add("mapping.zone", "%v", err)
	}
	if m.Time < 0 {
		bad.Add("mapping.time", "say which column holds the time")
	}
	if m.Temp < 0 && m.RH < 0 {
		bad.Add("mapping.temp", "say which column holds the temperature, or the humidity")
	}
	if bad != nil {
		return Readings{}, bad
	}
	r := csv.NewReader(bytes.NewReader(Text(data)))
	r.Comma, r.FieldsPerRecord, r.LazyQuotes, r.ReuseRecord, r.TrimLeadingSpace = m.rune(), -1, true, !m.NewestFirst,
		m.Delimiter != "tab"
	s := series{m: m, when: instants{loc: loc, order: m.Order}}
	type numbered struct {
		line int
		row  []string
	}
	var held []numbered // of a file that is read from its end
	add := func(line int, row []string) {
		if err := s.add(row); err != nil {
			bad.Add(fmt.Sprintf("line %d", line), "%v", err)
		}
	}
	for i := 0; len(bad) < 20; i++ {
		row, err := r.Read()
		if err == io.EOF {
			break
		}
		if err != nil {
			bad.Add(csvPlace(err), "cannot be read: %v", err)
			break
		}
		if i < m.HeaderLines {
			continue
		}
		line, _ := r.FieldPos(0)
		if m.NewestFirst {
			held = append(held, numbered{line, row})
		} else {
			add(line, row)
		}
		if len(s.rows)+len(held) > MaxReadings {
			bad.Add("file", "more than %d rows", MaxReadings)
			break
		}
	}
	for i := len(held) - 1; i >= 0 && len(bad) < 20; i-- {
		add(held[i].line, held[i].row)
	}
	if bad == nil {
		bad = s.units()
	}
	if bad == nil && len(s.rows) == 0 {
		bad.Add("file", "there are no readings in it")
	}
	if bad != nil {
		return Readings{}, bad
	}
	return Readings{s.rows, s.notes()}, nil
}

// series gathers readings from rows.
type series struct {
	m              Mapping
	when           instants
	rows           []reading.Reading
	twice, missing int
}

func (s *series) add(row []string) error {
	cell := func(i int) string {
		if i < 0 || i >= len(row) {
			return ""
		}
		return strings.TrimSpace(row[i])
	}
	stamp := s.m.stamp(row)
	if strings.TrimSpace(stamp) == "" {
		s.missing++
		return nil
	}
	at, err := s.when.parse(stamp)
	if err != nil {
		return err
	}
	one := func(i int) (float64, error) {
		c := cell(i)
		if missing(c) {
			return math.NaN(), nil
		}
		v, _, ok := measurement(c, s.m.DecimalComma)
		if !ok {
			return 0, fmt.Errorf("%q is not a number", c)
		}
		return v, nil
	}
	value := func(i int, with *int) (float64, error) {
		v, err := one(i)
		if err != nil || with == nil {
			return v, err
		}
		w, err := one(*with)
		return (v + w) / 2, err
	}
	r := reading.Reading{At: at}
	if r.TempC, err = value(s.m.Temp, s.m.TempMax); err != nil {
		return fmt.Errorf("temperature %w", err)
	}
	if r.RHPct, err = value(s.m.RH, s.m.RHMax); err != nil {
		return fmt.Errorf("humidity %w", err)
	}
	if s.m.TempUnit == "F" {
		r.TempC = (r.TempC - 32) / 1.8
	}
	if s.m.RHUnit == "fraction" {
		r.RHPct *= 100
	}
	if math.IsNaN(r.TempC) && math.IsNaN(r.RHPct) {
		s.missing++
		return nil
	}
	if n := len(s.rows); n > 0 {
		last := s.rows[n-1]
		same := func(a, b float64) bool { return a == b || math.IsNaN(a) && math.IsNaN(b) }
		switch d := r.At.Compare(last.At); {
		case d == 0 && same(r.TempC, last.TempC) && same(r.RHPct, last.RHPct):
			s.twice++
			return nil
		case d == 0:
			return errors.New("the time is the same as on the line before, the values are not")
		case d < 0:
			return errors.New(
				"the time is earlier than on the line before: times must rise. If the logger's clock was set back, split the file there")
		}
	}
	s.rows = append(s.rows, r)
	return nil
}

// missing reports whether a cell stands for no value.
func missing(c string) bool {
	switch strings.ToLower(c) {
	case "", "-", "--", "---", "nan", "n/a", "na", "null", "none", "error", "err":
		return true
	}
	return false
}

// units refuses values that are in another unit than the mapping says, or that
// no instrument shows.
func (s *series) units() (bad fielderr.Errors) {
	loC, hiC, loRH, hiRH := math.Inf(1), math.Inf(-1), math.Inf(1), math.Inf(-1)
	for _, r := range s.rows {
		if !math.IsNaN(r.TempC) {
			loC, hiC = min(loC, r.TempC), max(hiC, r.TempC)
		}
		if !math.IsNaN(r.RHPct) {
			loRH, hiRH = min(loRH, r.RHPct), max(hiRH, r.RHPct)
		}
	}
	enough := len(s.rows) > 10
	switch {
	case s.m.TempUnit != "F" && enough && loC > 30 && hiC > 45:
		bad.Add("mapping.tempUnit", "the temperatures run from %.0f to %.0f: that looks like °F, not °C", loC, hiC)
	case s.m.TempUnit == "F" && enough && hiC < -8:
		bad.Add("mapping.tempUnit", "as °F it would be frost all the time, %.0f °C at the most: that looks like °C",
			hiC)
	}
	switch {
	case s.m.RHUnit != "fraction" && enough && hiRH >= 0 && hiRH <= 1:
		bad.Add("mapping.rhUnit", "the humidities run from %.2f to %.2f: that is a share of 1, not per cent", loRH,
			hiRH)
	case s.m.RHUnit == "fraction" && hiRH > 150:
		bad.Add("mapping.rhUnit", "the humidities run up to %.0f: that is per cent, not a share of 1", hiRH/100)
	}
	if bad != nil {
		return bad
	}
	for _, r := range s.rows {
		if err := r.Validate(); err != nil && len(bad) < 20 {
			bad.Under(r.At.Format(time.RFC3339), err)
		}
	}
	return bad
}

func (s *series) notes() []string {
	out := []string{}
	if s.twice > 0 {
		out = append(out, fmt.Sprintf("%d rows that repeated the one before were passed over.", s.twice))
	}
	if s.missing > 0 {
		out = append(out, fmt.Sprintf("%d rows without a value were passed over.", s.missing))
	}
	if s.when.doubled > 0 {
		out = append(out, fmt.Sprintf(
			"%d times of the hour that the clocks go back over were told apart by their order.", s.when.doubled))
	}
	return out
}
