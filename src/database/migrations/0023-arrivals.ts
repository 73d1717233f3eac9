/** When the player of a screen was first heard to play what an edition gives it, while that edition was out; null where it was not yet. */
export const up = 'ALTER TABLE edition_screens ADD COLUMN reached_at timestamptz;';

export const down = 'ALTER TABLE edition_screens DROP COLUMN reached_at;';
