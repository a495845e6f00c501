package store

import (
	"context"
	"errors"
	"path/filepath"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is sent under an id is written once: again it is known, at the same time one of both is refused,
// and what failed may be sent again.
func TestAParcelIsWrittenOnce(t *testing.T) {
	ctx := context.Background()
	s, err := Open(ctx, filepath.Join(t.TempDir(), "p.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	write := func(id string, fail error) error {
		return s.Write(AsParcel(ctx, id), func(ctx context.Context, q Queries) error {
			if err := q.SetSetting(ctx, id, "x"); err != nil {
				return err
			}
			return fail
		})
	}
	broken := errors.New("broken")
	assert.ErrorIs(t, write("a", broken), broken)
	known, err := s.Read(ctx).KnowsParcel(ctx, "a")
	require.NoError(t, err)
	assert.False(t, known)
	require.NoError(t, write("a", nil))
	known, _ = s.Read(ctx).KnowsParcel(ctx, "a")
	assert.True(t, known)
	assert.ErrorIs(t, write("a", nil), ErrTaken)

	var wait sync.WaitGroup
	errs := make([]error, 8)
	for i := range errs {
		wait.Go(func() { errs[i] = write("b", nil) })
	}
	wait.Wait()
	through := 0
	for _, err := range errs {
		if err == nil {
			through++
		} else {
			assert.ErrorIs(t, err, ErrTaken)
		}
	}
	assert.Equal(t, 1, through)

	// Two transactions of one request are both written.
	request := AsParcel(ctx, "c")
	for _, key := range []string{"one", "two"} {
		require.NoError(t, s.Write(request, func(ctx context.Context, q Queries) error {
			return q.SetSetting(ctx, key, "x")
		}))
	}
}
