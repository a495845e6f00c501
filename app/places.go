package app

import (
	"context"
	"errors"
	"fmt"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/physics/weather"
	"allcoats/formats"
	"allcoats/instruments"
	"allcoats/store"
)

// Place is where boats stand and what weather they have.
type Place struct {
	ID      string `json:"id"`
	Version int    `json:"version"`
	PlaceEdit
	// Learned is what the place's forecasts were off by, held against what was measured; it counts
	// from EnoughForecasts on.
	Learned         *weather.Learned `json:"learned,omitempty"`
	EnoughForecasts int              `json:"enoughForecasts"`
}

// PlaceEdit is what a user can set of a place.
type PlaceEdit struct {
	Name         string  `json:"name"`
	LatitudeDeg  float64 `json:"latitudeDeg"`
	LongitudeDeg float64 `json:"longitudeDeg"`
	// TimeZone is an IANA name such as Europe/London.
	TimeZone      string `json:"timeZone"`
	WeatherSource string `json:"weatherSource" enum:"simulated,imported,told"`
	// Normals are the usual months of the place, without them those of a coast at
	// its latitude.
	Normals *weather.Normals `json:"normals,omitempty"`
}

// normals are the usual months of the place.
func (p PlaceEdit) normals() weather.Normals {
	if p.Normals != nil {
		return *p.Normals
	}
	return weather.UsualNormals(p.LatitudeDeg)
}

// habits are what is known of the weather of the place.
func (p Place) habits() weather.Habits {
	h := weather.Habits{Normals: p.normals(), Loc: p.location()}
	if p.Learned != nil && p.Learned.Forecasts >= enoughForecasts {
		h.Errors = p.Learned.Errors
	}
	return h
}

// Where a place's weather comes from.
const (
	Simulated = "simulated"
	Imported  = "imported"
	// Told is in a user's own words.
	Told = "told"
)

func (p PlaceEdit) validate() error {
	var bad fielderr.Errors
	if p.Name == "" {
		bad.Add("name", "give the place a name")
	}
	bad.Range("latitudeDeg", p.LatitudeDeg, -90, 90, "°")
	bad.Range("longitudeDeg", p.LongitudeDeg, -180, 180, "°")
	if _, err := time.LoadLocation(p.TimeZone); err != nil || p.TimeZone == "" || p.TimeZone == "Local" {
		bad.Add("timeZone", "%q is not a time zone such as Europe/London", p.TimeZone)
	}
	fielderr.OneOf(&bad, "weatherSource", p.WeatherSource, []string{Simulated, Imported, Told})
	if p.Normals != nil {
		bad.Under("normals", p.Normals.Validate())
	}
	return bad.Err()
}

func (p PlaceEdit) row(id string, version int) store.Place {
	return store.Place{ID: id, Version: version, Name: p.Name, LatitudeDeg: p.LatitudeDeg, LongitudeDeg: p.LongitudeDeg,
		TimeZone: p.TimeZone, WeatherSource: p.WeatherSource,
		Normals: store.JSON[*weather.Normals]{V: p.Normals}}
}

func placeOf(r store.Place) Place {
	return Place{r.ID, r.Version, PlaceEdit{r.Name, r.LatitudeDeg, r.LongitudeDeg, r.TimeZone, r.WeatherSource,
		r.Normals.V}, r.Learned.V, enoughForecasts}
}

func (p PlaceEdit) location() *time.Location {
	loc, err := time.LoadLocation(p.TimeZone)
	if err != nil {
		return time.UTC
	}
	return loc
}

// Places lists the places.
func (a *App) Places(ctx context.Context) ([]Place, error) {
	rows, err := a.store.Read(ctx).Places(ctx)
	out := make([]Place, len(rows))
	for i, r := range rows {
		out[i] = placeOf(r)
	}
	return out, err
}

// Place returns one place.
func (a *App) Place(ctx context.Context, id string) (Place, error) {
	r, err := a.store.Read(ctx).Place(ctx, id)
	return placeOf(r), err
}

// AddPlace stores a new place and, if it is simulated, its weather.
func (a *App) AddPlace(ctx context.Context, e PlaceEdit) (Place, error) {
	return change(ctx, a, func(ctx context.Context) (Place, error) {
		if err := e.validate(); err != nil {
			return Place{}, err
		}
		id := newID()
		if err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			return q.AddPlace(ctx, e.row(id, 1))
		}); err != nil {
			return Place{}, err
		}
		if err := a.RefreshWeather(ctx); err != nil {
			return Place{}, err
		}
		return a.Place(ctx, id)
	})
}

// EditPlace changes a place. A move, or a change of weather source, drops the
// simulated record of the old one.
func (a *App) EditPlace(ctx context.Context, id string, version int, e PlaceEdit) (Place, error) {
	return change(ctx, a, func(ctx context.Context) (Place, error) {
		if err := e.validate(); err != nil {
			return Place{}, err
		}
		err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			old, err := q.Place(ctx, id)
			if err != nil {
				return err
			}
			if err := q.EditPlace(ctx, e.row(id, version)); err != nil {
				return err
			}
			moved := old.LatitudeDeg != e.LatitudeDeg || old.LongitudeDeg != e.LongitudeDeg ||
				old.WeatherSource != e.WeatherSource
			if old.WeatherSource == Simulated && moved {
				return dropAll(ctx, q, id)
			}
			return nil
		})
		if err != nil {
			return Place{}, stale(err, func() (Place, error) { return a.Place(ctx, id) })
		}
		if err := a.RefreshWeather(ctx); err != nil {
			return Place{}, err
		}
		return a.Place(ctx, id)
	})
}

func dropAll(ctx context.Context, q store.Queries, placeID string) error {
	return errors.Join(q.DropWeather(ctx, placeID, true, time.Unix(0, 0)),
		q.DropWeather(ctx, placeID, false, time.Unix(0, 0)),
		q.DropIssued(ctx, placeID, time.Unix(0, 0), time.Unix(-1, 0)), q.Learn(ctx, placeID, nil))
}

// history is how far back a simulated place's record begins.
const history = 60 * 24 * time.Hour

// RefreshWeather brings every simulated place's record up to now: measured so
// far, and a new forecast.
func (a *App) RefreshWeather(ctx context.Context) error {
	a.refresh.Lock()
	defer a.refresh.Unlock()
	now, err := a.Now(ctx)
	if err != nil {
		return err
	}
	hour := now.Truncate(time.Hour)
	places, err := a.store.Read(ctx).Places(ctx)
	if err != nil {
		return err
	}
	for _, p := range places {
		if p.WeatherSource != Simulated {
			continue
		}
		last, err := a.store.Read(ctx).LastWeather(ctx, p.ID, true)
		if err != nil && !errors.Is(err, store.ErrNotFound) {
			return err
		}
		if err == nil && last.Equal(hour) {
			continue
		}
		from := hour.Add(-history)
		var past []weather.Issued // the service still has its forecasts of the weeks before
		if err == nil && last.After(from) && last.Before(hour) {
			from = last.Add(time.Hour)
		} else if past, err = a.issued(p, hour); err != nil {
			return err
		}
		record, err := a.served(p, from, hour.Add(instruments.Days*24*time.Hour), hour)
		if err != nil {
			return err
		}
		cut := record.Find(hour) + 1
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			err := errors.Join(
				q.DropWeather(ctx, p.ID, true, hour.Add(time.Second)), // the clock was set back
				q.DropWeather(ctx, p.ID, false, time.Unix(0, 0)),
				q.PutWeather(ctx, p.ID, true, record[:cut]),
				q.PutWeather(ctx, p.ID, false, record[cut:]))
			for _, f := range past {
				err = errors.Join(err, q.KeepIssued(ctx, p.ID, f))
			}
			return errors.Join(err, keepIssued(ctx, q, placeOf(p), weather.Issued{At: hour, Hours: record[cut:]}))
		})
		if err != nil {
			return err
		}
	}
	return a.refreshInstruments(ctx, places, now)
}

// served is a record of the simulated service as known at an instant.
func (a *App) served(p store.Place, from, to, at time.Time) (weather.Series, error) {
	doc, err := a.forecast.Forecast(p.LatitudeDeg, p.LongitudeDeg, from, to, at)
	if err != nil {
		return nil, fmt.Errorf("weather service: %w", err)
	}
	record, _, err := formats.ReadForecast(doc)
	if err != nil {
		return nil, fmt.Errorf("weather service: %w", err)
	}
	return record, nil
}

// issuedBefore is for how many days before the first look the service tells what it forecast.
const issuedBefore = 30

// issued are the forecasts of the service in the days before an instant.
func (a *App) issued(p store.Place, now time.Time) (out []weather.Issued, err error) {
	for d := issuedBefore; d > 0; d-- {
		at := now.AddDate(0, 0, -d)
		record, err := a.served(p, at.Add(time.Hour), at.Add(instruments.Days*24*time.Hour), at)
		if err != nil {
			return nil, err
		}
		out = append(out, weather.Issued{At: at, Hours: record})
	}
	return out, nil
}
