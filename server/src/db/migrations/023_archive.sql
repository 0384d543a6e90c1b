-- oldest program: 10
-- Old visits whose lines and photos are in files: where, how many lines, since when and by whom, and what each file must be. The first visit that is archived
-- keeps programs of before from starting: they would find none of its lines.
CREATE TABLE IF NOT EXISTS archives (
  id SMALLINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  folder VARCHAR(255) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  UNIQUE KEY by_folder (folder)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS archived_visits (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  archive_id SMALLINT UNSIGNED NOT NULL,
  path VARCHAR(60) CHARACTER SET ascii NOT NULL,
  `lines` INT NOT NULL,
  archived_at DATETIME(3) NOT NULL,
  archived_by VARCHAR(120) NOT NULL,
  FOREIGN KEY (visit_id) REFERENCES visits (id),
  FOREIGN KEY (archive_id) REFERENCES archives (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS archived_files (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  name VARCHAR(60) CHARACTER SET ascii NOT NULL,
  digest CHAR(64) CHARACTER SET ascii NOT NULL,
  octets INT UNSIGNED NOT NULL,
  PRIMARY KEY (visit_id, name),
  FOREIGN KEY (visit_id) REFERENCES archived_visits (visit_id)
) ENGINE=InnoDB;
