package store

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strconv"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A name means the file of that name, whatever letters it has, for the database and for what is written beside it.
func TestNamesOfFiles(t *testing.T) {
	for _, name := range []string{"a#b.db", "a?b.db", "a%20b.db", "ä é ’.db", "file:x.db", "a;b&c=d.db"} {
		path := filepath.Join(t.TempDir(), name)
		s, err := Open(ctx, path)
		require.NoError(t, err, name)
		require.NoError(t, s.Backup(ctx, path+"#copy?"))
		require.NoError(t, s.Close())
		for _, p := range []string{path, path + "#copy?"} {
			info, err := os.Stat(p)
			require.NoError(t, err, p)
			assert.Greater(t, info.Size(), int64(10_000))
		}
		all, err := os.ReadDir(filepath.Dir(path))
		require.NoError(t, err)
		assert.Len(t, all, 3, "the database, its lock and the copy")
	}
}

func TestADatabaseIsHeldByOne(t *testing.T) {
	path := filepath.Join(t.TempDir(), "yard.db")
	s, err := Open(ctx, path)
	require.NoError(t, err)
	_, err = Open(ctx, path)
	require.ErrorIs(t, err, ErrHeld)
	beside, err := Beside(ctx, path)
	require.NoError(t, err)
	assert.NoError(t, beside.Backup(ctx, path+".copy"))
	assert.Error(t, beside.Write(ctx, func(ctx context.Context, q Queries) error {
		return q.SetSetting(ctx, "a", "b")
	}), "it only reads")
	require.NoError(t, beside.Close())
	_, err = Open(ctx, path)
	require.ErrorIs(t, err, ErrHeld, "whoever read and went holds nothing")
	require.NoError(t, s.Close())
	s, err = Open(ctx, path)
	require.NoError(t, err)
	_, err = s.db.ExecContext(ctx,
		"DELETE FROM goose_db_version WHERE version_id = (SELECT max(version_id) FROM goose_db_version)")
	require.NoError(t, err)
	_, err = Beside(ctx, path)
	assert.ErrorContains(t, err, "older version")
	require.NoError(t, s.Close())
}

func TestADamagedDatabaseIsRefused(t *testing.T) {
	path := filepath.Join(t.TempDir(), "yard.db")
	s, err := Open(ctx, path)
	require.NoError(t, err)
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		for _, k := range []string{"a", "b", "c"} {
			if err := q.SetSetting(ctx, k, string(make([]byte, 20_000))); err != nil {
				return err
			}
		}
		return nil
	}))
	require.NoError(t, s.Close())
	raw, err := os.ReadFile(path)
	require.NoError(t, err)
	for i := 3 * 4096; i < len(raw)-4096; i += 4096 { // the heads of the pages after the schema's
		copy(raw[i:], "not a page of a database")
	}
	require.NoError(t, os.WriteFile(path, raw, 0o600))
	_, err = Open(ctx, path)
	require.ErrorIs(t, err, ErrDamaged)
	after, err := os.ReadFile(path)
	require.NoError(t, err)
	assert.Equal(t, raw, after, "it is left as it is")
}

// A disk without room: nothing is stored, it is said, and told until there is room again.
func TestAFullDisk(t *testing.T) {
	s, err := Open(ctx, filepath.Join(t.TempDir(), "yard.db"))
	require.NoError(t, err)
	defer s.Close()
	s.db.SetMaxOpenConns(1)
	var pages int
	require.NoError(t, s.db.GetContext(ctx, &pages, "PRAGMA page_count"))
	_, err = s.db.ExecContext(ctx, "PRAGMA max_page_count = 1") // as low as it goes: what there is
	require.NoError(t, err)
	long := string(make([]byte, 200_000))
	put := func() error {
		return s.Write(ctx, func(ctx context.Context, q Queries) error { return q.SetSetting(ctx, "long", long) })
	}
	require.ErrorIs(t, put(), ErrFull)
	_, err = s.Read(ctx).Setting(ctx, "long")
	require.ErrorIs(t, err, ErrNotFound)
	_, err = s.db.ExecContext(ctx, "PRAGMA max_page_count = 100000")
	require.NoError(t, err)
	require.NoError(t, s.Ping(ctx), "there is room again")
	require.NoError(t, put())
}

func TestBackupsAreWhole(t *testing.T) {
	dir := t.TempDir()
	s, err := Open(ctx, filepath.Join(dir, "yard.db"))
	require.NoError(t, err)
	defer s.Close()
	path := filepath.Join(dir, "copy.db")
	require.NoError(t, os.WriteFile(path+".part", []byte("left by one that was cut off"), 0o600))
	require.NoError(t, s.Backup(ctx, path))
	require.NoError(t, check(ctx, path))
	_, err = os.Stat(path + ".part")
	require.ErrorIs(t, err, os.ErrNotExist)
	require.ErrorIs(t, s.Backup(ctx, path), os.ErrExist)
	gone, stop := context.WithCancel(ctx)
	stop()
	require.Error(t, s.Backup(gone, path+"2"))
	for _, p := range []string{path + "2", path + "2.part"} {
		_, err = os.Stat(p)
		assert.ErrorIs(t, err, os.ErrNotExist, p)
	}
}

// Backups that are made while others write are whole, and hold all that was stored before they began.
func TestBackupsUnderWriters(t *testing.T) {
	dir := t.TempDir()
	s, err := Open(ctx, filepath.Join(dir, "yard.db"))
	require.NoError(t, err)
	defer s.Close()
	stop := make(chan struct{})
	var stored [4]atomic.Int64 // the last number that each writer was told is stored
	var wait sync.WaitGroup
	for k := range stored {
		wait.Go(func() {
			for n := int64(1); ; n++ {
				select {
				case <-stop:
					return
				default:
				}
				err := s.Write(ctx, func(ctx context.Context, q Queries) error {
					return q.SetSetting(ctx, fmt.Sprint("writer-", k), fmt.Sprint(n))
				})
				if !assert.NoError(t, err) {
					return
				}
				stored[k].Store(n)
			}
		})
	}
	for i := range 6 {
		var before [4]int64
		for k := range stored {
			before[k] = stored[k].Load()
		}
		path := filepath.Join(dir, fmt.Sprint("copy-", i, ".db"))
		require.NoError(t, s.Backup(ctx, path))
		require.NoError(t, check(ctx, path))
		c, err := Beside(ctx, path)
		require.NoError(t, err)
		for k, least := range before {
			if least == 0 {
				continue
			}
			text, err := c.Read(ctx).Setting(ctx, fmt.Sprint("writer-", k))
			require.NoError(t, err)
			n, err := strconv.ParseInt(text, 10, 64)
			require.NoError(t, err)
			assert.GreaterOrEqual(t, n, least, "copy %d, writer %d", i, k)
		}
		require.NoError(t, c.Close())
	}
	close(stop)
	wait.Wait()
	all := int64(0)
	for k := range stored {
		all += stored[k].Load()
	}
	assert.Greater(t, all, int64(12), "they wrote meanwhile")
}

// Copies are kept for seven days, five weeks and twelve months, reckoned by hand.
func TestKeep(t *testing.T) {
	day := func(s string) time.Time {
		at, err := time.Parse(time.DateOnly, s)
		require.NoError(t, err)
		return at
	}
	var days []time.Time
	for d := day("2026-06-15"); d.After(day("2025-04-30")); d = d.AddDate(0, 0,
		-1) { // a Monday back to May of the year before
		days = append(days, d)
	}
	var kept []string
	for i, stays := range Keep(days) {
		if stays {
			kept = append(kept, days[i].Format(time.DateOnly))
		}
	}
	assert.Equal(t, []string{
		"2026-06-15", "2026-06-14", "2026-06-13", "2026-06-12", "2026-06-11", "2026-06-10",
		"2026-06-09",                             // days; the weeks of 15 and 8 June among them
		"2026-06-07", "2026-05-31", "2026-05-24", // the weeks before
		"2026-04-30", "2026-03-31", "2026-02-28", "2026-01-31", "2025-12-31", "2025-11-30", "2025-10-31", "2025-09-30",
		"2025-08-31", "2025-07-31",
	}, kept)
	assert.Empty(t, Keep(nil))
}

func TestDailyCopies(t *testing.T) {
	dir := t.TempDir()
	s, err := Open(ctx, filepath.Join(dir, "yard.db"))
	require.NoError(t, err)
	defer s.Close()
	now := time.Date(2026, 5, 9, 10, 0, 0, 0, time.UTC)
	all, err := s.Copies()
	require.NoError(t, err)
	assert.Empty(t, all)
	for d := range 12 {
		wrote, err := s.Daily(ctx, now.AddDate(0, 0, d))
		require.NoError(t, err)
		assert.True(t, wrote)
		wrote, err = s.Daily(ctx, now.AddDate(0, 0, d).Add(time.Hour))
		require.NoError(t, err)
		assert.False(t, wrote, "one a day")
	}
	require.NoError(t, os.WriteFile(filepath.Join(dir, "yard.db.backups", "mine.db"), nil, 0o600))
	all, err = s.Copies()
	require.NoError(t, err)
	assert.Len(t, all, 8, "seven days and the Sunday of the week before")
	assert.Equal(t, "2026-05-20.db", all[0].Name)
	path, err := s.CopyPath("2026-05-20.db")
	require.NoError(t, err)
	require.NoError(t, check(ctx, path))
	for _, name := range []string{"mine.db", "../yard.db", "2026-05-11.db"} {
		_, err = s.CopyPath(name)
		assert.ErrorIs(t, err, ErrNotFound, name)
	}
}
