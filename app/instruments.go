package app

import (
	"context"
	"encoding/json"
	"errors"
	"math"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/conditions/climate"
	"allcoats/core/exposure/reading"
	"allcoats/core/physics/weather"
	"allcoats/formats"
	"allcoats/instruments"
	"allcoats/store"
)

// Feeds: where an instrument's readings come from.
const (
	ByFile    = "file" // files and spot readings by hand
	Live      = "live" // sends by itself
	Simulator = "simulated"
)

// Instrument is a logger, probe or hand-held thermometer at a place.
type Instrument struct {
	ID      string `json:"id"`
	Version int    `json:"version"`
	PlaceID string `json:"placeId"`
	InstrumentEdit
	Mapping *formats.Mapping `json:"mapping,omitempty"`
	First   *time.Time       `json:"first,omitempty"`
	Last    *time.Time       `json:"last,omitempty"`
	Count   int              `json:"count"`
	// Doubts are what is odd about its readings of the last weeks.
	Doubts []reading.Doubt `json:"doubts"`
}

// InstrumentEdit is what a user can set of an instrument.
type InstrumentEdit struct {
	Name string       `json:"name"`
	Kind reading.Kind `json:"kind"`
	// BoatID is empty for one that serves the whole place; SurfaceID is where it
	// sits.
	BoatID    string `json:"boatId,omitempty"`
	SurfaceID string `json:"surfaceId,omitempty"`
	Feed      string `json:"feed" enum:"file,live,simulated"`
	Fault     string `json:"fault,omitempty" enum:",drop-outs,stuck,clock-ahead"`
}

// validate checks e and fills in the boat that its surface belongs to.
func (e *InstrumentEdit) validate(ctx context.Context, q store.Queries, placeID string) error {
	var bad fielderr.Errors
	if e.Name = strings.TrimSpace(e.Name); e.Name == "" {
		bad.Add("name", "give the instrument a name")
	}
	fielderr.OneOf(&bad, "feed", e.Feed, []string{ByFile, Live, Simulator})
	known, onSurface := false, false
	for _, k := range reading.Kinds {
		if k.Kind == e.Kind {
			known, onSurface = true, k.Surface
		}
	}
	if !known {
		bad.Add("kind", "say what it measures")
	}
	if onSurface {
		s, err := q.Surface(ctx, e.SurfaceID)
		if errors.Is(err, store.ErrNotFound) {
			bad.Add("surfaceId", "say on which surface it sits")
		} else if err != nil {
			return err
		}
		e.BoatID = s.BoatID
	} else {
		e.SurfaceID = ""
	}
	if e.Kind == reading.InOpen {
		e.BoatID = ""
	}
	if e.Kind == reading.InTent && e.BoatID == "" {
		bad.Add("boatId", "say in which boat's tent it hangs")
	}
	if e.BoatID != "" && bad == nil {
		b, err := q.Boat(ctx, e.BoatID)
		if errors.Is(err, store.ErrNotFound) || err == nil && b.PlaceID != placeID {
			bad.Add("boatId", "this boat does not stand at this place")
		} else if err != nil {
			return err
		}
	}
	return bad.Err()
}

func (e InstrumentEdit) row(id string, version int, placeID string) store.Instrument {
	opt := func(s string) *string {
		if s == "" {
			return nil
		}
		return &s
	}
	return store.Instrument{ID: id, Version: version, PlaceID: placeID, BoatID: opt(e.BoatID),
		SurfaceID: opt(e.SurfaceID), Name: e.Name, Kind: string(e.Kind), Feed: e.Feed, Fault: e.Fault}
}

func instrumentOf(r store.Instrument) (Instrument, error) {
	text := func(s *string) string {
		if s == nil {
			return ""
		}
		return *s
	}
	i := Instrument{ID: r.ID, Version: r.Version, PlaceID: r.PlaceID, Doubts: []reading.Doubt{},
		InstrumentEdit: InstrumentEdit{r.Name, reading.Kind(r.Kind), text(r.BoatID), text(r.SurfaceID), r.Feed,
			r.Fault}}
	if r.Mapping != "" {
		i.Mapping = &formats.Mapping{}
		return i, json.Unmarshal([]byte(r.Mapping), i.Mapping)
	}
	return i, nil
}

// doubtDays is how far back readings are looked through.
const doubtDays = 21

// Instruments lists the instruments of a place with what is odd about them.
func (a *App) Instruments(ctx context.Context, placeID string) ([]Instrument, error) {
	q := a.store.Read(ctx)
	rows, err := q.Instruments(ctx, placeID)
	if err != nil {
		return nil, err
	}
	out := make([]Instrument, len(rows))
	for i, r := range rows {
		if out[i], err = a.instrument(ctx, q, r); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// Instrument returns one instrument.
func (a *App) Instrument(ctx context.Context, id string) (Instrument, error) {
	q := a.store.Read(ctx)
	r, err := q.Instrument(ctx, id)
	if err != nil {
		return Instrument{}, err
	}
	return a.instrument(ctx, q, r)
}

func (a *App) instrument(ctx context.Context, q store.Queries, r store.Instrument) (Instrument, error) {
	out, err := instrumentOf(r)
	if err != nil {
		return out, err
	}
	first, last, n, err := q.ReadingSpan(ctx, r.ID)
	if errors.Is(err, store.ErrNotFound) {
		return out, nil
	}
	if err != nil {
		return out, err
	}
	out.First, out.Last, out.Count = &first, &last, n
	from := last.Add(-doubtDays * 24 * time.Hour)
	rs, err := q.Readings(ctx, r.ID, from, last)
	if err != nil {
		return out, err
	}
	var ref weather.Series
	if out.Kind == reading.InOpen {
		if ref, err = record(ctx, q, r.PlaceID, from, last); err != nil {
			return out, err
		}
	}
	if out.Kind != reading.Spot {
		out.Doubts = reading.Doubts(rs, ref)
	}
	now, err := a.Now(ctx)
	if err == nil && last.After(now.Add(time.Hour)) {
		out.Doubts = append(out.Doubts,
			reading.Doubt{What: "clock",
				Text: message.Of("It has readings from after now: is its clock, or the time zone chosen, off?"),
				From: now, To: last})
	}
	return out, err
}

// AddInstrument stores a new instrument.
func (a *App) AddInstrument(ctx context.Context, placeID string, e InstrumentEdit) (Instrument, error) {
	return change(ctx, a, func(ctx context.Context) (Instrument, error) {
		id := newID()
		err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			if _, err := q.Place(ctx, placeID); err != nil {
				return err
			}
			if err := e.validate(ctx, q, placeID); err != nil {
				return err
			}
			return q.AddInstrument(ctx, e.row(id, 1, placeID))
		})
		if err == nil {
			err = a.RefreshWeather(ctx)
		}
		if err != nil {
			return Instrument{}, err
		}
		return a.Instrument(ctx, id)
	})
}

// EditInstrument changes an instrument. A simulated one that gets another fault
// begins anew.
func (a *App) EditInstrument(ctx context.Context, id string, version int, e InstrumentEdit) (Instrument, error) {
	return change(ctx, a, func(ctx context.Context) (Instrument, error) {
		err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			old, err := q.Instrument(ctx, id)
			if err != nil {
				return err
			}
			if err := e.validate(ctx, q, old.PlaceID); err != nil {
				return err
			}
			row := e.row(id, version, old.PlaceID)
			row.Mapping = old.Mapping
			if old.Feed == Simulator && (old.Fault != e.Fault || e.Feed != Simulator) {
				if err := q.DropReadings(ctx, id, time.Unix(0, 0)); err != nil {
					return err
				}
			}
			return q.EditInstrument(ctx, row)
		})
		if err == nil {
			err = a.RefreshWeather(ctx)
		}
		if err != nil {
			return Instrument{}, stale(err, func() (Instrument, error) { return a.Instrument(ctx, id) })
		}
		return a.Instrument(ctx, id)
	})
}

// RemoveInstrument deletes an instrument with its readings.
func (a *App) RemoveInstrument(ctx context.Context, id string) error {
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error { return q.RemoveInstrument(ctx, id) })
}

// PreviewReadings tells how a logger's file looks and how it would be read: as
// the instrument's last one was, if it has the same columns.
func (a *App) PreviewReadings(ctx context.Context, id string, data []byte) (formats.Preview, error) {
	i, err := a.Instrument(ctx, id)
	if err != nil {
		return formats.Preview{}, err
	}
	p, err := a.Place(ctx, i.PlaceID)
	if err != nil {
		return formats.Preview{}, err
	}
	out, err := formats.Sniff(data, p.TimeZone)
	if err != nil {
		return formats.Preview{}, err
	}
	if m := i.Mapping; m != nil && m.Delimiter == out.Mapping.Delimiter && max(m.Time, m.Clock, m.Temp, m.RH) < len(
		out.Columns) {
		out.Mapping = *m
		out.Doubts = []string{"It will be read as the last file of this instrument was."}
	}
	return out, nil
}

// ReadingsIn is what a file or a live instrument brought.
type ReadingsIn struct {
	Rows  int       `json:"rows"`
	From  time.Time `json:"from"`
	To    time.Time `json:"to"`
	Notes []string  `json:"notes"`
}

// ImportReadings stores a logger's file and remembers how it was read. All or
// nothing.
func (a *App) ImportReadings(ctx context.Context, id string, m formats.Mapping, data []byte) (ReadingsIn, error) {
	got, err := formats.ReadReadings(data, m)
	if err != nil {
		return ReadingsIn{}, err
	}
	raw, err := json.Marshal(m)
	if err != nil {
		return ReadingsIn{}, err
	}
	err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		row, err := q.Instrument(ctx, id)
		if err != nil {
			return err
		}
		row.Mapping = string(raw)
		return errors.Join(q.EditInstrument(ctx, row), q.PutReadings(ctx, id, got.Rows))
	})
	return ReadingsIn{len(got.Rows), got.Rows[0].At, got.Rows[len(got.Rows)-1].At, got.Notes}, err
}

// TakeReadings stores JSON lines (formats.ReadReadingLines) as a live instrument
// sends them. All or nothing; readings from more than an hour ahead of the
// program's time are refused.
func (a *App) TakeReadings(ctx context.Context, id string, lines []byte) (ReadingsIn, error) {
	i, err := a.store.Read(ctx).Instrument(ctx, id)
	if err != nil {
		return ReadingsIn{}, err
	}
	if k := reading.Kind(i.Kind); k.Benched() {
		return a.takeValues(id, k, lines)
	}
	rs, err := formats.ReadReadingLines(lines)
	if err != nil {
		return ReadingsIn{}, err
	}
	now, err := a.Now(ctx)
	if err != nil {
		return ReadingsIn{}, err
	}
	if last := rs[len(rs)-1].At; last.After(now.Add(time.Hour)) {
		return ReadingsIn{}, fielderr.At("at", "%s lies ahead: the instrument's clock is off",
			last.Format(time.RFC3339))
	}
	err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		if _, err := q.Instrument(ctx, id); err != nil {
			return err
		}
		return q.PutReadings(ctx, id, rs)
	})
	return ReadingsIn{len(rs), rs[0].At, rs[len(rs)-1].At, []string{}}, err
}

// simulatedStep is how often a simulated instrument shows something,
// simulatedDays how far back it begins.
const (
	simulatedStep = 10 * time.Minute
	simulatedDays = 14
)

// refreshInstruments lets the simulated instruments send what they showed until
// now, over the same lines as live ones.
func (a *App) refreshInstruments(ctx context.Context, places []store.Place, now time.Time) error {
	for _, p := range places {
		rows, err := a.store.Read(ctx).Instruments(ctx, p.ID)
		if err != nil {
			return err
		}
		for _, r := range rows {
			if r.Feed != Simulator || reading.Kind(r.Kind).Benched() {
				continue
			}
			if err := a.refreshInstrument(ctx, placeOf(p), r, now); err != nil {
				return err
			}
		}
	}
	return nil
}

func (a *App) refreshInstrument(ctx context.Context, p Place, r store.Instrument, now time.Time) error {
	q := a.store.Read(ctx)
	from := now.Add(-simulatedDays * 24 * time.Hour)
	if _, last, _, err := q.ReadingSpan(ctx, r.ID); err == nil && last.After(from) {
		from = last
		if last.After(now) { // the clock was set back
			day := now.Truncate(24 * time.Hour)
			if err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
				return q.DropReadings(ctx, r.ID, day)
			}); err != nil {
				return err
			}
			from = day
		}
	} else if err != nil && !errors.Is(err, store.ErrNotFound) {
		return err
	}
	if now.Sub(from) < simulatedStep {
		return nil
	}
	truth, err := a.truth(ctx, q, p, r, from.Add(-4*time.Hour), now.Add(time.Hour))
	if err != nil || len(truth) < 2 {
		return err
	}
	l := instruments.Logger{Seed: seedOf(r.Name), Fault: r.Fault, Step: simulatedStep}
	if reading.Kind(r.Kind) == reading.InOpen {
		l.Local = 1.6
	}
	if reading.Kind(r.Kind) == reading.OnSurface || reading.Kind(r.Kind) == reading.Spot {
		l.Local = 0.7
	}
	lines := l.Lines(truth, from, now, p.location())
	if len(lines) == 0 {
		return nil
	}
	_, err = a.TakeReadings(ctx, r.ID, lines)
	return err
}

// truth is what a simulated instrument is shown: the record of the place, or the
// model of its surface or tent without any readings.
func (a *App) truth(ctx context.Context, q store.Queries, p Place, r store.Instrument, from,
	to time.Time) ([]reading.Reading, error) {
	var out []reading.Reading
	if r.BoatID == nil {
		s, err := record(ctx, q, p.ID, from, to)
		for _, h := range s {
			out = append(out, reading.Reading{At: h.At, TempC: h.TempC, RHPct: h.RHPct})
		}
		return out, err
	}
	w, err := a.loadBoatWork(ctx, q, *r.BoatID)
	if err != nil {
		return nil, err
	}
	b, err := loadClimate(ctx, q, w, from.Add(-spinUp), to)
	if err != nil {
		return nil, err
	}
	b.Instruments = nil
	c := climate.Of(b)
	if r.SurfaceID != nil {
		at := c.Surface[*r.SurfaceID]
		for i, h := range at.Air {
			out = append(out, reading.Reading{At: h.At, TempC: at.SurfaceC[i], RHPct: math.NaN()})
		}
		return out, nil
	}
	air := b.Air
	if c.Tent != nil {
		air = c.Tent.Air
	}
	for _, h := range air {
		out = append(out, reading.Reading{At: h.At, TempC: h.TempC, RHPct: h.RHPct})
	}
	return out, nil
}

// seedOf makes a seed of a name.
func seedOf(name string) uint64 {
	h := uint64(14695981039346656037)
	for _, c := range []byte(name) {
		h = (h ^ uint64(c)) * 1099511628211
	}
	return h
}
