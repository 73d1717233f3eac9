/**
 * A player tells its life: a word that it makes anew at each start. Two that report with one token in turn show as a life that comes
 * back after another: `doubled_at` is when that was seen last.
 */
export const up = `
ALTER TABLE players ADD COLUMN life text, ADD COLUMN life_before text, ADD COLUMN doubled_at timestamptz;
`;

export const down = `
ALTER TABLE players DROP COLUMN life, DROP COLUMN life_before, DROP COLUMN doubled_at;
`;
