package app

import (
	"context"
	"slices"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/field"
	"allcoats/core/film/sand"
	"allcoats/core/film/step"
	"allcoats/core/job/logbook"
	"allcoats/core/physics/cure"
)

// SandQuery asks for the sanding of a surface: From is the scratch that is there, To
// what the next coat wants; 0 is what is usual.
type SandQuery struct {
	From, To int
	Wet      bool
}

// Sanding is a plan of it with when it may begin.
type Sanding struct {
	sand.Plan
	From int `json:"from"`
	To   int `json:"to"`
	// Sandable is when the last coat may be sanded, Green when ridges may be knocked
	// down; nil if nothing waits, or the weather known does not reach so far.
	Sandable *time.Time       `json:"sandable,omitempty"`
	Green    *time.Time       `json:"green,omitempty"`
	Ready    bool             `json:"ready"`
	Says     message.Sentence `json:"says"`
	Next     string           `json:"next"`
	FilmUm   float64          `json:"filmUm"`
	// Clogs says what it means when the paper clogs or the board skips.
	Clogs message.Sentence `json:"clogs"`
	// Ring is the colour to stop at, empty if none is known.
	Ring message.Sentence `json:"ring,omitempty"`
}

// ring is the colour to stop at: that of the old layer that must stay, where the film above it
// is sanded.
func ring(f Surface) message.Sentence {
	stop, layers := f.Findings.Stop, f.Findings.Layers
	if stop == 0 || stop > len(layers) || layers[stop-1].Colour == "" {
		return nil
	}
	return message.Of("Stop where a ring of %s shows: it is the %s that must stay.", layers[stop-1].Colour,
		string(layers[stop-1].Kind))
}

// Sanding plans the sanding of a surface before its next coat.
func (a *App) Sanding(ctx context.Context, surfaceID string, ask SandQuery) (Sanding, error) {
	row, err := a.store.Read(ctx).Surface(ctx, surfaceID)
	if err != nil {
		return Sanding{}, err
	}
	o, err := a.look(ctx, row.BoatID)
	if err != nil {
		return Sanding{}, err
	}
	f := o.surface(surfaceID)
	b, err := o.buildUp(surfaceID, o.steps[surfaceID])
	if err != nil {
		return Sanding{}, err
	}
	out := Sanding{From: ask.From, To: ask.To}
	next := product.AnyKind
	var on product.Sheet
	for _, s := range o.s.Surfaces {
		if s.ID != surfaceID {
			continue
		}
		if s.Next != nil {
			next = s.Next.Sheet.Kind
		}
		if s.Last != nil {
			on = s.Last.Sheet
			out.ready(s.Last, s.Weather, o.now)
		}
	}
	out.Next = next.Name()
	lo, hi := next.Grits(on.Kind)
	out.Ring = ring(f)
	if out.From == 0 {
		out.From = lo
		if on.Kind.Info().Filler {
			out.From = 80
		}
	}
	if out.To == 0 {
		out.To = max(hi, out.From)
	}
	r := sand.Request{From: out.From, Filler: on.Kind.Info().Filler, To: out.To, AreaM2: f.Area.AreaM2,
		Access: f.accessFactor(), Wet: ask.Wet, FilmUm: b.Margin.AboveUm, FilmKnown: b.Margin.Known &&
			b.Margin.AboveUm > 0, Next: next,
		Antifoul: o.antifouled(f, on)}
	out.FilmUm = b.Margin.AboveUm
	if out.Plan, err = sand.Make(r); err != nil {
		return out, err
	}
	// What is usual must not go through a film that has to stay: begin finer.
	for ask.From == 0 && out.through() && r.From < r.To {
		r.From = sand.Finer(r.From)
		if out.Plan, err = sand.Make(r); err != nil {
			return out, err
		}
	}
	out.From = r.From
	out.Clogs = message.Of("If the paper clogs or the board skips, what is below is not cured: stop")
	if out.Sandable != nil && !out.Ready {
		out.Clogs = message.Of("%v, and come back %v", out.Clogs, message.Clock(*out.Sandable, o.now, o.s.Loc))
	} else {
		out.Clogs = message.Of("%v, try a thumbnail again tomorrow", out.Clogs)
	}
	out.Clogs = message.Of("%v.", out.Clogs)
	out.Says = out.says(f.Name, o)
	return out, nil
}

// antifouled reports whether the paper meets antifouling on a surface: the last coat's,
// or, where none is logged, an old layer's that was not stripped.
func (w work) antifouled(f Surface, last product.Sheet) bool {
	if last.Kind != "" {
		return last.Kind.Info().Antifouling
	}
	stripped := slices.ContainsFunc(w.log[f.ID], func(e logbook.Logged) bool { return e.Kind == step.Strip })
	return !stripped && slices.ContainsFunc(f.Findings.Layers, func(l survey.Layer) bool {
		return l.Kind == survey.OldAntifouling
	})
}

// ready fills in when a coat may be sanded.
func (s *Sanding) ready(last *clock.Laid, w field.Weather, now time.Time) {
	c := clock.Run(*last, last.Sheet.Kind, w, now)
	s.Sandable = c.Event(clock.Sandable).At
	s.Ready = s.Sandable != nil && !s.Sandable.After(now)
	if last.Sheet.Kind.Info().Filler && len(last.Sheet.Sandable) > 0 {
		s.Green = cure.Clock{Table: last.Sheet.Sandable, FloorC: last.Sheet.MinCureC}.Run(w.Path(last.Sheet.Humidity),
			last.Started, sand.GreenPart).Reached
	}
}

// through reports whether the flats are sanded through.
func (s Sanding) through() bool { return len(s.Margins) > 0 && s.Margins[0].Through }
