-- +goose Up
ALTER TABLE boats ADD COLUMN guessed TEXT NOT NULL DEFAULT '[]'; -- dimensions guessed from length and beam

-- +goose Down
ALTER TABLE boats DROP COLUMN guessed;
