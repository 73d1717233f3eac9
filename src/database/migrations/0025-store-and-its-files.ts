/**
 * The database knows which media folder is its own (`store`: one row), and of each file when it was last found sound, or that it is
 * damaged. Each column that refers to files has an index: they are asked whether anything still needs a file.
 */
export const up = `
CREATE TABLE store (
  one boolean PRIMARY KEY DEFAULT true CHECK (one),
  id uuid NOT NULL DEFAULT gen_random_uuid(),
  mark bigint NOT NULL DEFAULT 0,
  paired boolean NOT NULL DEFAULT false,
  problem text
);
INSERT INTO store DEFAULT VALUES;
ALTER TABLE files ADD COLUMN checked_at timestamptz, ADD COLUMN damaged_at timestamptz;
CREATE INDEX files_checked ON files (checked_at NULLS FIRST);
CREATE INDEX files_damaged ON files (damaged_at) WHERE damaged_at IS NOT NULL;
CREATE INDEX media_by_asset ON media_files (asset_sha256);
CREATE INDEX media_by_thumbnail ON media_files (thumbnail_sha256);
CREATE INDEX media_by_original ON media_files (original_sha256);
CREATE INDEX uploads_file ON uploads (sha256) WHERE sha256 IS NOT NULL;
CREATE INDEX changes_of_files ON changes (at) WHERE columns IS NOT NULL;
`;

export const down = `
DROP INDEX changes_of_files, uploads_file, media_by_original, media_by_thumbnail, media_by_asset, files_damaged, files_checked;
ALTER TABLE files DROP COLUMN checked_at, DROP COLUMN damaged_at;
DROP TABLE store;
`;
