import type { LocalDate } from '../dates';
import type { Unit } from './reader';

/** Collects what the clauses say; a phrase becomes a `When` only as a whole. */
export interface Draft {
  /** "always": since ever. */
  endless: boolean;
  /** "daily": each day from its beginning on. */
  daily: boolean;
  from?: LocalDate;
  to?: LocalDate;
  readonly days: Set<number>;
  readonly notDays: Set<number>;
  everyWeeks: number;
  months: number[];
  readonly notMonths: Set<number>;
  rule?: string;
  readonly also: string[];
  readonly except: string[];
  readonly only: string[];
  readonly not: string[];
  readonly windows: [string, string][];
  clock?: string;
  /** How many days it lasts, from its first. */
  length?: { readonly count: number; readonly unit: 'day' | Unit };
  /** A time of day that something begins at, whose end is still to be said. */
  begins?: string;
  /** How long it lasts from there, in minutes. */
  lasts?: number;
  /** "until 20:00", with nothing before it. */
  ends?: string;
  /** It begins now. */
  now: boolean;
}

export const newDraft = (): Draft => ({
  ...{ endless: false, daily: false, now: false, everyWeeks: 1, months: [] },
  ...{ days: new Set(), notDays: new Set(), notMonths: new Set() },
  ...{ also: [], except: [], only: [], not: [], windows: [] },
});
