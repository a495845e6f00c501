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
