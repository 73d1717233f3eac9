import type { SetOfHours, When } from './schema';
import { setsOf } from './sets-of-hours';
import type { WrittenWindow } from './written';
import { WEEKDAYS, addDays, civil, parseDate, type LocalDate } from './dates';
import { parseRule, type Rule } from './rule';
import { ADVENT_SUNDAYS, yearRange } from './year-days';

export const DAY_WORDS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
export const MONTH_WORDS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/**
 * A `When` in words: "weekdays 05:30–10:00, 1 Dec 2026 to 28 Feb 2027, not on storm-days". `{}` is "always". Several sets of hours that
 * differ only in their days and times are "weekdays 07:00–10:00 and weekends 10:00–16:00, …"; others are separated by semicolons. Calendars
 * are written as their ids, as `readWhen` reads them, unless `calendar` names them.
 */
export function describeWhen(when: When, calendar = (id: string) => id): string {
  const sets = setsOf(when).map((set) => partsOfSet(set, calendar));
  const [first, ...more] = sets;
  if (!first || more.length === 0) return joined([first?.hours ?? '', first?.rest ?? '']) || 'always';
  if (first.isWeekly && more.every(({ rest, isWeekly }) => isWeekly && rest === first.rest))
    return joined([sets.map(({ hours }) => hours).join(' and '), first.rest]);
  return sets
    .map(({ hours, rest, isSingle }) => joined([hours || (isSingle ? '00:00–24:00' : 'daily'), rest]))
    .join('; ');
}

const joined = (parts: readonly string[]) => parts.filter((part) => part !== '').join(', ');

/** What a set of hours says of its days and times, and of all else; and whether it comes on days of the week. */
function partsOfSet(
  set: SetOfHours,
  calendar: (id: string) => string,
): { readonly hours: string; readonly rest: string; readonly isWeekly: boolean; readonly isSingle: boolean } {
  const { from, to, repeat, also, except, only, not, clock } = set;
  const single = from !== undefined && from === to && repeat === undefined;
  const long = longWindow(set, single);
  const days = repeat === undefined ? null : ruleWords(repeat);
  const windows = set.windows?.map(windowWords).join(', ');
  const hours = long ?? [days ?? (windows && !single ? 'daily' : null), windows].filter((part) => part).join(' ');
  const rest = [
    single && long !== null ? '' : rangeWords(from, to, single),
    also && also.length > 0 ? `also ${also.map(dateWords).join(', ')}` : '',
    except && except.length > 0 ? `except ${except.map(dateWords).join(', ')}` : '',
    only ? `only on ${only.map(calendar).join(', ')}` : '',
    not ? `not on ${not.map(calendar).join(', ')}` : '',
    clock && clock !== 'site' ? `${clock.replaceAll('_', ' ')} time` : '',
  ];
  const isWeekly = days !== null && windows !== undefined && !single;
  return { hours, rest: joined(rest), isWeekly, isSingle: single };
}

/** "05:30–10:00", "18:00–06:00 3 days later". */
function windowWords([start, end, days]: WrittenWindow): string {
  const span = `${edgeWords(start)}–${edgeWords(end)}`;
  return days === undefined ? span : `${span} ${days === 1 ? 'the next day' : `${days} days later`}`;
}

/** "Fri 18:00 to Mon 06:00", "5 Dec 2026 18:00 to 7 Dec 2026 06:00": one window over days that begins on one weekday, or date. Null for others. */
function longWindow({ from, repeat, windows = [] }: SetOfHours, single: boolean): string | null {
  const [[start, end, days] = ['', '']] = windows;
  const date = parseDate(from ?? '');
  if (windows.length !== 1 || days === undefined || date === null) return null;
  const said = (first: string, last: string) => `${first} ${edgeWords(start)} to ${last} ${edgeWords(end)}`;
  if (single) return said(dateWords(from ?? ''), dateOfWords(addDays(date, days)));
  const rule = repeat === undefined ? null : parseRule(repeat);
  const weekly = rule?.ok && rule.value.interval === 1 ? weeklyDays(rule.value) : null;
  const [weekday, ...others] = weekly ?? [];
  // A week later is the same weekday, which would read as the same day.
  if (weekday === undefined || others.length > 0 || days >= WEEKDAYS.length) return null;
  return said(DAY_WORDS[weekday] ?? '', DAY_WORDS[(weekday + days) % WEEKDAYS.length] ?? '');
}

const EDGE_WORDS: Readonly<Record<string, string>> = { opens: 'opening', closes: 'closing' };

/** "06:30", "opening", "30 min before sunset". Offsets with seconds, which people don't say, stay as they are. */
export function edgeWords(edge: string): string {
  const found = /^([a-z]+)(?:([+-])(\d{2}):(\d{2}))?$/.exec(edge);
  if (!found) return edge;
  const [, name = '', sign, hours, minutes] = found;
  const word = EDGE_WORDS[name] ?? name;
  const length = [
    Number(hours ?? 0) > 0 ? `${Number(hours)} h` : '',
    Number(minutes ?? 0) > 0 ? `${Number(minutes)} min` : '',
  ];
  const said = length.filter((part) => part !== '').join(' ');
  return said === '' ? word : `${said} ${sign === '-' ? 'before' : 'after'} ${word}`;
}

/** A date without its year: "20 Dec". */
export function dayWords(date: LocalDate): string {
  const { month, day } = civil(date);
  return `${day} ${MONTH_WORDS[month - 1] ?? ''}`;
}

const dateWords = (text: string): string => dateOfWords(parseDate(text) as LocalDate);

const dateOfWords = (date: LocalDate): string => `${dayWords(date)} ${civil(date).year}`;

/** A date that is both first and last stands once, unless something repeats in it: then it is a range, not a date of that weekday. */
function rangeWords(from: string | undefined, to: string | undefined, single: boolean): string {
  if (from !== undefined && single) return dateWords(from);
  if (from !== undefined)
    return to === undefined ? `from ${dateWords(from)}` : `${dateWords(from)} to ${dateWords(to)}`;
  return to === undefined ? '' : `until ${dateWords(to)}`;
}

/** What a rule says, and how many times it comes. */
function ruleWords(text: string): string {
  if (text === ADVENT_SUNDAYS) return 'Advent Sundays';
  const read = parseRule(text);
  if (!read.ok) return text;
  const { count, ...rule } = read.value;
  const said = weeklyWords(rule) ?? plainWords(rule);
  if (said === null) return `by the rule ${text}`;
  return count === undefined ? said : `${said} ${count} times`;
}

const monthsIn = (months: readonly number[] | undefined) =>
  months ? ` in ${months.map((month) => MONTH_WORDS[month - 1]).join(', ')}` : '';

/** "weekdays", "every 2 weeks Mon", "Tue in Dec", "daily in Jun, Jul", "Mon in even weeks"; null where a rule says more. */
function weeklyWords({ freq, interval, byDay, byMonth, byWeekNo, ...rest }: Rule): string | null {
  const { weekStart, ...others } = rest;
  if (weekStart !== 0 || Object.values(others).some((part) => part !== undefined)) return null;
  if (byDay?.some(({ nth }) => nth !== undefined)) return null;
  const days = byDay?.map(({ weekday }) => weekday).sort((a, b) => a - b);
  const key = days?.join();
  const names =
    key === '0,1,2,3,4' ? 'weekdays' : key === '5,6' ? 'weekends' : days?.map((day) => DAY_WORDS[day]).join(' ');
  if (freq === 'YEARLY') {
    const parity = [2, 1].find((first) => byWeekNo?.join() === weeksFrom(first).join());
    if (interval !== 1 || byMonth || !names || parity === undefined) return null;
    return `${days?.length === 7 ? 'daily' : names} in ${parity === 2 ? 'even' : 'odd'} weeks`;
  }
  if (byWeekNo) return null;
  if (freq === 'WEEKLY' && names)
    return `${interval === 1 ? names : `every ${interval} weeks ${names}`}${monthsIn(byMonth)}`;
  return freq === 'DAILY' && interval === 1 && !byDay && byMonth ? `daily${monthsIn(byMonth)}` : null;
}

/** Every second week of a year from its first or second one on (ISO 8601). */
export const weeksFrom = (first: number): number[] =>
  Array.from({ length: 27 }, (_, i) => first + 2 * i).filter((week) => week <= 53);

const NTH_WORDS: Record<number, string> = {
  1: 'first',
  2: 'second',
  3: 'third',
  4: 'fourth',
  5: 'fifth',
  [-1]: 'last',
  [-2]: 'second last',
};

const ordinal = (n: number) => `${n}${['th', 'st', 'nd', 'rd'][n > 3 && n < 21 ? 0 : n % 10] ?? 'th'}`;

/** "every 3 days", "the first Mon of the month", "the 1st, 15th of the month"; null where a rule says more. */
function plainWords({
  freq,
  interval,
  weekStart: _weekStart,
  byDay,
  byMonthDay,
  byMonth,
  bySetPos,
  byYearDay,
  ...rest
}: Rule): string | null {
  if (byYearDay) {
    const others = [byDay, byMonthDay, byMonth, bySetPos, ...Object.values(rest)];
    const range =
      freq === 'YEARLY' && interval === 1 && others.every((one) => one === undefined) && yearRange(byYearDay);
    return range
      ? `every year from ${range.map(({ day, month }) => `${day} ${MONTH_WORDS[month - 1] ?? ''}`).join(' to ')}`
      : null;
  }
  if (Object.values(rest).some((part) => part !== undefined)) return null;
  if (freq === 'DAILY')
    return byDay || byMonthDay || byMonth || bySetPos ? null : interval === 1 ? 'daily' : `every ${interval} days`;
  if (interval !== 1) return null;
  if (freq === 'YEARLY') return bySetPos ? null : yearlyWords(byMonth, byMonthDay, byDay);
  if (freq !== 'MONTHLY') return null;
  const said = monthlyWords(byMonthDay, byDay, bySetPos);
  return said === null ? null : `${said}${monthsIn(byMonth)}`;
}

/** "the first Mon of the month", "the 1st, 15th of the month", "the last 3 days of the month"; null where a rule says more. */
function monthlyWords(byMonthDay: Rule['byMonthDay'], byDay: Rule['byDay'], bySetPos: Rule['bySetPos']): string | null {
  if (bySetPos) {
    const words = bySetPos.map((n) => NTH_WORDS[n]);
    const working =
      !byMonthDay && byDay?.map(({ weekday, nth }) => (nth === undefined ? weekday : -1)).join() === '0,1,2,3,4';
    return working && words.every((word) => word !== undefined)
      ? `the ${words.join(' and ')} working day of the month`
      : null;
  }
  if (byMonthDay && !byDay) {
    const count = byMonthDay.length;
    if (count > 1 && byMonthDay.every((n, i) => n === i - count)) return `the last ${count} days of the month`;
    const dates = byMonthDay.filter((n) => n > 0).map(ordinal);
    if (count === 1 && byMonthDay[0] === -2) return 'second last day of the month';
    const last = byMonthDay.at(-1) === -1;
    if (dates.length + (last ? 1 : 0) < count) return null;
    if (!last) return `the ${dates.join(', ')} of the month`;
    return dates.length === 0 ? 'last day of the month' : `the ${dates.join(', ')} and last day of the month`;
  }
  if (!byDay || byMonthDay || byDay.some((day) => day.weekday !== byDay[0]?.weekday)) return null;
  const words = byDay.map((day) => NTH_WORDS[day.nth ?? 0]);
  return words.every((word) => word !== undefined)
    ? `the ${words.join(' and ')} ${DAY_WORDS[byDay[0]?.weekday ?? 0] ?? ''} of the month`
    : null;
}

/** "every year on 17 May", "every year from 1 to 24 Dec", "every year on the fourth Thu of Nov". */
function yearlyWords(byMonth: Rule['byMonth'], byMonthDay: Rule['byMonthDay'], byDay: Rule['byDay']): string | null {
  const [month] = byMonth ?? [];
  if (byMonth?.length !== 1 || month === undefined) return null;
  const name = MONTH_WORDS[month - 1] ?? '';
  if (byDay) {
    const [day] = byDay;
    const nth = NTH_WORDS[day?.nth ?? 0];
    return byDay.length === 1 && !byMonthDay && day && nth
      ? `every year on the ${nth} ${DAY_WORDS[day.weekday] ?? ''} of ${name}`
      : null;
  }
  const [first = 0, ...more] = byMonthDay ?? [];
  if (first < 1 || more.some((day) => day < 1)) return null;
  if (more.some((day, i) => day !== first + i + 1)) return `every year on ${[first, ...more].join(', ')} ${name}`;
  return more.length === 0 ? `every year on ${first} ${name}` : `every year from ${first} to ${more.at(-1)} ${name}`;
}

/** The weekdays (0 Monday) of a plain weekly rule, ascending; null where it is more than that. */
export function weeklyDays(rule: Rule): number[] | null {
  if (
    rule.freq !== 'WEEKLY' ||
    !rule.byDay ||
    rule.byMonth ||
    rule.bySetPos ||
    rule.count !== undefined ||
    rule.until !== undefined
  )
    return null;
  return rule.byDay.map((day) => day.weekday).sort((a, b) => a - b);
}

/** The RRULE of chosen weekdays (0 Monday). */
export function weeklyRule(days: readonly number[]): string {
  return `FREQ=WEEKLY;BYDAY=${[...days]
    .sort((a, b) => a - b)
    .map((day) => WEEKDAYS[day])
    .join()}`;
}
