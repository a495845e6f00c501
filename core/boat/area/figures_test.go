package area

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	hulls, usual, tilts := figures.Rows{}, figures.Rows{}, figures.Rows{}
	for _, f := range forms {
		hulls[f.Name] = []float64{float64(f.Hulls), f.k, f.kBody, f.pct, f.pctBody, f.body, f.whole, f.cb, f.cm, f.cwp}
		usual[f.Name] = []float64{f.usual.lwl, f.usual.draught, f.usual.freeboard, f.usual.houses}
	}
	for _, p := range Parts {
		tilts[p.Name] = []float64{p.TiltDeg}
	}
	figures.Check(t, "Hull forms", hulls)
	figures.Check(t, "What is left out of her dimensions", usual)
	figures.Check(t, "How parts lie", tilts)
	figures.Check(t, "Half ranges of areas", figures.Rows{
		"a guessed waterline":                         {guessed[0].pct},
		"a guessed draught":                           {guessed[1].pct},
		"a guessed freeboard":                         {guessed[2].pct},
		"guessed houses":                              {guessed[3].pct},
		"the trade's three rules":                     {PrincipalPct},
		"shapes":                                      {shapesPct},
		"what four girths usually come to":            {tapedToPct},
		"a traced outline, of its area":               {tracePct},
		"a traced outline, of its edge":               {traceM},
		"models":                                      {meshPct},
		"lofted offsets":                              {loftPct},
		"litres read off a tin":                       {litresPct},
		"girths: the tape":                            {tapedPct},
		"girths: the middle of the girth":             {middlePct},
		"girths: no path":                             {noPathPct},
		"girths: the path that was reckoned, a share": {pathShare},
		"girths: what the curve holds more, a share":  {bulgeShare},
		"girths: few of them":                         {fewPct},
		"girths: a keel's end, a share":               {jumpShare},
		"the middle of a girth moves sideways for a metre of change": {reach},
		"a tape may be out along the hull":                           {slack},
		"girth near a rounded end":                                   {nearTip},
		"sea water":                                                  {seaWater},
	})
}
