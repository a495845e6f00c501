-- +goose Up
ALTER TABLE boats ADD COLUMN unlearned TEXT NOT NULL DEFAULT '[]'; -- keys of lessons that do not count
ALTER TABLE boats ADD COLUMN months_afloat REAL NOT NULL DEFAULT 0;
ALTER TABLE boats ADD COLUMN season_nm REAL NOT NULL DEFAULT 0;

-- +goose Down
ALTER TABLE boats DROP COLUMN season_nm;
ALTER TABLE boats DROP COLUMN months_afloat;
ALTER TABLE boats DROP COLUMN unlearned;
