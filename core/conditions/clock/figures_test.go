package clock

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	figures.Check(t, "Edges, tape and blush", figures.Rows{
		"a surface blushes within": {dampK}, "a wet edge is kept for, of touch-dry": {WetEdgePart},
		"tape lifts clean until, of touch-dry": {tapePart},
	})
}
