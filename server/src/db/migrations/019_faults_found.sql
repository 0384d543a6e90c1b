-- oldest program: 10
-- What the last look at everything found that does not hold, a line a visit; the next look puts its own in place of it.
CREATE TABLE IF NOT EXISTS faults_found (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  found_at DATETIME(3) NOT NULL,
  what VARCHAR(600) NOT NULL
) ENGINE=InnoDB;
