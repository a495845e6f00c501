// Package plan puts the work of a yard into weather, people and recoat windows:
// tasks from the steps of every surface, their order by clocks and by the rules of
// the trade, and a start for each with the reason why it is not earlier.
package plan

import (
	"fmt"
	"strings"
	"sync"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/fielderr"
	"allcoats/core/boat/area"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/field"
	"allcoats/core/job/task"
	"allcoats/core/physics/solar"
	"allcoats/core/planning/schedule"
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
var usualWeek = calendar.Week{{FromH: 8, ToH: 18}, {FromH: 8, ToH: 18}, {FromH: 8, ToH: 18}, {FromH: 8, ToH: 18},
	{FromH: 8, ToH: 18}, {FromH: 8, ToH: 18}, {FromH: 8, ToH: 18}}

// Validate reports what cannot be.
func (p Person) Validate() error {
	var bad fielderr.Errors
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
	// AlongM is where she stands along the yard, m.
	AlongM float64
	// Shop is until when a shop has a surface.
	Shop map[string]time.Time
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
	Daylight   []solar.Daytime
	People     []Person
	Guns       int // spray guns, 0 for one
	// Tents is how many tents the boats share, 0 when each has her own.
	Tents int
	// Noise are the hours of a day in which noise may be made; zero is all of them.
	Noise calendar.Hours
	// HourCents is what an hour of work costs.
	HourCents float64
	// TravelMin is how long it takes from one boat to another, minutes; DustM how far dust
	// flies from one to a wet coat on another, m, 0 for not at all.
	TravelMin float64
	DustM     float64
	Boats     []Boat
	Marks     map[string]Mark
	// Supplies are those of products of which some is awaited.
	Supplies map[string]Supply

	shared *shared
}

// shared is what the same yard in other weather has in common with it.
type shared struct {
	// rates are 1/τ of tables at tenths of a degree from coldest on.
	rates map[clockKey][]float64
	// light is when light allows laying, with lights and without, over so many hours; mutex
	// guards it.
	mutex sync.Mutex
	light map[lightKey]field.Free
	// tasks of a boat.
	tasks          map[int][][]Task
	nTasks, nLinks int
	// hands are those of the people.
	hands []schedule.Hand
}

type lightKey struct {
	lights bool
	hours  int
}

func newShared() *shared {
	return &shared{rates: map[clockKey][]float64{}, light: map[lightKey]field.Free{}, tasks: map[int][][]Task{}}
}

// Prepared returns y so that its models, in whatever weather at the same hours,
// share what does not depend on it. It may then be used by several goroutines.
func (y Yard) Prepared() (Yard, error) {
	y.shared = newShared()
	m, err := y.Model()
	y.shared.nTasks, y.shared.nLinks = len(m.Tasks), len(m.Problem.Links)
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
	Dust       = "dust"
	DrillFirst = "drill-first"
	Corners    = "corners"
	TentMoves  = "tent-moves"
)

// CrossRules lists them; each can be switched off for a boat with a reason.
var CrossRules = []Rule{
	{TopDown, "top down",
		"the last coats go from the deck down, so that drips and dust fall on what is still to be done"},
	{InsideOut, "inside to outside",
		"what is inside is done before the last coats outside, so that nobody carries dust and tools over them"},
	{Overspray, "spray before the last sanding below", "overspray on a sanded surface means sanding it twice"},
	{MaskLines, "neighbours on different days",
		"tape on a fresh coat lifts it: surfaces that meet at a mask line are coated on different days"},
	{Dust, "no dust on wet coats",
		"dry sanding and stripping keep off until every coat near by is dry to touch, and coats until the sanding is done"},
	{Corners, "flats and corners on different days",
		"a blade that fairs a flat spoils the soft fillet in the corner beside it: the corners of a surface are filled on another day"},
	{TentMoves, "the tent moves once",
		"boats that share a tent have it one after the other, the one to be launched first before the rest: pitching it takes half a day"},
	{DrillFirst, "drill before, bed after",
		"holes are drilled and sealed before the first coat, fittings bedded after the last is hard"},
}
