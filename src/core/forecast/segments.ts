import type { Instant } from '../instant';
import type { When } from '../plan/schema';
import {
  ALWAYS,
  instantsOf,
  intersect,
  intervalAt,
  occurrences,
  subtract,
  union,
  type Intervals,
  type Place,
} from '../when';
import type { Loop, LoopItem } from './loop';
import { placeOf, type Firing, type ScreenProgram } from './program';

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

/** Who may win: a booking or a backdrop, as one screen sees it. */
interface Contender {
  readonly source: 'takeover' | 'booking' | 'backdrop';
  readonly id: string;
  readonly priority: number;
  readonly wake: boolean;
  readonly created: number;
  readonly loop: number;
}

/** One occurrence that may win, over the instants at which it counts. */
export interface Candidate extends Contender {
  readonly since: Instant;
  readonly until: Instant;
  readonly counts: Intervals;
}

/** A backdrop's when: one object, so that what is remembered of it is found again. */
const EVERY_DAY: When = {};

const CLASS = { takeover: 2, booking: 1, backdrop: 0 };
const LEVEL = { network: 0, site: 1, screen: 2 };

/** Section 5's order: negative when `a` goes ahead of `b`. */
export function compareCandidates(a: Candidate, b: Candidate): number {
  return compareContenders(a, a.since, b, b.since);
}

function compareContenders(a: Contender, aSince: Instant, b: Contender, bSince: Instant): number {
  return (
    CLASS[b.source] - CLASS[a.source] ||
    b.priority - a.priority ||
    bSince - aSince ||
    b.created - a.created ||
    (a.id < b.id ? 1 : a.id > b.id ? -1 : 0)
  );
}

/** When an item may play, over `[from, to)`; the result may reach beyond. A layout may while one of its zones has something to show. */
export function itemInstants(
  program: ScreenProgram,
  item: LoopItem,
  place: Place,
  from: Instant,
  to: Instant,
): Intervals {
  const zones = item.layout === undefined ? ALWAYS : layoutInstants(program, item.layout, place, from, to);
  return item.when.reduce<Intervals>((all, when) => intersect(all, instantsOf(when, place, from, to)), zones);
}

/** When a zone of a layout has something to show, over `[from, to)`; the result may reach beyond. */
export function layoutInstants(
  program: ScreenProgram,
  layout: string,
  place: Place,
  from: Instant,
  to: Instant,
): Intervals {
  const loops = (program.layouts?.[layout]?.zones ?? []).flatMap(({ loop }) => program.loops[loop] ?? []);
  return loops.length === 0 ? [] : loopInstants(program, loops, place, from, to);
}

/** When anything of a loop may play, over `[from, to)`; the result may reach beyond. */
export function loopInstants(program: ScreenProgram, loop: Loop, place: Place, from: Instant, to: Instant): Intervals {
  if (loop.some((item) => item.when.length === 0 && item.layout === undefined)) return ALWAYS;
  return union(loop.flatMap((item) => itemInstants(program, item, place, from, to)));
}

/** A time in which a contender is on. */
interface Occurrence {
  readonly from: Instant;
  readonly to: Instant;
}

/** The occurrences that cover part of `[from, to)` of what is on by the clock, or when its cue is fired. */
function occurrencesOf(
  program: ScreenProgram,
  { when, cue, forMs, loop }: Pick<ScreenProgram['bookings'][number], 'when' | 'cue' | 'forMs' | 'loop'>,
  place: Place,
  from: Instant,
  to: Instant,
): readonly Occurrence[] {
  return cue === undefined
    ? occurrences(when, place, from, to)
    : firedOccurrences(program, { when, cue, forMs, loop }, place, from, to);
}

/**
 * What firings of its cue give a booking (domain section 11): from each that lies in its `when` while something is available, for its time
 * or one round, and until the cue is ended.
 */
function firedOccurrences(
  program: ScreenProgram,
  { when, cue, forMs, loop }: { when: When; cue: string; forMs: number | undefined; loop: number },
  place: Place,
  from: Instant,
  to: Instant,
): Occurrence[] {
  const items = program.loops[loop] ?? [];
  const firings = (program.firings ?? []).filter((one) => one.cue === cue && one.at < to);
  return firings.flatMap(({ at, end }: Firing) => {
    if (end || !intervalAt(instantsOf(when, place, at, at + 1), at)) return [];
    const available = items.filter((item) => intervalAt(itemInstants(program, item, place, at, at + 1), at));
    if (available.length === 0) return [];
    const lasts = forMs ?? available.reduce((sum, { durationMs }) => sum + durationMs, 0);
    const ended = firings.find((one) => one.end && one.at >= at)?.at ?? Infinity;
    const until = Math.min(at + lasts, ended);
    return until > Math.max(at, from) ? [{ from: at, to: until }] : [];
  });
}

/** Until when firings of a cue show something on a program's screen that show it at an instant; null if none does. */
export function firedUntil(program: ScreenProgram, cue: string, at: Instant): Instant | null {
  const place = placeOf(program);
  const fired = program.bookings
    .filter((booking) => booking.cue === cue)
    .flatMap((booking) => occurrencesOf(program, booking, place, at, at + 1));
  return fired.length === 0 ? null : Math.max(...fired.map(({ to }) => to));
}

function contenders(program: ScreenProgram): {
  readonly contender: Contender;
  readonly on: Pick<ScreenProgram['bookings'][number], 'when' | 'cue' | 'forMs' | 'loop'>;
}[] {
  return [
    ...program.bookings.map(({ id, priority, created, when, loop, takeover, wake, cue, forMs }) => ({
      contender: {
        source: takeover ? ('takeover' as const) : ('booking' as const),
        id,
        priority,
        wake: wake ?? false,
        created,
        loop,
      },
      on: { when, cue, forMs, loop },
    })),
    ...program.backdrops.map(({ level, loop }) => ({
      contender: { source: 'backdrop' as const, id: level, priority: LEVEL[level], wake: false, created: 0, loop },
      on: { when: EVERY_DAY, loop },
    })),
  ];
}

/** Every occurrence that covers part of `[from, to)`, with the instants at which it has something to show. */
export function candidates(program: ScreenProgram, place: Place, from: Instant, to: Instant): Candidate[] {
  const shows = program.loops.map((loop) => loopInstants(program, loop, place, from, to));
  return contenders(program).flatMap(({ contender, on }) => {
    const { source, id, priority, wake, created, loop } = contender;
    const available = shows[loop] ?? [];
    return occurrencesOf(program, on, place, from, to).map((one) => {
      const whole: Intervals = [[Math.max(one.from, from), Math.min(one.to, to)]];
      const counts = available === ALWAYS ? whole : intersect(whole, available);
      // Written out: millions are made in a large network, and spreading an object is slow.
      return { source, id, priority, wake, created, loop, since: one.from, until: one.to, counts };
    });
  });
}

/** The hours in which a program switches its display off, over `[from, to)`. */
export function lightsOutInstants(program: ScreenProgram, place: Place, from: Instant, to: Instant): Intervals {
  return union(program.lightsOut.flatMap((when) => instantsOf(when, place, from, to)));
}

/** The segments of `[from, to)`: they tile it exactly. */
export function segments(program: ScreenProgram, place: Place, from: Instant, to: Instant): Segment[] {
  if (from >= to) return [];
  const dark = intersect([[from, to]], lightsOutInstants(program, place, from, to));
  const light = dark.length === 0 ? ALWAYS : subtract([[from, to]], dark);
  const shows = program.loops.map((loop) => loopInstants(program, loop, place, from, to));
  const spans: Span[] = dark.map(([begin, end]) => ({ from: begin, to: end, contender: null, since: null }));
  for (const { contender, on } of contenders(program)) {
    const counts = intersect(shows[contender.loop] ?? [], contender.wake ? ALWAYS : light);
    for (const one of occurrencesOf(program, on, place, from, to)) {
      const [begin, end] = [Math.max(one.from, from), Math.min(one.to, to)];
      if (counts === ALWAYS) spans.push({ from: begin, to: end, contender, since: one.from });
      else
        for (const [first, last] of intersect([[begin, end]], counts))
          spans.push({ from: first, to: last, contender, since: one.from });
    }
  }
  return sweep(spans, from, to);
}

/** The segments that overlap `[from, to)`, of a list that tiles its range in order. */
export function overlapping(tiles: readonly Segment[], from: Instant, to: Instant): readonly Segment[] {
  let [low, high] = [0, tiles.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((tiles[middle]?.to ?? Infinity) <= from) low = middle + 1;
    else high = middle;
  }
  let end = low;
  while (end < tiles.length && (tiles[end]?.from ?? Infinity) < to) end++;
  return tiles.slice(low, end);
}

/** An interval in which one contender wins, or, without a contender, lights-out. */
interface Span {
  readonly from: Instant;
  readonly to: Instant;
  readonly contender: Contender | null;
  readonly since: Instant | null;
}

/** Where lights-out and a contender overlap, it is one that wakes: it goes ahead. */
function compareSpans(a: Span, b: Span): number {
  if (!a.contender || !b.contender) return a.contender ? -1 : b.contender ? 1 : 0;
  return compareContenders(a.contender, a.since ?? 0, b.contender, b.since ?? 0);
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
  const winner = span?.contender;
  const source = winner ? winner.source : span ? 'lights-out' : 'nothing';
  const [id, since, loop] = winner ? [winner.id, span.since, winner.loop] : [null, null, -1];
  const last = result.at(-1);
  if (last && last.source === source && last.id === id && last.since === since)
    result[result.length - 1] = { ...last, to };
  else result.push({ from, to, source, id, since, loop });
}
