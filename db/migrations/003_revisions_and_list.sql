-- Revisions are stored compressed, with what changed in a line, and a name for those to be kept for ever. What a killed
-- migration has done already is passed over.
ALTER TABLE build_revision
  ADD COLUMN IF NOT EXISTS packed LONGBLOB NULL AFTER document,
  ADD COLUMN IF NOT EXISTS bytes INT UNSIGNED NOT NULL DEFAULT 0,
  ADD COLUMN IF NOT EXISTS changed VARCHAR(200) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS name VARCHAR(80) NULL;
UPDATE build_revision SET packed = COMPRESS(document), bytes = LENGTH(document) WHERE packed IS NULL;

-- For the list of builds: what the brief names, a small picture made with the count of findings, and what was put away.
ALTER TABLE build
  ADD COLUMN IF NOT EXISTS jurisdictions TEXT NOT NULL DEFAULT '[]' AFTER body_type,
  ADD COLUMN IF NOT EXISTS picture MEDIUMTEXT NULL AFTER counted_version,
  ADD COLUMN IF NOT EXISTS archived_at DATETIME(3) NULL;
UPDATE build SET jurisdictions = COALESCE(JSON_EXTRACT(document, '$.brief.jurisdictions'), '[]'), counted_version = 0;
