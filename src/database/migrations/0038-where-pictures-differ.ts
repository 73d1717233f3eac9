/** In which fields of 8 × 8 a picture of a screen differs from what was planned, row by row from 0; null where it doesn't. */
export const up = `ALTER TABLE glimpses ADD COLUMN different smallint[];`;

export const down = `ALTER TABLE glimpses DROP COLUMN different;`;
