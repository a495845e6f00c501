// Package completion plans the edges of a job: hardware bedded on coats that are hard
// enough, masking with the time to pull it, full cure before the launch, and snags.
package completion

import (
	"fmt"
	"math"
	"slices"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/film/step"
	"allcoats/core/finish/craft"
	"allcoats/core/physics/cure"
)

// Compound is what hardware is bedded in, with the hours at 10 and 20 °C till it is
// snugged down, and till it may be loaded: rules of thumb, its tube says better.
type Compound struct {
	Key   string     `json:"key"`
	Name  string     `json:"name"`
	Note  string     `json:"note"`
	snug  cure.Table // the first tightening to the second
	load  cure.Table
	never bool // it never sets: tightened again in a week, loaded at once
}

func hours(at10, at20 float64) cure.Table {
	return cure.Table{{TempC: 10, Hours: at10}, {TempC: 20, Hours: at20}}
}

// Compounds lists them.
var Compounds = []Compound{
	{"butyl", "butyl tape", "never sets, comes off again; squeezes out for days: three turns a day", hours(72, 48), nil,
		true},
	{"polysulphide", "polysulphide", "sets slowly, comes off again; wood and fuel do not mind it, some plastics do",
		hours(96, 48), hours(336, 168), false},
	{"polyurethane", "polyurethane", "glues for good: not under what must come off again", hours(72, 36),
		hours(240, 120), false},
	{"polyether", "polyether", "sets in damp air, comes off with a blade", hours(48, 24), hours(168, 72), false},
	{"silicone", "silicone", "nothing can be painted near it for ever: only behind glass and plastics that ask for it",
		hours(24, 12), hours(72, 48), false},
}

// Tape is masking with the longest it may stay out, h, in the open.
type Tape struct {
	Key   string  `json:"key"`
	Name  string  `json:"name"`
	StayH float64 `json:"stayH"`
}

// Tapes lists them: rules of thumb, its core says better.
var Tapes = []Tape{{"crepe", "crêpe, general", 24}, {"fine-line", "fine line", 120},
	{"outdoor", "outdoor, sun-resisting", 240}, {"foam", "foam edge", 72}}

// Core is what lies between the skins where a fitting goes.
type Core string

// Cores.
const (
	NotAsked Core = ""
	Solid    Core = "none"
	Balsa    Core = "balsa"
	Foam     Core = "foam"
	Plywood  Core = "plywood"
)

// Hardware is a fitting to be bedded.
type Hardware struct {
	Name      string `json:"name"`
	SurfaceID string `json:"surfaceId"`
	Compound  string `json:"compound"`
	Sealed    bool   `json:"sealed"` // its holes are drilled and sealed
	// Through is bolted through, Backed with a plate behind; EndGrain says that its holes
	// run into end grain; Core is what the deck is filled with there.
	Through   bool       `json:"through"`
	Backed    bool       `json:"backed"`
	EndGrain  bool       `json:"endGrain"`
	Core      Core       `json:"core" enum:",none,balsa,foam,plywood"`
	BeddedAt  *time.Time `json:"beddedAt,omitempty"`
	SnuggedAt *time.Time `json:"snuggedAt,omitempty"`
}

// Line is a masking line.
type Line struct {
	Name      string     `json:"name"`
	SurfaceID string     `json:"surfaceId"` // whose coat it bounds
	Tape      string     `json:"tape"`
	LengthM   float64    `json:"lengthM"`
	Twice     bool       `json:"twice"` // two layers, one lifts early
	Pull      step.Pull  `json:"pull" enum:"wet,touch-dry,hard"`
	MaskedAt  *time.Time `json:"maskedAt,omitempty"`
	Off       bool       `json:"off"`
}

// Snag is something found at the end.
type Snag struct {
	Text      string `json:"text"`
	SurfaceID string `json:"surfaceId"`
	// Stops says that she is not launched with it.
	Stops bool `json:"stops"`
	Done  bool `json:"done"`
}

// Work is the end of a job on a boat.
type Work struct {
	Hardware []Hardware `json:"hardware"`
	Lines    []Line     `json:"lines"`
	Snags    []Snag     `json:"snags"`
}

// Coat is the last coat of a surface, and what lies under it: nil instants are not within
// the weather known, or not tabled.
type Coat struct {
	SurfaceID string
	Surface   string
	Product   string
	Started   time.Time
	TouchDry  *time.Time
	// Hard is when all films on it are through-dry, Immersion when they may also stand in
	// water, if it is under it; Silent is the product whose sheet does not say.
	Hard      *time.Time
	Immersion *time.Time
	Silent    string
	Left      int // coats still planned
	// Planned is false where neither a coat is laid nor any planned.
	Planned bool
}

// Case is the boat.
type Case struct {
	Coats  []Coat
	TempC  float64 // mean over the days ahead
	Now    time.Time
	Launch *time.Time
}

// Bedding is what is next for a fitting.
type Bedding struct {
	Hardware
	Surface string     `json:"surface"`
	Next    string     `json:"next"`
	From    *time.Time `json:"from,omitempty"` // when the next may be done
	LoadAt  *time.Time `json:"loadAt,omitempty"`
	Late    bool       `json:"late"` // loaded only after the launch
	// Advice is how its holes are made and what goes behind it.
	Advice []message.Sentence `json:"advice"`
}

// Tapeline is what is next for a masking line.
type Tapeline struct {
	Line
	Surface string     `json:"surface"`
	Says    string     `json:"says"`
	PullAt  *time.Time `json:"pullAt,omitempty"`
	StaysTo *time.Time `json:"staysTo,omitempty"`
	Late    bool       `json:"late"`
}

// Ready is when a surface is fit for the water.
type Ready struct {
	Surface string     `json:"surface"`
	Product string     `json:"product"`
	At      *time.Time `json:"at,omitempty"`
	Says    string     `json:"says"`
	Late    bool       `json:"late"`
}

// Result is the end of the job.
type Result struct {
	craft.Plan
	Bedding []Bedding  `json:"bedding"`
	Lines   []Tapeline `json:"lines"`
	Ready   []Ready    `json:"ready"`
	TapeM   float64    `json:"tapeM"`
	Open    int        `json:"open"`  // snags
	Stops   int        `json:"stops"` // of them that stop the launch
}

// Validate reports what cannot be. Surfaces are checked by the caller.
func (w Work) Validate() error {
	var bad fielderr.Errors
	for i, h := range w.Hardware {
		at := fmt.Sprintf("hardware[%d].", i)
		if h.Name == "" {
			bad.Add(at+"name", "name it")
		}
		if compound(h.Compound).Key == "" {
			bad.Add(at+"compound", "is no compound of the list")
		}
		fielderr.OneOf(&bad, at+"core", h.Core, []Core{NotAsked, Solid, Balsa, Foam, Plywood})
		if h.SnuggedAt != nil && (h.BeddedAt == nil || h.SnuggedAt.Before(*h.BeddedAt)) {
			bad.Add(at+"snuggedAt", "is before it was bedded")
		}
	}
	for i, l := range w.Lines {
		at := fmt.Sprintf("lines[%d].", i)
		if l.Name == "" {
			bad.Add(at+"name", "name it")
		}
		if tape(l.Tape).Key == "" {
			bad.Add(at+"tape", "is no tape of the list")
		}
		fielderr.OneOf(&bad, at+"pull", l.Pull, []step.Pull{step.WhileWet, step.TouchDry, step.Hard})
		bad.Range(at+"lengthM", l.LengthM, 0, 2000, "m")
	}
	for i, s := range w.Snags {
		if s.Text == "" {
			bad.Add(fmt.Sprintf("snags[%d].text", i), "say what it is")
		}
	}
	return bad.Err()
}

func compound(key string) Compound {
	i := slices.IndexFunc(Compounds, func(c Compound) bool { return c.Key == key })
	if i < 0 {
		return Compound{}
	}
	return Compounds[i]
}

func tape(key string) Tape {
	i := slices.IndexFunc(Tapes, func(t Tape) bool { return t.Key == key })
	if i < 0 {
		return Tape{}
	}
	return Tapes[i]
}

func (c Case) coat(id string) *Coat {
	for i := range c.Coats {
		if c.Coats[i].SurfaceID == id {
			return &c.Coats[i]
		}
	}
	return nil
}

func after(t time.Time, h float64) *time.Time {
	at := t.Add(time.Duration(h * float64(time.Hour)))
	return &at
}

// Plan plans w on c.
func (w Work) Plan(c Case) (Result, error) {
	out := Result{Plan: craft.New(
		"Tape pulled back on itself, slowly, away from the fresh coat. A boat's props are never moved by one who is not licensed to."), Bedding: []Bedding{}, Lines: []Tapeline{}, Ready: []Ready{}}
	if err := w.Validate(); err != nil {
		return out, err
	}
	for _, h := range w.Hardware {
		out.Bedding = append(out.Bedding, out.bed(h, c))
	}
	for _, l := range w.Lines {
		out.Lines = append(out.Lines, out.line(l, c))
		if !l.Off {
			out.TapeM += l.LengthM * map[bool]float64{true: 2, false: 1}[l.Twice]
		}
	}
	for _, k := range c.Coats {
		out.Ready = append(out.Ready, out.ready(k, c))
	}
	for _, s := range w.Snags {
		if !s.Done {
			out.Open++
			if s.Stops {
				out.Stops++
			}
		}
	}
	if out.Stops > 0 {
		out.Find(true, "%d %s the launch.", out.Stops,
			map[bool]string{true: "snag stops", false: "snags stop"}[out.Stops == 1])
	}
	return out, nil
}

// bed says what is next for a fitting: the coat under it hard, bedded and lightly
// tightened, tightened again when the compound has skinned, then loaded.
func (r *Result) bed(h Hardware, c Case) Bedding {
	out := Bedding{Hardware: h, Advice: h.advice()}
	k := compound(h.Compound)
	snug, _ := k.snug.TauH(c.TempC, cure.Minimum)
	load := snug
	if !k.never {
		load, _ = k.load.TauH(c.TempC, cure.Minimum)
	}
	coat := c.coat(h.SurfaceID)
	if coat != nil {
		out.Surface = coat.Surface
	}
	switch {
	case h.SnuggedAt != nil:
		out.LoadAt = after(*h.BeddedAt, load)
		out.Next = "bedded and tightened twice"
		if out.LoadAt.After(c.Now) {
			out.Next += ": no load on it yet"
		}
	case h.BeddedAt != nil:
		out.From, out.LoadAt = after(*h.BeddedAt, snug), after(*h.BeddedAt, load)
		out.Next = "tighten the second time: by the nut, the screw held still, or the seal is torn"
	case !h.Sealed:
		out.Next = "drill over size, fill, drill again: the holes are not sealed"
	case coat != nil && coat.Left > 0:
		out.Next = "wait: " + still(coat.Left)
	case coat != nil && coat.Hard == nil && coat.Silent != "":
		out.Next = "wait till the coat is hard: " + silent(coat.Silent)
	case coat != nil && coat.Hard == nil && coat.Planned:
		out.Next = "wait till the coat is hard: when is beyond the weather known"
	case coat != nil && coat.Hard.After(c.Now):
		out.From = coat.Hard
		out.Next = "wait till the coat is hard, then bed it"
	default:
		out.Next = "bed it: compound on, screws in, tightened till it weeps out all round, no more"
	}
	if h.Compound == "silicone" && h.BeddedAt == nil && coat != nil {
		r.Find(false,
			"%s: silicone keeps every later coat off for a hand's breadth. Take another compound on painted faces.",
			h.Name)
	}
	if c.Launch != nil && out.LoadAt != nil && out.LoadAt.After(*c.Launch) {
		out.Late = true
		r.Find(false, "%s may be loaded only after the launch.", h.Name)
	}
	return out
}

// line says when masking comes off: by the coat's state, and by what the tape stands.
func (r *Result) line(l Line, c Case) Tapeline {
	out := Tapeline{Line: l}
	coat := c.coat(l.SurfaceID)
	if coat != nil {
		out.Surface = coat.Surface
	}
	if l.Off {
		out.Says = "off"
		return out
	}
	if l.MaskedAt == nil {
		out.Says = "to be masked: edges pressed down, the day that it is coated"
		return out
	}
	out.StaysTo = after(*l.MaskedAt, tape(l.Tape).StayH)
	if coat != nil && !coat.Started.Before(*l.MaskedAt) && !(l.Pull == step.WhileWet && coat.Left > 0 && l.Twice) {
		switch l.Pull {
		case step.WhileWet:
			out.PullAt, out.Says = &coat.Started, "pull while the coat is wet"
			if coat.TouchDry != nil && coat.TouchDry.Before(c.Now) {
				out.Says = "the coat is dry over it: score the edge with a sharp blade, then pull"
			}
		case step.TouchDry:
			out.PullAt, out.Says = coat.TouchDry, "pull when it is touch-dry, low and slowly"
		case step.Hard:
			out.PullAt, out.Says = coat.Hard, "score the edge and pull when it is hard"
		}
		if coat.Left > 0 {
			out.Says += "; " + still(coat.Left) + ": mask anew for the next"
		}
	} else {
		out.Says = "the coat is still to come"
	}
	if out.StaysTo.Before(c.Now) {
		out.Late = true
		out.Says += ". It has been on too long: warm it, pull at once, wash the glue off"
		r.Find(false, "%s: the tape has been out %.0f h and stands %.0f.", l.Name, c.Now.Sub(*l.MaskedAt).Hours(),
			tape(l.Tape).StayH)
	} else if out.PullAt != nil && out.PullAt.After(*out.StaysTo) {
		out.Late = true
		out.Says += ". The tape does not stand that long: pull and mask again"
	}
	return out
}

// ready says whether a surface is cured for the water.
func (r *Result) ready(k Coat, c Case) Ready {
	out := Ready{Surface: k.Surface, Product: k.Product, At: k.Immersion}
	if out.At == nil || (k.Hard != nil && k.Hard.After(*out.At)) {
		out.At = k.Hard
	}
	switch {
	case k.Left > 0:
		out.At = nil
		out.Says = still(k.Left)
		return out
	case k.Silent != "":
		out.At = nil
		out.Says = "not known: " + silent(k.Silent)
		return out
	case out.At == nil:
		out.Says = "full cure lies beyond the weather known"
		return out
	case !out.At.After(c.Now):
		out.Says = "cured"
	default:
		out.Says = "curing"
	}
	if c.Launch != nil && out.At.After(*c.Launch) {
		out.Late = true
		days := math.Ceil(out.At.Sub(*c.Launch).Hours() / 24)
		out.Says = fmt.Sprintf("not cured on the launch day: %.0f more days, and no fenders on it till then", days)
		r.Find(true, "%s is %s.", k.Surface, out.Says)
	}
	return out
}

func silent(product string) string { return "the sheet of " + product + " does not say; ask its maker" }

func still(coats int) string {
	if coats == 1 {
		return "1 coat is still to go on"
	}
	return fmt.Sprintf("%d coats are still to go on", coats)
}
