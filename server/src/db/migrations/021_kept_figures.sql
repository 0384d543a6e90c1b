-- oldest program: 10
-- How rules came out in sealed visits, by month and by model: kept as visits are sealed, so that nobody counts the company through. Which visits are in it stands
-- with the visit; those that an older program seals, and those of before, are counted a moment later.
ALTER TABLE visits
  ADD COLUMN IF NOT EXISTS counted BOOLEAN NOT NULL DEFAULT FALSE,
  ADD KEY IF NOT EXISTS to_count (counted, sealed_at);

CREATE TABLE IF NOT EXISTS rule_months (
  rule VARCHAR(60) NOT NULL,
  month CHAR(7) CHARACTER SET ascii NOT NULL,
  visits INT NOT NULL,
  breaks INT NOT NULL,
  waived INT NOT NULL,
  unproven INT NOT NULL,
  PRIMARY KEY (rule, month)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS rule_models (
  rule VARCHAR(60) NOT NULL,
  month CHAR(7) CHARACTER SET ascii NOT NULL,
  model VARCHAR(80) NOT NULL,
  units INT NOT NULL,
  breaks INT NOT NULL,
  waived INT NOT NULL,
  unproven INT NOT NULL,
  PRIMARY KEY (rule, month, model)
) ENGINE=InnoDB;
