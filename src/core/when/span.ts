import { DAY, MINUTE, type Instant } from '../instant';
import { done, misread, type Result } from '../refusal';
import { dateOfLocalTime, formatDate, startOfDate, type LocalTime } from './dates';
import { readMoment, readShift } from './moment';
import { LENGTH, clockOf, edgeOf, isBare, minutesOf } from './phrase';
import type { SetOfHours, When } from './schema';
import { parseClock } from './written';
import { toInstant, toLocalTime, zoneTable, type ZoneTable } from './zone';

/** What is put on lasts less than a day: its clock comes to the same time only once. */
const LONGEST = DAY - 1000;

/** Whether it is from a second to a day long. */
export function isSpan(from: Instant, to: Instant): boolean {
  const length = (Math.floor(to / 1000) - Math.floor(from / 1000)) * 1000;
  return length > 0 && length <= LONGEST;
}

/**
 * From one instant to another, to the second, on a zone's clock; on UTC's if that clock is changed in between. Throws a RangeError if
 * it is not from a second to a day long.
 */
export function spanWhen(from: Instant, to: Instant, zone: string): SetOfHours {
  if (!isSpan(from, to)) throw new RangeError('a span is from a second to a day long');
  const [begin, end] = [Math.floor(from / 1000) * 1000, Math.floor(to / 1000) * 1000];
  const table = zoneTable(zone);
  const local = [begin, end].map((at) => toLocalTime(table, at)) as [LocalTime, LocalTime];
  const isExact = local.every((time, i) => toInstant(table, time) === [begin, end][i]);
  if (!isExact || local[1] - local[0] !== end - begin) return spanWhen(from, to, 'UTC');
  const [first, last] = local;
  const date = dateOfLocalTime(first);
  const clock = (time: number) => clockOf(time - startOfDate(dateOfLocalTime(time as LocalTime)));
  const written = clock(last);
  return {
    clock: zone,
    ...{ from: formatDate(date), to: formatDate(date) },
    windows: [[clock(first), written === '00:00' ? '24:00' : written]],
  };
}

/** From when to when a `When` as `spanWhen` makes it is; null where it says anything else. */
export function spanOf(when: When): readonly [Instant, Instant] | null {
  if (when.any) return null;
  const { clock, from, to, windows, ...rest } = when;
  const [window, ...more] = windows ?? [];
  const others = Object.values(rest).some((part) => part !== undefined);
  if (clock === undefined || from === undefined || from !== to || !window || more.length > 0 || others) return null;
  const [first, last, days] = window;
  if (days !== undefined) return null;
  const [begin, end] = [first, last].map((edge) => (edge === '24:00' ? DAY : parseClock(edge)));
  if (begin == null || end == null) return null;
  const midnight = Date.parse(`${from}T00:00:00Z`);
  const table = zoneTable(clock);
  const at = (time: number) => toInstant(table, (midnight + time) as LocalTime);
  return [at(begin), at(end > begin ? end : end + DAY)];
}

/**
 * Reads until when something that begins now lasts: "1 hour", "for 20 minutes", "until 18:00", "+2h", "6am". A time of day is the
 * next such one. Refuses times in the past, or more than a day away.
 */
export function readUntil(text: string, now: Instant, zone: ZoneTable): Result<Instant> {
  const written = text.trim().replace(/^(?:for|until|till|to)\s+/i, '');
  const end = endOf(written, now, zone);
  if (!end.ok) return end;
  if (end.value <= now) return misread('That time is already over. Choose a later one.');
  if (end.value - now > LONGEST)
    return misread('“Put on now” lasts for a day at most. For longer, make a booking in Plan.');
  return end;
}

/**
 * Reads when something is to happen: "tomorrow 06:00", "Mon 5:30", "1 Dec 6am", "in 2 hours". A time of day is the next such
 * one. Refuses times in the past, a day without a time, and other words.
 */
export function readAhead(text: string, now: Instant, zone: ZoneTable): Result<Instant> {
  const written = text.trim().replace(/^(?:at|on|from)\s+/i, '');
  const local = toLocalTime(zone, now);
  const today = dateOfLocalTime(local);
  // Read at two times of day: where that makes a difference none was said.
  const [noon, later] = [DAY / 2, DAY / 2 + 1].map((time) => readMoment(written, today, time));
  if (written !== '' && noon?.ok && later?.ok && noon.value !== later.value)
    return misread('Add a time, e.g. “tomorrow 06:00”.');
  const end = endOf(written, now, zone);
  if (!end.ok)
    return misread(`“${text.trim()}” isn’t a time. Write it like “tomorrow 06:00”, “1 Dec 05:30” or “in 2 hours”.`);
  return end.value > now ? end : misread('That time is already over. Choose a later one.');
}

function endOf(written: string, now: Instant, zone: ZoneTable): Result<Instant> {
  if (new RegExp(`^(?:${LENGTH})$`, 'i').test(written)) return done(now + minutesOf(written) * MINUTE);
  const shift = readShift(written);
  if (shift !== null) return done(now + shift);
  const local = toLocalTime(zone, now);
  const today = dateOfLocalTime(local);
  // A time of day is the next one: "until 5" in either half of the day.
  const edge = edgeOf(written, true);
  const clock = edge === '24:00' ? DAY : parseClock(edge ?? '');
  if (clock !== null) {
    const times = isBare(written) ? [clock, clock + DAY / 2] : [clock];
    const next =
      [...times, ...times.map((time) => time + DAY)].find((time) => startOfDate(today) + time > local) ?? DAY;
    return done(toInstant(zone, (startOfDate(today) + next) as LocalTime));
  }
  const moment = readMoment(written, today, local - startOfDate(today));
  return moment.ok && written !== ''
    ? done(toInstant(zone, moment.value))
    : misread(`“${written}” isn’t an end time. Write it like “1 hour”, “until 18:00” or “tomorrow 06:00”.`);
}
