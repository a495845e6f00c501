package app

import (
	"context"
	"fmt"
	"slices"

	"allcoats/core/base/fielderr"
	"allcoats/core/job/rules"
	"allcoats/core/job/scheme"
	"allcoats/store"
)

// Start is a surface on which nothing is planned, with the schools to begin with, first
// those that the rules have least to say against there.
type Start struct {
	SurfaceID string   `json:"surfaceId"`
	Surface   string   `json:"surface"`
	Job       string   `json:"job"`
	Schools   []School `json:"schools"`
}

// School is a scheme by its school.
type School struct {
	Scheme string `json:"scheme"`
	Name   string `json:"name"`
	Reason string `json:"reason"`
}

// StartChoice plans a scheme on a surface.
type StartChoice struct {
	SurfaceID string `json:"surfaceId"`
	Scheme    string `json:"scheme"`
}

// Starts lists the surfaces of a boat on which nothing is planned.
func (a *App) Starts(ctx context.Context, boatID string) ([]Start, error) {
	w, err := a.loadBoatWork(ctx, a.store.Read(ctx), boatID)
	if err != nil {
		return nil, err
	}
	out := []Start{}
	for _, f := range w.survey.Surfaces {
		if !w.untouched(f.ID) {
			continue
		}
		s := Start{f.ID, f.Name, scheme.JobFor(f.Part, f.Substrate), []School{}}
		schemes, err := w.schemes(f)
		if err != nil {
			return nil, err
		}
		amiss := map[string]int{}
		for _, k := range schemes {
			if k.Job != s.Job {
				continue
			}
			b, err := w.buildUp(f.ID, k.Planned)
			if err != nil {
				return nil, err
			}
			for _, found := range b.Findings {
				if found.Severity != rules.Note {
					amiss[k.Key]++
				}
			}
			s.Schools = append(s.Schools, School{k.Key, k.School, k.Reason})
		}
		slices.SortStableFunc(s.Schools, func(a, b School) int { return amiss[a.Scheme] - amiss[b.Scheme] })
		out = append(out, s)
	}
	return out, nil
}

// untouched reports whether a surface is one of the boat's on which nothing is planned.
func (w work) untouched(surfaceID string) bool {
	return w.surface(surfaceID).ID != "" && len(w.steps[surfaceID]) == 0
}

// Begin plans schemes on surfaces of a boat on which nothing is planned, all of them or
// none.
func (a *App) Begin(ctx context.Context, boatID string, choices []StartChoice) (Overview, error) {
	return change(ctx, a, func(ctx context.Context) (Overview, error) {
		w, err := a.loadBoatWork(ctx, a.store.Read(ctx), boatID)
		if err != nil {
			return Overview{}, err
		}
		var bad fielderr.Errors
		if len(choices) == 0 {
			bad.Add("", "choose a school for a surface at least")
		}
		rows := make([][]store.Step, len(choices))
		for i, c := range choices {
			at := fmt.Sprintf("[%d]", i)
			if !w.untouched(c.SurfaceID) || slices.ContainsFunc(choices[:i], func(o StartChoice) bool {
				return o.SurfaceID == c.SurfaceID
			}) {
				bad.Add(at+".surfaceId", "is no surface of this boat on which nothing is planned")
				continue
			}
			steps, _, err := w.schemeSteps(c.Scheme, w.surface(c.SurfaceID))
			if err != nil {
				bad.Add(at+".scheme", "is no scheme that the program knows")
				continue
			}
			err = w.check(c.SurfaceID, steps)
			if err == nil {
				_, err = w.buildUp(c.SurfaceID, steps)
			}
			bad.Under(at+".scheme", err)
			for _, s := range steps {
				s.ID = newID()
				rows[i] = append(rows[i], s.row())
			}
		}
		if err := bad.Err(); err != nil {
			return Overview{}, err
		}
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			for i, c := range choices {
				if err := q.SetSteps(ctx, c.SurfaceID, w.surface(c.SurfaceID).Version, rows[i]); err != nil {
					return err
				}
			}
			return nil
		})
		if err != nil {
			return Overview{}, stale(err, func() (Overview, error) { return a.Overview(ctx, boatID) })
		}
		return a.Overview(ctx, boatID)
	})
}
