-- oldest program: 10
-- rebuild
-- One spelling for all versions that are one: what is looked for is found however it was recorded.
ALTER TABLE units ADD COLUMN IF NOT EXISTS firmware_key VARCHAR(60) NULL;

ALTER TABLE units ADD KEY IF NOT EXISTS by_version (model, firmware_key, visit_id);
