package task

import (
	"time"

	"allcoats/core/base/message"
	"allcoats/core/film/step"
)

// Bind is a limit that runs from the end of a task until another is done. By is the
// instant by which that must be, once it runs. Mend is what it takes when it is broken, MendH
// its hours; it comes right before Until.
type Bind struct {
	Name   string           `json:"name"`
	Until  string           `json:"until"`
	MaxH   float64          `json:"maxH"`
	By     *time.Time       `json:"by,omitempty"`
	Breaks message.Sentence `json:"breaks"`
	Mend   string           `json:"mend"`
	MendH  float64          `json:"mendH"`
}

// How long a face may stand as it is, h: rules of thumb that data sheets overrule.
const (
	bareMetalH    = 8
	bareLaminateH = 24 * 14
	bareWoodH     = 24 * 14
	openFillerH   = 24 * 7
	sandedH       = 48
	washedH       = 72
)

// How much one person mends in an hour, m²: rules of thumb.
const (
	brightM2H = 4  // sands metal bright
	keyM2H    = 8  // scuffs for the next coat
	washM2H   = 25 // washes
	mendSetH  = 0.5
)

// KeyAndWashH is what it takes to scuff a face of so many m² and to wash it, h.
func KeyAndWashH(areaM2, access float64) float64 { return mendH(areaM2, access, keyM2H, washM2H) }

func mendH(areaM2, access float64, rates ...float64) float64 {
	sum := mendSetH
	for _, r := range rates {
		sum += areaM2 / r * max(1, access)
	}
	return sum
}

// bind sets the limits that run from the end of tasks.
func (s Surface) bind(tasks []Task) {
	next := func(i int, want func(t Task) bool) *Task {
		for k := range tasks[i+1:] {
			t := &tasks[i+1+k]
			if (t.Where == "" || tasks[i].Where == "" || t.Where == tasks[i].Where) && want(*t) {
				return t
			}
		}
		return nil
	}
	// What it is open to ends with the next film, or is begun anew by the next abrading.
	film := func(i int) *Task {
		if n := next(i, func(t Task) bool { return t.Films || t.Work.Kind().Abrades }); n != nil && n.Films {
			return n
		}
		return nil
	}
	bare, filmed := false, false
	for i := range tasks {
		t := &tasks[i]
		add := func(b Bind, until *Task, breaks string) {
			if until != nil {
				b.Until, b.Breaks = until.ID, message.Lit(breaks)
				t.Binds = append(t.Binds, b)
			}
		}
		of, kind := s.Substrate.Info(), t.Work.Kind()
		bare = (bare || t.Work == step.Strip) && !t.Films
		filmed = filmed || t.Films
		if of.Wood && kind.Abrades && !filmed {
			add(Bind{Name: "bare wood", MaxH: bareWoodH, Mend: "wash and sand the grey off",
				MendH: KeyAndWashH(t.AreaM2, s.Access)}, next(i, func(t Task) bool { return t.Films }),
				"it greys and drinks: sand it clean again")
		}
		switch {
		case bare && kind.Abrades && of.Metal:
			add(Bind{Name: "bare metal", MaxH: bareMetalH, Mend: "sand it bright again",
				MendH: mendH(t.AreaM2, s.Access, brightM2H)}, film(i),
				"it rusts or oxidises: blast or sand it bright again")
		case bare && t.Work == step.Strip && of.Laminate:
			add(Bind{Name: "bare laminate", MaxH: bareLaminateH, Mend: "wash, dry and sand the laminate",
				MendH: KeyAndWashH(t.AreaM2, s.Access)}, film(i),
				"the sun and the wet get into the fibre: wash, dry and sand it again")
		case t.Films && filler(t.Step):
			if n := next(i, func(t Task) bool { return t.Films }); n != nil && !filler(n.Step) {
				add(Bind{Name: "open filler", MaxH: openFillerH, Mend: "wash, dry out and scuff the filler",
					MendH: KeyAndWashH(t.AreaM2, s.Access)}, n,
					"it drinks water: dry it out before anything goes over it")
			}
		case kind.Taped:
			h := t.Step.TapeH
			if h == 0 {
				h = step.UsualTapeH
			}
			pull := next(i, func(o Task) bool { return o.ID == pullID(t.StepID) })
			if pull != nil {
				add(Bind{Name: "tape", MaxH: h, Mend: "pull the tape and mask anew", MendH: t.ReckonedH +
					pull.ReckonedH}, pull,
					"the glue stays: pull it warm, wash it off, mask anew")
			}
		case t.Work == step.Sand:
			add(Bind{Name: "sanded", MaxH: sandedH, Mend: "wash and key", MendH: KeyAndWashH(t.AreaM2, s.Access)},
				film(i), "dust and salt settle on it: wash it again, and key it")
		case kind.Wets:
			add(Bind{Name: "washed", MaxH: washedH, Mend: "wash again", MendH: mendH(t.AreaM2, s.Access, washM2H)},
				film(i), "salt and dust settle on it: wash it again")
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
