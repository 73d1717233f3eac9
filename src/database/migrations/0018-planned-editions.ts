/**
 * Editions that are planned: frozen, with the instant at which they go out, and without a number until then. What they hold is kept, and
 * given to players ahead, like that of the others.
 */
export const up = `
ALTER TABLE editions ALTER COLUMN number DROP NOT NULL;
ALTER TABLE editions ADD COLUMN planned_for timestamptz;
ALTER TABLE editions ADD CONSTRAINT editions_number_or_plan CHECK (number IS NOT NULL OR planned_for IS NOT NULL);
CREATE INDEX editions_planned ON editions (network_id) WHERE number IS NULL;
CREATE INDEX editions_due ON editions (planned_for) WHERE number IS NULL;
`;

export const down = `
DELETE FROM editions WHERE number IS NULL;
DROP INDEX editions_due;
DROP INDEX editions_planned;
ALTER TABLE editions DROP CONSTRAINT editions_number_or_plan;
ALTER TABLE editions DROP COLUMN planned_for;
ALTER TABLE editions ALTER COLUMN number SET NOT NULL;
`;
