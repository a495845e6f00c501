// Package message builds the plain sentences that every screen opens with. A
// sentence is a list of spans, so that instants can be shown in local time and
// quantities in the user's units without the core knowing either.
package message

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"time"
	"unicode/utf8"
)

// Span is a message, a run of text, an instant or a quantity; exactly one of the four
// is set.
type Span struct {
	// Say is a message of the program, the English of it and the key of its translations;
	// With fills its {0}, {1} and on. Lower has it begin with a small letter.
	Say   string     `json:"say,omitempty"`
	With  []Sentence `json:"with,omitempty"`
	Lower bool       `json:"lower,omitempty"`
	// Text is a name, a number or another's words, shown as it is in every language.
	Text string `json:"text,omitempty"`
	// Strong marks the thing that the sentence is about.
	Strong bool `json:"strong,omitempty"`
	// At is an instant; Day asks for the day's name beside the time.
	At  *time.Time `json:"at,omitempty"`
	Day bool       `json:"day,omitempty"`
	// Date asks for the date instead, of an instant far away; with Day for that alone.
	Date bool `json:"date,omitempty"`
	// Value is a quantity in Unit, a metric symbol of package units.
	Value *float64 `json:"value,omitempty"`
	Unit  string   `json:"unit,omitempty"`
	// Digits are the decimals it is shown with in Unit; without them the unit has its own.
	Digits *int `json:"digits,omitempty"`
}

// Sentence is a list of spans to be set one after another.
type Sentence []Span

// Text is what is the same in every language.
func Text(format string, args ...any) Span { return Span{Text: fmt.Sprintf(format, args...)} }

// Strong is the thing the sentence is about.
func Strong(text string) Span { return Span{Text: text, Strong: true} }

// Clock is an instant on the same local day as now ("10:20"), or with the
// day's name if it is not, or with the date six days off and more.
func Clock(t, now time.Time, loc *time.Location) Span {
	far := t.Sub(now).Abs() >= 6*24*time.Hour
	return Span{At: &t, Day: !far && !SameDay(t, now, loc), Date: far}
}

// Date is an instant with its date, as of one far away.
func Date(t time.Time) Span { return Span{At: &t, Date: true} }

// On is the day of an instant, without its time.
func On(t time.Time) Span { return Span{At: &t, Day: true, Date: true} }

// Val is a quantity.
func Val(v float64, unit string) Span { return Span{Value: &v, Unit: unit} }

// SameDay reports whether a and b fall on the same calendar day in loc.
func SameDay(a, b time.Time, loc *time.Location) bool {
	a, b = a.In(loc), b.In(loc)
	return a.YearDay() == b.YearDay() && a.Year() == b.Year()
}

// In renders the sentence in metric units and loc's time, as the command line
// and the tests read it.
func (s Sentence) In(loc *time.Location) string {
	var b strings.Builder
	for _, p := range s {
		switch {
		case p.Say != "":
			b.WriteString(p.said(loc))
		case p.At != nil && p.Date && p.Day:
			b.WriteString(p.At.In(loc).Format("Mon 2 Jan"))
		case p.At != nil && p.Date:
			b.WriteString(p.At.In(loc).Format("Mon 2 Jan, 15:04"))
		case p.At != nil && p.Day:
			b.WriteString(p.At.In(loc).Format("Monday 15:04"))
		case p.At != nil:
			b.WriteString(p.At.In(loc).Format("15:04"))
		case p.Value != nil && p.Digits != nil:
			b.WriteString(strings.TrimSpace(strconv.FormatFloat(*p.Value, 'f', *p.Digits, 64) + " " + p.Unit))
		case p.Value != nil:
			form := "%.3g %s"
			if math.Abs(*p.Value) >= 1000 {
				form = "%.0f %s" // no power of ten between words
			}
			fmt.Fprintf(&b, form, *p.Value, p.Unit)
		default:
			b.WriteString(p.Text)
		}
	}
	return b.String()
}

// said is the message in English.
func (s Span) said(loc *time.Location) string {
	out := s.Say
	if len(s.With) > 0 {
		var b strings.Builder
		for {
			before, rest, ok := strings.Cut(out, "{")
			b.WriteString(before)
			if !ok {
				break
			}
			number, after, _ := strings.Cut(rest, "}")
			if i, err := strconv.Atoi(number); err == nil && i >= 0 && i < len(s.With) {
				b.WriteString(s.With[i].In(loc))
				out = after
			} else {
				b.WriteByte('{')
				out = rest
			}
		}
		out = b.String()
	}
	if s.Lower {
		out = lower(out)
	}
	return out
}

// lower is a text beginning with a small letter.
func lower(text string) string {
	_, n := utf8.DecodeRuneInString(text)
	return strings.ToLower(text[:n]) + text[n:]
}

// Strong is the sentence as the thing that another is about.
func (s Sentence) Strong() Span { return Span{Say: "{0}", With: []Sentence{s}, Strong: true} }

// Lower is the sentence beginning with a small letter, to stand inside another; a
// name that is marked strong keeps its own.
func (s Sentence) Lower() Sentence {
	if len(s) == 0 {
		return s
	}
	out := append(Sentence{}, s...)
	switch first := &out[0]; {
	case strings.HasPrefix(first.Say, "{0}"):
		first.With = append([]Sentence{first.With[0].Lower()}, first.With[1:]...)
	case first.Say != "":
		first.Lower = true
	case first.Text != "" && !first.Strong:
		first.Text = lower(first.Text)
	}
	return out
}

// String is the sentence in metric units, instants in UTC.
func (s Sentence) String() string { return s.In(time.UTC) }

// Finding is something to know. Stop says that it does not work so.
type Finding struct {
	Stop bool     `json:"stop"`
	Text Sentence `json:"text"`
}
