import type { Calendar } from '@/core/plan';
import { done, misread, type Result } from '@/core/refusal';
import { addDays, formatDate, parseDate, readWhen, type LocalDate, type PhraseContext } from '@/core/when';

/** A calendar's dates as lines of text: `2026-12-24`, or `2026-12-24 to 2026-12-26`. */
export function datesText(dates: Calendar['dates']): string {
  return dates.map((one) => (typeof one === 'string' ? one : `${one[0]} to ${one[1]}`)).join('\n');
}

/** The dates that a part says in words: "24 Dec", "24-26 Dec", "Christmas Day". Null where it says anything else. */
function inWords(part: string, context: PhraseContext): readonly [string, string] | null {
  const read = readWhen(part, context);
  if (!read.ok || read.value.any) return null;
  const { from, to, ...others } = read.value;
  return from !== undefined && to !== undefined && Object.keys(others).length === 0 ? [from, to] : null;
}

/**
 * Reads such text; lines may also be separated by commas, and dates be written as bookings' are, against `context`. Reports the first part
 * that isn't a date.
 */
export function readDates(text: string, context: PhraseContext): Result<Calendar['dates']> {
  const dates: Calendar['dates'] = [];
  for (const part of text.split(/[\n,;]+/).map((one) => one.trim())) {
    if (part === '') continue;
    const [first = '', last, more] = part.split(/\s+(?:to|–|-)\s+/);
    const [from, to] = [parseDate(first), last === undefined ? null : parseDate(last)];
    if (from === null || more !== undefined || (last !== undefined && to === null)) {
      const said = inWords(part, context);
      if (!said) return misread(`“${part}” isn’t a date. Write it like 24 Dec 2026, or 24 Dec to 26 Dec.`);
      dates.push(said[0] === said[1] ? said[0] : [said[0], said[1]]);
      continue;
    }
    if (to !== null && to < from) return misread(`In “${part}” the last date comes before the first.`);
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
