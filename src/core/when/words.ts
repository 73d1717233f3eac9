import type { When } from './schema';
import { WEEKDAYS, civil, parseDate, type LocalDate } from './dates';
import { parseRule, type Rule } from './rule';

export const DAY_WORDS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
export const MONTH_WORDS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/**
 * A `When` in words: "weekdays 05:30–10:00, 1 Dec 2026 to 28 Feb 2027, not on storm-days". `{}` is "always". Calendars are told by
 * their ids, as `readWhen` reads them, unless `calendar` names them.
 */
export function describeWhen(when: When, calendar = (id: string) => id): string {
  const days = when.repeat === undefined ? null : ruleWords(when.repeat);
  const windows = when.windows?.map(([start, end]) => `${edgeWords(start)}–${edgeWords(end)}`).join(', ');
  const single = when.from !== undefined && when.from === when.to;
  const main = [days ?? (windows && !single ? 'daily' : null), windows]
    .filter((part) => part !== null && part !== undefined)
    .join(' ');
  const parts = [
    main,
    rangeWords(when.from, when.to),
    when.also && when.also.length > 0 ? `also ${when.also.map(dateWords).join(', ')}` : '',
    when.except && when.except.length > 0 ? `except ${when.except.map(dateWords).join(', ')}` : '',
    when.only ? `only on ${when.only.map(calendar).join(', ')}` : '',
    when.not ? `not on ${when.not.map(calendar).join(', ')}` : '',
    when.clock && when.clock !== 'site' ? `${when.clock.replaceAll('_', ' ')} time` : '',
  ];
  return parts.filter((part) => part !== '').join(', ') || 'always';
}

/** "06:30", "opening", "30 min before closing". Offsets with seconds, which nobody says, stand as they are written. */
export function edgeWords(edge: string): string {
  const found = /^(opens|closes)(?:([+-])(\d{2}):(\d{2}))?$/.exec(edge);
  if (!found) return edge;
  const [, name, sign, hours, minutes] = found;
  const word = name === 'opens' ? 'opening' : 'closing';
  const length = [
    Number(hours ?? 0) > 0 ? `${Number(hours)} h` : '',
    Number(minutes ?? 0) > 0 ? `${Number(minutes)} min` : '',
  ];
  const said = length.filter((part) => part !== '').join(' ');
  return said === '' ? word : `${said} ${sign === '-' ? 'before' : 'after'} ${word}`;
}

function dateWords(text: string): string {
  const { year, month, day } = civil(parseDate(text) as LocalDate);
  return `${day} ${MONTH_WORDS[month - 1] ?? ''} ${year}`;
}

function rangeWords(from: string | undefined, to: string | undefined): string {
  if (from !== undefined && from === to) return dateWords(from);
  if (from !== undefined)
    return to === undefined ? `from ${dateWords(from)}` : `${dateWords(from)} to ${dateWords(to)}`;
  return to === undefined ? '' : `until ${dateWords(to)}`;
}

function ruleWords(text: string): string {
  const read = parseRule(text);
  if (!read.ok) return text;
  const rule = read.value;
  const weekdays = weeklyDays(rule);
  if (weekdays !== null) {
    const key = weekdays.join();
    const names = weekdays.map((day) => DAY_WORDS[day]).join(' ');
    const named = key === '0,1,2,3,4' ? 'weekdays' : key === '5,6' ? 'weekends' : names;
    return rule.interval === 1 ? named : `every ${rule.interval} weeks ${named}`;
  }
  const months = dailyMonths(rule);
  if (months !== null) return `daily in ${months.map((month) => MONTH_WORDS[month - 1]).join(', ')}`;
  return plainWords(rule) ?? `by the rule ${text}`;
}

const NTH_WORDS: Record<number, string> = {
  1: 'first',
  2: 'second',
  3: 'third',
  4: 'fourth',
  5: 'fifth',
  [-1]: 'last',
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
  ...rest
}: Rule): string | null {
  if (Object.values(rest).some((part) => part !== undefined)) return null;
  if (freq === 'DAILY')
    return byDay || byMonthDay || byMonth || bySetPos ? null : interval === 1 ? 'daily' : `every ${interval} days`;
  if (interval !== 1) return null;
  if (freq === 'YEARLY') {
    const [month, day] = [byMonth?.[0], byMonthDay?.[0]];
    if (
      byMonth?.length !== 1 ||
      byMonthDay?.length !== 1 ||
      byDay ||
      bySetPos ||
      month === undefined ||
      day === undefined ||
      day < 0
    )
      return null;
    return `every year on ${day} ${MONTH_WORDS[month - 1] ?? ''}`;
  }
  if (freq !== 'MONTHLY' || byMonth) return null;
  if (bySetPos) {
    const words = bySetPos.map((n) => NTH_WORDS[n]);
    const working =
      !byMonthDay && byDay?.map(({ weekday, nth }) => (nth === undefined ? weekday : -1)).join() === '0,1,2,3,4';
    return working && words.every((word) => word !== undefined)
      ? `the ${words.join(' and ')} working day of the month`
      : null;
  }
  if (byMonthDay && !byDay) {
    if (byMonthDay.length === 1 && byMonthDay[0] === -1) return 'last day of the month';
    return byMonthDay.every((n) => n > 0) ? `the ${byMonthDay.map(ordinal).join(', ')} of the month` : null;
  }
  if (!byDay || byMonthDay || byDay.some((day) => day.weekday !== byDay[0]?.weekday)) return null;
  const words = byDay.map((day) => NTH_WORDS[day.nth ?? 0]);
  return words.every((word) => word !== undefined)
    ? `the ${words.join(' and ')} ${DAY_WORDS[byDay[0]?.weekday ?? 0] ?? ''} of the month`
    : null;
}

/** The months of a rule that is every day of some months; null where it is anything else. */
function dailyMonths({ freq, interval, byMonth, ...rest }: Rule): readonly number[] | null {
  const others = [rest.byDay, rest.byMonthDay, rest.bySetPos, rest.count, rest.until];
  return freq === 'DAILY' && interval === 1 && byMonth && others.every((part) => part === undefined) ? byMonth : null;
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
