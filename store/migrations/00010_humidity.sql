-- +goose Up
-- Humidity bears on waterborne and moisture-cured products only; what was called
-- evaporating follows the binder now.
UPDATE products SET version = version + 1, sheet = json_set(sheet, '$.humidity', CASE
    WHEN lower(json_extract(sheet, '$.chemistry') || ' ' || json_extract(sheet, '$.name')) LIKE '%water%' THEN 'waterborne' ELSE '' END)
WHERE json_extract(sheet, '$.humidity') = 'evaporating';

-- +goose Down
SELECT 1;
