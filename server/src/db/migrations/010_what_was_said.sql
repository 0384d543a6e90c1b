-- oldest program: 9
-- rebuild
-- What the rules said of a visit when it was sealed, packed; no rebuild touches it. `kept_by` says whether the seal vouches for it.
CREATE TABLE IF NOT EXISTS sealed_verdicts (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  digest CHAR(64) CHARACTER SET ascii NOT NULL,
  kept_by ENUM('seal', 'import', 'migration') NOT NULL,
  kept_at DATETIME(3) NOT NULL,
  packed MEDIUMBLOB NOT NULL,
  FOREIGN KEY (visit_id) REFERENCES visits (id)
) ENGINE=InnoDB;

-- Whose an outbox is: one person on one device. What another person sends from it is refused.
CREATE TABLE IF NOT EXISTS outboxes (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  person_id CHAR(36) CHARACTER SET ascii NOT NULL,
  first_at DATETIME(3) NOT NULL
) ENGINE=InnoDB;

-- Visits that came as a file: who took them in, and what they brought along for reading only. Nothing of it is in force.
CREATE TABLE IF NOT EXISTS foreign_visits (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  by_id CHAR(36) CHARACTER SET ascii NOT NULL,
  by_name VARCHAR(120) NOT NULL,
  taken_at DATETIME(3) NOT NULL,
  standard LONGTEXT NULL,
  models LONGTEXT NOT NULL,
  public_key CHAR(64) CHARACTER SET ascii NULL,
  FOREIGN KEY (visit_id) REFERENCES visits (id)
) ENGINE=InnoDB;

ALTER TABLE visits ADD COLUMN IF NOT EXISTS is_foreign BOOLEAN NOT NULL DEFAULT FALSE;

-- Keys that were ever this company's; of those that were here before, only the one in use is known to be.
ALTER TABLE seal_keys ADD COLUMN IF NOT EXISTS ours BOOLEAN NOT NULL DEFAULT FALSE;

-- What is known of the company itself: a print of its master key, so that a process with another one does not start.
CREATE TABLE IF NOT EXISTS company_facts (
  name VARCHAR(40) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  value VARCHAR(200) NOT NULL
) ENGINE=InnoDB;

-- A login is one spelling: letters that only look or compare alike are others.
ALTER TABLE users MODIFY login VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL;

-- Who looked at more secrets within an hour than is usual, and typed their password again to go on: told to the leads.
CREATE TABLE IF NOT EXISTS many_shown (
  person_id CHAR(36) CHARACTER SET ascii NOT NULL,
  at DATETIME(3) NOT NULL,
  person_name VARCHAR(120) NOT NULL,
  PRIMARY KEY (person_id, at),
  KEY by_time (at)
) ENGINE=InnoDB;
