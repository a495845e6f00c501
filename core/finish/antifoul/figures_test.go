package antifoul

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	figures.Check(t, "Antifouling", figures.Rows{"zones may be off the bottom by": {zonesOffPct}})
}
