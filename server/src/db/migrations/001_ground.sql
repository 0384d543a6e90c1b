CREATE TABLE users (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  login VARCHAR(60) NOT NULL UNIQUE,
  name VARCHAR(120) NOT NULL,
  role ENUM('technician', 'lead', 'office') NOT NULL,
  password_hash VARCHAR(255) NOT NULL,
  created_at DATETIME(3) NOT NULL
) ENGINE=InnoDB;

CREATE TABLE sessions (
  token_hash BINARY(32) NOT NULL PRIMARY KEY,
  user_id CHAR(36) CHARACTER SET ascii NOT NULL,
  created_at DATETIME(3) NOT NULL,
  expires_at DATETIME(3) NOT NULL,
  KEY by_user (user_id),
  KEY by_expiry (expires_at),
  FOREIGN KEY (user_id) REFERENCES users (id)
) ENGINE=InnoDB;

-- Kept by rate-limiter-flexible.
CREATE TABLE login_limits (
  `key` VARCHAR(255) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL PRIMARY KEY,
  points INT NOT NULL,
  expire BIGINT UNSIGNED,
  KEY by_expiry (expire)
) ENGINE=InnoDB;

CREATE TABLE models (
  id VARCHAR(60) NOT NULL,
  version INT NOT NULL,
  doc LONGTEXT NOT NULL,
  PRIMARY KEY (id, version)
) ENGINE=InnoDB;

CREATE TABLE standards (
  id VARCHAR(60) NOT NULL,
  version INT NOT NULL,
  doc LONGTEXT NOT NULL,
  PRIMARY KEY (id, version)
) ENGINE=InnoDB;

-- One row a visit: the head of its chain, and what the Day view shows of it.
CREATE TABLE visits (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  home_id CHAR(36) CHARACTER SET ascii NOT NULL,
  technician_id CHAR(36) CHARACTER SET ascii NOT NULL,
  technician_name VARCHAR(120) NOT NULL,
  planned_at DATETIME(3) NULL,
  opened_at DATETIME(3) NOT NULL,
  sealed_at DATETIME(3) NULL,
  review ENUM('none', 'asked', 'returned') NOT NULL DEFAULT 'none',
  last_seq INT NOT NULL,
  last_hash CHAR(64) CHARACTER SET ascii NOT NULL,
  summary LONGTEXT NOT NULL,
  KEY by_home (home_id, opened_at, id),
  KEY by_technician (technician_id, sealed_at, planned_at, id),
  KEY by_plan (sealed_at, planned_at, id),
  KEY by_review (review, planned_at, id)
) ENGINE=InnoDB;

-- The logbook. Nothing here is ever updated or deleted.
CREATE TABLE entries (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  seq INT NOT NULL,
  id CHAR(36) CHARACTER SET ascii NOT NULL UNIQUE,
  doc LONGTEXT NOT NULL,
  PRIMARY KEY (visit_id, seq),
  FOREIGN KEY (visit_id) REFERENCES visits (id)
) ENGINE=InnoDB;

-- From here on: projections, made from the logbook and rebuildable from it.
CREATE TABLE homes (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  customer_id CHAR(36) CHARACTER SET ascii NOT NULL,
  customer VARCHAR(120) NOT NULL,
  street VARCHAR(120) NOT NULL,
  town VARCHAR(80) NOT NULL,
  latest_visit CHAR(36) CHARACTER SET ascii NOT NULL,
  KEY by_street (street, id)
) ENGINE=InnoDB;

CREATE TABLE units (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  unit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  home_id CHAR(36) CHARACTER SET ascii NOT NULL,
  name VARCHAR(60) NULL,
  model VARCHAR(60) NULL,
  role VARCHAR(30) NULL,
  serial VARCHAR(40) NULL,
  mac CHAR(17) CHARACTER SET ascii NULL,
  firmware VARCHAR(40) NULL,
  PRIMARY KEY (visit_id, unit_id),
  KEY by_serial (serial),
  KEY by_mac (mac),
  KEY by_model (model, firmware)
) ENGINE=InnoDB;

CREATE TABLE networks (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  network_id CHAR(36) CHARACTER SET ascii NOT NULL,
  ssid VARBINARY(32) NULL,
  use_for VARCHAR(20) NULL,
  PRIMARY KEY (visit_id, network_id),
  KEY by_ssid (ssid)
) ENGINE=InnoDB;

CREATE TABLE findings (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  rule VARCHAR(60) NOT NULL,
  subject VARCHAR(80) NOT NULL,
  outcome ENUM('holds', 'breaks', 'unproven', 'waived', 'not-here') NOT NULL,
  level ENUM('must', 'should', 'note') NOT NULL,
  PRIMARY KEY (visit_id, rule, subject),
  KEY by_rule (rule, outcome, visit_id)
) ENGINE=InnoDB;

-- Words by which a home is found: of the customer, street and town, serials and MAC addresses, whole and without separators.
CREATE TABLE home_terms (
  term VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  home_id CHAR(36) CHARACTER SET ascii NOT NULL,
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  what ENUM('customer', 'street', 'town', 'serial', 'mac') NOT NULL,
  PRIMARY KEY (term, home_id, visit_id, what),
  KEY by_visit (visit_id)
) ENGINE=InnoDB;

-- The vault: a data key a visit, wrapped by the master key; secrets under the data key.
CREATE TABLE vault_keys (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  wrapped VARBINARY(100) NULL,
  destroyed_at DATETIME(3) NULL
) ENGINE=InnoDB;

CREATE TABLE vault_secrets (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  thing_id CHAR(40) CHARACTER SET ascii NOT NULL,
  purpose VARCHAR(30) NOT NULL,
  sealed_value VARBINARY(600) NOT NULL,
  -- Keyed by a key of the company: tells that a password is in use at another home, and nothing else.
  company_print BINARY(32) NOT NULL,
  KEY by_visit (visit_id),
  KEY by_print (company_print, visit_id)
) ENGINE=InnoDB;

-- Public keys that seals are proven with: our own, older ones of ours, and those that came with files taken in.
CREATE TABLE seal_keys (
  name CHAR(16) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  public_key CHAR(64) CHARACTER SET ascii NOT NULL
) ENGINE=InnoDB;
