package readiness

import (
	"math"
	"sort"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/conditions/climate"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/field"
	"allcoats/core/film/step"
)

// Waiting is a coat that waits for its weather.
type Waiting struct {
	Surface Surface
	Ask     climate.Ask
	// From is when the coat below lets it go on, Closes when it has to be sanded first.
	From   time.Time
	Closes *time.Time
}

// Waiting lists the coats that wait. Surfaces whose clock cannot tell are left
// out.
func (s Situation) Waiting() []Waiting {
	var out []Waiting
	for _, f := range s.Surfaces {
		if f.Next == nil || len(f.First) > 0 || len(f.Stop) > 0 {
			continue
		}
		if p := s.planned(f.Next.TaskID); p != nil && len(p.Before) > 0 {
			continue // other work comes first
		}
		w := Waiting{Surface: f, Ask: climate.Ask{SurfaceID: f.ID, Job: s.JobFor(*f.Next, f)}, From: s.Now}
		if f.Last != nil {
			c := clock.Run(*f.Last, f.Next.Sheet.Kind, f.Weather, s.Now)
			opens := c.Event(clock.RecoatOpens)
			if c.State == clock.Damaged {
				continue // it is looked at first
			}
			if !c.Abraded {
				if opens.At == nil {
					continue
				}
				if opens.At.After(s.Now) {
					w.From = *opens.At
				}
				w.Closes = c.Event(clock.RecoatCloses).At
			}
		}
		out = append(out, w)
	}
	return out
}

// Option is a chance for a coat: starts from From to To are as good as the best,
// At.
type Option struct {
	From time.Time `json:"from"`
	To   time.Time `json:"to"`
	At   time.Time `json:"at"`
	// ChancePct is the share of futures in which it keeps its field.
	ChancePct float64 `json:"chancePct"`
	// Nearest is the limit with the least room at that start in the course
	// without error, nil beyond the weather known.
	Nearest *field.Check `json:"nearest,omitempty"`
	Sand    bool         `json:"sand"`
	// Forecast is false beyond the forecast, where only the climate is known.
	Forecast bool `json:"forecast"`
}

// Best is a waiting coat with its best chances, one a day at most.
type Best struct {
	SurfaceID string           `json:"surfaceId"`
	Surface   string           `json:"surface"`
	What      message.Sentence `json:"what"`
	Sentence  message.Sentence `json:"sentence"`
	Options   []Option         `json:"options"`
	// Wait says what waiting for tomorrow's forecast is worth, empty where nothing can begin before it.
	Wait message.Sentence `json:"wait,omitempty"`
}

// worthPct is from how many points on a difference of chances is told as one.
const worthPct = 5

// worth says what waiting for tomorrow's forecast is worth where p is the chance of the best start before it.
func worth(p float64, w climate.Waited) message.Sentence {
	now, then := math.Round(100*p), math.Round(100*w.Then)
	today, later := message.Val(now, "%"), message.Val(then, "%")
	switch {
	case p < leastChance || w.None:
		return nil
	case then >= now+worthPct:
		return message.Of(
			"Wait for tomorrow's forecast, if nothing presses: the start that it makes best holds %v of the time, the best before it %v.", later, today)
	case now >= then+worthPct:
		return message.Of(
			"Do not wait for tomorrow's forecast: the best start before it holds %v of the time, the best after it %v.",
			today, later)
	}
	return message.Of("Waiting for tomorrow's forecast changes little: %v now, %v then.", today, later)
}

// leastChance is the least share of futures that is called a chance.
const leastChance = 0.05

// BestChances ranks the starts of the week from now by odds, one for each asked
// coat, and names the three best, best first; waits are of the same coats. known is the end of the forecast.
func (s Situation) BestChances(waiting []Waiting, odds []climate.Odds, waits []climate.Waited, known time.Time) []Best {
	out := make([]Best, 0, len(waiting))
	for k, w := range waiting {
		b := Best{SurfaceID: w.Surface.ID, Surface: w.Surface.Name, Options: []Option{}}
		b.What = message.Of("%v, %v", w.Surface.Next.Sheet.Kind, step.Ordinal(w.Surface.Next.N, w.Surface.Next.Of))
		local := s.Now.In(s.Loc)
		for d := range 7 {
			day := time.Date(local.Year(), local.Month(), local.Day()+d, 0, 0, 0, 0, s.Loc)
			from, to := later(day, w.From), day.AddDate(0, 0, 1).Add(-time.Second)
			p, at, opens, closes, ok := odds[k].Best(from.Truncate(time.Hour), to)
			if !ok || p < leastChance {
				continue
			}
			o := Option{From: later(opens, w.From), To: later(closes, later(opens, w.From)), At: later(at, w.From),
				ChancePct: math.Round(100 * p), Forecast: !at.After(known)}
			o.Sand = w.Closes != nil && at.After(*w.Closes)
			if o.Forecast {
				if c, ok := w.Ask.Job.At(w.Surface.Weather, o.At); ok {
					o.Nearest = &c
				}
			}
			b.Options = append(b.Options, o)
		}
		sort.SliceStable(b.Options, func(i, j int) bool { return b.Options[i].ChancePct > b.Options[j].ChancePct })
		b.Options = b.Options[:min(3, len(b.Options))]
		b.Sentence = s.chance(b)
		if soon, _, _, _, ok := odds[k].Best(w.From.Truncate(time.Hour), s.Now.Add(climate.NextForecast)); ok {
			b.Wait = worth(soon, waits[k])
		}
		out = append(out, b)
	}
	return out
}

// chance says the best one.
func (s Situation) chance(b Best) message.Sentence {
	if len(b.Options) == 0 {
		return message.Of("%v: no chance for %s this week.", message.Strong(b.Surface), b.What)
	}
	o := b.Options[0]
	when := message.Of("%v", message.Clock(o.From, s.Now, s.Loc))
	if message.SameDay(o.From, s.Now, s.Loc) {
		when = message.Of("today %v", when)
	}
	if o.To.After(o.From) {
		when = message.Of("%v to %v", when, message.Clock(o.To, o.From, s.Loc))
	}
	odds := message.Val(o.ChancePct, "%")
	if o.Sand {
		return message.Of("%v: best for %v is %v, %v, after sanding.", message.Strong(b.Surface), b.What, when, odds)
	}
	return message.Of("%v: best for %v is %v, %v.", message.Strong(b.Surface), b.What, when, odds)
}

func later(a, b time.Time) time.Time {
	if b.After(a) {
		return b
	}
	return a
}

// Indoor is work that does not wait for the weather.
type Indoor struct {
	SurfaceID string           `json:"surfaceId"`
	Text      message.Sentence `json:"text"`
}

// WetDay lists what to do when it rains: coats under cover, those on parts that
// can be taken in, and desk work that the figures need. portable holds the ids of
// such parts.
func (s Situation) WetDay(portable map[string]bool) []Indoor {
	out := []Indoor{}
	sheets := map[string]bool{}
	for _, f := range s.Surfaces {
		if f.Next == nil {
			continue
		}
		what := message.Of("%v, %v", f.Next.Sheet.Kind, step.Ordinal(f.Next.N, f.Next.Of))
		switch {
		case f.Sheltered:
			out = append(out, Indoor{f.ID, message.Of("%s: is under cover; %v, if it is warm enough", f.Name, what)})
		case portable[f.ID]:
			out = append(out, Indoor{f.ID, message.Of("%s: take it under cover; %v", f.Name, what)})
		}
	}
	for _, f := range s.Surfaces {
		if f.Next != nil && f.Next.Sheet.Example && !sheets[f.Next.Sheet.Name] && len(sheets) < 3 {
			sheets[f.Next.Sheet.Name] = true
			out = append(out, Indoor{Text: message.Of("Enter the data sheet of %s: its figures are examples",
				f.Next.Sheet.Name)})
		}
	}
	return append(out, Indoor{Text: message.Of("Count the shelf in Stores; clean rollers, brushes and boards")})
}
