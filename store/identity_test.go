package store

import (
	"bytes"
	"os"
	"path/filepath"
	"testing"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// file makes a database of statements.
func file(t *testing.T, statements ...string) string {
	path := filepath.Join(t.TempDir(), "other.db")
	db, err := sqlx.Open("sqlite", path)
	require.NoError(t, err)
	for _, s := range statements {
		db.MustExec(s)
	}
	require.NoError(t, db.Close())
	return path
}

func TestOtherFilesAreRefusedAndLeft(t *testing.T) {
	ours := filepath.Join(t.TempDir(), "ours.db")
	s, err := Open(ctx, ours)
	require.NoError(t, err)
	require.NoError(t, s.Close())
	damage := func(statement string) string {
		path := filepath.Join(t.TempDir(), "copy.db")
		raw, err := os.ReadFile(ours)
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(path, raw, 0o600))
		db, err := sqlx.Open("sqlite", path)
		require.NoError(t, err)
		db.MustExec(statement)
		require.NoError(t, db.Close())
		return path
	}
	text := filepath.Join(t.TempDir(), "text.db")
	require.NoError(t, os.WriteFile(text, []byte("no database, but long enough to be looked at as one"), 0o600))
	target := yard(t)
	for name, c := range map[string]struct {
		path string
		want error
	}{
		"another program's": {file(t, "CREATE TABLE notes (id TEXT)"), ErrForeign},
		"another id":        {damage("PRAGMA application_id = 7"), ErrForeign},
		"a newer version's": {
			damage("INSERT INTO goose_db_version (version_id, is_applied) VALUES (9999, 1)"), ErrNewer},
		"not a database": {text, ErrForeign},
		"the tables, but none of ours": {file(t, "CREATE TABLE boats (id)", "CREATE TABLE settings (id)",
			"CREATE TABLE products (id)", "CREATE TABLE goose_db_version (id)"), ErrForeign},
	} {
		before, err := os.ReadFile(c.path)
		require.NoError(t, err)
		_, err = Open(ctx, c.path)
		assert.ErrorIs(t, err, c.want, name)
		_, err = target.Restore(ctx, c.path)
		assert.ErrorIs(t, err, c.want, name)
		after, err := os.ReadFile(c.path)
		require.NoError(t, err)
		assert.True(t, bytes.Equal(before, after), "%s is left as it was", name)
	}
	_, err = target.Restore(ctx, file(t))
	assert.ErrorIs(t, err, ErrForeign, "an empty file is no backup")
	_, err = target.Read(ctx).Surface(ctx, "deck")
	assert.NoError(t, err, "nothing of the yard went")
}

// Libraries filled before have the example sheets that hurt mended.
func TestHarmfulExamplesAreMended(t *testing.T) {
	path := filepath.Join(t.TempDir(), "old.db")
	s := upTo(t, path, 8)
	s.MustExec(`INSERT INTO products (id, sheet) VALUES
		('filler', '{"example":true,"kind":"fairing-compound","ratioByVolume":{"base":0,"hardener":0},"ratioByWeight":{"base":100,"hardener":2},"doses":[{"tempC":20,"pct":2}],"cautions":[]}'),
		('copper', '{"example":true,"kind":"antifouling-hard","copper":true,"notes":"For aluminium too. Launch within the sheet''s months.","cautions":[]}'),
		('under', '{"example":true,"kind":"undercoat","binder":"polyurethane","cautions":["Dust"]}'),
		('zinc', '{"example":true,"kind":"metal-primer","chemistry":"epoxy, zinc dust","cautions":[]}'),
		('own', '{"example":false,"kind":"undercoat","binder":"polyurethane","cautions":["Dust"]}')`)
	require.NoError(t, s.Close())
	now, err := Open(ctx, path)
	require.NoError(t, err)
	defer now.Close()
	for query, want := range map[string]string{
		`SELECT json_extract(sheet, '$.ratioByWeight.hardener') FROM products WHERE id = 'filler'`: "0",
		`SELECT json_extract(sheet, '$.notes') FROM products WHERE id = 'copper'`:                  "Never on aluminium, nor near it: copper eats it. Launch within the sheet's months.",
		`SELECT json_extract(sheet, '$.cautions[0]') FROM products WHERE id = 'under'`:             "Dust",
		`SELECT json_array_length(sheet, '$.cautions') FROM products WHERE id = 'under'`:           "2",
		`SELECT json_array_length(sheet, '$.cautions') FROM products WHERE id = 'own'`:             "1",
		`SELECT json_extract(sheet, '$.zinc') FROM products WHERE id = 'zinc'`:                     "1",
		`PRAGMA application_id`: "1129267540",
	} {
		var got string
		require.NoError(t, now.db.Get(&got, query), query)
		assert.Equal(t, want, got, query)
	}
}
