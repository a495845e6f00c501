// Package demo builds a made-up estuary yard with three boats. It goes through
// the use cases, so that demo data is always possible data.
package demo

import (
	"context"
	"fmt"
	"time"

	"allcoats/app"
	"allcoats/core/area"
	"allcoats/core/film"
	"allcoats/core/product"
)

// Now is the instant at which the demo stands: a Saturday in May, in the yard's
// zone 09:24.
var Now = time.Date(2026, 5, 9, 8, 24, 0, 0, time.UTC)

// Seed makes the simulated weather of the demo.
const Seed = 62

// Yard is where the boats stand: no real yard, a stated latitude with the
// synthetic climate of package instruments.
var Yard = app.PlaceEdit{Name: "Sallow Creek Yard", LatitudeDeg: 52.9, LongitudeDeg: 0.8, TimeZone: "Europe/London", WeatherSource: app.Simulated}

// step plans coats of the first product of a kind; zero figures mean the
// sheet's or the method's usual ones.
type step struct {
	kind   product.Kind
	coats  int
	dftUm  float64
	method string
}

// done is a coat or sanding in the past: daysAgo at hour o'clock local.
type done struct {
	daysAgo int
	hour    float64
	step    int // index of the planned step; −1 for a sanding
	litres  float64
	wetUm   []float64
	note    string
}

type surface struct {
	app.SurfaceEdit
	steps []step
	done  []done
}

type boat struct {
	app.BoatEdit
	surfaces []surface
}

func part(name string, p area.Part, s area.Side, substrate string) app.SurfaceEdit {
	return app.SurfaceEdit{Name: name, Part: p, Side: s, Substrate: substrate, Measure: area.Measure{Method: area.ByPrincipal}}
}

func strip(name, substrate string, length, width float64, count int) app.SurfaceEdit {
	return app.SurfaceEdit{Name: name, Part: area.Other, Side: area.Both, Substrate: substrate,
		Measure: area.Measure{Method: area.ByStrip, LengthM: length, WidthM: width, Count: count}}
}

var boats = []boat{
	{
		app.BoatEdit{Name: "Marsh Lantern", Type: "GRP pilot launch", HeadingDeg: 240, LaunchDate: "2026-05-30",
			Dimensions: area.Dimensions{HullForm: area.FullMotor, LOAM: 9.8, LWLM: 8.9, BeamM: 3.2, DraughtM: 1.05, FreeboardM: 1.1, HousesM2: 7.5}},
		[]surface{
			{part("Bottom", area.Bottom, area.Both, "GRP"),
				[]step{{product.Barrier, 5, 125, "roller"}, {product.SoftAntifoul, 3, 60, "roller"}},
				[]done{{5, 11, 0, 8.4, nil, "coat 1, grey"}, {4, 11.5, 0, 8.1, nil, "coat 2, green"}, {2, 13, 0, 8.3, nil, "coat 3, grey"}}},
			{part("Topsides port", area.Topsides, area.Port, "GRP, old gelcoat"),
				[]step{{product.HighBuild, 2, 100, "roller"}, {product.TopcoatTwo, 3, 50, "roll-and-tip"}},
				[]done{{3, 12, 0, 3.1, []float64{180, 190, 200, 185}, ""}, {1, 12.5, 0, 3.0, []float64{185, 190, 180}, "pinholes forward, spot-filled"}}},
			{part("Topsides starboard", area.Topsides, area.Starboard, "GRP, old gelcoat"),
				[]step{{product.HighBuild, 2, 100, "roller"}, {product.TopcoatTwo, 3, 50, "roll-and-tip"}},
				[]done{{3, 15, 0, 3.2, nil, ""}}},
			{part("Deck", area.Deck, area.Both, "GRP sandwich"),
				[]step{{product.Undercoat, 1, 40, "roller"}, {product.NonSkidPaint, 2, 90, "roller"}}, nil},
			{strip("Rudder", "GRP", 1.1, 0.55, 2),
				[]step{{product.Fairing, 2, 1500, "blade"}, {product.Barrier, 4, 125, "brush"}},
				[]done{{1, 9.5, 0, 2.2, nil, "round 1, proud"}}},
		},
	},
	{
		app.BoatEdit{Name: "Reed Warbler", Type: "strip-planked canoe yawl", HeadingDeg: 150, LaunchDate: "2026-06-06",
			Dimensions: area.Dimensions{HullForm: area.Medium, LOAM: 7.2, LWLM: 6.4, BeamM: 2.1, DraughtM: 0.85, FreeboardM: 0.62, HousesM2: 3.4}},
		[]surface{
			{part("Bottom", area.Bottom, area.Both, "strip plank, epoxy sheathed"),
				[]step{{product.TieCoat, 1, 50, "roller"}, {product.HardAntifoul, 2, 50, "roller"}},
				[]done{{6, 14, 0, 1.2, nil, ""}}},
			{part("Topsides port", area.Topsides, area.Port, "strip plank, bright"),
				[]step{{product.WoodSealer, 2, 40, "roller"}, {product.Varnish, 6, 30, "brush"}},
				[]done{{9, 11, 0, 0.5, nil, ""}, {8, 10.5, 0, 0.5, nil, ""}, {7, 12, 1, 0.4, nil, ""}, {5, 12, 1, 0.4, nil, ""}, {2, 11.5, 1, 0.42, nil, ""}}},
			{part("Topsides starboard", area.Topsides, area.Starboard, "strip plank, bright"),
				[]step{{product.WoodSealer, 2, 40, "roller"}, {product.Varnish, 6, 30, "brush"}},
				[]done{{9, 13.5, 0, 0.5, nil, ""}, {8, 13, 0, 0.5, nil, ""}, {6, 12, 1, 0.4, nil, "hair in the last metre"}, {1, 17, -1, 0, nil, "scuffed for the next coat"}}},
			{strip("Coamings and rails", "mahogany", 9.5, 0.22, 2),
				[]step{{product.Varnish, 7, 30, "brush"}},
				[]done{{10, 11, 0, 0.35, nil, ""}, {8, 15, 0, 0.35, nil, ""}, {5, 15, 0, 0.36, nil, ""}}},
			{strip("Mizzen mast", "spruce", 4.8, 0.28, 1), []step{{product.Varnish, 6, 30, "brush"}}, nil},
			{part("Deck", area.Deck, area.Both, "ply, sheathed"), []step{{product.NonSkidGrit, 1, 250, "roller"}, {product.TopcoatTwo, 2, 50, "roller"}}, nil},
		},
	},
	{
		app.BoatEdit{Name: "Sounding Line", Type: "aluminium survey tender", HeadingDeg: 20, LaunchDate: "2026-05-23", Lights: true,
			Dimensions: area.Dimensions{HullForm: area.FullMotor, LOAM: 6.4, LWLM: 5.7, BeamM: 2.3, DraughtM: 0.45, FreeboardM: 0.8, HousesM2: 2.2}},
		[]surface{
			{part("Bottom", area.Bottom, area.Both, "aluminium"),
				[]step{{product.MetalPrimer, 2, 75, "roller"}, {product.Barrier, 2, 125, "roller"}, {product.HardAntifoul, 2, 50, "roller"}},
				[]done{{4, 10, 0, 2.6, nil, "abraded the same morning"}, {3, 10.5, 0, 2.5, nil, ""}, {1, 13, 1, 3.5, nil, ""}}},
			{part("Topsides port", area.Topsides, area.Port, "aluminium"),
				[]step{{product.MetalPrimer, 2, 75, "roller"}, {product.TopcoatTwo, 2, 50, "spray"}},
				[]done{{15, 11, 0, 1.0, nil, ""}}},
			{part("Topsides starboard", area.Topsides, area.Starboard, "aluminium"),
				[]step{{product.MetalPrimer, 2, 75, "roller"}, {product.TopcoatTwo, 2, 50, "spray"}}, nil},
			{part("Deck", area.Deck, area.Both, "aluminium"), nil, nil},
		},
	},
}

// Boats returns what the demo's boats are, without a place.
func Boats() []app.BoatEdit {
	out := make([]app.BoatEdit, len(boats))
	for i, b := range boats {
		out[i] = b.BoatEdit
	}
	return out
}

// Build fills an empty database with the yard as it stands at now, and sets
// the clock to mode.
func Build(ctx context.Context, a *app.App, now time.Time, mode app.ClockMode) error {
	if err := a.SetClock(ctx, mode, now); err != nil {
		return err
	}
	place, err := a.AddPlace(ctx, Yard)
	if err != nil {
		return fmt.Errorf("yard: %w", err)
	}
	products, err := a.Products(ctx)
	if err != nil {
		return err
	}
	byKind := map[product.Kind]app.Product{}
	for _, p := range products {
		byKind[p.Sheet.Kind] = p
	}
	for _, b := range boats {
		b.PlaceID = place.ID
		if launch, err := time.Parse(time.DateOnly, b.LaunchDate); err == nil {
			b.LaunchDate = launch.Add(now.Sub(Now).Truncate(24 * time.Hour)).Format(time.DateOnly)
		}
		made, err := a.AddBoat(ctx, b.BoatEdit, false)
		if err != nil {
			return fmt.Errorf("%s: %w", b.Name, err)
		}
		for _, s := range b.surfaces {
			if err := s.build(ctx, a, made.ID, byKind, now); err != nil {
				return fmt.Errorf("%s, %s: %w", b.Name, s.Name, err)
			}
		}
	}
	return nil
}

func (s surface) build(ctx context.Context, a *app.App, boatID string, byKind map[product.Kind]app.Product, now time.Time) error {
	made, err := a.AddSurface(ctx, boatID, s.SurfaceEdit)
	if err != nil || len(s.steps) == 0 {
		return err
	}
	steps := make([]app.Step, len(s.steps))
	for i, st := range s.steps {
		m, _ := film.MethodByKey(st.method)
		steps[i] = app.Step{ProductID: byKind[st.kind].ID, Coats: st.coats, DFTUm: st.dftUm, Method: st.method, LossPct: m.LossPct}
	}
	plan, err := a.SetBuildUp(ctx, made.ID, made.Version, steps)
	if err != nil {
		return err
	}
	loc, err := time.LoadLocation(Yard.TimeZone)
	if err != nil {
		return err
	}
	local := now.In(loc)
	day := time.Date(local.Year(), local.Month(), local.Day(), 0, 0, 0, 0, loc)
	for _, d := range s.done {
		at := day.AddDate(0, 0, -d.daysAgo).Add(time.Duration(d.hour * float64(time.Hour)))
		e := app.EntryEdit{SurfaceID: made.ID, Kind: app.KindSand, Grit: 240, Who: "Wim", Note: d.note}
		if d.step >= 0 {
			st := plan.Steps[d.step]
			e.Kind, e.Grit, e.Who = app.KindCoat, 0, "Ada"
			e.ProductID, e.StepID, e.Litres, e.WetUm = st.ProductID, st.ID, d.litres, d.wetUm
		}
		e.StartedAt = at.UTC()
		if _, err := a.AddEntry(ctx, e); err != nil {
			return fmt.Errorf("log %d days ago: %w", d.daysAgo, err)
		}
	}
	return nil
}
