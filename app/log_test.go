package app_test

import (
	"bytes"
	"encoding/json"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/base/fielderr"
	"allcoats/core/film/step"
	"allcoats/core/job/application"
	"allcoats/core/job/logbook"
	"allcoats/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func path(t *testing.T, err error) string {
	t.Helper()
	var bad fielderr.Errors
	require.ErrorAs(t, err, &bad)
	return bad[0].Path
}

// entryOn is a coat of what comes next on a surface of a boat.
func entryOn(a *app.App, boatID, surface string) logbook.Entry {
	s := must(a.Survey(ctx, boatID))
	for _, f := range s.Surfaces {
		if f.Name == surface {
			b := must(a.BuildUp(ctx, f.ID))
			for i, st := range b.Steps {
				if st.ProductID != "" && b.Done[i] < st.Coats {
					return logbook.Entry{SurfaceID: f.ID, Kind: step.Coat, StartedAt: demo.Now, ProductID: st.ProductID,
						StepID: st.ID, Who: "Ada"}
				}
			}
		}
	}
	panic("nothing waits on " + surface)
}

func boatNamed(a *app.App, name string) app.Boat {
	for _, b := range must(a.Boats(ctx)) {
		if b.Name == name {
			return b
		}
	}
	panic(name)
}

func TestTheSameEntryTwiceIsStoredOnce(t *testing.T) {
	a := withDemo(t)
	boat := boatNamed(a, "Marsh Lantern")
	n := app.NewEntry{ID: "0190f0a0-0000-7000-8000-000000000001", Entry: logbook.Entry{BoatID: boat.ID, Kind: "other",
		StartedAt: demo.Now, Note: "props checked"}}
	before := len(must(a.Log(ctx, boat.ID)))
	first := must(a.AddEntry(ctx, n))
	again := must(a.AddEntry(ctx, n))
	assert.Equal(t, first, again)
	assert.Len(t, must(a.Log(ctx, boat.ID)), before+1)
	// Corrected in between it is still known; with other contents it is a conflict.
	e := first.Entry
	e.Note = "props checked twice"
	must(a.EditEntry(ctx, first.ID, 1, e))
	assert.Equal(t, "props checked twice", must(a.AddEntry(ctx, n)).Note)
	n.Note = "another"
	_, err := a.AddEntry(ctx, n)
	assert.ErrorAs(t, err, &app.Conflict{})
	was := must(a.EntryHistory(ctx, first.ID))
	require.Len(t, was, 1)
	assert.Equal(t, "props checked", was[0].Note)
}

func TestWhatANewEntryIsAsked(t *testing.T) {
	a := withDemo(t)
	boat := boatNamed(a, "Marsh Lantern")
	e := entryOn(a, boat.ID, "Topsides port") // its last coat went on yesterday evening, in the cold
	_, err := a.AddEntry(ctx, app.NewEntry{Entry: e})
	assert.Equal(t, "early", path(t, err))
	e.Early = "the tent comes down tonight"
	got := must(a.AddEntry(ctx, app.NewEntry{Entry: e}))
	assert.Contains(t, got.Flag.String(), "the tent comes down tonight")
	require.NotNil(t, got.Conditions)
	assert.True(t, got.Conditions.Measured, "from the readings")
	assert.InDelta(t, 8, got.Conditions.AirC, 8)

	e = entryOn(a, boat.ID, "Bottom")
	e.Litres = 40
	_, err = a.AddEntry(ctx, app.NewEntry{Entry: e})
	assert.Equal(t, "litres", path(t, err))
	e.BeyondShelf = true
	must(a.AddEntry(ctx, app.NewEntry{Entry: e}))

	for where, edit := range map[string]func(*logbook.Entry){
		"wetUm": func(e *logbook.Entry) { e.WetUm = []float64{8, 7.5} },
		"dry.readingsUm": func(e *logbook.Entry) {
			e.Dry = &logbook.Dry{NominalUm: 300,
				ReadingsUm: []float64{11, 12, 12}}
		},
		"blemishes[0]": func(e *logbook.Entry) { e.Blemishes = []string{"ugly"} },
		"startedAt":    func(e *logbook.Entry) { e.StartedAt = demo.Now.Add(time.Hour) },
		"surfaceId":    func(e *logbook.Entry) { e.SurfaceID, e.BoatID = "", boat.ID },
		"kind":         func(e *logbook.Entry) { e.Kind = "prayed" },
	} {
		bad := e
		edit(&bad)
		_, err := a.AddEntry(ctx, app.NewEntry{Entry: bad})
		assert.Equal(t, where, path(t, err))
	}
}

// A coat that was mixed off, laid thick and dewed on, with runs and blush on it.
func TestCausesComeFromTheCoatsOwnRecord(t *testing.T) {
	a := withDemo(t)
	boat := boatNamed(a, "Sounding Line")
	e := entryOn(a, boat.ID, "Bottom")
	e.Early, e.WetUm, e.BaseG, e.HardenerG, e.Blemishes = "in haste", []float64{900, 950}, 1000, 100,
		[]string{"runs", "soft"}
	got := must(a.AddEntry(ctx, app.NewEntry{Entry: e}))
	require.NotNil(t, got.Mixed)
	assert.False(t, got.Mixed.Within)
	found := must(a.Suspects(ctx, got.ID, nil))
	require.Len(t, found, 2)
	assert.Contains(t, found[0].Causes[0].Told.String(), "925 µm wet")
	told := ""
	for _, c := range found[1].Causes {
		told += c.Told.String()
	}
	assert.Contains(t, told, "the hardener weighed was")
	assert.NotEmpty(t, found[1].Remedy)
}

func TestTheBenchOfACoat(t *testing.T) {
	a := withDemo(t)
	boat := boatNamed(a, "Marsh Lantern")
	e := entryOn(a, boat.ID, "Topsides starboard")
	b := must(a.Bench(ctx, boat.ID, app.BenchQuery{SurfaceID: e.SurfaceID}))
	assert.Equal(t, e.ProductID, b.ProductID)
	require.NotEmpty(t, b.Pot.Targets)
	sum := 0.0
	for _, p := range b.Batches.Batches {
		sum += p.Litres - 0.03
	}
	assert.InDelta(t, b.Litres, sum, 1e-6, "the pots make the coat, less what is left in each")
	last := b.Pot.Targets[len(b.Pot.Targets)-1]
	assert.InDelta(t, b.Pot.PotG, *last.ScaleG, 1e-6)
	assert.InDelta(t, 1000*b.Pot.PotL, last.MarkML, 1e-6)
	state := map[string]application.State{}
	for _, c := range b.Checks {
		state[c.Key] = c.State
	}
	assert.Equal(t, application.Ask, state["mask"])
	next := 0.0
	for _, k := range must(a.Job(ctx, boat.ID)).Chain(e.SurfaceID).Tasks {
		if k.Films && k.Left() {
			next = k.LeftL
			break
		}
	}
	assert.InDelta(t, next, b.Litres, 1e-9, "what the next coat takes with what was learned")
	assert.Contains(t, b.Says.In(time.UTC), "mix 2.48 L")

	pot := app.PotEdit{ID: "0190f0a0-0000-7000-8000-000000000002", SurfaceID: e.SurfaceID, ProductID: b.ProductID,
		Litres: 1, MixedAt: demo.Now}
	must(a.PutPot(ctx, boat.ID, pot))
	must(a.PutPot(ctx, boat.ID, pot))
	laid := demo.Now
	pot.LaidAt = &laid
	pots := must(a.PutPot(ctx, boat.ID, pot))
	require.Len(t, pots, 1)
	keys := map[string]*time.Time{}
	for _, x := range pots[0].Timers {
		keys[x.Key] = x.At
	}
	require.NotNil(t, keys["pot"])
	require.NotNil(t, keys["wet-edge"])
	require.NotNil(t, keys["tape"])
	assert.True(t, keys["wet-edge"].Before(*keys["tape"]))
	pot.EmptiedAt = &laid
	assert.Empty(t, must(a.PutPot(ctx, boat.ID, pot)))

	_, err := a.Bench(ctx, boat.ID, app.BenchQuery{ProductID: "none"})
	assert.Equal(t, "productId", path(t, err))
	_, err = a.PutPot(ctx, boat.ID, app.PotEdit{ID: pot.ID, ProductID: b.ProductID, MixedAt: demo.Now})
	assert.Equal(t, "litres", path(t, err))
}

func TestScaleAndGauge(t *testing.T) {
	a := withDemo(t)
	boat := boatNamed(a, "Marsh Lantern")
	for _, i := range must(a.Instruments(ctx, boat.PlaceID)) {
		switch string(i.Kind) {
		case "scale":
			shown := must(a.Values(ctx, i.ID, 500, 1))
			assert.Less(t, shown[0].Value, 500.0, "pouring has just begun")
			i.Feed = app.Live
			must(a.EditInstrument(ctx, i.ID, i.Version, i.InstrumentEdit))
			must(a.TakeReadings(ctx, i.ID, []byte(`{"at":"2026-05-09T08:20:00Z","value":0.4125,"unit":"kg"}`)))
			assert.Equal(t, 412.5, must(a.Values(ctx, i.ID, 0, 1))[0].Value)
			_, err := a.TakeReadings(ctx, i.ID, []byte(`{"at":"2026-05-09T08:20:00Z","value":4,"unit":"mil"}`))
			assert.Equal(t, "line 1.unit", path(t, err))
		case "gauge":
			um := must(a.Values(ctx, i.ID, 200, 50))
			require.Len(t, um, 50)
			sum := 0.0
			for _, v := range um {
				sum += v.Value / 50
			}
			assert.InDelta(t, 200, sum, 12)
		}
	}
}

func TestAccountsAndUpkeep(t *testing.T) {
	a := withDemo(t)
	boat := boatNamed(a, "Reed Warbler")
	acc := must(a.Accounts(ctx, boat.ID))
	log := must(a.Log(ctx, boat.ID))
	hours, litres := 0.0, 0
	for _, e := range log {
		hours += e.Hours
		if e.Litres > 0 {
			litres++
		}
	}
	assert.InDelta(t, hours, acc.Hours, 1e-9)
	sum := acc.Lines.Sum()
	assert.InDelta(t, hours, sum.DoneH, 1e-9)
	assert.InDelta(t, acc.LeftHours, sum.ToComeH, 1e-6, "what is to come is shared out, nothing lost")
	assert.True(t, acc.LeftLowH < acc.LeftHours && acc.LeftHours < acc.LeftHighH)
	assert.True(t, acc.TotalLow < acc.TotalCents && acc.TotalCents < acc.TotalHigh)
	assert.InDelta(t, acc.Hours*2800, acc.LabourCents, 1e-6)
	assert.Positive(t, acc.MaterialCents)
	assert.Positive(t, acc.LeftMaterial)
	up := must(a.Upkeep(ctx, boat.ID))
	require.NotEmpty(t, up.Films, "varnish comes due")
	for i := 1; i < len(up.Films); i++ {
		assert.False(t, up.Films[i].At.Before(up.Films[i-1].At))
	}
	table := must(a.LogTable(ctx, boat.ID))
	assert.Len(t, table.Rows, len(log))
	report := must(a.Report(ctx, boat.ID))
	assert.Len(t, report.Surfaces, len(must(a.Survey(ctx, boat.ID)).Surfaces))
}

// Out of one database, into another, out again: the same file. Then the ways in
// which a file is refused.
func TestBoatFileRoundTrip(t *testing.T) {
	a := withDemo(t)
	boat := boatNamed(a, "Marsh Lantern")
	log := must(a.Log(ctx, boat.ID))
	must(a.AddEntryPhoto(ctx, log[0].ID, "", photoOf(t, 400, 300)))
	first := must(a.BoatFile(ctx, boat.ID))
	b := open(t, filepath.Join(t.TempDir(), "b.db"))
	require.NoError(t, b.SetClock(ctx, app.FixedClock, demo.Now))
	// The examples of a new library are others, so its products are added.
	taken := must(b.TakeBoat(ctx, first))
	assert.Equal(t, "Marsh Lantern", taken.Boat)
	assert.Greater(t, taken.Added, 50)
	assert.JSONEq(t, string(first), string(must(b.BoatFile(ctx, taken.BoatID))))
	assert.Zero(t, must(b.TakeBoat(ctx, first)).Added, "all of it is there")
	theirs := must(b.Log(ctx, taken.BoatID))
	require.Len(t, theirs, len(log))
	assert.Equal(t, must(a.PhotoJPEG(ctx, must(a.Entry(ctx, log[0].ID)).Photos[0].ID)),
		must(b.PhotoJPEG(ctx, theirs[0].Photos[0].ID)))

	// Changed in one of two: refused, named, nothing stored.
	e := theirs[0].Entry
	e.Note = "changed elsewhere"
	must(b.EditEntry(ctx, theirs[0].ID, theirs[0].Version, e))
	_, err := b.TakeBoat(ctx, first)
	assert.Contains(t, path(t, err), "tables.log_entries")

	var doc map[string]any
	require.NoError(t, json.Unmarshal(first, &doc))
	change := func(edit func(map[string]any)) []byte {
		var d map[string]any
		require.NoError(t, json.Unmarshal(first, &d))
		edit(d)
		return must(json.Marshal(d))
	}
	rows := func(d map[string]any, table string) []any { return d["tables"].(map[string]any)[table].([]any) }
	c := open(t, filepath.Join(t.TempDir(), "c.db"))
	for where, data := range map[string][]byte{
		"version": change(func(d map[string]any) { d["version"] = 99 }),
		"format":  change(func(d map[string]any) { d["format"] = "a letter" }),
		"file":    first[:len(first)/2],
		"tables.log_entries.1.litres": change(func(d map[string]any) {
			rows(d,
				"log_entries")[1].(map[string]any)["litres"] = "three"
		}),
		"tables.surfaces.0": change(func(d map[string]any) {
			delete(rows(d, "surfaces")[0].(map[string]any), "name")
		}),
		"tables": change(func(d map[string]any) {
			d["tables"].(map[string]any)["surfaces"] = []any{}
		}),
	} {
		_, err := c.TakeBoat(ctx, data)
		assert.True(t, strings.HasPrefix(path(t, err), where), "%s: %v", where, err)
	}
	assert.Empty(t, must(c.Boats(ctx)))
}

// The published schema is that of the tables.
func TestBoatFileSchemaIsPublished(t *testing.T) {
	a := open(t, filepath.Join(t.TempDir(), "a.db"))
	published, err := os.ReadFile("../docs/boat-file.schema.json")
	require.NoError(t, err)
	assert.Equal(t, string(bytes.TrimSpace(published)), string(must(a.BoatFileSchema(ctx))),
		"bin/allcoats schema > docs/boat-file.schema.json")
}

func TestBackupInTheInterface(t *testing.T) {
	a := withDemo(t)
	backup := must(a.BackupFile(ctx))
	boats := must(a.Boats(ctx))
	require.NoError(t, a.RemoveBoat(ctx, boats[0].ID))
	require.Len(t, must(a.Boats(ctx)), 2)
	_, err := a.RestoreFile(ctx, backup)
	require.NoError(t, err)
	assert.Equal(t, boats, must(a.Boats(ctx)))
	for _, bad := range [][]byte{[]byte("nothing"), append(backup[:5000:5000], make([]byte, 3000)...)} {
		_, err = a.RestoreFile(ctx, bad)
		assert.Equal(t, "file", path(t, err))
	}
	assert.Equal(t, boats, must(a.Boats(ctx)))
}
