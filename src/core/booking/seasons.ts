import type { Booking, Plan, Site } from '../plan/schema';
import type { LocalDate } from '../when';
import { localOccasions } from './local-occasions';

/** A run of a booking's dates, both ends inclusive; `days` of them have an occasion. */
export interface Run {
  readonly from: LocalDate;
  readonly to: LocalDate;
  readonly days: number;
}

/** A booking's runs, in order of dates. */
export interface Season {
  readonly booking: string;
  readonly runs: readonly Run[];
}

/** Dates this close together make one run: weekdays are one season, not fifty stripes. */
const JOINED_DAYS = 7;

/** When in `first`..`last` (both inclusive) each booking is on, in runs, as the clock of `site` has it: for the look at a year. */
export function seasons(
  plan: Plan,
  bookings: readonly Booking[],
  site: Pick<Site, 'timeZone' | 'hours' | 'location'>,
  first: LocalDate,
  last: LocalDate,
): Season[] {
  return bookings.map((booking) => ({
    booking: booking.id,
    runs: runsOf(
      localOccasions(plan, [booking], site, first, last)
        .map((one) => one.date)
        .filter((date) => date >= first && date <= last),
    ),
  }));
}

function runsOf(dates: readonly LocalDate[]): Run[] {
  const runs: Run[] = [];
  for (const date of [...new Set(dates)].sort((a, b) => a - b)) {
    const last = runs.at(-1);
    if (last && date - last.to <= JOINED_DAYS) runs[runs.length - 1] = { ...last, to: date, days: last.days + 1 };
    else runs.push({ from: date, to: date, days: 1 });
  }
  return runs;
}
