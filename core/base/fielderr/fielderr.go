// Package fielderr carries input errors that belong to a field, so that a form,
// an import or a command line can show each one at its place.
package fielderr

import (
	"errors"
	"fmt"
	"math"
	"strings"

	"allcoats/core/base/message"
)

// Field is one bad input: Path names the field in the request as it was sent,
// with dots and indexes ("limits.rhMaxPct", "potLife[1].hours").
type Field struct {
	Path string `json:"path"`
	// Message is what is wrong in metric units, Says the same with its quantities.
	Message string           `json:"message"`
	Says    message.Sentence `json:"says"`
}

func field(path string, says message.Sentence) Field { return Field{path, says.String(), says} }

// Errors is a list of bad fields. Its zero value is ready to use.
type Errors []Field

func (e Errors) Error() string { return e.Say().String() }

// Say is what Error says, its quantities kept.
func (e Errors) Say() message.Sentence {
	parts := make([]message.Sentence, len(e))
	for i, f := range e {
		parts[i] = message.Of("%s: %v", f.Path, f.Says)
	}
	return message.Join(parts, "; ")
}

// At is one bad field, with a message as message.Of makes it.
func At(path, template string, args ...any) Errors {
	return Errors{field(path, message.Of(template, args...))}
}

// Add records a bad field, with a message as message.Of makes it.
func (e *Errors) Add(path, template string, args ...any) {
	*e = append(*e, field(path, message.Of(template, args...)))
}

// Under records the fields of err below prefix; an error without fields is
// recorded at prefix itself, and nil adds nothing.
func (e *Errors) Under(prefix string, err error) {
	var inner Errors
	switch {
	case err == nil:
	case errors.As(err, &inner):
		for _, f := range inner {
			*e = append(*e, Field{join(prefix, f.Path), f.Message, f.Says})
		}
	default:
		e.Add(prefix, "%v", err)
	}
}

// Range records v unless it is a finite number in [lo, hi]. The message names
// the bounds with unit.
func (e *Errors) Range(path string, v, lo, hi float64, unit string) {
	if !(v >= lo && v <= hi) {
		e.Add(path, "must be between %v and %v, not %v", amount(lo, unit), amount(hi, unit), amount(v, unit))
	}
}

// Above records v unless it is a finite number greater than lo and at most hi.
func (e *Errors) Above(path string, v, lo, hi float64, unit string) {
	if !(v > lo && v <= hi) {
		e.Add(path, "must be more than %v and at most %v, not %v", amount(lo, unit), amount(hi, unit), amount(v, unit))
	}
}

// Pct records v unless it is a percentage, more than 0 and at most 100; one of 1 and less is taken
// for a share, where that little makes no sense.
func (e *Errors) Pct(path string, v float64) {
	if v > 0 && v <= 1 {
		e.Add(path, "is %g a share? In per cent that is %g", v, 100*v)
		return
	}
	e.Above(path, v, 0, 100, "%")
}

// OneOf records v unless it is one of allowed.
func OneOf[T ~string](e *Errors, path string, v T, allowed []T) {
	names := make([]string, len(allowed))
	for i, a := range allowed {
		if v == a {
			return
		}
		names[i] = string(a)
	}
	e.Add(path, "must be one of %s", strings.Join(names, ", "))
}

// Err returns e as an error, nil if nothing was recorded.
func (e Errors) Err() error {
	if len(e) == 0 {
		return nil
	}
	return e
}

func amount(v float64, unit string) message.Sentence {
	switch {
	case math.IsNaN(v):
		return message.Of("no number")
	case unit == "" || math.IsInf(v, 0):
		return message.Of("%s", strings.TrimSpace(fmt.Sprintf("%.6g %s", v, unit)))
	}
	return message.Quantity(v, unit)
}

func join(prefix, path string) string {
	switch {
	case prefix == "":
		return path
	case path == "":
		return prefix
	case strings.HasPrefix(path, "["):
		return prefix + path
	}
	return prefix + "." + path
}
