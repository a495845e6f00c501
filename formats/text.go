package formats

import (
	"bytes"
	"regexp"
	"strconv"
	"strings"
	"sync"
	"unicode/utf8"

	"golang.org/x/text/encoding"
	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"
)

// Text is a file as UTF-8 without a mark at its beginning, whichever way it was written: UTF-16 with or
// without a mark, UTF-8, else Windows-1252; its lines end in line feeds.
func Text(data []byte) []byte {
	if e, ok := utf16Of(data); ok {
		if out, err := e.NewDecoder().Bytes(data); err == nil {
			data = out
		}
	}
	data = bytes.TrimPrefix(data, []byte("\xef\xbb\xbf"))
	if !utf8.Valid(data) {
		if out, err := charmap.Windows1252.NewDecoder().Bytes(data); err == nil {
			data = out
		}
	}
	if bytes.IndexByte(data, '\r') >= 0 {
		data = bytes.ReplaceAll(data, []byte("\r\n"), []byte("\n"))
		data = bytes.ReplaceAll(data, []byte("\r"), []byte("\n"))
	}
	return data
}

// utf16Of tells UTF-16 by its mark, or by the zeros between plain characters.
func utf16Of(data []byte) (encoding.Encoding, bool) {
	switch {
	case bytes.HasPrefix(data, []byte{0xff, 0xfe}):
		return unicode.UTF16(unicode.LittleEndian, unicode.UseBOM), true
	case bytes.HasPrefix(data, []byte{0xfe, 0xff}):
		return unicode.UTF16(unicode.BigEndian, unicode.UseBOM), true
	}
	head := data[:min(len(data), 400)]
	even, odd := 0, 0
	for i, b := range head {
		if b == 0 && i%2 == 0 {
			even++
		} else if b == 0 {
			odd++
		}
	}
	switch {
	case len(head) > 8 && odd > len(head)/4 && even == 0:
		return unicode.UTF16(unicode.LittleEndian, unicode.IgnoreBOM), true
	case len(head) > 8 && even > len(head)/4 && odd == 0:
		return unicode.UTF16(unicode.BigEndian, unicode.IgnoreBOM), true
	}
	return nil, false
}

// pattern is an expression that is compiled when it is first asked for: there are many, and most runs of the program
// read no text.
func pattern(expr string) func() *regexp.Regexp {
	return sync.OnceValue(func() *regexp.Regexp { return regexp.MustCompile(expr) })
}

// months are the beginnings of names of months, in the languages round the northern seas.
var months = map[string]int{
	"jan": 1, "feb": 2, "fév": 2, "fev": 2, "mar": 3, "mär": 3, "maa": 3, "mrt": 3, "apr": 4, "avr": 4, "abr": 4,
	"may": 5, "mai": 5, "maj": 5, "mei": 5,
	"jun": 6, "juin": 6, "jul": 7, "juil": 7, "aug": 8, "aoû": 8, "aou": 8, "ago": 8, "sep": 9, "set": 9, "oct": 10,
	"okt": 10, "out": 10, "nov": 11, "dec": 12, "dez": 12, "déc": 12, "des": 12, "dic": 12,
}

var (
	dayMonthYear = pattern(
		`(?i)(\d{1,4})(?:st|nd|rd|th|\.)?[\s./-]*(?:of\s+|de\s+)?(\pL{3,})\.?[\s./,-]*(?:of\s+|de\s+)?(\d{2,4})`)
	monthDayYear = pattern(`(?i)(\pL{3,})\.?[\s./-]*(\d{1,2})(?:st|nd|rd|th)?,?[\s./-]+(\d{4})`)
)

// numericDate writes a date with the name of a month as year, month and day; ok is false for one without.
func numericDate(s string) (string, bool) {
	if !hasName(s) {
		return s, false
	}
	if m := dayMonthYear().FindStringSubmatchIndex(s); m != nil {
		if month := monthOf(s[m[4]:m[5]]); month > 0 {
			a, b := s[m[2]:m[3]], s[m[6]:m[7]]
			if len(a) == 4 { // 2026 May 09
				a, b = b, a
			}
			return strings.TrimSpace(s[:m[0]]) + " " + ymd(b, month, a) + s[m[1]:], true
		}
	}
	if m := monthDayYear().FindStringSubmatchIndex(s); m != nil {
		if month := monthOf(s[m[2]:m[3]]); month > 0 {
			return strings.TrimSpace(s[:m[0]]) + " " + ymd(s[m[6]:m[7]], month, s[m[4]:m[5]]) + s[m[1]:], true
		}
	}
	return s, false
}

// hasName tells whether three letters stand together: most dates have none, and are many.
func hasName(s string) bool {
	run := 0
	for _, r := range s {
		if r >= 'A' && r <= 'Z' || r >= 'a' && r <= 'z' || r > 0xbf {
			if run++; run == 3 {
				return true
			}
		} else {
			run = 0
		}
	}
	return false
}

func monthOf(name string) int {
	name = strings.ToLower(name)
	for n := 4; n >= 3; n-- { // juin before jun
		r := []rune(name)
		if len(r) >= n {
			if m, ok := months[string(r[:n])]; ok {
				return m
			}
		}
	}
	return 0
}

func ymd(year string, month int, day string) string {
	if len(year) == 2 {
		year = "20" + year
	}
	return year + "-" + strconv.Itoa(month) + "-" + day
}

// measured are units that may stand in a cell behind a figure.
var measured = pattern(
	`(?i)^\s*(?:°|º|deg\.?)?\s*(c|f|celsius|fahrenheit|%(?:\s*r\.?h\.?)?|r\.?h\.?|m/s|ms|km/h|kmh|kph|kn|kts?|knots?|mph|mm|in|inch|µm|um|mils?|hpa|w/m²|w/m2|okta|/8)?\s*$`)

// measurement reads a figure with its unit behind it; ok is false for what is none.
func measurement(s string, comma bool) (v float64, unit string, ok bool) {
	if v, ok = number(s, comma); ok {
		return v, "", true
	}
	i := strings.LastIndexAny(s, "0123456789")
	if i < 0 {
		return 0, "", false
	}
	m := measured().FindStringSubmatch(s[i+1:])
	if m == nil {
		return 0, "", false
	}
	v, ok = number(s[:i+1], comma)
	return v, strings.ToLower(m[1]), ok
}

// offset is a fixed zone that a header states: "GMT+02:00", "UTC-5", "Time (UTC)".
var offset = pattern(`(?i)\b(?:GMT|UTC)\s*(?:([+\-−])\s*(\d{1,2})(?::?(\d\d))?)?`)

// statedZone is the zone that lines of a header state, empty for none.
func statedZone(header string) string {
	m := offset().FindStringSubmatch(header)
	switch {
	case m == nil:
		return ""
	case m[1] == "":
		return "UTC"
	}
	h, minutes := m[2], m[3]
	if len(h) == 1 {
		h = "0" + h
	}
	if minutes == "" {
		minutes = "00"
	}
	return strings.Replace(m[1], "−", "-", 1) + h + ":" + minutes
}
