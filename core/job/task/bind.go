package task

import (
	"time"

	"allcoats/core/base/say"
	"allcoats/core/film/step"
)

// Bind is a limit that runs from the end of a task until another is done. By is the
// instant by which that must be, once it runs.
type Bind struct {
	Name   string       `json:"name"`
	Until  string       `json:"until"`
	MaxH   float64      `json:"maxH"`
	By     *time.Time   `json:"by,omitempty"`
	Breaks say.Sentence `json:"breaks"`
}

// How long a face may stand as it is, h: rules of thumb that data sheets overrule.
const (
	bareMetalH    = 8
	bareLaminateH = 24 * 14
	openFillerH   = 24 * 7
	sandedH       = 48
)

// bind sets the limits that run from the end of tasks.
func (s Surface) bind(tasks []Task) {
	next := func(i int, want func(t Task) bool) string {
		for _, t := range tasks[i+1:] {
			if (t.Where == "" || tasks[i].Where == "" || t.Where == tasks[i].Where) && want(t) {
				return t.ID
			}
		}
		return ""
	}
	film := func(t Task) bool { return t.Films }
	for i := range tasks {
		t := &tasks[i]
		add := func(name string, until string, maxH float64, breaks string) {
			if until != "" {
				t.Binds = append(t.Binds, Bind{Name: name, Until: until, MaxH: maxH, Breaks: say.Lit(breaks)})
			}
		}
		switch of := s.Substrate.Info(); {
		case t.Work == step.Strip && of.Metal:
			add("bare metal", next(i, film), bareMetalH, "it rusts or oxidises: blast or sand it bright again")
		case t.Work == step.Strip && of.Laminate:
			add("bare laminate", next(i, film), bareLaminateH, "the sun and the wet get into the fibre: wash, dry and sand it again")
		case t.Films && filler(t.Step):
			if n := next(i, film); n != "" && !filler(taskByID(tasks, n).Step) {
				add("open filler", n, openFillerH, "it drinks water: dry it out before anything goes over it")
			}
		case t.Work.Kind().Taped:
			h := t.Step.TapeH
			if h == 0 {
				h = step.UsualTapeH
			}
			add("tape", next(i, func(o Task) bool { return o.ID == pullID(t.StepID) }), h, "the glue stays: pull it warm, wash it off, mask anew")
		case t.Work == step.Sand:
			add("sanded", next(i, film), sandedH, "dust and salt settle on it: wash it again, and key it")
		}
	}
}

func taskByID(tasks []Task, id string) Task {
	for _, t := range tasks {
		if t.ID == id {
			return t
		}
	}
	return Task{}
}

// run sets when the limits of what is done end, if what ends them is not done.
func run(tasks []Task) {
	for i := range tasks {
		t := &tasks[i]
		if t.DoneAt == nil {
			continue
		}
		for k := range t.Binds {
			b := &t.Binds[k]
			if taskByID(tasks, b.Until).Left() {
				at := t.DoneAt.Add(time.Duration(b.MaxH * float64(time.Hour)))
				b.By = &at
			}
		}
	}
}
