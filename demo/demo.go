// Package demo builds a made-up estuary yard with three boats. It goes through
// the use cases, so that demo data is always possible data.
package demo

import (
	"context"
	"errors"
	"fmt"
	"math"
	"slices"
	"time"

	"allcoats/app"
	"allcoats/core/base/fielderr"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/geometry/mesh"
	"allcoats/core/job/logbook"
)

// Now is the instant at which the demo stands: a Saturday in May, in the yard's
// zone 09:24.
var Now = time.Date(2026, 5, 9, 8, 24, 0, 0, time.UTC)

// Seed makes the simulated weather of the demo.
const Seed = 62

// Yard is where the boats stand: no real yard, a stated latitude with the
// synthetic climate of package instruments.
var Yard = app.PlaceEdit{Name: "Sallow Creek Yard", LatitudeDeg: 52.9, LongitudeDeg: 0.8, TimeZone: "Europe/London",
	WeatherSource: app.Simulated}

// step plans coats of the first product of a kind, or other work; zero figures
// mean the sheet's or the method's usual ones.
type coats struct {
	kind   product.Kind
	coats  int
	dftUm  float64
	method string
	work   step.Work // other work than a coat, such as sanding
	grit   int
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
	steps []coats
	done  []done
	flaws []survey.Defect
}

type boat struct {
	app.BoatEdit
	offsets  string // her table of offsets, if she has one
	surfaces []surface
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
	if err := a.MarkDemo(ctx); err != nil {
		return err
	}
	if err := a.SetClock(ctx, mode, now); err != nil {
		return err
	}
	if err := a.SetCurrency(ctx, "EUR"); err != nil {
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
	byKind := map[product.Kind]app.Product{} // the first example of each kind
	for _, e := range product.Examples() {
		for _, p := range products {
			if _, ok := byKind[e.Kind]; !ok && p.Sheet.Name == e.Name {
				byKind[e.Kind] = p
			}
		}
	}
	for _, b := range boats {
		b.PlaceID = place.ID
		if launch, err := time.Parse(time.DateOnly, b.LaunchDate); err == nil {
			b.LaunchDate = launch.Add(now.Sub(Now).Truncate(24 * time.Hour)).Format(time.DateOnly)
		}
		made, err := a.AddBoat(ctx, app.NewBoat{BoatEdit: b.BoatEdit})
		if err != nil {
			return fmt.Errorf("%s: %w", b.Name, err)
		}
		if b.offsets != "" {
			edit := app.ModelEdit{Name: "Table of offsets", Draws: true, Placing: mesh.Placing{Unit: "m", Up: "+z",
				Forward: "+x", WaterlineM: b.Dimensions.DraughtM}}
			model, err := a.AddModel(ctx, made.ID, "offsets", edit, []byte(b.offsets))
			if err != nil {
				return fmt.Errorf("%s, offsets: %w", b.Name, err)
			}
			b.surfaces = slices.Clone(b.surfaces) // boats stays as it is
			m := &b.surfaces[0].Measured
			m.Measures = append(slices.Clone(m.Measures),
				area.Measure{Method: area.ByModel, Model: &area.Model{ModelID: model.ID, Zone: mesh.Bottom}})
			m.Chosen = len(m.Measures) - 1
		}
		for _, s := range b.surfaces {
			if err := s.build(ctx, a, made.ID, byKind, now); err != nil {
				return fmt.Errorf("%s, %s: %w", b.Name, s.Name, err)
			}
		}
	}
	if err := wire(ctx, a, place.ID); err != nil {
		return err
	}
	if err := stockUp(ctx, a, byKind, now); err != nil {
		return err
	}
	if err := finish(ctx, a, now); err != nil {
		return fmt.Errorf("finishes: %w", err)
	}
	return hire(ctx, a, place.ID)
}

func (s surface) build(ctx context.Context, a *app.App, boatID string, byKind map[product.Kind]app.Product,
	now time.Time) error {
	made, err := a.AddSurface(ctx, boatID, s.SurfaceEdit)
	if err != nil {
		return err
	}
	for _, f := range s.flaws {
		d, err := a.AddDefect(ctx, boatID, app.NewDefect{DefectEdit: app.DefectEdit{SurfaceID: made.ID, Defect: f}})
		if err != nil {
			return fmt.Errorf("defect: %w", err)
		}
		if f.Kind == "crack" {
			if _, err := a.AddPhoto(ctx, d.ID, photo()); err != nil {
				return fmt.Errorf("photo: %w", err)
			}
		}
	}
	if len(s.steps) == 0 {
		return nil
	}
	steps := make([]app.Step, len(s.steps))
	for i, st := range s.steps {
		m, _ := film.MethodByKey(st.method)
		if st.work != "" {
			steps[i] = app.Step{Step: step.Step{Work: st.work, Grit: st.grit}}
			continue
		}
		steps[i] = app.Step{ProductID: byKind[st.kind].ID, Step: step.Step{Work: step.Coat, Coats: st.coats,
			DFTUm: st.dftUm, Method: st.method, LossPct: m.LossPct}}
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
		e := logbook.Entry{SurfaceID: made.ID, Kind: step.Sand, Grit: 240, Who: "Wim", Note: d.note}
		if d.step >= 0 {
			st := plan.Steps[d.step]
			e.Kind, e.Grit, e.Who = step.Coat, 0, "Ada"
			e.ProductID, e.StepID, e.Litres, e.WetUm = st.ProductID, st.ID, d.litres, d.wetUm
			m, _ := film.MethodByKey(st.Method)
			e.Hours = math.Round(10*made.Area.AreaM2/m.RateM2H) / 10
			e.Batch = fmt.Sprintf("L%02d%s", 10+d.step, at.Format("0102"))
		}
		e.StartedAt = at.UTC()
		_, err := a.AddEntry(ctx, app.NewEntry{Entry: e})
		var bad fielderr.Errors
		if errors.As(err, &bad) && bad[0].Path == "early" { // built around a cold time
			e.Early = "the weekend was over"
			_, err = a.AddEntry(ctx, app.NewEntry{Entry: e})
		}
		if err != nil {
			return fmt.Errorf("log %d days ago: %w", d.daysAgo, err)
		}
	}
	return nil
}
