-- How long it takes from one place to another, typed once and good for both ways. A place is `depot`, `town NAME` or `home ID`; the smaller first.
CREATE TABLE travel_times (
  a VARCHAR(100) NOT NULL,
  b VARCHAR(100) NOT NULL,
  minutes SMALLINT UNSIGNED NOT NULL,
  set_by CHAR(36) CHARACTER SET ascii NOT NULL,
  set_at DATETIME(3) NOT NULL,
  PRIMARY KEY (a, b),
  KEY by_b (b)
) ENGINE=InnoDB;

-- When a town can be reached and left again, as its ferry runs; none: at any time. Minutes of the local day.
CREATE TABLE reach_windows (
  town VARCHAR(80) NOT NULL,
  from_min SMALLINT UNSIGNED NOT NULL,
  to_min SMALLINT UNSIGNED NOT NULL,
  PRIMARY KEY (town, from_min)
) ENGINE=InnoDB;

-- How long what is left of a visit takes, as of a line of its logbook: reckoned when it is asked for, and anew when the visit has moved on.
CREATE TABLE estimates (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  seq INT NOT NULL,
  likely_min SMALLINT UNSIGNED NOT NULL,
  cautious_min SMALLINT UNSIGNED NOT NULL,
  FOREIGN KEY (visit_id) REFERENCES visits (id)
) ENGINE=InnoDB;

ALTER TABLE homes ADD KEY by_town (town);
