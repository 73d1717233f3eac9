import type { Patch } from '../plan/patch';
import type { Booking, Plan, Site } from '../plan/schema';
import { DAY } from '../instant';
import {
  dateOfLocalTime,
  formatDate,
  formatLocalTime,
  startOfDate,
  toInstant,
  toLocalTime,
  zoneTable,
  MOST_DAYS,
  type LocalTime,
} from '../when';
import { aloneOn } from './dates';
import type { LocalOccasion } from './local-occasions';
import { WHOLE_DAY, freeName, setOf, spokenDate, type Rescheduling } from './reschedule';

/**
 * What carrying or stretching an occasion to `[start, end)`, as the clock of `site` reads, makes of it: its date and window on
 * the booking's own clock. An edge whose time of day stays is left as it was written (`opens`); at most so many days as a window may have.
 */
export function carried(
  booking: Booking,
  localOccasion: LocalOccasion,
  start: LocalTime,
  end: LocalTime,
  site: Pick<Site, 'timeZone'>,
): Rescheduling {
  const own = zoneTable(site.timeZone);
  const { clock, windows } = setOf(booking, localOccasion);
  const pinned = clock === undefined || clock === 'site' ? null : zoneTable(clock);
  const read = (time: LocalTime) => (pinned ? toLocalTime(pinned, toInstant(own, time)) : time);
  const [begin, finish] = [read(start), read(Math.min(end, start + MOST_DAYS * DAY) as LocalTime)];
  const date = dateOfLocalTime(begin);
  const [oldBegin, oldFinish] = [read(localOccasion.start), read(localOccasion.end)];
  const shift = startOfDate(date) - startOfDate(localOccasion.date);
  const [first, last, days] = windows?.[localOccasion.window] ?? WHOLE_DAY;
  const [keepsStart, keepsEnd] = [begin - shift === oldBegin, finish - shift === oldFinish];
  if (keepsStart && keepsEnd) return { date };
  const written = keepsStart ? first : formatLocalTime(begin);
  const isLong = finish - begin > DAY;
  if (keepsEnd && days !== undefined) return { date, window: [written, last, days] };
  if (keepsEnd && !isLong) return { date, window: [written, last] };
  // A midnight is the end of the date before it.
  const atMidnight = finish === startOfDate(dateOfLocalTime(finish));
  const edge = atMidnight ? '24:00' : formatLocalTime(finish);
  const lastDate = dateOfLocalTime((atMidnight ? finish - 1 : finish) as LocalTime);
  return { date, window: isLong ? [written, edge, lastDate - date] : [written, edge] };
}

/** A booking of its own for one occasion of another, carried as `change` says: what copying by hand makes. */
export function copyOccasion(
  plan: Plan,
  { id: _id, ...document }: Booking,
  occasion: Pick<LocalOccasion, 'date' | 'set' | 'window'>,
  change: Rescheduling,
  created: string,
): Patch<'booking'> {
  const date = change.date ?? occasion.date;
  const set = setOf(document, occasion);
  const window = change.window ?? set.windows?.[occasion.window] ?? WHOLE_DAY;
  return {
    kind: 'booking',
    add: {
      ...document,
      ...(change.priority === undefined ? {} : { priority: change.priority }),
      ...(change.takeover === undefined ? {} : { takeover: change.takeover || undefined }),
      name: freeName(plan, `${document.name}, ${spokenDate(date)}`),
      created,
      when: { ...aloneOn(set, formatDate(date)), windows: [[...window]] },
    },
  };
}
