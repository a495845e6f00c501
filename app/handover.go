package app

import (
	"context"
	"fmt"
	"math"
	"slices"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
	"allcoats/core/finish/craft"
	"allcoats/core/job/task"
)

// Handover is what a bench puts into the build-up of a surface: all of its steps.
type Handover struct {
	SurfaceID string `json:"surfaceId"`
	Surface   string `json:"surface"`
	// Steps is the build-up as it would be; Changes what that changes, empty when it is as
	// the bench has it.
	Steps   []Step   `json:"steps"`
	Changes []Change `json:"changes"`
	// Sum is what the bench's steps come to of the job, as it would be.
	Sum task.Sum `json:"sum"`
	// Findings are the warnings of the rules about the build-up as it would be, each once
	// however many steps it is about.
	Findings []Finding `json:"findings"`
	// Mind is what to wear and mind at the bench's steps.
	Mind []message.Sentence `json:"mind"`
	// Stop is why it cannot be put there.
	Stop message.Sentence `json:"stop,omitempty"`
}

// Change is a step that comes, goes or becomes another.
type Change struct {
	Was  message.Sentence `json:"was"`  // empty: it comes
	Will message.Sentence `json:"will"` // empty: it goes
}

// hand works out what the steps of a bench do to the build-up of a surface. roles are the
// bench's products, owns the kinds that it plans; what was planned of these and is not
// begun gives way.
func (o boatState) hand(surfaceID, bench string, steps []craft.Step, roles map[string]string,
	owns ...product.Kind) *Handover {
	var early, planned []Step
	for _, s := range steps {
		if s.Shown {
			continue
		}
		st := Step{Step: s.Step, ProductID: roles[s.Role]}
		st.Sheet = product.Sheet{}
		st.Origin = &step.Origin{Bench: bench, Key: s.Key}
		st.rounded()
		if s.Early {
			early = append(early, st)
		} else {
			planned = append(planned, st)
		}
	}
	h := &Handover{SurfaceID: surfaceID, Surface: o.surface(surfaceID).Name, Changes: []Change{}}
	m := merge{boatState: o, chain: o.job.Chain(surfaceID), bench: bench, owns: owns, bared: o.bared[surfaceID]}
	for _, e := range o.log[surfaceID] {
		if e.Kind == step.Strip && e.StartedAt.After(m.bared) {
			m.bared = e.StartedAt
		}
	}
	h.Steps = m.into(o.steps[surfaceID], early, planned)
	return o.handed(h, bench)
}

// handed fills in what a handover changes, and what the bench's steps come to.
func (o boatState) handed(h *Handover, bench string) *Handover {
	surfaceID := h.SurfaceID
	h.Findings, h.Mind = []Finding{}, []message.Sentence{}
	for _, x := range o.warned(o.surface(surfaceID), h.Steps) {
		if !slices.ContainsFunc(h.Findings, func(o Finding) bool { return o.Rule == x.Rule && o.Text == x.Text }) {
			h.Findings = append(h.Findings, x)
		}
	}
	core := make([]step.Step, len(h.Steps))
	for i, s := range h.Steps {
		core[i] = o.planned(s).Step
	}
	for i, minds := range o.mind(o.surface(surfaceID), core) {
		for _, m := range minds {
			if from := h.Steps[i].Origin; from != nil && from.Bench == bench &&
				!slices.ContainsFunc(h.Mind, func(o message.Sentence) bool { return o.String() == m.String() }) {
				h.Mind = append(h.Mind, m)
			}
		}
	}
	h.Changes, h.Sum = o.changes(surfaceID, h.Steps), task.Sum{}
	chain := o.job.With(o.ofJob(o.surface(surfaceID), numbered(h.Steps)))
	mine := map[string]bool{}
	for _, s := range numbered(h.Steps) {
		mine[s.ID] = s.Origin != nil && s.Origin.Bench == bench
	}
	for _, t := range chain.Tasks {
		if mine[t.StepID] {
			h.Sum = h.Sum.With(t)
		}
	}
	return h
}

// hand adds a handover, with what stops it.
func (f *Finish) hand(o boatState, surfaceID string, h *Handover, stop message.Sentence) {
	h.Stop = stop
	f.Handovers = append(f.Handovers, *h)
}

// rounded leaves figures that one would write down.
func (s *Step) rounded() {
	s.Hours, s.WaitH, s.TapeM = round(s.Hours), round(s.WaitH), round(s.TapeM)
	s.DFTUm, s.LossPct = math.Round(10*s.DFTUm)/10, math.Round(10*s.LossPct)/10
	if s.Where == nil {
		return
	}
	w := *s.Where
	w.Patches = slices.Clone(w.Patches)
	for i := range w.Patches {
		w.Patches[i].AreaM2 = math.Max(0.0001, math.Round(1e4*w.Patches[i].AreaM2)/1e4)
	}
	s.Where = &w
}

// numbered gives new steps ids for as long as they are looked at.
func numbered(steps []Step) []Step {
	out := slices.Clone(steps)
	for i := range out {
		if out[i].ID == "" {
			out[i].ID = fmt.Sprintf("new-%d", i)
		}
	}
	return out
}

// merge puts the steps of a bench among those of a surface.
type merge struct {
	boatState
	chain task.Chain
	bench string
	owns  []product.Kind
	bared time.Time // when what was on it came off last
}

// begun and whole report whether something of a step is told of, and whether all is.
func (m merge) begun(s Step) bool {
	return slices.ContainsFunc(m.chain.Tasks, func(t task.Task) bool { return t.StepID == s.ID && t.DonePct > 0 })
}

func (m merge) whole(s Step) bool {
	return !slices.ContainsFunc(m.chain.Tasks, func(t task.Task) bool {
		return t.StepID == s.ID && (t.Left() || t.State == task.Skipped)
	})
}

// seasonH is how long after its last work a bench's job is still the same one, h.
const seasonH = 90 * 24

// lately reports whether a step that is whole was done within a season and is on still: its coats are
// those that the bench would plan.
func (m merge) lately(s Step) bool {
	return slices.ContainsFunc(m.chain.Tasks, func(t task.Task) bool {
		return t.StepID == s.ID && t.DoneAt != nil && m.now.Sub(*t.DoneAt).Hours() < seasonH &&
			t.DoneAt.After(m.bared)
	})
}

// underWay reports whether the job that the bench handed over before goes on, or ended of
// late: what is done of it is not planned again.
func (m merge) underWay(old []Step) bool {
	for _, s := range old {
		if s.Origin == nil || s.Origin.Bench != m.bench {
			continue
		}
		for _, t := range m.chain.Tasks {
			if t.StepID == s.ID && (t.Left() || t.DoneAt != nil && m.now.Sub(*t.DoneAt).Hours() < seasonH) {
				return true
			}
		}
	}
	return false
}

// mine reports whether an old step is this bench's, or of a kind that it plans.
func (m merge) mine(s Step) bool {
	if s.Origin != nil {
		return s.Origin.Bench == m.bench
	}
	return s.ProductID != "" && slices.Contains(m.owns, m.products[s.ProductID].Kind) && s.Work == step.Coat
}

// into puts early steps before the first film of old that is to come, planned ones in the
// place of those that they take, else at the end.
func (m merge) into(old, early, planned []Step) []Step {
	early, planned = m.known(old, early), m.known(old, planned)
	gone := m.gone(old, planned)
	kept := map[string]bool{} // that the bench plans on
	for _, p := range append(slices.Clone(early), planned...) {
		kept[p.ID] = p.ID != ""
	}
	at, out := -1, []Step{}
	for i, s := range old {
		if gone[i] || kept[s.ID] && !m.begun(s) {
			if at < 0 && !slices.ContainsFunc(early, func(p Step) bool { return p.ID == s.ID && s.ID != "" }) {
				at = len(out)
			}
			continue
		}
		if k := slices.IndexFunc(planned, func(p Step) bool { return p.ID != "" && p.ID == s.ID }); k >= 0 {
			// It is begun and stays where it is; what comes after it follows.
			one := planned[k]
			if one.Coats = max(one.Coats, m.job.Coats(s.ID)); m.whole(s) && one.Coats == s.Coats {
				one = s // done is done, as it was meant then
			}
			out = append(out, one)
			planned = slices.Delete(planned, k, k+1)
			at = len(out)
			continue
		}
		if m.mine(s) && s.Films() && m.begun(s) &&
			(!m.whole(s) || m.lately(s)) { // as many as are on; the bench plans the rest
			if !m.whole(s) {
				s.Coats = max(1, m.job.Coats(s.ID))
			}
			at = len(out) + 1
		}
		out = append(out, s)
	}
	if at < 0 {
		at = m.before(out, planned)
	}
	out = slices.Insert(out, at, planned...)
	begun := slices.IndexFunc(out, func(s Step) bool {
		return s.Films() && !m.whole(s) && !m.begun(s) || s.ID == "" && s.Films()
	})
	if begun < 0 {
		begun = at
	}
	early = slices.DeleteFunc(early, func(p Step) bool {
		return slices.ContainsFunc(out, func(s Step) bool { return s.ID == p.ID && p.ID != "" })
	})
	return slices.Insert(out, begun, early...)
}

// before is where steps without a place of their own go: before the first film to come that belongs over
// theirs, with the preparing for it, else before a last look.
func (m merge) before(out, planned []Step) int {
	first := len(product.Kinds)
	for _, p := range planned {
		if p.Films() && p.ProductID != "" {
			first = min(first, m.products[p.ProductID].Kind.Order())
		}
	}
	at := slices.IndexFunc(out, func(s Step) bool {
		return s.Films() && s.ProductID != "" && !m.begun(s) && m.products[s.ProductID].Kind.Order() > first
	})
	for at > 0 && !out[at-1].Films() && !m.begun(out[at-1]) {
		at--
	}
	if at >= 0 {
		return at
	}
	for at = len(out); at > 0 && out[at-1].Work == step.Inspect && !m.begun(out[at-1]); at-- {
	}
	return at
}

// known gives planned steps the ids of the old ones that they are, and takes off what is
// past: the coats that are on, and what came before them.
func (m merge) known(old, planned []Step) []Step {
	laid := 0 // coats of steps of the user's own that the bench takes over
	under := m.underWay(old)
	for i := range planned {
		for _, s := range old {
			if s.Origin != nil && *s.Origin == *planned[i].Origin && (under || !m.whole(s)) {
				planned[i].ID = s.ID
			}
		}
	}
	for _, s := range old {
		if s.Origin == nil && m.mine(s) && m.begun(s) && (!m.whole(s) || m.lately(s)) {
			laid += m.job.Coats(s.ID)
		}
	}
	if laid == 0 {
		return planned
	}
	out := []Step{}
	for _, p := range planned {
		switch films := p.Films(); {
		case laid > 0 && !films:
			continue
		case laid > 0 && slices.Contains(m.owns, m.products[p.ProductID].Kind):
			n := min(laid, p.Coats)
			laid -= n
			if p.Coats -= n; p.Coats == 0 {
				continue
			}
		}
		out = append(out, p)
	}
	return out
}

// gone marks the old steps that give way: those of the bench, and from the first coat of its
// kinds to the last what stands between, with the preparing before them if the bench brings
// its own.
func (m merge) gone(old, planned []Step) []bool {
	out := make([]bool, len(old))
	first, last := -1, -1
	for i, s := range old {
		if !m.mine(s) || m.begun(s) {
			continue
		}
		out[i] = true
		if s.Origin == nil {
			if first < 0 {
				first = i
			}
			last = i
		}
	}
	if first < 0 {
		return out
	}
	free := func(s Step) bool {
		return !s.Films() && s.Origin == nil && !m.begun(s) && s.Work != step.Inspect && s.Work != step.Trial
	}
	for i := first; i < last; i++ {
		out[i] = out[i] || free(old[i])
	}
	prepares := len(planned) > 0 && !planned[0].Films()
	for i := first - 1; prepares && i >= 0 && free(old[i]); i-- {
		out[i] = true
	}
	return out
}

// changes says what becomes of the steps of a surface.
func (o boatState) changes(surfaceID string, will []Step) []Change {
	old := o.steps[surfaceID]
	m2 := o.surface(surfaceID).Area.AreaM2
	out := []Change{}
	for _, w := range will {
		k := slices.IndexFunc(old, func(s Step) bool { return s.ID == w.ID && w.ID != "" })
		switch {
		case k < 0:
			out = append(out, Change{message.Sentence{}, o.told(w, m2)})
		case o.told(old[k], m2).String() != o.told(w, m2).String():
			out = append(out, Change{o.told(old[k], m2), o.told(w, m2)})
		}
	}
	for _, s := range old {
		if !slices.ContainsFunc(will, func(w Step) bool { return w.ID == s.ID }) {
			out = append(out, Change{o.told(s, m2), message.Sentence{}})
		}
	}
	return out
}

// told is a step in words, with all that a bench sets of it.
func (o boatState) told(s Step, areaM2 float64) message.Sentence {
	out := message.Of("%s", s.Words())
	if s.Films() {
		out = message.Of("%d × %s, %.3g µm", s.Coats, o.products[s.ProductID].Name, s.DFTUm)
	}
	add := func(on bool, words message.Sentence) {
		if on {
			out = message.Of("%v, %v", out, words)
		}
	}
	add(s.Colour != "", message.Of("%s", s.Colour))
	add(s.ThinnerPct > 0, message.Of("thinned %.3g %%", s.ThinnerPct))
	add(s.KeyGrit > 0, message.Of("keyed with %d", s.KeyGrit))
	if s.Where != nil {
		add(true, message.Of("%s, %.3g m²", s.Where.Name, s.Where.AreaM2(areaM2)))
	}
	add(s.TapeM > 0, message.Of("%.3g m of tape", s.TapeM))
	add(s.Hours > 0, message.Of("%.2g h", s.Hours))
	add(s.WaitH > 0, message.Of("then wait %.3g h", s.WaitH))
	return out
}

// PlanFinish puts what a bench planned into the build-ups, all of it.
func (a *App) PlanFinish(ctx context.Context, head Finish) ([]BuildUp, error) {
	return change(ctx, a, func(ctx context.Context) ([]BuildUp, error) {
		if len(head.Handovers) == 0 {
			return nil, fielderr.At("handovers", "there is no work in it to be planned")
		}
		out := []BuildUp{}
		for _, h := range head.Handovers {
			if len(h.Stop) > 0 {
				return nil, fielderr.At("", "it cannot be planned so: %v", h.Stop)
			}
			row, err := a.store.Read(ctx).Surface(ctx, h.SurfaceID)
			if err != nil {
				return nil, err
			}
			b, err := a.SetBuildUp(ctx, h.SurfaceID, row.Version, h.Steps)
			if err != nil {
				return nil, err
			}
			out = append(out, b)
		}
		return out, nil
	})
}

// Plan keeps the work of a bench if nothing is kept, so that what is planned is known there,
// and puts it into the build-up.
func (c Craft[W, R]) Plan(ctx context.Context, a *App, id string, of func(R) (Finish, W)) ([]BuildUp, error) {
	return change(ctx, a, func(ctx context.Context) ([]BuildUp, error) {
		got, err := c.Get(ctx, a, id)
		if err != nil {
			return nil, err
		}
		head, work := of(got)
		if len(head.Trouble) > 0 {
			return nil, fielderr.Errors(head.Trouble)
		}
		if head.Version == 0 {
			if got, err = c.Set(ctx, a, id, 0, work); err != nil {
				return nil, err
			}
			head, _ = of(got)
		}
		return a.PlanFinish(ctx, head)
	})
}

// The kinds of coats that benches plan.
var (
	nonskidKinds  = []product.Kind{product.NonSkidPaint, product.NonSkidGrit}
	brightKinds   = []product.Kind{product.Varnish, product.WoodSealer}
	antifoulKinds = []product.Kind{product.SoftAntifoul, product.HardAntifoul}
)
