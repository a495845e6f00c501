package store

import (
	"context"
	"time"
)

// User is a person who may come in.
type User struct {
	ID        string `db:"id"`
	Name      string `db:"name"`
	Hash      []byte `db:"hash"` // of the passphrase
	May       string `db:"may"`
	CreatedAt int64  `db:"created_at"`
}

// Users lists the people, by name.
func (q Queries) Users(ctx context.Context) ([]User, error) {
	return list[User](ctx, q, "SELECT id, name, hash, may, created_at FROM users ORDER BY name")
}

// PutUser inserts u, or changes the one of its id.
func (q Queries) PutUser(ctx context.Context, u User) error {
	_, err := q.exec(ctx, `INSERT INTO users (id, name, hash, may, created_at) VALUES (:id, :name, :hash, :may, :created_at)
		ON CONFLICT (id) DO UPDATE SET name = :name, hash = :hash, may = :may`, u)
	return err
}

// RemoveUser deletes a person with all sessions, ErrNotFound if there is none.
func (q Queries) RemoveUser(ctx context.Context, id string) error { return q.remove(ctx, "users", id) }

// AddSession lets a person in until an instant who shows the secret of which token is kept, and
// forgets the sessions that have ended.
func (q Queries) AddSession(ctx context.Context, token []byte, userID string, now, until time.Time) error {
	if _, err := q.q.ExecContext(ctx, "DELETE FROM sessions WHERE until < ?", now.Unix()); err != nil {
		return err
	}
	_, err := q.q.ExecContext(ctx, "INSERT INTO sessions (token, user_id, until) VALUES (?, ?, ?)", token, userID,
		until.Unix())
	return err
}

// SessionUser is the person of a session that has not ended, ErrNotFound if there is none.
func (q Queries) SessionUser(ctx context.Context, token []byte, now time.Time) (User, error) {
	return one[User](ctx, q, `SELECT users.id, name, hash, may, created_at FROM sessions JOIN users ON users.id = user_id
		WHERE token = ? AND until >= ?`, token, now.Unix())
}

// EndSessions ends one session, or with a nil token all of a person.
func (q Queries) EndSessions(ctx context.Context, token []byte, userID string) error {
	_, err := q.q.ExecContext(ctx, "DELETE FROM sessions WHERE token = ? OR ? IS NULL AND user_id = ?", token, token,
		userID)
	return err
}

// AuditEntry is a write by somebody.
type AuditEntry struct {
	At   int64  `db:"at"`
	Who  string `db:"who"`
	What string `db:"what"`
	Path string `db:"path"`
}

type byKey struct{}

// By has every transaction under a context that writes keep who does what.
func By(ctx context.Context, c AuditEntry) context.Context { return context.WithValue(ctx, byKey{}, c) }

// keptAudit is how many changes are kept.
const keptAudit = 20_000

// keepAudit writes down who does what a transaction does.
func (q Queries) keepAudit(ctx context.Context) error {
	c, ok := ctx.Value(byKey{}).(AuditEntry)
	if !ok {
		return nil
	}
	res, err := q.q.ExecContext(ctx, "INSERT INTO audit (at, who, what, path) VALUES (?, ?, ?, ?)", c.At, c.Who, c.What,
		c.Path)
	if err != nil {
		return err
	}
	id, err := res.LastInsertId()
	if err != nil {
		return err
	}
	_, err = q.q.ExecContext(ctx, "DELETE FROM audit WHERE id <= ?", id-keptAudit)
	return err
}

// Audit lists the last changes, the newest first.
func (q Queries) Audit(ctx context.Context, most int) ([]AuditEntry, error) {
	return list[AuditEntry](ctx, q, "SELECT at, who, what, path FROM audit ORDER BY id DESC LIMIT ?", most)
}
