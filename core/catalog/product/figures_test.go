package product

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	rows := figures.Rows{}
	for _, k := range Kinds {
		rows[k.Name] = []float64{float64(k.FromGrit), float64(k.ToGrit), k.Years}
	}
	figures.Check(t, "Kinds of products", rows)
	figures.Check(t, "What a sheet must keep to", figures.Rows{
		"the coarsest grit between coats that show every scratch": {betweenGloss},
		"the pores of open filler, a share":                       {openPores},
		"a ratio by weight may be off that by volume by, a share": {ratioOff},
		"the lightest that stays":                                 {lightestKg},
		"the heaviest":                                            {heaviestKg},
		"what evaporates weighs about":                            {solventKgL},
	})
}
