-- +goose Up
-- The plan of a place: who works, what the user said of tasks, and the starts of the plan that
-- stands, with those before it to go back to. All JSON.
CREATE TABLE plans (
    place_id TEXT PRIMARY KEY REFERENCES places (id) ON DELETE CASCADE,
    version  INTEGER NOT NULL DEFAULT 1,
    settings TEXT NOT NULL,
    starts   TEXT NOT NULL,
    before   TEXT NOT NULL
) STRICT;

ALTER TABLE log_entries ADD COLUMN hours REAL NOT NULL DEFAULT 0; -- person-hours, 0 if not told

-- +goose Down
ALTER TABLE log_entries DROP COLUMN hours;
DROP TABLE plans;
