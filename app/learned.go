package app

import (
	"context"
	"errors"
	"time"

	"allcoats/core/exposure/reading"
	"allcoats/core/physics/weather"
	"allcoats/store"
)

// How a place's forecasts are kept to be held against what came: one a day, for a season.
const (
	issuedApart = 20 * time.Hour
	issuedKept  = 90 * 24 * time.Hour
)

// enoughForecasts are as many as it takes until the place's own errors count.
const enoughForecasts = 14

// keepIssued keeps a forecast that was issued now, if the last was not kept a moment ago, and
// learns from all that are kept.
func keepIssued(ctx context.Context, q store.Queries, p Place, f weather.Issued) error {
	last, err := q.LastIssued(ctx, p.ID)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return err
	}
	if len(f.Hours) == 0 || err == nil && f.At.Sub(last) < issuedApart && !f.At.Before(last) {
		return nil
	}
	if err := errors.Join(q.KeepIssued(ctx, p.ID, f), q.DropIssued(ctx, p.ID, f.At.Add(-issuedKept),
		f.At)); err != nil {
		return err
	}
	return learnErrors(ctx, q, p, f.At)
}

// learnErrors holds the forecasts that are kept against what was measured: the place's record, and
// what its loggers in the open showed.
func learnErrors(ctx context.Context, q store.Queries, p Place, now time.Time) error {
	issued, err := q.Issued(ctx, p.ID)
	if err != nil {
		return err
	}
	came, err := q.Weather(ctx, p.ID, true, now.Add(-issuedKept), now)
	if err != nil {
		return err
	}
	instruments, err := q.Instruments(ctx, p.ID)
	if err != nil {
		return err
	}
	readings, err := q.PlaceReadings(ctx, p.ID, now.Add(-issuedKept), now)
	if err != nil {
		return err
	}
	for _, i := range instruments {
		if reading.Kind(i.Kind) == reading.InOpen {
			came, _ = reading.Air(came, readings[i.ID], now, p.location())
		}
	}
	l := weather.LearnErrors(issued, came, p.habits())
	return q.Learn(ctx, p.ID, &l)
}
