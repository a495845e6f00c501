package e2e

import (
	"context"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/catalog/product"
	"allcoats/demo"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"
)

// loggerFile is three days of a logger that writes as in the middle of Europe:
// semicolons, decimal commas, day first. It stands in a frost hollow.
func loggerFile(t *testing.T) string {
	var b strings.Builder
	b.WriteString("Logger 12;;\nDatum Zeit;Feuchte %;Temperatur °C\n")
	for at := demo.Now.Add(-72 * time.Hour).Truncate(time.Hour); at.Before(demo.Now); at = at.Add(10 * time.Minute) {
		temp := 4 + 4*math.Cos(2*math.Pi*(float64(at.Hour())-14)/24)
		fmt.Fprintf(&b, "%s;%s;%s\n", at.Format("02.01.2006 15:04"), strings.Replace(fmt.Sprintf("%.1f", 82.5), ".",
			",", 1), strings.Replace(fmt.Sprintf("%.1f", temp), ".", ",", 1))
	}
	file := filepath.Join(t.TempDir(), "logger.csv")
	require.NoError(t, os.WriteFile(file, []byte(b.String()), 0o600))
	return file
}

// A logger is put up, its file read and remembered, and the forecast follows it.
func TestReadingsCorrectTheForecast(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	p := tab(t, s)
	p.Go("/boats/" + boats[0].ID + "/weather").Press("Readings").See("Probe, launch, port side").See(
		"5 instruments here")
	p.Press("Add a logger or probe").Press("Add").SeeIn(`[data-field="name"]`, "give the instrument a name")
	p.Fill("Name", "Logger in the hollow").Press("Add").See("6 instruments here").Press(
		"Import a file: Logger in the hollow")
	p.Upload("Readings file", loggerFile(t)).SeeIn("th", "→ time").SeeIn("th", "→ temperature").SeeIn("th",
		"→ humidity")
	p.Choose("Temperatures are in", "°F").Press("Import these readings").SeeIn(`[data-field="mapping.tempUnit"]`,
		"that looks like °C")
	require.NoError(t, p.Err())
	p.Choose("Temperatures are in", "°C").Fill("Times are in", "Mars").Press("Import these readings").SeeIn(
		`[data-field="mapping.zone"]`, "offset such as +01:00")
	p.Fill("Times are in", "UTC").Press("Import these readings").See("435 readings are in").Press("Close")
	p.Press("Change: Logger on the slip post").Press("delete this instrument").Press("Delete").See("5 instruments here")
	p.Press("Forecast").SeeIn("h1", "colder on the mean").See("What the correction changes")

	// Without any forecast of one's own: a day in words.
	p.Press("Use these days").SeeIn(`[data-field="days[0].minC"]`, "this figure is needed")
	p.Fill("Coldest", "18").Fill("Warmest", "9").Press("Use these days").SeeIn(`[data-field="days[0].maxC"]`,
		"not be below")
	p.Fill("Coldest", "8").Fill("Warmest", "17").Press("another day").Press("Leave out day 2").Press(
		"Use these days").See("24 hours are in").See("days in my own words")
	p.Press("look at the months").Fill("May, Mean", "14").Press("Use these months").See("These months count now").See(
		"The figures of this place count")
}

// A sensor that sticks is noticed; a reading by hand moves its surface.
func TestAProbeIsDoubtedAndASpotReadingCounts(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	p := tab(t, s)
	p.Go("/boats/"+boats[0].ID+"/weather?view=readings").Press("Change: Logger on the slip post").Choose("Its fault",
		"a sensor that sticks").Press("Save")
	p.SeeIn("[role=note]", "stuck sensor?").See("1 with something odd")
	p.Press("Note a reading").Press("Note it").SeeIn(`[data-field="tempC"]`, "needed").Fill("Surface shows",
		"21.5").Press("Note it").See("One reading")
	starboard := `document.querySelector('[data-read="face-` + surfaceID(t, s, boats[0].ID, "Topsides starboard") +
		`"]')`
	p.Press("Windows").See("corrected by readings on it").until("10 °C by the model, over 16 by the reading", starboard+
		" && parseFloat("+starboard+".innerText) > 16")
}

func surfaceID(t *testing.T, s *Site, boat, name string) string {
	survey, err := s.App.Survey(context.Background(), boat)
	require.NoError(t, err)
	for _, f := range survey.Surfaces {
		if f.Name == name {
			return f.ID
		}
	}
	t.Fatalf("no surface %s", name)
	return ""
}

// Port and starboard have their own climates; a field is entered by corners;
// the best chances of the week are asked for; heat is set against waiting.
func TestWhenMayICoatAndWhatDoesATentBuy(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	port, starboard := surfaceID(t, s, boats[0].ID, "Topsides port"), surfaceID(t, s, boats[0].ID, "Topsides starboard")
	p := tab(t, s)
	p.Go("/boats/" + boats[0].ID + "/weather").See("Hour by hour").Focus(`[aria-label="Time ribbon"]`).Key(
		kb.ArrowRight)
	p.SeeIn(`[data-testid="ribbon-instant"]`, "10:24").until("the sides differ by more than 5 K in the sun", `(() => {
		const read = (id) => parseFloat(document.querySelector('[data-read="face-' + id + '"]').innerText);
		return Math.abs(read("`+port+`") - read("`+starboard+`")) > 5; })()`)

	p.Go("/library").Press("Undercoat").SeeIn("h1", "Lay it")
	for i, c := range [][2]string{{"5", "20"}, {"25", "80"}, {"25", "20"}, {"5", "80"}} {
		if i == 0 {
			p.Press("enter Printed temperature × humidity field, corner by corner")
		} else {
			p.Press("another row of Printed temperature × humidity field, corner by corner")
		}
		row := fmt.Sprintf("Printed temperature × humidity field, corner by corner, row %d, ", i+1)
		p.Fill(row+"°C", c[0]).Fill(row+"%", c[1])
	}
	p.Press("Save the sheet").SeeIn(`[data-field="limits.polygon"]`, "crosses the side")
	for i, c := range [][2]string{{"5", "20"}, {"25", "20"}, {"25", "80"}, {"5", "80"}} {
		row := fmt.Sprintf("Printed temperature × humidity field, corner by corner, row %d, ", i+1)
		p.Fill(row+"°C", c[0]).Fill(row+"%", c[1])
	}
	p.Press("Save the sheet").until("no fault any more",
		`!document.querySelector('[data-field="limits.polygon"] [role=alert]')`)
	require.NoError(t, p.Err())
	require.Eventually(t, func() bool {
		products, err := s.App.Products(context.Background())
		return err == nil && slices.ContainsFunc(products, func(q app.Product) bool {
			return q.Sheet.Kind == product.Undercoat && len(q.Sheet.Limits.Polygon) == 4
		})
	}, patience, 50*time.Millisecond, "the field is stored")
	p.Go("/boats/"+boats[0].ID+"/weather?surface="+surfaceID(t, s, boats[0].ID, "Deck")).SeeIn("figcaption",
		"the printed field").See("The air over the field of undercoat")

	p.Press("Best chances").See("If it rains").See("courses that the weather may take").SeeIn("h1", "best for").SeeIn(
		"ol li", "%")
	p.Go("/boats/"+boats[2].ID+"/weather").Press("Tent and heat").SeeIn("h1", "is best, from").Press(
		"The tent, the heat and their prices").Fill("Air changes", "900").Press("Compare").
		SeeIn(`[data-field="airChanges"]`, "between")
	p.Fill("Air changes", "1").Fill("Heat to", "16").Press("Compare").See("Tent and heat").SeeIn("td",
		"Hardener for the cold").SeeIn("td", "soonest").See("under each").See("carbon monoxide")
	p.Fill("Width", "5").Press("Save the tent").See("described; no surface is in it")
	p.Press("Put 4 surfaces in it").See("over bottom, topsides port, topsides starboard")
}

// A coat goes on late in the day; a day later the dew of the night is on record.
func TestDewOnAFreshCoatIsFlagged(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	p := tab(t, s)
	base := "/boats/" + boats[0].ID
	p.Go(base + "/today").Press("09:24, clock standing").Press("6 h on").Press("6 h on").Press("Close").See(
		"Saturday 9 May, 21:24")
	p.Go(base+"/log").Press("Log a coat or other work").Choose("Where", "Deck").Choose("Planned coat",
		"1. Undercoat").Fill("Litres used", "1").Press("Log it").See("1.00 L")
	p.Go(base + "/today").See("expected from").Press("21:24, clock standing").Press("a day on").Press("Close").See(
		"Sunday 10 May, 21:24")
	p.SeeIn("main li", "Harmed: from Saturday").SeeIn("main li", "dew on it before it was touch-dry").See(
		"of the hours since are on record")
}

// A forecast whose names nobody guesses is read once its columns are told, and the next one by itself; a climate file
// sets the usual months, and so does what was measured here.
func TestForecastFilesAsPeopleHaveThem(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	hourly := func(day int) []byte {
		var stamps, warm, damp []string
		for h := range 48 {
			stamps = append(stamps, fmt.Sprintf("%q", time.Date(2026, 5, 9+day, h, 0, 0, 0, time.UTC).Format(
				"2006-01-02T15:04")))
			warm, damp = append(warm, fmt.Sprint(11+h%5)), append(damp, fmt.Sprint(70+h%9))
		}
		return []byte(`{"h":{"k1":[` + strings.Join(warm, ",") + `],"k2":[` + strings.Join(damp, ",") + `],"stamp":[` +
			strings.Join(stamps, ",") + `]}}`)
	}
	p := tab(t, s)
	p.Go("/boats/" + boats[0].ID + "/weather?view=forecast")
	p.Upload("Weather file", write(t, "first.json", hourly(0))).Press("Import").See("no column for temperature")
	p.Press("Say what its columns are").SeeIn("[data-testid=columns]", "k1").Choose("k1", "temperature").Choose("k2",
		"humidity").Press("Import").See("48 rows are in")
	p.Upload("Weather file", write(t, "next.json", hourly(1))).Press("Import").See("Sun 10 May, 00:00 to")

	var epw strings.Builder
	epw.WriteString("LOCATION,Oyster Quay,-,XXX,made up,000000,52.5,-4.25,0.0,3.0\n")
	for range 7 {
		epw.WriteString("HEADING,0\n")
	}
	row := make([]string, 35)
	for at := time.Date(2025, 1, 1, 0, 0, 0, 0, time.UTC); at.Year() == 2025; at = at.Add(time.Hour) {
		for i := range row {
			row[i] = "0"
		}
		row[0], row[1], row[2], row[3] = "2025", fmt.Sprint(int(at.Month())), fmt.Sprint(at.Day()),
			fmt.Sprint(at.Hour()+1)
		row[6], row[8], row[21], row[22], row[13] = fmt.Sprint(int(at.Month())+4), "77", "5", "4", "9999"
		epw.WriteString(strings.Join(row, ",") + "\n")
	}
	p.Upload("Weather file", write(t, "quay.epw", []byte(epw.String()))).Press("Import").See(
		"The usual months are those of Oyster Quay now")
	p.Press("look at the months").until("May is at 9 °C", script+` && parseFloat(e2e.field("May, Mean")?.value) === 9`)
	p.Press("Take what was measured here").See("days measured here")
}
