-- oldest program: 10
-- By which epoch's key a visit's data key is wrapped; null where by the master key alone, as before there were epochs. An older program writes null.
ALTER TABLE vault_keys
  ADD COLUMN IF NOT EXISTS epoch CHAR(16) CHARACTER SET ascii NULL,
  ADD INDEX IF NOT EXISTS by_epoch (epoch, visit_id);

-- Epochs of the keys that wrap data keys: the newest that is not destroyed is in use. The keys themselves stand in a file, and never here.
CREATE TABLE IF NOT EXISTS key_epochs (
  name CHAR(16) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  begun_at DATETIME(3) NOT NULL,
  -- When the first data key after its beginning was destroyed: until it ends, a copy of that one opens still.
  erased_at DATETIME(3) NULL,
  destroyed_at DATETIME(3) NULL
) ENGINE=InnoDB;

-- Machines that have a file of epoch keys of their own, and when each was seen last: where there are several, an epoch begins by hand.
CREATE TABLE IF NOT EXISTS key_holders (
  holder CHAR(16) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  seen_at DATETIME(3) NOT NULL
) ENGINE=InnoDB;
