package app

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"maps"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/store"

	"github.com/google/jsonschema-go/jsonschema"
)

// BoatFile returns a boat with all that belongs to her as an open file.
func (a *App) BoatFile(ctx context.Context, boatID string) ([]byte, error) {
	f, err := a.store.Read(ctx).ReadBoat(ctx, boatID)
	if err != nil {
		return nil, err
	}
	return json.MarshalIndent(f, "", " ")
}

// BoatFileSchema returns the JSON Schema of boat files.
func (a *App) BoatFileSchema(ctx context.Context) ([]byte, error) {
	s, err := a.store.Read(ctx).BoatFileSchema(ctx)
	if err != nil {
		return nil, err
	}
	return json.MarshalIndent(s, "", "  ")
}

// Taken is what a boat file brought.
type Taken struct {
	BoatID string `json:"boatId"`
	Boat   string `json:"boat"`
	Added  int    `json:"added"` // rows; 0 if all of it was here already
}

// TakeBoat stores a boat file. What is here already alike is left; if anything is
// here with other contents nothing is stored, and the fault names it.
func (a *App) TakeBoat(ctx context.Context, data []byte) (Taken, error) {
	f, err := a.readBoatFile(ctx, data)
	if err != nil {
		return Taken{}, err
	}
	boat := f.Tables["boats"][0]
	out := Taken{BoatID: fmt.Sprint(boat["id"]), Boat: fmt.Sprint(boat["name"])}
	err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		added, clashes, err := q.WriteBoat(ctx, f)
		out.Added = added
		var bad fielderr.Errors
		for i, c := range clashes {
			if i == 20 {
				bad.Add("file", "and %d more", len(clashes)-i)
				break
			}
			bad.Add(c.Path, "%s is here already with other contents: delete one of the two, or change it to match",
				c.What)
		}
		if err = errors.Join(err, bad.Err()); err != nil {
			return err
		}
		if err := a.opens(ctx, out.BoatID, f.Tables["boats"][0]["place_id"]); err != nil {
			return fielderr.At("tables", "do not hold what the pages of a boat are made of: %v", err)
		}
		return nil
	})
	if err != nil && strings.Contains(err.Error(), "FOREIGN KEY") {
		err = fielderr.At("tables", "the file refers to something that is not in it")
	}
	return out, err
}

// opens asks for what the pages of a boat are made of. What the core would not have let in by
// itself may even stop it.
func (a *App) opens(ctx context.Context, boatID string, placeID any) (err error) {
	defer func() {
		if r := recover(); r != nil {
			err = fmt.Errorf("what no screen would have let in: %v", r)
		}
	}()
	s, err := a.Survey(ctx, boatID)
	if err != nil {
		return err
	}
	for _, f := range s.Surfaces {
		_, built := a.BuildUp(ctx, f.ID)
		_, read := a.Fairing(ctx, f.ID, "")
		if err := errors.Join(built, read); err != nil {
			return fmt.Errorf("%s: %w", f.Name, err)
		}
	}
	o, err := a.look(ctx, boatID)
	if err != nil {
		return err
	}
	for _, f := range o.s.Surfaces {
		_, next := o.job.Chain(f.ID).First()
		o.stops(f.ID, next)
	}
	_, told := a.Report(ctx, boatID)
	_, shown := a.Instruments(ctx, fmt.Sprint(placeID))
	return errors.Join(told, shown)
}

// readBoatFile checks a boat file against the schema.
func (a *App) readBoatFile(ctx context.Context, data []byte) (store.BoatFile, error) {
	var f store.BoatFile
	refuse := func(path, format string, args ...any) (store.BoatFile, error) {
		return f, fielderr.At(path, format, args...)
	}
	var head struct {
		Format  string
		Version int
	}
	if err := json.Unmarshal(data, &head); err != nil {
		var at *json.SyntaxError
		if errors.As(err, &at) {
			return refuse("file", "is damaged at byte %d: %v", at.Offset, err)
		}
		return refuse("file", "is no boat file: %v", err)
	}
	switch {
	case head.Format != store.BoatFileFormat:
		return refuse("format", "is no boat file of this program")
	case head.Version > store.BoatFileVersion:
		return refuse("version", "is %d, of a newer program; this one reads %d", head.Version, store.BoatFileVersion)
	}
	raw, err := a.BoatFileSchema(ctx)
	if err != nil {
		return f, err
	}
	var schema jsonschema.Schema
	if err := json.Unmarshal(raw, &schema); err != nil {
		return f, err
	}
	whole, err := schema.Resolve(nil)
	if err != nil {
		return f, err
	}
	var doc map[string]any
	if err := json.Unmarshal(data, &doc); err != nil {
		return refuse("file", "%v", err)
	}
	if err := whole.Validate(doc); err != nil {
		if bad := misfits(schema, doc); bad != nil {
			return f, bad
		}
		return refuse("file", "%s", misfit(err))
	}
	d := json.NewDecoder(bytes.NewReader(data))
	d.UseNumber()
	return f, d.Decode(&f)
}

// mostMisfits is how many places of a boat file a refusal names.
const mostMisfits = 10

// misfits names the first rows of a boat file's tables that do not fit its schema.
func misfits(schema jsonschema.Schema, doc map[string]any) error {
	var bad fielderr.Errors
	tables, _ := doc["tables"].(map[string]any)
	for _, name := range slices.Sorted(maps.Keys(tables)) {
		at := "tables." + name
		table := schema.Properties["tables"].Properties[name]
		if table == nil {
			bad.Add(at, "there is no such table")
			continue
		}
		one, err := table.Items.CloneSchemas().Resolve(nil)
		if err != nil {
			return err
		}
		rows, _ := tables[name].([]any)
		for i, row := range rows {
			if err := one.Validate(row); err != nil && len(bad) < mostMisfits {
				where := fmt.Sprintf("%s.%d", at, i)
				if m := inColumn.FindStringSubmatch(err.Error()); m != nil {
					where += "." + m[1]
				}
				bad.Add(where, "%s", misfit(err))
			}
		}
	}
	return bad.Err()
}

var inColumn = regexp.MustCompile(`/properties/(\w+): `)

// misfit is what is wrong, without the way through the schema that leads there.
func misfit(err error) string {
	text := err.Error()
	_, said, _ := strings.Cut(text[max(0, strings.LastIndex(text, "validating ")):], ": ")
	return said
}

// Backup writes the whole database to a new file at path.
func (a *App) Backup(ctx context.Context, path string) error { return a.store.Backup(ctx, path) }

// BackupFile returns the whole database as a file.
func (a *App) BackupFile(ctx context.Context) ([]byte, error) {
	dir, err := a.store.Scratch()
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(dir)
	path := filepath.Join(dir, "backup.db")
	if err := a.store.Backup(ctx, path); err != nil {
		return nil, err
	}
	return os.ReadFile(path)
}

// keepCopy writes the copy of the day, of a database that is not the demo's.
func (a *App) keepCopy(ctx context.Context) error {
	if is, err := IsDemo(ctx, a.store); err != nil || is {
		return err
	}
	wrote, err := a.store.Daily(ctx, time.Now())
	if wrote {
		slog.Info("copy of the day written")
	}
	return err
}

// Kept is a copy of everything that is kept.
type Kept = store.Kept

// Copies lists the copies of the days that are kept, the newest first.
func (a *App) Copies() ([]Kept, error) { return a.store.Copies() }

// RestoreCopy is RestoreFile with the copy of a day.
func (a *App) RestoreCopy(ctx context.Context, name string) (kept string, err error) {
	path, err := a.store.CopyPath(name)
	if err != nil {
		return "", err
	}
	raw, err := os.ReadFile(path)
	if err != nil {
		return "", err
	}
	return a.RestoreFile(ctx, raw)
}

// RestoreFile puts a backup in the place of everything stored, all or nothing, and
// returns the name of the copy that was kept of it.
func (a *App) RestoreFile(ctx context.Context, data []byte) (kept string, err error) {
	if !bytes.HasPrefix(data, []byte("SQLite format 3\x00")) {
		return "", fielderr.At("file", "is no backup of this program")
	}
	dir, err := a.store.Scratch()
	if err != nil {
		return "", err
	}
	defer os.RemoveAll(dir)
	path := filepath.Join(dir, "backup.db")
	if err := os.WriteFile(path, data, 0o600); err != nil {
		return "", err
	}
	kept, err = a.store.Restore(ctx, path)
	switch {
	case errors.Is(err, store.ErrForeign):
		return "", fielderr.At("file", "is no backup of this program; nothing was changed")
	case errors.Is(err, store.ErrFull):
		return "", err
	case err != nil:
		return "", fielderr.At("file", "cannot be restored, and nothing was changed: %v", err)
	}
	return kept, nil
}
