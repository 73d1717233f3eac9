import { changed, withPatches, type Patch } from '../plan/patch';
import type { Booking, Plan } from '../plan/schema';
import {
  addDays,
  calendarDates,
  datesOf,
  formatDate,
  setsOf,
  whenOfSets,
  type LocalDate,
  type SetOfHours,
} from '../when';
import { aloneOn, withDate, withoutDate } from './dates';
import { freeName } from './reschedule';

/**
 * Books on other dates what is booked on `source` (and the `days - 1` dates after it, so that 7 copies a week): each target
 * is the date that `source` is copied to. With `replace`, what else is booked on those dates is taken off them. Hours that
 * show there already are left; `created` (RFC 3339) is for those that a calendar would keep away, which are copied whole.
 */
export function copyDays(
  plan: Plan,
  source: LocalDate,
  days: number,
  targets: readonly LocalDate[],
  options: { readonly replace: boolean; readonly created: string },
): Patch<'booking'>[] {
  const calendars = new Map(plan.calendars.map((one) => [one.id, calendarDates(one.dates)]));
  const place = { calendar: (id: string) => calendars.get(id) ?? new Set<LocalDate>() };
  const shows = (set: SetOfHours | undefined, date: LocalDate) =>
    set !== undefined && datesOf(set, place, date, date).length > 0;
  let now = plan;
  const added: Patch<'booking'>[] = [];
  for (const target of targets)
    for (let day = 0; day < days; day++) {
      const [from, to] = [addDays(source, day), addDays(target, day)];
      if (from === to) continue;
      for (const booking of now.bookings) {
        if (booking.onHold) continue;
        const original = setsOf((plan.bookings.find((one) => one.id === booking.id) ?? booking).when);
        // Dates that a calendar takes out at the target need a booking of their own.
        const kept: SetOfHours[] = [];
        const sets = setsOf(booking.when).map((set, i): SetOfHours => {
          const [there, here] = [shows(set, to), shows(original[i], from)];
          if (here && !there) {
            const more = withDate(set, formatDate(to));
            if (shows(more, to)) return more;
            kept.push(aloneOn(set, formatDate(to)));
          } else if (!here && there && options.replace) return withoutDate(set, formatDate(to));
          return set;
        });
        if (sets.some((set, i) => set !== setsOf(booking.when)[i]))
          now = withPatches(now, changed('booking', booking, { when: whenOfSets(sets) }));
        if (kept.length > 0) added.push(alone(now, booking, kept, to, options.created));
      }
    }
  const before = new Map(plan.bookings.map((one) => [one.id, one]));
  const patches = now.bookings.flatMap((booking) => {
    const old = before.get(booking.id);
    return old && old !== booking ? changed('booking', old, { when: booking.when }) : [];
  });
  return [...patches, ...added];
}

function alone(
  plan: Plan,
  { id: _id, ...booking }: Booking,
  sets: readonly SetOfHours[],
  date: LocalDate,
  created: string,
): Patch<'booking'> {
  const name = freeName(plan, `${booking.name}, ${formatDate(date)}`);
  return { kind: 'booking', add: { ...booking, name, created, when: whenOfSets(sets) } };
}
