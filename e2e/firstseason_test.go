package e2e

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// From an empty database to a season's plan for a boat of each of three materials: her
// figures, a school for every surface in one go, what to buy, when she can be launched.
func TestFirstSeason(t *testing.T) {
	s := site(t, false)
	p := tab(t, s)
	for i, b := range []struct{ name, form, hull, of, job string }{{"Dunlin", "full-bodied", "motor launch", "bare GRP",
		"Bottom: barrier and antifouling"}, {"Teal", "round bilge", "wooden yacht", "strip plank", "Brightwork"},
		{"Smew", "full-bodied", "metal work boat", "aluminium", "Metal topsides"}} {
		p.Go("/boats/new").See("1 What she is").Press(b.form).Fill("Her name", b.name).Choose("Mostly of", b.of).Fill(
			"Length over all", "8").Fill("Beam", "2.8").Choose("Which side has the morning sun?", "port")
		if i == 0 {
			p.Fill("Name of the place", "Home Quay").Fill("Position", "52.4, 1.2").See("Europe/London").Press(
				"Simulated weather")
		}
		p.See("Surfaces of a " + b.hull).Press("Add the boat").See("Take a school for each")
		if i == 0 {
			p.Press("Plan").SeeIn("h1", "Nothing is planned on "+b.name).Press("Bench").See(
				"Coats are planned in Build-up")
		}
		p.Press("Stores").See("Nothing is to be bought").Press("Plan coats in Build-up").SeeIn("[data-testid=starts]",
			b.job)
		p.Press("Plan these").SeeIn("h1", "coats on").until("nothing waits any more",
			`!document.querySelector("[data-testid=starts]")`)
		p.Press("Stores").SeeIn("h1", "Buy").Press("Plan").SeeIn("h1", b.name)
		require.NoError(t, p.Err(), b.name)
	}
	// The deck of the last one is drawn on the map only: the panels begin with that.
	p.Press("Finishes").Press("Non-skid").SeeIn("h1", "Trace the deck first").Press(
		"Begin with the deck as the map draws it").SeeIn("h1", "1 panel").Kept().See("Put it into the build-up")
}
