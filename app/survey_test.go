package app_test

import (
	"bytes"
	"image"
	"image/color"
	"image/jpeg"
	"os"
	"testing"

	"allcoats/app"
	"allcoats/core/base/fielderr"
	"allcoats/core/boat/area"
	"allcoats/core/boat/outline"
	"allcoats/core/boat/survey"
	"allcoats/core/film/step"
	"allcoats/core/geometry/mesh"
	"allcoats/core/job/logbook"
	"allcoats/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// refused checks that err is a fault at path.
func refused(t *testing.T, err error, path string) {
	t.Helper()
	var bad fielderr.Errors
	require.ErrorAs(t, err, &bad, path)
	assert.Equal(t, path, bad[0].Path)
}

func surveyed(t *testing.T, a *app.App, boat int) app.Survey {
	boats, err := a.Boats(ctx)
	require.NoError(t, err)
	s, err := a.Survey(ctx, boats[boat].ID)
	require.NoError(t, err)
	return s
}

func TestSplitKeepsTheWholeAndThePlan(t *testing.T) {
	a := withDemo(t)
	bottom := surveyed(t, a, 0).Surfaces[0]
	made, err := a.SplitSurface(ctx, bottom.ID, bottom.Version, 30, " Bottom, forward ")
	require.NoError(t, err)
	assert.Equal(t, "Bottom, forward", made.Name)
	s := surveyed(t, a, 0)
	assert.Equal(t, made.ID, s.Surfaces[1].ID, "behind the one it was taken from")
	assert.InDelta(t, bottom.Area.AreaM2, s.Surfaces[0].Area.AreaM2+s.Surfaces[1].Area.AreaM2, 1e-9)
	assert.InDelta(t, 0.3*bottom.Area.AreaM2, made.Area.AreaM2, 1e-9)
	plan, err := a.BuildUp(ctx, made.ID)
	require.NoError(t, err)
	assert.Len(t, plan.Steps, 2)
	assert.Equal(t, []int{0, 0}, plan.Done, "what was logged stays with the first")
	require.NotEmpty(t, made.Findings.Layers)
	// Split once more: 30 % of 30 %.
	again, err := a.SplitSurface(ctx, made.ID, made.Version, 30, "stem")
	require.NoError(t, err)
	assert.InDelta(t, 0.09*bottom.Area.AreaM2, again.Area.AreaM2, 1e-9)

	_, err = a.SplitSurface(ctx, bottom.ID, bottom.Version, 30, "late")
	assert.ErrorAs(t, err, &app.Conflict{})
	_, err = a.SplitSurface(ctx, bottom.ID, bottom.Version+1, 100, "all")
	refused(t, err, "pct")
	_, err = a.SplitSurface(ctx, bottom.ID, bottom.Version+1, 30, " ")
	refused(t, err, "name")
}

func TestDuplicateToTheOtherSide(t *testing.T) {
	a := withDemo(t)
	s := surveyed(t, a, 0)
	twin, err := a.DuplicateSurface(ctx, s.Surfaces[1].ID)
	require.NoError(t, err)
	assert.Equal(t, "Topsides starboard", twin.Name)
	assert.Equal(t, area.Starboard, twin.Side)
	assert.Equal(t, s.Surfaces[1].Area.AreaM2, twin.Area.AreaM2)
	plan, err := a.BuildUp(ctx, twin.ID)
	require.NoError(t, err)
	assert.Len(t, plan.Steps, 2)
	copied, err := a.DuplicateSurface(ctx, s.Surfaces[4].ID)
	require.NoError(t, err)
	assert.Equal(t, "Rudder, copy", copied.Name)
}

func TestOrderAndTemplates(t *testing.T) {
	a := withDemo(t)
	s := surveyed(t, a, 0)
	ids := make([]string, len(s.Surfaces))
	for i, f := range s.Surfaces {
		ids[len(ids)-1-i] = f.ID
	}
	require.NoError(t, a.OrderSurfaces(ctx, s.Boat.ID, ids))
	assert.Equal(t, "Rudder", surveyed(t, a, 0).Surfaces[0].Name)
	refused(t, a.OrderSurfaces(ctx, s.Boat.ID, ids[1:]), "ids")

	n, err := a.AddTemplate(ctx, s.Boat.ID, "motor-launch", survey.GRP)
	require.NoError(t, err)
	assert.Equal(t, 6, n, "bottom and topsides are there already")
	n, err = a.AddTemplate(ctx, s.Boat.ID, "motor-launch", survey.GRP)
	require.NoError(t, err)
	assert.Zero(t, n)
	_, err = a.AddTemplate(ctx, s.Boat.ID, "raft", survey.GRP)
	refused(t, err, "template")
	_, err = a.AddTemplate(ctx, s.Boat.ID, "plain", "cheese")
	refused(t, err, "substrate")
	_, err = a.AddTemplate(ctx, "nobody", "plain", survey.GRP)
	assert.ErrorIs(t, err, app.ErrNotFound)
}

func TestModelsMeasureAndDraw(t *testing.T) {
	a := withDemo(t)
	s := surveyed(t, a, 2)
	require.Len(t, s.Models, 1)
	assert.Equal(t, "Table of offsets", s.DrawnFrom)
	m := s.Models[0]
	assert.Empty(t, m.Findings, "a lofted hull is open at its edges")
	assert.ErrorAs(t, a.RemoveModel(ctx, m.ID), &app.InUse{}, "the bottom is measured by it")

	// Its bottom would vanish: refused, and nothing changes.
	e := m.ModelEdit
	e.WaterlineM = 0.001
	e.WaterlineM = -5
	_, err := a.EditModel(ctx, m.ID, m.Version, e)
	refused(t, err, "waterlineM")
	assert.Equal(t, m, surveyed(t, a, 2).Models[0])
	e.WaterlineM = m.WaterlineM + 0.1
	deeper, err := a.EditModel(ctx, m.ID, m.Version, e)
	require.NoError(t, err)
	assert.Greater(t, deeper.Areas.Zones[mesh.Bottom].PortM2, m.Areas.Zones[mesh.Bottom].PortM2)
	_, err = a.EditModel(ctx, m.ID, m.Version, e)
	assert.ErrorAs(t, err, &app.Conflict{})

	// Another that draws takes the drawing over; unused it can go.
	stl, err := os.ReadFile("../calc/testdata/meshes/wigley_deck.stl")
	require.NoError(t, err)
	other := app.ModelEdit{Name: "Hull", Draws: true, Placing: mesh.Placing{Unit: "m", Up: "+z", Forward: "+x"}}
	_, err = a.AddModel(ctx, s.Boat.ID, "stl", other, stl)
	refused(t, err, "unit") // 10 m on a boat of 6.4 m: asked about
	other.Sure = true
	made, err := a.AddModel(ctx, s.Boat.ID, "stl", other, stl)
	require.NoError(t, err)
	assert.False(t, made.Sure, "an answer is not kept")
	assert.Equal(t, "Hull", surveyed(t, a, 2).DrawnFrom)
	require.NoError(t, a.RemoveModel(ctx, made.ID))
	other.Unit = "ft"
	other.Name = " "
	_, err = a.AddModel(ctx, s.Boat.ID, "stl", other, stl)
	refused(t, err, "name")
	_, err = a.AddModel(ctx, s.Boat.ID, "stl", app.ModelEdit{Name: "cut", Placing: m.Placing}, stl[:500])
	refused(t, err, "file")
	assert.Len(t, surveyed(t, a, 2).Models, 1)
}

func TestSurfacesThatCannotBe(t *testing.T) {
	a := withDemo(t)
	s := surveyed(t, a, 0)
	for path, change := range map[string]func(*app.SurfaceEdit){
		"name":              func(e *app.SurfaceEdit) { e.Name = " " },
		"part":              func(e *app.SurfaceEdit) { e.Part = "sail" },
		"tone":              func(e *app.SurfaceEdit) { e.Tone = "" },
		"findings.stop":     func(e *app.SurfaceEdit) { e.Findings.Stop = 9 },
		"measured.measures": func(e *app.SurfaceEdit) { e.Measured.Measures = nil },
		"measured.measures[0].areaM2": func(e *app.SurfaceEdit) {
			e.Measured.Measures = []area.Measure{
				{Method: area.Stated}}
		},
	} {
		e := s.Surfaces[0].SurfaceEdit
		change(&e)
		_, err := a.EditSurface(ctx, s.Surfaces[0].ID, s.Surfaces[0].Version, e)
		refused(t, err, path)
	}
	assert.Equal(t, s, surveyed(t, a, 0))
}

func photoOf(t *testing.T, w, h int) []byte {
	img := image.NewGray(image.Rect(0, 0, w, h))
	for x := range w {
		img.SetGray(x, h/2, color.Gray{Y: 200})
	}
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, img, nil))
	return b.Bytes()
}

func TestDefectsAndPhotos(t *testing.T) {
	a := withDemo(t)
	s := surveyed(t, a, 0)
	require.Len(t, s.Defects, 6)
	assert.Equal(t, outline.StarboardSide, s.Defects[0].Place.View, "the walk begins to starboard")
	assert.Equal(t, 2, s.Surfaces[0].OpenDefects)
	crack := s.Defects[3]
	require.Equal(t, "crack", crack.Kind)
	require.Len(t, crack.Photos, 1)

	d, err := a.AddPhoto(ctx, crack.ID, photoOf(t, 4000, 1000))
	require.NoError(t, err)
	require.Len(t, d.Photos, 2)
	assert.Equal(t, []int{1600, 400}, []int{d.Photos[1].Width, d.Photos[1].Height})
	kept, err := a.PhotoJPEG(ctx, d.Photos[1].ID)
	require.NoError(t, err)
	img, err := jpeg.DecodeConfig(bytes.NewReader(kept))
	require.NoError(t, err)
	assert.Equal(t, 1600, img.Width)

	whole := photoOf(t, 300, 200)
	for name, data := range map[string][]byte{"text": []byte("not a picture"), "cut off": whole[:len(whole)/3],
		"empty": nil, "huge": photoOf(t, 65000, 1000)} {
		_, err := a.AddPhoto(ctx, crack.ID, data)
		refused(t, err, "file")
		_ = name
	}
	for range 10 {
		_, err := a.AddPhoto(ctx, crack.ID, whole)
		require.NoError(t, err)
	}
	_, err = a.AddPhoto(ctx, crack.ID, whole)
	refused(t, err, "file")
	require.NoError(t, a.RemovePhoto(ctx, d.Photos[1].ID))

	e := crack.DefectEdit
	e.State = "faired"
	mended, err := a.EditDefect(ctx, crack.ID, crack.Version, e)
	require.NoError(t, err)
	assert.False(t, mended.Repair.Open)
	assert.Equal(t, 1, surveyed(t, a, 0).Surfaces[1].OpenDefects)
	_, err = a.EditDefect(ctx, crack.ID, crack.Version, e)
	assert.ErrorAs(t, err, &app.Conflict{})
	// Found again it is the same defect, and says what it was.
	again := mended.DefectEdit
	again.State, again.Frame, again.History = "found", "4", nil
	back, err := a.EditDefect(ctx, crack.ID, mended.Version, again)
	require.NoError(t, err)
	require.Len(t, back.History, 2, "whatever the client sends of it")
	assert.Equal(t, mended.State, back.History[1].State)
	assert.Equal(t, demo.Now, back.History[1].At)
	assert.Equal(t, "4", back.Frame)
	e.SurfaceID = surveyed(t, a, 1).Surfaces[0].ID
	_, err = a.AddDefect(ctx, s.Boat.ID, app.NewDefect{DefectEdit: e})
	refused(t, err, "surfaceId")
	require.NoError(t, a.RemoveDefect(ctx, crack.ID))
	_, err = a.PhotoJPEG(ctx, d.Photos[0].ID)
	assert.ErrorIs(t, err, app.ErrNotFound, "the photos go with it")
}

// Film that a logged sanding takes off is checked against what may go.
func TestSandingThroughIsFlagged(t *testing.T) {
	a := withDemo(t)
	port := surveyed(t, a, 0).Surfaces[1]
	plan, err := a.BuildUp(ctx, port.ID)
	require.NoError(t, err)
	assert.InDelta(t, 80+103.8+101.8, plan.Margin.AboveUm, 1, "the old paint and two coats")
	assert.Contains(t, plan.MarginText.String(), "above the old gelcoat white")
	now, err := a.Now(ctx)
	require.NoError(t, err)
	log := func(um float64) app.Entry {
		e, err := a.AddEntry(ctx, app.NewEntry{Entry: logbook.Entry{SurfaceID: port.ID, Kind: step.Sand, StartedAt: now,
			Grit: 120, RemovedUm: um}})
		require.NoError(t, err)
		return e
	}
	assert.Empty(t, log(200).Flag)
	assert.Contains(t, log(100).Flag.String(), "through into the old gelcoat")
	after, err := a.BuildUp(ctx, port.ID)
	require.NoError(t, err)
	assert.Zero(t, after.Margin.AboveUm)
}

func TestReadDrawing(t *testing.T) {
	a := withDemo(t)
	d, err := a.ReadDrawing("svg", 0,
		[]byte(
			`<svg width="1000mm" viewBox="0 0 1000 500"><circle cx="9" cy="9" r="5"/><rect width="1000" height="500"/></svg>`))
	require.NoError(t, err)
	require.Len(t, d.Rings, 2)
	assert.InDelta(t, 0.5, d.Rings[0].AreaM2, 1e-9, "the largest first")
	assert.InDelta(t, 1, d.Rings[0].WidthM, 1e-9)
	_, err = a.ReadDrawing("svg", 0,
		[]byte(`<svg width="10mm" viewBox="0 0 10 10"><path d="M0 0L9 9L9 0L0 9Z"/></svg>`))
	refused(t, err, "file.outer")
	_, err = a.ReadDrawing("pdf", 0, nil)
	refused(t, err, "format")
}
