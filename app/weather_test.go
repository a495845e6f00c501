package app_test

import (
	"context"
	"fmt"
	"math"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/base/fielderr"
	"allcoats/core/boat/survey"
	"allcoats/core/exposure/reading"
	"allcoats/core/exposure/tent"
	"allcoats/core/physics/weather"
	"allcoats/demo"
	"allcoats/formats"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// launch is the demo's first boat with an app round her.
func launch(t *testing.T) (*app.App, app.Survey) {
	a := withDemo(t)
	boats, err := a.Boats(ctx)
	require.NoError(t, err)
	s, err := a.Survey(ctx, boats[0].ID)
	require.NoError(t, err)
	return a, s
}

func surface(s app.Survey, name string) app.Surface {
	for _, f := range s.Surfaces {
		if f.Name == name {
			return f
		}
	}
	return app.Surface{}
}

func TestInstrumentsAreChecked(t *testing.T) {
	a, s := launch(t)
	for _, c := range []struct {
		edit  app.InstrumentEdit
		field string
	}{
		{app.InstrumentEdit{Kind: reading.InOpen, Feed: app.ByFile}, "name"},
		{app.InstrumentEdit{Name: "x", Kind: "nose", Feed: app.ByFile}, "kind"},
		{app.InstrumentEdit{Name: "x", Kind: reading.OnSurface, Feed: app.ByFile}, "surfaceId"},
		{app.InstrumentEdit{Name: "x", Kind: reading.InTent, Feed: app.ByFile}, "boatId"},
		{app.InstrumentEdit{Name: "x", Kind: reading.InOpen, Feed: "post"}, "feed"},
	} {
		_, err := a.AddInstrument(ctx, s.Place.ID, c.edit)
		assert.ErrorContains(t, err, c.field)
	}
	other, err := a.AddPlace(ctx, app.PlaceEdit{Name: "Elsewhere", TimeZone: "UTC", WeatherSource: app.Imported})
	require.NoError(t, err)
	_, err = a.AddInstrument(ctx, other.ID, app.InstrumentEdit{Name: "x", Kind: reading.InTent, BoatID: s.Boat.ID,
		Feed: app.ByFile})
	assert.ErrorContains(t, err, "boatId")
	_, err = a.AddInstrument(ctx, "nowhere", app.InstrumentEdit{Name: "x", Kind: reading.InOpen, Feed: app.ByFile})
	assert.ErrorIs(t, err, app.ErrNotFound)
}

func TestAFileOfReadingsIsRememberedAndReplaces(t *testing.T) {
	a, s := launch(t)
	i, err := a.AddInstrument(ctx, s.Place.ID, app.InstrumentEdit{Name: "Shed wall", Kind: reading.InOpen,
		Feed: app.ByFile})
	require.NoError(t, err)
	assert.Zero(t, i.Count)
	file := []byte("when;t;h\n07.05.2026 22:00;8,5;80\n07.05.2026 23:30;7,9;83\n08.05.2026 00:30;7,1;86\n")
	seen, err := a.PreviewReadings(ctx, i.ID, file)
	require.NoError(t, err)
	m := seen.Mapping
	m.RH = 2
	m.Order = "dmy"
	in, err := a.ImportReadings(ctx, i.ID, m, file)
	require.NoError(t, err)
	assert.Equal(t, 3, in.Rows)
	assert.Equal(t, time.Date(2026, 5, 7, 21, 0, 0, 0, time.UTC), in.From, "22:00 summer time")
	seen, err = a.PreviewReadings(ctx, i.ID, file)
	require.NoError(t, err)
	assert.Equal(t, m, seen.Mapping, "the next file is read alike")
	_, err = a.ImportReadings(ctx, i.ID, m, []byte("when;t;h\n07.05.2026 23:30;9,9;83\n07.05.2026 22:30;9,9;83\n"))
	assert.ErrorContains(t, err, "line 3")
	_, err = a.ImportReadings(ctx, i.ID, m, []byte("when;t;h\n07.05.2026 23:30;9,9;83\n"))
	require.NoError(t, err)
	got, err := a.Trace(ctx, i.ID, time.Time{}, time.Time{}, 1000)
	require.NoError(t, err)
	require.Len(t, got.Points, 3)
	assert.Equal(t, []float64{8.5, 9.9, 7.1}, []float64{*got.Points[0].MeanC, *got.Points[1].MeanC,
		*got.Points[2].MeanC}, "replaced at its instant, nothing stored of the bad file")
}

func TestALiveInstrumentSends(t *testing.T) {
	a, s := launch(t)
	port := surface(s, "Topsides port")
	i, err := a.AddInstrument(ctx, s.Place.ID, app.InstrumentEdit{Name: "IR", Kind: reading.Spot, SurfaceID: port.ID,
		Feed: app.Live})
	require.NoError(t, err)
	assert.Equal(t, s.Boat.ID, i.BoatID)
	line := func(at time.Time, tempC float64) []byte {
		return formats.WriteReadingLines([]reading.Reading{{At: at, TempC: tempC, RHPct: math.NaN()}})
	}
	_, err = a.TakeReadings(ctx, i.ID, line(demo.Now.Add(3*time.Hour), 20))
	assert.ErrorContains(t, err, "clock is off")
	_, err = a.TakeReadings(ctx, "none", line(demo.Now, 20))
	assert.ErrorIs(t, err, app.ErrNotFound)
	for _, p := range must(a.Instruments(ctx, s.Place.ID)) {
		if p.ID != i.ID {
			require.NoError(t, a.RemoveInstrument(ctx, p.ID))
		}
	}
	before, err := a.Today(ctx, s.Boat.ID)
	require.NoError(t, err)
	_, err = a.TakeReadings(ctx, i.ID, line(demo.Now, 30))
	require.NoError(t, err)
	after, err := a.Today(ctx, s.Boat.ID)
	require.NoError(t, err)
	at := func(td app.Today) app.Face {
		for _, f := range td.Ribbon.Faces {
			if f.SurfaceID == port.ID {
				return f
			}
		}
		return app.Face{}
	}
	k := 0
	for i, h := range after.Ribbon.Hours {
		if !h.At.After(demo.Now) {
			k = i
		}
	}
	assert.True(t, at(after).Probed)
	assert.Greater(t, at(after).SurfaceC[k+1], at(before).SurfaceC[k+1]+2, "the next hour follows what was read")
	assert.InDelta(t, at(before).SurfaceC[k+60], at(after).SurfaceC[k+60], 0.2, "two days on it has faded")
}

func must[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}

func TestASimulatedFaultIsNoticed(t *testing.T) {
	a, s := launch(t)
	for fault, what := range map[string]string{"stuck": "stuck", "drop-outs": "drop-out", "clock-ahead": "clock"} {
		i, err := a.AddInstrument(ctx, s.Place.ID, app.InstrumentEdit{Name: "Logger " + fault, Kind: reading.InOpen,
			Feed: app.Simulator, Fault: fault})
		require.NoError(t, err)
		found := false
		for _, d := range i.Doubts {
			found = found || d.What == what
		}
		assert.True(t, found, "%s: %v", fault, i.Doubts)
		require.NoError(t, a.RemoveInstrument(ctx, i.ID))
	}
	for _, i := range must(a.Instruments(ctx, s.Place.ID)) {
		for _, d := range i.Doubts {
			assert.NotContains(t, []string{"stuck", "clock", "drop-out"}, d.What, "%s is sound: %s", i.Name, d.Text)
		}
	}
	// The clock moves on and back: the simulated logger follows.
	require.NoError(t, a.SetClock(ctx, app.FixedClock, demo.Now.AddDate(0, 0, 1)))
	require.NoError(t, a.SetClock(ctx, app.FixedClock, demo.Now))
	for _, i := range must(a.Instruments(ctx, s.Place.ID)) {
		if i.Last != nil {
			assert.False(t, i.Last.After(demo.Now), i.Name)
		}
	}
}

func TestForecastByWordsAndByDocument(t *testing.T) {
	a, s := launch(t)
	in, err := a.AddDays(ctx, s.Place.ID, []weather.SimpleDay{
		{Date: "2026-05-09", MinC: 8, MaxC: 16, Sky: "cloudy", Rain: "dry", Wind: "light", Air: "usual"},
		{Date: "2026-05-10", MinC: 9, MaxC: 17, Sky: "clear", Rain: "showers", Wind: "fresh", Air: "dry"},
	})
	require.NoError(t, err)
	assert.Equal(t, 48, in.Rows)
	assert.Equal(t, 38, in.Forecast, "from 10:00 on")
	p, err := a.Place(ctx, s.Place.ID)
	require.NoError(t, err)
	assert.Equal(t, app.Told, p.WeatherSource)
	twice := weather.SimpleDay{Date: "2026-05-09", MinC: 8, MaxC: 16, Sky: "cloudy", Rain: "dry", Wind: "light",
		Air: "usual"}
	_, err = a.AddDays(ctx, s.Place.ID, []weather.SimpleDay{twice, twice})
	assert.ErrorContains(t, err, "once")
	_, err = a.AddDays(ctx, s.Place.ID, nil)
	assert.ErrorContains(t, err, "days")
	doc := `{"issuedAt":"2026-05-09T08:00:00Z","hourly":{"at":["2026-05-09T09:00:00Z","2026-05-09T10:00:00Z"],"tempC":[11,12],"rhPct":[70,68]}}`
	in, err = a.ImportWeather(ctx, s.Place.ID, nil, []byte(doc))
	require.NoError(t, err)
	assert.Equal(t, 2, in.Forecast)
	td, err := a.Today(ctx, s.Boat.ID)
	require.NoError(t, err)
	assert.NotEmpty(t, td.Answer.Warnings, "the forecast ends within the day")
	require.NoError(t, a.SetClock(ctx, app.FixedClock, demo.Now.AddDate(0, 0, 1)))
	td, err = a.Today(ctx, s.Boat.ID)
	require.NoError(t, err)
	assert.Contains(t, td.Answer.Warnings[0].String(), "ended before now")
}

func TestTheLoggerCorrectsTheForecast(t *testing.T) {
	a, s := launch(t)
	c, err := a.Correction(ctx, s.Boat.ID)
	require.NoError(t, err)
	assert.Positive(t, c.Learned)
	require.NotEmpty(t, c.Effects)
	night := 0
	for _, h := range c.Hours {
		if hour := h.At.Hour(); !h.Measured && hour >= 1 && hour <= 3 {
			assert.Less(t, h.AfterC, h.BeforeC, "nights are colder in the hollow")
			night++
		}
	}
	assert.Positive(t, night)
	for _, i := range must(a.Instruments(ctx, s.Place.ID)) {
		require.NoError(t, a.RemoveInstrument(ctx, i.ID))
	}
	c, err = a.Correction(ctx, s.Boat.ID)
	require.NoError(t, err)
	assert.Zero(t, c.Learned)
	for _, h := range c.Hours {
		assert.InDelta(t, h.BeforeC, h.AfterC, 1e-9)
	}
}

func TestChancesAndTheirEnd(t *testing.T) {
	a, s := launch(t)
	told := 0.0
	c, err := a.Chances(ctx, s.Boat.ID, 200, func(done float64) { told = done })
	require.NoError(t, err)
	assert.Positive(t, told)
	require.NotEmpty(t, c.Coats)
	for _, b := range c.Coats {
		for i, o := range b.Options {
			assert.False(t, o.From.Before(demo.Now))
			assert.False(t, o.To.Before(o.From))
			if i > 0 {
				assert.LessOrEqual(t, o.ChancePct, b.Options[i-1].ChancePct, "best first")
			}
		}
	}
	assert.NotEmpty(t, c.WetDay)
	again, err := a.Chances(ctx, s.Boat.ID, 200, nil)
	require.NoError(t, err)
	assert.Equal(t, c, again)
	gone, cancel := context.WithCancel(ctx)
	_, err = a.Chances(gone, s.Boat.ID, 5000, func(float64) { cancel() })
	assert.ErrorIs(t, err, context.Canceled)
}

func TestATentIsDescribedComparedAndTakenDown(t *testing.T) {
	a, s := launch(t)
	got, err := a.Tent(ctx, s.Boat.ID)
	require.NoError(t, err)
	assert.Nil(t, got.Tent)
	rudder := surface(s, "Rudder")
	made := got.Usual
	made.Layers = 7
	_, err = a.SetTent(ctx, s.Boat.ID, got.Version, &made)
	var bad fielderr.Errors
	require.ErrorAs(t, err, &bad)
	assert.Equal(t, "layers", bad[0].Path)
	made.Layers = 2
	made.Heaters = []tent.Heater{{Kind: tent.Paraffin, PowerKW: 6}}
	made.Thermostat = tent.Thermostat{SetC: 18}
	step := must(a.BuildUp(ctx, rudder.ID)).Steps[0]
	c, err := a.Compare(ctx, s.Boat.ID, app.VerdictQuery{SurfaceID: rudder.ID, ProductID: step.ProductID,
		Method: step.Method}, made)
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(c.Options), 3)
	assert.Contains(t, strings.Join(c.Cautions, " "), "carbon monoxide")
	dry := made
	dry.Heaters = []tent.Heater{{Kind: tent.Electric, PowerKW: 6}}
	heated, err := a.Compare(ctx, s.Boat.ID, app.VerdictQuery{SurfaceID: rudder.ID, ProductID: step.ProductID,
		Method: step.Method}, dry)
	require.NoError(t, err)
	assert.Greater(t, heated.Options[2].StartH, heated.Options[1].StartH)
	assert.GreaterOrEqual(t, heated.Options[2].StartH, c.Options[2].StartH, "a burner's water keeps the air damp")
	got, err = a.SetTent(ctx, s.Boat.ID, got.Version, &made)
	require.NoError(t, err)
	_, err = a.SetTent(ctx, s.Boat.ID, got.Version-1, nil)
	var stale app.Conflict
	assert.ErrorAs(t, err, &stale)

	// A surface in it has its air.
	edit := rudder.SurfaceEdit
	edit.Shelter = survey.Tent
	open := must(a.Today(ctx, s.Boat.ID))
	_, err = a.EditSurface(ctx, rudder.ID, rudder.Version, edit)
	require.NoError(t, err)
	inside := must(a.Today(ctx, s.Boat.ID))
	last := len(s.Surfaces) - 1
	require.Equal(t, rudder.ID, inside.Ribbon.Faces[last].SurfaceID)
	warmer := 0
	for i := range inside.Ribbon.Hours {
		if inside.Ribbon.Faces[last].SurfaceC[i] > open.Ribbon.Faces[last].SurfaceC[i]+2 {
			warmer++
		}
	}
	assert.Greater(t, warmer, len(inside.Ribbon.Hours)/2)

	// All that is in the open goes into it at once, and out again with it.
	got = must(a.Tent(ctx, s.Boat.ID))
	require.Contains(t, got.Sheltered, "Rudder")
	outside := len(got.Outside)
	require.Positive(t, outside)
	got = must(a.Cover(ctx, s.Boat.ID))
	assert.Empty(t, got.Outside)
	assert.Len(t, got.Sheltered, outside+1)
	got, err = a.SetTent(ctx, s.Boat.ID, got.Version, nil)
	require.NoError(t, err)
	assert.Nil(t, got.Tent)
	assert.Empty(t, got.Sheltered)
	assert.Len(t, got.Outside, outside+1)
	_, err = a.Cover(ctx, s.Boat.ID)
	assert.ErrorContains(t, err, "no tent stands")
}

// A logger of a year of minutes, drawn: read, thinned, answered.
func BenchmarkTraceYearOfMinutes(b *testing.B) {
	a := open(b, filepath.Join(b.TempDir(), "a.db"))
	place := must(a.AddPlace(ctx, app.PlaceEdit{Name: "Quay", LatitudeDeg: 53, TimeZone: "UTC",
		WeatherSource: app.Imported}))
	i := must(a.AddInstrument(ctx, place.ID, app.InstrumentEdit{Name: "minutes", Kind: reading.InOpen,
		Feed: app.ByFile}))
	var file strings.Builder
	file.WriteString("time,temp,rh\n")
	for at, k := time.Date(2025, 1, 1, 0, 0, 0, 0, time.UTC), 0; k < 525_600; k++ {
		fmt.Fprintf(&file, "%s,%.1f,%d\n", at.Add(time.Duration(k)*time.Minute).Format("2006-01-02 15:04"),
			10+5*math.Sin(float64(k)/229), 60+k%30)
	}
	seen := must(a.PreviewReadings(ctx, i.ID, []byte(file.String())))
	b.Run("import", func(b *testing.B) {
		for b.Loop() {
			must(a.ImportReadings(ctx, i.ID, seen.Mapping, []byte(file.String())))
		}
	})
	b.Run("draw", func(b *testing.B) {
		for b.Loop() {
			must(a.Trace(ctx, i.ID, time.Time{}, time.Time{}, 800))
		}
	})
}

// A window ends at the same minute on Today, which looks from when the coat below lets the next one on, and in
// Weather, which looks from now.
func TestTodayAndWeatherTellTheSameWindows(t *testing.T) {
	a := withDemo(t)
	n := 0
	for _, b := range must(a.Boats(ctx)) {
		job := must(a.Job(ctx, b.ID))
		for _, l := range must(a.Today(ctx, b.ID)).Answer.Lanes {
			if len(l.Starts) == 0 || l.NextStepID == "" {
				continue
			}
			product := ""
			for _, task := range job.Chain(l.SurfaceID).Tasks {
				if task.StepID == l.NextStepID {
					product = task.ProductID
				}
			}
			v, err := a.Verdict(ctx, b.ID, app.VerdictQuery{SurfaceID: l.SurfaceID, ProductID: product})
			require.NoError(t, err)
			ends := map[time.Time]bool{}
			for _, w := range v.Field.Windows {
				ends[w.To] = true
			}
			for _, s := range l.Starts {
				assert.True(t, ends[s.To], "%s, %s till %v", b.Name, l.Surface, s.To)
				n++
			}
		}
	}
	assert.Greater(t, n, 40)
}
