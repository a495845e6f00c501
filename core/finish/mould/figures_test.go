package mould

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	figures.Check(t, "Moulded panels", figures.Rows{
		"resin to mat":            {resinMat},
		"resin to cloth":          {resinCloth},
		"for waste":               {wasteResin},
		"resin":                   {resinKgL},
		"filler":                  {fillerKgL},
		"PVA":                     {pvaLM2},
		"wax on a new mould":      {waxNew},
		"wax on a used one":       {waxUsed},
		"coats of PVA":            {pvaCoats},
		"wax hazes in":            {waxHazeH},
		"wax hardens in":          {waxHardH},
		"PVA dries in":            {pvaDryH},
		"laminated":               {laminateM2},
		"cools in":                {coolH},
		"bonding paste for waste": {bondWaste},
	})
}
