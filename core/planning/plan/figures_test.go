package plan

import (
	"testing"

	"allcoats/core/base/figures"
	"github.com/stretchr/testify/assert"
)

func TestFigures(t *testing.T) {
	figures.Check(t, "Waits of a plan", figures.Rows{
		"a scuffed and washed face waits for its coat": {keyedH},
		"a tie coat waits for its coat":                {tiedH},
		"a coat is put off to do without a tie coat":   {tiePatienceH},
		"a mend holds": {mendedH},
		"a coat is rather later than on metal made bright again, by": {patienceH["bare metal"]},
		"than over tape put on anew, by":                             {patienceH["tape"]},
		"than over tape left on, by":                                 {patienceH["tape left on"]},
		"two people strike a tent and pitch it again in":             {pitchH},
		"a part of a long task":                                      {aboutPart},
		"the shortest part":                                          {leastPart},
		"work is done in pieces of a day under a limit of":           {sameDayH},
		"a wash dries, where work is cut into days":                  {washDriesH},
		"a coat takes dust where its sheet is silent":                {usualDryH},
		"one gun or delivery in so many is late, a share":            {lateShare},
		"late by, on the mean":                                       {lateDays},
		"the spread of the logarithm of a coat's clock":              {clockLog},
		"coats laid again, a share":                                  {reworkShare},
		"somebody is away, a share of days":                          {awayADay},
		"away for, on the mean":                                      {awayDays},
		"away for, at most":                                          {longestAway},
		"a person without hours of their own begins at":              {usualWeek[0].FromH},
		"and ends at": {usualWeek[6].ToH},
	})
	for _, d := range usualWeek {
		assert.Equal(t, usualWeek[0], d)
	}
}
