import { DAY, type Instant } from '../instant';
import { orThrow } from '../refusal';
import type { OpeningHours, When } from './schema';
import { addDays, dateOfLocalTime, parseDate, startOfDate, type LocalDate, type LocalTime } from './dates';
import { ALWAYS, union, type Intervals } from './intervals';
import { parseRule, ruleDates, type Rule } from './rule';
import { windowsOf, openingOf, type Edge, type Window } from './windows';
import { toInstant, toLocalTime, type ZoneTable } from './zone';

/** One window of a `When` on one date: `[from, to)`, never empty. */
export interface Occurrence {
  readonly from: Instant;
  readonly to: Instant;
}

/** Where a `When` is read: the site's clock and opening hours, the calendars, and the tables of other zones. */
export interface Place {
  readonly zone: ZoneTable;
  readonly hours?: OpeningHours | undefined;
  readonly calendar: (id: string) => ReadonlySet<LocalDate>;
  readonly zoneTable: (name: string) => ZoneTable;
  /** Occurrences that were found before, for one range of time. */
  readonly memo?: OccurrenceMemo | undefined;
}

interface OccurrenceMemo {
  readonly from: Instant;
  readonly to: Instant;
  readonly found: Map<When, Occurrence[]>;
}

/** A memory of occurrences over one range, for places that share clock, hours and calendars. */
export function occurrenceMemo(from: Instant, to: Instant): { readonly memo: OccurrenceMemo } {
  return { memo: { from, to, found: new Map() } };
}

/** A `When` read once. */
interface Compiled {
  readonly from: LocalDate;
  readonly to: LocalDate;
  readonly rule: Rule | null;
  readonly also: readonly LocalDate[];
  readonly except: ReadonlySet<LocalDate>;
  readonly windows: readonly Window[];
}

/** A window may begin two days after its date and run two more (closing past midnight, with an offset). */
const REACH_BACK = 5;
const REACH_AHEAD = 2;

const compiled = new WeakMap<When, Compiled>();

function compile(when: When): Compiled {
  const known = compiled.get(when);
  if (known) return known;
  const dates = (list: readonly string[] | undefined) => (list ?? []).map((text) => parseDate(text) as LocalDate);
  const rule = when.repeat === undefined ? null : orThrow(parseRule(when.repeat));
  const made: Compiled = {
    from: when.from === undefined ? (-Infinity as LocalDate) : (parseDate(when.from) as LocalDate),
    to: when.to === undefined ? (Infinity as LocalDate) : (parseDate(when.to) as LocalDate),
    rule,
    also: dates(when.also),
    except: new Set(dates(when.except)),
    windows: windowsOf(when),
  };
  compiled.set(when, made);
  return made;
}

/** Dates that were found last, with some room around, so that neighbouring zones find them again. */
interface RecentDates {
  readonly first: LocalDate;
  readonly last: LocalDate;
  readonly dates: readonly LocalDate[];
}

const ROOM_DAYS = 3;
const recent = new WeakMap<Compiled, RecentDates>();

/** The dates before calendars are asked: `((rule within from..to) ∪ also) ∖ except`. Dates have no zone, so all screens share them. */
function plainDates(compiledWhen: Compiled, first: LocalDate, last: LocalDate): readonly LocalDate[] {
  let known = recent.get(compiledWhen);
  if (!known || first < known.first || last > known.last) {
    const [begin, end] = [addDays(first, -ROOM_DAYS), addDays(last, ROOM_DAYS)];
    known = { first: begin, last: end, dates: findDates(compiledWhen, begin, end) };
    recent.set(compiledWhen, known);
  }
  return known.dates.filter((date) => date >= first && date <= last);
}

function findDates({ from, to, rule, also, except }: Compiled, first: LocalDate, last: LocalDate): LocalDate[] {
  const begin = Math.max(from, first) as LocalDate;
  const end = Math.min(to, last) as LocalDate;
  let dates: LocalDate[] = [];
  if (rule) dates = ruleDates(rule, from, begin, end);
  else for (let date = begin; date <= end; date = addDays(date, 1)) dates.push(date);
  if (also.length > 0) {
    const more = also.filter((date) => date >= first && date <= last);
    dates = [...new Set([...dates, ...more])].sort((a, b) => a - b);
  }
  return except.size === 0 ? dates : dates.filter((date) => !except.has(date));
}

/** The local dates of a `When` in `first`..`last`, both inclusive, ascending. */
export function datesOf(
  when: When,
  place: Pick<Place, 'calendar'>,
  first: LocalDate,
  last: LocalDate,
): readonly LocalDate[] {
  const dates = plainDates(compile(when), first, last);
  const only = when.only?.map(place.calendar);
  const not = when.not?.map(place.calendar);
  if (!only && !not) return dates;
  return dates.filter((date) => (!only || only.some((set) => set.has(date))) && !not?.some((set) => set.has(date)));
}

/** The occurrences of a `When` that overlap `[from, to)`, by start, whole (not clipped to the range). */
export function occurrences(when: When, place: Place, from: Instant, to: Instant): Occurrence[] {
  const { memo } = place;
  if (!memo || memo.from !== from || memo.to !== to) return findOccurrences(when, place, from, to);
  let found = memo.found.get(when);
  if (!found) memo.found.set(when, (found = findOccurrences(when, place, from, to)));
  return found;
}

/** One window of a `When` on one date, as walls read it. `end` is after `start`. */
export interface LocalOccurrence {
  readonly date: LocalDate;
  /** Index into the windows. */
  readonly window: number;
  readonly start: LocalTime;
  readonly end: LocalTime;
}

/** The windows of a `When`, as walls read them, that may touch the dates `first`..`last`: also some before and after. */
export function localOccurrences(
  when: When,
  place: Pick<Place, 'calendar' | 'hours'>,
  first: LocalDate,
  last: LocalDate,
): LocalOccurrence[] {
  const dates = datesOf(when, place, addDays(first, -REACH_BACK), addDays(last, REACH_AHEAD));
  return dates.flatMap((date) => windowsOn(when, place, date));
}

function windowsOn(when: When, place: Pick<Place, 'hours'>, date: LocalDate): LocalOccurrence[] {
  return compile(when).windows.flatMap((window, i): LocalOccurrence[] => {
    const opening = needsHours(window) ? openingOf(place.hours, date) : null;
    if (needsHours(window) && !opening) return [];
    const start = (startOfDate(date) + read(window.start, opening)) as LocalTime;
    let end = (startOfDate(date) + read(window.end, opening)) as LocalTime;
    if (end <= start) end = (end + DAY) as LocalTime;
    return [{ date, window: i, start, end }];
  });
}

function findOccurrences(when: When, place: Place, from: Instant, to: Instant): Occurrence[] {
  const zone = when.clock === undefined || when.clock === 'site' ? place.zone : place.zoneTable(when.clock);
  const [first, last] = [from, to].map((at) => dateOfLocalTime(toLocalTime(zone, at))) as [LocalDate, LocalDate];
  const byStart = new Map<Instant, Instant>();
  for (const { start, end } of localOccurrences(when, place, first, last)) {
    const begin = toInstant(zone, start);
    const finish = toInstant(zone, end);
    if (finish > begin && begin < to && finish > from)
      byStart.set(begin, Math.max(finish, byStart.get(begin) ?? finish));
  }
  return [...byStart].map(([begin, finish]) => ({ from: begin, to: finish })).sort((a, b) => a.from - b.from);
}

/** What a change of clocks does to one window of a `When` on one date. */
export interface ClockChange {
  readonly date: LocalDate;
  /** How long the window is as written, and how long it lasts: 0 where it does not exist. */
  readonly writtenMs: number;
  readonly lastsMs: number;
}

/** The windows dated in the days of `[from, to)` that a change of clocks shortens, lengthens or removes. */
export function clockChanges(when: When, place: Place, from: Instant, to: Instant): ClockChange[] {
  const zone = when.clock === undefined || when.clock === 'site' ? place.zone : place.zoneTable(when.clock);
  const changes = zone.changes.filter((at) => at >= from && at < to);
  return changes.flatMap((at) => {
    const day = dateOfLocalTime(toLocalTime(zone, at));
    return datesOf(when, place, addDays(day, -2), addDays(day, 1)).flatMap((date) =>
      windowsOn(when, place, date).flatMap(({ start, end }): ClockChange[] => {
        const lastsMs = Math.max(0, toInstant(zone, end) - toInstant(zone, start));
        return lastsMs === end - start ? [] : [{ date, writtenMs: end - start, lastsMs }];
      }),
    );
  });
}

/** The instants of `[from, to)` that a `When` holds, as intervals that may reach beyond the range. */
export function instantsOf(when: When, place: Place, from: Instant, to: Instant): Intervals {
  if (isAlways(when)) return ALWAYS;
  return union(occurrences(when, place, from, to).map((one) => [one.from, one.to] as const));
}

export function isAlways(when: When): boolean {
  return Object.keys(when).every((key) => key === 'clock');
}

function needsHours(window: Window): boolean {
  return window.start.from !== 'midnight' || window.end.from !== 'midnight';
}

function read(edge: Edge, opening: { opens: number; closes: number } | null): number {
  return edge.offset + (edge.from === 'midnight' ? 0 : (opening?.[edge.from] ?? 0));
}
