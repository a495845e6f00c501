package store

import (
	"context"
	"encoding/base64"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"
)

// BoatFileVersion is that of the boat files written; it rises with every change that
// older files do not fit.
const BoatFileVersion = 2

// BoatFile is a boat with all that belongs to her, table by table, as an open
// document: rows as objects by column, JSON columns as they are, pictures in base64.
// docs/boat-file.schema.json is its schema.
type BoatFile struct {
	Format  string                      `json:"format"`
	Version int                         `json:"version"`
	Tables  map[string][]map[string]any `json:"tables"`
}

// BoatFileFormat names the format in its files.
const BoatFileFormat = "all-coats-boat"

// boatTable is a table of a boat file: the rows of the boat ?1.
type boatTable struct {
	name, what, where string
	json              []string // columns that hold JSON
	later             bool     // files from before it lack it
}

// boatTables in an order in which every row finds those it refers to.
var boatTables = []boatTable{
	{"places", "place", "id = (SELECT place_id FROM boats WHERE id = ?1)", []string{"normals", "learned"}, false},
	{"boats", "boat", "id = ?1", []string{"week", "tent", "guessed", "unlearned", "quotes"}, false},
	{"products", "product", `id IN (SELECT product_id FROM steps JOIN surfaces ON surfaces.id = surface_id WHERE boat_id = ?1
		UNION SELECT product_id FROM log_entries WHERE boat_id = ?1 UNION SELECT product_id FROM pots WHERE boat_id = ?1)`, []string{"sheet"}, false},
	{"sheet_editions", "edition of a data sheet", `EXISTS (SELECT 1 FROM log_entries WHERE boat_id = ?1 AND log_entries.product_id = sheet_editions.product_id
		AND detail ->> 'edition' = sheet_editions.version)`, []string{"sheet"}, true},
	{"surfaces", "surface", "boat_id = ?1", []string{"description", "findings", "measured"}, false},
	{"models", "3-D model", "boat_id = ?1", []string{"placing", "result"}, false},
	{"defects", "defect", "surface_id IN (SELECT id FROM surfaces WHERE boat_id = ?1)", []string{"defect"}, false},
	{"steps", "planned step", "surface_id IN (SELECT id FROM surfaces WHERE boat_id = ?1)", []string{"detail"}, false},
	{"overrules", "finding let stand", "surface_id IN (SELECT id FROM surfaces WHERE boat_id = ?1)", nil, false},
	{"log_entries", "log entry", "boat_id = ?1", []string{"wet_um", "detail"}, false},
	{"log_history", "earlier log entry", "entry_id IN (SELECT id FROM log_entries WHERE boat_id = ?1)",
		[]string{"entry"}, false},
	{"photos", "photo", `defect_id IN (SELECT defects.id FROM defects JOIN surfaces ON surfaces.id = surface_id WHERE boat_id = ?1)
		OR entry_id IN (SELECT id FROM log_entries WHERE boat_id = ?1)`, nil, false},
	{"fairings", "set of gaps", "surface_id IN (SELECT id FROM surfaces WHERE boat_id = ?1)", []string{"readings"},
		false},
	{"finishes", "finish", "boat_id = ?1", []string{"work"}, true},
	{"pots", "pot", "boat_id = ?1", nil, false},
	{"instruments", "instrument", "boat_id = ?1", []string{"mapping"}, false},
	{"readings", "day of readings", "instrument_id IN (SELECT id FROM instruments WHERE boat_id = ?1)", nil, false},
}

// column is a column as SQLite tells of it.
type column struct {
	Name    string  `db:"name"`
	Type    string  `db:"type"`
	NotNull bool    `db:"notnull"`
	Default *string `db:"dflt_value"`
	Key     int     `db:"pk"`
	CID     int     `db:"cid"`
}

func (q Queries) columns(ctx context.Context, table string) ([]column, error) {
	return list[column](ctx, q,
		`SELECT cid, name, type, "notnull", dflt_value, pk FROM pragma_table_info(?) ORDER BY cid`, table)
}

// ReadBoat returns a boat as a file.
func (q Queries) ReadBoat(ctx context.Context, boatID string) (BoatFile, error) {
	f := BoatFile{BoatFileFormat, BoatFileVersion, map[string][]map[string]any{}}
	for _, t := range boatTables {
		rows, err := q.boatRows(ctx, t, t.where, boatID)
		if err != nil {
			return f, fmt.Errorf("%s: %w", t.name, err)
		}
		f.Tables[t.name] = rows
	}
	if len(f.Tables["boats"]) == 0 {
		return f, ErrNotFound
	}
	return f, nil
}

// boatRows reads rows of t as they stand in a file, in the order of their keys.
func (q Queries) boatRows(ctx context.Context, t boatTable, where string, args ...any) ([]map[string]any, error) {
	columns, err := q.columns(ctx, t.name)
	if err != nil {
		return nil, err
	}
	rows, err := q.q.QueryxContext(ctx, "SELECT * FROM "+t.name+" WHERE "+where+" ORDER BY "+
		strings.Join(keys(columns), ", "), args...)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	out := []map[string]any{}
	for rows.Next() {
		row := map[string]any{}
		if err := rows.MapScan(row); err != nil {
			return nil, err
		}
		for _, c := range columns {
			switch v := row[c.Name].(type) {
			case []byte:
				row[c.Name] = base64.StdEncoding.EncodeToString(v)
			case string:
				if slices.Contains(t.json, c.Name) && v != "" {
					row[c.Name] = json.RawMessage(v)
				}
			}
		}
		out = append(out, row)
	}
	return out, rows.Err()
}

func keys(columns []column) []string {
	var out []string
	for _, c := range columns {
		if c.Key > 0 {
			out = append(out, c.Name)
		}
	}
	return out
}

// Clash is a row of a boat file that is stored with other contents.
type Clash struct{ Path, What string }

// WriteBoat adds the rows of f that are not stored yet. Rows that are stored alike
// are left; those that differ are returned, and then nothing of f may be kept. f must
// fit BoatFileSchema.
func (q Queries) WriteBoat(ctx context.Context, f BoatFile) (added int, clashes []Clash, err error) {
	f.upgrade()
	for _, t := range boatTables {
		columns, err := q.columns(ctx, t.name)
		if err != nil {
			return added, nil, err
		}
		key := keys(columns)
		for i, row := range f.Tables[t.name] {
			renameRow(t.name, row)
			args := make([]any, len(key))
			for k, name := range key {
				args[k] = number(row[name])
			}
			stored, err := q.boatRows(ctx, t, strings.Join(key, " = ? AND ")+" = ?", args...)
			if err != nil {
				return added, nil, err
			}
			path := fmt.Sprintf("tables.%s[%d]", t.name, i)
			switch {
			case len(stored) == 0:
				if err := q.insert(ctx, t, columns, row); err != nil {
					return added, nil, fmt.Errorf("%s: %w", path, err)
				}
				added++
			case !alike(stored[0], row):
				clashes = append(clashes, Clash{path, t.what + " " + label(row)})
			}
		}
	}
	return added, clashes, nil
}

// label names a row for people.
func label(row map[string]any) string {
	for _, c := range []string{"name", "note", "id", "entry_id", "surface_id", "instrument_id"} {
		if s, ok := row[c].(string); ok && s != "" {
			return s
		}
	}
	if sheet, ok := row["sheet"].(map[string]any); ok {
		return fmt.Sprint(sheet["name"])
	}
	return ""
}

// alike compares rows as JSON.
func alike(a, b map[string]any) bool {
	return slices.Equal(canonical(a), canonical(b))
}

func canonical(v any) []byte {
	raw, _ := json.Marshal(v) // maps in the order of their keys
	var plain any
	_ = json.Unmarshal(raw, &plain) // of what was just written
	raw, _ = json.Marshal(plain)
	return raw
}

// number turns a JSON number into what SQLite takes.
func number(v any) any {
	if n, ok := v.(json.Number); ok {
		if i, err := n.Int64(); err == nil {
			return i
		}
		f, _ := n.Float64()
		return f
	}
	return v
}

func (q Queries) insert(ctx context.Context, t boatTable, columns []column, row map[string]any) error {
	var names, marks []string
	var args []any
	for _, c := range columns {
		v, ok := row[c.Name]
		if !ok {
			continue // its default
		}
		v = number(v)
		switch s, isText := v.(string); {
		case c.Type == "BLOB" && isText:
			raw, err := base64.StdEncoding.DecodeString(s)
			if err != nil {
				return fmt.Errorf("%s: %w", c.Name, err)
			}
			v = raw
		case slices.Contains(t.json, c.Name) && !(isText && s == ""):
			raw, err := json.Marshal(row[c.Name])
			if err != nil {
				return err
			}
			v = string(raw)
		}
		names, marks, args = append(names, c.Name), append(marks, "?"), append(args, v)
	}
	_, err := q.q.ExecContext(ctx, "INSERT INTO "+t.name+" ("+strings.Join(names, ", ")+") VALUES ("+
		strings.Join(marks, ", ")+")", args...)
	return err
}

// BoatFileSchema returns the JSON Schema (2020-12) of boat files, made from the tables.
func (q Queries) BoatFileSchema(ctx context.Context) (map[string]any, error) {
	tables, required := map[string]any{}, []string{}
	for _, t := range boatTables {
		columns, err := q.columns(ctx, t.name)
		if err != nil {
			return nil, err
		}
		props, must := map[string]any{}, []string{}
		for _, c := range columns {
			kind := map[string]any{"type": map[string]string{"INTEGER": "integer", "REAL": "number"}[c.Type]}
			switch {
			case slices.Contains(t.json, c.Name):
				kind = map[string]any{"description": "a document of its own"}
			case c.Type == "BLOB":
				kind = map[string]any{"type": "string", "contentEncoding": "base64"}
			case c.Type == "TEXT":
				kind["type"] = "string"
			}
			if !c.NotNull && c.Key == 0 && kind["type"] != nil {
				kind["type"] = []any{kind["type"], "null"}
			}
			props[c.Name] = kind
			if c.NotNull && c.Default == nil || c.Key > 0 {
				must = append(must, c.Name)
			}
		}
		tables[t.name] = map[string]any{"type": "array", "description": t.what,
			"items": map[string]any{"type": "object", "properties": props, "required": must,
				"additionalProperties": false}}
		if !t.later {
			required = append(required, t.name)
		}
	}
	tables["boats"].(map[string]any)["minItems"], tables["boats"].(map[string]any)["maxItems"] = 1, 1
	return map[string]any{
		"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "All Coats boat file", "type": "object",
		"properties": map[string]any{"format": map[string]any{"const": BoatFileFormat},
			"version": map[string]any{"type": "integer", "minimum": 1, "maximum": BoatFileVersion},
			"tables": map[string]any{"type": "object", "properties": tables, "required": required,
				"additionalProperties": false}},
		"required": []string{"format", "version", "tables"}, "additionalProperties": false,
	}, nil
}

// Restore puts the contents of the database at path in the place of these, all or
// nothing. The other one must be a whole one of this program; it is brought up to date
// first. What was here before is kept in a copy beside the database, whose name is
// returned.
func (s *Store) Restore(ctx context.Context, path string) (kept string, err error) {
	switch isNew, err := Identify(ctx, path); {
	case err != nil:
		return "", err
	case isNew:
		return "", ErrForeign
	}
	other, err := Open(ctx, path)
	if err != nil {
		return "", err
	}
	err = other.Intact(ctx)
	if closed := other.Close(); err == nil {
		err = closed
	}
	if err != nil {
		return "", fmt.Errorf("the backup is damaged: %w", err)
	}
	if kept, err = s.keep(ctx, "before-restore"); err != nil {
		return "", err
	}
	conn, err := s.db.Connx(ctx)
	if err != nil {
		return "", err
	}
	defer conn.Close()
	if _, err := conn.ExecContext(ctx, "ATTACH DATABASE ? AS backup", path); err != nil {
		return "", err
	}
	defer func() {
		_, _ = conn.ExecContext(context.WithoutCancel(ctx),
			"DETACH DATABASE backup")
	}() // the connection is given back clean
	tx, err := conn.BeginTxx(ctx, nil)
	if err != nil {
		return "", err
	}
	if err := (Queries{q: tx}).copyFrom(ctx, "backup"); err != nil {
		_ = tx.Rollback() // err tells more
		return "", err
	}
	defer s.writes.Add(1)
	return kept, tx.Commit()
}

// copyFrom replaces all rows by those of an attached database of the same schema.
func (q Queries) copyFrom(ctx context.Context, from string) error {
	if _, err := q.q.ExecContext(ctx, "PRAGMA defer_foreign_keys = ON"); err != nil {
		return err
	}
	tables, err := list[string](ctx, q,
		`SELECT name FROM sqlite_schema WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name <> 'goose_db_version'`)
	if err != nil {
		return err
	}
	for _, t := range tables {
		if _, err := q.q.ExecContext(ctx, "DELETE FROM main."+t); err != nil {
			return err
		}
	}
	for _, t := range tables {
		columns, err := q.columns(ctx, t)
		if err != nil {
			return err
		}
		names := map[string]bool{}
		for _, c := range columns {
			names[c.Name] = true
		}
		all := strings.Join(slices.Sorted(maps.Keys(names)), ", ")
		if _, err := q.q.ExecContext(ctx, "INSERT INTO main."+t+" ("+all+") SELECT "+all+" FROM "+from+"."+
			t); err != nil {
			return fmt.Errorf("%s: %w", t, err)
		}
	}
	return nil
}
