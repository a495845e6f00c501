package app

import (
	"context"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/store"
)

// Device is a phone that was let in, until it is removed.
type Device struct {
	ID       string    `json:"id"`
	Name     string    `json:"name"`
	PairedAt time.Time `json:"pairedAt"`
	May      May       `json:"may"`
}

// Devices lists the phones that were let in, the last one first.
func (a *App) Devices(ctx context.Context) ([]Device, error) {
	rows, err := a.store.Read(ctx).Devices(ctx)
	out := make([]Device, len(rows))
	for i, r := range rows {
		out[i] = deviceOf(r)
	}
	return out, err
}

// AddDevice lets a phone in that shows the secret of which token is kept.
func (a *App) AddDevice(ctx context.Context, name string, token []byte, at time.Time) error {
	name = strings.TrimSpace(name)
	if name == "" || len(name) > 60 {
		return fielderr.At("name", "name this phone, with at most 60 letters")
	}
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		return q.AddDevice(ctx, store.Device{ID: newID(), Name: name, Token: token, PairedAt: at.Unix(),
			May: string(MayPlan)})
	})
}

// RemoveDevice shuts a phone out again.
func (a *App) RemoveDevice(ctx context.Context, id string) error {
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error { return q.RemoveDevice(ctx, id) })
}

// KnowsDevice is the phone that was let in with that token, ErrNotFound if none was.
func (a *App) KnowsDevice(ctx context.Context, token []byte) (Device, error) {
	r, err := a.store.Read(ctx).KnowsDevice(ctx, token)
	return deviceOf(r), err
}

func deviceOf(r store.Device) Device {
	return Device{r.ID, r.Name, time.Unix(r.PairedAt, 0).UTC(), May(r.May)}
}
