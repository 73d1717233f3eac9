/**
 * What a busy network asks for every second, and what the clean-up goes through, has indexes. Editions that were made by hand (`aside`) are
 * kept for a shorter time: of those that are gone it stays known when they were out.
 */
export const up = `
ALTER TABLE editions ADD COLUMN aside boolean NOT NULL DEFAULT false;
UPDATE editions e SET aside = true WHERE EXISTS (SELECT 1 FROM firings f WHERE f.network_id = e.network_id AND f.edition = e.number);
CREATE TABLE cleared_editions (
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  number integer NOT NULL,
  published_at timestamptz NOT NULL,
  PRIMARY KEY (network_id, number)
);
CREATE INDEX cleared_editions_time ON cleared_editions (network_id, published_at);
CREATE INDEX editions_time ON editions (network_id, published_at);
CREATE INDEX players_seen ON players (network_id, last_seen);
CREATE INDEX sessions_person ON sessions (person_id);
CREATE INDEX sessions_expiry ON sessions (expires_at);
CREATE INDEX uploads_person ON uploads (person_id) WHERE state = 'sending';
CREATE INDEX uploads_state ON uploads (state, created_at);
CREATE INDEX uploads_media ON uploads (media_id) WHERE media_id IS NOT NULL;
CREATE INDEX uploads_replaces ON uploads (replaces) WHERE replaces IS NOT NULL;
CREATE INDEX pairings_expiry ON pairings (expires_at);
CREATE INDEX pairings_screen ON pairings (screen_id) WHERE screen_id IS NOT NULL;
CREATE INDEX firings_booking ON firings (network_id, booking, fired_at DESC);
CREATE INDEX changes_time ON changes (at);
CREATE INDEX audit_trail_sign_ins ON audit_trail (person_id, address) WHERE act = 'signed-in';
`;

export const down = `
DROP INDEX audit_trail_sign_ins, changes_time, firings_booking, pairings_screen, pairings_expiry, uploads_replaces, uploads_media, uploads_state, uploads_person,
  sessions_expiry, sessions_person, players_seen, editions_time;
DROP TABLE cleared_editions;
ALTER TABLE editions DROP COLUMN aside;
`;
