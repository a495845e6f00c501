package store

import (
	"context"
	"fmt"
)

// rename is a field of a finish's work that had another name in a released version: files
// of then are read under the name of now.
type rename struct{ craft, from, to string }

var renames = []rename{{"metal", "nominal", "nominalUm"}}

// renameStored brings the documents of a database to the names of now.
func (q Queries) renameStored(ctx context.Context) error {
	for _, r := range renames {
		_, err := q.q.ExecContext(ctx, fmt.Sprintf(`UPDATE finishes SET work = json_remove(json_set(work, '$.%s', json_extract(work, '$.%s')), '$.%s')
			WHERE craft = ? AND json_type(work, '$.%s') IS NOT NULL`, r.to, r.from, r.from, r.from), r.craft)
		if err != nil {
			return fmt.Errorf("rename %s of %s: %w", r.from, r.craft, err)
		}
	}
	return nil
}

// renameRow brings a row of a boat file to the names of now.
func renameRow(table string, row map[string]any) {
	work, ok := row["work"].(map[string]any)
	if table != "finishes" || !ok {
		return
	}
	for _, r := range renames {
		if v, ok := work[r.from]; ok && row["craft"] == r.craft {
			work[r.to] = v
			delete(work, r.from)
		}
	}
}

// upgrade brings a file of version 1 to that of now: steps have a detail, and what was
// laid says by which edition of its sheet and as which step, as they stand in the file.
func (f *BoatFile) upgrade() {
	if f.Version >= 2 {
		return
	}
	products, steps := map[any]map[string]any{}, map[any]map[string]any{}
	for _, p := range f.Tables["products"] {
		products[p["id"]] = p
	}
	for _, s := range f.Tables["steps"] {
		steps[s["id"]] = s
		s["detail"] = map[string]any{}
	}
	laid := map[any]bool{}
	for _, e := range f.Tables["log_entries"] {
		detail, ok := e["detail"].(map[string]any)
		p := products[e["product_id"]]
		if !ok || p == nil {
			continue
		}
		detail["edition"] = p["version"]
		if s := steps[e["step_id"]]; s != nil && e["kind"] == "coat" {
			detail["planned"] = map[string]any{"dftUm": s["dft_um"], "lossPct": s["loss_pct"], "grade": s["grade"]}
		}
		if !laid[p["id"]] {
			laid[p["id"]] = true
			f.Tables["sheet_editions"] = append(f.Tables["sheet_editions"], map[string]any{"product_id": p["id"],
				"version": p["version"], "sheet": p["sheet"]})
		}
	}
	f.Version = 2
}
