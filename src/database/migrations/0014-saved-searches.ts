/** What a network's people look for in the library again and again, by a name. */
export const up = `
CREATE TABLE saved_searches (
  id uuid PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  name text NOT NULL CHECK (length(btrim(name)) BETWEEN 1 AND 120),
  query text NOT NULL CHECK (length(query) <= 1000),
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX saved_searches_name ON saved_searches (network_id, lower(name));
`;

export const down = `DROP TABLE saved_searches;`;
