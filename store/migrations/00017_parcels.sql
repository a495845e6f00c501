-- +goose Up
CREATE TABLE parcels (
    id TEXT PRIMARY KEY,
    at INTEGER NOT NULL
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE parcels;
