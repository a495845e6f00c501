package app

import (
	"context"
	"slices"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/job/buildup"
	"allcoats/core/job/logbook"
	"allcoats/core/job/upkeep"
)

// Upkeep is what is due on a boat, the soonest first, and what on the shelf is near
// its end.
type Upkeep struct {
	Films []DueFilm   `json:"films"`
	Shelf []StockItem `json:"shelf"`
	// Season is the year, by her place, whose season comes next or is on: finishes are graded at its start.
	Season int `json:"season"`
}

// DueFilm is a film that wants doing again. Held is how it held when it was graded last, nil before.
type DueFilm struct {
	SurfaceID string       `json:"surfaceId"`
	Surface   string       `json:"surface"`
	ProductID string       `json:"productId"`
	Product   string       `json:"product"`
	FilmUm    float64      `json:"filmUm"`
	LaidAt    time.Time    `json:"laidAt"`
	Held      logbook.Held `json:"held,omitempty"`
	HeldAt    *time.Time   `json:"heldAt,omitempty"`
	// Below says that it is an antifouling.
	Below bool `json:"below"`
	// Planned says that work which renews it is in the job already.
	Planned bool `json:"planned"`
	upkeep.Due
}

// stood is a film as it stood from one coat to the next, and how it was graded meanwhile, in the order
// of time.
type stood struct {
	film      upkeep.Film
	productID string
	grades    []upkeep.Grade
	held      logbook.Held
}

// exposed is where a surface lies to the weather, and how its boat is used.
func (w work) exposed(f Surface) upkeep.Film {
	b := w.survey.Boat
	return upkeep.Film{MonthsAfloat: b.MonthsAfloat, NM: b.SeasonNM, Worn: f.Part == area.Rudder ||
		f.Part == area.BootTop,
		Exposure: upkeep.Exposure{LatitudeDeg: w.survey.Place.LatitudeDeg, TiltDeg: f.Tilt(f.Part),
			Covered: f.Shelter != survey.Open, Inside: f.Part.Info().Inside}}
}

// stoods are the films of a surface from coat to coat.
func (w work) stoods(f Surface) []stood {
	var out []stood
	done := w.filmDone(f.ID)
	for i, e := range w.log[f.ID] {
		switch {
		case e.Kind.Kind().Lays && e.ProductID != "":
			s := stood{film: w.exposed(f), productID: e.ProductID}
			s.film.Sheet, s.film.LastAt = w.sheet(e), e.StartedAt
			layers, _ := buildup.Section("", f.Findings, done[:i+1], nil, nil)
			for _, l := range layers {
				if l.Laid && l.Product == w.products[e.ProductID].Name {
					s.film.Um += l.Um
				}
			}
			out = append(out, s)
		case e.Kind.Kind().Graded && len(out) > 0:
			last := &out[len(out)-1]
			last.grades, last.held = append(last.grades, upkeep.Grade{At: e.StartedAt, Worst: e.Held.Worst()}), e.Held
		}
	}
	return out
}

// habit is what the grades of the boat's films of a kind taught, but for the one that stands on a
// surface.
func (w work) habit(k product.Kind, except string) upkeep.Habit {
	var used []upkeep.Used
	for _, f := range w.survey.Surfaces {
		if !slices.ContainsFunc(w.log[f.ID], func(e logbook.Logged) bool { return e.Kind.Kind().Graded }) {
			continue
		}
		all := w.stoods(f)
		for i, s := range all {
			if s.film.Sheet.Kind != k || f.ID == except && i == len(all)-1 {
				continue
			}
			for _, g := range s.grades {
				if life, ok := s.film.Spends(g.At); ok {
					used = append(used, upkeep.Used{Life: life, Worst: g.Worst})
				}
			}
		}
	}
	return upkeep.Learn(used)
}

// Upkeep tells what was laid that wants doing again.
func (a *App) Upkeep(ctx context.Context, boatID string) (Upkeep, error) {
	o, err := a.look(ctx, boatID)
	if err != nil {
		return Upkeep{}, err
	}
	return o.upkeep(), nil
}

func (o boatState) upkeep() Upkeep {
	out := Upkeep{Films: []DueFilm{}, Shelf: []StockItem{}, Season: o.now.In(o.s.Loc).AddDate(0, 2, 0).Year()}
	for _, f := range o.survey.Surfaces {
		all := o.stoods(f)
		if len(all) == 0 {
			continue
		}
		s := all[len(all)-1]
		due, ok := s.film.Next(o.habit(s.film.Sheet.Kind, f.ID), s.grades)
		if !ok {
			continue
		}
		one := DueFilm{SurfaceID: f.ID, Surface: f.Name, ProductID: s.productID, Product: o.products[s.productID].Name,
			FilmUm: s.film.Um, LaidAt: s.film.LastAt, Held: s.held, Below: s.film.Sheet.Kind.Info().Antifouling,
			Due: due}
		if n := len(s.grades); n > 0 {
			one.HeldAt = &s.grades[n-1].At
		}
		for _, t := range o.job.Chain(f.ID).Tasks {
			one.Planned = one.Planned || t.Films && t.Left()
		}
		out.Films = append(out.Films, one)
	}
	slices.SortStableFunc(out.Films, func(a, b DueFilm) int { return a.At.Compare(b.At) })
	for _, s := range o.shelf {
		if len(s.Worry) > 0 && s.LeftL > 0 {
			out.Shelf = append(out.Shelf, s)
		}
	}
	return out
}

// Renew puts the work that renews the film of a surface into its build-up: a wash, a scuff, and coats of what is on.
func (a *App) Renew(ctx context.Context, surfaceID string) (BuildUp, error) {
	return change(ctx, a, func(ctx context.Context) (BuildUp, error) {
		w, err := a.loadWork(ctx, a.store.Read(ctx), surfaceID)
		if err != nil {
			return BuildUp{}, err
		}
		f := w.surface(surfaceID)
		all := w.stoods(f)
		if len(all) == 0 {
			return BuildUp{}, fielderr.At("surfaceId", "no coat is logged on %s: nothing is there to renew", f.Name)
		}
		last := all[len(all)-1]
		method := ""
		if m := last.film.Sheet.Methods; len(m) > 0 {
			method = m[0]
		}
		for _, s := range w.steps[surfaceID] {
			if s.ProductID == last.productID && s.Films() {
				method = s.Method
			}
		}
		steps := slices.Clone(w.steps[surfaceID])
		for _, st := range upkeep.Renewal(last.film.Sheet, method) {
			one := Step{Step: st}
			if st.Films() {
				one.ProductID = last.productID
			}
			steps = append(steps, one)
		}
		return a.SetBuildUp(ctx, surfaceID, f.Version, steps)
	})
}
