package app

import (
	"context"
	"maps"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/planning/plan"
)

// pin pins a task to a start, or to the quarter of an hour nearest to it that suits its
// weather and the hands; without a start it is free again.
func (s *yardState) pin(taskID string, at *time.Time, near bool) {
	if at != nil && near {
		if m, err := s.yard.Model(); err == nil {
			suits := m.Nearest(taskID, *at)
			at = &suits
		}
	}
	marks := maps.Clone(s.settings.Marks)
	m := marks[taskID]
	if m.Pinned = at; at != nil {
		whole := at.UTC().Truncate(15 * time.Minute)
		m.Pinned = &whole
	}
	marks[taskID] = m
	if m == (plan.Mark{}) {
		delete(marks, taskID)
	}
	s.settings.Marks = marks
	s.fill(s.view.Place, s.view.Now, s.view.Until)
}

// Tried is what a move would do: where the task comes to, what else moves, and the launches
// that it changes. Trouble says why it cannot stand.
type Tried struct {
	At      *time.Time         `json:"at,omitempty"`
	Moved   []plan.Moved       `json:"moved"`
	Says    []message.Sentence `json:"says"`
	Trouble []fielderr.Field   `json:"trouble"`
}

// try pins a task and makes the plan with that; the starts before and after are told.
func (a *App) try(ctx context.Context, s *yardState, taskID string, at *time.Time, near bool) (Tried, error) {
	out := Tried{Moved: []plan.Moved{}, Says: []message.Sentence{}, Trouble: []fielderr.Field{}}
	shown, old, err := a.showYard(ctx, s.view.Place.ID)
	if err != nil {
		return out, err
	}
	var before []plan.Launching
	if shown.view.Plan != nil {
		before = shown.view.Plan.Launches
	}
	s.pin(taskID, at, near)
	if _, err := s.show(ctx, plan.Effort{}); err != nil {
		return out, err
	}
	out.At = s.settings.Marks[taskID].Pinned
	if out.Trouble = append(out.Trouble, s.view.Trouble...); len(out.Trouble) > 0 {
		return out, nil
	}
	for _, l := range s.view.Plan.Left {
		if l.TaskID == taskID && at != nil {
			out.Trouble = append(out.Trouble, fielderr.At("at", "%s: %s", l.Name, l.Why.In(s.yard.Loc))...)
		}
	}
	for _, m := range plan.Changes(old.Starts, *s.view.Plan) {
		if m.TaskID != taskID {
			out.Moved = append(out.Moved, m)
		}
	}
	for k, l := range s.view.Plan.Launches {
		if k < len(before) && !same(before[k].At, l.At) {
			out.Says = append(out.Says, l.Says)
		}
	}
	return out, nil
}

func same(a, b *time.Time) bool { return a == nil && b == nil || a != nil && b != nil && a.Equal(*b) }

// TryMove tells what a move would do; nothing is stored.
func (a *App) TryMove(ctx context.Context, placeID string, taskID string, at *time.Time, near bool) (Tried, error) {
	s, err := a.loadYard(ctx, placeID)
	if err != nil {
		return Tried{}, err
	}
	return a.try(ctx, &s, taskID, at, near)
}

// Move pins a task to a start, if that can stand; the plan is shown with it.
// Without a start it is free again. near pins it to the quarter of an hour nearest to the
// start that suits its weather and the hands. It can be gone back on.
func (a *App) Move(ctx context.Context, placeID string, version int, taskID string, at *time.Time,
	near bool) (YardPlan, error) {
	s, err := a.loadYard(ctx, placeID)
	if err != nil {
		return YardPlan{}, err
	}
	now := s.now
	now.Marks = s.settings.Marks
	tried, err := a.try(ctx, &s, taskID, at, near)
	if err != nil {
		return YardPlan{}, err
	}
	if len(tried.Trouble) > 0 {
		return YardPlan{}, fielderr.Errors(tried.Trouble)
	}
	s.row.Version = version
	if err := a.putPlan(ctx, s, s.now, append(s.before, now), nil); err != nil {
		return YardPlan{}, err
	}
	return a.YardPlan(ctx, placeID)
}
