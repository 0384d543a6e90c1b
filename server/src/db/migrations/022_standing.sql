-- oldest program: 10
-- How many units of a model run each version, and in how many homes: kept as visits are written, so that nobody counts every unit of a model. Which homes are to
-- be counted again stands with the home; all of them are, once.
ALTER TABLE homes ADD COLUMN IF NOT EXISTS to_count BOOLEAN NOT NULL DEFAULT TRUE;
ALTER TABLE homes ADD KEY IF NOT EXISTS to_count (to_count);

CREATE TABLE IF NOT EXISTS home_models (
  home_id CHAR(36) CHARACTER SET ascii NOT NULL,
  model VARCHAR(80) NOT NULL,
  firmware_key VARCHAR(60) NOT NULL,
  firmware VARCHAR(60) NULL,
  units INT NOT NULL,
  PRIMARY KEY (home_id, model, firmware_key),
  KEY by_version (model, firmware_key, home_id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS model_versions (
  model VARCHAR(80) NOT NULL,
  firmware_key VARCHAR(60) NOT NULL,
  units INT NOT NULL,
  homes INT NOT NULL,
  PRIMARY KEY (model, firmware_key)
) ENGINE=InnoDB;
