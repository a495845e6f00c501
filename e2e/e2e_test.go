package e2e

import (
	"allcoats/app"
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"allcoats/core/catalog/product"
	"allcoats/demo"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var browser context.Context

func TestMain(m *testing.M) {
	b, cancel, err := Browser(context.Background())
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	browser = b
	code := m.Run()
	cancel()
	os.Exit(code)
}

// site is a site of the test's own: tests run beside one another.
func site(t *testing.T, withDemo bool) *Site {
	t.Parallel()
	s, err := Serve(context.Background(), t.TempDir(), withDemo)
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, s.Close()) })
	return s
}

func opened(t *testing.T, s *Site) *Page {
	p := Open(browser, s)
	t.Cleanup(func() {
		assert.NoError(t, p.Err())
		p.Close()
	})
	return p
}

// tab is the site on a computer, phone on a phone at the boat, which keeps it for later.
func tab(t *testing.T, s *Site) *Page { return opened(t, s).Workless().Size(1280, 800, false) }

func phone(t *testing.T, s *Site) *Page { return opened(t, s).Size(390, 844, true) }

// From an empty database to a coat whose recoat window opens and closes.
func TestFromTapeMeasureToRecoatClock(t *testing.T) {
	s := site(t, false)
	p := tab(t, s)

	p.Go("/boats/new").See("Three steps").Press("round bilge").Fill("Her name", "Tern").Choose("Hull type",
		"hull and deck").Fill("Launch, if there is a date", "2026-06-20").Fill("or the bow points to", "200")
	p.Fill("Name of the place", "Home Quay").Press("Simulated weather")
	p.Fill("Length over all", "6.4").Fill("Beam", "wide")
	p.Press("Add the boat").SeeIn(`[data-field="dimensions.beamM"]`, "not a number").SeeIn(
		`[data-field="newPlace.latitudeDeg"]`, "say where it is")
	p.Fill("Position", "52°24'N 1°12'E").See("52.4000°, 1.2000°; time of Europe/London")
	p.Fill("Beam", "8").Press("Add the boat").SeeIn(`[data-field="dimensions.beamM"]`, "cannot be more than the length")
	// Left and come back to, it is as it was typed; length and beam alone draw her, the rest is guessed.
	p.Press("Library").See("Add a product").Go("/boats/new").Fill("Beam", "2.2").See(
		"Guessed: waterline 5.12 m ±6 %, draught 0.96 m ±30 %").SeeIn("tr", "Bottom")
	p.Press("Guessed:").Fill("Waterline length", "5.6").Fill("Draught", "0.7").Fill("Mean freeboard", "0.7").Press(
		"Add the boat").See("Take a school for each").Press("Survey").See("4 surfaces")
	require.NoError(t, p.Err())

	// Survey: the bottom is 0.75 · 5.6 · (2.2 + 0.7) = 12.18 m²; a new draught changes it.
	p.SeeIn("tr", "12.2 m²").Press("12.2 m²").See("rule of thumb of the trade").Press("Close")
	p.Press("Change her dimensions").Fill("Draught", "0.9").Press("Save").SeeIn("tr", "13.0 m²")
	p.Press("Topsides starboard").See("Measurement 1, by")
	// In a shed the surface is as warm as the air.
	p.Press("Bottom").SeeIn("section > h2", "Bottom").Press("Describe").Choose("Stands", "in a shed").Press(
		"Save").Press("Measure")

	// Build-up: 13.02 m² at 100 µm from 55 % solids, a tenth lost, twice: 5.26 L.
	p.Press("Build-up").See("Take a school for each").Press("Bottom").See("Nothing is planned on this surface").Choose(
		"Add a step", "coat")
	p.Choose("Product", "Epoxy high-build primer").Fill("Coats", "2").See("2 coats make 200 µm dry and take 5.3 L")
	p.SeeIn("fieldset", "Lay 182 µm wet").SeeIn("fieldset", "Buy 1 × 0.75 L kit + 2 × 2.5 L kit")
	p.Fill("Dry, each", "400").SeeIn("fieldset", "Thicker than the sheet's greatest film")
	p.Fill("Dry, each", "-1").SeeIn(`[data-field="steps[0].dftUm"]`, "must be more than 0")
	p.Fill("Dry, each", "100").See("2 coats make 200 µm").Press("Save the build-up").See("5.3 L")
	require.NoError(t, p.Err())

	// Units switch without a change of what is kept.
	p.Key("u").See("3.9 mil").See("5.56 US qt").Key("u").See("take 5.3 L")

	// Weather, simulated; then a bad file, which changes nothing.
	p.Press("Weather").See("laying may begin").See("Hour by hour").Press("Forecast").See("simulated service")
	bad := filepath.Join(t.TempDir(), "bad.csv")
	require.NoError(t, os.WriteFile(bad,
		[]byte("time,temperature,humidity\n2026-05-09 09:00,12,60\n2026-05-09 10:00,12,160\n"), 0o600))
	p.Upload("Weather file", bad).Press("Import").See("line 3").See("simulated service")

	// A good one: 15 °C, 60 %, dry, for twenty days.
	good := filepath.Join(t.TempDir(), "good.csv")
	require.NoError(t, os.WriteFile(good, []byte(record(15, 60, 20)), 0o600))
	p.Upload("Weather file", good).Press("Import").See("rows are in").See("my own files")
	p.Press("Today").See("Bottom: high-build primer may go on now, until")
	require.NoError(t, p.Err())

	// Log the first coat; at a steady 15 °C its clock is the sheet's table:
	// recoat from 12 h · 2^−0.509 = 8 h 26 after 09:24, 0.509 being where 15 °C
	// lies between 10 and 20 °C in 1/T.
	p.Press("Log").See("No clock runs: log what is done next.").Press("Log a coat or other work").Choose("Where",
		"Bottom")
	p.Fill("Litres used", "2.4").Fill("Wet film readings, µm", "180 x 190").Press("Log it").SeeIn(
		`[data-field="wetUm"]`, "numbers with spaces")
	p.Fill("Wet film readings, µm", "170 180 190").Fill("Who", "Kim").Press("Log it").See(
		"Last logged: bottom, coat, Saturday 9 May at 09:24")
	p.SeeIn(`[data-event="recoat-opens"]`, "Sat 9 May, 17:50").See("film 99 µm")
	p.Press("Today").See("Bottom: high-build primer may go on from 17:51 to 18:24").See(
		"Before that the last coat is not ready")
	p.SeeIn("[data-read]", "wet")
	require.NoError(t, p.Err())

	// The clock of the program moves on: open, then closed.
	p.Press("09:24, clock standing").Press("a day on").Press("Close").See("Sunday 10 May, 09:24").See(
		"Bottom: high-build primer may go on now").SeeIn("[data-read]", "open: no sanding")
	p.Press("09:24, clock standing").Press("a day on").Press("a day on").Press("a day on").Press("a day on").Press(
		"Close").See("Thursday 14 May, 09:24").See("may go on after sanding now").SeeIn("[data-read]", "sand first")

	// Sanded, it is open again.
	p.Press("Log").Press("Log a coat or other work").Choose("What", "it was sanded").Fill("Last grit", "180").Press(
		"Log it").SeeIn("td", "sanded: open")

	// A deleted entry can be had back.
	p.Press("delete").See("Deleted: Bottom, sand").Press("Undo").SeeIn("td", "sanded: open")
}

// record is an hourly CSV from before the demo's now, steady but for the dark.
func record(tempC, rhPct float64, days int) string {
	var b strings.Builder
	b.WriteString("time,temperature,humidity,rain\n")
	from := demo.Now.Truncate(time.Hour).AddDate(0, 0, -2)
	for h := range days * 24 {
		fmt.Fprintf(&b, "%s,%g,%g,0\n", from.Add(time.Duration(h)*time.Hour).Format(time.RFC3339), tempC, rhPct)
	}
	return b.String()
}

func TestTwoTabsEditingOneBoat(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	at := "/boats/" + boats[0].ID + "/survey"
	one, two := tab(t, s), tab(t, s)
	one.Go(at).Press("Change her dimensions").Fill("Draught", "1.15").Fill("Type", "pilot cutter")
	two.Go(at).Press("Change her dimensions").Fill("Draught", "1.25")
	one.Press("Save").See("Change her dimensions")
	two.Press("Save").See("changed elsewhere").SeeIn("tr", "dimensions · draughtM").SeeIn("tr", "1.25").SeeIn("tr",
		"1.15")
	two.Press("Save mine over it").See("Change her dimensions")
	require.NoError(t, two.Err())
	now, err := s.App.Boat(context.Background(), boats[0].ID)
	require.NoError(t, err)
	assert.Equal(t, 1.25, now.Dimensions.DraughtM)
	assert.Equal(t, "pilot cutter", now.Type, "what the other did not touch stays as it is stored")

	log := "/boats/" + boats[0].ID + "/log"
	one.Go(log).Press("correct").SeeIn("section > h2", "Correct this entry").Fill("Note", "by the slip")
	two.Go(log).Press("correct").SeeIn("section > h2", "Correct this entry").Fill("Litres used", "3.25")
	one.Press("Save the correction").See("by the slip")
	two.Press("Save the correction").See("changed elsewhere").SeeIn("dialog tr", "3.25").Press("Save mine over it").See("3.25 L")
	two.See("by the slip")

	hands := "/boats/" + boats[0].ID + "/plan?view=hands"
	one.Go(hands).Fill("Spray guns", "3")
	two.Go(hands).Fill("Tents they share", "2").Press("Save hands and tasks").SeeIn("[role=status]", "Saved.")
	one.Press("Save hands and tasks").See("changed elsewhere").SeeIn("dialog tr", "guns").Press("Save mine over it").SeeIn("[role=status]", "Saved.")
	kept, err := s.App.YardPlan(context.Background(), boats[0].PlaceID)
	require.NoError(t, err)
	assert.Equal(t, []int{3, 2}, []int{kept.Settings.Guns, kept.Settings.Tents})
}

func TestLibrary(t *testing.T) {
	p := tab(t, site(t, false))
	products := fmt.Sprintf("of %d sheets", len(product.Examples()))
	p.Go("/library").See(fmt.Sprintf("Replace the examples that you use: %d of ", len(product.Examples()))).Press(
		"Add a product").See("copy its data sheet line by line")
	p.Fill("Name", "Test varnish").Choose("Kind", "varnish").Fill("Volume solids", "130").Fill("Dry film a coat, least",
		"20").
		Fill("Dry film, typical", "30").Fill("Dry film, greatest", "40").Fill("Cures above", "5").Press(
		"Add to the library")
	p.SeeIn(`[data-field="volumeSolidsPct"]`, "at most 100")
	p.Fill("Volume solids", "45").Press("Add to the library").SeeIn("h1", "Lay it 67 µm wet for 30 µm dry")
	// Hours that rise with the temperature are refused at their row; hours that do not fall are asked about, once, and
	// then stored.
	p.Press("enter Touch-dry").Fill("Touch-dry, row 1, °C", "10").Fill("Touch-dry, row 1, h", "2").Press(
		"another row of Touch-dry").Fill("Touch-dry, row 2, °C", "20").Fill("Touch-dry, row 2, h", "4")
	p.Press("Save the sheet").See("warmth makes it no slower").Fill("Touch-dry, row 2, h", "2")
	p.SeeIn("[data-curve]", "Touch-dry").Press("Save the sheet").See(
		"2 h at 20 °C is not shorter than 2 h at 10 °C").Press("It is so: save the sheet").SeeIn("button",
		"Save the sheet")
	p.Press("Delete").See("Add a product").See(products)

	file := filepath.Join(t.TempDir(), "sheets.csv")
	head := "name,kind,volume solids %,film least µm,film typical µm,film greatest µm,cures above °C\n"
	require.NoError(t, os.WriteFile(file,
		[]byte(head+"Harbour oil,wood-sealer,40,5,10,20,5\nBad oil,wood-sealer,140,5,10,20,5\n"), 0o600))
	p.Upload("File of data sheets", file).See("line 3").See(products)
	require.NoError(t, os.WriteFile(file, []byte(head+"Harbour oil,wood-sealer,40,5,10,20,5\n"), 0o600))
	p.Upload("File of data sheets", file).See("1 added").See(fmt.Sprintf("of %d sheets", len(product.Examples())+
		1)).See("Harbour oil")
}

func TestEmptyScreensSayWhatToDoNext(t *testing.T) {
	s := site(t, false)
	ctx := context.Background()
	place, err := s.App.AddPlace(ctx, demo.Yard)
	require.NoError(t, err)
	edit := demo.Boats()[0]
	edit.PlaceID = place.ID
	boat, err := s.App.AddBoat(ctx, app.NewBoat{BoatEdit: edit})
	require.NoError(t, err)
	p := tab(t, s)
	base := "/boats/" + boat.ID
	p.Go(base+"/today").See("This boat has no surfaces yet").Press("Go to Survey").SeeIn("h1", "Add her first surface")
	p.Go(base + "/build-up").See("There is no surface to put coats on yet")
	p.Go(base+"/log").SeeIn("h1", "Add her surfaces in Survey first")
	p.Go("/boats/none/today").See("There is no such page")
}

func TestKeysAndRibbon(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	p := tab(t, s)
	p.Go("/boats/" + boats[0].ID + "/today").See("In this order today")
	p.Key("?").See("Metric or imperial").Press("Close")
	assert.Contains(t, p.Text(`[data-testid="ribbon-instant"]`), "Now, 09:24")
	p.Focus(`[aria-label="Time ribbon"]`).Key(kb.ArrowRight).SeeIn(`[data-testid="ribbon-instant"]`,
		"Saturday 9 May, 10:24").Key(kb.Escape).SeeIn(`[data-testid="ribbon-instant"]`, "Now, 09:24")
	p.Key("s").See("surfaces").Key("b").See("coats make").Key("w").See("Windows of starts").Key("l").See(
		"Clocks running").Key("i").See("Add a product")
	p.Go("/boats/"+boats[0].ID+"/today").See("In this order today").Key("n").SeeIn("option", boats[1].Name).SeeIn("h1",
		":")
	p.Key("d").until("dark theme", `document.documentElement.dataset.theme === "lamp"`)
}

func TestPhone(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	p := phone(t, s)
	for _, page := range []string{"today", "survey", "build-up", "stores", "weather", "log"} {
		p.Go("/boats/"+boats[0].ID+"/"+page).See("Marsh Lantern").until("no sideways scrolling on "+page,
			`document.documentElement.scrollWidth <= innerWidth`)
	}
	p.Go("/boats/" + boats[0].ID + "/plan").See("Weekends are shaded")
	for _, view := range []string{"Season", "Week", "Launches", "Risk", "Hands and tasks"} {
		p.Press(view).until("no sideways scrolling on "+view, `document.documentElement.scrollWidth <= innerWidth`)
		p.until("targets of 44 px in "+view,
			`[...document.querySelectorAll("main button.btn, nav a")].filter((e) => e.getClientRects().length && !e.closest("dialog:not([open])")).every((e) => e.getBoundingClientRect().height >= 44)`)
	}
	p.Go("/boats/" + boats[0].ID + "/log").See("Log a coat")
	p.until("targets of 44 px",
		`[...document.querySelectorAll("main button.btn, nav a")].filter((e) => e.getClientRects().length && !e.closest("dialog:not([open])")).every((e) => e.getBoundingClientRect().height >= 44)`)
}

// The unit switch keeps what is stored: dimensions typed in feet come back as
// typed, and in metres as converted.
func TestImperialForms(t *testing.T) {
	s := site(t, true)
	ctx := context.Background()
	boats, err := s.App.Boats(ctx)
	require.NoError(t, err)
	p := tab(t, s)
	p.Go("/boats/" + boats[0].ID + "/survey").See("5 surfaces").Key("u").See("ft²").Press("Change her dimensions")
	p.Fill("Beam", "60").Press("Save").SeeIn(`[data-field="dimensions.beamM"]`,
		"cannot be more than the length (32.2 ft)")
	p.Fill("Beam", "10").Press("Save").See("Change her dimensions")
	require.NoError(t, p.Err())
	now, err := s.App.Boat(ctx, boats[0].ID)
	require.NoError(t, err)
	assert.InDelta(t, 3.048, now.Dimensions.BeamM, 1e-6)
	assert.Equal(t, boats[0].Dimensions.LOAM, now.Dimensions.LOAM, "what was not touched is not rounded")
	p.Key("u").Press("Change her dimensions").until("beam in metres",
		`[...document.querySelectorAll("input")].some((e) => e.value === "3.048")`)
}

func TestSurveyByPointerAndKeyboard(t *testing.T) {
	s := site(t, true)
	ctx := context.Background()
	boats, err := s.App.Boats(ctx)
	require.NoError(t, err)
	p := tab(t, s)
	p.Go("/boats/" + boats[0].ID + "/survey").See("5 surfaces")
	p.Focus(`[data-surface="Deck"]`).Key(kb.Enter).until("the deck is picked",
		`document.querySelector('[data-surface="Deck"]').getAttribute("aria-pressed") === "true"`)
	p.Press("Topsides starboard").SeeIn("section > h2", "Topsides starboard").See(
		"Shapes and principal dimensions differ by")

	// A new surface by length and width; then a change; then deletion, refused
	// where coats are logged.
	p.Press("Add a surface").Fill("Name", "Rubbing strake").Fill("Length", "9").Fill("Developed width", "0.1").Fill(
		"Pieces", "2").
		SeeIn(`[data-testid="area-found"]`, "1.8 m²").Press("Add the surface").See("6 surfaces")
	p.SeeIn("tr", "1.8 m²").SeeIn("section > h2", "Rubbing strake").Choose("Measurement 1, by", "stated").Fill("Area",
		"2.5").Fill("Uncertainty", "70").Press("Save")
	p.SeeIn(`[data-field="measured.measures[0].uncertaintyPct"]`, "between 0 % and 50 %").Fill("Uncertainty",
		"5").Press("Save").SeeIn("tr", "2.5 m²")

	// Moved up, described, put into a group, split and copied.
	p.Press("Rubbing strake up").until("it stands before the rudder",
		`((t) => t.search("Rubbing strake") > 0 && t.search("Rubbing strake") < t.search("Rudder"))(document.querySelector("[data-testid=surfaces]").innerText)`)
	p.Press("Describe").Choose("Part", "rails").Choose("Side", "port").Fill("Group", "Brightwork").Press("Save").SeeIn(
		"tr", "Brightwork")
	p.Press("Split").Fill("New surface's name", "Strake, forward").Fill("Its share", "40").Press("Split it").See(
		"7 surfaces").SeeIn("tr", "1.0 m²").SeeIn("tr", "1.5 m²")
	p.Press("Strake, forward").SeeIn("section > h2", "Strake, forward").Press("Duplicate to the other side").SeeIn(
		"section > h2", "Strake, forward, starboard").See("8 surfaces")
	p.Press("delete this surface").Press("Delete").See("7 surfaces")
	p.Press("Bottom").SeeIn("section > h2", "Bottom").Press("delete this surface").Press("Delete").See(
		"in use by its log entries")
}

func TestPlaceCanBeChangedAndABoatDeleted(t *testing.T) {
	s := site(t, true)
	ctx := context.Background()
	boats, err := s.App.Boats(ctx)
	require.NoError(t, err)
	p := tab(t, s)
	p.Go("/boats/"+boats[0].ID+"/survey").Press("Change the place").
		Fill("Latitude", "56").Fill("Time zone", "Mars/North").Press("Save").SeeIn(`[data-field="timeZone"]`,
		"is not a time zone")
	p.Fill("Time zone", "Europe/Oslo").Press("Save").See("latitude 56°")
	p.Go("/boats/" + boats[0].ID + "/today").See("Saturday 9 May, 10:24")
	p.Go("/boats/"+boats[0].ID+"/survey").Press("Change her dimensions").Press("delete this boat").Press(
		"Delete").SeeIn("h1", "coat may go on")
	left, err := s.App.Boats(ctx)
	require.NoError(t, err)
	assert.Len(t, left, 2)
}

func TestAnEntryIsCorrected(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	p := tab(t, s)
	p.Go("/boats/"+boats[0].ID+"/log").See("film 102 µm").Press("correct").SeeIn("section > h2", "Correct this entry")
	p.Fill("Wet film readings, µm", "210 230").Fill("Begun at", "2026-05-10T12:00").Press("Save the correction").SeeIn(
		`[data-field="startedAt"]`, "lies in the future")
	p.Fill("Begun at", "2026-05-08T13:00").Press("Save the correction").See("film 121 µm").See(
		"Fri 8 May, 13:00") // 220 µm wet at 55 %
	p.Press("film 121 µm").See("mean wet film").SeeIn("td", "Comb reading 2").Press("Close")
}

func TestAProductInUseIsNotDeleted(t *testing.T) {
	p := tab(t, site(t, true))
	p.Go("/library").Press("Epoxy barrier coat").SeeIn("h1", "Lay it").Press("Delete").See(
		"in use by Marsh Lantern: Bottom")
	// A sheet without recoat tables says what that costs.
	p.Press("Copy and adapt").SeeIn("h1", "A copy of").Fill("Name", "Bare sheet")
	for range 3 {
		p.Press("remove this window")
	}
	p.Press("Add to the library").SeeIn("h1", "It does not say when the next coat may follow").See("no clock can run on this product")
	// Its tables are checked row by row.
	p.Press("Add a recoat window").Press("Save the sheet").See("two or more temperatures")
}
