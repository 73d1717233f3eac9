/**
 * Editions that hold only some of the changes: `whole` is false, and all changes up to `last_change` are in it. Unpublished changes are
 * then found by comparing the plans, not by the number of the last change.
 */
export const up = `ALTER TABLE editions ADD COLUMN whole boolean NOT NULL DEFAULT true;`;

export const down = `ALTER TABLE editions DROP COLUMN whole;`;
