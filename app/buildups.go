package app

import (
	"context"
	"fmt"

	"allcoats/core/buildup"
	"allcoats/core/fault"
	"allcoats/core/product"
	"allcoats/store"
)

// Step is a number of equal coats planned on a surface. An empty ID is a new
// step.
type Step struct {
	ID         string  `json:"id,omitempty"`
	ProductID  string  `json:"productId"`
	Coats      int     `json:"coats"`
	DFTUm      float64 `json:"dftUm"`
	Method     string  `json:"method"`
	LossPct    float64 `json:"lossPct"`
	ThinnerPct float64 `json:"thinnerPct"`
}

// BuildUp is what is planned and laid on a surface. Done counts the coats of
// each step that have gone on.
type BuildUp struct {
	Surface Surface         `json:"surface"`
	Steps   []Step          `json:"steps"`
	Done    []int           `json:"done"`
	Result  buildup.Result  `json:"result"`
	Layers  []buildup.Layer `json:"layers"`
	Margin  buildup.Margin  `json:"margin"`
	// MarginText says in a sentence how much may be sanded, if anything.
	MarginText string `json:"marginText"`
}

// BuildUp returns what is planned on a surface.
func (a *App) BuildUp(ctx context.Context, surfaceID string) (BuildUp, error) {
	q := a.store.Read()
	w, err := loadWork(ctx, q, surfaceID)
	if err != nil {
		return BuildUp{}, err
	}
	return w.buildUp(surfaceID, w.steps[surfaceID])
}

// PreviewBuildUp returns what steps would come to on a surface; nothing is
// stored.
func (a *App) PreviewBuildUp(ctx context.Context, surfaceID string, steps []Step) (BuildUp, error) {
	w, err := loadWork(ctx, a.store.Read(), surfaceID)
	if err != nil {
		return BuildUp{}, err
	}
	return w.buildUp(surfaceID, steps)
}

// SetBuildUp plans steps on a surface whose version is current.
func (a *App) SetBuildUp(ctx context.Context, surfaceID string, version int, steps []Step) (BuildUp, error) {
	if _, err := a.PreviewBuildUp(ctx, surfaceID, steps); err != nil {
		return BuildUp{}, err
	}
	rows := make([]store.Step, len(steps))
	for i, s := range steps {
		if s.ID == "" {
			s.ID = newID()
		}
		rows[i] = store.Step{ID: s.ID, ProductID: s.ProductID, Coats: s.Coats, DFTUm: s.DFTUm, Method: s.Method, LossPct: s.LossPct, ThinnerPct: s.ThinnerPct}
	}
	err := a.store.Write(ctx, func(q store.Queries) error { return q.SetSteps(ctx, surfaceID, version, rows) })
	if err != nil {
		return BuildUp{}, stale(err, func() (BuildUp, error) { return a.BuildUp(ctx, surfaceID) })
	}
	return a.BuildUp(ctx, surfaceID)
}

// work is a boat with everything planned and logged on her, by surface.
type work struct {
	survey   Survey
	products map[string]product.Sheet
	steps    map[string][]Step
	log      map[string][]store.Entry // without deleted ones, by time
}

// loadWork loads the boat that a surface belongs to.
func loadWork(ctx context.Context, q store.Queries, surfaceID string) (work, error) {
	s, err := q.Surface(ctx, surfaceID)
	if err != nil {
		return work{}, err
	}
	return loadBoatWork(ctx, q, s.BoatID)
}

func loadBoatWork(ctx context.Context, q store.Queries, boatID string) (work, error) {
	w := work{products: map[string]product.Sheet{}, steps: map[string][]Step{}, log: map[string][]store.Entry{}}
	var err error
	if w.survey, err = loadSurvey(ctx, q, boatID); err != nil {
		return w, err
	}
	all, err := products(ctx, q)
	if err != nil {
		return w, err
	}
	for _, p := range all {
		w.products[p.ID] = p.Sheet
	}
	steps, err := q.BoatSteps(ctx, boatID)
	if err != nil {
		return w, err
	}
	for _, s := range steps {
		w.steps[s.SurfaceID] = append(w.steps[s.SurfaceID], Step{s.ID, s.ProductID, s.Coats, s.DFTUm, s.Method, s.LossPct, s.ThinnerPct})
	}
	log, err := q.BoatLog(ctx, boatID)
	if err != nil {
		return w, err
	}
	for _, e := range log {
		if e.DeletedAt == nil {
			w.log[e.SurfaceID] = append(w.log[e.SurfaceID], e)
		}
	}
	return w, nil
}

func (w work) surface(id string) Surface {
	for _, s := range w.survey.Surfaces {
		if s.ID == id {
			return s
		}
	}
	return Surface{}
}

// done counts the logged coats of every step.
func (w work) done(surfaceID string, steps []Step) []int {
	out := make([]int, len(steps))
	for _, e := range w.log[surfaceID] {
		for i, s := range steps {
			if e.Kind == KindCoat && e.StepID != nil && s.ID != "" && *e.StepID == s.ID {
				out[i]++
			}
		}
	}
	return out
}

// laid returns a logged coat as the core wants it.
func (w work) laid(e store.Entry) buildup.Laid {
	l := buildup.Laid{WetUm: e.WetUm.V, Litres: e.Litres, ThinnerPct: e.ThinnerPct}
	if e.ProductID != nil {
		l.Sheet = w.products[*e.ProductID]
	}
	for _, s := range w.steps[e.SurfaceID] {
		if e.StepID != nil && s.ID == *e.StepID {
			l.LossPct, l.StepUm = s.LossPct, s.DFTUm
		}
	}
	return l
}

func (w work) buildUp(surfaceID string, steps []Step) (BuildUp, error) {
	out := BuildUp{Surface: w.surface(surfaceID), Steps: []Step{}, Done: w.done(surfaceID, steps)}
	var bad fault.Errors
	ids := map[string]bool{}
	known := map[string]bool{"": true}
	for _, s := range w.steps[surfaceID] {
		known[s.ID] = true
	}
	core := make([]buildup.Step, len(steps))
	for i, s := range steps {
		sheet, ok := w.products[s.ProductID]
		if !ok {
			bad.Add(fmt.Sprintf("steps[%d].productId", i), "choose a product of the library")
		}
		if !known[s.ID] || s.ID != "" && ids[s.ID] {
			bad.Add(fmt.Sprintf("steps[%d].id", i), "is no step of this surface, or is there twice")
		}
		ids[s.ID] = true
		if s.Coats < out.Done[i] {
			bad.Add(fmt.Sprintf("steps[%d].coats", i), "%d coats of this step have already gone on", out.Done[i])
		}
		core[i] = buildup.Step{Sheet: sheet, Coats: s.Coats, DFTUm: s.DFTUm, Method: s.Method, LossPct: s.LossPct, ThinnerPct: s.ThinnerPct}
		out.Steps = append(out.Steps, s)
	}
	if err := bad.Err(); err != nil {
		return BuildUp{}, err
	}
	var err error
	if out.Result, err = buildup.Compute(out.Surface.Area.Figure, core); err != nil {
		return BuildUp{}, err
	}
	out.Layers, out.Margin = buildup.Section(out.Surface.Area.AreaM2, out.Surface.Findings, w.filmDone(surfaceID), core, out.Done)
	out.MarginText = out.Margin.Text()
	return out, nil
}

// filmDone lists the coats and sandings of a surface in their order.
func (w work) filmDone(surfaceID string) []buildup.Done {
	var out []buildup.Done
	for _, e := range w.log[surfaceID] {
		if e.Kind == KindCoat {
			l := w.laid(e)
			out = append(out, buildup.Done{Coat: &l})
		} else {
			out = append(out, buildup.Done{RemovedUm: e.RemovedUm})
		}
	}
	return out
}
