package e2e

import (
	"context"
	"testing"

	"github.com/stretchr/testify/require"
)

// Nobody logs in until there are people; then everybody does, does what each may, under a name that is written down.
func TestPeopleComeIn(t *testing.T) {
	s := site(t, true)
	p := tab(t, s)
	p.Go("/people").See("Nobody has to log in here").Press("Add a person").Fill("Name, as in Plan", "Ada").Fill(
		"Passphrase", "short").Press("Let this person in").
		SeeIn("form", "must have 10 to 72 letters").Fill("Passphrase", "tide and spar").Press("Let this person in").See(
		"Log in to All Coats")
	p.Fill("Your name", "ada").Fill("Your passphrase", "tide and mast").Press("Log in").See(
		"The name or the passphrase is wrong").
		Fill("Your passphrase", "tide and spar").Press("Log in").See("You are Ada, and may do all")
	p.Press("Add a person").Fill("Name, as in Plan", "Wim").Choose("May", "look and log").Fill("Passphrase",
		"mast and boom").Press("Let this person in").SeeIn("[data-testid=users]", "Wim").
		SeeIn("[data-testid=audit]", "Let a person in")
	p.Press("Log out, and empty what this browser kept").See("Log in to All Coats").Fill("Your name", "Wim").Fill(
		"Your passphrase", "mast and boom").Press("Log in").See("Marsh Lantern")
	p.Go("/people").See("You are Wim, and may look and log").until("no list of people",
		`document.querySelector("[data-testid=users]") === null`)
	require.NoError(t, p.Err())
}

// The title says where one is, the keyboard goes on at the page, and single letters can be switched off.
func TestKeysAndTitles(t *testing.T) {
	s := site(t, true)
	p := tab(t, s)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	at := "/boats/" + boats[0].ID
	title := func(want string) string { return `document.title === "` + want + ` · All Coats"` }
	p.Go(at+"/today").See("In this order today").until("the title", title("Today · Marsh Lantern"))
	p.until("a way to the page comes first",
		`document.querySelector("a[href], button, select, input").textContent.trim() === "To the page"`)
	p.Key("s").until("the survey by its letter", title("Survey · Marsh Lantern")).until("the page has the keyboard",
		`document.activeElement.id === "main"`)
	p.Key("?").See("Single letters go to pages").js(
		`([...document.querySelectorAll("dialog[open] input")].at(-1).click(), true)`).Press("Close")
	p.Key("t").Press("people").until("the letter did nothing, the page did", title("People"))
	require.NoError(t, p.Err())
}
