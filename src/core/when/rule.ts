import { done, misread, type Result } from '../refusal';
import {
  WEEKDAYS,
  addDays,
  civil,
  dateOf,
  daysInMonth,
  daysInYear,
  formatDate,
  parseDate,
  weekOfYear,
  weekdayIndex,
  type LocalDate,
} from './dates';

/** An RFC 5545 section 3.3.10 recurrence rule at date level. Weekdays are 0 (Monday) to 6 (Sunday). */
export interface Rule {
  readonly freq: 'DAILY' | 'WEEKLY' | 'MONTHLY' | 'YEARLY';
  readonly interval: number;
  readonly count?: number;
  readonly until?: LocalDate;
  readonly weekStart: number;
  readonly byMonth?: readonly number[];
  readonly byWeekNo?: readonly number[];
  readonly byYearDay?: readonly number[];
  readonly byMonthDay?: readonly number[];
  readonly byDay?: readonly { readonly weekday: number; readonly nth?: number }[];
  readonly bySetPos?: readonly number[];
}

const PARTS: Record<string, { max: number; signed: boolean }> = {
  BYMONTH: { max: 12, signed: false },
  BYWEEKNO: { max: 53, signed: true },
  BYYEARDAY: { max: 366, signed: true },
  BYMONTHDAY: { max: 31, signed: true },
  BYSETPOS: { max: 366, signed: true },
};

/** Reads an RRULE value. Refuses what is none. */
export function parseRule(text: string): Result<Rule> {
  const parts = new Map<string, string>();
  for (const piece of text.split(';')) {
    const [name = '', value = '', rest] = piece.split('=');
    const key = name.trim().toUpperCase();
    if (!key || !value || rest !== undefined)
      return misread(`“${piece}” isn’t a part of a rule. Write NAME=VALUE, with semicolons between.`);
    if (parts.has(key)) return misread(`${key} is in the rule twice. Keep one.`);
    parts.set(key, value.trim().toUpperCase());
  }
  const freq = parts.get('FREQ');
  if (freq !== 'DAILY' && freq !== 'WEEKLY' && freq !== 'MONTHLY' && freq !== 'YEARLY')
    return misread('FREQ must be DAILY, WEEKLY, MONTHLY or YEARLY.');
  const draft: { -readonly [K in keyof Rule]?: Rule[K] } = { freq, interval: 1, weekStart: 0 };
  for (const [key, value] of parts) {
    const error = readPart(draft, key, value);
    if (error) return misread(error);
  }
  const rule = draft as Rule;
  const error = contradiction(rule);
  return error ? misread(error) : done(rule);
}

/** Writes a rule as an RRULE value. `parseRule` reads it back the same. */
export function writeRule(rule: Rule): string {
  const { freq, interval, count, until, weekStart, byDay } = rule;
  const numbers = (name: string, list: readonly number[] | undefined) => (list ? [`${name}=${list.join()}`] : []);
  return [
    `FREQ=${freq}`,
    ...(interval === 1 ? [] : [`INTERVAL=${interval}`]),
    ...(count === undefined ? [] : [`COUNT=${count}`]),
    ...(until === undefined ? [] : [`UNTIL=${formatDate(until).replaceAll('-', '')}`]),
    ...numbers('BYMONTH', rule.byMonth),
    ...numbers('BYWEEKNO', rule.byWeekNo),
    ...numbers('BYYEARDAY', rule.byYearDay),
    ...numbers('BYMONTHDAY', rule.byMonthDay),
    ...(byDay ? [`BYDAY=${byDay.map((day) => `${day.nth ?? ''}${WEEKDAYS[day.weekday] ?? ''}`).join()}`] : []),
    ...numbers('BYSETPOS', rule.bySetPos),
    ...(weekStart === 0 ? [] : [`WKST=${WEEKDAYS[weekStart] ?? 'MO'}`]),
  ].join(';');
}

function readPart(draft: { -readonly [K in keyof Rule]?: Rule[K] }, key: string, value: string): string | null {
  switch (key) {
    case 'FREQ':
      return null;
    case 'INTERVAL':
    case 'COUNT': {
      if (!/^\d{1,6}$/.test(value) || Number(value) < 1) return `${key} must be a whole number of at least 1.`;
      draft[key === 'COUNT' ? 'count' : 'interval'] = Number(value);
      return null;
    }
    case 'UNTIL': {
      const until = parseDate(value.replace(/^(\d{4})(\d{2})(\d{2})$/, '$1-$2-$3'));
      if (until === null) return 'UNTIL must be a date, written YYYYMMDD.';
      draft.until = until;
      return null;
    }
    case 'WKST': {
      const weekday = WEEKDAYS.indexOf(value as never);
      if (weekday < 0) return 'WKST must be one of MO, TU, WE, TH, FR, SA, SU.';
      draft.weekStart = weekday;
      return null;
    }
    case 'BYDAY': {
      const days: { weekday: number; nth?: number }[] = [];
      for (const item of value.split(',')) {
        const match = /^([+-]?\d{1,2})?(MO|TU|WE|TH|FR|SA|SU)$/.exec(item);
        const nth = match?.[1] === undefined ? undefined : Number(match[1]);
        if (!match || nth === 0 || (nth !== undefined && Math.abs(nth) > 53))
          return `“${item}” isn’t a weekday. Write MO, or 2MO for the second, or -1MO for the last.`;
        days.push({ weekday: WEEKDAYS.indexOf(match[2] as never), nth });
      }
      draft.byDay = days;
      return null;
    }
    default: {
      const part = PARTS[key];
      if (!part) return `${key} isn’t a rule for dates. Remove it.`;
      const numbers = value.split(',').map((item) => (/^[+-]?\d{1,3}$/.test(item) ? Number(item) : NaN));
      if (numbers.some((n) => !(Math.abs(n) >= 1 && Math.abs(n) <= part.max) || (n < 0 && !part.signed)))
        return `${key} takes whole numbers from 1 to ${part.max}${part.signed ? ', or negative ones to count from the end' : ''}.`;
      const field = { BYMONTH: 'byMonth', BYWEEKNO: 'byWeekNo', BYYEARDAY: 'byYearDay', BYMONTHDAY: 'byMonthDay' }[key];
      draft[(field ?? 'bySetPos') as 'bySetPos'] = numbers;
      return null;
    }
  }
}

/** What RFC 5545 section 3.3.10 forbids in combination. */
function contradiction(rule: Rule): string | null {
  const { freq } = rule;
  if (rule.count !== undefined && rule.until !== undefined) return 'COUNT and UNTIL exclude each other: keep one.';
  if (rule.byWeekNo && freq !== 'YEARLY') return 'BYWEEKNO needs FREQ=YEARLY.';
  if (rule.byYearDay && freq !== 'YEARLY') return 'BYYEARDAY needs FREQ=YEARLY.';
  if (rule.byMonthDay && freq === 'WEEKLY') return 'BYMONTHDAY does not go with FREQ=WEEKLY.';
  if (rule.byDay?.some((day) => day.nth !== undefined)) {
    if (freq !== 'MONTHLY' && freq !== 'YEARLY') return 'A numbered weekday (2MO) needs FREQ=MONTHLY or YEARLY.';
    if (rule.byWeekNo) return 'A numbered weekday (2MO) does not go with BYWEEKNO.';
  }
  const others = rule.byMonth ?? rule.byWeekNo ?? rule.byYearDay ?? rule.byMonthDay ?? rule.byDay;
  if (rule.bySetPos && !others) return 'BYSETPOS needs another BY… part to choose from.';
  return null;
}

/**
 * The dates that a rule generates in `first`..`last` (both inclusive), in order. `start` is DTSTART: it counts only where
 * the rule itself generates it (domain section 3), which is where this differs from RFC 5545.
 */
export function ruleDates(rule: Rule, start: LocalDate, first: LocalDate, last: LocalDate): LocalDate[] {
  const dates: LocalDate[] = [];
  const end = rule.until !== undefined && rule.until < last ? rule.until : last;
  let generated = 0;
  for (let n = rule.count === undefined ? periodsBefore(rule, start, first) : 0; ; n++) {
    const [from, to] = period(rule, start, n);
    if (from > end) return dates;
    for (const date of datesInPeriod(rule, start, from, to)) {
      if (date < start) continue;
      if (date > end || (rule.count !== undefined && generated >= rule.count)) return dates;
      generated++;
      if (date >= first) dates.push(date);
    }
  }
}

/** First and last date of the rule's n-th period; n is 0 for the period of DTSTART. */
function period(rule: Rule, start: LocalDate, n: number): [LocalDate, LocalDate] {
  const step = n * rule.interval;
  const { year, month } = civil(start);
  switch (rule.freq) {
    case 'DAILY':
      return [addDays(start, step), addDays(start, step)];
    case 'WEEKLY': {
      const week = addDays(start, step * 7 - ((weekdayIndex(start) - rule.weekStart + 7) % 7));
      return [week, addDays(week, 6)];
    }
    case 'MONTHLY': {
      const first = dateOf(year, month + step, 1);
      return [first, addDays(dateOf(year, month + step + 1, 1), -1)];
    }
    case 'YEARLY':
      return [dateOf(year + step, 1, 1), dateOf(year + step, 12, 31)];
  }
}

/** A number of periods that surely end before `date`, so that a rule far in the past costs nothing. */
function periodsBefore(rule: Rule, start: LocalDate, date: LocalDate): number {
  const longest = { DAILY: 1, WEEKLY: 7, MONTHLY: 31, YEARLY: 366 }[rule.freq] * rule.interval;
  return Math.max(0, Math.floor((date - start) / longest) - 1);
}

function datesInPeriod(rule: Rule, start: LocalDate, from: LocalDate, to: LocalDate): LocalDate[] {
  const dates: LocalDate[] = [];
  for (let date = from; date <= to; date = addDays(date, 1)) if (generates(rule, start, date)) dates.push(date);
  if (!rule.bySetPos) return dates;
  const chosen = new Set(rule.bySetPos.map((n) => dates[n > 0 ? n - 1 : dates.length + n]));
  return dates.filter((date) => chosen.has(date));
}

/** Whether a date in one of the rule's periods passes all its BY… parts, with those that DTSTART implies where none is written. */
function generates(rule: Rule, start: LocalDate, date: LocalDate): boolean {
  const { year, month, day } = civil(date);
  const begin = civil(start);
  const { freq, byMonth, byWeekNo, byYearDay, byMonthDay, byDay } = rule;
  const finer = byWeekNo ?? byYearDay ?? byMonthDay ?? byDay;
  if (byMonth ? !byMonth.includes(month) : freq === 'YEARLY' && !finer && month !== begin.month) return false;
  if (byWeekNo) {
    const { week, weeks } = weekOfYear(date, rule.weekStart);
    if (!byWeekNo.includes(week) && !byWeekNo.includes(week - weeks - 1)) return false;
  }
  if (byYearDay) {
    const ordinal = date - dateOf(year, 1, 1) + 1;
    if (!byYearDay.includes(ordinal) && !byYearDay.includes(ordinal - daysInYear(year) - 1)) return false;
  }
  if (byMonthDay) {
    if (!byMonthDay.includes(day) && !byMonthDay.includes(day - daysInMonth(year, month) - 1)) return false;
  } else if ((freq === 'MONTHLY' || freq === 'YEARLY') && !finer && day !== begin.day) return false;
  const weekday = weekdayIndex(date);
  if (!byDay) {
    const fromStart = freq === 'WEEKLY' || (freq === 'YEARLY' && byWeekNo && !byYearDay && !byMonthDay);
    return !fromStart || weekday === weekdayIndex(start);
  }
  const inMonth = freq === 'MONTHLY' || byMonth !== undefined;
  const place = inMonth ? day : date - dateOf(year, 1, 1) + 1;
  const length = inMonth ? daysInMonth(year, month) : daysInYear(year);
  return byDay.some(
    ({ weekday: wanted, nth }) =>
      wanted === weekday &&
      (nth === undefined || nth === Math.ceil(place / 7) || nth === -Math.ceil((length - place + 1) / 7)),
  );
}
