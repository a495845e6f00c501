package e2e

import (
	"bytes"
	"context"
	"io"
	"net/http"
	"os/exec"
	"strings"
	"testing"

	"allcoats/core/job/task"

	ics "github.com/arran4/golang-ical"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The plan of the yard is made, a day is rained off, a task pinned, the risk asked
// for, and the calendar taken out.
func TestTheRefitIsPlanned(t *testing.T) {
	s := site(t, true)
	ctx := context.Background()
	boats, err := s.App.Boats(ctx)
	require.NoError(t, err)
	place := boats[0].PlaceID
	p := tab(t, s)
	at := "/boats/" + boats[0].ID + "/plan"
	p.Go(at).See("Weekends are shaded").SeeIn("h1", "Marsh Lantern is ready half the time by").Press("Launches").SeeIn(
		"h1", "boats are late").Press("Season").Press("by person").SeeIn("[data-read]", "Reed Warbler").Press(
		"by surface").Press("every boat").See("Reed Warbler")

	// Each person's sheet of the day prints on a page of its own.
	p.Press("Day sheets").SeeIn("h1", "3 people work today")
	require.NoError(t, p.Err())
	raw, err := chromedp.Run(p.ctx, chromedp.PrintToPDF(chromedp.PDFPaper(chromedp.PaperA4),
		chromedp.PDFPrintBackground()))
	require.NoError(t, err)
	read := exec.Command("pdftotext", "-", "-")
	read.Stdin = bytes.NewReader(raw)
	text, err := read.Output()
	require.NoError(t, err)
	pages := strings.Split(strings.TrimSuffix(string(text), "\f"), "\f")
	require.Len(t, pages, 3)
	for i, name := range []string{"Ada", "Wim", "Kim"} {
		assert.Contains(t, pages[i], name+", Sat 9 May")
	}

	// A bar is dragged to a later day and pinned there; then set free again.
	v, err := s.App.YardPlan(ctx, place)
	require.NoError(t, err)
	for _, it := range v.Plan.Items {
		if it.What.String() == "Service the stern gland" {
			p.Go(at).Drag(`[data-bar="`+it.TaskID+`"]`, 160).until("it is pinned",
				`document.querySelectorAll("[data-pinned]").length === 1`)
			p.Press("Week").Press("two weeks more").Press("Change Marsh Lantern: Service the stern gland").Press(
				"unpin").
				until("free again", `!document.querySelector("main").innerText.includes("· pinned")`)
		}
	}
	require.NoError(t, p.Err())

	// Rain all of Saturday and Sunday: what was planned for them moves, and says why.
	p.Go("/boats/"+boats[0].ID+"/weather?view=forecast").Fill("Coldest", "9").Fill("Warmest", "13").Choose("Rain",
		"rain all day").Press("another day").
		until("two days", `document.querySelectorAll('[aria-label^="Leave out day"]').length === 2`)
	p.js(`(() => { const set = (e, v) => { Object.getOwnPropertyDescriptor(Object.getPrototypeOf(e), "value").set.call(e, v); e.dispatchEvent(new Event(e.tagName === "SELECT" ? "change" : "input", { bubbles: true })); };
		set(document.querySelector('[data-field="days[1].minC"] input'), "9"); set(document.querySelector('[data-field="days[1].maxC"] input'), "14");
		return true; })()`)
	p.Press("Use these days").See("48 hours are in")
	p.Go(at).See("moved since this plan was made").Press("Week").See("two weeks more")
	require.NoError(t, p.Err())
	moved, err := s.App.YardPlan(ctx, place)
	require.NoError(t, err)
	require.NotEmpty(t, moved.Moved)
	p.Press("Plan anew").until("kept", `!document.body.innerText.includes("moved since this plan was made")`).See(
		"Undo: the plan before")

	// A task is pinned a day later by its buttons, and a pin that cannot stand is refused.
	p.Press("Change Marsh Lantern: Service the stern gland").Press("a day later").See("pinned")
	require.NoError(t, p.Err())
	v, err = s.App.YardPlan(ctx, place)
	require.NoError(t, err)
	assert.Len(t, v.Settings.Marks, 1)
	p.Press("unpin").until("free again", `!document.querySelector("main").innerText.includes("· pinned")`)
	p.Press("done").until("it is out of the list",
		`!document.querySelector("main").innerText.includes("Service the stern gland")`)

	// Somebody without a name is refused; a helper is hired; a rule is switched off with a reason.
	p.Press("Hands and tasks").Press("another person").Press("Save hands and tasks").SeeIn(
		`[data-field="people[3].name"]`, "give the person a name")
	p.js(`(() => { const e = document.querySelector('[data-field="people[3].name"] input'); Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(e, "Jo");
		e.dispatchEvent(new Event("input", { bubbles: true })); document.querySelector('[data-field="people[3].skills.varnishing"] input').click(); return true; })()`).Press("Save hands and tasks").until("hired", `![...document.querySelectorAll('[data-field="people[3].name"] [role=alert]')].length`)
	p.Press("Launches").See("What would bring them in time").See("Closing in the next four days")
	// The play is stopped as soon as it can be, however fast the machine plays.
	p.js(`(() => { new MutationObserver((_, o) => { const b = [...document.querySelectorAll("main button")].find((b) => b.textContent === "Stop");
		if (b) { o.disconnect(); window.stopped = true; b.click(); } }).observe(document.body, { childList: true, subtree: true }); return true; })()`)
	p.Press("Risk").until("it is stopped", `window.stopped && !document.querySelector("main progress")`).See(
		"Play 1,000 futures")
	require.NoError(t, p.Err())
	hired, err := s.App.YardPlan(ctx, place)
	require.NoError(t, err)
	require.Len(t, hired.Settings.People, 4)
	assert.Equal(t, []task.Skill{task.Varnishing}, hired.Settings.People[3].Skills)

	res, err := http.Get(s.URL + "/api/places/" + place + "/plan.ics")
	require.NoError(t, err)
	defer res.Body.Close()
	raw, err = io.ReadAll(res.Body)
	require.NoError(t, err)
	c, err := ics.ParseCalendar(strings.NewReader(string(raw)))
	require.NoError(t, err)
	assert.GreaterOrEqual(t, len(c.Events()), len(hired.Plan.Items))
}
