package app

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/base/working"
	"allcoats/core/catalog/product"
	"allcoats/core/job/buildup"
	"allcoats/core/job/rules"
	"allcoats/core/job/scheme"
	"allcoats/core/job/task"
	"allcoats/store"
)

// System is a named sequence of steps that can be applied to surfaces. Every
// version is kept.
type System struct {
	ID      string `json:"id"`
	Version int    `json:"version"`
	SystemEdit
	Versions []SystemVersion `json:"versions"`
}

// SystemEdit is what a user can set of a system.
type SystemEdit struct {
	Name  string `json:"name"`
	Note  string `json:"note"`
	Steps []Step `json:"steps"`
}

// SystemVersion is a system as it was saved.
type SystemVersion struct {
	Version int       `json:"version"`
	At      time.Time `json:"at"`
	Steps   []Step    `json:"steps"`
}

func stepsOf(rows []store.Step) []Step {
	out := make([]Step, len(rows))
	for i, r := range rows {
		out[i] = stepOf(r)
	}
	return out
}

// Systems lists the systems by name.
func (a *App) Systems(ctx context.Context) ([]System, error) {
	q := a.store.Read(ctx)
	rows, err := q.Systems(ctx)
	if err != nil {
		return nil, err
	}
	versions, err := q.SystemVersions(ctx)
	out := make([]System, len(rows))
	for i, r := range rows {
		out[i] = System{r.ID, r.Version, SystemEdit{r.Name, r.Note, stepsOf(r.Steps.V)}, []SystemVersion{}}
		for _, v := range versions {
			if v.SystemID == r.ID {
				out[i].Versions = append(out[i].Versions, SystemVersion{v.Version, time.Unix(v.At, 0).UTC(),
					stepsOf(v.Steps.V)})
			}
		}
	}
	return out, err
}

func (a *App) system(ctx context.Context, id string) (System, error) {
	all, err := a.Systems(ctx)
	for _, s := range all {
		if s.ID == id {
			return s, err
		}
	}
	if err == nil {
		err = ErrNotFound
	}
	return System{}, err
}

func (e SystemEdit) row(ctx context.Context, q store.Queries, id string, version int) (store.System, error) {
	var bad fielderr.Errors
	if strings.TrimSpace(e.Name) == "" {
		bad.Add("name", "give the system a name")
	}
	if len(e.Steps) == 0 {
		bad.Add("steps", "a system needs a step")
	}
	all, err := products(ctx, q)
	if err != nil {
		return store.System{}, err
	}
	rows := make([]store.Step, len(e.Steps))
	for i, s := range e.Steps {
		s.ID = ""
		k := slices.IndexFunc(all, func(p Product) bool { return p.ID == s.ProductID })
		var sheet product.Sheet
		if k >= 0 {
			sheet = all[k].Sheet
		}
		c := s.with(sheet)
		if k < 0 && c.Films() {
			bad.Add(fmt.Sprintf("steps[%d].productId", i), "choose a product of the library")
			continue
		}
		bad.Under(fmt.Sprintf("steps[%d]", i), c.Validate())
		rows[i] = s.row()
	}
	return store.System{ID: id, Version: version, Name: strings.TrimSpace(e.Name), Note: e.Note,
		Steps: store.JSON[[]store.Step]{V: rows}}, bad.Err()
}

// AddSystem stores a new system.
func (a *App) AddSystem(ctx context.Context, e SystemEdit) (System, error) {
	return change(ctx, a, func(ctx context.Context) (System, error) {
		now, err := a.Now(ctx)
		if err != nil {
			return System{}, err
		}
		id := newID()
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			row, err := e.row(ctx, q, id, 1)
			if err != nil {
				return err
			}
			return q.AddSystem(ctx, row, now.Unix())
		})
		if err != nil {
			return System{}, err
		}
		return a.system(ctx, id)
	})
}

// EditSystem stores a new version of a system. Surfaces that it was applied to
// keep the steps they have.
func (a *App) EditSystem(ctx context.Context, id string, version int, e SystemEdit) (System, error) {
	return change(ctx, a, func(ctx context.Context) (System, error) {
		now, err := a.Now(ctx)
		if err != nil {
			return System{}, err
		}
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			row, err := e.row(ctx, q, id, version)
			if err != nil {
				return err
			}
			return q.EditSystem(ctx, row, now.Unix())
		})
		if err != nil {
			return System{}, stale(err, func() (System, error) { return a.system(ctx, id) })
		}
		return a.system(ctx, id)
	})
}

// RemoveSystem deletes a system with its versions.
func (a *App) RemoveSystem(ctx context.Context, id string) error {
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error { return q.RemoveSystem(ctx, id) })
}

// schemeSteps turns a scheme into steps with the products of the library that suit a surface.
// What the library has no product for is named in missing, and left out.
func (w work) schemeSteps(key string, f Surface) (steps []Step, missing []string, err error) {
	i := slices.IndexFunc(scheme.Schemes(), func(s scheme.Scheme) bool { return s.Key == key })
	if i < 0 {
		return nil, nil, fielderr.At("key", "is no scheme that the program knows")
	}
	steps, missing = []Step{}, []string{}
	for _, s := range scheme.Schemes()[i].Steps {
		st := Step{Step: s.Step}
		if s.Kind != "" {
			id, ok := w.choose(s, f)
			if !ok {
				missing = append(missing,
					strings.TrimSpace(strings.Join([]string{s.Grade, string(s.Trait), string(s.Binder), s.Kind.Name()},
						" ")))
				continue
			}
			st.ProductID, st.Step = id, scheme.Laid(s.Step, w.products[id])
		}
		steps = append(steps, st)
	}
	return steps, missing, nil
}

// Scheme is a scheme with its steps for the library and what it lacks for it.
type Scheme struct {
	scheme.Scheme
	Planned []Step   `json:"planned"`
	Missing []string `json:"missing"`
}

// Schemes lists the schemes that a surface may have, with their steps for it.
func (a *App) Schemes(ctx context.Context, surfaceID string) ([]Scheme, error) {
	w, err := a.loadWork(ctx, a.store.Read(ctx), surfaceID)
	if err != nil {
		return nil, err
	}
	return w.schemes(w.surface(surfaceID))
}

func (w work) schemes(f Surface) ([]Scheme, error) {
	out := []Scheme{}
	for _, s := range scheme.Schemes() {
		if !s.Suits(f.Substrate, f.Findings.Layers) {
			continue
		}
		steps, missing, err := w.schemeSteps(s.Key, f)
		if err != nil {
			return nil, err
		}
		out = append(out, Scheme{s, steps, missing})
	}
	return out, nil
}

// CoatsFor tells how many coats of a product, dftUm each, reach a goal.
func (a *App) CoatsFor(ctx context.Context, productID string, dftUm float64,
	g buildup.Goal) (buildup.CoatCount, error) {
	p, err := a.Product(ctx, productID)
	if err != nil {
		return buildup.CoatCount{}, err
	}
	return buildup.CoatsFor(p.Sheet, dftUm, g)
}

// Overview is a whole boat's build-ups added up.
type Overview struct {
	Surfaces []OverviewRow `json:"surfaces"`
	// Own are her own tasks that are to come: with the surfaces they make up the sum.
	Own      []OverviewTask `json:"own"`
	Products []OverviewNeed `json:"products"`
	// Sum is the job of the boat, her own tasks with it; a working day has WorkDayH hours.
	Sum      task.Sum `json:"sum"`
	WorkDayH float64  `json:"workDayH"`
	Stops    int      `json:"stops"`
	// Consumables are what is used up beside the tins, all surfaces together.
	Consumables []buildup.Consumable `json:"consumables"`
}

// OverviewRow is a surface with what is planned on it.
type OverviewRow struct {
	SurfaceID string          `json:"surfaceId"`
	Name      string          `json:"name"`
	AreaM2    float64         `json:"areaM2"`
	Coats     int             `json:"coats"`
	Done      int             `json:"done"`
	NetUm     float64         `json:"netUm"`
	Litres    float64         `json:"litres"`
	CostCents int             `json:"costCents"`
	Priced    bool            `json:"priced"`
	Sum       task.Sum        `json:"sum"`
	Findings  int             `json:"findings" doc:"that are not overruled"`
	Worst     rules.Severity  `json:"worst" enum:",note,warning,stop"`
	Working   working.Working `json:"working"`
}

// OverviewTask is work to come that is not on a surface.
type OverviewTask struct {
	ID    string           `json:"id"`
	What  message.Sentence `json:"what"`
	LeftH float64          `json:"leftH"`
}

// OverviewNeed is what all surfaces together need of a product.
type OverviewNeed struct {
	Product string  `json:"product"`
	Litres  float64 `json:"litres"`
	Coats   int     `json:"coats"`
}

// Overview adds up what is planned on a boat.
func (a *App) Overview(ctx context.Context, boatID string) (Overview, error) {
	w, err := a.loadBoatWork(ctx, a.store.Read(ctx), boatID)
	if err != nil {
		return Overview{}, err
	}
	return w.overview()
}

func (w work) overview() (Overview, error) {
	out := Overview{Sum: w.job.Sum, WorkDayH: w.workDayH(), Surfaces: []OverviewRow{}, Products: []OverviewNeed{},
		Own: []OverviewTask{}, Consumables: []buildup.Consumable{}}
	for _, t := range w.job.Own {
		if t.LeftH > 0 {
			out.Own = append(out.Own, OverviewTask{t.ID, t.What, t.LeftH})
		}
	}
	rank := map[rules.Severity]int{"": 0, rules.Note: 1, rules.Warning: 2, rules.Stop: 3}
	for _, f := range w.survey.Surfaces {
		b, err := w.buildUp(f.ID, w.steps[f.ID])
		if err != nil {
			return Overview{}, err
		}
		r := OverviewRow{SurfaceID: f.ID, Name: f.Name, AreaM2: f.Area.AreaM2, Coats: b.Result.Coats,
			NetUm: b.Result.NetUm, Litres: b.Result.Litres,
			CostCents: b.Result.CostCents, Priced: b.Result.Priced, Sum: b.Sum, Working: b.Result.Working}
		for _, n := range b.Done {
			r.Done += n
		}
		for _, x := range b.Findings {
			if x.Overruled {
				continue
			}
			r.Findings++
			if rank[x.Severity] > rank[r.Worst] {
				r.Worst = x.Severity
			}
			if x.Severity == rules.Stop {
				out.Stops++
			}
		}
		out.Consumables = buildup.AddUp(out.Consumables, b.Consumables...)
		out.Surfaces = append(out.Surfaces, r)
		for i, s := range b.Steps {
			if s.ProductID == "" {
				continue
			}
			name := w.products[s.ProductID].Name
			k := slices.IndexFunc(out.Products, func(n OverviewNeed) bool { return n.Product == name })
			if k < 0 {
				k = len(out.Products)
				out.Products = append(out.Products, OverviewNeed{Product: name})
			}
			out.Products[k].Litres += b.Result.Lines[i].Litres
			out.Products[k].Coats += s.Coats
		}
	}
	sortBy(out.Products, func(n OverviewNeed) string { return n.Product })
	return out, nil
}
