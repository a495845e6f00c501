package task

import (
	"testing"

	"allcoats/core/base/figures"
	"allcoats/core/film/step"
)

func TestFigures(t *testing.T) {
	figures.Check(t, "How long a face may stand", figures.Rows{
		"bare metal":              {bareMetalH},
		"bare laminate":           {bareLaminateH},
		"bare wood":               {bareWoodH},
		"open filler":             {openFillerH},
		"sanded":                  {sandedH},
		"washed":                  {washedH},
		"metal made bright again": {brightM2H},
		"keyed again":             {keyM2H},
		"washed again":            {washM2H},
		"set up for either":       {mendSetH},
		"tape in the open":        {step.UsualTapeH},
	})
	figures.Check(t, "Hours that differ", figures.Rows{
		"the spread of the logarithm of a task's hours": {UsualSD}, "that of all work of a yard together": {SharedSD},
	})
}
