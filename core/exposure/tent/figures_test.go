package tent

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	figures.Check(t, "Tents", figures.Rows{
		"one layer of film lets through":             {filmSingle},
		"two layers":                                 {filmDouble},
		"light through one":                          {lightSingle},
		"light through two":                          {lightDouble},
		"of it warms the air":                        {sunKept},
		"from the air to a surface":                  {skinInside},
		"heat of the air":                            {airHeat},
		"film to the air outside":                    {filmToAir},
		"film to the sky":                            {filmToSky},
		"still air brings water at":                  {stillSpeed},
		"bare ground is as damp as":                  {groundDamp},
		"water takes":                                {latentKWh},
		"a dehumidifier draws":                       {dryPower},
		"film costs, a layer":                        {filmM2Cents},
		"frame costs":                                {frameMCents},
		"a hoop every":                               {hoopM},
		"wind through a door, of its area and speed": {doorFlow},
		"air changes, at most":                       {mostChanges},
		"ends are opened above, at the lowest":       {leastOpenC},
		"open ends add":                              {openChanges},
		"people open them at":                        {usualOpenC},
		"a booth changes its air":                    {boothChanges},
		"its filter lets through":                    {faceMS},
	})
	rows := figures.Rows{}
	for _, h := range HeatKinds {
		rows[h.Name] = []float64{h.MJKg, h.WaterKg}
	}
	figures.Check(t, "Heaters", rows)
}
