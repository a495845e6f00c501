package app_test

import (
	"testing"

	"allcoats/app"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/job/rules"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A new boat of each material is planned in one go, with nothing that fails and no coat
// on bare metal that is no metal primer.
func TestANewBoatIsPlannedInOneGo(t *testing.T) {
	a := withDemo(t)
	for _, c := range []struct {
		template  string
		substrate survey.Substrate
	}{{"motor-launch", survey.GRP}, {"wooden-long-keel", survey.StripPlank}, {"metal-workboat", survey.Aluminium}} {
		boat := must(a.AddBoat(ctx,
			app.NewBoat{BoatEdit: app.BoatEdit{Name: "New " + c.template, PlaceID: must(a.Places(ctx))[0].ID,
				Dimensions: area.Dimensions{HullForm: area.Medium, LOAM: 8, LWLM: 7.2, BeamM: 2.8, DraughtM: 0.7,
					FreeboardM: 0.9}}, Template: c.template, Substrate: c.substrate}))
		if c.substrate == survey.Aluminium {
			assert.Contains(t, launching(a, boat), "Nothing is planned on")
		}
		starts := must(a.Starts(ctx, boat.ID))
		choices := []app.StartChoice{}
		for _, s := range starts {
			require.NotEmpty(t, s.Schools, s.Surface)
			choices = append(choices, app.StartChoice{SurfaceID: s.SurfaceID, Scheme: s.Schools[0].Scheme})
		}
		_, err := a.Begin(ctx, boat.ID,
			append(choices[:1:1], app.StartChoice{SurfaceID: choices[1].SurfaceID, Scheme: "none"}))
		assert.Equal(t, "[1].scheme", faultAt(t, err))
		assert.Len(t, must(a.Starts(ctx, boat.ID)), len(starts), "all or none")
		o := must(a.Begin(ctx, boat.ID, choices))
		assert.Zero(t, o.Stops, c.template)
		for _, s := range choices {
			for _, f := range must(a.BuildUp(ctx, s.SurfaceID)).Findings {
				assert.NotEqual(t, rules.Stop, f.Severity, f.Text)
			}
		}
		assert.Empty(t, must(a.Starts(ctx, boat.ID)))
		_, err = a.Begin(ctx, boat.ID, choices[:1])
		assert.Equal(t, "[0].surfaceId", faultAt(t, err))
		if c.substrate == survey.Aluminium {
			assert.Contains(t, launching(a, boat), "can be launched from")
		}
	}
}

// launching is what the yard's plan says of a boat.
func launching(a *app.App, boat app.Boat) string {
	for _, l := range must(a.YardPlan(ctx, boat.PlaceID)).Plan.Launches {
		if l.BoatID == boat.ID {
			return said(l.Says)
		}
	}
	return ""
}
