// Package weather holds an hourly record of the air at one place: measured so
// far, forecast ahead.
package weather

import (
	"fmt"
	"sort"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/physics/psychrometrics"
)

// Hour is the air at an instant; records are usually an hour apart. Wind,
// cloud and shortwave hold at the instant; rain falls in the hour that begins
// at it. Nil means not known.
type Hour struct {
	At           time.Time `json:"at"`
	TempC        float64   `json:"tempC"`
	RHPct        float64   `json:"rhPct"`
	WindMS       *float64  `json:"windMS,omitempty"`
	RainMM       *float64  `json:"rainMM,omitempty"`
	CloudPct     *float64  `json:"cloudPct,omitempty"`
	ShortwaveWM2 *float64  `json:"shortwaveWM2,omitempty"`
	// Measured is false for a forecast.
	Measured bool `json:"measured" required:"false"`
}

// Equal tells whether two hours say the same.
func (h Hour) Equal(o Hour) bool {
	same := func(a, b *float64) bool { return a == b || a != nil && b != nil && *a == *b }
	return h.At.Equal(o.At) && h.TempC == o.TempC && h.RHPct == o.RHPct && same(h.WindMS, o.WindMS) &&
		same(h.RainMM, o.RainMM) &&
		same(h.CloudPct, o.CloudPct) && same(h.ShortwaveWM2, o.ShortwaveWM2) && h.Measured == o.Measured
}

// DewPointC returns the dew point of the air, °C.
func (h Hour) DewPointC() float64 { return psychrometrics.DewPoint(h.TempC, h.RHPct) }

// Validate reports figures that no weather has: temperature outside −60…60 °C,
// humidity outside 1…100 %, wind over 90 m/s, rain over 300 mm in the hour,
// cloud over 100 %, shortwave over 1500 W/m².
func (h Hour) Validate() error {
	var bad fielderr.Errors
	bad.Range("tempC", h.TempC, -60, 60, "°C")
	bad.Range("rhPct", h.RHPct, 1, 100, "%")
	for _, o := range []struct {
		path string
		v    *float64
		hi   float64
		unit string
	}{
		{"windMS", h.WindMS, 90, "m/s"}, {"rainMM", h.RainMM, 300, "mm"},
		{"cloudPct", h.CloudPct, 100, "%"}, {"shortwaveWM2", h.ShortwaveWM2, 1500, "W/m²"},
	} {
		if o.v != nil {
			bad.Range(o.path, *o.v, 0, o.hi, o.unit)
		}
	}
	return bad.Err()
}

// MaxGap is the longest stretch between two records that is bridged by a
// straight line. Over a longer one the air is not known.
const MaxGap = 3 * time.Hour

// Series is a record sorted by time, without two records of one instant.
type Series []Hour

// Validate reports records that are out of order, doubled or impossible, with
// paths "[i].field". It stops after twenty.
func (s Series) Validate() error {
	var bad fielderr.Errors
	for i, h := range s {
		if len(bad) >= 20 {
			break
		}
		bad.Under(fmt.Sprintf("[%d]", i), h.Validate())
		if i == 0 {
			continue
		}
		switch d := h.At.Compare(s[i-1].At); {
		case d == 0:
			bad.Add(fmt.Sprintf("[%d].at", i), "%s is there twice", h.At.Format(time.RFC3339))
		case d < 0:
			bad.Add(fmt.Sprintf("[%d].at", i), "%s comes after a later time; times must rise",
				h.At.Format(time.RFC3339))
		}
	}
	return bad.Err()
}

// Merge lays measured over forecast: where both have an instant the measured
// record stands. Both must be sorted.
func Merge(measured, forecast Series) Series {
	out := make(Series, 0, len(measured)+len(forecast))
	i, j := 0, 0
	for i < len(measured) || j < len(forecast) {
		switch {
		case j == len(forecast):
			out = append(out, measured[i])
			i++
		case i == len(measured) || forecast[j].At.Before(measured[i].At):
			out = append(out, forecast[j])
			j++
		default:
			if forecast[j].At.Equal(measured[i].At) {
				j++
			}
			out = append(out, measured[i])
			i++
		}
	}
	return out
}

// Span returns the first and the last instant; ok is false for an empty series.
func (s Series) Span() (from, to time.Time, ok bool) {
	if len(s) == 0 {
		return
	}
	return s[0].At, s[len(s)-1].At, true
}

// Find returns the index of the last record at or before t, −1 if there is none.
func (s Series) Find(t time.Time) int {
	return sort.Search(len(s), func(i int) bool { return s[i].At.After(t) }) - 1
}

// Locate returns the record i at or before t, and how far t lies toward the
// next one, f in [0, 1). ok is false outside the record and in gaps of more
// than MaxGap.
func (s Series) Locate(t time.Time) (i int, f float64, ok bool) {
	i = s.Find(t)
	if i < 0 {
		return 0, 0, false
	}
	if s[i].At.Equal(t) {
		return i, 0, true
	}
	if i+1 == len(s) {
		return i, 0, false
	}
	step := s[i+1].At.Sub(s[i].At)
	return i, float64(t.Sub(s[i].At)) / float64(step), step <= MaxGap
}

// At returns the air at t, temperature, humidity and wind on the straight line
// between its two neighbours; ok as Locate.
func (s Series) At(t time.Time) (h Hour, ok bool) {
	i, f, ok := s.Locate(t)
	if !ok {
		return Hour{}, false
	}
	return s.Mix(i, f), true
}

// Mix returns the air at fraction f from record i to the next.
func (s Series) Mix(i int, f float64) Hour {
	h := s[i]
	if f == 0 {
		return h
	}
	b := s[i+1]
	h.At = h.At.Add(time.Duration(f * float64(b.At.Sub(h.At))))
	h.TempC += f * (b.TempC - h.TempC)
	h.RHPct += f * (b.RHPct - h.RHPct)
	if h.WindMS != nil && b.WindMS != nil {
		v := *h.WindMS + f*(*b.WindMS-*h.WindMS)
		h.WindMS = &v
	}
	return h
}

// Between returns the records in [from, to], sharing s's memory.
func (s Series) Between(from, to time.Time) Series {
	lo := sort.Search(len(s), func(i int) bool { return !s[i].At.Before(from) })
	hi := sort.Search(len(s), func(i int) bool { return s[i].At.After(to) })
	return s[lo:max(lo, hi)]
}

// Gap is a stretch without records.
type Gap struct {
	From time.Time `json:"from"`
	To   time.Time `json:"to"`
}

// Gaps lists the stretches of more than MaxGap between neighbouring records.
func (s Series) Gaps() []Gap {
	var out []Gap
	for i := 1; i < len(s); i++ {
		if s[i].At.Sub(s[i-1].At) > MaxGap {
			out = append(out, Gap{s[i-1].At, s[i].At})
		}
	}
	return out
}
