package plan

import (
	"fmt"
	"math"
	"slices"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/job/task"
)

// Task is a task of the plan: one of a job, or a part of it that fits a day.
type Task struct {
	ID        string
	Boat      int // index in the yard
	SurfaceID string
	Surface   string
	What      message.Sentence
	Work      step.Work
	// Hours are of the job, by all people together; SetupH is setting up again for a part
	// that is not the first.
	Hours     float64
	SetupH    float64
	Crew      int
	Skill     task.Skill
	Coat      bool
	Milestone bool // no work: the launch
	// Of is the task of the job, SharePct how much of it this part is. Parts with a Piece
	// are a place of their own, those of a Run follow one another place by place.
	Of       task.Task
	SharePct float64
	Piece    int
	Run      string
	// job and weather are of coats; outdoors work without a field needs dry hours.
	job      field.Job
	weather  field.Weather
	sheet    product.Sheet
	outdoors bool
	light    bool
	dry      bool // the surface must be dry
	noisy    bool
	dusty    bool
	pinned   *time.Time
	litres   float64 // of a mend that lays something
	// first and last of a surface's coats
	first, last bool
}

// Name is a task in words.
func (t Task) Name() message.Sentence {
	if t.Surface == "" {
		return t.What
	}
	return message.Of("%s, %v", t.Surface, t.What)
}

// covers tells whether work on t is on the same place as o.
func (t Task) covers(o Task) bool {
	if t.Of.Where != "" && o.Of.Where != "" && t.Of.Where != o.Of.Where {
		return false
	}
	return t.Run == "" || t.Run != o.Run || t.Piece == o.Piece
}

// laying is how long its hands lay, in fives of minutes.
func (t Task) laying() time.Duration {
	const five = 5 * time.Minute
	lay := hours(t.Of.LayH * t.SharePct / 100 / float64(max(1, t.Crew)))
	return max(2*five, (lay + five - 1).Truncate(five))
}

// slots is how long it takes its crew.
func (t Task) slots() int { return max(1, inSlots((t.Hours+t.SetupH)/float64(max(1, t.Crew)))) }

// inSlots are hours in slots, as many as it takes.
func inSlots(h float64) int { return int(math.Ceil(h*perHour - 1e-9)) }

func hours(h float64) time.Duration { return time.Duration(h * float64(time.Hour)) }

// tasks lists the work of a boat, surface by surface, each in its order, then her own.
func (y Yard) tasks(k int) (out [][]Task) {
	b := y.Boats[k]
	short, long := y.stretches()
	for _, s := range b.Surfaces {
		var chain []Task
		for _, j := range s.Tasks {
			if j.Left() {
				chain = append(chain, y.task(k, s, j))
			}
		}
		for i := range chain {
			chain[i].first = chain[i].Coat && !slices.ContainsFunc(chain[:i], isCoat)
			chain[i].last = chain[i].Coat && !slices.ContainsFunc(chain[i+1:], isCoat)
		}
		out = append(out, y.cut(chain, short, long))
	}
	for i, o := range b.Own {
		var chain []Task
		if j := b.Work[i]; j.Left() {
			chain = append(chain, Task{ID: o.ID, Boat: k, What: message.Of("%s", o.Name), Work: j.Work, Hours: j.Hours,
				Crew: max(1, o.Crew), Skill: o.Skill, Of: j, outdoors: o.Outdoors, noisy: o.Noisy, light: o.Light &&
					!b.Lights})
		}
		out = append(out, y.cut(chain, short, long))
	}
	return out
}

func isCoat(t Task) bool { return t.Coat }

// trowelled tells whether a task lays filler.
func (t Task) trowelled() bool {
	return t.Coat && (t.sheet.Kind.Info().Filler || t.Work == step.Fill || t.Work == step.Fair)
}

// task is a task of a surface's job, with what weather and hands it takes.
func (y Yard) task(k int, s Surface, j task.Task) Task {
	b, kind := y.Boats[k], j.Work.Kind()
	t := Task{ID: j.ID, Boat: k, SurfaceID: s.ID, Surface: s.Name, What: j.Named(), Work: j.Work, Hours: j.Hours,
		Crew: max(1, j.Step.Crew), Coat: j.Films, Skill: j.Skill, Of: j, light: !b.Lights}
	_, wet := b.Off[Dust]
	t.dusty = kind.Abrades && !j.Step.Indoor && !wet
	if !j.Films {
		t.outdoors, t.noisy, t.dry = !s.Sheltered && !j.Step.Indoor, kind.Noisy, !kind.Wets
		t.light = t.light && !j.Step.Indoor
		return t
	}
	m, _ := film.MethodByKey(j.Step.Method)
	t.sheet = j.Step.Sheet
	l := t.sheet.Limits
	t.job = field.Job{Limits: l, Hold: hours(l.HoldH), Dry: hours(l.RainFreeH), Spray: m.Spray, Lights: b.Lights,
		Daylight: y.Daylight, Sheltered: s.Sheltered}
	return t
}

// What a part of a long task takes, h: about half a day, and no less than leastPart.
const (
	aboutPart = 4
	leastPart = 1.5
	mostParts = 24
)

// stretches are the part of work that fits any usual day of everybody, and the longest
// stretch that somebody works, h.
func (y Yard) stretches() (part, long float64) {
	part = math.Inf(1)
	for _, p := range y.People {
		for _, h := range p.week() {
			if d := h.ToH - h.FromH; d >= leastPart {
				part, long = min(part, d), max(long, d)
			}
		}
	}
	if long == 0 {
		return leastPart, leastPart
	}
	return part / math.Ceil(part/aboutPart), long
}

// cut takes what is done off tasks, and cuts what takes longer than fits: work into parts of
// short, coats into panels of long, and what bares metal into pieces that are primed the same
// day.
func (y Yard) cut(chain []Task, short, long float64) (out []Task) {
	for i := 0; i < len(chain); i++ {
		if end := run(chain, i); end > i {
			out = append(out, y.pieces(chain[i:end+1], long)...)
			i = end
			continue
		}
		t := chain[i]
		if !t.Coat {
			parts := math.Ceil(t.Hours/float64(t.Crew)/short - 1e-9)
			if parts > mostParts {
				parts = math.Max(mostParts, math.Ceil(t.Hours/float64(t.Crew)/(long-t.Work.Kind().SetupH)))
			}
			out = append(out, y.parts(t, int(max(1, parts)))...)
			continue
		}
		if t.Of.Step.Crew == 0 { // as many hands as bring it into a day
			t.Crew = max(1, min(len(y.People), int(math.Ceil(t.Hours/long-1e-9))))
		}
		panel := long
		if t.trowelled() { // it has no wet edge
			panel = short
		}
		n := int(math.Ceil(t.Hours/float64(t.Crew)/panel - 1e-9))
		if n > 1 {
			t.Run = t.Of.StepID
		}
		out = append(out, y.parts(t, max(1, n))...)
	}
	return out
}

// run is the end of the tasks from i on that are done piece by piece: from what bares metal
// to the film that covers it; i if there are none.
func run(chain []Task, i int) int {
	for _, b := range chain[i].Of.Binds {
		if b.MaxH <= sameDayH {
			if end := slices.IndexFunc(chain, func(t Task) bool { return t.ID == b.Until }); end > i {
				return end
			}
		}
	}
	return i
}

// sameDayH is the limit from which work is done in pieces that are finished within a day, h.
const sameDayH = 12

// washDriesH is how long a washed surface is given to dry when work is cut into days, h: a rule
// of thumb; in the plan it dries by its weather.
const washDriesH = 2

// pieces cuts a run of tasks into as few places as fit a day each, with the drying between
// them, and lists them place by place.
func (y Yard) pieces(run []Task, long float64) (out []Task) {
	total, again, dries := 0.0, 0.0, 0.0
	for _, t := range run {
		total += t.Hours / float64(t.Crew)
		again += t.Work.Kind().SetupH
		if t.Work.Kind().Wets {
			dries += washDriesH
		}
	}
	n := 1
	for n < 60 && total/float64(n)+again+dries > long && (n > 1 || total+dries > long) {
		n++
	}
	parts := make([][]Task, len(run))
	for k, t := range run {
		if n > 1 {
			t.Run = run[0].ID
		}
		parts[k] = y.parts(t, n)
	}
	for piece := 1; piece <= n; piece++ {
		for _, p := range parts {
			for _, t := range p {
				if t.Piece == piece {
					out = append(out, t)
				}
			}
		}
	}
	return out
}

// parts cuts a task into n, without those that are done: parts keep their numbers while the
// first of them are done.
func (y Yard) parts(t Task, n int) (out []Task) {
	t.pinned = y.Marks[t.ID].Pinned
	done := t.Of.DonePct / 100
	whole, id, what := t.Hours, t.ID, t.What
	for i := range n {
		share := math.Min(1/float64(n), float64(i+1)/float64(n)-done)
		if share <= 1e-9 {
			continue
		}
		t.Hours, t.SharePct, t.Piece = whole*share, 100*share, i+1
		if n > 1 {
			t.ID, t.What = fmt.Sprintf("%s/%d", id, i+1), message.Of("%v, part %d of %d", what, i+1, n)
			t.pinned = y.Marks[t.ID].Pinned
			if i > 0 {
				t.SetupH = t.Work.Kind().SetupH * float64(t.Crew)
			}
		}
		out = append(out, t)
	}
	return out
}
