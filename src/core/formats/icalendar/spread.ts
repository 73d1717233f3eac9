import { shiftWhen, withoutDate } from '../../booking';
import { DAY } from '../../instant';
import type { When } from '../../plan/schema';
import { addDays, dateOfLocalTime, formatDate, formatLocalTime, startOfDate, type LocalTime } from '../../when';
import type { CalendarEvent, LineProblem, RawEvent } from './event';

/** Instances that were changed or cancelled: taken out of their event, and on their own where they still happen. */
export function withInstances(read: readonly RawEvent[], problems: LineProblem[]): RawEvent[] {
  const masters = new Map(read.filter((one) => one.instance === null).map((one) => [one.uid, one]));
  const events: RawEvent[] = [];
  for (const one of read) {
    if (one.instance === null) continue;
    const master = masters.get(one.uid);
    if (master) masters.set(one.uid, { ...master, when: withoutDate(master.when, formatDate(one.instance)) });
    if (!one.cancelled) events.push({ ...one, uid: `${one.uid} ${one.instance}` });
  }
  const kept = [...masters.values()].filter((one) => {
    if (one.cancelled) problems.push({ line: one.line, message: `"${one.summary}" is cancelled: it is left out.` });
    return !one.cancelled;
  });
  return [...kept, ...events].sort((a, b) => a.line - b.line);
}

/** What lasts longer, and is not of whole days, would come to a booking for each of its days. */
const LONGEST = 400 * DAY;

const tooLong = ({ line, summary }: RawEvent): LineProblem => ({
  line,
  message: `"${summary}" lasts longer than ${LONGEST / DAY} days, by hours or again and again: it is left out.`,
});

const isWholeDays = ({ start, end }: Pick<RawEvent, 'start' | 'end'>) =>
  start === startOfDate(dateOfLocalTime(start)) && end === startOfDate(dateOfLocalTime(end));

/** Events that are windows of one booking, as our own files write them, become one with several windows. */
export function joinSiblings(events: readonly RawEvent[]): (RawEvent & { readonly windows: readonly RawEvent[] })[] {
  const joined = new Map<string, RawEvent & { windows: RawEvent[] }>();
  const datesKey = ({ when }: RawEvent) => JSON.stringify(when);
  for (const one of events) {
    const first = joined.get(one.sibling ?? '');
    const short = first && [first, one].every(({ start, end }) => end - start <= DAY);
    if (short && first.summary === one.summary && datesKey(first) === datesKey(one)) first.windows.push(one);
    else joined.set(one.uid, { ...one, windows: [one] });
  }
  return [...joined.values()];
}

/** An event as one or more bookings: one that lasts longer than a day is parted at midnights, added instances at other times stand alone. */
export function spread(
  event: RawEvent & { readonly windows: readonly RawEvent[] },
  problems: LineProblem[],
): CalendarEvent[] {
  const { uid: _uid, sibling: _sibling, cancelled: _cancelled, instance: _instance, windows, others, ...rest } = event;
  const { clock, start: _start, end: _end, when, ...told } = rest;
  const own = clock === null ? {} : { clock };
  const made = (part: When): CalendarEvent => ({ ...told, when: { ...own, ...part } });
  const alone = others.flatMap(({ start, end }) => {
    if (end - start > LONGEST) {
      problems.push(tooLong(event));
      return [];
    }
    const day = formatDate(dateOfLocalTime(start));
    return partsOf(start, end).map(({ days, window }) => {
      const shifted = shiftWhen({ from: day, to: day }, days);
      return made(withWindows(shifted.ok ? shifted.value : {}, window ? [window] : []));
    });
  });
  if (windows.length > 1)
    return [
      made(
        withWindows(
          when,
          windows.flatMap((one) =>
            partsOf(one.start, one.end).map(({ window }): [string, string] => window ?? ['00:00', '24:00']),
          ),
        ),
      ),
      ...alone,
    ];
  if (isWholeDays(event) && when.repeat === undefined && !when.also && !when.except) {
    const to = formatDate(addDays(dateOfLocalTime(event.end), -1));
    return [made({ ...when, to }), ...alone];
  }
  if (event.end - event.start > LONGEST) {
    problems.push(tooLong(event));
    return alone;
  }
  const parts: CalendarEvent[] = [];
  const whole = partsOf(event.start, event.end);
  for (const { days, window } of whole) {
    const shifted = shiftWhen(when, days);
    if (!shifted.ok) {
      problems.push({
        line: event.line,
        message: `"${event.summary}" lasts longer than a day and repeats by months or years: it is left out.`,
      });
      return alone;
    }
    parts.push(made(withWindows(shifted.value, window ? [window] : [])));
  }
  return [...parts, ...alone];
}

const withWindows = (when: When, windows: readonly [string, string][]): When =>
  windows.length === 0 ? when : { ...when, windows: [...windows] };

/** A time from start to end as windows, each with its days after the first; a whole day has none. */
function partsOf(start: LocalTime, end: LocalTime): { days: number; window: [string, string] | null }[] {
  const first = dateOfLocalTime(start);
  if (end - start <= DAY) {
    const whole = start === startOfDate(first) && end - start === DAY;
    const midnight = end === startOfDate(addDays(first, 1));
    return [{ days: 0, window: whole ? null : [formatLocalTime(start), midnight ? '24:00' : formatLocalTime(end)] }];
  }
  const parts: { days: number; window: [string, string] | null }[] = [];
  for (let day = first; startOfDate(day) < end; day = addDays(day, 1)) {
    const [from, to] = [Math.max(start, startOfDate(day)), Math.min(end, startOfDate(addDays(day, 1)))];
    const whole = to - from === DAY;
    const last = to === startOfDate(addDays(day, 1)) ? '24:00' : formatLocalTime(to as LocalTime);
    parts.push({ days: day - first, window: whole ? null : [formatLocalTime(from as LocalTime), last] });
  }
  return parts;
}
