/**
 * Roles. Before, everybody could do everything: whoever came first to each network becomes its owner, the others keep all but people and
 * settings. Requests to publish, by people who may not publish themselves.
 */
export const up = `
ALTER TABLE people ADD COLUMN role text NOT NULL DEFAULT 'publisher'
  CHECK (role IN ('owner', 'publisher', 'planner', 'operator', 'viewer'));
UPDATE people SET role = 'owner' WHERE id IN
  (SELECT DISTINCT ON (network_id) id FROM people WHERE removed_at IS NULL ORDER BY network_id, created_at, id);
ALTER TABLE people ALTER COLUMN role DROP DEFAULT;

-- Null for a link that sets a password. The first person of a network, who is still to come, is its owner.
ALTER TABLE invitations ADD COLUMN role text CHECK (role IN ('owner', 'publisher', 'planner', 'operator', 'viewer'));
UPDATE invitations i SET role = CASE WHEN EXISTS
    (SELECT 1 FROM people p WHERE p.network_id = i.network_id AND p.removed_at IS NULL) THEN 'publisher' ELSE 'owner' END
  WHERE person_id IS NULL;
ALTER TABLE invitations ADD CHECK ((role IS NULL) = (person_id IS NOT NULL));

CREATE TABLE requests (
  id uuid PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
  asked_at timestamptz NOT NULL DEFAULT now(),
  note text NOT NULL,
  -- The objects whose changes are to go out: a list of {"kind", "id"}.
  chosen jsonb NOT NULL,
  -- The edition that holds them, out or planned.
  edition_id uuid REFERENCES editions ON DELETE SET NULL,
  answered_at timestamptz,
  answered_by uuid REFERENCES people ON DELETE SET NULL,
  answer text
);
CREATE UNIQUE INDEX requests_open ON requests (person_id) WHERE answered_at IS NULL;
CREATE INDEX requests_network ON requests (network_id, asked_at);
CREATE INDEX requests_edition ON requests (edition_id) WHERE edition_id IS NOT NULL;
`;

export const down = `
DROP TABLE requests;
ALTER TABLE invitations DROP COLUMN role;
ALTER TABLE people DROP COLUMN role;
`;
