package store

import (
	"context"
	"errors"
	"path/filepath"
	"testing"
	"time"

	"allcoats/core/weather"

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
	for pragma, want := range map[string]string{"journal_mode": "wal", "foreign_keys": "1", "busy_timeout": "5000", "synchronous": "2"} {
		var got string
		require.NoError(t, s.db.Get(&got, "PRAGMA "+pragma))
		assert.Equal(t, want, got, pragma)
	}
}

func TestAFailedWriteLeavesNothing(t *testing.T) {
	s := open(t)
	boom := errors.New("boom")
	err := s.Write(ctx, func(q Queries) error {
		require.NoError(t, q.AddPlace(ctx, Place{ID: "p", Name: "Quay", TimeZone: "UTC", WeatherSource: "imported"}))
		return boom
	})
	assert.ErrorIs(t, err, boom)
	places, err := s.Read().Places(ctx)
	require.NoError(t, err)
	assert.Empty(t, places)
}

func TestVersionsAndMissingRows(t *testing.T) {
	s := open(t)
	p := Place{ID: "p", Name: "Quay", TimeZone: "UTC", WeatherSource: "imported"}
	require.NoError(t, s.Write(ctx, func(q Queries) error { return q.AddPlace(ctx, p) }))
	p.Version = 1
	edit := func(p Place) error {
		return s.Write(ctx, func(q Queries) error { return q.EditPlace(ctx, p) })
	}
	assert.NoError(t, edit(p))
	assert.ErrorIs(t, edit(p), ErrStale)
	p.ID = "other"
	assert.ErrorIs(t, edit(p), ErrNotFound)
	_, err := s.Read().Boat(ctx, "none")
	assert.ErrorIs(t, err, ErrNotFound)
	assert.Error(t, s.Write(ctx, func(q Queries) error { return q.AddBoat(ctx, Boat{ID: "b", PlaceID: "none"}) }), "foreign keys hold")
}

func TestWeatherRoundTrip(t *testing.T) {
	s := open(t)
	at := time.Date(2026, 5, 9, 10, 0, 0, 0, time.UTC)
	wind := 3.5
	in := weather.Series{{At: at, TempC: 9.5, RHPct: 80, WindMS: &wind, Measured: true}, {At: at.Add(time.Hour), TempC: 10, RHPct: 79, Measured: true}}
	require.NoError(t, s.Write(ctx, func(q Queries) error {
		require.NoError(t, q.AddPlace(ctx, Place{ID: "p", Name: "Quay", TimeZone: "UTC", WeatherSource: "imported"}))
		require.NoError(t, q.PutWeather(ctx, "p", true, in))
		return q.PutWeather(ctx, "p", true, in) // again: the same instants are replaced
	}))
	got, err := s.Read().Weather(ctx, "p", true, at, at.Add(time.Hour))
	require.NoError(t, err)
	assert.Equal(t, in, got)
	last, err := s.Read().LastWeather(ctx, "p", true)
	require.NoError(t, err)
	assert.Equal(t, at.Add(time.Hour), last)
	_, err = s.Read().LastWeather(ctx, "p", false)
	assert.ErrorIs(t, err, ErrNotFound)
}
