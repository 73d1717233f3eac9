import { MOST_OF_NAME } from '../plan/fields';
import { cut } from '../text';
import { changed, removed, type Patch } from '../plan/patch';
import type { Booking, Plan } from '../plan/schema';
import { done, type Result } from '../refusal';
import {
  MONTH_WORDS,
  addDays,
  calendarDates,
  civil,
  datesOf,
  formatDate,
  parseDate,
  setsOf,
  withSet,
  type LocalDate,
  type SetOfHours,
  type WrittenWindow,
} from '../when';
import { aloneOn, partWhen, shiftWhen, withoutDate } from './dates';

/** Which of a booking's days a change is for. */
export type Scope = 'this day' | 'from this day' | 'all';

/** One window of a booking on one date: what is taken hold of. */
export interface Occasion {
  readonly date: LocalDate;
  /** Index into the `When`'s sets of hours: what is changed is this set, or one of its days. */
  readonly set: number;
  /** Index into that set's windows; 0 where it has none and shows all day. */
  readonly window: number;
}

/** The new times. Fields that are absent stay. */
export interface Rescheduling {
  /** The date that it is carried to. */
  readonly date?: LocalDate | undefined;
  /** The new window, its edges as a plan writes them. */
  readonly window?: Readonly<WrittenWindow> | undefined;
  readonly priority?: number | undefined;
  readonly takeover?: boolean | undefined;
  /** It shows no more on those days. */
  readonly remove?: true | undefined;
}

export const WHOLE_DAY: Readonly<WrittenWindow> = ['00:00', '24:00'];

/** The set of hours that an occasion is of. */
export const setOf = ({ when }: Pick<Booking, 'when'>, { set }: Pick<Occasion, 'set'>): SetOfHours =>
  setsOf(when)[set] ?? {};

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
  const wide = widest(plan, booking, occasion, scope);
  if (wide === 'all') return changeAll(booking, occasion, change);
  return wide === 'this day'
    ? done(changeDay(plan, booking, occasion, change, created))
    : changeFrom(plan, booking, occasion, change, created);
}

/** Which scopes mean something of their own for a booking on a date; one alone where there is nothing to choose. */
export function scopesOf(plan: Plan, booking: Booking, occasion: Pick<Occasion, 'date' | 'set'>): Scope[] {
  const scopes = (['this day', 'from this day', 'all'] as const).map((scope) => widest(plan, booking, occasion, scope));
  return [...new Set(scopes)];
}

/** Where a booking has no other days, or none before, a narrow scope is the whole: nothing needs to be parted. */
function widest(plan: Plan, booking: Booking, { date, set }: Pick<Occasion, 'date' | 'set'>, scope: Scope): Scope {
  const when = setOf(booking, { set });
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

function datesIn(plan: Plan, when: SetOfHours, first: LocalDate, last: LocalDate): readonly LocalDate[] {
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

/** The set of hours with its windows after the change; null where none is left. */
function changedHours(set: SetOfHours, { window }: Occasion, change: Rescheduling): SetOfHours | null {
  const { windows: before = [[...WHOLE_DAY]], ...rest } = set;
  const windows = before.flatMap((one, i): WrittenWindow[] =>
    i !== window ? [one] : change.remove ? [] : [[...(change.window ?? one)]],
  );
  if (windows.length === 0) return null;
  const wholeDay = windows.length === 1 && windows[0]?.join() === WHOLE_DAY.join();
  return wholeDay ? rest : { ...rest, windows };
}

/** The patches that put another set of hours in the place of an occasion's; without any the booking goes. */
function withHours(
  booking: Booking,
  { set }: Occasion,
  hours: SetOfHours | null,
  more: Partial<Booking> = {},
): Patch<'booking'>[] {
  const when = withSet(booking.when, set, hours);
  return when ? changed('booking', booking, { when, ...more }) : [removed('booking', booking)];
}

function changeAll(booking: Booking, occasion: Occasion, change: Rescheduling): Result<readonly Patch<'booking'>[]> {
  const hours = changedHours(setOf(booking, occasion), occasion, change);
  if (!hours) return done(withHours(booking, occasion, null));
  const shifted = shiftWhen(hours, (change.date ?? occasion.date) - occasion.date);
  return shifted.ok ? done(withHours(booking, occasion, shifted.value, precedenceOf(change))) : shifted;
}

function changeDay(
  plan: Plan,
  booking: Booking,
  occasion: Occasion,
  change: Rescheduling,
  created: string,
): Patch<'booking'>[] {
  const set = setOf(booking, occasion);
  const without = withHours(booking, occasion, withoutDate(set, formatDate(occasion.date)));
  const target = change.date ?? occasion.date;
  const alone = changedHours(aloneOn(set, formatDate(target)), occasion, change);
  return alone ? [...without, parted(plan, booking, change, created, `, ${spokenDate(target)}`, alone)] : without;
}

function changeFrom(
  plan: Plan,
  booking: Booking,
  occasion: Occasion,
  change: Rescheduling,
  created: string,
): Result<readonly Patch<'booking'>[]> {
  const { date } = occasion;
  const [before, after] = partWhen(setOf(booking, occasion), date);
  const until = withHours(booking, occasion, before);
  const hours = changedHours(after, occasion, change);
  if (!hours) return done(until);
  const target = change.date ?? date;
  const shifted = shiftWhen(hours, target - date);
  if (!shifted.ok) return shifted;
  return done([...until, parted(plan, booking, change, created, ` from ${spokenDate(target)}`, shifted.value)]);
}

/** What is parted from a booking: another one, named after it, with these hours. */
function parted(
  plan: Plan,
  booking: Booking,
  change: Rescheduling,
  created: string,
  ending: string,
  when: SetOfHours,
): Patch<'booking'> {
  const name = freeName(plan, `${booking.name}${ending}`);
  return { kind: 'booking', add: { ...documentOf(booking), ...precedenceOf(change), name, created, when } };
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
