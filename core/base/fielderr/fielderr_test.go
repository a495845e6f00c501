package fielderr

import (
	"errors"
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestUnderJoinsPaths(t *testing.T) {
	var inner, outer Errors
	inner.Add("hours", "is wrong")
	inner.Add("[2].tempC", "too")
	inner.Add("", "as a whole")
	outer.Under("potLife", fmt.Errorf("wrapped: %w", inner))
	outer.Under("file", errors.New("cannot be read"))
	outer.Under("fine", nil)
	paths := []string{}
	for _, f := range outer {
		paths = append(paths, f.Path)
	}
	assert.Equal(t, []string{"potLife.hours", "potLife[2].tempC", "potLife", "file"}, paths)
	assert.Contains(t, outer.Error(), "file: cannot be read")
	assert.NoError(t, Errors(nil).Err())
}

func TestRangeAndAbove(t *testing.T) {
	for _, c := range []struct {
		v             float64
		range_, above bool
	}{{0, true, false}, {5, true, true}, {10, true, true}, {10.1, false, false}, {-1, false, false},
		{math.NaN(), false, false}, {math.Inf(1), false, false}} {
		var r, a Errors
		r.Range("x", c.v, 0, 10, "m")
		a.Above("x", c.v, 0, 10, "m")
		assert.Equal(t, c.range_, r == nil, "%v in range", c.v)
		assert.Equal(t, c.above, a == nil, "%v above", c.v)
	}
	var e Errors
	e.Range("x", 12, 0, 10, "m")
	assert.Equal(t, "must be between 0 m and 10 m, not 12 m", e[0].Message)
	OneOf(&e, "kind", "c", []string{"a", "b"})
	assert.Equal(t, "must be one of a, b", e[1].Message)
}

func TestPercent(t *testing.T) {
	for v, says := range map[float64]string{0: "more than", 0.01: "a share?", 0.5: "per cent that is 50", 1: "a share?", 1.01: "", 100: "", 100.1: "at most"} {
		var bad Errors
		bad.Pct("x", v)
		if says == "" {
			assert.NoError(t, bad.Err(), v)
		} else {
			assert.ErrorContains(t, bad.Err(), says, v)
		}
	}
	err := At("list[1]", "must be %d", 3)
	var bad Errors
	assert.ErrorAs(t, err, &bad)
	assert.Equal(t, "list[1]", bad[0].Path)
}
