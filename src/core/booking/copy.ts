import { changed, withPatches, type Patch } from '../plan/patch';
import type { Booking, Plan, When } from '../plan/schema';
import { addDays, calendarDates, datesOf, formatDate, type LocalDate } from '../when';
import { aloneOn, withDate, withoutDate } from './dates';
import { freeName } from './reschedule';

/**
 * Books on other dates what is booked on `source` (and the `days - 1` dates after it, so that 7 copies a week): each target
 * is the date that `source` is copied to. With `replace`, what else is booked on those dates is taken off them. Bookings that
 * show there already are left; `created` (RFC 3339) is for those that a calendar would keep away, which are copied whole.
 */
export function copyDays(
  plan: Plan,
  source: LocalDate,
  days: number,
  targets: readonly LocalDate[],
  options: { readonly replace: boolean; readonly created: string },
): Patch<'booking'>[] {
  const sets = new Map(plan.calendars.map((one) => [one.id, calendarDates(one.dates)]));
  const place = { calendar: (id: string) => sets.get(id) ?? new Set<LocalDate>() };
  const shows = (when: When, date: LocalDate) => datesOf(when, place, date, date).length > 0;
  let now = plan;
  const added: Patch<'booking'>[] = [];
  const change = (booking: Booking, when: When) => {
    now = withPatches(now, changed('booking', booking, { when }));
  };
  for (const target of targets)
    for (let day = 0; day < days; day++) {
      const [from, to] = [addDays(source, day), addDays(target, day)];
      if (from === to) continue;
      for (const booking of now.bookings) {
        if (booking.onHold) continue;
        const original = plan.bookings.find((one) => one.id === booking.id) ?? booking;
        const [there, here] = [shows(booking.when, to), shows(original.when, from)];
        if (here && !there) {
          const when = withDate(booking.when, formatDate(to));
          if (shows(when, to)) change(booking, when);
          else added.push(alone(now, booking, to, options.created));
        } else if (!here && there && options.replace) change(booking, withoutDate(booking.when, formatDate(to)));
      }
    }
  const before = new Map(plan.bookings.map((one) => [one.id, one]));
  const patches = now.bookings.flatMap((booking) => {
    const old = before.get(booking.id);
    return old && old !== booking ? changed('booking', old, { when: booking.when }) : [];
  });
  return [...patches, ...added];
}

function alone(plan: Plan, { id: _id, ...booking }: Booking, date: LocalDate, created: string): Patch<'booking'> {
  const day = formatDate(date);
  const name = freeName(plan, `${booking.name}, ${day}`);
  return { kind: 'booking', add: { ...booking, name, created, when: aloneOn(booking.when, day) } };
}
