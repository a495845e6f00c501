package e2e

import (
	"context"
	"testing"

	"github.com/stretchr/testify/require"
)

// A season's records through the interface: an expense and a budget in the ledger, a shop's quote held
// against one's own hours, paint that is on order and comes, a coat that is felt, a lesson that does not
// count, and a walk-round that puts a finish into the job.
func TestRecordsTeach(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	launch, yawl := "/boats/"+boats[0].ID, "/boats/"+boats[1].ID
	p := tab(t, s)

	// €180 of rent and €64.50 of discs are there; 99.50 for a hired lift more.
	p.Go(launch+"/log?view=accounts").See("yard rent").See("€65").Press("Log an expense").Choose("What for",
		"hire").Press("Log it").See("must be").
		Fill("How much", "99.50").Fill("Who", "Ada").Press("Log it").See("money was spent: hire, €99.50")
	p.Go(launch + "/log?view=accounts").See("€100").Press("By person").See("Ada").Press("By month").See("Apr 2026").See(
		"May 2026")
	p.Fill("Budget for all of it", "4000").Press("That is the budget").SeeIn("h1", "Over the budget of €4,000")
	p.Fill("Budget for all of it", "9000").Press("That is the budget").SeeIn("h1", "Within the budget of €9,000")
	require.NoError(t, p.Err())

	// The demo's quote is dearer than oneself; one for a hundred is not.
	p.See("Do it yourself, if your hours are worth less than").Press("Enter a quote").Press("Compare it").See(
		"say who asks it").
		Fill("Who asks it", "A friend").Fill("What it asks, with material", "100").Press("Bottom").Press(
		"Compare it").See("A friend is cheaper than your own hours").
		Press("See the odds with it").SeeIn("h1", "Marsh Lantern is ready half the time by")
	require.NoError(t, p.Err())

	// What is on order is awaited, not bought again, and comes.
	p.Go(launch+"/stores").See("On the shelf").Press("Put something on the shelf").Choose("Product",
		"Antifouling, soft, wearing away").Fill("Litres there", "20").
		js(
			`(() => { const e = [...document.querySelectorAll("label")].find((l) => l.innerText.startsWith("Ordered, comes on")); const i = document.getElementById(e.htmlFor); Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(i, "2026-05-20"); i.dispatchEvent(new Event("input", { bubbles: true })); return true; })()`).
		Press("Keep the order").See("awaited on Wed 20 May 2026").See("20.00 L awaited")
	p.Go(launch + "/plan").See("Weekends are shaded")
	p.Go(launch+"/stores").See("awaited on").Press("it came").until("it is there",
		`!document.querySelector("main").innerText.includes("awaited")`)
	require.NoError(t, p.Err())

	// A coat is felt; what cannot be held against a time is refused.
	p.Go(yawl+"/log").See("Clocks running").Press("Log a coat or other work").Choose("What",
		"the film was felt").Choose("Where", "Topsides port").Press("Log it").See("say what it was like").
		Choose("What was it like", "still sticky").Press("Log it").See("the film was felt: still sticky, at")
	p.Go(yawl+"/log?view=lessons").See("Hours: coat").Press("Do not count it").See("Off: let it count").Press(
		"Off: let it count").until("it counts again",
		`!document.querySelector("main").innerText.includes("Off: let it count")`)
	require.NoError(t, p.Err())

	// The walk-round: one finish is cracked, one has nothing wrong.
	p.Go(yawl+"/log?view=upkeep").SeeIn("h1", "Nothing to plan: what will come due has coats in the job").Press(
		"Walk round her and grade the finishes").See("How did it hold?")
	p.js(
		`(() => { document.querySelector('[aria-label="Coamings: cracks"] [aria-label^="4"]').click(); return true; })()`).Press("Nothing wrong").Press("Log 2 grades").
		SeeIn("h1", "Coamings").SeeIn("h1", "due now").See("cracks 4").See("nothing wrong").See(
		"how 2 of 3 finishes held")
	p.Fill("Months afloat in a year", "8").Press("Reckon with that").until("it is kept",
		`![...document.querySelectorAll("button")].some((b) => b.innerText === "Reckon with that")`)
	require.NoError(t, p.Err())
}
