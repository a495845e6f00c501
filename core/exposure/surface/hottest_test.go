package surface

import (
	"testing"

	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/assert"
)

// On a hot, still day at 50° a dark deck comes to some 70 °C and a white one to some 35; a side
// that faces the sun is as hot whether the other one is asked for with it or not; a roof keeps
// the sun off.
func TestHottest(t *testing.T) {
	of := func(tone survey.Tone, p area.Part, side area.Side, shelter survey.Shelter) float64 {
		d := survey.Description{Substrate: survey.Carbon, Tone: tone, ThicknessMM: 5, Shelter: shelter}
		return Hottest(50, 0, weather.UsualNormals(50), Of(d, p, side, 0))
	}
	assert.InDelta(t, 70, of(survey.Dark, area.CabinTop, area.Both, survey.Open), 6)
	assert.InDelta(t, 36, of(survey.White, area.CabinTop, area.Both, survey.Open), 5)
	assert.InDelta(t, max(of(survey.Dark, area.Topsides, area.Port, survey.Open),
		of(survey.Dark, area.Topsides, area.Starboard, survey.Open)), of(survey.Dark, area.Topsides, area.Both,
		survey.Open), 1e-9)
	assert.InDelta(t, 28, of(survey.Dark, area.CabinTop, area.Both, survey.Shed), 3, "the air alone")
	assert.InDelta(t, of(survey.Dark, area.CabinTop, area.Both, survey.Open),
		Hottest(-50, 90, weather.UsualNormals(-50),
			Of(survey.Description{Substrate: survey.Carbon, Tone: survey.Dark, ThicknessMM: 5, Shelter: survey.Open},
				area.CabinTop, area.Both, 0)), 3, "in the south it is January")
}
