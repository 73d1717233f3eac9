/** How far an edition came is counted once, when the next one is out: a list of a hundred needs not go through all their screens. */
export const up = `
ALTER TABLE editions ADD COLUMN touched integer, ADD COLUMN reached integer, ADD COLUMN last_reached timestamptz;
CREATE INDEX editions_uncounted ON editions (network_id, number) WHERE touched IS NULL AND number IS NOT NULL;
`;

export const down = `
DROP INDEX editions_uncounted;
ALTER TABLE editions DROP COLUMN touched, DROP COLUMN reached, DROP COLUMN last_reached;
`;
