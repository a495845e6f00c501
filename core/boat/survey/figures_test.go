package survey

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	access, thick, defects := figures.Rows{}, figures.Rows{}, figures.Rows{}
	for _, a := range Accesses {
		access[a.Name] = []float64{a.Factor}
	}
	for s, mm := range usualMM {
		thick[string(s)] = []float64{mm}
	}
	for _, d := range DefectKinds {
		defects[d.Name] = []float64{d.hours, d.perDM2, d.fill}
	}
	figures.Check(t, "Access", access)
	figures.Check(t, "Thickness of a substrate", thick)
	figures.Check(t, "Defects", defects)
	figures.Check(t, "Wood", figures.Rows{"too wet to be coated above": {WetWoodPct}})
}
