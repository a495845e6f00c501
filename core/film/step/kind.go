// Package step holds what work there is on a surface: the kinds of it, each described
// once, and a step of a build-up with all that is set of it.
package step

import (
	"allcoats/core/base/message"
	"slices"
)

// Work is a kind of work.
type Work string

// The kinds that rules know by name.
const (
	Coat     Work = "coat"
	Wash     Work = "wash"
	Degrease Work = "degrease"
	Strip    Work = "strip"
	Sand     Work = "sand"
	Fill     Work = "fill"
	Fair     Work = "fair"
	Inspect  Work = "inspect"
	Feel     Work = "feel"
	Grade    Work = "grade"
	Mask     Work = "mask"
	Unmask   Work = "unmask"
	Trial    Work = "trial"
	Drill    Work = "drill"
	Bed      Work = "bed"
	Tighten  Work = "tighten"
	Other    Work = "other"
	Spend    Work = "spend"
	Idle     Work = "idle"
)

// Kind is all that rules and screens ask of a kind of work. Planned may be a step of a
// build-up, Logged an entry of the log; Told is how the log says it.
type Kind struct {
	Work    Work   `json:"work"`
	Name    string `json:"name"`
	Told    string `json:"told"`
	Planned bool   `json:"planned"`
	Logged  bool   `json:"logged"`
	// Films leaves a film: it has a product, coats and a way of laying. Lays is one whose
	// entry in the log is a coat that went on.
	Films bool `json:"films"`
	Lays  bool `json:"lays"`
	// Abrades opens a closed recoat window; Removes takes film off; Gritted has a grit;
	// Wets leaves water; Agent is cleaned with something; Rounds counts what is left till it is fair.
	Abrades bool `json:"abrades"`
	Removes bool `json:"removes"`
	Gritted bool `json:"gritted"`
	Wets    bool `json:"wets"`
	Agent   bool `json:"agent"`
	Rounds  bool `json:"rounds"`
	// Taped puts tape on, which is pulled later. Judged is done only once it has passed, and
	// what comes after waits for that. Cured waits till all films below are hard; Aside
	// follows work of its own kind and holds neither coats nor the launch up. Felt tells how far a
	// coat has dried, Graded how a finish held, Spent what was
	// paid.
	Taped  bool `json:"taped"`
	Judged bool `json:"judged"`
	Felt   bool `json:"felt"`
	Graded bool `json:"graded"`
	Spent  bool `json:"spent"`
	Cured  bool `json:"cured"`
	Aside  bool `json:"aside"`
	// OfSurface is done on a surface, not on the boat as a whole.
	OfSurface bool `json:"ofSurface"`
	// Noisy keeps to the hours of noise; Reached takes longer where access is bad.
	Noisy   bool `json:"noisy"`
	Reached bool `json:"reached"`
	// RateM2H is what one person does in an hour on flat surfaces, m²: a rule of thumb. 0
	// is by the way of laying it.
	RateM2H float64 `json:"rateM2H"`
	// SetupH is what getting it ready and clearing it away takes each time, h: a rule of
	// thumb.
	SetupH float64 `json:"setupH"`
	// Usual is what a new step of it begins with.
	Usual Usual `json:"usual"`
}

// Usual are the figures that a new step begins with.
type Usual struct {
	Coats     int     `json:"coats"`
	Grit      int     `json:"grit,omitempty"`
	RemovedUm float64 `json:"removedUm,omitempty"`
	Agent     string  `json:"agent,omitempty"`
}

// Kinds lists the kinds of work, the most frequent first.
var Kinds = []Kind{
	{Work: Coat, Name: "coat", Told: "a coat went on", Planned: true, Logged: true, Films: true, Lays: true,
		OfSurface: true, Reached: true, SetupH: 0.5, Usual: Usual{Coats: 1}},
	{Work: Sand, Name: "sand", Told: "it was sanded", Planned: true, Logged: true, Abrades: true, Removes: true,
		Gritted: true, OfSurface: true, Noisy: true, Reached: true, SetupH: 0.25,
		Usual: Usual{Grit: 180, RemovedUm: 12}},
	{Work: Wash, Name: "wash", Told: "it was washed", Planned: true, Logged: true, Wets: true, Agent: true,
		OfSurface: true, Reached: true, RateM2H: 25, SetupH: 0.25, Usual: Usual{Agent: "detergent"}},
	{Work: Degrease, Name: "degrease", Told: "it was degreased", Planned: true, Logged: true, Wets: true, Agent: true,
		OfSurface: true, Reached: true, RateM2H: 15, SetupH: 0.25,
		Usual: Usual{Agent: "solvent"}},
	{Work: Fair, Name: "fair", Told: "it was faired", Planned: true, Logged: true, Films: true, Abrades: true,
		Gritted: true, Rounds: true, OfSurface: true, Reached: true, SetupH: 0.5,
		Usual: Usual{Coats: 1}},
	{Work: Strip, Name: "strip", Told: "it was stripped", Planned: true, Logged: true, Abrades: true, Removes: true,
		OfSurface: true, Noisy: true, Reached: true, RateM2H: 1.5, SetupH: 0.5},
	{Work: Fill, Name: "fill", Planned: true, Films: true, OfSurface: true, Reached: true, SetupH: 0.5,
		Usual: Usual{Coats: 1}},
	{Work: Mask, Name: "mask", Told: "it was masked", Planned: true, Logged: true, Taped: true, OfSurface: true,
		RateM2H: 20, SetupH: 0.25},
	{Work: Unmask, Name: "pull the tape", Told: "the tape was pulled", Logged: true, OfSurface: true, RateM2H: 60},
	{Work: Trial, Name: "test panel", Told: "a test panel was judged", Planned: true, Logged: true, Judged: true,
		OfSurface: true, SetupH: 0.5},
	{Work: Inspect, Name: "inspect", Told: "it was inspected", Planned: true, Logged: true, Rounds: true,
		OfSurface: true, RateM2H: 60},
	{Work: Feel, Name: "feel the film", Told: "the film was felt", Logged: true, Felt: true, OfSurface: true},
	{Work: Grade, Name: "grade the finish", Told: "the finish was graded", Logged: true, Graded: true, OfSurface: true},
	{Work: Drill, Name: "drill holes", Told: "holes were drilled", Planned: true, Logged: true, OfSurface: true,
		Noisy: true, SetupH: 0.25},
	{Work: Bed, Name: "bed fittings", Told: "fittings were bedded", Planned: true, Logged: true, Cured: true,
		OfSurface: true, SetupH: 0.5},
	{Work: Tighten, Name: "tighten fittings", Told: "fittings were tightened", Planned: true, Logged: true, Aside: true,
		OfSurface: true, SetupH: 0.25},
	{Work: Other, Name: "other work", Told: "other work", Planned: true, Logged: true},
	{Work: Spend, Name: "expense", Told: "money was spent", Logged: true, Spent: true},
	{Work: Idle, Name: "idle", Told: "an idle day", Logged: true},
}

// Kind returns the kind of w, not to be changed; an empty one if there is none.
func (w Work) Kind() *Kind {
	i := slices.IndexFunc(Kinds, func(k Kind) bool { return k.Work == w })
	if i < 0 {
		return &Kind{}
	}
	return &Kinds[i]
}

// Say is the name of the kind as a sentence has it.
func (w Work) Say() message.Sentence { return message.Lit(w.Kind().Name) }

// Planned and Logged are the kinds that may be steps, and entries of the log.
var (
	Planned = works(func(k Kind) bool { return k.Planned })
	Logged  = works(func(k Kind) bool { return k.Logged })
)

func works(of func(Kind) bool) (out []Work) {
	for _, k := range Kinds {
		if of(k) {
			out = append(out, k.Work)
		}
	}
	return out
}
