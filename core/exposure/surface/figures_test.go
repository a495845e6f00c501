package surface

import (
	"testing"

	"allcoats/core/base/figures"
	"allcoats/core/boat/survey"
	"allcoats/core/physics/psychrometrics"
)

func TestFigures(t *testing.T) {
	rows := figures.Rows{}
	for s, m := range materials {
		rows[string(s)] = []float64{m.density, m.heat, m.conducts}
	}
	figures.Check(t, "Substances", rows)
	figures.Check(t, "A surface", figures.Rows{
		"foam of a core conducts":         {cores[survey.FoamCore]},
		"balsa of a core":                 {cores[survey.BalsaCore]},
		"skin of a cored laminate":        {skinMM},
		"white takes up, of the sun":      {absorptance[survey.White]},
		"pale":                            {absorptance[survey.Pale]},
		"grey":                            {absorptance[survey.Grey]},
		"dark":                            {absorptance[survey.Dark]},
		"black":                           {absorptance[survey.Black]},
		"from the air inside to the skin": {insideFilm},
		"an upright face holds":           {uprightMM},
		"a level face":                    {levelMM},
		"too little to be wet":            {traceMM},
		"a hot day is over the usual of its month by": {hotterK},
		"and has wind of":                {stillDay},
		"wind where a record is silent":  {unknownWind},
		"cloud where a record is silent": {unknownCloud},
		"air under a roof":               {stillAir},
	})
	figures.Check(t, "Water on a surface", figures.Rows{
		"Stefan and Boltzmann":                    {stefan},
		"heat of air":                             {airHeat},
		"Lewis number to the power of two thirds": {lewis},
		"pressure":                                {pressurePa},
		"latent heat at 0 °C":                     {latentAt0},
		"less for every kelvin":                   {latentPerK},
		"Magnus, hPa":                             {psychrometrics.SaturationPressure(0)},
		"Magnus, over":                            {magnusSlope / magnusZero},
		"Magnus, under":                           {magnusZero},
	})
}
