/**
 * Editions that wait reach screens one by one: at a time on each site's clock, or some screens first. `from_at` is from when on one is
 * for a screen; null where it comes with the whole edition. `site_time` is what clocks at each site show then; `pilot` is on which
 * screens it is tried first.
 */
export const up = `
ALTER TABLE edition_screens ADD COLUMN from_at timestamptz;
ALTER TABLE editions ADD COLUMN site_time text;
ALTER TABLE editions ADD COLUMN pilot jsonb;
ALTER TABLE editions DROP CONSTRAINT editions_number_or_plan;
ALTER TABLE editions ADD CONSTRAINT editions_number_or_plan
  CHECK (number IS NOT NULL OR planned_for IS NOT NULL OR pilot IS NOT NULL);
`;

export const down = `
DELETE FROM editions WHERE number IS NULL AND planned_for IS NULL;
ALTER TABLE editions DROP CONSTRAINT editions_number_or_plan;
ALTER TABLE editions ADD CONSTRAINT editions_number_or_plan CHECK (number IS NOT NULL OR planned_for IS NOT NULL);
ALTER TABLE editions DROP COLUMN pilot;
ALTER TABLE editions DROP COLUMN site_time;
ALTER TABLE edition_screens DROP COLUMN from_at;
`;
