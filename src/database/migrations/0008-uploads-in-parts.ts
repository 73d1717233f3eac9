/**
 * A file may come in parts: its row is there from the beginning, with its size. Files that are sent together are a batch, and share tags
 * and when they are available. A network's library has bounds.
 */
export const up = `
ALTER TABLE uploads
  DROP CONSTRAINT uploads_state_check,
  ADD CONSTRAINT uploads_state_check CHECK (state IN ('sending', 'waiting', 'working', 'ready', 'failed')),
  ADD COLUMN bytes bigint CHECK (bytes > 0),
  ADD COLUMN batch uuid,
  ADD COLUMN tags jsonb NOT NULL DEFAULT '[]',
  ADD COLUMN available jsonb,
  ADD CHECK (state <> 'sending' OR bytes IS NOT NULL);
CREATE INDEX uploads_by_batch ON uploads (batch) WHERE batch IS NOT NULL;

ALTER TABLE networks
  ADD COLUMN most_bytes bigint NOT NULL DEFAULT 1000000000000 CHECK (most_bytes >= 0),
  ADD COLUMN most_files integer NOT NULL DEFAULT 100000 CHECK (most_files >= 0);
`;

export const down = `
ALTER TABLE networks DROP COLUMN most_bytes, DROP COLUMN most_files;
DELETE FROM uploads WHERE state = 'sending';
ALTER TABLE uploads
  DROP CONSTRAINT uploads_state_check,
  ADD CONSTRAINT uploads_state_check CHECK (state IN ('waiting', 'working', 'ready', 'failed')),
  DROP COLUMN bytes, DROP COLUMN batch, DROP COLUMN tags, DROP COLUMN available;
`;
