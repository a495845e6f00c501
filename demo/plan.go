package demo

import (
	"context"
	"fmt"
	"math"
	"time"

	"allcoats/app"
	"allcoats/core/base/calendar"
	"allcoats/core/boat/area"
	"allcoats/core/boat/outline"
	"allcoats/core/boat/survey"
	"allcoats/core/film/step"
	"allcoats/core/finish/fair"
	"allcoats/core/job/logbook"
	"allcoats/core/job/quote"
	"allcoats/core/job/task"
	"allcoats/core/planning/plan"
	"allcoats/instruments"
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
			{Name: "Ada", Week: weekdays, Off: []string{}, Skills: []task.Skill{task.Spraying, task.Varnishing}},
			{Name: "Wim", Week: weekdays, Off: []string{}, Skills: []task.Skill{task.Fairing}},
			{Name: "Kim", Week: weekends, Off: []string{}, Skills: []task.Skill{task.Varnishing}},
		},
		Guns: 1, Noise: calendar.Hours{FromH: 8, ToH: 19}, HourCents: 2800, TravelMin: 15, DustM: 10,
		AlongM: map[string]float64{}, Own: map[string][]task.OwnTask{}, Off: map[string]map[string]string{},
		Marks: map[string]plan.Mark{},
	}
	for k, b := range boats {
		s.AlongM[b.ID] = 14 * float64(k)
		if b.Name != "Marsh Lantern" {
			continue
		}
		v, err := a.Survey(ctx, b.ID)
		if err != nil {
			return err
		}
		for _, f := range v.Surfaces {
			if f.Name == "Deck" {
				s.Own[b.ID] = []task.OwnTask{
					{Own: task.Own{Name: "Dry-fit and drill for the cleats", Hours: 3, Crew: 1, SurfaceID: f.ID,
						When: "before", Outdoors: true, Light: true}},
					{Own: task.Own{Name: "Bed the cleats and fairleads", Hours: 5, Crew: 1, SurfaceID: f.ID,
						When: "after", Outdoors: true, Light: true}},
					{Own: task.Own{Name: "Service the stern gland", Hours: 3, Crew: 1}},
				}
			}
		}
	}
	if err := remember(ctx, a, boats); err != nil {
		return fmt.Errorf("log: %w", err)
	}
	if _, err := a.SetPlan(ctx, placeID, 0, s); err != nil {
		return fmt.Errorf("plan: %w", err)
	}
	if _, err := a.MakePlan(ctx, placeID, app.Making{}, nil); err != nil {
		return fmt.Errorf("plan: %w", err)
	}
	return nil
}

// remember logs what is no coat and no sanding: an idle day, a wash, an inspection
// with the gauge over the first coats of the launch's bottom.
func remember(ctx context.Context, a *app.App, boats []app.Boat) error {
	now, err := a.Now(ctx)
	if err != nil {
		return err
	}
	for _, b := range boats {
		if err := spent(ctx, a, b.ID, now); err != nil {
			return err
		}
		if b.Name == "Sounding Line" {
			if err := faired(ctx, a, b.ID, now); err != nil {
				return err
			}
		}
		if b.Name != "Marsh Lantern" {
			continue
		}
		if err := quoted(ctx, a, b, now); err != nil {
			return err
		}
		log, err := a.Log(ctx, b.ID)
		if err != nil {
			return err
		}
		add := []logbook.Entry{{BoatID: b.ID, Kind: step.Idle, StartedAt: now.Add(-50 * time.Hour), Who: "Wim",
			Note: "rain all day"}}
		for _, e := range log {
			if e.Kind == step.Coat && e.Surface == "Bottom" {
				add = append(add,
					logbook.Entry{SurfaceID: e.SurfaceID, Kind: step.Wash, StartedAt: now.Add(-26 * time.Hour),
						Hours: 0.7, Who: "Wim", Note: "warm water and detergent, rinsed"},
					logbook.Entry{SurfaceID: e.SurfaceID, Kind: "inspect", StartedAt: now.Add(-25 * time.Hour),
						Hours: 0.5, Who: "Ada", Detail: logbook.Detail{
							Dry: &logbook.Dry{NominalUm: 200, MaximumUm: 600, ReadAt: now.Add(-25 * time.Hour),
								ReadingsUm: []float64{222, 214, 208, 231, 219, 196, 205, 224, 217, 211, 228, 203, 199,
									216, 225, 209, 213, 220, 206, 218}},
						}})
				break
			}
		}
		for _, e := range add {
			if _, err := a.AddEntry(ctx, app.NewEntry{Entry: e}); err != nil {
				return err
			}
		}
	}
	return nil
}

// quoted enters what a shop asks for the coats of a launch's topsides.
func quoted(ctx context.Context, a *app.App, b app.Boat, now time.Time) error {
	s, err := a.Survey(ctx, b.ID)
	if err != nil {
		return err
	}
	q := quote.Quote{Who: "Sallow Creek spray shop", Coats: true, Cents: 210_000,
		ReadyOn: now.AddDate(0, 0, 21).Format(time.DateOnly), LastsYears: 8, Note: "two coats, two-part, sprayed"}
	for _, f := range s.Surfaces {
		if f.Part == area.Topsides {
			q.Surfaces = append(q.Surfaces, f.ID)
		}
	}
	_, err = a.SetQuotes(ctx, b.ID, 1, []quote.Quote{q})
	return err
}

// spent logs what the yard and the chandler asked for.
func spent(ctx context.Context, a *app.App, boatID string, now time.Time) error {
	for _, s := range []struct {
		daysAgo int
		logbook.Spent
		note string
	}{{28, logbook.Spent{On: "rent", Cents: 18000}, "hard standing"}, {12, logbook.Spent{On: "abrasives", Cents: 6450},
		"discs, tape, mixing pots"}} {
		e := logbook.Entry{BoatID: boatID, Kind: step.Spend, StartedAt: now.AddDate(0, 0, -s.daysAgo), Who: "Ada",
			Note: s.note, Detail: logbook.Detail{Spent: &s.Spent}}
		if _, err := a.AddEntry(ctx, app.NewEntry{Entry: e}); err != nil {
			return err
		}
	}
	return nil
}

// faired reads gaps on a side of a boat, and logs two rounds of fairing there.
func faired(ctx context.Context, a *app.App, boatID string, now time.Time) error {
	s, err := a.Survey(ctx, boatID)
	if err != nil {
		return err
	}
	for _, f := range s.Surfaces {
		if f.Name != "Topsides port" {
			continue
		}
		for n, r := range []logbook.Round{{N: 1, Lows: 46, Pinholes: 120}, {N: 2, Lows: 19, Pinholes: 65}} {
			e := logbook.Entry{SurfaceID: f.ID, Kind: step.Fair,
				StartedAt: now.Add(time.Duration(-60+24*n) * time.Hour), Litres: 1.6 - 0.7*float64(n),
				Hours: 6 - 1.5*float64(n), Grit: 80, Who: "Wim", Detail: logbook.Detail{Round: &r}}
			if _, err := a.AddEntry(ctx, app.NewEntry{Entry: e}); err != nil {
				return err
			}
		}
		edge := instruments.Battens{Seed: Seed, EdgeM: 1, SpacingM: 0.1}
		var lines []fair.Line
		for i, name := range []string{"over the boot-top", "a third up", "two thirds up", "below the rail"} {
			up := 0.15 * float64(i+1)
			l := edge.Line(name, up, 0.15, 3)
			l.On = &fair.Track{View: outline.PortSide, From: outline.Point{X: 1.4, Y: 0.08 + up},
				To: outline.Point{X: 4.4, Y: 0.08 + up}}
			lines = append(lines, l)
		}
		f.Findings.HardLines = []survey.HardLine{{Kind: "chine", View: outline.PortSide,
			Points: []outline.Point{{X: 0.1, Y: 0.04}, {X: 3.5, Y: 0.08}, {X: 5.9, Y: 0.3}}}}
		if _, err := a.EditSurface(ctx, f.ID, f.Version, f.SurfaceEdit); err != nil {
			return err
		}
		low := fair.Low{Name: "under the hawse", View: outline.PortSide, By: "hand", DepthMM: 3}
		for k := range 16 {
			low.Points = append(low.Points, outline.Point{X: 5.3 + 0.22*math.Cos(math.Pi*float64(k)/8), Y: 0.6 +
				0.14*math.Sin(math.Pi*float64(k)/8)})
		}
		_, err := a.SetFairing(ctx, f.ID, "", 0, app.Readings{Round: 3, BattenM: edge.EdgeM, SpacingM: edge.SpacingM,
			RowsM: 0.15, Gaps: [][]*float64{}, Lines: lines, Lows: []fair.Low{low}, ErrorMM: 0.25,
			Limits: fair.Limits{MaxFillMM: 6, StiffnessM: 0.6}, Class: "show"})
		return err
	}
	return nil
}
