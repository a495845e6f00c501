package store

import (
	"context"
	"encoding/json"
)

// Fairing is a row of fairings.
type Fairing struct {
	ID        string                `db:"id"`
	Version   int                   `db:"version"`
	SurfaceID string                `db:"surface_id"`
	ReadAt    int64                 `db:"read_at"`
	Readings  JSON[json.RawMessage] `db:"readings"`
}

// Fairings lists the readings of a surface, the oldest first.
func (q Queries) Fairings(ctx context.Context, surfaceID string) ([]Fairing, error) {
	return list[Fairing](ctx, q, "SELECT * FROM fairings WHERE surface_id = ? ORDER BY read_at, id", surfaceID)
}

// FairedSurfaces lists the surfaces of a boat on which gaps were read, the newest first.
func (q Queries) FairedSurfaces(ctx context.Context, boatID string) ([]string, error) {
	return list[string](ctx, q, `SELECT surface_id FROM fairings JOIN surfaces ON surfaces.id = surface_id WHERE boat_id = ?
		GROUP BY surface_id ORDER BY max(read_at) DESC, surface_id`, boatID)
}

// Fairing returns one set of readings.
func (q Queries) Fairing(ctx context.Context, id string) (Fairing, error) {
	return one[Fairing](ctx, q, "SELECT * FROM fairings WHERE id = ?", id)
}

// AddFairing inserts f.
func (q Queries) AddFairing(ctx context.Context, f Fairing) error {
	_, err := q.exec(ctx,
		"INSERT INTO fairings (id, surface_id, read_at, readings) VALUES (:id, :surface_id, :read_at, :readings)", f)
	return err
}

// EditFairing updates f if its version is current.
func (q Queries) EditFairing(ctx context.Context, f Fairing) error {
	return q.edit(ctx, "fairings", f.ID,
		"UPDATE fairings SET version = version + 1, readings = :readings WHERE id = :id AND version = :version", f)
}

// RemoveFairing deletes one.
func (q Queries) RemoveFairing(ctx context.Context, id string) error {
	return q.remove(ctx, "fairings", id)
}
