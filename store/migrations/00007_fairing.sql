-- +goose Up
-- Gaps under a straightedge on a surface, a round each.
CREATE TABLE fairings (
    id         TEXT PRIMARY KEY,
    version    INTEGER NOT NULL DEFAULT 1,
    surface_id TEXT NOT NULL REFERENCES surfaces (id) ON DELETE CASCADE,
    read_at    INTEGER NOT NULL, -- unix seconds, UTC
    readings   TEXT NOT NULL -- JSON
) STRICT;
CREATE INDEX fairings_surface ON fairings (surface_id, read_at);

-- +goose Down
DROP TABLE fairings;
