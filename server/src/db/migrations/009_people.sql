-- Who has left logs in no more, and stays in every logbook. A password that a lead gave is to be replaced by one of the person's own.
ALTER TABLE users
  ADD COLUMN left_at DATETIME(3) NULL,
  ADD COLUMN password_given BOOLEAN NOT NULL DEFAULT FALSE;
