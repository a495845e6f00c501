package clock

import (
	"time"

	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/film/mix"
	"allcoats/core/physics/cure"
)

// Timer is something to be back for. TempC is the mean temperature that it is
// reckoned with, Forecast that part of it lies ahead; At is nil if the weather known
// does not reach it. Ring says that it is worth a sound.
type Timer struct {
	Key      string     `json:"key"`
	Label    string     `json:"label"`
	At       *time.Time `json:"at,omitempty"`
	TempC    float64    `json:"tempC"`
	Forecast bool       `json:"forecast"`
	Ring     bool       `json:"ring"`
	Note     string     `json:"note,omitempty"`
}

// Keys of the timers.
const (
	InductionOver = "induction"
	PotEnds       = "pot"
	WetEdge       = "wet-edge"
	TapePull      = "tape"
)

// WetEdgePart is the part of the time to touch-dry in which a wet edge is kept,
// tapePart that after which tape still lifts clean: rules of thumb.
const (
	WetEdgePart = 0.1
	tapePart    = 0.4
)

// meanC is the mean of the surface's temperature over whole records in [from, to].
func meanC(w field.Weather, from, to time.Time) float64 {
	sum, n := 0.0, 0
	for i, h := range w.Air {
		if !h.At.Before(from.Truncate(time.Hour)) && !h.At.After(to) {
			sum += w.SurfaceC[i]
			n++
		}
	}
	if n == 0 {
		return 0
	}
	return sum / float64(n)
}

// timed is what timers run along.
type timed struct {
	field.Weather
	path      cure.Path
	from, now time.Time
}

// run times a maximum table's progress to target.
func (w timed) run(key, label string, table cure.Table, target float64) Timer {
	t := Timer{Key: key, Label: label, Ring: true}
	if ev := (cure.Clock{Table: table, Side: cure.Maximum}).Run(w.path, w.from, target); ev.Reached != nil {
		t.At = ev.Reached
		t.TempC = meanC(w.Weather, w.from, *ev.Reached)
		t.Forecast = ev.Reached.After(w.now)
	}
	return t
}

// PotTimers are those of a pot of so many litres mixed at an instant, standing in
// air: the end of its induction and of its pot life.
func PotTimers(s product.Sheet, litres float64, mixed time.Time, air field.Weather, now time.Time) []Timer {
	out := []Timer{}
	if s.InductionMin > 0 {
		at := mixed.Add(time.Duration(s.InductionMin * float64(time.Minute)))
		out = append(out, Timer{Key: InductionOver, Label: "Induction over: it may be laid", At: &at,
			TempC: meanC(air, mixed, at), Ring: true, Forecast: at.After(now)})
	}
	if len(s.PotLife) > 0 && len(air.Air) > 0 {
		along := timed{air, air.Path(cure.Indifferent), mixed, now}
		t := along.run(PotEnds, "Pot life ends", s.PotLife, mix.MassFactor(s, litres))
		t.Note = "by the air where the pot stands; warm hands and sun shorten it"
		out = append(out, t)
	}
	return out
}

// FreshTimers are those of a coat that was begun at an instant: its wet edge and
// when the tape is to be pulled.
func FreshTimers(s product.Sheet, laid time.Time, w field.Weather, now time.Time) []Timer {
	out := []Timer{}
	if len(s.TouchDry) == 0 || len(w.Air) == 0 {
		return out
	}
	along := timed{w, w.Path(s.Humidity), laid, now}
	edge := along.run(WetEdge, "Wet edge is lost", s.TouchDry, WetEdgePart)
	edge.Note = "a tenth of the time to touch-dry: a rule of thumb"
	tape := along.run(TapePull, "Pull the tape", s.TouchDry, tapePart)
	tape.Note = "wet enough not to tear: a rule of thumb"
	return append(out, edge, tape)
}

// Timers are the events of a running clock that are worth coming back for.
func (c Clock) Timers(w field.Weather, started time.Time) []Timer {
	out := []Timer{}
	for _, e := range c.Events {
		switch e.Name {
		case TouchDry, Sandable, RecoatOpens, RecoatCloses, ThroughDry, Immersion:
			if e.At != nil {
				out = append(out, Timer{Key: e.Name, Label: e.Label, At: e.At, TempC: meanC(w, started, *e.At),
					Forecast: e.Forecast, Ring: e.Name != Immersion})
			}
		}
	}
	return out
}
