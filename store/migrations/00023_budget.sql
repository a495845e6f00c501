-- +goose Up
ALTER TABLE boats ADD COLUMN budget_cents REAL NOT NULL DEFAULT 0;

-- +goose Down
ALTER TABLE boats DROP COLUMN budget_cents;
