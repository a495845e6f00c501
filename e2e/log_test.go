package e2e

import (
	"bytes"
	"context"
	"fmt"
	"os/exec"
	"slices"
	"strings"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/boat/outline"
	"allcoats/demo"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// fits checks what a screen at the boat has to be: no sideways scrolling, targets a
// glove can hit.
func (p *Page) fits(where string) *Page {
	return p.until("no sideways scrolling on "+where, `document.documentElement.scrollWidth <= innerWidth`).
		until("targets of 44 px on "+where,
			`[...document.querySelectorAll("main button.btn, main a.btn, main summary, main [aria-pressed]:not(g, path), nav a, nav button")].filter((e) => e.getClientRects().length && !e.closest("dialog:not([open])")).every((e) => e.getBoundingClientRect().height >= 44)`)
}

// At the boat with a phone: weigh the pot, start its timers, log the coat, judge the
// film, see the clock open.
func TestAtTheBoat(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	at := "/boats/" + boats[0].ID
	p := phone(t, s)
	p.Go(at+"/bench").See("Before you open the tin").Choose("What for", "Topsides starboard").SeeIn("h1",
		"for topsides starboard").fits("bench")
	p.Press("Masked, edges pressed down").until("ticked",
		`!!document.querySelector('[data-testid=checks] [aria-pressed=true]')`)
	p.Press("Other figures").Fill("Litres in all", "0.2").See("0.20 L in all")
	// The simulated scale pours, a little more than is wanted.
	p.Press("Weigh on Bench scale").until("the base is poured",
		`(() => { const e = document.querySelector("[data-testid=scale] progress"); return e && e.value >= e.max - 0.5; })()`)
	p.Press("base is in").until("the hardener is poured",
		`(() => { const e = document.querySelector("[data-testid=scale] progress"); return e?.ariaLabel === "hardener" && e.value >= e.max - 0.5; })()`)
	p.Press("hardener is in").SeeIn("[data-testid=ratio]", "The ratio is right")
	p.Press("It is mixed: start the timers").until("the pot's timer runs",
		`!!document.querySelector("[data-timer=pot]")`)
	p.Press("The first of it is on").until("the tape's timer runs",
		`!!document.querySelector("[data-timer=tape]") && !!document.querySelector("[data-timer=wet-edge]")`)
	// They are there again after the page was closed.
	p.Leave().Go(at+"/bench").until("the timers survive", `!!document.querySelector("[data-timer=tape]")`)
	p.Press("The pot is empty").until("it is put away", `!document.querySelector("[data-timer=pot]")`)
	require.NoError(t, p.Err())

	// From Today to a logged coat: eight taps at the most.
	taps := 0
	tap := func(text string) { taps++; p.Press(text) }
	p.Go(at + "/today").See("In this order today")
	tap("Log")
	p.See("Clocks running")
	tap("Log a coat or other work")
	taps += 2 // open the list of surfaces, take one
	p.Choose("Where", "Topsides starboard").See("It took that")
	tap("It took that")
	tap("Log it")
	p.until("it is logged",
		`![...document.querySelectorAll("main h2")].some((e) => e.textContent === "Log a coat")`).See(
		"Last logged: topsides starboard")
	assert.LessOrEqual(t, taps, 8)
	p.until("its clock opens",
		`[...document.querySelectorAll("[data-event=recoat-opens]")].some((e) => e.closest("tr").innerText.includes("Topsides starboard") && /\d\d:\d\d|%/.test(e.innerText))`)
	p.fits("log")

	// The film is read with the gauge when it has cured; what was seen on it is named.
	p.Press("Log a coat or other work").Choose("What", "it was inspected").Choose("Where", "Bottom").Press(
		"Dry film by the gauge").Press("Take from Film gauge").
		Press("Anything seen on it?").Press("pinholes").Press("Log it").SeeIn("[data-testid=verdict]",
		"10 readings, and this area takes 30")
	p.Press("one blemish seen").SeeIn("[data-testid=causes]", "Remedy: Fill them with a thin skim")
	// Mils where µm are asked for are noticed.
	p.Press("Log a coat or other work").Choose("What", "it was inspected").Choose("Where", "Bottom").Press(
		"Dry film by the gauge").Fill("Readings, µm", "16 17 15").
		Press("Log it").See("these look like mils").Press("Cancel")
	// The usual by two taps, and taken back.
	p.Go(at+"/bench").See("Before you open the tin").Choose("What for", "Deck").SeeIn("h1", "deck").Press(
		"It is on, as planned, now").See("begun Sat 9 May, 09:24").Press("Log it").SeeIn("[data-testid=logged]",
		"Logged: Deck").fits("the usual").
		Press("Take it back").See("Taken back: it is not in the log")
	p.Go(at+"/log").See("What was done").SeeIn("tr", "open: no sanding wash first") // the bottom blushed
	// A correction keeps what it was.
	p.Press("correct").Fill("Note", "seen again").Press("Save the correction").See("seen again").Press(
		"corrected: what it was").SeeIn("[data-testid=history]", "until")
}

// Without a signal: the boat opens, three coats are logged, the tab dies, the signal
// comes back; all three arrive, once.
func TestOffline(t *testing.T) {
	s := site(t, true)
	ctx := context.Background()
	boats, err := s.App.Boats(ctx)
	require.NoError(t, err)
	at := "/boats/" + boats[0].ID
	before, err := s.App.Log(ctx, boats[0].ID)
	require.NoError(t, err)
	p := phone(t, s)
	p.Go(at+"/today").See("In this order today").until("the worker has the page",
		`navigator.serviceWorker.controller !== null`)
	p.until("what may be wanted is kept",
		`(caches.open("seen").then((c) => c.keys()).then((k) => { window.kept = k.filter((r) => r.url.includes("/build-up")).length; }), (window.kept ?? 0) >= 5)`)
	p.until("the core and the benches are carried along",
		`(caches.open("core").then((c) => c.keys()).then((k) => { window.core = k.length; }), caches.open("seen").then((c) => c.keys()).then((k) => { window.benches = k.filter((r) => r.url.includes("/finishes/")).length; }), window.core === 1 && window.benches >= 8)`)
	require.NoError(t, s.Down())
	p.Go(at + "/bench").See("Before you open the tin").See("Timers")
	// The core goes along: another amount, what a thermometer shows, the next window.
	p.Press("Another amount, another surface").Fill("Litres in all", "0.5").SeeIn("[data-testid=reckon]",
		"Reckoned on this device, from what it knew at Sat 9 May").SeeIn("[data-testid=reckon]", "Hardener")
	p.Fill("Air", "4").Fill("Humidity", "90").SeeIn("[data-testid=reckon]", "Not now").SeeIn("[data-testid=reckon]",
		"Dew point 2.5 °C").SeeIn("[data-testid=reckon]", "Begin from").fits("the bench without a signal")
	p.Go(at+"/weather").SeeIn("h1", "").See("No signal: what is shown is of Sat 9 May").Go(at + "/stores").See(
		"On the shelf").Go(at + "/finishes").See("Non-skid")
	require.NoError(t, p.Err())
	p.Go(at+"/survey").See("Pin a defect").Press("Pin a defect").js(
		`(() => { const e = document.querySelector("[data-surface='Topsides port']"), box = e.getBoundingClientRect(); e.dispatchEvent(new MouseEvent("click", { bubbles: true, clientX: box.left + 40, clientY: box.top + 8 })); return true; })()`).
		See("A new defect").Choose("What is it", "chip").Press("Note it").SeeIn("[data-testid=outbox]",
		"a defect, chip")
	log := func(surface, note string) {
		p.Go(at+"/log").See("Clocks running").Press("Log a coat or other work").Choose("Where", surface).Fill("Note",
			note).Press("Log it").SeeIn("[data-testid=outbox]", "a coat went on, "+surface)
	}
	log("Bottom", "one")
	log("Deck", "two")
	log("Rudder", "three")
	p.SeeIn("[data-testid=outbox]", "4 entries wait on this device")
	p.Leave().Go(at+"/today").SeeIn("[data-testid=outbox]", "4 entries wait on this device").See("In this order today")
	require.NoError(t, p.Err())
	require.NoError(t, s.Up())
	p.Leave().Go(at+"/log").until("all is sent",
		`document.querySelector("main h1") && !document.querySelector("[data-testid=outbox]")`).See("three")
	require.NoError(t, p.Err())
	after, err := s.App.Log(ctx, boats[0].ID)
	require.NoError(t, err)
	assert.Len(t, after, len(before)+3)
	survey, err := s.App.Survey(ctx, boats[0].ID)
	require.NoError(t, err)
	assert.True(t, slices.ContainsFunc(survey.Defects, func(d app.Defect) bool {
		return d.Kind == "chip" && d.SurfaceID != ""
	}), "the defect arrived too")

	// What the program asks about comes back to the user, who answers it.
	require.NoError(t, s.Down())
	p.Go(at+"/log").Press("Log a coat or other work").Choose("Where", "Topsides port").Press("Log it").SeeIn(
		"[data-testid=outbox]", "1 entry waits")
	require.NoError(t, s.Up())
	p.Leave().Go(at+"/log").SeeIn("[data-testid=outbox]", "say why it went on before").Press("Look at it").Fill(
		"Why it went on before the last one was ready", "rain tomorrow").
		Press("Log it").until("it is in", `!document.querySelector("[data-testid=outbox]")`).See("rain tomorrow")
}

// Two change the same defect, one without a signal: both versions are shown, and the one at the boat
// decides. A pin is dragged to where it belongs.
func TestTwoChangeADefect(t *testing.T) {
	s := site(t, true)
	ctx := context.Background()
	boats, err := s.App.Boats(ctx)
	require.NoError(t, err)
	at := "/boats/" + boats[0].ID
	survey, err := s.App.Survey(ctx, boats[0].ID)
	require.NoError(t, err)
	i := slices.IndexFunc(survey.Defects, func(d app.Defect) bool {
		return d.Repair.Open && d.Place.View == outline.StarboardSide
	})
	require.GreaterOrEqual(t, i, 0)
	d := survey.Defects[i]
	stored := func() app.Defect {
		got, err := s.App.Defect(ctx, d.ID)
		require.NoError(t, err)
		return got
	}
	p := phone(t, s)
	p.Go(at+"/survey?defect="+d.ID).See("Save the defect").until("the worker has the page",
		`navigator.serviceWorker.controller !== null`)
	p.Go(at + "/survey?defect=" + d.ID).See("Save the defect")
	require.NoError(t, s.Down())
	p.Fill("Note", "seen at the boat").Fill("From aft", "3.3").Press("Save the defect").SeeIn("[data-testid=outbox]",
		fmt.Sprintf("defect %d", d.Number))
	edit := d.DefectEdit
	edit.Note = "seen at the desk"
	_, err = s.App.EditDefect(ctx, d.ID, d.Version, edit)
	require.NoError(t, err)
	require.NoError(t, s.Up())
	p.Leave().Go(at+"/survey").SeeIn("[data-testid=outbox]", "changed elsewhere").SeeIn("[data-testid=outbox]",
		"seen at the boat").SeeIn("[data-testid=outbox]", "seen at the desk").
		Press("Store mine over it").until("it is in", `!document.querySelector("[data-testid=outbox]")`)
	require.NoError(t, p.Err())
	assert.Equal(t, "seen at the boat", stored().Note)
	assert.InDelta(t, 3.3, stored().Place.X, 1e-9)

	p.Press("defects").See("Drag a pin").js(fmt.Sprintf(`(() => {
		const pin = document.querySelector("[data-pin='%d']"), box = pin.getBoundingClientRect(), svg = pin.ownerSVGElement;
		const send = (on, type, dx) => on.dispatchEvent(new PointerEvent(type,
			{ bubbles: true, clientX: box.left + box.width / 2 + dx, clientY: box.top + box.height / 2 }));
		send(pin, "pointerdown", 0);
		setTimeout(() => { send(svg, "pointermove", 30); setTimeout(() => send(svg, "pointerup", 30), 100); }, 100);
		return true;
	})()`, d.Number))
	require.NoError(t, p.Err())
	assert.Eventually(t, func() bool {
		return stored().Place.X > 3.6
	}, patience, 100*time.Millisecond, "30 px on are most of a metre")
}

// A phone in the yard reaches the laptop by its name over plain http: a coat is logged
// there as well, and a pot's timers start.
func TestFromAPhoneOverPlainHTTP(t *testing.T) {
	s := site(t, true)
	s.From("low water")
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	at := "/boats/" + boats[0].ID
	before, err := s.App.Log(context.Background(), boats[0].ID)
	require.NoError(t, err)
	p := phone(t, s).Login("low water")
	p.Go(at+"/log").See("Clocks running").until("this page is not a secure one",
		`!isSecureContext && typeof crypto.randomUUID === "undefined" && !navigator.serviceWorker`)
	p.Press("Log a coat or other work").Choose("Where", "Topsides starboard").See("It took that").Press(
		"It took that").Fill("Note", "over plain http").Press("Log it").See("over plain http").fits("log")
	p.Go(at+"/bench").See("Before you open the tin").Choose("What for", "Bottom").SeeIn("h1", "for bottom").Press(
		"It is mixed: start the timers").until("the pot's timer runs", `!!document.querySelector("[data-timer=pot]")`)
	require.NoError(t, p.Err())
	after, err := s.App.Log(context.Background(), boats[0].ID)
	require.NoError(t, err)
	assert.Len(t, after, len(before)+1)
}

// Phones come in by a code, over plain http and encrypted: a coat is logged from both, the encrypted
// one opens without a signal, and one that is shut out stays out.
func TestPhonesOfTheYard(t *testing.T) {
	s := site(t, true)
	ctx := context.Background()
	boats, err := s.App.Boats(ctx)
	require.NoError(t, err)
	plain, encrypted, err := s.Yard()
	require.NoError(t, err)
	laptop := tab(t, s)
	laptop.Go("/phone").See("No phone is paired yet").until("pictures to scan",
		`document.querySelectorAll("main img").length === 1`)
	before, err := s.App.Log(ctx, boats[0].ID)
	require.NoError(t, err)
	for i, url := range []string{plain, encrypted} {
		laptop.Go("/phone").Press("Show a code").until("a code", `!!document.querySelector("[data-testid=code]")`)
		code := laptop.Text("[data-testid=code]")
		require.NoError(t, laptop.Err())
		s.URL = url
		p := phone(t, s)
		at := "/boats/" + boats[0].ID
		p.Go(at+"/log").See("Pair this phone with All Coats").Fill("Code", "22222222").Press("Pair this phone").See(
			"not the one that is shown")
		p.Fill("Code", code).Fill("What this phone is called", []string{"an old phone", "Ada’s phone"}[i]).Press(
			"Pair this phone").SeeIn("h1", "A coat may go on")
		p.Go(at+"/log").See("Clocks running").until("what the browser allows",
			fmt.Sprintf(`isSecureContext === %t && !!navigator.serviceWorker === isSecureContext`, i == 1))
		p.Press("Log a coat or other work").Choose("Where", "Topsides starboard").See("It took that").Press(
			"It took that").Fill("Note", "from a phone").Press("Log it").See("from a phone").fits("log")
		if i == 1 {
			p.until("a worker comes",
				`(navigator.serviceWorker.getRegistration().then((r) => { window.works = !!r?.active; }), window.works === true)`).Go(at+"/log").
				until("it is kept for later", `navigator.serviceWorker.controller !== null`).Go(at + "/log").See(
				"Clocks running")
			require.NoError(t, s.tls.Close())
			p.Go(at + "/log").See("Clocks running")
		}
		require.NoError(t, p.Err())
	}
	after, err := s.App.Log(ctx, boats[0].ID)
	require.NoError(t, err)
	assert.Len(t, after, len(before)+2)
	laptop.Go("/phone").See("2 phones are paired").SeeIn("[data-testid=devices]", "an old phone").Press("shut it out")
	require.NoError(t, laptop.Err())
}

// The countdowns of a pot go on by the program's time while the program is away and its
// old answer comes from what the browser kept.
func TestTimersRunOnWithoutTheProgram(t *testing.T) {
	s := site(t, true)
	ctx := context.Background()
	require.NoError(t, s.App.SetClock(ctx, app.RunningClock, demo.Now))
	boats, err := s.App.Boats(ctx)
	require.NoError(t, err)
	bench, err := s.App.Bench(ctx, boats[0].ID, app.BenchQuery{})
	require.NoError(t, err)
	_, err = s.App.PutPot(ctx, boats[0].ID, app.PotEdit{ID: "0b7c1c1e-5a52-4f0e-9d0e-0f6a4a7b9d11",
		ProductID: bench.ProductID, Litres: 1, MixedAt: bench.Now})
	require.NoError(t, err)
	bench, err = s.App.Bench(ctx, boats[0].ID, app.BenchQuery{})
	require.NoError(t, err)
	var ends time.Time
	for _, timer := range bench.Pots[0].Timers {
		if timer.Key == "pot" {
			ends = *timer.At
		}
	}
	if ends.IsZero() { // a product without a pot life: the coats' clocks run too
		ends = *bench.Clocks[0].Timers[0].At
	}
	at := "/boats/" + boats[0].ID + "/bench"
	p := phone(t, s)
	p.Go(at).See("Timers").until("the worker has the page", `navigator.serviceWorker.controller !== null`)
	p.Leave().Go(at).See("Timers").until("it is kept",
		`(caches.open("seen").then((c) => c.keys()).then((k) => { window.kept = k.some((r) => r.url.includes("/bench")); }), window.kept === true)`)
	require.NoError(t, s.Down())
	time.Sleep(6 * time.Second) // this is what is measured: the program is away for so long
	p.Leave().Go(at).See("Timers")
	shown := p.text(
		`[...(document.querySelector('[data-timer="pot"]') ? document.querySelectorAll('[data-timer="pot"] b') : document.querySelectorAll("[data-timer] b"))].map((e) => e.innerText).find((x) => /^\d+:\d\d:\d\d$/.test(x))`)
	require.NoError(t, p.Err())
	now, err := s.App.Now(ctx)
	require.NoError(t, err)
	var h, m, sec int
	_, err = fmt.Sscanf(shown, "%d:%d:%d", &h, &m, &sec)
	require.NoError(t, err, shown)
	left := time.Duration(h)*time.Hour + time.Duration(m)*time.Minute + time.Duration(sec)*time.Second
	assert.InDelta(t, ends.Sub(now).Seconds(), left.Seconds(), 3)
}

// The record is printed as a PDF and read back.
func TestReportIsPrinted(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	p := tab(t, s)
	p.Go("/boats/"+boats[0].ID+"/log").Press("The whole record").SeeIn("h1", "7 coats on").See("Hours and money")
	require.NoError(t, p.Err())
	raw, err := chromedp.Run(p.ctx, chromedp.PrintToPDF(chromedp.PDFPaper(chromedp.PaperA4),
		chromedp.PDFPrintBackground()))
	require.NoError(t, err)
	read := exec.Command("pdftotext", "-", "-")
	read.Stdin = bytes.NewReader(raw)
	text, err := read.Output()
	require.NoError(t, err, "poppler-utils reads PDFs")
	got := strings.Join(strings.Fields(string(text)), "")
	for _, want := range []string{"MarshLantern:7coats", "Bottom:", "batchL10", "Thefilmisaccepted", "Hoursandmoney",
		"Upkeep", "rainallday"} {
		assert.Contains(t, got, want)
	}
	assert.NotContains(t, got, "Print,orsaveasPDF")
	pages := strings.Split(strings.TrimSuffix(string(text), "\f"), "\f")
	require.GreaterOrEqual(t, len(pages), 3)
	headings := []string{"Bottom: ", "Topsides port: ", "Topsides starboard: ", "Deck: ", "Rudder: ", "The whole boat",
		"What went on", "Defects", "Hours and money", "Upkeep", "Begun"}
	for i, page := range pages {
		lines := slices.DeleteFunc(strings.Split(page, "\n"), func(l string) bool {
			return strings.TrimSpace(l) == "" || strings.TrimSpace(l) == fmt.Sprintf("%d / %d", i+1, len(pages))
		})
		require.NotEmpty(t, lines, "page %d is blank", i+1)
		last := lines[len(lines)-1]
		for _, h := range headings {
			assert.False(t, strings.HasPrefix(strings.TrimSpace(last), h), "page %d ends with the heading %q", i+1,
				last)
		}
	}

	// What is left on each surface, on a page of its own.
	p.Press("Sheets to pin up").See("to be printed and pinned up").SeeIn("[data-testid=wall]", "Bottom")
	require.NoError(t, p.Err())
	survey, err := s.App.Survey(context.Background(), boats[0].ID)
	require.NoError(t, err)
	p.until("all are there", fmt.Sprintf(`document.querySelectorAll("[data-testid=wall]").length === %d`,
		len(survey.Surfaces)))
	raw, err = chromedp.Run(p.ctx, chromedp.PrintToPDF(chromedp.PDFPaper(chromedp.PaperA4),
		chromedp.PDFPrintBackground()))
	require.NoError(t, err)
	read = exec.Command("pdftotext", "-", "-")
	read.Stdin = bytes.NewReader(raw)
	text, err = read.Output()
	require.NoError(t, err)
	sheets := strings.Split(strings.TrimSuffix(string(text), "\f"), "\f")
	require.Len(t, sheets, len(survey.Surfaces))
	for i, f := range survey.Surfaces {
		assert.Contains(t, sheets[i], f.Name)
	}
	p.Press("The record").See("Hours and money")

	// A backup goes out and comes in through the interface; a boat file that differs is refused.
	p.Press("Other files").See("Boat file (JSON)")
	require.NoError(t, p.Err())
}
