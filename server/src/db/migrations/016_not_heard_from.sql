-- oldest program: 10
-- Which outboxes took a visit along, when each was last seen, and when it said since that nothing waits there.
CREATE TABLE IF NOT EXISTS taken_along (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  outbox_id CHAR(36) CHARACTER SET ascii NOT NULL,
  person_id CHAR(36) CHARACTER SET ascii NOT NULL,
  seen_at DATETIME(3) NOT NULL,
  said_at DATETIME(3) NULL,
  PRIMARY KEY (visit_id, outbox_id),
  KEY taken_by (outbox_id, person_id),
  FOREIGN KEY (visit_id) REFERENCES visits (id)
) ENGINE=InnoDB;

-- Lines that came when their visit was sealed already: no part of the record, and not lost. No rebuild touches them.
CREATE TABLE IF NOT EXISTS lines_after_seal (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  person_id CHAR(36) CHARACTER SET ascii NOT NULL,
  person_name VARCHAR(120) NOT NULL,
  received_at DATETIME(3) NOT NULL,
  line MEDIUMTEXT NOT NULL,
  KEY of_visit (visit_id, received_at),
  KEY come_since (received_at),
  FOREIGN KEY (visit_id) REFERENCES visits (id)
) ENGINE=InnoDB;
