package store

import "context"

// System is a row of systems.
type System struct {
	ID      string       `db:"id"`
	Version int          `db:"version"`
	Name    string       `db:"name"`
	Note    string       `db:"note"`
	Steps   JSON[[]Step] `db:"steps"`
}

// Systems lists the systems by name.
func (q Queries) Systems(ctx context.Context) ([]System, error) {
	return list[System](ctx, q, "SELECT * FROM systems ORDER BY name, id")
}

// System returns one system.
func (q Queries) System(ctx context.Context, id string) (System, error) {
	return one[System](ctx, q, "SELECT * FROM systems WHERE id = ?", id)
}

const keepVersion = "INSERT INTO system_versions (system_id, version, at, steps) VALUES (:id, :version, :at, :steps)"

// AddSystem inserts s and keeps its first version.
func (q Queries) AddSystem(ctx context.Context, s System, at int64) error {
	if _, err := q.exec(ctx, "INSERT INTO systems (id, name, note, steps) VALUES (:id, :name, :note, :steps)",
		s); err != nil {
		return err
	}
	_, err := q.exec(ctx, keepVersion, map[string]any{"id": s.ID, "version": 1, "at": at, "steps": s.Steps})
	return err
}

// EditSystem updates s if its version is current, and keeps the new one.
func (q Queries) EditSystem(ctx context.Context, s System, at int64) error {
	if err := q.edit(ctx, "systems", s.ID,
		"UPDATE systems SET version = version + 1, name = :name, note = :note, steps = :steps WHERE id = :id AND version = :version", s); err != nil {
		return err
	}
	_, err := q.exec(ctx, keepVersion, map[string]any{"id": s.ID, "version": s.Version + 1, "at": at, "steps": s.Steps})
	return err
}

// RemoveSystem deletes a system with its versions.
func (q Queries) RemoveSystem(ctx context.Context, id string) error {
	return q.remove(ctx, "systems", id)
}

// SystemVersion is a row of system_versions.
type SystemVersion struct {
	SystemID string       `db:"system_id"`
	Version  int          `db:"version"`
	At       int64        `db:"at"`
	Steps    JSON[[]Step] `db:"steps"`
}

// SystemVersions lists the versions of all systems, the newest first.
func (q Queries) SystemVersions(ctx context.Context) ([]SystemVersion, error) {
	return list[SystemVersion](ctx, q, "SELECT * FROM system_versions ORDER BY system_id, version DESC")
}

// Overrule is a row of overrules.
type Overrule struct {
	SurfaceID string `db:"surface_id"`
	StepID    string `db:"step_id"`
	Rule      string `db:"rule"`
	Reason    string `db:"reason"`
	At        int64  `db:"at"`
}

// BoatOverrules lists what was overruled on a boat.
func (q Queries) BoatOverrules(ctx context.Context, boatID string) ([]Overrule, error) {
	return list[Overrule](ctx, q, `SELECT overrules.* FROM overrules JOIN surfaces ON surfaces.id = overrules.surface_id
		WHERE surfaces.boat_id = ? ORDER BY at`, boatID)
}

// SetOverrule lets a finding stand, with a reason; without one it counts again.
func (q Queries) SetOverrule(ctx context.Context, o Overrule) error {
	if o.Reason == "" {
		_, err := q.exec(ctx,
			"DELETE FROM overrules WHERE surface_id = :surface_id AND step_id = :step_id AND rule = :rule", o)
		return err
	}
	_, err := q.exec(ctx, `INSERT INTO overrules (surface_id, step_id, rule, reason, at) VALUES (:surface_id, :step_id, :rule, :reason, :at)
		ON CONFLICT DO UPDATE SET reason = :reason, at = :at`, o)
	return err
}

// Stock is a row of stock.
type Stock struct {
	ID        string  `db:"id"`
	Version   int     `db:"version"`
	ProductID string  `db:"product_id"`
	Part      string  `db:"part"`
	Litres    float64 `db:"litres"`
	Batch     string  `db:"batch"`
	Supplier  string  `db:"supplier"`
	Shelf     string  `db:"shelf"`
	Note      string  `db:"note"`
	BoughtOn  string  `db:"bought_on"`
	OpenedOn  string  `db:"opened_on"`
	ExpiresOn string  `db:"expires_on"`
	ArrivesOn string  `db:"arrives_on"` // '' is there already
	CountedAt int64   `db:"counted_at"`
}

// AllStock lists what stands on the shelf, the oldest first.
func (q Queries) AllStock(ctx context.Context) ([]Stock, error) {
	return list[Stock](ctx, q, "SELECT * FROM stock ORDER BY counted_at, id")
}

// StockItem returns one of them.
func (q Queries) StockItem(ctx context.Context, id string) (Stock, error) {
	return one[Stock](ctx, q, "SELECT * FROM stock WHERE id = ?", id)
}

// AddStock inserts s.
func (q Queries) AddStock(ctx context.Context, s Stock) error {
	_, err := q.exec(ctx, `INSERT INTO stock (id, product_id, part, litres, batch, supplier, shelf, note, bought_on, opened_on, expires_on, arrives_on, counted_at)
		VALUES (:id, :product_id, :part, :litres, :batch, :supplier, :shelf, :note, :bought_on, :opened_on,
		:expires_on, :arrives_on, :counted_at)`, s)
	return err
}

// EditStock updates s if its version is current.
func (q Queries) EditStock(ctx context.Context, s Stock) error {
	return q.edit(ctx, "stock", s.ID, `UPDATE stock SET version = version + 1, product_id = :product_id, part = :part, litres = :litres, batch = :batch,
		supplier = :supplier, shelf = :shelf, note = :note, bought_on = :bought_on, opened_on = :opened_on,
		expires_on = :expires_on, arrives_on = :arrives_on,
		counted_at = :counted_at WHERE id = :id AND version = :version`, s)
}

// RemoveStock deletes one.
func (q Queries) RemoveStock(ctx context.Context, id string) error { return q.remove(ctx, "stock", id) }

// Use is what was logged of a product.
type Use struct {
	ProductID string  `db:"product_id"`
	StartedAt int64   `db:"started_at"`
	Litres    float64 `db:"litres"`
}

// Uses lists the litres of all logged coats of all boats, by time.
func (q Queries) Uses(ctx context.Context) ([]Use, error) {
	return list[Use](ctx, q, `SELECT product_id, started_at, litres FROM log_entries
		WHERE deleted_at IS NULL AND product_id IS NOT NULL AND litres > 0 ORDER BY started_at`)
}
