package practice

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	rows := figures.Rows{
		"the dent, mm":                   {dentMM},
		"the paint, µm":                  {paintUm},
		"a stroke, mm for a µm of grain": {stroke},
		"a scratch shows from, µm":       {telegraphs},
		"the side, m":                    {sideM},
		"its gap, mm":                    {sideGap},
		"a wedge is good to, mm":         {wedgeMM},
	}
	for _, f := range Fillers {
		rows[f.Name] = []float64{f.Shrink, f.SandableH, f.MaxMM, f.Hard}
	}
	figures.Check(t, "The practice bench", rows)
}
