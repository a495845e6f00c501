// Package task is the job of a boat: the steps of every surface unfolded into tasks, what
// the log says is done of them, and the hours, litres and film of each. Every screen shows
// these figures or sums of them.
package task

import (
	"fmt"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/job/logbook"
)

// Step is a step planned on a surface.
type Step struct {
	ID        string
	ProductID string
	step.Step
}

// Surface is a surface with what is planned on it, and its log, rising in time.
type Surface struct {
	ID, Name  string
	Part      area.Part
	Substrate survey.Substrate
	Area      area.Figure
	Access    float64
	Steps     []Step
	Log       []logbook.Logged
}

// Own is a task of the user's own.
type Own struct {
	Name  string  `json:"name"`
	Hours float64 `json:"hours"`
	Crew  int     `json:"crew"`
	// SurfaceID and When tie it to the coats of a surface; empty is free.
	SurfaceID string `json:"surfaceId,omitempty"`
	When      string `json:"when,omitempty" enum:",before,after"`
	// After lists the ids of own tasks that come before it.
	After []string `json:"after,omitempty"`
	// Outdoors needs a dry hour, Light daylight; Noisy keeps to the noise hours.
	Noisy    bool `json:"noisy,omitempty"`
	Outdoors bool `json:"outdoors,omitempty"`
	Light    bool `json:"light,omitempty"`
	// Skill is the craft that it takes, empty for none.
	Skill Skill `json:"skill,omitempty"`
}

// Skill is a craft that not everybody has. Work that takes one waits for somebody
// who has it; a craft that nobody is named for is anybody's.
type Skill string

// The skills that coats take. Own tasks may take any other.
const (
	Spraying   Skill = "spraying"
	Varnishing Skill = "varnishing"
	Fairing    Skill = "fairing"
)

// Skills lists them.
var Skills = []Skill{Spraying, Varnishing, Fairing}

// skill is what a step that leaves a film takes.
func skill(s step.Step) Skill {
	m, _ := film.MethodByKey(s.Method)
	switch kind := s.Sheet.Kind.Info(); {
	case m.Spray:
		return Spraying
	case kind.Clear:
		return Varnishing
	case kind.Filler || s.Work == step.Fill || s.Work == step.Fair:
		return Fairing
	}
	return ""
}

// Validate reports what cannot be.
func (o Own) Validate() error {
	var bad fielderr.Errors
	if strings.TrimSpace(o.Name) == "" {
		bad.Add("name", "say what is to be done")
	}
	bad.Above("hours", o.Hours, 0, 500, "h")
	bad.Range("crew", float64(o.Crew), 1, 50, "people")
	fielderr.OneOf(&bad, "when", o.When, []string{"", "before", "after"})
	if o.When != "" && o.SurfaceID == "" {
		bad.Add("surfaceId", "say before or after the coats of which surface")
	}
	return bad.Err()
}

// OwnTask is an own task with its id.
type OwnTask struct {
	ID string `json:"id"`
	Own
}

// State is how far a task is.
type State string

// States. A task is overtaken when a later film went on before it was told of: it can no
// longer be done, and nothing says that it was.
const (
	ToDo      State = "to do"
	Begun     State = "begun"
	Done      State = "done"
	Overtaken State = "overtaken"
	Failed    State = "failed"
	Skipped   State = "skipped"
)

// Task is work that is done in one go, or coat N of Of of its step. Hours and litres with
// Reckoned are by the rates, the others with what the log taught; hours are one person's.
type Task struct {
	ID        string    `json:"id"`
	StepID    string    `json:"stepId"`
	SurfaceID string    `json:"surfaceId,omitempty"`
	ProductID string    `json:"productId,omitempty"`
	Work      step.Work `json:"work"`
	// What names it without its surface, Where the part of the surface, empty all of it.
	What   message.Sentence `json:"what"`
	Where  string           `json:"where,omitempty"`
	N      int              `json:"n"`
	Of     int              `json:"of"`
	Films  bool             `json:"films"`
	Skill  Skill            `json:"skill,omitempty"`
	AreaM2 float64          `json:"areaM2"`
	WetUm  float64          `json:"wetUm"`
	DryUm  float64          `json:"dryUm"`

	LayH      float64 `json:"layH"`
	ReckonedH float64 `json:"reckonedH"`
	Hours     float64 `json:"hours"`
	// HoursSD is how far the hours of such a task differ from these, of their logarithm.
	HoursSD   float64 `json:"hoursSD"`
	ReckonedL float64 `json:"reckonedL"`
	Litres    float64 `json:"litres"`
	// LeftH and LeftL are still to come.
	LeftH float64 `json:"leftH"`
	LeftL float64 `json:"leftL"`

	State State `json:"state"`
	// DonePct is what the log says is done of it, Patches those that are, DoneAt when the
	// last of it was begun.
	DonePct float64    `json:"donePct"`
	Patches []string   `json:"patches,omitempty"`
	DoneAt  *time.Time `json:"doneAt,omitempty"`
	TookH   float64    `json:"tookH"`
	TookL   float64    `json:"tookL"`
	// Binds are the limits that run from its end.
	Binds []Bind `json:"binds,omitempty"`

	// Step is what it is a part of.
	Step step.Step `json:"-"`
}

// Left reports whether something of it is still to be done.
func (t Task) Left() bool { return t.State == ToDo || t.State == Begun || t.State == Failed }

// Named is what it is with its place.
func (t Task) Named() message.Sentence {
	if t.Where == "" {
		return t.What
	}
	return message.Of("%v (%s)", t.What, t.Where)
}

// What names coat n of a step of a product.
func What(s step.Step, n int) message.Sentence {
	name := message.Of("%s", s.Name)
	switch {
	case s.Name != "":
	case s.Work == step.Fair || s.Work == step.Fill:
		name = message.Of("%v with %v", s.Work, s.Sheet.Kind)
	default:
		name = s.Sheet.Kind.Say()
	}
	if s.Coats > 1 {
		return message.Of("%v, %v", name, step.Ordinal(n, s.Coats))
	}
	return name
}

// coat, key and pull are the ids of the tasks of a step.
func coatID(step string, n int) string { return fmt.Sprintf("%s#%d", step, n) }
func keyID(step string, n int) string  { return fmt.Sprintf("%s#%d:key", step, n) }
func pullID(step string) string        { return step + ":pull" }

// filler tells whether a step lays filler.
func filler(s step.Step) bool { return s.Films() && s.Sheet.Kind.Info().Filler }
