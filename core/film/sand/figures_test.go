package sand

import (
	"fmt"
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	rows := figures.Rows{}
	for _, g := range grades {
		rows[fmt.Sprintf("P%g", g.p)] = []float64{g.um}
	}
	figures.Check(t, "Papers", rows)
	figures.Check(t, "Sanding", figures.Rows{
		"filler is green at this part of its time to sandable": {GreenPart},
		"the next grit is finer by at most":                    {MostStep},
		"a grit takes this part of the grain before it":        {scratchPart},
		"edges lose as much":                                   {edgeFactor},
		"corners":                                              {cornerFact},
		"a disc does":                                          {discM2},
		"wet takes":                                            {wetSlower},
		"wet paper lasts":                                      {wetLasts},
		"a bucket does":                                        {bucketM2},
		"a long board does":                                    {Tools[1].Rate},
		"by hand":                                              {Tools[2].Rate},
	})
}
