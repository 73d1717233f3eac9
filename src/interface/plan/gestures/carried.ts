import { DAY } from '@/core/instant';
import { addDays, civil, dateOf, weekdayIndex, type LocalDate, type LocalTime } from '@/core/when';
import type { Held } from './held';
import type { Bar } from '../strata/layout';

/** The first and last date of the weeks that hold a date's month. */
export function monthSpan(date: LocalDate): readonly [LocalDate, LocalDate] {
  const { year, month } = civil(date);
  const first = dateOf(year, month, 1);
  const end = addDays(dateOf(year + (month === 12 ? 1 : 0), (month % 12) + 1, 1), -1);
  return [addDays(first, -weekdayIndex(first)), addDays(end, 6 - weekdayIndex(end))];
}

/** Days that are being drawn for a new booking: where the drawing began, and where it is. */
export interface Drawn {
  readonly anchor: LocalDate;
  readonly to: LocalDate;
}

/** First and last of the drawn days. */
export const drawnSpan = ({ anchor, to }: Drawn): readonly [LocalDate, LocalDate] =>
  anchor < to ? [anchor, to] : [to, anchor];

/** A bar in hand, `days` later than it was: in a month its times of day stay. */
export function carriedBy(bar: Bar, days: number, copy: boolean): Held {
  const { start, end } = bar.localOccasion;
  const by = days * DAY;
  return { bar, start: (start + by) as LocalTime, end: (end + by) as LocalTime, layer: bar.layer, copy };
}

/** Bookings that do not show on most of the `days`: those that make a day special. */
export function rareBookings(bars: readonly Bar[], days: number): ReadonlySet<string> {
  const dates = new Map<string, Set<number>>();
  for (const { booking, localOccasion } of bars) {
    const set = dates.get(booking.id) ?? new Set();
    dates.set(booking.id, set.add(localOccasion.date));
  }
  return new Set([...dates].filter(([, set]) => set.size <= days / 3).map(([id]) => id));
}
