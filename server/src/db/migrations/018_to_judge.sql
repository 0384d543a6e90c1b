-- oldest program: 10
-- Which visits were written in since the rules were asked last: what lists say of their findings follows, and is no guard of any write.
ALTER TABLE visits ADD COLUMN IF NOT EXISTS to_judge BOOLEAN NOT NULL DEFAULT FALSE;
ALTER TABLE visits ADD KEY IF NOT EXISTS to_judge (to_judge);
