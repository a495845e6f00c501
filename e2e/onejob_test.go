package e2e

import (
	"context"
	"fmt"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"allcoats/app"
	"allcoats/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// find reads what an expression with a group finds in the text of a page.
func find(t *testing.T, text, expression string) string {
	t.Helper()
	m := regexp.MustCompile(expression).FindStringSubmatch(text)
	require.NotNil(t, m, "%s in: %.900s", expression, text)
	return m[1]
}

func number(t *testing.T, s string) float64 {
	t.Helper()
	v, err := strconv.ParseFloat(strings.ReplaceAll(s, ",", ""), 64)
	require.NoError(t, err)
	return v
}

// walk is what the screens of a boat say of the same things.
type walk struct {
	hours  map[string]string // to come, by screen
	litres map[string]float64
	state  map[string]string // coats laid of those planned on the surface that is logged on
	next   map[string]string // surface and what is next on it
	money  map[string]float64
}

const hoursToCome = `((?:\d+ h \d+|\d+ h|\d+ min)(?:, about \d+ working days of [\dh ]+?)?) (?:of work )?to come`

// walkOf reads the screens of a boat; surface is one to look closer at.
func walkOf(t *testing.T, p *Page, boat app.Boat, surface app.Surface) walk {
	t.Helper()
	at := "/boats/" + boat.ID
	w := walk{map[string]string{}, map[string]float64{}, map[string]string{}, map[string]string{}, map[string]float64{}}
	text := func(path, see string) string {
		p.Go(at + path).See(see)
		require.NoError(t, p.Err(), path)
		return strings.Join(strings.Fields(p.Text("main")), " ")
	}

	whole := text("/build-up?surface=whole-boat", "To come")
	w.hours["Build-up"] = find(t, whole, hoursToCome)
	w.state["Overview"] = find(t, whole, regexp.QuoteMeta(surface.Name)+` [\d.]+ m² (\d+ of \d+)`)
	plan := text("/plan?view=week", "two weeks more")
	w.hours["Plan"] = find(t, plan, hoursToCome)
	accounts := text("/log?view=accounts", "spent, about")
	w.hours["Log"] = find(t, accounts, hoursToCome)
	w.money["Log"] = number(t, find(t, accounts, `spent, about €([\d,]+) to finish`))
	stores := text("/stores", "The work to come is")
	w.hours["Stores"] = find(t, stores, `The work to come is (.*?)(?:, €[\d,]+ at the price of an hour in Plan)?\. `)
	w.litres["Stores"] = number(t, find(t, stores, `([\d.]+) L are still to be laid`))
	buy := 0.0
	if strings.Contains(stores, " of ") && regexp.MustCompile(`Buy (?:one|\d+) tins?`).MatchString(stores) {
		buy = number(t, find(t, stores, `about €([\d,]+)[.;]`))
	}
	w.money["Stores"] = buy + number(t, find(t, stores, `, €([\d,]+) at the price of an hour`))

	w.litres["Build-up"] = number(t, find(t, whole, `for one person ?, ([\d.]+) L to lay`))
	one := text("/build-up?surface="+surface.ID, surface.Name+":")
	laid := 0
	for _, m := range regexp.MustCompile(
		`for (?:the coat|(\d+) coats) \(80 %.{0,250}?(?:left over|what to buy)\.(?: (All laid)\.| (\d+) of \d+ laid\.)?`).FindAllStringSubmatch(one, -1) {
		n, _ := strconv.Atoi(m[3])
		if m[2] != "" {
			if n, _ = strconv.Atoi(m[1]); n == 0 {
				n = 1
			}
		}
		laid += n
	}
	w.state["Build-up"] = fmt.Sprint(laid)
	hours, _, _ := strings.Cut(find(t, one, hoursToCome), ",")
	assert.Contains(t, whole, hours, "hours to come on %s: its build-up and the overview", surface.Name)

	text("/today", "In this order today")
	ofToday, _, _ := strings.Cut(plan, demo.Now.AddDate(0, 0, 1).Format("Monday 2 January"))
	item := regexp.MustCompile(regexp.QuoteMeta(boat.Name) +
		`: ([^·\n]+?), ([^·,\n]+)(?:, [^·\n]*)? ·`).FindStringSubmatch(ofToday)
	w.next["Today"], w.next["headline"] = p.Text("ol"), p.Text("h1")
	if item != nil { // some work on a surface is today's
		w.next["Plan"] = item[1]
	}
	text("/bench", "Mix")
	w.next["Bench"] = p.Text("h1")
	return w
}

// Whatever screen tells of it, the same thing has the same figure: hours and litres to come,
// money, the state of a surface, what is next; before and after a coat is logged.
func TestOneFigureForOneThing(t *testing.T) {
	s := site(t, true)
	ctx := context.Background()
	boats, err := s.App.Boats(ctx)
	require.NoError(t, err)
	require.Len(t, boats, 3)
	p := tab(t, s)
	for i, boat := range boats {
		t.Run(boat.Name, func(t *testing.T) {
			today, err := s.App.Today(ctx, boat.ID)
			require.NoError(t, err)
			survey, err := s.App.Survey(ctx, boat.ID)
			require.NoError(t, err)
			// The first coat that may go on today is logged in the end.
			var coat app.Surface
			for _, l := range today.Answer.Lanes {
				for _, f := range survey.Surfaces {
					if coat.ID == "" && f.ID == l.SurfaceID && l.Mix != nil {
						coat = f
					}
				}
			}
			require.NotEmpty(t, coat.ID)
			agree := func(w walk) {
				for screen, h := range w.hours {
					assert.Equal(t, w.hours["Plan"], h, "hours to come: Plan and %s", screen)
				}
				assert.InDelta(t, w.litres["Stores"], w.litres["Build-up"], 0.1,
					"litres to come: Stores and the build-ups")
				assert.InDelta(t, w.money["Log"], w.money["Stores"], 1, "money to come: Log and Stores")
				assert.True(t, strings.HasPrefix(w.state["Overview"], w.state["Build-up"]+" of "),
					"coats laid on %s: %s in the overview, %s in its build-up", coat.Name, w.state["Overview"],
					w.state["Build-up"])
				assert.Contains(t, w.next["Today"], w.next["Plan"], "what the plan begins with is on Today")
				if lead, _, coat := strings.Cut(w.next["headline"], ": "); coat && strings.Contains(w.next["headline"],
					"may go on") {
					assert.Contains(t, w.next["Bench"], strings.ToLower(lead), "the bench mixes for what leads Today")
					assert.Contains(t, w.next["Today"], lead)
				}
			}
			before := walkOf(t, p, boat, coat)
			agree(before)
			if i > 0 {
				return
			}

			p.Go("/boats/" + boat.ID + "/log?surface=" + coat.ID).Press("It took that")
			require.NoError(t, p.Err())
			// More than the shelf has, or sooner than the last coat allows: the questions are answered.
			p.Press("Log it").until("it is kept, or asks",
				`!document.querySelector('[data-field="startedAt"]') || document.querySelectorAll('form [role=alert]').length > 0`)
			p.js(`(() => { document.querySelector('[data-field="beyondShelf"] input')?.click(); return true; })()`)
			if strings.Contains(p.Text("main"), "Why it went on before") {
				p.Fill("Why it went on before the last one was ready", "a warm wind")
			}
			p.until("it is kept",
				`(() => { if (!document.querySelector('[data-field="startedAt"]')) return true; [...document.querySelectorAll("form button")].find((b) => b.innerText === "Log it" && !b.disabled)?.click(); return false; })()`)
			require.NoError(t, p.Err())
			after := walkOf(t, p, boat, coat)
			agree(after)
			assert.NotEqual(t, before.state["Overview"], after.state["Overview"], "the coat ticks")
			assert.Less(t, after.litres["Stores"], before.litres["Stores"])
			assert.NotEqual(t, before.hours["Plan"], after.hours["Plan"])
		})
	}
}
