// Package plan puts the work of a yard into weather, people and recoat windows:
// tasks from the steps of every surface, their order by clocks and by the rules of
// the trade, and a start for each with the reason why it is not earlier.
package plan

import (
	"fmt"
	"math"
	"strings"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/fault"
	"allcoats/core/boat/area"
	"allcoats/core/catalog/product"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/job/task"
	"allcoats/core/physics/sky"
	"allcoats/core/readiness/clock"
	"allcoats/core/readiness/field"
)

// Person is somebody who works in the yard.
type Person struct {
	Name string `json:"name"`
	// Week holds the working hours; the zero week is eight to six every day.
	Week calendar.Week `json:"week"`
	// Off lists days off, such as 2026-05-16.
	Off []string `json:"off"`
	// Skills are the crafts that the person has.
	Skills []task.Skill `json:"skills"`
}

// usualWeek is that of a person without one.
var usualWeek = calendar.Week{{FromH: 8, ToH: 18}, {FromH: 8, ToH: 18}, {FromH: 8, ToH: 18}, {FromH: 8, ToH: 18}, {FromH: 8, ToH: 18}, {FromH: 8, ToH: 18}, {FromH: 8, ToH: 18}}

// Validate reports what cannot be.
func (p Person) Validate() error {
	var bad fault.Errors
	if strings.TrimSpace(p.Name) == "" {
		bad.Add("name", "give the person a name")
	}
	bad.Under("week", p.Week.Validate())
	for i, d := range p.Off {
		if _, err := time.Parse(time.DateOnly, d); err != nil {
			bad.Add(fmt.Sprintf("off[%d]", i), "%q is not a day such as 2026-05-16", d)
		}
	}
	for i, k := range p.Skills {
		if strings.TrimSpace(string(k)) == "" {
			bad.Add(fmt.Sprintf("skills[%d]", i), "name the skill")
		}
	}
	return bad.Err()
}

// Surface is a surface with what is left to do on it and its weather.
type Surface struct {
	ID, Name string
	Part     area.Part
	Side     area.Side
	// HoldsMM is the water that stays on it after a wash, mm.
	HoldsMM   float64
	AreaM2    float64
	Access    float64
	Sheltered bool
	// Tented says that it is sheltered by the boat's tent.
	Tented  bool
	Weather field.Weather
	Last    *clock.Laid
	// Clock is that of the last coat if it is known already; else it is run along
	// Weather.
	Clock *clock.Clock
	// Films are all coats laid; Hard is when they are hard enough for launching, if that
	// is known already.
	Films []clock.Laid
	Hard  *clock.Hard
	// Tasks are all of its job, in their order.
	Tasks []task.Task
}

// Hardens is when the films laid are hard enough for launching, nil without any.
func (s Surface) Hardens() *clock.Hard {
	if h, ok := clock.Hardens(s.Films, s.Part.Underwater(), s.Weather); ok {
		return &h
	}
	return nil
}

// Run runs the clock of the last coat, to be followed by the first step left; nil
// without one.
func (s Surface) Run(now time.Time) *clock.Clock {
	if s.Last == nil {
		return nil
	}
	over := s.Last.Sheet.Kind
	for _, t := range s.Tasks {
		if t.Left() {
			if t.Films {
				over = t.Step.Sheet.Kind
			}
			break
		}
	}
	c := clock.Run(*s.Last, over, s.Weather, now)
	return &c
}

// Boat is a boat to be done by Launch, nil for no date.
type Boat struct {
	ID, Name string
	Launch   *time.Time
	Lights   bool
	Surfaces []Surface
	// Own are the user's own tasks, Work what her job says of each.
	Own  []task.OwnTask
	Work []task.Task
	// Off are the cross-rules that are switched off, with the reason.
	Off map[string]string
}

// Mark is what the user says of a task: skipped, or pinned to a start.
type Mark struct {
	State  string     `json:"state,omitempty" enum:",skipped"`
	Pinned *time.Time `json:"pinned,omitempty"`
}

// Yard is all that a plan is made of. Weather at the surfaces must have whole
// hours from before Now to Until.
type Yard struct {
	Now, Until time.Time
	Loc        *time.Location
	Daylight   []sky.Daytime
	People     []Person
	Guns       int // spray guns, 0 for one
	// Tents is how many tents the boats share, 0 when each has her own.
	Tents int
	// Noise are the hours of a day in which noise may be made; zero is all of them.
	Noise calendar.Hours
	// HourCents is what an hour of work costs.
	HourCents float64
	Boats     []Boat
	Marks     map[string]Mark

	shared *shared
}

// shared is what the same yard in other weather has in common with it.
type shared struct {
	// rates are 1/τ of tables at tenths of a degree from coldest on.
	rates map[clockKey][]float64
	// free is when light allows laying, with lights and without.
	free map[bool][]bool
	// tasks of a boat, and when noise may be made.
	tasks map[int][][]Task
	loud  []bool
	// works is when each person works.
	works [][]bool
}

func newShared() *shared {
	return &shared{rates: map[clockKey][]float64{}, free: map[bool][]bool{}, tasks: map[int][][]Task{}}
}

// Prepared returns y so that its models, in whatever weather at the same hours,
// share what does not depend on it. It may then be used by several goroutines.
func (y Yard) Prepared() (Yard, error) {
	y.shared = newShared()
	_, err := y.Model()
	return y, err
}

// Rule is a rule of the trade that orders work between surfaces.
type Rule struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Why  string `json:"why"`
}

// The cross-rules.
const (
	TopDown    = "top-down"
	InsideOut  = "inside-out"
	Overspray  = "overspray"
	MaskLines  = "mask-lines"
	DrillFirst = "drill-first"
	Corners    = "corners"
	TentMoves  = "tent-moves"
)

// CrossRules lists them; each can be switched off for a boat with a reason.
var CrossRules = []Rule{
	{TopDown, "top down", "the last coats go from the deck down, so that drips and dust fall on what is still to be done"},
	{InsideOut, "inside to outside", "what is inside is done before the last coats outside, so that nobody carries dust and tools over them"},
	{Overspray, "spray before the last sanding below", "overspray on a sanded surface means sanding it twice"},
	{MaskLines, "neighbours on different days", "tape on a fresh coat lifts it: surfaces that meet at a mask line are coated on different days"},
	{Corners, "flats and corners on different days", "a blade that fairs a flat spoils the soft fillet in the corner beside it: fiddly places are filled on another day"},
	{TentMoves, "the tent moves once", "boats that share a tent have it one after the other, the one to be launched first before the rest: pitching it takes half a day"},
	{DrillFirst, "drill before, bed after", "holes are drilled and sealed before the first coat, fittings bedded after the last is hard"},
}

// Task is a task of the plan: one of a job, or a part of it that fits a day.
type Task struct {
	ID        string
	Boat      int // index in the yard
	SurfaceID string
	Surface   string
	What      string
	Work      step.Work
	Hours     float64 // of work, by all people together
	Crew      int
	Skill     task.Skill
	Coat      bool
	Milestone bool // no work: the launch
	// Of is the task of the job, SharePct how much of it this part is.
	Of       task.Task
	SharePct float64
	// job and weather are of coats; outdoors work without a field needs dry hours.
	job      field.Job
	weather  field.Weather
	sheet    product.Sheet
	outdoors bool
	light    bool
	dry      bool // the surface must be dry
	noisy    bool
	pinned   *time.Time
	// first and last of a surface's coats
	first, last bool
	height      int
	inside      bool
}

// Name is a task in words.
func (t Task) Name() string {
	if t.Surface == "" {
		return t.What
	}
	return t.Surface + ", " + t.What
}

// longest is the longest task without a break, h; what takes more is cut.
const longest = 6

// tasks lists the work of a boat, surface by surface, each in its order.
func (y Yard) tasks(k int) (out [][]Task) {
	b := y.Boats[k]
	for _, s := range b.Surfaces {
		var chain []Task
		for _, j := range s.Tasks {
			if j.Left() {
				chain = append(chain, y.task(k, s, j))
			}
		}
		for i := range chain {
			chain[i].first = chain[i].Coat && (i == 0 || !anyCoat(chain[:i]))
			chain[i].last = chain[i].Coat && !anyCoat(chain[i+1:])
		}
		out = append(out, chain)
	}
	for i, o := range b.Own {
		var chain []Task
		if j := b.Work[i]; j.Left() {
			chain = append(chain, Task{ID: o.ID, Boat: k, What: o.Name, Work: j.Work, Hours: j.Hours, Crew: o.Crew, Skill: o.Skill, Of: j, outdoors: o.Outdoors, noisy: o.Noisy, light: o.Light && !b.Lights, height: -1})
		}
		out = append(out, chain)
	}
	for i, chain := range out {
		out[i] = y.cut(chain)
	}
	return out
}

func anyCoat(ts []Task) bool {
	for _, t := range ts {
		if t.Coat {
			return true
		}
	}
	return false
}

// task is a task of a surface's job, with what weather and hands it takes.
func (y Yard) task(k int, s Surface, j task.Task) Task {
	b, kind := y.Boats[k], j.Work.Kind()
	t := Task{ID: j.ID, Boat: k, SurfaceID: s.ID, Surface: s.Name, What: j.Named(), Work: j.Work, Hours: j.Hours, Crew: 1, Coat: j.Films, Skill: j.Skill, Of: j,
		light: !b.Lights, height: s.Part.Info().Level, inside: s.Part.Info().Inside}
	if !j.Films {
		t.outdoors, t.noisy, t.dry = !s.Sheltered && !j.Step.Indoor, kind.Noisy, !kind.Wets
		t.light = t.light && !j.Step.Indoor
		return t
	}
	m, _ := film.MethodByKey(j.Step.Method)
	t.sheet = j.Step.Sheet
	l := t.sheet.Limits
	t.job = field.Job{Limits: l, Hold: hours(l.HoldH), Dry: hours(l.RainFreeH), Spray: m.Spray, Lights: b.Lights, Daylight: y.Daylight, Sheltered: s.Sheltered}
	return t
}

func hours(h float64) time.Duration { return time.Duration(h * float64(time.Hour)) }

// cut takes what is done off tasks, and cuts what takes longer than a day's stretch: parts
// keep their numbers while the first of them are done.
func (y Yard) cut(chain []Task) []Task {
	var out []Task
	for _, t := range chain {
		t.pinned = y.Marks[t.ID].Pinned
		done := t.Of.DonePct / 100
		// As many hands as bring it under the longest stretch, if there are so many.
		t.Crew = max(1, min(t.Crew, len(y.People)))
		if t.Coat {
			t.Crew = max(t.Crew, min(len(y.People), int(math.Ceil(t.Hours/longest))))
			t.Hours *= 1 - done
			t.SharePct = 100 * (1 - done)
			out = append(out, t)
			continue
		}
		parts := max(1, int(math.Ceil(t.Hours/float64(t.Crew)/longest)))
		for i := range parts {
			p := t
			share := math.Min(1/float64(parts), float64(i+1)/float64(parts)-done)
			if share <= 1e-9 {
				continue
			}
			p.Hours, p.SharePct = t.Hours*share, 100*share
			if parts > 1 {
				p.ID, p.What = fmt.Sprintf("%s/%d", t.ID, i+1), fmt.Sprintf("%s, part %d of %d", t.What, i+1, parts)
				p.pinned = y.Marks[p.ID].Pinned
			}
			out = append(out, p)
		}
	}
	return out
}

func faultOf(format string, args ...any) error {
	var bad fault.Errors
	bad.Add("plan", format, args...)
	return bad
}
