/**
 * The PIN that opens a player's own page on its screen, the same for a whole network; null: its page stays closed. And how many pictures of each screen
 * are kept, and for how long.
 */
export const up = `
ALTER TABLE networks
  ADD COLUMN player_pin text CHECK (player_pin ~ '^[0-9]{4,8}$'),
  ADD COLUMN kept_pictures integer NOT NULL DEFAULT 48 CHECK (kept_pictures BETWEEN 1 AND 1000),
  ADD COLUMN kept_picture_days integer NOT NULL DEFAULT 7 CHECK (kept_picture_days BETWEEN 1 AND 400);
`;

export const down = `ALTER TABLE networks DROP COLUMN player_pin, DROP COLUMN kept_pictures, DROP COLUMN kept_picture_days;`;
