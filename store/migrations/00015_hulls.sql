-- +goose Up
ALTER TABLE boats ADD COLUMN body_draught_m REAL NOT NULL DEFAULT 0; -- 0: not known
ALTER TABLE boats ADD COLUMN hull_beam_m REAL NOT NULL DEFAULT 0; -- 0: not known

-- +goose Down
ALTER TABLE boats DROP COLUMN hull_beam_m;
ALTER TABLE boats DROP COLUMN body_draught_m;
