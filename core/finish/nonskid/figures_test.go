package nonskid

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	rows := figures.Rows{
		"hardly worth its tape, m²":            {smallM2},
		"too narrow to be laid, m":             {narrowM},
		"traced and surveyed may differ by, %": {traceOffPct},
		"tape may stay, h":                     {tapeH},
		"tape bought over the edges":           {spare},
		"panels may differ by, %":              {evenPct},
	}
	for _, g := range Grades {
		rows[g.Name] = []float64{g.LitreM2, g.KgM2}
	}
	for _, f := range FittingKinds {
		rows[f.Name] = []float64{f.MarginM, f.LengthM, f.WidthM}
	}
	figures.Check(t, "Non-skid", rows)
}
