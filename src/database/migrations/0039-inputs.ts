/** The input that a command switches a display to. */
export const up = `ALTER TABLE commands ADD COLUMN input text;`;

export const down = `ALTER TABLE commands DROP COLUMN input;`;
