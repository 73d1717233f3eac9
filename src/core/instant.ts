/** An instant: milliseconds since 1970-01-01T00:00:00Z, as `Date.now()` counts them. */
export type Instant = number;

export const SECOND = 1000;
export const MINUTE = 60 * SECOND;
export const HOUR = 60 * MINUTE;
export const DAY = 24 * HOUR;

const ISO_INSTANT = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d+)?)?(Z|[+-]\d{2}:\d{2})$/;

/** Reads an RFC 3339 instant (offset required). Returns null when the text is not one. */
export function parseInstant(text: string): Instant | null {
  if (!ISO_INSTANT.test(text)) return null;
  const value = Date.parse(text);
  return Number.isNaN(value) ? null : value;
}

/** Writes an instant in UTC with milliseconds, as the plan file and the command line do. */
export function formatInstant(instant: Instant): string {
  return new Date(instant).toISOString();
}
