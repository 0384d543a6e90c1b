-- When secrets of sealed visits are erased next; made from the logbook, rebuildable.
CREATE TABLE erasures (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  home_id CHAR(36) CHARACTER SET ascii NOT NULL,
  due_at DATETIME(3) NOT NULL,
  KEY by_due (due_at, visit_id),
  FOREIGN KEY (visit_id) REFERENCES visits (id)
) ENGINE=InnoDB;

-- Ways to a customer's pack as a page: a link of which only the hash is kept, a code told by voice, an end. The pack itself stands
-- encrypted under a key that comes from link and code together, so that whoever holds the database alone cannot read it.
CREATE TABLE pack_links (
  token_hash BINARY(32) NOT NULL PRIMARY KEY,
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  salt BINARY(16) NOT NULL,
  sealed_pack MEDIUMBLOB NOT NULL,
  tries_left TINYINT UNSIGNED NOT NULL,
  made_by CHAR(36) CHARACTER SET ascii NOT NULL,
  made_at DATETIME(3) NOT NULL,
  expires_at DATETIME(3) NOT NULL,
  opened_at DATETIME(3) NULL,
  KEY by_visit (visit_id, made_at),
  KEY by_expiry (expires_at),
  FOREIGN KEY (visit_id) REFERENCES visits (id)
) ENGINE=InnoDB;

-- Visits sealed before this: looked at once, which sets the day that was answered.
INSERT INTO erasures (visit_id, home_id, due_at) SELECT v.id, v.home_id, v.sealed_at FROM visits v WHERE v.sealed_at IS NOT NULL AND EXISTS (SELECT 1 FROM vault_keys k WHERE k.visit_id = v.id AND k.wrapped IS NOT NULL);
