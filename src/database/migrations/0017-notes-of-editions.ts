/** What an edition is for, in its author's words. */
export const up = `ALTER TABLE editions ADD COLUMN note text CHECK (length(note) <= 500);`;

export const down = `ALTER TABLE editions DROP COLUMN note;`;
