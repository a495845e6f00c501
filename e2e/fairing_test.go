package e2e

import (
	"context"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"allcoats/core/film/step"
	"allcoats/core/job/task"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A grid of gaps is read, the curve chosen, the fill put into the build-up; rounds are
// logged; a ladder of grits goes through; a panel is played.
func TestFairing(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	at := "/boats/" + boats[0].ID
	p := tab(t, s)
	p.Go(at+"/fairing").Choose("Surface", "Topsides starboard").SeeIn("h1", "Lay an edge on topsides starboard").Press(
		"Read the first gaps")
	p.Choose("Read", "below one plane, on a grid").Fill("Between readings", "0.2").Fill("Rows", "3").Fill(
		"Readings a row", "5").until("fifteen readings",
		`document.querySelectorAll('[data-field=gaps] input').length === 15`)
	// Entered in the order one walks: Enter goes on.
	p.js(
		`(() => { const all = [...document.querySelectorAll('[data-field=gaps] input')]; all[0].focus(); return document.activeElement === all[0]; })()`)
	for _, gap := range []string{"0", "1", "1", "0", "0", "0", "2", "8", "4", "0", "0", "1", "2", "1", "-"} {
		p.Key(gap).Key("\r")
	}
	p.until("all are in",
		`[...document.querySelectorAll('[data-field=gaps] input')].map((e) => e.value).join(" ") === "0 1 1 0 0 0 2 8 4 0 0 1 2 1 -"`)
	p.Fill("Batten bends over", "1").Press("Find the fair surface").SeeIn("h1", "Fill").SeeIn("[data-testid=schools]",
		"many thin skims").SeeIn("[data-testid=curves]", "(chosen)")
	p.until("the map shows the fill",
		`[...document.querySelectorAll("[data-depth]")].some((e) => Number(e.dataset.depth) > 3)`).until("a section",
		`!!document.querySelector("[data-testid=fair-section] path")`)

	file := filepath.Join(t.TempDir(), "gaps.csv")
	require.NoError(t, os.WriteFile(file, []byte("0;1;2;1\n0;-3;2;0\n"), 0o600))
	p.Upload("File of gaps", file).until("eight readings",
		`document.querySelectorAll('[data-field=gaps] input').length === 8`).Press("Find the fair surface").See(
		"a gap is not below nothing")
	require.NoError(t, os.WriteFile(file, []byte("0;1;2;1\n0;3;2;0\n0;1;1;0\n"), 0o600))
	p.Upload("File of gaps", file).until("nine readings and three",
		`document.querySelectorAll('[data-field=gaps] input').length === 12`).Press("Find the fair surface").SeeIn("h1",
		"Fill 0.31 L")
	p.Press("Plan it").SeeIn("h1", "coats make").See("fairing compound")
	require.NoError(t, p.Err())

	// A scan of 2 m by 1 m with a dent of 5 mm, three points to a cell.
	scan := "x;y;z\n"
	for i := range 41 {
		for k := range 21 {
			x, y, z := 0.05*float64(i), 0.05*float64(k), 0.0
			if r := math.Hypot(x-1, y-0.5); r < 0.3 {
				z = -5 * (1 - r/0.3)
			}
			scan += strings.ReplaceAll(fmt.Sprintf("%.3f;%.3f;%.6f\n", x, y, z/1000), ".", ",")
		}
	}
	require.NoError(t, os.WriteFile(file, []byte(scan), 0o600))
	p.Go(at+"/fairing").Choose("Surface", "Deck").Press("Read the first gaps").Choose("Read",
		"below one plane, on a grid").Upload("File of gaps", file).
		until("a grid of the scan", `document.querySelectorAll('[data-field=gaps] input').length > 150`).Press(
		"Find the fair surface").SeeIn("h1", "Fill").SeeIn("h1", "deepest 4")
	require.NoError(t, p.Err())

	p.Go(at+"/fairing").Choose("Surface", "Topsides starboard").Press("Rounds").SeeIn("header",
		"Topsides starboardNo round")
	for i, lows := range []string{"30", "12"} {
		p.Press("Log a round").Choose("What", "it was faired").Fill("Round", []string{"1", "2"}[i]).Fill("Lows found",
			lows).Fill("Hours it took", "4").Press("Log it").See(fmt.Sprintf("round %d: %s lows", i+1, lows))
		p.Go(at+"/fairing").Choose("Surface", "Topsides starboard").Press("Rounds").SeeIn("[data-testid=rounds]", lows)
	}
	p.SeeIn("h1", "One more round").See("from your own rounds")

	p.Choose("Surface", "Topsides port").Press("Sanding").SeeIn("[data-testid=ladder]", "220").Fill(
		"Scratch that is there", "40").SeeIn("h1", "goes through").SeeIn("[data-testid=margins]", "corners")
	p.Press("Practice").Press("Light filler, 8 mm").See("it slumps").Press("Sand 80").See("The paper clogs").Press(
		"A new panel").Press("Hard filler, 4 mm").Press("Wait 24 h").
		Press("Paint it").See("shows in the reflection").Press("Coat now").until("an answer with its reason",
		`!!document.querySelector("[data-testid=days] [role=status]")`)
}

func TestFairingOnThePhone(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	p := phone(t, s)
	p.Go("/boats/"+boats[2].ID+"/fairing").Choose("Surface", "Topsides port").SeeIn("h1", "Fill").fits("gaps")
	for _, view := range []string{"Rounds", "Sanding", "Practice"} {
		p.Press(view).fits(view)
	}
	require.NoError(t, p.Err())

	// A hollow of 4 mm read by thumb with an edge of a metre, moved on by half of it: one patch,
	// which goes into the build-up and from there into the plan.
	at := "/boats/" + boats[0].ID
	p.Go(at+"/fairing").Choose("Surface", "Topsides port").Press("Read the first gaps").Fill("Between readings",
		"0.25").See("Placement 1, reading 1 of 5").fits("the walk")
	for _, key := range strings.Fields(
		"touching touching touching 2 4  touching 2 4 2 touching  4 2 touching touching touching") {
		p.Press(key)
	}
	p.See("Placement 4, reading 1 of 5").See("from 1.00 m")
	// Marked on her outline, and a low circled beside it.
	p.Press("Place line 1").See("Press where line 1 begins").onHull(0.3, 0.4, "click").See(
		"Now press where line 1 ends").onHull(0.5, 0.4, "click").fits("the map")
	p.Press("Circle a low").onHull(0.7, 0.4, "pointerdown").onHull(0.75, 0.4, "pointermove").onHull(0.75, 0.6,
		"pointermove").onHull(0.7, 0.6, "pointermove").onHull(0.7, 0.4, "pointerup").
		Fill("Deepest, guessed", "3").Press("Find the fair surface").SeeIn("h1",
		"in 2 patches and leave the rest, deepest 3").SeeIn("h1", "the gap goes from 4 mm to 1.5 mm")
	p.until("contours on her outline", `document.querySelectorAll("[data-testid=hull-map] [data-contour]").length >= 2`)
	p.SeeIn("[data-testid=patches]", "line 1, patch 1").SeeIn("[data-testid=patches]", "low 1, by hand").Press(
		"Plan it").SeeIn("h1", "coats make").See("lows of round 1")
	require.NoError(t, p.Err())
	p.Go(at+"/plan").Press("Season").until("the fairing is planned",
		`document.querySelector("main").innerHTML.includes("fair with fairing compound")`)
	// The round is logged, and is no longer to come.
	p.Go(at+"/fairing").Choose("Surface", "Topsides port").Press("Rounds").Press("Log a round").Choose("What",
		"it was faired").Fill("Round", "1").Fill("Lows found", "1").Fill("Hours it took", "1").Press("Log it").See(
		"round 1: one low")
	p.Go(at+"/fairing").Choose("Surface", "Topsides port").Press("Rounds").SeeIn("h1",
		"Fair enough for a yard finish: stop")
	b, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	survey, err := s.App.Survey(context.Background(), b[0].ID)
	require.NoError(t, err)
	passes := 0
	for _, f := range survey.Surfaces {
		if f.Name != "Topsides port" {
			continue
		}
		build, err := s.App.BuildUp(context.Background(), f.ID)
		require.NoError(t, err)
		for _, k := range build.Tasks {
			if k.Where == "lows of round 1" && k.Work == step.Fair {
				assert.Equal(t, task.Done, k.State)
				passes++
			}
		}
	}
	assert.NotZero(t, passes)
}

// onHull sends an event to the last drawing of the surface, at shares of its width and height.
func (p *Page) onHull(x, y float64, event string) *Page {
	return p.js(fmt.Sprintf(`(() => {
		const e = [...document.querySelectorAll("[data-testid=hull-map]")].at(-1).querySelector("[data-surface]"), box = e.getBoundingClientRect();
		const at = { clientX: box.left + %[2]g * box.width, clientY: box.top + %[3]g * box.height };
		e.dispatchEvent(new PointerEvent(%[1]q, { bubbles: true, ...at }));
		return true;
	})()`, event, x, y))
}
