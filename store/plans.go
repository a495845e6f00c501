package store

import (
	"context"
	"errors"
)

// Plan is a row of plans; its columns are JSON.
type Plan struct {
	PlaceID  string `db:"place_id"`
	Version  int    `db:"version"`
	Settings string `db:"settings"`
	Starts   string `db:"starts"`
	Before   string `db:"before"`
	Redo     string `db:"redo"`
	After    string `db:"after"`
}

// Plan returns the plan of a place, ErrNotFound if there is none yet.
func (q Queries) Plan(ctx context.Context, placeID string) (Plan, error) {
	return one[Plan](ctx, q, "SELECT * FROM plans WHERE place_id = ?", placeID)
}

// PutPlan stores a plan if its version is current; a first one has version 0.
func (q Queries) PutPlan(ctx context.Context, p Plan) error {
	if p.Version == 0 {
		n, err := q.exec(ctx,
			`INSERT INTO plans (place_id, settings, starts, before, redo) VALUES (:place_id, :settings, :starts, :before, :redo) ON CONFLICT DO NOTHING`, p)
		if err == nil && n == 0 {
			err = ErrStale
		}
		return err
	}
	n, err := q.exec(ctx, `UPDATE plans SET version = version + 1, settings = :settings, starts = :starts, before = :before, redo = :redo
		WHERE place_id = :place_id AND version = :version`, p)
	if err == nil && n == 0 {
		_, err = q.Plan(ctx, p.PlaceID)
		return errors.Join(err, ErrStale)
	}
	return err
}
