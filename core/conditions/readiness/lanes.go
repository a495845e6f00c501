package readiness

import (
	"math"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/message"
	"allcoats/core/base/working"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/field"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/physics/cure"
)

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

func (s Situation) lane(f Surface) Lane {
	l := Lane{SurfaceID: f.ID, NextStepID: f.NextStepID, Surface: f.Name, Note: message.Sentence{},
		Allowed: []calendar.Stretch{}, Starts: []Start{}, Answer: message.Sentence{}, Detail: message.Sentence{},
		Hard: s.hard(f), Night: message.Sentence{}, Recoat: message.Sentence{}, Cover: message.Sentence{},
		Damage: []message.Sentence{}}
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
		if c.State != clock.Unknown && c.Event(clock.RecoatOpens).Tabled {
			l.Recoat = message.Of("%v %v of the hours since are on record.", l.Recoat,
				message.Val(math.Floor(c.MeasuredPct+1e-6), "%"))
		}
		for _, d := range c.Damage {
			l.Damage = append(l.Damage, s.harm(d))
		}
		l.Note = f.Last.Sheet.Kind.Say()
		s.cover(&l, f)
		if c.State == clock.Damaged {
			l.Chance = Harmed
			l.Note = message.Of("damaged while wet")
			d, _ := c.Harmed()
			l.Answer = message.Of("%v: inspect the %v before anything goes over it: %v on it while it was wet, %v.",
				message.Strong(f.Name), f.Last.Sheet.Kind, d.Harm, message.Clock(d.From, s.Now, s.Loc))
			l.Detail = message.Of("%v Log what you find as an inspection.", clock.Mend(f.Last.Sheet))
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
		l.Answer = message.Of("%v: cannot tell, the weather is not known.", message.Strong(f.Name))
		return l
	}
	if s.Now.After(from) {
		from = s.Now
	}
	from, ok := s.opens(&l, f, from)
	if !ok {
		return l
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
	l.potAt(f)
	return l
}

// Begins is when the next coat of a surface may be laid: at its best start, or when the plan has it
// where other work comes first; now if neither is known.
func (s Situation) Begins(f Surface) time.Time {
	if f.Next == nil {
		return s.Now
	}
	if l := s.lane(f); l.best != nil {
		return l.best.From
	}
	if p := s.planned(f.Next.TaskID); p != nil && p.Start.After(s.Now) {
		return p.Start
	}
	return s.Now
}

// opens is from when the clock of the coat below lets the next one on, not before from; ok is false
// where it does not, or that is not known, and l tells why.
func (s Situation) opens(l *Lane, f Surface, from time.Time) (at time.Time, ok bool) {
	if l.Clock == nil || l.Clock.Abraded {
		return from, true
	}
	opens := l.Clock.Event(clock.RecoatOpens)
	switch {
	case !opens.Tabled:
		l.Chance = NotKnown
		l.Answer = message.Of("%v: the sheet of the last coat has no recoat table for %v. Add it in Library.",
			message.Strong(f.Name), f.Next.Sheet.Kind)
		return from, false
	case opens.At == nil && opens.HoleH > 0:
		l.Chance = NotKnown
		l.Answer = message.Of(
			"%v: cannot tell when the last coat is ready. Only %v of the time since was measured or forecast.",
			message.Strong(f.Name), message.Val(math.Floor(l.Clock.KnownPct), "%"))
		return from, false
	case opens.At == nil:
		l.Chance = NoChance
		l.Answer = message.Of(
			"%v: too cold. By the end of the forecast the last coat is %v of the way to its recoat time.",
			message.Strong(f.Name), message.Val(math.Floor(100*opens.Progress), "%"))
		return from, false
	case opens.At.After(from):
		from = *opens.At
	}
	l.closes = l.Clock.Event(clock.RecoatCloses).At
	if l.closes == nil && l.Clock.State == clock.Unknown {
		l.closes = &s.Now // what is not known may have closed
	}
	return from, true
}

// potAt sets how warm the surface is at the best start, and the pot life there.
func (l *Lane) potAt(f Surface) {
	if l.best != nil {
		if i := f.Weather.Air.Find(l.best.From); i >= 0 {
			t := f.Weather.SurfaceC[i]
			l.Mix.AtTempC = &t
			if len(f.Next.Sheet.PotLife) > 0 {
				h, _ := f.Next.Sheet.PotLife.TauH(t, cure.Maximum)
				l.Mix.PotLifeH = &h
				l.Mix.Working.In("Surface at the start", t, "°C")
				l.Mix.Working.Step("Pot life", "the sheet's table at that temperature, ln τ linear in 1/T", h, "h",
					"data sheet")
			}
		}
	}
}

// named is a coat in words.
func (c Coat) named() message.Sentence {
	if c.Where != "" {
		return message.Of("%v, %v, %s", c.Sheet.Kind, step.Ordinal(c.N, c.Of), c.Where)
	}
	return message.Of("%v, %v", c.Sheet.Kind, step.Ordinal(c.N, c.Of))
}

// done is the answer where no coat is left.
func (s Situation) done(l *Lane, f Surface) {
	switch {
	case !f.Planned:
		l.Chance, l.Note = Unplanned, message.Of("no coats planned")
		l.Answer = message.Of("%v: nothing is planned. Choose its coats in Build-up.", message.Strong(f.Name))
	case len(f.First) > 0:
		l.Chance, l.Note = Unprepared, f.First[0].Name
		l.Answer = message.Of("%v: all planned coats are on; still to do: %v.", message.Strong(f.Name),
			prepared(f.First))
		l.Detail = l.Hard
	default:
		l.Chance = Finished
		l.Answer = message.Of("%v: all planned coats are on.", message.Strong(f.Name))
		l.Detail = l.Hard
	}
}

// held says what is in the way of the next coat, whatever the weather: what its bench
// says, work on it that is not done, work elsewhere that comes first.
func (s Situation) held(l *Lane, f Surface) bool {
	n := f.Next
	p := s.planned(n.TaskID)
	name, kind := message.Strong(f.Name), n.Sheet.Kind
	switch {
	case len(f.Stop) > 0:
		l.Chance, l.Note = Blocked, message.Of("its bench says no")
		l.Answer = message.Of("%v: not %v yet. %v", name, kind, f.Stop)
		l.Detail = message.Of("So says its bench in Finishes: mend it there first.")
	case len(f.First) > 0:
		l.Chance, l.Note = Unprepared, message.Of("%v first", f.First[0].Name)
		l.Answer = message.Of("%v: %v first, then %v.", name, prepared(f.First), kind)
		if p != nil {
			l.Answer = message.Of("%v: %v first; %v not before %v.", name, prepared(f.First), kind,
				message.Clock(p.Start, s.Now, s.Loc))
		}
		l.Detail = message.Of(
			"Nothing of this is in the log since the last coat. Log it when it is done; then the coat is answered for.")
	case p != nil && len(p.Before) > 0:
		l.Chance, l.Note = Blocked, message.Of("waits for other work")
		l.Answer = message.Of("%v: first %v; %v not before %v.", name, message.List(p.Before), kind,
			message.Clock(p.Start, s.Now, s.Loc))
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
	if p == nil || !s.HoursSaid || l.Chance != Now && l.Chance != Today || message.SameDay(p.Start, s.Now, s.Loc) ||
		p.Start.Before(s.Now) || l.closes != nil && l.closes.After(s.Now) && l.closes.Sub(s.Now) < urgent {
		return
	}
	may := message.Of("By the weather it might go on from %v to %v.", message.Clock(l.best.From, s.Now, s.Loc),
		message.Clock(l.best.To, s.Now, s.Loc))
	l.Chance = Later
	l.Answer = message.Of("%v: not today. The plan has %v on %v.", message.Strong(f.Name), f.Next.Sheet.Kind,
		message.Clock(p.Start, s.Now, s.Loc))
	l.Detail = message.Of("%v %v", may, p.Why)
}

// prepared lists work with the hours left of it.
func prepared(first []Prep) message.Sentence {
	all := make([]message.Sentence, len(first))
	for i, p := range first {
		all[i] = p.Name
		if p.LeftH > 0 {
			all[i] = message.Of("%v (%v)", p.Name, message.Val(math.Ceil(4*p.LeftH)/4, "h"))
		}
	}
	return message.Join(all, ", ")
}

// night tells how long after its laying the next coat stays above the dew point, laid
// at its first chance or now.
func (s Situation) night(l Lane, f Surface, job field.Job) message.Sentence {
	laid := s.Now
	if l.best != nil {
		laid = l.best.From
	}
	laid = laid.Add(job.Apply)
	needed := f.Next.Sheet.Limits.HoldH
	whose := message.Of("; %v are needed by the sheet", message.Val(needed, "h"))
	switch {
	case s.DewFreeH > needed:
		whose = message.Of("; %v are needed by your habit", message.Val(s.DewFreeH, "h"))
	case needed == 0:
		whose = message.Of("; the sheet asks for no hours")
	}
	laidBy := message.Clock(laid, s.Now, s.Loc)
	dew, end := f.dewAfter(laid)
	switch {
	case dew != nil && !dew.After(laid):
		return message.Of("At %v it is at the dew point.", message.Clock(laid, s.Now, s.Loc))
	case dew != nil:
		return message.Of("Laid by %v it stays above the dew point until %v, %v%v.", laidBy,
			message.Clock(*dew, s.Now, s.Loc), message.Val(math.Floor(10*dew.Sub(laid).Hours())/10, "h"), whose)
	case end.After(laid):
		return message.Of("Laid by %v it stays above the dew point to the end of the forecast%v.", laidBy, whose)
	}
	return message.Sentence{}
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
func (s Situation) hard(f Surface) message.Sentence {
	h, ok := clock.Hardens(f.Films, f.Immersed, f.Weather)
	what := message.Of("May be used, walked on and stacked")
	if f.Immersed {
		what = message.Of("May be immersed")
	}
	switch {
	case !ok:
		return message.Sentence{}
	case !h.Tabled:
		return message.Of(
			"When it is hard enough is not known: the sheet of %s does not say. Ask its maker before she is launched.",
			h.Sheet.Name)
	case h.At == nil:
		return message.Of("%v: not within the weather known. %s is slowest.", what, h.Sheet.Name)
	case h.At.After(s.Now):
		return message.Of("%v from %v; %s is slowest.", what, message.Clock(*h.At, s.Now, s.Loc), h.Sheet.Name)
	}
	return message.Of("%v: all films have been hard since %v.", what, message.Clock(*h.At, s.Now, s.Loc))
}

// cover warns of what will reach a coat that is not dry yet.
func (s Situation) cover(l *Lane, f Surface) {
	d, ok := l.Clock.Harmed()
	if !ok || !d.From.After(s.Now) || l.Clock.State != clock.Wet && l.Clock.State != clock.Tacking {
		return
	}
	l.cover = &d
	name, from, kind := message.Strong(f.Name), message.Clock(d.From, s.Now, s.Loc), f.Last.Sheet.Kind
	dry := l.Clock.Event(clock.TouchDry)
	if d.Harm == clock.ByFrost || !dry.Tabled {
		dry = l.Clock.Event(clock.TackFree)
	}
	if dry.At == nil {
		l.Cover = message.Of("Cover %v before %v: %v on %v that is not dry within the weather known.", name, from,
			d.Harm, kind)
		return
	}
	l.Cover = message.Of("Cover %v before %v: %v on %v that is not dry until %v.", name, from, d.Harm, kind,
		message.Clock(*dry.At, s.Now, s.Loc))
}

// PrepNames lists work in its order.
func PrepNames(first []Prep) message.Sentence {
	names := make([]message.Sentence, len(first))
	for i, p := range first {
		names[i] = p.Name
	}
	return message.Join(names, ", ")
}

// mix is what coat c takes. Figures that film.Compute refuses (a sheet changed since)
// leave the litres out and say so.
func mix(c Coat, job field.Job, crew int) *Mix {
	m := &Mix{
		Product: c.Sheet.Name, LayH: job.Apply.Hours(), HoldH: c.Sheet.Limits.HoldH,
		InductionH: c.Sheet.InductionMin / 60,
		Cautions:   append([]string{}, c.Sheet.Cautions...),
	}
	r, err := film.Compute(film.Request{VolumeSolidsPct: c.Sheet.VolumeSolidsPct, DFTUm: c.DFTUm,
		ThinnerPct: c.ThinnerPct, AreaM2: c.AreaM2, LossPct: c.LossPct})
	if err != nil {
		m.Working = working.New()
		m.Working.Warn("The litres cannot be told: %v.", err)
		return m
	}
	m.WFTUm, m.Working = r.WFTUm, r.Working
	m.Litres = m.Working.Step("What it takes of you", "litres · what your coats have taken against the reckoning",
		c.Litres, "L", "the log")
	method, _ := film.MethodByKey(c.Method)
	m.Working.In("People laying", float64(max(1, crew)), "")
	m.Working.StepOf("Time to lay it", message.Of("A / laying rate · access / people, to the next 5 min"), m.LayH, "h",
		message.Of("%g m²/h by %s: a rule of thumb", method.RateM2H, method.Name))
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
