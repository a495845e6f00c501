package store

import (
	"context"
	"errors"
	"fmt"
	"net/url"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"github.com/gofrs/flock"
	"github.com/jmoiron/sqlx"
	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"
)

// Errors of a database as a whole.
var (
	// ErrHeld means that another program has the database open to write.
	ErrHeld = errors.New("is open in another All Coats: use that one, or end it first")
	// ErrDamaged means that the file is not whole.
	ErrDamaged = errors.New("is damaged")
	// ErrFull means that the disk has no room: nothing was stored.
	ErrFull = errors.New("the disk is full: nothing was stored; free some room and try again")
)

// address is the name by which the driver opens the file at path, whatever letters are in it.
func address(path string, options ...string) string {
	escaped := strings.NewReplacer("%", "%25", "?", "%3f", "#", "%23").Replace(filepath.ToSlash(path))
	u := url.URL{Scheme: "file", Opaque: escaped, RawQuery: strings.Join(options, "&")}
	return u.String()
}

// hold takes the lock of a database, which its program keeps as long as it runs. The lock
// goes with the process, however that ends; the file stays.
func hold(path string) (*flock.Flock, error) {
	lock := flock.New(path + ".lock")
	switch got, err := lock.TryLock(); {
	case err != nil:
		return nil, fmt.Errorf("lock %s: %w", lock.Path(), err)
	case !got:
		return nil, ErrHeld
	}
	return lock, nil
}

// whole runs SQLite's own checks of a file: the quick one, or all of them.
func whole(ctx context.Context, db *sqlx.DB, pragma string) error {
	var said []string
	if err := db.SelectContext(ctx, &said, "PRAGMA "+pragma); err != nil {
		return fmt.Errorf("%w: %w", ErrDamaged, err)
	}
	if !slices.Equal(said, []string{"ok"}) {
		return fmt.Errorf("%w: %s", ErrDamaged, strings.Join(said[:min(3, len(said))], "; "))
	}
	return nil
}

// unread is why a file could not be read as a database: it is damaged, or none.
func unread(err error) error {
	var e *sqlite.Error
	if errors.As(err, &e) && e.Code()&0xff == sqlite3.SQLITE_CORRUPT {
		return fmt.Errorf("%w: %w", ErrDamaged, err)
	}
	return fmt.Errorf("%w: %w", ErrForeign, err)
}

// roomless turns the driver's word for a full disk into ErrFull.
func roomless(err error) error {
	var e *sqlite.Error
	if errors.As(err, &e) && e.Code()&0xff == sqlite3.SQLITE_FULL {
		return fmt.Errorf("%w (%w)", ErrFull, err)
	}
	return err
}

// Backup writes the whole database, as it stands at one instant, to a new file at path. The
// file is checked before it has that name: there is never a part of one under it.
func (s *Store) Backup(ctx context.Context, path string) (err error) {
	if _, err := os.Lstat(path); err == nil {
		return fmt.Errorf("%s: %w", path, os.ErrExist)
	}
	part := path + ".part"
	if err := os.Remove(part); err != nil && !errors.Is(err, os.ErrNotExist) {
		return err
	}
	defer func() {
		if err != nil {
			err = errors.Join(err, ignoreMissing(os.Remove(part)))
		}
	}()
	if _, err := s.db.ExecContext(ctx, "VACUUM INTO ?", part); err != nil {
		return roomless(err)
	}
	if err := check(ctx, part); err != nil {
		return fmt.Errorf("the backup that was written: %w", err)
	}
	return settle(part, path)
}

// check reads all of the database at path, changing nothing.
func check(ctx context.Context, path string) error {
	db, err := sqlx.Open("sqlite", address(path, "mode=ro", "immutable=1"))
	if err != nil {
		return err
	}
	return errors.Join(whole(ctx, db, "integrity_check"), db.Close())
}

// settle gives a finished file its name, so that a loss of power leaves the whole or nothing.
func settle(part, path string) error {
	f, err := os.OpenFile(part, os.O_RDWR, 0)
	if err != nil {
		return err
	}
	if err := errors.Join(f.Sync(), f.Close(), os.Rename(part, path)); err != nil {
		return err
	}
	dir, err := os.Open(filepath.Dir(path))
	if err != nil {
		return err
	}
	return errors.Join(dir.Sync(), dir.Close())
}

func ignoreMissing(err error) error {
	if errors.Is(err, os.ErrNotExist) {
		return nil
	}
	return err
}

// Scratch makes a folder beside the database for what is needed for a while. What is left of
// them, by a program that was killed, goes when the database is opened next.
func (s *Store) Scratch() (dir string, err error) {
	if err := os.MkdirAll(s.scratches(), 0o700); err != nil {
		return "", err
	}
	return os.MkdirTemp(s.scratches(), "")
}

func (s *Store) scratches() string { return s.path + ".tmp" }

// Kept is a copy of the database that is kept beside it.
type Kept struct {
	Name  string    `json:"name"`
	At    time.Time `json:"at"`
	Bytes int64     `json:"bytes"`
}

// copies is the folder of the daily copies.
func (s *Store) copies() string { return s.path + ".backups" }

// daily is how the copy of a day is named.
const daily = "2006-01-02.db"

// Daily writes the copy of the day of now, if there is none yet, and removes those that are no
// longer kept: see Keep. It reports whether it wrote one.
func (s *Store) Daily(ctx context.Context, now time.Time) (wrote bool, err error) {
	if err := os.MkdirAll(s.copies(), 0o700); err != nil {
		return false, err
	}
	path := filepath.Join(s.copies(), now.Format(daily))
	if _, err := os.Stat(path); err == nil {
		return false, nil
	}
	if err := s.Backup(ctx, path); err != nil {
		return false, fmt.Errorf("copy of the day: %w", err)
	}
	all, err := s.Copies()
	if err != nil {
		return true, err
	}
	days := make([]time.Time, len(all))
	for i, k := range all {
		days[i] = k.At
	}
	for i, stays := range Keep(days) {
		if !stays {
			err = errors.Join(err, os.Remove(filepath.Join(s.copies(), all[i].Name)))
		}
	}
	return true, err
}

// Copies lists the daily copies, the newest first.
func (s *Store) Copies() ([]Kept, error) {
	entries, err := os.ReadDir(s.copies())
	if ignoreMissing(err) != nil {
		return nil, err
	}
	out := []Kept{}
	for _, e := range entries {
		at, err := time.Parse(daily, e.Name())
		if err != nil {
			continue // a part, or another's
		}
		info, err := e.Info()
		if err != nil {
			return nil, err
		}
		out = append(out, Kept{e.Name(), at, info.Size()})
	}
	slices.SortFunc(out, func(a, b Kept) int { return b.At.Compare(a.At) })
	return out, nil
}

// CopyPath is where a copy stands; it is ErrNotFound for a name that Copies does not list.
func (s *Store) CopyPath(name string) (string, error) {
	all, err := s.Copies()
	if err != nil {
		return "", err
	}
	if !slices.ContainsFunc(all, func(k Kept) bool { return k.Name == name }) {
		return "", ErrNotFound
	}
	return filepath.Join(s.copies(), name), nil
}

// How many copies are kept.
const (
	keptDays   = 7
	keptWeeks  = 5
	keptMonths = 12
)

// Keep tells which copies stay, of days from the newest on: the last seven, then the newest of
// each week for five weeks, and of each month for a year.
func Keep(days []time.Time) []bool {
	stays := make([]bool, len(days))
	for _, rule := range []struct {
		most int
		of   func(time.Time) string
	}{
		{keptDays, func(t time.Time) string { return t.Format(time.DateOnly) }},
		{keptWeeks, func(t time.Time) string { y, w := t.ISOWeek(); return fmt.Sprint(y, " ", w) }},
		{keptMonths, func(t time.Time) string { return t.Format("2006-01") }},
	} {
		last, n := "", 0
		for i, d := range days {
			if k := rule.of(d); k != last {
				last, n = k, n+1
				stays[i] = stays[i] || n <= rule.most
			}
		}
	}
	return stays
}
