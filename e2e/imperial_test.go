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
var metric = regexp.MustCompile(`[\d.]\s?(mm|µm|m²|mL|kg|hPa|m/s|°C|m²/L|m²/h|L/m²|kg/L|L|m|g|K)(?:[^\w²/°]|$)`)

// tin is a name of a pack, as it is printed on it.
var tin = regexp.MustCompile(`[\d.]+ L (tin|kit)`)

// benches are surfaces of the demo and a bench to look at on each.
var benches = map[string]string{
	"Deck": "non-skid", "Topsides starboard": "gelcoat", "Mizzen mast": "brightwork", "Bottom": "antifouling", "Topsides port": "metal", "Cabin top": "refit",
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
	p.Go("/").See("Today").js(`localStorage.setItem("units", "imperial"), true`)
	pages := []string{"/library", "/library/" + products[0].ID, "/boats/new"}
	for _, b := range boats {
		for _, name := range []string{"today", "survey", "survey/measuring-sheet", "survey/walk-round", "fairing", "build-up", "stores", "weather", "plan", "bench", "log", "report"} {
			pages = append(pages, "/boats/"+b.ID+"/"+name)
		}
		survey, err := s.App.Survey(ctx, b.ID)
		require.NoError(t, err)
		for _, f := range survey.Surfaces {
			if craft := benches[f.Name]; craft != "" {
				pages = append(pages, "/boats/"+b.ID+"/finishes?surface="+f.ID+"&craft="+craft)
			}
		}
	}
	for _, page := range pages {
		p.Go(page).until("loaded", `document.querySelector("main[data-asking=no] h1") !== null && !/Loading…/.test(document.body.innerText)`)
		text := p.text(`document.querySelector("main").textContent + " " + [...document.querySelectorAll("dialog")].map((d) => d.textContent).join(" ")`)
		text = tin.ReplaceAllString(text, "")
		for _, at := range metric.FindAllStringIndex(text, -1) {
			assert.Fail(t, "metric", "%s: …%s…", page, strings.ReplaceAll(text[max(0, at[0]-40):min(len(text), at[1]+20)], "\n", " "))
		}
	}
	require.NoError(t, p.Err())
}
