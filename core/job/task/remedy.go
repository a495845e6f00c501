package task

// ForTheCold lays the coats that are left with the hardener of their sheet that cures in the least warmth. It changes
// tasks, and reports whether any is another now.
func ForTheCold(tasks []Task) (changed []Task, any bool) {
	for i := range tasks {
		t := &tasks[i]
		if !t.Films || !t.Left() {
			continue
		}
		as := t.Step.Sheet
		for _, g := range as.Grades {
			if graded, ok := as.With(g.Name); ok && graded.MinCureC < t.Step.Sheet.MinCureC {
				t.Step.Sheet, t.Step.Grade, any = graded, g.Name, true
			}
		}
	}
	return tasks, any
}

// manyCoats are so many of one step that one may be left out.
const manyCoats = 4

// OneFewer leaves out the last coat of the steps of many that are left, and reports whether any is gone.
func OneFewer(tasks []Task) (left []Task, any bool) {
	for _, t := range tasks {
		if t.Films && t.Left() && t.Of >= manyCoats && t.N == t.Of {
			any = true
			continue
		}
		left = append(left, t)
	}
	return left, any
}
