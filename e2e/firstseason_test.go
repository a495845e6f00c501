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
	p.Go("/").See("Begin with a boat").Fill("Place name", "Home Quay").Fill("Latitude", "52.4").Fill("Longitude", "1.2")
	for i, b := range []struct{ name, hull, of, job string }{{"Dunlin", "motor launch", "bare GRP", "Bottom: barrier and antifouling"}, {"Teal", "wooden yacht", "strip plank", "Brightwork"}, {"Smew", "metal work boat", "aluminium", "Metal topsides"}} {
		if i > 0 {
			p.Go("/boats/new").See("Add a boat")
		}
		p.Fill("Name", b.name).Fill("Type", "day boat").Fill("Length over all", "8").Fill("Waterline length", "7.2").Fill("Beam", "2.8").Fill("Draught", "0.7").Fill("Mean freeboard", "0.9")
		p.Choose("Hull type", b.hull).Choose("Mostly of", b.of).Press("Add the boat").See("surfaces are only measured roughly")
		if i == 0 {
			p.Press("Plan").SeeIn("h1", "Nothing is planned on "+b.name).Press("Bench").See("Coats are planned in Build-up")
		}
		p.Press("Stores").See("Nothing is to be bought").Press("Plan coats in Build-up").SeeIn("[data-testid=starts]", b.job)
		p.Press("Plan these").SeeIn("h1", "coats on").until("nothing waits any more", `!document.querySelector("[data-testid=starts]")`)
		p.Press("Stores").SeeIn("h1", "Buy").Press("Plan").SeeIn("h1", b.name)
		require.NoError(t, p.Err(), b.name)
	}
	// The deck of the last one is drawn on the map only: the panels begin with that.
	p.Press("Finishes").Press("Non-skid").SeeIn("h1", "Trace the deck first").Press("Begin with the deck as the map draws it").SeeIn("h1", "1 panel").Press("Keep it").See("Put it into the build-up")
}
