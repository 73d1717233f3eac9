import { DAY } from '../instant';
import type { Booking, Plan, Site } from '../plan/schema';
import {
  calendarDates,
  toInstant,
  toLocalTime,
  localOccurrences,
  zoneTable,
  type LocalDate,
  type LocalTime,
} from '../when';
import type { Occasion } from './reschedule';

/** An occasion of a booking as a wall at one site reads it. */
export interface LocalOccasion extends Occasion {
  readonly booking: string;
  readonly start: LocalTime;
  readonly end: LocalTime;
}

/**
 * Every occasion of the given bookings that touches the dates `first`..`last` (both inclusive) on the clock of `site`, in
 * order of bookings. On its own clock a booking reads the same at every site; one that is pinned to another zone is told as
 * this site's clock reads at that instant. `opens` and `closes` are this site's.
 */
export function localOccasions(
  plan: Plan,
  bookings: readonly Booking[],
  site: Pick<Site, 'timeZone' | 'hours'>,
  first: LocalDate,
  last: LocalDate,
): LocalOccasion[] {
  const sets = new Map<string, ReadonlySet<LocalDate>>();
  const calendar = (id: string) => {
    let set = sets.get(id);
    if (!set) sets.set(id, (set = calendarDates(plan.calendars.find((one) => one.id === id)?.dates ?? [])));
    return set;
  };
  const own = zoneTable(site.timeZone);
  return bookings.flatMap(({ id, when }) => {
    const pinned = when.clock === undefined || when.clock === 'site' ? null : zoneTable(when.clock);
    const read = (time: LocalTime) => (pinned ? toLocalTime(own, toInstant(pinned, time)) : time);
    return localOccurrences(when, { calendar, hours: site.hours }, first, last)
      .map(({ date, window, start, end }) => ({ booking: id, date, window, start: read(start), end: read(end) }))
      .filter(({ start, end }) => touches(start, end, first, last));
  });
}

function touches(start: LocalTime, end: LocalTime, first: LocalDate, last: LocalDate): boolean {
  return start < end && start < (last + 1) * DAY && end > first * DAY;
}
