package say

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
)

// Units are the metric symbols that a template's quantities are written in: those that
// are shown in other units to who asks for them.
var Units = []string{"m", "mm", "µm", "m²", "L", "kg", "g", "mL", "m²/L", "L/m²", "m²/h", "kg/L", "°C", "K", "hPa", "m/s"}

// A piece of a template: words, or a verb or a figure, with a unit or without.
type piece struct {
	words string
	verb  string // as fmt has it, "" for a figure or words
	value float64
	unit  string
	figs  int // decimals of a figure
}

var (
	token  = regexp.MustCompile(`(%[-+#0]*\d*(?:\.\d+)?[a-zA-Z]|[-−]?\b\d+(?:\.\d+)?\b)(?: ([^\s\d,.;:()%]+))?|%%`)
	parsed sync.Map // of template to []piece
)

// known takes a template of the program apart, once.
func known(template string) []piece {
	if p, ok := parsed.Load(template); ok {
		return p.([]piece)
	}
	out := pieces(template)
	parsed.Store(template, out)
	return out
}

func pieces(template string) []piece {
	var out []piece
	at := 0
	for _, m := range token.FindAllStringSubmatchIndex(template, -1) {
		unit := ""
		if m[4] >= 0 && slices.Contains(Units, template[m[4]:m[5]]) {
			unit = template[m[4]:m[5]]
		}
		if m[2] < 0 { // %%
			out = append(out, piece{words: template[at:m[0]] + "%"})
			at = m[1]
			continue
		}
		head := template[m[2]:m[3]]
		p := piece{unit: unit}
		if head[0] == '%' {
			p.verb = head
		} else if unit == "" {
			continue
		} else {
			p.value, _ = strconv.ParseFloat(strings.ReplaceAll(head, "−", "-"), 64)
			p.figs = decimals(head)
		}
		out = append(out, piece{words: template[at:m[2]]}, p)
		at = m[3]
		if unit != "" {
			at = m[5]
		}
	}
	return append(out, piece{words: template[at:]})
}

func decimals(figure string) int {
	if _, after, ok := strings.Cut(figure, "."); ok {
		return len(after)
	}
	return 0
}

// A Sayer is an argument of Of that has a sentence of its own.
type Sayer interface{ Say() Sentence }

// Join is the sentences one after another with a text between.
func Join(all []Sentence, between string) Sentence {
	var out Sentence
	for i, s := range all {
		if i > 0 {
			s = Of("%s%v", between, s)
		}
		out = Of("%v%v", out, s)
	}
	return out
}

// Of makes a sentence of a template of package fmt. A verb or a figure with a metric
// unit after it ("%.0f °C", "3 mm") becomes a quantity, a span or a sentence among the
// arguments stands as it is, all else is text; what text an argument has is never looked
// into.
func Of(template string, args ...any) Sentence {
	if false {
		_ = fmt.Sprintf(template, args...) // lets vet check verbs against arguments
	}
	return of(known(template), args)
}

// Fill is Of for a template of a table, with a span in the place of its %v if it has one.
func Fill(template string, with Span) Sentence { return of(known(template), []any{with}) }

// Lit makes a sentence of the program's own words, with the figures that stand in them.
func Lit(words string) Sentence {
	if words != "" && !strings.ContainsAny(words, "0123456789") {
		return Sentence{{Text: words}}
	}
	return of(pieces(strings.ReplaceAll(words, "%", "%%")), nil)
}

func of(pieces []piece, args []any) Sentence {
	out := Sentence{}
	text := func(s string) {
		if s == "" {
			return
		}
		if n := len(out); n > 0 && out[n-1].plain() {
			out[n-1].Text += s
			return
		}
		out = append(out, Span{Text: s})
	}
	next := 0
	for _, p := range pieces {
		if p.verb == "" {
			text(p.words)
			if p.unit != "" {
				out = append(out, Span{Value: &p.value, Unit: p.unit, Digits: &p.figs})
			}
			continue
		}
		var arg any = fmt.Errorf("nothing for %s", p.verb)
		if next < len(args) {
			arg = args[next]
		}
		next++
		if s, ok := arg.(Sayer); ok {
			arg = s.Say()
		}
		switch a := arg.(type) {
		case Sentence:
			for _, s := range a {
				if s.plain() {
					text(s.Text)
				} else {
					out = append(out, s)
				}
			}
			continue
		case Span:
			out = append(out, a)
			continue
		}
		shown := fmt.Sprintf(p.verb, arg)
		if p.unit == "" {
			text(shown)
		} else if v, err := strconv.ParseFloat(shown, 64); err != nil || math.IsInf(v, 0) || math.IsNaN(v) {
			text(shown + " " + p.unit)
		} else {
			figs := decimals(strconv.FormatFloat(v, 'f', -1, 64))
			if strings.HasSuffix(p.verb, "f") {
				figs = decimals(shown)
			}
			out = append(out, Span{Value: &v, Unit: p.unit, Digits: &figs})
		}
	}
	return out
}

// Quantity is v in a unit with three figures, as text has it between words.
func Quantity(v float64, unit string) Sentence { return Of("%v", rounded(v, unit)) }

func rounded(v float64, unit string) Span {
	v, _ = strconv.ParseFloat(strconv.FormatFloat(v, 'g', 6, 64), 64)
	figs := decimals(strconv.FormatFloat(v, 'f', -1, 64))
	return Span{Value: &v, Unit: unit, Digits: &figs}
}

// plain reports whether the span is text and no more.
func (s Span) plain() bool { return s.At == nil && s.Value == nil && !s.Strong }
