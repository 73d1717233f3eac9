/** Calendars that follow a country's public holidays, and feeds that calendar programs subscribe to. */
export const up = `
ALTER TABLE calendars ADD COLUMN holidays jsonb;

CREATE TABLE feeds (
  id uuid PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  name text NOT NULL CHECK (length(btrim(name)) BETWEEN 1 AND 120),
  selector text NOT NULL,
  token_hash text NOT NULL UNIQUE,
  person_id uuid REFERENCES people ON DELETE SET NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  fetched_at timestamptz
);
CREATE INDEX feeds_by_network ON feeds (network_id, created_at);
`;

export const down = `
DROP TABLE feeds;
ALTER TABLE calendars DROP COLUMN holidays;
`;
