package gelcoat

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	figures.Check(t, "Gelcoat", figures.Rows{
		"filled proud by":              {proud},
		"a layer at most":              {layerMM},
		"wax in the last coat":         {waxPct},
		"PVA":                          {pvaLM2},
		"the largest pot":              {potL},
		"a roller leaves at most":      {rollUm},
		"a wet pass of the gun":        {sprayUm},
		"compound and polish":          {polishH},
		"a seal dries in":              {sealDryH},
		"a rolled face is uneven by":   {orangeUm},
		"a repair begins with":         {repairH},
		"a patch is left for at least": {minPatchH},
	})
}
