package enquiry

import (
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/field"
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
		return fielderr.At("weather", "say what the weather is from now on")
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
		out.suppose("Daylight is reckoned for %.1f° of latitude; the surface is taken as pale glass fibre.",
			w.LatitudeDeg)
	}
	if a.AreaM2 == 0 {
		out.suppose("Laying is taken to last %v.", message.Val(job.Apply.Hours(), "h"))
	}
	out.Detail = message.Of("It must hold %v after laying", message.Val(job.Hold.Hours(), "h"))
	if job.Dry > 0 && !p.Roofed {
		out.Detail = message.Of("%v, and no rain may fall for %v", out.Detail, message.Val(job.Dry.Hours(), "h"))
	}
	out.Detail = message.Of("%v.", out.Detail)
	if len(starts) > 0 && starts[0].From.Before(night) {
		first := starts[0]
		verdict := "Yes"
		if slack[0] < onlyJust {
			verdict = "Only just"
		}
		switch {
		case first.From.Sub(w.Now) < time.Minute:
			out.Says = message.Of("%v: begin now, by %v at the latest.", message.Strong(verdict), w.clock(first.To))
		default:
			out.Says = message.Of("%v: begin from %v on, by %v at the latest.", message.Strong(verdict),
				w.clock(first.From), w.clock(first.To))
		}
		if c := binding[0]; c.Unit != "" {
			out.fact("Least room", "%s: %v where %v is the limit", name(c.Limit), message.Val(c.Value, c.Unit),
				message.Val(c.Need, c.Unit))
		}
		out.after(a, faces, first.From)
		if held := first.To.Add(job.Apply + max(job.Hold, job.Dry)); held.After(w.Until) {
			out.again(w)
		}
		return nil
	}
	why := nearest(job, faces, w.Now, night)
	out.Says = message.Of("%v: %v.", message.Strong("Not today"), why)
	if len(starts) > 0 {
		out.Says = message.Of("%v The next chance is %v to %v", out.Says, w.clock(starts[0].From),
			w.clock(starts[0].To))
		if starts[0].From.After(w.Until) {
			out.Says = message.Of("%v, if the days go on as you said", out.Says)
		}
		out.Says = message.Of("%v.", out.Says)
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
			out.Facts[len(out.Facts)-1].Says = message.Of("%v, unsanded until %v", out.Facts[len(out.Facts)-1].Says,
				w.clock(*closes))
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
func open(job field.Job, faces []field.Weather, from, to time.Time) (starts []calendar.Stretch, slack []float64,
	binding []field.Check) {
	for i, f := range faces {
		var next []calendar.Stretch
		var room []float64
		var binds []field.Check
		for _, w := range job.Windows(f, from, to) {
			if i == 0 {
				next, room, binds = append(next, calendar.Stretch{From: w.From, To: w.To}), append(room, w.Slack),
					append(binds, w.Binding)
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
				next, room, binds = append(next, calendar.Stretch{From: a, To: b}), append(room, least),
					append(binds, c)
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
func nearest(job field.Job, faces []field.Weather, from, to time.Time) message.Sentence {
	best, found := field.Check{Slack: -1e9}, false
	for t := from; t.Before(to); t = t.Add(15 * time.Minute) {
		if free := job.Free([]time.Time{t, t.Add(job.Apply)}); !free.At(0) || !free.At(1) {
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
		return message.Of("there is too little daylight left to lay it")
	case best.OK() && job.Dry > 0 && !job.Sheltered:
		return message.Of("rain comes within the %v that it must stay dry", message.Val(job.Dry.Hours(), "h"))
	case best.OK():
		return message.Of("no start leaves the hours it must hold")
	}
	return message.Of("even at the best hour %v", field.Words(best))
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
		return fielderr.At("laidAt", "lies outside the weather that is known")
	}
	over := a.Over
	if over == "" {
		over = a.Sheet.Kind
	}
	if _, ok := a.Sheet.RecoatOver(over); !ok {
		return fielderr.At("productId", "the sheet has no recoat table for %s over it: add it in Library", over.Name())
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
			out.Working.Warn(
				"This is the side in the shade. The next coat may follow when the slower side is ready, and without sanding until the quicker one closes.")
		}
	}
	switch {
	case opens == nil:
		out.Says = message.Of("%v: it stays too cold for it to be ready in the days that you told.",
			message.Strong("Not yet to be said"))
		return nil
	case closes == nil:
		out.Says = message.Of("%v on, and no later limit is stated for %s over it.",
			message.Sentence{message.Strong("From "), w.clock(*opens)}, over.Name())
	case !closes.After(*opens):
		out.Says = message.Of(
			"%v: on one side it is too late before it is ready on the other. Let it harden and sand it.",
			message.Strong("Not without sanding"))
	case closes.Before(w.Now):
		out.Says = message.Of("%v: the time without sanding ended %v. Sand it first.",
			message.Strong("Too late for tack"), w.clock(*closes))
	default:
		out.Says = message.Of("%v until %v without sanding; after that sand it first.",
			message.Sentence{message.Strong("From "), w.clock(*opens)}, w.clock(*closes))
	}
	out.Detail = message.Of("Of %s, over the temperature of the surface as you told the weather.", over.Name())
	for _, t := range []*time.Time{opens, closes} {
		if t != nil && t.After(w.Until) {
			out.again(w)
			break
		}
	}
	if harmed {
		out.Says = message.Of("%v first: %v", message.Strong("Look at it"), out.Says.Lower())
	}
	return nil
}

// again says from when on the weather is only supposed.
func (out *Answer) again(w Weather) {
	out.suppose("From %v on the days are taken as the last one that you told.", w.clock(w.Until))
}
