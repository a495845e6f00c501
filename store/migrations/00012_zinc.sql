-- +goose Up
-- Sheets of examples say that they hold zinc, in libraries filled before.
UPDATE products SET version = version + 1, sheet = json_set(sheet, '$.zinc', json('true'))
WHERE json_extract(sheet, '$.example') = 1 AND json_extract(sheet, '$.kind') = 'metal-primer' AND json_extract(sheet, '$.chemistry') LIKE '%zinc dust%';

-- +goose Down
SELECT 1;
