package message

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
	"unicode"
)

// Units are the metric symbols that a template's quantities are written in: those that
// are shown in other units to who asks for them.
var Units = []string{"m", "mm", "µm", "m²", "L", "kg", "g", "mL", "m²/L", "L/m²", "m²/h", "kg/L", "°C", "K", "hPa",
	"m/s"}

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
	parsed sync.Map // of template to message
)

// A message is a template taken apart: the key that it is looked up by in the catalogue of
// a language, empty when it has no words, and its pieces.
type message struct {
	key    string
	pieces []piece
}

// known takes a template of the program apart, once.
func known(template string) message {
	if m, ok := parsed.Load(template); ok {
		return m.(message)
	}
	out := taken(template)
	parsed.Store(template, out)
	return out
}

func taken(template string) message {
	out := message{pieces: pieces(template)}
	var key strings.Builder
	n, words := 0, false
	for _, p := range out.pieces {
		if p.verb != "" || p.unit != "" {
			fmt.Fprintf(&key, "{%d}", n)
			n++
			continue
		}
		key.WriteString(p.words)
		words = words || strings.ContainsFunc(p.words, unicode.IsLetter)
	}
	if words {
		out.key = key.String()
	}
	return out
}

// Key is the message of a template: what stands in a catalogue for it, its verbs and figures
// numbered in braces. It is empty for a template without words.
func Key(template string) string { return known(template).key }

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
		if i == 0 {
			out = s
		} else {
			out = Of("%v"+between+"%v", out, s)
		}
	}
	return out
}

// List names things as one says them: "a, b and c".
func List[T any](names []T) Sentence {
	all := make([]Sentence, len(names))
	for i, n := range names {
		all[i] = Of("%v", n)
	}
	if n := len(all); n > 1 {
		return Of("%v and %v", Join(all[:n-1], ", "), all[n-1])
	}
	return Join(all, "")
}

// Of makes a sentence of a template of package fmt: a message with what fills it. A verb or
// a figure with a metric unit after it ("%.0f °C", "3 mm") becomes a quantity, a span or a
// sentence among the arguments stands as it is, all else is text; what text an argument has
// is never looked into.
func Of(template string, args ...any) Sentence {
	if false {
		_ = fmt.Sprintf(template, args...) // lets vet check verbs against arguments
	}
	return known(template).of(args)
}

// Fill is Of for a template of a table, with a span in the place of its %v if it has one.
func Fill(template string, with Span) Sentence { return known(template).of([]any{with}) }

// Lit makes a sentence of the program's own words, with the figures that stand in them.
func Lit(words string) Sentence {
	if words != "" && !strings.ContainsAny(words, "0123456789%") {
		return Sentence{{Say: words}}
	}
	return taken(strings.ReplaceAll(words, "%", "%%")).of(nil)
}

func (m message) of(args []any) Sentence {
	// What has a key is said by it with what fills it; anything else is its pieces one after the other.
	out, next := Sentence{}, 0
	var with []Sentence
	for _, p := range m.pieces {
		var filled Sentence
		switch {
		case p.verb != "":
			if next < len(args) {
				filled = p.filled(args[next])
			} else {
				filled = p.filled(fmt.Errorf("nothing for %s", p.verb))
			}
			next++
		case p.unit != "":
			filled = Sentence{{Value: &p.value, Unit: p.unit, Digits: &p.figs}}
		case p.words != "" && m.key == "":
			out = append(out, Span{Text: p.words})
			continue
		default:
			continue
		}
		if m.key == "" {
			out = append(out, filled...)
		} else {
			with = append(with, filled)
		}
	}
	if m.key == "" {
		return out
	}
	return Sentence{{Say: m.key, With: with}}
}

// filled is what stands for a verb.
func (p piece) filled(arg any) Sentence {
	if s, ok := arg.(Sayer); ok {
		arg = s.Say()
	}
	switch a := arg.(type) {
	case Sentence:
		return a
	case Span:
		return Sentence{a}
	}
	shown := fmt.Sprintf(p.verb, arg)
	if p.unit == "" {
		return Sentence{{Text: shown}}
	}
	v, err := strconv.ParseFloat(shown, 64)
	if err != nil || math.IsInf(v, 0) || math.IsNaN(v) {
		return Sentence{{Text: shown + " " + p.unit}}
	}
	figs := decimals(strconv.FormatFloat(v, 'f', -1, 64))
	if strings.HasSuffix(p.verb, "f") {
		figs = decimals(shown)
	}
	return Sentence{{Value: &v, Unit: p.unit, Digits: &figs}}
}

// Quantity is v in a unit with three figures, as text has it between words.
func Quantity(v float64, unit string) Sentence { return Of("%v", rounded(v, unit)) }

func rounded(v float64, unit string) Span {
	v, _ = strconv.ParseFloat(strconv.FormatFloat(v, 'g', 6, 64), 64)
	figs := decimals(strconv.FormatFloat(v, 'f', -1, 64))
	return Span{Value: &v, Unit: unit, Digits: &figs}
}
