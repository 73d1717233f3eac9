import { DAY } from '../instant';

/** A date on a wall calendar, without zone: days since 1970-01-01 (proleptic Gregorian). */
export type LocalDate = number & { readonly brand: 'LocalDate' };

/** A wall-clock reading without zone: milliseconds since 1970-01-01T00:00 on that same wall. */
export type LocalTime = number & { readonly brand: 'LocalTime' };

export const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;
export type Weekday = (typeof WEEKDAYS)[number];

export function dateOf(year: number, month: number, day: number): LocalDate {
  return (Date.UTC(year, month - 1, day) / DAY) as LocalDate;
}

/** Year, month and day of a date, by counting in eras of 400 years: no Date object, since this runs very often. */
export function civil(date: LocalDate): { year: number; month: number; day: number } {
  const shifted = date + 719_468;
  const era = Math.floor(shifted / 146_097);
  const dayOfEra = shifted - era * 146_097;
  const yearOfEra = Math.floor(
    (dayOfEra - Math.floor(dayOfEra / 1460) + Math.floor(dayOfEra / 36_524) - Math.floor(dayOfEra / 146_096)) / 365,
  );
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  // The year begins in March here, so that the leap day is its last.
  const monthFromMarch = Math.floor((5 * dayOfYear + 2) / 153);
  const month = monthFromMarch < 10 ? monthFromMarch + 3 : monthFromMarch - 9;
  const day = dayOfYear - Math.floor((153 * monthFromMarch + 2) / 5) + 1;
  return { year: yearOfEra + era * 400 + (month <= 2 ? 1 : 0), month, day };
}

/** 0 for Monday to 6 for Sunday. 1970-01-01 was a Thursday. */
export function weekdayIndex(date: LocalDate): number {
  return (((date + 3) % 7) + 7) % 7;
}

export function daysInMonth(year: number, month: number): number {
  return new Date(Date.UTC(year, month, 0)).getUTCDate();
}

export function daysInYear(year: number): number {
  return dateOf(year + 1, 1, 1) - dateOf(year, 1, 1);
}

export function addDays(date: LocalDate, days: number): LocalDate {
  return (date + days) as LocalDate;
}

/** Reads `YYYY-MM-DD`. Null when the text is not a date that exists. */
export function parseDate(text: string): LocalDate | null {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  if (!match) return null;
  const [year, month, day] = [Number(match[1]), Number(match[2]), Number(match[3])];
  if (month < 1 || month > 12 || day < 1 || day > daysInMonth(year, month)) return null;
  return dateOf(year, month, day);
}

export function formatDate(date: LocalDate): string {
  return new Date(date * DAY).toISOString().slice(0, 10);
}

export function startOfDate(date: LocalDate): LocalTime {
  return (date * DAY) as LocalTime;
}

export function dateOfLocalTime(time: LocalTime): LocalDate {
  return Math.floor(time / DAY) as LocalDate;
}

/** The ISO 8601 week of a date with weeks that begin on `weekStart` (0 Monday): week 1 has at least four days in its year. */
export function weekOfYear(date: LocalDate, weekStart: number): { week: number; weeks: number } {
  const intoWeek = (weekdayIndex(date) - weekStart + 7) % 7;
  const year = civil(addDays(date, 3 - intoWeek)).year;
  const first = firstWeek(year, weekStart);
  return { week: Math.floor((date - first) / 7) + 1, weeks: (firstWeek(year + 1, weekStart) - first) / 7 };
}

function firstWeek(year: number, weekStart: number): number {
  const fourth = dateOf(year, 1, 4);
  return fourth - ((weekdayIndex(fourth) - weekStart + 7) % 7);
}

/** The clock part of a wall reading: HH:MM, with seconds where there are any. */
export function formatLocalTime(time: LocalTime): string {
  const text = new Date(time).toISOString().slice(11, 19);
  return text.endsWith(':00') ? text.slice(0, 5) : text;
}

/** The dates of a calendar's entries: single ones, and pairs of first and last. */
export function calendarDates(entries: readonly (string | readonly [string, string])[]): Set<LocalDate> {
  const dates = new Set<LocalDate>();
  for (const entry of entries) {
    const [first, last] = typeof entry === 'string' ? [entry, entry] : entry;
    const end = parseDate(last) as LocalDate;
    for (let date = parseDate(first) as LocalDate; date <= end; date = addDays(date, 1)) dates.add(date);
  }
  return dates;
}
