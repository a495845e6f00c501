-- +goose Up
ALTER TABLE places ADD COLUMN normals TEXT NOT NULL DEFAULT 'null'; -- JSON, weather.Normals or null

ALTER TABLE boats ADD COLUMN week TEXT NOT NULL DEFAULT '[]'; -- JSON, calendar.Week
ALTER TABLE boats ADD COLUMN crew INTEGER NOT NULL DEFAULT 1;
ALTER TABLE boats ADD COLUMN tent TEXT NOT NULL DEFAULT 'null'; -- JSON, tent.Tent or null
ALTER TABLE boats ADD COLUMN tent_version INTEGER NOT NULL DEFAULT 1;

-- surface_id is null for what does not sit on a surface, boat_id for what serves the whole place.
CREATE TABLE instruments (
    id         TEXT PRIMARY KEY,
    version    INTEGER NOT NULL DEFAULT 1,
    place_id   TEXT NOT NULL REFERENCES places (id) ON DELETE CASCADE,
    boat_id    TEXT REFERENCES boats (id) ON DELETE CASCADE,
    surface_id TEXT REFERENCES surfaces (id) ON DELETE CASCADE,
    name       TEXT NOT NULL,
    kind       TEXT NOT NULL, -- air · tent · surface · spot
    feed       TEXT NOT NULL, -- file · live · simulated
    fault      TEXT NOT NULL, -- of a simulated one
    mapping    TEXT NOT NULL  -- JSON, formats.Mapping, or empty
) STRICT;
CREATE INDEX instruments_place ON instruments (place_id);

-- A day's readings in one row: 12 bytes each, little-endian: seconds of the day, thousandths of
-- °C, thousandths of a per cent; the least 32-bit number is no value. day counts from 1970, UTC.
CREATE TABLE readings (
    instrument_id TEXT NOT NULL REFERENCES instruments (id) ON DELETE CASCADE,
    day           INTEGER NOT NULL,
    points        BLOB NOT NULL,
    PRIMARY KEY (instrument_id, day)
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE readings;
DROP TABLE instruments;
ALTER TABLE boats DROP COLUMN tent_version;
ALTER TABLE boats DROP COLUMN tent;
ALTER TABLE boats DROP COLUMN crew;
ALTER TABLE boats DROP COLUMN week;
ALTER TABLE places DROP COLUMN normals;
