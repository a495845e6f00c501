package store

import (
	"context"
	"errors"
	"io/fs"
	"math"
	"path/filepath"
	"testing"
	"time"

	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/exposure/reading"
	"allcoats/core/physics/weather"

	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var ctx = context.Background()

func open(t *testing.T) *Store {
	s, err := Open(ctx, filepath.Join(t.TempDir(), "s.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}

func TestPragmas(t *testing.T) {
	s := open(t)
	for pragma, want := range map[string]string{"journal_mode": "wal", "foreign_keys": "1", "busy_timeout": "5000",
		"synchronous": "2"} {
		var got string
		require.NoError(t, s.db.Get(&got, "PRAGMA "+pragma))
		assert.Equal(t, want, got, pragma)
	}
}

// upTo makes a database of an older schema.
func upTo(t *testing.T, path string, version int64) *sqlx.DB {
	db, err := sqlx.Open("sqlite", path)
	require.NoError(t, err)
	dir, err := fs.Sub(migrations, "migrations")
	require.NoError(t, err)
	p, err := goose.NewProvider(goose.DialectSQLite3, db.DB, dir)
	require.NoError(t, err)
	_, err = p.UpTo(ctx, version)
	require.NoError(t, err)
	return db
}

// Surfaces of the first schema keep what they were measured by.
func TestSurfacesMoveToTheNewSchema(t *testing.T) {
	path := filepath.Join(t.TempDir(), "old.db")
	db := upTo(t, path, 1)
	db.MustExec(
		`INSERT INTO places (id, name, latitude_deg, longitude_deg, time_zone, weather_source) VALUES ('p', 'Quay', 52, 1, 'UTC', 'imported')`)
	db.MustExec(`INSERT INTO boats VALUES ('b', 1, 'p', 'Old', '', 0, '', 0, 'medium', 7, 6, 2, 1, 1, 0)`)
	for i, r := range [][2]string{
		{"GRP, old gelcoat", `{"method":"principal"}`},
		{"mahogany", `{"method":"strip","lengthM":3,"widthM":0.2,"count":2}`},
		{"", `{"method":"stated","areaM2":7,"uncertaintyPct":4}`}, {"steel", `{"method":""}`},
	} {
		db.MustExec(`INSERT INTO surfaces VALUES (?, 1, 'b', ?, 'x', 'bottom', 'both', ?, ?)`, string(rune('a'+i)), i,
			r[0], r[1])
	}
	db.MustExec(`INSERT INTO products (id, sheet) VALUES ('primer', '{}')`)
	db.MustExec(
		`INSERT INTO steps (id, surface_id, position, product_id, coats, dft_um, method, loss_pct, thinner_pct) VALUES ('step', 'a', 0, 'primer', 2, 80, 'roller', 10, 0)`)
	db.MustExec(`INSERT INTO log_entries (id, surface_id, kind, started_at, product_id, step_id, litres, wet_um, thinner_pct, grit, who, note)
		VALUES ('entry', 'a', 'coat', 7, 'primer', 'step', 1.5, '[]', 0, 0, 'Kim', '')`)
	require.NoError(t, db.Close())
	s, err := Open(ctx, path)
	require.NoError(t, err)
	defer s.Close()
	steps, err := s.Read(ctx).BoatSteps(ctx, "b")
	require.NoError(t, err)
	require.Len(t, steps, 1)
	assert.Equal(t, "coat", steps[0].Work)
	assert.Equal(t, 80.0, steps[0].DFTUm)
	entry, err := s.Read(ctx).Entry(ctx, "entry")
	require.NoError(t, err)
	require.NotNil(t, entry.StepID, "a coat still counts for its step")
	assert.Equal(t, "step", *entry.StepID)
	assert.Equal(t, 1.5, entry.Litres)
	got, err := s.Read(ctx).Surfaces(ctx, "b")
	require.NoError(t, err)
	require.Len(t, got, 4)
	for i, want := range []survey.Substrate{survey.Gelcoat, survey.SolidWood, survey.OtherSubstr, survey.Steel} {
		assert.Equal(t, want, got[i].Description.V.Substrate)
		assert.NoError(t, got[i].Description.V.Validate())
		assert.NoError(t, got[i].Findings.V.Validate())
	}
	assert.Equal(t, "mahogany", got[1].Description.V.SubstrateNote)
	boat := area.Boat{Dimensions: area.Dimensions{HullForm: area.Medium, LOAM: 7, LWLM: 6, BeamM: 2, DraughtM: 1,
		FreeboardM: 1}}
	for i, want := range []float64{13.5, 1.2, 7, 13.5} {
		a, err := boat.Assess(area.Bottom, area.Both, got[i].Measured.V)
		require.NoError(t, err)
		assert.InDelta(t, want, a.AreaM2, 1e-9)
	}
}

func TestAFailedWriteLeavesNothing(t *testing.T) {
	s := open(t)
	boom := errors.New("boom")
	err := s.Write(ctx, func(ctx context.Context, q Queries) error {
		require.NoError(t, q.AddPlace(ctx, Place{ID: "p", Name: "Quay", TimeZone: "UTC", WeatherSource: "imported"}))
		return boom
	})
	assert.ErrorIs(t, err, boom)
	places, err := s.Read(ctx).Places(ctx)
	require.NoError(t, err)
	assert.Empty(t, places)
}

func TestVersionsAndMissingRows(t *testing.T) {
	s := open(t)
	p := Place{ID: "p", Name: "Quay", TimeZone: "UTC", WeatherSource: "imported"}
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error { return q.AddPlace(ctx, p) }))
	p.Version = 1
	edit := func(p Place) error {
		return s.Write(ctx, func(ctx context.Context, q Queries) error { return q.EditPlace(ctx, p) })
	}
	assert.NoError(t, edit(p))
	assert.ErrorIs(t, edit(p), ErrStale)
	p.ID = "other"
	assert.ErrorIs(t, edit(p), ErrNotFound)
	_, err := s.Read(ctx).Boat(ctx, "none")
	assert.ErrorIs(t, err, ErrNotFound)
	assert.Error(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		return q.AddBoat(ctx, Boat{ID: "b", PlaceID: "none"})
	}), "foreign keys hold")
}

func TestWeatherRoundTrip(t *testing.T) {
	s := open(t)
	at := time.Date(2026, 5, 9, 10, 0, 0, 0, time.UTC)
	wind := 3.5
	in := weather.Series{{At: at, TempC: 9.5, RHPct: 80, WindMS: &wind, Measured: true},
		{At: at.Add(time.Hour), TempC: 10, RHPct: 79, Measured: true}}
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		require.NoError(t, q.AddPlace(ctx, Place{ID: "p", Name: "Quay", TimeZone: "UTC", WeatherSource: "imported"}))
		require.NoError(t, q.PutWeather(ctx, "p", true, in))
		return q.PutWeather(ctx, "p", true, in) // again: the same instants are replaced
	}))
	got, err := s.Read(ctx).Weather(ctx, "p", true, at, at.Add(time.Hour))
	require.NoError(t, err)
	assert.Equal(t, in, got)
	last, err := s.Read(ctx).LastWeather(ctx, "p", true)
	require.NoError(t, err)
	assert.Equal(t, at.Add(time.Hour), last)
	_, err = s.Read(ctx).LastWeather(ctx, "p", false)
	assert.ErrorIs(t, err, ErrNotFound)
}

// A point of a day of readings on the disk: seconds of the day, m°C and m%, each 32 bits,
// the least first; the least number of all is no value.
func TestPointsOnTheDisk(t *testing.T) {
	rs := []reading.Reading{{At: time.Unix(86400+3600, 0).UTC(), TempC: -1.5, RHPct: 60.25},
		{At: time.Unix(86400+3661, 0).UTC(), TempC: 0.001, RHPct: math.NaN()}}
	disk := "\x10\x0e\x00\x00" + "\x24\xfa\xff\xff" + "\x5a\xeb\x00\x00" + "\x4d\x0e\x00\x00" + "\x01\x00\x00\x00" +
		"\x00\x00\x00\x80"
	assert.Equal(t, []byte(disk), encode(rs))
	back := dayRow{Day: 1, Points: []byte(disk)}.decode()
	assert.Equal(t, rs[0], back[0])
	assert.True(t, math.IsNaN(back[1].RHPct))
}

func TestReadingsRoundTrip(t *testing.T) {
	s := open(t)
	at := time.Date(2026, 5, 9, 23, 59, 30, 0, time.UTC)
	none := math.NaN()
	in := []reading.Reading{{At: at, TempC: -3.125, RHPct: 99.9}, {At: at.Add(45 * time.Second), TempC: 10.001,
		RHPct: none}, {At: at.Add(2 * time.Minute), TempC: none, RHPct: 50}}
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		require.NoError(t, q.AddPlace(ctx, Place{ID: "p", Name: "Quay", TimeZone: "UTC", WeatherSource: "imported"}))
		require.NoError(t, q.AddInstrument(ctx, Instrument{ID: "i", PlaceID: "p", Name: "Post", Kind: "air",
			Feed: "file"}))
		require.NoError(t, q.PutReadings(ctx, "i", in))
		// Over midnight, between and in place of what is there.
		return q.PutReadings(ctx, "i", []reading.Reading{{At: at.Add(20 * time.Second), TempC: 4, RHPct: 60},
			{At: at.Add(2 * time.Minute), TempC: 5, RHPct: 51}})
	}))
	got, err := s.Read(ctx).Readings(ctx, "i", at, at.Add(time.Hour))
	require.NoError(t, err)
	require.Len(t, got, 4)
	assert.Equal(t, in[0], got[0])
	assert.Equal(t, 4.0, got[1].TempC)
	assert.Equal(t, 10.001, got[2].TempC)
	assert.True(t, math.IsNaN(got[2].RHPct))
	assert.Equal(t, reading.Reading{At: at.Add(2 * time.Minute), TempC: 5, RHPct: 51}, got[3])
	first, last, n, err := s.Read(ctx).ReadingSpan(ctx, "i")
	require.NoError(t, err)
	assert.Equal(t, []any{at, at.Add(2 * time.Minute), 4}, []any{first, last, n})
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		return q.DropReadings(ctx, "i", at.Add(time.Minute))
	}))
	_, last, n, err = s.Read(ctx).ReadingSpan(ctx, "i")
	require.NoError(t, err)
	assert.Equal(t, []any{at.Add(20 * time.Second), 2}, []any{last, n})
	_, _, _, err = s.Read(ctx).ReadingSpan(ctx, "none")
	assert.ErrorIs(t, err, ErrNotFound)
}
