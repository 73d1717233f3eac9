import type { Instant } from '../instant';
import type { Plan } from '../plan/schema';
import { toInstant, zoneTable, type LocalTime } from '../when';

/** A time that clocks show at each site, as editions are planned for it: `YYYY-MM-DDTHH:MM:SS`. */

const FORM = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}$/;

/** Reads one. Null where the text is none, or no date and time that exist. */
export function readSiteTime(text: string): LocalTime | null {
  const time = FORM.test(text) ? Date.parse(`${text}Z`) : NaN;
  return Number.isNaN(time) || siteTime(time as LocalTime) !== text ? null : (time as LocalTime);
}

/** Writes one, to the second. */
export const siteTime = (time: LocalTime): string =>
  new Date(Math.round(time / 1000) * 1000).toISOString().slice(0, 19);

/** When clocks at each screen's site show a time, by the ids of screens: as `toInstant` where clocks are changed. */
export function siteInstants(
  { sites, screens }: Pick<Plan, 'sites' | 'screens'>,
  time: LocalTime,
): Map<string, Instant> {
  const zones = new Map(sites.map(({ id, timeZone }) => [id, timeZone]));
  return new Map(screens.map(({ id, site }) => [id, toInstant(zoneTable(zones.get(site) ?? 'UTC'), time)]));
}
