package step

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	rows := figures.Rows{}
	for _, k := range Kinds {
		rows[k.Name] = []float64{k.SetupH, k.RateM2H, float64(k.Usual.Grit + k.Usual.Coats), k.Usual.RemovedUm}
	}
	figures.Check(t, "Kinds of work", rows)
}
