package store

import "context"

// Device is a phone that was let in.
type Device struct {
	ID       string `db:"id"`
	Name     string `db:"name"`
	Token    []byte `db:"token"` // what is kept of the secret that it shows
	PairedAt int64  `db:"paired_at"`
	May      string `db:"may"`
}

// Devices lists those let in, the last one first.
func (q Queries) Devices(ctx context.Context) ([]Device, error) {
	return list[Device](ctx, q, "SELECT id, name, token, paired_at, may FROM devices ORDER BY paired_at DESC, id DESC")
}

// AddDevice inserts d.
func (q Queries) AddDevice(ctx context.Context, d Device) error {
	_, err := q.exec(ctx,
		"INSERT INTO devices (id, name, token, paired_at, may) VALUES (:id, :name, :token, :paired_at, :may)", d)
	return err
}

// RemoveDevice deletes a device, ErrNotFound if it is not there.
func (q Queries) RemoveDevice(ctx context.Context, id string) error {
	return q.remove(ctx, "devices", id)
}

// KnowsDevice is the device that has that token, ErrNotFound if none has.
func (q Queries) KnowsDevice(ctx context.Context, token []byte) (Device, error) {
	return one[Device](ctx, q, "SELECT id, name, token, paired_at, may FROM devices WHERE token = ?", token)
}
