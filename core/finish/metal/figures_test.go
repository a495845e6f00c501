package metal

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	rows := figures.Rows{
		"eaten fast from":               {farApart},
		"water goes from a slope of":    {leastSlope},
		"feathered over, mm for 100 µm": {bandPer100Um},
		"a pit, of its box":             {pitShape},
		"a pit's width to its depth":    {pitWidth},
	}
	for _, p := range Profiles {
		rows[p.Name] = []float64{p.CorrectionUm}
	}
	for _, m := range Noble {
		rows[m.Name] = []float64{m.Volts}
	}
	figures.Check(t, "Metal", rows)
}
