-- +goose Up
ALTER TABLE stock ADD COLUMN arrives_on TEXT NOT NULL DEFAULT ''; -- of what is awaited, the day; '' is there

-- +goose Down
ALTER TABLE stock DROP COLUMN arrives_on;
