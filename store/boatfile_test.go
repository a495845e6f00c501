package store

import (
	"context"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestRefsAreNullWhenEmpty(t *testing.T) {
	s := yard(t)
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		return q.AddEntry(ctx, Entry{ID: "idle", BoatID: "b", Kind: "idle", WetUm: JSON[[]float64]{[]float64{}}})
	}))
	e, err := s.Read(ctx).Entry(ctx, "idle")
	require.NoError(t, err)
	assert.Equal(t, Ref(""), e.SurfaceID)
	n, err := one[int](ctx, s.Read(ctx), "SELECT count(*) FROM log_entries WHERE surface_id IS NULL")
	require.NoError(t, err)
	assert.Equal(t, 1, n)
	assert.Error(t, new(Ref).Scan(3))
	assert.Error(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		return q.AddEntry(ctx, Entry{ID: "lost", BoatID: "nobody", Kind: "idle", WetUm: JSON[[]float64]{[]float64{}}})
	}), "no such boat")
}

func TestPotsStayUntilEmptied(t *testing.T) {
	s := yard(t)
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		return q.AddProduct(ctx, Product{ID: "p"})
	}))
	p := Pot{ID: "pot", BoatID: "b", SurfaceID: "deck", ProductID: "p", Litres: 0.5, MixedAt: 100}
	put := func() {
		require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error { return q.PutPot(ctx, p) }))
	}
	put()
	put()
	full, err := s.Read(ctx).FullPots(ctx, "b")
	require.NoError(t, err)
	assert.Equal(t, []Pot{p}, full)
	at := int64(160)
	p.LaidAt = &at
	put()
	got, err := s.Read(ctx).Pot(ctx, "pot")
	require.NoError(t, err)
	assert.Equal(t, at, *got.LaidAt)
	p.EmptiedAt = &at
	put()
	full, err = s.Read(ctx).FullPots(ctx, "b")
	require.NoError(t, err)
	assert.Empty(t, full)
}

func TestBackupIsRestored(t *testing.T) {
	s := yard(t)
	path := filepath.Join(t.TempDir(), "backup.db")
	require.NoError(t, s.Backup(ctx, path))
	assert.Error(t, s.Backup(ctx, path), "a backup does not write over another")
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error { return q.RemoveSurface(ctx, "deck") }))
	_, err := s.Read(ctx).Surface(ctx, "deck")
	require.ErrorIs(t, err, ErrNotFound)
	kept, err := s.Restore(ctx, path)
	require.NoError(t, err)
	before, err := Open(ctx, kept)
	require.NoError(t, err)
	_, err = before.Read(ctx).Surface(ctx, "deck")
	assert.ErrorIs(t, err, ErrNotFound, "the copy is of what was there before")
	require.NoError(t, before.Close())
	_, err = s.Read(ctx).Surface(ctx, "deck")
	require.NoError(t, err)
	require.NoError(t, s.Intact(ctx))
	// Written to and read again afterwards: the connection is clean.
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error { return q.SetSetting(ctx, "a", "b") }))

	raw, err := os.ReadFile(path)
	require.NoError(t, err)
	broken := filepath.Join(t.TempDir(), "broken.db")
	for i := 9000; i < 20000 && i < len(raw); i++ {
		raw[i] = 0xff
	}
	require.NoError(t, os.WriteFile(broken, raw, 0o600))
	_, err = s.Restore(ctx, broken)
	assert.Error(t, err)
	v, err := s.Read(ctx).Setting(ctx, "a")
	require.NoError(t, err)
	assert.Equal(t, "b", v, "nothing was changed")
}

func TestABoatIsWrittenOnceAndClashesAreNamed(t *testing.T) {
	s := yard(t)
	f, err := s.Read(ctx).ReadBoat(ctx, "b")
	require.NoError(t, err)
	_, err = s.Read(ctx).ReadBoat(ctx, "none")
	require.ErrorIs(t, err, ErrNotFound)
	write := func() (added int, clashes []Clash) {
		require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) (err error) {
			added, clashes, err = q.WriteBoat(ctx, f)
			return err
		}))
		return added, clashes
	}
	added, clashes := write()
	assert.Zero(t, added)
	assert.Empty(t, clashes)
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error { return q.RemoveSurface(ctx, "deck") }))
	added, clashes = write()
	assert.Positive(t, added, "what is missing comes back")
	assert.Empty(t, clashes)
	f.Tables["surfaces"][0]["name"] = "another name"
	_, clashes = write()
	require.Len(t, clashes, 1)
	assert.Equal(t, "surface another name", clashes[0].What)
}

func TestFairingsBySurface(t *testing.T) {
	s := yard(t)
	f := Fairing{ID: "f", Version: 1, SurfaceID: "deck", ReadAt: time.Unix(50, 0).Unix()}
	f.Readings.V = []byte(`{"round":1}`)
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error { return q.AddFairing(ctx, f) }))
	all, err := s.Read(ctx).Fairings(ctx, "deck")
	require.NoError(t, err)
	assert.Equal(t, []Fairing{f}, all)
	f.Readings.V = []byte(`{"round":2}`)
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error { return q.EditFairing(ctx, f) }))
	assert.ErrorIs(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		return q.EditFairing(ctx, f)
	}), ErrStale)
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error { return q.RemoveFairing(ctx, "f") }))
	_, err = s.Read(ctx).Fairing(ctx, "f")
	assert.ErrorIs(t, err, ErrNotFound)
}

func TestFinishesByCraft(t *testing.T) {
	s := yard(t)
	deck, err := s.Read(ctx).Surface(ctx, "deck")
	require.NoError(t, err)
	boat := deck.BoatID
	f := Finish{ID: "f", Version: 1, BoatID: boat, SurfaceID: "deck", Craft: "non-skid"}
	f.Work.V = []byte(`{"edgeM":0.05}`)
	first := f
	first.Version = 0
	set := func(f Finish) error {
		return s.Write(ctx, func(ctx context.Context, q Queries) error { return q.SetFinish(ctx, f) })
	}
	require.NoError(t, set(first))
	first.ID = "g"
	assert.ErrorIs(t, set(first), ErrStale, "a craft once on a surface")
	first.SurfaceID = ""
	require.NoError(t, set(first), "and once on the boat")
	f.Work.V = []byte(`{"edgeM":0.06}`)
	require.NoError(t, set(f))
	assert.ErrorIs(t, set(f), ErrStale)
	all, err := s.Read(ctx).BoatFinishes(ctx, boat)
	require.NoError(t, err)
	require.Len(t, all, 2)
	assert.Equal(t, 2, all[0].Version)
	assert.JSONEq(t, `{"edgeM":0.06}`, string(all[0].Work.V))
}

func TestAFileFromBeforeATableIsTaken(t *testing.T) {
	schema, err := yard(t).Read(ctx).BoatFileSchema(ctx)
	require.NoError(t, err)
	tables := schema["properties"].(map[string]any)["tables"].(map[string]any)
	assert.Contains(t, tables["properties"], "finishes")
	assert.NotContains(t, tables["required"], "finishes")
	assert.Contains(t, tables["required"], "steps")
}
