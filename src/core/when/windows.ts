import { DAY } from '../instant';
import {
  WEEKDAYS,
  dateOfLocalTime,
  formatDate,
  formatLocalTime,
  startOfDate,
  weekdayIndex,
  type LocalDate,
  type LocalTime,
} from './dates';
import type { OpeningHours, SetOfHours } from './schema';
import { MOST_DAYS, parseEdge, type Edge, type WrittenWindow } from './written';

/** First opening and last closing of a date, in milliseconds after its midnight (closing may pass 24 h); null when closed. */
export function openingOf(hours: OpeningHours | undefined, date: LocalDate): { opens: number; closes: number } | null {
  const weekday = WEEKDAYS[weekdayIndex(date)] ?? 'MO';
  const periods = hours?.dates?.[formatDate(date)] ?? hours?.weekly?.[weekday] ?? [];
  if (periods.length === 0) return null;
  let [opens, closes] = [Infinity, -Infinity];
  for (const [start, end] of periods) {
    const begin = parseEdge(start, false)?.offset ?? 0;
    const finish = parseEdge(end, true)?.offset ?? 0;
    opens = Math.min(opens, begin);
    closes = Math.max(closes, finish > begin ? finish : finish + DAY);
  }
  return { opens, closes };
}

export interface Window {
  readonly start: Edge;
  readonly end: Edge;
  /** How many dates later it ends: 1 to 7; null where that is not said. */
  readonly days: number | null;
  /** Whether it ends on the next date where its end is not after its start. */
  readonly passesMidnight: boolean;
}

export const isSun = ({ from }: Edge): boolean => from === 'sunrise' || from === 'sunset';

const NOON = DAY / 2;
const isLate = ({ from, offset }: Edge) =>
  from === 'midnight' ? offset >= NOON : from === 'closes' || from === 'sunset';
const isEarly = ({ from, offset }: Edge) =>
  from === 'midnight' ? offset <= NOON : from === 'opens' || from === 'sunrise';

/**
 * A window ends at the next time that its end reads. With the sun in it that is so from an afternoon to a morning alone: "until sunset" has
 * no time on a date whose sun is down when it begins, rather than nearly a day of it.
 */
const passesMidnight = (start: Edge, end: Edge) => (isSun(start) || isSun(end) ? isLate(start) && isEarly(end) : true);

const WHOLE_DAY: readonly Window[] = [
  { start: { from: 'midnight', offset: 0 }, end: { from: 'midnight', offset: DAY }, days: null, passesMidnight: true },
];

/** The windows of a checked set of hours. */
export function windowsOf({ windows }: SetOfHours): readonly Window[] {
  if (!windows) return WHOLE_DAY;
  return windows.map(([start, end, days = null]) => {
    const [first, last] = [parseEdge(start, false), parseEdge(end, true)];
    if (!first || !last) throw new RangeError(`“${start}” to “${end}” is not a window`);
    return { start: first, end: last, days, passesMidnight: days === null && passesMidnight(first, last) };
  });
}

/** A time from start to end as one window on the date of its start; null where it is longer than a window can be. */
export function windowBetween(start: LocalTime, end: LocalTime): WrittenWindow | null {
  const atMidnight = end === startOfDate(dateOfLocalTime(end));
  const [begins, ends] = [formatLocalTime(start), atMidnight ? '24:00' : formatLocalTime(end)];
  if (end - start <= DAY) return [begins, ends];
  const days = dateOfLocalTime((end - 1) as LocalTime) - dateOfLocalTime(start);
  return days <= MOST_DAYS ? [begins, ends, days] : null;
}
