-- oldest program: 10
-- Estimates are of the one list of work, and tell how much of it is hands on; those of before have no such figure, and are made anew. What a program of before
-- keeps meanwhile is taken for its own line only, as any estimate.
ALTER TABLE estimates ADD COLUMN IF NOT EXISTS hands_on_min SMALLINT UNSIGNED NULL;
