package store

import "context"

// Device is a phone that was let in.
type Device struct {
	ID       string `db:"id"`
	Name     string `db:"name"`
	Token    []byte `db:"token"` // what is kept of the secret that it shows
	PairedAt int64  `db:"paired_at"`
}

// Devices lists those let in, the last one first.
func (q Queries) Devices(ctx context.Context) ([]Device, error) {
	return list[Device](ctx, q, "SELECT id, name, token, paired_at FROM devices ORDER BY paired_at DESC, id DESC")
}

// AddDevice inserts d.
func (q Queries) AddDevice(ctx context.Context, d Device) error {
	_, err := q.exec(ctx, "INSERT INTO devices (id, name, token, paired_at) VALUES (:id, :name, :token, :paired_at)", d)
	return err
}

// RemoveDevice deletes a device, ErrNotFound if it is not there.
func (q Queries) RemoveDevice(ctx context.Context, id string) error {
	return q.remove(ctx, "devices", id)
}

// KnowsDevice reports whether a device has that token.
func (q Queries) KnowsDevice(ctx context.Context, token []byte) (bool, error) {
	return one[bool](ctx, q, "SELECT EXISTS (SELECT 1 FROM devices WHERE token = ?)", token)
}
