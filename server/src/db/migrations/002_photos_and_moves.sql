-- Photos of a visit: the picture as it is shown and a small one. Those of labels are sealed under the visit's data key.
CREATE TABLE photos (
  ref CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  visit_id CHAR(36) CHARACTER SET ascii NOT NULL,
  label BOOLEAN NOT NULL,
  picture LONGBLOB NOT NULL,
  small MEDIUMBLOB NULL,
  KEY by_visit (visit_id),
  FOREIGN KEY (visit_id) REFERENCES visits (id)
) ENGINE=InnoDB;

-- The home that a unit was brought from, where somebody said that it moved: it no longer counts as living there.
ALTER TABLE units ADD COLUMN moved_from CHAR(36) CHARACTER SET ascii NULL, ADD KEY by_move (moved_from);
