-- +goose Up
CREATE TABLE settings (
    key   TEXT PRIMARY KEY,
    value TEXT NOT NULL
) STRICT;

CREATE TABLE places (
    id             TEXT PRIMARY KEY,
    version        INTEGER NOT NULL DEFAULT 1,
    name           TEXT NOT NULL,
    latitude_deg   REAL NOT NULL,
    longitude_deg  REAL NOT NULL,
    time_zone      TEXT NOT NULL,
    weather_source TEXT NOT NULL -- simulated · imported
) STRICT;

-- at is unix seconds, UTC. measured is 1 for a reading, 0 for a forecast.
CREATE TABLE weather (
    place_id       TEXT NOT NULL REFERENCES places (id) ON DELETE CASCADE,
    measured       INTEGER NOT NULL,
    at             INTEGER NOT NULL,
    temp_c         REAL NOT NULL,
    rh_pct         REAL NOT NULL,
    wind_ms        REAL,
    rain_mm        REAL,
    cloud_pct      REAL,
    shortwave_wm2  REAL,
    PRIMARY KEY (place_id, measured, at)
) STRICT, WITHOUT ROWID;

CREATE TABLE boats (
    id          TEXT PRIMARY KEY,
    version     INTEGER NOT NULL DEFAULT 1,
    place_id    TEXT NOT NULL REFERENCES places (id),
    name        TEXT NOT NULL,
    type        TEXT NOT NULL,
    heading_deg REAL NOT NULL,
    launch_date TEXT NOT NULL, -- 2006-01-02 or empty
    lights      INTEGER NOT NULL,
    hull_form   TEXT NOT NULL,
    loa_m       REAL NOT NULL,
    lwl_m       REAL NOT NULL,
    beam_m      REAL NOT NULL,
    draught_m   REAL NOT NULL,
    freeboard_m REAL NOT NULL,
    houses_m2   REAL NOT NULL
) STRICT;

CREATE TABLE surfaces (
    id        TEXT PRIMARY KEY,
    version   INTEGER NOT NULL DEFAULT 1,
    boat_id   TEXT NOT NULL REFERENCES boats (id) ON DELETE CASCADE,
    position  INTEGER NOT NULL,
    name      TEXT NOT NULL,
    part      TEXT NOT NULL,
    side      TEXT NOT NULL,
    substrate TEXT NOT NULL,
    measure   TEXT NOT NULL -- JSON, area.Measure
) STRICT;
CREATE INDEX surfaces_boat ON surfaces (boat_id, position);

CREATE TABLE products (
    id      TEXT PRIMARY KEY,
    version INTEGER NOT NULL DEFAULT 1,
    sheet   TEXT NOT NULL -- JSON, product.Sheet
) STRICT;

CREATE TABLE steps (
    id          TEXT PRIMARY KEY,
    surface_id  TEXT NOT NULL REFERENCES surfaces (id) ON DELETE CASCADE,
    position    INTEGER NOT NULL,
    product_id  TEXT NOT NULL REFERENCES products (id),
    coats       INTEGER NOT NULL,
    dft_um      REAL NOT NULL,
    method      TEXT NOT NULL,
    loss_pct    REAL NOT NULL,
    thinner_pct REAL NOT NULL
) STRICT;
CREATE INDEX steps_surface ON steps (surface_id, position);
CREATE INDEX steps_product ON steps (product_id);

-- started_at and deleted_at are unix seconds, UTC.
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
    deleted_at  INTEGER
) STRICT;
CREATE INDEX log_surface ON log_entries (surface_id, started_at);
CREATE INDEX log_product ON log_entries (product_id);

-- +goose Down
DROP TABLE log_entries;
DROP TABLE steps;
DROP TABLE products;
DROP TABLE surfaces;
DROP TABLE boats;
DROP TABLE weather;
DROP TABLE places;
DROP TABLE settings;
