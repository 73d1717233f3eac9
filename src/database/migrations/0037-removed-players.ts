/**
 * Players whose screens were removed: kept for a day, so that undo brings a screen back with its players. A player that waits for a screen by then says
 * which token it had (`was_hash`).
 */
export const up = `
CREATE TABLE removed_players (
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  screen text NOT NULL,
  part smallint NOT NULL,
  token_hash text NOT NULL UNIQUE,
  paired_at timestamptz NOT NULL,
  removed_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (network_id, screen, part)
);
ALTER TABLE pairings ADD COLUMN was_hash text;
`;

export const down = `DROP TABLE removed_players;
ALTER TABLE pairings DROP COLUMN was_hash;`;
