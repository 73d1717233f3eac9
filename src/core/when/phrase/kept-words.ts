import { addDays, civil, parseDate, type LocalDate } from '../dates';
import type { SetOfHours, When } from '../schema';
import { setsOf } from '../sets-of-hours';
import { describeWhen } from '../words';
import { AROUND } from './dates';
import { MONTH, monthNumber } from './vocabulary';

/**
 * A last check of the result: each date and each hour in the words must be in it. It knows nothing of how phrases are read, so that a mistake there
 * is noticed, and not booked.
 */

const YEAR = '(?:,?\\s+((?:19|2[01])\\d{2})\\b)?';
const DAY_FIRST = new RegExp(`(?<![\\d:.])([1-9]\\d?)(?:st|nd|rd|th)?\\.?\\s+(?:of\\s+)?${MONTH}\\.?${YEAR}`, 'gi');
const MONTH_FIRST = new RegExp(
  `\\b${MONTH}\\.?\\s+(?:the\\s+)?(\\d{1,2})(?:st|nd|rd|th)?\\b(?![:.]\\d|\\s*(?:[-–—]|to\\b|am\\b|pm\\b|h\\b|hours?\\b|min))${YEAR}`,
  'gi',
);
const ISO = /\b(\d{4})-(\d{2})-(\d{2})\b/g;
const CLOCK = /(?<![\d.:+]|(?:opens|closes|sunrise|sunset)-)(\d{1,2}):(\d{2}(?::\d{2})?)(?!\d)\s*(am|pm)?\b/gi;
const HALF_DAY = /(?<![\d.:]|\b(?:past|quarter to|half)\s+)(\d{1,2})\s*(am|pm)\b/gi;

/** What is so many days from a date, beside it, around it, or comes each year, is on other dates: "two weeks before 24 Dec". */
const AWAY = /\b(?:before|after|days?|weeks?|months?|fortnight|weekend of|(?:each|every) year|yearly|annually)\b/i;

/** Why a reading is not what was written: a date or an hour of the text is not in it. Null where all are. */
export function lostWords(text: string, when: When): string | null {
  // Of four numbers around a month two are hours: which, is shown to whoever wrote them.
  const dated = text.replace(new RegExp(AROUND, 'gi'), ' ');
  const lost = [...(AWAY.test(dated) ? [] : lostDates(dated, when)), ...lostHours(text, when)][0];
  if (lost === undefined) return null;
  return `You wrote “${lost}”, but this would be read as “${describeWhen(when)}”. Write the hours first, then the dates, e.g. “10:00–16:00, 1 to 20 Dec”.`;
}

interface Said {
  readonly text: string;
  readonly day: number;
  readonly month: number;
  readonly year: number | null;
}

function lostDates(text: string, when: When): string[] {
  const year = (written: string | undefined) => (written === undefined ? null : Number(written));
  const said: Said[] = [
    ...[...text.matchAll(DAY_FIRST)].map(([all, day, month = '', y]) => ({
      ...{ text: all, day: Number(day), month: monthNumber(month), year: year(y) },
    })),
    ...[...text.matchAll(MONTH_FIRST)].map(([all, month = '', day, y]) => ({
      ...{ text: all, day: Number(day), month: monthNumber(month), year: year(y) },
    })),
    ...[...text.matchAll(ISO)].map(([all, y, month, day]) => ({
      ...{ text: all, day: Number(day), month: Number(month), year: year(y) },
    })),
  ];
  if (said.length === 0) return [];
  const sets = setsOf(when);
  const dates = sets.flatMap(datesSaidBy);
  const has = ({ day, month, year: y }: Said, date: LocalDate) => {
    const its = civil(date);
    return its.day === day && its.month === month && (y === null || its.year === y);
  };
  return said
    .filter(
      (one) =>
        !dates.some((date) => has(one, date)) &&
        !sets.some((set) => isOfRule(one, set)) &&
        // A range that is given as a list of days.
        !sets.some((set) => within(one, set)),
    )
    .map((one) => one.text.trim());
}

/** The dates that a set of hours names; "1 Dec 22:00 to 2 Dec 06:00" also ends on one. */
function datesSaidBy({ from, to, also = [], except = [], windows = [] }: SetOfHours): LocalDate[] {
  const last = Math.max(0, ...windows.map(([start, end, days]) => days ?? (end <= start ? 1 : 0)));
  return [from, to, ...also, ...except].flatMap((text) => {
    const date = text === undefined ? null : parseDate(text);
    return date === null ? [] : [date, addDays(date, last)];
  });
}

/** Whether a rule has a day of each year, by name or, over the end of a month, by its day of the year. */
function isOfRule({ day, month }: Said, { repeat = '' }: SetOfHours): boolean {
  const numbers = (name: string) => new RegExp(`${name}=([\\d,-]+)`).exec(repeat)?.[1]?.split(',').map(Number) ?? [];
  return numbers('BYMONTHDAY').includes(day) && numbers('BYMONTH').includes(month);
}

/** Whether a date lies between the first and the last: of "24, 25 and 26 Dec" each day may not be named again. */
function within({ day, month, year }: Said, { from, to }: SetOfHours): boolean {
  const [first, last] = [from, to].map((date) => (date === undefined ? null : parseDate(date)));
  if (first == null || last == null || last - first > 366) return false;
  for (let date = first; date <= last; date = addDays(date, 1)) {
    const its = civil(date);
    if (its.day === day && its.month === month && (year === null || its.year === year)) return last - first <= 40;
  }
  return false;
}

function lostHours(text: string, when: When): string[] {
  const edges = new Set(setsOf(when).flatMap(({ windows = [] }) => windows.flatMap(([start, end]) => [start, end])));
  const two = (n: number) => String(n).padStart(2, '0');
  const forms = (hour: number, minute: string) =>
    hour % 24 === 0 ? [`00:${minute}`, `24:${minute}`] : [`${two(hour % 24)}:${minute}`];
  const said = [
    ...[...text.matchAll(CLOCK)].map(([all, hour, minute = '00', half]) => ({ all, hour: Number(hour), minute, half })),
    ...[...text.matchAll(HALF_DAY)].map(([all, hour, half]) => ({ all, hour: Number(hour), minute: '00', half })),
  ];
  return said
    .filter(({ hour, minute, half }) => {
      // The end of a day isn't a window of its own.
      if (hour === 24) return false;
      const hours = half === undefined ? [hour, hour + 12] : [(hour % 12) + (/pm/i.test(half) ? 12 : 0)];
      return !hours.some((one) => forms(one, minute).some((edge) => edges.has(edge)));
    })
    .map(({ all }) => all.trim());
}
