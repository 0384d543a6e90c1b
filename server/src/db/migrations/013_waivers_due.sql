-- oldest program: 10
-- rebuild
-- Waivers of sealed visits that hold until a day, to list them once it has passed; made from the logbook, rebuildable.
CREATE TABLE IF NOT EXISTS waivers_due (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  rule VARCHAR(60) NOT NULL,
  subject VARCHAR(80) NOT NULL,
  home_id CHAR(36) CHARACTER SET ascii NOT NULL,
  until_on DATE NOT NULL,
  about VARCHAR(300) NOT NULL,
  by_name VARCHAR(120) NOT NULL,
  PRIMARY KEY (visit_id, rule, subject),
  KEY by_day (until_on, visit_id)
) ENGINE=InnoDB;
