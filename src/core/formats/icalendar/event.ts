import type { Content } from '../../plan/schema';
import type { Weave } from '../../plan/weave';
import type { LocalDate, LocalTime, SetOfHours, When } from '../../when';

/** What a line of the file has that can't be taken over, and what was done about it. */
export interface LineProblem {
  readonly line: number;
  readonly message: string;
}

/** An event as a booking's decisions, as far as it tells them. */
export interface CalendarEvent {
  readonly line: number;
  readonly summary: string;
  readonly when: When;
  readonly priority: number;
  /** Tags of CATEGORIES. */
  readonly tags: readonly string[];
  /** What our own files add. */
  readonly where: string | null;
  readonly content: Content | null;
  readonly takeover: boolean;
  readonly wake: boolean;
  /** How it is woven in; absent where it is not. */
  readonly weave?: Weave | undefined;
  /** STATUS:TENTATIVE. */
  readonly onHold: boolean;
}

/** An event before its exceptions are applied. */
export interface RawEvent extends Omit<CalendarEvent, 'when'> {
  readonly uid: string;
  readonly sibling: string | null;
  readonly cancelled: boolean;
  /** The date of the instance that it replaces, on the event's clock. */
  readonly instance: LocalDate | null;
  readonly clock: string | null;
  readonly start: LocalTime;
  readonly end: LocalTime;
  readonly when: SetOfHours;
  /** Added instances at another time of day, or of another length. */
  readonly others: readonly { readonly start: LocalTime; readonly end: LocalTime }[];
}
