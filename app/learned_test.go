package app_test

import (
	"fmt"
	"math"
	"strings"
	"testing"
	"time"

	"allcoats/app"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// air is a record of hours from a day on, off by so many K, as a table.
func air(from time.Time, days int, off float64) string {
	var b strings.Builder
	b.WriteString("time,temp °C,rh %,rain mm\n")
	for h := range 24 * days {
		at := from.Add(time.Duration(h) * time.Hour)
		fmt.Fprintf(&b, "%s,%.1f,70,0\n", at.Format(time.RFC3339), 12+4*math.Cos(2*math.Pi*float64(at.Hour()-15)/24)+
			off)
	}
	return b.String()
}

// A place whose forecasts are 4 K off, cold and warm in turn, counts with it after a fortnight.
func TestAPlaceLearnsWhatItsForecastsAreOffBy(t *testing.T) {
	a := open(t, t.TempDir()+"/a.db")
	place := must(a.AddPlace(ctx, app.PlaceEdit{Name: "Quay", LatitudeDeg: 53, TimeZone: "UTC",
		WeatherSource: app.Imported}))
	first := time.Date(2026, 4, 1, 6, 0, 0, 0, time.UTC)
	for d := range 24 {
		now := first.AddDate(0, 0, d)
		require.NoError(t, a.SetClock(ctx, app.FixedClock, now))
		_, err := a.ImportWeather(ctx, place.ID, nil, []byte(air(now.AddDate(0, 0, -1), 1, 0)))
		require.NoError(t, err)
		_, err = a.ImportWeather(ctx, place.ID, nil, []byte(air(now.Add(time.Hour), 5, 4*float64(1-2*(d%2)))))
		require.NoError(t, err)
		if p := must(a.Place(ctx, place.ID)); d == 5 {
			assert.Less(t, p.Learned.Forecasts, p.EnoughForecasts)
		}
	}
	p := must(a.Place(ctx, place.ID))
	assert.GreaterOrEqual(t, p.Learned.Forecasts, p.EnoughForecasts)
	// Ten days count 1.1 K² … 2.6 K² as usual, 23 days 16 K²: √((10·1.7 + 23·16) / 33) at a day and a half.
	assert.InDelta(t, math.Sqrt((10*1.3*1.3+22*16)/32), p.Learned.Errors.TempK.At(1.5), 0.25)
	assert.True(t, p.Learned.Rain)
	assert.False(t, p.Learned.Cloud, "no forecast had any")
	require.NoError(t, a.SetClock(ctx, app.FixedClock, first.AddDate(0, 6, 0)))
	_, err := a.ImportWeather(ctx, place.ID, nil, []byte(air(first.AddDate(0, 6, 0).Add(time.Hour), 5, 0)))
	require.NoError(t, err)
	assert.Zero(t, must(a.Place(ctx, place.ID)).Learned.Forecasts, "of half a year ago nothing is kept")

	own := must(a.OwnMonths(ctx, place.ID))
	assert.Equal(t, 24, own.Days)
	assert.InDelta(t, 12, own.Normals[3].MeanC, 0.1, "April as measured")
	assert.InDelta(t, 8, own.Normals[3].SwingK, 0.1)
	assert.NotEqual(t, own.Normals[3].MeanC, own.Normals[4].MeanC, "May as it was")
}

func TestAClimateFileSetsTheMonths(t *testing.T) {
	a := open(t, t.TempDir()+"/a.db")
	place := must(a.AddPlace(ctx, app.PlaceEdit{Name: "Quay", LatitudeDeg: 53, TimeZone: "UTC",
		WeatherSource: app.Imported}))
	var b strings.Builder
	b.WriteString("LOCATION,Oyster Hill,-,X,made up,0,54,0,0,3\n" + strings.Repeat("-\n", 7))
	for at := time.Date(2001, 1, 1, 0, 0, 0, 0, time.UTC); at.Year() == 2001; at = at.Add(time.Hour) {
		fmt.Fprintf(&b, "2001,%d,%d,%d,0,?,%d,5,80,0,0,0,0,9999%s\n", at.Month(), at.Day(), at.Hour()+1,
			int(at.Month()), strings.Repeat(",0", 21))
	}
	in, err := a.ImportWeather(ctx, place.ID, nil, []byte(b.String()))
	require.NoError(t, err)
	assert.Equal(t, "Oyster Hill", in.Climate)
	assert.Equal(t, 111.0, in.KmOff, "a degree of latitude")
	assert.Contains(t, strings.Join(in.Doubts, "; "), "111 km from Quay")
	assert.Contains(t, strings.Join(in.Doubts, "; "), "no rain")
	p := must(a.Place(ctx, place.ID))
	require.NotNil(t, p.Normals)
	assert.Equal(t, []float64{1, 12}, []float64{p.Normals[0].MeanC, p.Normals[11].MeanC})
	assert.Equal(t, place.Version+1, p.Version)
}
