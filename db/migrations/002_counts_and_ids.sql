-- Ids are compared letter by letter: another case, or a blank at the end, is another id. What a killed migration has
-- done already is passed over, here as in all others.
ALTER TABLE build_revision
  DROP FOREIGN KEY IF EXISTS build_revision_build,
  DROP FOREIGN KEY IF EXISTS build_revision_of;
ALTER TABLE build MODIFY id CHAR(36) CHARACTER SET ascii COLLATE ascii_nopad_bin NOT NULL;
ALTER TABLE build_revision
  MODIFY build_id CHAR(36) CHARACTER SET ascii COLLATE ascii_nopad_bin NOT NULL,
  MODIFY save_id CHAR(36) CHARACTER SET ascii COLLATE ascii_nopad_bin NOT NULL;
ALTER TABLE build_revision
  ADD CONSTRAINT build_revision_of FOREIGN KEY (build_id) REFERENCES build (id) ON DELETE CASCADE;
ALTER TABLE rule_pack MODIFY id VARCHAR(64) CHARACTER SET ascii COLLATE ascii_nopad_bin NOT NULL;

-- Findings are counted after the save, by severity, as JSON: of the version named beside them. NULL: given up.
ALTER TABLE build
  DROP COLUMN IF EXISTS findings_blocking,
  DROP COLUMN IF EXISTS findings_other,
  ADD COLUMN IF NOT EXISTS findings VARCHAR(200) CHARACTER SET ascii NULL AFTER version,
  ADD COLUMN IF NOT EXISTS counted_version INT UNSIGNED NOT NULL DEFAULT 0 AFTER findings;

-- Builds that were deleted, by the last version each had: one that comes back goes on from there, so that whoever
-- still has the old one open cannot save over it unawares.
CREATE TABLE IF NOT EXISTS build_gone (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_nopad_bin NOT NULL,
  version INT UNSIGNED NOT NULL,
  gone_at DATETIME(3) NOT NULL,
  PRIMARY KEY (id)
) ENGINE = InnoDB;
