package upkeep

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	figures.Check(t, "How finishes last", figures.Rows{
		"varnish upright in the open at 50° N": {varnishYears},
		"of":                                   {usualUm},
		"at least":                             {leastVarnish},
		"at most":                              {mostVarnish},
		"oil":                                  {oilYears},
		"a hard matrix":                        {HardSeasons},
		"afloat in a year":                     {UsualMonths},
		"where water is fastest, faster by":    {WornFactor},
		"under cover, of the sun":              {coveredShare},
		"behind a cabin's windows":             {insideShare},
		"boats differ by, of the logarithm of a life": {boatSD},
		"surfaces of a boat":                          {surfaceSD},
		"grades of a film":                            {gradeSD},
		"wants doing from grade":                      {dueGrade},
		"worse than grade 0 beyond, of a life":        {spent[0]},
		"worse than grade 1":                          {spent[1]},
		"worse than grade 2":                          {spent[2]},
		"worse than grade 3":                          {spent[3]},
		"renewed over grit":                           {renewGrit},
		"which takes":                                 {renewUm},
		"by coats of varnish or antifouling":          {renewCoats},
	})
}
