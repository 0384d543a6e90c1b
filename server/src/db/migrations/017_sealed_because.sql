-- oldest program: 10
-- Which lines the verdicts of a sealed visit rest on, as it was worked out first or came with its file: the file says the same each time.
CREATE TABLE IF NOT EXISTS sealed_because (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  packed MEDIUMBLOB NOT NULL,
  FOREIGN KEY (visit_id) REFERENCES visits (id)
) ENGINE=InnoDB;
