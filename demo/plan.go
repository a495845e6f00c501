package demo

import (
	"context"
	"fmt"

	"allcoats/app"
	"allcoats/core/calendar"
	"allcoats/core/plan"
)

// hire names who works in the yard, gives the launch a few tasks that are no
// coats, and makes the plan.
func hire(ctx context.Context, a *app.App, placeID string) error {
	boats, err := a.Boats(ctx)
	if err != nil {
		return err
	}
	weekdays := calendar.Week{}
	for d := 1; d <= 5; d++ {
		weekdays[d] = calendar.Hours{FromH: 8, ToH: 17}
	}
	weekdays[6] = calendar.Hours{FromH: 8, ToH: 15}
	weekends := calendar.Week{0: {FromH: 9, ToH: 18}, 6: {FromH: 8, ToH: 18}}
	s := app.PlanSettings{
		People: []plan.Person{
			{Name: "Ada", Week: weekdays, Off: []string{}, Skills: []plan.Skill{plan.Spraying, plan.Varnishing}},
			{Name: "Wim", Week: weekdays, Off: []string{}, Skills: []plan.Skill{plan.Fairing}},
			{Name: "Kim", Week: weekends, Off: []string{}, Skills: []plan.Skill{plan.Varnishing}},
		},
		Guns: 1, Noise: calendar.Hours{FromH: 8, ToH: 19}, HourCents: 2800, Own: map[string][]plan.OwnTask{}, Off: map[string]map[string]string{}, Marks: map[string]plan.Mark{},
	}
	for _, b := range boats {
		if b.Name != "Marsh Lantern" {
			continue
		}
		v, err := a.Survey(ctx, b.ID)
		if err != nil {
			return err
		}
		for _, f := range v.Surfaces {
			if f.Name == "Deck" {
				s.Own[b.ID] = []plan.OwnTask{
					{Own: plan.Own{Name: "Dry-fit and drill for the cleats", Hours: 3, Crew: 1, SurfaceID: f.ID, When: "before", Outdoors: true, Light: true}},
					{Own: plan.Own{Name: "Bed the cleats and fairleads", Hours: 5, Crew: 1, SurfaceID: f.ID, When: "after", Outdoors: true, Light: true}},
					{Own: plan.Own{Name: "Service the stern gland", Hours: 4, Crew: 1}},
				}
			}
		}
	}
	if _, err := a.SetPlan(ctx, placeID, 0, s); err != nil {
		return fmt.Errorf("plan: %w", err)
	}
	if _, err := a.MakePlan(ctx, placeID, nil); err != nil {
		return fmt.Errorf("plan: %w", err)
	}
	return nil
}
