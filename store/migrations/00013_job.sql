-- +goose Up
-- A step says where it works, how, and from which bench it came; an entry of the log by
-- which edition of a data sheet it was laid.
ALTER TABLE steps ADD COLUMN detail TEXT NOT NULL DEFAULT '{}'; -- JSON, step.Detail

CREATE TABLE sheet_editions (
    product_id TEXT NOT NULL REFERENCES products (id) ON DELETE CASCADE,
    version    INTEGER NOT NULL, -- that of the product
    sheet      TEXT NOT NULL, -- JSON, product.Sheet
    PRIMARY KEY (product_id, version)
) STRICT, WITHOUT ROWID;
INSERT INTO sheet_editions SELECT id, version, sheet FROM products;

-- What was laid before was reckoned by the sheet and the step as they stand now.
UPDATE log_entries SET detail = json_set(detail, '$.edition', (SELECT version FROM products WHERE id = product_id)) WHERE product_id IS NOT NULL;
UPDATE log_entries SET detail = json_set(detail, '$.planned', json((SELECT json_object('dftUm', dft_um, 'lossPct', loss_pct, 'grade', grade) FROM steps WHERE id = step_id)))
    WHERE step_id IS NOT NULL AND kind = 'coat';

-- "Done" and "half done" of a plan become entries of the log, at the start that was planned:
-- what has no entry is not done.
CREATE TEMP TABLE marked AS
SELECT plans.place_id, mark.key AS task, mark.value ->> 'state' AS state, coalesce(mark.value ->> 'leftPct', 0) AS left_pct,
    CASE WHEN instr(mark.key, '/') > 0 THEN substr(mark.key, 1, instr(mark.key, '/') - 1) ELSE mark.key END AS whole,
    plans.starts, plans.settings
FROM plans, json_each(plans.settings, '$.marks') AS mark
WHERE mark.value ->> 'state' = 'done' OR coalesce(mark.value ->> 'leftPct', 0) BETWEEN 0.01 AND 99.99;

INSERT INTO log_entries (id, boat_id, surface_id, kind, started_at, product_id, step_id, litres, wet_um, thinner_pct, grit, removed_um, hours, who, note, detail)
SELECT lower(substr(r, 1, 8) || '-' || substr(r, 9, 4) || '-4' || substr(r, 14, 3) || '-8' || substr(r, 18, 3) || '-' || substr(r, 21, 12)),
    boat_id, surface_id, kind, at, product_id, step_id, 0, '[]', 0, grit, 0, 0, '', 'marked in Plan; the time is the planned one', detail
FROM (
    SELECT hex(randomblob(16)) AS r, surfaces.boat_id, surfaces.id AS surface_id, CASE WHEN steps.work = 'fill' THEN 'coat' ELSE steps.work END AS kind,
        min(unixepoch('now'), coalesce(unixepoch(json_extract(m.starts, '$.starts."' || m.task || '"')), unixepoch('now'))) AS at,
        steps.product_id, steps.id AS step_id, steps.grit,
        json_patch(json_object('sharePct', CASE WHEN m.state = 'done' THEN
                CASE WHEN m.task = m.whole THEN 0 ELSE 100.0 / max(1, (SELECT count(*) FROM json_each(m.starts, '$.starts') AS s WHERE s.key LIKE m.whole || '/%')) END
            ELSE 100 - m.left_pct END),
            CASE WHEN steps.product_id IS NULL THEN '{}' ELSE json_object('edition', (SELECT version FROM products WHERE id = steps.product_id),
                'planned', json_object('dftUm', dft_um, 'lossPct', loss_pct, 'grade', grade)) END) AS detail
    FROM marked AS m JOIN steps ON steps.id = CASE WHEN instr(m.whole, '#') > 0 THEN substr(m.whole, 1, instr(m.whole, '#') - 1) ELSE m.whole END
        JOIN surfaces ON surfaces.id = steps.surface_id
    UNION ALL
    SELECT hex(randomblob(16)), boats.id, NULL, 'other',
        min(unixepoch('now'), coalesce(unixepoch(json_extract(m.starts, '$.starts."' || m.task || '"')), unixepoch('now'))), NULL, NULL, 0,
        json_object('ownId', m.whole, 'sharePct', CASE WHEN m.state = 'done' THEN
                CASE WHEN m.task = m.whole THEN 0 ELSE 100.0 / max(1, (SELECT count(*) FROM json_each(m.starts, '$.starts') AS s WHERE s.key LIKE m.whole || '/%')) END
            ELSE 100 - m.left_pct END)
    FROM marked AS m, json_each(m.settings, '$.own') AS boat, json_each(boat.value) AS own JOIN boats ON boats.id = boat.key
    WHERE own.value ->> 'id' = m.whole
);

UPDATE plans SET version = version + 1, settings = json_set(settings, '$.marks', json(coalesce((
    SELECT json_group_object(mark.key, json_remove(mark.value, '$.leftPct')) FROM json_each(plans.settings, '$.marks') AS mark
    WHERE coalesce(mark.value ->> 'state', '') <> 'done' AND json_remove(mark.value, '$.leftPct') <> '{}'), '{}')))
WHERE place_id IN (SELECT place_id FROM marked);
DROP TABLE marked;

-- +goose Down
ALTER TABLE steps DROP COLUMN detail;
DROP TABLE sheet_editions;
