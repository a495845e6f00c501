package store

import (
	"context"
	"errors"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func setting(t *testing.T, ctx context.Context, s *Store, key string) string {
	t.Helper()
	v, err := s.Read(ctx).Setting(ctx, key)
	require.NoError(t, err)
	return v
}

// Within a view nothing changes, whoever writes; a question is put once.
func TestAViewIsOneSnapshot(t *testing.T) {
	s := yard(t)
	set := func(ctx context.Context, v string) error {
		return s.Write(ctx, func(ctx context.Context, q Queries) error { return q.SetSetting(ctx, "k", v) })
	}
	require.NoError(t, set(ctx, "before"))
	asked := 0
	require.NoError(t, s.View(Watch(ctx, func(string) { asked++ }), func(in context.Context) error {
		_, err := s.Read(in).Boat(in, "b")
		require.NoError(t, err)
		require.NoError(t, set(context.Background(), "after"), "another may write meanwhile")
		assert.Equal(t, "before", setting(t, in, s, "k"), "of the instant of the first question")
		assert.Equal(t, "after", setting(t, ctx, s, "k"), "outside")
		n := asked
		assert.Equal(t, "before", setting(t, in, s, "k"))
		return s.View(in, func(again context.Context) error {
			assert.Equal(t, "before", setting(t, again, s, "k"), "a view within is the same")
			assert.Equal(t, n, asked, "not asked again")
			_, err := s.Read(again).Boat(again, "c")
			assert.ErrorIs(t, err, ErrNotFound)
			assert.Equal(t, n+1, asked, "another boat is another question")
			return nil
		})
	}))
	lists, err := s.Read(ctx).Boats(ctx)
	require.NoError(t, err)
	require.NoError(t, s.View(ctx, func(in context.Context) error {
		a, err := s.Read(in).Boats(in)
		require.NoError(t, err)
		a[0].Name = "changed by who read it"
		b, err := s.Read(in).Boats(in)
		require.NoError(t, err)
		assert.Equal(t, lists, b, "who reads gets rows of his own")
		return nil
	}))
	assert.EqualError(t, s.View(ctx, func(context.Context) error { return errors.New("so") }), "so")
}

// What is read in a write is read in its transaction, and anew after it wrote; a write
// within is part of it, and goes with it when it fails.
func TestAWriteReadsWhatItWrites(t *testing.T) {
	s := yard(t)
	fails := errors.New("fails")
	err := s.Write(ctx, func(ctx context.Context, q Queries) error {
		_, err := s.Read(ctx).Setting(ctx, "k")
		require.ErrorIs(t, err, ErrNotFound)
		require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
			return q.SetSetting(ctx, "k", "1")
		}))
		assert.Equal(t, "1", setting(t, ctx, s, "k"))
		require.NoError(t, q.SetSetting(ctx, "k", "2"))
		assert.Equal(t, "2", setting(t, ctx, s, "k"), "asked anew")
		asked := 0
		_, err = s.Read(ctx).Boat(ctx, "b")
		require.NoError(t, err)
		require.NoError(t, s.View(Watch(ctx, func(string) { asked++ }), func(in context.Context) error {
			_, err := s.Read(in).Boat(in, "b")
			return err
		}))
		assert.Zero(t, asked, "a view within a write is the write")
		return fails
	})
	require.ErrorIs(t, err, fails)
	_, err = s.Read(ctx).Setting(ctx, "k")
	assert.ErrorIs(t, err, ErrNotFound, "all of it was taken back")
}
