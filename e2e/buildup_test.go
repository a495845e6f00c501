package e2e

import (
	"allcoats/app"
	"context"
	"testing"

	"allcoats/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A bottom from barrier to antifouling, from a scheme and step by step, kept
// as a system and put on another boat.
func TestABottomIsComposed(t *testing.T) {
	s := site(t, true)
	ctx := context.Background()
	boats, err := s.App.Boats(ctx)
	require.NoError(t, err)
	edit := demo.Boats()[0]
	edit.Name, edit.PlaceID = "Bare", boats[0].PlaceID
	boat, err := s.App.AddBoat(ctx, app.NewBoat{BoatEdit: edit, Template: "plain", Substrate: "grp"})
	require.NoError(t, err)
	survey, err := s.App.Survey(ctx, boat.ID)
	require.NoError(t, err)
	p := tab(t, s)
	p.Go("/boats/" + boat.ID + "/build-up").See("Take a school for each").Press("Bottom").See(
		"Nothing is planned on this surface").Press("Start from a scheme or system")
	p.SeeIn(`[data-way="bottom-water"]`, "8").SeeIn(`[data-way="bottom-solvent"]`, "two rags")
	p.Choose("Another way", "cold").SeeIn(`[data-way="bottom-cold"]`, "low-temperature hardener")
	p.Press("Take this way").See("8 coats make").Press("Save the build-up").See("Keep as a system")
	require.NoError(t, p.Err())
	plan, err := s.App.BuildUp(ctx, survey.Surfaces[0].ID)
	require.NoError(t, err)
	require.Len(t, plan.Steps, 9)
	assert.Equal(t, []int{3, 2}, []int{plan.Steps[5].Coats, plan.Steps[6].Coats}, "the barrier in two colours")

	// One more step, an order that fails and its way back, then kept.
	p.Choose("Add a step", "sand").See("Undo the changes").Press("Undo the changes").until("back to what is stored",
		`!document.body.innerText.includes("Undo the changes")`)
	p.Press("Move step 8 earlier").SeeIn("[data-rule=over-antifouling]", "lets go").Press("Undo the changes")
	p.Press("Keep as a system").Fill("Name", "Our bottom").Press("Keep it").until("closed",
		`!document.body.innerText.includes("Keep these steps as a system")`)
	p.Press("Topsides port").See("Topsides port:").See("Nothing is planned").Press(
		"Start from a scheme or system").Choose("Job", "Your systems").Choose("One way", "Our bottom").SeeIn(
		"[data-way]", "Our bottom, version 1")
	p.Press("Close").Press("Whole boat").See("8 coats on 4 surfaces").SeeIn("tr", "Bottom")
}

// Two schools of varnish side by side; a coat that fails on this metal, let
// stand with a reason and then put right.
func TestSchoolsAndFindings(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	p := tab(t, s)
	p.Go("/boats/"+boats[1].ID+"/build-up").Press("Mizzen mast").See("Mizzen mast:").Press(
		"Start from a scheme or system").
		Choose("One way", "two-part clear").Choose("Another way", "one-part, thinned first coat")
	p.SeeIn(`[data-way="varnish-two-part"]`, "Coats7").SeeIn(`[data-way="varnish-seven"]`, "Coats7")
	p.Press("Close").Press("How many coats?").Choose("Of", "Varnish").Fill("Film wanted", "200").Press("Count").SeeIn(
		"[role=status]", "coats")
	require.NoError(t, p.Err())

	p.Go("/boats/"+boats[2].ID+"/build-up").Press("Deck").See("Deck:").Choose("Add a step", "coat").Choose("Product",
		"Antifouling, hard matrix, copper (")
	p.See("would make it fail").SeeIn("[data-rule=copper-near-aluminium]", "This fails").Press("Save the build-up").See(
		"Keep as a system")
	p.Press("overrule").Press("Let it stand").SeeIn(`[data-field="reason"]`, "stays in the record")
	p.Fill("Why it may stand", "isolated by the barrier, sheet allows it").Press("Let it stand").SeeIn("[data-rule]",
		"isolated by the barrier").SeeIn("[data-rule]", "Let stand")
	p.Press("let it count again").SeeIn("[data-rule]", "This fails")
	p.Press("Put a metal primer on the bare metal first").until("the primer is in",
		`!document.querySelector("[data-rule=antifouling-on-bare-metal]") && document.body.innerText.includes("Epoxy metal primer")`).Press("Undo the changes")
	p.Choose("Product", "Antifouling, hard matrix, copper-free").
		until("copper is no matter any more", `!document.querySelector("[data-rule=copper-near-aluminium]")`)
}

// A coat is logged: what is still to be bought follows, and the shelf empties.
func TestStoresFollowALoggedCoat(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	p := tab(t, s)
	at := "/boats/" + boats[0].ID
	p.Go(at+"/stores").See("Buy").SeeIn("[data-testid=shelf] li", "past its shelf life")
	row := `[...document.querySelectorAll("[data-testid=needs] tr")].find((r) => r.innerText.startsWith("Topcoat, two-part polyurethane")).innerText`
	p.until("six coats to come", row+`.includes("\t6\t")`)
	p.Go(at+"/log").Press("Log a coat or other work").Choose("Where", "Topsides starboard").Choose("Planned coat",
		"2. Topcoat")
	p.Fill("Litres used", "2").Press("Log it").See("Topcoat, two-part polyurethane, 2.00 L")
	p.Press("Stores").until("five to come, and the reckoning corrected", row+`.includes("\t5\t") && `+row+
		`.includes("learned: × 1.")`)
	p.SeeIn("[data-testid=shelf] li", "0.50 L of 2.50 L counted")

	p.Press("Put something on the shelf").Press("Put it there").SeeIn(`[data-field="litres"]`, "this figure is needed")
	p.Choose("Product", "Undercoat").Fill("Litres there", "5").Fill("Batch", "U-9").Press("Put it there").SeeIn(
		"[data-testid=shelf] li", "batch U-9")
	p.until("no undercoat to be bought", row[:len(row)-len(`.innerText`)]+
		`.parentElement.innerText.match(/Undercoat[^]*nothing/) !== null`)
	p.Press("The whole yard").SeeIn("[data-testid=needs]", "Reed Warbler: Deck")
}
