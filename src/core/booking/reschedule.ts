import { MOST_OF_NAME } from '../plan/fields';
import { cut } from '../text';
import { changed, removed, type Patch } from '../plan/patch';
import type { Booking, Plan, When } from '../plan/schema';
import { done, type Result } from '../refusal';
import { MONTH_WORDS, addDays, calendarDates, civil, datesOf, formatDate, parseDate, type LocalDate } from '../when';
import { aloneOn, partWhen, shiftWhen, withoutDate } from './dates';

/** Which of a booking's days a change is for. */
export type Scope = 'this day' | 'from this day' | 'all';

/** One window of a booking on one date: what is taken hold of. */
export interface Occasion {
  readonly date: LocalDate;
  /** Index into the `When`'s windows; 0 where it has none and shows all day. */
  readonly window: number;
}

/** What becomes of it. What is absent stays. */
export interface Rescheduling {
  /** The date that it is carried to. */
  readonly date?: LocalDate | undefined;
  /** The new window, its edges as a plan writes them. */
  readonly window?: readonly [start: string, end: string] | undefined;
  readonly priority?: number | undefined;
  readonly takeover?: boolean | undefined;
  /** It shows no more on those days. */
  readonly remove?: true | undefined;
}

export const WHOLE_DAY: readonly [string, string] = ['00:00', '24:00'];

/**
 * The patches that change one occasion of a booking, all of its days from there on, or all of them. Parting a booking makes a
 * second one, named after the first; `created` (RFC 3339) is when. Refused with a sentence where it can't be done.
 */
export function reschedule(
  plan: Plan,
  booking: Booking,
  occasion: Occasion,
  change: Rescheduling,
  scope: Scope,
  created: string,
): Result<readonly Patch<'booking'>[]> {
  const wide = widest(plan, booking, occasion.date, scope);
  if (wide === 'all') return changeAll(booking, occasion, change);
  return wide === 'this day'
    ? done(changeDay(plan, booking, occasion, change, created))
    : changeFrom(plan, booking, occasion, change, created);
}

/** Which scopes mean something of their own for a booking on a date; one alone where there is nothing to choose. */
export function scopesOf(plan: Plan, booking: Booking, date: LocalDate): Scope[] {
  const scopes = (['this day', 'from this day', 'all'] as const).map((scope) => widest(plan, booking, date, scope));
  return [...new Set(scopes)];
}

/** Where a booking has no other days, or none before, a narrow scope is the whole: nothing needs to be parted. */
function widest(plan: Plan, { when }: Booking, date: LocalDate, scope: Scope): Scope {
  const from = when.from === undefined ? null : parseDate(when.from);
  const to = when.to === undefined ? null : parseDate(when.to);
  const also = (when.also ?? []).map((text) => parseDate(text) as LocalDate);
  if (from === null || scope === 'all') return scope;
  const earlier = Math.min(from, ...also) as LocalDate;
  const before = earlier < date ? datesIn(plan, when, earlier, addDays(date, -1)) : [];
  if (scope === 'from this day') return before.length === 0 ? 'all' : scope;
  const later = to === null ? null : (Math.max(to, ...also) as LocalDate);
  const after = later === null || later > date;
  return before.length === 0 && !after ? 'all' : scope;
}

function datesIn(plan: Plan, when: When, first: LocalDate, last: LocalDate): readonly LocalDate[] {
  const calendar = (id: string) => calendarDates(plan.calendars.find((one) => one.id === id)?.dates ?? []);
  return datesOf(when, { calendar }, first, last);
}

const documentOf = ({ id: _id, ...document }: Booking): Omit<Booking, 'id'> => document;

function precedenceOf(change: Rescheduling): Partial<Booking> {
  return {
    ...(change.priority === undefined ? {} : { priority: change.priority }),
    ...(change.takeover === undefined ? {} : { takeover: change.takeover || undefined }),
    ...(change.takeover === false ? { wake: undefined } : {}),
  };
}

/** The windows after the change; empty where none is left. */
function windowsAfter(when: When, { window }: Occasion, change: Rescheduling): [string, string][] {
  const windows = when.windows ?? [[...WHOLE_DAY] as [string, string]];
  if (change.remove) return windows.filter((_, i) => i !== window);
  const next = change.window;
  return next ? windows.map((one, i) => (i === window ? [next[0], next[1]] : one)) : windows;
}

const withWindows = (when: When, windows: [string, string][]): When => {
  const { windows: _before, ...rest } = when;
  const wholeDay = windows.length === 1 && windows[0]?.join() === WHOLE_DAY.join();
  return wholeDay ? rest : { ...rest, windows };
};

function changeAll(booking: Booking, occasion: Occasion, change: Rescheduling): Result<readonly Patch<'booking'>[]> {
  const windows = windowsAfter(booking.when, occasion, change);
  if (windows.length === 0) return done([removed('booking', booking)]);
  const when = shiftWhen(withWindows(booking.when, windows), (change.date ?? occasion.date) - occasion.date);
  if (!when.ok) return when;
  return done(changed('booking', booking, { when: when.value, ...precedenceOf(change) }));
}

function changeDay(
  plan: Plan,
  booking: Booking,
  occasion: Occasion,
  change: Rescheduling,
  created: string,
): Patch<'booking'>[] {
  const { when } = booking;
  const without = changed('booking', booking, { when: withoutDate(when, formatDate(occasion.date)) });
  const windows = windowsAfter(when, occasion, change);
  if (windows.length === 0) return without;
  const target = change.date ?? occasion.date;
  const alone = withWindows(aloneOn(when, formatDate(target)), windows);
  return [
    ...without,
    {
      kind: 'booking',
      add: {
        ...documentOf(booking),
        ...precedenceOf(change),
        name: freeName(plan, `${booking.name}, ${spokenDate(target)}`),
        created,
        when: alone,
      },
    },
  ];
}

function changeFrom(
  plan: Plan,
  booking: Booking,
  occasion: Occasion,
  change: Rescheduling,
  created: string,
): Result<readonly Patch<'booking'>[]> {
  const { when } = booking;
  const { date } = occasion;
  const [before, after] = partWhen(when, date);
  const until = changed('booking', booking, { when: before });
  const windows = windowsAfter(when, occasion, change);
  if (windows.length === 0) return done(until);
  const shifted = shiftWhen(withWindows(after, windows), (change.date ?? date) - date);
  if (!shifted.ok) return shifted;
  return done([
    ...until,
    {
      kind: 'booking',
      add: {
        ...documentOf(booking),
        ...precedenceOf(change),
        name: freeName(plan, `${booking.name} from ${spokenDate(change.date ?? date)}`),
        created,
        when: shifted.value,
      },
    },
  ]);
}

/** "5 Dec". */
export function spokenDate(date: LocalDate): string {
  const { day, month } = civil(date);
  return `${day} ${MONTH_WORDS[month - 1] ?? ''}`;
}

/** A name that no booking has: the wanted one, or with a number. */
export const freeName = (plan: Plan, wanted: string): string =>
  nameAmong(new Set(plan.bookings.map((one) => one.name)), wanted);

/** The same among names that are at hand. */
export function nameAmong(taken: ReadonlySet<string>, wanted: string): string {
  for (let n = 1; ; n++) {
    const end = n === 1 ? '' : ` (${n})`;
    const name = `${cut(wanted, MOST_OF_NAME - end.length)}${end}`;
    if (!taken.has(name)) return name;
  }
}
