package app_test

import (
	"fmt"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/base/calendar"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/planning/plan"
	"allcoats/demo"

	"github.com/stretchr/testify/require"
)

// yardOfBoats is a place with so many boats of three kinds, each with what a new boat of hers
// begins with, and twelve people.
func yardOfBoats(b *testing.B, n int) (*app.App, string) {
	a := open(b, b.TempDir()+"/a.db")
	require.NoError(b, demo.Build(ctx, a, demo.Now, app.FixedClock))
	place, err := a.AddPlace(ctx, must(a.Places(ctx))[0].PlaceEdit)
	require.NoError(b, err)
	kinds := []struct {
		template  string
		substrate survey.Substrate
	}{{"motor-launch", survey.GRP}, {"wooden-long-keel", survey.StripPlank}, {"metal-workboat", survey.Aluminium}}
	for i := range n {
		k := kinds[i%3]
		launch := demo.Now.AddDate(0, 0, 30+i).Format(time.DateOnly)
		boat, err := a.AddBoat(ctx, app.NewBoat{BoatEdit: app.BoatEdit{Name: fmt.Sprint("Boat ", i), PlaceID: place.ID,
			LaunchDate: launch, HeadingDeg: float64(10 * (i % 4)),
			Dimensions: area.Dimensions{HullForm: area.Medium, LOAM: 8, LWLM: 7.2, BeamM: 2.8, DraughtM: 0.7,
				FreeboardM: 0.9}}, Template: k.template, Substrate: k.substrate})
		require.NoError(b, err)
		var choices []app.StartChoice
		for _, s := range must(a.Starts(ctx, boat.ID))[:2] {
			choices = append(choices, app.StartChoice{SurfaceID: s.SurfaceID, Scheme: s.Schools[0].Scheme})
		}
		_, err = a.Begin(ctx, boat.ID, choices)
		require.NoError(b, err)
	}
	week := calendar.Week{}
	for d := 1; d <= 5; d++ {
		week[d] = calendar.Hours{FromH: 8, ToH: 17}
	}
	s := app.PlanSettings{TravelMin: 15}
	for i := range 12 {
		s.People = append(s.People, plan.Person{Name: fmt.Sprint("P", i), Week: week})
	}
	_, err = a.SetPlan(ctx, place.ID, 0, s)
	require.NoError(b, err)
	return a, place.ID
}

// A yard of sixty boats: its plan read, a first one made, and a better one looked for.
func BenchmarkYardOfSixtyBoats(b *testing.B) {
	a, place := yardOfBoats(b, 60)
	for name, do := range map[string]func() (app.YardPlan, error){
		"first": func() (app.YardPlan, error) {
			return a.MakePlan(ctx, place, app.Making{Quick: true, Anew: true}, nil)
		},
		"read": func() (app.YardPlan, error) { return a.YardPlan(ctx, place) },
		"good": func() (app.YardPlan, error) { return a.MakePlan(ctx, place, app.Making{}, nil) },
	} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				p, err := do()
				require.NoError(b, err)
				require.NotNil(b, p.Plan)
			}
		})
	}
}

// The plan of twenty boats after something was written.
func BenchmarkYardOfTwentyBoatsAfterAWrite(b *testing.B) {
	a, place := yardOfBoats(b, 20)
	_, err := a.MakePlan(ctx, place, app.Making{Quick: true}, nil)
	require.NoError(b, err)
	for b.Loop() {
		require.NoError(b, a.SetCurrency(ctx, "EUR"))
		p, err := a.YardPlan(ctx, place)
		require.NoError(b, err)
		require.NotNil(b, p.Plan)
	}
}

// A thousand futures of the demo yard: its plan replayed in each.
func BenchmarkRiskOfTheDemo(b *testing.B) {
	a := open(b, b.TempDir()+"/a.db")
	require.NoError(b, demo.Build(ctx, a, demo.Now, app.FixedClock))
	place := must(a.Places(ctx))[0].ID
	for b.Loop() {
		risk, err := a.Risk(ctx, place, 1000, nil)
		require.NoError(b, err)
		require.NotEmpty(b, risk.Boats)
	}
}
