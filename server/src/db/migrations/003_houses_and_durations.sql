-- How long waits of past visits took, by model and what of its work was waited for; made from the logbook, rebuildable.
CREATE TABLE durations (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  wait_id CHAR(36) CHARACTER SET ascii NOT NULL,
  of_what VARCHAR(160) CHARACTER SET ascii NOT NULL,
  minutes DOUBLE NOT NULL,
  ended_at DATETIME(3) NOT NULL,
  PRIMARY KEY (visit_id, wait_id),
  KEY by_what (of_what, ended_at),
  FOREIGN KEY (visit_id) REFERENCES visits (id)
) ENGINE=InnoDB;

-- Simulated houses to practise on, each with what was done in it, one row an action.
CREATE TABLE houses (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  definition MEDIUMTEXT NOT NULL,
  -- One that others begin from, and nothing is done in.
  template BOOLEAN NOT NULL,
  made_by CHAR(36) CHARACTER SET ascii NOT NULL,
  made_at DATETIME(3) NOT NULL,
  KEY by_maker (made_by, made_at),
  KEY by_template (template, made_at)
) ENGINE=InnoDB;
CREATE TABLE house_actions (
  house_id CHAR(36) CHARACTER SET ascii NOT NULL,
  number INT UNSIGNED NOT NULL,
  action TEXT NOT NULL,
  PRIMARY KEY (house_id, number),
  FOREIGN KEY (house_id) REFERENCES houses (id)
) ENGINE=InnoDB;
