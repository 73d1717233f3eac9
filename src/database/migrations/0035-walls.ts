/**
 * Walls: a screen may have several players, one for each of its displays. `part` is the display's number, 1 where a screen isn't a wall. What is
 * asked of a screen with several players is answered by the one that was heard longest ago (`screen_players`).
 */
export const up = `
ALTER TABLE players ADD COLUMN part smallint NOT NULL DEFAULT 1, DROP CONSTRAINT players_screen_id_key, ADD UNIQUE (screen_id, part);
ALTER TABLE pairings ADD COLUMN part smallint NOT NULL DEFAULT 1;
ALTER TABLE glimpses ADD COLUMN part smallint NOT NULL DEFAULT 1;
DROP INDEX glimpses_screen;
CREATE INDEX glimpses_screen ON glimpses (network_id, screen, part, taken_at DESC);
ALTER TABLE command_screens ADD COLUMN part smallint NOT NULL DEFAULT 1, DROP CONSTRAINT command_screens_pkey,
  ADD PRIMARY KEY (command_id, screen, part);
CREATE VIEW screen_players AS
  SELECT DISTINCT ON (screen_id) id, network_id, screen_id, part, paired_at, last_seen, report FROM players ORDER BY screen_id, last_seen NULLS FIRST, part;
`;

export const down = `
DROP VIEW screen_players;
DELETE FROM command_screens WHERE part > 1;
ALTER TABLE command_screens DROP CONSTRAINT command_screens_pkey, ADD PRIMARY KEY (command_id, screen);
ALTER TABLE command_screens DROP COLUMN part;
DELETE FROM glimpses WHERE part > 1;
DROP INDEX glimpses_screen;
ALTER TABLE glimpses DROP COLUMN part;
CREATE INDEX glimpses_screen ON glimpses (network_id, screen, taken_at DESC);
DELETE FROM pairings WHERE part > 1;
ALTER TABLE pairings DROP COLUMN part;
DELETE FROM players WHERE part > 1;
ALTER TABLE players DROP CONSTRAINT players_screen_id_part_key, ADD UNIQUE (screen_id);
ALTER TABLE players DROP COLUMN part;
`;
