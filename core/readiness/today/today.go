// Package today answers the question of the morning: what may be coated, from
// when to when, what stops it, and what to do next.
package today

import (
	"math"
	"slices"
	"sort"
	"strings"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/say"
	"allcoats/core/base/working"
	"allcoats/core/catalog/product"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/physics/cure"
	"allcoats/core/physics/sky"
	"allcoats/core/physics/weather"
	"allcoats/core/readiness/clock"
	"allcoats/core/readiness/field"
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
	Stop say.Sentence
	// Limits run on it until something is done.
	Limits []Limit
	// Planned is false if no coats are planned at all.
	Planned bool
}

// Limit is a state that may not last, such as bare metal: by when Until must be done, and
// what it costs if it is not.
type Limit struct {
	Name, Until string
	By          time.Time
	Breaks      say.Sentence
}

// Prep is work that leaves no film, with the hours left of it.
type Prep struct {
	Name  string // such as "strip" or "sand with 80"
	LeftH float64
}

// Planned is a task as the plan of the yard has it. Before names what comes first and is
// not done.
type Planned struct {
	TaskID    string       `json:"taskId"`
	Whole     string       `json:"whole"` // the task of the job that it is, or is a part of
	StepID    string       `json:"stepId"`
	SurfaceID string       `json:"surfaceId"`
	Surface   string       `json:"surface"`
	What      string       `json:"what"`
	Work      step.Work    `json:"work"`
	SharePct  float64      `json:"sharePct"`
	Coat      bool         `json:"coat"`
	Start     time.Time    `json:"start"`
	End       time.Time    `json:"end"`
	Hours     float64      `json:"hours"`
	People    []string     `json:"people"`
	Before    []string     `json:"before"`
	Why       say.Sentence `json:"why"`
}

// Situation is a boat at an instant.
type Situation struct {
	Now      time.Time
	Loc      *time.Location
	Daylight []sky.Daytime
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
	SurfaceID  string       `json:"surfaceId"`
	NextStepID string       `json:"nextStepId"`
	Surface    string       `json:"surface"`
	Note       string       `json:"note"`
	Chance     Chance       `json:"chance"`
	Answer     say.Sentence `json:"answer"`
	Detail     say.Sentence `json:"detail"`
	Clock      *clock.Clock `json:"clock,omitempty"`
	// Hard tells when all its films are hard enough, for the water or for use; empty
	// without films.
	Hard say.Sentence `json:"hard"`
	// Night says how long the surface stays above the dew point after the coat, and how
	// long that is needed.
	Night say.Sentence `json:"night"`
	// Cover warns of rain, dew or frost that will reach the last coat before it is dry.
	Cover say.Sentence `json:"cover"`
	// Recoat answers whether the next coat may follow without sanding, from the
	// record; Damage says what harmed the last coat, or will.
	Recoat say.Sentence   `json:"recoat"`
	Damage []say.Sentence `json:"damage"`
	Starts []Start        `json:"starts"`
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
	At        time.Time    `json:"at"`
	Until     *time.Time   `json:"until,omitempty"` // the last moment to begin
	Text      say.Sentence `json:"text"`
	SurfaceID string       `json:"surfaceId"`
	Hours     float64      `json:"hours"`
	// Task is the planned work that it is, nil for what is only watched.
	Task *Planned `json:"task,omitempty"`
}

// Answer is the whole of Today.
type Answer struct {
	Headline say.Sentence `json:"headline"`
	Detail   say.Sentence `json:"detail"`
	// SurfaceID is what the headline is about, empty if about none.
	SurfaceID string `json:"surfaceId"`
	// Dry says when water goes off what is wet now, empty if nothing is.
	Dry      say.Sentence `json:"dry"`
	Lanes    []Lane       `json:"lanes"`
	Actions  []Action     `json:"actions"`
	Warnings []string     `json:"warnings"`
}

// JobFor returns the field job of coat c on surface f with the crew laying.
func (s Situation) JobFor(c Coat, f Surface) field.Job {
	m, _ := film.MethodByKey(c.Method)
	lay := hours(c.LayH / float64(max(1, s.Crew))).Round(5 * time.Minute)
	l := c.Sheet.Limits
	return field.Job{
		Limits: l, Apply: max(lay, 10*time.Minute), Hold: hours(l.HoldH), Dry: hours(l.RainFreeH),
		Spray: m.Spray, Lights: s.Lights, Daylight: s.Daylight, Work: s.Work, Sheltered: f.Sheltered,
	}
}

func hours(h float64) time.Duration { return time.Duration(h * float64(time.Hour)) }

// Find answers for every surface and picks the one to begin with.
func Find(s Situation) Answer {
	a := Answer{Lanes: []Lane{}, Actions: []Action{}, Warnings: []string{}}
	for _, surface := range s.Surfaces {
		a.Lanes = append(a.Lanes, s.lane(surface))
	}
	if _, end, ok := s.Air.Span(); !ok {
		a.Warnings = append(a.Warnings, "No weather for this place: import a record or switch on the simulated service.")
	} else if end.Before(s.Now) {
		a.Warnings = append(a.Warnings, "The weather record ended before now; nothing is guessed beyond it.")
	} else if end.Before(s.Now.Add(24 * time.Hour)) {
		a.Warnings = append(a.Warnings, "The weather record ends within a day from now; nothing is guessed beyond it.")
	}
	a.Dry = s.dry()
	s.headline(&a)
	s.actions(&a)
	return a
}

func (s Situation) lane(f Surface) Lane {
	l := Lane{SurfaceID: f.ID, NextStepID: f.NextStepID, Surface: f.Name, Allowed: []calendar.Stretch{}, Starts: []Start{}, Answer: say.Sentence{}, Detail: say.Sentence{}, Hard: s.hard(f), Night: say.Sentence{}, Recoat: say.Sentence{}, Cover: say.Sentence{}, Damage: []say.Sentence{}}
	if f.Last != nil {
		over := product.AnyKind
		if f.Next != nil {
			over = f.Next.Sheet.Kind
		} else {
			over = f.Last.Sheet.Kind
		}
		c := clock.Run(*f.Last, over, f.Weather, s.Now)
		l.Clock = &c
		l.Recoat = s.recoat(c)
		for _, d := range c.Damage {
			l.Damage = append(l.Damage, s.harm(d))
		}
		l.Note = f.Last.Sheet.Kind.Name()
		s.cover(&l, f)
		if c.State == clock.Damaged {
			l.Chance = Harmed
			l.Note = "damaged while wet"
			d, _ := c.Harmed()
			l.Answer = say.Sentence{say.Strong(f.Name), say.Text(": inspect the %s before anything goes over it: %s on it while it was wet, ", f.Last.Sheet.Kind.Name(), d.Harm), say.Clock(d.From, s.Now, s.Loc), say.Text(".")}
			l.Detail = say.Sentence{say.Text("%s Log what you find as an inspection.", clock.Mend(f.Last.Sheet))}
			return l
		}
	}
	if f.Next == nil {
		s.done(&l, f)
		return l
	}
	n := f.Next
	l.Note = n.named()
	if s.held(&l, f) {
		return l
	}
	job := s.JobFor(*n, f)
	l.Mix = mix(*n, job, s.Crew)
	from, end, known := s.Air.Span()
	if !known || !end.After(s.Now) {
		l.Chance = NotKnown
		l.Answer = say.Sentence{say.Strong(f.Name), say.Text(": cannot tell, the weather is not known.")}
		return l
	}
	if s.Now.After(from) {
		from = s.Now
	}
	if l.Clock != nil && !l.Clock.Abraded {
		opens := l.Clock.Event(clock.RecoatOpens)
		switch {
		case !opens.Tabled:
			l.Chance = NotKnown
			l.Answer = say.Sentence{say.Strong(f.Name), say.Text(": the sheet of the last coat has no recoat table for %s. Add it in Library.", n.Sheet.Kind.Name())}
			return l
		case opens.At == nil && opens.HoleH > 0:
			l.Chance = NotKnown
			l.Answer = say.Sentence{say.Strong(f.Name), say.Text(": cannot tell when the last coat is ready. Only "), say.Val(math.Floor(l.Clock.KnownPct), "%"),
				say.Text(" of the time since was measured or forecast.")}
			return l
		case opens.At == nil:
			l.Chance = NoChance
			l.Answer = say.Sentence{say.Strong(f.Name), say.Text(": too cold. By the end of the forecast the last coat is "),
				say.Val(math.Floor(100*opens.Progress), "%"), say.Text(" of the way to its recoat time.")}
			return l
		case opens.At.After(from):
			from = *opens.At
		}
		l.closes = l.Clock.Event(clock.RecoatCloses).At
		if l.closes == nil && l.Clock.State == clock.Unknown {
			l.closes = &s.Now // what is not known may have closed
		}
	}
	laying := job
	laying.Apply, laying.Hold, laying.Dry = 0, 0, 0
	for _, w := range laying.Windows(f.Weather, s.Now, end) {
		l.Allowed = append(l.Allowed, calendar.Stretch{From: w.From, To: w.To})
	}
	for _, w := range job.Windows(f.Weather, from, end) {
		l.Starts = append(l.Starts, split(w, l.closes)...)
	}
	s.answer(&l, f, job)
	s.bePlanned(&l, f)
	l.Night = s.night(l, f, job)
	if l.best != nil {
		if i := f.Weather.Air.Find(l.best.From); i >= 0 {
			t := f.Weather.SurfaceC[i]
			l.Mix.AtTempC = &t
			if len(n.Sheet.PotLife) > 0 {
				h, _ := n.Sheet.PotLife.TauH(t, cure.Maximum)
				l.Mix.PotLifeH = &h
				l.Mix.Working.In("Surface at the start", t, "°C")
				l.Mix.Working.Step("Pot life", "the sheet's table at that temperature, ln τ linear in 1/T", h, "h", "data sheet")
			}
		}
	}
	return l
}

// named is a coat in words.
func (c Coat) named() string {
	out := c.Sheet.Kind.Name() + ", " + Ordinal(c.N, c.Of)
	if c.Where != "" {
		out += ", " + c.Where
	}
	return out
}

// done is the answer where no coat is left.
func (s Situation) done(l *Lane, f Surface) {
	switch {
	case !f.Planned:
		l.Chance, l.Note = Unplanned, "no coats planned"
		l.Answer = say.Sentence{say.Strong(f.Name), say.Text(": nothing is planned. Choose its coats in Build-up.")}
	case len(f.First) > 0:
		l.Chance, l.Note = Unprepared, f.First[0].Name
		l.Answer = append(say.Sentence{say.Strong(f.Name), say.Text(": all planned coats are on; still to do: ")}, prepared(f.First)...)
		l.Answer = append(l.Answer, say.Text("."))
		l.Detail = l.Hard
	default:
		l.Chance = Finished
		l.Answer = say.Sentence{say.Strong(f.Name), say.Text(": all planned coats are on.")}
		l.Detail = l.Hard
	}
}

// held says what is in the way of the next coat, whatever the weather: what its bench
// says, work on it that is not done, work elsewhere that comes first.
func (s Situation) held(l *Lane, f Surface) bool {
	n := f.Next
	p := s.planned(n.TaskID)
	var notBefore say.Sentence
	if p != nil {
		notBefore = say.Sentence{say.Text("; %s not before ", n.Sheet.Kind.Name()), say.Clock(p.Start, s.Now, s.Loc)}
	}
	switch {
	case len(f.Stop) > 0:
		l.Chance, l.Note = Blocked, "its bench says no"
		l.Answer = append(say.Sentence{say.Strong(f.Name), say.Text(": not %s yet. ", n.Sheet.Kind.Name())}, f.Stop...)
		l.Detail = say.Sentence{say.Text("So says its bench in Finishes: mend it there first.")}
	case len(f.First) > 0:
		l.Chance, l.Note = Unprepared, f.First[0].Name+" first"
		l.Answer = append(say.Sentence{say.Strong(f.Name), say.Text(": ")}, prepared(f.First)...)
		l.Answer = append(l.Answer, say.Text(" first"))
		if notBefore == nil {
			notBefore = say.Sentence{say.Text(", then %s", n.Sheet.Kind.Name())}
		}
		l.Answer = append(append(l.Answer, notBefore...), say.Text("."))
		l.Detail = say.Sentence{say.Text("Nothing of this is in the log since the last coat. Log it when it is done; then the coat is answered for.")}
	case p != nil && len(p.Before) > 0:
		l.Chance, l.Note = Blocked, "waits for other work"
		l.Answer = append(say.Sentence{say.Strong(f.Name), say.Text(": first %s", strings.Join(p.Before, " and "))}, notBefore...)
		l.Answer = append(l.Answer, say.Text("."))
		l.Detail = p.Why
	default:
		return false
	}
	return true
}

// planned is a task of the plan, by the id of its task in the job; nil if it is not in it.
func (s Situation) planned(taskID string) *Planned {
	for i := range s.Plan {
		if taskID != "" && s.Plan[i].Whole == taskID {
			return &s.Plan[i]
		}
	}
	return nil
}

// bePlanned says of a coat that the weather allows today that the plan has it on another
// day: nobody has the hours for it, or it is better left.
func (s Situation) bePlanned(l *Lane, f Surface) {
	p := s.planned(f.Next.TaskID)
	if p == nil || !s.HoursSaid || l.Chance != Now && l.Chance != Today || say.SameDay(p.Start, s.Now, s.Loc) || p.Start.Before(s.Now) || l.closes != nil && l.closes.After(s.Now) && l.closes.Sub(s.Now) < urgent {
		return
	}
	may := say.Sentence{say.Text("By the weather it might go on from "), say.Clock(l.best.From, s.Now, s.Loc), say.Text(" to "), say.Clock(l.best.To, s.Now, s.Loc), say.Text(". ")}
	l.Chance = Later
	l.Answer = say.Sentence{say.Strong(f.Name), say.Text(": not today. The plan has %s on ", f.Next.Sheet.Kind.Name()), say.Clock(p.Start, s.Now, s.Loc), say.Text(".")}
	l.Detail = append(may, p.Why...)
}

// prepared lists work with the hours left of it.
func prepared(first []Prep) say.Sentence {
	out := say.Sentence{}
	for i, p := range first {
		if i > 0 {
			out = append(out, say.Text(", "))
		}
		out = append(out, say.Text("%s", p.Name))
		if p.LeftH > 0 {
			out = append(out, say.Text(" ("), say.Val(math.Ceil(4*p.LeftH)/4, "h"), say.Text(")"))
		}
	}
	return out
}

// night tells how long after its laying the next coat stays above the dew point, laid
// at its first chance or now.
func (s Situation) night(l Lane, f Surface, job field.Job) say.Sentence {
	laid := s.Now
	if l.best != nil {
		laid = l.best.From
	}
	laid = laid.Add(job.Apply)
	needed, whose := f.Next.Sheet.Limits.HoldH, "by the sheet"
	if s.DewFreeH > needed {
		needed, whose = s.DewFreeH, "by your habit"
	}
	out := say.Sentence{say.Text("Laid by "), say.Clock(laid, s.Now, s.Loc), say.Text(" it stays above the dew point ")}
	dew, end := f.dewAfter(laid)
	switch {
	case dew != nil && !dew.After(laid):
		return say.Sentence{say.Text("At "), say.Clock(laid, s.Now, s.Loc), say.Text(" it is at the dew point.")}
	case dew != nil:
		out = append(out, say.Text("until "), say.Clock(*dew, s.Now, s.Loc), say.Text(", "), say.Val(math.Floor(10*dew.Sub(laid).Hours())/10, "h"))
	case end.After(laid):
		out = append(out, say.Text("to the end of the forecast"))
	default:
		return say.Sentence{}
	}
	if needed == 0 {
		return append(out, say.Text("; the sheet asks for no hours."))
	}
	return append(out, say.Text("; "), say.Val(needed, "h"), say.Text(" are needed %s.", whose))
}

// dewAfter is when the surface next comes to the dew point after t, nil if it does not
// until the end of the weather known.
func (f Surface) dewAfter(t time.Time) (dew *time.Time, end time.Time) {
	spread := func(i int) float64 { return f.Weather.SurfaceC[i] - f.Weather.Air[i].DewPointC() }
	for i, h := range f.Weather.Air {
		end = h.At
		if !h.At.After(t) || i == 0 {
			continue
		}
		a, b := spread(i-1), spread(i)
		if b > 0 {
			continue
		}
		at := f.Weather.Air[i-1].At
		if a > 0 {
			at = at.Add(time.Duration(a / (a - b) * float64(h.At.Sub(at))))
		}
		return &at, end
	}
	return nil, end
}

// hard tells when all films are hard enough, for the water or for use.
func (s Situation) hard(f Surface) say.Sentence {
	h, ok := clock.Hardens(f.Films, f.Immersed, f.Weather)
	what := "May be used, walked on and stacked"
	if f.Immersed {
		what = "May be immersed"
	}
	switch {
	case !ok:
		return say.Sentence{}
	case !h.Tabled:
		return say.Sentence{say.Text("When it is hard enough is not known: the sheet of %s does not say. Ask its maker before she is launched.", h.Sheet.Name)}
	case h.At == nil:
		return say.Sentence{say.Text("%s: not within the weather known. %s is slowest.", what, h.Sheet.Name)}
	case h.At.After(s.Now):
		return say.Sentence{say.Text("%s from ", what), say.Clock(*h.At, s.Now, s.Loc), say.Text("; %s is slowest.", h.Sheet.Name)}
	}
	return say.Sentence{say.Text("%s: all films have been hard since ", what), say.Clock(*h.At, s.Now, s.Loc), say.Text(".")}
}

// cover warns of what will reach a coat that is not dry yet.
func (s Situation) cover(l *Lane, f Surface) {
	d, ok := l.Clock.Harmed()
	if !ok || !d.From.After(s.Now) || l.Clock.State != clock.Wet && l.Clock.State != clock.Tacking {
		return
	}
	l.cover = &d
	l.Cover = say.Sentence{say.Text("Cover "), say.Strong(f.Name), say.Text(" before "), say.Clock(d.From, s.Now, s.Loc), say.Text(": %s on %s that ", d.Harm, f.Last.Sheet.Kind.Name())}
	dry := l.Clock.Event(clock.TouchDry)
	if d.Harm == clock.ByFrost || !dry.Tabled {
		dry = l.Clock.Event(clock.TackFree)
	}
	if dry.At == nil {
		l.Cover = append(l.Cover, say.Text("is not dry within the weather known."))
		return
	}
	l.Cover = append(l.Cover, say.Text("is not dry until "), say.Clock(*dry.At, s.Now, s.Loc), say.Text("."))
}

// PrepNames lists work in its order.
func PrepNames(first []Prep) string {
	names := make([]string, len(first))
	for i, p := range first {
		names[i] = p.Name
	}
	return strings.Join(names, ", ")
}

// mix is what coat c takes. Figures that film.Compute refuses (a sheet changed since)
// leave the litres out and say so.
func mix(c Coat, job field.Job, crew int) *Mix {
	m := &Mix{
		Product: c.Sheet.Name, LayH: job.Apply.Hours(), HoldH: c.Sheet.Limits.HoldH, InductionH: c.Sheet.InductionMin / 60,
		Cautions: append([]string{}, c.Sheet.Cautions...),
	}
	r, err := film.Compute(film.Request{VolumeSolidsPct: c.Sheet.VolumeSolidsPct, DFTUm: c.DFTUm, ThinnerPct: c.ThinnerPct, AreaM2: c.AreaM2, LossPct: c.LossPct})
	if err != nil {
		m.Working = working.New()
		m.Working.Warn("The litres cannot be told: %v.", err)
		return m
	}
	m.WFTUm, m.Working = r.WFTUm, r.Working
	m.Litres = m.Working.Step("What it takes of you", "litres · what your coats have taken against the reckoning", c.Litres, "L", "the log")
	method, _ := film.MethodByKey(c.Method)
	m.Working.In("People laying", float64(max(1, crew)), "")
	m.Working.StepOf("Time to lay it", say.Of("A / laying rate · access / people, to the next 5 min"), m.LayH, "h",
		say.Of("%g m²/h by %s: a rule of thumb", method.RateM2H, method.Name))
	return m
}

// split cuts a window where the recoat window closes.
func split(w field.Window, closes *time.Time) []Start {
	switch {
	case closes == nil || !w.To.After(*closes):
		return []Start{{w, false}}
	case !w.From.Before(*closes):
		return []Start{{w, true}}
	}
	before, after := w, w
	before.To, after.From = *closes, *closes
	before.SlackH, after.SlackH = before.To.Sub(before.From).Hours()/2, after.To.Sub(after.From).Hours()/2
	return []Start{{before, false}, {after, true}}
}

// minStart is the shortest window worth naming.
const minStart = 10 * time.Minute

// answer writes the lane's sentence.
func (s Situation) answer(l *Lane, f Surface, job field.Job) {
	n := f.Next
	for i := range l.Starts {
		if w := &l.Starts[i]; w.To.Sub(w.From) >= minStart {
			l.best = w
			break
		}
	}
	what := n.Sheet.Kind.Name()
	if l.best == nil {
		l.Chance = NoChance
		l.Answer = say.Sentence{say.Strong(f.Name), say.Text(": no chance for %s within the forecast.", what)}
		l.Detail = s.whyNot(job, f.Weather)
		return
	}
	w := l.best
	may := " may go on "
	if w.Sand {
		may = " may go on after sanding "
	}
	l.Answer = say.Sentence{say.Strong(f.Name), say.Text(": %s", what+may)}
	switch {
	case w.From.Sub(s.Now) < time.Minute+1:
		l.Chance = Now
		l.Answer = append(l.Answer, say.Text("now, until "), say.Clock(w.To, s.Now, s.Loc))
	case say.SameDay(w.From, s.Now, s.Loc):
		l.Chance = Today
		l.Answer = append(l.Answer, say.Text("from "), say.Clock(w.From, s.Now, s.Loc), say.Text(" to "), say.Clock(w.To, s.Now, s.Loc))
	default:
		l.Chance = Later
		l.Answer = say.Sentence{say.Strong(f.Name), say.Text(": not today. %s%sfrom ", upper(what), may), say.Clock(w.From, s.Now, s.Loc),
			say.Text(" to "), say.Clock(w.To, w.From, s.Loc)}
	}
	l.Answer = append(l.Answer, say.Text("."))
	if l.Chance != Later && n.N < n.Of {
		l.Answer = append(l.Answer, s.second(*l, f)...)
	}
	l.Detail = s.reasons(*l, job)
}

// second tells whether the coat after the next fits on the same day.
func (s Situation) second(l Lane, f Surface) say.Sentence {
	r, ok := f.Next.Sheet.RecoatOver(f.Next.Sheet.Kind)
	if !ok {
		return nil
	}
	first := cure.Clock{Table: r.Min, FloorC: f.Next.Sheet.MinCureC}
	ev := first.Run(f.Weather.Path(f.Next.Sheet.Humidity), l.best.From, 1)
	if ev.Reached != nil {
		for _, w := range l.Starts {
			from := w.From
			if ev.Reached.After(from) {
				from = ev.Reached.Truncate(time.Minute).Add(time.Minute)
			}
			if w.To.Sub(from) >= minStart && say.SameDay(from, l.best.From, s.Loc) {
				return say.Sentence{say.Text(" Two coats fit: the second from "), say.Clock(from, s.Now, s.Loc), say.Text(".")}
			}
		}
	}
	return say.Sentence{say.Text(" One coat, not two.")}
}

// reasons says what bounds the best window.
func (s Situation) reasons(l Lane, job field.Job) say.Sentence {
	var out say.Sentence
	w := l.best
	opens := time.Time{}
	if l.Clock != nil {
		if e := l.Clock.Event(clock.RecoatOpens); e.At != nil {
			opens = *e.At
		}
	}
	switch {
	case l.Chance == Now:
	case w.Sand && l.closes != nil && w.From.Equal(*l.closes):
		out = append(out, say.Text("The recoat window closes at "), say.Clock(*l.closes, s.Now, s.Loc), say.Text("; "))
	case w.Opens != nil && w.Opens.To.After(opens):
		out = append(append(append(out, say.Text("Before that ")), field.Words(w.Opens.Check)...), say.Text("; "))
	case opens.After(s.Now):
		out = append(out, say.Text("Before that the last coat is not ready; "))
	}
	switch {
	case !w.Sand && l.closes != nil && w.To.Equal(*l.closes):
		out = append(out, say.Text("after that it must be sanded first."))
	case w.Closes != nil && w.Closes.Phase == field.Drying:
		out = append(out, say.Text("after that the rain of "), say.Clock(w.Closes.From, s.Now, s.Loc),
			say.Text(" falls inside the "), say.Val(job.Dry.Hours(), "h"), say.Text(" it must stay dry."))
	case w.Closes != nil && w.Closes.Phase == field.Holding:
		out = append(append(append(out, say.Text("after that ")), field.Words(w.Closes.Check)...), say.Text(" from "),
			say.Clock(w.Closes.From, s.Now, s.Loc), say.Text(", inside the "), say.Val(job.Hold.Hours(), "h"), say.Text(" it must hold."))
	case w.Closes != nil:
		out = append(append(append(out, say.Text("after that ")), field.Words(w.Closes.Check)...), say.Text(" from "),
			say.Clock(w.Closes.From, s.Now, s.Loc), say.Text(", before it is all laid."))
	default:
		out = append(out, say.Text("after that the forecast ends."))
	}
	out[0].Text = upper(out[0].Text)
	if l.closes != nil && !w.Sand && !w.To.Equal(*l.closes) {
		word := " The recoat window closes "
		if l.Clock != nil && l.Clock.State == clock.Closing {
			word = " The recoat window is closing: the last coat cures past taking another "
		}
		out = append(out, say.Text("%s", word), say.Clock(*l.closes, s.Now, s.Loc), say.Text("."))
	}
	return out
}

// whyNot names the limit that fails most of the daylight hours ahead.
func (s Situation) whyNot(job field.Job, w field.Weather) say.Sentence {
	count := map[field.Limit]int{}
	check := map[field.Limit]field.Check{}
	var most field.Limit
	for _, h := range job.Hours(w) {
		if h.At.Before(s.Now) || h.Allowed || h.Binding.Limit == field.Light || h.Binding.Limit == field.Hours {
			continue
		}
		l := h.Binding.Limit
		count[l]++
		check[l] = h.Binding
		if count[l] > count[most] {
			most = l
		}
	}
	if most == "" {
		return say.Sentence{say.Text("No stretch is long enough to lay it and hold it.")}
	}
	return append(append(say.Sentence{say.Text("Most hours ")}, field.Words(check[most])...), say.Text(", or the good hours are too few to lay it and hold it."))
}

// urgent is how far ahead a closing window goes before everything else.
const urgent = 36 * time.Hour

// headline picks the surface to begin with: a recoat window about to close
// that can still be met, then what may go on now, today, later.
func (s Situation) headline(a *Answer) {
	rank := func(l Lane) (int, time.Time) {
		switch {
		case l.best == nil:
			return 9, time.Time{}
		case l.closes != nil && !l.best.Sand && l.closes.Sub(s.Now) < urgent:
			return 0, *l.closes
		case l.Chance == Now:
			return 1, l.best.To
		case l.Chance == Today:
			return 2, l.best.From
		}
		return 3, l.best.From
	}
	first := -1 // what must be covered comes before everything
	for i, l := range a.Lanes {
		if l.cover != nil && (first < 0 || l.cover.From.Before(a.Lanes[first].cover.From)) {
			first = i
		}
	}
	if first >= 0 {
		l := a.Lanes[first]
		for _, f := range s.Surfaces {
			if f.ID == l.SurfaceID {
				a.Detail = say.Sentence{say.Text("If it is hit: %s", clock.Mend(f.Last.Sheet))}
			}
		}
		a.Headline, a.SurfaceID = l.Cover, l.SurfaceID
		return
	}
	best := -1
	for i, l := range a.Lanes {
		if l.best == nil {
			continue
		}
		if best >= 0 {
			r, t := rank(l)
			br, bt := rank(a.Lanes[best])
			if r > br || r == br && !t.Before(bt) {
				continue
			}
		}
		best = i
	}
	urgentFirst := false
	if best >= 0 {
		r, _ := rank(a.Lanes[best])
		urgentFirst = r == 0
	}
	if !urgentFirst && s.headOfPlan(a) {
		return
	}
	if best >= 0 {
		l := a.Lanes[best]
		a.Headline, a.Detail, a.SurfaceID = l.Answer, l.Detail, l.SurfaceID
		return
	}
	a.Headline, a.Detail = s.nothing(a.Lanes)
}

// headOfPlan leads with the first work of the plan that can be begun today, or without any
// with when the next is; it reports whether there is a plan to lead with.
func (s Situation) headOfPlan(a *Answer) bool {
	lane := func(id string) *Lane {
		for i := range a.Lanes {
			if a.Lanes[i].SurfaceID == id {
				return &a.Lanes[i]
			}
		}
		return nil
	}
	for _, l := range a.Lanes {
		if l.Chance == Harmed || l.Chance == NotKnown {
			return false
		}
	}
	var next *Planned
	for i := range s.Plan {
		p := &s.Plan[i]
		l := lane(p.SurfaceID)
		switch {
		case !p.End.After(s.Now) || len(p.Before) > 0 && !p.Start.Before(s.Now):
			continue
		case !s.today(p) && !(!s.HoursSaid && p.Coat && l != nil && (l.Chance == Now || l.Chance == Today)):
			if next == nil {
				next = p
			}
			continue
		case p.Coat && l != nil && (l.Chance == Now || l.Chance == Today):
			a.Headline, a.Detail, a.SurfaceID = l.Answer, l.Detail, l.SurfaceID
			return true
		case p.Coat:
			continue
		}
		a.Headline, a.Detail, a.SurfaceID = s.begin(p), s.leads(p, l), p.SurfaceID
		return true
	}
	if next == nil {
		return false
	}
	a.Headline = say.Sentence{say.Text("Nothing to begin today. Next is "), say.Strong(next.name()), say.Text(", "), say.Clock(next.Start, s.Now, s.Loc), say.Text(".")}
	a.Detail, a.SurfaceID = next.Why, next.SurfaceID
	return true
}

// today reports whether work of the plan is begun on the day of now.
func (s Situation) today(p *Planned) bool {
	return p.Start.Before(s.Now) || say.SameDay(p.Start, s.Now, s.Loc)
}

func (p Planned) name() string {
	if p.Surface == "" {
		return p.What
	}
	return p.Surface + ": " + p.What
}

// begin says what is to be begun, when and by whom.
func (s Situation) begin(p *Planned) say.Sentence {
	out := say.Sentence{say.Strong(p.name())}
	if p.Start.Sub(s.Now) > time.Minute {
		out = append(out, say.Text(", from "), say.Clock(p.Start, s.Now, s.Loc))
	} else {
		out = append(out, say.Text(", now"))
	}
	out = append(out, say.Text(" to "), say.Clock(p.End, s.Now, s.Loc))
	if len(p.People) > 0 {
		out = append(out, say.Text(": %s", strings.Join(p.People, ", ")))
	}
	return append(out, say.Text("."))
}

// leads says what waits for work of the plan.
func (s Situation) leads(p *Planned, l *Lane) say.Sentence {
	if l == nil || l.Chance != Unprepared {
		return p.Why
	}
	return l.Answer
}

// nothing is the headline when no coat can go on.
func (s Situation) nothing(lanes []Lane) (headline, detail say.Sentence) {
	count := map[Chance]int{}
	for _, l := range lanes {
		count[l.Chance]++
	}
	switch {
	case len(lanes) == 0:
		return say.Sentence{say.Text("This boat has no surfaces yet.")}, say.Sentence{say.Text("Add them in Survey; then choose their coats in Build-up.")}
	case count[NotKnown] > 0:
		return say.Sentence{say.Text("Cannot tell what may go on.")}, firstOf(lanes, NotKnown)
	case count[Harmed] > 0:
		return firstOf(lanes, Harmed), say.Sentence{}
	case count[Unprepared] > 0:
		return firstOf(lanes, Unprepared), say.Sentence{say.Text("No coat may go on before that.")}
	case count[NoChance] > 0:
		return say.Sentence{say.Text("No coat may go on within the forecast.")}, firstOf(lanes, NoChance)
	case count[Unplanned] == len(lanes):
		return say.Sentence{say.Text("No coats are planned yet.")}, say.Sentence{say.Text("Choose them in Build-up; then this page says when they may go on.")}
	}
	return say.Sentence{say.Text("All planned coats are on.")}, say.Sentence{say.Text("Watch the clocks below for launching.")}
}

func firstOf(lanes []Lane, c Chance) say.Sentence {
	for _, l := range lanes {
		if l.Chance == c {
			return append(append(append(say.Sentence{}, l.Answer...), say.Text(" ")), l.Detail...)
		}
	}
	return nil
}

// actions lists what to do today, in order of time.
func (s Situation) actions(a *Answer) {
	day := func(t *time.Time) bool { return t != nil && say.SameDay(*t, s.Now, s.Loc) && t.After(s.Now) }
	for _, l := range a.Lanes {
		if l.cover != nil {
			a.Actions = append(a.Actions, Action{At: s.Now, Until: &l.cover.From, SurfaceID: l.SurfaceID, Text: l.Cover})
		}
		if l.Chance == Harmed {
			a.Actions = append(a.Actions, Action{At: s.Now, SurfaceID: l.SurfaceID, Text: l.Answer})
		} else if l.Clock != nil {
			if e := l.Clock.Event(clock.Sandable); day(e.At) {
				a.Actions = append(a.Actions, Action{At: *e.At, SurfaceID: l.SurfaceID, Text: say.Sentence{say.Text("%s can be sanded", l.Surface)}})
			}
			if l.closes != nil && l.closes.After(s.Now) && l.closes.Sub(s.Now) < urgent {
				a.Actions = append(a.Actions, Action{At: *l.closes, SurfaceID: l.SurfaceID,
					Text: say.Sentence{say.Text("%s: after this it must be sanded first", l.Surface)}})
			}
		}
		if s.Plan == nil && l.Chance == Unprepared {
			a.Actions = append(a.Actions, Action{At: s.Now, SurfaceID: l.SurfaceID, Text: l.Answer[:len(l.Answer):len(l.Answer)]})
		}
		if l.best == nil || l.Chance != Now && l.Chance != Today {
			continue
		}
		until := l.best.To
		act := Action{At: l.best.From, Until: &until, SurfaceID: l.SurfaceID, Hours: l.Mix.LayH, Text: say.Sentence{
			say.Text("%s: mix ", l.Surface), say.Val(l.Mix.Litres, "L"), say.Text(", lay "), say.Val(l.Mix.WFTUm, "µm"), say.Text(" wet")}}
		for _, f := range s.Surfaces {
			if f.ID == l.SurfaceID && f.Next != nil {
				if act.Task = s.planned(f.Next.TaskID); act.Task != nil && act.Task.Start.After(act.At) && act.Task.Start.Before(until) {
					act.At = act.Task.Start // after what the plan has before it
				}
			}
		}
		a.Actions = append(a.Actions, act)
	}
	for _, f := range s.Surfaces {
		for _, k := range f.Limits {
			if k.By.Sub(s.Now) > urgent {
				continue
			}
			text := say.Of("%v: %s. %s by %v, or ", say.Strong(f.Name), k.Name, upper(k.Until), say.Clock(k.By, s.Now, s.Loc))
			if !k.By.After(s.Now) {
				text = say.Of("%v: %s for too long, since %v it is not %s: ", say.Strong(f.Name), k.Name, say.Clock(k.By, s.Now, s.Loc), k.Until)
			}
			at := k.By
			if at.Before(s.Now) {
				at = s.Now
			}
			a.Actions = append(a.Actions, Action{At: at, SurfaceID: f.ID, Text: append(append(text, k.Breaks...), say.Text("."))})
		}
	}
	// A coat that only waits for other work of today has its turn after it.
	waits := func(surfaceID string) bool {
		return slices.ContainsFunc(a.Lanes, func(l Lane) bool {
			return l.SurfaceID == surfaceID && (l.Chance == Unprepared || l.Chance == Blocked)
		}) && !slices.ContainsFunc(s.Surfaces, func(f Surface) bool { return f.ID == surfaceID && len(f.Stop) > 0 })
	}
	for i := range s.Plan {
		p := &s.Plan[i]
		if p.Coat && !waits(p.SurfaceID) || !s.today(p) || !p.End.After(s.Now) || len(p.Before) > 0 && p.Start.After(s.Now) && !s.doneBefore(p) {
			continue
		}
		at, until := p.Start, p.End
		if at.Before(s.Now) {
			at = s.Now
		}
		a.Actions = append(a.Actions, Action{At: at, Until: &until, SurfaceID: p.SurfaceID, Hours: p.Hours, Text: say.Sentence{say.Text("%s", p.name())}, Task: p})
	}
	sort.SliceStable(a.Actions, func(i, j int) bool {
		x, y := a.Actions[i], a.Actions[j]
		if x.At.Equal(y.At) && x.Until != nil && y.Until != nil {
			return x.Until.Before(*y.Until)
		}
		return x.At.Before(y.At)
	})
}

// doneBefore reports whether all that comes before work of the plan is to be done today.
func (s Situation) doneBefore(p *Planned) bool {
	for _, name := range p.Before {
		for i := range s.Plan {
			if o := &s.Plan[i]; o.Surface+", "+o.What == name && !s.today(o) {
				return false
			}
		}
	}
	return true
}

// Ordinal is a coat among those of its step in words.
func Ordinal(n, of int) string {
	if of == 1 {
		return "one coat"
	}
	return say.Text("coat %d of %d", n, of).Text
}

func upper(s string) string {
	if s == "" {
		return s
	}
	return strings.ToUpper(s[:1]) + s[1:]
}
