import { civil, dateOf } from '../dates';
import { clause, otherHours, setRange } from './clause';
import type { Draft } from './draft';
import type { Reader } from './reader';
import { DAY, MONTH, NTH_WORD, NUMBER, TO, monthNumber, nthNumber, numberOf, weekdayNumber } from './vocabulary';

/** A month whose day does not follow; a time of day may. */
export const NO_DAY =
  '(?!\\.?\\s+\\d{1,2}(?:st|nd|rd|th)?(?!\\d|[:.]\\d|\\s*(?:am|pm|h|hrs?|hours?|m|mins?|minutes?)\\b))';

/** Weekdays that are named: 0 is Monday. */
export function weekdayList(reader: Reader): number[] {
  return reader
    .list(() => {
      if (reader.take('(?:weekdays?|workdays?|working\\s+days?|business\\s+days?|school\\s*days?)\\b'))
        return [0, 1, 2, 3, 4];
      if (reader.take('week-?ends?\\b')) return [5, 6];
      if (reader.take('m\\s*[-–]\\s*f\\b')) return [0, 1, 2, 3, 4];
      if (reader.take('m\\s*/?\\s*w\\s*/?\\s*f\\b')) return [0, 2, 4];
      if (reader.take('tu?\\s*/?\\s*th\\b')) return [1, 3];
      const day = reader.take(DAY);
      if (!day) return null;
      const last = reader.attempt(() => (reader.take(TO) ? reader.take(DAY) : null));
      const first = weekdayNumber(day[0]);
      const count = last ? (weekdayNumber(last[0]) - first + 7) % 7 : 0;
      return Array.from({ length: count + 1 }, (_, i) => (first + i) % 7);
    })
    .flat();
}

/** What stands before weekdays and says no more than that they are meant: "on", "each", and "from" before a range of them. */
function takeEach(reader: Reader): void {
  if (reader.take('(?:weekly|every\\s+week|each\\s+week|once\\s+a\\s+week),?\\s+(?:on\\s+)?')) return;
  if (
    reader.take(
      `(?:(?:on|every|each)\\s+(?:all\\s+)?(?:the\\s+)?|all\\s+(?=${DAY})|at\\s+(?:the\\s+)?(?=week-?ends?\\b))`,
    )
  )
    return;
  if (reader.sees(`from\\s+${DAY}${TO}${DAY}`) && reader.ways.of('each week', 2) === 0) reader.take('from\\s+');
}

const ODD_DAYS = `(?:on\\s+|every\\s+)?(?:the\\s+)?(odd|even)(?:[- ]numbered)?\\s+`;

/** Weekdays, alone or every so many weeks. */
export const weekdays = clause((reader, draft) => {
  const odd = reader.take(`${ODD_DAYS}(?=(${DAY}))`);
  if (odd) {
    const isOdd = odd[1]?.toLowerCase() === 'odd';
    const day = (odd[2] ?? '').replace(/s$/i, '');
    reader.error = `Which of them? Write “${day} in ${isOdd ? 'odd' : 'even'} weeks”, or “${isOdd ? 'first and third' : 'second and fourth'} ${day} of the month”.`;
    return true;
  }
  const every =
    reader.take(
      `every\\s+(other|alternate|${NTH_WORD}|${NUMBER})\\s*(?:weeks?\\b)?\\s*,?\\s*(?:on\\s+)?(?=(?:the\\s+)?[a-z])`,
    ) ?? reader.take('(fortnightly|every\\s+fortnight|bi-?weekly|alternat(?:e|ing)),?\\s+(?:on\\s+)?');
  if (!every) takeEach(reader);
  const days = weekdayList(reader);
  if (days.length === 0) return null;
  if (every) {
    const word = (every[1] ?? '').toLowerCase();
    draft.everyWeeks = nthNumber(word) || (/^(other|alternat|fortnight|every|bi)/.test(word) ? 2 : numberOf(word));
    if (draft.everyWeeks < 1) return null;
  }
  if (draft.days.size > 0 && draft.windows.length > 0) return otherHours(reader);
  for (const day of days) draft.days.add(day);
  // All of them say that it comes each day.
  if (draft.days.size === 7) draft.daily = true;
  return true;
});

const EVERY_OTHER = `every\\s+(other|alternate|${NTH_WORD}|${NUMBER})\\s+weeks?\\b`;

/** "every other week", "fortnightly", "weekly", "in even weeks". */
export const weeks = clause((reader, draft) => {
  const dates = reader.take(`${ODD_DAYS}(?:days|dates)\\b`)?.[1]?.toLowerCase();
  if (dates !== undefined) {
    const days = Array.from({ length: 31 }, (_, i) => i + 1).filter((day) => day % 2 === (dates === 'odd' ? 1 : 0));
    draft.rule = `FREQ=MONTHLY;BYMONTHDAY=${days.join()}`;
    return true;
  }
  const parity = reader.take('(?:on\\s+|in\\s+|every\\s+)?(even|odd)(?:[- ]numbered)?\\s+weeks?\\b')?.[1];
  if (parity !== undefined) {
    draft.parity = parity.toLowerCase() as 'even' | 'odd';
    return true;
  }
  const every = reader.take(EVERY_OTHER)?.[1]?.toLowerCase();
  const word =
    every ??
    reader
      .take(
        '(fortnightly|(?:every|each)\\s+fortnight|bi-?weekly|weekly|(?:every|each)\\s+week|once\\s+a\\s+week)\\b',
      )?.[1]
      ?.toLowerCase();
  if (word === undefined) return null;
  const count =
    every === undefined
      ? /fortnight|^bi/.test(word)
        ? 2
        : 1
      : /^(other|alt)/.test(every)
        ? 2
        : nthNumber(every) || numberOf(every);
  if (count < 1) return null;
  draft.everyWeeks = count;
  draft.weekly = true;
  return true;
});

/** "in December 10–18": with days of the week before it these are hours of each such day, else the days of that month. */
function monthAndHours(reader: Reader, draft: Draft): true | null {
  const begun = reader.at;
  const found = reader.take(`in\\s+${MONTH}\\s+(\\d{1,2})${TO}(\\d{1,2})(?![\\d:.]|\\s*(?:am|pm|h)\\b)`);
  if (!found) return null;
  const month = monthNumber(found[1] ?? '');
  const [first, last] = [Number(found[2]), Number(found[3])];
  if (first >= last || last > 31) return null;
  const mayBeHours = last <= 24;
  const follows = new RegExp(`(?:${DAY}|week-?ends?|weekdays?)\\s*,?\\s*$`, 'i').test(reader.read().slice(0, begun));
  if (mayBeHours && (reader.ways.of('hours in a month', 2) === 0) === follows) {
    draft.months = [...draft.months, month];
    if (!follows) draft.daily = true;
    const [start, end] = [first, last].map((hour) => `${String(hour).padStart(2, '0')}:00`) as [string, string];
    draft.windows.push([start, end]);
    return true;
  }
  const { today } = reader.context;
  const { year } = civil(today);
  const range = [year, year + 1].map((y) => [dateOf(y, month, first), dateOf(y, month, last)] as const);
  const [from, to] = range.find(([, end]) => end >= today) ?? range[1] ?? [today, today];
  return setRange(reader, draft, from, to);
}

export const inMonths = clause((reader, draft) => {
  const both = reader.attempt(() => monthAndHours(reader, draft));
  if (both) return both;
  const said = reader.take('in\\s+') !== null;
  const months = monthList(reader);
  if (months.length <= (said ? 0 : 1)) return null;
  if (draft.months.length > 0 && draft.windows.length > 0) return otherHours(reader);
  draft.months = [...draft.months, ...months];
  return true;
});

export function monthList(reader: Reader): number[] {
  return reader
    .list(() => {
      const month = reader.take(`${MONTH}${NO_DAY}`);
      if (!month) return null;
      const first = monthNumber(month[0]);
      const last = reader.attempt(() => (reader.take(TO) ? reader.take(MONTH) : null));
      const count = last ? (monthNumber(last[0]) - first + 12) % 12 : 0;
      return Array.from({ length: count + 1 }, (_, i) => ((first - 1 + i) % 12) + 1);
    })
    .flat();
}
