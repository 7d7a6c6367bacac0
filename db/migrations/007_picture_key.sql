-- The list of builds names pictures, which are fetched one by one and kept by browsers until they change.
ALTER TABLE build
  ADD COLUMN IF NOT EXISTS picture_key CHAR(32) CHARACTER SET ascii AS (MD5(picture)) PERSISTENT AFTER picture;
