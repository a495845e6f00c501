package app

import (
	"context"
	"errors"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/fault"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/store"
)

// Boat is a boat with where she stands.
type Boat struct {
	ID      string `json:"id"`
	Version int    `json:"version"`
	BoatEdit
}

// BoatEdit is what a user can set of a boat.
type BoatEdit struct {
	Name    string `json:"name"`
	Type    string `json:"type"`
	PlaceID string `json:"placeId"`
	// NewPlace, if given, is added with the boat and used for PlaceID.
	NewPlace *PlaceEdit `json:"newPlace,omitempty"`
	// HeadingDeg is where her bow points on the hard, from true north clockwise.
	HeadingDeg float64 `json:"headingDeg"`
	// LaunchDate is a day such as 2026-05-30, or empty.
	LaunchDate string `json:"launchDate"`
	// Lights says that work can go on in the dark.
	Lights     bool            `json:"lights"`
	Dimensions area.Dimensions `json:"dimensions"`
	// DisplacementT is in tonnes, 0 if it is not known.
	DisplacementT float64 `json:"displacementT"`
	// Week holds the working hours, Crew how many lay a coat together.
	Week calendar.Week `json:"week,omitempty"`
	Crew int           `json:"crew,omitempty"`
	// DewFreeH is how many hours above the dew point are wanted after a coat, by habit; 0
	// leaves it to the sheet.
	DewFreeH float64 `json:"dewFreeH,omitempty"`
}

func (b BoatEdit) validate() error {
	var bad fault.Errors
	if b.Name == "" {
		bad.Add("name", "give the boat a name")
	}
	if b.NewPlace != nil {
		bad.Under("newPlace", b.NewPlace.validate())
	} else if b.PlaceID == "" {
		bad.Add("placeId", "say where she stands")
	}
	bad.Range("headingDeg", b.HeadingDeg, 0, 360, "°")
	if _, err := time.Parse(time.DateOnly, b.LaunchDate); err != nil && b.LaunchDate != "" {
		bad.Add("launchDate", "%q is not a day such as 2026-05-30", b.LaunchDate)
	}
	bad.Under("dimensions", b.Dimensions.Validate())
	bad.Range("displacementT", b.DisplacementT, 0, 5000, "t")
	if bad == nil {
		if cb := b.Dimensions.Block(b.DisplacementT); cb > 1 {
			bad.Add("displacementT", "is more water than her length, beam and draught enclose (block coefficient %.2f): no hull does that", cb)
		}
	}
	bad.Under("week", b.Week.Validate())
	bad.Range("crew", float64(b.Crew), 0, 50, "people")
	bad.Range("dewFreeH", b.DewFreeH, 0, 72, "h")
	return bad.Err()
}

func (b BoatEdit) row(id string, version int) store.Boat {
	d := b.Dimensions
	return store.Boat{
		ID: id, Version: version, PlaceID: b.PlaceID, Name: b.Name, Type: b.Type, HeadingDeg: b.HeadingDeg, LaunchDate: b.LaunchDate,
		Lights: b.Lights, HullForm: string(d.HullForm), LOAM: d.LOAM, LWLM: d.LWLM, BeamM: d.BeamM, DraughtM: d.DraughtM,
		FreeboardM: d.FreeboardM, HousesM2: d.HousesM2, BodyDraughtM: d.BodyDraughtM, HullBeamM: d.HullBeamM, DisplacementT: b.DisplacementT,
		Week: store.JSON[calendar.Week]{V: b.Week}, Crew: max(1, b.Crew), DewFreeH: b.DewFreeH,
	}
}

func boatOf(r store.Boat) Boat {
	return Boat{r.ID, r.Version, BoatEdit{
		Name: r.Name, Type: r.Type, PlaceID: r.PlaceID, HeadingDeg: r.HeadingDeg, LaunchDate: r.LaunchDate, Lights: r.Lights,
		Dimensions: area.Dimensions{HullForm: area.HullForm(r.HullForm), LOAM: r.LOAM, LWLM: r.LWLM, BeamM: r.BeamM, DraughtM: r.DraughtM,
			FreeboardM: r.FreeboardM, HousesM2: r.HousesM2, BodyDraughtM: r.BodyDraughtM, HullBeamM: r.HullBeamM},
		DisplacementT: r.DisplacementT, Week: r.Week.V, Crew: r.Crew, DewFreeH: r.DewFreeH,
	}}
}

// Boats lists the boats.
func (a *App) Boats(ctx context.Context) ([]Boat, error) {
	rows, err := a.store.Read(ctx).Boats(ctx)
	out := make([]Boat, len(rows))
	for i, r := range rows {
		out[i] = boatOf(r)
	}
	return out, err
}

// Boat returns one boat.
func (a *App) Boat(ctx context.Context, id string) (Boat, error) {
	r, err := a.store.Read(ctx).Boat(ctx, id)
	return boatOf(r), err
}

// AddBoat stores a new boat with the surfaces of a template (survey.Templates),
// measured by her principal dimensions; an empty template adds none.
func (a *App) AddBoat(ctx context.Context, e BoatEdit, template string, substrate survey.Substrate) (Boat, error) {
	return change(ctx, a, func(ctx context.Context) (Boat, error) {
		if err := e.validate(); err != nil {
			return Boat{}, err
		}
		surfaces, err := fromTemplate(template, substrate)
		if err != nil {
			return Boat{}, err
		}
		id := newID()
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			if err := e.settle(ctx, q); err != nil {
				return err
			}
			if err := q.AddBoat(ctx, e.row(id, 1)); err != nil {
				return err
			}
			for _, s := range surfaces {
				if err := q.AddSurface(ctx, s.row(newID(), 1, id)); err != nil {
					return err
				}
			}
			return nil
		})
		if err == nil {
			err = a.RefreshWeather(ctx)
		}
		if err != nil {
			return Boat{}, err
		}
		return a.Boat(ctx, id)
	})
}

// settle adds the boat's new place, or checks that her place is there.
func (b *BoatEdit) settle(ctx context.Context, q store.Queries) error {
	if b.NewPlace != nil {
		b.PlaceID = newID()
		return q.AddPlace(ctx, b.NewPlace.row(b.PlaceID, 1))
	}
	if _, err := q.Place(ctx, b.PlaceID); errors.Is(err, store.ErrNotFound) {
		return fault.At("placeId", "this place is not there any more")
	} else if err != nil {
		return err
	}
	return nil
}

// EditBoat changes a boat.
func (a *App) EditBoat(ctx context.Context, id string, version int, e BoatEdit) (Boat, error) {
	return change(ctx, a, func(ctx context.Context) (Boat, error) {
		if err := e.validate(); err != nil {
			return Boat{}, err
		}
		err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			if err := e.settle(ctx, q); err != nil {
				return err
			}
			return q.EditBoat(ctx, e.row(id, version))
		})
		if err == nil {
			err = a.RefreshWeather(ctx)
		}
		if err != nil {
			return Boat{}, stale(err, func() (Boat, error) { return a.Boat(ctx, id) })
		}
		return a.Boat(ctx, id)
	})
}

// RemoveBoat deletes a boat with her surfaces and log.
func (a *App) RemoveBoat(ctx context.Context, id string) error {
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error { return q.RemoveBoat(ctx, id) })
}
