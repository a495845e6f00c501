-- +goose Up
-- The log takes any work, and what belongs to the boat as a whole (surface_id is null).
CREATE TABLE new_log (
    id          TEXT PRIMARY KEY,
    version     INTEGER NOT NULL DEFAULT 1,
    boat_id     TEXT NOT NULL REFERENCES boats (id) ON DELETE CASCADE,
    surface_id  TEXT REFERENCES surfaces (id) ON DELETE CASCADE,
    kind        TEXT NOT NULL, -- logbook.Kinds
    started_at  INTEGER NOT NULL, -- unix seconds, UTC, as deleted_at
    product_id  TEXT REFERENCES products (id),
    step_id     TEXT REFERENCES steps (id) ON DELETE SET NULL,
    litres      REAL NOT NULL,
    wet_um      TEXT NOT NULL, -- JSON, numbers
    thinner_pct REAL NOT NULL,
    grit        INTEGER NOT NULL,
    removed_um  REAL NOT NULL,
    hours       REAL NOT NULL, -- person-hours, 0 if not told
    who         TEXT NOT NULL,
    note        TEXT NOT NULL,
    detail      TEXT NOT NULL, -- JSON, logbook.Detail
    deleted_at  INTEGER
) STRICT;
INSERT INTO new_log SELECT log_entries.id, log_entries.version, surfaces.boat_id, surface_id, kind, started_at, product_id, step_id, litres, wet_um, thinner_pct,
    grit, removed_um, hours, who, note, '{}', deleted_at FROM log_entries JOIN surfaces ON surfaces.id = log_entries.surface_id;
DROP TABLE log_entries;
ALTER TABLE new_log RENAME TO log_entries;
CREATE INDEX log_boat ON log_entries (boat_id, started_at);
CREATE INDEX log_surface ON log_entries (surface_id, started_at);
CREATE INDEX log_product ON log_entries (product_id);

-- What an entry was before it was corrected.
CREATE TABLE log_history (
    entry_id TEXT NOT NULL REFERENCES log_entries (id) ON DELETE CASCADE,
    version  INTEGER NOT NULL,
    at       INTEGER NOT NULL, -- when it was corrected, unix seconds, UTC
    entry    TEXT NOT NULL, -- JSON
    PRIMARY KEY (entry_id, version)
) STRICT, WITHOUT ROWID;

CREATE TABLE new_photos (
    id        TEXT PRIMARY KEY,
    defect_id TEXT REFERENCES defects (id) ON DELETE CASCADE,
    entry_id  TEXT REFERENCES log_entries (id) ON DELETE CASCADE,
    taken_at  INTEGER NOT NULL, -- unix seconds, UTC
    width     INTEGER NOT NULL,
    height    INTEGER NOT NULL,
    jpeg      BLOB NOT NULL,
    CHECK ((defect_id IS NULL) <> (entry_id IS NULL))
) STRICT;
INSERT INTO new_photos SELECT id, defect_id, NULL, taken_at, width, height, jpeg FROM photos;
DROP TABLE photos;
ALTER TABLE new_photos RENAME TO photos;
CREATE INDEX photos_defect ON photos (defect_id);
CREATE INDEX photos_entry ON photos (entry_id);

-- A pot that was mixed: its timers run until it is emptied.
CREATE TABLE pots (
    id         TEXT PRIMARY KEY,
    boat_id    TEXT NOT NULL REFERENCES boats (id) ON DELETE CASCADE,
    surface_id TEXT REFERENCES surfaces (id) ON DELETE CASCADE,
    product_id TEXT NOT NULL REFERENCES products (id) ON DELETE CASCADE,
    grade      TEXT NOT NULL,
    litres     REAL NOT NULL, -- mixed
    mixed_at   INTEGER NOT NULL, -- unix seconds, UTC, as those below
    laid_at    INTEGER, -- the first of it went on
    emptied_at INTEGER
) STRICT;
CREATE INDEX pots_boat ON pots (boat_id, mixed_at);

-- +goose Down
DROP TABLE pots;
DROP TABLE log_history;
DELETE FROM photos WHERE defect_id IS NULL;
DROP INDEX photos_entry;
CREATE TABLE old_photos (
    id        TEXT PRIMARY KEY,
    defect_id TEXT NOT NULL REFERENCES defects (id) ON DELETE CASCADE,
    taken_at  INTEGER NOT NULL,
    width     INTEGER NOT NULL,
    height    INTEGER NOT NULL,
    jpeg      BLOB NOT NULL
) STRICT;
INSERT INTO old_photos SELECT id, defect_id, taken_at, width, height, jpeg FROM photos;
DROP TABLE photos;
ALTER TABLE old_photos RENAME TO photos;
CREATE INDEX photos_defect ON photos (defect_id);
DELETE FROM log_entries WHERE surface_id IS NULL OR kind NOT IN ('coat', 'sand');
DROP INDEX log_boat;
ALTER TABLE log_entries DROP COLUMN detail;
ALTER TABLE log_entries DROP COLUMN boat_id;
