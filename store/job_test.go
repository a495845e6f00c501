package store

import (
	"path/filepath"
	"testing"

	"allcoats/core/film/step"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What was marked done in a plan becomes entries of the log at its planned start: coats,
// parts of a strip, half of a sanding, own tasks. Skips and pins stay where they are, and
// what was laid says by which edition of its sheet.
func TestMarksOfAPlanBecomeEntries(t *testing.T) {
	path := filepath.Join(t.TempDir(), "old.db")
	db := upTo(t, path, 12)
	db.MustExec(
		`INSERT INTO places (id, name, latitude_deg, longitude_deg, time_zone, weather_source) VALUES ('p', 'Quay', 52, 1, 'UTC', 'imported')`)
	db.MustExec(`INSERT INTO boats (id, place_id, name, type, heading_deg, launch_date, lights, hull_form, loa_m, lwl_m, beam_m, draught_m, freeboard_m, houses_m2, displacement_t, week, crew)
		VALUES ('b', 'p', 'Old', '', 0, '', 0, 'medium', 7, 6, 2, 1, 1, 0, 1, '[]', 1)`)
	db.MustExec(
		`INSERT INTO surfaces (id, boat_id, position, name, part, side, description, findings, measured) VALUES ('s', 'b', 1, 'Side', 'topsides', 'port', '{}', '{}', '{}')`)
	db.MustExec(`INSERT INTO products (id, version, sheet) VALUES ('primer', 3, '{"name":"primer"}')`)
	for i, w := range []string{"strip", "sand", "coat"} {
		var product any
		if w == "coat" {
			product = "primer"
		}
		db.MustExec(`INSERT INTO steps (id, surface_id, position, work, product_id, coats, dft_um, method, loss_pct, thinner_pct, grade, colour, grit, removed_um, agent, note)
			VALUES (?, 's', ?, ?, ?, 2, 80, 'roller', 10, 0, 'cold', '', 80, 0, '', '')`, w, i, w, product)
	}
	db.MustExec(`INSERT INTO log_entries (id, boat_id, surface_id, kind, started_at, product_id, step_id, litres, wet_um, thinner_pct, grit, removed_um, hours, who, note, detail)
		VALUES ('laid', 'b', 's', 'coat', 7, 'primer', 'coat', 1, '[]', 0, 0, 0, 1, '', '', '{"batch":"L1"}')`)
	db.MustExec(`INSERT INTO plans (place_id, settings, starts, before) VALUES ('p', ?, ?, '[]')`,
		`{"people":[],"own":{"b":[{"id":"own","name":"Rewire","hours":4,"crew":1}]},"marks":{"coat#2":{"state":"done"},"strip/1":{"state":"done"},"sand":{"leftPct":25},"own":{"state":"done"},"other":{"state":"skipped"},"pin":{"pinned":"2026-05-09T08:00:00Z"}}}`,
		`{"at":"2026-05-01T00:00:00Z","starts":{"coat#2":"2026-05-02T08:00:00Z","strip/1":"2026-05-01T08:00:00Z","strip/2":"2026-05-01T14:00:00Z","strip/3":"2026-05-02T08:00:00Z","strip/4":"2026-05-02T14:00:00Z"}}`)
	require.NoError(t, db.Close())
	s, err := Open(ctx, path)
	require.NoError(t, err)
	defer s.Close()
	log, err := s.Read(ctx).BoatLog(ctx, "b")
	require.NoError(t, err)
	got := map[string]Entry{}
	for _, e := range log {
		key := e.Kind
		if e.ID == "laid" {
			key = e.ID
		}
		got[key] = e
	}
	require.Len(t, got, 5)
	assert.EqualValues(t, 1777708800, got["coat"].StartedAt, "2 May 2026, 08:00 UTC")
	assert.Equal(t, "primer", *got["coat"].ProductID)
	assert.Equal(t, 3, got["coat"].Detail.V.Edition)
	assert.Zero(t, got["coat"].Detail.V.SharePct, "all of it")
	assert.InDelta(t, 25, got["strip"].Detail.V.SharePct, 1e-9, "one of four parts")
	assert.Equal(t, "strip", *got["strip"].StepID)
	assert.InDelta(t, 75, got["sand"].Detail.V.SharePct, 1e-9)
	assert.Equal(t, "own", got["other"].Detail.V.OwnID)
	laid := got["laid"].Detail.V
	assert.Equal(t, "L1", laid.Batch)
	assert.Equal(t, 3, laid.Edition)
	assert.Equal(t, "cold", laid.Planned.Grade)
	assert.InDelta(t, 80, laid.Planned.DFTUm, 1e-9)
	plan, err := s.Read(ctx).Plan(ctx, "p")
	require.NoError(t, err)
	assert.JSONEq(t,
		`{"people":[],"own":{"b":[{"id":"own","name":"Rewire","hours":4,"crew":1}]},"marks":{"other":{"state":"skipped"},"pin":{"pinned":"2026-05-09T08:00:00Z"}}}`, plan.Settings)
	steps, err := s.Read(ctx).BoatSteps(ctx, "b")
	require.NoError(t, err)
	assert.Equal(t, step.Detail{}, steps[0].Detail.Detail)
}
