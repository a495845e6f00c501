package film

import (
	"testing"

	"allcoats/core/base/figures"
)

// What is taken for granted is what docs/figures.md tells.
func TestFigures(t *testing.T) {
	rows := figures.Rows{}
	for _, m := range Methods {
		rows[m.Name] = []float64{m.LossPct, m.LossMinPct, m.LossMaxPct, m.RateM2H}
	}
	figures.Check(t, "Ways of laying", rows)
}
