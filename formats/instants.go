package formats

import (
	"fmt"
	"strings"
	"time"
)

// instants reads the times of a table, one after another, in a zone.
type instants struct {
	loc   *time.Location
	order string
	// last and step are the last time read and how long after the one before.
	last time.Time
	step time.Duration
	// calm is where no clock change is near, so that none has to be looked for.
	calmFrom, calmTo time.Time
	doubled          int // times told apart by their order
}

// parse reads s. Of a time that a clock change makes double the one that follows
// the last as the step before did is taken; a first one, and times that a change
// leaves out, are refused.
func (p *instants) parse(s string) (time.Time, error) {
	t, err := p.read(s)
	if err != nil {
		return time.Time{}, err
	}
	if !p.last.IsZero() {
		p.step = t.Sub(p.last)
	}
	p.last = t
	return t, nil
}

func (p *instants) read(s string) (time.Time, error) {
	fail := func() (time.Time, error) {
		return time.Time{}, fmt.Errorf("%q is not a time in the order chosen", s)
	}
	if p.order == "unix" || p.order == "unix-ms" {
		v, ok := number(s, false)
		if p.order == "unix-ms" {
			v /= 1000
		}
		if !ok || v < 9e8 || v > 4.2e9 {
			return time.Time{}, fmt.Errorf(
				"%q is not a time in seconds since 1970 (milliseconds if so chosen) after 1998", s)
		}
		return time.Unix(int64(v), 0).UTC(), nil
	}
	order := p.order
	if named, ok := numericDate(s); ok {
		s, order = named, "ymd"
	}
	n := numbers(s)
	if len(n) < 4 {
		return fail()
	}
	y, m, d := n[0], n[1], n[2]
	switch order {
	case "dmy":
		y, m, d = n[2], n[1], n[0]
	case "mdy":
		y, m, d = n[2], n[0], n[1]
	}
	if y < 100 {
		y += 2000
	}
	hour, minute, second := n[3], 0, 0
	if len(n) > 4 {
		minute = n[4]
	}
	if len(n) > 5 && !zoned(s) || len(n) > 7 {
		second = n[5]
	}
	upper := strings.ToUpper(s)
	switch {
	case strings.Contains(upper, "PM") && hour < 12:
		hour += 12
	case strings.Contains(upper, "AM") && hour == 12:
		hour = 0
	}
	if y < 1998 || y > 2100 || m < 1 || m > 12 || d < 1 || d > 31 || hour > 24 || minute > 59 || second > 60 {
		return fail()
	}
	if zoned(s) {
		for _, layout := range []string{time.RFC3339, "2006-01-02 15:04:05Z07:00", "2006-01-02T15:04Z07:00",
			"2006-01-02 15:04Z07:00", "2006-01-02T15:04:05Z0700", "2006-01-02 15:04:05 Z07:00"} {
			if t, err := time.Parse(layout, s); err == nil {
				return t.UTC().Truncate(time.Second), nil
			}
		}
		return fail()
	}
	t := time.Date(y, time.Month(m), d, hour, minute, second, 0, p.loc)
	if t.After(p.calmFrom) && t.Before(p.calmTo) {
		return t.UTC(), nil
	}
	return p.nearChange(s, t, hour%24, minute)
}

// zoned reports whether a time carries its zone.
func zoned(s string) bool {
	s = strings.TrimSpace(s)
	if strings.HasSuffix(s, "Z") {
		return true
	}
	i := strings.LastIndexAny(s, "+-")
	return i > 10 && strings.Count(s[:i], ":") > 0
}

// nearChange looks for a clock change near t, the first that the wall clock may mean.
func (p *instants) nearChange(s string, t time.Time, hour, minute int) (time.Time, error) {
	if h, m, _ := t.Clock(); h != hour || m != minute {
		return time.Time{}, fmt.Errorf(
			"%q does not exist in %s: the clocks go forward over it. Choose UTC or a fixed offset if the logger does not change its clock", s, p.loc)
	}
	const near = 3 * time.Hour
	from, to := t.ZoneBounds()
	if from.IsZero() {
		from = t.AddDate(-1, 0, 0)
	}
	if to.IsZero() {
		to = t.AddDate(1, 0, 0)
	}
	p.calmFrom, p.calmTo = from.Add(near), to.Add(-near)
	if t.After(p.calmFrom) && t.Before(p.calmTo) {
		return t.UTC(), nil
	}
	p.calmTo = p.calmFrom // look at each
	var twin time.Time
	for _, d := range []time.Duration{-2 * time.Hour, -time.Hour, -30 * time.Minute, 30 * time.Minute, time.Hour,
		2 * time.Hour} {
		o := t.Add(d)
		if h, m, _ := o.Clock(); h == hour && m == minute && o.YearDay() == t.YearDay() {
			twin = o
		}
	}
	if twin.IsZero() {
		return t.UTC(), nil
	}
	first, second := t, twin
	if second.Before(first) {
		first, second = second, first
	}
	if p.last.IsZero() {
		return time.Time{}, fmt.Errorf(
			"%q is there twice in %s: the clocks go back over it, and no line before tells which is meant. Choose UTC or a fixed offset, or begin the file earlier", s, p.loc)
	}
	p.doubled++
	if !first.After(p.last) || p.step > 0 && (second.Sub(p.last)-p.step).Abs() < (first.Sub(p.last)-p.step).Abs() {
		return second.UTC(), nil
	}
	return first.UTC(), nil
}
