/**
 * Enrolment keys: with one, players that start unattended wait to be given their screens, without a code that a person types. What waits is
 * a pairing of the key's network, told apart by its serial number, its address, and a number with a colour that it shows.
 */
export const up = `
CREATE TABLE enrolment_keys (
  id uuid PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  name text NOT NULL,
  token_hash text NOT NULL UNIQUE,
  most int NOT NULL CHECK (most BETWEEN 1 AND 1000),
  used int NOT NULL DEFAULT 0,
  created_at timestamptz NOT NULL DEFAULT now(),
  expires_at timestamptz NOT NULL
);
CREATE INDEX enrolment_keys_network ON enrolment_keys (network_id);
ALTER TABLE pairings
  ADD COLUMN network_id uuid REFERENCES networks ON DELETE CASCADE,
  ADD COLUMN key_id uuid REFERENCES enrolment_keys ON DELETE CASCADE,
  ADD COLUMN serial text,
  ADD COLUMN address text,
  ADD COLUMN software text,
  ADD COLUMN number int,
  ADD COLUMN begun_at timestamptz NOT NULL DEFAULT now(),
  ADD COLUMN seen_at timestamptz NOT NULL DEFAULT now();
CREATE UNIQUE INDEX pairings_enrolled ON pairings (key_id, serial) WHERE key_id IS NOT NULL;
CREATE INDEX pairings_network ON pairings (network_id) WHERE network_id IS NOT NULL;
`;

export const down = `
DELETE FROM pairings WHERE key_id IS NOT NULL;
ALTER TABLE pairings DROP COLUMN network_id, DROP COLUMN key_id, DROP COLUMN serial, DROP COLUMN address, DROP COLUMN software,
  DROP COLUMN number, DROP COLUMN begun_at, DROP COLUMN seen_at;
DROP TABLE enrolment_keys;
`;
