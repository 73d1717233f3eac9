import { WEEKDAYS, civil, daysInMonth, type LocalDate } from '../dates';
import { ADVENT_SUNDAYS, MOST_YEARLY_DAYS, yearDays } from '../year-days';
import { clause } from './clause';
import { shortRange } from './dates';
import { MOVING } from './feasts';
import type { Draft } from './draft';
import { ALSO, YEAR, type Reader } from './reader';
import { DAY, MONTH, NTH_WORD, NUMBER, TO, monthNumber, nthNumber, numberOf, weekdayNumber } from './vocabulary';
import { monthList } from './weekdays';

/** "second and fourth Thursday", "last working day of the month", "on the 1st and 15th", "every third day", "every year on 17 May". */
export const rules = clause(
  (reader, draft) =>
    times(reader, draft) ??
    advent(reader, draft) ??
    everySoManyDays(reader, draft) ??
    yearly(reader, draft) ??
    monthly(reader, draft) ??
    eachMonth(reader, draft),
);

const NTH_NAMES: Readonly<Record<number, string>> = { 1: 'first', 2: 'second', 3: 'third', 4: 'fourth' };

const OF_MONTH =
  '\\s+(?:of|in)\\s+(?:the|every|each|a)\\s+(?:month|quarter)\\b|\\s+(?:every|each|a)\\s+(?:month|quarter)\\b|\\s+(?:monthly|quarterly)\\b';

/** "5 times", "for 5 Mondays". */
function times(reader: Reader, draft: Draft): true | null {
  const found =
    reader.take(`(?:for\\s+)?(${NUMBER})\\s+times\\b(?!\\s+an?\\s)`) ??
    reader.take(`(?:for|on)\\s+(?:the\\s+next\\s+)?(?!an?\\s)(${NUMBER})\\s+(?=${DAY})`) ??
    reader.take(`(?:the\\s+)?next\\s+(?!an?\\s)(${NUMBER})\\s+(?=${DAY})`);
  const count = numberOf(found?.[1] ?? '0');
  if (!found || count < 1) return null;
  draft.count = count;
  return true;
}

const EACH_YEAR = '(?:(?:every|each)\\s+year|yearly|annually|once\\s+a\\s+year)';

/** "every year on 17 May", "every 4th Thursday in November", "every year from 1 to 24 December", "every May". */
function yearly(reader: Reader, draft: Draft): true | null {
  return reader.attempt(() => {
    const after = reader.attempt(() => {
      reader.take('(?:on|from|between)\\s+(?:the\\s+)?');
      const found = reader.sees(MOVING) ? null : datesOfYear(reader);
      return found !== null && reader.take(`,?\\s+${EACH_YEAR}\\b`) ? found : null;
    });
    if (after !== null) return eachYear(reader, draft, after);
    const word = reader.take(`${EACH_YEAR},?(?:\\s+(?:on|in|from|during))?\\s+(?:the\\s+)?`);
    const alone = `\\d{1,2}(?:st|nd|rd|th)\\b(?!\\s+(?:(?:of\\s+)?${MONTH}|${DAY}))`;
    if (!word && !reader.take(`(?:every|each)\\s+(?!${alone})(?=\\d|[a-z])`)) return null;
    const nth = reader.take(`(${NTH_WORD})\\s+(${DAY})\\s+(?:in|of)\\s+${MONTH}`);
    if (nth) {
      const [, n = '', day = '', month = ''] = nth;
      draft.rule = `FREQ=YEARLY;BYMONTH=${monthNumber(month)};BYDAY=${nthNumber(n)}${WEEKDAYS[weekdayNumber(day)] ?? 'MO'}`;
      return true;
    }
    const months = monthList(reader);
    if (months.length > 0) {
      draft.months = months;
      draft.daily = true;
      return true;
    }
    if (reader.sees(MOVING)) {
      reader.error = 'Its date changes each year. Write the date, or use a calendar that has it.';
      return true;
    }
    const found = datesOfYear(reader);
    return found === null ? null : eachYear(reader, draft, found);
  });
}

/** Dates that are named one by one, or the first and the last of a range. */
type DatesOfYear = { readonly dates: readonly LocalDate[] } | { readonly first: LocalDate; readonly last: LocalDate };

/** "17 May", "24 and 31 December", "1 to 24 December", "1 May to 30 Sep"; null for none. */
function datesOfYear(reader: Reader): DatesOfYear | null {
  const short = shortRange(reader);
  if (short) return { first: short[0], last: short[1] };
  const first = reader.date();
  if (first === null) return null;
  const dates = [first];
  // What has a year of its own is none of each year.
  const another = () => (reader.take(ALSO) && !reader.sees(`\\d{1,2}\\s+${MONTH}\\s+${YEAR}`) ? reader.date() : null);
  for (let date = reader.attempt(another); date !== null; date = reader.attempt(another)) dates.push(date);
  const last = dates.length > 1 ? null : reader.attempt(() => (reader.take(TO) ? reader.date(first) : null));
  return last === null ? { dates } : { first, last };
}

const NOT_EACH_YEAR =
  'Dates of each year must be in one month. Make another booking for the others, or write the year.';
const TOO_LONG_A_TIME = `A time that comes each year is whole months, or at most ${MOST_YEARLY_DAYS} days: make two bookings of it.`;

/** Days of one month, or whole months: a rule can't say other dates of each year. */
function eachYear(reader: Reader, draft: Draft, found: DatesOfYear): true {
  if ('dates' in found) {
    const days = found.dates.map(civil);
    const months = new Set(days.map(({ month }) => month));
    if (months.size > 1) reader.error = NOT_EACH_YEAR;
    draft.rule = `FREQ=YEARLY;BYMONTH=${[...months].join()};BYMONTHDAY=${days.map(({ day }) => day).join()}`;
    return true;
  }
  const { first, last } = found;
  const [from, to] = [civil(first), civil(last)];
  if (from.year === to.year && from.month === to.month)
    draft.rule = `FREQ=YEARLY;BYMONTH=${from.month};BYMONTHDAY=${Array.from({ length: last - first + 1 }, (_, i) => from.day + i).join()}`;
  else if (from.day === 1 && to.day === daysInMonth(to.year, to.month)) {
    const count = (to.year - from.year) * 12 + to.month - from.month + 1;
    draft.months = Array.from({ length: Math.min(count, 12) }, (_, i) => ((from.month - 1 + i) % 12) + 1);
    draft.daily = true;
  } else {
    const days = to.month === 2 && to.day === 29 ? null : yearDays(from, to);
    if (days === null) reader.error = 'Most years have no 29 Feb. End it on 28 Feb or 1 Mar.';
    else if (days.length > MOST_YEARLY_DAYS) reader.error = TOO_LONG_A_TIME;
    else draft.rule = `FREQ=YEARLY;BYYEARDAY=${days.join()}`;
  }
  return true;
}

/** "Advent Sundays": the four before Christmas Day, which are those from 27 November to 24 December (common practice, no source). */
function advent(reader: Reader, draft: Draft): true | null {
  const found = reader.take(
    '(?:on\\s+)?(?:(?:the|all|every|each)\\s+)?(?:four\\s+)?(?:advent\\s+sundays?|sundays?\\s+(?:in|of|during)\\s+advent)\\b',
  );
  if (!found) return null;
  draft.rule = ADVENT_SUNDAYS;
  return true;
}

function everySoManyDays(reader: Reader, draft: Draft): true | null {
  const step =
    reader.take(`every\\s+(${NUMBER})\\s+days\\b`) ?? reader.take(`every\\s+(other|${NTH_WORD})\\s+day\\b(?!\\s+of)`);
  if (!step) return null;
  const word = (step[1] ?? '').toLowerCase();
  const count = word === 'other' ? 2 : nthNumber(word) || numberOf(word);
  if (count < 1) return null;
  draft.rule = count === 1 ? 'FREQ=DAILY' : `FREQ=DAILY;INTERVAL=${count}`;
  return true;
}

function monthly(reader: Reader, draft: Draft): true | null {
  return reader.attempt(() => {
    const word = reader.take(
      '(?:monthly|quarterly|(?:every|each|once\\s+a)\\s+(?:month|quarter))(?:,?\\s+on|,)?\\s+',
    )?.[0];
    const each = reader.take('(?:every|each)\\s+')?.[0];
    const the = /the/i.test(reader.take('(?:on\\s+)?(?:the\\s+)?')?.[0] ?? '');
    /** Whether it is said to be each month's, or each quarter's, where that must be; from its end where places are negative. */
    const ends = (needed: boolean, places: readonly number[]) => {
      const of = reader.take(OF_MONTH)?.[0] ?? word;
      if (/quarter/i.test(of ?? '')) {
        const isLast = places.every((n) => n < 0);
        if (!isLast && places.some((n) => n < 0))
          reader.error = 'Make two bookings for the first and the last month of a quarter.';
        draft.months = isLast ? [3, 6, 9, 12] : [1, 4, 7, 10];
      }
      return of !== undefined || !needed;
    };
    const edge = reader.take(
      '(?:at\\s+)?(?:the\\s+)?(end|start|beginning)(?=\\s+of\\s+(?:each|every)\\s+(?:month|quarter)\\b)',
    )?.[1];
    if (edge !== undefined) {
      const place = edge.toLowerCase() === 'end' ? -1 : 1;
      draft.rule = `FREQ=MONTHLY;BYMONTHDAY=${place}`;
      return ends(true, [place]) || null;
    }
    const nth = reader.attempt(() => {
      const found = reader.list(() => reader.take(`${NTH_WORD}(?=\\s|,)`));
      if (found.length === 0 || !reader.sees(`\\s+(?:${DAY}|(?:working\\s+|business\\s+|week)?day|workday|week-?end)`))
        return null;
      return found.map((one) => nthNumber(one[0]));
    });
    if (nth) {
      const isLast = nth[0] === -1;
      if (reader.sees(`\\s+week-?ends?\\b(?!\\s+(?:in|of)\\s+${MONTH})`)) {
        const words = isLast ? 'last' : nth.map((n) => NTH_NAMES[n]).join(' and ') || 'first';
        reader.error = `Whose weekend is it where a month begins or ends within one? Write “${words} Saturday and Sunday of the month”.`;
        return true;
      }
      if (reader.take('\\s+(?:working\\s+day|workday|business\\s+day|weekday)s?\\b')) {
        draft.rule = `FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=${nth.join()}`;
        return ends(false, nth) || null;
      }
      const day = reader.take(`\\s+${DAY}`);
      // Of one month it is a date; "every second Thursday" is each other one.
      if (day && !reader.sees(`\\s+(?:in|of)\\s+(?:${MONTH}|advent\\b)`)) {
        // The Monday that was, or the last one of each month?
        if (isLast && nth.length === 1 && each === undefined && word === undefined && !reader.sees(OF_MONTH))
          return null;
        const other = each !== undefined && nth.length === 1 && nth[0] === 2;
        if (other && !reader.sees(OF_MONTH) && reader.ways.of('second of the month', 2) === 0) return null;
        draft.rule = `FREQ=MONTHLY;BYDAY=${nth.map((n) => `${n}${WEEKDAYS[weekdayNumber(day[0].trim())] ?? 'MO'}`).join()}`;
        return ends(false, nth) || null;
      }
      const months = day ? reader.attempt(() => (reader.take('\\s+(?:in|of)\\s+') ? monthList(reader) : null)) : null;
      if (day && months && months.length > 1) {
        draft.rule = `FREQ=MONTHLY;BYDAY=${nth.map((n) => `${n}${WEEKDAYS[weekdayNumber(day[0].trim())] ?? 'MO'}`).join()}`;
        draft.months = months;
        return true;
      }
      if (day) return null;
      if (!reader.take('\\s+days?\\b')) return null;
      draft.rule = `FREQ=MONTHLY;BYMONTHDAY=${nth.join()}`;
      return ends(true, nth) || null;
    }
    const ofMonth = reader.attempt(() => {
      const found = reader.take(`${NTH_WORD}(?=${OF_MONTH})`);
      const place = nthNumber(found?.[0] ?? '');
      return found && ends(true, [place]) ? place : null;
    });
    if (ofMonth !== null) {
      draft.rule = `FREQ=MONTHLY;BYMONTHDAY=${ofMonth}`;
      return true;
    }
    const range = reader.take(
      `(?:from\\s+)?(?:the\\s+)?(\\d{1,2})(?:st|nd|rd|th)?${TO}(?:the\\s+)?(\\d{1,2})(?:st|nd|rd|th)?(?=${OF_MONTH})`,
    );
    if (range) {
      const [first, last] = [Number(range[1]), Number(range[2])];
      if (first < 1 || last > 31 || last < first) return null;
      draft.rule = `FREQ=MONTHLY;BYMONTHDAY=${Array.from({ length: last - first + 1 }, (_, i) => first + i).join()}`;
      return ends(true, [first]) || null;
    }
    const numbers = reader.list(() =>
      reader.take(
        `(?:the\\s+)?(\\d{1,2})(?:st|nd|rd|th)\\b(?:\\s+day\\b)?(?!\\s+(?:(?:of\\s+)?${MONTH}|week))(?!${TO})`,
      ),
    );
    // "1st, 3rd and 5th of December" are dates.
    if (reader.sees(`${ALSO}\\d{1,2}(?:st|nd|rd|th)?\\s+(?:of\\s+)?${MONTH}`)) return null;
    const withLast = numbers.length > 0 && reader.take(`${ALSO}last\\s+day(?=${OF_MONTH})`) !== null;
    // Several of them are each month's; one alone may be a date.
    const goesOn = reader.sees('\\s*(?:,|and\\b|&)\\s*(?:the\\s+)?\\d');
    const several =
      numbers.length > 1 ||
      (the && !goesOn && numbers.length === 1 && each === undefined && reader.ways.of('of each month', 2) === 1);
    const days = [...numbers.map((one) => Number(one[1])), ...(withLast ? [-1] : [])];
    if (numbers.length === 0 || (!ends(each === undefined, days) && !several)) return null;
    draft.rule = `FREQ=MONTHLY;BYMONTHDAY=${days.join()}`;
    return true;
  });
}

/** "monthly", "quarterly": on the first day of each, or on this day of its month. */
function eachMonth(reader: Reader, draft: Draft): true | null {
  const found = reader.take('(month|quarter)ly\\b|(?:once\\s+a|every|each)\\s+(month|quarter)\\b');
  if (!found) return null;
  const own = civil(reader.context.today);
  const [month, day] = reader.ways.of('this day of it', 2) === 0 ? [1, 1] : [own.month, own.day];
  if (/quarter/i.test(found[0]))
    draft.months = [0, 3, 6, 9].map((after) => ((month - 1 + after) % 12) + 1).sort((a, b) => a - b);
  draft.rule = `FREQ=MONTHLY;BYMONTHDAY=${day}`;
  return true;
}

export const byRule = clause((reader, draft) => {
  const written = reader.take('by the rule\\s+(\\S+)')?.[1] ?? '';
  let end = written.length;
  while (end > 0 && ',;'.includes(written[end - 1] ?? '')) end--;
  if (end === 0) return null;
  draft.rule = written.slice(0, end);
  return true;
});
