// Package app holds the use cases: load, ask the core, save. It is the only
// place where the store and the core meet.
package app

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"sync"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/catalog/product"
	"allcoats/core/exposure/reading"
	"allcoats/core/exposure/surface"
	"allcoats/core/physics/solar"
	"allcoats/store"

	"github.com/google/uuid"
)

// Service is a weather service: it gives the hours in [from, to] of a place as
// known at issued, as a document that formats.ReadForecast reads.
type Service interface {
	Forecast(lat, lon float64, from, to, issued time.Time) ([]byte, error)
}

// App is the program without its ways in. It is safe for concurrent use.
type App struct {
	store    *store.Store
	forecast Service
	now      func() time.Time // the real clock
	refresh  sync.Mutex
	live     live
	standing standing
	skies    surface.Memory
	days     solar.Days
}

// New returns the use cases over s, with the example products in a library
// that was never filled.
func New(ctx context.Context, s *store.Store, forecast Service) (*App, error) {
	a := &App{store: s, forecast: forecast, now: time.Now, live: live{values: map[string][]reading.Value{},
		pours: map[string]pour{}}, standing: standing{yards: map[string]*standingYard{}, odds: map[string]*oddsMade{}}}
	return a, a.stockLibrary(ctx)
}

// stockLibrary puts the example products into a new database, once.
func (a *App) stockLibrary(ctx context.Context) error {
	const key = "library-stocked"
	if _, err := a.store.Read(ctx).Setting(ctx, key); !errors.Is(err, store.ErrNotFound) {
		return err
	}
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		for _, s := range product.Examples() {
			if err := q.AddProduct(ctx,
				store.Product{ID: newID(), Sheet: store.SheetOf(s)}); err != nil {
				return err
			}
		}
		return q.SetSetting(ctx, key, "true")
	})
}

func newID() string { return uuid.Must(uuid.NewV7()).String() }

// demoKey marks a database that holds the demo, which is made anew at every start.
const demoKey = "demo"

// MarkDemo marks the database as the demo's own.
func (a *App) MarkDemo(ctx context.Context) error {
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		return q.SetSetting(ctx, demoKey, "true")
	})
}

// IsDemo reports whether a database holds the demo.
func IsDemo(ctx context.Context, s *store.Store) (bool, error) {
	_, err := s.Read(ctx).Setting(ctx, demoKey)
	if errors.Is(err, store.ErrNotFound) {
		return false, nil
	}
	return err == nil, err
}

// ErrFull means that the disk has no room: nothing was stored.
var ErrFull = store.ErrFull

// ErrNotFound means that the thing asked for is not there.
var ErrNotFound = store.ErrNotFound

// ErrTaken means that what a client sends under an id was stored already.
var ErrTaken = store.ErrTaken

// AsParcel has what is written first under a context written once, however often a client sends it
// under an id.
func AsParcel(ctx context.Context, id string) context.Context { return store.AsParcel(ctx, id) }

// KnowsParcel reports whether what was sent under an id was stored.
func (a *App) KnowsParcel(ctx context.Context, id string) (bool, error) {
	return a.store.Read(ctx).KnowsParcel(ctx, id)
}

// Conflict means that the thing edited has another version than the edit was
// made on. Current is what is stored now.
type Conflict struct{ Current any }

func (Conflict) Error() string {
	return "this was changed elsewhere in the meantime; both versions are shown, nothing is stored"
}

// InUse means that a thing cannot be deleted because others need it.
type InUse struct{ By []string }

func (e InUse) Error() string { return fmt.Sprintf("in use by %v", e.By) }

// change runs a use case that writes in one transaction: what it checks still holds when
// it writes, and what it answers with is what it wrote.
func change[T any](ctx context.Context, a *App, fn func(context.Context) (T, error)) (out T, err error) {
	err = a.store.Write(ctx, func(ctx context.Context, _ store.Queries) error {
		out, err = fn(ctx)
		return err
	})
	return out, err
}

// View runs a use case that only reads on one snapshot.
func (a *App) View(ctx context.Context, fn func(context.Context) error) error {
	return a.store.View(ctx, fn)
}

// stale turns a stale edit into a Conflict with what current returns.
func stale[T any](err error, current func() (T, error)) error {
	if !errors.Is(err, store.ErrStale) {
		return err
	}
	c, err := current()
	if err != nil {
		return err
	}
	return Conflict{c}
}

// ClockMode is how the program tells the time.
type ClockMode string

// Clock modes.
const (
	RealClock    ClockMode = "real"
	FixedClock   ClockMode = "fixed"   // stands at one instant
	RunningClock ClockMode = "running" // runs on from an instant
)

// ClockSetting is how the program tells the time. At is the instant it stands at or was set to,
// SetAt when, by the real clock.
type ClockSetting struct {
	Mode  ClockMode `json:"mode" enum:"real,fixed,running"`
	At    time.Time `json:"at"`
	SetAt time.Time `json:"setAt"`
}

const clockKey = "clock"

// Clock returns the clock setting; a new database follows the real clock.
func (a *App) Clock(ctx context.Context) (ClockSetting, error) {
	raw, err := a.store.Read(ctx).Setting(ctx, clockKey)
	if errors.Is(err, store.ErrNotFound) {
		return ClockSetting{Mode: RealClock}, nil
	}
	if err != nil {
		return ClockSetting{}, err
	}
	var c ClockSetting
	return c, json.Unmarshal([]byte(raw), &c)
}

// Now returns the program's time, UTC, to the second.
func (a *App) Now(ctx context.Context) (time.Time, error) {
	c, err := a.Clock(ctx)
	if err != nil {
		return time.Time{}, err
	}
	t := a.now()
	switch c.Mode {
	case FixedClock:
		t = c.At
	case RunningClock:
		t = c.At.Add(t.Sub(c.SetAt))
	case RealClock:
	}
	return t.UTC().Truncate(time.Second), nil
}

// Edition is what answers are made of: as many writes, the same odds, the same minute. Asked before
// the answer is made, it is of nothing newer than that.
type Edition struct {
	Writes, Odds uint64
	Minute       time.Time
}

// Edition returns the one that stands.
func (a *App) Edition(ctx context.Context) (Edition, error) {
	e := Edition{Writes: a.store.Written(), Odds: a.standing.bets.Load()}
	now, err := a.Now(ctx)
	e.Minute = now.Truncate(time.Minute)
	return e, err
}

const (
	together = 300 * time.Millisecond // what is written within it is told as one change
	stillOn  = 15 * time.Second       // is how often one who follows hears that nothing changed
)

// Follow tells the edition that stands, each new one, and now and then that it still stands, until
// ctx ends or told fails.
func (a *App) Follow(ctx context.Context, told func(Edition) error) error {
	still := time.NewTicker(stillOn)
	defer still.Stop()
	for {
		next := a.store.Next()
		e, err := a.Edition(ctx)
		if err == nil {
			err = told(e)
		}
		if err != nil {
			return err
		}
		select {
		case <-still.C:
		case <-next:
			select {
			case <-time.After(together):
			case <-ctx.Done():
			}
		case <-ctx.Done():
		}
		if ctx.Err() != nil {
			return nil
		}
	}
}

// SetClock sets the program's clock and brings the simulated weather up to it.
func (a *App) SetClock(ctx context.Context, mode ClockMode, at time.Time) error {
	var bad fielderr.Errors
	fielderr.OneOf(&bad, "mode", mode, []ClockMode{RealClock, FixedClock, RunningClock})
	if y := at.Year(); mode != RealClock && (y < 2000 || y > 2100) {
		bad.Add("at", "must be a time between 2000 and 2100")
	}
	if err := bad.Err(); err != nil {
		return err
	}
	raw, err := json.Marshal(ClockSetting{mode, at.UTC(), a.now().UTC()})
	if err != nil {
		return err
	}
	if err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		return q.SetSetting(ctx, clockKey, string(raw))
	}); err != nil {
		return err
	}
	return a.RefreshWeather(ctx)
}

// Run keeps the simulated weather up to date until ctx ends.
func (a *App) Run(ctx context.Context) {
	t := time.NewTicker(5 * time.Minute)
	defer t.Stop()
	for {
		if err := a.RefreshWeather(ctx); err != nil && ctx.Err() == nil {
			slog.Error("refresh weather", "err", err)
		}
		if err := a.keepCopy(ctx); err != nil && ctx.Err() == nil {
			slog.Error("copy of the day", "err", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-t.C:
		}
	}
}

// Healthy reports whether the database answers.
func (a *App) Healthy(ctx context.Context) error { return a.store.Ping(ctx) }
