-- +goose Up
ALTER TABLE boats ADD COLUMN displacement_t REAL NOT NULL DEFAULT 0; -- 0: not known

ALTER TABLE surfaces ADD COLUMN description TEXT NOT NULL DEFAULT '{}'; -- JSON, survey.Description
ALTER TABLE surfaces ADD COLUMN findings TEXT NOT NULL DEFAULT '{}'; -- JSON, survey.Findings
ALTER TABLE surfaces ADD COLUMN measured TEXT NOT NULL DEFAULT '{}'; -- JSON, area.Measured
UPDATE surfaces SET
    description = json_object('group', '', 'substrate', CASE
        WHEN substrate LIKE '%gelcoat%' THEN 'gelcoat'
        WHEN substrate LIKE '%GRP%' THEN 'grp'
        WHEN substrate LIKE '%alumin%' THEN 'aluminium'
        WHEN substrate LIKE '%stainless%' THEN 'stainless'
        WHEN substrate LIKE '%steel%' THEN 'steel'
        WHEN substrate LIKE '%strip%' THEN 'strip-plank'
        WHEN substrate LIKE '%ply%' THEN 'plywood'
        WHEN substrate LIKE '%mahogany%' OR substrate LIKE '%spruce%' OR substrate LIKE '%wood%' THEN 'solid-wood'
        ELSE 'other' END, 'substrateNote', substrate, 'thicknessMM', 0, 'colour', '', 'tone', 'pale', 'facing', '', 'access', 'side', 'shelter', 'open'),
    findings = json_object('layers', json_array(), 'stop', 0, 'moisture', json_array(), 'veneerMM', 0),
    measured = json_object('chosen', 0, 'measures', json_array(CASE measure ->> 'method'
        WHEN 'strip' THEN json_object('method', 'shapes', 'shapes', json_array(json_object('kind', 'strip', 'aM', measure ->> 'lengthM', 'bM', measure ->> 'widthM', 'count', measure ->> 'count')))
        WHEN 'stated' THEN json_object('method', 'stated', 'areaM2', measure ->> 'areaM2', 'uncertaintyPct', coalesce(measure ->> 'uncertaintyPct', 0))
        ELSE json_object('method', 'principal') END));
ALTER TABLE surfaces DROP COLUMN substrate;
ALTER TABLE surfaces DROP COLUMN measure;

ALTER TABLE log_entries ADD COLUMN removed_um REAL NOT NULL DEFAULT 0; -- film a sanding took off

CREATE TABLE models (
    id      TEXT PRIMARY KEY,
    version INTEGER NOT NULL DEFAULT 1,
    boat_id TEXT NOT NULL REFERENCES boats (id) ON DELETE CASCADE,
    name    TEXT NOT NULL,
    format  TEXT NOT NULL, -- stl · obj · offsets
    placing TEXT NOT NULL, -- JSON, mesh.Placing
    draws   INTEGER NOT NULL, -- 1: the boat is drawn from it
    result  TEXT NOT NULL, -- JSON, what it was measured to
    data    BLOB NOT NULL
) STRICT;
CREATE INDEX models_boat ON models (boat_id);

CREATE TABLE defects (
    id         TEXT PRIMARY KEY,
    version    INTEGER NOT NULL DEFAULT 1,
    surface_id TEXT NOT NULL REFERENCES surfaces (id) ON DELETE CASCADE,
    found_at   INTEGER NOT NULL, -- unix seconds, UTC
    defect     TEXT NOT NULL -- JSON, survey.Defect
) STRICT;
CREATE INDEX defects_surface ON defects (surface_id);

CREATE TABLE photos (
    id        TEXT PRIMARY KEY,
    defect_id TEXT NOT NULL REFERENCES defects (id) ON DELETE CASCADE,
    taken_at  INTEGER NOT NULL, -- unix seconds, UTC
    width     INTEGER NOT NULL,
    height    INTEGER NOT NULL,
    jpeg      BLOB NOT NULL
) STRICT;
CREATE INDEX photos_defect ON photos (defect_id);

-- +goose Down
DROP TABLE photos;
DROP TABLE defects;
DROP TABLE models;
ALTER TABLE log_entries DROP COLUMN removed_um;
ALTER TABLE surfaces ADD COLUMN substrate TEXT NOT NULL DEFAULT '';
ALTER TABLE surfaces ADD COLUMN measure TEXT NOT NULL DEFAULT '{"method":"principal"}';
UPDATE surfaces SET substrate = coalesce(description ->> 'substrateNote', '');
ALTER TABLE surfaces DROP COLUMN measured;
ALTER TABLE surfaces DROP COLUMN findings;
ALTER TABLE surfaces DROP COLUMN description;
ALTER TABLE boats DROP COLUMN displacement_t;
