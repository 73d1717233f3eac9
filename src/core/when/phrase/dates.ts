import { WEEKDAYS, addDays, civil, dateOf, daysInMonth, formatDate, weekdayIndex, type LocalDate } from '../dates';
import { MOST_DAYS } from '../written';
import { dayWords } from '../words';
import { addDate, clause, nowEdge, otherWeekday, setRange } from './clause';
import { edgeOf } from './edges';
import { MOVING } from './feasts';
import { ALSO, YEAR, later, type Reader } from './reader';
import { spanNamed } from './spans';
import { DAY, EDGE, HOUR, MONTH, TO, monthNumber, weekdayNumber } from './vocabulary';
import { NO_DAY } from './weekdays';

const DAY_OF_MONTH = '(?:the\\s+)?(\\d{1,2})(?:st|nd|rd|th)?\\.?';
const SECOND_DAY = `(?=(?:the\\s+)?\\d{1,2}(?:st|nd|rd|th)?\\.?\\s*(?:of\\s+)?${MONTH})`;
/** The first of two days of a month: of "24 to 26 Dec" what stands before "26 Dec". */
const FIRST_DAY = `(?:(?:from\\s+|on\\s+)?${DAY_OF_MONTH}${TO}|between\\s+${DAY_OF_MONTH}(?:${TO}|\\s+and\\s+))${SECOND_DAY}`;

/** Four numbers around a month: two are its days, two are hours. */
export const AROUND = `(?:(?:from|between)\\s+)?(\\d{1,2})(?:${TO}|\\s+and\\s+)(\\d{1,2})\\s+${MONTH}\\.?\\s+(\\d{1,2})${TO}(\\d{1,2})(?![\\d:.]|\\s*(?:am|pm|h)\\b)`;

/** "10–16 December 1–20", where the first two are the hours. Both can be meant: hours of a working day and a month's first days are likelier. */
export const hoursBeforeMonth = clause((reader, draft) => {
  const found = reader.look(AROUND);
  if (!found) return null;
  const [a, b, c, d] = [found[1], found[2], found[4], found[5]].map(Number) as [number, number, number, number];
  const month = monthNumber(found[3] ?? '');
  const { today } = reader.context;
  const { year } = civil(today);
  const range = [year, year + 1]
    .filter((y) => c >= 1 && d <= daysInMonth(y, month))
    .map((y) => [dateOf(y, month, c), dateOf(y, month, d)] as const)
    .find(([, last]) => last >= today);
  if (b > 24 || a >= b || c >= d || !range) return null;
  const areLikely = a >= 6 && c < 6;
  // "between 1 and 20 December 10–12" is clear: days are between, and hours follow.
  if (!areLikely && /^between/i.test(found[0])) return null;
  if ((reader.ways.of('hours before the month', 2) === 0) !== areLikely) return null;
  reader.take(AROUND);
  const [start, end] = [a, b].map((hour) => `${String(hour).padStart(2, '0')}:00`) as [string, string];
  draft.windows.push([start, end]);
  return setRange(reader, draft, ...range);
});

/** Whether "from 1 to 20 December" comes: days of a month, no hours. */
export const seesDays = (reader: Reader): boolean => reader.sees(FIRST_DAY);

/** "24 to 26 Dec", "between 1 and 20 Dec", "1.-24.12.": a range whose month stands once. */
export function shortRange(reader: Reader): readonly [LocalDate, LocalDate] | null {
  return reader.attempt(() => {
    const first =
      reader.take(FIRST_DAY) ??
      reader.take('(?:from\\s+|on\\s+)?(\\d{1,2})\\.?\\s*(?:-|–|—)\\s*(?=\\d{1,2}\\.\\s?\\d{1,2}\\.)');
    const to = first && reader.date();
    if (to === null) return null;
    const { year, month } = civil(to);
    return [dateOf(year, month, Number(first?.[1] ?? first?.[2])), to];
  });
}

const NO_HOURS = 'Write the hours of both ends, e.g. “Friday 18:00 to Sunday 22:00”.';
const PART = '(?:morning|afternoon|evening|night)s?\\b';

/** A moment: a date or the next such weekday, and a time of its day. */
interface Point {
  readonly date: LocalDate;
  readonly edge: string;
  readonly weekday: boolean;
}

/**
 * From one moment to another: "Friday 22:00 to Saturday 02:00", "2026-12-01T10:00/2026-12-01T12:00", "until Friday 17:00",
 * "Friday 18:00 to Monday 06:00".
 */
export const stretch = clause((reader, draft) => {
  // "from Friday evening to Sunday night"
  if (
    reader.sees(
      `(?:from\\s+)?(?:[\\w.]+\\s+){1,3}?${PART}${TO}(?!${PART}|\\d{1,2}(?:st|nd|rd|th)?\\b(?!\\.?\\s*(?:of\\s+)?${MONTH}))(?:[\\w.]+\\s+){1,3}?(?:${PART}|\\d)`,
    )
  ) {
    reader.error = NO_HOURS;
    return true;
  }
  const { today } = reader.context;
  const own: Point = { date: today, edge: nowEdge(reader), weekday: false };
  let first: Point | null = null;
  if (reader.take(`(?:(?:from\\s+)?(?:right\\s+)?now\\s+)?(?:until|till)\\s+(?:the\\s+)?`)) {
    if (
      draft.from !== undefined ||
      draft.windows.length > 0 ||
      draft.days.size > 0 ||
      draft.rule !== undefined ||
      draft.daily
    )
      return null;
    first = own;
  } else {
    reader.take('(?:from|between|starting)\\s+');
    first = point(reader, false, today);
    if (!first || !reader.take(`(?:${TO}|\\s+and\\s+|\\s*/\\s*)`)) return null;
    reader.take('(?:until|till)\\s+');
  }
  const last = point(reader, true, first.date);
  // "24 Dec 9 to 17" goes on: these are the hours of a day.
  if (!last || (reader.sees(`${TO}\\d`) && !reader.sees('\\s+(?:until|till)\\b'))) return null;
  // "until 31 Dec 24:00" is all of that day.
  if (first === own && last.edge === '24:00' && last.date > today) {
    draft.to = last.date;
    return true;
  }
  const weekly = first.weekday && last.weekday;
  const far = last.date - first.date;
  // "Friday 18:00 to Friday 06:00" is most of a week.
  const days = weekly && far === 0 && last.edge <= first.edge ? WEEKDAYS.length : far;
  const within = days === 0 ? first.edge < last.edge : days === 1 && last.edge <= first.edge;
  if (days < 0 || (days === 0 && !within)) {
    reader.error = 'The end comes before the beginning.';
    return true;
  }
  if (days > MOST_DAYS) {
    draft.long = { first: first.date, start: first.edge, last: last.date, end: last.edge };
    return setRange(reader, draft, first.date, last.date);
  }
  draft.windows.push(within ? [first.edge, last.edge] : [first.edge, last.edge, days]);
  if (weekly && reader.ways.of('this one', 2) === 0) {
    const begin = weekdayIndex(first.date);
    // "every weekend from Friday 18:00 to Monday 06:00" begins on Fridays.
    const covered = Array.from({ length: days + 1 }, (_, i) => (begin + i) % WEEKDAYS.length);
    if ([...draft.days].every((day) => covered.includes(day))) draft.days.clear();
    draft.days.add(begin);
    return true;
  }
  return setRange(reader, draft, first.date, first.date);
});

/** "Saturday 5 December to Sunday 6 December": a date whose weekday is said, on either side. */
export const namedRange = clause((reader, draft) => {
  const begun = reader.read().length;
  reader.take('from\\s+');
  const firstDay = oneDay(reader);
  const first = reader.date();
  if (first === null || !reader.take(TO)) return null;
  const lastDay = oneDay(reader);
  // "Tue, 1 Dec to 24 Dec" are all Tuesdays from then to then.
  const isNamed = lastDay !== null || (firstDay !== null && !firstDay.includes(','));
  const last = isNamed ? reader.date(first) : null;
  if (last === null || reader.sees(`${TO}\\d`)) return null;
  const [from, to] = current(reader, begun, first, last);
  for (const [said, date] of [
    [firstDay, from],
    [lastDay, to],
  ] as const)
    if (said !== null && weekdayNumber(said) !== weekdayIndex(date)) reader.error = otherWeekday(date);
  return setRange(reader, draft, from, to);
});

/**
 * A range whose dates were written without a year: the one that is now, where it is, else the next. `begun`: where it begins in the text.
 * Feasts that move are on other dates a year before.
 */
export function current(
  reader: Reader,
  begun: number,
  first: LocalDate,
  last: LocalDate,
): readonly [LocalDate, LocalDate] {
  const written = reader.read().slice(begun);
  const [before, end] = [later(first, -1, 'year'), later(last, -1, 'year')];
  const isSaid = /\d{4}/.test(written) || new RegExp(MOVING, 'i').test(written);
  const isNow = first > reader.context.today && end >= reader.context.today && last - first < LONG_RANGE_DAYS;
  // "20 Dec to 1 Dec" is more likely turned round than meant.
  if (!isSaid && last - first >= NEARLY_A_YEAR_DAYS && civil(last).year > civil(first).year) {
    const [from, to] = [first, last].map((date) => dayWords(date));
    reader.error = `${from} to ${to} is nearly a year. Write both years if you mean that, or swap the two dates.`;
  }
  return isNow && !isSaid ? [before, end] : [first, last];
}

/** The end of the last day, which a day has anyway: "to 31 Dec 24:00", "until New Year's Eve midnight". */
const takeEndOfDay = (reader: Reader) =>
  reader.take(`,?\\s+(?:at\\s+)?(?:24[:.]00|midnight|(?:the\\s+)?end\\s+of\\s+(?:the\\s+)?day)\\b(?!${TO}\\d)`);

/** What goes on for most of a year is more likely the one to come. */
const LONG_RANGE_DAYS = 270;

/** From so many days on a range over the end of a year is asked about. */
const NEARLY_A_YEAR_DAYS = 330;

/** Several of a weekday: "Fridays", which "Tues", "Weds" and "Thurs" are not. */
const DAYS = `(?:${DAY})(?<=s\\.?)(?<!tues|weds|thurs)`;

/** The one weekday that stands before its date. */
const oneDay = (reader: Reader): string | null =>
  reader.sees(DAYS) ? null : (reader.take(`${DAY},?\\s+(?:the\\s+)?`)?.[0] ?? null);

function point(reader: Reader, end: boolean, near: LocalDate): Point | null {
  return reader.attempt(() => {
    const early = reader.take(`(?:at\\s+)?(${EDGE})(?:\\s+on)?\\s+`)?.[1];
    const day = (): Pick<Point, 'date' | 'weekday'> | null => {
      const dated = reader.date(near);
      if (dated !== null) return { date: dated, weekday: false };
      // "closing time on Fridays" is of each week.
      const named = reader.sees(DAYS) ? null : bareWeekday(reader, near);
      return named === null ? null : { date: named, weekday: true };
    };
    const found = day();
    if (!found) return null;
    const late = early ?? reader.take(`(?:T|,?\\s+(?:at\\s+)?)(${HOUR})`)?.[1];
    const edge = late === undefined ? null : edgeOf(late, end);
    return edge === null ? null : { ...found, edge };
  });
}

/** First and last dates, a range, or single dates. */
export const dates = clause((reader, draft) => {
  const begun = reader.read().length;
  const short = shortRange(reader);
  if (short) {
    takeEndOfDay(reader);
    return setRange(reader, draft, short[0], short[1]);
  }
  // "Dec 24 to 26": the month stands once.
  const tail = reader.take(
    `(?:from\\s+|on\\s+)?(?=${MONTH}\\.?\\s+\\d{1,2}(?:st|nd|rd|th)?\\s*(?:-|–|—|to)\\s*\\d{1,2}(?![\\d:.]|\\s*(?:${MONTH}|am|pm)))`,
  );
  if (tail) {
    const from = reader.date();
    const last = from !== null && reader.take(`${TO}(\\d{1,2})(?:st|nd|rd|th)?(?:,?\\s+(\\d{4})\\b)?`);
    if (from === null || !last) return null;
    const { year, month } = civil(from);
    const y = last[2] ? Number(last[2]) : year;
    return setRange(
      reader,
      draft,
      last[2] ? dateOf(y, month, civil(from).day) : from,
      dateOf(y, month, Number(last[1])),
    );
  }
  const word =
    reader
      .take(
        '(?:once\\s+)?(?:(?:not?|but\\s+not)\\s+(?:before|earlier\\s+than|sooner\\s+than|after|later\\s+than)|from|after|before|since|as\\s+(?:of|from)|start(?:ing|s)?(?:\\s+(?:on|from))?|effective(?:\\s+(?:from|as\\s+of))?|begin(?:ning|s)?(?!\\s+of\\b)(?:\\s+on)?|until|till|through|to|up\\s+to|ending(?:\\s+on)?|ends?(?!\\s+of\\b)(?:\\s+on)?|by|between|on|the)\\s+(?:the\\s+)?',
      )?.[0]
      .trim()
      .toLowerCase()
      .replace(/\s+/g, ' ')
      .replace(/^once /, '') ?? '';
  const bounds = /^(?:but )?not? (before|earlier|sooner)/.test(word)
    ? 'from'
    : /^(?:but )?not? /.test(word)
      ? 'until'
      : word;
  const ends = /^(until|till|through|to|up to|end|by|before)/.test(bounds);
  const starts = /^(from|after|since|as of|as from|start|begin|effective|between)/.test(bounds);
  // "before 5 Dec" and "after 5 Dec" leave that day out.
  const beside = bounds.startsWith('before') ? -1 : bounds.startsWith('after') ? 1 : 0;
  const span = starts || beside !== 0 ? coming(reader) : null;
  if (span) {
    // From its beginning, after its end, or up to the day before it.
    if (ends) draft.to = addDays(span[0], -1);
    else draft.from = beside === 1 ? addDays(span[1], 1) : span[0];
    return true;
  }
  const month = ends && word !== '' ? monthNamed(reader) : null;
  if (month) {
    // "until December" may be with it.
    draft.to = reader.ways.of('with that month', 2) === 0 ? addDays(month[0], -1) : month[1];
    return true;
  }
  const { today } = reader.context;
  // "since 1 Feb" is the last one, all others come.
  const isSince = word.startsWith('since');
  const near = ends ? (draft.from ?? today) : isSince ? addDays(later(today, -1, 'year'), 1) : undefined;
  const first = reader.date(near) ?? (ends || starts ? bareWeekday(reader, isSince ? addDays(today, -6) : near) : null);
  if (first === null) return null;
  if (ends) {
    draft.to = addDays(first, beside);
    if (beside === 0) takeEndOfDay(reader);
    return true;
  }
  const joined = word.startsWith('between') ? `(?:${TO}|\\s+and\\s+)` : `(?:${TO}|\\s*/\\s*(?=\\d{4}-))`;
  const last = reader.attempt(() =>
    reader.take(joined) ? (reader.date(first) ?? (starts ? bareWeekday(reader, first) : null)) : null,
  );
  if (last !== null) {
    const range = current(reader, begun, first, last);
    takeEndOfDay(reader);
    return setRange(reader, draft, ...range);
  }
  if (starts) {
    draft.from = addDays(first, beside);
    return true;
  }
  addDate(reader, draft, first);
  // "this Saturday and Sunday": the day after it of that name.
  if (draft.onDate === first && /\b(?:this|next|coming)\s+\S+$/i.test(reader.read()))
    for (const day of reader.list(() => reader.take(`${ALSO}(${DAY})`)?.[1] ?? null))
      draft.also.push(formatDate(reader.weekday(day, first)));
  return true;
});

/** "next week", and "December": what begins on its first day. */
function coming(reader: Reader): readonly [LocalDate, LocalDate] | null {
  const word = reader.take('(?:next|coming)\\s+(week|month|quarter|year)\\b')?.[1];
  return word === undefined ? monthNamed(reader) : spanNamed(reader.context.today, 'next', word);
}

/** The month of that name that is next, or of the year that is said: its first and last day. */
function monthNamed(reader: Reader): readonly [LocalDate, LocalDate] | null {
  const found = reader.take(`(?:next\\s+)?${MONTH}(?:\\s+${YEAR})?${NO_DAY}`);
  if (!found) return null;
  const [, name = '', said] = found;
  const month = monthNumber(name);
  const own = civil(reader.context.today);
  const year = said === undefined ? own.year + (month <= own.month ? 1 : 0) : Number(said);
  return [dateOf(year, month, 1), dateOf(year, month, daysInMonth(year, month))];
}

/** "until Friday": the next one. */
function bareWeekday(reader: Reader, near = reader.context.today): LocalDate | null {
  const day = reader.take(DAY);
  return day ? reader.weekday(day[0], near) : null;
}
