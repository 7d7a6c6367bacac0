-- Every version of a pack that was put on the shelf, so that one edition can be held against another.
CREATE TABLE IF NOT EXISTS rule_pack_version (
  pack_id VARCHAR(64) CHARACTER SET ascii COLLATE ascii_nopad_bin NOT NULL,
  version INT UNSIGNED NOT NULL,
  document LONGTEXT NOT NULL,
  saved_at DATETIME(3) NOT NULL,
  PRIMARY KEY (pack_id, version)
) ENGINE = InnoDB;
INSERT IGNORE INTO rule_pack_version (pack_id, version, document, saved_at)
  SELECT id, 1, document, updated_at FROM rule_pack;
