package task

import (
	"allcoats/core/base/message"
	"allcoats/core/film/step"
	"allcoats/core/job/buildup"
)

// lines are what each step comes to.
func (s Surface) lines() []buildup.Line {
	out := make([]buildup.Line, len(s.Steps))
	for i, st := range s.Steps {
		l, err := buildup.Reckon(s.Area, s.Access, st.Step)
		if err != nil { // a sheet that was changed since; it is told where it is planned
			l = buildup.Line{AreaM2: st.Where.AreaM2(s.Area.AreaM2), HoursPerCoat: 1, LayH: 1}
		}
		out[i] = l
	}
	return out
}

// unfold lists the tasks of a surface in their order: a key before each coat that wants
// one, every coat, work in one go, and the pulling of tape after the coats that it was
// put on for.
func (s Surface) unfold(lines []buildup.Line) []Task {
	out := []Task{}
	type taped struct {
		i int
		buildup.Line
	}
	var tape []taped // that is on
	pull := func() {
		for _, t := range tape {
			st := s.Steps[t.i]
			one := s.task(st, t.Line, pullID(st.ID), step.Unmask)
			one.What, one.ReckonedH, one.LayH = step.Unmask.Say(), t.PullH, t.PullH
			out = append(out, one)
		}
		tape = nil
	}
	for i, st := range s.Steps {
		l := lines[i]
		if !st.Films() {
			if i > 0 && s.Steps[i-1].Films() {
				pull()
			}
			one := s.task(st, l, st.ID, st.Work)
			one.What = st.Words()
			one.ReckonedH = l.HoursPerCoat - l.PullH
			out = append(out, one)
			if st.Work.Kind().Taped {
				tape = append(tape, taped{i, l})
			}
			continue
		}
		for n := 1; n <= st.Coats; n++ {
			if st.KeyGrit > 0 {
				key := s.task(st, l, keyID(st.ID, n), step.Sand)
				key.What, key.N, key.Of = message.Of("key with %d", st.KeyGrit), n, st.Coats
				key.ReckonedH, key.LayH = l.KeyH, l.KeyH
				out = append(out, key)
			}
			one := s.task(st, l, coatID(st.ID, n), st.Work)
			one.What, one.N, one.Of = What(st.Step, n), n, st.Coats
			one.ReckonedH = l.HoursPerCoat - l.KeyH
			one.ReckonedL, one.WetUm, one.DryUm, one.Films, one.Skill = l.LitresPerCoat, l.WFTUm, st.DFTUm, true,
				skill(st.Step)
			out = append(out, one)
		}
	}
	pull()
	s.bind(out)
	return out
}

func (s Surface) task(st Step, l buildup.Line, id string, w step.Work) Task {
	t := Task{ID: id, StepID: st.ID, SurfaceID: s.ID, Work: w, N: 1, Of: 1, AreaM2: l.AreaM2, LayH: l.LayH, State: ToDo,
		Step: st.Step}
	if st.Films() && w == st.Work {
		t.ProductID = st.ProductID
	}
	if st.Where != nil {
		t.Where = st.Where.Name
	}
	return t
}
