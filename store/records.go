package store

import (
	"context"
	"time"

	"allcoats/core/job/logbook"
	"allcoats/core/physics/weather"
)

// Entry is a row of log_entries. Instants are unix seconds.
type Entry struct {
	ID         string               `db:"id"`
	Version    int                  `db:"version"`
	BoatID     string               `db:"boat_id"`
	SurfaceID  Ref                  `db:"surface_id"`
	Kind       string               `db:"kind"`
	StartedAt  int64                `db:"started_at"`
	ProductID  *string              `db:"product_id"`
	StepID     *string              `db:"step_id"`
	Litres     float64              `db:"litres"`
	WetUm      JSON[[]float64]      `db:"wet_um"`
	ThinnerPct float64              `db:"thinner_pct"`
	Grit       int                  `db:"grit"`
	RemovedUm  float64              `db:"removed_um"`
	Hours      float64              `db:"hours"`
	Who        string               `db:"who"`
	Note       string               `db:"note"`
	Detail     JSON[logbook.Detail] `db:"detail"`
	DeletedAt  *int64               `db:"deleted_at"`
}

// BoatLog lists the entries of a boat by time, deleted ones too.
func (q Queries) BoatLog(ctx context.Context, boatID string) ([]Entry, error) {
	return list[Entry](ctx, q, "SELECT * FROM log_entries WHERE boat_id = ? ORDER BY started_at, id", boatID)
}

// Entry returns one log entry.
func (q Queries) Entry(ctx context.Context, id string) (Entry, error) {
	return one[Entry](ctx, q, "SELECT * FROM log_entries WHERE id = ?", id)
}

// AddEntry inserts e.
func (q Queries) AddEntry(ctx context.Context, e Entry) error {
	_, err := q.exec(ctx, `INSERT INTO log_entries (id, boat_id, surface_id, kind, started_at, product_id, step_id, litres, wet_um, thinner_pct, grit,
		removed_um, hours, who, note, detail) VALUES (:id, :boat_id, :surface_id, :kind, :started_at, :product_id,
		:step_id, :litres, :wet_um, :thinner_pct, :grit,
		:removed_um, :hours, :who, :note, :detail)`, e)
	return err
}

// EditEntry updates e, its deletion mark included, if its version is current, and
// keeps what it was before.
func (q Queries) EditEntry(ctx context.Context, e Entry, at time.Time) error {
	old, err := q.Entry(ctx, e.ID)
	if err != nil {
		return err
	}
	if err := q.edit(ctx, "log_entries", e.ID, `UPDATE log_entries SET version = version + 1, surface_id = :surface_id, kind = :kind,
		started_at = :started_at, product_id = :product_id, step_id = :step_id, litres = :litres, wet_um = :wet_um,
		thinner_pct = :thinner_pct,
		grit = :grit, removed_um = :removed_um, hours = :hours, who = :who, note = :note, detail = :detail,
		deleted_at = :deleted_at
		WHERE id = :id AND version = :version`, e); err != nil {
		return err
	}
	_, err = q.exec(ctx,
		"INSERT INTO log_history (entry_id, version, at, entry) VALUES (:entry_id, :version, :at, :entry)",
		Former{e.ID, old.Version, at.Unix(), JSON[Entry]{old}})
	return err
}

// Former is a row of log_history: an entry before it was corrected at At.
type Former struct {
	EntryID string      `db:"entry_id"`
	Version int         `db:"version"`
	At      int64       `db:"at"`
	Entry   JSON[Entry] `db:"entry"`
}

// EntryHistory lists what an entry was before its corrections, the oldest first.
func (q Queries) EntryHistory(ctx context.Context, id string) ([]Former, error) {
	return list[Former](ctx, q, "SELECT * FROM log_history WHERE entry_id = ? ORDER BY version", id)
}

// Pot is a row of pots. Instants are unix seconds.
type Pot struct {
	ID        string  `db:"id"`
	BoatID    string  `db:"boat_id"`
	SurfaceID Ref     `db:"surface_id"`
	ProductID string  `db:"product_id"`
	Grade     string  `db:"grade"`
	Litres    float64 `db:"litres"`
	MixedAt   int64   `db:"mixed_at"`
	LaidAt    *int64  `db:"laid_at"`
	EmptiedAt *int64  `db:"emptied_at"`
}

// FullPots lists the pots of a boat that are not emptied, the oldest first.
func (q Queries) FullPots(ctx context.Context, boatID string) ([]Pot, error) {
	return list[Pot](ctx, q, "SELECT * FROM pots WHERE boat_id = ? AND emptied_at IS NULL ORDER BY mixed_at, id",
		boatID)
}

// Pot returns one pot.
func (q Queries) Pot(ctx context.Context, id string) (Pot, error) {
	return one[Pot](ctx, q, "SELECT * FROM pots WHERE id = ?", id)
}

// PutPot inserts p, or updates when it was laid and emptied.
func (q Queries) PutPot(ctx context.Context, p Pot) error {
	_, err := q.exec(ctx, `INSERT INTO pots (id, boat_id, surface_id, product_id, grade, litres, mixed_at, laid_at, emptied_at)
		VALUES (:id, :boat_id, :surface_id, :product_id, :grade, :litres, :mixed_at, :laid_at, :emptied_at)
		ON CONFLICT (id) DO UPDATE SET laid_at = :laid_at, emptied_at = :emptied_at`, p)
	return err
}

type hour struct {
	PlaceID   string   `db:"place_id"`
	Measured  bool     `db:"measured"`
	At        int64    `db:"at"`
	TempC     float64  `db:"temp_c"`
	RHPct     float64  `db:"rh_pct"`
	WindMS    *float64 `db:"wind_ms"`
	RainMM    *float64 `db:"rain_mm"`
	CloudPct  *float64 `db:"cloud_pct"`
	Shortwave *float64 `db:"shortwave_wm2"`
}

// Weather returns the measured or the forecast record of a place in [from, to].
func (q Queries) Weather(ctx context.Context, placeID string, measured bool, from,
	to time.Time) (weather.Series, error) {
	rows, err := list[hour](ctx, q,
		`SELECT * FROM weather WHERE place_id = ? AND measured = ? AND at BETWEEN ? AND ? ORDER BY at`,
		placeID, measured, from.Unix(), to.Unix())
	if err != nil {
		return nil, err
	}
	out := make(weather.Series, len(rows))
	for i, r := range rows {
		out[i] = weather.Hour{
			At: time.Unix(r.At, 0).UTC(), TempC: r.TempC, RHPct: r.RHPct, WindMS: r.WindMS, RainMM: r.RainMM,
			CloudPct:     r.CloudPct,
			ShortwaveWM2: r.Shortwave, Measured: r.Measured,
		}
	}
	return out, nil
}

// PutWeather adds s to a place's measured or forecast record, in place of
// what is there at the same instants.
func (q Queries) PutWeather(ctx context.Context, placeID string, measured bool, s weather.Series) error {
	for _, h := range s {
		if _, err := q.exec(ctx, `INSERT OR REPLACE INTO weather (place_id, measured, at, temp_c, rh_pct, wind_ms, rain_mm, cloud_pct, shortwave_wm2)
			VALUES (:place_id, :measured, :at, :temp_c, :rh_pct, :wind_ms, :rain_mm, :cloud_pct, :shortwave_wm2)`,
			hour{placeID, measured, h.At.Unix(), h.TempC, h.RHPct, h.WindMS, h.RainMM, h.CloudPct,
				h.ShortwaveWM2}); err != nil {
			return err
		}
	}
	return nil
}

// DropWeather deletes a place's measured or forecast record from an instant on.
func (q Queries) DropWeather(ctx context.Context, placeID string, measured bool, from time.Time) error {
	_, err := q.q.ExecContext(ctx, "DELETE FROM weather WHERE place_id = ? AND measured = ? AND at >= ?", placeID,
		measured, from.Unix())
	return err
}

// LastWeather returns the last instant of a place's measured or forecast
// record, ErrNotFound if it has none.
func (q Queries) LastWeather(ctx context.Context, placeID string, measured bool) (time.Time, error) {
	at, err := one[int64](ctx, q, "SELECT at FROM weather WHERE place_id = ? AND measured = ? ORDER BY at DESC LIMIT 1",
		placeID, measured)
	return time.Unix(at, 0).UTC(), err
}

// Setting reads a setting into dest, ErrNotFound if it was never written.
func (q Queries) Setting(ctx context.Context, key string) (string, error) {
	return one[string](ctx, q, "SELECT value FROM settings WHERE key = ?", key)
}

// SetSetting writes a setting.
func (q Queries) SetSetting(ctx context.Context, key, value string) error {
	_, err := q.q.ExecContext(ctx,
		"INSERT INTO settings (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value", key,
		value)
	return err
}
