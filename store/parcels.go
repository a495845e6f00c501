package store

import (
	"context"
	"errors"
	"time"
)

// ErrTaken means that what a client sends was stored already.
var ErrTaken = errors.New("this was stored already")

// parcel is what a client sends once, under an id that it sends again if it saw no answer.
type parcel struct {
	id   string
	kept bool
}

type parcelKey struct{}

// AsParcel lets the first transaction under a context that is written keep id with what it writes: it is
// written once, however often it is sent.
func AsParcel(ctx context.Context, id string) context.Context {
	return context.WithValue(ctx, parcelKey{}, &parcel{id: id})
}

// parcelDays is how long ids are known: longer than a phone lies forgotten over a winter.
const parcelDays = 400

// keepParcel writes the id of the parcel that ctx is of, once, ErrTaken if it is there. forget takes it
// back when the transaction is.
func (q Queries) keepParcel(ctx context.Context) (forget func(), err error) {
	p, ok := ctx.Value(parcelKey{}).(*parcel)
	if !ok || p.kept {
		return func() {}, nil
	}
	now := time.Now()
	if _, err := q.q.ExecContext(ctx, "DELETE FROM parcels WHERE at < ?",
		now.AddDate(0, 0, -parcelDays).Unix()); err != nil {
		return nil, err
	}
	res, err := q.q.ExecContext(ctx, "INSERT INTO parcels (id, at) VALUES (?, ?) ON CONFLICT DO NOTHING", p.id,
		now.Unix())
	if err != nil {
		return nil, err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return nil, errors.Join(err, ErrTaken)
	}
	p.kept = true
	return func() { p.kept = false }, nil
}

// KnowsParcel reports whether what was sent under an id was stored.
func (q Queries) KnowsParcel(ctx context.Context, id string) (bool, error) {
	return one[bool](ctx, q, "SELECT EXISTS (SELECT 1 FROM parcels WHERE id = ?)", id)
}
