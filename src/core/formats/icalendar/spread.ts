import { shiftWhen, withoutDate } from '../../booking';
import { DAY } from '../../instant';
import {
  MOST_DAYS,
  MOST_SETS,
  addDays,
  dateOfLocalTime,
  formatDate,
  startOfDate,
  whenOfSets,
  windowBetween,
  type LocalTime,
  type SetOfHours,
  type WrittenWindow,
} from '../../when';
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
    if (one.cancelled) problems.push({ line: one.line, message: `“${one.summary}” is cancelled, so it is left out.` });
    return !one.cancelled;
  });
  return [...kept, ...events].sort((a, b) => a.line - b.line);
}

/** What lasts longer, and is not of whole days, would come to a booking for each of its days. */
const LONGEST = 400 * DAY;

const tooLong = ({ line, summary }: RawEvent): LineProblem => ({
  line,
  message: `“${summary}” lasts longer than ${LONGEST / DAY} days, by hours or again and again, so it is left out.`,
});

const isWholeDays = ({ start, end }: Pick<RawEvent, 'start' | 'end'>) =>
  start === startOfDate(dateOfLocalTime(start)) && end === startOfDate(dateOfLocalTime(end));

/** Events that are windows of one booking, as our own files write them, become one. */
export function joinSiblings(events: readonly RawEvent[]): (RawEvent & { readonly windows: readonly RawEvent[] })[] {
  const joined = new Map<string, RawEvent & { windows: RawEvent[] }>();
  for (const one of events) {
    const first = joined.get(one.sibling ?? '');
    const fit = first && [first, one].every((event) => windowBetween(event.start, event.end) !== null);
    if (fit && first.summary === one.summary && setsOfWindows([...first.windows, one]).length <= MOST_SETS)
      first.windows.push(one);
    else joined.set(one.uid, { ...one, windows: [one] });
  }
  return [...joined.values()];
}

/** Windows on the same dates, by the same clock, are one set of hours. */
function setsOfWindows(windows: readonly RawEvent[]): SetOfHours[] {
  const sets = new Map<string, SetOfHours & { windows: WrittenWindow[] }>();
  for (const { clock, when, start, end } of windows) {
    const dated = { ...(clock === null ? {} : { clock }), ...when };
    const key = JSON.stringify(dated);
    const set = sets.get(key) ?? { ...dated, windows: [] };
    sets.set(key, { ...set, windows: [...set.windows, windowBetween(start, end) ?? [...ALL_DAY]] });
  }
  return [...sets.values()].map(({ windows: list, ...set }) => withWindows(set, list));
}

/** An event as one or more bookings: one that lasts longer than a window can is parted at midnights, added instances at other times stand alone. */
export function spread(
  event: RawEvent & { readonly windows: readonly RawEvent[] },
  problems: LineProblem[],
): CalendarEvent[] {
  const { uid: _uid, sibling: _sibling, cancelled: _cancelled, instance: _instance, windows, others, ...rest } = event;
  const { clock, start, end, when, ...told } = rest;
  const own = clock === null ? {} : { clock };
  const made = (sets: readonly SetOfHours[]): CalendarEvent => ({ ...told, when: whenOfSets(sets) });
  const alone = others.flatMap((one) => {
    if (one.end - one.start > LONGEST) {
      problems.push(tooLong(event));
      return [];
    }
    const day = formatDate(dateOfLocalTime(one.start));
    return partsOf({ from: day, to: day }, one.start, one.end)?.map((set) => made([{ ...own, ...set }])) ?? [];
  });
  const isOurs = told.where !== null;
  if (!isOurs && isWholeDays(event) && when.repeat === undefined && !when.also && !when.except) {
    const to = formatDate(addDays(dateOfLocalTime(end), -1));
    return [made([{ ...own, ...when, to }]), ...alone];
  }
  if (windowBetween(start, end)) return [made(setsOfWindows(windows)), ...alone];
  if (end - start > LONGEST) {
    problems.push(tooLong(event));
    return alone;
  }
  const parts = partsOf(when, start, end);
  if (!parts)
    problems.push({
      line: event.line,
      message: `“${event.summary}” lasts longer than ${MOST_DAYS} days and repeats by months or years, so it is left out.`,
    });
  return [...(parts ?? []).map((set) => made([{ ...own, ...set }])), ...alone];
}

const ALL_DAY: Readonly<WrittenWindow> = ['00:00', '24:00'];

const withWindows = (set: SetOfHours, windows: readonly WrittenWindow[]): SetOfHours =>
  windows.length === 1 && windows[0]?.join() === ALL_DAY.join() ? set : { ...set, windows: [...windows] };

/** A time from start to end, parted at midnights, on the dates of `when` and those after each; null where its dates can't be carried on. */
function partsOf(when: SetOfHours, start: LocalTime, end: LocalTime): SetOfHours[] | null {
  const one = windowBetween(start, end);
  if (one) return [withWindows(when, [one])];
  const first = dateOfLocalTime(start);
  const parts: SetOfHours[] = [];
  for (let day = first; startOfDate(day) < end; day = addDays(day, 1)) {
    const shifted = shiftWhen(when, day - first);
    if (!shifted.ok) return null;
    const [from, to] = [Math.max(start, startOfDate(day)), Math.min(end, startOfDate(addDays(day, 1)))];
    parts.push(withWindows(shifted.value, [windowBetween(from as LocalTime, to as LocalTime) ?? [...ALL_DAY]]));
  }
  return parts;
}
