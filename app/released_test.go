package app_test

import (
	"bytes"
	"compress/gzip"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"io"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"allcoats/app"
	"allcoats/demo/standing"
	"allcoats/instruments"
	"allcoats/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	_ "modernc.org/sqlite"
)

func unzipped(t *testing.T, name string) []byte {
	t.Helper()
	f, err := os.Open(name)
	require.NoError(t, err)
	defer f.Close()
	z, err := gzip.NewReader(f)
	require.NoError(t, err)
	raw, err := io.ReadAll(z)
	require.NoError(t, err)
	return raw
}

// rowsOf counts the rows of every table of a file.
func rowsOf(t *testing.T, path string) map[string]int {
	t.Helper()
	db, err := sql.Open("sqlite", path)
	require.NoError(t, err)
	defer db.Close()
	names, err := db.Query(
		`SELECT name FROM sqlite_schema WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name <> 'goose_db_version'`)
	require.NoError(t, err)
	out := map[string]int{}
	for names.Next() {
		var name string
		require.NoError(t, names.Scan(&name))
		out[name] = 0
	}
	require.NoError(t, names.Err())
	for name := range out {
		var n int
		require.NoError(t, db.QueryRow("SELECT count(*) FROM "+name).Scan(&n))
		out[name] = n
	}
	return out
}

// Databases of released versions, their demo as it was, come along: no row is lost, every
// document in them is read to its last field, and every screen answers.
func TestDatabasesOfReleasedVersions(t *testing.T) {
	files, err := filepath.Glob("testdata/released/*.db.gz")
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(files), 2)
	for _, name := range files {
		t.Run(filepath.Base(name), func(t *testing.T) {
			path := filepath.Join(t.TempDir(), "old.db")
			require.NoError(t, os.WriteFile(path, unzipped(t, name), 0o600))
			before := rowsOf(t, path)
			s, err := store.Open(ctx, path)
			require.NoError(t, err)
			t.Cleanup(func() { assert.NoError(t, s.Close()) })
			for table, n := range rowsOf(t, path) {
				if was, ok := before[table]; ok && table != "settings" {
					assert.Equal(t, was, n, table)
				}
			}
			documentsAreReadWhole(t, path)
			a, err := app.New(ctx, s, instruments.Forecast{})
			require.NoError(t, err)
			boats := must(a.Boats(ctx))
			require.Len(t, boats, 3)
			for _, b := range boats {
				everyScreen(t, a, b)
			}
		})
	}
}

// documentsAreReadWhole decodes every JSON column into the type that reads it.
func documentsAreReadWhole(t *testing.T, path string) {
	db, err := sql.Open("sqlite", path)
	require.NoError(t, err)
	defer db.Close()
	read := 0
	for name, kind := range app.StoredDocuments() {
		column, craft, _ := strings.Cut(name, " ")
		table, column, _ := strings.Cut(column, ".")
		query := "SELECT " + column + " FROM " + table + " WHERE " + column + " IS NOT NULL AND " + column + " <> ''"
		switch {
		case craft != "":
			query += " AND craft = '" + craft + "'"
		case table == "settings":
			query = "SELECT value FROM settings WHERE key = '" + column + "'"
		}
		rows, err := db.Query(query)
		require.NoError(t, err, name)
		for rows.Next() {
			var raw string
			require.NoError(t, rows.Scan(&raw))
			if raw == "" || raw == "null" {
				continue
			}
			doc := kind()
			d := json.NewDecoder(strings.NewReader(raw))
			d.DisallowUnknownFields()
			if err := d.Decode(doc); !assert.NoError(t, err, "%s: %.200s", name, raw) {
				continue
			}
			read++
		}
		require.NoError(t, rows.Err())
	}
	assert.Greater(t, read, 80)
}

func everyScreen(t *testing.T, a *app.App, b app.Boat) {
	for name, do := range map[string]func(context.Context) error{
		"today":    func(ctx context.Context) error { _, err := a.Today(ctx, b.ID); return err },
		"overview": func(ctx context.Context) error { _, err := a.Overview(ctx, b.ID); return err },
		"stores":   func(ctx context.Context) error { _, err := a.Stores(ctx, b.ID); return err },
		"report":   func(ctx context.Context) error { _, err := a.Report(ctx, b.ID); return err },
		"plan": func(ctx context.Context) error {
			v, err := a.YardPlan(ctx, b.PlaceID)
			assert.NotNil(t, v.Plan, "%v", v.Trouble)
			return err
		},
	} {
		assert.NoError(t, do(ctx), "%s of %s", name, b.Name)
	}
	survey := must(a.Survey(ctx, b.ID))
	require.NotEmpty(t, survey.Surfaces)
	for _, f := range survey.Surfaces {
		assert.Positive(t, f.Area.AreaM2, f.Name)
		_, err := a.BuildUp(ctx, f.ID)
		assert.NoError(t, err, f.Name)
		n, err := app.NonSkidBench.Get(ctx, a, f.ID)
		require.NoError(t, err)
		assert.Empty(t, n.Trouble, "%s: non-skid", f.Name)
	}
}

// Boat files of released versions are taken as they are.
func TestBoatFilesOfReleasedVersions(t *testing.T) {
	files, err := filepath.Glob("testdata/released/*.boat.json.gz")
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(files), 2)
	for _, name := range files {
		raw := unzipped(t, name)
		path := filepath.Join(t.TempDir(), "new.db")
		a := open(t, path)
		got, err := a.TakeBoat(ctx, raw)
		require.NoError(t, err, name)
		documentsAreReadWhole(t, path)
		var file store.BoatFile
		d := json.NewDecoder(bytes.NewReader(raw))
		require.NoError(t, d.Decode(&file))
		sum := 0
		for _, rows := range file.Tables {
			sum += len(rows)
		}
		again := store.BoatFile{}
		require.NoError(t, json.Unmarshal(must(a.BoatFile(ctx, got.BoatID)), &again))
		for table, rows := range file.Tables {
			assert.Len(t, again.Tables[table], len(rows), "%s: %s", name, table)
		}
		assert.Greater(t, sum, 50)
	}
}

// Keeps the demo of this version for the tests of later ones: make released KEEP=13.
func TestKeepReleased(t *testing.T) {
	version := os.Getenv("KEEP")
	if version == "" {
		t.Skip("no version to keep")
	}
	zip := func(name string, raw []byte) {
		var out bytes.Buffer
		z, err := gzip.NewWriterLevel(&out, gzip.BestCompression)
		require.NoError(t, err)
		_, err = z.Write(raw)
		require.NoError(t, errors.Join(err, z.Close()))
		require.NoError(t, os.WriteFile(filepath.Join("testdata/released", version+name), out.Bytes(), 0o644))
	}
	path := filepath.Join(t.TempDir(), "demo.db")
	require.NoError(t, standing.Write(path))
	a := open(t, path)
	zip(".boat.json.gz", must(a.BoatFile(ctx, must(a.Boats(ctx))[0].ID)))
	copied := filepath.Join(t.TempDir(), "copy.db")
	require.NoError(t, a.Backup(ctx, copied))
	raw, err := os.ReadFile(copied)
	require.NoError(t, err)
	zip(".db.gz", raw)
}
