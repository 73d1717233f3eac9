import type { Instant } from '../instant';
import { intervalAt, type Intervals, type Place } from '../when';
import type { Loop, LoopItem, ScreenProgram } from './program';
import { itemInstants, type Segment } from './segments';

/** One item's time on screen, clipped to its segment. */
export interface Play {
  readonly from: Instant;
  readonly to: Instant;
  readonly media: string;
  /** When the item's turn began, before any clipping: where a film that is joined in the middle stands. */
  readonly start: Instant;
  /** Index of the item in its loop. */
  readonly item: number;
}

/** The plays of one segment, in order (domain section 6). The loop runs from `since`, seen or not. */
export function segmentPlays(program: ScreenProgram, place: Place, segment: Segment): Play[] {
  const loop = program.loops[segment.loop];
  if (!loop || segment.since === null) return [];
  return loopPlays(loop, place, segment.since, segment.from, segment.to);
}

function loopPlays(loop: Loop, place: Place, since: Instant, from: Instant, to: Instant): Play[] {
  const available = loop.map((item) => itemInstants(item, place, since, to));
  const edges = edgesOf(available);
  const plays: Play[] = [];
  let at = since;
  let cursor = 0;
  let edge = 0;
  while (at < to) {
    while ((edges[edge] ?? Infinity) <= at) edge++;
    const calm = Math.min(edges[edge] ?? Infinity, from);
    if (calm > at) {
      const cycle = cycleLength(loop, available, at);
      // Whole rounds are skipped, but never up to the edge itself: who is next there depends on who played last before it.
      if (cycle > 0) at += Math.floor((calm - at - 1) / cycle) * cycle;
    }
    const turn = nextAvailable(available, cursor, at);
    if (!turn) {
      at = edges[edge] ?? to;
      continue;
    }
    const { index, until } = turn;
    const item = loop[index] as LoopItem;
    const end = Math.min(at + item.durationMs, until);
    if (end > from)
      plays.push({ from: Math.max(at, from), to: Math.min(end, to), media: item.media, start: at, item: index });
    at = end;
    cursor = (index + 1) % loop.length;
  }
  return plays;
}

/** The instants at which some item begins or ceases to be available, ascending. */
function edgesOf(available: readonly Intervals[]): Instant[] {
  const edges = available.flatMap((intervals) => intervals.flat()).filter((at) => Number.isFinite(at));
  return [...new Set(edges)].sort((a, b) => a - b);
}

/** How long one round of all items available at `at` takes: while none changes, the loop is the same one round later. */
function cycleLength(loop: Loop, available: readonly Intervals[], at: Instant): number {
  let length = 0;
  loop.forEach((item, i) => {
    if (intervalAt(available[i] ?? [], at)) length += item.durationMs;
  });
  return length;
}

function nextAvailable(
  available: readonly Intervals[],
  cursor: number,
  at: Instant,
): { index: number; until: Instant } | null {
  for (let step = 0; step < available.length; step++) {
    const index = (cursor + step) % available.length;
    const interval = intervalAt(available[index] ?? [], at);
    if (interval) return { index, until: interval[1] };
  }
  return null;
}
