package app

import (
	"context"

	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
	"allcoats/core/job/buildup"
	"allcoats/core/job/scheme"
	"allcoats/core/job/task"
	"allcoats/store"
)

// Step is a step planned on a surface: a number of equal coats, or work without
// a film. An empty ID is a new step.
type Step struct {
	ID        string `json:"id,omitempty"`
	ProductID string `json:"productId,omitempty"`
	step.Step
}

func (s Step) row() store.Step {
	r := store.Step{ID: s.ID, Work: string(s.Work), Coats: s.Coats, DFTUm: s.DFTUm, Method: s.Method,
		LossPct: s.LossPct, ThinnerPct: s.ThinnerPct,
		Grade: s.Grade, Colour: s.Colour, Grit: s.Grit, RemovedUm: s.RemovedUm, Agent: s.Agent, Note: s.Note,
		Detail: store.StepDetail{Detail: s.Detail}}
	if s.ProductID != "" {
		r.ProductID = &s.ProductID
	}
	return r
}

func stepOf(r store.Step) Step {
	s := Step{ID: r.ID, Step: step.Step{Work: step.Work(r.Work), Coats: r.Coats, DFTUm: r.DFTUm, Method: r.Method,
		LossPct: r.LossPct, ThinnerPct: r.ThinnerPct,
		Grade: r.Grade, Colour: r.Colour, Grit: r.Grit, RemovedUm: r.RemovedUm, Agent: r.Agent, Note: r.Note,
		Detail: r.Detail.Detail}}
	if r.ProductID != nil {
		s.ProductID = *r.ProductID
	}
	return s
}

// with is the step with its product's sheet.
func (s Step) with(sheet product.Sheet) step.Step {
	s.Sheet = sheet
	return s.Step
}

// BuildUp is what is planned and laid on a surface. Done counts the coats of
// each step that have gone on.
type BuildUp struct {
	Surface  Surface        `json:"surface"`
	Steps    []Step         `json:"steps"`
	Done     []int          `json:"done"`
	DueUm    float64        `json:"dueUm"` // dry film of the coats that have gone on, as planned
	Result   buildup.Result `json:"result"`
	Findings []Finding      `json:"findings"`
	// Mind is what to wear and mind at each step.
	Mind        [][]message.Sentence `json:"mind"`
	Consumables []buildup.Consumable `json:"consumables"`
	// Tasks are what the steps unfold into, with what is done; Sum adds them up. A working
	// day of the boat's people has WorkDayH hours.
	Tasks    []task.Task `json:"tasks"`
	Sum      task.Sum    `json:"sum"`
	WorkDayH float64     `json:"workDayH"`
	// Layers and Margin are those where no part of the surface is marked, Places those of
	// the parts that are.
	Layers []buildup.Layer `json:"layers"`
	Margin buildup.Margin  `json:"margin"`
	Places []PlaceFilm     `json:"places"`
	// MarginText says in a sentence how much may be sanded, if anything.
	MarginText message.Sentence `json:"marginText,omitempty"`
	// Job is the job of the schemes that the surface usually needs.
	Job string `json:"job"`
	// LastsYears is how long it goes before it wants doing again, 0 where nothing tells.
	LastsYears float64 `json:"lastsYears"`
}

// PlaceFilm is the film of a part of a surface that steps work apart.
type PlaceFilm struct {
	Where  step.Where      `json:"where"`
	AreaM2 float64         `json:"areaM2"`
	Layers []buildup.Layer `json:"layers"`
	FilmUm float64         `json:"filmUm"` // planned and laid
}

// BuildUp returns what is planned on a surface.
func (a *App) BuildUp(ctx context.Context, surfaceID string) (BuildUp, error) {
	q := a.store.Read(ctx)
	w, err := a.loadWork(ctx, q, surfaceID)
	if err != nil {
		return BuildUp{}, err
	}
	return w.buildUp(surfaceID, w.steps[surfaceID])
}

// PreviewBuildUp returns what steps would come to on a surface; nothing is
// stored.
func (a *App) PreviewBuildUp(ctx context.Context, surfaceID string, steps []Step) (BuildUp, error) {
	w, err := a.loadWork(ctx, a.store.Read(ctx), surfaceID)
	if err != nil {
		return BuildUp{}, err
	}
	if err := w.check(surfaceID, steps); err != nil {
		return BuildUp{}, err
	}
	return w.buildUp(surfaceID, steps)
}

// SetBuildUp plans steps on a surface whose version is current.
func (a *App) SetBuildUp(ctx context.Context, surfaceID string, version int, steps []Step) (BuildUp, error) {
	return change(ctx, a, func(ctx context.Context) (BuildUp, error) {
		if _, err := a.PreviewBuildUp(ctx, surfaceID, steps); err != nil {
			return BuildUp{}, err
		}
		rows := make([]store.Step, len(steps))
		for i, s := range steps {
			if s.ID == "" {
				s.ID = newID()
			}
			rows[i] = s.row()
		}
		err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			return q.SetSteps(ctx, surfaceID, version, rows)
		})
		if err != nil {
			return BuildUp{}, stale(err, func() (BuildUp, error) { return a.BuildUp(ctx, surfaceID) })
		}
		return a.BuildUp(ctx, surfaceID)
	})
}

// buildUp tells what steps on a surface come to.
func (w work) buildUp(surfaceID string, steps []Step) (BuildUp, error) {
	out := BuildUp{Surface: w.surface(surfaceID), Steps: append([]Step{}, steps...), Done: w.done(steps),
		WorkDayH: w.workDayH(), Places: []PlaceFilm{}}
	core := make([]step.Step, len(steps))
	for i, s := range steps {
		core[i] = w.planned(s).Step
		out.DueUm += float64(out.Done[i]) * s.DFTUm
	}
	var err error
	if out.Result, err = buildup.Compute(out.Surface.Area.Figure, out.Surface.accessFactor(), core,
		w.own(surfaceID)); err != nil {
		return BuildUp{}, err
	}
	out.Surface.Better = out.Surface.Measured.Better(out.Surface.Part, out.Surface.Area.Figure, out.Result.Litres)
	chain := w.job.With(w.ofJob(out.Surface, steps))
	out.Tasks, out.Sum = chain.Tasks, chain.Sum
	out.Findings = w.findings(out.Surface, steps, core)
	out.Mind = w.mind(out.Surface, core)
	out.Consumables = buildup.Consumables(out.Surface.edgeM(), core, out.Result)
	done := w.filmDone(surfaceID)
	out.Layers, out.Margin = buildup.Section("", out.Surface.Findings, done, core, out.Done)
	out.MarginText = out.Margin.Text()
	for _, at := range buildup.Places(core) {
		p := PlaceFilm{Where: at, AreaM2: at.AreaM2(out.Surface.Area.AreaM2)}
		p.Layers, _ = buildup.Section(at.Name, out.Surface.Findings, done, core, out.Done)
		for _, l := range p.Layers {
			if !l.Old {
				p.FilmUm += l.Um
			}
		}
		out.Places = append(out.Places, p)
	}
	out.LastsYears = w.lasts(out.Surface, core)
	out.Job = scheme.JobFor(out.Surface.Part, out.Surface.Substrate)
	return out, nil
}

// lasts is for how many years steps on a surface go before they want doing again, by their last
// film; 0 where nothing tells.
func (w work) lasts(f Surface, core []step.Step) float64 {
	last, um := -1, 0.0
	for i, s := range core {
		if s.Films() {
			last = i
		}
	}
	if last < 0 {
		return 0
	}
	for _, s := range core {
		if s.Films() && s.Sheet.Kind == core[last].Sheet.Kind {
			um += s.DFTUm * float64(s.Coats)
		}
	}
	film := w.exposed(f)
	film.Sheet, film.Um = core[last].Sheet, um
	due, ok := film.Next(w.habit(film.Sheet.Kind, ""), nil)
	if !ok {
		return 0
	}
	return due.Years
}
