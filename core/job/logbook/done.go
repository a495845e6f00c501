package logbook

import "allcoats/core/film/step"

// Done counts for each step, by its id, the coats of it that are logged.
func Done(log []Logged, steps []string) []int {
	out := make([]int, len(steps))
	for _, e := range log {
		for i, id := range steps {
			if e.Of(id) {
				out[i]++
			}
		}
	}
	return out
}

// Undone lists the work without a film between the last film begun and step next that
// the log, rising in time, does not tell of since the last coat. done are the coats of
// each step. Work is counted by its kind, in whatever order it was logged; inspections
// hold nothing up.
func Undone(log []Logged, steps []step.Step, done []int, next int) []step.Step {
	told := map[step.Work]int{}
	for _, e := range log {
		if e.Kind.Kind().Lays {
			clear(told)
		} else {
			told[e.Kind]++
		}
	}
	from := 0
	for i := range next + 1 {
		if done[i] > 0 {
			from = i + 1
		}
	}
	var out []step.Step
	for _, st := range steps[min(from, next):next] {
		switch {
		case st.Films() || st.Work == step.Inspect:
		case told[st.Work] > 0:
			told[st.Work]--
		default:
			out = append(out, st)
		}
	}
	return out
}
