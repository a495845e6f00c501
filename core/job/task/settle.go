package task

import (
	"math"
	"strings"

	"allcoats/core/film/step"
	"allcoats/core/job/logbook"
)

// Told is what an entry of the log did: so much of a task, on so many m². Without a task it
// did what none waits for.
type Told struct {
	Step      *Step
	Task      string
	AreaM2    float64
	ReckonedH float64
	ReckonedL float64
}

// whole is a task that is done but for what is lost in rounding.
const whole = 1 - 1e-6

// settle gives the entries of a log to the tasks, in the order of time: to the step that
// an entry names, or to the next work of its kind before the next film. done counts the
// coats told of each step, more than planned too.
func (s Surface) settle(tasks []Task, told map[string]Told, done map[string]float64) {
	for _, e := range s.Log {
		i := s.meant(tasks, e)
		if i < 0 {
			told[e.ID] = s.untold(tasks, e, done)
			continue
		}
		if also := s.round(tasks, i, e); len(also) > 1 {
			told[e.ID] = s.toldRound(tasks, also, e, done)
			continue
		}
		t := &tasks[i]
		share := math.Min(1-t.DonePct/100, shareOf(*t, e))
		if t.Films {
			done[t.StepID] += share
		}
		t.tell(e, share)
		t.TookH += e.Hours
		t.TookL += e.Litres
		told[e.ID] = Told{Step: s.step(t.StepID), Task: t.ID, AreaM2: share * t.AreaM2, ReckonedH: share * t.ReckonedH,
			ReckonedL: share * t.ReckonedL}
	}
	s.overtake(tasks)
}

// round lists the passes that a round of fairing did: all that are open of the steps that were planned
// for it, or of the one that was meant.
func (s Surface) round(tasks []Task, meant int, e logbook.Logged) []int {
	if e.Round == nil || !e.Kind.Kind().Films || e.SharePct > 0 || len(e.Patches) > 0 {
		return nil
	}
	planned := func(t Task) string {
		if from := t.Step.Origin; from != nil {
			return from.Bench + " " + strings.TrimSuffix(from.Key, HardKey)
		}
		return t.StepID
	}
	var out []int
	for i, t := range tasks {
		if t.Work == e.Kind && t.State != Done && t.State != Skipped && planned(t) == planned(tasks[meant]) {
			out = append(out, i)
		}
	}
	return out
}

// HardKey ends the key of the hard filling under a light one of the same round.
const HardKey = "-hard"

func (s Surface) toldRound(tasks []Task, passes []int, e logbook.Logged, done map[string]float64) Told {
	last := tasks[passes[len(passes)-1]]
	all := Told{Step: s.step(last.StepID), Task: last.ID, AreaM2: last.AreaM2}
	reckonedH := 0.0
	for _, i := range passes {
		reckonedH += tasks[i].ReckonedH
	}
	for _, i := range passes {
		t := &tasks[i]
		share := 1 - t.DonePct/100
		done[t.StepID] += share
		t.tell(e, share)
		of := 1 / float64(len(passes))
		if reckonedH > 0 {
			of = t.ReckonedH / reckonedH
		}
		t.TookH += of * e.Hours
		t.TookL += of * e.Litres
		all.ReckonedH += share * t.ReckonedH
		all.ReckonedL += share * t.ReckonedL
	}
	return all
}

// untold is what an entry did that no task waits for: one coat more than planned, or one of
// another product. What was cleaned and keyed for the next film is under it.
func (s Surface) untold(tasks []Task, e logbook.Logged, done map[string]float64) Told {
	t := Told{AreaM2: s.Area.AreaM2}
	if st := s.step(e.StepID); st != nil {
		t.Step, t.AreaM2 = st, st.Where.AreaM2(s.Area.AreaM2)
		if st.Films() && e.Kind.Kind().Films {
			done[st.ID]++
		}
	}
	if !e.Kind.Kind().Lays {
		return t
	}
	for i := len(tasks) - 1; i >= 0 && !(tasks[i].Films && tasks[i].DonePct > 0); i-- {
		if w := tasks[i].Work; w == step.Sand || w.Kind().Wets {
			tasks[i].State, tasks[i].DonePct, tasks[i].DoneAt = ToDo, 0, nil
		}
	}
	return t
}

// meant is the task that an entry is of, −1 for none.
func (s Surface) meant(tasks []Task, e logbook.Logged) int {
	kind := e.Kind.Kind()
	open := func(t Task) bool { return t.State != Done && t.State != Skipped }
	if e.StepID != "" {
		for i, t := range tasks {
			if t.StepID == e.StepID && open(t) && (t.Work == e.Kind || t.Films && kind.Films) {
				return i
			}
		}
		return -1
	}
	if kind.Lays {
		return -1 // another product
	}
	from := 0
	for i, t := range tasks {
		if t.Films && t.DonePct > 0 {
			from = i + 1
		}
	}
	for i := from; i < len(tasks); i++ {
		switch t := tasks[i]; {
		case open(t) && t.Work == e.Kind:
			return i
		case t.Films && open(t):
			return -1
		}
	}
	return -1
}

// shareOf is how much of a task an entry did: all that is left, if it does not say.
func shareOf(t Task, e logbook.Logged) float64 {
	switch {
	case t.Work.Kind().Judged && e.Outcome != logbook.Passed:
		return 0
	case len(e.Patches) > 0 && t.Step.Where != nil:
		return t.Step.Where.Part(e.Patches)
	case e.SharePct > 0:
		return e.SharePct / 100
	}
	return 1
}

func (t *Task) tell(e logbook.Logged, part float64) {
	if part <= 0 {
		return
	}
	at := e.StartedAt
	t.DoneAt = &at
	t.DonePct += 100 * part
	t.Patches = append(t.Patches, e.Patches...)
	t.State = Begun
	if t.DonePct >= 100*whole {
		t.DonePct, t.State = 100, Done
	}
}

// overtake marks work without a film that a later film was laid over untold, and what was
// judged and found wanting.
func (s Surface) overtake(tasks []Task) {
	over := false
	for i := len(tasks) - 1; i >= 0; i-- {
		t := &tasks[i]
		if over && !t.Films && (t.State == ToDo || t.State == Begun) && t.Work != step.Unmask {
			t.State = Overtaken
		}
		over = over || t.Films && t.DonePct > 0
	}
	for _, e := range s.Log {
		if e.Outcome != logbook.Failed {
			continue
		}
		for i := range tasks {
			if t := &tasks[i]; t.State == ToDo && t.Work == e.Kind && (e.StepID == "" || e.StepID == t.StepID) {
				t.State = Failed
				break
			}
		}
	}
}

func (s Surface) step(id string) *Step {
	for i := range s.Steps {
		if id != "" && s.Steps[i].ID == id {
			return &s.Steps[i]
		}
	}
	return nil
}
