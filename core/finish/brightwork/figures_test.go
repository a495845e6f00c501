package brightwork

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	figures.Check(t, "Brightwork", figures.Rows{
		"tape":                         {maskMH},
		"cleaned":                      {cleanM2H},
		"a bung":                       {bungH},
		"stained":                      {stainM2H},
		"stain":                        {stainLM2},
		"a scuff takes":                {sandUm},
		"by machine takes":             {machineUm},
		"scuffed with":                 {keyGrit},
		"the first coat is thinned by": {firstThinnedPct},
		"the second":                   {secondThinnedPct},
	})
	rows := figures.Rows{}
	for _, s := range Strips {
		rows[s.Name] = []float64{float64(s.Passes), s.Minutes, s.WaitMin}
	}
	figures.Check(t, "Ways of stripping varnish", rows)
}
