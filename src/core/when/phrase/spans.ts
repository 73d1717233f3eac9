import { addDays, civil, dateOf, daysInMonth, weekdayIndex, type LocalDate } from '../dates';
import { addDate, clause, setRange } from './clause';
import type { Draft } from './draft';
import { FEASTS_OF_DAYS, feastIn } from './feasts';
import { YEAR, endOf, later, nthOf, type Reader, type Unit } from './reader';
import { MONTH, NTH_WORD, NUMBER, TO, monthNumber, nthNumber, numberOf } from './vocabulary';
import { NO_DAY } from './weekdays';

/** "next week", "this weekend", "the rest of the month", "December 2026", "for two weeks". */
export const spans = clause((reader, draft) => {
  const { today } = reader.context;
  if (reader.take('(?:for\\s+)?(?:the\\s+)?rest\\s+of\\s+(?:today|the\\s+day)\\b')) {
    draft.now = true;
    draft.ends = '24:00';
    return true;
  }
  const isOneDate = draft.onDate !== undefined && draft.to === draft.onDate && draft.also.length === 0;
  if (draft.from !== undefined && (draft.to === undefined || isOneDate) && reader.take('(?:and\\s+)?onwards?\\b')) {
    draft.to = undefined;
    return true;
  }
  const rest = reader.take('(?:for\\s+)?(?:the\\s+)?rest\\s+of\\s+(?:the\\s+|this\\s+)?(week|month|year)\\b');
  if (rest) return setRange(reader, draft, today, endOf(today, unitOf(rest[1])));
  const restOf = reader.attempt(() =>
    reader.take('(?:for\\s+)?(?:the\\s+)?rest\\s+of\\s+(?=[a-z])') ? monthSpan(reader, draft) : null,
  );
  if (restOf) return restOf;
  const named = namedDays(reader);
  if (named) return setRange(reader, draft, ...named);
  const moment = reader.sees(`${NUMBER}\\s+(?:day|week|month)s?\\s+from\\s+(?:now|today)\\b`);
  if (moment && reader.ways.of('as long from today', 2) === 0) {
    const found = reader.take(`(${NUMBER})\\s+(day|week|month)s?\\s+from\\s+(?:now|today)\\b`);
    const unit = (found?.[2] ?? 'day').toLowerCase() as 'day' | Unit;
    return addDate(reader, draft, later(today, numberOf(found?.[1] ?? '1'), unit));
  }
  const length =
    reader.take(`(?:for|over|within|in|during)\\s+(?:the\\s+)?next\\s+(${NUMBER})\\s+(day|week|month|year)s?\\b`) ??
    reader.take(`for\\s+(?:a\\s+total\\s+of\\s+)?(${NUMBER})\\s+(day|week|month|year)s?\\b`) ??
    reader.take(`(?:the\\s+)?next\\s+(?!an?\\b)(${NUMBER})\\s+(day|week|month|year)s?\\b`) ??
    reader.take(`(${NUMBER})\\s+(day|week|month|year)s?(?=\\s*,?\\s+(?:from|starting|beginning|as\\s+of)\\b)`) ??
    (reader.take('(?:for\\s+)?a\\s+fortnight(?=\\s+(?:from|starting|beginning)\\b)|for\\s+a\\s+fortnight\\b')
      ? ['', '2', 'week']
      : null);
  if (length) {
    const count = numberOf(length[1] ?? '1');
    if (count < 1) reader.error = 'Write at least 1 day or week.';
    draft.length = { count, unit: length[2]?.toLowerCase() === 'day' ? 'day' : unitOf(length[2]) };
    return true;
  }
  return (
    edgeSpan(reader, draft) ??
    weekSpan(reader, draft) ??
    longSpan(reader, draft) ??
    months(reader, draft) ??
    monthSpan(reader, draft)
  );
});

/** "next week", "the whole of this month", "over Easter", "Christmas week", "in Advent". */
export function namedDays(reader: Reader): readonly [LocalDate, LocalDate] | null {
  const { today } = reader.context;
  if (reader.take('(?:over\\s+|on\\s+|during\\s+)?(?:the\\s+)?easter\\s+(?:weekend|holidays?)\\b'))
    return overDays(reader, 'easter');
  const second = reader.take('(?:the\\s+)?(week|month)\\s+after\\s+next\\b')?.[1]?.toLowerCase();
  if (second !== undefined) {
    const [first] = spanNamed(today, 'next', second);
    const from = later(first, 1, second as Unit);
    return [from, endOf(from, second as Unit)];
  }
  const over = reader.take(
    `over\\s+(?:the\\s+)?(?:(coming\\s+)?weekend|(${Object.keys(FEASTS_OF_DAYS).join('|')}))\\b(?!\\s+week\\b)`,
  );
  if (over) return overDays(reader, over[2]);
  if (reader.take('(?:(?:in|during|for|throughout)\\s+|all\\s+(?:of\\s+)?)?advent\\b(?!\\s+sunday)'))
    return overDays(reader, 'advent');
  const feast = reader.take(
    "(?:(?:in|during|over)\\s+)?(?:the\\s+)?(christmas|new\\s+year)(?:['’]?s)?\\s+week\\b",
  )?.[1];
  if (feast !== undefined) {
    const monday = (year: number) => {
      const day = feastIn(feast, year) ?? today;
      return addDays(day, -weekdayIndex(day));
    };
    const own = civil(today).year;
    const first = addDays(monday(own), 6) < today ? monday(own + 1) : monday(own);
    return [first, addDays(first, 6)];
  }
  const named = reader.take(
    '(?:(?:for|during|in|over)\\s+)?(?:(?:the\\s+)?(?:all|whole)\\s+(?:of\\s+)?)?(?:the\\s+)?((?:this\\s+)?coming|this|next|following|all|whole)\\s+(week(?:end)?|month|quarter|year)\\b',
  );
  return named && spanNamed(today, named[1] ?? '', named[2] ?? '');
}

const unitOf = (word: string | undefined) => (word ?? 'week').toLowerCase() as Unit;

/** "over Easter", "over the weekend". */
function overDays(reader: Reader, feast: string | undefined): [LocalDate, LocalDate] {
  const { today } = reader.context;
  if (feast === undefined) return [...spanNamed(today, 'this', 'weekend')];
  const [first, last] = FEASTS_OF_DAYS[feast.toLowerCase()] ?? [feast, feast];
  const next = (name: string, near: LocalDate) =>
    [0, 1].map((later) => feastIn(name, civil(near).year + later)).find((date) => date !== null && date >= near) ??
    near;
  const to = next(last, today);
  const from = next(first, addDays(to, -28));
  return [from < today ? today : from, to];
}

const WEEK = '(?:calendar\\s+)?(?:w(?:ee)?ks?|kw|w(?=\\d))\\s*\\.?';
const ISO_WEEK = '((?:19|2[01])\\d{2})-?W(\\d{2})(?!\\d)';

/** "week 50", "weeks 50 to 52" (ISO 8601), "week commencing 7 Dec", "the week before Christmas". */
function weekSpan(reader: Reader, draft: Draft): true | null {
  const { today } = reader.context;
  const iso = reader.take(`(?:in\\s+|during\\s+)?${ISO_WEEK}`);
  const numbered = iso
    ? [iso[0], iso[2], undefined, iso[1]]
    : reader.take(
        `(?:in\\s+|during\\s+|for\\s+)?(?:the\\s+)?${WEEK}\\s*(\\d{1,2})(?!\\d)(?:(?:${TO}|\\s+and\\s+)(?:${WEEK}\\s*)?(\\d{1,2})(?![\\d:.]|\\s*(?:am|pm)))?(?:\\s+(?:of\\s+)?((?:19|2[01])\\d{2})\\b)?`,
      );
  if (numbered) {
    const [first, last] = [Number(numbered[1]), Number(numbered[2] ?? numbered[1])];
    const own = civil(addDays(today, 3 - weekdayIndex(today))).year;
    const monday = (year: number) => addDays(mondayOfWeekOne(year), (first - 1) * 7);
    const year = numbered[3] ? Number(numbered[3]) : addDays(monday(own), 6) < today ? own + 1 : own;
    const count = ((mondayOfWeekOne(year + 1) as number) - mondayOfWeekOne(year)) / 7;
    if (first < 1 || first > count || last < 1 || last > 53) {
      reader.error = `${year} has weeks 1 to ${count}. Write one of them.`;
      return true;
    }
    const from = monday(year);
    const to = last >= first ? addDays(from, (last - first) * 7 + 6) : addDays(mondayOfWeekOne(year + 1), last * 7 - 1);
    return setRange(reader, draft, from, to);
  }
  const weekend = reader.attempt(() => {
    const side = reader.take('(?:on\\s+)?(?:the\\s+)?week-?end\\s+(of|before|after)\\s+(?:the\\s+)?')?.[1];
    const date = side === undefined ? null : reader.date();
    if (side === undefined || date === null) return null;
    const saturday = addDays(date, 5 - weekdayIndex(date));
    const isOf = /of/i.test(side);
    // The one before a Sunday is that of the week before.
    const first = isOf
      ? saturday
      : /before/i.test(side)
        ? addDays(date, -((weekdayIndex(date) + 1) % 7) - 1)
        : saturday > date
          ? saturday
          : addDays(saturday, 7);
    return setRange(reader, draft, first, addDays(first, 1));
  });
  if (weekend) return weekend;
  return reader.attempt(() => {
    const named = reader.take(
      '(?:in\\s+|during\\s+)?(?:the\\s+)?(?:w/c\\s+|weeks?\\s+(?:(commencing|beginning|starting|of|from)|(before|after))\\s+)(?:the\\s+)?',
    );
    const date = named && reader.date();
    if (!named || date === null) return null;
    const side = named[2]?.toLowerCase();
    const first =
      side === 'before'
        ? addDays(date, -7)
        : side === 'after'
          ? addDays(date, 1)
          : addDays(date, /of/i.test(named[1] ?? '') ? -weekdayIndex(date) : 0);
    return setRange(reader, draft, first, addDays(first, 6));
  });
}

/** The Monday of a year's first week: that which holds 4 January (ISO 8601). */
function mondayOfWeekOne(year: number): LocalDate {
  const fourth = dateOf(year, 1, 4);
  return addDays(fourth, -weekdayIndex(fourth));
}

/** "Q1 2027", "in 2027". */
function longSpan(reader: Reader, draft: Draft): true | null {
  const { today } = reader.context;
  const quarter = reader.take(
    '(?:in\\s+|during\\s+|all\\s+(?:of\\s+)?)?(?:the\\s+)?Q([1-4])(?:[\\s/]+(?:of\\s+)?((?:19|2[01])\\d{2}))?\\b',
  );
  if (quarter) {
    const month = Number(quarter[1]) * 3;
    const own = civil(today);
    const year = quarter[2] ? Number(quarter[2]) : own.year + (month < own.month ? 1 : 0);
    const first = dateOf(year, month - 2, 1);
    return setRange(
      reader,
      draft,
      quarter[2] || first > today ? first : today,
      dateOf(year, month, daysInMonth(year, month)),
    );
  }
  const year = reader.take('(?:in|during|throughout|all(?:\\s+of)?)\\s+((?:19|2[01])\\d{2})\\b');
  if (!year) return null;
  return setRange(reader, draft, dateOf(Number(year[1]), 1, 1), dateOf(Number(year[1]), 12, 31));
}

/** "the first three days of each month", "the last week of December": a week is seven days, or one from Monday to Sunday. */
function edgeSpan(reader: Reader, draft: Draft): true | null {
  const weekend = reader.take(
    `(?:on\\s+)?(?:the\\s+)?(${NTH_WORD})\\s+week-?end\\s+(?:in|of)\\s+${MONTH}(?:,?\\s+${YEAR})?`,
  );
  if (weekend) {
    const [, which = '', name = '', inYear] = weekend;
    const saturday = (y: number) => nthOf(y, monthNumber(name), nthNumber(which), 5);
    const range = coming(reader, inYear, (y) => {
      const first = saturday(y);
      return first === null ? null : [first, addDays(first, 1)];
    });
    return range && setRange(reader, draft, ...range);
  }
  const found = reader.take(
    `(?:(?:on|in|during|for)\\s+)?(?:the\\s+)?(first|last)\\s+(?:(${NUMBER})\\s+)?(days?|weeks?)\\s+(?:of|in)\\s+(?:(?:the|every|each)\\s+(month)\\b|(?:the\\s+|this\\s+)?(year)\\b|${MONTH}(?:,?\\s+${YEAR})?)`,
  );
  if (!found) return null;
  const [, side = '', number = '1', unit = '', ofMonth, ofYear, month = '', year] = found;
  const isWeek = /^week/i.test(unit);
  const count = numberOf(number) * (isWeek ? 7 : 1);
  const isFirst = side.toLowerCase() === 'first';
  if (count < 1 || count > 28) {
    reader.error = 'Write 1 to 28 days, or one to four weeks.';
    return true;
  }
  if (ofMonth !== undefined) {
    draft.rule = `FREQ=MONTHLY;BYMONTHDAY=${Array.from({ length: count }, (_, i) => (isFirst ? i + 1 : i - count)).join()}`;
    return true;
  }
  const [start, end] = ofYear !== undefined ? [1, 12] : [monthNumber(month), monthNumber(month)];
  const whole = isWeek && reader.ways.of('whole weeks of it', 2) === 1;
  const range = coming(reader, year, (y) => {
    const [first, last] = [dateOf(y, start, 1), dateOf(y, end, daysInMonth(y, end))];
    const from = isFirst
      ? addDays(first, whole ? (7 - weekdayIndex(first)) % 7 : 0)
      : addDays(last, 1 - count - (whole ? (weekdayIndex(last) + 1) % 7 : 0));
    return [from, addDays(from, count - 1)];
  });
  return range && setRange(reader, draft, ...range);
}

/** Days of each year: those of the year that is said, else the next that are not over. */
function coming(
  reader: Reader,
  year: string | undefined,
  of: (year: number) => readonly [LocalDate, LocalDate] | null,
): readonly [LocalDate, LocalDate] | null {
  if (year !== undefined) return of(Number(year));
  const { today } = reader.context;
  const own = civil(today).year;
  return [of(own), of(own + 1)].find((range) => range !== null && range[1] >= today) ?? null;
}

/** Months of a season in the north, where our network is: common practice, no source. */
const SEASONS: Readonly<Record<string, readonly [number, number]>> = {
  spring: [3, 5],
  summer: [6, 8],
  autumn: [9, 11],
  winter: [12, 2],
};

/** The months of a season that is named; null for none. */
export function seasonMonths(reader: Reader): number[] | null {
  const found = reader.take(`(?:the\\s+)?(${Object.keys(SEASONS).join('|')})(?:\\s+months)?\\b`)?.[1];
  const [first, last] = SEASONS[found?.toLowerCase() ?? ''] ?? [0, 0];
  return first === 0
    ? null
    : Array.from({ length: ((last - first + 12) % 12) + 1 }, (_, i) => ((first - 1 + i) % 12) + 1);
}

const SEASON = `(?:(?:in|during|over|for|all|this|next|every|each)\\s+)?(?:the\\s+)?(?:whole\\s+)?(${Object.keys(SEASONS).join('|')})(?:\\s+(?:months?|season)\\b)?(?:\\s+(?:of\\s+)?${YEAR})?\\b`;
const MONTH_RANGE = `(?:(?:from|between)\\s+)?${MONTH}(?:\\s+${YEAR})?(?:${TO}|\\s+and\\s+)${MONTH}(?:\\s+${YEAR})?${NO_DAY}`;

/** "from June to August", "Jun-Aug", "this summer": those that come, or each year's. */
function months(reader: Reader, draft: Draft): true | null {
  return reader.attempt(() => {
    const season = reader.take(SEASON);
    const range = season ? null : reader.take(MONTH_RANGE);
    if (!season && !range) return null;
    // Two months with "and" are a range only after "between" or with their years.
    if (range && /\sand\s/i.test(range[0]) && !range[4] && !/^between/i.test(range[0])) return null;
    const [first, last] = season
      ? (SEASONS[(season[1] ?? '').toLowerCase()] ?? [1, 12])
      : [monthNumber(range?.[1] ?? ''), monthNumber(range?.[3] ?? '')];
    const wraps = last < first ? 1 : 0;
    const word = season?.[0].split(/\s/)[0]?.toLowerCase() ?? '';
    const said = season ? season[2] : range?.[4];
    const repeats = draft.days.size > 0 || draft.rule !== undefined || saysDaily(reader);
    const once = said !== undefined || /^(?:this|next)$/.test(word);
    if (!once && (repeats || /^(?:every|each)$/.test(word) || reader.ways.of('each year', 2) === 1)) {
      draft.months = Array.from({ length: last - first + 12 * wraps + 1 }, (_, i) => ((first - 1 + i) % 12) + 1);
      draft.daily = true;
      return true;
    }
    const { today } = reader.context;
    const own = civil(today);
    // The one that is now, or else comes; "next" is the one after this, or after that which comes.
    const current = own.year + (own.month <= last ? 0 : 1) - wraps;
    const isNow = dateOf(current, first, 1) <= today;
    const coming = current + (word === 'next' && (isNow || reader.ways.of('the one after', 2) === 1) ? 1 : 0);
    const start = said === undefined ? coming : Number(season ? said : (range?.[2] ?? Number(said) - wraps));
    const end = said === undefined || season ? start + wraps : Number(said);
    const from = dateOf(start, first, 1);
    return setRange(
      reader,
      draft,
      said === undefined && from < today ? today : from,
      dateOf(end, last, daysInMonth(end, last)),
    );
  });
}

/** "all December", "December 2026", and "in December" where no list of months follows: that December, or each. */
function monthSpan(reader: Reader, draft: Draft): true | null {
  const word =
    reader.take(
      '(?:(?:all|throughout|through|during|for)\\s+(?:of\\s+|the\\s+whole\\s+of\\s+)?|(?:the\\s+)?whole\\s+of\\s+|in\\s+(?:this\\s+)?|this\\s+(?:coming\\s+)?|next\\s+)',
    )?.[0] ?? '';
  const found = reader.take(`${MONTH}(?:\\s+(\\d{4})\\b)?${NO_DAY}(?!\\s*(?:,|and|or)\\s*${MONTH})(?!${TO}${MONTH})`);
  if (!found) return null;
  const [, name = '', year] = found;
  const month = monthNumber(name);
  // With weekdays, or daily, it is each year's.
  const each =
    /^in/i.test(word) && year === undefined && (draft.days.size > 0 || draft.rule !== undefined || saysDaily(reader));
  if (each) return null;
  if (/^in/i.test(word) && year === undefined && reader.ways.of('each month', 2) === 1) return null;
  const { today } = reader.context;
  const own = civil(today);
  const coming = own.year + (month < own.month ? 1 : 0);
  // Of a month that is still to come this year "next" may be that of the year after.
  const next =
    /^next/i.test(word) && (month === own.month || (month > own.month && reader.ways.of('of the year after', 2) === 1))
      ? 1
      : 0;
  const y = year ? Number(year) : coming + next;
  const first = dateOf(y, month, 1);
  if (/^through\s/i.test(word) && draft.from === undefined) draft.from = today;
  if (/^through\s/i.test(word))
    return setRange(reader, draft, draft.from ?? today, dateOf(y, month, daysInMonth(y, month)));
  return setRange(
    reader,
    draft,
    year === undefined && first < today ? today : first,
    dateOf(y, month, daysInMonth(y, month)),
  );
}

/** Whether days of each week or each day were said before, or are right after. */
const saysDaily = (reader: Reader) =>
  /^ ?(?:daily|(?:every|each) day)\b/i.test(reader.read()) || reader.sees(' ?,? ?(?:daily|(?:every|each) day)\\b');

export function spanNamed(today: LocalDate, which: string, what: string): readonly [LocalDate, LocalDate] {
  const next = ['next', 'coming', 'following'].includes(which.toLowerCase());
  const monday = addDays(today, (next ? 7 : 0) - weekdayIndex(today));
  switch (what.toLowerCase()) {
    case 'week':
      return [next ? monday : today, addDays(monday, 6)];
    case 'weekend': {
      // The one that comes; "next" is that of next week.
      const saturday = addDays(monday, 5);
      return [saturday < today ? today : saturday, addDays(monday, 6)];
    }
    case 'quarter': {
      const { year, month } = civil(today);
      const first = later(dateOf(year, month - ((month - 1) % 3), 1), next ? 3 : 0, 'month');
      return [next ? first : today, addDays(later(first, 3, 'month'), -1)];
    }
    default: {
      const unit = what.toLowerCase() as Unit;
      const { year, month } = civil(today);
      const first = later(unit === 'year' ? dateOf(year, 1, 1) : dateOf(year, month, 1), next ? 1 : 0, unit);
      return [next ? first : today, endOf(first, unit)];
    }
  }
}
