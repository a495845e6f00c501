package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// inputs counts what its user presses, chooses and types in.
type inputs struct {
	*Page
	n int
}

func (i *inputs) press(text string) *inputs     { i.n++; i.Press(text); return i }
func (i *inputs) choose(l, text string) *inputs { i.n++; i.Choose(l, text); return i }
func (i *inputs) fill(label, v string) *inputs  { i.n++; i.Fill(label, v); return i }
func (i *inputs) sees(sel, text string) *inputs { i.SeeIn(sel, text); return i }
func (i *inputs) atMost(t *testing.T, most int) {
	t.Helper()
	assert.LessOrEqual(t, i.n, most, "inputs")
}
func (i *inputs) done(t *testing.T, what string) { t.Helper(); require.NoError(t, i.Err(), what) }

// From an empty database to a right answer in at most eight inputs, and to a planned boat in at most fifteen.
func TestTheFirstHour(t *testing.T) {
	s := site(t, false)
	w := &inputs{Page: tab(t, s)}
	w.Go("/").See("Can I coat today?").SeeIn("h1", "Can I coat today?")
	// Clear and calm from 8 to 16 °C, and nothing of the enamel's limits binds before the evening's six hours of hold.
	w.choose("What", "Topcoat, one-part enamel").fill("The weather, today and on",
		"8 to 16, sunny, dry, light wind").sees("h1", "Yes: begin now, by ")
	w.See("8 °C to 16 °C, sunny, dry, light wind, usual air.").See("You did not say where you are")
	w.atMost(t, 8)
	w.fill("The weather, today and on", "1 to 6, overcast, dry").sees("h1", "Not today: even at the best hour ")
	w.done(t, "today")

	// 0.75 · LWL · (beam + draught), LWL 0.8 · 9.5 = 7.6 m and draught 0.15 · 9.5 = 1.43 m: 25.8 m² of bottom.
	much := &inputs{Page: w.Page}
	much.press("How much do I need?").choose("What", "Antifouling, soft").choose("Of what",
		"the bottom: round bilge").fill("Length × beam", "9.5 x 3.1").sees("h1", "on 25.8 m²")
	much.See("from length and beam")
	much.atMost(t, 8)
	mixed := &inputs{Page: w.Page}
	mixed.press("How do I mix it?").choose("What", "Epoxy high-build primer").fill("In all", "1.5").sees("h1",
		"Pour 750 mL of base (1 140 g), then 750 mL of hardener (825 g).")
	mixed.atMost(t, 8)
	thick := &inputs{Page: w.Page}
	thick.press("How thick wet?").choose("What", "Epoxy high-build primer").fill("Dry film wanted", "100").sees("h1",
		"182 µm wet").sees("h1", "100 µm dry")
	thick.atMost(t, 8)
	w.Press("When can I recoat?").SeeIn("h1", "Not yet to be said").Fill("The weather, today and on",
		"12 to 20, sunny, dry").SeeIn("h1", "without sanding")
	w.done(t, "questions")

	// The entries go along: coats, size and weather are there, three steps ask for the rest.
	w.Press("How much do I need?").Choose("What", "Antifouling, soft").SeeIn("h1", "on 25.8 m²")
	boat := &inputs{Page: w.Page}
	boat.press("Make a boat of it").press("shallow hull").fill("Her name", "Tern").fill("Name of the place",
		"Home").fill("Position", "52°57'N 0°51'E").choose("Which side has the morning sun?", "port")
	boat.See("time of Europe/London").See("Kept from your question: 2 coats of Antifouling")
	boat.press("Add the boat").sees("h1", "2 coats make")
	boat.press("Plan").sees("h1", "Tern")
	boat.atMost(t, 15)
	boat.done(t, "boat")
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	require.Len(t, boats, 1)
	assert.Equal(t, 180.0, boats[0].HeadingDeg, "port has the sun of the morning, so she looks south")
	assert.ElementsMatch(t, []string{"lwlM", "draughtM", "freeboardM", "housesM2"}, boats[0].Dimensions.Guessed)
	w.Press("Today").See("as you told it").SeeIn("h1", "degrease")
	w.done(t, "today of the boat")

	// The demo yard is looked round and left; nothing of it stays.
	w.Go("/start").Press("Look round the demo yard").See("You look round a made-up yard").See("Marsh Lantern").See(
		"(simulated)").Press("Leave the demo yard").SeeIn("select", "Tern").until("the banner is gone",
		`!document.body.innerText.includes("You look round")`)
	w.done(t, "visit")
	after, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	assert.Len(t, after, 1)
}

// Anything is found by one search, and a word is explained where it stands.
func TestFindAnything(t *testing.T) {
	s := site(t, true)
	p := tab(t, s)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	p.Go("/boats/"+boats[0].ID+"/today").See("In this order today").Key("/").Fill("Search, or say what to do",
		"log a wash on deck").SeeIn("dialog[open]", "Log: wash, Deck").Press("do Log: wash, Deck Marsh Lantern")
	p.until("the log is open on a wash", `location.search.includes("kind=wash")`).until("it is a wash",
		`[...document.querySelectorAll("select")].some((s) => s.value === "wash")`)
	p.Go("/boats/"+boats[0].ID+"/build-up?surface="+surfaceID(t, s, boats[0].ID, "Bottom")).SeeIn("h1",
		"coats make").Press("The film, cut through").SeeIn("dialog[open]", "thickness to scale").Press("Close")
	p.Press("help").SeeIn("h1", "Build-up: What goes on").Press("Words").See("window of starts")
	require.NoError(t, p.Err())
}

// violations are what axe finds on the page: the rule, and where.
func violations(t *testing.T, p *Page, axe string) []string {
	t.Helper()
	var out string
	p.do("ask axe", func(ctx context.Context) error {
		if _, err := chromedp.Run(ctx, chromedp.Evaluate[bool](axe+";true")); err != nil {
			return err
		}
		var err error
		out, err = chromedp.Run(ctx, chromedp.Evaluate[string](`axe.run(document, { runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"] }).then((r) =>
			JSON.stringify(r.violations.map((v) => v.id + ": " + v.nodes.slice(0, 3).map((n) => n.target.join(" ") + " " + (n.any[0]?.message ?? "")).join(" | "))))`, chromedp.EvalAwaitPromise))
		return err
	})
	require.NoError(t, p.Err())
	var found []string
	require.NoError(t, json.Unmarshal([]byte(out), &found))
	return found
}

// Screens are accessible by axe's rules, its best practice too: those at the boat light on a desk and dark on a
// phone, and with ALL set every one, and what opens on it, in both themes at both widths (make accessible).
func TestScreensAreAccessible(t *testing.T) {
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	require.NoError(t, err, "make web/node_modules/.stamp")
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	base := "/boats/" + boats[0].ID
	at := func(boat int, surface, path string) string {
		return "/boats/" + boats[boat].ID + path + surfaceID(t, s, boats[boat].ID, surface)
	}
	// A screen, a text of it, and what is pressed on it then.
	type screen struct{ path, see, press string }
	screens := []screen{
		{"/start", "Can I coat today?", ""}, {"/boats/new", "What she is", ""}, {"/yard", "Sallow Creek Yard", ""},
		{"/library", "Add a product", ""}, {"/library/new", "copy its data sheet", ""},
		{"/help/today", "How one goes on", ""}, {"/people", "may", ""}, {"/phone", "phone", ""},
		{base + "/today", "In this order today", ""}, {base + "/today", "In this order today", "Search"},
		{base + "/survey", "Defects and repairs", ""}, {base + "/survey/measuring-sheet", "", ""},
		{base + "/survey/walk-round", "", ""}, {base + "/survey", "Defects and repairs", "Bottom"},
		{base + "/survey", "Defects and repairs", "Change her dimensions"},
		{base + "/fairing", "Surface", ""}, {base + "/fairing?view=practice", "Practice", ""},
		{base + "/fairing?view=sanding", "Sanding", ""},
		{base + "/build-up", "Whole boat", ""}, {at(0, "Bottom", "/build-up?surface="), "coats make", ""},
		{at(0, "Bottom", "/build-up?surface="), "coats make", "The film, cut through"},
		{base + "/finishes?craft=antifouling", "Windows", ""}, {base + "/finishes?craft=non-skid", "panel", ""},
		{base + "/finishes?craft=gelcoat", "Gelcoat", ""}, {base + "/finishes?craft=moulded", "panel", ""},
		{at(1, "Mizzen mast", "/finishes?craft=brightwork&surface="), "coats", ""},
		{at(2, "Topsides port", "/finishes?craft=metal&surface="), "Surface", ""},
		{base + "/finishes?craft=refit", "efit", ""},
		{base + "/stores", "On the shelf", ""}, {base + "/weather", "Hour by hour", ""},
		{base + "/weather?view=chances", "chances", ""}, {base + "/weather?view=readings", "Readings", ""},
		{base + "/weather?view=forecast", "simulated service", ""}, {base + "/weather?view=tent", "Tent", ""},
		{base + "/plan", "Weekends are shaded", ""}, {base + "/plan?view=week", "two weeks more", ""},
		{base + "/plan?view=sheets", "Day sheets", ""}, {base + "/plan?view=launches", "Launches", ""},
		{base + "/plan?view=hands", "Hands and tasks", ""}, {base + "/bench", "Before you open the tin", ""},
		{base + "/log", "Clocks running", ""}, {base + "/log", "Clocks running", "Log a coat or other work"},
		{base + "/log?view=accounts", "to finish", ""}, {base + "/log?view=upkeep", "Upkeep", ""},
		{base + "/log?view=files", "Files", ""}, {base + "/report", "Log", ""},
	}
	if os.Getenv("ALL") == "" {
		screens = slices.DeleteFunc(screens, func(c screen) bool {
			return c.press != "" || !slices.ContainsFunc([]string{"/start", "/new", "/today", "/bench", "/log"},
				func(end string) bool { return strings.HasSuffix(c.path, end) })
		})
	}
	var all []string
	for _, width := range []int64{1280, 390} {
		p := tab(t, s)
		p.Size(width, 844, width < 600)
		for _, c := range screens {
			p.Go(c.path).until("it has a heading", `!!document.querySelector("main h1")`).See(c.see)
			if c.press != "" {
				p.Press(c.press)
			}
			p.until("settled", `document.querySelector("main").dataset.asking === "no"`)
			if width < 600 {
				p.fits(c.path)
				if err := p.Err(); err != nil {
					all = append(all, c.path+" on a phone: "+strings.SplitN(err.Error(), ":", 2)[0])
					p = tab(t, s)
					p.Size(width, 844, true)
					continue
				}
			}
			for _, theme := range []string{"paper", "lamp"} {
				if (theme == "lamp") != (width < 600) && os.Getenv("ALL") == "" {
					continue
				}
				p.js(fmt.Sprintf(`(document.documentElement.dataset.theme = %q, true)`, theme)).until(
					"colours have changed",
					`document.getAnimations().every((a) => a.playState !== "running" || a.effect.getComputedTiming().endTime === Infinity || a.timeline !== document.timeline)`)
				for _, v := range violations(t, p, string(axe)) {
					all = append(all, fmt.Sprintf("%s %s at %d in %s: %s", c.path[strings.LastIndex(c.path, "/"):],
						c.press, width, theme, v))
				}
			}
		}
	}
	assert.Empty(t, all, strings.Join(all, "\n"))
}
