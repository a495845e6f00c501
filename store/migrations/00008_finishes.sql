-- +goose Up
-- What a user set at the workbench of a finish: of a surface, or of the boat.
CREATE TABLE finishes (
    id         TEXT PRIMARY KEY,
    version    INTEGER NOT NULL DEFAULT 1,
    boat_id    TEXT NOT NULL REFERENCES boats (id) ON DELETE CASCADE,
    surface_id TEXT REFERENCES surfaces (id) ON DELETE CASCADE,
    craft      TEXT NOT NULL,
    work       TEXT NOT NULL -- JSON
) STRICT;
CREATE UNIQUE INDEX finishes_craft ON finishes (boat_id, coalesce(surface_id, ''), craft);

-- +goose Down
DROP TABLE finishes;
