/**
 * People come by invitation, and go: who was removed stays as a name, so that what they did keeps its author. An invitation without a
 * person makes one; with one it resets that person's password. What is done with people is kept in a trail of its own.
 */
export const up = `
ALTER TABLE people
  ALTER COLUMN email DROP NOT NULL,
  ALTER COLUMN password_hash DROP NOT NULL,
  ADD COLUMN removed_at timestamptz,
  ADD COLUMN sample_password boolean NOT NULL DEFAULT false,
  ADD CHECK (num_nonnulls(email, password_hash) = CASE WHEN removed_at IS NULL THEN 2 ELSE 0 END);

ALTER TABLE sessions
  ADD COLUMN seen_at timestamptz NOT NULL DEFAULT now(),
  ADD COLUMN address text,
  ADD COLUMN agent text;

CREATE TABLE invitations (
  id uuid PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  person_id uuid REFERENCES people ON DELETE CASCADE,
  name text NOT NULL,
  email text NOT NULL CHECK (email = lower(email) AND email LIKE '%_@_%'),
  token_hash text NOT NULL UNIQUE,
  by_id uuid REFERENCES people ON DELETE CASCADE,
  created_at timestamptz NOT NULL DEFAULT now(),
  expires_at timestamptz NOT NULL,
  UNIQUE (network_id, email)
);

CREATE TABLE audit_trail (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  at timestamptz NOT NULL DEFAULT now(),
  person_id uuid REFERENCES people ON DELETE SET NULL,
  act text NOT NULL,
  about text,
  address text
);
CREATE INDEX audit_trail_by_network ON audit_trail (network_id, id);
`;

export const down = `
DROP TABLE audit_trail, invitations;
ALTER TABLE sessions DROP COLUMN seen_at, DROP COLUMN address, DROP COLUMN agent;
UPDATE changes SET person_id = NULL WHERE person_id IN (SELECT id FROM people WHERE removed_at IS NOT NULL);
DELETE FROM people WHERE removed_at IS NOT NULL;
ALTER TABLE people DROP COLUMN removed_at, DROP COLUMN sample_password,
  ALTER COLUMN email SET NOT NULL, ALTER COLUMN password_hash SET NOT NULL;
`;
