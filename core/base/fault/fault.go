// Package fault carries input errors that belong to a field, so that a form,
// an import or a command line can show each one at its place.
package fault

import (
	"errors"
	"fmt"
	"math"
	"strings"
)

// Field is one bad input: Path names the field in the request as it was sent,
// with dots and indexes ("limits.rhMaxPct", "potLife[1].hours").
type Field struct {
	Path    string `json:"path"`
	Message string `json:"message"`
}

// Errors is a list of bad fields. Its zero value is ready to use.
type Errors []Field

func (e Errors) Error() string {
	parts := make([]string, len(e))
	for i, f := range e {
		parts[i] = f.Path + ": " + f.Message
	}
	return strings.Join(parts, "; ")
}

// Add records a bad field.
func (e *Errors) Add(path, format string, args ...any) {
	*e = append(*e, Field{path, fmt.Sprintf(format, args...)})
}

// Under records the fields of err below prefix; an error without fields is
// recorded at prefix itself, and nil adds nothing.
func (e *Errors) Under(prefix string, err error) {
	var inner Errors
	switch {
	case err == nil:
	case errors.As(err, &inner):
		for _, f := range inner {
			*e = append(*e, Field{join(prefix, f.Path), f.Message})
		}
	default:
		*e = append(*e, Field{prefix, err.Error()})
	}
}

// Range records v unless it is a finite number in [lo, hi]. The message names
// the bounds with unit.
func (e *Errors) Range(path string, v, lo, hi float64, unit string) {
	if !(v >= lo && v <= hi) {
		e.Add(path, "must be between %s and %s, not %s", amount(lo, unit), amount(hi, unit), amount(v, unit))
	}
}

// Above records v unless it is a finite number greater than lo and at most hi.
func (e *Errors) Above(path string, v, lo, hi float64, unit string) {
	if !(v > lo && v <= hi) {
		e.Add(path, "must be more than %s and at most %s, not %s", amount(lo, unit), amount(hi, unit), amount(v, unit))
	}
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

func amount(v float64, unit string) string {
	if math.IsNaN(v) {
		return "no number"
	}
	return strings.TrimSpace(fmt.Sprintf("%.6g %s", v, unit))
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
