package weather

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	of := func(g Growth) []float64 { return []float64{g.AtOnce, g.PerDay, g.Most} }
	e := UsualErrors
	figures.Check(t, "Errors of a forecast", figures.Rows{"temperature, K": of(e.TempK), "dew point, K": of(e.DewPointK),
		"wind, logarithm": of(e.WindLog), "cloud, %": of(e.CloudPct), "showers are early or late, h": of(e.ShiftH),
		"showers that fail, %": of(e.FailPct)})
	figures.Check(t, "What errors remember", figures.Rows{
		"temperature":        {tempMemoryH},
		"dew point":          {dewMemoryH},
		"wind":               {windMemoryH},
		"cloud":              {cloudMemoryH},
		"showers":            {shiftMemoryH},
		"days off the usual": {seasonMemoryH},
		"the end of a forecast becomes the usual in": {settleH},
	})
	figures.Check(t, "Showers", figures.Rows{
		"length differs by, logarithm":                            {lengthLog},
		"amount differs by, logarithm":                            {amountLog},
		"unannounced ones last":                                   {unannouncedH},
		"come for each per cent that fails, of the hours of rain": {unannouncedPart},
		"under cloud as likely, at most":                          {mostUnderCloud},
		"what was measured tells more for":                        {seenH},
		"rain where nothing says how much":                        {wetAmount},
		"humidity in rain, at least":                              {wetFloorRH},
		"cloud in rain":                                           {wetCloud},
		"humidity in rain, on the mean":                           {wetRH},
		"cloud in rain, on the mean":                              {wetCloudMean},
		"cloud gone where it fails":                               {brokenPct},
		"fail at most, a share":                                   {mostFail},
		"too little for rain":                                     {traceMM},
	})
	figures.Check(t, "Usual days", figures.Rows{
		"a full cover of cloud damps the swing by":         {cloudK},
		"humidity lies about its mean by":                  {usualSpreadPct},
		"the vapour that air holds grows with a kelvin by": {vapourPerK},
		"warmest at": {warmest},
		"a wet day has rain in, where nobody says":      {usualWetHoursPct},
		"days lie about the mean by, where nobody says": {usualSpreadK},
		"a wet day from":                  {wetDayMM},
		"a month is known from":           {leastDays},
		"errors are learned for leads of": {leadDays},
		"the usual errors count for":      {priorDays},
	})
	words := figures.Rows{}
	for _, said := range []map[string]float64{skies, winds} {
		for w, v := range said {
			words[w] = []float64{v}
		}
	}
	for w, v := range airs {
		words["air: "+w] = []float64{v}
	}
	figures.Check(t, "Days in words", words)
}
