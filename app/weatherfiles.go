package app

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/physics/solar"
	"allcoats/core/physics/weather"
	"allcoats/formats"
	"allcoats/store"
)

// Import is what a weather file brought; Doubts are what of it could be meant otherwise.
type Import struct {
	Rows     int       `json:"rows"`
	Measured int       `json:"measured"`
	Forecast int       `json:"forecast"`
	From     time.Time `json:"from"`
	To       time.Time `json:"to"`
	Doubts   []string  `json:"doubts"`
	// Climate names the place of a climate file, whose year has set the usual months; KmOff is how
	// far off it is.
	Climate string  `json:"climate,omitempty"`
	KmOff   float64 `json:"kmOff,omitempty"`
}

// weatherColumns is the setting that keeps what the columns of a place's files are.
func weatherColumns(placeID string) string { return "weather-columns/" + placeID }

// weatherReader reads the files of a place, with what was said of their columns before.
func (a *App) weatherReader(ctx context.Context, p Place) (formats.WeatherReader, error) {
	r := formats.WeatherReader{Loc: p.location()}
	raw, err := a.store.Read(ctx).Setting(ctx, weatherColumns(p.ID))
	if errors.Is(err, store.ErrNotFound) {
		return r, nil
	}
	if err != nil {
		return r, err
	}
	return r, json.Unmarshal([]byte(raw), &r.Columns)
}

// WeatherColumns are the columns of a record with what they are taken for, and what they can be.
type WeatherColumns struct {
	Columns []formats.Column     `json:"columns"`
	Kinds   []formats.ColumnKind `json:"kinds"`
}

// ReadWeatherColumns lists the columns of a record.
func (a *App) ReadWeatherColumns(ctx context.Context, placeID string, data []byte) (WeatherColumns, error) {
	p, err := a.Place(ctx, placeID)
	if err != nil {
		return WeatherColumns{}, err
	}
	r, err := a.weatherReader(ctx, p)
	if err != nil {
		return WeatherColumns{}, err
	}
	columns, err := r.Names(data)
	return WeatherColumns{columns, formats.ColumnKinds}, err
}

// ImportWeather stores a record for a place: a table or a document of hourly arrays (formats.WeatherReader), or a
// forecast document (formats.ReadForecast). What is said of its columns is kept for the next one. Rows up to now count
// as measured, later ones as the new forecast. A simulated record is replaced by it. A climate file
// (formats.ReadEPW) sets the usual months instead. All or nothing.
func (a *App) ImportWeather(ctx context.Context, placeID string, columns map[string]string,
	data []byte) (Import, error) {
	return change(ctx, a, func(ctx context.Context) (Import, error) {
		p, err := a.Place(ctx, placeID)
		if err != nil {
			return Import{}, err
		}
		if formats.IsEPW(data) {
			return a.importClimate(ctx, p, data)
		}
		if bytes.Contains(data, []byte(`"issuedAt"`)) && len(columns) == 0 {
			record, _, err := formats.ReadForecast(data)
			if err != nil {
				return Import{}, err
			}
			in, err := a.putRecord(ctx, p, record, Imported)
			in.Doubts = []string{}
			return in, err
		}
		if err := formats.CheckColumns(columns); err != nil {
			return Import{}, err
		}
		r, err := a.weatherReader(ctx, p)
		if err != nil {
			return Import{}, err
		}
		if len(columns) > 0 {
			r.Columns = columns
		}
		record, doubts, err := r.Read(data)
		if err != nil {
			return Import{}, err
		}
		in, err := a.putRecord(ctx, p, record, Imported)
		in.Doubts = append([]string{}, doubts...)
		if err != nil || len(columns) == 0 {
			return in, err
		}
		raw, err := json.Marshal(columns)
		if err != nil {
			return Import{}, err
		}
		return in, a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			return q.SetSetting(ctx, weatherColumns(placeID), string(raw))
		})
	})
}

// farOff is how far off a climate file may be without being told of, km.
const farOff = 60

// importClimate sets the usual months of a place by a climate file.
func (a *App) importClimate(ctx context.Context, p Place, data []byte) (Import, error) {
	return change(ctx, a, func(ctx context.Context) (Import, error) {
		s, of, err := formats.ReadEPW(data)
		if err != nil {
			return Import{}, err
		}
		n := rounded(s.Normals(p.normals(), p.location()))
		e := p.PlaceEdit
		e.Normals = &n
		if err := e.validate(); err != nil {
			return Import{}, err
		}
		if err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			return q.EditPlace(ctx, e.row(p.ID, p.Version))
		}); err != nil {
			return Import{}, stale(err, func() (Place, error) { return a.Place(ctx, p.ID) })
		}
		in := Import{Rows: len(s), Doubts: []string{}, Climate: of.Name,
			KmOff: math.Round(solar.DistanceKm(p.LatitudeDeg, p.LongitudeDeg, of.LatitudeDeg, of.LongitudeDeg))}
		in.From, in.To, _ = s.Span()
		if in.KmOff > farOff {
			in.Doubts = append(in.Doubts, fmt.Sprintf("%s is %.0f km from %s: is its weather like that?", of.Name,
				in.KmOff, p.Name))
		}
		if s[0].RainMM == nil {
			in.Doubts = append(in.Doubts, "the file knows of no rain: the share of wet days stays as it was")
		}
		return in, nil
	})
}

// rounded are months to a tenth.
func rounded(n weather.Normals) weather.Normals {
	for i := range n {
		m := &n[i]
		for _, v := range []*float64{&m.MeanC, &m.SwingK, &m.RHPct, &m.WindMS, &m.CloudPct, &m.WetDayPct,
			&m.WetAfterWetPct, &m.WetHoursPct, &m.SpreadK} {
			*v = math.Round(10**v) / 10
		}
	}
	return n
}

// OwnMonths are the usual months by what was measured at a place; Days is of how many.
type OwnMonths struct {
	Normals weather.Normals `json:"normals"`
	Days    int             `json:"days"`
}

// OwnMonths are the usual months of a place with those that its own record tells.
func (a *App) OwnMonths(ctx context.Context, placeID string) (OwnMonths, error) {
	p, err := a.Place(ctx, placeID)
	if err != nil {
		return OwnMonths{}, err
	}
	now, err := a.Now(ctx)
	if err != nil {
		return OwnMonths{}, err
	}
	s, err := a.store.Read(ctx).Weather(ctx, placeID, true, time.Unix(0, 0), now)
	return OwnMonths{rounded(s.Normals(p.normals(), p.location())), len(s) / 24}, err
}

// AddDays stores days that a user tells in words as the forecast of a place, and
// hours of them that are past as measured.
func (a *App) AddDays(ctx context.Context, placeID string, days []weather.SimpleDay) (Import, error) {
	p, err := a.Place(ctx, placeID)
	if err != nil {
		return Import{}, err
	}
	var bad fielderr.Errors
	var record weather.Series
	for i, d := range days {
		s, err := d.Hours(p.location())
		bad.Under(fmt.Sprintf("days[%d]", i), err)
		record = append(record, s...)
	}
	if len(days) == 0 || len(days) > 14 {
		bad.Add("days", "give 1 to 14 days, not %d", len(days))
	}
	if err := bad.Err(); err != nil {
		return Import{}, err
	}
	for i := 1; i < len(record); i++ {
		if !record[i].At.After(record[i-1].At) {
			return Import{}, fielderr.At("days", "give each day once, in their order")
		}
	}
	return a.putRecord(ctx, p, record, Told)
}

// putRecord stores a record from a source; a simulated one is dropped for it.
func (a *App) putRecord(ctx context.Context, p Place, record weather.Series, source string) (Import, error) {
	return change(ctx, a, func(ctx context.Context) (Import, error) {
		now, err := a.Now(ctx)
		if err != nil {
			return Import{}, err
		}
		cut := record.Find(now) + 1
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			if p.WeatherSource == Simulated {
				if err := dropAll(ctx, q, p.ID); err != nil {
					return err
				}
			}
			if p.WeatherSource != source {
				p.WeatherSource = source
				if err := q.EditPlace(ctx, p.row(p.ID, p.Version)); err != nil {
					return err
				}
			}
			if cut < len(record) {
				if err := q.DropWeather(ctx, p.ID, false, time.Unix(0, 0)); err != nil {
					return err
				}
			}
			if err := errors.Join(q.PutWeather(ctx, p.ID, true, record[:cut]),
				q.PutWeather(ctx, p.ID, false, record[cut:])); err != nil {
				return err
			}
			if source == Told { // in words, to whole parts of a day: no forecast to learn from
				return nil
			}
			return keepIssued(ctx, q, p, weather.Issued{At: now.Truncate(time.Second), Hours: record[cut:]})
		})
		if err != nil {
			return Import{}, stale(err, func() (Place, error) { return a.Place(ctx, p.ID) })
		}
		from, to, _ := record.Span()
		return Import{Rows: len(record), Measured: cut, Forecast: len(record) - cut, From: from, To: to,
			Doubts: []string{}}, nil
	})
}

// record returns a place's weather in [from, to], measured over forecast.
func record(ctx context.Context, q store.Queries, placeID string, from, to time.Time) (weather.Series, error) {
	measured, err := q.Weather(ctx, placeID, true, from, to)
	if err != nil {
		return nil, err
	}
	forecast, err := q.Weather(ctx, placeID, false, from, to)
	return weather.Merge(measured, forecast), err
}
