// Package readiness answers the question of the morning: what may be coated, from
// when to when, what stops it, and what to do next.
package readiness

import (
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/message"
	"allcoats/core/base/working"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/field"
	"allcoats/core/film/step"
	"allcoats/core/physics/solar"
	"allcoats/core/physics/weather"
)

// Coat is the next planned coat of a surface: the Nth of Of coats of its step, on AreaM2
// of it, which one person lays in LayH with Litres of mix.
type Coat struct {
	step.Step
	TaskID    string
	ProductID string
	Where     string // the part of the surface, empty all of it
	N, Of     int
	AreaM2    float64
	LayH      float64
	Litres    float64
}

// Surface is a surface with its last coat and its next one.
type Surface struct {
	ID, Name string
	AreaM2   float64
	// Weather is the air at the surface and the surface itself; Sheltered keeps
	// rain and wind off.
	Weather   field.Weather
	Sheltered bool
	Last      *clock.Laid
	// Films are all coats laid, the oldest first; Immersed says that it stands in the
	// water.
	Films    []clock.Laid
	Immersed bool
	Next     *Coat
	// NextStepID is the planned step that Next belongs to, handed through.
	NextStepID string
	// First is the work without a film that must be done before Next goes on, or without
	// one is all that is left, and is not told of in the log.
	First []Prep
	// Stop is what a bench that it came from says against it.
	Stop message.Sentence
	// Limits run on it until something is done.
	Limits []Limit
	// Planned is false if no coats are planned at all.
	Planned bool
}

// Limit is a state that may not last, such as bare metal: by when Until must be done, and
// what it costs if it is not.
type Limit struct {
	Name   string
	Until  message.Sentence
	By     time.Time
	Breaks message.Sentence
}

// Prep is work that leaves no film, with the hours left of it.
type Prep struct {
	Name  message.Sentence // such as "strip" or "sand with 80"
	LeftH float64
}

// Planned is a task as the plan of the yard has it. Before names what comes first and is
// not done.
type Planned struct {
	TaskID    string             `json:"taskId"`
	Whole     string             `json:"whole"` // the task of the job that it is, or is a part of
	StepID    string             `json:"stepId"`
	SurfaceID string             `json:"surfaceId"`
	Surface   string             `json:"surface"`
	What      message.Sentence   `json:"what"`
	Work      step.Work          `json:"work"`
	SharePct  float64            `json:"sharePct"`
	Coat      bool               `json:"coat"`
	Start     time.Time          `json:"start"`
	End       time.Time          `json:"end"`
	Hours     float64            `json:"hours"`
	People    []string           `json:"people"`
	Before    []message.Sentence `json:"before"`
	Why       message.Sentence   `json:"why"`
}

// Situation is a boat at an instant.
type Situation struct {
	Now      time.Time
	Loc      *time.Location
	Daylight []solar.Daytime
	Lights   bool
	// DewFreeH is how many hours above the dew point the user wants after a coat, by
	// habit; 0 leaves it to the sheet.
	DewFreeH float64
	// Work lists the working hours, nil without limits; Crew how many lay at
	// once, 0 for one.
	Work     []calendar.Stretch
	Crew     int
	Air      weather.Series // in the open
	Surfaces []Surface
	// Plan is the boat's work as the plan of the yard has it, by its starts; nil without a
	// plan. HoursSaid is false where nobody said when he works: then the plan's hours are
	// assumed, and hold nothing back.
	Plan      []Planned
	HoursSaid bool
}

// Start is a window of starts for the next coat. Sand says that the recoat
// window will have closed: abrade first.
type Start struct {
	field.Window
	Sand bool `json:"sand"`
}

// Chance sorts surfaces by when the next coat may go on.
type Chance string

// Chances.
const (
	Now        Chance = "now"
	Today      Chance = "today"
	Later      Chance = "later"
	NoChance   Chance = "none"       // none within the weather known
	Finished   Chance = "finished"   // all planned coats are on
	Harmed     Chance = "damaged"    // rain, dew or frost got at the last coat while it was wet
	Unprepared Chance = "unprepared" // work comes first that is not logged
	Blocked    Chance = "blocked"    // a bench says no, or another surface comes first
	Unplanned  Chance = "unplanned"  // no coats planned
	NotKnown   Chance = "not-known"  // no weather, or the clock cannot tell
)

// Lane is a surface's row on the ribbon with its answer.
type Lane struct {
	SurfaceID  string           `json:"surfaceId"`
	NextStepID string           `json:"nextStepId"`
	Surface    string           `json:"surface"`
	Note       message.Sentence `json:"note"`
	Chance     Chance           `json:"chance"`
	Answer     message.Sentence `json:"answer"`
	Detail     message.Sentence `json:"detail"`
	Clock      *clock.Clock     `json:"clock,omitempty"`
	// Hard tells when all its films are hard enough, for the water or for use; empty
	// without films.
	Hard message.Sentence `json:"hard"`
	// Night says how long the surface stays above the dew point after the coat, and how
	// long that is needed.
	Night message.Sentence `json:"night"`
	// Cover warns of rain, dew or frost that will reach the last coat before it is dry.
	Cover message.Sentence `json:"cover"`
	// Recoat answers whether the next coat may follow without sanding, from the
	// record; Damage says what harmed the last coat, or will.
	Recoat message.Sentence   `json:"recoat"`
	Damage []message.Sentence `json:"damage"`
	Starts []Start            `json:"starts"`
	// Allowed is when the field allows laying, whatever comes after.
	Allowed []calendar.Stretch `json:"allowed"`
	// Mix is what to have ready for one coat.
	Mix *Mix `json:"mix,omitempty"`

	best   *Start
	closes *time.Time
	cover  *clock.Damage
}

// Mix is what one coat takes.
type Mix struct {
	Product    string  `json:"product"`
	Litres     float64 `json:"litres"`
	WFTUm      float64 `json:"wftUm"`
	LayH       float64 `json:"layH"`
	HoldH      float64 `json:"holdH"`
	InductionH float64 `json:"inductionH"`
	// ShelfL is what the shelf has of it, nil if nothing of it is noted there.
	ShelfL *float64 `json:"shelfL,omitempty"`
	// PotLifeH is at the surface temperature of the best start, nil if the
	// sheet or the weather does not tell.
	PotLifeH *float64        `json:"potLifeH,omitempty"`
	AtTempC  *float64        `json:"atTempC,omitempty"`
	Cautions []string        `json:"cautions"`
	Working  working.Working `json:"working"`
}

// Action is something to do today, from At on.
type Action struct {
	At        time.Time        `json:"at"`
	Until     *time.Time       `json:"until,omitempty"` // the last moment to begin
	Text      message.Sentence `json:"text"`
	SurfaceID string           `json:"surfaceId"`
	Hours     float64          `json:"hours"`
	// Task is the planned work that it is, nil for what is only watched.
	Task *Planned `json:"task,omitempty"`
}

// Answer is the whole of Today.
type Answer struct {
	Headline message.Sentence `json:"headline"`
	Detail   message.Sentence `json:"detail"`
	// Clocks is what the clocks that run ask for first.
	Clocks message.Sentence `json:"clocks"`
	// SurfaceID is what the headline is about, empty if about none.
	SurfaceID string `json:"surfaceId"`
	// Dry says when water goes off what is wet now, empty if nothing is.
	Dry      message.Sentence   `json:"dry"`
	Lanes    []Lane             `json:"lanes"`
	Actions  []Action           `json:"actions"`
	Warnings []message.Sentence `json:"warnings"`
}

// Find answers for every surface and picks the one to begin with.
func Find(s Situation) Answer {
	a := Answer{Lanes: []Lane{}, Actions: []Action{}, Warnings: []message.Sentence{}}
	for _, surface := range s.Surfaces {
		a.Lanes = append(a.Lanes, s.lane(surface))
	}
	if _, end, ok := s.Air.Span(); !ok {
		a.Warnings = append(a.Warnings,
			message.Of("No weather for this place: import a record or switch on the simulated service."))
	} else if end.Before(s.Now) {
		a.Warnings = append(a.Warnings,
			message.Of("The weather record ended before now; nothing is guessed beyond it."))
	} else if end.Before(s.Now.Add(24 * time.Hour)) {
		a.Warnings = append(a.Warnings,
			message.Of("The weather record ends within a day from now; nothing is guessed beyond it."))
	}
	a.Dry, a.Clocks = s.dry(), s.clocks(a.Lanes)
	s.headline(&a)
	s.actions(&a)
	return a
}
