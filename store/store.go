// Package store keeps the boats, products, weather and log in one SQLite file.
// It knows no rule of the trade.
package store

import (
	"context"
	"database/sql"
	"database/sql/driver"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"regexp"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"github.com/gofrs/flock"
	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite" // the driver "sqlite"
)

// Errors of a store.
var (
	ErrNotFound = errors.New("not found")
	// ErrStale means that the row has another version than the one edited.
	ErrStale = errors.New("changed by someone else in the meantime")
)

//go:embed migrations/*.sql
var migrations embed.FS

// Store is an open database file.
type Store struct {
	db     *sqlx.DB
	path   string
	lock   *flock.Flock                  // nil of one that only reads
	writes atomic.Uint64                 // that were committed
	next   atomic.Pointer[chan struct{}] // closed at the next one
	full   atomic.Bool                   // the last write found no room
}

// Open opens or creates the file at path and brings its schema up to date. A file of another
// program, of a newer version, one that is damaged or that another program holds is refused
// and left as it is: ErrForeign, ErrNewer, ErrDamaged, ErrHeld.
// Acknowledged writes survive a crash of the program and a loss of power
// (WAL, synchronous FULL).
func Open(ctx context.Context, path string) (*Store, error) {
	lock, err := hold(path)
	if err != nil {
		return nil, fmt.Errorf("database %s: %w", path, err)
	}
	s, err := opened(ctx, path, "_pragma=journal_mode(WAL)", "_txlock=immediate")
	if err == nil {
		s.lock = lock
		if err = errors.Join(os.RemoveAll(s.scratches()), s.migrate(ctx)); err != nil {
			err = errors.Join(err, s.db.Close())
		}
	}
	if err != nil {
		return nil, fmt.Errorf("database %s: %w", path, errors.Join(err, lock.Close()))
	}
	return s, nil
}

// Beside opens a database to read it, whoever else has it open. One of an older version is
// refused: opening it brings it up to date.
func Beside(ctx context.Context, path string) (*Store, error) {
	s, err := opened(ctx, path, "mode=ro")
	if err == nil {
		var version, known int64
		if version, known, err = versions(ctx, s.db); err == nil && version < known {
			err = errors.New("is of an older version: end the program that has it open, and start this one on it")
		}
		if err != nil {
			err = errors.Join(err, s.db.Close())
		}
	}
	if err != nil {
		return nil, fmt.Errorf("database %s: %w", path, err)
	}
	return s, nil
}

// opened opens a file that is this program's and whole.
func opened(ctx context.Context, path string, options ...string) (*Store, error) {
	if _, err := os.Stat(path); err == nil {
		if _, err := Identify(ctx, path); err != nil {
			return nil, err
		}
	}
	db, err := sqlx.Open("sqlite",
		address(path, append(options, "_pragma=busy_timeout(5000)", "_pragma=synchronous(FULL)",
			"_pragma=foreign_keys(1)")...))
	if err != nil {
		return nil, err
	}
	if err := whole(ctx, db, "quick_check"); err != nil {
		return nil, errors.Join(err, db.Close())
	}
	s, next := &Store{db: db, path: path}, make(chan struct{})
	s.next.Store(&next)
	return s, nil
}

func (s *Store) migrate(ctx context.Context) error {
	// First of all, so that one whose making is cut off is known again.
	if _, err := s.db.ExecContext(ctx, fmt.Sprintf("PRAGMA application_id = %d", applicationID)); err != nil {
		return err
	}
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, s.db.DB, dir)
	if err != nil {
		return fmt.Errorf("migrations: %w", err)
	}
	if _, err := p.Up(ctx); err != nil {
		return fmt.Errorf("migrate: %w", err)
	}
	return s.Write(ctx, func(ctx context.Context, q Queries) error { return q.renameStored(ctx) })
}

// Close closes the file.
func (s *Store) Close() error {
	err := s.db.Close()
	if s.lock != nil {
		err = errors.Join(err, os.RemoveAll(s.scratches()), s.lock.Close())
	}
	return err
}

// Ping reports whether the file answers, and after a write that found no room whether there is
// some again.
func (s *Store) Ping(ctx context.Context) error {
	if s.full.Load() {
		return s.Write(ctx, func(ctx context.Context, q Queries) error {
			return q.SetSetting(ctx, "room", time.Now().Format(time.RFC3339))
		})
	}
	return s.db.PingContext(ctx)
}

// Intact runs all of SQLite's own checks of the file.
func (s *Store) Intact(ctx context.Context) error { return whole(ctx, s.db, "integrity_check") }

// Read returns queries: those of the snapshot or the transaction that ctx is within, else
// queries that each see what is stored at their time.
func (s *Store) Read(ctx context.Context) Queries {
	if q, ok := ctx.Value(txKey{}).(Queries); ok {
		return q
	}
	return Queries{q: watched(ctx, s.db)}
}

// txKey is the key of the queries of a snapshot or transaction in its context.
type txKey struct{}

// View runs fn on one snapshot: whatever is read under its context is of the same
// instant, and the same question is put to the file once. What was read belongs to all of
// fn and is not to be changed. A view within a view or a transaction is that one.
func (s *Store) View(ctx context.Context, fn func(context.Context) error) error {
	if _, ok := ctx.Value(txKey{}).(Queries); ok {
		return fn(ctx)
	}
	stamp := s.writes.Load()
	tx, err := s.db.BeginTxx(ctx, &sql.TxOptions{ReadOnly: true})
	if err != nil {
		return fmt.Errorf("begin: %w", err)
	}
	q := Queries{q: watched(ctx, tx), seen: &seen{rows: map[string]any{}}, reads: true, stamp: stamp}
	return errors.Join(fn(context.WithValue(ctx, txKey{}, q)), ignoreDone(tx.Rollback()))
}

// Write runs fn in one transaction, which is rolled back if fn fails. What is read under
// its context is read in it, so that what was checked still holds when it is written; a
// write within a write is part of it.
func (s *Store) Write(ctx context.Context, fn func(context.Context, Queries) error) error {
	if q, ok := ctx.Value(txKey{}).(Queries); ok && !q.reads {
		return fn(ctx, q)
	}
	tx, err := s.db.BeginTxx(ctx, nil)
	if err != nil {
		return s.noted(fmt.Errorf("begin: %w", err))
	}
	known := &seen{rows: map[string]any{}}
	q := Queries{q: forgetting{watched(ctx, tx), known}, seen: known}
	forget, err := q.keepParcel(ctx)
	if err != nil {
		return errors.Join(err, ignoreDone(tx.Rollback()))
	}
	err = fn(context.WithValue(ctx, txKey{}, q), q)
	if err == nil {
		err = q.keepAudit(ctx)
	}
	if err != nil {
		forget()
		return s.noted(errors.Join(err, ignoreDone(tx.Rollback())))
	}
	if err := tx.Commit(); err != nil {
		forget()
		return s.noted(errors.Join(fmt.Errorf("commit: %w", err), ignoreDone(tx.Rollback())))
	}
	s.full.Store(false)
	s.writes.Add(1)
	next := make(chan struct{})
	close(*s.next.Swap(&next))
	return nil
}

// noted keeps in mind that a write failed for want of room.
func (s *Store) noted(err error) error {
	err = roomless(err)
	if errors.Is(err, ErrFull) {
		s.full.Store(true)
	}
	return err
}

// Stamp is how many writes were committed before a snapshot: what was made of one of the
// same stamp holds still. There is none outside a snapshot.
func (s *Store) Stamp(ctx context.Context) (stamp uint64, ok bool) {
	q, _ := ctx.Value(txKey{}).(Queries)
	return q.stamp, q.reads
}

// Written is how many writes were committed.
func (s *Store) Written() uint64 { return s.writes.Load() }

// Next is closed when something is written.
func (s *Store) Next() <-chan struct{} { return *s.next.Load() }

func ignoreDone(err error) error {
	if errors.Is(err, sql.ErrTxDone) {
		return nil
	}
	return err
}

// Queries are the statements, in or outside a transaction.
type Queries struct {
	q     sqlx.ExtContext
	seen  *seen // of a snapshot or transaction, nil where others may change what is stored
	reads bool  // and no more: of a snapshot
	stamp uint64
}

// seen are the rows that were read, by question and arguments.
type seen struct {
	sync.Mutex
	rows map[string]any
}

// forget drops what a statement may have changed: of an insert or update, what was read of
// its table; all for any other, such as a deletion, which other tables follow.
func (s *seen) forget(statement string) {
	s.Lock()
	defer s.Unlock()
	m := changes.FindStringSubmatch(statement)
	for key := range s.rows {
		if m == nil || strings.Contains(key, m[1]) {
			delete(s.rows, key)
		}
	}
}

var changes = regexp.MustCompile(`^\s*(?:INSERT INTO|UPDATE) (\w+) `)

// forgetting is a transaction that forgets what it has read when it writes.
type forgetting struct {
	sqlx.ExtContext
	seen *seen
}

func (f forgetting) ExecContext(ctx context.Context, statement string, args ...any) (sql.Result, error) {
	f.seen.forget(statement)
	return f.ExtContext.ExecContext(ctx, statement, args...)
}

// once returns what read gives, or gave to the same question in the snapshot.
func once[T any](q Queries, query string, args []any, read func() (T, error)) (T, error) {
	if q.seen == nil {
		return read()
	}
	key := fmt.Sprintf("%T %s %q", *new(T), query, fmt.Sprint(args...))
	q.seen.Lock()
	defer q.seen.Unlock()
	if got, ok := q.seen.rows[key]; ok {
		return got.(T), nil
	}
	v, err := read()
	if err == nil {
		q.seen.rows[key] = v
	}
	return v, err
}

func one[T any](ctx context.Context, q Queries, query string, args ...any) (T, error) {
	return once(q, query, args, func() (out T, err error) {
		err = sqlx.GetContext(ctx, q.q, &out, query, args...)
		if errors.Is(err, sql.ErrNoRows) {
			err = ErrNotFound
		}
		return out, err
	})
}

func list[T any](ctx context.Context, q Queries, query string, args ...any) ([]T, error) {
	out, err := once(q, query, args, func() ([]T, error) {
		out := []T{}
		err := sqlx.SelectContext(ctx, q.q, &out, query, args...)
		return out, err
	})
	return slices.Clone(out), err
}

func (q Queries) exec(ctx context.Context, query string, args any) (int64, error) {
	res, err := sqlx.NamedExecContext(ctx, q.q, query, args)
	if err != nil {
		return 0, err
	}
	return res.RowsAffected()
}

// edit runs an UPDATE … WHERE id = :id AND version = :version and tells a
// missing row from a stale one.
func (q Queries) edit(ctx context.Context, table, id, update string, row any) error {
	n, err := q.exec(ctx, update, row)
	if err != nil || n == 1 {
		return err
	}
	return q.missing(ctx, table, id)
}

func (q Queries) missing(ctx context.Context, table, id string) error {
	n, err := one[int](ctx, q, "SELECT count(*) FROM "+table+" WHERE id = ?", id)
	if err != nil {
		return err
	}
	if n == 0 {
		return ErrNotFound
	}
	return ErrStale
}

func (q Queries) remove(ctx context.Context, table, id string) error {
	res, err := q.q.ExecContext(ctx, "DELETE FROM "+table+" WHERE id = ?", id)
	if err != nil {
		return err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrNotFound)
	}
	return nil
}

// Ref is an id that may be missing: NULL in the database, empty here.
type Ref string

// Scan implements sql.Scanner.
func (r *Ref) Scan(src any) error {
	switch v := src.(type) {
	case nil:
		*r = ""
	case string:
		*r = Ref(v)
	default:
		return fmt.Errorf("an id holds %T", src)
	}
	return nil
}

// Value implements driver.Valuer.
func (r Ref) Value() (driver.Value, error) {
	if r == "" {
		return nil, nil
	}
	return string(r), nil
}

// JSON is a column that holds a value as JSON text.
type JSON[T any] struct{ V T }

// Scan implements sql.Scanner.
func (j *JSON[T]) Scan(src any) error {
	switch v := src.(type) {
	case string:
		return json.Unmarshal([]byte(v), &j.V)
	case []byte:
		return json.Unmarshal(v, &j.V)
	}
	return fmt.Errorf("a JSON column holds %T", src)
}

// Value implements driver.Valuer.
func (j JSON[T]) Value() (driver.Value, error) {
	raw, err := json.Marshal(j.V)
	return string(raw), err
}
