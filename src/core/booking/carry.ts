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
  type LocalTime,
} from '../when';
import { aloneOn } from './dates';
import type { LocalOccasion } from './local-occasions';
import { WHOLE_DAY, freeName, spokenDate, type Rescheduling } from './reschedule';

/**
 * What carrying or stretching an occasion to `[start, end)`, as the clock of `site` reads, makes of it: its date and window on
 * the booking's own clock. An edge whose time of day stays is left as it was written (`opens`); at most 24 hours.
 */
export function carried(
  booking: Booking,
  localOccasion: LocalOccasion,
  start: LocalTime,
  end: LocalTime,
  site: Pick<Site, 'timeZone'>,
): Rescheduling {
  const own = zoneTable(site.timeZone);
  const { clock, windows } = booking.when;
  const pinned = clock === undefined || clock === 'site' ? null : zoneTable(clock);
  const read = (time: LocalTime) => (pinned ? toLocalTime(pinned, toInstant(own, time)) : time);
  const [begin, finish] = [read(start), read(Math.min(end, start + DAY) as LocalTime)];
  const date = dateOfLocalTime(begin);
  const [oldBegin, oldFinish] = [read(localOccasion.start), read(localOccasion.end)];
  const shift = startOfDate(date) - startOfDate(localOccasion.date);
  const [first, last] = windows?.[localOccasion.window] ?? WHOLE_DAY;
  const window: [string, string] = [
    begin - shift === oldBegin ? first : formatLocalTime(begin),
    finish - shift === oldFinish ? last : finish === startOfDate(date) + DAY ? '24:00' : formatLocalTime(finish),
  ];
  return { date, ...(window[0] === first && window[1] === last ? {} : { window }) };
}

/** A booking of its own for one occasion of another, carried as `change` says: what copying by hand makes. */
export function copyOccasion(
  plan: Plan,
  { id: _id, ...document }: Booking,
  { date, window }: Pick<LocalOccasion, 'date' | 'window'>,
  change: Rescheduling,
  created: string,
): Patch<'booking'> {
  const day = formatDate(change.date ?? date);
  const [start, end] = change.window ?? document.when.windows?.[window] ?? WHOLE_DAY;
  return {
    kind: 'booking',
    add: {
      ...document,
      ...(change.priority === undefined ? {} : { priority: change.priority }),
      ...(change.takeover === undefined ? {} : { takeover: change.takeover || undefined }),
      name: freeName(plan, `${document.name}, ${spokenDate(change.date ?? date)}`),
      created,
      when: { ...aloneOn(document.when, day), windows: [[start, end]] },
    },
  };
}
