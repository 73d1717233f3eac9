/**
 * Edits that a person makes together are an act: undo takes back whole acts, and finds them here. `takes_back` names the act that an
 * undo or redo took back; `columns` are a removed media file's, which its document does not carry.
 */
export const up = `
ALTER TABLE changes
  ADD COLUMN act uuid,
  ADD COLUMN takes_back uuid,
  ADD COLUMN columns jsonb,
  ADD CHECK (takes_back IS NULL OR act IS NOT NULL);
CREATE INDEX changes_by_person ON changes (network_id, person_id, id DESC) WHERE act IS NOT NULL;
`;

export const down = `
DROP INDEX changes_by_person;
ALTER TABLE changes DROP COLUMN act, DROP COLUMN takes_back, DROP COLUMN columns;
`;
