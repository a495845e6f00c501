package app

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/base/parallel"
	"allcoats/core/conditions/readiness"
	"allcoats/core/physics/weather"
	"allcoats/core/planning/plan"
)

// Morning is what a yard begins the day with: what may be done on which boat, which is late, the weather once.
type Morning struct {
	Says   message.Sentence `json:"says"`
	Detail message.Sentence `json:"detail"`
	Now    time.Time        `json:"now"`
	Places []PlaceMorning   `json:"places"`
}

// PlaceMorning is the morning of the boats that stand at a place, the late ones first.
type PlaceMorning struct {
	Place   Place            `json:"place"`
	Weather message.Sentence `json:"weather"`
	// Ribbon is that of one boat, for the weather of all; its surface is RibbonOf.
	Ribbon   Ribbon        `json:"ribbon"`
	RibbonOf string        `json:"ribbonOf"`
	Boats    []BoatMorning `json:"boats"`
}

// BoatMorning is the sentence of the day of a boat, and how her launch stands.
type BoatMorning struct {
	ID        string           `json:"id"`
	Name      string           `json:"name"`
	Says      message.Sentence `json:"says"`
	Detail    message.Sentence `json:"detail"`
	SurfaceID string           `json:"surfaceId"`
	// Launch is nil without a plan of hers.
	Launch *plan.Launching `json:"launch,omitempty"`

	chance readiness.Chance
}

// late ranks a boat: 2 has work without a place, 1 comes after the day wanted.
func (b BoatMorning) late() int {
	switch {
	case b.Launch == nil:
		return 0
	case b.Launch.Left > 0:
		return 2
	case b.Launch.LateH > 0:
		return 1
	}
	return 0
}

// Morning answers for all boats.
func (a *App) Morning(ctx context.Context) (Morning, error) {
	out := Morning{Places: []PlaceMorning{}}
	now, err := a.Now(ctx)
	if err != nil {
		return out, err
	}
	out.Now = now
	places, err := a.Places(ctx)
	if err != nil {
		return out, err
	}
	boats, err := a.Boats(ctx)
	if err != nil {
		return out, err
	}
	mornings, failed := make([]PlaceMorning, len(places)), make([]error, len(places))
	err = parallel.Each(ctx, len(places), nil, func(_, i int) {
		mornings[i], failed[i] = a.morningAt(ctx, places[i], now, slices.DeleteFunc(slices.Clone(boats),
			func(b Boat) bool { return b.PlaceID != places[i].ID }))
	})
	if err := errors.Join(append(failed, err)...); err != nil {
		return out, err
	}
	var all []BoatMorning
	for _, m := range mornings {
		if len(m.Boats) > 0 {
			out.Places, all = append(out.Places, m), append(all, m.Boats...)
		}
	}
	out.Says, out.Detail = sayMorning(all)
	return out, nil
}

// morningAt is the morning of the boats that stand at p.
func (a *App) morningAt(ctx context.Context, p Place, now time.Time, boats []Boat) (PlaceMorning, error) {
	m := PlaceMorning{Place: p, Weather: message.Sentence{}, Boats: []BoatMorning{}}
	if len(boats) == 0 {
		return m, nil
	}
	shown := false // the ribbon of the first that can be read
	for _, b := range boats {
		t, err := a.Today(ctx, b.ID)
		if err != nil {
			why, err := unread(ctx, b.Name, err)
			if err != nil {
				return m, err
			}
			m.Boats = append(m.Boats, BoatMorning{ID: b.ID, Name: b.Name, Says: why, Detail: message.Sentence{}})
			continue
		}
		first := !shown
		if first {
			m.Ribbon, shown = t.Ribbon, true
		}
		one := BoatMorning{ID: b.ID, Name: b.Name, Says: t.Answer.Headline, Detail: t.Answer.Detail,
			SurfaceID: t.Answer.SurfaceID}
		for _, l := range t.Answer.Lanes {
			if l.SurfaceID == one.SurfaceID {
				if len(l.Cover) == 0 { // what must be covered first is no chance
					one.chance = l.Chance
				}
				if first {
					m.RibbonOf = l.Surface + ", " + b.Name
				}
			}
		}
		m.Boats = append(m.Boats, one)
	}
	yard, err := a.YardPlan(ctx, p.ID)
	if err != nil {
		return m, err
	}
	if yard.Plan != nil {
		for i := range m.Boats {
			if k := slices.IndexFunc(yard.Plan.Launches, func(l plan.Launching) bool {
				return l.BoatID == m.Boats[i].ID
			}); k >= 0 {
				m.Boats[i].Launch = &yard.Plan.Launches[k]
			}
		}
	}
	slices.SortStableFunc(m.Boats, func(a, b BoatMorning) int { return cmp.Compare(b.late(), a.late()) })
	air := make(weather.Series, len(m.Ribbon.Hours))
	for i, h := range m.Ribbon.Hours {
		air[i] = h.Hour
	}
	m.Weather = air.Say(now, p.location())
	return m, nil
}

// sayMorning decides for a yard: what may be coated now, else today, else what is in the way.
func sayMorning(boats []BoatMorning) (says, detail message.Sentence) {
	names := func(keep func(b BoatMorning) bool) message.Sentence {
		var kept []message.Sentence
		for _, b := range boats {
			if keep(b) {
				kept = append(kept, message.Sentence{message.Strong(b.Name)})
			}
		}
		if n := len(kept); n > 1 {
			kept = []message.Sentence{message.Join(kept[:n-1], ", "), kept[n-1]}
			return message.Join(kept, " and ")
		}
		return message.Join(kept, "")
	}
	at := func(c readiness.Chance) message.Sentence {
		return names(func(b BoatMorning) bool { return b.chance == c })
	}
	switch now, today := at(readiness.Now), at(readiness.Today); {
	case len(now) > 0:
		says = message.Of("A coat may go on now: %v.", now)
		if len(today) > 0 {
			says = message.Of("%v Later today: %v.", says, today)
		}
	case len(today) > 0:
		says = message.Of("A coat may go on later today: %v.", today)
	case len(boats) == 0:
		says = message.Of("There is no boat yet.")
	default:
		says = message.Of("No coat may go on today: what each boat waits for is beside her name.")
	}
	late, left := names(func(b BoatMorning) bool {
		return b.late() == 1
	}), names(func(b BoatMorning) bool { return b.late() == 2 })
	switch {
	case len(late)+len(left) == 0 && slices.ContainsFunc(boats, func(b BoatMorning) bool {
		return b.Launch != nil && b.Launch.Due != nil
	}):
		detail = message.Of("No launch that has a day is late.")
	case len(late) > 0:
		detail = message.Of("Late: %v.", late)
	}
	if len(left) > 0 {
		if len(detail) > 0 {
			detail = message.Of("%v ", detail)
		}
		detail = message.Of("%vWith work that finds no place: %v.", detail, left)
	}
	return says, detail
}
