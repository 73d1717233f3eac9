/** Keys by which programs do for a person what the key's rights allow. Only their hashes are stored. */
export const up = `
CREATE TABLE personal_keys (
  id uuid PRIMARY KEY,
  person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
  name text NOT NULL CHECK (length(btrim(name)) BETWEEN 1 AND 120),
  rights text[] NOT NULL CHECK (cardinality(rights) > 0),
  token_hash text NOT NULL UNIQUE,
  created_at timestamptz NOT NULL DEFAULT now(),
  used_at timestamptz
);
CREATE INDEX personal_keys_person ON personal_keys (person_id);
`;

export const down = `DROP TABLE personal_keys;`;
