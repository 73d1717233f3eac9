/**
 * A program's text is kept in parts that programs share: what it needs, what it says, its clocks. A network of 5 000 screens has some
 * thousand programs and some hundred parts. Files belong to parts. Programs are read through two views.
 */
export const up = `
CREATE TABLE parts (hash text PRIMARY KEY CHECK (hash ~ '^[0-9a-f]{64}$'), text text COMPRESSION lz4 NOT NULL);
CREATE TABLE part_files (
  part text NOT NULL REFERENCES parts ON DELETE CASCADE,
  sha256 text NOT NULL REFERENCES files,
  PRIMARY KEY (part, sha256)
);
CREATE INDEX part_files_file ON part_files (sha256);
CREATE TABLE program_parts (
  program text NOT NULL REFERENCES programs ON DELETE CASCADE,
  place smallint NOT NULL,
  part text NOT NULL REFERENCES parts,
  PRIMARY KEY (program, place)
);
CREATE INDEX program_parts_part ON program_parts (part);

INSERT INTO parts SELECT hash, document FROM programs;
INSERT INTO part_files SELECT hash, sha256 FROM program_files;
INSERT INTO program_parts SELECT hash, 0, hash FROM programs;
DROP TABLE program_files;
ALTER TABLE programs DROP COLUMN document;

CREATE VIEW program_files AS
  SELECT pp.program AS hash, f.sha256 FROM program_parts pp JOIN part_files f ON f.part = pp.part;
CREATE VIEW program_documents AS
  SELECT pp.program AS hash, string_agg(p.text, '' ORDER BY pp.place) AS document
  FROM program_parts pp JOIN parts p ON p.hash = pp.part GROUP BY pp.program;
`;

export const down = `
CREATE TABLE files_of_programs AS SELECT DISTINCT hash, sha256 FROM program_files;
ALTER TABLE programs ADD COLUMN document text;
UPDATE programs SET document = d.document FROM program_documents d WHERE d.hash = programs.hash;
ALTER TABLE programs ALTER COLUMN document SET NOT NULL;
DROP VIEW program_documents, program_files;
DROP TABLE program_parts, part_files, parts;
CREATE TABLE program_files (
  hash text NOT NULL REFERENCES programs ON DELETE CASCADE,
  sha256 text NOT NULL REFERENCES files,
  PRIMARY KEY (hash, sha256)
);
CREATE INDEX program_files_file ON program_files (sha256);
INSERT INTO program_files SELECT hash, sha256 FROM files_of_programs;
DROP TABLE files_of_programs;
`;
