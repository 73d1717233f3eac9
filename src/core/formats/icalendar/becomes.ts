import { DAY } from '../../instant';
import type { When } from '../../plan/schema';
import {
  occurrences,
  parseDate,
  setsOf,
  startOfDate,
  toLocalTime,
  whenOfSets,
  zoneTable,
  type LocalDate,
  type LocalTime,
} from '../../when';

/** An event's time as a booking has it: by the clock that the file says, or by each site's own. */
export function whenOf(when: When, siteClock: boolean): When {
  if (!siteClock) return when;
  return whenOfSets(setsOf(when).map(({ clock: _clock, ...rest }) => rest));
}

/** How a zone's clocks read the first time of something. */
export interface FirstTime {
  readonly zone: string;
  readonly start: LocalTime;
  readonly end: LocalTime;
}

/** How far ahead to search for the first date: a yearly rule may leave out its first ones. */
const LOOKED_MS = 5 * 366 * DAY;

/** The first time of an event as clocks of the zones (IANA names) read it, for those where it has one. Its `When` names no calendar. */
export function firstTimes(when: When, zones: readonly string[]): FirstTime[] {
  const dates = setsOf(when).flatMap(({ from, also }) =>
    [from, ...(also ?? [])].flatMap((text) => (text === undefined ? [] : [parseDate(text)])),
  );
  const begin = startOfDate(Math.min(...dates.map((date) => date ?? 0)) as LocalDate) - 2 * DAY;
  return zones.flatMap((zone) => {
    const table = zoneTable(zone);
    const place = { zone: table, zoneTable, calendar: () => new Set<LocalDate>() };
    const [first] = occurrences(when, place, begin, begin + LOOKED_MS);
    return first ? [{ zone, start: toLocalTime(table, first.from), end: toLocalTime(table, first.to) }] : [];
  });
}
