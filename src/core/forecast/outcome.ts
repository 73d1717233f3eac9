import { DAY, HOUR, type Instant } from '../instant';
import { startOfDate, toLocalTime, addDays, type LocalDate, type LocalTime } from '../when';
import type { GroupForecast } from './network';
import { overlayTimes, type OverlayTime } from './drawn';
import { placeOf } from './program';
import type { Segment, Source } from './segments';

/** What shows over a time of a wall's clock. */
export interface OutcomeSpan {
  readonly from: LocalTime;
  readonly to: LocalTime;
  readonly source: Source;
  readonly id: string | null;
}

/** Screens whose walls read the same all the time, be they in other zones. */
export interface OutcomeRow {
  readonly screens: readonly string[];
  readonly spans: readonly OutcomeSpan[];
  /** Bookings that are drawn above it, and when. */
  readonly above: readonly AboveSpan[];
}

/** A time of a wall's clock in which a booking is drawn over whatever shows. */
export interface AboveSpan {
  readonly from: LocalTime;
  readonly to: LocalTime;
  readonly id: string;
}

/** The instants that hold the dates `first`..`last` (inclusive) in every zone of the world: UTC+14 to UTC−12. */
export function outcomeRange(first: LocalDate, last: LocalDate): readonly [Instant, Instant] {
  return [first * DAY - 14 * HOUR, (last + 1) * DAY + 12 * HOUR];
}

/**
 * What shows on the dates `first`..`last` of each site's own clock, in rows of screens that see the same; the largest first.
 * Of the screens in `only` alone, where it is given.
 */
export function outcomeRows(
  outcomes: readonly GroupForecast[],
  first: LocalDate,
  last: LocalDate,
  only?: ReadonlySet<string>,
): OutcomeRow[] {
  const rows = new Map<string, OutcomeRow & { readonly screens: string[] }>();
  for (const outcome of outcomes) {
    const screens = only ? outcome.screens.filter((id) => only.has(id)) : outcome.screens;
    if (screens.length === 0) continue;
    const { key, spans, above } = onWalls(outcome, first, last);
    const row = rows.get(key);
    if (row) row.screens.push(...screens);
    else rows.set(key, { screens: [...screens], spans, above });
  }
  return [...rows.values()].sort((a, b) => b.screens.length - a.screens.length);
}

interface Walls extends Pick<OutcomeRow, 'spans' | 'above'> {
  readonly first: LocalDate;
  readonly last: LocalDate;
  /** Both as text, for finding the same ones. */
  readonly key: string;
}

/** The results of the last reading of segments: while a bar is dragged, most stay the same. */
const walls = new WeakMap<readonly Segment[], Walls>();

function onWalls({ program, segments, place }: GroupForecast, first: LocalDate, last: LocalDate): Walls {
  const before = walls.get(segments);
  if (before?.first === first && before.last === last) return before;
  const wall = (at: Instant) => toLocalTime(placeOf(program).zone, at);
  const spans = spansOf(segments, wall, first, last);
  const above = program.overlays ? aboveOf(overlayTimes(program, place, segments), wall, first, last) : [];
  const made = { first, last, spans, above, key: JSON.stringify([spans, above]) };
  walls.set(segments, made);
  return made;
}

/** Where clocks are put back, the hour that clocks show twice is given as its first reading; days of a backdrop are joined. */
function spansOf(
  segments: readonly Segment[],
  wall: (at: Instant) => LocalTime,
  first: LocalDate,
  last: LocalDate,
): OutcomeSpan[] {
  const [begin, end] = [startOfDate(first), startOfDate(addDays(last, 1))];
  const spans: OutcomeSpan[] = [];
  let reached: LocalTime = begin;
  for (const { from, to, source, id } of segments) {
    const [a, b] = [Math.max(wall(from), reached), Math.min(wall(to), end)] as [LocalTime, LocalTime];
    if (a >= b) continue;
    const before = spans.at(-1);
    if (before && before.source === source && before.id === id && before.to === a)
      spans[spans.length - 1] = { ...before, to: b };
    else spans.push({ from: a, to: b, source, id });
    reached = b;
  }
  return spans;
}

/** Times of one booking that follow each other are joined, since they may have been split where another thing plays below. */
function aboveOf(
  times: readonly Pick<OverlayTime, 'from' | 'to' | 'id'>[],
  wall: (at: Instant) => LocalTime,
  first: LocalDate,
  last: LocalDate,
): AboveSpan[] {
  const [begin, end] = [startOfDate(first), startOfDate(addDays(last, 1))];
  const spans: AboveSpan[] = [];
  for (const { from, to, id } of times) {
    const [a, b] = [Math.max(wall(from), begin), Math.min(wall(to), end)] as [LocalTime, LocalTime];
    if (a >= b) continue;
    const before = spans.findLastIndex((one) => one.id === id);
    const known = spans[before];
    if (known && known.to >= a) spans[before] = { ...known, to: Math.max(known.to, b) as LocalTime };
    else spans.push({ from: a, to: b, id });
  }
  return spans;
}
