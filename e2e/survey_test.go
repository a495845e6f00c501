package e2e

import (
	"context"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"testing"
	"time"

	"allcoats/core/boat/survey"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// At presses the first element that selector finds at a share of its width and
// height.
func (p *Page) At(selector string, x, y float64) *Page {
	return p.do(fmt.Sprintf("press %s at %g, %g", selector, x, y), func(ctx context.Context) error {
		box, err := chromedp.Run(ctx, chromedp.Evaluate[[]float64](fmt.Sprintf(`(() => { const e = document.querySelector(%s);
			e.scrollIntoView({ block: "center" }); const r = e.getBoundingClientRect(); return [r.x, r.y, r.width, r.height]; })()`, quoted(selector))))
		if err != nil {
			return err
		}
		return chromedp.Do(ctx, chromedp.MouseClickXY(box[0]+x*box[2], box[1]+y*box[3]))
	})
}

func write(t *testing.T, name string, data []byte) string {
	file := filepath.Join(t.TempDir(), name)
	require.NoError(t, os.WriteFile(file, data, 0o600))
	return file
}

// From a new boat to a walk-round sheet: surfaces of a hull type; girths, shapes,
// an outline and a 3-D file on different surfaces; a disagreement; old layers; a
// defect with a photo.
func TestSurveyJourney(t *testing.T) {
	s := site(t, false)
	p := tab(t, s)
	p.Go("/boats/new").See("Three steps").Press("round bilge").Fill("Her name", "Sandpiper").Fill("Name of the place",
		"Home Quay").Fill("Position", "52.4, 1.2").See("Europe/London").Press("Simulated weather")
	p.Fill("Length over all", "10").Fill("Beam", "3").Choose("Which side has the morning sun?", "starboard").See(
		"Guessed:").Press("Guessed:").Fill("Waterline length", "10").Fill("Draught", "1.2").Fill("Mean freeboard",
		"0.6").
		Choose("Hull type", "motor launch").Press("Add the boat").See("Take a school for each").Press("Survey").See(
		"9 surfaces").SeeIn("tr", "Boot-top")
	p.See("9 are only measured roughly")
	require.NoError(t, p.Err())

	// The bottom by girths: a box section of girth 1.6 m a side over 10 m is 32 m².
	p.Press("Bottom").See("A rule over her dimensions").Choose("Measurement 1, by", "girths").See("figures are missing")
	p.Fill("At, centreline", "0").Fill("Along the hull", "0").Fill("Girth", "1.6").Fill("Station 2 at", "5").Fill(
		"Station 2 along the hull", "5").Fill("Station 2 girth", "1.6").
		Fill("Station 3 at", "4").Fill("Station 3 along the hull", "10").Fill("Station 3 girth", "1.6").Press("Save")
	p.SeeIn(`[data-field="measured.measures[0].girths.stations[2].atM"]`, "must lie beyond the station before it, 5 m")
	p.Fill("Station 3 at", "10").SeeIn(`[data-testid="area-found"]`, "32.0 m²").Press("Save").SeeIn("tr",
		"32.0 m²").SeeIn("tr", "girths")
	p.SeeIn(`[data-testid="cross-check"]`, "The bottom as measured, 32 m²").Press("Mumford").See("Denny-Mumford").Press(
		"Close")
	require.NoError(t, p.Err())

	// A second measurement that disagrees is flagged; combining widens the ±.
	p.Press("Measure in another way").Choose("Measurement 2, by", "stated").Fill("Area", "20").See(
		"differ by 12 m²").Press("Save").SeeIn("tr", "measurements disagree")
	p.SeeIn("h1", "Tape Bottom again before you buy")

	// Shapes, one taken off; too much taken off is refused.
	p.Press("Cabin sides").SeeIn("section > h2", "Cabin sides").Choose("Measurement 1, by", "shapes").Fill("Length",
		"3").Fill("Developed width", "0.5").Fill("Pieces", "2").SeeIn(`[data-testid="area-found"]`, "3.0 m²")
	p.Choose("Is", "− taken off").See("nothing is left").Choose("Is", "+ added").Press("Save").SeeIn("tr", "3.0 m²")
	require.NoError(t, p.Err())

	// An outline: read from a drawing, a hole typed in, a margin, then too much of it.
	p.Press("Cabin top").SeeIn("section > h2", "Cabin top").Choose("Measurement 1, by", "outline").Press(
		"Read the outline from a drawing")
	svg := write(t, "top.svg",
		[]byte(
			`<svg xmlns="http://www.w3.org/2000/svg" width="3000mm" height="2000mm" viewBox="0 0 3000 2000"><rect width="3000" height="2000"/><circle cx="9" cy="9" r="5"/></svg>`))
	p.Upload("Drawing file", svg).See("Shape 1: 6.000 m²").Press("take it as the outline").SeeIn(
		`[data-testid="area-found"]`, "6.0 m²")
	p.Press("Add a hole").Fill("Corners, x and y in m, one a line", "1, -1.5\n2, -1.5\n2, -0.5\n1, -0.5").SeeIn(
		`[data-testid="area-found"]`, "5.0 m²")
	p.Fill("Margin left around", "0.1").SeeIn(`[data-testid="area-found"]`,
		"3.6 m²") // 2.8 · 1.8 − 1.2 · 1.2, its corners round
	p.Fill("Margin left around", "1").SeeIn(`[data-field="measured.measures[0].outline.marginM"]`,
		"eats the whole outline").Fill("Margin left around", "0.1").Press("Save").SeeIn("tr", "3.6 m²")
	bad := write(t, "bad.dxf", []byte("0\nSECTION\n"))
	p.Upload("Drawing file", bad).See("it is cut off, or no DXF file")
	// Corners are added by pressing on the grid; a line that crosses itself is refused.
	p.Press("Outline").At(`[data-testid="trace"]`, 0.5, 0.02).See("crosses itself").Press("Undo the last corner").SeeIn(
		`[data-testid="area-found"]`, "3.6 m²")
	require.NoError(t, p.Err())

	// A 3-D file: first cut off, then in the wrong unit, then right. Half of the
	// hull below the waterline is 17.02 m² (34.02 in all).
	stl, err := os.ReadFile("../calc/testdata/meshes/wigley_deck.stl")
	require.NoError(t, err)
	p.Press("3-D files and offsets").Upload("Model file", write(t, "cut.stl", stl[:4000])).Press("Measure it").See(
		"it is cut off or no STL file")
	p.Upload("Model file", write(t, "hull.stl", stl)).Fill("Model name", "Hull").Fill(
		"Boot-top, height above the waterline", "0.1").Choose("Unit of the file", "ft").Press("Measure it").See(
		"In m it would be 10 m: was it drawn in m?").
		At(`[data-field="sure"] input`, 0.5, 0.5).Press("Measure it").SeeIn(`[data-testid="models"]`, "3.05 m × 0.91 m")
	p.Press("place it otherwise").Choose("Unit of the file", "m").Press("Measure it anew").SeeIn(
		`[data-testid="models"]`, "10.00 m × 3.00 m").SeeIn(`[data-testid="models"]`, "bottom 34.0 m²")
	p.Press("Back to the map").See("Drawn from Hull").Press("Topsides port").SeeIn("section > h2",
		"Topsides port").Choose("Measurement 1, by", "3-D model").Choose("Model", "Hull").Choose("What of it",
		"topsides")
	p.SeeIn(`[data-testid="area-found"]`, "5.3 m²").Press("Save").SeeIn("tr",
		"5.3 m²") // of 12.69 m² on both sides a sixth is boot-top
	require.NoError(t, p.Err())

	// Old layers by their rings; the one to stay; cautions.
	p.Press("Old layers").Fill("Rings of colour that sanding showed", "white, blue, red").Press(
		"Make layers of them").See("Layer 3 is")
	p.Press("Layer 1 must stay").Press("Save").See("may hold lead").See("must stay").See(
		"thickness of a layer that may be sanded is not known")

	// A defect pinned on the map, with a photo; a file that is no picture is refused.
	p.Press("Pin a defect").See("Press the place of the defect").At(`[data-surface="Topsides port"]`, 0.4, 0.5).See(
		"A new defect").Choose("What is it", "crack").
		Fill("Length", "200").Fill("Width", "5").Fill("Depth", "4").Fill("Note", "below the rail").Press("Note it").See(
		"Defect 1").SeeIn(`[data-testid="register"]`, "crack 200 × 5 × 4 mm")
	p.Upload("Photo", write(t, "no.jpg", []byte("no picture"))).See("this is no JPEG, PNG or WebP picture")
	png, err := os.ReadFile("../docs/screenshots/log.png")
	require.NoError(t, err)
	p.Upload("Photo", write(t, "crack.png", png)).until("the photo shows",
		`[...document.querySelectorAll("figure img")].some((i) => i.complete && i.naturalWidth > 100)`)
	p.Choose("How far it is", "opened").Press("Save the defect").SeeIn(`[data-testid="register"]`, "opened").SeeIn(
		`[data-pin="1"]`, "1")
	p.Press("Walk-round sheet").See("1 to look at").SeeIn("tr", "below the rail").SeeIn("tr", "port side")
	require.NoError(t, p.Err())

	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	got, err := s.App.Survey(context.Background(), boats[0].ID)
	require.NoError(t, err)
	require.Len(t, got.Defects, 1)
	assert.Equal(t, "port side", got.Defects[0].Place.View)
	assert.InDelta(t, 6, got.Defects[0].Place.X, 0.3, "two fifths from the bow of 10 m")
	assert.Equal(t, "opened", got.Defects[0].State)
	assert.Len(t, got.Defects[0].Photos, 1)
	assert.LessOrEqual(t, got.Defects[0].Photos[0].Width, 1600)
	assert.Equal(t, survey.Gelcoat, got.Surfaces[0].Substrate)
}

// At the hull with a phone: the measuring sheet's fields, in its order.
func TestMeasuringSheetOnThePhone(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	p := phone(t, s)
	p.Go("/boats/"+boats[1].ID+"/survey/measuring-sheet").See("Tape 3 surfaces at stations").until(
		"no sideways scrolling", `document.documentElement.scrollWidth <= innerWidth`)
	for i, g := range []string{"0.5", "0.6", "0.62", "", "0.66", "0.7", "0.75"} {
		p.Fill(fmt.Sprintf("Topsides starboard, station %d girth", i+1), g)
	}
	p.Press("Save Topsides starboard").SeeIn(`[data-field="girths.stations[3].girthM"]`, "this is not a number")
	p.Fill("Topsides starboard, station 4 girth", "0.64").Press("Save Topsides starboard").SeeIn("[data-panel]",
		"saved: 4.6 m²")
	require.NoError(t, p.Err())
	got, err := s.App.Survey(context.Background(), boats[1].ID)
	require.NoError(t, err)
	m := got.Surfaces[2].Measured
	require.Len(t, m.Measures, 2, "beside the one by principal dimensions")
	assert.Equal(t, 1, m.Chosen)
	assert.InDelta(t, 7.2, m.Measures[1].Girths.Stations[6].AtM, 1e-9)
}

// The sheet for the walk round prints as a page of its own: no navigation, and
// the defects on it.
func TestWalkRoundPrints(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	p := tab(t, s)
	var pdf []byte
	p.Go("/boats/"+boats[0].ID+"/survey/walk-round").See("6 to look at").do("print",
		func(ctx context.Context) (err error) {
			pdf, err = chromedp.Run(ctx, chromedp.PrintToPDF(chromedp.PDFPaper(chromedp.PaperA4),
				chromedp.PDFPrintBackground()))
			return err
		})
	require.NoError(t, p.Err())
	assert.True(t, len(pdf) > 10_000 && string(pdf[:5]) == "%PDF-")
}

// Two people at one surface: the second gets both versions.
func TestTwoTabsMeasuringOneSurface(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	survey, err := s.App.Survey(context.Background(), boats[1].ID)
	require.NoError(t, err)
	at := "/boats/" + boats[1].ID + "/survey?surface=" + survey.Surfaces[4].ID
	one, two := tab(t, s), tab(t, s)
	one.Go(at).SeeIn("section > h2", "Mizzen mast").Fill("Length", "5")
	two.Go(at).SeeIn("section > h2", "Mizzen mast").Fill("Length", "5.5")
	one.Press("Save").SeeIn("tr", "1.4 m²")
	two.Press("Save").See("changed elsewhere").SeeIn("tr", "5.5").Press("Take what is stored").SeeIn(
		`[data-testid="area-found"]`, "1.4 m²")
	two.Fill("Length", "6").Press("Save").SeeIn("tr", "1.7 m²")
	require.NoError(t, two.Err())
}

// In imperial units figures are typed and shown in feet, and kept in metres.
func TestSurveyInFeet(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	p := tab(t, s)
	p.Go("/boats/"+boats[1].ID+"/survey").See("6 surfaces").Key("u").See("ft²").Press("Mizzen mast").SeeIn(
		"section > h2", "Mizzen mast")
	p.Fill("Length", "10").Fill("Developed width", "1").SeeIn(`[data-testid="area-found"]`, "10 ft²").Press(
		"Save").SeeIn("tr", "10 ft²")
	require.NoError(t, p.Err())
	require.Eventually(t, func() bool { // a row may say ten square feet of another surface before this one is stored
		survey, err := s.App.Survey(context.Background(), boats[1].ID)
		return err == nil && math.Abs(survey.Surfaces[4].Measured.Measures[0].Shapes[0].AM-3.048) < 1e-6
	}, 10*time.Second, 50*time.Millisecond, "ten feet are 3.048 m")
	p.Press("Topsides port").SeeIn("section > h2", "Topsides port").Press("Defects").See(
		"No defect is noted here").Press("Pin a defect").At(`[data-surface="Topsides port"]`, 0.5, 0.6).Fill("Length",
		"4").Fill("Width", "1").Fill("Depth", "0.5").Press("Note it").SeeIn(`[data-testid="register"]`,
		"4.00 × 1.00 × 0.50 in")
}

// What a surface's mark says follows what the map is asked to show.
func TestMapMarks(t *testing.T) {
	s := site(t, true)
	boats, err := s.App.Boats(context.Background())
	require.NoError(t, err)
	p := tab(t, s)
	mark := func(surface, key string) {
		p.until(surface+" is "+key, fmt.Sprintf(`document.querySelector('[data-surface=%q]').dataset.mark === %q`,
			surface, key))
	}
	p.Go("/boats/" + boats[0].ID + "/survey").See("5 surfaces")
	mark("Topsides starboard", "disagree")
	p.Press("coats").See("curing")
	mark("Bottom", "open")
	mark("Deck", "bare")
	p.Press("defects").See("defects to mend")
	mark("Rudder", "none")
	p.Press("Defect 3").SeeIn(`[data-testid="defect-form"]`, "Defect 3").until("her photo",
		`document.querySelectorAll("figure img").length === 1`)
}
