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
	Name   string
	Until  say.Sentence
	By     time.Time
	Breaks say.Sentence
}

// Prep is work that leaves no film, with the hours left of it.
type Prep struct {
	Name  say.Sentence // such as "strip" or "sand with 80"
	LeftH float64
}

// Planned is a task as the plan of the yard has it. Before names what comes first and is
// not done.
type Planned struct {
	TaskID    string         `json:"taskId"`
	Whole     string         `json:"whole"` // the task of the job that it is, or is a part of
	StepID    string         `json:"stepId"`
	SurfaceID string         `json:"surfaceId"`
	Surface   string         `json:"surface"`
	What      say.Sentence   `json:"what"`
	Work      step.Work      `json:"work"`
	SharePct  float64        `json:"sharePct"`
	Coat      bool           `json:"coat"`
	Start     time.Time      `json:"start"`
	End       time.Time      `json:"end"`
	Hours     float64        `json:"hours"`
	People    []string       `json:"people"`
	Before    []say.Sentence `json:"before"`
	Why       say.Sentence   `json:"why"`
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
	Note       say.Sentence `json:"note"`
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
	// Clocks is what the clocks that run ask for first.
	Clocks say.Sentence `json:"clocks"`
	// SurfaceID is what the headline is about, empty if about none.
	SurfaceID string `json:"surfaceId"`
	// Dry says when water goes off what is wet now, empty if nothing is.
	Dry      say.Sentence   `json:"dry"`
	Lanes    []Lane         `json:"lanes"`
	Actions  []Action       `json:"actions"`
	Warnings []say.Sentence `json:"warnings"`
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
	a := Answer{Lanes: []Lane{}, Actions: []Action{}, Warnings: []say.Sentence{}}
	for _, surface := range s.Surfaces {
		a.Lanes = append(a.Lanes, s.lane(surface))
	}
	if _, end, ok := s.Air.Span(); !ok {
		a.Warnings = append(a.Warnings, say.Of("No weather for this place: import a record or switch on the simulated service."))
	} else if end.Before(s.Now) {
		a.Warnings = append(a.Warnings, say.Of("The weather record ended before now; nothing is guessed beyond it."))
	} else if end.Before(s.Now.Add(24 * time.Hour)) {
		a.Warnings = append(a.Warnings, say.Of("The weather record ends within a day from now; nothing is guessed beyond it."))
	}
	a.Dry, a.Clocks = s.dry(), clocks(a.Lanes)
	s.headline(&a)
	s.actions(&a)
	return a
}

func (s Situation) lane(f Surface) Lane {
	l := Lane{SurfaceID: f.ID, NextStepID: f.NextStepID, Surface: f.Name, Note: say.Sentence{}, Allowed: []calendar.Stretch{}, Starts: []Start{}, Answer: say.Sentence{}, Detail: say.Sentence{}, Hard: s.hard(f), Night: say.Sentence{}, Recoat: say.Sentence{}, Cover: say.Sentence{}, Damage: []say.Sentence{}}
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
		l.Note = f.Last.Sheet.Kind.Say()
		s.cover(&l, f)
		if c.State == clock.Damaged {
			l.Chance = Harmed
			l.Note = say.Of("damaged while wet")
			d, _ := c.Harmed()
			l.Answer = say.Of("%v: inspect the %v before anything goes over it: %v on it while it was wet, %v.", say.Strong(f.Name), f.Last.Sheet.Kind, d.Harm, say.Clock(d.From, s.Now, s.Loc))
			l.Detail = say.Of("%v Log what you find as an inspection.", clock.Mend(f.Last.Sheet))
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
		l.Answer = say.Of("%v: cannot tell, the weather is not known.", say.Strong(f.Name))
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
			l.Answer = say.Of("%v: the sheet of the last coat has no recoat table for %v. Add it in Library.", say.Strong(f.Name), n.Sheet.Kind)
			return l
		case opens.At == nil && opens.HoleH > 0:
			l.Chance = NotKnown
			l.Answer = say.Of("%v: cannot tell when the last coat is ready. Only %v of the time since was measured or forecast.", say.Strong(f.Name), say.Val(math.Floor(l.Clock.KnownPct), "%"))
			return l
		case opens.At == nil:
			l.Chance = NoChance
			l.Answer = say.Of("%v: too cold. By the end of the forecast the last coat is %v of the way to its recoat time.", say.Strong(f.Name), say.Val(math.Floor(100*opens.Progress), "%"))
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
func (c Coat) named() say.Sentence {
	if c.Where != "" {
		return say.Of("%v, %v, %s", c.Sheet.Kind, step.Ordinal(c.N, c.Of), c.Where)
	}
	return say.Of("%v, %v", c.Sheet.Kind, step.Ordinal(c.N, c.Of))
}

// done is the answer where no coat is left.
func (s Situation) done(l *Lane, f Surface) {
	switch {
	case !f.Planned:
		l.Chance, l.Note = Unplanned, say.Of("no coats planned")
		l.Answer = say.Of("%v: nothing is planned. Choose its coats in Build-up.", say.Strong(f.Name))
	case len(f.First) > 0:
		l.Chance, l.Note = Unprepared, f.First[0].Name
		l.Answer = say.Of("%v: all planned coats are on; still to do: %v.", say.Strong(f.Name), prepared(f.First))
		l.Detail = l.Hard
	default:
		l.Chance = Finished
		l.Answer = say.Of("%v: all planned coats are on.", say.Strong(f.Name))
		l.Detail = l.Hard
	}
}

// held says what is in the way of the next coat, whatever the weather: what its bench
// says, work on it that is not done, work elsewhere that comes first.
func (s Situation) held(l *Lane, f Surface) bool {
	n := f.Next
	p := s.planned(n.TaskID)
	name, kind := say.Strong(f.Name), n.Sheet.Kind
	switch {
	case len(f.Stop) > 0:
		l.Chance, l.Note = Blocked, say.Of("its bench says no")
		l.Answer = say.Of("%v: not %v yet. %v", name, kind, f.Stop)
		l.Detail = say.Of("So says its bench in Finishes: mend it there first.")
	case len(f.First) > 0:
		l.Chance, l.Note = Unprepared, say.Of("%v first", f.First[0].Name)
		l.Answer = say.Of("%v: %v first, then %v.", name, prepared(f.First), kind)
		if p != nil {
			l.Answer = say.Of("%v: %v first; %v not before %v.", name, prepared(f.First), kind, say.Clock(p.Start, s.Now, s.Loc))
		}
		l.Detail = say.Of("Nothing of this is in the log since the last coat. Log it when it is done; then the coat is answered for.")
	case p != nil && len(p.Before) > 0:
		l.Chance, l.Note = Blocked, say.Of("waits for other work")
		l.Answer = say.Of("%v: first %v; %v not before %v.", name, say.List(p.Before), kind, say.Clock(p.Start, s.Now, s.Loc))
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
	may := say.Of("By the weather it might go on from %v to %v.", say.Clock(l.best.From, s.Now, s.Loc), say.Clock(l.best.To, s.Now, s.Loc))
	l.Chance = Later
	l.Answer = say.Of("%v: not today. The plan has %v on %v.", say.Strong(f.Name), f.Next.Sheet.Kind, say.Clock(p.Start, s.Now, s.Loc))
	l.Detail = say.Of("%v %v", may, p.Why)
}

// prepared lists work with the hours left of it.
func prepared(first []Prep) say.Sentence {
	all := make([]say.Sentence, len(first))
	for i, p := range first {
		all[i] = p.Name
		if p.LeftH > 0 {
			all[i] = say.Of("%v (%v)", p.Name, say.Val(math.Ceil(4*p.LeftH)/4, "h"))
		}
	}
	return say.Join(all, ", ")
}

// night tells how long after its laying the next coat stays above the dew point, laid
// at its first chance or now.
func (s Situation) night(l Lane, f Surface, job field.Job) say.Sentence {
	laid := s.Now
	if l.best != nil {
		laid = l.best.From
	}
	laid = laid.Add(job.Apply)
	needed := f.Next.Sheet.Limits.HoldH
	whose := say.Of("; %v are needed by the sheet", say.Val(needed, "h"))
	switch {
	case s.DewFreeH > needed:
		whose = say.Of("; %v are needed by your habit", say.Val(s.DewFreeH, "h"))
	case needed == 0:
		whose = say.Of("; the sheet asks for no hours")
	}
	laidBy := say.Clock(laid, s.Now, s.Loc)
	dew, end := f.dewAfter(laid)
	switch {
	case dew != nil && !dew.After(laid):
		return say.Of("At %v it is at the dew point.", say.Clock(laid, s.Now, s.Loc))
	case dew != nil:
		return say.Of("Laid by %v it stays above the dew point until %v, %v%v.", laidBy, say.Clock(*dew, s.Now, s.Loc), say.Val(math.Floor(10*dew.Sub(laid).Hours())/10, "h"), whose)
	case end.After(laid):
		return say.Of("Laid by %v it stays above the dew point to the end of the forecast%v.", laidBy, whose)
	}
	return say.Sentence{}
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
	what := say.Of("May be used, walked on and stacked")
	if f.Immersed {
		what = say.Of("May be immersed")
	}
	switch {
	case !ok:
		return say.Sentence{}
	case !h.Tabled:
		return say.Of("When it is hard enough is not known: the sheet of %s does not say. Ask its maker before she is launched.", h.Sheet.Name)
	case h.At == nil:
		return say.Of("%v: not within the weather known. %s is slowest.", what, h.Sheet.Name)
	case h.At.After(s.Now):
		return say.Of("%v from %v; %s is slowest.", what, say.Clock(*h.At, s.Now, s.Loc), h.Sheet.Name)
	}
	return say.Of("%v: all films have been hard since %v.", what, say.Clock(*h.At, s.Now, s.Loc))
}

// cover warns of what will reach a coat that is not dry yet.
func (s Situation) cover(l *Lane, f Surface) {
	d, ok := l.Clock.Harmed()
	if !ok || !d.From.After(s.Now) || l.Clock.State != clock.Wet && l.Clock.State != clock.Tacking {
		return
	}
	l.cover = &d
	name, from, kind := say.Strong(f.Name), say.Clock(d.From, s.Now, s.Loc), f.Last.Sheet.Kind
	dry := l.Clock.Event(clock.TouchDry)
	if d.Harm == clock.ByFrost || !dry.Tabled {
		dry = l.Clock.Event(clock.TackFree)
	}
	if dry.At == nil {
		l.Cover = say.Of("Cover %v before %v: %v on %v that is not dry within the weather known.", name, from, d.Harm, kind)
		return
	}
	l.Cover = say.Of("Cover %v before %v: %v on %v that is not dry until %v.", name, from, d.Harm, kind, say.Clock(*dry.At, s.Now, s.Loc))
}

// PrepNames lists work in its order.
func PrepNames(first []Prep) say.Sentence {
	names := make([]say.Sentence, len(first))
	for i, p := range first {
		names[i] = p.Name
	}
	return say.Join(names, ", ")
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
	name, kind := say.Strong(f.Name), n.Sheet.Kind
	if l.best == nil {
		l.Chance = NoChance
		l.Answer = say.Of("%v: no chance for %v within the forecast.", name, kind)
		l.Detail = s.whyNot(job, f.Weather)
		return
	}
	w := l.best
	when := say.Of("from %v to %v", say.Clock(w.From, s.Now, s.Loc), say.Clock(w.To, w.From, s.Loc))
	switch {
	case w.From.Sub(s.Now) < time.Minute+1:
		l.Chance = Now
		when = say.Of("now, until %v", say.Clock(w.To, s.Now, s.Loc))
	case say.SameDay(w.From, s.Now, s.Loc):
		l.Chance = Today
	default:
		l.Chance = Later
	}
	switch {
	case w.Sand && l.Chance == Later:
		l.Answer = say.Of("%v: not today; %v may go on after sanding %v.", name, kind, when)
	case w.Sand:
		l.Answer = say.Of("%v: %v may go on after sanding %v.", name, kind, when)
	case l.Chance == Later:
		l.Answer = say.Of("%v: not today; %v may go on %v.", name, kind, when)
	default:
		l.Answer = say.Of("%v: %v may go on %v.", name, kind, when)
	}
	if l.Chance != Later && n.N < n.Of {
		if second := s.second(*l, f); second != nil {
			l.Answer = say.Of("%v %v", l.Answer, second)
		}
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
				return say.Of("Two coats fit: the second from %v.", say.Clock(from, s.Now, s.Loc))
			}
		}
	}
	return say.Of("One coat, not two.")
}

// reasons says what bounds the best window.
func (s Situation) reasons(l Lane, job field.Job) say.Sentence {
	var before, after say.Sentence
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
		before = say.Of("The recoat window closes at %v", say.Clock(*l.closes, s.Now, s.Loc))
	case w.Opens != nil && w.Opens.To.After(opens):
		before = say.Of("Before that %v", field.Words(w.Opens.Check))
	case opens.After(s.Now):
		before = say.Of("Before that the last coat is not ready")
	}
	switch {
	case !w.Sand && l.closes != nil && w.To.Equal(*l.closes):
		after = say.Of("After that it must be sanded first.")
	case w.Closes != nil && w.Closes.Phase == field.Drying:
		after = say.Of("After that the rain of %v falls inside the %v it must stay dry.", say.Clock(w.Closes.From, s.Now, s.Loc), say.Val(job.Dry.Hours(), "h"))
	case w.Closes != nil && w.Closes.Phase == field.Holding:
		after = say.Of("After that %v from %v, inside the %v it must hold.", field.Words(w.Closes.Check), say.Clock(w.Closes.From, s.Now, s.Loc), say.Val(job.Hold.Hours(), "h"))
	case w.Closes != nil:
		after = say.Of("After that %v from %v, before it is all laid.", field.Words(w.Closes.Check), say.Clock(w.Closes.From, s.Now, s.Loc))
	default:
		after = say.Of("After that the forecast ends.")
	}
	out := after
	if before != nil {
		out = say.Of("%v; %v", before, after.Lower())
	}
	switch closing := l.Clock != nil && l.Clock.State == clock.Closing; {
	case l.closes == nil || w.Sand || w.To.Equal(*l.closes):
		return out
	case closing:
		return say.Of("%v The recoat window is closing: the last coat cures past taking another %v.", out, say.Clock(*l.closes, s.Now, s.Loc))
	}
	return say.Of("%v The recoat window closes %v.", out, say.Clock(*l.closes, s.Now, s.Loc))
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
		return say.Of("No stretch is long enough to lay it and hold it.")
	}
	return say.Of("Most hours %v, or the good hours are too few to lay it and hold it.", field.Words(check[most]))
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
				a.Detail = say.Of("If it is hit: %v", clock.Mend(f.Last.Sheet))
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
	a.Headline = say.Of("Nothing to begin today. Next is %v, %v.", next.name().Strong(), say.Clock(next.Start, s.Now, s.Loc))
	a.Detail, a.SurfaceID = next.Why, next.SurfaceID
	return true
}

// today reports whether work of the plan is begun on the day of now.
func (s Situation) today(p *Planned) bool {
	return p.Start.Before(s.Now) || say.SameDay(p.Start, s.Now, s.Loc)
}

func (p Planned) name() say.Sentence {
	if p.Surface == "" {
		return p.What
	}
	return say.Of("%s: %v", p.Surface, p.What)
}

// begin says what is to be begun, when and by whom.
func (s Situation) begin(p *Planned) say.Sentence {
	when := say.Of("now to %v", say.Clock(p.End, s.Now, s.Loc))
	if p.Start.Sub(s.Now) > time.Minute {
		when = say.Of("from %v to %v", say.Clock(p.Start, s.Now, s.Loc), say.Clock(p.End, s.Now, s.Loc))
	}
	if len(p.People) > 0 {
		return say.Of("%v, %v: %s.", p.name().Strong(), when, strings.Join(p.People, ", "))
	}
	return say.Of("%v, %v.", p.name().Strong(), when)
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
		return say.Of("This boat has no surfaces yet."), say.Of("Add them in Survey; then choose their coats in Build-up.")
	case count[NotKnown] > 0:
		return say.Of("Cannot tell what may go on."), firstOf(lanes, NotKnown)
	case count[Harmed] > 0:
		return firstOf(lanes, Harmed), say.Sentence{}
	case count[Unprepared] > 0:
		return firstOf(lanes, Unprepared), say.Of("No coat may go on before that.")
	case count[NoChance] > 0:
		return say.Of("No coat may go on within the forecast."), firstOf(lanes, NoChance)
	case count[Unplanned] == len(lanes):
		return say.Of("No coats are planned yet."), say.Of("Choose them in Build-up; then this page says when they may go on.")
	}
	return say.Of("All planned coats are on."), say.Of("Watch the clocks below for launching.")
}

func firstOf(lanes []Lane, c Chance) say.Sentence {
	for _, l := range lanes {
		if l.Chance == c {
			return say.Of("%v %v", l.Answer, l.Detail)
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
				a.Actions = append(a.Actions, Action{At: *e.At, SurfaceID: l.SurfaceID, Text: say.Of("%s can be sanded", l.Surface)})
			}
			if l.closes != nil && l.closes.After(s.Now) && l.closes.Sub(s.Now) < urgent {
				a.Actions = append(a.Actions, Action{At: *l.closes, SurfaceID: l.SurfaceID,
					Text: say.Of("%s: after this it must be sanded first", l.Surface)})
			}
		}
		if s.Plan == nil && l.Chance == Unprepared {
			a.Actions = append(a.Actions, Action{At: s.Now, SurfaceID: l.SurfaceID, Text: l.Answer[:len(l.Answer):len(l.Answer)]})
		}
		if l.best == nil || l.Chance != Now && l.Chance != Today {
			continue
		}
		until := l.best.To
		act := Action{At: l.best.From, Until: &until, SurfaceID: l.SurfaceID, Hours: l.Mix.LayH, Text: say.Of("%s: mix %v, lay %v wet", l.Surface, say.Val(l.Mix.Litres, "L"), say.Val(l.Mix.WFTUm, "µm"))}
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
			name, by := say.Strong(f.Name), say.Clock(k.By, s.Now, s.Loc)
			text := say.Of("%v, %v: %v by %v, or %v.", name, say.Lit(k.Name), k.Until, by, k.Breaks)
			if !k.By.After(s.Now) {
				text = say.Of("%v: %v for too long, since %v it is not %v: %v.", name, say.Lit(k.Name), by, k.Until, k.Breaks)
			}
			at := k.By
			if at.Before(s.Now) {
				at = s.Now
			}
			a.Actions = append(a.Actions, Action{At: at, SurfaceID: f.ID, Text: text})
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
		a.Actions = append(a.Actions, Action{At: at, Until: &until, SurfaceID: p.SurfaceID, Hours: p.Hours, Text: p.name(), Task: p})
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
			if o := &s.Plan[i]; say.Of("%s, %v", o.Surface, o.What).String() == name.String() && !s.today(o) {
				return false
			}
		}
	}
	return true
}
