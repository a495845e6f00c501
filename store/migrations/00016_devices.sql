-- +goose Up
CREATE TABLE devices (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    token BLOB NOT NULL UNIQUE,
    paired_at INTEGER NOT NULL
) STRICT;

-- +goose Down
DROP TABLE devices;
