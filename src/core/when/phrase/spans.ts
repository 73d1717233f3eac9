import { addDays, civil, dateOf, daysInMonth, weekdayIndex, type LocalDate } from '../dates';
import { clause, setRange } from './clause';
import type { Draft } from './draft';
import { FEASTS_OF_DAYS, feastIn } from './feasts';
import { YEAR, endOf, later, type Reader, type Unit } from './reader';
import { MONTH, NUMBER, TO, monthNumber, numberOf } from './vocabulary';
import { NO_DAY } from './weekdays';

/** "next week", "this weekend", "the rest of the month", "December 2026", "for two weeks". */
export const spans = clause((reader, draft) => {
  const { today } = reader.context;
  if (reader.take('(?:for\\s+)?(?:the\\s+)?rest\\s+of\\s+(?:today|the\\s+day)\\b')) {
    draft.now = true;
    draft.ends = '24:00';
    return true;
  }
  if (reader.take('(?:over\\s+|on\\s+|during\\s+)?(?:the\\s+)?easter\\s+(?:weekend|holidays?)\\b'))
    return setRange(reader, draft, ...overDays(reader, 'easter'));
  const over = reader.take(
    `over\\s+(?:the\\s+)?(?:(coming\\s+)?weekend|(${Object.keys(FEASTS_OF_DAYS).join('|')}))\\b`,
  );
  if (over) return setRange(reader, draft, ...overDays(reader, over[2]));
  if (draft.from !== undefined && draft.to === undefined && reader.take('(?:and\\s+)?onwards?\\b')) return true;
  const rest = reader.take('(?:for\\s+)?(?:the\\s+)?rest\\s+of\\s+(?:the\\s+|this\\s+)?(week|month|year)\\b');
  if (rest) return setRange(reader, draft, today, endOf(today, unitOf(rest[1])));
  const named = reader.take(
    '(?:for\\s+|during\\s+|in\\s+|all\\s+(?:of\\s+)?)?(?:the\\s+)?(this|next|coming|all|whole)\\s+(week(?:end)?|month|year)\\b',
  );
  if (named) {
    const [first, last] = spanNamed(today, named[1] ?? '', named[2] ?? '');
    return setRange(reader, draft, first, last);
  }
  const length =
    reader.take(`for\\s+(?:the\\s+next\\s+|a\\s+total\\s+of\\s+)?(${NUMBER})\\s+(day|week|month|year)s?\\b`) ??
    reader.take(`(?:the\\s+)?next\\s+(?!an?\\b)(${NUMBER})\\s+(day|week|month|year)s?\\b`) ??
    reader.take(`(${NUMBER})\\s+(day|week|month|year)s?(?=\\s*,?\\s+(?:from|starting|beginning|as\\s+of)\\b)`) ??
    (reader.take('for\\s+a\\s+fortnight\\b') ? ['', '2', 'week'] : null);
  if (length) {
    const count = numberOf(length[1] ?? '1');
    if (count < 1) reader.error = 'Write for how many days or weeks: at least 1.';
    draft.length = { count, unit: length[2]?.toLowerCase() === 'day' ? 'day' : unitOf(length[2]) };
    return true;
  }
  return weekSpan(reader, draft) ?? longSpan(reader, draft) ?? months(reader, draft) ?? monthSpan(reader, draft);
});

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
  const from = next(first, addDays(to, -7));
  return [from < today ? today : from, to];
}

const WEEK = '(?:calendar\\s+)?w(?:ee)?ks?\\s*\\.?';

/** "week 50", "weeks 50 to 52" (ISO 8601), "week commencing 7 Dec", "the week before Christmas". */
function weekSpan(reader: Reader, draft: Draft): true | null {
  const { today } = reader.context;
  const numbered = reader.take(
    `(?:in\\s+|during\\s+|for\\s+)?(?:the\\s+)?${WEEK}\\s*(\\d{1,2})(?!\\d)(?:(?:${TO}|\\s+and\\s+)(?:${WEEK}\\s*)?(\\d{1,2})(?![\\d:.]|\\s*(?:am|pm)))?(?:\\s+(?:of\\s+)?((?:19|2[01])\\d{2})\\b)?`,
  );
  if (numbered) {
    const [first, last] = [Number(numbered[1]), Number(numbered[2] ?? numbered[1])];
    const own = civil(addDays(today, 3 - weekdayIndex(today))).year;
    const monday = (year: number) => addDays(mondayOfWeekOne(year), (first - 1) * 7);
    const year = numbered[3] ? Number(numbered[3]) : addDays(monday(own), 6) < today ? own + 1 : own;
    const count = ((mondayOfWeekOne(year + 1) as number) - mondayOfWeekOne(year)) / 7;
    if (first < 1 || first > count || last < 1 || last > 53) {
      reader.error = `${year} has weeks 1 to ${count}: write one of them.`;
      return true;
    }
    const from = monday(year);
    const to = last >= first ? addDays(from, (last - first) * 7 + 6) : addDays(mondayOfWeekOne(year + 1), last * 7 - 1);
    return setRange(reader, draft, from, to);
  }
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

/** Months of a season in the north, where our network is: common practice, no source. */
const SEASONS: Readonly<Record<string, readonly [number, number]>> = {
  spring: [3, 5],
  summer: [6, 8],
  autumn: [9, 11],
  winter: [12, 2],
};

const SEASON = `(?:(?:in|during|over|for|all|this|next|every|each)\\s+)?(?:the\\s+)?(?:whole\\s+)?(${Object.keys(SEASONS).join('|')})(?:\\s+${YEAR})?\\b`;
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
    // The one that is now, or else comes.
    const coming = own.year + (own.month <= last ? 0 : 1) - wraps;
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
      '(?:(?:all|throughout|through|during|for)\\s+(?:of\\s+|the\\s+whole\\s+of\\s+)?|(?:the\\s+)?whole\\s+of\\s+|in\\s+)',
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
  const y = year ? Number(year) : own.year + (month < own.month ? 1 : 0);
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
  /^\s*(?:daily|every\s+day|each\s+day)\b/i.test(reader.read()) ||
  reader.sees('\\s*,?\\s*(?:daily|every\\s+day|each\\s+day)\\b');

function spanNamed(today: LocalDate, which: string, what: string): readonly [LocalDate, LocalDate] {
  const next = /^(?:next|coming)$/i.test(which);
  const monday = addDays(today, (next ? 7 : 0) - weekdayIndex(today));
  switch (what.toLowerCase()) {
    case 'week':
      return [next ? monday : today, addDays(monday, 6)];
    case 'weekend': {
      // The one that comes; "next" is that of next week.
      const saturday = addDays(monday, 5);
      return [saturday < today ? today : saturday, addDays(monday, 6)];
    }
    default: {
      const unit = what.toLowerCase() as Unit;
      const { year, month } = civil(today);
      const first = later(unit === 'year' ? dateOf(year, 1, 1) : dateOf(year, month, 1), next ? 1 : 0, unit);
      return [next ? first : today, endOf(first, unit)];
    }
  }
}
