import { addDays, civil, dateOf } from './dates';

/**
 * Dates of each year as days of a rule (RFC 5545, BYYEARDAY). Up to February they are counted from the beginning of the year, later ones from
 * its end: so they are the same dates in leap years.
 */

export interface DayOfYear {
  readonly month: number;
  readonly day: number;
}

/** Up to this many days of each year are listed one by one: a rule has at most 500 characters. */
export const MOST_YEARLY_DAYS = 100;

/** Any year but a leap year, for counting days. */
const PLAIN_YEAR = 2026;
const [FIRST, NEXT] = [dateOf(PLAIN_YEAR, 1, 1), dateOf(PLAIN_YEAR + 1, 1, 1)];
const MARCH = dateOf(PLAIN_YEAR, 3, 1);
const LEAP_DAY = 60;

/**
 * Each day from one to another, over the end of the year where the last comes before the first; 29 February where it lies between. From 29
 * February is from that day in leap years, from 1 March in others. Nothing ends on 29 February: no rule says that.
 */
export function yearDays(first: DayOfYear, last: DayOfYear): number[] {
  const isLeapDay = first.month === 2 && first.day === 29;
  const from = isLeapDay ? MARCH : dateOf(PLAIN_YEAR, first.month, first.day);
  const end = dateOf(PLAIN_YEAR, last.month, last.day);
  const length = (end - from + 365) % 365;
  const days: number[] = isLeapDay ? [LEAP_DAY] : [];
  for (let i = 0; i <= length; i++) {
    const date = addDays(FIRST, (from - FIRST + i) % 365);
    if (date === MARCH && i > 0) days.push(LEAP_DAY);
    days.push(date >= MARCH ? date - NEXT : date - FIRST + 1);
  }
  return days;
}

/** The first and the last of such days; null if they aren't such a range. */
export function yearRange(days: readonly number[]): readonly [DayOfYear, DayOfYear] | null {
  const [first, last] = [days[0], days.at(-1)];
  if (first === undefined || last === undefined) return null;
  const range = [first === LEAP_DAY ? { month: 2, day: 29 } : dayOf(first), dayOf(last)] as const;
  return yearDays(...range).join() === days.join() ? range : null;
}

function dayOf(n: number): DayOfYear {
  const { month, day } = civil(n > 0 ? addDays(FIRST, n - 1) : addDays(NEXT, n));
  return { month, day };
}

/** The Sundays from 27 November to 24 December. */
export const ADVENT_SUNDAYS = `FREQ=YEARLY;BYYEARDAY=${yearDays({ month: 11, day: 27 }, { month: 12, day: 24 }).join()};BYDAY=SU`;
