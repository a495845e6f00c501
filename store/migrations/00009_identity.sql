-- +goose Up
-- The file says whose it is: "COAT" in ASCII.
PRAGMA application_id = 1129267540;

-- Example sheets that were wrong where it hurts, in libraries filled before.
UPDATE products SET version = version + 1,
    sheet = json_set(sheet, '$.ratioByWeight', json('{"base":0,"hardener":0}'), '$.ratioByVolume', json('{"base":0,"hardener":0}'))
WHERE json_extract(sheet, '$.example') = 1 AND json_array_length(sheet, '$.doses') > 0
  AND (json_extract(sheet, '$.ratioByWeight.base') > 0 OR json_extract(sheet, '$.ratioByVolume.base') > 0);
UPDATE products SET version = version + 1,
    sheet = json_set(sheet, '$.notes', 'Never on aluminium, nor near it: copper eats it. Launch within the sheet''s months.')
WHERE json_extract(sheet, '$.example') = 1 AND json_extract(sheet, '$.copper') = 1 AND json_extract(sheet, '$.notes') LIKE 'For aluminium too.%';
UPDATE products SET version = version + 1,
    sheet = json_insert(sheet, '$.cautions[#]', 'Two-part polyurethane holds isocyanates: supplied air when sprayed, gloves and goggles always.')
WHERE json_extract(sheet, '$.example') = 1 AND json_extract(sheet, '$.kind') = 'undercoat' AND json_extract(sheet, '$.binder') = 'polyurethane'
  AND sheet NOT LIKE '%socyanate%';

-- +goose Down
PRAGMA application_id = 0;
