import { done, orThrow, refused, type Result } from '../refusal';
import { WHEN_FIELDS, type SetOfHours } from '../when/schema';
import {
  WEEKDAYS,
  addDays,
  formatDate,
  parseDate,
  parseRule,
  ruleDates,
  writeRule,
  type LocalDate,
  type Rule,
} from '../when';

/**
 * A set of hours carried on by whole days: dates, weekdays and week starts move alike, so that each of its dates moves by `days`.
 * Calendars and times of day stay. Returns a sentence where its repeat can't be carried as a whole.
 */
export function shiftWhen(when: SetOfHours, days: number): Result<SetOfHours> {
  if (days === 0) return done(when);
  const shift = (text: string) => formatDate(addDays(parseDate(text) as LocalDate, days));
  const { from, to, repeat, also, except } = when;
  if (repeat === undefined && from === undefined && to === undefined)
    return cannot('It shows every day. Move only one day of it, or give it dates first.');
  const rule = repeat === undefined ? null : orThrow(parseRule(repeat));
  const moved = rule ? shiftRule(rule, days) : null;
  if (rule && !moved)
    return cannot('A repeat like this can’t be moved to other days as a whole. Move one day of it instead.');
  return done({
    ...when,
    ...(from === undefined ? {} : { from: shift(from) }),
    ...(to === undefined ? {} : { to: shift(to) }),
    ...(moved ? { repeat: writeRule(moved) } : {}),
    ...(also ? { also: also.map(shift) } : {}),
    ...(except ? { except: except.map(shift) } : {}),
  });
}

const cannot = (message: string) => refused([{ path: '/when', message }]);

/** Daily and weekly rules only: months have no even length. */
function shiftRule(rule: Rule, days: number): Rule | null {
  const { byMonth, byDay, bySetPos, freq } = rule;
  if ((freq !== 'DAILY' && freq !== 'WEEKLY') || byMonth || bySetPos || rule.byMonthDay) return null;
  const turn = (weekday: number) => (((weekday + days) % WEEKDAYS.length) + WEEKDAYS.length) % WEEKDAYS.length;
  return {
    ...rule,
    ...(byDay ? { byDay: byDay.map((day) => ({ ...day, weekday: turn(day.weekday) })) } : {}),
    ...(rule.until === undefined ? {} : { until: addDays(rule.until, days) }),
    ...(freq === 'WEEKLY' && rule.interval > 1 ? { weekStart: turn(rule.weekStart) } : {}),
  };
}

/** What a set of hours says of times, on one date (YYYY-MM-DD) alone: all that it says of dates is left behind. */
export function aloneOn(when: SetOfHours, day: string): SetOfHours {
  const times = Object.entries(when).filter(([field]) => WHEN_FIELDS[field as keyof SetOfHours] === 'times');
  return { ...Object.fromEntries(times), from: day, to: day };
}

/** A set of hours with one date more. Calendars may still keep it away. */
export function withDate({ also, except, ...when }: SetOfHours, day: string): SetOfHours {
  const kept = (except ?? []).filter((one) => one !== day);
  return {
    ...when,
    also: [...new Set([...(also ?? []), day])].sort(),
    ...(kept.length > 0 ? { except: kept } : {}),
  };
}

/** A set of hours without one of its dates. */
export function withoutDate({ also, except, ...when }: SetOfHours, day: string): SetOfHours {
  const rest = (also ?? []).filter((one) => one !== day);
  return { ...when, ...(rest.length > 0 ? { also: rest } : {}), except: [...new Set([...(except ?? []), day])].sort() };
}

/** Parts a set of hours into its dates before `date` and those from it on; together they are the same dates. */
export function partWhen(when: SetOfHours, date: LocalDate): [before: SetOfHours, after: SetOfHours] {
  const { also, except, from, repeat, ...rest } = when;
  const day = formatDate(date);
  const side = (list: readonly string[] | undefined, keep: (one: string) => boolean, key: 'also' | 'except') => {
    const kept = (list ?? []).filter(keep);
    return kept.length > 0 ? { [key]: kept } : {};
  };
  const parted = (keep: (one: string) => boolean) => ({ ...side(also, keep, 'also'), ...side(except, keep, 'except') });
  let follow: { from: string; repeat?: string } = { from: day };
  if (repeat !== undefined) {
    const rule = orThrow(parseRule(repeat));
    const start = parseDate(from ?? day) as LocalDate;
    const past = ruleDates(rule, start, start, addDays(date, -1)).length;
    // The rule goes on in step from a date that it generates itself.
    const [next] = ruleDates(rule, start, date, addDays(date, RULE_HORIZON_DAYS));
    const counted = rule.count === undefined ? rule : { ...rule, count: Math.max(1, rule.count - past) };
    follow = { from: formatDate(next ?? date), repeat: writeRule(counted) };
  }
  return [
    {
      ...rest,
      ...(from === undefined ? {} : { from }),
      ...(repeat === undefined ? {} : { repeat }),
      to: formatDate(addDays(date, -1)),
      ...parted((one) => one < day),
    },
    { ...rest, ...follow, ...parted((one) => one >= day) },
  ];
}

/** Further than any date-level rule that is of use lies between two of its dates. */
const RULE_HORIZON_DAYS = 366 * 8;
