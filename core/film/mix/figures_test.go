package mix

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	figures.Check(t, "Pots", figures.Rows{
		"the part of the pot life that is laid in":      {usablePart},
		"the mass that a sheet's pot life is for":       {usualMassKg},
		"how the pot life falls with mass, an exponent": {massExponent},
		"the most masses it is carried on over":         {hotMasses},
		"left in the pot":                               {UsualResidue},
		"thick mixes do not stir below":                 {coldMixC},
		"solids from which a mix keeps its heat":        {solventFreePct},
		"what a kitchen scale weighs well, from":        {weighableG},
		"a drop of peroxide":                            {dropG},
		"peroxide where a sheet is silent":              {usualPct},
		"peroxide, least":                               {leastPct},
		"peroxide, most":                                {mostPct},
		"density of peroxide":                           {usualCatalystKgL},
		"density of thinner":                            {usualThinnerKgL},
		"the slope that a soft mix runs off":            {upright},
		"hardener may be off by":                        {Tolerance},
	})
	rows := figures.Rows{}
	for _, f := range Fillers {
		rows[f.Name] = []float64{f.BulkKgL, f.TrueKgL, f.Parts[Syrup], f.Parts[Mayonnaise], f.Parts[PeanutButter],
			f.Parts[Putty]}
	}
	figures.Check(t, "Fillers in resin", rows)
}
