package store

import (
	"context"
	"encoding/binary"
	"errors"
	"fmt"
	"math"
	"time"

	"allcoats/core/exposure/reading"
)

// Instrument is a row of instruments.
type Instrument struct {
	ID        string  `db:"id"`
	Version   int     `db:"version"`
	PlaceID   string  `db:"place_id"`
	BoatID    *string `db:"boat_id"`
	SurfaceID *string `db:"surface_id"`
	Name      string  `db:"name"`
	Kind      string  `db:"kind"`
	Feed      string  `db:"feed"`
	Fault     string  `db:"fault"`
	Mapping   string  `db:"mapping"` // JSON, or empty
}

// Instruments lists the instruments of a place.
func (q Queries) Instruments(ctx context.Context, placeID string) ([]Instrument, error) {
	return list[Instrument](ctx, q, "SELECT * FROM instruments WHERE place_id = ? ORDER BY name, id", placeID)
}

// Instrument returns one instrument.
func (q Queries) Instrument(ctx context.Context, id string) (Instrument, error) {
	return one[Instrument](ctx, q, "SELECT * FROM instruments WHERE id = ?", id)
}

// AddInstrument inserts i.
func (q Queries) AddInstrument(ctx context.Context, i Instrument) error {
	_, err := q.exec(ctx, `INSERT INTO instruments (id, place_id, boat_id, surface_id, name, kind, feed, fault, mapping)
		VALUES (:id, :place_id, :boat_id, :surface_id, :name, :kind, :feed, :fault, :mapping)`, i)
	return err
}

// EditInstrument updates i if its version is current.
func (q Queries) EditInstrument(ctx context.Context, i Instrument) error {
	return q.edit(ctx, "instruments", i.ID, `UPDATE instruments SET version = version + 1, boat_id = :boat_id, surface_id = :surface_id,
		name = :name, kind = :kind, feed = :feed, fault = :fault, mapping = :mapping WHERE id = :id AND version = :version`, i)
}

// RemoveInstrument deletes an instrument with its readings.
func (q Queries) RemoveInstrument(ctx context.Context, id string) error {
	return q.remove(ctx, "instruments", id)
}

// none stands for no value.
const none = math.MinInt32

const pointSize = 12

func dayOf(t time.Time) int64 { return int64(math.Floor(float64(t.Unix()) / 86400)) }

type dayRow struct {
	InstrumentID string `db:"instrument_id"`
	Day          int64  `db:"day"`
	Points       []byte `db:"points"`
}

// Readings returns an instrument's readings in [from, to] by time.
func (q Queries) Readings(ctx context.Context, id string, from, to time.Time) ([]reading.Reading, error) {
	days, err := list[dayRow](ctx, q,
		"SELECT * FROM readings WHERE instrument_id = ? AND day BETWEEN ? AND ? ORDER BY day", id, dayOf(from),
		dayOf(to))
	return within(days, from, to)[id], err
}

// PlaceReadings returns the readings in [from, to] of all instruments of a place, by
// instrument and time.
func (q Queries) PlaceReadings(ctx context.Context, placeID string, from,
	to time.Time) (map[string][]reading.Reading, error) {
	days, err := list[dayRow](ctx, q, `SELECT readings.* FROM readings JOIN instruments ON instruments.id = readings.instrument_id
		WHERE instruments.place_id = ? AND day BETWEEN ? AND ? ORDER BY instrument_id, day`, placeID, dayOf(from), dayOf(to))
	return within(days, from, to), err
}

// within takes the readings in [from, to] out of days in the order of time.
func within(days []dayRow, from, to time.Time) map[string][]reading.Reading {
	n := map[string]int{}
	for _, d := range days {
		n[d.InstrumentID] += len(d.Points) / pointSize
	}
	out := map[string][]reading.Reading{}
	for id, n := range n {
		out[id] = make([]reading.Reading, 0, n)
	}
	for _, d := range days {
		for _, r := range d.decode() {
			if !r.At.Before(from) && !r.At.After(to) {
				out[d.InstrumentID] = append(out[d.InstrumentID], r)
			}
		}
	}
	return out
}

// ReadingSpan tells an instrument's first and last reading and their number;
// ErrNotFound if it has none.
func (q Queries) ReadingSpan(ctx context.Context, id string) (first, last time.Time, n int, err error) {
	type span struct {
		First *int64 `db:"first"`
		Last  *int64 `db:"last"`
		Bytes *int64 `db:"bytes"`
	}
	sums, err := one[span](ctx, q,
		"SELECT min(day) AS first, max(day) AS last, sum(length(points)) AS bytes FROM readings WHERE instrument_id = ?", id)
	if err != nil {
		return first, last, 0, err
	}
	if sums.First == nil {
		return first, last, 0, ErrNotFound
	}
	ends, err := list[dayRow](ctx, q, "SELECT * FROM readings WHERE instrument_id = ? AND day IN (?, ?) ORDER BY day",
		id, *sums.First, *sums.Last)
	if err != nil || len(ends) == 0 {
		return first, last, 0, errors.Join(err)
	}
	a, b := ends[0].decode(), ends[len(ends)-1].decode()
	return a[0].At, b[len(b)-1].At, int(*sums.Bytes) / pointSize, nil
}

// PutReadings adds rs, which rise in time, in place of what is there at the same seconds.
func (q Queries) PutReadings(ctx context.Context, id string, rs []reading.Reading) error {
	for lo := 0; lo < len(rs); {
		day := dayOf(rs[lo].At)
		hi := lo
		for hi < len(rs) && dayOf(rs[hi].At) == day {
			hi++
		}
		old, err := list[dayRow](ctx, q, "SELECT * FROM readings WHERE instrument_id = ? AND day = ?", id, day)
		if err != nil {
			return err
		}
		points := rs[lo:hi]
		if len(old) == 1 {
			points = merge(old[0].decode(), points)
		}
		row := dayRow{id, day, encode(points)}
		if _, err := q.exec(ctx,
			"INSERT OR REPLACE INTO readings (instrument_id, day, points) VALUES (:instrument_id, :day, :points)",
			row); err != nil {
			return fmt.Errorf("readings of %s: %w", rs[lo].At.Format(time.DateOnly), err)
		}
		lo = hi
	}
	return nil
}

// DropReadings deletes an instrument's readings of the days from the one of from on.
func (q Queries) DropReadings(ctx context.Context, id string, from time.Time) error {
	_, err := q.q.ExecContext(ctx, "DELETE FROM readings WHERE instrument_id = ? AND day >= ?", id, dayOf(from))
	return err
}

// merge lays b over a, both by time.
func merge(a, b []reading.Reading) []reading.Reading {
	out := make([]reading.Reading, 0, len(a)+len(b))
	for len(a) > 0 || len(b) > 0 {
		switch {
		case len(b) == 0 || len(a) > 0 && a[0].At.Before(b[0].At):
			out, a = append(out, a[0]), a[1:]
		default:
			if len(a) > 0 && a[0].At.Equal(b[0].At) {
				a = a[1:]
			}
			out, b = append(out, b[0]), b[1:]
		}
	}
	return out
}

func encode(rs []reading.Reading) []byte {
	out := make([]byte, 0, pointSize*len(rs))
	put := func(v int32) { out = binary.LittleEndian.AppendUint32(out, uint32(v)) }
	milli := func(v float64) int32 {
		if math.IsNaN(v) {
			return none
		}
		return int32(math.Round(1000 * v))
	}
	for _, r := range rs {
		put(int32(r.At.Unix() - 86400*dayOf(r.At)))
		put(milli(r.TempC))
		put(milli(r.RHPct))
	}
	return out
}

func (d dayRow) decode() []reading.Reading {
	out := make([]reading.Reading, len(d.Points)/pointSize)
	value := func(i int) float64 {
		v := int32(binary.LittleEndian.Uint32(d.Points[i:]))
		if v == none {
			return math.NaN()
		}
		return float64(v) / 1000
	}
	for i := range out {
		k := i * pointSize
		out[i] = reading.Reading{At: time.Unix(86400*d.Day+int64(binary.LittleEndian.Uint32(d.Points[k:])), 0).UTC(),
			TempC: value(k + 4), RHPct: value(k + 8)}
	}
	return out
}
