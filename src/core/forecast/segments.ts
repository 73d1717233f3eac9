import type { Instant } from '../instant';
import { ALWAYS, instantsOf, intersect, occurrences, subtract, union, type Intervals, type Place } from '../when';
import type { Loop, LoopItem, ScreenProgram } from './program';

export type Source = 'takeover' | 'booking' | 'backdrop' | 'lights-out' | 'nothing';

/** A maximal interval in which one occurrence wins, or lights-out, or nothing. */
export interface Segment {
  readonly from: Instant;
  readonly to: Instant;
  readonly source: Source;
  /** The booking's id; `screen`, `site` or `network` for a backdrop; else null. */
  readonly id: string | null;
  /** Start of the winning occurrence: where its loop's clock began. Null for lights-out and nothing. */
  readonly since: Instant | null;
  /** Index of the winner's loop in the program, -1 where there is none. */
  readonly loop: number;
}

/** One occurrence that may win, over the instants at which it counts. */
export interface Candidate {
  readonly source: 'takeover' | 'booking' | 'backdrop';
  readonly id: string;
  readonly priority: number;
  readonly wake: boolean;
  readonly created: number;
  readonly loop: number;
  readonly since: Instant;
  readonly until: Instant;
  readonly counts: Intervals;
}

const CLASS = { takeover: 2, booking: 1, backdrop: 0 };
const LEVEL = { network: 0, site: 1, screen: 2 };

/** Section 5's order: negative when `a` goes ahead of `b`. */
export function compareCandidates(a: Candidate, b: Candidate): number {
  return (
    CLASS[b.source] - CLASS[a.source] ||
    b.priority - a.priority ||
    b.since - a.since ||
    b.created - a.created ||
    (a.id < b.id ? 1 : a.id > b.id ? -1 : 0)
  );
}

/** When an item may play, over `[from, to)`; the result may reach beyond. */
export function itemInstants(item: LoopItem, place: Place, from: Instant, to: Instant): Intervals {
  return item.when.reduce<Intervals>((all, when) => intersect(all, instantsOf(when, place, from, to)), ALWAYS);
}

function loopInstants(loop: Loop, place: Place, from: Instant, to: Instant): Intervals {
  if (loop.some((item) => item.when.length === 0)) return ALWAYS;
  return union(loop.flatMap((item) => itemInstants(item, place, from, to)));
}

/** Every occurrence that covers part of `[from, to)`, with the instants at which it has something to show. */
export function candidates(program: ScreenProgram, place: Place, from: Instant, to: Instant): Candidate[] {
  const found: Candidate[] = [];
  const shows = program.loops.map((loop) => loopInstants(loop, place, from, to));
  const add = (base: Omit<Candidate, 'since' | 'until' | 'counts'>, when: ScreenProgram['lightsOut'][number]) => {
    const available = shows[base.loop] ?? [];
    for (const one of occurrences(when, place, from, to)) {
      const counts = intersect([[Math.max(one.from, from), Math.min(one.to, to)]], available);
      found.push({ ...base, since: one.from, until: one.to, counts });
    }
  };
  for (const { id, priority, created, when, loop, takeover, wake } of program.bookings)
    add({ source: takeover ? 'takeover' : 'booking', id, priority, wake: wake ?? false, created, loop }, when);
  for (const { level, loop } of program.backdrops)
    add({ source: 'backdrop', id: level, priority: LEVEL[level], wake: false, created: 0, loop }, {});
  return found;
}

/** The hours in which a program switches its display off, over `[from, to)`. */
export function lightsOutInstants(program: ScreenProgram, place: Place, from: Instant, to: Instant): Intervals {
  return union(program.lightsOut.flatMap((when) => instantsOf(when, place, from, to)));
}

/** The segments of `[from, to)`: they tile it exactly. */
export function segments(program: ScreenProgram, place: Place, from: Instant, to: Instant): Segment[] {
  if (from >= to) return [];
  const dark = intersect([[from, to]], lightsOutInstants(program, place, from, to));
  const spans: { from: Instant; to: Instant; candidate: Candidate | null }[] = [];
  for (const candidate of candidates(program, place, from, to)) {
    const counts = candidate.wake ? candidate.counts : subtract(candidate.counts, dark);
    for (const [begin, end] of counts) spans.push({ from: begin, to: end, candidate });
  }
  for (const [begin, end] of dark) spans.push({ from: begin, to: end, candidate: null });
  return sweep(spans, from, to);
}

type Span = { from: Instant; to: Instant; candidate: Candidate | null };

/** Where lights-out and a candidate overlap, the candidate is one that wakes: it goes ahead. */
function compareSpans(a: Span, b: Span): number {
  if (!a.candidate || !b.candidate) return a.candidate ? -1 : b.candidate ? 1 : 0;
  return compareCandidates(a.candidate, b.candidate);
}

function sweep(spans: Span[], from: Instant, to: Instant): Segment[] {
  spans.sort((a, b) => a.from - b.from);
  const result: Segment[] = [];
  const active: Span[] = [];
  let next = 0;
  for (let at = from; at < to;) {
    for (let span = spans[next]; span && span.from <= at; span = spans[++next]) insert(active, span);
    while (active[0] && active[0].to <= at) active.shift();
    const top = active[0];
    const end = Math.min(to, top?.to ?? to, spans[next]?.from ?? to);
    append(result, at, end, top);
    at = end;
  }
  return result;
}

/** Keeps the active spans in winning order; what has ended is dropped when it comes to the top. */
function insert(active: Span[], span: Span): void {
  let [low, high] = [0, active.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (compareSpans(active[middle] as Span, span) <= 0) low = middle + 1;
    else high = middle;
  }
  active.splice(low, 0, span);
}

function append(result: Segment[], from: Instant, to: Instant, span: Span | undefined): void {
  const winner = span?.candidate;
  const segment: Segment = winner
    ? { from, to, source: winner.source, id: winner.id, since: winner.since, loop: winner.loop }
    : { from, to, source: span ? 'lights-out' : 'nothing', id: null, since: null, loop: -1 };
  const last = result.at(-1);
  if (last && last.source === segment.source && last.id === segment.id && last.since === segment.since)
    result[result.length - 1] = { ...last, to };
  else result.push(segment);
}
