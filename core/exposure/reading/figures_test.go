package reading

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	figures.Check(t, "Readings that are doubted", figures.Rows{
		"stuck for":                    {stuckFor.Hours()},
		"while the reference moved by": {stuckWhileK},
		"saturated for":                {saturatedFor.Hours()},
		"at":                           {saturatedPct},
		"a lag is looked for up to":    {maxLag.Hours()},
		"told from":                    {leastLag.Minutes()},
		"over":                         {lagDays},
		"a departure is learned from":  {learnDays},
		"each hour drawn to nothing as by hours without one": {shrinkN},
		"what was last seen fades with":                      {fadeH},
	})
}
