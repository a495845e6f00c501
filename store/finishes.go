package store

import (
	"context"
	"encoding/json"
)

// Finish is a row of finishes. One without a surface is of the boat.
type Finish struct {
	ID        string                `db:"id"`
	Version   int                   `db:"version"`
	BoatID    string                `db:"boat_id"`
	SurfaceID Ref                   `db:"surface_id"`
	Craft     string                `db:"craft"`
	Work      JSON[json.RawMessage] `db:"work"`
}

// BoatFinishes lists what was set for a boat and her surfaces.
func (q Queries) BoatFinishes(ctx context.Context, boatID string) ([]Finish, error) {
	return list[Finish](ctx, q, "SELECT * FROM finishes WHERE boat_id = ? ORDER BY id", boatID)
}

// SetFinish stores f: with version 0 as the first of its craft there, else in the place
// of that version.
func (q Queries) SetFinish(ctx context.Context, f Finish) error {
	if f.Version > 0 {
		return q.edit(ctx, "finishes", f.ID,
			"UPDATE finishes SET version = version + 1, work = :work WHERE id = :id AND version = :version", f)
	}
	n, err := q.exec(ctx, `INSERT INTO finishes (id, boat_id, surface_id, craft, work) VALUES (:id, :boat_id, :surface_id, :craft, :work)
		ON CONFLICT DO NOTHING`, f)
	if err == nil && n == 0 {
		return ErrStale
	}
	return err
}
