// Package calendar tells when people work.
package calendar

import (
	"fmt"
	"time"

	"allcoats/core/base/fielderr"
)

// Hours are the working hours of a day, in hours after midnight: 8.5 is 08:30.
// FromH and ToH alike is a day off.
type Hours struct {
	FromH float64 `json:"fromH"`
	ToH   float64 `json:"toH"`
}

// Week is the working hours from Sunday to Saturday. The zero week knows no
// limits: work may go on at any time.
type Week [7]Hours

// Stretch is a stretch of time.
type Stretch struct {
	From time.Time `json:"from"`
	To   time.Time `json:"to"`
}

// Validate reports hours outside the day or that end before they begin, and a
// week with no hours at all though some are set.
func (w Week) Validate() error {
	var bad fielderr.Errors
	for i, h := range w {
		path := fmt.Sprintf("[%d]", i)
		bad.Range(path+".fromH", h.FromH, 0, 24, "h")
		bad.Range(path+".toH", h.ToH, 0, 24, "h")
		if h.ToH < h.FromH {
			bad.Add(path+".toH", "work must end after it begins")
		}
	}
	if w != (Week{}) && len(bad) == 0 && w.hours() == 0 {
		bad.Add("[6].toH", "there are no working hours in the whole week")
	}
	return bad.Err()
}

func (w Week) hours() float64 {
	sum := 0.0
	for _, h := range w {
		sum += h.ToH - h.FromH
	}
	return sum
}

// Between lists the working hours of the local days from from to to; nil for a
// week without limits.
func (w Week) Between(from, to time.Time, loc *time.Location) []Stretch {
	if w == (Week{}) {
		return nil
	}
	out := []Stretch{}
	local := from.In(loc).AddDate(0, 0, -1)
	for day := time.Date(local.Year(), local.Month(), local.Day(), 0, 0, 0, 0, loc); day.Before(to); day = day.AddDate(
		0, 0, 1) {
		h := w[day.Weekday()]
		if h.ToH <= h.FromH {
			continue
		}
		at := func(hours float64) time.Time {
			m := int(hours*60 + 0.5)
			return time.Date(day.Year(), day.Month(), day.Day(), m/60, m%60, 0, 0, loc).UTC()
		}
		if s := (Stretch{at(h.FromH), at(h.ToH)}); s.To.After(from) && s.From.Before(to) {
			out = append(out, s)
		}
	}
	return out
}

// Daily is a week with the same hours every day.
func Daily(fromH, toH float64) Week {
	var w Week
	for i := range w {
		w[i] = Hours{fromH, toH}
	}
	return w
}

// At reports whether an instant is in the working hours.
func (w Week) At(t time.Time, loc *time.Location) bool {
	if w == (Week{}) {
		return true
	}
	for _, s := range w.Between(t, t.Add(time.Minute), loc) {
		if !t.Before(s.From) && t.Before(s.To) {
			return true
		}
	}
	return false
}

// Done is when so many hours of work are done that begin at an instant or in the next working hour.
func (w Week) Done(from time.Time, hours float64, loc *time.Location) time.Time {
	left := time.Duration(hours * float64(time.Hour))
	if w == (Week{}) || w.hours() == 0 {
		return from.Add(left)
	}
	for at := from; ; at = at.AddDate(0, 0, 7) {
		for _, s := range w.Between(at, at.AddDate(0, 0, 7), loc) {
			if s.From.Before(at) {
				s.From = at
			}
			if to := at.AddDate(0, 0, 7); s.To.After(to) {
				s.To = to
			}
			if d := s.To.Sub(s.From); d < left {
				left -= d
				continue
			}
			return s.From.Add(left)
		}
	}
}
