package app

import (
	"context"
	"fmt"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/finish/craft"
	"allcoats/core/finish/fair"
	"allcoats/core/job/logbook"
)

// roundsSay answers whether it is fair enough, else what the next round takes and how many are left.
func (v FairingView) roundsSay(c fair.Class) message.Sentence {
	o := v.Outlook
	if len(v.Rounds) == 0 {
		return message.Of("No round of fairing is logged on this surface yet.")
	}
	took := 0.0
	for _, r := range v.Rounds {
		took += r.Hours
	}
	last := v.Rounds[len(v.Rounds)-1]
	if o.Enough && last.Verdict == logbook.FairEnough {
		return message.Of(
			"You found it fair enough in round %d: stop. %d %s counted, and a %s may keep %.1f; it took %v.", last.N,
			last.Lows, plural(last.Lows, "low was", "lows were"), c.Name, o.Allowed, message.Val(round1(took), "h"))
	}
	if o.Enough {
		return message.Of("Fair enough for a %s: stop. %d %s found, %.1f are allowed; it took %v.", c.Name, last.Lows,
			plural(last.Lows, "low was", "lows were"), o.Allowed, message.Val(round1(took), "h"))
	}
	if o.Left == 0 {
		return message.Of(
			"Fill what the last round found and look once more: few enough for a %s should be left. So far %v.", c.Name,
			message.Val(round1(took), "h"))
	}
	out := message.Of("One more round: about %v for %.0f %% of the lows that are left. A %s wants %s",
		message.Val(round1(o.NextH), "h"), 100*(1-o.Ratio), c.Name, rangeOf(o))
	for _, other := range fair.Classes {
		if other.Key != c.Key {
			if n := fair.Ahead(v.Rounds, v.Surface.Area.AreaM2, other); n.Enough {
				out = message.Of("%v, a %s none", out, other.Name)
			} else {
				out = message.Of("%v, a %s %d", out, other.Name, n.Left)
			}
		}
	}
	return message.Of("%v. So far %v, about %v to come.", out, message.Val(round1(took), "h"),
		message.Val(round1(o.HoursL), "h"))
}

func rangeOf(o fair.Outlook) string {
	if o.LeftLow == o.LeftHigh {
		return fmt.Sprint(o.Left)
	}
	return fmt.Sprintf("%d (%d to %d)", o.Left, o.LeftLow, o.LeftHigh)
}

func plural(n int, one, many string) string {
	if n == 1 {
		return one
	}
	return many
}

// rounds are the rounds of fairing in the log of a surface, and the looks that counted what is left;
// primed reports whether the filler is closed by a primer.
func (o boatState) rounds(surfaceID string) (out []fair.Round, primed bool) {
	out = []fair.Round{}
	filled := false
	for _, e := range o.log[surfaceID] {
		info := o.products[e.ProductID].Kind.Info()
		switch r := e.Round; {
		case r != nil && (e.Kind == step.Fair || e.Kind == step.Inspect):
			out = append(out, fair.Round{Round: *r, At: e.StartedAt, Litres: e.Litres, Hours: e.Hours, Grit: e.Grit,
				Looked: e.Kind == step.Inspect, Primed: primed})
			filled = true
		case e.Kind == step.Fair:
			filled = true
		case e.Kind == step.Strip:
			out, filled, primed = out[:0], false, false
		case e.Kind.Kind().Lays && info.Seals && !info.Metal && filled:
			primed = true
		}
	}
	return out, primed
}

// Spots is the loop over the primer: pinholes found, filled one by one, primed again.
type Spots struct {
	Rounds   []fair.Round     `json:"rounds"`
	Outlook  fair.Outlook     `json:"outlook"`
	Says     message.Sentence `json:"says"`
	Handover *Handover        `json:"handover,omitempty"`
}

func (o boatState) spots(surfaceID string, rounds []fair.Round, c fair.Class) *Spots {
	f := o.surface(surfaceID)
	s := Spots{Rounds: rounds, Outlook: fair.Pins(rounds, f.Area.AreaM2, c)}
	if len(rounds) == 0 {
		s.Says = message.Of(
			"The filler is primed: mist a guide coat on, board it off, and count the pinholes that stay coloured. Log that as a look; about %.0f may stay for a %s.", s.Outlook.Allowed, c.Name)
		return &s
	}
	last := rounds[len(rounds)-1]
	if s.Outlook.Enough {
		s.Says = message.Of(
			"%d %s left under the guide coat, and %.0f may stay for a %s: stop, and go on to the next coat.",
			last.Pinholes, plural(last.Pinholes, "pinhole is", "pinholes are"), s.Outlook.Allowed, c.Name)
		return &s
	}
	if !last.Looked { // these are filled: look again first
		s.Says = message.Of("%d %s filled: prime the spots, and look again.", last.Pinholes,
			plural(last.Pinholes, "pinhole was", "pinholes were"))
		return &s
	}
	n := fair.SpotsOf(last.Pinholes)
	s.Says = message.Of("Fill %d %s one by one, about %v, and prime the spots: %.0f may stay for a %s.", last.Pinholes,
		plural(last.Pinholes, "pinhole", "pinholes"), message.Val(round1(n.WorkH), "h"), s.Outlook.Allowed, c.Name)
	s.Handover = o.handSpots(surfaceID, last.N, n)
	return &s
}

// handSpots is what filling pinholes one by one puts into the build-up.
func (o boatState) handSpots(surfaceID string, round int, n fair.SpotFill) *Handover {
	fine := ""
	for id, s := range o.products {
		if s.Kind.Info().Filler && (fine == "" || s.MaxPassMM < o.products[fine].MaxPassMM ||
			s.MaxPassMM == o.products[fine].MaxPassMM && s.Name < o.products[fine].Name) {
			fine = id
		}
	}
	if fine == "" {
		return nil
	}
	key := fmt.Sprintf("spots-%d", round)
	at := &step.Where{Name: fmt.Sprintf("pinholes of look %d", round),
		Patches: []step.Patch{{Name: "pinholes", AreaM2: n.AreaM2}}}
	blade, _ := film.MethodByKey("blade")
	fill := craft.Coats(key, "main", 1, n.DepthMM*1000*o.products[fine].VolumeSolidsPct/100, blade, n.WorkH,
		message.Of("press it in and strike it off flush; board the spots when it is hard")).At(at).First()
	fill.Work = step.Fair
	steps, roles := o.primed(surfaceID, key, at, []craft.Step{fill})
	roles["main"] = fine
	steps = append(steps, craft.Work(key+"-look", "guide coat over the spots, and count again",
		message.Of("what stays coloured is still open"), 0, 0).As(step.Inspect).At(at).First())
	return o.hand(surfaceID, "fairing", steps, roles)
}

// PlanSpots puts the filling of the pinholes counted last into the build-up of a surface.
func (a *App) PlanSpots(ctx context.Context, surfaceID string) (BuildUp, error) {
	return change(ctx, a, func(ctx context.Context) (BuildUp, error) {
		view, err := a.Fairing(ctx, surfaceID, "")
		if err != nil {
			return BuildUp{}, err
		}
		if view.Spots == nil || view.Spots.Handover == nil {
			return BuildUp{}, fielderr.At("round", "no pinholes were counted over a primer, or they are filled")
		}
		return a.SetBuildUp(ctx, surfaceID, view.Surface.Version, view.Spots.Handover.Steps)
	})
}
