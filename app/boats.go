package app

import (
	"context"
	"errors"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/fielderr"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/physics/weather"
	"allcoats/formats"
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
	// MonthsAfloat are those of a year, SeasonNM is how far she goes in one, nautical miles: finishes
	// wear by them.
	MonthsAfloat float64 `json:"monthsAfloat,omitempty"`
	SeasonNM     float64 `json:"seasonNM,omitempty"`
	// BudgetCents is what the refit may cost, 0 if that is not said.
	BudgetCents float64 `json:"budgetCents,omitempty"`
}

func (b BoatEdit) validate() error {
	var bad fielderr.Errors
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
	b.Dimensions = b.Dimensions.Filled()
	bad.Under("dimensions", b.Dimensions.Validate())
	bad.Range("displacementT", b.DisplacementT, 0, 5000, "t")
	if bad == nil {
		if cb := b.Dimensions.Block(b.DisplacementT); cb > 1 {
			bad.Add("displacementT",
				"is more water than her length, beam and draught enclose (block coefficient %.2f): no hull does that",
				cb)
		}
	}
	bad.Under("week", b.Week.Validate())
	bad.Range("crew", float64(b.Crew), 0, 50, "people")
	bad.Range("dewFreeH", b.DewFreeH, 0, 72, "h")
	bad.Range("monthsAfloat", b.MonthsAfloat, 0, 12, "months")
	bad.Range("budgetCents", b.BudgetCents, 0, 1e10, "cents")
	bad.Range("seasonNM", b.SeasonNM, 0, 50_000, "nautical miles")
	return bad.Err()
}

func (b BoatEdit) row(id string, version int) store.Boat {
	d := b.Dimensions
	return store.Boat{
		ID: id, Version: version, PlaceID: b.PlaceID, Name: b.Name, Type: b.Type, HeadingDeg: b.HeadingDeg,
		LaunchDate: b.LaunchDate,
		Lights:     b.Lights, HullForm: string(d.HullForm), LOAM: d.LOAM, LWLM: d.LWLM, BeamM: d.BeamM,
		DraughtM:   d.DraughtM,
		FreeboardM: d.FreeboardM, HousesM2: d.HousesM2, BodyDraughtM: d.BodyDraughtM, HullBeamM: d.HullBeamM,
		Guessed: store.JSON[[]string]{V: d.Guessed}, DisplacementT: b.DisplacementT,
		Week: store.JSON[calendar.Week]{V: b.Week}, Crew: max(1, b.Crew), DewFreeH: b.DewFreeH,
		MonthsAfloat: b.MonthsAfloat, SeasonNM: b.SeasonNM, BudgetCents: b.BudgetCents,
	}
}

func boatOf(r store.Boat) Boat {
	return Boat{r.ID, r.Version, BoatEdit{
		Name: r.Name, Type: r.Type, PlaceID: r.PlaceID, HeadingDeg: r.HeadingDeg, LaunchDate: r.LaunchDate,
		Lights: r.Lights,
		Dimensions: area.Dimensions{HullForm: area.HullForm(r.HullForm), LOAM: r.LOAM, LWLM: r.LWLM, BeamM: r.BeamM,
			DraughtM:   r.DraughtM,
			FreeboardM: r.FreeboardM, HousesM2: r.HousesM2, BodyDraughtM: r.BodyDraughtM, HullBeamM: r.HullBeamM,
			Guessed: r.Guessed.V},
		DisplacementT: r.DisplacementT, Week: r.Week.V, Crew: r.Crew, DewFreeH: r.DewFreeH,
		MonthsAfloat: r.MonthsAfloat, SeasonNM: r.SeasonNM, BudgetCents: r.BudgetCents,
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

// UsualTemplate asks for the hull type that her form and substrate usually are.
const UsualTemplate = "usual"

// NewBoat is a boat to add with the surfaces of a template (survey.Templates, or UsualTemplate),
// measured by her principal dimensions; an empty template adds none. Weather tells that of her place
// in words or hours, as for a Question; First is a coat to plan at once.
type NewBoat struct {
	BoatEdit
	Template  string           `json:"template,omitempty"`
	Substrate survey.Substrate `json:"substrate,omitempty"`
	Weather   string           `json:"weather,omitempty" maxLength:"200000"`
	First     *FirstCoat       `json:"first,omitempty"`
}

// FirstCoat are coats of a product for the surfaces of a part, of AreaM2 if that was measured.
type FirstCoat struct {
	ProductID string    `json:"productId"`
	Part      area.Part `json:"part"`
	Coats     int       `json:"coats"`
	AreaM2    float64   `json:"areaM2,omitempty"`
}

// AddBoat stores a new boat.
func (a *App) AddBoat(ctx context.Context, n NewBoat) (Boat, error) {
	return change(ctx, a, func(ctx context.Context) (Boat, error) {
		e := n.BoatEdit
		var bad fielderr.Errors
		bad.Under("", e.validate())
		if n.Template == UsualTemplate {
			n.Template = survey.TemplateFor(e.Dimensions.HullForm, n.Substrate)
		}
		surfaces, err := fromTemplate(n.Template, n.Substrate)
		bad.Under("", err)
		if e.Type == "" {
			e.Type = survey.TemplateName(n.Template)
		}
		told, err := n.weather(ctx, a)
		bad.Under("", err)
		if err := bad.Err(); err != nil {
			return Boat{}, err
		}
		id := newID()
		var first []string
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			if err := e.settle(ctx, q); err != nil {
				return err
			}
			if err := q.AddBoat(ctx, e.row(id, 1)); err != nil {
				return err
			}
			for _, s := range surfaces {
				surfaceID := newID()
				if n.First != nil && s.Part == n.First.Part {
					first = append(first, surfaceID)
					s = n.First.measures(s)
				}
				if err := q.AddSurface(ctx, s.row(surfaceID, 1, id)); err != nil {
					return err
				}
			}
			return nil
		})
		for _, surfaceID := range first {
			if err == nil {
				err = n.First.plan(ctx, a, surfaceID)
			}
		}
		if err == nil && told != nil {
			var p Place
			if p, err = a.Place(ctx, e.PlaceID); err == nil {
				_, err = a.putRecord(ctx, p, told, n.told())
			}
		}
		if err == nil {
			err = a.RefreshWeather(ctx)
		}
		if err != nil {
			return Boat{}, err
		}
		return a.Boat(ctx, id)
	})
}

// weather reads what was told of the weather at the boat's place.
func (n NewBoat) weather(ctx context.Context, a *App) (weather.Series, error) {
	if strings.TrimSpace(n.Weather) == "" {
		return nil, nil
	}
	now, err := a.Now(ctx)
	if err != nil {
		return nil, err
	}
	var p PlaceEdit
	if n.NewPlace != nil {
		p = *n.NewPlace
	} else if stands, err := a.Place(ctx, n.PlaceID); err == nil {
		p = stands.PlaceEdit
	}
	told, _, _, err := readWeather([]byte(n.Weather), now, p.location())
	return told, err
}

// toldPct is the ± of an area that was told without saying how it was measured, %: a rule of thumb.
const toldPct = 10

// told is where the weather comes from.
func (n NewBoat) told() string {
	if formats.IsTable([]byte(n.Weather)) {
		return Imported
	}
	return Told
}

// measures is a surface of the part with the area that was measured of its part, shared by her sides.
func (c *FirstCoat) measures(s SurfaceEdit) SurfaceEdit {
	if c.AreaM2 <= 0 {
		return s
	}
	a := c.AreaM2
	if s.Side != area.Both {
		a /= 2
	}
	s.Measured.Measures = append(s.Measured.Measures, area.Measure{Method: area.Stated, AreaM2: a,
		UncertaintyPct: toldPct})
	s.Measured.Chosen = len(s.Measured.Measures) - 1
	return s
}

// mostMends is how many mends of a new build-up are taken before its user looks at it himself.
const mostMends = 12

// plan puts the coats on a surface, with the work that the rules want before and between them.
func (c *FirstCoat) plan(ctx context.Context, a *App, surfaceID string) error {
	p, err := a.Product(ctx, c.ProductID)
	if err != nil || !p.Sheet.IsCoat() || len(p.Sheet.Methods) == 0 {
		return fielderr.At("first.productId", "is no coat of the library")
	}
	m, _ := film.MethodByKey(p.Sheet.Methods[0])
	loss, own := p.Sheet.LossPct[m.Key]
	if !own {
		loss = m.LossPct
	}
	steps := []Step{{ProductID: p.ID, Step: step.Step{Work: step.Coat, Coats: max(1, c.Coats),
		DFTUm: p.Sheet.Film.TypicalUm, Method: m.Key, LossPct: loss}}}
	for range mostMends {
		b, err := a.PreviewBuildUp(ctx, surfaceID, steps)
		if err != nil {
			return err
		}
		i := slices.IndexFunc(b.Findings, func(f Finding) bool { return f.Mended != nil })
		if i < 0 {
			break
		}
		steps = b.Findings[i].Mended
	}
	_, err = a.SetBuildUp(ctx, surfaceID, 1, steps)
	return err
}

// settle fills in what is guessed of the boat, and adds her new place or checks that her place is
// there.
func (b *BoatEdit) settle(ctx context.Context, q store.Queries) error {
	b.Dimensions = b.Dimensions.Filled()
	if b.NewPlace != nil {
		b.PlaceID = newID()
		return q.AddPlace(ctx, b.NewPlace.row(b.PlaceID, 1))
	}
	if _, err := q.Place(ctx, b.PlaceID); errors.Is(err, store.ErrNotFound) {
		return fielderr.At("placeId", "this place is not there any more")
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
