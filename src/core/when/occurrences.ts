import { DAY, type Instant } from '../instant';
import { orThrow } from '../refusal';
import type { OpeningHours, SetOfHours, When } from './schema';
import { setsOf } from './sets-of-hours';
import { addDays, dateOfLocalTime, parseDate, startOfDate, type LocalDate, type LocalTime } from './dates';
import { ALWAYS, union, type Intervals } from './intervals';
import { parseRule, ruleDates, type Rule } from './rule';
import type { SunTimes } from './sun';
import { isSun, openingOf, windowsOf, type Window } from './windows';
import { type Edge } from './written';
import { toInstant, toLocalTime, type ZoneTable } from './zone';

/** One window of a `When` on one date: `[from, to)`, never empty. */
export interface Occurrence {
  readonly from: Instant;
  readonly to: Instant;
}

/** What gives a date its windows: the calendars, and what the site has on it. */
export interface DatedPlace {
  readonly calendar: (id: string) => ReadonlySet<LocalDate>;
  readonly hours?: OpeningHours | undefined;
  /** The sun over the site; absent where its location is not known. */
  readonly sun?: ((date: LocalDate) => SunTimes) | undefined;
}

/** Where a `When` is read: the site's clock, opening hours and sun, the calendars, and the tables of other zones. */
export interface Place extends DatedPlace {
  readonly zone: ZoneTable;
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

/** A set of hours read once. */
interface Compiled {
  readonly from: LocalDate;
  readonly to: LocalDate;
  readonly rule: Rule | null;
  readonly also: readonly LocalDate[];
  readonly except: ReadonlySet<LocalDate>;
  readonly windows: readonly Window[];
}

/** A window may begin two days after its date (closing past midnight, with an offset), and end as late on its last date, which is the next or up to seven later. */
const REACH_BACK = 4;
const REACH_AHEAD = 2;

const reachBack = (when: SetOfHours) => REACH_BACK + Math.max(1, ...compile(when).windows.map(({ days }) => days ?? 1));

const compiled = new WeakMap<SetOfHours, Compiled>();

function compile(when: SetOfHours): Compiled {
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

/** The local dates of a set of hours in `first`..`last`, both inclusive, ascending. */
export function datesOf(
  when: SetOfHours,
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
  /** Index into the sets of hours. */
  readonly set: number;
  /** Index into that set's windows. */
  readonly window: number;
  readonly start: LocalTime;
  readonly end: LocalTime;
}

/** The windows of a `When`, as walls read them, that may touch the dates `first`..`last`: also some before and after. */
export function localOccurrences(when: When, place: DatedPlace, first: LocalDate, last: LocalDate): LocalOccurrence[] {
  return setsOf(when).flatMap((set, i) => occurrencesOfSet(set, i, place, first, last));
}

function occurrencesOfSet(
  set: SetOfHours,
  index: number,
  place: DatedPlace,
  first: LocalDate,
  last: LocalDate,
): LocalOccurrence[] {
  const dates = datesOf(set, place, addDays(first, -reachBack(set)), addDays(last, REACH_AHEAD));
  return dates.flatMap((date) => windowsOn(set, index, place, date));
}

function windowsOn(set: SetOfHours, index: number, place: DatedPlace, date: LocalDate): LocalOccurrence[] {
  return compile(set).windows.flatMap(({ start, end, days, passesMidnight }, window): LocalOccurrence[] => {
    const begin = timeOf(start, place, date);
    let finish = timeOf(end, place, addDays(date, days ?? 0));
    if (begin === null || finish === null) return [];
    if (passesMidnight && finish <= begin)
      finish = isSun(end) ? (timeOf(end, place, addDays(date, 1)) ?? finish) : ((finish + DAY) as LocalTime);
    return finish > begin ? [{ date, set: index, window, start: begin, end: finish }] : [];
  });
}

/** When a window's edge is, on a date; null where it follows opening hours and the date has none, or the sun over an unknown place. */
function timeOf(edge: Edge, place: DatedPlace, date: LocalDate): LocalTime | null {
  const { from, offset } = edge;
  if (from === 'midnight') return (startOfDate(date) + offset) as LocalTime;
  if (from === 'sunrise' || from === 'sunset')
    return place.sun ? ((place.sun(date)[from] + offset) as LocalTime) : null;
  const opening = openingOf(place.hours, date);
  return opening && ((startOfDate(date) + opening[from] + offset) as LocalTime);
}

const clockOf = ({ clock }: SetOfHours, place: Place): ZoneTable =>
  clock === undefined || clock === 'site' ? place.zone : place.zoneTable(clock);

function findOccurrences(when: When, place: Place, from: Instant, to: Instant): Occurrence[] {
  const byStart = new Map<Instant, Instant>();
  setsOf(when).forEach((set, i) => {
    const zone = clockOf(set, place);
    const [first, last] = [from, to].map((at) => dateOfLocalTime(toLocalTime(zone, at))) as [LocalDate, LocalDate];
    for (const { start, end } of occurrencesOfSet(set, i, place, first, last)) {
      const begin = toInstant(zone, start);
      const finish = toInstant(zone, end);
      if (finish > begin && begin < to && finish > from)
        byStart.set(begin, Math.max(finish, byStart.get(begin) ?? finish));
    }
  });
  return [...byStart].map(([begin, finish]) => ({ from: begin, to: finish })).sort((a, b) => a.from - b.from);
}

/** What a change of clocks does to one window of a `When` on one date. */
export interface ClockChange {
  readonly date: LocalDate;
  /** How long the window is as written, and how long it lasts: 0 where it does not exist. */
  readonly writtenMs: number;
  readonly lastsMs: number;
}

/** Clocks change in the small hours: a window that ends at opening on that date, or after closing the day before, is reached too. */
const CHANGE_REACH = 3;

/** The windows dated in the days of `[from, to)` that a change of clocks shortens, lengthens or removes. */
export function clockChanges(when: When, place: Place, from: Instant, to: Instant): ClockChange[] {
  return setsOf(when).flatMap((set, i) => {
    const zone = clockOf(set, place);
    const changes = zone.changes.filter((at) => at >= from && at < to);
    return changes.flatMap((at) => {
      const day = dateOfLocalTime(toLocalTime(zone, at));
      return datesOf(set, place, addDays(day, CHANGE_REACH - reachBack(set)), addDays(day, 1)).flatMap((date) =>
        windowsOn(set, i, place, date).flatMap(({ start, end }): ClockChange[] => {
          const lastsMs = Math.max(0, toInstant(zone, end) - toInstant(zone, start));
          return lastsMs === end - start ? [] : [{ date, writtenMs: end - start, lastsMs }];
        }),
      );
    });
  });
}

/** The instants of `[from, to)` that a `When` holds, as intervals that may reach beyond the range. */
export function instantsOf(when: When, place: Place, from: Instant, to: Instant): Intervals {
  if (isAlways(when)) return ALWAYS;
  return union(occurrences(when, place, from, to).map((one) => [one.from, one.to] as const));
}

export function isAlways(when: When): boolean {
  return setsOf(when).some((set) => Object.keys(set).every((key) => key === 'clock'));
}
