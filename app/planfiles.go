package app

import (
	"context"
	"math"
	"time"

	"allcoats/formats"
)

// Calendar returns the plan of a place as an iCalendar file: tasks, and when
// recoat windows close, with alarms.
func (a *App) Calendar(ctx context.Context, placeID string) ([]byte, error) {
	v, err := a.YardPlan(ctx, placeID)
	if err != nil {
		return nil, err
	}
	var events []formats.Event
	if v.Plan == nil || len(v.Plan.Items) == 0 { // a calendar has one entry at least
		why := "nothing is left to do"
		for _, t := range v.Trouble {
			why = t.Says.In(v.Place.location())
		}
		events = append(events, formats.Event{ID: placeID, Start: v.Now, End: v.Now.Add(time.Hour),
			Summary: "No plan: " + why})
		return formats.WriteCalendar("All Coats, "+v.Place.Name, v.Now, events), nil
	}
	for _, it := range v.Plan.Items {
		name := it.Named().String()
		events = append(events, formats.Event{ID: it.TaskID, Start: it.Start, End: it.End, Summary: name,
			Description: it.Why.In(v.Place.location()), AlarmMin: 30})
		if it.Closes != nil && it.Closes.After(v.Now) {
			events = append(events, formats.Event{ID: it.TaskID + ":closes", Start: *it.Closes, End: *it.Closes,
				Summary:     "Window closes before " + name,
				Description: "After this it must be sanded first.", AlarmMin: 12 * 60})
		}
	}
	return formats.WriteCalendar("All Coats, "+v.Place.Name, v.Now, events), nil
}

// PlanTable returns the plan of a place as a table.
func (a *App) PlanTable(ctx context.Context, placeID string) (formats.Table, error) {
	v, err := a.YardPlan(ctx, placeID)
	t := formats.Table{Name: "Plan", Header: []string{"start", "end", "boat", "surface", "what", "hours", "people",
		"window closes", "why not earlier"}}
	if err != nil || v.Plan == nil {
		return t, err
	}
	loc := v.Place.location()
	for _, it := range v.Plan.Items {
		people, closes := "", ""
		for i, p := range it.People {
			if i > 0 {
				people += ", "
			}
			people += p
		}
		if it.Closes != nil {
			closes = it.Closes.In(loc).Format("2006-01-02 15:04")
		}
		t.Rows = append(t.Rows, []any{it.Start.In(loc).Format("2006-01-02 15:04"),
			it.End.In(loc).Format("2006-01-02 15:04"), it.Boat, it.Surface, it.What.String(),
			math.Round(10*it.Hours) / 10, people, closes, it.Why.In(loc)})
	}
	return t, nil
}
