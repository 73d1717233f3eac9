import { addDays, done, formatDate, misread, parseDate, type Calendar, type LocalDate, type Result } from '@/core';

/** A calendar's dates as lines of text: `2026-12-24`, or `2026-12-24 to 2026-12-26`. */
export function datesText(dates: Calendar['dates']): string {
  return dates.map((one) => (typeof one === 'string' ? one : `${one[0]} to ${one[1]}`)).join('\n');
}

/** Reads such text; lines may also be separated by commas. Tells the first part that is no date. */
export function readDates(text: string): Result<Calendar['dates']> {
  const dates: Calendar['dates'] = [];
  for (const part of text.split(/[\n,;]+/).map((one) => one.trim())) {
    if (part === '') continue;
    const [first = '', last, more] = part.split(/\s+(?:to|–|-)\s+/);
    const [from, to] = [parseDate(first), last === undefined ? null : parseDate(last)];
    if (from === null || more !== undefined || (last !== undefined && to === null))
      return misread(`"${part}" is no date: write 2026-12-24, or 2026-12-24 to 2026-12-26.`);
    if (to !== null && to < from) return misread(`In "${part}" the last date comes before the first.`);
    dates.push(to === null || to === from ? first : [first, last ?? first]);
  }
  return done(dates);
}

/** Single dates gathered into runs: days that follow on each other are one line. */
export function inRuns(list: readonly string[]): Calendar['dates'] {
  const dates = [...new Set(list)].map((text) => parseDate(text) as LocalDate).sort((a, b) => a - b);
  const runs: [LocalDate, LocalDate][] = [];
  for (const date of dates) {
    const last = runs.at(-1);
    if (last && addDays(last[1], 1) === date) last[1] = date;
    else runs.push([date, date]);
  }
  return runs.map(([from, to]) => (from === to ? formatDate(from) : [formatDate(from), formatDate(to)]));
}
