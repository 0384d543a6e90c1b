-- oldest program: 10
-- Since when a visit is cancelled; made from the logbook, rebuildable. It stands in no list of what is to be done.
ALTER TABLE visits ADD COLUMN IF NOT EXISTS cancelled_at DATETIME(3) NULL;
