-- +goose Up
CREATE TABLE users (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL UNIQUE COLLATE NOCASE,
    hash BLOB NOT NULL,
    may TEXT NOT NULL CHECK (may IN ('look', 'log', 'plan', 'all')),
    created_at INTEGER NOT NULL
) STRICT;

CREATE TABLE sessions (
    token BLOB PRIMARY KEY,
    user_id TEXT NOT NULL REFERENCES users (id) ON DELETE CASCADE,
    until INTEGER NOT NULL
) STRICT, WITHOUT ROWID;

CREATE TABLE audit (
    id INTEGER PRIMARY KEY,
    at INTEGER NOT NULL,
    who TEXT NOT NULL,
    what TEXT NOT NULL,
    path TEXT NOT NULL
) STRICT;

-- What a paired phone may: as a person may.
ALTER TABLE devices ADD COLUMN may TEXT NOT NULL DEFAULT 'all';

-- +goose Down
ALTER TABLE devices DROP COLUMN may;
DROP TABLE audit;
DROP TABLE sessions;
DROP TABLE users;
