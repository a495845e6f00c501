-- +goose Up
-- Forecasts as they were issued, one a day, to be held against what came; learned is what they told.
CREATE TABLE forecasts (
    place_id TEXT NOT NULL REFERENCES places (id) ON DELETE CASCADE,
    issued_at INTEGER NOT NULL,
    hours TEXT NOT NULL,
    PRIMARY KEY (place_id, issued_at)
) STRICT, WITHOUT ROWID;

ALTER TABLE places ADD COLUMN learned TEXT NOT NULL DEFAULT 'null';

-- +goose Down
ALTER TABLE places DROP COLUMN learned;
DROP TABLE forecasts;
