/**
 * Editions that hold some of the changes alone: `whole` is false, and `last_change` that up to which all changes are in it. What waits is
 * then told by the plans, not by the number of the last change.
 */
export const up = `ALTER TABLE editions ADD COLUMN whole boolean NOT NULL DEFAULT true;`;

export const down = `ALTER TABLE editions DROP COLUMN whole;`;
