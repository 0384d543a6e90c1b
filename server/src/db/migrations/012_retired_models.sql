-- oldest program: 10
-- Models that are no longer offered: records keep the versions that they name.
CREATE TABLE IF NOT EXISTS retired_models (
  id VARCHAR(60) NOT NULL PRIMARY KEY,
  by_id CHAR(36) CHARACTER SET ascii NOT NULL,
  by_name VARCHAR(120) NOT NULL,
  at DATETIME(3) NOT NULL
) ENGINE=InnoDB;
