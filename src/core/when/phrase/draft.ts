import type { LocalDate } from '../dates';
import type { WrittenWindow } from '../written';
import type { Unit } from './reader';

/** Collects what the clauses say; a phrase becomes a `When` only as a whole. */
export interface Draft {
  /** "always": since ever. */
  endless: boolean;
  /** "daily": each day from its beginning on. */
  daily: boolean;
  from?: LocalDate;
  to?: LocalDate;
  /** A date that was said alone: a weekday beside it is its own. */
  onDate?: LocalDate;
  /** How many hours were said before the first date. */
  hoursBefore: number;
  readonly days: Set<number>;
  readonly notDays: Set<number>;
  everyWeeks: number;
  /** "every 2 weeks", whatever its weekday. */
  weekly: boolean;
  /** Weeks of even or odd numbers (ISO 8601). */
  parity?: 'even' | 'odd';
  /** How many times it comes. */
  count?: number;
  months: number[];
  readonly notMonths: Set<number>;
  rule?: string;
  readonly also: string[];
  readonly except: string[];
  readonly only: string[];
  readonly not: string[];
  readonly windows: WrittenWindow[];
  clock?: string;
  /** How many days it lasts, from its first. */
  length?: { readonly count: number; readonly unit: 'day' | Unit };
  /** A time of day that something begins at, whose end is still to be said. */
  begins?: string;
  /** More of them, that last as long: "at 8, 12 and 18 for 10 minutes". */
  readonly alsoBegins: string[];
  /** How long it lasts from there, in minutes. */
  lasts?: number;
  /** The part of the day that its hours are in: "this evening 6 to 8". */
  part?: string;
  /** When that part begins and ends, for what only one side is said of: "this morning until 11". */
  partHours?: readonly [string, string];
  /** Which edges of the last window may be in either half of the day. */
  bare?: readonly [boolean, boolean];
  /** "until 20:00", with nothing before it. */
  ends?: string;
  /** From a time of one date to a time of another, longer than a window can be. */
  long?: { readonly first: LocalDate; readonly start: string; readonly last: LocalDate; readonly end: string };
  /** It begins now. */
  now: boolean;
}

export const newDraft = (): Draft => ({
  ...{ endless: false, daily: false, now: false, hoursBefore: 0, weekly: false, everyWeeks: 1, months: [] },
  ...{ days: new Set(), notDays: new Set(), notMonths: new Set() },
  ...{ also: [], except: [], only: [], not: [], windows: [], alsoBegins: [] },
});
