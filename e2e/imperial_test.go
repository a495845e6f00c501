package e2e

import (
	"context"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// metric is a figure with a unit that nobody who reads in feet has asked for.
var metric = regexp.MustCompile(
	`[\d.][\s\x{a0}|]{0,3}(mm|µm|m²|mL|kg|hPa|m/s|°C|m²/L|m²/h|L/m²|kg/L|L|m|g|K)(?:[^\w²/°]|$)`)

// written are the pieces of text of a page and of the workings that it can open.
// Formulas reckon in metric, and the working says so beside its figures.
const written = `[document.querySelector("main"), ...document.querySelectorAll("dialog")].flatMap((root) => {
	const walk = document.createTreeWalker(root, NodeFilter.SHOW_TEXT), out = [];
	while (walk.nextNode()) if (!walk.currentNode.parentElement.closest("[data-metric]")) out.push(walk.currentNode.data);
	return out;
}).join("\u00a0|")`

// tin is a name of a pack or a tool, as it is printed on it; scale what is shown by one, grams.
var (
	tin   = regexp.MustCompile(`[\d.]+ L (tin|kit)|\d+ mm [a-z-]+ roller`)
	scale = regexp.MustCompile(`[\d,.]+ g\b`)
)

// benches are surfaces of the demo and benches to look at on each.
var benches = map[string][]string{
	"Deck": {"non-skid", "moulded"}, "Topsides starboard": {"gelcoat"}, "Mizzen mast": {"brightwork"},
	"Bottom": {"antifouling"}, "Topsides port": {"metal"}, "Rudder": {"refit"},
}

// Who reads in feet and quarts finds no metric figure on any screen, nor in a working.
func TestEveryScreenInFeetAndQuarts(t *testing.T) {
	s := site(t, true)
	p := tab(t, s)
	ctx := context.Background()
	boats, err := s.App.Boats(ctx)
	require.NoError(t, err)
	products, err := s.App.Products(ctx)
	require.NoError(t, err)
	p.Go("/").See("Today").js(`localStorage.setItem("units", "imperial"), true`).Go("/").See("Today")
	pages := []string{"/library", "/library/" + products[0].ID, "/boats/new"}
	for k, b := range boats {
		names := []string{"today", "build-up", "stores", "bench"}
		if k == 0 {
			names = append(names, "survey", "survey/measuring-sheet", "survey/walk-round", "weather", "plan", "log",
				"report")
		}
		for _, name := range names {
			pages = append(pages, "/boats/"+b.ID+"/"+name)
		}
		if k == 2 { // her sides were read for fairing
			pages = append(pages, "/boats/"+b.ID+"/weather?view=tent", "/boats/"+b.ID+"/weather?view=readings",
				"/boats/"+b.ID+"/plan?view=hands", "/boats/"+b.ID+"/fairing?view=practice")
		}
		survey, err := s.App.Survey(ctx, b.ID)
		require.NoError(t, err)
		for _, f := range survey.Surfaces {
			if k == 2 && f.Name == "Topsides port" {
				pages = append(pages, "/boats/"+b.ID+"/fairing?surface="+f.ID)
			}
			for _, craft := range benches[f.Name] {
				pages = append(pages, "/boats/"+b.ID+"/finishes?surface="+f.ID+"&craft="+craft)
			}
		}
	}
	for _, page := range pages {
		p.Turn(page).until("loaded",
			`document.querySelector("main[data-asking=no] h1") !== null && !/Loading…/.test(document.body.innerText)`)
		text := tin.ReplaceAllString(p.text(written), "")
		if strings.HasSuffix(page, "/bench") {
			text = scale.ReplaceAllString(text, "")
		}
		for _, at := range metric.FindAllStringIndex(text, -1) {
			assert.Fail(t, "metric", "%s: …%s…", page,
				strings.ReplaceAll(text[max(0, at[0]-40):min(len(text), at[1]+20)], "\n", " "))
		}
	}
	require.NoError(t, p.Err())
}
