import { DAY } from '../instant';
import type { Booking, Plan, Site } from '../plan/schema';
import {
  calendarDates,
  toInstant,
  setsOf,
  toLocalTime,
  localOccurrences,
  sunAt,
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
 * order of bookings. On its own clock a booking reads the same at every site; one pinned to another zone is converted to
 * what this site's clock reads at that instant. Opening, closing and the sun are this site's. Bookings that wait for a cue have none.
 */
export function localOccasions(
  plan: Plan,
  bookings: readonly Booking[],
  site: Pick<Site, 'timeZone' | 'hours' | 'location'>,
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
  const place = { calendar, hours: site.hours, ...(site.location ? { sun: sunAt(site.location, own) } : {}) };
  return bookings.flatMap(({ id, when, cue }) => {
    if (cue !== undefined) return [];
    const clocks = setsOf(when).map(({ clock }) => (clock === undefined || clock === 'site' ? null : zoneTable(clock)));
    const read = (set: number, time: LocalTime) => {
      const pinned = clocks[set];
      return pinned ? toLocalTime(own, toInstant(pinned, time)) : time;
    };
    return localOccurrences(when, place, first, last)
      .map((one) => ({ ...one, booking: id, start: read(one.set, one.start), end: read(one.set, one.end) }))
      .filter(({ start, end }) => touches(start, end, first, last));
  });
}

function touches(start: LocalTime, end: LocalTime, first: LocalDate, last: LocalDate): boolean {
  return start < end && start < (last + 1) * DAY && end > first * DAY;
}
