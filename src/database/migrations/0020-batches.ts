/** What is said of files that are sent together has a row of its own: it may be said before the first of them is begun. */
export const up = `
CREATE TABLE batches (
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  id uuid NOT NULL,
  tags jsonb NOT NULL DEFAULT '[]',
  available jsonb,
  said_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (network_id, id)
);
INSERT INTO batches (network_id, id, tags, available, said_at)
  SELECT DISTINCT ON (network_id, batch) network_id, batch, tags, available, created_at FROM uploads
  WHERE batch IS NOT NULL AND state <> 'failed' AND (tags <> '[]' OR available IS NOT NULL) ORDER BY network_id, batch, created_at DESC;
ALTER TABLE uploads DROP COLUMN tags, DROP COLUMN available;
`;

export const down = `
ALTER TABLE uploads ADD COLUMN tags jsonb NOT NULL DEFAULT '[]', ADD COLUMN available jsonb;
UPDATE uploads SET tags = b.tags, available = b.available FROM batches b WHERE b.network_id = uploads.network_id AND b.id = uploads.batch;
DROP TABLE batches;
`;
