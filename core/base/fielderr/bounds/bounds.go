// Package bounds tries, for the tests of whoever checks a request, what each of its figures may be.
package bounds

import (
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"allcoats/core/base/fielderr"
)

// Bound is the least and the most that a figure may be; with Open it must be more than the least.
type Bound struct {
	Least, Most float64
	Open        bool
}

// From is a bound with both ends, Above one without the lower.
func From(least, most float64) Bound { return Bound{least, most, false} }

// Above is a bound of what must be more than least.
func Above(least, most float64) Bound { return Bound{least, most, true} }

// Try puts each figure of good, by its path in JSON, on its bounds, where nothing may be said against
// it, and just past them, where check must name it. Good itself must pass.
func Try[T any](t testing.TB, good T, check func(T) error, all map[string]Bound) {
	t.Helper()
	if err := check(good); err != nil {
		t.Fatalf("what is good is refused: %v", err)
	}
	for _, path := range slices.Sorted(maps.Keys(all)) {
		b := all[path]
		open := 0.0
		if b.Open {
			open = 1
		}
		for _, try := range []struct {
			v, whole float64 // as a figure, and where only whole ones go
			allowed  bool
		}{
			{b.Least + open*past(b.Least), b.Least + open, true},
			{b.Most, b.Most, true},
			{b.Least - (1-open)*past(b.Least), b.Least - (1 - open), false},
			{b.Most + past(b.Most), b.Most + 1, false},
		} {
			v := try.v
			r, err := with(good, path, v)
			if err != nil {
				v = try.whole
				r, err = with(good, path, v)
			}
			if err != nil {
				t.Errorf("%s: %v", path, err)
				continue
			}
			if refused := names(check(r), path); refused == try.allowed {
				t.Errorf("%s of %v: refused is %v", path, v, refused)
			}
		}
	}
}

// past is a little past a bound.
func past(bound float64) float64 { return max(1e-4, math.Abs(bound)*1e-4) }

func names(err error, path string) bool {
	var bad fielderr.Errors
	return errors.As(err, &bad) && slices.ContainsFunc(bad, func(f fielderr.Field) bool { return f.Path == path })
}

var step = regexp.MustCompile(`[^.\[\]]+`)

// with is a copy of r with a figure at a path; an error says that none goes there.
func with[T any](r T, path string, v float64) (out T, err error) {
	raw, err := json.Marshal(r)
	if err != nil {
		return out, err
	}
	var tree any
	if err := json.Unmarshal(raw, &tree); err != nil {
		return out, err
	}
	if tree, err = put(tree, step.FindAllString(path, -1), v); err != nil {
		return out, err
	}
	if raw, err = json.Marshal(tree); err != nil {
		return out, err
	}
	d := json.NewDecoder(strings.NewReader(string(raw)))
	d.DisallowUnknownFields()
	return out, d.Decode(&out)
}

func put(tree any, steps []string, v float64) (any, error) {
	if len(steps) == 0 {
		return v, nil
	}
	switch at := tree.(type) {
	case map[string]any:
		inner, err := put(at[steps[0]], steps[1:], v)
		at[steps[0]] = inner
		return at, err
	case []any:
		i, err := strconv.Atoi(steps[0])
		if err != nil || i >= len(at) {
			return nil, fmt.Errorf("no %s in a list of %d", steps[0], len(at))
		}
		at[i], err = put(at[i], steps[1:], v)
		return at, err
	}
	return nil, fmt.Errorf("nothing is there to hold %s", steps[0])
}
