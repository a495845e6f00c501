package store

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"slices"
	"time"

	"github.com/jmoiron/sqlx"
)

// applicationID marks the files of this program in SQLite's header; migration 9 sets it.
const applicationID = 0x434F4154 // "COAT"

// ErrForeign means that a database is not one of this program.
var ErrForeign = errors.New("is no database of this program")

// ErrNewer means that a database was written by a newer version of the program.
var ErrNewer = errors.New("was written by a newer version of this program: use that one")

// Identify tells whether the database at path is this program's, without changing
// anything in it. One without tables is new. Another program's is ErrForeign, a newer
// version's ErrNewer.
func Identify(ctx context.Context, path string) (isNew bool, err error) {
	db, err := sqlx.Open("sqlite", address(path, "mode=rw"))
	if err != nil {
		return false, err
	}
	isNew, err = identify(ctx, db)
	return isNew, errors.Join(err, db.Close())
}

func identify(ctx context.Context, db *sqlx.DB) (isNew bool, err error) {
	var tables []string
	if err := db.SelectContext(ctx, &tables, "SELECT name FROM sqlite_schema WHERE type = 'table'"); err != nil {
		return false, unread(err)
	}
	if len(tables) == 0 {
		return true, nil
	}
	var id int64
	if err := db.GetContext(ctx, &id, "PRAGMA application_id"); err != nil {
		return false, err
	}
	has := func(table string) bool { return slices.Contains(tables, table) }
	switch {
	case id == applicationID: // even of one whose making was cut off
	case id != 0 || !has("settings") || !has("boats") ||
		!has("products"): // before migration 9 the tables were the only mark
		return false, ErrForeign
	}
	if !has("goose_db_version") {
		if id != applicationID {
			return false, ErrForeign
		}
		return true, nil
	}
	switch version, known, err := versions(ctx, db); {
	case err != nil:
		return false, err
	case version > known:
		return false, ErrNewer
	}
	return false, nil
}

// versions are that of a database's schema and the newest that this program knows.
func versions(ctx context.Context, db *sqlx.DB) (version, known int64, err error) {
	if err := db.GetContext(ctx, &version, "SELECT coalesce(max(version_id), 0) FROM goose_db_version"); err != nil {
		return 0, 0, unread(err)
	}
	files, err := fs.ReadDir(migrations, "migrations")
	if err != nil {
		return 0, 0, err
	}
	for _, f := range files {
		var n int64
		if _, err := fmt.Sscanf(f.Name(), "%d_", &n); err != nil {
			return 0, 0, fmt.Errorf("migration %s: %w", f.Name(), err)
		}
		known = max(known, n)
	}
	return version, known, nil
}

// keep writes a copy of everything beside the database file and returns its name.
func (s *Store) keep(ctx context.Context, why string) (string, error) {
	path := fmt.Sprintf("%s.%s-%s", s.path, why, time.Now().UTC().Format("20060102-150405.000"))
	if err := s.Backup(ctx, path); err != nil {
		return "", fmt.Errorf("the copy that is kept before: %w", err)
	}
	return path, nil
}
