-- +goose Up
-- Steps that are no coats have no product, so the table is made anew, and the
-- log that refers to it.
ALTER TABLE steps RENAME TO old_steps;
DROP INDEX steps_surface;
DROP INDEX steps_product;
CREATE TABLE steps (
    id          TEXT PRIMARY KEY,
    surface_id  TEXT NOT NULL REFERENCES surfaces (id) ON DELETE CASCADE,
    position    INTEGER NOT NULL,
    work        TEXT NOT NULL, -- coat · wash · degrease · strip · sand · fill · fair · inspect · mask
    product_id  TEXT REFERENCES products (id),
    coats       INTEGER NOT NULL,
    dft_um      REAL NOT NULL,
    method      TEXT NOT NULL,
    loss_pct    REAL NOT NULL,
    thinner_pct REAL NOT NULL,
    grade       TEXT NOT NULL, -- hardener, '' the standard one
    colour      TEXT NOT NULL,
    grit        INTEGER NOT NULL,
    removed_um  REAL NOT NULL,
    agent       TEXT NOT NULL,
    note        TEXT NOT NULL
) STRICT;
CREATE INDEX steps_surface ON steps (surface_id, position);
CREATE INDEX steps_product ON steps (product_id);
INSERT INTO steps SELECT id, surface_id, position, 'coat', product_id, coats, dft_um, method, loss_pct, thinner_pct, '', '', 0, 0, '', '' FROM old_steps;

ALTER TABLE log_entries RENAME TO old_log;
DROP INDEX log_surface;
DROP INDEX log_product;
CREATE TABLE log_entries (
    id          TEXT PRIMARY KEY,
    version     INTEGER NOT NULL DEFAULT 1,
    surface_id  TEXT NOT NULL REFERENCES surfaces (id) ON DELETE CASCADE,
    kind        TEXT NOT NULL, -- coat · sand
    started_at  INTEGER NOT NULL,
    product_id  TEXT REFERENCES products (id),
    step_id     TEXT REFERENCES steps (id) ON DELETE SET NULL,
    litres      REAL NOT NULL,
    wet_um      TEXT NOT NULL, -- JSON, numbers
    thinner_pct REAL NOT NULL,
    grit        INTEGER NOT NULL,
    who         TEXT NOT NULL,
    note        TEXT NOT NULL,
    deleted_at  INTEGER,
    removed_um  REAL NOT NULL DEFAULT 0
) STRICT;
INSERT INTO log_entries SELECT * FROM old_log;
DROP TABLE old_log;
DROP TABLE old_steps;
CREATE INDEX log_surface ON log_entries (surface_id, started_at);
CREATE INDEX log_product ON log_entries (product_id);

-- A finding that is let stand, with the reason.
CREATE TABLE overrules (
    surface_id TEXT NOT NULL REFERENCES surfaces (id) ON DELETE CASCADE,
    step_id    TEXT NOT NULL, -- '' for the surface as a whole
    rule       TEXT NOT NULL,
    reason     TEXT NOT NULL,
    at         INTEGER NOT NULL, -- unix seconds, UTC
    PRIMARY KEY (surface_id, step_id, rule)
) STRICT, WITHOUT ROWID;

-- Named sequences of steps; every version is kept.
CREATE TABLE systems (
    id      TEXT PRIMARY KEY,
    version INTEGER NOT NULL DEFAULT 1,
    name    TEXT NOT NULL,
    note    TEXT NOT NULL,
    steps   TEXT NOT NULL -- JSON
) STRICT;
CREATE TABLE system_versions (
    system_id TEXT NOT NULL REFERENCES systems (id) ON DELETE CASCADE,
    version   INTEGER NOT NULL,
    at        INTEGER NOT NULL, -- unix seconds, UTC
    steps     TEXT NOT NULL, -- JSON
    PRIMARY KEY (system_id, version)
) STRICT, WITHOUT ROWID;

-- What stands on the shelf. Litres as counted; what was logged since is taken
-- off when they are shown.
CREATE TABLE stock (
    id         TEXT PRIMARY KEY,
    version    INTEGER NOT NULL DEFAULT 1,
    product_id TEXT NOT NULL REFERENCES products (id),
    part       TEXT NOT NULL, -- '' kit or one-part · base · hardener
    litres     REAL NOT NULL,
    batch      TEXT NOT NULL,
    supplier   TEXT NOT NULL,
    shelf      TEXT NOT NULL,
    note       TEXT NOT NULL,
    bought_on  TEXT NOT NULL, -- 2006-01-02 or empty
    opened_on  TEXT NOT NULL,
    expires_on TEXT NOT NULL,
    counted_at INTEGER NOT NULL -- unix seconds, UTC
) STRICT;
CREATE INDEX stock_product ON stock (product_id);

-- +goose Down
DROP TABLE stock;
DROP TABLE system_versions;
DROP TABLE systems;
DROP TABLE overrules;
DELETE FROM steps WHERE product_id IS NULL;
ALTER TABLE steps DROP COLUMN work;
ALTER TABLE steps DROP COLUMN grade;
ALTER TABLE steps DROP COLUMN colour;
ALTER TABLE steps DROP COLUMN grit;
ALTER TABLE steps DROP COLUMN removed_um;
ALTER TABLE steps DROP COLUMN agent;
ALTER TABLE steps DROP COLUMN note;
