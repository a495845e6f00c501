-- +goose Up
-- How many hours above the dew point the user wants after a coat, by habit; 0 leaves it
-- to the sheet.
ALTER TABLE boats ADD COLUMN dew_free_h REAL NOT NULL DEFAULT 0;

-- +goose Down
ALTER TABLE boats DROP COLUMN dew_free_h;
