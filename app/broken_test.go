package app_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"allcoats/app"
	"allcoats/demo/standing"

	"github.com/jmoiron/sqlx"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// broken are what a column of a boat file may hold that it should not.
var broken = []string{`7`, `{"layers": 7}`}

// pagesOf asks what the screens of a boat ask, and the plan of her place.
func pagesOf(a *app.App, boatID, placeID string) map[string]error {
	out := map[string]error{}
	keep := func(name string, err error) { out[name] = err }
	_, err := a.Today(ctx, boatID)
	keep("today", err)
	s, err := a.Survey(ctx, boatID)
	keep("survey", err)
	for _, f := range s.Surfaces {
		_, err = a.BuildUp(ctx, f.ID)
		keep("build-up", err)
		_, err = a.Fairing(ctx, f.ID, "")
		keep("fairing", err)
	}
	_, err = a.Stores(ctx, boatID)
	keep("stores", err)
	_, err = a.Log(ctx, boatID)
	keep("log", err)
	_, err = a.Report(ctx, boatID)
	keep("report", err)
	_, err = a.YardPlan(ctx, placeID)
	keep("plan", err)
	_, err = a.Morning(ctx)
	keep("morning", err)
	_, err = a.Instruments(ctx, placeID)
	keep("instruments", err)
	_, err = a.Overview(ctx, boatID)
	keep("overview", err)
	_, err = a.Accounts(ctx, boatID)
	keep("accounts", err)
	_, err = a.Bench(ctx, boatID, app.BenchQuery{})
	keep("bench", err)
	for _, f := range s.Surfaces {
		_, err = app.NonSkidBench.Get(ctx, a, f.ID)
		keep("non-skid", err)
		_, err = app.BrightBench.Get(ctx, a, f.ID)
		keep("brightwork", err)
		_, err = app.AntifoulBench.Get(ctx, a, f.ID)
		keep("antifouling", err)
		_, err = app.GelcoatBench.Get(ctx, a, f.ID)
		keep("gelcoat", err)
		_, err = app.MetalBench.Get(ctx, a, f.ID)
		keep("metal", err)
		_, err = app.MouldBench.Get(ctx, a, f.ID)
		keep("moulded", err)
	}
	_, err = app.RefitBench.Get(ctx, a, boatID)
	keep("refit", err)
	return out
}

// A boat file whose columns do not hold what they should is refused, or read as what it says; it never takes down a
// page.
func TestNoBrokenColumnGetsIn(t *testing.T) {
	from := withDemo(t)
	boats, err := from.Boats(ctx)
	require.NoError(t, err)
	raw, err := from.BoatFile(ctx, boats[0].ID)
	require.NoError(t, err)
	var file struct {
		Format  string                                  `json:"format"`
		Version int                                     `json:"version"`
		Tables  map[string][]map[string]json.RawMessage `json:"tables"`
	}
	require.NoError(t, json.Unmarshal(raw, &file))
	tried, refused := 0, 0
	a := open(t, t.TempDir()+"/0.db") // where nothing of what is refused may be
	for table, rows := range file.Tables {
		if len(rows) == 0 {
			continue
		}
		for column, was := range rows[0] {
			if len(was) == 0 || was[0] != '{' && was[0] != '[' {
				continue
			}
			for _, b := range broken {
				rows[0][column] = json.RawMessage(b)
				bad, err := json.Marshal(file)
				require.NoError(t, err)
				tried++
				took, err := a.TakeBoat(ctx, bad)
				if err != nil {
					refused++
					continue
				}
				for page, err := range pagesOf(a, took.BoatID, boats[0].PlaceID) {
					assert.NoError(t, err, "%s.%s = %s: %s", table, column, b, page)
				}
				a = open(t, fmt.Sprintf("%s/%d.db", t.TempDir(), tried))
			}
			rows[0][column] = was
		}
	}
	assert.Greater(t, tried, 20)
	assert.GreaterOrEqual(t, refused, 15)
	took, err := a.TakeBoat(ctx, raw)
	require.NoError(t, err, "what is whole gets in")
	assert.Greater(t, took.Added, 50)
}

// One row that cannot be read costs its boat her pages, and nobody else anything.
func TestABrokenBoatStandsAlone(t *testing.T) {
	path := t.TempDir() + "/a.db"
	require.NoError(t, standing.Write(path))
	db, err := sqlx.Open("sqlite", path)
	require.NoError(t, err)
	_, err = db.Exec(
		"UPDATE surfaces SET measured = '[7]' WHERE boat_id = (SELECT id FROM boats WHERE name = 'Reed Warbler')")
	require.NoError(t, err)
	require.NoError(t, db.Close())
	a := open(t, path)
	boats, err := a.Boats(ctx)
	require.NoError(t, err)
	require.Len(t, boats, 3)
	const said = "Reed Warbler cannot be read and is left out: open her Survey and mend what it names, or restore a copy"
	for _, b := range boats {
		_, err := a.Today(ctx, b.ID)
		assert.Equal(t, b.Name == "Reed Warbler", err != nil, b.Name)
	}
	v, err := a.YardPlan(ctx, boats[0].PlaceID)
	require.NoError(t, err)
	require.NotNil(t, v.Plan)
	assert.Len(t, v.Boats, 2)
	assert.Equal(t, said, v.Plan.Notes[len(v.Plan.Notes)-1].String())
	m, err := a.Morning(ctx)
	require.NoError(t, err)
	require.Len(t, m.Places[0].Boats, 3)
	for _, b := range m.Places[0].Boats {
		assert.Equal(t, b.Name == "Reed Warbler", b.Says.String() == said, b.Name)
	}
	s, err := a.Stores(ctx, "")
	require.NoError(t, err)
	require.Len(t, s.Unread, 1)
	assert.Equal(t, said, s.Unread[0].String())
	assert.NotEmpty(t, s.Needs)
}
