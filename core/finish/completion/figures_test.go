package completion

import (
	"slices"
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	rows := figures.Rows{}
	for _, c := range Compounds {
		for _, p := range append(slices.Clone(c.snug), c.load...) {
			rows[c.Name] = append(rows[c.Name], p.Hours)
		}
	}
	figures.Check(t, "Bedding", rows)
	rows = figures.Rows{
		"drilled, filled, drilled again": {drillH},
		"bedded":                         {bedH},
		"tightened":                      {tightenH},
		"the fill of a hole sets in":     {fillSetH},
		"settled for good after":         {thirdH},
	}
	for _, tape := range Tapes {
		rows[tape.Name] = []float64{tape.StayH}
	}
	figures.Check(t, "Fittings and tapes", rows)
}
