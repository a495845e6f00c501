// Package standing hands out the standing demo, built once a process, to tests and to
// the maker of pictures.
package standing

import (
	"context"
	"errors"
	"os"
	"path/filepath"
	"sync"

	"allcoats/app"
	"allcoats/demo"
	"allcoats/instruments"
	"allcoats/store"
)

var built = sync.OnceValues(func() ([]byte, error) {
	ctx := context.Background()
	dir, err := os.MkdirTemp("", "allcoats-standing")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(dir)
	s, err := store.Open(ctx, filepath.Join(dir, "demo.db"))
	if err != nil {
		return nil, err
	}
	a, err := app.New(ctx, s, instruments.Forecast{Seed: demo.Seed})
	if err == nil {
		err = demo.Build(ctx, a, demo.Now, app.FixedClock)
	}
	var raw []byte
	if err == nil {
		raw, err = a.BackupFile(ctx)
	}
	return raw, errors.Join(err, s.Close())
})

// Write puts the standing demo into a new database at path.
func Write(path string) error {
	raw, err := built()
	if err != nil {
		return err
	}
	return os.WriteFile(path, raw, 0o600)
}
