package enquiry

import (
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/fault"
	"allcoats/core/base/say"
	"allcoats/core/readiness/clock"
	"allcoats/core/readiness/field"
)

// onlyJust is the least room, in typical errors of a forecast, that is not called narrow.
const onlyJust = 1

// coatToday tells from when to when a coat may be begun today, on every face of the place.
func coatToday(out *Answer, a Ask) error {
	p, err := a.lies()
	if err != nil {
		return err
	}
	w := a.Weather
	if _, end, ok := w.Air.Span(); !ok || !end.After(w.Now) {
		return fault.At("weather", "say what the weather is from now on")
	}
	out.gear(a)
	job, faces, night := a.job(p), a.faces(p), w.dayEnd(w.Now)
	_, end, _ := w.Air.Span()
	starts, slack, binding := open(job, faces, w.Now, end)
	result := job.Judge(faces[0], w.Now.Truncate(time.Hour), night)
	out.Working, out.Hours = result.Working, result.Hours
	if len(faces) > 1 {
		out.Working.Warn("The hours shown are of the side in the shade; a start must suit the side in the sun too.")
	}
	if p.Roofed {
		out.suppose("Under a roof the air is taken as outside, still, without sun.")
	} else {
		out.suppose("Daylight is reckoned for %.1f° of latitude; the surface is taken as pale glass fibre.", w.LatitudeDeg)
	}
	if a.AreaM2 == 0 {
		out.suppose("Laying is taken to last %v.", say.Val(job.Apply.Hours(), "h"))
	}
	out.Detail = say.Of("It must hold %v after laying", say.Val(job.Hold.Hours(), "h"))
	if job.Dry > 0 && !p.Roofed {
		out.Detail = say.Of("%v, and no rain may fall for %v", out.Detail, say.Val(job.Dry.Hours(), "h"))
	}
	out.Detail = say.Of("%v.", out.Detail)
	if len(starts) > 0 && starts[0].From.Before(night) {
		first := starts[0]
		verdict := "Yes"
		if slack[0] < onlyJust {
			verdict = "Only just"
		}
		switch {
		case first.From.Sub(w.Now) < time.Minute:
			out.Says = say.Of("%v: begin now, by %v at the latest.", say.Strong(verdict), w.clock(first.To))
		default:
			out.Says = say.Of("%v: begin from %v on, by %v at the latest.", say.Strong(verdict), w.clock(first.From), w.clock(first.To))
		}
		if c := binding[0]; c.Unit != "" {
			out.fact("Least room", "%s: %v where %v is the limit", name(c.Limit), say.Val(c.Value, c.Unit), say.Val(c.Need, c.Unit))
		}
		out.after(a, faces, first.From)
		if held := first.To.Add(job.Apply + max(job.Hold, job.Dry)); held.After(w.Until) {
			out.again(w)
		}
		return nil
	}
	why := nearest(job, faces, w.Now, night)
	out.Says = say.Of("%v: %v.", say.Strong("Not today"), why)
	if len(starts) > 0 {
		out.Says = say.Of("%v The next chance is %v to %v", out.Says, w.clock(starts[0].From), w.clock(starts[0].To))
		if starts[0].From.After(w.Until) {
			out.Says = say.Of("%v, if the days go on as you said", out.Says)
		}
		out.Says = say.Of("%v.", out.Says)
	}
	return nil
}

// after tells of a coat laid at t how it goes on.
func (out *Answer) after(a Ask, faces []field.Weather, t time.Time) {
	w := a.Weather
	dry, opens, closes := a.coming(faces, t)
	if dry != nil {
		out.fact("Touch-dry", "about %v if laid then", w.clock(*dry))
	}
	if opens != nil {
		out.fact("Next coat of the same", "from %v", w.clock(*opens))
		if closes != nil {
			out.Facts[len(out.Facts)-1].Says = say.Of("%v, unsanded until %v", out.Facts[len(out.Facts)-1].Says, w.clock(*closes))
		}
	}
}

// coming is when a coat laid at t is touch-dry and may be coated again on the slowest face, and
// until when on the quickest; nil where it is not known.
func (a Ask) coming(faces []field.Weather, t time.Time) (dry, opens, closes *time.Time) {
	over := a.Over
	if over == "" {
		over = a.Sheet.Kind
	}
	later := func(to **time.Time, at *time.Time, first bool) {
		if first || *to != nil && (at == nil || at.After(**to)) {
			*to = at
		}
	}
	for i, f := range faces {
		c := clock.Run(clock.Laid{Sheet: a.Sheet, Started: t}, over, f, t)
		later(&dry, c.Event(clock.TouchDry).At, i == 0)
		later(&opens, c.Event(clock.RecoatOpens).At, i == 0)
		if e := c.Event(clock.RecoatCloses).At; e != nil && (closes == nil || e.Before(*closes)) {
			closes = e
		}
	}
	return dry, opens, closes
}

// open are the starts that suit every face, with the least slack of each and what it is of.
func open(job field.Job, faces []field.Weather, from, to time.Time) (starts []calendar.Stretch, slack []float64, binding []field.Check) {
	for i, f := range faces {
		var next []calendar.Stretch
		var room []float64
		var binds []field.Check
		for _, w := range job.Windows(f, from, to) {
			if i == 0 {
				next, room, binds = append(next, calendar.Stretch{From: w.From, To: w.To}), append(room, w.Slack), append(binds, w.Binding)
				continue
			}
			for k, s := range starts {
				a, b := later(s.From, w.From), earlier(s.To, w.To)
				if b.Sub(a) < time.Minute {
					continue
				}
				least, c := slack[k], binding[k]
				if w.Slack < least {
					least, c = w.Slack, w.Binding
				}
				next, room, binds = append(next, calendar.Stretch{From: a, To: b}), append(room, least), append(binds, c)
			}
		}
		starts, slack, binding = next, room, binds
	}
	return starts, slack, binding
}

func later(a, b time.Time) time.Time {
	if a.After(b) {
		return a
	}
	return b
}

func earlier(a, b time.Time) time.Time {
	if a.Before(b) {
		return a
	}
	return b
}

// nearest is why the start with the most room between two times does not do.
func nearest(job field.Job, faces []field.Weather, from, to time.Time) say.Sentence {
	best, found := field.Check{Slack: -1e9}, false
	for t := from; t.Before(to); t = t.Add(15 * time.Minute) {
		if free := job.Free([]time.Time{t, t.Add(job.Apply)}); !free[0] || !free[1] {
			continue
		}
		worst, known := field.Check{Slack: 1e9}, true
		for _, f := range faces {
			c, ok := job.At(f, t)
			known = known && ok
			if c.Slack < worst.Slack {
				worst = c
			}
		}
		if known && worst.Slack > best.Slack {
			best, found = worst, true
		}
	}
	switch {
	case !found:
		return say.Of("there is too little daylight left to lay it")
	case best.OK() && job.Dry > 0 && !job.Sheltered:
		return say.Of("rain comes within the %v that it must stay dry", say.Val(job.Dry.Hours(), "h"))
	case best.OK():
		return say.Of("no start leaves the hours it must hold")
	}
	return say.Of("even at the best hour %v", field.Words(best))
}

// name is what a limit is of.
func name(l field.Limit) string {
	for _, i := range field.Limits {
		if i.Limit == l {
			return i.Of
		}
	}
	return string(l)
}

// whenAgain tells from when to when the next coat may follow one that was laid, or is now.
func whenAgain(out *Answer, a Ask) error {
	p, err := a.lies()
	if err != nil {
		return err
	}
	w := a.Weather
	if a.LaidAt.IsZero() {
		a.LaidAt = w.Now
	}
	from, end, ok := w.Air.Span()
	if !ok || a.LaidAt.Before(from) || !a.LaidAt.Before(end) {
		return fault.At("laidAt", "lies outside the weather that is known")
	}
	over := a.Over
	if over == "" {
		over = a.Sheet.Kind
	}
	if _, ok := a.Sheet.RecoatOver(over); !ok {
		return fault.At("productId", "the sheet has no recoat table for %s over it: add it in Library", over.Name())
	}
	out.gear(a)
	faces := a.faces(p)
	c := clock.Run(clock.Laid{Sheet: a.Sheet, Started: a.LaidAt}, over, faces[0], w.Now)
	out.Working = c.Working
	dry, opens, closes := a.coming(faces, a.LaidAt)
	if dry != nil {
		out.fact("Touch-dry", "%v", w.clock(*dry))
	}
	out.suppose("It is taken as %s, of pale glass fibre.", p.Name)
	harmed := false
	for i, f := range faces {
		on := clock.Run(clock.Laid{Sheet: a.Sheet, Started: a.LaidAt}, over, f, w.Now)
		for _, d := range on.Damage {
			out.fact("Harm", "%s reaches it while it is wet, %v", string(d.Harm), w.clock(d.From))
		}
		if _, ok := on.Harmed(); ok {
			harmed = true
		}
		if i > 0 {
			out.Working.Warn("This is the side in the shade. The next coat may follow when the slower side is ready, and without sanding until the quicker one closes.")
		}
	}
	switch {
	case opens == nil:
		out.Says = say.Of("%v: it stays too cold for it to be ready in the days that you told.", say.Strong("Not yet to be said"))
		return nil
	case closes == nil:
		out.Says = say.Of("%v on, and no later limit is stated for %s over it.", say.Sentence{say.Strong("From "), w.clock(*opens)}, over.Name())
	case !closes.After(*opens):
		out.Says = say.Of("%v: on one side it is too late before it is ready on the other. Let it harden and sand it.", say.Strong("Not without sanding"))
	case closes.Before(w.Now):
		out.Says = say.Of("%v: the time without sanding ended %v. Sand it first.", say.Strong("Too late for tack"), w.clock(*closes))
	default:
		out.Says = say.Of("%v until %v without sanding; after that sand it first.", say.Sentence{say.Strong("From "), w.clock(*opens)}, w.clock(*closes))
	}
	out.Detail = say.Of("Of %s, over the temperature of the surface as you told the weather.", over.Name())
	for _, t := range []*time.Time{opens, closes} {
		if t != nil && t.After(w.Until) {
			out.again(w)
			break
		}
	}
	if harmed {
		out.Says = say.Of("%v first: %v", say.Strong("Look at it"), out.Says.Lower())
	}
	return nil
}

// again says from when on the weather is only supposed.
func (out *Answer) again(w Weather) {
	out.suppose("From %v on the days are taken as the last one that you told.", w.clock(w.Until))
}
