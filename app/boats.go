package app

import (
	"context"
	"errors"
	"time"

	"allcoats/core/area"
	"allcoats/core/fault"
	"allcoats/core/outline"
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
	return bad.Err()
}

func (b BoatEdit) row(id string, version int) store.Boat {
	d := b.Dimensions
	return store.Boat{
		ID: id, Version: version, PlaceID: b.PlaceID, Name: b.Name, Type: b.Type, HeadingDeg: b.HeadingDeg, LaunchDate: b.LaunchDate,
		Lights: b.Lights, HullForm: string(d.HullForm), LOAM: d.LOAM, LWLM: d.LWLM, BeamM: d.BeamM, DraughtM: d.DraughtM,
		FreeboardM: d.FreeboardM, HousesM2: d.HousesM2,
	}
}

func boatOf(r store.Boat) Boat {
	return Boat{r.ID, r.Version, BoatEdit{
		Name: r.Name, Type: r.Type, PlaceID: r.PlaceID, HeadingDeg: r.HeadingDeg, LaunchDate: r.LaunchDate, Lights: r.Lights,
		Dimensions: area.Dimensions{HullForm: area.HullForm(r.HullForm), LOAM: r.LOAM, LWLM: r.LWLM, BeamM: r.BeamM, DraughtM: r.DraughtM,
			FreeboardM: r.FreeboardM, HousesM2: r.HousesM2},
	}}
}

// Boats lists the boats.
func (a *App) Boats(ctx context.Context) ([]Boat, error) {
	rows, err := a.store.Read().Boats(ctx)
	out := make([]Boat, len(rows))
	for i, r := range rows {
		out[i] = boatOf(r)
	}
	return out, err
}

// Boat returns one boat.
func (a *App) Boat(ctx context.Context, id string) (Boat, error) {
	r, err := a.store.Read().Boat(ctx, id)
	return boatOf(r), err
}

// AddBoat stores a new boat. With surfaces, bottom, both topsides and deck are
// added, measured by her principal dimensions.
func (a *App) AddBoat(ctx context.Context, e BoatEdit, surfaces bool) (Boat, error) {
	if err := e.validate(); err != nil {
		return Boat{}, err
	}
	id := newID()
	err := a.store.Write(ctx, func(q store.Queries) error {
		if err := e.settle(ctx, q); err != nil {
			return err
		}
		if err := q.AddBoat(ctx, e.row(id, 1)); err != nil {
			return err
		}
		if !surfaces {
			return nil
		}
		for _, s := range []SurfaceEdit{
			{Name: "Bottom", Part: area.Bottom, Side: area.Both},
			{Name: "Topsides port", Part: area.Topsides, Side: area.Port},
			{Name: "Topsides starboard", Part: area.Topsides, Side: area.Starboard},
			{Name: "Deck", Part: area.Deck, Side: area.Both},
		} {
			s.Substrate, s.Measure.Method = "GRP", area.ByPrincipal
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
}

// settle adds the boat's new place, or checks that her place is there.
func (b *BoatEdit) settle(ctx context.Context, q store.Queries) error {
	if b.NewPlace != nil {
		b.PlaceID = newID()
		return q.AddPlace(ctx, b.NewPlace.row(b.PlaceID, 1))
	}
	if _, err := q.Place(ctx, b.PlaceID); errors.Is(err, store.ErrNotFound) {
		return fault.Errors{{Path: "placeId", Message: "this place is not there any more"}}
	} else if err != nil {
		return err
	}
	return nil
}

// EditBoat changes a boat.
func (a *App) EditBoat(ctx context.Context, id string, version int, e BoatEdit) (Boat, error) {
	if err := e.validate(); err != nil {
		return Boat{}, err
	}
	err := a.store.Write(ctx, func(q store.Queries) error {
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
}

// RemoveBoat deletes a boat with her surfaces and log.
func (a *App) RemoveBoat(ctx context.Context, id string) error {
	return a.store.Write(ctx, func(q store.Queries) error { return q.RemoveBoat(ctx, id) })
}

// Surface is a part of a boat that is coated as one, with its area.
type Surface struct {
	ID      string `json:"id"`
	Version int    `json:"version"`
	BoatID  string `json:"boatId"`
	SurfaceEdit
	Area area.Figure `json:"area"`
}

// SurfaceEdit is what a user can set of a surface.
type SurfaceEdit struct {
	Name      string       `json:"name"`
	Part      area.Part    `json:"part" enum:"bottom,topsides,deck,other"`
	Side      area.Side    `json:"side" enum:"port,starboard,both"`
	Substrate string       `json:"substrate"`
	Measure   area.Measure `json:"measure"`
}

func (s SurfaceEdit) validate() error {
	var bad fault.Errors
	if s.Name == "" {
		bad.Add("name", "give the surface a name")
	}
	fault.OneOf(&bad, "part", s.Part, area.Parts)
	fault.OneOf(&bad, "side", s.Side, area.Sides)
	bad.Under("measure", s.Measure.Validate(s.Part))
	return bad.Err()
}

func (s SurfaceEdit) row(id string, version int, boatID string) store.Surface {
	return store.Surface{ID: id, Version: version, BoatID: boatID, Name: s.Name, Part: string(s.Part), Side: string(s.Side),
		Substrate: s.Substrate, Measure: store.JSON[area.Measure]{V: s.Measure}}
}

func surfaceOf(r store.Surface, b Boat) (Surface, error) {
	s := Surface{r.ID, r.Version, r.BoatID, SurfaceEdit{r.Name, area.Part(r.Part), area.Side(r.Side), r.Substrate, r.Measure.V}, area.Figure{}}
	var err error
	s.Area, err = area.Of(b.Dimensions, s.Part, s.Side, s.Measure)
	return s, err
}

// Survey is a boat with her place, her surfaces and her drawing.
type Survey struct {
	Boat     Boat           `json:"boat"`
	Place    Place          `json:"place"`
	Surfaces []Surface      `json:"surfaces"`
	Views    []outline.View `json:"views"`
}

// Survey returns a boat as surveyed.
func (a *App) Survey(ctx context.Context, boatID string) (Survey, error) {
	return survey(ctx, a.store.Read(), boatID)
}

func survey(ctx context.Context, q store.Queries, boatID string) (Survey, error) {
	b, err := q.Boat(ctx, boatID)
	if err != nil {
		return Survey{}, err
	}
	p, err := q.Place(ctx, b.PlaceID)
	if err != nil {
		return Survey{}, err
	}
	rows, err := q.Surfaces(ctx, boatID)
	if err != nil {
		return Survey{}, err
	}
	out := Survey{Boat: boatOf(b), Place: placeOf(p), Surfaces: make([]Surface, len(rows))}
	for i, r := range rows {
		if out.Surfaces[i], err = surfaceOf(r, out.Boat); err != nil {
			return Survey{}, err
		}
	}
	out.Views = outline.Views(out.Boat.Dimensions)
	return out, nil
}

// Surface returns one surface.
func (a *App) Surface(ctx context.Context, id string) (Surface, error) {
	r, err := a.store.Read().Surface(ctx, id)
	if err != nil {
		return Surface{}, err
	}
	b, err := a.Boat(ctx, r.BoatID)
	if err != nil {
		return Surface{}, err
	}
	return surfaceOf(r, b)
}

// AddSurface stores a new surface of a boat.
func (a *App) AddSurface(ctx context.Context, boatID string, e SurfaceEdit) (Surface, error) {
	if err := e.validate(); err != nil {
		return Surface{}, err
	}
	id := newID()
	err := a.store.Write(ctx, func(q store.Queries) error {
		if _, err := q.Boat(ctx, boatID); err != nil {
			return err
		}
		return q.AddSurface(ctx, e.row(id, 1, boatID))
	})
	if err != nil {
		return Surface{}, err
	}
	return a.Surface(ctx, id)
}

// EditSurface changes a surface.
func (a *App) EditSurface(ctx context.Context, id string, version int, e SurfaceEdit) (Surface, error) {
	if err := e.validate(); err != nil {
		return Surface{}, err
	}
	err := a.store.Write(ctx, func(q store.Queries) error { return q.EditSurface(ctx, e.row(id, version, "")) })
	if err != nil {
		return Surface{}, stale(err, func() (Surface, error) { return a.Surface(ctx, id) })
	}
	return a.Surface(ctx, id)
}

// RemoveSurface deletes a surface that has no logged coats; one that has is
// refused, so that no record is lost with it.
func (a *App) RemoveSurface(ctx context.Context, id string) error {
	return a.store.Write(ctx, func(q store.Queries) error {
		s, err := q.Surface(ctx, id)
		if err != nil {
			return err
		}
		log, err := q.BoatLog(ctx, s.BoatID)
		if err != nil {
			return err
		}
		n := 0
		for _, e := range log {
			if e.SurfaceID == id && e.DeletedAt == nil {
				n++
			}
		}
		if n > 0 {
			return InUse{[]string{"its log entries; delete those first"}}
		}
		return q.RemoveSurface(ctx, id)
	})
}
