package app_test

import (
	"context"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/boat/area"
	"allcoats/core/film/step"
	"allcoats/core/job/enquiry"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A question by length and beam reckons with the area of a boat made from the same; her first coats have what
// must come before them, her weather is what was told.
func TestQuestionThenBoat(t *testing.T) {
	a, _ := launch(t)
	ctx := context.Background()
	products, err := a.Products(ctx)
	require.NoError(t, err)
	var soft string
	for _, p := range products {
		if p.Sheet.Name == "Antifouling, soft, wearing away" {
			soft = p.ID
		}
	}
	got, err := a.Answer(ctx, app.Question{Asks: enquiry.HowMuch, ProductID: soft, LOAM: 9.5, BeamM: 3.1,
		Part: area.Bottom, HullForm: area.FinKeel, Coats: 2})
	require.NoError(t, err)
	// 0.5 · (0.87 · 9.5 = 8.27) · (3.1 + 0.18 · 9.5 = 1.71) = 19.9 m²; ± √(22² + 6² + (0.3 · 1.71 / 4.81 = 10.7)²) =
	// 25 %.
	assert.Contains(t, got.Says.String(), "2 coats of 60 µm on 19.9 m²")
	assert.Contains(t, got.Detail.String(), "±25 % from length and beam")

	const words = "8 to 16, sunny, dry; tomorrow 6 to 12, overcast, rain from 14"
	boat, err := a.AddBoat(ctx, app.NewBoat{
		BoatEdit: app.BoatEdit{Name: "Tern", HeadingDeg: 180, NewPlace: &app.PlaceEdit{Name: "Home", LatitudeDeg: 52.9,
			LongitudeDeg: 0.8, TimeZone: "Europe/London", WeatherSource: app.Imported},
			Dimensions: area.Dimensions{HullForm: area.FinKeel, LOAM: 9.5, BeamM: 3.1}},
		Template: app.UsualTemplate, Substrate: "gelcoat", Weather: words, First: &app.FirstCoat{ProductID: soft,
			Part: area.Bottom, Coats: 2},
	})
	require.NoError(t, err)
	assert.Equal(t, "sailing yacht, fin keel", boat.Type)
	assert.ElementsMatch(t, []string{"lwlM", "draughtM", "freeboardM"}, boat.Dimensions.Guessed)
	place, err := a.Place(ctx, boat.PlaceID)
	require.NoError(t, err)
	assert.Equal(t, app.Told, place.WeatherSource)
	survey, err := a.Survey(ctx, boat.ID)
	require.NoError(t, err)
	for _, f := range survey.Surfaces {
		if f.Part != area.Bottom {
			continue
		}
		assert.InDelta(t, 19.9, f.Area.AreaM2, 0.05)
		assert.InDelta(t, 25, f.Area.UncertaintyPct, 0.5)
		b, err := a.BuildUp(ctx, f.ID)
		require.NoError(t, err)
		require.NotEmpty(t, b.Steps)
		assert.Equal(t, step.Degrease, b.Steps[0].Work, "what must come before is planned before")
		for _, found := range b.Findings {
			assert.Nil(t, found.Mended, "nothing that can be mended is left: %v", found.Text)
		}
	}

	for path, q := range map[string]app.Question{
		"productId":   {Asks: enquiry.HowMuch, AreaM2: 3},
		"weather":     {Asks: enquiry.CoatToday, ProductID: soft},
		"latitudeDeg": {Asks: enquiry.CoatToday, ProductID: soft, Weather: words, LatitudeDeg: func() *float64 { v := 95.0; return &v }()},
		"timeZone":    {Asks: enquiry.CoatToday, ProductID: soft, Weather: words, TimeZone: "Local"},
		"beamM":       {Asks: enquiry.HowMuch, ProductID: soft, LOAM: 3, BeamM: 9, Part: area.Bottom},
	} {
		_, err := a.Answer(ctx, q)
		assert.ErrorContains(t, err, path)
	}
	today, err := a.Answer(ctx, app.Question{Asks: enquiry.CoatToday, ProductID: soft, Weather: words,
		TimeZone: "Europe/London"})
	require.NoError(t, err)
	assert.Contains(t, today.Supposed[0].String(), "You did not say where you are")
	assert.Equal(t, "Sat 9 May: 8 °C to 16 °C, sunny, dry, light wind, usual air", today.Days[0].In(time.UTC))
}
