-- oldest program: 10
-- The server's signature under each line that was written after a seal, with the key that made it. No rebuild touches it.
CREATE TABLE IF NOT EXISTS later_heads (
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  seq INT NOT NULL,
  key_name VARCHAR(80) CHARACTER SET ascii NOT NULL,
  public_key CHAR(64) CHARACTER SET ascii NOT NULL,
  signature VARCHAR(200) CHARACTER SET ascii NOT NULL,
  PRIMARY KEY (visit_id, seq),
  FOREIGN KEY (visit_id) REFERENCES visits (id)
) ENGINE=InnoDB;
