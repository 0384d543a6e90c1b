-- Looks at a home when it has settled, as booked in its visit; made from the logbook, rebuildable.
CREATE TABLE checks (
  check_id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  home_id CHAR(36) CHARACTER SET ascii NOT NULL,
  due_from DATETIME(3) NOT NULL,
  due_to DATETIME(3) NOT NULL,
  KEY by_due (due_from, check_id),
  KEY by_visit (visit_id),
  FOREIGN KEY (visit_id) REFERENCES visits (id)
) ENGINE=InnoDB;

-- What such a look came to. The visit is sealed by then, so this stands beside its record, not in it.
CREATE TABLE check_results (
  check_id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  by_id CHAR(36) CHARACTER SET ascii NOT NULL,
  by_name VARCHAR(120) NOT NULL,
  done_at DATETIME(3) NOT NULL,
  result TEXT NOT NULL,
  FOREIGN KEY (visit_id) REFERENCES visits (id)
) ENGINE=InnoDB;
