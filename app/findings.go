package app

import (
	"context"
	"maps"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/exposure/surface"
	"allcoats/core/film/step"
	"allcoats/core/job/application"
	"allcoats/core/job/rules"
	"allcoats/core/job/scheme"
	"allcoats/store"
)

// Finding is what a rule has to say of a step, and whether it is let stand. Mended are the
// steps with its mend, if that can be put in with the products of the library.
type Finding struct {
	rules.Finding
	Mended      []Step    `json:"mended,omitempty"`
	Overruled   bool      `json:"overruled"`
	Reason      string    `json:"reason"`
	OverruledAt time.Time `json:"overruledAt"`
}

// caseOf is a surface with steps as the rules want it.
func (w work) caseOf(f Surface, core []step.Step) rules.Case {
	b, p := w.survey.Boat, w.survey.Place
	c := rules.Case{Part: f.Part, Substrate: f.Substrate, SubstrateNote: f.SubstrateNote, Tone: f.Tone,
		TiltDeg: f.Tilt(f.Part), Sheltered: f.Shelter == survey.Shed, Findings: f.Findings, OpenDefects: f.OpenDefects,
		HottestC: surface.Hottest(p.LatitudeDeg, p.LongitudeDeg, p.normals(), surface.Of(f.Description, f.Part, f.Side,
			b.HeadingDeg))}
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
func (w work) mind(f Surface, core []step.Step) [][]message.Sentence {
	c := w.caseOf(f, core)
	out := make([][]message.Sentence, len(core))
	for i, s := range core {
		at := application.Site{Inside: f.Part.Info().Inside, Substrate: f.Substrate, Over: c.Meets(i).Sheet}
		if !c.Meets(i).Stripped {
			at.Old = f.Findings.Layers
		}
		if out[i] = application.Mind(s, at); out[i] == nil {
			out[i] = []message.Sentence{}
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
	return slices.DeleteFunc(w.findings(f, steps, core), func(x Finding) bool {
		return x.Severity == rules.Note || x.Overruled
	})
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
	ids := slices.SortedFunc(maps.Keys(w.products), func(a, b string) int {
		return strings.Compare(w.products[a].Name, w.products[b].Name)
	})
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
			return BuildUp{}, fielderr.At("reason", "write why it may stand: it stays in the record")
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
			return BuildUp{}, fielderr.At("rule", "finds nothing at this step")
		}
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			return q.SetOverrule(ctx, store.Overrule{SurfaceID: surfaceID, StepID: stepID, Rule: rule, Reason: reason,
				At: now.Unix()})
		})
		if err != nil {
			return BuildUp{}, err
		}
		return a.BuildUp(ctx, surfaceID)
	})
}
