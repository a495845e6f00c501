-- +goose Up
ALTER TABLE boats ADD COLUMN quotes TEXT NOT NULL DEFAULT '[]'; -- of shops, for parts of the work
ALTER TABLE boats ADD COLUMN quotes_version INTEGER NOT NULL DEFAULT 1;

-- +goose Down
ALTER TABLE boats DROP COLUMN quotes_version;
ALTER TABLE boats DROP COLUMN quotes;
