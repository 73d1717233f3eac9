/**
 * What players get of a file is made for the sizes of screens: a rendition each, never larger than the file. What an edition gives to a
 * screen (`hash`) stays what the plan says; what is delivered is the same with the renditions that there are.
 */
export const up = `
CREATE TABLE renditions (
  asset_sha256 text NOT NULL REFERENCES files ON DELETE CASCADE,
  width integer NOT NULL CHECK (width > 0),
  height integer NOT NULL CHECK (height > 0),
  sha256 text REFERENCES files,
  error text,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (asset_sha256, width, height),
  CHECK (sha256 IS NULL OR error IS NULL)
);
CREATE INDEX renditions_file ON renditions (sha256);

ALTER TABLE edition_screens ADD COLUMN delivered text REFERENCES programs;
CREATE INDEX edition_screens_delivered ON edition_screens (delivered) WHERE delivered IS NOT NULL;
`;

export const down = `
ALTER TABLE edition_screens DROP COLUMN delivered;
DROP TABLE renditions;
`;
