-- +goose Up
-- The plans of a place that were gone back from, to go forward to again. JSON.
ALTER TABLE plans ADD COLUMN redo TEXT NOT NULL DEFAULT '[]';

-- +goose Down
ALTER TABLE plans DROP COLUMN redo;
