/**
 * A player reports its life: a word that it makes at each start. If two players use one token in turn, one life comes
 * back after another: `doubled_at` is when that was seen last.
 */
export const up = `
ALTER TABLE players ADD COLUMN life text, ADD COLUMN life_before text, ADD COLUMN doubled_at timestamptz;
`;

export const down = `
ALTER TABLE players DROP COLUMN life, DROP COLUMN life_before, DROP COLUMN doubled_at;
`;
