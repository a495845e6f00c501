package cure

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	figures.Check(t, "Clocks", figures.Rows{
		"energy of a table of one row":               {GuessedEnergy},
		"gas constant":                               {gasConstant},
		"damp air slows waterborne paint by at most": {waterMost},
		"dry air hastens it to":                      {waterLeast},
		"dry air slows a moisture cure by at most":   {moistureMost},
		"damp air hastens it to":                     {moistureLeast},
		"a gap in a record is bridged up to":         {UsualGap.Hours()},
	})
}
