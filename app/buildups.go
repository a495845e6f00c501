package app

import (
	"context"
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/fault"
	"allcoats/core/base/say"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/exposure/surface"
	"allcoats/core/film/step"
	"allcoats/core/job/buildup"
	"allcoats/core/job/lay"
	"allcoats/core/job/logbook"
	"allcoats/core/job/quote"
	"allcoats/core/job/rules"
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
	r := store.Step{ID: s.ID, Work: string(s.Work), Coats: s.Coats, DFTUm: s.DFTUm, Method: s.Method, LossPct: s.LossPct, ThinnerPct: s.ThinnerPct,
		Grade: s.Grade, Colour: s.Colour, Grit: s.Grit, RemovedUm: s.RemovedUm, Agent: s.Agent, Note: s.Note, Detail: store.StepDetail{Detail: s.Detail}}
	if s.ProductID != "" {
		r.ProductID = &s.ProductID
	}
	return r
}

func stepOf(r store.Step) Step {
	s := Step{ID: r.ID, Step: step.Step{Work: step.Work(r.Work), Coats: r.Coats, DFTUm: r.DFTUm, Method: r.Method, LossPct: r.LossPct, ThinnerPct: r.ThinnerPct,
		Grade: r.Grade, Colour: r.Colour, Grit: r.Grit, RemovedUm: r.RemovedUm, Agent: r.Agent, Note: r.Note, Detail: r.Detail.Detail}}
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

// Finding is what a rule has to say of a step, and whether it is let stand. Mended are the
// steps with its mend, if that can be put in with the products of the library.
type Finding struct {
	rules.Finding
	Mended      []Step    `json:"mended,omitempty"`
	Overruled   bool      `json:"overruled"`
	Reason      string    `json:"reason"`
	OverruledAt time.Time `json:"overruledAt"`
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
	Mind        [][]say.Sentence     `json:"mind"`
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
	MarginText say.Sentence `json:"marginText,omitempty"`
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
		err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error { return q.SetSteps(ctx, surfaceID, version, rows) })
		if err != nil {
			return BuildUp{}, stale(err, func() (BuildUp, error) { return a.BuildUp(ctx, surfaceID) })
		}
		return a.BuildUp(ctx, surfaceID)
	})
}

// work is a boat with everything planned and logged on her, by surface.
type work struct {
	survey   Survey
	products map[string]product.Sheet
	// versions are those of the products, editions sheets as they stood that something was
	// laid by.
	versions map[string]int
	editions map[edition]product.Sheet
	choices  PlanSettings
	job      task.Job
	steps    map[string][]Step
	log      map[string][]logbook.Logged // without deleted ones, by time
	overrule map[[3]string]store.Overrule
	shelf    []StockItem
	photos   []store.Photo
	// unlearned are the keys of lessons that do not count; dryings what was learned of clocks.
	unlearned map[string]bool
	quotes    store.JSON[[]quote.Quote]
	dryings   map[string]logbook.Drying
	// finishes by surface, empty for the boat, and craft
	finishes map[[2]string]store.Finish
}

// loadWork loads the boat that a surface belongs to.
func (a *App) loadWork(ctx context.Context, q store.Queries, surfaceID string) (work, error) {
	s, err := q.Surface(ctx, surfaceID)
	if err != nil {
		return work{}, err
	}
	return a.loadBoatWork(ctx, q, s.BoatID)
}

func (a *App) loadBoatWork(ctx context.Context, q store.Queries, boatID string) (work, error) {
	w := work{products: map[string]product.Sheet{}, versions: map[string]int{}, editions: map[edition]product.Sheet{}, steps: map[string][]Step{}, log: map[string][]logbook.Logged{}, overrule: map[[3]string]store.Overrule{}, finishes: map[[2]string]store.Finish{}}
	var err error
	if w.survey, err = loadSurvey(ctx, q, boatID); err != nil {
		return w, err
	}
	all, err := products(ctx, q)
	if err != nil {
		return w, err
	}
	for _, p := range all {
		w.products[p.ID], w.versions[p.ID] = p.Sheet, p.Version
	}
	editions, err := q.BoatEditions(ctx, boatID)
	if err != nil {
		return w, err
	}
	for _, e := range editions {
		w.editions[edition{e.ProductID, e.Version}] = e.Sheet.V
	}
	if err := w.loadChoices(ctx, q); err != nil {
		return w, err
	}
	steps, err := q.BoatSteps(ctx, boatID)
	if err != nil {
		return w, err
	}
	for _, s := range steps {
		w.steps[s.SurfaceID] = append(w.steps[s.SurfaceID], stepOf(s))
	}
	overrules, err := q.BoatOverrules(ctx, boatID)
	if err != nil {
		return w, err
	}
	for _, o := range overrules {
		w.overrule[[3]string{o.SurfaceID, o.StepID, o.Rule}] = o
	}
	log, err := q.BoatLog(ctx, boatID)
	if err != nil {
		return w, err
	}
	for _, e := range log {
		if e.DeletedAt == nil {
			w.log[string(e.SurfaceID)] = append(w.log[string(e.SurfaceID)], loggedOf(e))
		}
	}
	if err := w.learn(ctx, q); err != nil {
		return w, err
	}
	finishes, err := q.BoatFinishes(ctx, boatID)
	if err != nil {
		return w, err
	}
	for _, f := range finishes {
		w.finishes[[2]string{string(f.SurfaceID), f.Craft}] = f
	}
	if w.photos, err = q.BoatPhotos(ctx, boatID); err != nil {
		return w, err
	}
	w.job = w.jobOf()
	w.shelf, err = a.shelf(ctx, q, w.products)
	return w, err
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
func (w work) done(steps []Step) []int {
	out := make([]int, len(steps))
	for i, s := range steps {
		out[i] = w.job.Coats(s.ID)
	}
	return out
}

// check reports what a change to steps on a surface may not hold. A step may have
// fewer coats than went on if it has had so before: one more was logged then.
func (w work) check(surfaceID string, steps []Step) error {
	var bad fault.Errors
	coats := map[string]int{} // as stored, by step
	for _, s := range w.steps[surfaceID] {
		coats[s.ID] = s.Coats
	}
	ids := map[string]bool{}
	done := w.done(steps)
	for i, s := range steps {
		if sheet, ok := w.products[s.ProductID]; !ok && s.with(sheet).Films() {
			bad.Add(fmt.Sprintf("steps[%d].productId", i), "choose a product of the library")
		}
		if _, known := coats[s.ID]; s.ID != "" && (!known || ids[s.ID]) {
			bad.Add(fmt.Sprintf("steps[%d].id", i), "is no step of this surface, or is there twice")
		}
		ids[s.ID] = true
		if s.Coats < min(done[i], coats[s.ID]) {
			bad.Add(fmt.Sprintf("steps[%d].coats", i), "%d coats of this step have already gone on", done[i])
		}
	}
	return bad.Err()
}

// own is what the log has taught of the litres on a surface.
func (w work) own(surfaceID string) buildup.Own {
	return buildup.Own{Usage: w.job.Usage, Surface: surfaceID}
}

// buildUp tells what steps on a surface come to.
func (w work) buildUp(surfaceID string, steps []Step) (BuildUp, error) {
	out := BuildUp{Surface: w.surface(surfaceID), Steps: append([]Step{}, steps...), Done: w.done(steps), WorkDayH: w.workDayH(), Places: []PlaceFilm{}}
	core := make([]step.Step, len(steps))
	for i, s := range steps {
		core[i] = w.planned(s).Step
		out.DueUm += float64(out.Done[i]) * s.DFTUm
	}
	var err error
	if out.Result, err = buildup.Compute(out.Surface.Area.Figure, out.Surface.accessFactor(), core, w.own(surfaceID)); err != nil {
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

// caseOf is a surface with steps as the rules want it.
func (w work) caseOf(f Surface, core []step.Step) rules.Case {
	b, p := w.survey.Boat, w.survey.Place
	c := rules.Case{Part: f.Part, Substrate: f.Substrate, SubstrateNote: f.SubstrateNote, Tone: f.Tone, TiltDeg: f.Tilt(f.Part), Sheltered: f.Shelter == survey.Shed, Findings: f.Findings, OpenDefects: f.OpenDefects,
		HottestC: surface.Hottest(p.LatitudeDeg, p.LongitudeDeg, p.normals(), surface.Of(f.Description, f.Part, f.Side, b.HeadingDeg))}
	for _, s := range core {
		c.Steps = append(c.Steps, rules.Step{Step: s})
	}
	for _, o := range w.survey.Surfaces {
		if o.ID != f.ID {
			c.Beside = append(c.Beside, rules.Beside{Name: o.Name, Part: o.Part, Substrate: o.Substrate})
		}
	}
	return c
}

// findings asks the rules about steps on a surface.
func (w work) findings(f Surface, steps []Step, core []step.Step) []Finding {
	c := w.caseOf(f, core)
	for i := range c.Steps {
		c.Steps[i].ExpiredOn = w.expiredOn(steps[i].ProductID)
	}
	out, done := []Finding{}, w.done(steps)
	for _, found := range rules.Check(c) {
		id := ""
		if found.Step >= 0 {
			id = steps[found.Step].ID
			if done[found.Step] > 0 && rules.Readies(found.Rule) {
				continue // its first coat is on, and what was done before is in the log
			}
		}
		one := Finding{Finding: found, Mended: w.mended(f, steps, found.Mend)}
		if o, ok := w.overrule[[3]string{f.ID, id, found.Rule}]; ok {
			one.Overruled, one.Reason, one.OverruledAt = true, o.Reason, time.Unix(o.At, 0).UTC()
		}
		out = append(out, one)
	}
	return out
}

// mind is what to wear and mind at each step.
func (w work) mind(f Surface, core []step.Step) [][]say.Sentence {
	c := w.caseOf(f, core)
	out := make([][]say.Sentence, len(core))
	for i, s := range core {
		at := lay.Site{Inside: f.Part.Info().Inside, Substrate: f.Substrate, Over: c.Meets(i).Sheet}
		if !c.Meets(i).Stripped {
			at.Old = f.Findings.Layers
		}
		if out[i] = lay.Mind(s, at); out[i] == nil {
			out[i] = []say.Sentence{}
		}
	}
	return out
}

// warned are the warnings and stops about steps on a surface that nobody lets stand.
func (w work) warned(f Surface, steps []Step) []Finding {
	core := make([]step.Step, len(steps))
	for i, s := range steps {
		core[i] = w.planned(s).Step
	}
	return slices.DeleteFunc(w.findings(f, steps, core), func(x Finding) bool { return x.Severity == rules.Note || x.Overruled })
}

// mended are steps with a mend, nil without one or if the library lacks what it takes.
func (w work) mended(f Surface, steps []Step, m *rules.Mend) []Step {
	if m == nil || m.Take == 0 && slices.ContainsFunc(w.done(steps[m.At:]), func(n int) bool { return n > 0 }) {
		return nil // nothing goes in before what is on
	}
	put := []Step{}
	for _, want := range m.Steps {
		st := Step{Step: want.Step}
		switch {
		case want.From >= 0:
			st.ProductID = steps[want.From].ProductID
			if !slices.ContainsFunc(put, func(o Step) bool { return o.ID == steps[want.From].ID }) {
				st.ID = steps[want.From].ID
			}
			if !st.Films() {
				st.ProductID, st.Coats, st.DFTUm, st.Method = "", 0, 0, ""
			}
		case want.Kind != "":
			id, ok := w.choose(scheme.Step{Step: want.Step, Kind: want.Kind, Binder: want.Binder}, f)
			if !ok {
				return nil
			}
			st.ProductID = id
			st.Step = scheme.Laid(want.Step, w.products[id])
		}
		put = append(put, st)
	}
	return slices.Concat(steps[:m.At], put, steps[m.At+m.Take:])
}

// choose is the product of the library that suits a step of a scheme on a surface best.
func (w work) choose(s scheme.Step, f Surface) (id string, ok bool) {
	ids := slices.SortedFunc(maps.Keys(w.products), func(a, b string) int { return strings.Compare(w.products[a].Name, w.products[b].Name) })
	sheets := make([]product.Sheet, len(ids))
	for i, id := range ids {
		sheets[i] = w.products[id]
	}
	i, ok := s.Find(sheets, scheme.Place{Part: f.Part, Substrate: f.Substrate})
	if !ok {
		return "", false
	}
	return ids[i], true
}

// Overrule lets a finding on a step stand, with a written reason that stays in
// the record; an empty reason makes it count again.
func (a *App) Overrule(ctx context.Context, surfaceID, stepID, rule, reason string, on bool) (BuildUp, error) {
	return change(ctx, a, func(ctx context.Context) (BuildUp, error) {
		reason = strings.TrimSpace(reason)
		if on && len(reason) < 4 {
			return BuildUp{}, fault.At("reason", "write why it may stand: it stays in the record")
		}
		if !on {
			reason = ""
		}
		now, err := a.Now(ctx)
		if err != nil {
			return BuildUp{}, err
		}
		plan, err := a.BuildUp(ctx, surfaceID)
		if err != nil {
			return BuildUp{}, err
		}
		found := slices.ContainsFunc(plan.Findings, func(f Finding) bool {
			return f.Rule == rule && (f.Step < 0 && stepID == "" || f.Step >= 0 && plan.Steps[f.Step].ID == stepID)
		})
		if on && !found {
			return BuildUp{}, fault.At("rule", "finds nothing at this step")
		}
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			return q.SetOverrule(ctx, store.Overrule{SurfaceID: surfaceID, StepID: stepID, Rule: rule, Reason: reason, At: now.Unix()})
		})
		if err != nil {
			return BuildUp{}, err
		}
		return a.BuildUp(ctx, surfaceID)
	})
}
