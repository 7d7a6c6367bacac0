-- Builds are stored whole as their document; the columns beside it are for lists. LONGTEXT keeps a document as written.
CREATE TABLE IF NOT EXISTS build (
  id CHAR(36) CHARACTER SET ascii NOT NULL,
  name VARCHAR(80) NOT NULL,
  service VARCHAR(20) CHARACTER SET ascii NOT NULL,
  body_type VARCHAR(40) CHARACTER SET ascii NOT NULL,
  version INT UNSIGNED NOT NULL,
  findings_blocking INT UNSIGNED NOT NULL,
  findings_other INT UNSIGNED NOT NULL,
  document LONGTEXT NOT NULL,
  updated_at DATETIME(3) NOT NULL,
  PRIMARY KEY (id),
  KEY build_updated (updated_at, id)
) ENGINE = InnoDB;

-- Every save, never changed. save_id makes a repeated save harmless.
CREATE TABLE IF NOT EXISTS build_revision (
  build_id CHAR(36) CHARACTER SET ascii NOT NULL,
  version INT UNSIGNED NOT NULL,
  save_id CHAR(36) CHARACTER SET ascii NOT NULL,
  document LONGTEXT NOT NULL,
  saved_at DATETIME(3) NOT NULL,
  PRIMARY KEY (build_id, version),
  UNIQUE KEY build_revision_save (build_id, save_id),
  CONSTRAINT build_revision_build FOREIGN KEY (build_id) REFERENCES build (id) ON DELETE CASCADE
) ENGINE = InnoDB;

-- The shop's shelf of rule packs; a build carries its own copy of those it chose.
CREATE TABLE IF NOT EXISTS rule_pack (
  id VARCHAR(64) CHARACTER SET ascii NOT NULL,
  name VARCHAR(80) NOT NULL,
  document LONGTEXT NOT NULL,
  updated_at DATETIME(3) NOT NULL,
  PRIMARY KEY (id)
) ENGINE = InnoDB;
