package store

import (
	"context"
	"time"

	"allcoats/core/physics/weather"
)

type issued struct {
	PlaceID  string               `db:"place_id"`
	IssuedAt int64                `db:"issued_at"`
	Hours    JSON[weather.Series] `db:"hours"`
}

// Issued lists the forecasts kept of a place, by when they were issued.
func (q Queries) Issued(ctx context.Context, placeID string) ([]weather.Issued, error) {
	rows, err := list[issued](ctx, q, "SELECT * FROM forecasts WHERE place_id = ? ORDER BY issued_at", placeID)
	out := make([]weather.Issued, len(rows))
	for i, r := range rows {
		out[i] = weather.Issued{At: time.Unix(r.IssuedAt, 0).UTC(), Hours: r.Hours.V}
	}
	return out, err
}

// LastIssued is when the last forecast kept of a place was issued, ErrNotFound if none is.
func (q Queries) LastIssued(ctx context.Context, placeID string) (time.Time, error) {
	at, err := one[int64](ctx, q, "SELECT issued_at FROM forecasts WHERE place_id = ? ORDER BY issued_at DESC LIMIT 1",
		placeID)
	return time.Unix(at, 0).UTC(), err
}

// KeepIssued keeps a forecast of a place.
func (q Queries) KeepIssued(ctx context.Context, placeID string, f weather.Issued) error {
	_, err := q.exec(ctx,
		"INSERT OR REPLACE INTO forecasts (place_id, issued_at, hours) VALUES (:place_id, :issued_at, :hours)",
		issued{placeID, f.At.Unix(), JSON[weather.Series]{V: f.Hours}})
	return err
}

// DropIssued deletes the forecasts of a place that were issued before from or after to.
func (q Queries) DropIssued(ctx context.Context, placeID string, from, to time.Time) error {
	_, err := q.q.ExecContext(ctx, "DELETE FROM forecasts WHERE place_id = ? AND (issued_at < ? OR issued_at > ?)",
		placeID, from.Unix(), to.Unix())
	return err
}
